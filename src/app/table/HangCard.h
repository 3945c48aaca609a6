// HangCard: asks of pictures that were dropped on the map, by pictures, whether they are to be cut into tiles or hung behind it as
// backdrops, or whether one is the picture of a map, which becomes a map of the tiles that are there.
#pragma once

#include <QImage>

#include "app/look/Card.h"
#include "app/workroom/Session.h"

class QToolButton;

namespace uq {

class HangCard : public Card {
  Q_OBJECT

 public:
  explicit HangCard(QWidget* parent);

  void open(Session& session, const QStringList& paths);

 Q_SIGNALS:
  void cutWanted(const QStringList& paths);
  void hangWanted(const QStringList& paths);
  void mapWanted(const QString& path);
  void closed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void end();

  QStringList paths_;
  QToolButton* cut_;
  QToolButton* hang_;
  QToolButton* map_;
};

}  // namespace uq

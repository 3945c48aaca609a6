// HangCard: asks of pictures that were dropped on the map, by two pictures, whether they are to be cut into tiles or
// hung behind it as backdrops.
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
  void closed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void end();

  QStringList paths_;
  QToolButton* cut_;
  QToolButton* hang_;
};

}  // namespace uq

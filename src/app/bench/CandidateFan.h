// CandidateFan: the tiles that might lie at a spot, fanned out beside it; one press takes one.
//
// The likeliest come first, and have the keys; the rest is one press away. Threads: the interface's.
#pragma once

#include <QFrame>
#include <functional>
#include <vector>

#include "app/workroom/Session.h"
#include "core/document/Edging.h"

namespace uq {

class CandidateFan : public QFrame {
  Q_OBJECT

 public:
  static constexpr std::size_t kFew = 8;
  static constexpr std::size_t kMost = 64;  // that are offered at all

  explicit CandidateFan(QWidget* parent);

  // Beside `spot`, a rectangle of the parent. `lies`: the one that lies there now, marked. `words` says what one shows.
  using Words = std::function<QString(const EdgingMember&)>;
  void open(Session& session, const std::vector<const EdgingMember*>& candidates, const EdgingMember* lies, const QRect& spot, const Words& words);

 Q_SIGNALS:
  void taken(uq::TileId tile, uq::Turn turn);
  void closed();
  void pointedAt(const QString& words);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void hideEvent(QHideEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void layOut(std::size_t count);

  struct Offer {
    TileId tile;
    Turn turn;
    QIcon icon;
    QString words;
    bool lies = false;
  };
  std::vector<Offer> offers_;
  QRect spot_;
};

}  // namespace uq

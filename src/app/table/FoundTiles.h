// FoundTiles: tiles that were looked for, as a list of pictures — by words, used here, or fitting here.
//
// A click or Enter takes one; pointing at one lights its cells on the map; a right click shows the next place where it
// lies. The arrows move over them. Cost: only what is in sight is drawn.
#pragma once

#include <QWidget>
#include <optional>
#include <vector>

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"

namespace uq {

class FoundTiles : public QWidget {
  Q_OBJECT

 public:
  struct Found {
    TileRef tile;
    QString note;  // shown under it, like how often it is used
  };

  explicit FoundTiles(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session) { session_ = session; }
  // `none` is said where nothing was found.
  void show(std::vector<Found> found, const QString& none);
  const std::vector<Found>& found() const { return found_; }
  QRectF rectOf(std::size_t index) const;
  // Takes one into the hand.
  void take(std::size_t index);

 Q_SIGNALS:
  void pointedAt(const QString& tile);
  void lights(std::optional<uq::TileRef> tile);
  void nextPlaceWanted(uq::TileRef tile);
  void leaves();  // the keys lead back up, to what was looked for

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  int columns() const;
  std::optional<std::size_t> indexAt(QPointF at) const;
  void point(std::optional<std::size_t> index);
  void scrollTo(double scroll);
  SwapIn swapIn(Qt::KeyboardModifiers modifiers) const;
  QString swapText(std::size_t onto, SwapIn in) const;

  Session* session_ = nullptr;
  Actions* actions_;
  std::vector<Found> found_;
  QString none_;
  double scroll_ = 0;
  std::optional<std::size_t> pointed_;
  std::optional<std::size_t> pressedOn_;
  std::optional<std::size_t> carried_;  // the tile that is dragged onto another, to become that
};

}  // namespace uq

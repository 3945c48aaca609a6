#include "app/stack/Overview.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {
constexpr int kDelay = 120;  // milliseconds after the last change
}

Overview::Overview(MapCanvas* canvas, QWidget* parent) : QWidget(parent), canvas_(canvas) {
  setObjectName(QStringLiteral("overview"));
  setAccessibleName(tr("Overview of the map"));
  setToolTip(tr("Click or drag to see that part of the map"));
  setMinimumHeight(48);
  setFocusPolicy(Qt::TabFocus);
  timer_.setSingleShot(true);
  connect(&timer_, &QTimer::timeout, this, &Overview::redraw);
  connect(canvas, &MapCanvas::viewChanged, this, qOverload<>(&QWidget::update));
}

void Overview::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  drawnMap_ = {};
  picture_ = {};
  if (session_) {
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.any<Map>()) follow();
    });
    connect(session_, &Session::gestureMoved, this, &Overview::follow);
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      if (change.map || change.sight) follow();
    });
  }
  follow();
}

void Overview::follow() {
  const Map* map = session_ ? session_->map() : nullptr;
  setVisible(map != nullptr);
  if (!map) {
    picture_ = {};
    return;
  }
  const bool same = drawnMap_ == map->id && drawn_.is(map->revision) && drawnHidden_ == session_->desk().hidden &&
                    drawnFromAbove_ == session_->desk().planView;
  // The first picture of a map comes at once; later ones when the hand rests.
  if (!same && !timer_.isActive()) timer_.start(drawnMap_ == map->id ? kDelay : 0);
}

void Overview::redraw() {
  const Map* map = session_ ? canvas_->map() : nullptr;
  if (!map) return;
  const QSize most = ((QSizeF(size()) - QSizeF(2, 2)) * devicePixelRatioF()).toSize();
  const SmallPicture small =
      smallPicture(session_->painter(), canvas_->quilt(), *map, most, {session_->desk().hidden, {}});
  picture_ = small.picture;
  covers_ = small.covers;
  drawnFromAbove_ = session_->desk().planView;
  picture_.setDevicePixelRatio(devicePixelRatioF());
  drawn_ = map->revision;
  drawnMap_ = map->id;
  drawnHidden_ = session_->desk().hidden;
  update();
}

QRectF Overview::pictureRect() const {
  const QSizeF size = picture_.deviceIndependentSize();
  return {QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size};
}

QPointF Overview::placeOf(QPointF pixel) const {
  if (picture_.isNull() || !session_->map()) return {};
  const QRectF on = pictureRect();
  return on.topLeft() +
         QPointF((pixel.x() - covers_.x) * on.width() / covers_.w, (pixel.y() - covers_.y) * on.height() / covers_.h);
}

void Overview::paintEvent(QPaintEvent*) {
  const Theme& theme = Theme::current();
  QPainter painter(this);
  painter.fillRect(rect(), theme.surround);
  if (picture_.isNull() || !session_->map()) return;
  const QRectF on = pictureRect();
  QPolygonF ground;
  for (const PixelPos at : makeGrid(canvas_->map()->grid)->perimeter(canvas_->map()->bounds)) {
    ground << placeOf(QPointF(at.x, at.y));
  }
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme.surround.lighter(118));
  painter.drawPolygon(ground);
  painter.drawImage(on.topLeft(), picture_);
  const QRectF seen = canvas_->seenPixels();
  const QRectF part =
      QRectF(placeOf(seen.topLeft()), placeOf(seen.bottomRight())).intersected(on.adjusted(-1, -1, 1, 1));
  drawStitches(painter, part.adjusted(1, 1, -1, -1), hasFocus() ? theme.woad : theme.madder, theme.paper);
}

void Overview::resizeEvent(QResizeEvent*) { timer_.start(picture_.isNull() ? 0 : kDelay); }

void Overview::look(QPointF at) {
  if (picture_.isNull() || !session_->map()) return;
  const QRectF on = pictureRect();
  canvas_->centreOn({covers_.x + (at.x() - on.left()) * covers_.w / on.width(),
                     covers_.y + (at.y() - on.top()) * covers_.h / on.height()});
}

void Overview::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) look(event->position());
}

void Overview::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) look(event->position());
}

void Overview::keyPressEvent(QKeyEvent* event) {
  const QRectF seen = canvas_->seenPixels();
  const QPointF step(seen.width() / 4, seen.height() / 4);
  const auto move = [&](int dx, int dy) { canvas_->centreOn(seen.center() + QPointF(dx * step.x(), dy * step.y())); };
  switch (event->key()) {
    case Qt::Key_Left: return move(-1, 0);
    case Qt::Key_Right: return move(1, 0);
    case Qt::Key_Up: return move(0, -1);
    case Qt::Key_Down: return move(0, 1);
    default: QWidget::keyPressEvent(event);
  }
}

}  // namespace uq

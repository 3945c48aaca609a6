#include "app/bench/PatchView.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "raster/MapPainter.h"

namespace uq {

namespace {

constexpr double kLargest = 4;  // times a map pixel
constexpr int kMargin = 10;     // logical pixels round the patch

}  // namespace

PatchView::PatchView(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("patch"));
  setAccessibleName(tr("Test patch: what was understood of these tiles"));
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(240, 160);
}

void PatchView::show(Session* session, const Edging* edging, const GridShape& shape) {
  const bool isOther = !session || !edging || !edging_ || edging_->id != edging->id;
  session_ = session;
  edging_ = edging ? std::optional(*edging) : std::nullopt;
  shape_ = shape;
  if (isOther) {
    own_.clear();
    frame_.reset();
    brush_.reset();
  }
  stroke_.reset();
  build();
}

void PatchView::build() {
  patch_.reset();
  if (session_ && edging_) patch_ = std::make_unique<TestPatch>(session_->quilt(), *edging_, shape_, own_);
  fit();
}

void PatchView::setStandIns(bool shown) {
  if (standIns_ == shown) return;
  standIns_ = shown;
  draw();
}

void PatchView::clean() {
  own_.clear();
  build();
  Q_EMIT paintedOn();
}

void PatchView::setChosen(std::optional<CellPos> spot) {
  chosen_ = spot;
  update();
}

void PatchView::fit() {
  if (!patch_) return update();
  const PixelRect all = makeGrid(shape_)->pixelBounds(patch_->map().bounds);
  view_.size = size();
  view_.ratio = devicePixelRatioF();
  const double room = std::min((width() - 2.0 * kMargin) / all.w, (height() - 2.0 * kMargin) / all.h);
  // Whole device pixels a map pixel, where there is room for one.
  const double times = room * view_.ratio;
  view_.zoom = (times >= 1 ? std::min(kLargest * view_.ratio, std::floor(times)) : times) / view_.ratio;
  view_.centreOn({all.x + all.w / 2.0, all.y + all.h / 2.0});
  draw();
}

bool PatchView::isMissing(CellPos cell) const {
  const auto spot = patch_->spotAt(cell);
  return spot && spot->cost > 0;
}

void PatchView::draw() {
  update();
  if (!patch_ || view_.size.isEmpty()) return;
  missing_.clear();
  const CellRect bounds = patch_->map().bounds;
  for (int y = bounds.y0; y < bounds.y1; ++y) {
    for (int x = bounds.x0; x < bounds.x1; ++x) {
      if (isMissing({x, y})) missing_.push_back({x, y});
    }
  }
  Map map = patch_->map();
  if (!standIns_ && !missing_.empty()) {
    Layer layer = map.layers.front().read();
    for (const CellPos cell : missing_) layer.lay(cell, Laid{});
    map.layers.front() = Shared<Layer>(std::move(layer));
    map.revision = Revision::next();
  }
  picture_ = QImage(view_.deviceSize(), QImage::Format_ARGB32_Premultiplied);
  picture_.fill(Theme::current().surround);
  session_->painter().drawOver(picture_, patch_->quilt(), map, runsOf(map, {}), view_.scale(), view_.window());
  picture_.setDevicePixelRatio(view_.ratio);
}

QRectF PatchView::cellRect(CellPos cell) const { return patch_ ? Plane(view_, shape_).cellRect(cell) : QRectF(); }

void PatchView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.surround);
  if (!patch_) return;
  painter.drawImage(QPointF(), picture_);
  painter.setRenderHint(QPainter::Antialiasing, shape_.kind != GridKind::orthogonal);
  const Plane plane(view_, shape_);
  const auto outline = [&](CellPos cell, const QColor& thread, const QColor& gap) {
    drawStitches(painter, QPolygonF(plane.pointsOf(plane.grid().outline(cell))), thread, gap);
  };
  for (const CellPos cell : missing_) outline(cell, theme.weld, theme.paper);
  if (pointed_ && !chosen_) outline(*pointed_, theme.ink, theme.paper);
  if (frame_ && hasFocus()) outline(*frame_, theme.woad, theme.paper);
  if (chosen_) outline(*chosen_, theme.madder, theme.paper);
}

void PatchView::resizeEvent(QResizeEvent*) { fit(); }

std::optional<CellPos> PatchView::cellUnder(QPointF at) const {
  if (!patch_) return std::nullopt;
  const CellPos cell = Plane(view_, shape_).cellAt(at);
  return patch_->map().bounds.contains(cell) ? std::optional(cell) : std::nullopt;
}

void PatchView::point(std::optional<CellPos> cell) {
  if (pointed_ == cell) return;
  pointed_ = cell;
  update();
  Q_EMIT pointedAt(cell);
}

void PatchView::paintStroke(const PatchStroke& stroke) {
  patch_->paint(stroke);
  draw();
}

void PatchView::mousePressEvent(QMouseEvent* event) {
  const auto cell = cellUnder(event->position());
  if (event->button() != Qt::LeftButton || !cell) return;
  frame_.reset();
  if (!brush_) {
    Q_EMIT spotPressed(*cell);
    return;
  }
  stroke_ = PatchStroke{{*cell}, *brush_, event->modifiers().testFlag(Qt::ControlModifier)};
  paintStroke(*stroke_);
}

void PatchView::mouseMoveEvent(QMouseEvent* event) {
  const auto cell = cellUnder(event->position());
  point(cell);
  if (!stroke_ || !cell || stroke_->cells.back() == *cell) return;
  for (const CellPos at : makeGrid(shape_)->sideLine(stroke_->cells.back(), *cell)) {
    if (at != stroke_->cells.back()) stroke_->cells.push_back(at);
  }
  // Laid anew as a whole, so that a path runs on.
  own_.push_back(*stroke_);
  patch_ = std::make_unique<TestPatch>(session_->quilt(), *edging_, shape_, own_);
  own_.pop_back();
  draw();
}

void PatchView::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || !stroke_) return;
  own_.push_back(*stroke_);
  stroke_.reset();
  Q_EMIT paintedOn();
}

void PatchView::leaveEvent(QEvent*) { point(std::nullopt); }

void PatchView::focusOutEvent(QFocusEvent*) { update(); }

void PatchView::keyPressEvent(QKeyEvent* event) {
  if (!patch_) return QWidget::keyPressEvent(event);
  const CellRect bounds = patch_->map().bounds;
  const auto step = [&](int dx, int dy) {
    const CellPos from = frame_.value_or(CellPos{(bounds.x0 + bounds.x1) / 2, (bounds.y0 + bounds.y1) / 2});
    const CellPos to = frame_ ? makeGrid(shape_)->stepped(from, dx, dy) : from;
    if (bounds.contains(to)) frame_ = to;
    point(frame_);
    update();
  };
  switch (event->key()) {
    case Qt::Key_Left: return step(-1, 0);
    case Qt::Key_Right: return step(1, 0);
    case Qt::Key_Up: return step(0, -1);
    case Qt::Key_Down: return step(0, 1);
    case Qt::Key_Return:
    case Qt::Key_Enter:
    case Qt::Key_Space: {
      if (!frame_) return step(0, 0);
      if (!brush_) {
        Q_EMIT spotPressed(*frame_);
        return;
      }
      own_.push_back({{*frame_}, *brush_, event->modifiers().testFlag(Qt::ControlModifier)});
      build();
      Q_EMIT paintedOn();
      return;
    }
    default: QWidget::keyPressEvent(event);
  }
}

}  // namespace uq

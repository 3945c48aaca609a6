#include "app/look/Panes.h"

#include <QApplication>
#include <QMouseEvent>
#include <QPainter>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr int kShown = 22;  // logical pixels of a seam that nobody points at
constexpr int kMostRoom = 100'000;

class PaneSeam : public QSplitterHandle {
 public:
  PaneSeam(Qt::Orientation orientation, Panes* panes) : QSplitterHandle(orientation, panes), panes_(panes) {
    setAttribute(Qt::WA_Hover);
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    const Theme& theme = Theme::current();
    painter.fillRect(rect(), theme.panel);
    const bool upright = orientation() == Qt::Horizontal;
    const QPointF middle = QRectF(rect()).center();
    const bool meant = underMouse();
    const double half = meant ? (upright ? height() : width()) / 2.0 - 2 : kShown / 2.0;
    const QPointF along = upright ? QPointF(0, half) : QPointF(half, 0);
    drawStitchLine(painter, QLineF(middle - along, middle + along), meant ? theme.woad : theme.softInk, theme.panel);
  }

  void mousePressEvent(QMouseEvent* event) override {
    pressedAt_ = event->globalPosition();
    drags_ = event->button() != Qt::LeftButton;
    QSplitterHandle::mousePressEvent(event);
  }

  void mouseMoveEvent(QMouseEvent* event) override {
    const QPointF by = event->globalPosition() - pressedAt_;
    drags_ = drags_ || by.manhattanLength() >= QApplication::startDragDistance();
    if (drags_) QSplitterHandle::mouseMoveEvent(event);
  }

  void mouseReleaseEvent(QMouseEvent* event) override {
    QSplitterHandle::mouseReleaseEvent(event);
    if (!drags_) Q_EMIT panes_->seamPressed(panes_->indexOf(this));
  }

 private:
  Panes* panes_;
  QPointF pressedAt_;
  bool drags_ = true;
};

}  // namespace

Panes::Panes(Qt::Orientation orientation, QWidget* parent) : QSplitter(orientation, parent) {
  setHandleWidth(kPaneSeam);
  setChildrenCollapsible(false);
}

Json Panes::keptSizes() const {
  Json::Array all;
  for (const int size : sizes()) all.emplace_back(size);
  return all;
}

void Panes::useSizes(const Json& kept) {
  const auto* all = kept.as<Json::Array>();
  if (!all || static_cast<int>(all->size()) != count()) return;
  QList<int> taken;
  for (const Json& one : *all) {
    const auto* size = one.as<std::int64_t>();
    if (!size || *size < 0 || *size > kMostRoom) return;
    taken << static_cast<int>(*size);
  }
  setSizes(taken);
}

QSplitterHandle* Panes::createHandle() { return new PaneSeam(orientation(), this); }

}  // namespace uq

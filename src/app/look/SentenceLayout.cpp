#include "app/look/SentenceLayout.h"

#include <QWidget>
#include <algorithm>

namespace uq {

SentenceLayout::SentenceLayout(std::initializer_list<QWidget*> parts, int gap) {
  setSpacing(gap);
  setContentsMargins(0, 0, 0, 0);
  for (QWidget* part : parts) addWidget(part);
}

SentenceLayout::~SentenceLayout() { qDeleteAll(items_); }

QLayoutItem* SentenceLayout::takeAt(int index) {
  return index >= 0 && index < items_.size() ? items_.takeAt(index) : nullptr;
}

QSize SentenceLayout::minimumSize() const {
  QSize size;
  for (const QLayoutItem* item : items_) size = size.expandedTo(item->minimumSize());
  return size;
}

QSize SentenceLayout::sizeHint() const {
  QSize size;
  for (const QLayoutItem* item : items_) {
    if (item->isEmpty()) continue;
    size.rwidth() += item->sizeHint().width() + (size.width() > 0 ? spacing() : 0);
    size.setHeight(std::max(size.height(), item->sizeHint().height()));
  }
  return size;
}

void SentenceLayout::setGeometry(const QRect& rect) {
  QLayout::setGeometry(rect);
  arrange(rect, true);
}

int SentenceLayout::arrange(const QRect& rect, bool put) const {
  int y = rect.y();
  int height = 0;
  QList<QLayoutItem*> line;
  int width = 0;
  const auto finish = [&] {
    int x = rect.x();
    for (QLayoutItem* item : line) {
      const QSize size = item->sizeHint();
      if (put) item->setGeometry({QPoint(x, y + (height - size.height()) / 2), size});
      x += size.width() + spacing();
    }
    line.clear();
    width = 0;
  };
  for (QLayoutItem* item : items_) {
    if (item->isEmpty()) continue;
    const QSize size = item->sizeHint();
    if (!line.isEmpty() && width + spacing() + size.width() > rect.width()) {
      finish();
      y += height + spacing();
      height = 0;
    }
    width += size.width() + (line.isEmpty() ? 0 : spacing());
    height = std::max(height, size.height());
    line << item;
  }
  finish();
  return y + height - rect.y();
}

}  // namespace uq

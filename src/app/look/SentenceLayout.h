// SentenceLayout: words and fields one after the other, as a sentence is written; what has no room goes to the next
// line. Every part is as wide as it wants to be, and stands in the middle of its line's height.
#pragma once

#include <QLayout>
#include <QList>

namespace uq {

class SentenceLayout : public QLayout {
 public:
  explicit SentenceLayout(std::initializer_list<QWidget*> parts, int gap = 5);
  ~SentenceLayout() override;

  void addItem(QLayoutItem* item) override { items_ << item; }
  int count() const override { return static_cast<int>(items_.size()); }
  QLayoutItem* itemAt(int index) const override { return items_.value(index); }
  QLayoutItem* takeAt(int index) override;
  Qt::Orientations expandingDirections() const override { return {}; }
  bool hasHeightForWidth() const override { return true; }
  int heightForWidth(int width) const override { return arrange({0, 0, width, 0}, false); }
  QSize minimumSize() const override;  // one part a line
  QSize sizeHint() const override;     // one line
  void setGeometry(const QRect& rect) override;

 private:
  // The height that the parts need; puts them there if wanted.
  int arrange(const QRect& rect, bool put) const;

  QList<QLayoutItem*> items_;
};

}  // namespace uq

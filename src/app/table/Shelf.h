// Shelf: the quilt's stamps on the Table, each by its picture.
//
// A click takes one, a drag lays it elsewhere among the others, a double click renames it; a right click opens its
// card: how often it is laid, correcting it, alone or with what was laid of it, deleting it. What is in hand comes here by K, or by being dropped here.
#pragma once

#include <QFrame>
#include <QPointer>
#include <map>

#include "app/workroom/Session.h"

namespace uq {

class Shelf : public QWidget {
  Q_OBJECT

 public:
  explicit Shelf(QWidget* parent = nullptr);
  ~Shelf() override;

  void setSession(Session* session);
  QSize sizeHint() const override;
  QRectF rectOf(std::size_t index) const;
  // The card of a stamp, while it is open; else nullptr.
  QWidget* card() const { return card_; }

 Q_SIGNALS:
  void pointedAt(const QString& stamp);
  // Cells of the map that is worked on, of which the card speaks; empty when of none.
  void showsCells(const CellSet& cells);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  int columns() const;
  void refresh();
  std::optional<std::size_t> indexAt(QPointF at) const;
  void point(std::optional<std::size_t> index);
  void openCard(std::size_t index);
  // The buttons that correct a stamp.
  struct Correction {
    const char* name;
    QString text;
    StampVerbs::Places places;
  };
  std::vector<Correction> corrections(const std::vector<LaidStamp>& laid) const;
  void rename(std::size_t index);

  Session* session_ = nullptr;
  std::vector<Id> stamps_;
  std::optional<std::size_t> pointed_;
  std::optional<std::size_t> pressed_;
  bool carries_ = false;
  int scroll_ = 0;  // rows
  QPointer<QWidget> card_;
  std::map<const QObject*, CellSet> shown_;  // by button of the card: the cells that it speaks of
};

}  // namespace uq

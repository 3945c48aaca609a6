#include "app/look/SentenceList.h"

#include <QAbstractListModel>
#include <QKeyEvent>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QTextLayout>

#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr int kLines = 3;
constexpr int kPad = 5;  // logical pixels

class SentenceModel : public QAbstractListModel {
 public:
  using QAbstractListModel::QAbstractListModel;
  int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : rows.count; }
  QVariant data(const QModelIndex& index, int role) const override {
    const bool words = role == Qt::DisplayRole || role == Qt::ToolTipRole || role == Qt::AccessibleTextRole;
    return words && index.row() < rows.count ? QVariant(rows.words(index.row())) : QVariant();
  }
  void take(SentenceList::Rows next) {
    beginResetModel();
    rows = std::move(next);
    endResetModel();
  }
  SentenceList::Rows rows;
};

class SentencePainter : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;

  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex&) const override {
    return {64, kLines * option.fontMetrics.height() + 2 * kPad};
  }

  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Theme& theme = Theme::current();
    const bool isCurrent = option.state & QStyle::State_Selected;
    painter->save();
    if (isCurrent) {
      painter->fillRect(option.rect, theme.paper);
      painter->fillRect(QRect(option.rect.left(), option.rect.top() + 2, 3, option.rect.height() - 4), theme.madder);
    }
    painter->setPen(theme.edge);
    painter->drawLine(option.rect.bottomLeft(), option.rect.bottomRight());
    painter->setPen(theme.ink);
    QFont font = option.font;
    const auto* model = static_cast<const SentenceModel*>(index.model());
    font.setStrikeOut(model->rows.isDone && model->rows.isDone(index.row()));
    painter->setFont(font);
    const QRect room = option.rect.adjusted(kPad + 4, kPad, -kPad, -kPad);
    // Only what may be seen is laid out: names can be very long.
    QString words = index.data(Qt::DisplayRole).toString().left(400);
    words.replace(QLatin1Char('\n'), QChar::LineSeparator);
    QTextLayout layout(words, font);
    layout.beginLayout();
    int top = room.top();
    for (int i = 0; i < kLines; ++i) {
      QTextLine line = layout.createLine();
      if (!line.isValid()) break;
      line.setLineWidth(room.width());
      const QString rest = words.mid(line.textStart());
      const bool isLast = i + 1 == kLines;
      QString shown = isLast ? rest : words.mid(line.textStart(), line.textLength());
      shown.replace(QChar::LineSeparator, QLatin1Char(' '));
      painter->drawText(room.left(), top + option.fontMetrics.ascent(), option.fontMetrics.elidedText(shown.trimmed(), Qt::ElideRight, room.width()));
      top += option.fontMetrics.height();
    }
    layout.endLayout();
    painter->restore();
  }
};

SentenceModel* modelOf(const SentenceList& list) { return static_cast<SentenceModel*>(list.model()); }

}  // namespace

SentenceList::SentenceList(QWidget* parent) : QListView(parent) {
  setModel(new SentenceModel(this));
  setItemDelegate(new SentencePainter(this));
  setUniformItemSizes(true);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setVerticalScrollMode(ScrollPerPixel);
  setFrameShape(NoFrame);
  connect(this, &QListView::clicked, this, [this](const QModelIndex& index) { Q_EMIT rowChosen(index.row()); });
  connect(this, &QListView::doubleClicked, this, [this](const QModelIndex& index) { Q_EMIT rowOpened(index.row()); });
}

void SentenceList::show(Rows rows) {
  const int at = row();
  const int scrolled = verticalOffset();
  modelOf(*this)->take(std::move(rows));
  if (at < 0 || at >= count()) return;
  setCurrentIndex(model()->index(at, 0));
  scrollTo(currentIndex());
  if (scrolled == 0) scrollToTop();
}

QString SentenceList::words(int row) const { return model()->index(row, 0).data(Qt::DisplayRole).toString(); }

void SentenceList::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return Q_EMIT handsFree();
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
    if (row() >= 0) Q_EMIT rowOpened(row());
    return;
  }
  const int before = row();
  QListView::keyPressEvent(event);
  if (row() != before && row() >= 0) Q_EMIT rowChosen(row());
}

void SentenceList::resizeEvent(QResizeEvent* event) {
  QListView::resizeEvent(event);
  scheduleDelayedItemsLayout();
}

}  // namespace uq

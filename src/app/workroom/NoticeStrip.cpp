#include "app/workroom/NoticeStrip.h"

#include <QEvent>
#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>
#include <algorithm>

#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr int kMostLines = 6;
}

NoticeStrip::NoticeStrip(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("notices"));
  setAutoFillBackground(true);
  label_ = new QLabel(this);
  label_->setObjectName(QStringLiteral("notice-text"));
  label_->setWordWrap(true);
  label_->setTextFormat(Qt::RichText);
  label_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  label_->setFocusPolicy(Qt::NoFocus);
  auto* close = new QToolButton(this);
  close->setObjectName(QStringLiteral("notice-close"));
  close->setText(tr("Close"));
  close->setAccessibleName(tr("Close this notice"));
  close->setFocusPolicy(Qt::TabFocus);
  connect(close, &QToolButton::clicked, this, &QWidget::hide);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(kGap + 4, kGap / 2, kGap, kGap / 2);
  layout->addWidget(label_, 1);
  layout->addWidget(close, 0, Qt::AlignTop);
  hide();
}

void NoticeStrip::tell(const QStringList& texts) {
  QStringList lines = texts.mid(0, kMostLines);
  if (texts.size() > kMostLines) {
    lines << tr("… and %1 more. ‘uquilt check’ lists them all.").arg(texts.size() - kMostLines);
  }
  texts_ = lines.join(QLatin1Char('\n'));
  // One paragraph a notice, so that several can be told apart.
  for (QString& line : lines) {
    line = QStringLiteral("<p style='margin-top:3px; margin-bottom:3px'>%1</p>").arg(line.toHtmlEscaped());
  }
  label_->setText(lines.join(QString()));
  setVisible(!lines.isEmpty());
  place();
}

void NoticeStrip::lieOver(QWidget* below) {
  if (below_) below_->removeEventFilter(this);
  below_ = below;
  below_->installEventFilter(this);
  place();
}

bool NoticeStrip::eventFilter(QObject* watched, QEvent* event) {
  const bool moves = event->type() == QEvent::Resize || event->type() == QEvent::Move || event->type() == QEvent::Show;
  if (watched == below_ && moves) place();
  return QFrame::eventFilter(watched, event);
}

void NoticeStrip::place() {
  if (!below_ || isHidden()) return;
  const QPoint at = below_->mapTo(parentWidget(), QPoint());
  const int height = std::min(layout()->heightForWidth(below_->width()), below_->height());
  setGeometry(at.x(), at.y(), below_->width(), height);
  raise();
}

QString NoticeStrip::text() const { return isVisible() ? texts_ : QString(); }

}  // namespace uq

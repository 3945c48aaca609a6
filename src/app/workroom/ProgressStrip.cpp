#include "app/workroom/ProgressStrip.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QToolButton>

#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr int kRefreshEvery = 100;  // milliseconds
}

ProgressStrip::ProgressStrip(LongWork* work, QWidget* parent) : QFrame(parent), work_(work) {
  setObjectName(QStringLiteral("progress"));
  label_ = new QLabel(this);
  label_->setObjectName(QStringLiteral("progress-text"));
  bar_ = new QProgressBar(this);
  bar_->setRange(0, 1000);
  bar_->setTextVisible(false);
  bar_->setFixedHeight(10);
  cancel_ = new QToolButton(this);
  cancel_->setObjectName(QStringLiteral("progress-cancel"));
  cancel_->setText(tr("Cancel"));
  cancel_->setFocusPolicy(Qt::TabFocus);
  connect(cancel_, &QToolButton::clicked, this, [this] {
    work_->cancel();
    refresh();
  });
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(kGap + 4, 0, kGap, 0);
  layout->setSpacing(kGap);
  layout->addWidget(label_);
  bar_->setFixedWidth(160);
  layout->addWidget(bar_);
  layout->addWidget(cancel_);
  hide();
  timer_.setInterval(kShownAfter);
  connect(&timer_, &QTimer::timeout, this, [this] {
    timer_.setInterval(kRefreshEvery);
    refresh();
    if (isVisible()) return;
    show();
    Q_EMIT shown();
  });
  connect(work_, &LongWork::began, this, [this] {
    cancel_->setEnabled(true);
    timer_.start(kShownAfter);
  });
  connect(work_, &LongWork::ended, this, [this] {
    timer_.stop();
    hide();
  });
}

void ProgressStrip::refresh() {
  if (!work_->isRunning()) return;
  const bool stopping = work_->isCancelled();
  label_->setText(stopping ? tr("Stopping…") : work_->title());
  cancel_->setEnabled(!stopping && work_->mayCancel());
  cancel_->setToolTip(work_->mayCancel() ? QString() : tr("What was done meanwhile would be lost"));
  bar_->setValue(work_->perMille());
  bar_->setAccessibleName(work_->title());
}

}  // namespace uq

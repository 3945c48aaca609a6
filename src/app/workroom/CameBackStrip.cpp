#include "app/workroom/CameBackStrip.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>

#include "app/actions/SaveByItself.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/WorkKeeper.h"

namespace uq {

CameBackStrip::CameBackStrip(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("came-back"));
  setAccessibleName(tr("Work that was not saved came back"));
  makeCard(this);
  words_ = makeTitle({}, this);
  words_->setObjectName(QStringLiteral("came-back-text"));
  const auto shown = [this] {
    auto* label = new QLabel(this);
    label->setAlignment(Qt::AlignCenter);
    return label;
  };
  now_ = shown();
  then_ = shown();
  goOn_ = new QPushButton(tr("Go on with it"), this);
  goOn_->setObjectName(QStringLiteral("came-back-go-on"));
  goOn_->setDefault(true);
  saved_ = new QPushButton(tr("Look at what was saved"), this);
  saved_->setObjectName(QStringLiteral("came-back-saved"));
  saved_->setToolTip(tr("What was kept lies aside then; ‘uquilt recover’ brings it back"));
  byItself_ = new QCheckBox(tr("From now on save by itself, every %1 minutes").arg(SaveByItself::kMinutes), this);
  byItself_->setObjectName(QStringLiteral("came-back-by-itself"));
  connect(goOn_, &QPushButton::clicked, this, [this] {
    answer();
    Q_EMIT goesOn();
  });
  connect(saved_, &QPushButton::clicked, this, [this] {
    answer();
    Q_EMIT savedWanted();
  });
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(2 * kGap, kGap, 2 * kGap, 2 * kGap);
  grid->setSpacing(kGap);
  grid->addWidget(words_, 0, 0, 1, 3);
  grid->addWidget(now_, 1, 0);
  grid->addWidget(then_, 1, 1);
  grid->addWidget(goOn_, 2, 0);
  grid->addWidget(saved_, 2, 1);
  grid->addWidget(byItself_, 3, 0, 1, 3);
  grid->setColumnStretch(2, 1);
  hide();
}

void CameBackStrip::open(const Session::Loaded::CameBack& back, QWidget* below) {
  words_->setText(tr("%1: %n step(s) after the last save came back, until %2", nullptr, static_cast<int>(back.facts.steps))
                      .arg(QString::fromStdString(back.facts.name), WorkKeeper::untilText(back.facts)) +
                  (back.isLineWhole ? QString() : tr(" · Ctrl+Z goes back only some of them")));
  const auto show = [this](QLabel* label, const QImage& picture) {
    QPixmap pixmap = QPixmap::fromImage(picture);
    pixmap.setDevicePixelRatio(devicePixelRatioF());
    label->setPixmap(pixmap);
  };
  show(now_, back.now);
  show(then_, back.then);
  byItself_->setChecked(false);
  byItself_->setVisible(savesWhen() == SavesWhen::never);
  if (below_) below_->removeEventFilter(this);
  below_ = below;
  below_->installEventFilter(this);
  adjustSize();
  QFrame::show();
  place();
  raise();
  goOn_->setFocus();
}

void CameBackStrip::answer() {
  hide();
  if (byItself_->isChecked() && savesWhen() == SavesWhen::never) toggleSaves(SavesWhen::eachMinutes);
}

void CameBackStrip::place() {
  const QPoint at = below_->mapTo(parentWidget(), QPoint());
  const int wide = std::min(sizeHint().width(), below_->width() - 2 * kGap);
  setGeometry(at.x() + (below_->width() - wide) / 2, at.y() + kGap, wide, height());
}

bool CameBackStrip::eventFilter(QObject* watched, QEvent* event) {
  const bool moves = event->type() == QEvent::Resize || event->type() == QEvent::Move;
  if (watched == below_ && moves && isVisible()) place();
  return QFrame::eventFilter(watched, event);
}

void CameBackStrip::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return goOn_->click();
  QFrame::keyPressEvent(event);
}

}  // namespace uq

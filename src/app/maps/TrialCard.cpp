#include "app/maps/TrialCard.h"

#include <QApplication>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"

namespace uq {

TrialCard::TrialCard(const char* name, int width, const QString& makes, QWidget* parent) : Card(parent) {
  const QString prefix = QLatin1String(name);
  setObjectName(prefix + QStringLiteral("-card"));
  makeCard(this);
  setFixedWidth(width);
  title_ = makeTitle({}, this);
  told_ = makeSoftLabel(this);
  told_->setObjectName(prefix + QStringLiteral("-told"));
  // Two lines, whatever it says, so that no button moves.
  told_->setMinimumHeight(2 * told_->fontMetrics().lineSpacing());
  told_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  make_ = new QPushButton(makes, this);
  make_->setObjectName(prefix + QStringLiteral("-make"));
  make_->setDefault(true);
  auto* not_ = new QPushButton(tr("Not now"), this);
  not_->setObjectName(prefix + QStringLiteral("-not-now"));
  connect(make_, &QPushButton::clicked, this, [this] { leave(true); });
  connect(not_, &QPushButton::clicked, this, [this] { leave(false); });
  const QByteArray close = (prefix + QStringLiteral("-close")).toLatin1();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap * 2, kGap, kGap * 2, kGap * 2);
  layout->setSpacing(kGap);
  layout->addLayout(makeCardHead(this, title_, close.constData()));
  content_ = new QVBoxLayout;
  content_->setSpacing(kGap);
  layout->addLayout(content_);
  layout->addWidget(told_);
  layout->addLayout(new SentenceLayout({make_, not_}));
  connect(qApp, &QApplication::focusChanged, this, [this](QWidget*, QWidget* now) {
    const bool isElsewhere = now && now != this && !isAncestorOf(now) && !QApplication::activePopupWidget();
    if (isVisible() && isElsewhere) leave(false);
  });
  if (auto* button = findChild<QToolButton*>(QLatin1String(close)))
    connect(button, &QToolButton::clicked, this, [this] { leave(false); });
  hide();
}

void TrialCard::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  hide();
  if (!session_) return;
  connect(session_, &Session::gestureEnded, this, [this] {
    if (!isVisible() || holds()) return;
    hide();
    Q_EMIT closed();
  });
}

void TrialCard::setTitle(const QString& title) { title_->setText(title); }

bool TrialCard::holds() const {
  return session_ && session_->work().gesture() && session_->work().gesturesBegun() == gesture_;
}

bool TrialCard::begin(const std::string& step) {
  Work& work = session_->work();
  if (!work.begin(step, Gesture::changing(work.quilt()))) return false;
  gesture_ = work.gesturesBegun();
  adjustSize();
  const QSize room = parentWidget()->size();
  move(std::max(0, room.width() - width() - kGap), std::max(0, room.height() - height() - kGap));
  show();
  raise();
  return true;
}

void TrialCard::tryOut(Quilt after, const QString& words) {
  if (!holds()) return;
  make_->setEnabled(true);
  session_->work().gesture()->become(std::move(after));
  session_->work().show();
  told_->setText(words);
}

void TrialCard::refuse(const std::string& why) {
  make_->setEnabled(false);
  told_->setText(QString::fromStdString(why));
}

void TrialCard::leave(bool makes) {
  if (makes && !make_->isEnabled()) return;
  if (makes && holds()) (void)session_->work().finish();
  // Unless that closed it.
  if (!isVisible()) return;
  hide();
  Q_EMIT closed();
}

void TrialCard::hideEvent(QHideEvent* event) {
  Card::hideEvent(event);
  // Whatever hides it: what was not asked for is not done.
  if (holds()) session_->work().drop();
}

void TrialCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return leave(false);
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return leave(true);
  Card::keyPressEvent(event);
}

}  // namespace uq

#include "app/start/StartPage.h"

#include <QDir>
#include <QFileInfo>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/start/RecentCard.h"
#include "core/document/Quilt.h"

namespace uq {

namespace {

constexpr int kColumns = 3;
constexpr int kMapColumns = 4;
constexpr QSize kCanDoFrame(272, 160);  // logical pixels
constexpr QSize kMapFrame(196, 122);
constexpr int kDrawAfter = 120;  // ms
constexpr int kWidth = 3 * 288 + 2 * 16;

QPushButton* makeBroad(const QString& object, const QString& text, const QString& tip, QWidget* parent) {
  auto* button = new QPushButton(text, parent);
  button->setObjectName(object);
  button->setToolTip(tip);
  button->setProperty("broad", true);
  return button;
}

}  // namespace

StartPage::StartPage(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("start-page"));
  auto* sheet = new QWidget;
  sheet->setFixedWidth(kWidth);

  auto* mark = new QLabel(sheet);
  mark->setPixmap(QIcon(QStringLiteral(":/icons/urban-quilt.svg")).pixmap(56, 56));
  auto* title = makeTitle(tr("Urban Quilt"), sheet);
  QFont font = title->font();
  font.setPointSizeF(font.pointSizeF() * 1.9);
  title->setFont(font);
  auto* saying = makeSoftLabel(sheet);
  saying->setText(tr("Lay out tiles in layers, and sew the maps of a world together."));
  auto* words = new QVBoxLayout;
  words->setSpacing(2);
  words->addWidget(title);
  words->addWidget(saying);
  auto* heading = new QHBoxLayout;
  heading->setSpacing(2 * kGap);
  heading->addWidget(mark);
  heading->addLayout(words, 1);

  auto* fresh =
      makeBroad(QStringLiteral("start-new"), tr("New quilt…"), tr("Begin a quilt in a folder of its own"), sheet);
  auto* other = makeBroad(QStringLiteral("start-open"), tr("Open a quilt's folder…"),
                          tr("Open a quilt that is not listed here; or drop its folder on this window"), sheet);
  auto* demo = makeBroad(QStringLiteral("start-demo"), tr("Look at the demo"),
                         tr("Open a copy of Copperline, the tramway by night, to try everything on"), sheet);
  connect(fresh, &QPushButton::clicked, actions->action(ActionId::newQuilt), &QAction::trigger);
  connect(other, &QPushButton::clicked, actions->action(ActionId::openQuilt), &QAction::trigger);
  connect(demo, &QPushButton::clicked, this, [this] { Q_EMIT demoWanted({}); });
  auto* choices = new QHBoxLayout;
  choices->setSpacing(2 * kGap);
  for (QPushButton* one : {fresh, other, demo}) choices->addWidget(one);
  choices->addStretch();

  ask_ = buildAsk();
  ask_->setParent(sheet);
  recents_ = new QGridLayout;
  recents_->setSpacing(2 * kGap);
  recents_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
  empty_ = makeSoftLabel(sheet);
  empty_->setObjectName(QStringLiteral("start-empty"));
  empty_->setText(
      tr("The quilts you work on will lie here, with their pictures. A quilt is one folder: its maps and tile sheets "
         "lie in it together, so nothing is left behind when it moves."));

  pictures_ = new StartPictures(this);
  demoMaps_ = new QGridLayout;
  demoMaps_->setSpacing(2 * kGap);
  demoMaps_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
  connect(pictures_, &StartPictures::demoMap, this, &StartPage::showDemoMap);
  connect(pictures_, &StartPictures::quilt, this, [this](const QString& folder, const QImage& picture) {
    for (RecentCard* card : findChildren<RecentCard*>()) {
      if (card->quilt().folder == folder) card->setPicture(picture);
    }
  });
  drawSoon_.setSingleShot(true);
  drawSoon_.setInterval(kDrawAfter);
  connect(&drawSoon_, &QTimer::timeout, this, [this] {
    if (isVisible()) pictures_->draw(recentQuilts());
  });

  auto* layout = new QVBoxLayout(sheet);
  layout->setContentsMargins(0, 4 * kGap, 0, 3 * kGap);
  layout->setSpacing(2 * kGap);
  layout->addLayout(heading);
  layout->addSpacing(kGap);
  layout->addLayout(choices);
  layout->addWidget(ask_);
  layout->addSpacing(kGap);
  layout->addWidget(makeTitle(tr("Where you left off"), sheet));
  layout->addWidget(empty_);
  layout->addLayout(recents_);
  layout->addSpacing(kGap);
  layout->addWidget(makeTitle(tr("What you can do here"), sheet));
  layout->addLayout(buildCanDo(sheet));
  layout->addSpacing(kGap);
  layout->addWidget(makeTitle(tr("Copperline, the demo: look around on any of its maps"), sheet));
  layout->addLayout(demoMaps_);
  layout->addStretch();

  auto* area = new QScrollArea(this);
  area->setObjectName(QStringLiteral("start-scroll"));
  area->setAccessibleName(tr("Start page"));
  area->setWidget(sheet);
  area->setWidgetResizable(true);
  area->setAlignment(Qt::AlignHCenter);
  area->setFocusPolicy(Qt::NoFocus);
  area->viewport()->setAutoFillBackground(false);
  sheet->setAutoFillBackground(false);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->addWidget(area);
  refresh();
}

QLayout* StartPage::buildCanDo(QWidget* sheet) {
  auto* row = new QHBoxLayout;
  row->setSpacing(2 * kGap);
  const std::pair<QString, QString> words[StartPictures::kCanDo] = {
      {tr("Drop your art: it is cut at once"), tr("Sheets, single pictures, whole folders.")},
      {tr("See what a press will do"), tr("The ghost is what will lie there.")},
      {tr("Layers, and who stands where"), tr("Behind the player, in front, far away.")}};
  for (int i = 0; i < StartPictures::kCanDo; ++i) {
    auto* card = new PictureCard(words[i].first, {words[i].second}, kCanDoFrame, sheet);
    card->setObjectName(QStringLiteral("can-do-%1").arg(i));
    card->setToolTip(tr("Try it on a copy of the demo"));
    connect(card, &QAbstractButton::clicked, this, [this] { Q_EMIT demoWanted({}); });
    connect(pictures_, &StartPictures::canDo, card, [card, i](int which, const QImage& picture) {
      if (which == i) card->setPicture(picture);
    });
    row->addWidget(card);
  }
  row->addStretch();
  return row;
}

void StartPage::showDemoMap(const QString& name, const QImage& picture) {
  const QString object = QStringLiteral("demo-map-") + name;
  if (findChild<PictureCard*>(object)) return;
  auto* card = new PictureCard(name, {}, kMapFrame, this);
  card->setObjectName(object);
  card->setToolTip(tr("Open a copy of the demo on %1").arg(name));
  card->setPicture(picture);
  connect(card, &QAbstractButton::clicked, this, [this, name] { Q_EMIT demoWanted(name); });
  const int place = demoMaps_->count();
  demoMaps_->addWidget(card, place / kMapColumns, place % kMapColumns);
}

void StartPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  drawSoon_.start();
}

void StartPage::hideEvent(QHideEvent* event) {
  QWidget::hideEvent(event);
  drawSoon_.stop();
  pictures_->stop();
}

QFrame* StartPage::buildAsk() {
  auto* card = new QFrame(this);
  card->setObjectName(QStringLiteral("new-quilt-card"));
  card->setAccessibleName(tr("A new quilt"));
  makeCard(card);
  name_ = new QLineEdit(card);
  name_->setObjectName(QStringLiteral("quilt-name"));
  name_->setAccessibleName(tr("Name of the quilt"));
  name_->setMaxLength(200);
  folder_ = new QLineEdit(card);
  folder_->setObjectName(QStringLiteral("quilt-folder"));
  folder_->setAccessibleName(tr("Folder of the quilt"));
  refusal_ = new QLabel(card);
  refusal_->setObjectName(QStringLiteral("quilt-refusal"));
  refusal_->setProperty("warning", true);
  begin_ = new QPushButton(tr("Begin"), card);
  begin_->setObjectName(QStringLiteral("begin-quilt"));
  begin_->setDefault(true);
  auto* later = new QPushButton(tr("Not now"), card);
  later->setObjectName(QStringLiteral("no-quilt"));
  connect(name_, &QLineEdit::textChanged, this, [this] {
    if (folderFollows_) {
      const QString slug = QString::fromStdString(slugFor(name_->text().trimmed().toStdString(), {}));
      folder_->setText(QDir::toNativeSeparators(quiltsFolder() + QLatin1Char('/') + slug));
    }
    checkAsk();
  });
  connect(folder_, &QLineEdit::textEdited, this, [this] { folderFollows_ = false; });
  connect(folder_, &QLineEdit::textChanged, this, &StartPage::checkAsk);
  connect(begin_, &QPushButton::clicked, this, &StartPage::begin);
  connect(later, &QPushButton::clicked, card, &QWidget::hide);
  for (QLineEdit* field : {name_, folder_}) {
    connect(field, &QLineEdit::returnPressed, this, &StartPage::begin);
    field->installEventFilter(this);
  }
  auto* grid = new QGridLayout(card);
  grid->setContentsMargins(2 * kGap, 2 * kGap, 2 * kGap, 2 * kGap);
  grid->setSpacing(kGap);
  grid->addWidget(new QLabel(tr("The new quilt is called"), card), 0, 0);
  grid->addWidget(name_, 0, 1);
  grid->addWidget(new QLabel(tr("and lies in the folder"), card), 1, 0);
  grid->addWidget(folder_, 1, 1);
  grid->addWidget(refusal_, 2, 1);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(begin_);
  buttons->addWidget(later);
  buttons->addStretch();
  grid->addLayout(buttons, 3, 1);
  grid->setColumnStretch(1, 1);
  card->hide();
  return card;
}

QString StartPage::quiltsFolder() { return QDir::homePath() + QLatin1String("/Quilts"); }

void StartPage::refresh() {
  for (RecentCard* old : findChildren<RecentCard*>()) {
    recents_->removeWidget(old);
    old->hide();
    old->setObjectName({});
    old->deleteLater();
  }
  const auto quilts = recentQuilts();
  for (std::size_t i = 0; i < quilts.size(); ++i) {
    auto* card = new RecentCard(quilts[i], this);
    const int place = static_cast<int>(i);
    card->setObjectName(QStringLiteral("recent-%1").arg(place));
    connect(card, &QAbstractButton::clicked, this, [this, folder = quilts[i].folder] { Q_EMIT openWanted(folder); });
    connect(card, &RecentCard::forgetWanted, this, [this](const QString& folder) {
      forgetQuilt(folder);
      refresh();
    });
    recents_->addWidget(card, place / kColumns, place % kColumns);
  }
  empty_->setVisible(quilts.empty());
}

void StartPage::askForNewQuilt() {
  folderFollows_ = true;
  name_->clear();
  name_->setText(tr("My quilt"));
  ask_->show();
  checkAsk();
  name_->setFocus();
  name_->selectAll();
}

void StartPage::checkAsk() {
  const QString folder = folder_->text().trimmed();
  const QFileInfo there(folder);
  QString why;
  if (name_->text().trimmed().isEmpty()) {
    why = tr("The quilt needs a name");
  } else if (!there.isAbsolute()) {
    why = tr("The folder needs its whole path, from / on");
  } else if (there.isFile()) {
    why = tr("A file of that name is in the way");
  } else if (there.isDir() &&
             !QDir(folder).isEmpty(QDir::AllEntries | QDir::Hidden | QDir::System | QDir::NoDotAndDotDot)) {
    why = tr("There is something in that folder already: give the quilt one of its own");
  }
  refusal_->setText(why);
  refusal_->setVisible(!why.isEmpty());
  begin_->setEnabled(why.isEmpty());
}

void StartPage::begin() {
  if (!begin_->isEnabled() || ask_->isHidden()) return;
  ask_->hide();
  Q_EMIT newQuiltWanted(name_->text().trimmed(), QDir::cleanPath(folder_->text().trimmed()));
}

bool StartPage::eventFilter(QObject* watched, QEvent* event) {
  const bool isField = watched == name_ || watched == folder_;
  if (isField && event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
    ask_->hide();
    return true;
  }
  return QWidget::eventFilter(watched, event);
}

}  // namespace uq

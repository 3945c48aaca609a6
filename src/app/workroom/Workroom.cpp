#include "app/workroom/Workroom.h"

#include <QAbstractButton>
#include <QApplication>
#include <QCloseEvent>
#include <QCoreApplication>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QLineEdit>
#include <QMimeData>
#include <QStackedWidget>
#include <QUrl>
#include <QVBoxLayout>

#include "app/board/WaysPanel.h"
#include "app/actions/KeyBindings.h"
#include "app/look/Theme.h"
#include "app/look/KeyReceiver.h"
#include "app/look/WheelGuard.h"
#include "app/stack/RolesCard.h"
#include "app/table/HandPreview.h"
#include "app/actions/SaveByItself.h"
#include "app/workroom/Columns.h"
#include "app/workroom/FolderWatch.h"
#include "app/workroom/JoinCard.h"
#include "app/workroom/KeptState.h"
#include "app/workroom/SheetWork.h"
#include "app/workroom/ThreadsCard.h"
#include "app/workroom/WorkKeeper.h"
#include "core/edit/Landing.h"
#include "raster/MapImport.h"

namespace uq {

Workroom::Workroom(std::shared_ptr<Disk> disk) : disk_(std::move(disk)), actions_(new Actions(this)) {
  guardTheWheel();
  watchKeys();
  setObjectName(QStringLiteral("workroom"));
  setWindowIcon(QIcon(QStringLiteral(":/icons/urban-quilt.svg")));
  setAcceptDrops(true);
  setContextMenuPolicy(Qt::NoContextMenu);
  connect(actions_, &Actions::triggered, this, &Workroom::act);
  setMenuWidget(buildHead());

  // Each where it stays: what is moved to another parent is styled anew, with all that is in it.
  auto* central = new QWidget(this);
  notices_ = new NoticeStrip(central);
  pages_ = new QStackedWidget(central);
  pages_->setObjectName(QStringLiteral("pages"));
  start_ = new StartPage(actions_, pages_);
  room_ = buildWorkroom();
  pages_->addWidget(start_);
  pages_->addWidget(room_);
  round_ = new ThreadRound(this);
  pages_->addWidget(buildBoard());
  threads_ = new ThreadsCard(round_, pages_);
  connect(stack_, &StackPanel::leadWanted, this, &Workroom::leadFrom);
  connect(threads_, &ThreadsCard::chosen, this, &Workroom::showThread);
  connect(threads_, &ThreadsCard::closed, this, [this] {
    if (QWidget* under = session_ && session_->desk().onBoard ? static_cast<QWidget*>(board_) : canvas_) under->setFocus(Qt::OtherFocusReason);
  });
  steps_ = new StepList(this);
  maps_ = new MapList(this);
  find_ = new FindBox(actions_, this);
  keysPage_ = new KeysPage(this);
  foot_ = new FootLine(central);
  connect(round_, &ThreadRound::looked, this, [this] { foot_->tellThreads(round_->hasLooked() ? std::optional(static_cast<int>(round_->checked().threads.size())) : std::nullopt); });
  connect(foot_, &FootLine::threadsPressed, this, [this] { act(ActionId::looseThreads); });
  connect(foot_, &FootLine::sizePressed, this, [this] { act(ActionId::mapSize); });

  auto* footRow = new QHBoxLayout;
  footRow->setSpacing(0);
  footRow->addWidget(new ProgressStrip(&work_, central));
  footRow->addWidget(foot_, 1);
  auto* layout = new QVBoxLayout(central);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(pages_, 1);
  layout->addLayout(footRow);
  setCentralWidget(central);

  cameBack_ = new CameBackStrip(central);
  joinCard_ = new JoinCard(central);
  connect(joinCard_, &JoinCard::answered, this, [this](const std::vector<Side>& sides) {
    if (session_) session_->beside().watch->answer(sides);
    canvas_->setFocus();
  });
  connect(cameBack_, &CameBackStrip::goesOn, canvas_, qOverload<>(&QWidget::setFocus));
  connect(cameBack_, &CameBackStrip::savedWanted, this, &Workroom::lookAtSaved);
  connect(new SaveByItself(this), &SaveByItself::due, this, &Workroom::saveUnasked);
  connect(start_, &StartPage::openWanted, this, &Workroom::openQuilt);
  connect(start_, &StartPage::newQuiltWanted, this, &Workroom::newQuilt);
  connect(start_, &StartPage::demoWanted, this, &Workroom::openDemo);
  connect(&work_, &LongWork::began, this, [this] {
    refresh();
    // Whatever becomes of it, what was done before is safe.
    const bool isRisk = work_.kind() == LongWork::Kind::bringIn || work_.kind() == LongWork::Kind::look;
    if (isRisk && session_ && !session_->isComing() && !session_->isSaved()) session_->beside().keeper->keepSoon();
  });
  connect(&work_, &LongWork::ended, this, &Workroom::refresh);
  connect(&work_, &LongWork::cancelled, this, &Workroom::leaveEarly);
  showSession();
  refresh();
}

Workroom::~Workroom() {
  // Panels look at the session until they are gone.
  (void)adopt(nullptr);
}

void Workroom::spreadTable(bool on, bool byKeys) {
  if (on == spread_->isVisible() || (on && !session_)) return;
  if (on) {
    spreadUsed_ = false;
    spreadHeld_ = true;
    spread_->setGeometry(canvas_->geometry());
    spread_->show();
    spread_->raise();
    spread_->setFocus(Qt::OtherFocusReason);
  } else {
    spread_->hide();
    canvas_->setFocus(byKeys ? Qt::TabFocusReason : Qt::OtherFocusReason);
  }
}

bool Workroom::eventFilter(QObject* watched, QEvent* event) {
  const bool escapes = event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape;
  if (escapes && session_ && watched != spread_ && !session_->inGesture()) {
    const bool anyCard = sheetCard_->isVisible() || tidyCard_->isVisible() || exportCard_->isVisible() ||
                         mapFacts_->isVisible() || sizeCard_->isVisible() || cellCard_->isVisible() || hangCard_->isVisible() || rolesCard_->isVisible() ||
                         bench_->isVisible() || exportPage_->isVisible() || film_->isVisible();
    hideCards();
    if (anyCard) return true;
  }
  if (watched == table() && event->type() == QEvent::KeyPress) {
    // A tool is for the map, wherever the pointer still is: its key is held there, and springs back there.
    const auto action = actions_->actionFor(*static_cast<QKeyEvent*>(event));
    if (action && toolOf(*action)) {
      canvas_->setFocus(Qt::OtherFocusReason);
      QCoreApplication::sendEvent(canvas_, event);
      return true;
    }
  }
  if (watched == spread_ && (event->type() == QEvent::KeyPress || event->type() == QEvent::KeyRelease)) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (key->key() == Qt::Key_Escape && event->type() == QEvent::KeyPress) {
      spreadTable(false, !spreadUsed_);
      return true;
    }
    if (actions_->actionFor(*key) != ActionId::goToTable) return false;
    if (key->isAutoRepeat()) return true;
    if (event->type() == QEvent::KeyRelease) {
      spreadHeld_ = false;
      if (spreadUsed_) spreadTable(false);
      return true;
    }
  }
  if (watched == spread_->parentWidget() && event->type() == QEvent::Resize) {
    QMetaObject::invokeMethod(
        this, [this] { spread_->setGeometry(canvas_->geometry()); }, Qt::QueuedConnection);
  }
  return QMainWindow::eventFilter(watched, event);
}

void Workroom::bringIn(const QStringList& paths) {
  if (!session_) {
    return report(Error{Error::Cause::notFound,
                        "no quilt is open that pictures could come into",
                        {},
                        0,
                        {},
                        "Open a quilt or begin a new one, then drop them again"});
  }
  if (work_.isRunning()) {
    foot_->say(tr("%1 Drop the pictures again when that has ended.").arg(work_.title()));
    return;
  }
  session_->sheets().bringIn(work_, paths, [this](const std::vector<Id>& sheets, const Errors& problems) {
    QStringList texts;
    for (const Error& problem : problems) {
      if (problem.cause != Error::Cause::cancelled && texts.size() < 5) texts << QString::fromStdString(problem.text());
    }
    if (problems.size() > 5) texts << tr("… and %n more.", nullptr, static_cast<int>(problems.size()) - 5);
    notices_->tell(texts);
    if (sheets.empty() || !session_) return;
    panel_->showSheets();
    table()->revealSheet(sheets.front());
    showCard(sheetCard_, sheets.front());
    foot_->say(sheets.size() == 1
                   ? tr("%1 lies on the Table. %2 takes it back.")
                         .arg(QString::fromStdString(session_->quilt().sheet(sheets.front())->name),
                              KeyBindings::shared().text(ActionId::undo))
                   : tr("%n sheets lie on the Table. %1 takes them back.", nullptr, static_cast<int>(sheets.size()))
                         .arg(KeyBindings::shared().text(ActionId::undo)));
  });
}

void Workroom::findPicture(Id sheet) {
  const Sheet* lacking = session_->quilt().sheet(sheet);
  if (!lacking || work_.isRunning()) return;
  QFileDialog dialog(this, tr("Point to the picture of %1").arg(QString::fromStdString(lacking->name)));
  dialog.setObjectName(QStringLiteral("picture-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setFileMode(QFileDialog::ExistingFile);
  dialog.setDirectory(QString::fromStdString(session_->folder()));
  if (dialog.exec() != QDialog::Accepted) return;
  session_->sheets().findPicture(work_, sheet, dialog.selectedFiles().value(0), [this](const Errors& problems) {
    if (!problems.empty()) report(problems.front());
  });
}

void Workroom::tidy(Id sheet) {
  if (work_.isRunning() || !session_->quilt().sheet(sheet)) return;
  session_->sheets().lookForTidy(work_, sheet, [this, sheet](const TidyFinds& finds) {
    hideCards();
    tidyCard_->open(sheet, finds);
  });
}

void Workroom::showMapAlone(bool on) {
  columns_->showMapAlone(on);
  menuWidget()->setVisible(!on);
  tape_->setVisible(!on);
  foot_->setVisible(!on);
  if (on) canvas_->setFocus();
}

void Workroom::hideCards() {
  sheetCard_->hide();
  tidyCard_->hide();
  exportCard_->hide();
  mapFacts_->hide();
  sizeCard_->hide();
  cellCard_->hide();
  rolesCard_->hide();
  hangCard_->hide();
  bench_->hide();
  exportPage_->hide();
  film_->hide();
}

void Workroom::hang(const QStringList& paths) { hangNext(paths, {}, {}); }

// One after the other, so that each is a sheet of its own.
void Workroom::hangNext(QStringList paths, std::vector<Id> brought, QStringList failures) {
  if (!session_ || work_.isRunning()) return;
  if (paths.isEmpty()) {
    notices_->tell(failures.mid(0, 5));
    return session_->verbs().layers.hangBackdrops(brought);
  }
  const QString path = paths.takeFirst();
  session_->sheets().bringIn(work_, {path}, [=, this](const std::vector<Id>& sheets, const Errors& problems) {
    std::vector<Id> all = brought;
    all.insert(all.end(), sheets.begin(), sheets.end());
    QStringList texts = failures;
    for (const Error& problem : problems) texts << QString::fromStdString(problem.text());
    // When this work has ended.
    QMetaObject::invokeMethod(
        this, [=, this] { hangNext(paths, all, texts); }, Qt::QueuedConnection);
  });
}

void Workroom::chooseFiles() {
  QFileDialog dialog(this, tr("Bring pictures in"));
  dialog.setObjectName(QStringLiteral("pictures-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setFileMode(QFileDialog::ExistingFiles);
  dialog.setNameFilter(tr("Pictures (*.png *.jpg *.jpeg *.webp *.gif *.bmp *.svg)"));
  dialog.setLabelText(QFileDialog::Accept, tr("Bring in"));
  dialog.setDirectory(QFileInfo(QString::fromStdString(session_->folder())).absolutePath());
  if (dialog.exec() == QDialog::Accepted) bringIn(dialog.selectedFiles());
}

void Workroom::showSession() {
  pages_->setCurrentWidget(session_ ? room_ : start_);
  // What came back lies over the map.
  if (session_ && session_->beside().cameBack && !toldOfReturn_) session_->verbs().maps.showBoard(false);
  followBoard();
  notices_->lieOver(session_ ? static_cast<QWidget*>(canvas_) : start_);
  tabs_->setVisible(session_ != nullptr);
  if (!session_) showMapAlone(false);
  if (session_) {
    canvas_->setFocus();
    if (session_->beside().cameBack && !std::exchange(toldOfReturn_, true)) cameBack_->open(*session_->beside().cameBack, canvas_);
  } else {
    start_->refresh();
  }
}

std::unique_ptr<Session> Workroom::adopt(std::unique_ptr<Session> session) {
  if (session_) keepState();
  steps_->hide();
  maps_->hide();
  newMap_->hide();
  tabs_->setSession(session.get());
  panel_->setSession(session.get());
  spread_->setSession(session.get());
  spread_->hide();
  sheetCard_->setSession(session.get());
  bench_->setSession(session.get());
  exports_->setSession(session.get());
  exportPage_->setSession(session.get());
  film_->setSession(session.get());
  tidyCard_->setSession(session.get());
  exportCard_->setSession(session.get());
  mapFacts_->setSession(session.get());
  sizeCard_->setSession(session.get());
  cellCard_->setSession(session.get());
  rolesCard_->setSession(session.get());
  hangCard_->hide();
  cameBack_->hide();
  toldOfReturn_ = false;
  joinCard_->hide();
  inHand_->setSession(session.get());
  canvas_->setSession(session.get());
  stack_->setSession(session.get());
  overview_->setSession(session.get());
  board_->setSession(session.get());
  threads_->hide();
  ways_->setSession(session.get());
  round_->setSession(session.get());
  session_.swap(session);
  givenUp_.reset();
  if (session) {
    session->disconnect(this);
    session->sheets().disconnect(this);
    session->beside().keeper->disconnect(this);
    session->beside().watch->disconnect(this);
  }
  if (!session_) return session;
  connect(session_.get(), &Session::quiltChanged, this, &Workroom::refresh);
  connect(session_.get(), &Session::deskChanged, this, [this] {
    deskMoved_ = true;
    followBoard();
    refresh();
  });
  connect(session_.get(), &Session::asksFarther, this, [this](const QString& question) { notices_->tell({question}); });
  connect(session_.get(), &Session::failed, this, &Workroom::report);
  connect(session_->beside().watch, &FolderWatch::told, this, [this](const QString& what) { foot_->say(what); });
  connect(session_->beside().watch, &FolderWatch::tookOver, this, [this] {
    tellProblems();
    foot_->say(tr("Nobody else has this quilt open any more: it can be changed here now."));
  });
  connect(session_->beside().watch, &FolderWatch::failed, this, &Workroom::report);
  connect(session_->beside().watch, &FolderWatch::asks, this, [this](const std::vector<BothChanged>& what) {
    if (const Quilt* there = session_->beside().watch->there()) joinCard_->open(*session_, *there, what);
  });
  connect(session_->beside().keeper, &WorkKeeper::failed, this, &Workroom::report);
  deskMoved_ = true;
  connect(session_->beside().keeper, &WorkKeeper::keeps, this, [this] {
    if (std::exchange(deskMoved_, false)) keepDesk();
  });
  connect(session_->beside().keeper, &WorkKeeper::kept, this, [this] { foot_->tellKept(session_.get()); });
  connect(&session_->sheets(), &SheetWork::told, this, [this](const QString& what) { foot_->say(what); });
  connect(session_.get(), &Session::readWhole, this, &Workroom::tellProblems);
  tellProblems();
  useState();
  refresh();
  return session;
}

void Workroom::tellProblems() {
  QStringList problems;
  for (const Error& problem : session_->problems()) problems << QString::fromStdString(problem.text());
  notices_->tell(problems);
}

void Workroom::refresh() {
  if (!session_) {
    actions_->refreshAlone(work_.isRunning());
    setWindowTitle(tr("Urban Quilt"));
  } else {
    actions_->refresh(situation());
    setWindowTitle(tr("%1[*] — Urban Quilt").arg(QString::fromStdString(session_->quilt().facts().name)));
    setWindowModified(!session_->isSaved());
    // What was painted on a quilt that is still being read must not go with it.
    if (session_->isComing() && !session_->isSaved()) work_.keepOn();
  }
  tape_->refresh(session_.get());
  foot_->refresh(session_.get(), *canvas_, overTable_);
  foot_->tellKept(session_.get());
}

void Workroom::followBoard() {
  if (!session_) return;
  QWidget* page = session_->desk().onBoard ? static_cast<QWidget*>(boardPanes_) : room_;
  if (pages_->currentWidget() == page) return;
  hideCards();
  pages_->setCurrentWidget(page);
  threads_->raise();
  if (session_->desk().onBoard) {
    board_->choose(session_->desk().map);
    board_->setFocus(Qt::OtherFocusReason);
  } else {
    canvas_->setFocus(Qt::OtherFocusReason);
  }
}

void Workroom::report(const Error& error) { notices_->tell({QString::fromStdString(error.text())}); }

void Workroom::changeEvent(QEvent* event) {
  QMainWindow::changeEvent(event);
  if (event->type() != QEvent::PaletteChange || !foot_) return;
  actions_->redrawIcons();
  stack_->redraw();
  inHand_->redraw();
  refresh();
}

void Workroom::keyPressEvent(QKeyEvent* event) {
  QWidget* focus = QApplication::focusWidget();
  const bool enters = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  auto* button = qobject_cast<QAbstractButton*>(focus);
  if (button && enters && wentFirstTo(button)) return button->click();
  if (!session_ || pages_->currentWidget() != room_) return QMainWindow::keyPressEvent(event);
  if (event->key() == Qt::Key_Escape) return canvas_->setFocus(Qt::OtherFocusReason);
  if (const auto action = actions_->actionFor(*event); action && !qobject_cast<QLineEdit*>(focus)) {
    // A tool is for the map: its key is held there, and springs back there.
    if (!toolOf(*action)) return (void)actions_->handleKey(*event);
    canvas_->setFocus(Qt::OtherFocusReason);
    QCoreApplication::sendEvent(canvas_, event);
    return;
  }
  QMainWindow::keyPressEvent(event);
}

void Workroom::closeEvent(QCloseEvent* event) {
  if (!leaves_) {
    const auto asking = std::make_shared<bool>(true);
    leaveThen([this, asking] {
      leaves_ = true;
      if (!*asking) close();
    });
    *asking = false;
  }
  event->setAccepted(leaves_);
}

void Workroom::dragEnterEvent(QDragEnterEvent* event) {
  const auto urls = event->mimeData()->urls();
  const bool any = std::any_of(urls.begin(), urls.end(), [](const QUrl& url) { return url.isLocalFile(); });
  if (any) event->acceptProposedAction();
}

void Workroom::dropEvent(QDropEvent* event) {
  QStringList paths;
  for (const QUrl& url : event->mimeData()->urls()) {
    if (url.isLocalFile()) paths << QDir::cleanPath(url.toLocalFile());
  }
  if (paths.isEmpty()) return;
  event->acceptProposedAction();
  // A quilt's folder, its quilt.json or a packed one opens; everything else is pictures.
  const QFileInfo first(paths.front());
  const bool isQuilt = paths.size() == 1 && (first.fileName() == QLatin1String("quilt.json") || isPacked(paths.front()) ||
                                             QFileInfo::exists(paths.front() + QLatin1String("/quilt.json")));
  const bool pictures = isPictureName(first.fileName().toStdString());
  if (isQuilt || (!session_ && !pictures)) {
    openQuilt(paths.front());
  } else if (session_ && std::all_of(paths.begin(), paths.end(), [](const QString& path) { return isTableName(path.toStdString()); })) {
    importMap(paths);
  } else if (pictures && session_ && session_->map() &&
             canvas_->geometry().contains(canvas_->parentWidget()->mapFrom(this, event->position().toPoint()))) {
    hideCards();
    hangCard_->open(*session_, paths);
  } else {
    bringIn(paths);
  }
}

}  // namespace uq

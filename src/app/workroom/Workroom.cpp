#include "app/workroom/Workroom.h"

#include <QCloseEvent>
#include <QCoreApplication>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMimeData>
#include <QSplitter>
#include <QStackedWidget>
#include <QUrl>
#include <QVBoxLayout>

#include "app/actions/KeyBindings.h"
#include "app/look/Theme.h"
#include "app/stack/RolesCard.h"
#include "app/table/HandPreview.h"
#include "app/workroom/KeptState.h"
#include "app/workroom/SheetWork.h"
#include "core/edit/Landing.h"

namespace uq {

Workroom::Workroom(std::shared_ptr<Disk> disk) : disk_(std::move(disk)), actions_(new Actions(this)) {
  setObjectName(QStringLiteral("workroom"));
  setWindowIcon(QIcon(QStringLiteral(":/icons/urban-quilt.svg")));
  setAcceptDrops(true);
  setContextMenuPolicy(Qt::NoContextMenu);
  menuBar()->setNativeMenuBar(false);
  actions_->fill(*menuBar());
  connect(actions_, &Actions::triggered, this, &Workroom::act);

  // Each where it stays: what is moved to another parent is styled anew, with all that is in it.
  auto* central = new QWidget(this);
  notices_ = new NoticeStrip(central);
  pages_ = new QStackedWidget(central);
  pages_->setObjectName(QStringLiteral("pages"));
  start_ = new StartPage(actions_, pages_);
  room_ = buildWorkroom();
  pages_->addWidget(start_);
  pages_->addWidget(room_);
  steps_ = new StepList(this);
  maps_ = new MapList(this);
  find_ = new FindBox(actions_, this);
  keysPage_ = new KeysPage(this);
  foot_ = new FootLine(central);

  auto* footRow = new QHBoxLayout;
  footRow->setSpacing(0);
  footRow->addWidget(new ProgressStrip(&work_, central));
  footRow->addWidget(foot_, 1);
  auto* layout = new QVBoxLayout(central);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(notices_);
  layout->addWidget(pages_, 1);
  layout->addLayout(footRow);
  setCentralWidget(central);

  connect(start_, &StartPage::openWanted, this, &Workroom::openQuilt);
  connect(start_, &StartPage::newQuiltWanted, this, &Workroom::newQuilt);
  connect(start_, &StartPage::demoWanted, this, &Workroom::openDemo);
  connect(&work_, &LongWork::began, this, &Workroom::refresh);
  connect(&work_, &LongWork::ended, this, &Workroom::refresh);
  connect(&work_, &LongWork::cancelled, this, &Workroom::leaveEarly);
  showSession();
  refresh();
}

QWidget* Workroom::buildWorkroom() {
  auto* room = new QWidget(pages_);
  tabs_ = new MapTabs(actions_, room);
  connect(tabs_, &MapTabs::undoPressed, actions_->action(ActionId::undo), &QAction::trigger);
  panels_ = new QSplitter(room);
  panels_->setObjectName(QStringLiteral("panels"));
  panels_->setHandleWidth(1);
  panels_->setChildrenCollapsible(false);

  auto* middle = new QWidget(panels_);
  canvas_ = new MapCanvas(actions_, middle);
  tape_ = new Tape(actions_, middle);
  auto* middleLayout = new QVBoxLayout(middle);
  middleLayout->setContentsMargins(0, 0, 0, 0);
  middleLayout->setSpacing(0);
  middleLayout->addWidget(canvas_, 1);
  middleLayout->addWidget(tape_);
  stack_ = new StackPanel(panels_);
  overview_ = new Overview(canvas_, stack_);
  stack_->putBelow(overview_);

  newMap_ = new NewMapCard(middle);
  QWidget* left = buildLeft();
  buildOverMap(middle);
  connect(newMap_, &NewMapCard::planned, this, [this](const MapPlan& plan) { session_->verbs().maps.add(plan); });
  connect(newMap_, &NewMapCard::closed, canvas_, qOverload<>(&QWidget::setFocus));

  panels_->addWidget(left);
  panels_->addWidget(middle);
  panels_->addWidget(stack_);
  panels_->setStretchFactor(1, 1);
  panels_->setSizes({296, 720, 264});

  auto* layout = new QVBoxLayout(room);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(tabs_);
  layout->addWidget(panels_, 1);

  connect(tabs_, &MapTabs::handsFree, canvas_, qOverload<>(&QWidget::setFocus));
  connect(tape_, &Tape::handsFree, canvas_, qOverload<>(&QWidget::setFocus));
  connect(stack_, &StackPanel::handsFree, canvas_, qOverload<>(&QWidget::setFocus));
  connect(canvas_, &MapCanvas::hovered, this, [this] {
    overTable_ = false;
    foot_->refresh(session_.get(), *canvas_, overTable_);
  });
  connect(canvas_, &MapCanvas::viewChanged, this, [this] { foot_->refresh(session_.get(), *canvas_, overTable_); });
  connect(panel_, &TablePanel::pointedAt, this, [this](const QString& tile) {
    overTable_ = !tile.isEmpty();
    foot_->refresh(session_.get(), *canvas_, overTable_);
  });
  return room;
}

Workroom::~Workroom() {
  // Panels look at the session until they are gone.
  (void)adopt(nullptr);
}

QWidget* Workroom::buildLeft() {
  auto* left = new QWidget(panels_);
  panel_ = new TablePanel(actions_, canvas_, left);
  inHand_ = new InHandPanel(actions_, left);
  table()->setDropTaker([this](TileRef tile, QPoint at) { return inHand_->drop(tile, at); });
  connect(inHand_->preview(), &HandPreview::carriedTo, this, [this](QPoint at) {
    if (panel_->rect().contains(panel_->mapFromGlobal(at))) session_->verbs().stamps.keep();
  });
  auto* layout = new QVBoxLayout(left);
  layout->setContentsMargins(kGap, kGap, kGap, kGap);
  layout->setSpacing(kGap);
  layout->addWidget(panel_, 1);
  layout->addWidget(inHand_);
  return left;
}

// What lies over the map: the Table, where it is spread, and the card of a sheet.
void Workroom::buildOverMap(QWidget* middle) {
  spread_ = new TableView(actions_, middle);
  spread_->setObjectName(QStringLiteral("spread-table"));
  spread_->hide();
  spread_->installEventFilter(this);
  middle->installEventFilter(this);
  connect(spread_, &TableView::taken, this, [this](bool byKeys) {
    spreadUsed_ = true;
    if (!spreadHeld_) spreadTable(false, byKeys);
  });
  // What is gathered is seldom one: the Table stays until its key is pressed or let go.
  connect(spread_, &TableView::gathered, this, [this] { spreadUsed_ = true; });
  connect(spread_, &TableView::pointedAt, panel_, &TablePanel::pointedAt);
  sheetCard_ = new SheetCard(table(), middle);
  connect(sheetCard_, &SheetCard::newMapWanted, this, [this](Id sheet) { askForMap(session_->quilt().sheet(sheet)); });
  connect(sheetCard_, &SheetCard::said, this, [this](const QString& text) { foot_->say(text); });
  tidyCard_ = new TidyCard(middle);
  exportCard_ = new ExportCard(middle);
  mapFacts_ = new MapFactsCard(middle);
  connect(mapFacts_, &MapFactsCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  rolesCard_ = new RolesCard(middle);
  connect(rolesCard_, &RolesCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  hangCard_ = new HangCard(middle);
  connect(hangCard_, &HangCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  connect(hangCard_, &HangCard::cutWanted, this, &Workroom::bringIn);
  connect(hangCard_, &HangCard::hangWanted, this, &Workroom::hang);
  // Esc closes a card wherever the keys are.
  for (QWidget* one :
       {static_cast<QWidget*>(canvas_), static_cast<QWidget*>(table()), static_cast<QWidget*>(panel_->found())}) {
    one->installEventFilter(this);
  }
  connect(sheetCard_, &SheetCard::tidyWanted, this, &Workroom::tidy);
  connect(sheetCard_, &SheetCard::exportWanted, this, [this](Id sheet) { showCard(exportCard_, sheet); });
  connect(exportCard_, &ExportCard::failed, this, &Workroom::report);
  connect(exportCard_, &ExportCard::said, this, [this](const QString& text) { foot_->say(text); });
  connect(panel_, &TablePanel::handsFree, canvas_, qOverload<>(&QWidget::setFocus));
  connect(panel_, &TablePanel::said, this, [this](const QString& text) { foot_->say(text); });
  joints_ = new JointRound(canvas_, &work_);
  connect(joints_, &JointRound::said, this, [this](const QString& text) { foot_->say(text); });
  for (TableView* one : {table(), spread_}) {
    connect(one, &TableView::sheetChosen, this, [this](Id sheet) {
      spreadTable(false);
      showCard(sheetCard_, sheet);
    });
    connect(one, &TableView::looseChosen, this, [this](const QString& name) {
      bringIn({QString::fromStdString(session_->folder()) + QLatin1String("/sheets/") + name});
    });
    connect(one, &TableView::pictureWanted, this, &Workroom::findPicture);
  }
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
                         mapFacts_->isVisible() || hangCard_->isVisible() || rolesCard_->isVisible();
    hideCards();
    if (anyCard) return true;
  }
  if (watched == table() && event->type() == QEvent::KeyPress && canvas_->underMouse()) {
    // A tool is for the map under the pointer: its key is held there, and springs back there.
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

void Workroom::hideCards() {
  sheetCard_->hide();
  tidyCard_->hide();
  exportCard_->hide();
  mapFacts_->hide();
  rolesCard_->hide();
  hangCard_->hide();
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
  if (session_) {
    canvas_->setFocus();
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
  tidyCard_->setSession(session.get());
  exportCard_->setSession(session.get());
  mapFacts_->setSession(session.get());
  rolesCard_->setSession(session.get());
  hangCard_->hide();
  inHand_->setSession(session.get());
  canvas_->setSession(session.get());
  stack_->setSession(session.get());
  overview_->setSession(session.get());
  session_.swap(session);
  givenUp_.reset();
  if (session) {
    session->disconnect(this);
    session->sheets().disconnect(this);
  }
  if (!session_) return session;
  connect(session_.get(), &Session::quiltChanged, this, &Workroom::refresh);
  connect(session_.get(), &Session::deskChanged, this, &Workroom::refresh);
  connect(session_.get(), &Session::asksFarther, this, [this](const QString& question) { notices_->tell({question}); });
  connect(session_.get(), &Session::failed, this, &Workroom::report);
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
  // A quilt's folder or its quilt.json opens; everything else is pictures.
  const QFileInfo first(paths.front());
  const bool isQuilt = paths.size() == 1 && (first.fileName() == QLatin1String("quilt.json") ||
                                             QFileInfo::exists(paths.front() + QLatin1String("/quilt.json")));
  const bool pictures = isPictureName(first.fileName().toStdString());
  if (isQuilt || (!session_ && !pictures)) {
    openQuilt(paths.front());
  } else if (pictures && session_ && session_->map() &&
             canvas_->geometry().contains(canvas_->parentWidget()->mapFrom(this, event->position().toPoint()))) {
    hideCards();
    hangCard_->open(*session_, paths);
  } else {
    bringIn(paths);
  }
}

}  // namespace uq

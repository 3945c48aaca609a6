#include "app/workroom/Workroom.h"

#include <QCloseEvent>
#include <QCoreApplication>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QSplitter>
#include <QStackedWidget>
#include <QUrl>
#include <QVBoxLayout>

#include "app/actions/KeyBindings.h"
#include "app/look/Icons.h"
#include "app/look/Theme.h"
#include "app/look/ThemeChoice.h"
#include "app/look/Widgets.h"
#include "app/stack/RolesCard.h"
#include "app/table/HandPreview.h"
#include "app/workroom/KeptState.h"
#include "app/workroom/SheetWork.h"
#include "core/edit/Landing.h"
#include "core/edit/Levels.h"
#include "core/edit/MapFacts.h"
#include "core/store/DeskText.h"
#include "raster/MapExport.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr QSize kRecentPicture(400, 268);  // pixels

// Where the demo lies: beside the installed program, else in the sources it was built from.
QString demoFolder() {
  const QString installed =
      QCoreApplication::applicationDirPath() + QLatin1String("/../share/urban-quilt/demo/copperline");
  return QFileInfo(installed).isDir() ? QDir::cleanPath(installed) : QStringLiteral(UQ_DEMO_FOLDER);
}

// A window of its own that goes when it is closed.
Workroom* anotherWindow() {
  auto* window = new Workroom;
  window->setAttribute(Qt::WA_DeleteOnClose);
  window->resize(window->sizeHint());
  window->show();
  window->activateWindow();
  return window;
}

}  // namespace

Workroom::Workroom(std::shared_ptr<Disk> disk) : disk_(std::move(disk)), actions_(new Actions(this)) {
  setObjectName(QStringLiteral("workroom"));
  setWindowIcon(QIcon(QStringLiteral(":/icons/urban-quilt.svg")));
  setAcceptDrops(true);
  setContextMenuPolicy(Qt::NoContextMenu);
  menuBar()->setNativeMenuBar(false);
  actions_->fill(*menuBar());
  connect(actions_, &Actions::triggered, this, &Workroom::act);

  notices_ = new NoticeStrip(this);
  start_ = new StartPage(actions_, this);
  room_ = buildWorkroom();
  steps_ = new StepList(this);
  maps_ = new MapList(this);
  find_ = new FindBox(actions_, this);
  keysPage_ = new KeysPage(this);
  pages_ = new QStackedWidget(this);
  pages_->setObjectName(QStringLiteral("pages"));
  pages_->addWidget(start_);
  pages_->addWidget(room_);
  foot_ = new FootLine(this);

  auto* central = new QWidget(this);
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
  showSession();
  refresh();
}

QWidget* Workroom::buildWorkroom() {
  auto* room = new QWidget(this);
  tabs_ = new MapTabs(actions_, room);
  connect(tabs_, &MapTabs::undoPressed, actions_->action(ActionId::undo), &QAction::trigger);
  canvas_ = new MapCanvas(actions_, room);
  stack_ = new StackPanel(room);
  overview_ = new Overview(canvas_, stack_);
  stack_->putBelow(overview_);

  auto* middle = new QWidget(room);
  auto* middleLayout = new QVBoxLayout(middle);
  middleLayout->setContentsMargins(0, 0, 0, 0);
  middleLayout->setSpacing(0);
  middleLayout->addWidget(canvas_, 1);
  tape_ = new Tape(actions_, middle);
  middleLayout->addWidget(tape_);

  newMap_ = new NewMapCard(middle);
  QWidget* left = buildLeft();
  buildOverMap(middle);
  connect(newMap_, &NewMapCard::planned, this, [this](const MapPlan& plan) { session_->addMap(plan); });
  connect(newMap_, &NewMapCard::closed, canvas_, qOverload<>(&QWidget::setFocus));

  panels_ = new QSplitter(room);
  panels_->setObjectName(QStringLiteral("panels"));
  panels_->setHandleWidth(1);
  panels_->setChildrenCollapsible(false);
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
  adopt(nullptr);
}

QWidget* Workroom::buildLeft() {
  auto* left = new QWidget(this);
  panel_ = new TablePanel(actions_, canvas_, left);
  inHand_ = new InHandPanel(actions_, left);
  table()->setDropTaker([this](TileRef tile, QPoint at) { return inHand_->drop(tile, at); });
  connect(inHand_->preview(), &HandPreview::carriedTo, this, [this](QPoint at) {
    if (panel_->rect().contains(panel_->mapFromGlobal(at))) session_->keepStamp();
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
      bringIn({QString::fromStdString(session_->store().folder()) + QLatin1String("/sheets/") + name});
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
  if (escapes && session_ && watched != spread_ && !session_->inStroke()) {
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
  dialog.setDirectory(QString::fromStdString(session_->store().folder()));
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
    return session_->hangBackdrops(brought);
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
  dialog.setDirectory(QFileInfo(QString::fromStdString(session_->store().folder())).absolutePath());
  if (dialog.exec() == QDialog::Accepted) bringIn(dialog.selectedFiles());
}

Id Workroom::sheetInHand() const {
  const Block& held = session_->desk().inHand.block;
  const SheetSlot slot = held.empty() ? kChalkSlot : held.parts().front().cell.tile().slot;
  return slot == kChalkSlot ? Id() : session_->quilt().slots().sheet(slot);
}

void Workroom::showSession() {
  pages_->setCurrentWidget(session_ ? room_ : start_);
  if (session_) {
    canvas_->setFocus();
  } else {
    start_->refresh();
  }
}

void Workroom::adopt(std::unique_ptr<Session> session) {
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
  session_ = std::move(session);
  givenUp_.reset();
  if (!session_) return;
  connect(session_.get(), &Session::quiltChanged, this, &Workroom::refresh);
  connect(session_.get(), &Session::deskChanged, this, &Workroom::refresh);
  connect(session_.get(), &Session::asksFarther, this, [this](const QString& question) { notices_->tell({question}); });
  connect(session_.get(), &Session::failed, this, &Workroom::report);
  connect(&session_->sheets(), &SheetWork::told, this, [this](const QString& what) { foot_->say(what); });
  QStringList problems;
  for (const Error& problem : session_->problems()) problems << QString::fromStdString(problem.text());
  notices_->tell(problems);
  useState();
  refresh();
}

void Workroom::keepState() {
  const QString folder = QString::fromStdString(session_->store().folder());
  Json state = deskJson(session_->desk(), session_->quilt());
  Json::Object views;
  const auto number = [](double value) { return Json::Number{QString::number(value, 'g', 9).toStdString()}; };
  for (const auto& [map, view] : canvas_->views()) {
    views.emplace_back(map.text(), Json::Object{{"zoom", number(view.zoom)},
                                                {"x", number(view.middle.x())},
                                                {"y", number(view.middle.y())},
                                                {"whole", view.whole}});
  }
  Json::Array panels;
  for (const int size : panels_->sizes()) panels.emplace_back(size);
  state.set("views", std::move(views));
  state.set("panels", std::move(panels));
  state.set("window", saveGeometry().toBase64().toStdString());
  uq::keepState(folder, state);
  rememberQuilt(folder, QString::fromStdString(session_->quilt().facts().name),
                [pictures = session_->painter().pictures(), quilt = session_->quilt(), id = session_->desk().map] {
                  const Map* map = quilt.map(id);
                  MapPainter painter(pictures);
                  return map ? smallPicture(painter, quilt, *map, kRecentPicture).picture : QImage();
                });
}

void Workroom::useState() {
  const QString folder = QString::fromStdString(session_->store().folder());
  rememberQuilt(folder, QString::fromStdString(session_->quilt().facts().name));
  const std::optional<Json>& state = session_->kept();
  if (!state) return;
  const auto number = [](const Json& json, const char* name) {
    const Json* found = json.find(name);
    if (const auto* whole = found ? found->as<std::int64_t>() : nullptr) return static_cast<double>(*whole);
    const auto* spelt = found ? found->as<Json::Number>() : nullptr;
    return spelt ? QString::fromStdString(spelt->text).toDouble() : 0;
  };
  std::map<Id, MapCanvas::View> views;
  const Json* kept = state->find("views");
  if (const auto* fields = kept ? kept->as<Json::Object>() : nullptr) {
    for (const auto& [map, view] : *fields) {
      const auto id = Id::parse(map);
      const Json* whole = view.find("whole");
      const bool* isWhole = whole ? whole->as<bool>() : nullptr;
      if (id) views[*id] = {number(view, "zoom"), {number(view, "x"), number(view, "y")}, isWhole && *isWhole};
    }
  }
  // A window takes the place of its first quilt; later ones are opened where it is.
  if (const Json* window = state->find("window"); window && std::exchange(isFresh_, false)) {
    const auto* text = window->as<std::string>();
    if (text && !isMaximized() && !isFullScreen()) restoreGeometry(QByteArray::fromBase64(QByteArray::fromStdString(*text)));
  }
  if (const Json* panels = state->find("panels")) {
    QList<int> sizes;
    const auto* list = panels->as<Json::Array>();
    for (std::size_t i = 0; list && i < list->size(); ++i) {
      const auto* size = (*list)[i].as<std::int64_t>();
      if (size && *size > 0 && *size < 100'000) sizes << static_cast<int>(*size);
    }
    if (sizes.size() == 3) panels_->setSizes(sizes);
  }
  canvas_->setViews(std::move(views));
}

QString Workroom::freeFolder(const QString& name) {
  const QString slug = QString::fromStdString(slugFor(name.toStdString(), {}));
  const QString wanted = StartPage::quiltsFolder() + QLatin1Char('/') + slug;
  QString folder = wanted;
  for (int n = 2; QFileInfo::exists(folder); ++n) folder = QStringLiteral("%1-%2").arg(wanted).arg(n);
  return folder;
}

void Workroom::exportMap() {
  QFileDialog dialog(this, tr("Export %1").arg(QString::fromStdString(session_->map()->name)));
  dialog.setObjectName(QStringLiteral("export-map-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setAcceptMode(QFileDialog::AcceptSave);
  dialog.setNameFilters({tr("One picture (*.png)"), tr("Layered picture, OpenRaster (*.ora)")});
  dialog.setDefaultSuffix(QStringLiteral("png"));
  connect(&dialog, &QFileDialog::filterSelected, &dialog, [&dialog](const QString& filter) {
    dialog.setDefaultSuffix(filter.contains(QLatin1String("*.ora")) ? QStringLiteral("ora") : QStringLiteral("png"));
  });
  dialog.selectFile(QString::fromStdString(session_->map()->folder) + QStringLiteral(".png"));
  if (dialog.exec() != QDialog::Accepted || dialog.selectedFiles().isEmpty() || work_.isRunning()) return;
  const QString path = dialog.selectedFiles().front();
  work_.start<Result<void>>(
      LongWork::Kind::look, tr("Exporting %1…").arg(QString::fromStdString(session_->map()->name)),
      [disk = disk_, quilt = session_->quilt(), id = session_->map()->id, path = path.toStdString(),
       pictures = session_->painter().pictures()](Progress& progress) {
        MapPainter painter(pictures);
        return uq::exportMap(*disk, painter, quilt, *quilt.map(id), path, &progress);
      },
      [this, path](Result<void> written) {
        if (written) return foot_->say(tr("Exported as %1.").arg(QDir::toNativeSeparators(path)));
        if (written.error().cause != Error::Cause::cancelled) report(written.error());
      });
}

void Workroom::create(const QString& name, std::function<Result<Quilt>(Progress&)> quilt, const QString& folder,
                      const std::function<void()>& then) {
  if (!QDir().mkpath(QFileInfo(folder).absolutePath())) {
    return report(Error{Error::Cause::notPermitted, "the folder cannot be made", folder.toStdString(), 0,
                        "Nothing was written", "Choose another place"});
  }
  work_.start<Result<Session::Loaded>>(
      LongWork::Kind::open, tr("Making %1…").arg(name),
      [disk = disk_, quilt = std::move(quilt), folder = folder.toStdString()](Progress& progress)
          -> Result<Session::Loaded> {
        const Result<Quilt> made = quilt(progress);
        if (!made) return fail(made.error());
        auto created = QuiltStore::create(disk, folder, *made, &progress);
        if (!created) return fail(created.error());
        created = fail(Error{});  // lets the lock go
        return Session::load(folder, progress, disk);
      },
      [this, then](Result<Session::Loaded> loaded) {
        if (!loaded) {
          if (loaded.error().cause != Error::Cause::cancelled) report(loaded.error());
          return;
        }
        adopt(std::make_unique<Session>(std::move(*loaded)));
        showSession();
        then();
      });
}

void Workroom::newQuilt(const QString& name, const QString& folder) {
  leaveThen([this, name, folder] {
    QuiltFacts facts;
    facts.id = IdSource::fromSystem().next();
    facts.name = name.toStdString();
    create(
        name, [quilt = Quilt(facts)](Progress&) { return quilt; }, folder, [this] { askForMap(); });
  });
}

void Workroom::openDemo() {
  leaveThen([this] {
    const auto demo = [disk = disk_, folder = demoFolder().toStdString()](Progress& progress) -> Result<Quilt> {
      auto opened = QuiltStore::open(disk, folder, QuiltStore::Access::read, &progress);
      if (!opened) return fail(opened.error());
      return std::move(opened->quilt);
    };
    create(tr("a copy of the demo"), demo, freeFolder(QFileInfo(demoFolder()).fileName()), [] {});
  });
}

void Workroom::askForMap(const Sheet* sheet) {
  const Map* like = session_->map();
  if (!like && !session_->quilt().maps().empty()) like = &session_->quilt().maps().back().read();
  const Block& held = session_->desk().inHand.block;
  const SheetSlot slot = held.empty() ? kChalkSlot : held.parts().front().cell.tile().slot;
  if (!sheet && slot != kChalkSlot) sheet = session_->quilt().sheetAt(slot);
  newMap_->open(session_->quilt(), like, sheet);
}

void Workroom::deleteMap() {
  const Map& map = *session_->map();
  const QString name = QString::fromStdString(map.name);
  session_->deleteMap(map.id);
  foot_->say(tr("%1 was deleted. %2 brings it back.").arg(name, KeyBindings::shared().text(ActionId::undo)));
}

void Workroom::openQuilt(const QString& folder) {
  QString path = QFileInfo(folder).absoluteFilePath();
  if (QFileInfo(path).isFile()) path = QFileInfo(path).absolutePath();
  leaveThen([this, path = QDir::cleanPath(path)] {
    work_.start<Result<Session::Loaded>>(
        LongWork::Kind::open, tr("Opening %1…").arg(QFileInfo(path).fileName()),
        [folder = path.toStdString(), disk = disk_](Progress& progress) {
          return Session::load(folder, progress, disk);
        },
        [this](Result<Session::Loaded> loaded) {
          if (!loaded) {
            givenUp_.reset();
            if (loaded.error().cause != Error::Cause::cancelled) report(loaded.error());
            return;
          }
          // The present quilt could be worked on meanwhile.
          auto fresh = std::make_shared<Session::Loaded>(std::move(*loaded));
          leaveThen([this, fresh] {
            adopt(std::make_unique<Session>(std::move(*fresh)));
            showSession();
          });
        });
  });
}

void Workroom::refresh() {
  if (!session_) {
    actions_->refreshAlone(work_.isRunning());
    setWindowTitle(tr("Urban Quilt"));
  } else {
    actions_->refresh(situation());
    setWindowTitle(tr("%1[*] — Urban Quilt").arg(QString::fromStdString(session_->quilt().facts().name)));
    setWindowModified(!session_->isSaved());
  }
  tape_->refresh(session_.get());
  foot_->refresh(session_.get(), *canvas_, overTable_);
}

void Workroom::lift(int steps) {
  session_->setLift(session_->desk().lift + steps * std::max(1, levelStep(*session_->map()) / 4));
}

Situation Workroom::situation() const {
  Situation now = session_->situation();
  now.busy = work_.isRunning();
  return now;
}

void Workroom::act(ActionId id) {
  const auto changeDesk = [this](auto change) {
    Desk desk = session_->desk();
    change(desk);
    session_->setDesk(std::move(desk));
  };
  switch (id) {
    case ActionId::newQuilt:
      if (session_) {
        anotherWindow()->startPage()->askForNewQuilt();
      } else {
        start_->askForNewQuilt();
      }
      break;
    case ActionId::newWindow: anotherWindow(); break;
    case ActionId::openQuilt: chooseQuilt(); break;
    case ActionId::saveQuilt: save(); break;
    case ActionId::saveQuiltAs: saveAs(); break;
    case ActionId::closeWindow: close(); break;
    case ActionId::undo: session_->undo(); break;
    case ActionId::redo: session_->redo(); break;
    case ActionId::dropWork: session_->dropWork(); break;
    case ActionId::selectAll: session_->selectAll(); break;
    case ActionId::deleteCells: session_->deleteSelected(); break;
    case ActionId::copyCells: session_->copySelected(); break;
    case ActionId::cutCells: session_->cutSelected(); break;
    case ActionId::pasteCells: session_->paste(); break;
    case ActionId::listSteps:
      steps_->open(session_.get(), tabs_->mapToGlobal(tabs_->rect().bottomRight()) - QPoint(360, 0));
      break;
    case ActionId::turnLeft: turn(Turning::left); break;
    case ActionId::turnRight: turn(Turning::right); break;
    case ActionId::mirrorAcross: turn(Turning::mirrorAcross); break;
    case ActionId::mirrorDown: turn(Turning::mirrorDown); break;
    case ActionId::turnByChance: session_->setChance(!session_->desk().inHand.turnsByChance); break;
    case ActionId::throwAgain: session_->throwAgain(); break;
    case ActionId::nextManner: nextManner(); break;
    case ActionId::keepStamp: session_->keepStamp(); break;
    case ActionId::showLens: canvas_->showLens(); break;
    case ActionId::duplicateCells: session_->duplicateSelected(); break;
    case ActionId::fillCells: session_->fillSelected(); break;
    case ActionId::selectionNearer: session_->selectedToLayer(1); break;
    case ActionId::selectionFarther: session_->selectedToLayer(-1); break;
    case ActionId::growSelection: session_->growSelection(); break;
    case ActionId::shrinkSelection: session_->shrinkSelection(); break;
    case ActionId::invertSelection: session_->invertSelection(); break;
    case ActionId::straighten: session_->straightenHand(); break;
    case ActionId::liftHigher: lift(1); break;
    case ActionId::liftLower: lift(-1); break;
    case ActionId::newMap: askForMap(); break;
    case ActionId::listMaps:
      maps_->open(session_.get(), mapToGlobal(QPoint(width() / 2, menuBar()->height() + tabs_->height() + 24)));
      break;
    case ActionId::renameMap: tabs_->rename(); break;
    case ActionId::duplicateMap: session_->duplicateMap(); break;
    case ActionId::deleteMap: deleteMap(); break;
    case ActionId::openWithMap: session_->setOpeningMap(); break;
    case ActionId::closeMap: session_->closeTab(session_->desk().map); break;
    case ActionId::nextMap: goToMap(1); break;
    case ActionId::previousMap: goToMap(-1); break;
    case ActionId::nearerLayer: session_->setDesk(withNearerLayer(session_->desk(), session_->quilt(), 1)); break;
    case ActionId::fartherLayer: session_->setDesk(withNearerLayer(session_->desk(), session_->quilt(), -1)); break;
    case ActionId::addLayer: {
      const Layer* active = session_->quilt().layer(session_->desk().landing());
      session_->addLayer({activeIndex() + 1, active ? active->folder : Id()});
      break;
    }
    case ActionId::duplicateLayer: session_->duplicateLayer(); break;
    case ActionId::renameLayer: stack_->renameActive(); break;
    case ActionId::layerNearer: session_->moveLayer(session_->desk().landing().layer, 1); break;
    case ActionId::layerFarther: session_->moveLayer(session_->desk().landing().layer, -1); break;
    case ActionId::deleteLayer: session_->deleteLayer(); break;
    case ActionId::foldLayers:
      session_->foldLayers();
      stack_->renameLevel();
      break;
    case ActionId::unfold: session_->unfold(); break;
    case ActionId::coveredCells: changeDesk([](Desk& desk) { desk.showsCovered = !desk.showsCovered; }); break;
    case ActionId::holes: changeDesk([](Desk& desk) { desk.showsHoles = !desk.showsHoles; }); break;
    case ActionId::stripCovered: session_->stripCovered(); break;
    case ActionId::colourByHeight:
      changeDesk(
          [](Desk& desk) { desk.tinting = desk.tinting == Tinting::byHeight ? Tinting::no : Tinting::byHeight; });
      break;
    case ActionId::exportMap: exportMap(); break;
    case ActionId::addLevel: session_->addLevel(); break;
    case ActionId::renameLevel: stack_->renameLevel(); break;
    case ActionId::deleteLevel: session_->deleteLevel(); break;
    case ActionId::toggleEye: toggleEye(*session_, session_->desk().landing().layer); break;
    case ActionId::toggleLock: toggleLock(*session_, session_->desk().landing().layer); break;
    case ActionId::zoomIn: canvas_->zoomBySteps(1); break;
    case ActionId::zoomOut: canvas_->zoomBySteps(-1); break;
    case ActionId::wholeMap: canvas_->fitMap(); break;
    case ActionId::goToTable:
      if (table()->hasFocus()) {
        canvas_->setFocus(Qt::TabFocusReason);
      } else {
        spreadTable(!spread_->isVisible(), !spreadUsed_);
      }
      break;
    case ActionId::bringIn: chooseFiles(); break;
    case ActionId::sheetCard: showCard(sheetCard_, sheetInHand()); break;
    case ActionId::tidySheet: tidy(sheetInHand()); break;
    case ActionId::exportSheet: showCard(exportCard_, sheetInHand()); break;
    case ActionId::playFrames: changeDesk([](Desk& desk) { desk.playsFrames = !desk.playsFrames; }); break;
    case ActionId::searchTable:
      spreadTable(false);
      panel_->search();
      break;
    case ActionId::usedHere: panel_->showUsed(!panel_->showsUsed()); break;
    case ActionId::fitsHere: panel_->showFitting(!panel_->showsFitting()); break;
    case ActionId::looseJoints: changeDesk([](Desk& desk) { desk.showsJoints = !desk.showsJoints; }); break;
    case ActionId::nextJoint: joints_->next(*session_); break;
    case ActionId::nextPlace: panel_->showNextPlace(session_->desk().inHand.parts().front().cell.tile()); break;
    case ActionId::heldBefore: session_->take(session_->desk().held[1]); break;
    case ActionId::fitSelection: canvas_->fitSelection(); break;
    case ActionId::fullSize: canvas_->showFullSize(); break;
    case ActionId::gridLines: changeDesk([](Desk& desk) { desk.gridLines = !desk.gridLines; }); break;
    case ActionId::rulers: changeDesk([](Desk& desk) { desk.rulers = !desk.rulers; }); break;
    case ActionId::fadeOthers: changeDesk([](Desk& desk) { desk.fadesOthers = !desk.fadesOthers; }); break;
    case ActionId::boxAlongGrid:
      changeDesk([this](Desk& desk) {
        const BoxShape now = desk.box.value_or(usualBox(session_->map()->grid.kind));
        desk.box = now == BoxShape::asSeen ? BoxShape::alongTheGrid : BoxShape::asSeen;
      });
      break;
    case ActionId::screenFrame:
      canvas_->playCamera(false);
      changeDesk([this](Desk& desk) {
        desk.showsFrame = !desk.showsFrame;
        const PixelPos at = desk.showsFrame ? desk.camera().value_or(PixelPos{}) : PixelPos{};
        if (desk.showsFrame) desk.cameras[desk.map] = cameraNear(session_->quilt(), *session_->map(), at);
      });
      break;
    case ActionId::playCamera: canvas_->playCamera(!canvas_->playsCamera()); break;
    case ActionId::mapFacts:
      hideCards();
      mapFacts_->open();
      break;
    case ActionId::listRoles:
      hideCards();
      rolesCard_->open();
      break;
    case ActionId::hangPicture: {
      QFileDialog dialog(this, tr("Hang a picture"));
      dialog.setObjectName(QStringLiteral("hang-dialog"));
      dialog.setFileMode(QFileDialog::ExistingFiles);
      dialog.setNameFilter(tr("Pictures (%1)").arg(QStringLiteral("*.png *.webp *.bmp *.gif *.jpg *.jpeg")));
      if (dialog.exec() == QDialog::Accepted) hang(dialog.selectedFiles());
      break;
    }
    case ActionId::hangSheet: session_->hangBackdrops({sheetInHand()}); break;
    case ActionId::addPins: session_->addPins(activeIndex() + 1); break;
    case ActionId::mergeDown: session_->mergeDown(); break;
    case ActionId::planView: changeDesk([](Desk& desk) { desk.planView = !desk.planView; }); break;
    case ActionId::linen: chooseTheme(ThemeChoice::linen); break;
    case ActionId::indigo: chooseTheme(ThemeChoice::indigo); break;
    case ActionId::asDesktop: chooseTheme(ThemeChoice::asDesktop); break;
    case ActionId::findHelp:
      find_->open(mapToGlobal(QPoint(width() / 2, menuBar()->height() + 40)), canvas_->refusal());
      break;
    case ActionId::listKeys: keysPage_->open(); break;
    case ActionId::brush:
    case ActionId::erase:
    case ActionId::box:
    case ActionId::fill:
    case ActionId::select:
    case ActionId::line:
    case ActionId::oval: changeDesk([tool = *toolOf(id)](Desk& desk) { desk.tool = tool; }); break;
    case ActionId::optionBefore: stepOption(-1); break;
    case ActionId::optionAfter: stepOption(1); break;
    case ActionId::outlinesOnly: changeDesk([](Desk& desk) { desk.options.outlines = !desk.options.outlines; }); break;
    case ActionId::throughCorners:
      changeDesk([](Desk& desk) { desk.options.throughCorners = !desk.options.throughCorners; });
      break;
    case ActionId::onlyThisTile: changeDesk([](Desk& desk) { desk.options.onlyThis = !desk.options.onlyThis; }); break;
    case ActionId::regionsAsSeen:
      changeDesk([](Desk& desk) {
        const bool on = !desk.options.asSeen.value_or(false);
        desk.options.asSeen = on ? std::optional(true) : std::nullopt;
      });
      break;
    case ActionId::selectByBox: changeDesk([](Desk& desk) { desk.options.selectBy = SelectBy::box; }); break;
    case ActionId::selectByOutline: changeDesk([](Desk& desk) { desk.options.selectBy = SelectBy::outline; }); break;
    case ActionId::selectTouching: changeDesk([](Desk& desk) { desk.options.selectBy = SelectBy::touching; }); break;
    case ActionId::selectEverywhere:
      changeDesk([](Desk& desk) { desk.options.selectBy = SelectBy::everywhere; });
      break;
    case ActionId::allLayers: changeDesk([](Desk& desk) { desk.options.allLayers = !desk.options.allLayers; }); break;
    case ActionId::layTiles:
    case ActionId::takeAway:
    case ActionId::takeFromMap:
    case ActionId::takeBlockFromMap:
    case ActionId::gatherTiles:
    case ActionId::joinStroke:
    case ActionId::lookInto:
    case ActionId::refitStretch:
    case ActionId::stepLook:
    case ActionId::takeStamp:
    case ActionId::panView:
    case ActionId::zoomView:
    case ActionId::scrollView:
    case ActionId::stepView:
    case ActionId::selectCells:
    case ActionId::moveCells:
    case ActionId::nudgeCells:
    case ActionId::takeFromTable:
    case ActionId::takeBlockFromTable:
    case ActionId::takeByKeys:
    case ActionId::paintByKeys:
    case ActionId::moveOverview:
    case ActionId::dropPictures:
    case ActionId::moveSheet:
    case ActionId::foldPile:
    case ActionId::spreadTable:
    case ActionId::holdTool: break;  // gestures, which the canvas and the Table carry out
  }
  if (session_) actions_->refresh(situation());
}

void Workroom::turn(Turning turning) {
  const bool selected = session_->desk().tool == Tool::select && !session_->desk().selection().empty();
  selected ? session_->turnSelected(turning) : session_->turnHand(turning);
}

void Workroom::nextManner() {
  static constexpr Manner kManners[] = {Manner::asItIs, Manner::stretch, Manner::mix};
  const auto now = std::find(std::begin(kManners), std::end(kManners), session_->desk().inHand.manner);
  session_->setManner(now + 1 == std::end(kManners) ? kManners[0] : *(now + 1));
}

// What , and . step depends on the tool.
void Workroom::stepOption(int steps) {
  if (canvas_->holdsStretch()) return canvas_->stepLookAlike(steps);
  Desk desk = session_->desk();
  ToolOptions& options = desk.options;
  switch (desk.tool) {
    case Tool::brush:
    case Tool::erase: options.width = std::clamp(options.width + 2 * steps, kWidths[0], kWidths[4]); break;
    case Tool::box:
    case Tool::oval: options.outlines = !options.outlines; break;
    case Tool::select:
      options.selectBy = static_cast<SelectBy>((static_cast<int>(options.selectBy) + steps + 4) % 4);
      break;
    case Tool::fill: options.asSeen = options.asSeen ? std::nullopt : std::optional(true); break;
    case Tool::line: break;
  }
  session_->setDesk(std::move(desk));
}

std::size_t Workroom::activeIndex() const {
  return session_->map()->layerIndex(session_->desk().landing().layer).value_or(0);
}

void Workroom::goToMap(int steps) {
  const std::vector<Id>& tabs = session_->desk().openMaps;
  const auto count = static_cast<std::ptrdiff_t>(tabs.size());
  const auto now = std::find(tabs.begin(), tabs.end(), session_->desk().map) - tabs.begin();
  session_->goTo(tabs[static_cast<std::size_t>((now + steps + count) % count)]);
}

void Workroom::report(const Error& error) { notices_->tell({QString::fromStdString(error.text())}); }

void Workroom::save(const std::function<void()>& next) {
  session_->save(work_, [this, next](const Result<QuiltStore::Saved>& saved) {
    if (!saved) return report(saved.error());
    notices_->tell({});
    foot_->say(
        tr("Saved. %n file(s) written.", nullptr, static_cast<int>(saved->written.size() + saved->moved.size())));
    if (next) next();
  });
}

void Workroom::saveAs() {
  const QString folder = askForFolder(tr("Save the quilt in a new folder"), tr("Save here"), true);
  if (folder.isEmpty()) return;
  session_->saveAs(work_, folder.toStdString(), [this, folder](const Result<QuiltStore::Saved>& saved) {
    if (!saved) return report(saved.error());
    notices_->tell({});
    foot_->say(tr("Saved in %1.").arg(QDir::toNativeSeparators(folder)));
  });
}

QString Workroom::askForFolder(const QString& title, const QString& button, bool toSave) {
  QFileDialog dialog(this, title);
  dialog.setObjectName(QStringLiteral("folder-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setFileMode(toSave ? QFileDialog::AnyFile : QFileDialog::Directory);
  dialog.setOption(QFileDialog::ShowDirsOnly);
  dialog.setAcceptMode(toSave ? QFileDialog::AcceptSave : QFileDialog::AcceptOpen);
  dialog.setLabelText(QFileDialog::FileName, tr("Folder:"));
  dialog.setLabelText(QFileDialog::FileType, tr("Shown:"));
  dialog.setNameFilter(tr("Folders (*)"));
  dialog.setLabelText(QFileDialog::Accept, button);
  if (session_) dialog.setDirectory(QFileInfo(QString::fromStdString(session_->store().folder())).absolutePath());
  return dialog.exec() == QDialog::Accepted ? dialog.selectedFiles().value(0) : QString();
}

void Workroom::chooseQuilt() {
  leaveThen([this] {
    const QString folder = askForFolder(tr("Open a quilt"), tr("Open"), false);
    if (folder.isEmpty()) {
      givenUp_.reset();
    } else {
      openQuilt(folder);
    }
  });
}

void Workroom::leaveThen(std::function<void()> next) {
  if (work_.isRunning()) {
    if (work_.kind() == LongWork::Kind::open) work_.cancel();
    connect(
        &work_, &LongWork::ended, this, [this, next = std::move(next)] { leaveThen(next); },
        Qt::ConnectionType(Qt::QueuedConnection | Qt::SingleShotConnection));
    return;
  }
  if (session_) session_->endStroke();
  if (!session_ || session_->isSaved() || (givenUp_ && session_->quilt() == *givenUp_)) return next();
  QMessageBox question(this);
  question.setObjectName(QStringLiteral("unsaved-question"));
  question.setWindowTitle(tr("Unsaved changes"));
  question.setText(
      tr("%1 has changes that are not saved.").arg(QString::fromStdString(session_->quilt().facts().name)));
  question.setInformativeText(tr("If you leave without saving, they are lost."));
  auto* saveFirst = question.addButton(tr("Save"), QMessageBox::AcceptRole);
  auto* leave = question.addButton(tr("Leave without saving"), QMessageBox::DestructiveRole);
  auto* stay = question.addButton(tr("Go on working"), QMessageBox::RejectRole);
  saveFirst->setObjectName(QStringLiteral("save-first"));
  leave->setObjectName(QStringLiteral("leave-unsaved"));
  stay->setObjectName(QStringLiteral("go-on"));
  question.setDefaultButton(saveFirst);
  question.setEscapeButton(stay);
  question.exec();
  // What was painted while saving is asked about again.
  if (question.clickedButton() == saveFirst) return save([this, next = std::move(next)] { leaveThen(next); });
  if (question.clickedButton() != leave) return;
  givenUp_ = session_->quilt();
  next();
}

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

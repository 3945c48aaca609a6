// What of Workroom opens, makes, saves and leaves quilts.
#include "app/workroom/Workroom.h"

#include <QApplication>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>

#include "app/actions/KeyBindings.h"
#include "app/look/Panes.h"
#include "app/workroom/Columns.h"
#include "app/workroom/FolderDialog.h"
#include "app/workroom/JoinCard.h"
#include "app/workroom/KeptState.h"
#include "app/workroom/SheetWork.h"
#include "app/workroom/WorkKeeper.h"
#include "core/edit/Landing.h"
#include "core/store/DeskText.h"
#include "raster/MapExport.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr QSize kRecentPicture(400, 268);  // pixels

}  // namespace

void Workroom::keepDesk() {
  const QString folder = QString::fromStdString(session_->folder());
  Json state = deskJson(session_->desk(), session_->quilt());
  Json::Object views;
  const auto number = [](double value) { return Json::Number{QString::number(value, 'g', 9).toStdString()}; };
  for (const auto& [map, view] : canvas_->views()) {
    views.emplace_back(map.text(), Json::Object{{"zoom", number(view.zoom)},
                                                {"x", number(view.middle.x())},
                                                {"y", number(view.middle.y())},
                                                {"whole", view.whole}});
  }
  state.set("views", std::move(views));
  state.set("columns", columns_->kept());
  state.set("panes", Json::Object{{"table", panel_->panes()->keptSizes()},
                                  {"left", leftPanes_->keptSizes()},
                                  {"board", boardPanes_->keptSizes()},
                                  {"stack", stack_->panes()->keptSizes()}});
  state.set("window", saveGeometry().toBase64().toStdString());
  uq::keepState(folder, state);
  session_->kept() = state;
}

void Workroom::keepState() {
  keepDesk();
  rememberQuilt(QString::fromStdString(session_->folder()), QString::fromStdString(session_->quilt().facts().name),
                [pictures = session_->painter().pictures(), quilt = session_->quilt(), id = session_->desk().map] {
                  const Map* map = quilt.map(id);
                  MapPainter painter(pictures);
                  return map ? smallPicture(painter, quilt, *map, kRecentPicture).picture : QImage();
                });
}

void Workroom::useState() {
  const QString folder = QString::fromStdString(session_->folder());
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
  if (const Json* columns = state->find("columns")) columns_->use(*columns);
  if (const Json* panes = state->find("panes")) {
    const std::pair<const char*, Panes*> all[] = {
        {"table", panel_->panes()}, {"left", leftPanes_}, {"board", boardPanes_}, {"stack", stack_->panes()}};
    for (const auto& [name, one] : all) {
      if (const Json* sizes = panes->find(name)) one->useSizes(*sizes);
    }
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
        (void)adopt(std::make_unique<Session>(std::move(*loaded)));
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

void Workroom::openDemo(const QString& map) {
  leaveThen([this, map] {
    const auto demo = [disk = disk_, folder = demoFolder().toStdString()](Progress& progress) -> Result<Quilt> {
      auto opened = QuiltStore::open(disk, folder, QuiltStore::Access::read, &progress);
      if (!opened) return fail(opened.error());
      return std::move(opened->quilt);
    };
    create(tr("a copy of the demo"), demo, freeFolder(QFileInfo(demoFolder()).fileName()), [this, map] {
      const Map* shown = session_->quilt().mapNamed(map.toStdString());
      if (shown) session_->verbs().maps.goTo(shown->id);
    });
  });
}

void Workroom::openQuilt(const QString& folder) {
  QString path = QFileInfo(folder).absoluteFilePath();
  // Asked only when the window is there, in which it is asked.
  if (isPacked(path)) {
    QMetaObject::invokeMethod(this, [this, path] { openPacked(path); }, Qt::QueuedConnection);
    return;
  }
  if (QFileInfo(path).isFile()) path = QFileInfo(path).absolutePath();
  leaveThen([this, path = QDir::cleanPath(path)] {
    work_.start<Result<Session::Loaded>>(
        LongWork::Kind::open, tr("Opening %1…").arg(QFileInfo(path).fileName()),
        [this, folder = path.toStdString(), disk = disk_](Progress& progress) {
          return Session::load(folder, progress, disk, [this](Session::Loaded early) {
            QMetaObject::invokeMethod(
                this, [this, early = std::make_shared<Session::Loaded>(std::move(early))] { seeEarly(std::move(*early)); },
                Qt::QueuedConnection);
          });
        },
        [this](Result<Session::Loaded> loaded) {
          if (!loaded || work_.isCancelled()) {
            givenUp_.reset();
            leaveEarly();
            if (!loaded && loaded.error().cause != Error::Cause::cancelled) report(loaded.error());
            return;
          }
          if (session_ && session_->isComing()) {
            before_.reset();
            return session_->arrive(std::move(*loaded));
          }
          // The present quilt could be worked on meanwhile.
          auto fresh = std::make_shared<Session::Loaded>(std::move(*loaded));
          leaveThen([this, fresh] {
            (void)adopt(std::make_unique<Session>(std::move(*fresh)));
            showSession();
          });
        });
  });
}

void Workroom::saveUnasked() {
  const bool may = session_ && !session_->isComing() && !session_->inGesture() && !work_.isRunning() &&
                   !joinCard_->isVisible() && !cameBack_->isVisible();
  if (may && !session_->isSaved() && !session_->store().readOnly()) save();
}

void Workroom::lookAtSaved() {
  const QString folder = QString::fromStdString(session_->folder());
  session_->beside().keeper->putAside();
  // The lock goes with the session, before the folder is opened again.
  adopt(nullptr).reset();
  showSession();
  openQuilt(folder);
}

void Workroom::seeEarly(Session::Loaded loaded) {
  if (!work_.isRunning() || work_.isCancelled()) return;
  if (session_ && session_->isComing()) return session_->arrive(std::move(loaded));
  // What is not saved is asked about in the end, when the whole quilt is there.
  if (session_ && !mayGo()) return;
  before_ = adopt(std::make_unique<Session>(std::move(loaded)));
  showSession();
}

void Workroom::leaveEarly() {
  if (!session_ || !session_->isComing()) return;
  (void)adopt(std::move(before_));
  showSession();
}

void Workroom::save(const std::function<void()>& next) {
  exportPage_->form()->take();
  QStringList changed;
  for (const Shared<Map>& map : session_->quilt().maps()) {
    if (!session_->isSaved(map.read())) changed << QString::fromStdString(map->name);
  }
  session_->save(work_, [this, next, changed](const Result<QuiltStore::Saved>& saved) {
    if (!saved) return report(saved.error());
    notices_->tell({});
    exports_->afterSaving(changed);
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

QString Workroom::askForFolder(const QString& title, const QString& button, bool toSave, const QString& proposed) {
  FolderDialog dialog(this, title, button, toSave);
  if (session_) dialog.setDirectory(QFileInfo(QString::fromStdString(session_->folder())).absolutePath());
  if (!proposed.isEmpty()) {
    // Where nothing was made yet its folder is not there either.
    (void)QDir().mkpath(QFileInfo(proposed).absolutePath());
    dialog.setDirectory(QFileInfo(proposed).absolutePath());
    dialog.selectFile(QFileInfo(proposed).fileName());
  }
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

bool Workroom::closeAll() {
  QApplication::closeAllWindows();
  const auto any = [](const auto& holds) {
    const auto windows = QApplication::topLevelWidgets();
    return std::any_of(windows.begin(), windows.end(), [&](QWidget* one) {
      auto* room = qobject_cast<Workroom*>(one);
      return room && room->isVisible() && holds(*room);
    });
  };
  while (any([](Workroom& room) { return room.work_.isRunning(); })) {
    QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents);
    QCoreApplication::sendPostedEvents();  // a window that waited for its work closes then
  }
  return !any([](Workroom&) { return true; });
}

bool Workroom::mayGo() const {
  return session_->isSaved() || (givenUp_ && !session_->inGesture() && session_->quilt() == *givenUp_);
}

void Workroom::leaveThen(std::function<void()> next) {
  if (work_.isRunning()) {
    if (work_.kind() == LongWork::Kind::open) work_.cancel();
    connect(
        &work_, &LongWork::ended, this, [this, next = std::move(next)] { leaveThen(next); },
        Qt::ConnectionType(Qt::QueuedConnection | Qt::SingleShotConnection));
    return;
  }
  if (session_) (void)session_->work().finish();
  if (session_) exportPage_->form()->take();
  if (!session_ || mayGo()) return next();
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

}  // namespace uq

#include "app/workroom/Workroom.h"

#include <QCloseEvent>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QSplitter>
#include <QUrl>
#include <QVBoxLayout>

#include "app/look/Icons.h"
#include "app/look/Theme.h"
#include "app/look/ThemeChoice.h"
#include "app/look/Widgets.h"
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

  tabs_ = new MapTabs(this);
  connect(tabs_, &MapTabs::undoPressed, actions_->action(ActionId::undo), &QAction::trigger);
  notices_ = new NoticeStrip(this);
  canvas_ = new MapCanvas(actions_, this);
  stack_ = new StackPanel(this);
  steps_ = new StepList(this);
  foot_ = new FootLine(this);

  auto* middle = new QWidget(this);
  auto* middleLayout = new QVBoxLayout(middle);
  middleLayout->setContentsMargins(0, 0, 0, 0);
  middleLayout->setSpacing(0);
  middleLayout->addWidget(notices_);
  middleLayout->addWidget(canvas_, 1);
  middleLayout->addWidget(new Tape(actions_, middle));

  auto* panels = new QSplitter(this);
  panels->setObjectName(QStringLiteral("panels"));
  panels->setHandleWidth(1);
  panels->setChildrenCollapsible(false);
  panels->addWidget(buildLeft());
  panels->addWidget(middle);
  panels->addWidget(stack_);
  panels->setStretchFactor(1, 1);
  panels->setSizes({296, 720, 264});

  auto* central = new QWidget(this);
  auto* footRow = new QHBoxLayout;
  footRow->setSpacing(0);
  footRow->addWidget(new ProgressStrip(&work_, central));
  footRow->addWidget(foot_, 1);
  auto* layout = new QVBoxLayout(central);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(tabs_);
  layout->addWidget(panels, 1);
  layout->addLayout(footRow);
  setCentralWidget(central);

  connect(stack_, &StackPanel::handsFree, canvas_, qOverload<>(&QWidget::setFocus));
  connect(canvas_, &MapCanvas::hovered, this, [this] {
    overTable_ = false;
    foot_->refresh(session_.get(), *canvas_, overTable_);
  });
  connect(canvas_, &MapCanvas::viewChanged, this, [this] { foot_->refresh(session_.get(), *canvas_, overTable_); });
  connect(table_, &TableView::pointedAt, this, [this](const QString& tile) {
    pointedTile_->setText(tile);
    overTable_ = !tile.isEmpty();
    foot_->refresh(session_.get(), *canvas_, overTable_);
  });
  connect(&work_, &LongWork::began, this, &Workroom::refresh);
  connect(&work_, &LongWork::ended, this, &Workroom::refresh);
  refresh();
  canvas_->setFocus();
}

Workroom::~Workroom() {
  // Panels look at the session until they are gone.
  adopt(nullptr);
}

QWidget* Workroom::buildLeft() {
  auto* left = new QWidget(this);
  table_ = new TableView(actions_, left);
  inHand_ = new InHandPanel(actions_, left);
  pointedTile_ = makeSoftLabel(left);
  pointedTile_->setObjectName(QStringLiteral("pointed-tile"));
  pointedTile_->setWordWrap(false);
  pointedTile_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  pointedTile_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  auto* heading = new QHBoxLayout;
  heading->addWidget(makeTitle(tr("Table"), left));
  heading->addWidget(pointedTile_, 1);
  auto* layout = new QVBoxLayout(left);
  layout->setContentsMargins(kGap, kGap, kGap, kGap);
  layout->setSpacing(kGap);
  layout->addLayout(heading);
  layout->addWidget(table_, 1);
  layout->addWidget(inHand_);
  return left;
}

void Workroom::adopt(std::unique_ptr<Session> session) {
  steps_->hide();
  tabs_->setSession(session.get());
  table_->setSession(session.get());
  inHand_->setSession(session.get());
  canvas_->setSession(session.get());
  stack_->setSession(session.get());
  session_ = std::move(session);
  givenUp_.reset();
  if (!session_) return;
  connect(session_.get(), &Session::quiltChanged, this, &Workroom::refresh);
  connect(session_.get(), &Session::deskChanged, this, &Workroom::refresh);
  connect(session_.get(), &Session::asksFarther, this, [this](const QString& question) { notices_->tell({question}); });
  connect(session_.get(), &Session::failed, this, &Workroom::report);
  QStringList problems;
  for (const Error& problem : session_->problems()) problems << QString::fromStdString(problem.text());
  notices_->tell(problems);
  refresh();
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
            canvas_->setFocus();
          });
        });
  });
}

void Workroom::refresh() {
  if (!session_) {
    for (const ActionRow& row : actionTable()) {
      const bool works = (row.id == ActionId::openQuilt && !work_.isRunning()) || row.id == ActionId::closeWindow ||
                         row.id == ActionId::linen || row.id == ActionId::indigo || row.id == ActionId::asDesktop;
      if (!row.gesture) actions_->action(row.id)->setEnabled(works);
    }
    setWindowTitle(tr("Urban Quilt"));
  } else {
    actions_->refresh(situation());
    setWindowTitle(tr("%1[*] — Urban Quilt").arg(QString::fromStdString(session_->quilt().facts().name)));
    setWindowModified(!session_->isSaved());
  }
  foot_->refresh(session_.get(), *canvas_, overTable_);
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
    case ActionId::turnLeft: session_->turnHand(Turning::left); break;
    case ActionId::turnRight: session_->turnHand(Turning::right); break;
    case ActionId::mirrorAcross: session_->turnHand(Turning::mirrorAcross); break;
    case ActionId::mirrorDown: session_->turnHand(Turning::mirrorDown); break;
    case ActionId::straighten: session_->straightenHand(); break;
    case ActionId::nextMap: goToMap(1); break;
    case ActionId::previousMap: goToMap(-1); break;
    case ActionId::nearerLayer: session_->setDesk(withNearerLayer(session_->desk(), session_->quilt(), 1)); break;
    case ActionId::fartherLayer: session_->setDesk(withNearerLayer(session_->desk(), session_->quilt(), -1)); break;
    case ActionId::addLayer: session_->addLayer(activeIndex() + 1); break;
    case ActionId::duplicateLayer: session_->duplicateLayer(); break;
    case ActionId::renameLayer: stack_->renameActive(); break;
    case ActionId::layerNearer: session_->moveLayer(session_->desk().landing().layer, activeIndex() + 1); break;
    case ActionId::layerFarther: session_->moveLayer(session_->desk().landing().layer, activeIndex() - 1); break;
    case ActionId::deleteLayer: session_->deleteLayer(); break;
    case ActionId::toggleEye: toggleEye(*session_, session_->desk().landing().layer); break;
    case ActionId::toggleLock: toggleLock(*session_, session_->desk().landing().layer); break;
    case ActionId::zoomIn: canvas_->zoomBySteps(1); break;
    case ActionId::zoomOut: canvas_->zoomBySteps(-1); break;
    case ActionId::wholeMap: canvas_->fitMap(); break;
    case ActionId::fullSize: canvas_->showFullSize(); break;
    case ActionId::gridLines: changeDesk([](Desk& desk) { desk.gridLines = !desk.gridLines; }); break;
    case ActionId::linen: chooseTheme(ThemeChoice::linen); break;
    case ActionId::indigo: chooseTheme(ThemeChoice::indigo); break;
    case ActionId::asDesktop: chooseTheme(ThemeChoice::asDesktop); break;
    case ActionId::brush: changeDesk([](Desk& desk) { desk.tool = Tool::brush; }); break;
    case ActionId::erase: changeDesk([](Desk& desk) { desk.tool = Tool::erase; }); break;
    case ActionId::select: changeDesk([](Desk& desk) { desk.tool = Tool::select; }); break;
    case ActionId::layTiles:
    case ActionId::takeAway:
    case ActionId::takeFromMap:
    case ActionId::panView:
    case ActionId::zoomView:
    case ActionId::scrollView:
    case ActionId::stepView:
    case ActionId::selectCells:
    case ActionId::moveCells:
    case ActionId::nudgeCells:
    case ActionId::takeFromTable:
    case ActionId::takeBlockFromTable:
    case ActionId::takeByKeys: break;  // gestures, which the canvas and the Table carry out
  }
  if (session_) actions_->refresh(situation());
}

std::size_t Workroom::activeIndex() const {
  return session_->map()->layerIndex(session_->desk().landing().layer).value_or(0);
}

void Workroom::goToMap(int steps) {
  const auto& maps = session_->quilt().maps();
  for (std::size_t i = 0; i < maps.size(); ++i) {
    if (maps[i]->id != session_->desk().map) continue;
    const auto count = static_cast<std::ptrdiff_t>(maps.size());
    Desk desk = session_->desk();
    desk.map = maps[static_cast<std::size_t>((static_cast<std::ptrdiff_t>(i) + steps + count) % count)]->id;
    session_->setDesk(std::move(desk));
    return;
  }
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
  if (urls.size() == 1 && urls.front().isLocalFile()) event->acceptProposedAction();
}

void Workroom::dropEvent(QDropEvent* event) {
  const auto urls = event->mimeData()->urls();
  if (urls.size() == 1 && urls.front().isLocalFile()) openQuilt(urls.front().toLocalFile());
}

}  // namespace uq

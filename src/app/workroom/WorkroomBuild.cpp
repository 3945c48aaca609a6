// What of Workroom puts its parts together.
#include <QGuiApplication>
#include <QMenuBar>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/board/WaysPanel.h"
#include "app/look/Theme.h"
#include "app/maps/MapMenu.h"
#include "app/stack/RolesCard.h"
#include "app/table/HandPreview.h"
#include "app/workroom/Columns.h"
#include "app/workroom/ThreadRound.h"
#include "app/workroom/Workroom.h"

namespace uq {

QWidget* Workroom::buildHead() {
  auto* head = new QWidget(this);
  menus_ = new QMenuBar(head);
  menus_->setNativeMenuBar(false);
  menus_->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Expanding);
  actions_->fill(*menus_);
  connect(actions_, &Actions::opens, this, [this](Menu menu) {
    if (menu == Menu::map && session_) tellOfSizes(*actions_, *session_);
  });
  tabs_ = new MapTabs(actions_, head);
  connect(tabs_, &MapTabs::undoPressed, actions_->action(ActionId::undo), &QAction::trigger);
  auto* row = new QHBoxLayout(head);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addWidget(menus_);
  row->addWidget(tabs_, 1);
  row->addStretch();  // beside the start page
  return head;
}

QWidget* Workroom::buildWorkroom() {
  columns_ = new Columns(pages_);
  auto* middle = new QWidget(columns_);
  canvas_ = new MapCanvas(actions_, middle);
  tape_ = new Tape(actions_, middle);
  auto* middleLayout = new QVBoxLayout(middle);
  middleLayout->setContentsMargins(0, 0, 0, 0);
  middleLayout->setSpacing(0);
  middleLayout->addWidget(canvas_, 1);
  middleLayout->addWidget(tape_);
  QWidget* right = columns_->column(Columns::Side::stack);
  stack_ = new StackPanel(right);
  overview_ = new Overview(canvas_, stack_);
  stack_->putBelow(overview_);
  columns_->put(Columns::Side::stack, stack_);

  newMap_ = new NewMapCard(middle);
  columns_->put(Columns::Side::table, buildLeft(columns_->column(Columns::Side::table)));
  buildOverMap(middle);
  columns_->putMap(middle);
  connect(newMap_, &NewMapCard::planned, this, [this](const MapPlan& plan) { session_->verbs().maps.add(plan); });
  connect(newMap_, &NewMapCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  connect(tabs_, &MapTabs::handsFree, canvas_, qOverload<>(&QWidget::setFocus));
  connect(tape_, &Tape::handsFree, canvas_, qOverload<>(&QWidget::setFocus));
  connect(stack_, &StackPanel::handsFree, canvas_, qOverload<>(&QWidget::setFocus));
  connect(canvas_, &MapCanvas::hovered, this, [this] {
    overTable_ = false;
    foot_->refresh(session_.get(), *canvas_, overTable_);
  });
  connect(canvas_, &MapCanvas::viewChanged, this, [this] {
    deskMoved_ = true;
    foot_->refresh(session_.get(), *canvas_, overTable_);
  });
  connect(panel_, &TablePanel::pointedAt, this, [this](const QString& tile) {
    overTable_ = !tile.isEmpty();
    foot_->refresh(session_.get(), *canvas_, overTable_);
  });
  paneKeys_.add(canvas_);
  paneKeys_.add(tape_);
  paneKeys_.add(panel_, table());
  paneKeys_.add(inHand_);
  paneKeys_.add(stack_->cards());
  paneKeys_.add(stack_->sentences());
  paneKeys_.add(overview_);
  paneKeys_.add(tabs_);
  return columns_;
}

QWidget* Workroom::buildLeft(QWidget* column) {
  leftPanes_ = new Panes(Qt::Vertical, column);
  leftPanes_->setObjectName(QStringLiteral("left-panes"));
  leftPanes_->setContentsMargins(kGap - 2, kGap - 2, 0, kGap - 2);
  panel_ = new TablePanel(actions_, canvas_, leftPanes_);
  inHand_ = new InHandPanel(actions_, leftPanes_);
  leftPanes_->setStretchFactor(0, 1);
  leftPanes_->setStretchFactor(1, 0);
  table()->setDropTaker([this](TileRef tile, QPoint at) { return inHand_->drop(tile, at); });
  connect(inHand_->preview(), &HandPreview::carriedTo, this, [this](QPoint at) {
    if (panel_->rect().contains(panel_->mapFromGlobal(at))) session_->verbs().stamps.keep();
  });
  return leftPanes_;
}

// The cloth, and right of it what is said of the ways on it.
QWidget* Workroom::buildBoard() {
  boardPanes_ = new Panes(Qt::Horizontal, pages_);
  boardPanes_->setObjectName(QStringLiteral("board-panes"));
  board_ = new BoardView(actions_, boardPanes_);
  ways_ = new WaysPanel(board_, round_, boardPanes_);
  boardPanes_->setStretchFactor(0, 1);
  boardPanes_->setStretchFactor(1, 0);
  boardPanes_->setSizes({1000, 270});
  boardPanes_->setCollapsible(0, false);
  // A press on the seam folds the panel away, and brings it back.
  connect(boardPanes_, &Panes::seamPressed, this, [this] {
    const QList<int> sizes = boardPanes_->sizes();
    const int width = sizes[1] > 0 ? 0 : ways_->sizeHint().width();
    boardPanes_->setSizes({sizes[0] + sizes[1] - width, width});
  });
  connect(board_, &BoardView::cordGone, this, [this](PinAt from) { session_->verbs().maps.goTo(from.map); });
  connect(board_, &BoardView::opened, this, [this](Id map) { session_->verbs().maps.goTo(map); });
  connect(board_, &BoardView::zoomedInto, this, [this](Id map) {
    // Nothing of the picture moves: what lies in the canvas's middle there lies there now.
    const QPoint middle = board_->mapFrom(this, canvas_->mapTo(this, canvas_->rect().center()));
    std::map<Id, MapCanvas::View> views = canvas_->views();
    views[map] = {board_->zoom(), board_->mapPixelAt(map, middle), false};
    session_->verbs().maps.goTo(map);
    canvas_->setViews(std::move(views));
  });
  connect(ways_, &WaysPanel::doorWanted, this, [this](PinAt pin) { session_->verbs().pins.goTo(pin); });
  connect(ways_, &WaysPanel::threadWanted, this, &Workroom::showThread);
  paneKeys_.add(board_);
  paneKeys_.add(ways_);
  return boardPanes_;
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
    // Shift means that more is wanted.
    if (spreadHeld_ || QGuiApplication::keyboardModifiers() & Qt::ShiftModifier) return;
    spreadTable(false, byKeys);
    if (!byKeys) canvas_->ignoreSecondPress();
  });
  // What is gathered is seldom one: the Table stays until its key is pressed or let go.
  connect(spread_, &TableView::gathered, this, [this] { spreadUsed_ = true; });
  connect(spread_, &TableView::pointedAt, panel_, &TablePanel::pointedAt);
  sheetCard_ = new SheetCard(table(), middle);
  connect(sheetCard_, &SheetCard::newMapWanted, this, [this](Id sheet) { askForMap(session_->quilt().sheet(sheet)); });
  connect(sheetCard_, &SheetCard::placeWanted, panel_, &TablePanel::showNextPlace);
  connect(sheetCard_, &SheetCard::showsCells, canvas_, &MapCanvas::setLit);
  connect(sheetCard_, &SheetCard::said, this, [this](const QString& text) { foot_->say(text); });
  tidyCard_ = new TidyCard(middle);
  exportCard_ = new ExportCard(middle);
  sizeCard_ = new SizeCard(middle);
  connect(sizeCard_, &SizeCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  cellCard_ = new CellCard(middle);
  connect(cellCard_, &CellCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  mapFacts_ = new MapFactsCard(middle);
  connect(mapFacts_, &MapFactsCard::cellsWanted, this, [this] { act(ActionId::cellSize); });
  connect(mapFacts_, &MapFactsCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  rolesCard_ = new RolesCard(middle);
  connect(rolesCard_, &RolesCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  hangCard_ = new HangCard(middle);
  connect(hangCard_, &HangCard::closed, canvas_, qOverload<>(&QWidget::setFocus));
  connect(hangCard_, &HangCard::cutWanted, this, &Workroom::bringIn);
  connect(hangCard_, &HangCard::hangWanted, this, &Workroom::hang);
  connect(hangCard_, &HangCard::mapWanted, this, [this](const QString& path) { importMap(QStringList{path}); });
  // Esc closes a card wherever the keys are.
  for (QWidget* one :
       {static_cast<QWidget*>(canvas_), static_cast<QWidget*>(table()), static_cast<QWidget*>(panel_->found())}) {
    one->installEventFilter(this);
  }
  bench_ = new EdgingBench(middle);
  connect(bench_, &EdgingBench::closed, canvas_, qOverload<>(&QWidget::setFocus));
  connect(bench_, &EdgingBench::said, this, [this](const QString& text) { foot_->say(text); });
  exports_ = new Exports(&work_, this);
  connect(exports_, &Exports::said, this, [this](const QString& text) { foot_->say(text); });
  connect(exports_, &Exports::failed, this, &Workroom::report);
  connect(exports_, &Exports::commandFailed, this, [this](const QString& why) {
    report(Error{Error::Cause::other, "the command after saving: " + why.toStdString(), exports_->places().command, 0, "The quilt is saved", "Quilt > Export shows what it said"});
  });
  exportPage_ = new ExportPage(exports_, middle);
  connect(exportPage_, &ExportPage::closed, canvas_, qOverload<>(&QWidget::setFocus));
  connect(exportPage_, &ExportPage::said, this, [this](const QString& text) { foot_->say(text); });
  film_ = new FilmView(&work_, middle);
  connect(film_, &FilmView::closed, canvas_, qOverload<>(&QWidget::setFocus));
  connect(film_, &FilmView::said, this, [this](const QString& text) { foot_->say(text); });
  connect(film_, &FilmView::failed, this, &Workroom::report);
  connect(panel_, &TablePanel::benchWanted, this, [this](Id edging) { showCard(bench_, edging); });
  connect(sheetCard_, &SheetCard::joinWanted, this, &Workroom::join);
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

}  // namespace uq

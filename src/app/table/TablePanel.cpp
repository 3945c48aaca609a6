#include "app/table/TablePanel.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QStackedWidget>
#include <QToolButton>
#include <algorithm>

#include "app/canvas/MapCanvas.h"
#include "app/look/Panes.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/SheetWork.h"
#include "core/sheets/FitsHere.h"
#include "raster/Blend.h"

namespace uq {

namespace {

constexpr std::size_t kMostFound = 2000;
constexpr std::size_t kMostPlaces = 100'000;
constexpr int kLookAfter = 60;  // milliseconds

}  // namespace

TablePanel::TablePanel(Actions* actions, MapCanvas* canvas, QWidget* parent)
    : QWidget(parent), actions_(actions), canvas_(canvas) {
  pointed_ = makeSoftLabel(this);
  pointed_->setObjectName(QStringLiteral("pointed-tile"));
  pointed_->setWordWrap(false);
  pointed_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  pointed_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  auto* heading = new QHBoxLayout;
  heading->addWidget(makeTitle(tr("Table"), this));
  heading->addWidget(pointed_, 1);

  field_ = new QLineEdit(this);
  field_->setObjectName(QStringLiteral("table-search"));
  field_->setAccessibleName(tr("Find tiles on the Table"));
  field_->setPlaceholderText(tr("Find tiles"));
  field_->setToolTip(
      tr("Names, tags, sheets, numbers, open, solid, overhead, colours, animated, used. Point at it and type, or press "
         "Ctrl+F."));
  field_->installEventFilter(this);
  connect(field_, &QLineEdit::textChanged, this, [this](const QString& text) {
    if (text.trimmed().isEmpty()) {
      if (view_ == View::search) setView(View::sheets);
    } else {
      setView(View::search);
    }
  });
  used_ = makeActionButton(actions->action(ActionId::usedHere), {}, this);
  fits_ = makeActionButton(actions->action(ActionId::fitsHere), {}, this);
  for (QToolButton* button : {used_, fits_}) {
    button->setCheckable(true);
    button->setToolButtonStyle(Qt::ToolButtonIconOnly);
  }
  auto* finders = new QHBoxLayout;
  finders->setSpacing(2);
  finders->addWidget(field_, 1);
  finders->addWidget(used_);
  finders->addWidget(fits_);

  panes_ = new Panes(Qt::Vertical, this);
  panes_->setObjectName(QStringLiteral("table-panes"));
  shelf_ = new Shelf(panes_);
  table_ = new TableView(actions, this);
  found_ = new FoundTiles(actions, this);
  pages_ = new QStackedWidget(panes_);
  pages_->addWidget(table_);
  pages_->addWidget(found_);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(kGap - 2);
  layout->addLayout(heading);
  layout->addLayout(finders);
  materials_ = new MaterialStrip(this);
  connect(materials_, &MaterialStrip::handsFree, this, &TablePanel::handsFree);
  connect(materials_, &MaterialStrip::benchWanted, this, &TablePanel::benchWanted);
  layout->addWidget(materials_);
  layout->addWidget(panes_, 1);
  panes_->addWidget(shelf_);
  panes_->addWidget(pages_);
  panes_->setStretchFactor(0, 0);
  panes_->setStretchFactor(1, 1);

  const auto point = [this](const QString& text) {
    pointed_->setText(text);
    Q_EMIT pointedAt(text);
  };
  connect(table_, &TableView::pointedAt, this, point);
  connect(shelf_, &Shelf::pointedAt, this, point);
  connect(shelf_, &Shelf::showsCells, this, [this](const CellSet& cells) { canvas_->setLit(cells); });
  connect(found_, &FoundTiles::pointedAt, this, point);
  connect(found_, &FoundTiles::lights, this, &TablePanel::light);
  connect(found_, &FoundTiles::nextPlaceWanted, this, &TablePanel::showNextPlace);
  connect(found_, &FoundTiles::leaves, this, &TablePanel::search);
  soon_.setSingleShot(true);
  connect(&soon_, &QTimer::timeout, this, &TablePanel::refresh);
  connect(canvas_, &MapCanvas::hovered, this, [this] {
    if (view_ == View::fitting && canvas_->hoveredCell()) soon_.start(kLookAfter);
  });
}

void TablePanel::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  table_->setSession(session);
  found_->setSession(session);
  shelf_->setSession(session);
  materials_->setSession(session);
  panes_->setSizes({shelf_->sizeHint().height(), std::max(1, panes_->height() - shelf_->sizeHint().height())});
  setView(View::sheets);
  field_->clear();
  if (!session_) return;
  const auto later = [this] {
    if (view_ != View::sheets && !session_->inGesture()) soon_.start(kLookAfter);
  };
  connect(session_, &Session::quiltChanged, this, later);
  connect(session_, &Session::deskChanged, this, later);
}

void TablePanel::setView(View view) {
  view_ = view;
  pages_->setCurrentWidget(view == View::sheets ? static_cast<QWidget*>(table_) : found_);
  used_->setChecked(view == View::used);
  fits_->setChecked(view == View::fitting);
  light(std::nullopt);
  refresh();
}

void TablePanel::search() {
  field_->setFocus(Qt::ShortcutFocusReason);
  field_->selectAll();
}

void TablePanel::showUsed(bool on) { setView(on ? View::used : View::sheets); }
void TablePanel::showFitting(bool on) { setView(on ? View::fitting : View::sheets); }
void TablePanel::showSheets() {
  field_->clear();
  setView(View::sheets);
}

std::vector<Id> TablePanel::sheetsInOrder() const {
  std::vector<Id> sheets = {chalk().id};
  for (const Id id : table_->order()) sheets.push_back(id);
  return sheets;
}

void TablePanel::refresh() {
  if (!session_ || view_ == View::sheets) return;
  std::vector<FoundTiles::Found> list;
  QString none;
  const Quilt& quilt = session_->quilt();
  SheetWork& work = session_->sheets();
  const auto add = [&](const SheetHit& hit) {
    if (const auto slot = quilt.slots().find(hit.sheet)) list.push_back({{*slot, hit.number}, {}});
  };
  if (view_ == View::search) {
    const SearchHelp help{[&work](const Sheet& sheet) { return work.colours(sheet); }, &work.usesHere()};
    const auto chalkSlot = [](const SheetHit& hit) { return hit.sheet == chalk().id; };
    for (const SheetHit& hit : searchSheets(quilt, sheetsInOrder(), field_->text().toStdString(), help, kMostFound)) {
      if (chalkSlot(hit)) {
        list.push_back({{kChalkSlot, hit.number}, {}});
      } else {
        add(hit);
      }
    }
    none =
        tr("No tile is called so. Words may be names, tags, sheets, numbers, open, solid, overhead, colours, animated "
           "or used.");
  } else if (view_ == View::used) {
    std::vector<std::pair<std::int64_t, TileRef>> counts;
    for (const auto& [used, count] : work.usesHere()) counts.emplace_back(count, used);
    std::stable_sort(counts.begin(), counts.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    for (const auto& [count, tile] : counts) list.push_back({tile, QString::number(count)});
    none = tr("Nothing is painted on this map yet.");
  } else {
    const Map* map = session_->map();
    const Layer* layer = quilt.layer(session_->desk().activeAt());
    const auto cell = canvas_->hoveredCell();
    none = tr("Point at a cell of the map beside painted ones: tiles that join them are shown here.");
    if (!map || !layer || !cell) {
      if (!found_->found().empty()) return;  // what fitted last stays while the pointer is on its way here
    } else {
      TileSides sides(quilt, map->grid, pixelsOf(quilt, session_->painter().pictures()));
      for (const SheetHit& hit : tilesThatFit(sides, tableOrder(quilt), *map, *layer, *cell, kMostFound)) add(hit);
    }
  }
  found_->show(std::move(list), none);
}

void TablePanel::light(std::optional<TileRef> tile) {
  CellSet cells;
  const Map* map = session_ ? session_->map() : nullptr;
  if (tile && map) {
    // What is out of sight needs no light.
    const QRectF seen = canvas_->seenPixels();
    const PixelRect pixels{static_cast<int>(seen.x()) - 1, static_cast<int>(seen.y()) - 1,
                           static_cast<int>(seen.width()) + 3, static_cast<int>(seen.height()) + 3};
    const CellRect within = makeGrid(map->grid)->cellsMeeting(pixels).intersected(map->bounds);
    for (const Shared<Layer>& layer : map->layers) {
      layer->cells.forEachPainted(within, [&](CellPos at, Cell cell) {
        if (cell.tile() == *tile) cells.insert(at);
      });
    }
  }
  canvas_->setLit(std::move(cells));
}

void TablePanel::showNextPlace(TileRef tile) {
  const Map* map = session_ ? session_->map() : nullptr;
  if (!map) return;
  const std::vector<TileAt> places = placesOf(*map, tile, kMostPlaces);
  const Sheet* sheet = session_->quilt().sheetAt(tile.slot);
  const QString name = sheet ? QString::fromStdString(sheet->tileName(tile.number)) : QString();
  if (places.empty()) return Q_EMIT said(tr("%1 lies nowhere on this map.").arg(name));
  place_ = travelled_ == tile ? (place_ + 1) % places.size() : 0;
  travelled_ = tile;
  const TileAt& at = places[place_];
  const PixelRect box = makeGrid(map->grid)->cellBox(at.cell);
  canvas_->centreOn({box.x + box.w / 2.0, box.y + box.h / 2.0});
  canvas_->setLit(CellSet(CellRect{at.cell.x, at.cell.y, at.cell.x + 1, at.cell.y + 1}));
  Q_EMIT said(tr("%1: place %2 of %3, on %4.")
                  .arg(name)
                  .arg(place_ + 1)
                  .arg(places.size())
                  .arg(QString::fromStdString(map->layer(at.layer)->name)));
}

bool TablePanel::eventFilter(QObject* watched, QEvent* event) {
  if (watched == field_ && event->type() == QEvent::Enter && !QApplication::mouseButtons()) {
    // Pointing at it is enough to type.
    if (!field_->hasFocus() && canvas_->hasFocus()) {
      pointedTo_ = true;
      field_->setFocus(Qt::MouseFocusReason);
      field_->selectAll();
    }
    return false;
  }
  if (watched == field_ && event->type() == QEvent::Leave) {
    if (std::exchange(pointedTo_, false) && field_->hasFocus() && !field_->isModified()) Q_EMIT handsFree();
    field_->setModified(false);
    return false;
  }
  if (watched != field_ || event->type() != QEvent::KeyPress) return false;
  const auto* key = static_cast<QKeyEvent*>(event);
  switch (key->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
      refresh();
      if (found_->found().empty()) return true;
      found_->take(0);
      Q_EMIT handsFree();
      return true;
    case Qt::Key_Down:
      if (view_ == View::sheets) {
        table_->setFocus(Qt::TabFocusReason);
      } else {
        found_->setFocus(Qt::TabFocusReason);
      }
      return true;
    case Qt::Key_Escape:
      showSheets();
      Q_EMIT handsFree();
      return true;
    default: return false;
  }
}

}  // namespace uq

#include "app/maps/NewMapCard.h"

#include <QComboBox>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>
#include <QToolButton>

#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/grid/Grid.h"

namespace uq {

namespace {
constexpr int kWidest = 720;  // logical pixels
constexpr int kNarrow = 620;
}  // namespace

// The map to come: its outline in stitches, its cells where they can be told apart, and the player's screens.
class NewMapCard::Preview : public QWidget {
 public:
  explicit Preview(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("new-map-preview"));
    setAccessibleName(NewMapCard::tr("The map as it will be"));
    setFixedSize(228, 176);
  }
  void show(const MapPlan& plan, PixelSize screen) {
    plan_ = plan;
    screen_ = screen;
    update();
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    const Theme& theme = Theme::current();
    QPainter painter(this);
    painter.fillRect(rect(), theme.surround);
    if (!whyNoMap(plan_).empty() && !plan_.name.empty()) return;
    const auto grid = makeGrid(plan_.grid);
    const CellRect cells{0, 0, plan_.width, plan_.height};
    const PixelRect pixels = grid->pixelBounds(cells);
    const double zoom = std::min((width() - 28.0) / pixels.w, (height() - 28.0) / pixels.h);
    const QSizeF size(pixels.w * zoom, pixels.h * zoom);
    const QRectF box(QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size);
    const auto polygon = [&](const std::vector<PixelPos>& corners) {
      QPolygonF points;
      for (const PixelPos at : corners)
        points << box.topLeft() + QPointF((at.x - pixels.x) * zoom, (at.y - pixels.y) * zoom);
      return points;
    };
    painter.setRenderHint(QPainter::Antialiasing, plan_.grid.kind != GridKind::orthogonal);
    // A toothed edge that nobody could see is drawn as its box.
    const bool fine = std::min(plan_.grid.cell.w, plan_.grid.cell.h) * zoom < 1;
    const QPolygonF map =
        fine && plan_.grid.kind != GridKind::diamond ? QPolygonF(box) : polygon(grid->perimeter(cells));
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme.surround.lighter(135));
    painter.drawPolygon(map);
    QColor line = theme.paper;
    line.setAlpha(60);
    painter.setBrush(Qt::NoBrush);
    if (std::min(plan_.grid.cell.w, plan_.grid.cell.h) * zoom >= 3) {
      painter.setPen(QPen(line, 1));
      for (int y = 0; y < plan_.height; ++y) {
        for (int x = 0; x < plan_.width; ++x) painter.drawPolygon(polygon(grid->outline({x, y})));
      }
    }
    QPainterPath shape;
    shape.addPolygon(map);
    painter.setClipPath(shape);
    const QSizeF screen(screen_.w * zoom, screen_.h * zoom);
    if (std::min(screen.width(), screen.height()) >= 8) {
      for (double y = box.top(); y < box.bottom(); y += screen.height()) {
        for (double x = box.left(); x < box.right(); x += screen.width()) {
          drawStitches(painter, QRectF(QPointF(x, y), screen), theme.ink, theme.paper, 1);
        }
      }
    }
    painter.setClipping(false);
    drawStitches(painter, map, theme.madder, theme.paper);
  }

 private:
  MapPlan plan_;
  PixelSize screen_;
};

namespace {

constexpr std::size_t kMostOffers = 3;

// What people call the cells of a grid.
QString gridText(GridKind kind) {
  switch (kind) {
    case GridKind::orthogonal: return NewMapCard::tr("squares");
    case GridKind::diamond: return NewMapCard::tr("isometric diamonds");
    case GridKind::staggered: return NewMapCard::tr("isometric diamonds in straight rows");
    case GridKind::hexagonalPointy: return NewMapCard::tr("pointy hexagons");
    case GridKind::hexagonalFlat: return NewMapCard::tr("flat hexagons");
  }
  return {};
}

// A few cells of a grid as a picture.
QIcon gridIcon(GridKind kind, const QSize& size, double ratio) {
  const bool slanted = kind == GridKind::diamond || kind == GridKind::staggered;
  const auto grid = makeGrid(nearestShape(kind, slanted ? PixelSize{24, 12} : PixelSize{14, 14}));
  const CellRect cells = kind == GridKind::diamond ? CellRect{0, 0, 3, 3}
                         : slanted                 ? CellRect{0, 0, 2, 5}
                                                   : CellRect{0, 0, 3, 3};
  const PixelRect all = grid->pixelBounds(cells);
  QPixmap picture((QSizeF(size) * ratio).toSize());
  picture.setDevicePixelRatio(ratio);
  picture.fill(Qt::transparent);
  QPainter painter(&picture);
  painter.setRenderHint(QPainter::Antialiasing);
  const double zoom = std::min((size.width() - 4.0) / all.w, (size.height() - 4.0) / all.h);
  painter.translate((size.width() - all.w * zoom) / 2, (size.height() - all.h * zoom) / 2);
  painter.scale(zoom, zoom);
  painter.translate(-all.x, -all.y);
  painter.setPen(QPen(Theme::current().ink, 1 / zoom));
  for (int y = cells.y0; y < cells.y1; ++y) {
    for (int x = cells.x0; x < cells.x1; ++x) {
      QPolygonF corners;
      for (const PixelPos at : grid->outline({x, y})) corners << QPointF(at.x, at.y);
      painter.setBrush((x + y) % 2 == 0 ? Theme::current().edge : Theme::current().paper);
      painter.drawPolygon(corners);
    }
  }
  return picture;
}

}  // namespace

NewMapCard::NewMapCard(QWidget* parent) : Card(parent) {
  setObjectName(QStringLiteral("new-map-card"));
  setAccessibleName(tr("A new map"));
  makeCard(this);
  name_ = new QLineEdit(this);
  name_->setObjectName(QStringLiteral("map-name"));
  name_->setAccessibleName(tr("Name of the map"));
  name_->setMaxLength(200);
  const auto number = [this](const char* object, const QString& name, double least, double most) {
    auto* field = new NumberField(name, least, most, 0, this);
    field->setObjectName(QLatin1String(object));
    connect(field, &QLineEdit::textChanged, this, &NewMapCard::refresh);
    return field;
  };
  cellWidth_ = number("cell-width", tr("Width of a cell in pixels"), kSmallestCell, kLargestCell);
  cellHeight_ = number("cell-height", tr("Height of a cell in pixels"), kSmallestCell, kLargestCell);
  side_ = number("cell-side", tr("Length of a hexagon's side in pixels"), 1, kLargestCell);
  for (std::size_t i = 0; i < kMostOffers; ++i) {
    auto* offer = new QPushButton(this);
    offer->setObjectName(i == 0 ? QStringLiteral("cell-offer") : QStringLiteral("cell-offer-%1").arg(i + 1));
    offer->setAutoDefault(false);
    connect(offer, &QPushButton::clicked, this, [this, i] {
      const GridShape shape = offered_[i];
      cellWidth_->setValue(shape.cell.w);
      cellHeight_->setValue(shape.cell.h);
      if (shape.side > 0) side_->setValue(shape.side);
      refresh();
      moveToMiddle();
    });
    offers_.push_back(offer);
    reasons_.push_back(makeSoftLabel(this));
  }
  gridName_ = new QLabel(this);
  gridName_->setObjectName(QStringLiteral("grid-name"));
  seen_ = new QComboBox(this);
  seen_->setObjectName(QStringLiteral("new-map-seen"));
  seen_->setAccessibleName(tr("How the map is seen"));
  seen_->addItems({tr("from above"), tr("side on")});
  auto* grids = new QHBoxLayout;
  grids->setSpacing(kGap / 2);
  for (const GridKind kind : kGridKinds) {
    auto* button = new QToolButton(this);
    button->setObjectName(QStringLiteral("grid-") + QString::fromStdString(std::string(gridName(kind))));
    button->setCheckable(true);
    button->setAutoExclusive(true);
    button->setIconSize({44, 34});
    button->setToolTip(gridText(kind));
    button->setAccessibleName(tr("Made of %1").arg(gridText(kind)));
    connect(button, &QToolButton::clicked, this, [this, kind] { chooseGrid(kind); });
    grids->addWidget(button);
    grids_[kind] = button;
  }
  grids->addStretch();
  width_ = number("map-width", tr("Cells across"), 1, kFarthestCell);
  height_ = number("map-height", tr("Cells down"), 1, kFarthestCell);
  cellHint_ = makeSoftLabel(this);
  sizeHint_ = makeSoftLabel(this);
  for (QLabel* hint : {cellHint_, sizeHint_}) hint->setWordWrap(false);
  figures_ = makeSoftLabel(this);
  figures_->setObjectName(QStringLiteral("map-figures"));
  refusal_ = new QLabel(this);
  refusal_->setObjectName(QStringLiteral("map-refusal"));
  refusal_->setProperty("warning", true);
  preview_ = new Preview(this);
  make_ = new QPushButton(tr("Make the map"), this);
  make_->setObjectName(QStringLiteral("make-map"));
  make_->setDefault(true);
  auto* later = new QPushButton(tr("Not now"), this);
  later->setObjectName(QStringLiteral("no-map"));
  connect(make_, &QPushButton::clicked, this, &NewMapCard::take);
  connect(later, &QPushButton::clicked, this, &NewMapCard::close);
  connect(name_, &QLineEdit::textChanged, this, &NewMapCard::refresh);

  const auto line = [](std::initializer_list<QWidget*> parts) { return new SentenceLayout(parts, kGap); };
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  auto* lines = new QVBoxLayout;
  lines->setSpacing(kGap + 2);
  auto* called = new QHBoxLayout;
  called->setSpacing(kGap);
  called->addWidget(word(tr("It is called")));
  called->addWidget(name_, 1);
  lines->addLayout(called);
  lines->addLayout(line({word(tr("and made of")), gridName_, word(tr("seen")), seen_}));
  lines->addLayout(grids);
  lines->addLayout(line({word(tr("each")), cellWidth_, word(tr("×")), cellHeight_, word(tr("pixels,")), cellHint_}));
  sideWords_ = new QWidget(this);
  auto* sides = line({word(tr("with sides of")), side_, word(tr("pixels,"))});
  sideWords_->setLayout(sides);
  lines->addWidget(sideWords_);
  lines->addLayout(line({width_, word(tr("across and")), height_, word(tr("down.")), sizeHint_}));
  carry_ = number("carried", tr("Columns or rows that are carried over"), 0, 4096);
  carryFrom_ = makeSoftLabel(this);
  carryFrom_->setWordWrap(false);
  carryWords_ = new QWidget(this);
  auto* carries = line({word(tr("It begins with the last")), carry_, carryFrom_});
  carryWords_->setLayout(carries);
  carryWords_->hide();
  lines->addWidget(carryWords_);
  lines->addWidget(figures_);
  lines->addWidget(refusal_);
  for (std::size_t i = 0; i < offers_.size(); ++i) {
    auto* row = new QHBoxLayout;
    row->setSpacing(kGap);
    row->addWidget(offers_[i]);
    row->addWidget(reasons_[i], 1);
    lines->addLayout(row);
  }
  lines->addStretch();
  lines->addLayout(line({make_, later}));

  auto* body = new QHBoxLayout;
  body->setSpacing(3 * kGap);
  body->addLayout(lines, 1);
  body->addWidget(preview_);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(2 * kGap, 2 * kGap, 2 * kGap, 2 * kGap);
  layout->setSpacing(kGap + 4);
  layout->addWidget(makeTitle(tr("A new map"), this));
  layout->addLayout(body);
  parent->installEventFilter(this);
  hide();
}

void NewMapCard::open(const Quilt& quilt, const Map* like, const Sheet* sheet) {
  proposed_ = proposedMap(quilt, like, sheet);
  screen_ = quilt.facts().screen;
  carryWords_->hide();
  tile_ = sheet ? sheet->cut.cell : PixelSize{};
  const QString likeName = like ? tr("as %1").arg(QString::fromStdString(like->name)) : tr("a plain start");
  sizeFrom_ = likeName;
  cellFrom_ = sheet ? tr("as the tiles of %1").arg(QString::fromStdString(sheet->name)) : likeName;
  fill();
}

void NewMapCard::open(const Quilt& quilt, const MapPlan& proposed, const QString& from, const std::optional<Beside>& beside) {
  proposed_ = proposed;
  screen_ = quilt.facts().screen;
  tile_ = {};
  cellFrom_ = from;
  sizeFrom_ = tr("as drawn");
  carryWords_->setVisible(beside.has_value());
  carry_->setValue(0);
  if (beside) carryFrom_->setText((beside->rows ? tr("rows of %1.") : tr("columns of %1.")).arg(beside->name));
  fill();
}

int NewMapCard::carried() const { return carryWords_->isHidden() ? 0 : static_cast<int>(carry_->typed()); }

void NewMapCard::fill() {
  for (NumberField* field : {width_, height_})
    field->setFixedWidth(field->fontMetrics().horizontalAdvance(QLatin1Char('0')) * 9);
  name_->setText(QString::fromStdString(proposed_.name));
  cellWidth_->setValue(proposed_.grid.cell.w);
  cellHeight_->setValue(proposed_.grid.cell.h);
  width_->setValue(proposed_.width);
  height_->setValue(proposed_.height);
  for (const auto& [kind, button] : grids_) button->setIcon(gridIcon(kind, button->iconSize(), devicePixelRatioF()));
  seen_->setCurrentIndex(proposed_.seen == Seen::sideOn ? 1 : 0);
  kind_ = proposed_.grid.kind;
  grids_[kind_]->setChecked(true);
  side_->setValue(std::max(1, proposed_.grid.side));
  refresh();
  show();
  raise();
  moveToMiddle();
  name_->setFocus();
  name_->selectAll();
}

MapPlan NewMapCard::plan() const {
  MapPlan plan = proposed_;
  plan.name = name_->text().trimmed().toStdString();
  plan.grid.kind = kind_;
  plan.grid.cell = {static_cast<int>(cellWidth_->typed()), static_cast<int>(cellHeight_->typed())};
  plan.seen = seen_->currentIndex() == 1 ? Seen::sideOn : Seen::fromAbove;
  const bool hexagons = kind_ == GridKind::hexagonalPointy || kind_ == GridKind::hexagonalFlat;
  plan.grid.side = hexagons ? static_cast<int>(side_->typed()) : 0;
  plan.width = static_cast<int>(width_->typed());
  plan.height = static_cast<int>(height_->typed());
  return plan;
}

void NewMapCard::chooseGrid(GridKind kind) {
  const bool slanted = kind == GridKind::diamond || kind == GridKind::staggered;
  const bool wasSlanted = kind_ == GridKind::diamond || kind_ == GridKind::staggered;
  kind_ = kind;
  // Slanted cells are usually drawn twice as wide as high.
  PixelSize cell{static_cast<int>(cellWidth_->typed()), static_cast<int>(cellHeight_->typed())};
  if (slanted && cell.w == cell.h) cell.w = std::min(2 * cell.w, kLargestCell);
  if (!slanted && wasSlanted && cell.w == 2 * cell.h) cell.w = cell.h;
  const GridShape shape = nearestShape(kind, cell);
  cellWidth_->setValue(shape.cell.w);
  cellHeight_->setValue(shape.cell.h);
  if (shape.side > 0) side_->setValue(shape.side);
  refresh();
  moveToMiddle();
}

void NewMapCard::refresh() {
  const MapPlan plan = this->plan();
  gridName_->setText(tr("%1,").arg(gridText(kind_)));
  sideWords_->setVisible(plan.grid.side > 0);
  const bool can = whyNoGrid(plan.grid).empty();
  const GridShape nearest = nearestShape(kind_, plan.grid.cell);
  refreshOffers(plan);
  const PixelRect pixels = makeGrid(can ? plan.grid : nearest)->pixelBounds({0, 0, plan.width, plan.height});
  figures_->setText(tr("%1 × %2 cells = %3 × %4 px = %5 × %6 screens of %7 × %8")
                        .arg(plan.width)
                        .arg(plan.height)
                        .arg(pixels.w)
                        .arg(pixels.h)
                        .arg(static_cast<double>(pixels.w) / screen_.w, 0, 'f', 1)
                        .arg(static_cast<double>(pixels.h) / screen_.h, 0, 'f', 1)
                        .arg(screen_.w)
                        .arg(screen_.h));
  cellHint_->setText(plan.grid.cell == proposed_.grid.cell ? cellFrom_ : QString());
  sizeHint_->setText(plan.width == proposed_.width && plan.height == proposed_.height ? sizeFrom_ : QString());
  const std::string why = whyNoMap(plan);
  refusal_->setText(QString::fromStdString(why));
  refusal_->setVisible(!why.empty());
  make_->setEnabled(why.empty());
  preview_->show(plan, screen_);
}

void NewMapCard::refreshOffers(const MapPlan& plan) {
  // Where the cell cannot be, the nearest to it first; then what suits the tiles in hand, unless it is there already.
  offered_.clear();
  std::vector<QString> texts;
  std::vector<QString> reasons;
  const auto offer = [&](const GridShape& shape, const std::string& reason) {
    const bool there = shape.cell == plan.grid.cell && shape.side == plan.grid.side;
    const bool known = std::any_of(offered_.begin(), offered_.end(),
                                   [&](const GridShape& one) { return one.cell == shape.cell && one.side == shape.side; });
    if (there || known || offered_.size() == kMostOffers) return;
    offered_.push_back(shape);
    const QString size = shape.side > 0 ? tr("%1 × %2 with sides of %3").arg(shape.cell.w).arg(shape.cell.h).arg(shape.side)
                                        : tr("%1 × %2").arg(shape.cell.w).arg(shape.cell.h);
    texts.push_back(tr("Take %1").arg(size));
    reasons.push_back(QString::fromStdString(reason));
  };
  if (!whyNoGrid(plan.grid).empty()) offer(nearestShape(kind_, plan.grid.cell), "the nearest that fits together");
  if (tile_.w > 0) {
    for (const ShapeOffer& one : offeredShapes(kind_, tile_)) offer(one.shape, one.reason);
  }
  for (std::size_t i = 0; i < offers_.size(); ++i) {
    offers_[i]->setVisible(i < offered_.size());
    reasons_[i]->setVisible(i < offered_.size());
    if (i >= offered_.size()) continue;
    offers_[i]->setText(texts[i]);
    offers_[i]->setAccessibleDescription(reasons[i]);
    reasons_[i]->setText(reasons[i]);
  }
}

void NewMapCard::take() {
  const MapPlan plan = this->plan();
  if (!whyNoMap(plan).empty()) return;
  close();
  Q_EMIT planned(plan);
}

void NewMapCard::close() {
  if (isHidden()) return;
  hide();
  Q_EMIT closed();
}

void NewMapCard::moveToMiddle() {
  const QSize room = parentWidget()->size() - QSize(2 * kGap, 2 * kGap);
  // The picture goes before a word does.
  preview_->setVisible(room.width() >= kNarrow);
  layout()->invalidate();
  layout()->activate();
  const int width = std::min(room.width(), kWidest);
  const int height =
      std::min(room.height(), layout()->hasHeightForWidth() ? layout()->heightForWidth(width) : sizeHint().height());
  setGeometry((parentWidget()->width() - width) / 2, std::max(0, (parentWidget()->height() - height) / 3), width,
              height);
}

bool NewMapCard::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize && isVisible()) moveToMiddle();
  return QFrame::eventFilter(watched, event);
}

void NewMapCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
    take();
  } else if (event->key() == Qt::Key_Escape) {
    close();
  }
  // Nothing that is typed here is meant for the map beneath.
  event->accept();
}

}  // namespace uq

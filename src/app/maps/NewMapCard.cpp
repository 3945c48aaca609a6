#include "app/maps/NewMapCard.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>

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
    const PixelRect pixels = makeGrid(plan_.grid)->pixelBounds({0, 0, plan_.width, plan_.height});
    const double zoom = std::min((width() - 28.0) / pixels.w, (height() - 28.0) / pixels.h);
    const QSizeF size(pixels.w * zoom, pixels.h * zoom);
    const QRectF map(QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size);
    painter.fillRect(map, theme.surround.lighter(135));
    QColor line = theme.paper;
    line.setAlpha(60);
    const QSizeF cell(plan_.grid.cell.w * zoom, plan_.grid.cell.h * zoom);
    if (std::min(cell.width(), cell.height()) >= 3) {
      for (int x = 1; x < plan_.width; ++x) {
        painter.fillRect(QRectF(map.left() + x * cell.width(), map.top(), 1, map.height()), line);
      }
      for (int y = 1; y < plan_.height; ++y) {
        painter.fillRect(QRectF(map.left(), map.top() + y * cell.height(), map.width(), 1), line);
      }
    }
    painter.setClipRect(map);
    const QSizeF screen(screen_.w * zoom, screen_.h * zoom);
    if (std::min(screen.width(), screen.height()) >= 8) {
      for (double y = map.top(); y < map.bottom(); y += screen.height()) {
        for (double x = map.left(); x < map.right(); x += screen.width()) {
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

NewMapCard::NewMapCard(QWidget* parent) : QFrame(parent) {
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
  lines->addLayout(line({word(tr("and made of squares,"))}));
  lines->addLayout(line({word(tr("each")), cellWidth_, word(tr("×")), cellHeight_, word(tr("pixels,")), cellHint_}));
  lines->addLayout(line({width_, word(tr("across and")), height_, word(tr("down.")), sizeHint_}));
  lines->addWidget(figures_);
  lines->addWidget(refusal_);
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
  const QString likeName = like ? tr("as %1").arg(QString::fromStdString(like->name)) : tr("a plain start");
  sizeFrom_ = likeName;
  cellFrom_ = sheet ? tr("as the tiles of %1").arg(QString::fromStdString(sheet->name)) : likeName;
  for (NumberField* field : {width_, height_})
    field->setFixedWidth(field->fontMetrics().horizontalAdvance(QLatin1Char('0')) * 9);
  name_->setText(QString::fromStdString(proposed_.name));
  cellWidth_->setValue(proposed_.grid.cell.w);
  cellHeight_->setValue(proposed_.grid.cell.h);
  width_->setValue(proposed_.width);
  height_->setValue(proposed_.height);
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
  plan.grid.cell = {static_cast<int>(cellWidth_->typed()), static_cast<int>(cellHeight_->typed())};
  plan.width = static_cast<int>(width_->typed());
  plan.height = static_cast<int>(height_->typed());
  return plan;
}

void NewMapCard::refresh() {
  const MapPlan plan = this->plan();
  const PixelRect pixels = makeGrid(plan.grid)->pixelBounds({0, 0, plan.width, plan.height});
  figures_->setText(tr("%1 × %2 cells = %3 × %4 px = %5 × %6 screens of %7 × %8 px")
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

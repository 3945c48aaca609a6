#include "app/maps/MapFactsCard.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <algorithm>

#include "app/look/ColourField.h"
#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/edit/Camera.h"
#include "core/edit/MapFacts.h"
#include "core/edit/SewnMaps.h"

namespace uq {

namespace {

constexpr std::size_t kMostFindings = 4;

constexpr int kWide = 620;           // logical pixels
constexpr QSize kPicture(224, 168);  // logical pixels, at most

}  // namespace

// The screen at the upper left of the camera's way, with the map's name as the player reads it.
class MapFactsCard::Preview : public QWidget {
 public:
  explicit Preview(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("map-facts-preview"));
    setAccessibleName(MapFactsCard::tr("The player's screen"));
    setFixedSize(kPicture);
  }
  void setSession(Session* session) { session_ = session; }

 protected:
  void paintEvent(QPaintEvent*) override {
    const Map* map = session_ ? session_->map() : nullptr;
    if (!map) return;
    const Theme& theme = Theme::current();
    QPainter painter(this);
    painter.fillRect(rect(), theme.surround);
    const PixelSize screen = screenOf(session_->quilt(), *map);
    const PixelPos at = session_->desk().camera().value_or(cameraNear(session_->quilt(), *map, {}));
    const double fit = std::min({width() / double(screen.w), height() / double(screen.h), 1.0});
    const double zoom = std::clamp(fit * devicePixelRatioF(), kSmallestZoom, kLargestZoom);
    const ViewScale scale{zoom};
    const QRect device = scale.toDevice({at.x, at.y, screen.w, screen.h});
    QImage picture(device.size(), QImage::Format_ARGB32_Premultiplied);
    picture.fill(map->cloth ? QColor::fromRgb(*map->cloth | 0xff000000u) : theme.surround.lighter(118));
    session_->painter().drawOver(picture, session_->quilt(), *map, runsOf(*map, inGame(*map, at)), scale, device);
    picture.setDevicePixelRatio(devicePixelRatioF());
    const QSizeF size = QSizeF(picture.size()) / devicePixelRatioF();
    const QRectF box(QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size);
    painter.drawImage(box.topLeft(), picture);
    drawStitches(painter, box.adjusted(1, 1, -1, -1), theme.madder, theme.paper);
    if (map->title.empty()) return;
    QFont font = painter.font();
    font.setBold(true);
    painter.setFont(font);
    const QString text = QString::fromStdString(map->title);
    const QRectF line = box.adjusted(6, 8, -6, 0);
    painter.setPen(QColor(0, 0, 0, 190));
    painter.drawText(line.translated(1, 1), Qt::AlignHCenter | Qt::AlignTop, text);
    painter.setPen(Qt::white);
    painter.drawText(line, Qt::AlignHCenter | Qt::AlignTop, text);
  }

 private:
  Session* session_ = nullptr;
};

MapFactsCard::MapFactsCard(QWidget* parent) : Card(parent) {
  setObjectName(QStringLiteral("map-facts"));
  makeCard(this);
  setFixedWidth(kWide);
  name_ = makeTitle({}, this);
  title_ = new QLineEdit(this);
  title_->setObjectName(QStringLiteral("map-title"));
  title_->setAccessibleName(tr("The name that the player reads"));
  title_->setPlaceholderText(tr("no name"));
  connect(title_, &QLineEdit::editingFinished, this, [this] {
    if (session_ && session_->map())
      session_->verbs().maps.change("Name for players",
                          withTitle(session_->quilt(), session_->map()->id, title_->text().trimmed().toStdString()));
  });
  cloth_ = new ColourField(tr("Colour behind all layers"), tr("none"), this);
  cloth_->setObjectName(QStringLiteral("map-cloth"));
  connect(cloth_, &ColourField::valueChanged, this, [this](std::optional<Colour> colour) {
    session_->verbs().maps.change("Cloth", withCloth(session_->quilt(), session_->map()->id, colour));
  });
  const auto number = [this](const char* object, const QString& name, double most) {
    auto* field = new NumberField(name, 1, most, 0, this);
    field->setObjectName(QLatin1String(object));
    return field;
  };
  width_ = number("screen-width", tr("How many map pixels the screen shows across"), kLargestScreen);
  height_ = number("screen-height", tr("How many map pixels the screen shows down"), kLargestScreen);
  differs_ = new QCheckBox(tr("Only on this map"), this);
  differs_->setObjectName(QStringLiteral("screen-differs"));
  const auto setScreen = [this] {
    const PixelSize screen{width_->wholeValue(), height_->wholeValue()};
    const Id map = session_->map()->id;
    session_->verbs().maps.change("Screen", differs_->isChecked() ? withScreen(session_->quilt(), map, screen)
                                                            : withScreen(session_->quilt(), screen));
  };
  connect(width_, &NumberField::valueChanged, this, setScreen);
  connect(height_, &NumberField::valueChanged, this, setScreen);
  connect(differs_, &QCheckBox::clicked, this, [this](bool on) {
    const Map& map = *session_->map();
    const std::optional<PixelSize> own = on ? std::optional(screenOf(session_->quilt(), map)) : std::nullopt;
    session_->verbs().maps.change("Screen", withScreen(session_->quilt(), map.id, own));
  });
  times_ = number("map-shown-times", tr("How many screen pixels a map pixel takes"), kMostShownTimes);
  connect(times_, &NumberField::valueChanged, this, [this](double value) {
    session_->verbs().maps.change("Size", withShownTimes(session_->quilt(), session_->map()->id, static_cast<int>(value)));
  });
  camera_ = new QComboBox(this);
  camera_->setObjectName(QStringLiteral("map-camera"));
  camera_->setAccessibleName(tr("What the camera does at the map's edge"));
  camera_->addItems({tr("stops at the map's edge"), tr("runs free")});
  connect(camera_, &QComboBox::activated, this, [this](int index) {
    session_->verbs().maps.change("Camera", withCameraFree(session_->quilt(), session_->map()->id, index == 1));
  });
  seen_ = new QComboBox(this);
  seen_->setObjectName(QStringLiteral("map-seen"));
  seen_->setAccessibleName(tr("How the map is seen"));
  seen_->setToolTip(tr("Maps that are seen from above and side on cannot be sewn together"));
  seen_->addItems({tr("from above"), tr("side on")});
  connect(seen_, &QComboBox::activated, this, [this](int index) {
    session_->verbs().maps.change("How it is seen", withSeen(session_->quilt(), session_->map()->id,
                                                             index == 1 ? Seen::sideOn : Seen::fromAbove));
  });
  cells_ = new QPushButton(this);
  cells_->setObjectName(QStringLiteral("map-cells"));
  cells_->setToolTip(tr("Give the map other cells, and see what becomes of it"));
  connect(cells_, &QPushButton::clicked, this, [this] {
    close();
    Q_EMIT cellsWanted();
  });
  grows_ = new QCheckBox(tr("The map grows as I paint"), this);
  grows_->setObjectName(QStringLiteral("map-grows"));
  grows_->setToolTip(tr("A stroke beyond its edge makes it larger, by a whole screen on that side"));
  connect(grows_, &QCheckBox::clicked, this, [this](bool on) {
    session_->verbs().maps.change("Growing", withGrowing(session_->quilt(), session_->map()->id, on));
  });
  told_ = makeSoftLabel(this);
  told_->setObjectName(QStringLiteral("map-told"));
  for (std::size_t i = 0; i < kMostFindings; ++i) {
    Row row{new QLabel(this), new QPushButton(this)};
    row.text->setObjectName(QStringLiteral("map-finding-%1").arg(i));
    row.text->setWordWrap(true);
    row.mend->setObjectName(QStringLiteral("map-mend-%1").arg(i));
    connect(row.mend, &QPushButton::clicked, this, [this, i] {
      const auto found = std::find_if(findings_.begin(), findings_.end(), [&](const auto& one) { return one.text == listed_[i]; });
      if (found != findings_.end()) session_->verbs().maps.mend(SizeFinding(*found));
    });
    rows_.push_back(row);
  }
  cut_ = new QPushButton(tr("Cut to what is used"), this);
  cut_->setObjectName(QStringLiteral("map-cut"));
  connect(cut_, &QPushButton::clicked, this, [this] { session_->verbs().maps.cutToUsed(); });
  preview_ = new Preview(this);

  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap * 2, kGap, kGap * 2, kGap * 2);
  layout->setSpacing(kGap);
  layout->addLayout(makeCardHead(this, name_, "map-facts-close"));
  auto* sides = new QHBoxLayout;
  sides->setSpacing(kGap * 2);
  auto* left = new QVBoxLayout;
  left->setSpacing(kGap);
  left->addLayout(new SentenceLayout({word(tr("The player reads")), title_}));
  left->addLayout(new SentenceLayout({word(tr("Behind all layers:")), cloth_}));
  left->addLayout(new SentenceLayout({word(tr("The screen shows")), width_, word(tr("×")), height_, word(tr("px."))}));
  left->addWidget(differs_, 0, Qt::AlignLeft);
  left->addLayout(new SentenceLayout({word(tr("Shown at ×")), times_, word(tr("in the game."))}));
  left->addLayout(new SentenceLayout({word(tr("The camera")), camera_}));
  left->addLayout(new SentenceLayout({word(tr("It is seen")), seen_}));
  left->addWidget(cells_, 0, Qt::AlignLeft);
  left->addWidget(grows_, 0, Qt::AlignLeft);
  left->addWidget(told_);
  for (const Row& row : rows_) {
    left->addWidget(row.text);
    left->addWidget(row.mend, 0, Qt::AlignLeft);
  }
  left->addWidget(cut_, 0, Qt::AlignLeft);
  left->addStretch();
  sides->addLayout(left, 1);
  sides->addWidget(preview_, 0, Qt::AlignTop);
  layout->addLayout(sides);
  if (auto* close = findChild<QToolButton*>(QStringLiteral("map-facts-close")))
    connect(close, &QToolButton::clicked, this, &MapFactsCard::close);
  hide();
}

void MapFactsCard::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  preview_->setSession(session);
  hide();
  if (!session_) return;
  connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
    const bool concerns = change.facts || change.any<Map>() || change.any<Sheet>();
    if (concerns && isVisible()) refresh();
  });
  connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
    if (change.map && isVisible()) {
      listed_.clear();
      refresh();
    }
  });
}

void MapFactsCard::open() {
  if (!session_ || !session_->map()) return;
  listed_.clear();
  refresh();
  adjustSize();
  const QSize room = parentWidget()->size();
  move(std::max(0, (room.width() - width()) / 2), std::max(0, (room.height() - height()) / 3));
  show();
  raise();
  title_->setFocus(Qt::OtherFocusReason);
}

void MapFactsCard::close() {
  hide();
  Q_EMIT closed();
}

void MapFactsCard::refresh() {
  const Map* map = session_->map();
  if (!map) return hide();
  name_->setText(QString::fromStdString(map->name));
  if (!title_->hasFocus() || !title_->isModified()) title_->setText(QString::fromStdString(map->title));
  cloth_->setValue(map->cloth);
  const PixelSize screen = screenOf(session_->quilt(), *map);
  width_->setValue(screen.w);
  height_->setValue(screen.h);
  differs_->setChecked(map->screen.has_value());
  times_->setValue(map->shownTimes);
  camera_->setCurrentIndex(map->cameraRunsFree ? 1 : 0);
  seen_->setCurrentIndex(map->seen == Seen::sideOn ? 1 : 0);
  cells_->setText(tr("Cells of %1 × %2 px…").arg(map->grid.cell.w).arg(map->grid.cell.h));
  grows_->setChecked(map->growsAsPainted);
  const PixelRect all = makeGrid(map->grid)->pixelBounds(map->bounds);
  QStringList lines{tr("The map is %1 × %2 px: %3 × %4 screens.")
                        .arg(all.w)
                        .arg(all.h)
                        .arg(all.w / double(screen.w), 0, 'f', 1)
                        .arg(all.h / double(screen.h), 0, 'f', 1)};
  if (all.x != 0 || all.y != 0) lines << tr("Its corner lies at pixel %1, %2, not at 0, 0.").arg(all.x).arg(all.y);
  for (const Shared<Layer>& layer : map->layers) {
    if (layer->offset != PixelPos{} && layer->holdsTiles())
      lines << tr("%1 is shifted by %2, %3.")
                   .arg(QString::fromStdString(layer->name))
                   .arg(layer->offset.x)
                   .arg(layer->offset.y);
  }
  const auto sewn = SewnMaps::of(session_->quilt());
  for (const Shared<Seam>& seam : session_->quilt().seams()) {
    const std::string& why = sewn->whyWrong(seam->id);
    if ((seam->map == map->id || seam->other == map->id) && !why.empty())
      lines << tr("A seam is open: %1.").arg(QString::fromStdString(why));
  }
  const DeadStrips dead = deadStrips(*map);
  const std::tuple<int, QString, QString> strips[] = {
      {dead.west, tr("1 column at the west edge holds no tile."), tr("%1 columns at the west edge hold no tile.")},
      {dead.east, tr("1 column at the east edge holds no tile."), tr("%1 columns at the east edge hold no tile.")},
      {dead.upper, tr("1 row at the upper edge holds no tile."), tr("%1 rows at the upper edge hold no tile.")},
      {dead.lower, tr("1 row at the lower edge holds no tile."), tr("%1 rows at the lower edge hold no tile.")}};
  for (const auto& [count, one, several] : strips) {
    if (count > 0) lines << (count == 1 ? one : several.arg(count));
  }
  refreshFindings();
  if (listed_.empty() && dead == DeadStrips{}) lines << tr("All its sizes go together.");
  told_->setText(lines.join(QLatin1Char('\n')));
  cut_->setVisible(!(dead == DeadStrips{}));
  preview_->update();
}

void MapFactsCard::refreshFindings() {
  findings_ = sizeFindings(session_->quilt(), *session_->map());
  const auto isListed = [&](const SizeFinding& one) { return std::find(listed_.begin(), listed_.end(), one.text) != listed_.end(); };
  for (const SizeFinding& one : findings_) {
    if (!isListed(one) && listed_.size() < rows_.size()) listed_.push_back(one.text);
  }
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    const Row& row = rows_[i];
    row.text->setVisible(i < listed_.size());
    row.mend->setVisible(i < listed_.size());
    if (i >= listed_.size()) continue;
    const auto found = std::find_if(findings_.begin(), findings_.end(), [&](const auto& one) { return one.text == listed_[i]; });
    const bool open = found != findings_.end();
    row.text->setText(QString::fromStdString(listed_[i]) + (open ? tr(".") : tr(": mended.")));
    row.mend->setEnabled(open);
    if (open) row.mend->setText(onButton(QString::fromStdString(found->mend)));
  }
}

void MapFactsCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return close();
  Card::keyPressEvent(event);
}

}  // namespace uq

#include "app/table/TidyCard.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollArea>
#include <QToolButton>
#include <QToolTip>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/Icons.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"

namespace uq {

namespace {
constexpr int kWidth = 336;  // logical pixels
constexpr int kTile = 30;
constexpr std::size_t kMostShown = 120;
}  // namespace

// The tiles of one kind; a click on one marks it as to be kept.
class TidyCard::Tiles : public QWidget {
 public:
  explicit Tiles(TidyCard* card) : QWidget(card), card_(card) { setMouseTracking(true); }

  void show(std::vector<std::uint32_t> tiles) {
    tiles_ = std::move(tiles);
    const int rows = (static_cast<int>(std::min(tiles_.size(), kMostShown)) + columns() - 1) / columns();
    setFixedHeight(std::max(1, rows) * (kTile + 3));
    setVisible(!tiles_.empty());
    update();
  }
  QRect rectOf(std::size_t index) const {
    const int i = static_cast<int>(index);
    return {i % columns() * (kTile + 3), i / columns() * (kTile + 3), kTile, kTile};
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    const Theme& theme = Theme::current();
    const Sheet* sheet = card_->session_->quilt().sheet(card_->sheet_);
    const auto slot = card_->session_->quilt().slots().find(card_->sheet_);
    if (!sheet || !slot) return;
    for (std::size_t i = 0; i < std::min(tiles_.size(), kMostShown); ++i) {
      const QRectF box = rectOf(i);
      painter.fillRect(box, theme.surround.lighter(150));
      if (const auto picture =
              card_->session_->painter().pictures().tile(card_->session_->quilt(), {*slot, tiles_[i]})) {
        const QSizeF size = QSizeF(picture->size()).scaled(box.size(), Qt::KeepAspectRatio);
        painter.setRenderHint(QPainter::SmoothPixmapTransform, size.width() < picture->width());
        painter.drawImage(QRectF(box.center() - QPointF(size.width() / 2, size.height() / 2), size), *picture);
      }
      if (sheet->factsOf(tiles_[i]).keep) {
        painter.setPen(QPen(theme.paper, 3));
        painter.drawRect(box.adjusted(1, 1, -1, -1));
        painter.setPen(QPen(theme.woad, 2));
        painter.drawRect(box.adjusted(1, 1, -1, -1));
      }
    }
  }
  void mousePressEvent(QMouseEvent* event) override {
    for (std::size_t i = 0; i < std::min(tiles_.size(), kMostShown); ++i) {
      if (!rectOf(i).contains(event->pos())) continue;
      const bool kept = card_->session_->quilt().sheet(card_->sheet_)->factsOf(tiles_[i]).keep;
      card_->session_->sheets().changeTiles(kept ? TidyCard::tr("Do not keep %1") : TidyCard::tr("Keep %1"),
                                            card_->sheet_, {tiles_[i]}, [&](TileFacts& facts) { facts.keep = !kept; });
    }
  }
  bool event(QEvent* event) override {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    for (std::size_t i = 0; i < std::min(tiles_.size(), kMostShown); ++i) {
      if (rectOf(i).contains(help->pos())) QToolTip::showText(help->globalPos(), textOf(tiles_[i]), this);
    }
    return true;
  }

 private:
  static int columns() { return (kWidth - 3 * kGap) / (kTile + 3); }
  QString textOf(std::uint32_t tile) const {
    const Quilt& quilt = card_->session_->quilt();
    const Sheet& sheet = *quilt.sheet(card_->sheet_);
    const auto slot = quilt.slots().find(card_->sheet_).value_or(0);
    QStringList lines = {
        TidyCard::tr("%1, number %2. Click to keep it.").arg(QString::fromStdString(sheet.tileName(tile))).arg(tile)};
    const auto twin = card_->finds_.twins.find(tile);
    if (twin != card_->finds_.twins.end()) {
      const QString of = QString::fromStdString(sheet.tileName(twin->second.of));
      lines << (twin->second.mirrored ? TidyCard::tr("Equals %1 mirrored.").arg(of)
                                      : TidyCard::tr("Equals %1.").arg(of));
    }
    for (const auto& map : quilt.maps()) {
      const TileUses uses = usesOn(map.read());
      const auto used = uses.find({slot, tile});
      if (used != uses.end())
        lines << TidyCard::tr("%1 × on %2").arg(used->second).arg(QString::fromStdString(map->name));
    }
    if (lines.size() == 1) lines << TidyCard::tr("On no map.");
    return lines.join(QLatin1Char('\n'));
  }

  TidyCard* card_;
  std::vector<std::uint32_t> tiles_;
};

TidyCard::TidyCard(QWidget* parent) : Card(parent) {
  setObjectName(QStringLiteral("tidy-card"));
  setAccessibleName(tr("What may be tidied away"));
  makeCard(this);
  setFixedWidth(kWidth);
  title_ = makeTitle({}, this);
  QLayout* head = makeCardHead(this, title_, "tidy-close");
  auto* inside = new QWidget(this);
  auto* list = new QVBoxLayout(inside);
  list->setContentsMargins(0, 0, 0, 0);
  list->setSpacing(6);
  nothing_ = makeSoftLabel(inside);
  list->addWidget(nothing_);
  const std::pair<const char*, std::vector<std::uint32_t> TidyFinds::*> kinds[] = {{"tidy-blank", &TidyFinds::blank},
                                                                                   {"tidy-stray", &TidyFinds::stray},
                                                                                   {"tidy-double", nullptr},
                                                                                   {"tidy-unused", &TidyFinds::unused}};
  for (const auto& [object, of] : kinds) {
    Kind kind{new QCheckBox(inside), new Tiles(this), of};
    kind.wanted->setObjectName(QLatin1String(object));
    kind.wanted->setChecked(of != &TidyFinds::unused);
    connect(kind.wanted, &QCheckBox::clicked, this, &TidyCard::refresh);
    list->addWidget(kind.wanted);
    list->addWidget(kind.tiles);
    kinds_.push_back(kind);
  }
  retired_ = makeSoftLabel(inside);
  list->addWidget(retired_);
  retiredTiles_ = new Tiles(this);
  list->addWidget(retiredTiles_);
  list->addStretch();
  auto* scroll = new QScrollArea(this);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setWidgetResizable(true);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setWidget(inside);
  scroll->viewport()->setAutoFillBackground(false);
  inside->setAutoFillBackground(false);
  tidy_ = new QToolButton(this);
  tidy_->setObjectName(QStringLiteral("tidy-now"));
  tidy_->setProperty("raised", true);
  tidy_->setIcon(icon(QStringLiteral("tidy"), Theme::current().ink));
  tidy_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  connect(tidy_, &QToolButton::clicked, this, [this] {
    session_->sheets().tidy(sheet_, chosen());
    hide();
  });
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap + 2, kGap, kGap, kGap);
  layout->setSpacing(kGap);
  layout->addLayout(head);
  layout->addWidget(scroll, 1);
  layout->addWidget(tidy_, 0, Qt::AlignLeft);
  parent->installEventFilter(this);
  hide();
}

void TidyCard::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  hide();
  session_ = session;
  if (!session_) return;
  connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
    if (change.has<Sheet>(sheet_)) refresh();
  });
}

void TidyCard::open(Id sheet, const TidyFinds& finds) {
  sheet_ = sheet;
  finds_ = finds;
  place();
  show();
  raise();
  refresh();
}

TidyFinds TidyCard::chosen() const {
  TidyFinds chosen;
  const Sheet* sheet = session_->quilt().sheet(sheet_);
  const auto goes = [&](std::uint32_t tile) { return sheet && !sheet->factsOf(tile).keep; };
  for (const Kind& kind : kinds_) {
    if (!kind.wanted->isChecked()) continue;
    if (kind.list) {
      std::copy_if((finds_.*kind.list).begin(), (finds_.*kind.list).end(), std::back_inserter(chosen.*kind.list), goes);
    } else {
      std::copy_if(finds_.twins.begin(), finds_.twins.end(), std::inserter(chosen.twins, chosen.twins.end()),
                   [&](const auto& one) { return goes(one.first); });
    }
  }
  return chosen;
}

void TidyCard::refresh() {
  if (!isVisible() || !session_) return;
  const Sheet* sheet = session_->quilt().sheet(sheet_);
  if (!sheet) return hide();
  title_->setText(tr("Tidy %1").arg(QString::fromStdString(sheet->name)));
  const int counts[] = {static_cast<int>(finds_.blank.size()), static_cast<int>(finds_.stray.size()),
                        static_cast<int>(finds_.twins.size()), static_cast<int>(finds_.unused.size())};
  const QString texts[] = {
      tr("%n blank tile(s)", nullptr, counts[0]), tr("%n tile(s) with only a stray mark", nullptr, counts[1]),
      tr("%n double tile(s), also mirrored", nullptr, counts[2]), tr("%n tile(s) used nowhere", nullptr, counts[3])};
  for (std::size_t i = 0; i < kinds_.size(); ++i) {
    const Kind& kind = kinds_[i];
    std::vector<std::uint32_t> tiles;
    if (kind.list) {
      tiles = finds_.*kind.list;
    } else {
      for (const auto& [one, twin] : finds_.twins) tiles.push_back(one);
    }
    kind.wanted->setText(texts[i]);
    kind.wanted->setVisible(counts[i] > 0);
    kind.tiles->show(std::move(tiles));
  }
  nothing_->setVisible(finds_.empty());
  nothing_->setText(tr("Nothing is blank, stray, double or unused."));
  retired_->setVisible(!finds_.retired.empty());
  retired_->setText(tr("Of an earlier cut, %n tile(s) may still be drawn on maps and stay.", nullptr,
                       static_cast<int>(finds_.retired.size())));
  retiredTiles_->show(finds_.retired);
  const TidyFinds now = chosen();
  const auto count = static_cast<int>(now.blank.size() + now.stray.size() + now.twins.size() + now.unused.size());
  tidy_->setText(tr("Tidy %n tile(s) away", nullptr, count));
  tidy_->setEnabled(count > 0);
  tidy_->setToolTip(tr("Maps keep looking the same, and one step of undo brings everything back"));
}

void TidyCard::place() { setGeometry(kGap, kGap, kWidth, std::min(520, parentWidget()->height() - 2 * kGap)); }

bool TidyCard::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize && isVisible()) place();
  return false;
}

void TidyCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) {
    hide();
  } else {
    QFrame::keyPressEvent(event);
  }
}

}  // namespace uq

#include "app/table/MaterialStrip.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QScrollArea>
#include <QStyle>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/edit/Edgings.h"
#include "core/edit/Joiner.h"
#include "core/edit/TableFor.h"

namespace uq {

namespace {

constexpr std::size_t kMostTogether = 4;  // swatches that are never parted by a line's end
constexpr int kTallest = 112;             // logical pixels; more is scrolled to
constexpr int kButtonSide = kSwatchSide + 6;

}  // namespace

QIcon swatchOf(Session& session, const Edging& edging, MaterialIndex material, double ratio) {
  QPixmap pixmap((QSizeF(kSwatchSide, kSwatchSide) * ratio).toSize());
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(QColor::fromRgb(edging.materials[static_cast<std::size_t>(material)].colour | 0xff000000u));
  QPainter painter(&pixmap);
  const auto shown = plainTile(session.quilt(), edging, material);
  if (const auto picture = shown ? session.painter().pictures().turned(session.quilt(), *shown) : std::nullopt) {
    const QSizeF size = QSizeF(picture->size()).scaled(kSwatchSide, kSwatchSide, Qt::KeepAspectRatio);
    painter.drawImage(QRectF({(kSwatchSide - size.width()) / 2, (kSwatchSide - size.height()) / 2}, size), *picture);
  }
  return QIcon(pixmap);
}

MaterialStrip::MaterialStrip(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("materials"));
  setAccessibleName(tr("Materials that join by themselves"));
  scroll_ = new QScrollArea(this);
  scroll_->setFrameShape(QFrame::NoFrame);
  scroll_->setWidgetResizable(true);
  scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll_->setFocusPolicy(Qt::NoFocus);
  scroll_->viewport()->setAutoFillBackground(false);
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(scroll_);
  hide();
}

void MaterialStrip::resizeEvent(QResizeEvent*) { fit(); }

void MaterialStrip::fit() {
  if (!list_) return;
  const int room = std::max(width() - style()->pixelMetric(QStyle::PM_ScrollBarExtent), kButtonSide);
  wanted_ = std::min(kTallest, list_->layout()->heightForWidth(room));
  setMaximumHeight(wanted_);
  setMinimumHeight(std::min(wanted_, kButtonSide));
  updateGeometry();
}

QSize MaterialStrip::sizeHint() const { return {0, wanted_}; }

void MaterialStrip::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  if (session_) {
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.any<Edging>() || change.any<Sheet>()) refresh();
    });
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      if (change.map) refresh();
      else if (change.hand) showHeld();
    });
  }
  refresh();
}

void MaterialStrip::refresh() {
  // Those that can be laid on the map in sight, and of these first those whose tiles lie on it.
  std::vector<const Edging*> shown;
  const Map* map = session_ ? session_->map() : nullptr;
  for (std::size_t i = 0; map && i < session_->quilt().edgings().size(); ++i) {
    const Edging& edging = session_->quilt().edgings()[i].read();
    if (areOfOneFamily(edging.grid, map->grid.kind)) shown.push_back(&edging);
  }
  if (map && shown.size() > 1) {
    const std::set<Id> used = sheetsUsedOn(session_->quilt(), *map);
    // The more there is to choose the sooner it is seen.
    std::stable_sort(shown.begin(), shown.end(), [](const Edging* a, const Edging* b) { return a->materials.size() > b->materials.size(); });
    std::stable_partition(shown.begin(), shown.end(), [&](const Edging* edging) {
      return std::any_of(edging->members.begin(), edging->members.end(), [&](const EdgingMember& one) { return used.contains(one.tile.sheet); });
    });
  }
  setVisible(!shown.empty());
  if (shown.empty()) return;
  list_ = new QWidget;
  list_->setAutoFillBackground(false);
  auto* all = new QVBoxLayout(list_);
  all->setContentsMargins(0, 0, 0, 0);
  all->setSpacing(0);
  for (const Edging* edging : shown) add(*edging, all);
  all->addStretch(1);
  scroll_->setWidget(list_);  // which drops the one before
  list_->show();
  fit();
  showHeld();
}

void MaterialStrip::add(const Edging& edging, QVBoxLayout* into) {
  auto* name = new QToolButton(list_);
  name->setObjectName(QStringLiteral("edging-") + QString::fromStdString(edging.file));
  name->setAutoRaise(true);
  name->setProperty("tight", true);
  name->setText(onButton(QString::fromStdString(edging.name)) + QStringLiteral(" …"));
  name->setToolTip(tr("%1 joins by %2: see it on the bench").arg(QString::fromStdString(edging.name), QString::fromUtf8(decidesName(edging.decides).data())));
  connect(name, &QToolButton::clicked, this, [this, id = edging.id] { Q_EMIT benchWanted(id); });
  // Few swatches stay together.
  auto* line = new SentenceLayout({name}, 2);
  auto* together = new QWidget(list_);
  auto* row = new QHBoxLayout(together);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  const bool areFew = edging.materials.size() <= kMostTogether;
  if (areFew) line->addWidget(together);
  for (MaterialIndex i = 0; i < static_cast<int>(edging.materials.size()); ++i) {
    const QString called = QString::fromStdString(edging.materials[static_cast<std::size_t>(i)].name);
    auto* swatch = new QToolButton(areFew ? together : list_);
    swatch->setProperty("tight", true);
    swatch->setObjectName(QStringLiteral("material-%1-%2").arg(QString::fromStdString(edging.file)).arg(i));
    swatch->setProperty("edging", QString::fromStdString(edging.id.text()));
    swatch->setProperty("material", i);
    swatch->setIconSize({kSwatchSide, kSwatchSide});
    swatch->setIcon(swatchOf(*session_, edging, i, devicePixelRatioF()));
    swatch->setCheckable(true);
    swatch->setToolTip(tr("Paint %1: its borders come by themselves; with Ctrl it is taken away").arg(called));
    swatch->setAccessibleName(called);
    connect(swatch, &QToolButton::clicked, this, [this, id = edging.id, i] {
      const Edging* now = session_->quilt().edging(id);
      InHand hand = now ? materialInHand(session_->quilt(), *now, i) : InHand();
      if (hand.empty()) session_->work().refuse("No tile that is there shows this material");
      else session_->verbs().hand.take(std::move(hand));
      showHeld();
      Q_EMIT handsFree();
    });
    if (areFew) row->addWidget(swatch);
    else line->addWidget(swatch);
  }
  into->addLayout(line);
}

void MaterialStrip::showHeld() {
  if (!session_) return;
  const InHand& hand = session_->desk().inHand;
  const QString held = hand.joins() ? QString::fromStdString(hand.edging.text()) : QString();
  for (QToolButton* swatch : findChildren<QToolButton*>()) {
    if (swatch->isCheckable()) swatch->setChecked(!held.isEmpty() && swatch->property("edging").toString() == held && swatch->property("material").toInt() == hand.material);
  }
}

}  // namespace uq

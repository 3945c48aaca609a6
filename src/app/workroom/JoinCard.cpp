#include "app/workroom/JoinCard.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QPushButton>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {
constexpr QSize kPicture(340, 230);  // logical pixels
constexpr int kAround = 6;           // cells shown around what differs
}  // namespace

JoinCard::JoinCard(QWidget* parent) : Card(parent) {
  setObjectName(QStringLiteral("join-card"));
  setAccessibleName(tr("Changed here and by another program"));
  makeCard(this);
  words_ = makeTitle({}, this);
  words_->setObjectName(QStringLiteral("join-text"));
  words_->setWordWrap(true);
  const auto picture = [this] {
    auto* label = new QLabel(this);
    label->setFixedSize(kPicture);
    label->setAlignment(Qt::AlignCenter);
    return label;
  };
  here_ = picture();
  theirs_ = picture();
  const auto button = [this](const char* object, const QString& text, Side side) {
    auto* one = new QPushButton(text, this);
    one->setObjectName(QLatin1String(object));
    connect(one, &QPushButton::clicked, this, [this, side] { choose(side); });
    return one;
  };
  takeHere_ = button("join-here", tr("As it is here"), Side::here);
  takeThere_ = button("join-there", tr("As the other program saved it"), Side::there);
  takeBoth_ = button("join-both", tr("Both: theirs as a copy beside it"), Side::both);
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(2 * kGap, 2 * kGap, 2 * kGap, 2 * kGap);
  grid->setSpacing(kGap);
  grid->addWidget(words_, 0, 0, 1, 2);
  grid->addWidget(here_, 1, 0);
  grid->addWidget(theirs_, 1, 1);
  grid->addWidget(takeHere_, 2, 0);
  grid->addWidget(takeThere_, 2, 1);
  grid->addWidget(takeBoth_, 3, 0, 1, 2);
  hide();
}

void JoinCard::open(Session& session, const Quilt& there, const std::vector<BothChanged>& what) {
  session_ = &session;
  there_ = there;
  what_ = what;
  sides_.clear();
  showOne(0);
  adjustSize();
  const QSize room = parentWidget()->size();
  move((room.width() - width()) / 2, (room.height() - height()) / 2);
  show();
  raise();
  (what.front().mayBoth ? takeBoth_ : takeHere_)->setFocus();
}

QPixmap JoinCard::pictureOf(const Quilt& quilt, const Quilt& other, const BothChanged& what) {
  const Map* map = quilt.map(what.part);
  const Map* theirs = other.map(what.part);
  if (!map || !theirs) return {};
  MapPainter painter(session_->painter().pictures());
  const double ratio = devicePixelRatioF();
  const Layer* layer = map->layer(what.layer);
  // Only what lies around the differences, so that they can be made out.
  CellRect differing;
  for (const Shared<Layer>& one : map->layers) {
    const Layer* differs = layer && one->id != layer->id ? nullptr : theirs->layer(one->id);
    if (!differs) continue;
    for (const CellRect& box : LayerCells::differences(one.read(), *differs)) differing = differing.united(box);
  }
  Map part = *map;
  if (!differing.empty()) part.bounds = differing.grown(kAround).intersected(map->bounds);
  SmallPicture small = layer ? smallPicture(painter, quilt, part, *layer, kPicture * ratio)
                             : smallPicture(painter, quilt, part, kPicture * ratio);
  QImage picture(small.picture.size(), QImage::Format_ARGB32_Premultiplied);
  picture.fill(Theme::current().surround);
  QPainter onto(&picture);
  onto.drawImage(QPoint(), small.picture);
  const auto grid = makeGrid(map->grid);
  for (const Shared<Layer>& one : map->layers) {
    if (layer && one->id != layer->id) continue;
    const Layer* differs = theirs->layer(one->id);
    if (!differs) continue;
    const PixelPos plane = map->planeOf(one.read());
    for (const CellRect& box : LayerCells::differences(one.read(), *differs)) {
      for (int y = box.y0; y < box.y1; ++y) {
        for (int x = box.x0; x < box.x1; ++x) {
          if (one->laidAt({x, y}) == differs->laidAt({x, y})) continue;
          const PixelRect cell = grid->cellBox({x, y});
          const QRectF place((cell.x + plane.x - small.covers.x) * small.zoom, (cell.y + plane.y - small.covers.y) * small.zoom,
                             cell.w * small.zoom, cell.h * small.zoom);
          drawStitches(onto, place, Theme::current().madder, Theme::current().paper, 1);
        }
      }
    }
  }
  onto.end();
  QPixmap shown = QPixmap::fromImage(picture);
  shown.setDevicePixelRatio(ratio);
  return shown;
}

void JoinCard::showOne(std::size_t index) {
  const BothChanged& one = what_[index];
  const QString name = QString::fromStdString(one.name);
  const QString count = what_.size() > 1 ? tr(" (%1 of %2)").arg(index + 1).arg(what_.size()) : QString();
  words_->setText(tr("%1 was changed here, and by another program in the quilt's folder%2").arg(name, count));
  const bool drawn = one.what == BothChanged::What::map || one.what == BothChanged::What::layer;
  here_->setVisible(drawn);
  theirs_->setVisible(drawn);
  if (drawn) {
    here_->setPixmap(pictureOf(session_->quilt(), there_, one));
    theirs_->setPixmap(pictureOf(there_, session_->quilt(), one));
  }
  takeBoth_->setVisible(one.mayBoth);
}

void JoinCard::choose(Side side) {
  sides_.push_back(side);
  if (sides_.size() < what_.size()) return showOne(sides_.size());
  hide();
  Q_EMIT answered(sides_);
}

void JoinCard::keyPressEvent(QKeyEvent* event) {
  // It stays until it is answered: nothing can be saved before.
  if (event->key() != Qt::Key_Escape) Card::keyPressEvent(event);
}

}  // namespace uq

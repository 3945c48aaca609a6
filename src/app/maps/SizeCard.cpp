#include "app/maps/SizeCard.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPainter>

#include "app/canvas/MapEdges.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/edit/MapFacts.h"
#include "core/edit/SizeText.h"

namespace uq {

namespace {

constexpr int kSizeCardWide = 460;        // logical pixels
constexpr int kPictureSide = 96;  // likewise
constexpr int kReach = 12;        // of the marks at the sides

SideChoice stepped(SideChoice now, int by) {
  return static_cast<SideChoice>(std::clamp(static_cast<int>(now) + by, 0, 2));
}

// Which third of a length a place lies in.
SideChoice thirdOf(double place, int length) {
  return place < length / 3.0 ? SideChoice::before : place > 2 * length / 3.0 ? SideChoice::behind : SideChoice::both;
}

// By how much the two sides move so that `more` cells come to an axis.
std::pair<int, int> partedBy(SideChoice choice, int more) {
  if (choice == SideChoice::before) return {more, 0};
  if (choice == SideChoice::behind) return {0, more};
  return {more / 2, more - more / 2};
}

}  // namespace

SidePicture::SidePicture(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("size-sides"));
  setAccessibleName(tr("The sides that give or take: click one, or use the arrows"));
  setToolTip(accessibleName());
  setFixedSize(kPictureSide, kPictureSide);
  setFocusPolicy(Qt::StrongFocus);
}

void SidePicture::choose(SideChoice across, SideChoice down) {
  if (across == across_ && down == down_) return;
  across_ = across;
  down_ = down;
  update();
  Q_EMIT chosen();
}

void SidePicture::paintEvent(QPaintEvent*) {
  const Theme& theme = Theme::current();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const QRectF map = QRectF(rect()).adjusted(kReach * 2, kReach * 2, -kReach * 2, -kReach * 2);
  painter.fillRect(map, theme.surround);
  drawStitches(painter, map, hasFocus() ? theme.madder : theme.ink, theme.paper);
  painter.setPen(QPen(theme.madder, 2));
  const auto mark = [&](QPointF from, QPointF way) {
    const QPointF side(way.y(), -way.x());
    painter.drawLine(from, from + way * kReach);
    painter.drawLine(from + way * kReach, from + way * (kReach - 5) + side * 4);
    painter.drawLine(from + way * kReach, from + way * (kReach - 5) - side * 4);
  };
  const QPointF middle = map.center();
  if (across_ != SideChoice::behind) mark({map.left() - 3, middle.y()}, {-1, 0});
  if (across_ != SideChoice::before) mark({map.right() + 3, middle.y()}, {1, 0});
  if (down_ != SideChoice::behind) mark({middle.x(), map.top() - 3}, {0, -1});
  if (down_ != SideChoice::before) mark({middle.x(), map.bottom() + 3}, {0, 1});
}

void SidePicture::mousePressEvent(QMouseEvent* event) {
  choose(thirdOf(event->position().x(), width()), thirdOf(event->position().y(), height()));
}

void SidePicture::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
    case Qt::Key_Left: return choose(stepped(across_, -1), down_);
    case Qt::Key_Right: return choose(stepped(across_, 1), down_);
    case Qt::Key_Up: return choose(across_, stepped(down_, -1));
    case Qt::Key_Down: return choose(across_, stepped(down_, 1));
    default: QWidget::keyPressEvent(event);
  }
}

SizeCard::SizeCard(QWidget* parent) : TrialCard("size", kSizeCardWide, tr("Resize"), parent) {
  const auto field = [this](const char* object, const QString& name) {
    auto* edit = new QLineEdit(this);
    edit->setObjectName(QLatin1String(object));
    edit->setAccessibleName(name);
    edit->setToolTip(tr("64, +5, -2, 2*23, 3 screens, 1920 px"));
    edit->setFixedWidth(110);
    connect(edit, &QLineEdit::textEdited, this, &SizeCard::follow);
    return edit;
  };
  across_ = field("size-across", tr("How wide"));
  down_ = field("size-down", tr("How high"));
  sides_ = new SidePicture(this);
  connect(sides_, &SidePicture::chosen, this, &SizeCard::follow);
  room_ = new QComboBox(this);
  room_->setObjectName(QStringLiteral("size-room"));
  room_->setAccessibleName(tr("What new room gets"));
  room_->addItems({tr("nothing"), tr("the last row again"), tr("the ground again")});
  connect(room_, &QComboBox::activated, this, [this](int index) {
    Desk desk = session()->desk();
    desk.newRoom = static_cast<NewRoom>(index);
    session()->setDesk(std::move(desk));
    follow();
  });
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  auto* sides = new QHBoxLayout;
  auto* left = new QVBoxLayout;
  left->addLayout(new SentenceLayout({across_, word(tr("across,"))}));
  left->addLayout(new SentenceLayout({down_, word(tr("down."))}));
  left->addLayout(new SentenceLayout({word(tr("New room gets")), room_}));
  left->addStretch();
  sides->addLayout(left, 1);
  sides->addWidget(sides_, 0, Qt::AlignTop);
  content()->addLayout(sides);
}

void SizeCard::open() {
  if (!session() || !session()->map()) return;
  if (isVisible() && holds()) return across_->setFocus();
  const Map map = *session()->map();
  setTitle(tr("How large is %1?").arg(QString::fromStdString(map.name)));
  across_->setText(QString::number(map.bounds.width()));
  down_->setText(QString::number(map.bounds.height()));
  room_->setCurrentIndex(static_cast<int>(session()->desk().newRoom));
  if (!begin("Resize " + map.name)) return;
  count_.emplace(map);
  follow();
  across_->setFocus(Qt::OtherFocusReason);
  across_->selectAll();
}

void SizeCard::follow() {
  if (!holds()) return;
  const Map& map = mapBefore();
  const PixelSize screen = screenOf(before(), map);
  const PixelSize step = cellsPitch(map.grid);
  const SizeMeant across = sizeMeant(across_->text().toStdString(), map.bounds.width(), step.w, screen.w);
  const SizeMeant down = sizeMeant(down_->text().toStdString(), map.bounds.height(), step.h, screen.h);
  std::string why = !across.why.empty() ? across.why : down.why;
  if (!why.empty()) return refuse(why);
  const auto [left, right] = partedBy(sides_->across(), across.cells - map.bounds.width());
  const auto [top, bottom] = partedBy(sides_->down(), down.cells - map.bounds.height());
  const CellRect to = moved(map.bounds, {left, top, right, bottom});
  why = whyNoBounds(map, to, session()->desk().newRoom);
  if (!why.empty()) return refuse(why);
  Quilt after = withBounds(before(), map.id, to, session()->desk().newRoom);
  const Map shown = *after.map(map.id);
  const QString words = resizingText(after, shown, count_->cutBy(to), count_->broughtBackBy(to));
  tryOut(std::move(after), words);
}

}  // namespace uq

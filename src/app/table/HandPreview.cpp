#include "app/table/HandPreview.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <cmath>

#include "app/look/NameField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/table/HandPicture.h"

namespace uq {

namespace {

constexpr double kMargin = 6;     // logical pixels
constexpr double kMember = 44;    // logical pixels at most, with its weight below
constexpr double kLeastMember = 14;
constexpr double kWeight = 14;    // logical pixels
constexpr int kMostLines = 64;    // columns or rows that a block is dragged to
constexpr double kMarkReach = 5;  // logical pixels, how near a mark is meant

}  // namespace

HandPreview::HandPreview(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("hand-preview"));
  setAccessibleName(tr("Picture of what is in hand"));
  setMouseTracking(true);
}

void HandPreview::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  mark_.reset();
  edge_.reset();
  if (session_) {
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      if (change.hand || change.map || change.beside) update();
    });
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.any<Sheet>() || !change.arranged.empty()) update();
    });
  }
  update();
}

bool HandPreview::isMix() const { return session_ && session_->desk().inHand.manner == Manner::mix; }

bool HandPreview::isStretch() const { return session_ && session_->desk().inHand.manner == Manner::stretch; }

std::optional<HandPicture> HandPreview::drawn() const {
  if (!session_ || !session_->map()) return std::nullopt;
  return pictureOf(*session_, session_->desk().inHand, QRectF(rect()).adjusted(kMargin, kMargin, -kMargin, -kMargin));
}

QRectF HandPreview::placeRect(SidePos at) const {
  const auto shown = drawn();
  if (!shown) return {};
  const auto grid = makeGrid(shown->map.grid);
  const PixelRect box = grid->cellBox(grid->fromSide(at));
  return {shown->corner + QPointF(box.x - shown->pixels.x, box.y - shown->pixels.y) * shown->scale,
          QSizeF(box.w, box.h) * shown->scale};
}

QLineF HandPreview::markLine(int mark) const {
  const InHand& hand = session_->desk().inHand;
  const CellRect all = hand.wholeExtent();
  const StretchEnds ends = fittingEnds(hand.ends, all);
  // Between the middles of the cells on both sides of the mark, over the whole block.
  const auto middle = [&](int u, int v) { return placeRect({u, v}).center(); };
  const bool across = mark < 2;
  const int at = mark == 0   ? all.x0 + ends.left
                 : mark == 1 ? all.x1 - ends.right
                 : mark == 2 ? all.y0 + ends.top
                             : all.y1 - ends.bottom;
  const auto between = [&](int along) {
    return across ? (middle(at - 1, along) + middle(at, along)) / 2 : (middle(along, at - 1) + middle(along, at)) / 2;
  };
  const int from = across ? all.y0 : all.x0;
  const int to = across ? all.y1 - 1 : all.x1 - 1;
  const QPointF half = across ? middle(0, 1) - middle(0, 0) : middle(1, 0) - middle(0, 0);
  return {between(from) - half / 2, between(to) + half / 2};
}

QRectF HandPreview::memberRect(std::size_t index) const {
  // As large as all of them have room.
  const auto count = static_cast<int>(session_->desk().inHand.members.size());
  const auto columns = [&](double side) { return std::max(1, static_cast<int>((width() - kMargin) / (side + 2))); };
  const auto fits = [&](double side) {
    return ((count - 1) / columns(side) + 1) * (side + kWeight) + kMargin <= height();
  };
  double side = kMember;
  while (side > kLeastMember && !fits(side)) side -= 2;
  const auto i = static_cast<int>(index);
  return {kMargin + (i % columns(side)) * (side + 2), kMargin + (i / columns(side)) * (side + kWeight), side, side};
}

std::optional<std::size_t> HandPreview::memberAt(QPointF at) const {
  for (std::size_t i = 0; isMix() && i < session_->desk().inHand.members.size(); ++i) {
    if (memberRect(i).adjusted(0, 0, 0, kWeight).contains(at)) return i;
  }
  return std::nullopt;
}

QLineF HandPreview::edgeLine(int edge) const {
  const CellRect all = session_->desk().inHand.wholeExtent();
  const bool across = edge < 2;
  const auto middle = [&](int u, int v) { return placeRect({u, v}).center(); };
  const QPointF step = across ? middle(1, 0) - middle(0, 0) : middle(0, 1) - middle(0, 0);
  const QPointF along = across ? middle(0, 1) - middle(0, 0) : middle(1, 0) - middle(0, 0);
  const QPointF first = middle(edge == 1 ? all.x1 - 1 : all.x0, edge == 3 ? all.y1 - 1 : all.y0);
  const QPointF last = middle(edge == 0 ? all.x0 : all.x1 - 1, edge == 2 ? all.y0 : all.y1 - 1);
  const QPointF out = edge % 2 == 0 ? -step / 2 : step / 2;
  return {first + out - along / 2, last + out + along / 2};
}

std::optional<int> HandPreview::nearestLine(QPointF at, QLineF (HandPreview::*lineOf)(int) const) const {
  for (int i = 0; i < 4; ++i) {
    const QLineF line = (this->*lineOf)(i);
    const QPointF way = line.p2() - line.p1();
    const double length = std::hypot(way.x(), way.y());
    const QPointF off = at - line.p1();
    if (length <= 0) continue;
    const double far = std::abs(way.x() * off.y() - way.y() * off.x()) / length;
    const double along = (way.x() * off.x() + way.y() * off.y()) / length;
    if (far <= kMarkReach && along >= -kMarkReach && along <= length + kMarkReach) return i;
  }
  return std::nullopt;
}

std::optional<int> HandPreview::markAt(QPointF at) const {
  return isStretch() ? nearestLine(at, &HandPreview::markLine) : std::nullopt;
}

std::optional<int> HandPreview::edgeAt(QPointF at) const {
  if (!session_ || isMix() || session_->desk().inHand.block.empty() || !session_->map()) return std::nullopt;
  return nearestLine(at, &HandPreview::edgeLine);
}

void HandPreview::paintBlock(QPainter& painter) const {
  const QRectF room = QRectF(rect()).adjusted(kMargin, kMargin, -kMargin, -kMargin);
  drawHand(painter, *session_, session_->desk().inHand, room, devicePixelRatioF());
}

void HandPreview::paintMarks(QPainter& painter) const {
  const Theme& theme = Theme::current();
  for (int mark = 0; mark < 4; ++mark) {
    const QLineF line = markLine(mark);
    painter.setPen(QPen(theme.ink, 3));
    painter.drawLine(line);
    drawStitchLine(painter, line, theme.madder, theme.paper);
  }
}

void HandPreview::paintMembers(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const auto& members = session_->desk().inHand.members;
  QFont small = font();
  small.setPointSizeF(small.pointSizeF() * 0.75);
  painter.setFont(small);
  int all = 0;
  for (const MixMember& member : members) all += member.weight;
  for (std::size_t i = 0; i < members.size(); ++i) {
    const QRectF box = memberRect(i);
    if (box.bottom() > height()) break;
    painter.fillRect(box, theme.surround.lighter(150));
    const Block& block = members[i].block;
    if (block.empty()) {
      painter.setPen(theme.paper);
      painter.drawText(box, Qt::AlignCenter, tr("none"));
    } else {
      const Cell cell = block.parts()[block.parts().size() / 2].cell;
      const QRectF inside = box.adjusted(2, 2, -2, -2);
      if (cell.tile().slot == kChalkSlot) {
        painter.fillRect(inside, QColor::fromRgb(chalkColour(cell.tile().number) | 0xff000000u));
      } else if (const auto picture = session_->painter().pictures().turned(session_->quilt(), cell)) {
        const QSizeF size = QSizeF(picture->size()).scaled(inside.size(), Qt::KeepAspectRatio);
        painter.drawImage(QRectF(inside.center() - QPointF(size.width() / 2, size.height() / 2), size), *picture);
      }
    }
    if (members[i].keepsOffRim) drawStitches(painter, box.adjusted(4, 4, -4, -4), theme.madder, theme.paper);
    painter.setPen(theme.ink);
    // With its share, where that has room.
    QString words = tr("%1 · %2 %").arg(members[i].weight).arg(qRound(100.0 * members[i].weight / all));
    if (painter.fontMetrics().horizontalAdvance(words) > box.width() - 2) words = QString::number(members[i].weight);
    painter.drawText(QRectF(box.left(), box.bottom(), box.width(), kWeight), Qt::AlignCenter, words);
  }
}

void HandPreview::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.panel);
  painter.setPen(theme.edge);
  painter.drawRect(QRectF(rect()).adjusted(.5, .5, -.5, -.5));
  if (!session_ || session_->desk().inHand.empty()) return;
  if (isMix()) return paintMembers(painter);
  paintBlock(painter);
  if (isStretch()) paintMarks(painter);
}

void HandPreview::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) {
    mark_ = markAt(event->position());
    if (const auto edge = mark_ ? std::nullopt : edgeAt(event->position())) {
      const QPointF step = *edge < 2 ? placeRect({1, 0}).center() - placeRect({0, 0}).center()
                                     : placeRect({0, 1}).center() - placeRect({0, 0}).center();
      edge_ = EdgeDrag{*edge, event->position(), session_->desk().inHand, step};
    }
    carries_ = !mark_ && !edge_ && session_ && !session_->desk().inHand.empty();
  }
  const auto member = memberAt(event->position());
  if (event->button() != Qt::RightButton || !member) return;
  InHand hand = session_->desk().inHand;
  hand.members[*member].keepsOffRim = !hand.members[*member].keepsOffRim;
  session_->verbs().hand.change(std::move(hand));
}

void HandPreview::mouseMoveEvent(QMouseEvent* event) {
  const QPointF at = event->position();
  if (mark_) return moveMark(at);
  if (edge_) return moveEdge(at);
  if (carries_) {
    if (!rect().contains(at.toPoint())) setCursor(Qt::DragCopyCursor);
    return;
  }
  const auto over = markAt(at) ? markAt(at) : edgeAt(at);
  setCursor(!over ? Qt::ArrowCursor : *over < 2 ? Qt::SplitHCursor : Qt::SplitVCursor);
}

void HandPreview::moveEdge(QPointF at) {
  const QPointF off = at - edge_->from;
  const QPointF step = edge_->step;
  const double length = step.x() * step.x() + step.y() * step.y();
  const int lines = length > 0 ? static_cast<int>(std::lround((off.x() * step.x() + off.y() * step.y()) / length)) : 0;
  CellRect next = edge_->hand.wholeExtent();
  switch (edge_->edge) {
    case 0: next.x0 = std::clamp(next.x0 + lines, next.x1 - kMostLines, next.x1 - 1); break;
    case 1: next.x1 = std::clamp(next.x1 + lines, next.x0 + 1, next.x0 + kMostLines); break;
    case 2: next.y0 = std::clamp(next.y0 + lines, next.y1 - kMostLines, next.y1 - 1); break;
    default: next.y1 = std::clamp(next.y1 + lines, next.y0 + 1, next.y0 + kMostLines); break;
  }
  session_->verbs().hand.change(edge_->hand.fittedTo(next));
}

void HandPreview::moveMark(QPointF at) {
  InHand hand = session_->desk().inHand;
  const CellRect all = hand.wholeExtent();
  // The mark goes to the nearest border between columns or rows.
  StretchEnds best = hand.ends;
  double bestFar = 1e9;
  const InHand before = hand;
  const int size = *mark_ < 2 ? all.width() : all.height();
  for (int count = 0; count <= size; ++count) {
    StretchEnds ends = fittingEnds(before.ends, all);
    int& own = *mark_ == 0 ? ends.left : *mark_ == 1 ? ends.right : *mark_ == 2 ? ends.top : ends.bottom;
    const int other = *mark_ == 0 ? ends.right : *mark_ == 1 ? ends.left : *mark_ == 2 ? ends.bottom : ends.top;
    if (count + other > size) continue;
    own = count;
    const int border = *mark_ == 0   ? all.x0 + count
                       : *mark_ == 1 ? all.x1 - count
                       : *mark_ == 2 ? all.y0 + count
                                     : all.y1 - count;
    const bool across = *mark_ < 2;
    const QPointF a = placeRect(across ? SidePos{border - 1, all.y0} : SidePos{all.x0, border - 1}).center();
    const QPointF b = placeRect(across ? SidePos{border, all.y0} : SidePos{all.x0, border}).center();
    const QPointF off = at - (a + b) / 2;
    const QPointF way = b - a;
    const double far = std::abs(off.x() * way.x() + off.y() * way.y()) / std::hypot(way.x(), way.y());
    if (far >= bestFar) continue;
    bestFar = far;
    best = ends;
  }
  hand.ends = best;
  session_->verbs().hand.change(std::move(hand));
}

void HandPreview::mouseReleaseEvent(QMouseEvent* event) {
  mark_.reset();
  edge_.reset();
  const bool outside = !rect().contains(event->position().toPoint());
  if (std::exchange(carries_, false) && outside) Q_EMIT carriedTo(event->globalPosition().toPoint());
  unsetCursor();
}

void HandPreview::wheelEvent(QWheelEvent* event) {
  const auto member = memberAt(event->position());
  if (!member) return QWidget::wheelEvent(event);
  event->accept();
  InHand hand = session_->desk().inHand;
  MixMember& one = hand.members[*member];
  const int weight = one.weight + (event->angleDelta().y() > 0 ? 1 : -1);
  if (weight < 1) {
    // One that is wanted less than once is not wanted.
    if (hand.members.size() < 2) return;
    hand.members.erase(hand.members.begin() + static_cast<std::ptrdiff_t>(*member));
  } else {
    one.weight = std::min(weight, kMostWeight);
  }
  session_->verbs().hand.change(std::move(hand));
}

void HandPreview::setWeight(std::size_t index, int weight) {
  InHand hand = session_->desk().inHand;
  if (index >= hand.members.size() || weight < 1) return;
  hand.members[index].weight = std::min(weight, kMostWeight);
  session_->verbs().hand.change(std::move(hand));
}

void HandPreview::mouseDoubleClickEvent(QMouseEvent* event) {
  const auto index = memberAt(event->position());
  if (!index || event->button() != Qt::LeftButton) return;
  carries_ = false;
  const QRectF box = memberRect(*index);
  const QRect place(static_cast<int>(box.left()), static_cast<int>(box.bottom()) - 6, std::max(44, static_cast<int>(box.width())), 22);
  auto* field = new NameField(QString::number(session_->desk().inHand.members[*index].weight), place, this,
                              [this, index = *index](const QString& text) { setWeight(index, text.toInt()); });
  field->setObjectName(QStringLiteral("mix-weight"));
  field->setAccessibleName(tr("How often this one comes"));
}

// "Comes 3 times in 8, 38 %."
QString HandPreview::shareText(std::size_t index) const {
  const auto& members = session_->desk().inHand.members;
  int all = 0;
  for (const MixMember& member : members) all += member.weight;
  const int weight = members[index].weight;
  return tr("Comes %1 in %2 times: %3 %.").arg(weight).arg(all).arg(qRound(100.0 * weight / all));
}

bool HandPreview::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip || !session_) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  QString text = tr("Drop a tile here to put a block together; drag an edge to add columns or rows, or to drop some");
  if (isMix()) text = tr("The wheel, or a number after a double click, changes how often one comes; a right click keeps it off the rim");
  if (const auto member = memberAt(help->pos())) text = shareText(*member) + QLatin1Char('\n') + text;
  if (isStretch()) text = tr("Drag the marks: what is outside them is laid once, what is inside repeats");
  QToolTip::showText(help->globalPos(), text, this);
  return true;
}

bool HandPreview::drop(TileRef tile, QPoint globalAt) {
  const QPointF at = mapFromGlobal(globalAt);
  if (!session_ || !isVisible() || !rect().contains(at.toPoint())) return false;
  const Cell cell(tile, {});
  if (session_->desk().inHand.empty() || isMix()) {
    session_->verbs().hand.gather(Block::of(cell));
    return true;
  }
  // The nearest place in or beside the block.
  InHand hand = session_->desk().inHand;
  const CellRect all = hand.wholeExtent().grown(1);
  SidePos best;
  double bestFar = 1e9;
  for (int v = all.y0; v < all.y1; ++v) {
    for (int u = all.x0; u < all.x1; ++u) {
      const QPointF off = placeRect({u, v}).center() - at;
      const double far = std::hypot(off.x(), off.y());
      if (far >= bestFar) continue;
      bestFar = far;
      best = {u, v};
    }
  }
  std::vector<Block::Part> parts = hand.block.parts();
  parts.push_back({best, cell});
  hand.block = Block(std::move(parts));
  hand.stamp = {};
  if (session_->map()) hand.grid = session_->map()->grid.kind;
  if (hand.manner == Manner::stretch) hand.ends = usualEnds(hand.block);
  session_->verbs().hand.change(std::move(hand));
  return true;
}

}  // namespace uq

#include "app/bench/EdgingBench.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMenu>
#include <QPainter>
#include <QScrollArea>

#include "app/look/Icons.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/table/MaterialStrip.h"
#include "core/edit/ArrangeSheets.h"
#include "core/edit/EdgingCoverage.h"
#include "core/edit/Edgings.h"
#include "raster/MadeShapes.h"
#include "raster/SheetGuess.h"

namespace uq {

namespace {

constexpr QSize kDrawing{30, 30};     // logical pixels
constexpr int kMaterialsWidth = 250;

// What decides, drawn: the places of a cell that have to agree.
QIcon drawingOf(Decides decides, double ratio) {
  const Theme& theme = Theme::current();
  QPixmap pixmap((QSizeF(kDrawing) * ratio).toSize());
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Qt::transparent);
  QPainter painter(&pixmap);
  painter.setRenderHint(QPainter::Antialiasing);
  const QRectF cell(5.5, 5.5, 19, 19);
  painter.setPen(QPen(theme.softInk, 1));
  painter.drawRect(cell);
  painter.setPen(QPen(theme.woad, 4, Qt::SolidLine, Qt::FlatCap));
  painter.setBrush(theme.woad);
  if (decides == Decides::path) {
    painter.drawLine(QPointF(cell.left(), cell.center().y()), cell.center());
    painter.drawLine(cell.center(), QPointF(cell.center().x(), cell.bottom()));
    return QIcon(pixmap);
  }
  if (sidesDecide(decides)) {
    const double a = 5;
    painter.drawLine(QPointF(cell.left() + a, cell.top()), QPointF(cell.right() - a, cell.top()));
    painter.drawLine(QPointF(cell.left() + a, cell.bottom()), QPointF(cell.right() - a, cell.bottom()));
    painter.drawLine(QPointF(cell.left(), cell.top() + a), QPointF(cell.left(), cell.bottom() - a));
    painter.drawLine(QPointF(cell.right(), cell.top() + a), QPointF(cell.right(), cell.bottom() - a));
  }
  if (cornersDecide(decides)) {
    painter.setPen(Qt::NoPen);
    for (const QPointF corner : {cell.topLeft(), cell.topRight(), cell.bottomLeft(), cell.bottomRight()}) painter.drawEllipse(corner, 3.5, 3.5);
  }
  return QIcon(pixmap);
}

}  // namespace

EdgingBench::EdgingBench(QWidget* parent) : Card(parent) {
  setObjectName(QStringLiteral("bench"));
  setAccessibleName(tr("Bench: how these tiles join"));
  makeCard(this);
  name_ = new QLineEdit(this);
  name_->setObjectName(QStringLiteral("edging-name"));
  name_->setAccessibleName(tr("Name of what joins"));
  name_->setMaxLength(250);
  QFont bold = name_->font();
  bold.setBold(true);
  name_->setFont(bold);
  QLayout* head = makeCardHead(this, name_, "bench-close");
  head->setContentsMargins(kGap, 0, kGap, 0);
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    const Edging* edging = now();
    const std::string text = name_->text().trimmed().toStdString();
    if (!edging || text.empty() || text == edging->name) return;
    Edging renamed = *edging;
    renamed.name = text;
    change(tr("Name %1").arg(name_->text().trimmed()), std::move(renamed));
  });
  patch_ = new PatchView(this);
  fan_ = new CandidateFan(this);
  words_ = makeSoftLabel(this);
  words_->setObjectName(QStringLiteral("bench-words"));
  words_->setWordWrap(false);
  words_->setMinimumWidth(0);
  materials_ = new QWidget(this);
  materials_->setObjectName(QStringLiteral("bench-materials"));
  auto* scroll = new QScrollArea(this);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setWidgetResizable(true);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setFixedWidth(kMaterialsWidth);
  hems_ = new HemRows(this);
  connect(hems_, &HemRows::changed, this, [this](const QString& name, const Edging& edging) { change(name, edging); });
  connect(hems_, &HemRows::said, this, &EdgingBench::said);
  auto* list = new QWidget;
  auto* listed = new QVBoxLayout(list);
  listed->setContentsMargins(0, 0, 0, 0);
  listed->setSpacing(kGap);
  listed->addWidget(materials_);
  listed->addWidget(hems_);
  listed->addStretch(1);
  scroll->setWidget(list);
  for (QWidget* one : std::initializer_list<QWidget*>{scroll->viewport(), list, materials_}) one->setAutoFillBackground(false);

  auto* right = new QVBoxLayout;
  right->setSpacing(kGap);
  right->addWidget(buildDecides());
  right->addWidget(scroll, 1);
  auto* left = new QVBoxLayout;
  left->setSpacing(kGap / 2);
  left->addWidget(patch_, 1);
  left->addWidget(words_);
  auto* middle = new QHBoxLayout;
  middle->setContentsMargins(kGap, 0, kGap, 0);
  middle->setSpacing(kGap);
  middle->addLayout(left, 1);
  middle->addLayout(right);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(2, kGap, 2, kGap);
  all->setSpacing(kGap);
  all->addLayout(head);
  all->addLayout(middle, 1);
  all->addLayout(buildFoot());

  connect(patch_, &PatchView::spotPressed, this, &EdgingBench::askAt);
  connect(patch_, &PatchView::pointedAt, this, &EdgingBench::sayOf);
  connect(patch_, &PatchView::paintedOn, this, [this] {
    clean_->setEnabled(patch_->isPaintedOn());
    sayOf(std::nullopt);
  });
  connect(fan_, &CandidateFan::closed, this, [this] {
    patch_->setChosen(std::nullopt);
    patch_->setFocus(Qt::OtherFocusReason);
  });
  connect(fan_, &CandidateFan::pointedAt, words_, &QLabel::setText);
  parent->installEventFilter(this);
  hide();
}

QWidget* EdgingBench::buildDecides() {
  auto* part = new QWidget(this);
  auto* grid = new QGridLayout(part);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setSpacing(2);
  decides_ = new QButtonGroup(this);
  decides_->setExclusive(true);
  const QString words[] = {tr("Sides"), tr("Corners"), tr("Both"), tr("Path")};
  const QString tips[] = {tr("Tiles fit where they show the same along the sides that they share"), tr("Tiles fit where they show the same at the corners that they share"),
                          tr("Tiles fit where sides and corners agree"), tr("A path, one cell wide, that joins only along what is drawn")};
  for (const Decides one : kDecides) {
    const int i = static_cast<int>(one);
    auto* button = makePlainButton((std::string("decides-") + std::string(decidesName(one))).c_str(), part);
    button->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    button->setIconSize(kDrawing);
    button->setText(words[i]);
    button->setToolTip(tips[i]);
    button->setCheckable(true);
    button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    decides_->addButton(button, i);
    grid->addWidget(button, i / 2, i % 2);
  }
  connect(decides_, &QButtonGroup::idClicked, this, [this](int id) {
    const Edging* edging = now();
    if (!edging || edging->decides == kDecides[id]) return;
    Edging other = *edging;
    other.decides = kDecides[id];
    guessAnew(tr("Join by %1").arg(QString::fromUtf8(decidesName(other.decides).data())), other);
  });
  return part;
}

QLayout* EdgingBench::buildFoot() {
  coverage_ = new QLabel(this);
  coverage_->setObjectName(QStringLiteral("bench-coverage"));
  const auto button = [&](const char* object, const QString& text, const QString& tip) {
    auto* one = makePlainButton(object, this);
    one->setText(text);
    one->setToolTip(tip);
    return one;
  };
  turn_ = button("bench-turn", tr("Turn what is there"), tr("Lays tiles mirrored or turned, as their sheet allows, where that gives a shape that is missing"));
  connect(turn_, &QToolButton::clicked, this, [this] {
    const Edging* edging = now();
    if (edging) change(tr("Turn tiles of %1").arg(QString::fromStdString(edging->name)), withTurned(*edging, coverageOf(session_->quilt(), *edging, *makeGrid(shape()))));
  });
  parts_ = button("bench-parts", tr("Cut together"), tr("Makes pictures for shapes that are missing of parts of tiles that are there, on a sheet of their own"));
  connect(parts_, &QToolButton::clicked, this, &EdgingBench::cutTogether);
  standIns_ = button("bench-stand-ins", tr("As it will look"), tr("Shows what is laid where there is no picture"));
  standIns_->setCheckable(true);
  connect(standIns_, &QToolButton::toggled, patch_, &PatchView::setStandIns);
  clean_ = button("bench-clean", tr("Clean the patch"), tr("Takes away what was painted on the test patch"));
  connect(clean_, &QToolButton::clicked, patch_, &PatchView::clean);
  remove_ = button("bench-remove", tr("Join no more"), tr("Takes this away; every map stays as it is"));
  connect(remove_, &QToolButton::clicked, this, [this] {
    const Edging* edging = now();
    if (!edging) return;
    const QString name = tr("Join %1 no more").arg(QString::fromStdString(edging->name));
    hide();
    session_->quiltStep(name, session_->quilt().without<Edging>(edging_));
  });
  auto* foot = new QHBoxLayout;
  foot->setContentsMargins(kGap, 0, kGap, 0);
  auto* sentence = new SentenceLayout({coverage_, turn_, parts_, standIns_, clean_, remove_});
  auto* part = new QWidget(this);
  part->setLayout(sentence);
  foot->addWidget(part, 1);
  return foot;
}

void EdgingBench::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  hide();
  session_ = session;
  if (!session_) {
    patch_->show(nullptr, nullptr, {});
    return;
  }
  connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
    if (isVisible() && (change.any<Edging>() || change.any<Sheet>())) refresh();
  });
}

const Edging* EdgingBench::now() const { return session_ ? session_->quilt().edging(edging_) : nullptr; }

GridShape EdgingBench::shape() const {
  const Edging* edging = now();
  const Sheet* sheet = edging && !edging->members.empty() ? session_->quilt().sheet(edging->members.front().tile.sheet) : nullptr;
  if (!edging || !sheet) return nearestShape(edging ? edging->grid : GridKind::orthogonal, {32, 32});
  return gridOfSheet(session_->quilt(), *sheet, edging->grid);
}

void EdgingBench::open(Id edging) {
  if (!session_ || !session_->quilt().edging(edging)) return;
  edging_ = edging;
  brush_.reset();
  standIns_->setChecked(false);
  coverMap({420, 280});
  show();
  raise();
  refresh();
  patch_->setFocus(Qt::OtherFocusReason);
}

void EdgingBench::refresh() {
  const Edging* edging = now();
  if (!edging) return hide();
  fan_->hide();  // what it offers is of before
  if (!name_->hasFocus()) name_->setText(QString::fromStdString(edging->name));
  for (QAbstractButton* one : decides_->buttons()) one->setIcon(drawingOf(kDecides[decides_->id(one)], devicePixelRatioF()));
  decides_->button(static_cast<int>(edging->decides))->setChecked(true);
  if (brush_ && *brush_ >= static_cast<MaterialIndex>(edging->materials.size())) brush_.reset();
  patch_->show(session_, edging, shape());
  patch_->setBrush(brush_);
  clean_->setEnabled(patch_->isPaintedOn());
  refreshMaterials(*edging);
  hems_->setAlong(brush_.value_or(0));
  hems_->show(*session_, *edging);
  refreshCoverage(*edging);
  sayOf(std::nullopt);
}

void EdgingBench::refreshMaterials(const Edging& edging) {
  const QString made = QString::fromStdString(edging.id.text()) + QString::number(edging.materials.size());
  if (materials_->property("made") != made) makeMaterials(static_cast<int>(edging.materials.size()));
  materials_->setProperty("made", made);
  for (MaterialIndex i = 0; i < static_cast<MaterialIndex>(edging.materials.size()); ++i) {
    const QString called = QString::fromStdString(edging.materials[static_cast<std::size_t>(i)].name);
    auto* swatch = materials_->findChild<QToolButton*>(QStringLiteral("bench-material-%1").arg(i));
    swatch->setIcon(swatchOf(*session_, edging, i, devicePixelRatioF()));
    swatch->setAccessibleName(tr("Paint %1").arg(called));
    swatch->setToolTip(tr("Take %1 into the hand, and paint it on the patch and on maps; press again to point at spots").arg(called));
    materials_->findChild<QLineEdit*>(QStringLiteral("bench-material-name-%1").arg(i))->setText(called);
    materials_->findChild<QToolButton*>(QStringLiteral("bench-material-more-%1").arg(i))->setAccessibleName(tr("More of %1").arg(called));
  }
  showBrush();
}

void EdgingBench::makeMaterials(int count) {
  // Later: one of them may be what is being answered.
  for (QWidget* one : materials_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) {
    one->disconnect(this);
    one->hide();
    one->setParent(nullptr);
    one->deleteLater();
  }
  delete materials_->layout();
  auto* grid = new QGridLayout(materials_);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setSpacing(2);
  grid->setColumnStretch(1, 1);
  for (MaterialIndex i = 0; i < count; ++i) {
    auto* swatch = new QToolButton(materials_);
    swatch->setObjectName(QStringLiteral("bench-material-%1").arg(i));
    swatch->setIconSize({kSwatchSide, kSwatchSide});
    swatch->setCheckable(true);
    connect(swatch, &QToolButton::clicked, this, [this, i](bool on) { takeMaterial(i, on); });
    auto* name = new QLineEdit(materials_);
    name->setObjectName(QStringLiteral("bench-material-name-%1").arg(i));
    name->setAccessibleName(tr("Name of the material"));
    name->setMaxLength(250);
    connect(name, &QLineEdit::editingFinished, this, [this, i, name] { rename(i, name->text().trimmed()); });
    auto* more = new QToolButton(materials_);
    more->setObjectName(QStringLiteral("bench-material-more-%1").arg(i));
    more->setText(QStringLiteral("…"));
    more->setToolTip(tr("It is the same as another, or it is two things"));
    more->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(more);
    menu->setObjectName(QStringLiteral("bench-menu-%1").arg(i));
    connect(menu, &QMenu::aboutToShow, this, [this, menu, i] { fillMenu(menu, i); });
    more->setMenu(menu);
    grid->addWidget(swatch, i, 0);
    grid->addWidget(name, i, 1);
    grid->addWidget(more, i, 2);
  }
  grid->setRowStretch(count, 1);
}

void EdgingBench::fillMenu(QMenu* menu, MaterialIndex material) {
  menu->clear();
  const Edging* edging = now();
  for (MaterialIndex other = 0; edging && other < static_cast<MaterialIndex>(edging->materials.size()); ++other) {
    if (other == material) continue;
    const QString called = QString::fromStdString(edging->materials[static_cast<std::size_t>(other)].name);
    menu->addAction(tr("Is the same as %1").arg(onButton(called)), this, [this, material, other, called] {
      merge(other, material, tr("Take two for %1").arg(called));
    });
  }
  menu->addAction(tr("Is two things"), this, [this, material] {
    const Edging* of = now();
    if (!of) return;
    Edging split = splitMaterial(session_->quilt(), session_->painter().pictures(), *of, shape(), material);
    if (split == *of) Q_EMIT said(tr("It is drawn in one colour only: there are no two things to tell apart."));
    else change(tr("Take it for two things"), std::move(split));
  });
}

void EdgingBench::refreshCoverage(const Edging& edging) {
  const EdgingCoverage coverage = coverageOf(session_->quilt(), edging, *makeGrid(shape()));
  const int missing = static_cast<int>(coverage.missing.size());
  QString text = tr("%1 of %2 shapes are there.").arg(coverage.there()).arg(coverage.needed);
  if (missing > 0) text += tr(" %n picture(s) would have to be drawn.", "", coverage.pictures);
  coverage_->setText(text);
  turn_->setText(coverage.byTurning() > 0 ? tr("Turn what is there (%1)").arg(coverage.byTurning()) : tr("Turn what is there"));
  turn_->setEnabled(coverage.byTurning() > 0);
  parts_->setText(coverage.fromParts() > 0 ? tr("Cut together (%1)").arg(coverage.fromParts()) : tr("Cut together"));
  parts_->setEnabled(coverage.fromParts() > 0);
  standIns_->setEnabled(missing > 0);
}

void EdgingBench::cutTogether() {
  const Edging* edging = now();
  if (!edging) return;
  MadeShapes made = madeShapes(session_->quilt(), session_->painter().pictures(), *edging, *makeGrid(shape()));
  if (made.picture.isNull()) return Q_EMIT said(tr("The pictures of these tiles are not of one size, or are missing: nothing can be cut together."));
  const std::string picture = made.sheet.name + ".png";
  SheetAdded added = addSheet(session_->quilt(), std::move(made.sheet), picture, session_->work().ids());
  if (added.sheet.empty()) return Q_EMIT said(tr("A quilt holds at most 1,022 sheets: take some away that are not used."));
  Edging with = *edging;
  for (EdgingMember& one : made.members) {
    one.tile.sheet = added.sheet;
    with.members.push_back(std::move(one));
  }
  const QString name = tr("Cut shapes of %1 together").arg(QString::fromStdString(with.name));
  session_->painter().pictures().set(*added.quilt.sheet(added.sheet), std::move(made.picture));
  session_->quiltStep(name, withEdging(added.quilt, std::move(with)));
}

void EdgingBench::takeMaterial(MaterialIndex material, bool on) {
  brush_ = on ? std::optional(material) : std::nullopt;
  patch_->setBrush(brush_);
  hems_->setAlong(material);
  const Edging* edging = now();
  if (on && edging) {
    InHand hand = materialInHand(session_->quilt(), *edging, material);
    if (hand.empty()) session_->work().refuse("No tile that is there shows this material");
    else session_->verbs().hand.take(std::move(hand));
  }
  showBrush();
  sayOf(std::nullopt);
}

void EdgingBench::showBrush() {
  for (QToolButton* one : materials_->findChildren<QToolButton*>()) {
    if (one->isCheckable()) one->setChecked(brush_ && one->objectName() == QStringLiteral("bench-material-%1").arg(*brush_));
  }
}

void EdgingBench::sayOf(std::optional<CellPos> cell) {
  const Edging* edging = now();
  const auto spot = cell && edging && patch_->patch() ? patch_->patch()->spotAt(*cell) : std::nullopt;
  if (!spot) {
    words_->setText(brush_ ? tr("Paint on the patch; with Ctrl it is taken away.") : tr("Press on a spot that is wrong to put it right."));
    return;
  }
  const QString wanted = QString::fromStdString(shapeInWords(*edging, spot->wanted));
  if (spot->cost == 0) words_->setText(tr("Here belongs %1.").arg(wanted));
  else if (!spot->member) words_->setText(tr("Here belongs %1; no tile shows anything like it.").arg(wanted));
  else words_->setText(tr("No tile shows %1. In its place lies %2.").arg(wanted, QString::fromStdString(shapeInWords(*edging, shapeOf(*spot->member)))));
}

void EdgingBench::askAt(CellPos cell) {
  const TestPatch* patch = patch_->patch();
  const auto spot = patch ? patch->spotAt(cell) : std::nullopt;
  if (!spot) return;
  patch_->setChosen(cell);
  const QRect at = patch_->cellRect(cell).toRect().translated(patch_->pos());
  fan_->open(*session_, patch->candidates(cell, CandidateFan::kMost), spot->member, at, [edging = patch->edging()](const EdgingMember& one) {
    return QObject::tr("It shows %1").arg(QString::fromStdString(shapeInWords(edging, shapeOf(one))));
  });
  disconnect(fan_, &CandidateFan::taken, this, nullptr);
  connect(fan_, &CandidateFan::taken, this, [this, cell](TileId tile, Turn turn) { tell(cell, tile, turn); });
}

void EdgingBench::tell(CellPos cell, const TileId& tile, Turn turn) {
  const Edging* edging = now();
  const auto spot = patch_->patch() ? patch_->patch()->spotAt(cell) : std::nullopt;
  if (!edging || !spot) return;
  guessAnew(tr("Put right: %1").arg(QString::fromStdString(shapeInWords(*edging, spot->wanted))), toldMember(*edging, tile, turn, spot->wanted));
}

void EdgingBench::guessAnew(const QString& name, const Edging& edging) {
  change(name, guessedAnew(session_->quilt(), session_->painter().pictures(), edging, shape()));
}

void EdgingBench::change(const QString& name, Edging edging) {
  if (const std::string why = whyNoEdging(edging); !why.empty()) {
    Q_EMIT said(QString::fromStdString(why));
    refresh();
    return;
  }
  session_->quiltStep(name, withEdging(session_->quilt(), std::move(edging)));
}

void EdgingBench::merge(MaterialIndex keep, MaterialIndex gone, const QString& name) {
  const Edging* edging = now();
  if (!edging) return;
  const InHand& hand = session_->desk().inHand;
  const bool isHeld = hand.joins() && hand.edging == edging_;
  // What is in hand is counted by its place in the list, which moves up.
  MaterialIndex held = hand.material == gone ? keep : hand.material;
  if (held > gone) --held;
  if (brush_) brush_ = *brush_ == gone ? std::nullopt : std::optional(*brush_ > gone ? *brush_ - 1 : *brush_);
  change(name, mergedMaterials(*edging, keep, gone));
  if (!isHeld || !now()) return;
  InHand again = materialInHand(session_->quilt(), *now(), held);
  if (!again.empty()) session_->verbs().hand.take(std::move(again));
}

void EdgingBench::rename(MaterialIndex material, const QString& name) {
  const Edging* edging = now();
  if (!edging || material >= static_cast<MaterialIndex>(edging->materials.size())) return;
  Edging renamed = *edging;
  std::string& called = renamed.materials[static_cast<std::size_t>(material)].name;
  if (name.isEmpty() || called == name.toStdString()) return;
  called = name.toStdString();
  change(tr("Name %1").arg(name), std::move(renamed));
}

void EdgingBench::keyPressEvent(QKeyEvent* event) {
  if (event->key() != Qt::Key_Escape) return QFrame::keyPressEvent(event);
  if (fan_->isVisible()) fan_->hide();
  else hide();
}

bool EdgingBench::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize && isVisible()) coverMap({420, 280});
  return false;
}

void EdgingBench::hideEvent(QHideEvent*) {
  fan_->hide();
  Q_EMIT closed();
}

}  // namespace uq

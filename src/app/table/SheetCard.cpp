#include "app/table/SheetCard.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollArea>
#include <QScrollBar>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/Icons.h"
#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/table/OddSizesPart.h"
#include "app/table/PiecesPart.h"
#include "app/table/TableView.h"
#include "app/workroom/Session.h"

namespace uq {

namespace {

constexpr int kWidth = 336;  // logical pixels
constexpr std::pair<Footing, const char*> kFootings[] = {
    {Footing::open, "footing-open"}, {Footing::solid, "footing-solid"}, {Footing::overhead, "footing-overhead"}};

}  // namespace

SheetCard::SheetCard(TableView* table, QWidget* parent) : Card(parent), table_(table) {
  setObjectName(QStringLiteral("sheet-card"));
  setAccessibleName(tr("The sheet's cut and facts"));
  makeCard(this);
  setFixedWidth(kWidth);
  name_ = textField("sheet-name", tr("Name of the sheet"), {});
  QFont bold = name_->font();
  bold.setBold(true);
  name_->setFont(bold);
  name_->setMaximumWidth(QWIDGETSIZE_MAX);
  QLayout* head = makeCardHead(this, name_, "sheet-card-close");

  auto* inside = new QWidget(this);
  inside->setMaximumWidth(kWidth - 20);
  inside->setObjectName(QStringLiteral("sheet-card-inside"));
  auto* layout = new QVBoxLayout(inside);
  layout->setContentsMargins(kGap + 2, 0, kGap + 2, kGap);
  layout->setSpacing(kGap + 4);
  for (QWidget* part : {buildCut(), buildPixels(), buildFooting(), buildFacts(), buildTiles(), buildFoot()}) {
    layout->addWidget(part);
  }
  layout->addStretch();
  auto* scroll = new QScrollArea(this);
  scroll->setObjectName(QStringLiteral("sheet-card-scroll"));
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setWidgetResizable(true);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setWidget(inside);
  scroll->viewport()->setAutoFillBackground(false);
  inside->setAutoFillBackground(false);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(2, kGap, 2, 2);
  all->setSpacing(kGap);
  head->setContentsMargins(kGap, 0, kGap, 0);
  all->addLayout(head);
  all->addWidget(scroll, 1);
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    const Sheet* sheet = session_ ? session_->quilt().sheet(sheet_) : nullptr;
    const QString text = name_->text().trimmed();
    if (sheet && !text.isEmpty() && text.toStdString() != sheet->name) session_->sheets().rename(sheet_, text);
  });
  parent->installEventFilter(this);
  hide();
}

NumberField* SheetCard::number(const char* object, const QString& name, int least, int most) {
  auto* field = new NumberField(name, least, most, 0, this);
  field->setObjectName(QLatin1String(object));
  return field;
}

QLineEdit* SheetCard::textField(const char* object, const QString& name, const QString& hint) {
  auto* field = new QLineEdit(this);
  field->setObjectName(QLatin1String(object));
  field->setAccessibleName(name);
  field->setToolTip(name);
  field->setPlaceholderText(hint);
  field->setMaxLength(250);
  field->setMaximumWidth(116);
  return field;
}

QWidget* SheetCard::buildCut() {
  cut_ = new QWidget(this);
  auto* layout = makeSection(cut_);
  chips_ = new QHBoxLayout;
  chips_->setSpacing(kGap / 2);
  reason_ = makeSoftLabel(cut_);
  reason_->setObjectName(QStringLiteral("cut-reason"));
  cellW_ = number("cut-cell-w", tr("Width of a tile, in pixels of the picture"), kSmallestCell, kLargestCell);
  cellH_ = number("cut-cell-h", tr("Height of a tile, in pixels of the picture"), kSmallestCell, kLargestCell);
  border_ = number("cut-border", tr("Border round the picture, in pixels"), 0, kLargestBorder);
  gap_ = number("cut-gap", tr("Gap between tiles, in pixels"), 0, kLargestBorder);
  offsetX_ = number("cut-offset-x", tr("What is left out at the left, in pixels"), 0, kLargestBorder);
  offsetY_ = number("cut-offset-y", tr("What is left out at the top, in pixels"), 0, kLargestBorder);
  for (NumberField* field : {cellW_, cellH_, border_, gap_, offsetX_, offsetY_}) {
    connect(field, &NumberField::valueChanged, this, &SheetCard::useCut);
  }
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  agreement_ = makeSoftLabel(cut_);
  agreement_->setObjectName(QStringLiteral("cut-agreement"));
  mapCell_ = makePlainButton("map-cell", cut_);
  mapCell_->setToolTip(tr("What is painted stays on its cells"));
  connect(mapCell_, &QToolButton::clicked, this,
          [this] { session_->verbs().maps.setCell(session_->quilt().sheet(sheet_)->cut.cell); });
  newMap_ = makePlainButton("map-for-sheet", cut_);
  connect(newMap_, &QToolButton::clicked, this, [this] { Q_EMIT newMapWanted(sheet_); });
  layout->addLayout(chips_);
  layout->addWidget(reason_);
  layout->addLayout(new SentenceLayout({word(tr("Tiles of")), cellW_, word(tr("×")), cellH_,
                                        word(tr("px, a border of")), border_, word(tr("and gaps of")), gap_,
                                        word(tr(", beginning at")), offsetX_, word(tr(",")), offsetY_, word(tr("."))}));
  pieces_ = new PiecesPart(cut_);
  connect(pieces_, &PiecesPart::placeWanted, this, &SheetCard::placeWanted);
  connect(pieces_, &PiecesPart::showsCells, this, &SheetCard::showsCells);
  layout->addWidget(pieces_);
  layout->addWidget(agreement_);
  layout->addLayout(new SentenceLayout({newMap_, mapCell_}));
  return cut_;
}

QWidget* SheetCard::buildPixels() {
  pixels_ = new QWidget(this);
  auto* layout = makeSection(pixels_);
  const auto offer = [&](QToolButton*& button, const char* object, auto change) {
    button = makePlainButton(object, pixels_);
    button->setCheckable(true);
    connect(button, &QToolButton::clicked, this, [this, change](bool on) {
      const Sheet* sheet = session_->quilt().sheet(sheet_);
      if (!sheet) return;
      PixelCare care = sheet->care;
      change(care, on);
      session_->sheets().setCare(sheet_, care);
    });
    layout->addWidget(button, 0, Qt::AlignLeft);
  };
  odd_ = new OddSizesPart(pixels_);
  connect(odd_, &OddSizesPart::chosen, this, [this](OddSizes odd) {
    const Sheet* sheet = session_->quilt().sheet(sheet_);
    if (!sheet) return;
    PixelCare care = sheet->care;
    care.odd = odd;
    session_->sheets().setCare(sheet_, care);
  });
  layout->addWidget(odd_);
  twice_ = makeSoftLabel(pixels_);
  twice_->setObjectName(QStringLiteral("sheet-twice"));
  layout->addWidget(twice_);
  scale_ = new QWidget(pixels_);
  enlarge_ = number("svg-scale", tr("How many times its own size the drawing is made"), 1, kMostShrink);
  auto* sentence = new SentenceLayout(
      {new QLabel(tr("A drawing of lines, made"), scale_), enlarge_, new QLabel(tr("times its own size."), scale_)});
  scale_->setLayout(sentence);
  connect(enlarge_, &NumberField::valueChanged, this, [this](double value) {
    const Sheet* sheet = session_->quilt().sheet(sheet_);
    if (!sheet) return;
    PixelCare care = sheet->care;
    care.enlarge = static_cast<int>(value);
    session_->sheets().setCare(sheet_, care);
  });
  layout->addWidget(scale_);
  offer(shrink_, "offer-shrink",
        [this](PixelCare& care, bool on) { care.shrink = on ? shrink_->property("factor").toInt() : 1; });
  offer(rims_, "offer-rims", [](PixelCare& care, bool on) { care.closesRims = on; });
  offer(seeThrough_, "offer-see-through", [this](PixelCare& care, bool on) {
    care.seeThrough = on ? std::optional(seeThrough_->property("colour").toUInt()) : std::nullopt;
  });
  pick_ = makePlainButton("pick-see-through", pixels_);
  pick_->setText(tr("Pick the see-through colour…"));
  pick_->setToolTip(tr("Then click the colour on the picture"));
  connect(pick_, &QToolButton::clicked, this, [this] {
    Q_EMIT said(tr("Click the colour that is to be see-through on the picture."));
    table_->pickColour(sheet_, [this](std::uint32_t rgb) {
      const Sheet* sheet = session_ ? session_->quilt().sheet(sheet_) : nullptr;
      if (!sheet) return;
      PixelCare care = sheet->care;
      care.seeThrough = rgb;
      session_->sheets().setCare(sheet_, care);
    });
  });
  layout->addWidget(pick_, 0, Qt::AlignLeft);
  return pixels_;
}

QWidget* SheetCard::buildFooting() {
  auto* part = new QWidget(this);
  auto* layout = makeSection(part);
  footingText_ = makeSoftLabel(part);
  footingText_->setObjectName(QStringLiteral("footing-text"));
  auto* row = new QHBoxLayout;
  row->setSpacing(kGap / 2);
  const QString words[] = {tr("Open"), tr("Solid"), tr("Overhead")};
  const QString tips[] = {tr("Somebody walking goes over them"), tr("Somebody walking is stopped"),
                          tr("Somebody walking goes behind them")};
  for (int i = 0; i < 3; ++i) {
    auto* button = makePlainButton(kFootings[i].second, part);
    button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    button->setIcon(icon(QLatin1String(kFootings[i].second), Theme::current().ink));
    button->setIconSize({28, 28});
    button->setText(words[i]);
    button->setToolTip(tips[i]);
    button->setCheckable(true);
    button->setMinimumWidth(86);
    connect(button, &QToolButton::clicked, this, [this, i] { setFooting(kFootings[i].first); });
    footings_.push_back(button);
    row->addWidget(button);
  }
  row->addStretch();
  layout->addWidget(footingText_);
  layout->addLayout(row);
  return part;
}

QWidget* SheetCard::buildFacts() {
  auto* part = new QWidget(this);
  auto* layout = makeSection(part);
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  pile_ = textField("sheet-pile", tr("The theme with which it lies on the Table"), tr("street, inside, quay…"));
  from_ = textField("sheet-from", tr("Where it comes from"), tr("a shop, a friend…"));
  by_ = textField("sheet-by", tr("Who made it"), tr("who made it"));
  licence_ = textField("sheet-licence", tr("On what terms it may be used"), tr("licence"));
  const std::pair<QLineEdit*, std::string SheetOrigin::*> fields[] = {{pile_, &SheetOrigin::pile},
                                                                      {from_, &SheetOrigin::from},
                                                                      {by_, &SheetOrigin::by},
                                                                      {licence_, &SheetOrigin::licence}};
  for (const auto& [field, text] : fields) {
    connect(field, &QLineEdit::editingFinished, this, [this, field = field, text = text] {
      const Sheet* sheet = session_ ? session_->quilt().sheet(sheet_) : nullptr;
      const std::string now = field->text().trimmed().toStdString();
      if (!sheet || sheet->origin.*text == now) return;
      session_->sheets().change(tr("Facts of %1"), sheet_, [&](Sheet& s) { s.origin.*text = now; });
    });
  }
  sell_ = new QComboBox(part);
  sell_->setObjectName(QStringLiteral("sheet-may-sell"));
  sell_->setAccessibleName(tr("Whether it may be sold with a game"));
  sell_->addItems(
      {tr("Whether it may be sold: nobody knows"), tr("May be sold with a game"), tr("May not be sold with a game")});
  connect(sell_, &QComboBox::activated, this, [this](int index) {
    const auto may = index == 0 ? std::optional<bool>() : std::optional(index == 1);
    session_->sheets().change(tr("Facts of %1"), sheet_, [&](Sheet& s) { s.origin.maySell = may; });
  });
  const auto check = [&](QCheckBox*& box, const char* object, const QString& text, auto change) {
    box = new QCheckBox(text, part);
    box->setObjectName(QLatin1String(object));
    connect(box, &QCheckBox::clicked, this, [this, change](bool on) {
      session_->sheets().change(tr("Facts of %1"), sheet_, [&](Sheet& s) { change(s, on); });
    });
  };
  check(turn_, "sheet-may-turn", tr("turned,"), [](Sheet& s, bool on) { s.turns.turn = on; });
  check(mirrorAcross_, "sheet-may-mirror-across", tr("mirrored across,"),
        [](Sheet& s, bool on) { s.turns.mirrorAcross = on; });
  check(mirrorDown_, "sheet-may-mirror-down", tr("mirrored down."), [](Sheet& s, bool on) { s.turns.mirrorDown = on; });
  check(follow_, "sheet-follows", tr("Follow the original"), [](Sheet&, bool) {});
  follow_->disconnect(this);
  connect(follow_, &QCheckBox::clicked, this, [this](bool on) { session_->sheets().followOriginal(sheet_, on); });
  seatX_ = number("sheet-seat-x", tr("Pictures shifted to the right, in pixels"), -kFarthestSeat, kFarthestSeat);
  seatY_ = number("sheet-seat-y", tr("Pictures shifted down, in pixels"), -kFarthestSeat, kFarthestSeat);
  footW_ = number("sheet-foot-w", tr("Cells on which a tile stands, across"), 1, kLargestFootprint);
  footH_ = number("sheet-foot-h", tr("Cells on which a tile stands, back"), 1, kLargestFootprint);
  for (NumberField* field : {seatX_, seatY_, footW_, footH_}) {
    connect(field, &NumberField::valueChanged, this, &SheetCard::setStance);
  }
  layout->addLayout(new SentenceLayout({word(tr("Lies with")), pile_}));
  layout->addLayout(new SentenceLayout(
      {word(tr("From")), from_, word(tr(", by")), by_, word(tr(", under")), licence_, word(tr("."))}));
  layout->addWidget(sell_);
  usualTurns_ = makePlainButton("usual-turns", part);
  usualTurns_->setText(tr("As usual here"));
  usualTurns_->setCheckable(true);
  usualTurns_->setToolTip(tr("Sheets that are brought in from now on may be laid like this one"));
  connect(usualTurns_, &QToolButton::clicked, this, [this] {
    const Sheet* sheet = session_->quilt().sheet(sheet_);
    if (!sheet) return;
    QuiltFacts facts = session_->quilt().facts();
    facts.turns = sheet->turns;
    session_->quiltStep(tr("Usual turns"), session_->quilt().with(std::move(facts)));
    refresh();
  });
  layout->addLayout(new SentenceLayout({word(tr("May be")), turn_, mirrorAcross_, mirrorDown_, usualTurns_}));
  layout->addLayout(new SentenceLayout({word(tr("Stands on")), footW_, word(tr("×")), footH_,
                                        word(tr("cells, shifted")), seatX_, word(tr(",")), seatY_, word(tr("px."))}));
  layout->addWidget(follow_);
  return part;
}

QWidget* SheetCard::buildFoot() {
  auto* part = new QWidget(this);
  auto* row = new QHBoxLayout(part);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(kGap / 2);
  const auto button = [&](const char* object, const char* picture, const QString& text, auto signal) {
    auto* one = makePlainButton(object, part);
    one->setIcon(icon(QLatin1String(picture), Theme::current().ink));
    one->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    one->setText(text);
    connect(one, &QToolButton::clicked, this, signal);
    row->addWidget(one);
  };
  button("tidy-sheet", "tidy", tr("Tidy…"), [this] { Q_EMIT tidyWanted(sheet_); });
  button("export-sheet", "export", tr("Export…"), [this] { Q_EMIT exportWanted(sheet_); });
  button("join-sheet", "stretch", tr("Join these"), [this] { Q_EMIT joinWanted(sheet_); });
  button("remove-sheet", "delete", tr("Take away"), [this] {
    const QString told = usedText();
    session_->sheets().remove(sheet_);
    hide();
    Q_EMIT said(told);
  });
  remove_ = part->findChild<QToolButton*>(QStringLiteral("remove-sheet"));
  remove_->installEventFilter(this);
  row->addStretch();
  return part;
}

void SheetCard::setSession(Session* session) {
  if (session_) {
    session_->disconnect(this);
    session_->sheets().disconnect(this);
  }
  hide();
  session_ = session;
  if (!session_) return;
  connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
    // What was painted with an older cut is counted again only where there was one.
    const Sheet* sheet = session_->quilt().sheet(sheet_);
    const bool counts = sheet && !sheet->places->retired.empty();
    if (counts || change.any<Sheet>() || !change.arranged.empty()) refresh();
  });
  connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
    if (change.map || change.hand || change.beside) refresh();
  });
  connect(session_, &Session::gestureEnded, this, &SheetCard::refresh);
  connect(&session_->sheets(), &SheetWork::notesCame, this, &SheetCard::refresh);
}

void SheetCard::open(Id sheet) {
  if (!session_ || !session_->quilt().sheet(sheet) || sheet == chalk().id) return;
  sheet_ = sheet;
  table_->showCutOf(sheet);
  place();
  show();
  raise();
  refresh();
  findChild<QScrollArea*>()->verticalScrollBar()->setValue(0);
}

void SheetCard::place() {
  // Above the tape, however many rows that has.
  parentWidget()->layout()->activate();
  const auto* tape = parentWidget()->findChild<QWidget*>(QStringLiteral("tape"));
  const int room = (tape ? tape->y() : parentWidget()->height()) - 2 * kGap;
  setGeometry(kGap, kGap, kWidth, std::max(200, room));
}

bool SheetCard::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize && isVisible()) place();
  // Counted when somebody asks, not at every change of a map.
  if (watched == remove_ && event->type() == QEvent::Enter) remove_->setToolTip(usedText());
  return false;
}

void SheetCard::hideEvent(QHideEvent*) {
  table_->showCutOf(std::nullopt);
  Q_EMIT showsCells({});
  Q_EMIT closed();
}

void SheetCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) {
    hide();
  } else {
    QFrame::keyPressEvent(event);
  }
}

std::set<std::uint32_t> SheetCard::chosen() const {
  const std::vector<std::uint32_t> tiles = table_->chosenOn(sheet_);
  return {tiles.begin(), tiles.end()};
}

void SheetCard::useCut() {
  const SheetCut cut{{cellW_->wholeValue(), cellH_->wholeValue()},
                     border_->wholeValue(),
                     gap_->wholeValue(),
                     {offsetX_->wholeValue(), offsetY_->wholeValue()}};
  if (session_->sheets().cut(sheet_, cut)) return;
  const Sheet* sheet = session_->quilt().sheet(sheet_);
  if (sheet) refreshCut(*sheet);
  reason_->setText(tr("So cut, the picture would give no tile or more than 262,144. It stays cut as it was."));
}

void SheetCard::setStance() {
  const Stance stance{{seatX_->wholeValue(), seatY_->wholeValue()}, {footW_->wholeValue(), footH_->wholeValue()}};
  const std::set<std::uint32_t> tiles = chosen();
  if (tiles.empty() || tiles.size() == static_cast<std::size_t>(session_->quilt().sheet(sheet_)->tileCount())) {
    session_->sheets().change(tr("Stand %1 otherwise"), sheet_, [&](Sheet& s) { s.stance = stance; });
  } else {
    session_->sheets().changeTiles(tr("Stand %1 otherwise"), sheet_, tiles,
                                   [&](TileFacts& facts) { facts.stance = stance; });
  }
}

void SheetCard::setFooting(Footing footing) {
  const std::set<std::uint32_t> tiles = chosen();
  if (tiles.empty()) {
    session_->sheets().change(tr("Footing of %1"), sheet_, [&](Sheet& s) { s.footing = footing; });
  } else {
    const Footing plain = session_->quilt().sheet(sheet_)->footing;
    session_->sheets().changeTiles(tr("Footing of %1"), sheet_, tiles, [&](TileFacts& facts) {
      facts.footing = footing == plain ? std::nullopt : std::optional(footing);
    });
  }
  refresh();
}

}  // namespace uq

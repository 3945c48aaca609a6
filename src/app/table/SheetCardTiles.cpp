// What of SheetCard is about the tiles that are chosen on the sheet.
#include "app/table/SheetCard.h"

#include <QAbstractItemView>
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/Icons.h"
#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/table/TableView.h"
#include "app/workroom/Session.h"
#include "core/edit/TileHome.h"

namespace uq {

QWidget* SheetCard::buildTiles() {
  auto* part = new QWidget(this);
  auto* layout = makeSection(part);
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  tilesTitle_ = makeSoftLabel(part);
  tilesTitle_->setObjectName(QStringLiteral("chosen-tiles"));
  tileName_ = textField("tile-name", tr("Name of the chosen tile"), tr("name"));
  tags_ = textField("tile-tags", tr("Tags of the chosen tiles, with commas between them"), tr("tags, with commas"));
  connect(tileName_, &QLineEdit::editingFinished, this, [this] {
    const std::set<std::uint32_t> tiles = chosen();
    if (!tileName_->isModified() || tiles.size() != 1) return;
    tileName_->setModified(false);
    const Sheet* sheet = session_->quilt().sheet(sheet_);
    if (!sheet) return;
    const std::string name = freeTileName(*sheet, *tiles.begin(), tileName_->text().trimmed().toStdString());
    session_->sheets().changeTiles(tr("Name %1"), sheet_, tiles, [&](TileFacts& facts) { facts.name = name; });
  });
  connect(tags_, &QLineEdit::editingFinished, this, [this] {
    if (!tags_->isModified()) return;
    tags_->setModified(false);
    std::vector<std::string> tags;
    for (const QString& one : tags_->text().split(QLatin1Char(','), Qt::SkipEmptyParts)) {
      const std::string tag = one.trimmed().toStdString();
      if (!tag.empty() && std::find(tags.begin(), tags.end(), tag) == tags.end()) tags.push_back(tag);
    }
    session_->sheets().changeTiles(tr("Tag %1"), sheet_, chosen(), [&](TileFacts& facts) { facts.tags = tags; });
  });
  belongs_ = new QComboBox(part);
  belongs_->setObjectName(QStringLiteral("tile-belongs"));
  belongs_->setAccessibleName(tr("The layers for which the chosen tiles are meant"));
  connect(belongs_, &QComboBox::activated, this, [this](int index) {
    const std::string role = belongs_->itemData(index).toString().toStdString();
    session_->sheets().changeTiles(tr("Where %1 belongs"), sheet_, chosen(),
                                   [&](TileFacts& facts) { facts.belongs = role; });
  });
  keep_ = new QCheckBox(tr("keep when tidying"), part);
  keep_->setObjectName(QStringLiteral("tile-keep"));
  connect(keep_, &QCheckBox::clicked, this, [this](bool on) {
    session_->sheets().changeTiles(on ? tr("Keep %1") : tr("Do not keep %1"), sheet_, chosen(),
                                   [&](TileFacts& facts) { facts.keep = on; });
  });
  animate_ = makePlainButton("animate-chosen", part);
  animate_->setText(tr("Animate them"));
  animate_->setIcon(icon(QStringLiteral("frames"), Theme::current().ink));
  animate_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  frameTime_ = number("frame-time", tr("How long each picture is shown, in milliseconds"), 1, kLongestFrame);
  frameTime_->setValue(120);
  connect(animate_, &QToolButton::clicked, this, [this] {
    const std::vector<std::uint32_t> tiles = table_->chosenOn(sheet_);
    const bool stands = !tiles.empty() && session_->quilt().sheet(sheet_)->framesOf(tiles.front());
    session_->sheets().makeFrames(sheet_, tiles.size() == 1 && stands ? std::vector{tiles.front()} : tiles,
                                  frameTime_->wholeValue());
  });
  connect(frameTime_, &NumberField::valueChanged, this, [this](double time) {
    const std::vector<std::uint32_t> tiles = table_->chosenOn(sheet_);
    const Sheet* sheet = session_->quilt().sheet(sheet_);
    if (tiles.empty() || !sheet->framesOf(tiles.front())) return;
    session_->sheets().changeTiles(tr("Animate %1"), sheet_, {tiles.front()}, [&](TileFacts& facts) {
      for (Frame& frame : facts.frames) frame.milliseconds = static_cast<int>(time);
    });
  });
  for (QLineEdit* field : {tileName_, tags_}) field->setMaximumWidth(QWIDGETSIZE_MAX);
  layout->addWidget(tilesTitle_);
  layout->addWidget(tileName_);
  layout->addWidget(tags_);
  layout->addWidget(belongs_);
  layout->addWidget(keep_);
  layout->addLayout(new SentenceLayout({animate_, word(tr("each")), frameTime_, word(tr("ms."))}));
  return part;
}

void SheetCard::refreshBelongs(const Sheet& sheet, const std::vector<std::uint32_t>& tiles) {
  if (belongs_->view()->isVisible()) return;
  const auto slot = session_->quilt().slots().find(sheet.id);
  const std::string& said = sheet.factsOf(tiles.front()).belongs;
  const auto home = slot ? homeOf(session_->quilt(), session_->desk().map, {*slot, tiles.front()}) : std::nullopt;
  belongs_->clear();
  belongs_->addItem(home && !home->isSaid ? tr("Belongs to layers for %1, where it was laid").arg(QString::fromStdString(home->role))
                                          : tr("Belongs where its looks and places say"),
                    QString());
  for (const std::string& role : session_->quilt().facts().roles) {
    if (role == "pins") continue;
    const QString name = QString::fromStdString(role);
    belongs_->addItem(tr("Belongs to layers for %1").arg(name), name);
    if (role == said) belongs_->setCurrentIndex(belongs_->count() - 1);
  }
}

void SheetCard::refreshTiles(const Sheet& sheet) {
  const std::vector<std::uint32_t> tiles = table_->chosenOn(sheet_);
  QWidget* part = tilesTitle_->parentWidget();
  part->setVisible(!tiles.empty());
  // One answer where all agree.
  const Footing footing = tiles.empty() ? sheet.footing : sheet.footingOf(tiles.front());
  const bool agree = std::all_of(tiles.begin(), tiles.end(),
                                 [&](std::uint32_t tile) { return sheet.footingOf(tile) == footing; });
  const QString which = tiles.empty()       ? tr("its tiles")
                        : tiles.size() == 1 ? QString::fromStdString(sheet.tileName(tiles.front()))
                                            : tr("the %n chosen tile(s)", nullptr, static_cast<int>(tiles.size()));
  footingText_->setText(tr("What do %1 do to somebody walking?").arg(which));
  if (tiles.size() == 1) footingText_->setText(tr("What does %1 do to somebody walking?").arg(which));
  for (std::size_t i = 0; i < footings_.size(); ++i) {
    footings_[i]->setChecked(agree && footing == static_cast<Footing>(i));
    footings_[i]->setIcon(icon(footings_[i]->objectName(), Theme::current().ink));
  }
  const auto show = [](NumberField* field, int value) {
    if (!field->hasFocus() || !field->isModified()) field->setValue(value);
  };
  const Stance& stance = tiles.empty() ? sheet.stance : sheet.stanceOf(tiles.front());
  show(seatX_, stance.seat.x);
  show(seatY_, stance.seat.y);
  show(footW_, stance.footprint.w);
  show(footH_, stance.footprint.h);
  if (tiles.empty()) return;
  const TileFacts& facts = sheet.factsOf(tiles.front());
  tilesTitle_->setText(tiles.size() == 1 ? tr("Chosen: %1, number %2").arg(which).arg(tiles.front())
                                         : tr("Chosen: %n tile(s)", nullptr, static_cast<int>(tiles.size())));
  tileName_->setVisible(tiles.size() == 1);
  if (!tileName_->hasFocus()) tileName_->setText(QString::fromStdString(facts.name));
  if (!tags_->hasFocus()) {
    QStringList tags;
    for (const std::string& tag : facts.tags) tags << QString::fromStdString(tag);
    tags_->setText(tags.join(QStringLiteral(", ")));
  }
  refreshBelongs(sheet, tiles);
  keep_->setChecked(
      std::all_of(tiles.begin(), tiles.end(), [&](std::uint32_t tile) { return sheet.factsOf(tile).keep; }));
  const bool animated = !facts.frames.empty();
  animate_->setVisible(tiles.size() > 1 || animated);
  frameTime_->setVisible(tiles.size() > 1 || animated);
  animate_->setText(animated && tiles.size() == 1 ? tr("Stand still") : tr("Animate them"));
  if (animated && (!frameTime_->hasFocus() || !frameTime_->isModified()))
    frameTime_->setValue(facts.frames.front().milliseconds);
}

}  // namespace uq

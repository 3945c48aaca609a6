#include "app/exports/TargetCard.h"

#include <QAction>
#include <QDir>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QMenu>
#include <QMouseEvent>
#include <QVBoxLayout>

#include "app/exports/FormView.h"
#include "app/exports/SamplePicture.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "core/edit/FormLosses.h"
#include "core/edit/Targets.h"

namespace uq {

namespace {

constexpr QSize kSample(TargetCard::kWidth - 2 * kGap - 2, 148);  // logical pixels

std::string object(const char* part, Id target) { return std::string("target-") + part + "-" + target.text(); }

}  // namespace

void begunOwn(Target& target) {
  const auto gallery = FormView::gallery();
  if (gallery.empty()) return;
  target.text = gallery.front().text.toStdString();
  target.ending = '.' + gallery.front().file.section(QLatin1Char('.'), 1, 1).toStdString();
}

QString formTitle(TargetForm form) {
  switch (form) {
    case TargetForm::json: return TargetCard::tr("JSON for a game");
    case TargetForm::csv: return TargetCard::tr("Tables");
    case TargetForm::png: return TargetCard::tr("Pictures");
    case TargetForm::ora: return TargetCard::tr("Layered pictures");
    case TargetForm::svg: return TargetCard::tr("Outlines");
    case TargetForm::sheet: return TargetCard::tr("Packed sheets");
    case TargetForm::links: return TargetCard::tr("Links");
    case TargetForm::own: return TargetCard::tr("A form of your own");
  }
  return {};
}

QString formWords(TargetForm form) {
  switch (form) {
    case TargetForm::json: return TargetCard::tr("All that a game needs: a file for each map, one for the quilt, sheets as PNG");
    case TargetForm::csv: return TargetCard::tr("CSV: a file for each layer, one line a row of cells");
    case TargetForm::png: return TargetCard::tr("PNG: maps as they look in the game");
    case TargetForm::ora: return TargetCard::tr("OpenRaster: maps with their layers, for painting programs");
    case TargetForm::svg: return TargetCard::tr("SVG: the Board, and the cells of each layer as lines");
    case TargetForm::sheet: return TargetCard::tr("PNG and JSON: only tiles that lie on maps, with drawn-on rims");
    case TargetForm::links: return TargetCard::tr("JSON: maps, spots, doorways and seams");
    case TargetForm::own: return TargetCard::tr("Text as you write it, filled in for each map");
  }
  return {};
}

TargetCard::TargetCard(Session* session, Exports* exports, Id target, QWidget* parent) : QFrame(parent), session_(session), exports_(exports), target_(target) {
  setObjectName(QString::fromStdString(object("card", target)));
  makeCard(this);
  setFixedWidth(kWidth);
  name_ = new QLineEdit(this);
  name_->setObjectName(QString::fromStdString(object("name", target)));
  name_->setAccessibleName(tr("Name of the target"));
  name_->setMaxLength(250);
  QFont bold = name_->font();
  bold.setBold(true);
  name_->setFont(bold);
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    const Target* one = now();
    const std::string text = name_->text().trimmed().toStdString();
    if (!one) return;
    const Target* other = targetNamed(session_->quilt(), text);
    if (text.empty() || (other && other->id != target_)) {
      if (other && other->id != target_) Q_EMIT said(tr("Another target is called so."));
      name_->setText(QString::fromStdString(one->name));
      return;
    }
    change(tr("Name %1").arg(name_->text().trimmed()), [&](Target& next) { next.name = text; });
  });
  auto* remove = new QToolButton(this);
  remove->setObjectName(QString::fromStdString(object("remove", target)));
  setInkedIcon(remove, QStringLiteral("close"));
  remove->setAutoRaise(true);
  remove->setAccessibleName(tr("Remove the target"));
  remove->setToolTip(tr("Remove the target; what it has written stays"));
  connect(remove, &QToolButton::clicked, this, [this] {
    if (const Target* one = now()) session_->quiltStep(tr("Remove the target %1").arg(QString::fromStdString(one->name)), session_->quilt().without<Target>(target_));
  });
  form_ = makeSoftLabel(this);
  sample_ = new QLabel(this);
  sample_->setObjectName(QString::fromStdString(object("sample", target)));
  sample_->setFixedHeight(kSample.height());
  sample_->setAccessibleName(tr("The beginning of what comes out"));
  file_ = makeSoftLabel(this);
  file_->setObjectName(QString::fromStdString(object("file", target)));
  file_->setWordWrap(false);
  maps_ = makePlainButton(object("maps", target).c_str(), this);
  maps_->setPopupMode(QToolButton::InstantPopup);
  maps_->setToolTip(tr("Which maps go out"));
  auto* menu = new QMenu(maps_);
  maps_->setMenu(menu);
  connect(menu, &QMenu::aboutToShow, this, &TargetCard::fillMaps);
  folder_ = makePlainButton(object("folder", target).c_str(), this);
  folder_->setToolTip(tr("Choose where it goes. A folder inside the quilt's goes along with it; any other is yours, on this machine"));
  connect(folder_, &QToolButton::clicked, this, &TargetCard::chooseFolder);
  words_ = makeSoftLabel(this);
  words_->setObjectName(QString::fromStdString(object("words", target)));
  write_ = makePlainButton(object("write", target).c_str(), this);
  setInkedIcon(write_, QStringLiteral("export"));
  write_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  write_->setText(tr("Export"));
  write_->setToolTip(tr("Write what has changed now; Ctrl+E does it again"));
  connect(write_, &QToolButton::clicked, this, [this] {
    if (const QString why = exports_->write({target_}); !why.isEmpty()) Q_EMIT said(why + QLatin1Char('.'));
  });

  auto* head = new QHBoxLayout;
  head->addWidget(name_, 1);
  head->addWidget(remove);
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap, kGap, kGap, kGap);
  layout->setSpacing(kGap / 2);
  layout->addLayout(head);
  layout->addWidget(form_);
  layout->addWidget(sample_);
  layout->addWidget(file_);
  if (QLayout* options = buildOptions()) layout->addLayout(options);
  layout->addLayout(new SentenceLayout({maps_, word(tr("into")), folder_}));
  layout->addWidget(words_);
  layout->addStretch(1);
  layout->addWidget(write_, 0, Qt::AlignLeft);
}

const Target* TargetCard::now() const { return session_->quilt().listed<Target>(target_); }

void TargetCard::focusName() {
  name_->setFocus(Qt::OtherFocusReason);
  name_->selectAll();
}

void TargetCard::change(const QString& name, const std::function<void(Target&)>& how) {
  const Target* one = now();
  if (!one) return;
  Target next = *one;
  how(next);
  if (!(next == *one)) session_->quiltStep(name, session_->quilt().with(std::move(next)));
}

QLayout* TargetCard::buildOptions() {
  const Target* target = now();
  made_ = target->form;
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  const auto choice = [this](const char* part, const QString& name, const QStringList& items, std::function<void(int)> take) {
    auto* box = new QComboBox(this);
    box->setObjectName(QString::fromStdString(object(part, target_)));
    box->setAccessibleName(name);
    box->addItems(items);
    connect(box, &QComboBox::activated, this, std::move(take));
    return box;
  };
  const auto number = [this](const char* part, const QString& name, int least, int most, int Target::*field) {
    auto* one = new NumberField(name, least, most, 0, this);
    one->setObjectName(QString::fromStdString(object(part, target_)));
    connect(one, &NumberField::valueChanged, this, [this, name, one, field] { change(name, [&](Target& next) { next.*field = one->wholeValue(); }); });
    return one;
  };
  const auto flag = [this](const char* part, const QString& text, bool Target::*field) {
    auto* button = makePlainButton(object(part, target_).c_str(), this);
    button->setCheckable(true);
    button->setText(text);
    connect(button, &QToolButton::clicked, this, [this, text, field](bool on) { change(text, [&](Target& next) { next.*field = on; }); });
    return button;
  };
  switch (target->form) {
    case TargetForm::json:
      cells_ = choice("cells", tr("How cells are written"), {tr("plain rows"), tr("runs"), tr("packed (Zstandard)")}, [this](int index) {
        static constexpr const char* kNames[] = {"", "runs", "packed"};
        change(tr("How cells are written"), [&](Target& next) { next.cells = kNames[index]; });
      });
      return new SentenceLayout({word(tr("Cells as")), cells_});
    case TargetForm::csv:
      cells_ = choice("cells", tr("How cells are written"), {tr("numbers"), tr("names of tiles")}, [this](int index) { change(tr("How cells are written"), [&](Target& next) { next.cells = index == 1 ? "names" : ""; }); });
      return new SentenceLayout({word(tr("Cells as")), cells_});
    case TargetForm::png:
      of_ = choice("of", tr("What a picture shows"), {tr("each map"), tr("each layer"), tr("each screen")}, [this](int index) { change(tr("What a picture shows"), [&](Target& next) { next.of = static_cast<PictureOf>(index); }); });
      scale_ = number("scale", tr("Times as large"), 1, kLargestTargetScale, &Target::scale);
      hidden_ = flag("hidden", tr("with what the game hides"), &Target::hidden);
      return new SentenceLayout({word(tr("A picture of")), of_, scale_, word(tr("times as large,")), hidden_});
    case TargetForm::sheet:
      columns_ = number("columns", tr("Tiles in a row"), 0, kMostTargetColumns, &Target::columns);
      columns_->setToolTip(tr("0: as square as may be"));
      bleed_ = number("bleed", tr("Pixels by which rims are drawn on"), 0, kMostBleed, &Target::bleed);
      powers_ = flag("powers", tr("sides as powers of two"), &Target::powersOfTwo);
      order_ = choice("order", tr("Order of the tiles"), {tr("by number"), tr("by name"), tr("by use")}, [this](int index) {
        static constexpr const char* kNames[] = {"", "name", "use"};
        change(tr("Order of the tiles"), [&](Target& next) { next.order = kNames[index]; });
      });
      return new SentenceLayout({word(tr("Tiles")), order_, word(tr(",")), columns_, word(tr("in a row, rims drawn on by")), bleed_, word(tr("px,")), powers_});
    case TargetForm::own: {
      auto* form = makePlainButton(object("form", target_).c_str(), this);
      form->setText(tr("Write the form…"));
      form->setToolTip(tr("The text that is filled in, beside what comes of it"));
      connect(form, &QToolButton::clicked, this, [this] { Q_EMIT formWanted(target_); });
      return new SentenceLayout({form});
    }
    default: return nullptr;
  }
}

void TargetCard::fillMaps() {
  QMenu* menu = maps_->menu();
  menu->clear();
  const Target* target = now();
  if (!target) return;
  QAction* all = menu->addAction(tr("All maps, also those that come"));
  all->setCheckable(true);
  all->setChecked(target->maps.empty());
  connect(all, &QAction::triggered, this, [this] { change(tr("All maps go out"), [](Target& next) { next.maps.clear(); }); });
  menu->addSeparator();
  for (const Shared<Map>& map : session_->quilt().maps()) {
    QAction* one = menu->addAction(onButton(QString::fromStdString(map->name)));
    one->setCheckable(true);
    one->setChecked(!target->maps.empty() && std::find(target->maps.begin(), target->maps.end(), map->id) != target->maps.end());
    connect(one, &QAction::triggered, this, [this, id = map->id](bool on) {
      change(tr("Which maps go out"), [&](Target& next) {
        std::erase(next.maps, id);
        if (on) next.maps.push_back(id);
      });
    });
  }
}

void TargetCard::chooseFolder() {
  const Target* target = now();
  if (!target) return;
  QFileDialog dialog(this, tr("Where %1 goes").arg(QString::fromStdString(target->name)));
  dialog.setObjectName(QStringLiteral("target-folder-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setFileMode(QFileDialog::Directory);
  dialog.setOption(QFileDialog::ShowDirsOnly);
  const QString there = exports_->folderOf(*target);
  dialog.setDirectory(QDir(there).exists() ? there : QString::fromStdString(session_->folder()));
  if (dialog.exec() == QDialog::Accepted && !dialog.selectedFiles().isEmpty()) exports_->setFolder(target_, dialog.selectedFiles().front());
}

void TargetCard::refresh(bool looks) {
  const Target* target = now();
  if (!target) return;
  if (!name_->hasFocus()) name_->setText(QString::fromStdString(target->name));
  form_->setText(formWords(target->form));
  if (cells_) cells_->setCurrentIndex(target->cells == "packed" ? 2 : target->cells == "runs" || target->cells == "names" ? 1 : 0);
  if (of_) of_->setCurrentIndex(static_cast<int>(target->of));
  if (scale_) scale_->setValue(target->scale);
  if (hidden_) hidden_->setChecked(target->hidden);
  if (order_) order_->setCurrentIndex(target->order == "name" ? 1 : target->order == "use" ? 2 : 0);
  if (columns_) columns_->setValue(target->columns);
  if (bleed_) bleed_->setValue(target->bleed);
  if (powers_) powers_->setChecked(target->powersOfTwo);
  const auto maps = mapsOf(session_->quilt(), *target);
  maps_->setText(target->maps.empty() ? tr("All maps that changed") : maps.size() == 1 ? onButton(QString::fromStdString(maps.front()->name)) : tr("%n map(s)", nullptr, static_cast<int>(maps.size())));
  const QString folder = target->folder.empty() ? QDir::toNativeSeparators(exports_->folderOf(*target)) : QString::fromStdString(target->folder);
  folder_->setText(folder.isEmpty() ? tr("choose a folder…") : onButton(fontMetrics().elidedText(folder, Qt::ElideLeft, 220)));
  showWords(looks);
  if (looks) showSample();
}

void TargetCard::showWords(bool looks) {
  const Target* target = now();
  QStringList lines;
  if (looks) lost_ = QString::fromStdString(lossesInWords(session_->quilt(), mapsOf(session_->quilt(), *target), target->form));
  if (!lost_.isEmpty()) lines << tr("No place for %1.").arg(lost_);
  for (const ExportFolder::Gone& gone : exports_->nameGone(*target)) {
    const auto map = Id::parse(gone.owner);
    const QString name = QString::fromStdString(gone.name);
    const int files = static_cast<int>(gone.files.size());
    if (files == 0) continue;
    lines << (map && session_->quilt().map(*map) ? tr("%1 goes out no more: the next export takes its %n file(s) away.", nullptr, files).arg(name) : tr("%1 is gone: the next export takes its %n file(s) away.", nullptr, files).arg(name));
  }
  words_->setText(lines.join(QLatin1Char('\n')));
  words_->setVisible(!lines.isEmpty());
}

void TargetCard::showSample() {
  const SamplePicture sample = samplePicture(*session_, *now(), kSample, devicePixelRatioF());
  file_->setText(fontMetrics().elidedText(sample.file, Qt::ElideMiddle, kSample.width()));
  sample_->setPixmap(sample.pixmap);
}

OfferCard::OfferCard(Session* session, TargetForm form, QWidget* parent) : QFrame(parent) {
  setObjectName(QString::fromStdString("export-offer-" + std::string(targetFormName(form))));
  makeCard(this);
  setFixedWidth(TargetCard::kWidth);
  auto* sample = new QLabel(this);
  sample->setFixedHeight(kSample.height());
  Target target = newTarget(session->quilt(), form);
  if (form == TargetForm::own) begunOwn(target);
  sample->setPixmap(samplePicture(*session, target, kSample, devicePixelRatioF()).pixmap);
  auto* words = makeSoftLabel(this);
  words->setText(formWords(form));
  auto* button = makePlainButton((objectName() + QStringLiteral("-button")).toStdString().c_str(), this);
  button->setText(formTitle(form));
  connect(button, &QToolButton::clicked, this, &OfferCard::wanted);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap, kGap, kGap, kGap);
  layout->setSpacing(kGap / 2);
  layout->addWidget(button, 0, Qt::AlignLeft);
  layout->addWidget(words);
  layout->addWidget(sample);
  layout->addStretch(1);
  setCursor(Qt::PointingHandCursor);
}

void OfferCard::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton && rect().contains(event->position().toPoint())) Q_EMIT wanted();
}

}  // namespace uq

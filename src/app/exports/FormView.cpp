#include "app/exports/FormView.h"

#include <QDir>
#include <QFile>
#include <QHBoxLayout>
#include <QTextBlock>
#include <QVBoxLayout>

#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "core/edit/Targets.h"

// Outside of every namespace, as Qt wants it.
static void loadForms() { Q_INIT_RESOURCE(forms); }

namespace uq {

namespace {

constexpr const char* kEscapes[] = {"", "none", "xml", "c"};  // as they are listed
constexpr int kLookedAtAfter = 250;  // milliseconds after the last key

QPlainTextEdit* makeText(const char* object, const QString& name, QWidget* parent) {
  auto* text = new QPlainTextEdit(parent);
  text->setObjectName(QLatin1String(object));
  text->setAccessibleName(name);
  QFont fixed(QStringLiteral("DejaVu Sans Mono"));
  fixed.setStyleHint(QFont::Monospace);
  text->setFont(fixed);
  text->setLineWrapMode(QPlainTextEdit::NoWrap);
  text->setTabChangesFocus(true);
  return text;
}

}  // namespace

std::vector<FormView::Example> FormView::gallery() {
  loadForms();
  std::vector<Example> all;
  const std::pair<const char*, QString> titles[] = {{"level.lua.mustache", tr("Lua table")}, {"level.h.mustache", tr("C array")}, {"level.xml.mustache", tr("XML")}, {"level.ini.mustache", tr("INI")}, {"own.txt.mustache", tr("Your own")}};
  for (const auto& [file, title] : titles) {
    QFile read(QStringLiteral(":/forms/") + QLatin1String(file));
    if (read.open(QIODevice::ReadOnly)) all.push_back({QLatin1String(file), title, QString::fromUtf8(read.readAll())});
  }
  return all;
}

FormView::FormView(Exports* exports, QWidget* parent) : QWidget(parent), exports_(exports) {
  setObjectName(QStringLiteral("form-view"));
  title_ = makeTitle({}, this);
  auto* back = makePlainButton("form-back", this);
  back->setText(tr("Back to the targets"));
  connect(back, &QToolButton::clicked, this, [this] {
    take();
    Q_EMIT left();
  });
  auto* write = makePlainButton("form-write", this);
  setInkedIcon(write, QStringLiteral("export"));
  write->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  write->setText(tr("Export"));
  connect(write, &QToolButton::clicked, this, [this] {
    take();
    if (const QString why = exports_->write({target_}); !why.isEmpty()) Q_EMIT said(why + QLatin1Char('.'));
  });
  text_ = makeText("form-text", tr("The text of the form"), this);
  result_ = makeText("form-result", tr("What comes of it"), this);
  result_->setReadOnly(true);
  const auto field = [this](const char* object, const QString& name, int letters) {
    auto* one = new QLineEdit(this);
    one->setObjectName(QLatin1String(object));
    one->setAccessibleName(name);
    one->setFixedWidth(fontMetrics().averageCharWidth() * letters);
    return one;
  };
  naming_ = field("form-naming", tr("What its files are called"), 26);
  naming_->setMaxLength(250);
  naming_->setPlaceholderText(QStringLiteral("{{file}}"));
  naming_->setToolTip(tr("A text like the form itself: levels/{{id}}. Empty: as the map's folder is called"));
  ending_ = field("form-ending", tr("Their ending"), 9);
  ending_->setMaxLength(20);
  escape_ = new QComboBox(this);
  escape_->setObjectName(QStringLiteral("form-escape"));
  escape_->setAccessibleName(tr("How what is filled in is written"));
  escape_->addItems({tr("as the ending asks"), tr("as it is"), tr("for XML"), tr("as between quotes")});
  escape_->setToolTip(tr("{{name}} is written so; {{{name}}} always as it is"));
  connect(escape_, &QComboBox::activated, this, [this] {
    take();
    look();
  });
  words_ = makeSoftLabel(this);
  words_->setObjectName(QStringLiteral("form-words"));
  words_->setWordWrap(false);
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  auto* begins = new SentenceLayout({word(tr("Begin with"))});
  for (const Example& example : gallery()) {
    auto* button = makePlainButton(("form-begin-" + example.file.section(QLatin1Char('.'), 1, 1).toStdString()).c_str(), this);
    button->setText(example.title);
    button->setToolTip(tr("Put this text in place of what stands there"));
    connect(button, &QToolButton::clicked, this, [this, example] { begin(example); });
    begins->addWidget(button);
  }
  auto* head = new QHBoxLayout;
  head->addWidget(back);
  head->addWidget(title_, 1);
  head->addWidget(write);
  auto* texts = new QHBoxLayout;
  texts->setSpacing(kGap);
  texts->addWidget(text_, 1);
  texts->addWidget(result_, 1);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(kGap);
  layout->addLayout(head);
  layout->addLayout(begins);
  layout->addLayout(texts, 1);
  layout->addLayout(new SentenceLayout({word(tr("Its files are called")), naming_, word(tr("and end with")), ending_, word(tr("; what is filled in stands")), escape_}));
  layout->addWidget(words_);
  soon_.setSingleShot(true);
  soon_.setInterval(kLookedAtAfter);
  connect(&soon_, &QTimer::timeout, this, &FormView::look);
  connect(text_, &QPlainTextEdit::textChanged, &soon_, qOverload<>(&QTimer::start));
  for (QLineEdit* one : {naming_, ending_}) connect(one, &QLineEdit::textEdited, &soon_, qOverload<>(&QTimer::start));
  for (QWidget* one : std::initializer_list<QWidget*>{text_, naming_, ending_}) one->installEventFilter(this);
}

void FormView::setSession(Session* session) {
  session_ = session;
  target_ = {};
}

const Target* FormView::now() const { return session_ ? session_->quilt().listed<Target>(target_) : nullptr; }

void FormView::open(Id id) {
  target_ = id;
  const Target* target = now();
  if (!target) return;
  title_->setText(QString::fromStdString(target->name));
  text_->setPlainText(QString::fromStdString(target->text));
  naming_->setText(QString::fromStdString(target->naming));
  ending_->setText(QString::fromStdString(target->ending));
  escape_->setCurrentIndex(static_cast<int>(std::find(std::begin(kEscapes), std::end(kEscapes), target->escape) - std::begin(kEscapes)) % static_cast<int>(std::size(kEscapes)));
  soon_.stop();
  look();
  text_->setFocus(Qt::OtherFocusReason);
}

void FormView::begin(const Example& example) {
  text_->selectAll();
  text_->insertPlainText(example.text);  // Ctrl+Z brings back what stood there
  text_->moveCursor(QTextCursor::Start);
  ending_->setText(QLatin1Char('.') + example.file.section(QLatin1Char('.'), 1, 1));
  take();
  soon_.stop();
  look();
}

Target FormView::written() const {
  Target next = *now();
  next.text = text_->toPlainText().toStdString();
  next.naming = naming_->text().trimmed().toStdString();
  next.ending = ending_->text().trimmed().toStdString();
  next.escape = kEscapes[std::max(0, escape_->currentIndex())];
  if (!next.ending.empty() && next.ending.front() != '.') next.ending.insert(0, ".");
  return next;
}

void FormView::take() {
  const Target* target = now();
  if (!target) return;
  Target next = written();
  if (next == *target) return;
  if (const std::string why = whyNoTarget(next); !why.empty()) return Q_EMIT said(QString::fromStdString(why) + QLatin1Char('.'));
  session_->quiltStep(tr("Write the form %1").arg(title_->text()), session_->quilt().with(std::move(next)));
}

void FormView::look() {
  if (!now()) return;
  const Target target = written();
  const auto maps = mapsOf(session_->quilt(), target);
  const Map* map = session_->map();
  if (!map || std::find(maps.begin(), maps.end(), map) == maps.end()) map = maps.empty() ? nullptr : maps.front();
  const TargetSample sample = sampleOf(session_->painter(), session_->quilt(), target, map ? map->id : Id(), {});
  if (sample.wrong.empty()) result_->setPlainText(QString::fromStdString(sample.text));
  words_->setText(sample.wrong.empty() ? (sample.isPart ? tr("The beginning of %1, as if the map were its upper left 64 × 64 cells") : tr("The beginning of %1")).arg(QString::fromStdString(sample.file)) : QString::fromStdString(sample.wrong));
  words_->setStyleSheet(sample.wrong.empty() ? QString() : QStringLiteral("color: %1").arg(Theme::current().madder.name()));
  markLine(sample.line);
}

void FormView::markLine(int line) {
  QList<QTextEdit::ExtraSelection> marks;
  if (line > 0) {
    QTextEdit::ExtraSelection mark;
    mark.cursor = QTextCursor(text_->document()->findBlockByNumber(line - 1));
    QColor colour = Theme::current().madder;
    colour.setAlpha(60);
    mark.format.setBackground(colour);
    mark.format.setProperty(QTextFormat::FullWidthSelection, true);
    marks << mark;
  }
  text_->setExtraSelections(marks);
}

bool FormView::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::FocusOut) take();
  return QWidget::eventFilter(watched, event);
}

}  // namespace uq

#include "app/film/FilmView.h"

#include <QDir>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QStyle>
#include <QVBoxLayout>

#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"

namespace uq {

namespace {

constexpr std::size_t kMostStates = 100'000;
constexpr int kUsualSpeed = 8;    // steps a second
constexpr int kFastest = 200;

}  // namespace

FilmScreen::FilmScreen(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("film-screen"));
  setAccessibleName(tr("The map as it was"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  setFocusPolicy(Qt::StrongFocus);
}

void FilmScreen::show(MapPainter* painter, const FilmState* state, Id map, const PixelRect& part) {
  painter_ = painter;
  state_ = state;
  map_ = map;
  part_ = part;
  update();
}

void FilmScreen::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), Theme::current().surround);
  if (!painter_ || !state_ || part_.empty()) return;
  const double ratio = devicePixelRatioF();
  const double fit = std::min({width() * ratio / part_.w, height() * ratio / part_.h, 4.0 * ratio});
  QImage frame = filmFrame(*painter_, *state_, map_, part_, QSize(std::max(1, static_cast<int>(part_.w * fit)), std::max(1, static_cast<int>(part_.h * fit))));
  frame.setDevicePixelRatio(ratio);
  const QSizeF size = QSizeF(frame.size()) / ratio;
  painter.drawImage(QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), frame);
}

FilmView::FilmView(LongWork* work, QWidget* parent) : Card(parent), work_(work) {
  setObjectName(QStringLiteral("film"));
  setAccessibleName(tr("Film: how the map was made"));
  makeCard(this);
  title_ = makeTitle({}, this);
  QLayout* head = makeCardHead(this, title_, "film-close");
  screen_ = new FilmScreen(this);
  words_ = makeSoftLabel(this);
  words_->setObjectName(QStringLiteral("film-words"));
  words_->setWordWrap(false);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap + 2, kGap, kGap + 2, kGap);
  layout->setSpacing(kGap);
  layout->addLayout(head);
  layout->addWidget(screen_, 1);
  layout->addLayout(buildPlaying());
  layout->addWidget(words_);
  layout->addLayout(buildWriting());
  connect(&timer_, &QTimer::timeout, this, [this] {
    if (moment_->value() >= moment_->maximum()) return play(false);
    moment_->setValue(moment_->value() + 1);
  });
  parent->installEventFilter(this);
  hide();
}

QLayout* FilmView::buildPlaying() {
  play_ = makePlainButton("film-play", this);
  setInkedIcon(play_, QStringLiteral("play"));
  play_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  play_->setToolTip(tr("Play, or stop (Space)"));
  connect(play_, &QToolButton::clicked, this, [this] { play(!plays()); });
  moment_ = new QSlider(Qt::Horizontal, this);
  moment_->setObjectName(QStringLiteral("film-moment"));
  moment_->setAccessibleName(tr("Which step is shown"));
  connect(moment_, &QSlider::valueChanged, this, &FilmView::goTo);
  speed_ = new NumberField(tr("Steps a second"), 1, kFastest, 0, this);
  speed_->setObjectName(QStringLiteral("film-speed"));
  speed_->setValue(kUsualSpeed);
  connect(speed_, &NumberField::valueChanged, this, [this] {
    if (plays()) timer_.start(1000 / speed_->wholeValue());
  });
  auto* line = new QHBoxLayout;
  line->setSpacing(kGap);
  line->addWidget(play_);
  line->addWidget(moment_, 1);
  line->addWidget(speed_);
  line->addWidget(new QLabel(tr("steps a second"), this));
  return line;
}

QLayout* FilmView::buildWriting() {
  const auto number = [this](const char* object, const QString& name, int least, int most, int value) {
    auto* field = new NumberField(name, least, most, 0, this);
    field->setObjectName(QLatin1String(object));
    field->setValue(value);
    return field;
  };
  width_ = number("film-width", tr("Width of the film in pixels"), 16, kWidestFilm, 1280);
  seconds_ = number("film-seconds", tr("Length of the film in seconds"), 1, kMostFilmSeconds, 20);
  const auto button = [this](const char* object, const QString& text, bool asFrames) {
    auto* one = makePlainButton(object, this);
    one->setText(text);
    connect(one, &QToolButton::clicked, this, [this, asFrames] { write(asFrames); });
    return one;
  };
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  return new SentenceLayout({word(tr("A film")), width_, word(tr("px wide, of")), seconds_, word(tr("seconds:")), button("film-webp", tr("Write as WebP…"), false), button("film-frames", tr("Write each frame as PNG…"), true)});
}

void FilmView::setSession(Session* session) {
  hide();
  session_ = session;
  states_.clear();
}

void FilmView::open() {
  if (!session_ || !session_->map()) return;
  if (work_->isRunning()) return Q_EMIT said(tr("Something else is under way: try again in a moment."));
  map_ = session_->map()->id;
  title_->setText(tr("How %1 was made").arg(QString::fromStdString(session_->map()->name)));
  work_->start<std::vector<FilmState>>(
      LongWork::Kind::look, tr("Gathering the steps…"),
      [line = session_->undoLine(), quilt = session_->quilt(), map = map_](Progress& progress) { return filmOfMap(filmOf(line, quilt, kMostStates, &progress), map); },
      [this](std::vector<FilmState> states) {
        if (session_ && !work_->isCancelled()) began(std::move(states));
      });
}

void FilmView::began(std::vector<FilmState> states) {
  if (states.size() < 2) return Q_EMIT said(tr("Nothing was done on this map since the quilt was opened: there is nothing to play."));
  states_ = std::move(states);
  painter_ = std::make_unique<MapPainter>(session_->painter().pictures());
  part_ = filmPart(*painter_, states_, map_);
  moment_->setRange(0, static_cast<int>(states_.size()) - 1);
  moment_->setValue(0);
  goTo(0);
  coverMap({420, 320});
  Card::show();
  raise();
  screen_->setFocus(Qt::OtherFocusReason);
  play(true);
}

void FilmView::play(bool on) {
  if (on && moment_->value() == moment_->maximum()) moment_->setValue(0);
  if (on) timer_.start(1000 / speed_->wholeValue());
  else timer_.stop();
  play_->setText(on ? tr("Stop") : tr("Play"));
}

void FilmView::goTo(int state) {
  if (state < 0 || state >= static_cast<int>(states_.size())) return;
  const FilmState& shown = states_[static_cast<std::size_t>(state)];
  words_->setText(state == 0 ? tr("As it was to begin with; %n step(s) follow", nullptr, static_cast<int>(states_.size()) - 1)
                             : tr("Step %1 of %2: %3").arg(state).arg(states_.size() - 1).arg(QString::fromStdString(shown.step)));
  screen_->show(painter_.get(), &shown, map_, part_);
}

void FilmView::write(bool asFrames) {
  const Map* map = session_->quilt().map(map_);
  if (!map || work_->isRunning()) return;
  play(false);
  QFileDialog dialog(this, asFrames ? tr("The folder of the frames") : tr("Write the film"));
  dialog.setObjectName(QStringLiteral("film-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setAcceptMode(QFileDialog::AcceptSave);
  if (!asFrames) {
    dialog.setNameFilter(tr("Animated WebP (*.webp)"));
    dialog.setDefaultSuffix(QStringLiteral("webp"));
  }
  dialog.selectFile(QString::fromStdString(map->folder) + (asFrames ? QStringLiteral("-frames") : QStringLiteral(".webp")));
  if (dialog.exec() != QDialog::Accepted || dialog.selectedFiles().isEmpty() || work_->isRunning()) return;
  const QString path = dialog.selectedFiles().front();
  const FilmPlan plan{map_, width_->wholeValue(), seconds_->wholeValue(), asFrames};
  work_->start<Result<int>>(
      LongWork::Kind::look, tr("Writing the film…"),
      [disk = session_->disk(), states = states_, pictures = session_->painter().pictures(), plan, path = path.toStdString()](Progress& progress) {
        MapPainter painter(pictures);
        return writeFilm(*disk, painter, states, plan, path, &progress);
      },
      [this, path](const Result<int>& written) {
        if (written) return Q_EMIT said(tr("%n picture(s) written into %1.", nullptr, *written).arg(QDir::toNativeSeparators(path)));
        if (written.error().cause != Error::Cause::cancelled) Q_EMIT failed(written.error());
      });
}

void FilmView::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
    case Qt::Key_Escape: hide(); break;
    case Qt::Key_Space: play(!plays()); break;
    case Qt::Key_Left: moment_->setValue(moment_->value() - 1); break;
    case Qt::Key_Right: moment_->setValue(moment_->value() + 1); break;
    case Qt::Key_Home: moment_->setValue(0); break;
    case Qt::Key_End: moment_->setValue(moment_->maximum()); break;
    default: return Card::keyPressEvent(event);
  }
  event->accept();
}

bool FilmView::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize && isVisible()) coverMap({420, 320});
  return Card::eventFilter(watched, event);
}

void FilmView::hideEvent(QHideEvent* event) {
  Card::hideEvent(event);
  if (event->spontaneous()) return;
  play(false);
  screen_->show(nullptr, nullptr, {}, {});
  states_.clear();
  Q_EMIT closed();
}

}  // namespace uq

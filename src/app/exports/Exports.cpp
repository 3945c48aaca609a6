#include "app/exports/Exports.h"

#include <QDir>

#include "app/workroom/Session.h"
#include "core/edit/Targets.h"
#include "core/store/StateFolder.h"

namespace uq {

namespace {

constexpr qsizetype kMostOutput = 200'000;  // letters

// What came of all targets.
struct Sum {
  std::vector<std::string> written;
  std::size_t same = 0;
  std::vector<std::string> removed;
  std::vector<std::string> left;
  std::vector<std::string> lacks;
  std::optional<Error> error;
};

struct Going {
  Target target;
  std::string folder;
  bool takesAway = true;
};

Sum writeAll(Disk& disk, const Quilt& quilt, const SheetPictures& pictures, const std::vector<Going>& going, Progress& progress) {
  Sum sum;
  for (const Going& one : going) {
    MapPainter painter(pictures);
    const auto done = exportTarget(disk, painter, quilt, one.target, {one.folder, true, true, one.takesAway}, &progress);
    if (!done) {
      sum.error = done.error();
      return sum;
    }
    sum.same += done->same.size() + static_cast<std::size_t>(done->passedOver);
    for (const auto& [from, to] : {std::pair(&done->written, &sum.written), std::pair(&done->removed, &sum.removed), std::pair(&done->left, &sum.left), std::pair(&done->lacks, &sum.lacks)}) {
      to->insert(to->end(), from->begin(), from->end());
    }
  }
  return sum;
}

}  // namespace

Exports::Exports(LongWork* work, QObject* parent) : QObject(parent), work_(work) {}
Exports::~Exports() { leaveCommand(); }

void Exports::setSession(Session* session) {
  leaveCommand();
  session_ = session;
  output_.clear();
  named_.clear();
  places_ = session_ ? exportPlaces(*session_->disk(), session_->folder()) : ExportPlaces();
}

QString Exports::folderOf(const Target& target) const {
  const auto folder = session_ ? uq::folderOf(places_, session_->folder(), target) : std::nullopt;
  return folder ? QString::fromStdString(*folder) : QString();
}

void Exports::setFolder(Id id, const QString& folder) {
  const Target* target = session_ ? session_->quilt().listed<Target>(id) : nullptr;
  if (!target || folder.isEmpty()) return;
  const std::string whole = canonicalPath(folder.toStdString());
  const std::string quilt = canonicalPath(session_->folder());
  Target next = *target;
  next.folder = whole.starts_with(quilt + "/") ? whole.substr(quilt.size() + 1) : std::string();
  if (whole == quilt || !whyNoExportFolder(next.folder).empty()) {
    Q_EMIT failed(Error{Error::Cause::notPermitted, whole == quilt ? "the quilt itself lies in this folder" : whyNoExportFolder(next.folder), whole, 0, "The target goes where it went before", "Choose or make a folder for what is exported"});
    return;
  }
  if (next.folder.empty()) places_.folders[id] = whole;
  else places_.folders.erase(id);
  keepPlaces();
  if (!(next == *target)) session_->quiltStep(tr("Where %1 goes").arg(QString::fromStdString(target->name)), session_->quilt().with(std::move(next)));
  Q_EMIT changed();
}

std::vector<ExportFolder::Gone> Exports::nameGone(const Target& target) {
  const QString folder = folderOf(target);
  auto gone = session_ && !folder.isEmpty() ? goneFrom(*session_->disk(), session_->quilt(), target, folder.toStdString()) : std::vector<ExportFolder::Gone>();
  for (const ExportFolder::Gone& one : gone) named_.insert({target.id, one.owner});
  return gone;
}

void Exports::setCommand(const QString& command) {
  if (!session_ || places_.command == command.toStdString()) return;
  places_.command = command.toStdString();
  keepPlaces();
  Q_EMIT changed();
}

void Exports::keepPlaces() {
  if (auto kept = keepExportPlaces(*session_->disk(), session_->folder(), places_); !kept) Q_EMIT failed(kept.error());
}

QString Exports::write(const std::vector<Id>& targets) {
  if (!session_) return tr("There is no quilt");
  if (session_->isComing()) return tr("The quilt is still being read");
  if (work_->isRunning()) return tr("Something else is under way: try again in a moment");
  std::vector<Going> going;
  QString left;
  for (const Id id : targets) {
    const Target* target = session_->quilt().listed<Target>(id);
    if (!target) continue;
    const QString folder = folderOf(*target);
    if (folder.isEmpty()) return tr("Choose where %1 goes first").arg(QString::fromStdString(target->name));
    // A folder of one's own was there when it was chosen: where it is not, a drive may be missing.
    if (target->folder.empty() && !QDir(folder).exists()) return tr("%1 is gone: choose where %2 goes").arg(QDir::toNativeSeparators(folder), QString::fromStdString(target->name));
    const auto gone = goneFrom(*session_->disk(), session_->quilt(), *target, folder.toStdString());
    const auto isUnnamed = std::find_if(gone.begin(), gone.end(), [&](const ExportFolder::Gone& one) { return !named_.contains({id, one.owner}) && !one.files.empty(); });
    going.push_back({*target, folder.toStdString(), isUnnamed == gone.end()});
    if (isUnnamed == gone.end()) continue;
    left = tr(". %1 does not go out any more: the next export takes its files away").arg(QString::fromStdString(isUnnamed->name));
    (void)nameGone(*target);
  }
  if (going.empty()) return tr("No target is set up yet");
  if (places_.last != targets) {
    places_.last = targets;
    keepPlaces();
  }
  const QString where = going.size() == 1 ? QDir::toNativeSeparators(QString::fromStdString(going.front().folder)) : tr("%1 folders").arg(going.size());
  work_->start<Sum>(
      LongWork::Kind::look, going.size() == 1 ? tr("Exporting %1…").arg(QString::fromStdString(going.front().target.name)) : tr("Exporting %1 targets…").arg(going.size()),
      // What a hand has under way is not done yet.
      [disk = session_->disk(), quilt = session_->undoLine().inGesture() ? session_->undoLine().beforeGesture() : session_->quilt(), pictures = session_->painter().pictures(), going](Progress& progress) { return writeAll(*disk, quilt, pictures, going, progress); },
      [this, where, left](const Sum& sum) {
        QString line = sum.written.empty() ? tr("Nothing had changed in %1").arg(where) : tr("%n file(s) written into %1", nullptr, static_cast<int>(sum.written.size())).arg(where);
        if (!sum.removed.empty()) line += tr(", %n removed: %1", nullptr, static_cast<int>(sum.removed.size())).arg(QString::fromStdString(sum.removed.front()));
        line += left;
        if (!sum.left.empty()) line += tr(", %1 left, for somebody changed it").arg(QString::fromStdString(sum.left.front()));
        for (const std::string& lacks : sum.lacks) line += QStringLiteral(". ") + QString::fromStdString(lacks);
        Q_EMIT changed();
        if (!sum.error) return Q_EMIT said(line + QLatin1Char('.'));
        if (sum.error->cause == Error::Cause::cancelled) return Q_EMIT said(tr("Cancelled: what was written by then stays, all else is as it was."));
        Q_EMIT failed(*sum.error);
      });
  Q_EMIT began();
  return {};
}

QString Exports::again() {
  if (!session_) return tr("There is no quilt");
  std::vector<Id> targets;
  for (const Id id : places_.last) {
    if (session_->quilt().listed<Target>(id)) targets.push_back(id);
  }
  if (targets.empty()) {
    for (const Shared<Target>& one : session_->quilt().all<Target>()) targets.push_back(one->id);
  }
  return write(targets);
}

void Exports::afterSaving(const QStringList& maps) {
  if (!session_ || places_.command.empty()) return;
  stopCommand();
  output_.clear();
  command_ = new QProcess(this);
  QProcess* running = command_;
  running->setProcessChannelMode(QProcess::MergedChannels);
  running->setWorkingDirectory(QString::fromStdString(session_->folder()));
  connect(running, &QProcess::readyReadStandardOutput, this, [this, running] {
    output_ = (output_ + QString::fromUtf8(running->readAllStandardOutput())).right(kMostOutput);
    Q_EMIT outputChanged();
  });
  const auto ended = [this, running](const QString& why) {
    if (command_ != running) return;
    command_ = nullptr;
    running->deleteLater();
    if (!why.isEmpty()) {
      output_ += QLatin1Char('\n') + why;
      Q_EMIT commandFailed(why);
    }
    Q_EMIT outputChanged();
  };
  connect(running, &QProcess::finished, this, [ended](int code, QProcess::ExitStatus status) {
    ended(status == QProcess::CrashExit ? tr("It was ended from outside") : code != 0 ? tr("It ended with the code %1").arg(code) : QString());
  });
  connect(running, &QProcess::errorOccurred, this, [ended](QProcess::ProcessError error) {
    if (error == QProcess::FailedToStart) ended(tr("It could not be started"));
  });
  // The line, and after it the maps as single arguments, whatever they are called.
  running->start(QStringLiteral("/bin/sh"), QStringList{QStringLiteral("-c"), QString::fromStdString(places_.command) + QStringLiteral(" \"$@\""), QStringLiteral("urban-quilt")} + maps);
  Q_EMIT outputChanged();
}

void Exports::leaveCommand() {
  if (!command_) return;
  QProcess* running = std::exchange(command_, nullptr);
  running->disconnect(this);
  running->setParent(nullptr);
  connect(running, &QProcess::finished, running, &QObject::deleteLater);
}

void Exports::stopCommand() {
  if (!command_) return;
  QProcess* running = std::exchange(command_, nullptr);
  running->disconnect(this);
  running->kill();
  running->waitForFinished(1000);
  running->deleteLater();
}

}  // namespace uq

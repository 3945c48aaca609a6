// Maps brought in from pictures and tables.
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>

#include "app/workroom/Workroom.h"
#include "core/edit/ArrangeMaps.h"
#include "raster/MapImport.h"

namespace uq {

namespace {

// What somebody wants of pieces that are in no sheet; nothing: no map at all.
std::optional<bool> askForPieces(QWidget* parent, const MapImport& read) {
  QMessageBox question(parent);
  question.setObjectName(QStringLiteral("pieces-question"));
  question.setWindowTitle(Workroom::tr("Pieces that are in no sheet"));
  question.setText(Workroom::tr("In no sheet of this quilt: %n picture(s) of the map.", nullptr, static_cast<int>(read.unknownKinds)));
  question.setInformativeText(Workroom::tr("On %n cell(s) nothing else lies; %1 recognised.", nullptr, static_cast<int>(read.unknown)).arg(read.known));
  auto* make = question.addButton(Workroom::tr("Make a sheet of them"), QMessageBox::AcceptRole);
  auto* leave = question.addButton(Workroom::tr("Leave their cells empty"), QMessageBox::DestructiveRole);
  auto* stay = question.addButton(Workroom::tr("Bring nothing in"), QMessageBox::RejectRole);
  make->setObjectName(QStringLiteral("pieces-make"));
  leave->setObjectName(QStringLiteral("pieces-leave"));
  question.setDefaultButton(make);
  question.setEscapeButton(stay);
  question.exec();
  if (question.clickedButton() == make) return true;
  return question.clickedButton() == leave ? std::optional(false) : std::nullopt;
}

}  // namespace

void Workroom::importMap() {
  QFileDialog dialog(this, tr("A map from a picture, or from tables"));
  dialog.setObjectName(QStringLiteral("import-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setFileMode(QFileDialog::ExistingFiles);
  dialog.setNameFilters({tr("Pictures and tables (*.png *.webp *.bmp *.gif *.csv)"), tr("All files (*)")});
  dialog.setLabelText(QFileDialog::Accept, tr("Make a map"));
  dialog.setDirectory(QFileInfo(QString::fromStdString(session_->folder())).absolutePath());
  if (dialog.exec() != QDialog::Accepted || dialog.selectedFiles().isEmpty()) return;
  importMap(dialog.selectedFiles());
}

void Workroom::importMap(const QStringList& files) {
  MapImportAsk ask;
  for (const QString& file : files) ask.files.push_back(file.toStdString());
  ask.grid = proposedMap(session_->quilt(), session_->map(), nullptr).grid;
  importMap(ask);
}

void Workroom::importMap(const MapImportAsk& ask) {
  if (!session_) return;
  if (work_.isRunning()) return foot_->say(tr("Something else is under way: try again in a moment."));
  const QString file = QFileInfo(QString::fromStdString(ask.files.front())).fileName();
  work_.start<Result<MapImport>>(
      LongWork::Kind::bringIn, tr("Reading %1…").arg(file),
      [disk = disk_, quilt = session_->quilt(), pictures = session_->painter().pictures(), ask](Progress& progress) mutable {
        IdSource ids = IdSource::fromSystem();
        return uq::importMap(*disk, quilt, pictures, ask, ids, &progress);
      },
      [this, ask, base = session_->quilt()](Result<MapImport> read) {
        if (!read) {
          if (read.error().cause != Error::Cause::cancelled) report(read.error());
          return;
        }
        if (read->unknownKinds > 0 && read->sheet.empty()) {
          const auto makes = askForPieces(this, *read);
          if (!makes) return;
          if (*makes) {
            MapImportAsk again = ask;
            again.makesSheet = true;
            // The one that has just ended counts as running yet.
            QMetaObject::invokeMethod(this, [this, again] { importMap(again); }, Qt::QueuedConnection);
            return;
          }
        }
        session_->whenHandsFree([this, read = std::move(*read), base] { takeImported(read, base); });
      });
}

void Workroom::takeImported(const MapImport& read, const Quilt& base) {
  // What was done meanwhile stays; its cells name sheets by slots.
  if (!(session_->quilt().slots() == base.slots())) return foot_->say(tr("Sheets came in meanwhile: bring the map in again."));
  Map map = *read.quilt.map(read.map);
  if (session_->quilt().mapNamed(map.name) || session_->quilt().mapNamed(map.folder)) return foot_->say(tr("A map that is called so came in meanwhile: bring it in again."));
  Quilt after = session_->quilt();
  if (const Sheet* sheet = read.quilt.sheet(read.sheet)) after = after.with(*sheet);
  const QString name = QString::fromStdString(map.name);
  after = after.with(std::move(map));
  session_->quiltStep(tr("Bring in %1").arg(name), std::move(after));
  if (!session_->quilt().map(read.map)) return;
  session_->verbs().maps.goTo(read.map);
  QString line = tr("%1: %n cell(s) recognised", nullptr, static_cast<int>(read.known)).arg(name);
  if (!read.sheet.empty()) line += tr(", %n picture(s) are a sheet of their own now", nullptr, static_cast<int>(read.unknownKinds));
  else if (read.unknown > 0) line += tr(", %n not", nullptr, static_cast<int>(read.unknown));
  if (!read.unknownNames.empty()) line += tr(": %1 is no tile of this quilt").arg(QString::fromStdString(read.unknownNames.front()));
  foot_->say(line + QLatin1Char('.'));
}

}  // namespace uq

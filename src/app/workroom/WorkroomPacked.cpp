// What of Workroom packs a quilt into one file, and opens such a file into a folder.
#include "app/workroom/Workroom.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QLocale>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QUrl>

#include "core/store/PackedQuilt.h"

namespace uq {

namespace {

QString endingOfPacked() { return QString::fromUtf8(kPackedEnding.data(), kPackedEnding.size()); }

// Where the quilt in a folder was packed last, or what it came out of.
QString settingOf(const QString& folder) {
  return QStringLiteral("packed-as/") + QString::fromLatin1(QUrl::toPercentEncoding(folder));
}

QString packedNames() { return QObject::tr("Packed quilts (*%1)").arg(endingOfPacked()); }

}  // namespace

bool Workroom::isPacked(const QString& path) { return path.endsWith(endingOfPacked()) && QFileInfo(path).isFile(); }

bool Workroom::mayReplace(const QString& path) {
  QMessageBox question(this);
  question.setObjectName(QStringLiteral("replace-question"));
  question.setWindowTitle(tr("Replace the file"));
  question.setText(tr("%1 is there already.").arg(QDir::toNativeSeparators(path)));
  auto* replace = question.addButton(tr("Replace it"), QMessageBox::DestructiveRole);
  replace->setObjectName(QStringLiteral("replace"));
  auto* leave = question.addButton(tr("Leave it"), QMessageBox::RejectRole);
  question.setDefaultButton(leave);
  question.setEscapeButton(leave);
  question.exec();
  return question.clickedButton() == replace;
}

void Workroom::pack() {
  (void)session_->work().finish();
  const QString folder = QString::fromStdString(session_->folder());
  if (!session_->store().isWhole()) return report(notWhole(session_->folder()));
  QFileDialog dialog(this, tr("Pack the quilt into one file"));
  dialog.setObjectName(QStringLiteral("pack-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setAcceptMode(QFileDialog::AcceptSave);
  dialog.setNameFilter(packedNames());
  dialog.setDefaultSuffix(endingOfPacked().mid(1));
  dialog.setLabelText(QFileDialog::Accept, tr("Pack"));
  dialog.setOption(QFileDialog::DontConfirmOverwrite);  // of the file of the last time
  // The folder's neighbour; or the file of the last time, to be written again.
  const QString last = QSettings().value(settingOf(folder)).toString();
  const QFileInfo proposed(last.isEmpty() ? folder + endingOfPacked() : last);
  dialog.setDirectory(proposed.absolutePath());
  dialog.selectFile(proposed.fileName());
  if (dialog.exec() != QDialog::Accepted || dialog.selectedFiles().isEmpty() || work_.isRunning()) return;
  const QString path = dialog.selectedFiles().front();
  if (path != last && QFileInfo::exists(path) && !mayReplace(path)) return;
  const QString name = QString::fromStdString(session_->quilt().facts().name);
  work_.start<Result<qint64>>(
      LongWork::Kind::look, tr("Packing %1…").arg(name),
      [disk = disk_, quilt = session_->quilt(), path = path.toStdString()](Progress& progress) -> Result<qint64> {
        const auto bytes = packed(quilt, &progress);
        if (!bytes) return fail(bytes.error());
        if (auto written = writeWhole(*disk, path, *bytes); !written) return fail(written.error());
        return static_cast<qint64>(bytes->size());
      },
      [this, path, folder](Result<qint64> size) {
        if (!size) {
          if (size.error().cause != Error::Cause::cancelled) report(size.error());
          return;
        }
        QSettings().setValue(settingOf(folder), path);
        foot_->say(tr("Packed as %1, %2.").arg(QDir::toNativeSeparators(path), QLocale().formattedDataSize(*size)));
      });
}

void Workroom::choosePacked() {
  leaveThen([this] {
    QFileDialog dialog(this, tr("Open a packed quilt"));
    dialog.setObjectName(QStringLiteral("packed-dialog"));
    dialog.setOption(QFileDialog::DontUseNativeDialog);
    dialog.setFileMode(QFileDialog::ExistingFile);
    dialog.setNameFilter(packedNames());
    if (session_) dialog.setDirectory(QFileInfo(QString::fromStdString(session_->folder())).absolutePath());
    const QString path = dialog.exec() == QDialog::Accepted ? dialog.selectedFiles().value(0) : QString();
    if (path.isEmpty()) {
      givenUp_.reset();
    } else {
      openPacked(path);
    }
  });
}

void Workroom::openPacked(const QString& path) {
  leaveThen([this, path] {
    const QString name = QFileInfo(path).completeBaseName();
    const QString folder = askForFolder(tr("Where shall %1 be unpacked?").arg(name), tr("Unpack"), true, freeFolder(name));
    if (folder.isEmpty()) return givenUp_.reset();
    const auto problems = std::make_shared<Errors>();
    const auto quilt = [disk = disk_, problems, path = path.toStdString()](Progress& progress) -> Result<Quilt> {
      auto read = unpacked(*disk, path, &progress);
      if (!read) return fail(read.error());
      *problems = std::move(read->problems);
      return std::move(read->quilt);
    };
    create(name, quilt, folder, [this, problems, path] {
      QSettings().setValue(settingOf(QString::fromStdString(session_->folder())), path);
      QStringList texts;
      for (const Error& problem : *problems) texts << QString::fromStdString(problem.text());
      if (!texts.isEmpty()) notices_->tell(texts);
      foot_->say(tr("Unpacked into %1.").arg(QDir::toNativeSeparators(QString::fromStdString(session_->folder()))));
    });
  });
}

}  // namespace uq

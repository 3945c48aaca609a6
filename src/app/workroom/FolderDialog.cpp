#include "app/workroom/FolderDialog.h"

#include <QDir>

namespace uq {

FolderDialog::FolderDialog(QWidget* parent, const QString& title, const QString& button, bool toWrite)
    : QFileDialog(parent, title), toWrite_(toWrite) {
  setObjectName(QStringLiteral("folder-dialog"));
  setOption(DontUseNativeDialog);
  setFileMode(toWrite ? AnyFile : Directory);
  setOption(ShowDirsOnly);
  setAcceptMode(toWrite ? AcceptSave : AcceptOpen);
  setLabelText(FileName, tr("Folder:"));
  setLabelText(FileType, tr("Shown:"));
  setNameFilter(tr("Folders (*)"));
  setLabelText(Accept, button);
}

void FolderDialog::accept() {
  const QString chosen = selectedFiles().value(0);
  const bool isEmptyFolder = QFileInfo(chosen).isDir() && QDir(chosen).isEmpty(QDir::AllEntries | QDir::Hidden | QDir::NoDotAndDotDot);
  if (toWrite_ && isEmptyFolder) return QDialog::accept();
  QFileDialog::accept();
}

}  // namespace uq

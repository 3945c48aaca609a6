// FolderDialog: asks for a folder: of a quilt that is there, or one to write a quilt into.
//
// To write into, a new name does, and a folder that is there and empty; choosing one that holds something goes into it.
// Threads: the interface's.
#pragma once

#include <QFileDialog>

namespace uq {

class FolderDialog : public QFileDialog {
  Q_OBJECT

 public:
  FolderDialog(QWidget* parent, const QString& title, const QString& button, bool toWrite);

  void accept() override;

 private:
  bool toWrite_;
};

}  // namespace uq

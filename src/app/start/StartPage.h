// StartPage: what a window shows while no quilt is open — the quilts of the last days with their pictures, a new quilt,
// another folder, a copy of the demo.
#pragma once

#include <QWidget>

#include "app/actions/Actions.h"

class QFrame;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;

namespace uq {

class StartPage : public QWidget {
  Q_OBJECT

 public:
  StartPage(Actions* actions, QWidget* parent);

  // Looks anew which quilts were open last.
  void refresh();
  // Asks for the new quilt's name and folder.
  void askForNewQuilt();

  // Where new quilts lie unless somebody says otherwise.
  static QString quiltsFolder();

 Q_SIGNALS:
  void openWanted(const QString& folder);
  void newQuiltWanted(const QString& name, const QString& folder);
  void demoWanted();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  QFrame* buildAsk();
  void checkAsk();
  void begin();

  Actions* actions_;
  QGridLayout* recents_;
  QLabel* empty_;
  QFrame* ask_;
  QLineEdit* name_;
  QLineEdit* folder_;
  QLabel* refusal_;
  QPushButton* begin_;
  bool folderFollows_ = true;  // nobody typed a folder
};

}  // namespace uq

// StartPage: what a window shows while no quilt is open — the quilts of the last days with their pictures, a new quilt,
// another folder, what one can do, and the demo's maps, any of which opens a copy of the demo.
#pragma once

#include <QTimer>
#include <QWidget>

#include "app/actions/Actions.h"
#include "app/start/StartPictures.h"

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
  void demoWanted(const QString& map);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QFrame* buildAsk();
  QLayout* buildCanDo(QWidget* sheet);
  void showDemoMap(const QString& name, const QImage& picture);
  void checkAsk();
  void begin();

  Actions* actions_;
  QGridLayout* recents_;
  QLabel* empty_;
  QGridLayout* demoMaps_;
  StartPictures* pictures_;
  QTimer drawSoon_;  // not for a page that is gone at once
  QFrame* ask_;
  QLineEdit* name_;
  QLineEdit* folder_;
  QLabel* refusal_;
  QPushButton* begin_;
  bool folderFollows_ = true;  // nobody typed a folder
};

}  // namespace uq

// CameBackStrip: the strip over the map that says what came back after a crash, with both states as pictures: go on with
// it, or look at what was saved.
//
// It lies over the upper edge of what it belongs to, as notices do, and takes no room from it.
#pragma once

#include <QFrame>

#include "app/workroom/Session.h"

class QCheckBox;
class QLabel;
class QPushButton;

namespace uq {

class CameBackStrip : public QFrame {
  Q_OBJECT

 public:
  explicit CameBackStrip(QWidget* parent);

  // Shows what came back, over `below`.
  void open(const Session::Loaded::CameBack& back, QWidget* below);

 Q_SIGNALS:
  void goesOn();
  void savedWanted();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void answer();
  void place();

  QWidget* below_ = nullptr;
  QLabel* words_;
  QLabel* now_;
  QLabel* then_;
  QPushButton* goOn_;
  QPushButton* saved_;
  QCheckBox* byItself_;  // offered where nothing is saved by itself yet
};

}  // namespace uq

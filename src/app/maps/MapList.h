// MapList: all maps of the quilt with their pictures, found by typing; Enter or a click goes to one.
#pragma once

#include <QFrame>

#include "app/workroom/Session.h"

class QLabel;
class QLineEdit;
class QListWidget;
class QListWidgetItem;

namespace uq {

class MapList : public QFrame {
  Q_OBJECT

 public:
  explicit MapList(QWidget* parent);

  // Shows the maps with the list's middle at a place on the screen.
  void open(Session* session, QPoint middle);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void filter();
  void choose();

  Session* session_ = nullptr;
  QLineEdit* field_;
  QListWidget* list_;
  QLabel* none_;
};

}  // namespace uq

// KeysPage: all actions with their keys, and the way to change them.
//
// Enter or a double click on a row waits for the new keys. Keys that another action has are named, and taken when
// pressed once more. Letters are taken by their place on the keyboard, as they act.
#pragma once

#include <QWidget>
#include <optional>

#include "app/actions/KeyBindings.h"

class QCheckBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTreeWidget;
class QTreeWidgetItem;

namespace uq {

class KeysPage : public QWidget {
  Q_OBJECT

 public:
  explicit KeysPage(QWidget* parent);

  void open();
  // Waits for keys for an action.
  void askFor(ActionId id);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void refresh();
  void filter();
  void press(const QKeyEvent& event);
  std::optional<ActionId> current() const;

  QLineEdit* field_;
  QTreeWidget* tree_;
  QLabel* said_;
  QPushButton* change_;
  QPushButton* back_;
  QCheckBox* letters_;
  QCheckBox* exchange_;
  std::optional<ActionId> asking_;
  QKeySequence contested_;  // pressed, and another action's
};

}  // namespace uq

// Tape: the row of tools under the canvas, numbers first, and the options of the active tool at their right.
//
// Each tool shows the options that matter to it on the map that is worked on; what it was set to last stays. The tape is
// always one line high: options that have no room are folded into one button at its end.
#pragma once

#include <QWidget>

#include "app/actions/Actions.h"

class QFrame;
class QLabel;
class QToolButton;

namespace uq {

class NumberField;
class Session;

class Tape : public QWidget {
  Q_OBJECT

 public:
  explicit Tape(Actions* actions, QWidget* parent = nullptr);

  // Shows the options that matter for the tool and the map of a session, which may be nullptr.
  void refresh(Session* session);

  QSize minimumSizeHint() const override;

 Q_SIGNALS:
  void handsFree();  // an option was set by Enter: the keys may go back to the map

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void addLift();
  void addPart(QWidget* part);
  // Whether an option matters now; arrange() shows it.
  void show(QWidget* part, bool matters);
  // Puts the options beside the tools, and folds those that have no room.
  void arrange();
  void unfold();
  QToolButton* addOption(ActionId id, bool withText = false);

  Actions* actions_;
  Session* session_ = nullptr;
  QWidget* tools_;
  QWidget* choices_;
  std::map<ActionId, QWidget*> buttons_;
  QLabel* tool_;
  std::vector<std::pair<int, QToolButton*>> widths_;
  QToolButton* half_;  // a corner of a cell
  std::map<ActionId, QToolButton*> options_;
  QWidget* lifts_;
  NumberField* lift_;
  QLabel* lifted_;
  QLabel* liftUnit_;
  NumberField* width_;
  // All options in their order.
  struct Option {
    QWidget* part;
    bool matters = false;
  };
  std::vector<Option> parts_;
  QFrame* folded_;  // pops up with those that have no room
  QToolButton* more_;
};

}  // namespace uq

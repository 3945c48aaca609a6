// Tape: the row of tools under the canvas, numbers first, and the options of the active tool at their right.
//
// Each tool shows the options that matter to it on the map that is worked on; what it was set to last stays.
#pragma once

#include <QWidget>

#include "app/actions/Actions.h"

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
  // Puts the options beside the tools, or below them where there is no room.
  void arrange();
  QToolButton* addOption(ActionId id, bool withText = false);

  Actions* actions_;
  Session* session_ = nullptr;
  QWidget* tools_;
  QWidget* choices_;
  std::map<ActionId, QWidget*> buttons_;
  QLabel* tool_;
  std::vector<std::pair<int, QToolButton*>> widths_;
  std::map<ActionId, QToolButton*> options_;
  std::vector<QWidget*> lifts_;
  NumberField* lift_;
};

}  // namespace uq

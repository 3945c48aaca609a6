// InHandPanel: what the next stroke lays, in its true orientation, and the four ways to turn it.
#pragma once

#include <QFrame>

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"

class QLabel;

namespace uq {

class OtherSides;

class InHandPanel : public QFrame {
  Q_OBJECT

 public:
  explicit InHandPanel(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session);

  OtherSides* otherSides() const { return sides_; }

  // Draws everything with the theme in force.
  void redraw() { refresh(); }

 private:
  void refresh();
  QString description() const;
  QPixmap preview() const;

  Session* session_ = nullptr;
  QLabel* description_;
  QLabel* preview_;
  OtherSides* sides_;
};

}  // namespace uq

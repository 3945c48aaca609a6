// InHandPanel: what was held last, what the next stroke lays, in its true orientation, the ways to turn it, and the
// manner in which it is laid. Takes no room before anything is in hand.
#pragma once

#include <QFrame>

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"

class QCheckBox;
class QLabel;
class QPushButton;
class QToolButton;

namespace uq {

class HandPreview;
class HeldStrip;
class NumberField;
class OtherSides;

class InHandPanel : public QFrame {
  Q_OBJECT

 public:
  explicit InHandPanel(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session);

  QSize minimumSizeHint() const override;

  HandPreview* preview() const { return preview_; }
  // A tile of the Table let go at a point of the screen; false where nothing here takes it.
  bool drop(TileRef tile, QPoint globalAt);

  // Draws everything with the theme in force.
  void redraw() { refresh(); }

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  void refresh();
  QString description() const;
  void showDescription();

  Session* session_ = nullptr;
  QLabel* description_;
  HeldStrip* held_;
  HandPreview* preview_;
  QToolButton* chance_ = nullptr;
  std::vector<std::pair<Manner, QToolButton*>> manners_;
  QToolButton* joins_;
  QCheckBox* rule_;
  QPushButton* empty_;
  QLabel* stepText_;
  NumberField* step_;
  NumberField* stepDown_;
  OtherSides* sides_;
};

}  // namespace uq

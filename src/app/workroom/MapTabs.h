// MapTabs: a tab for each map of the quilt, the active one with stitches under it, a dot where it is not saved.
#pragma once

#include <QWidget>
#include <vector>

#include "app/workroom/Session.h"

class QHBoxLayout;
class QToolButton;

namespace uq {

class MapTabs : public QWidget {
  Q_OBJECT

 public:
  explicit MapTabs(QWidget* parent = nullptr);

  void setSession(Session* session);
  QToolButton* undoButton() const { return undo_; }

 Q_SIGNALS:
  void undoPressed();

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  void refresh();

  Session* session_ = nullptr;
  QHBoxLayout* layout_;
  std::vector<QToolButton*> tabs_;
  QToolButton* undo_;
};

}  // namespace uq

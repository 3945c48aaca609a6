// LevelCard: the head of a level in the Stack — its name, by how much it rises, and a "+" that adds the next level.
#pragma once

#include <QFrame>

#include "core/document/Map.h"

class QToolButton;

namespace uq {

class NameField;

class LevelCard : public QFrame {
  Q_OBJECT

 public:
  LevelCard(Id level, QWidget* parent);

  Id level() const { return level_; }
  void present(const LayerFolder& level, bool active);
  // Opens a field over the name.
  void rename();

 Q_SIGNALS:
  void chosen(uq::Id level);
  void nextPressed(uq::Id level);
  void renamed(uq::Id level, const QString& name);
  void nameClosed();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  Id level_;
  QString name_;
  int rise_ = 0;
  bool active_ = false;
  QToolButton* next_;
  NameField* field_ = nullptr;
};

}  // namespace uq

// FolderCard: the head of a folder in the Stack — whether its cards are folded up, its name, an eye for all of it, and of
// a level by how much it rises and a "+" that adds the next one. It is dragged with all that is in it.
#pragma once

#include <QFrame>

#include "core/document/Map.h"

class QToolButton;

namespace uq {

class NameField;

class FolderCard : public QFrame {
  Q_OBJECT

 public:
  // `depth` is how many folders are around it.
  FolderCard(Id folder, int depth, QWidget* parent);

  Id folder() const { return folder_; }
  int depth() const { return depth_; }
  struct Shown {
    int layers = 0;  // that are in it
    bool active = false;
    bool foldedUp = false;
    bool hidden = false;  // the eyes of all in it are shut
  };
  void present(const LayerFolder& folder, const Shown& shown);
  // Shows that what is dragged would come to lie in it.
  void offerItself(bool offers);
  // Opens a field over the name.
  void rename();

 Q_SIGNALS:
  void chosen(uq::Id folder);
  void foldPressed(uq::Id folder);
  void eyePressed(uq::Id folder);
  void nextPressed(uq::Id folder);
  void renamed(uq::Id folder, const QString& name);
  void nameClosed();
  // It is dragged: the pointer's place in the parent; and let go there.
  void dragged(uq::Id folder, QPoint at);
  void dropped(uq::Id folder, QPoint at);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QToolButton* makeButton(const char* name);
  int textLeft() const;

  Id folder_;
  int depth_;
  QString name_;
  QString what_;  // how far it rises, or how many layers it holds
  Shown shown_;
  bool offers_ = false;
  QPoint pressedAt_;
  bool drags_ = false;
  QToolButton* fold_;
  QToolButton* eye_;
  QToolButton* next_;
  NameField* field_ = nullptr;
};

}  // namespace uq

// KeyLabels: what is printed on the keys of the main block, so that menus name the key that a hand will find.
//
// Our keys are bound by place. On an X11 display the labels come from the keyboard's map (xkbcommon); elsewhere each is
// learnt when its key is first pressed, and counts as on a US keyboard until then.
#pragma once

#include <QKeySequence>
#include <QObject>
#include <map>

namespace uq {

class KeyLabels : public QObject {
  Q_OBJECT

 public:
  // The program's one table of labels; asks the display when first used.
  static KeyLabels& shared();

  // Keys by place, spelt with the labels of this keyboard: "Ctrl+Shift+Z".
  QString text(const QKeySequence& keys) const;
  // What the key at a letter's place is labelled: 'A' for Q's place on a French keyboard.
  QString labelOf(Qt::Key place) const;
  // Asks the display anew.
  void readKeyboard();

 Q_SIGNALS:
  void changed();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  KeyLabels();
  std::map<int, QString> labels_;  // by Qt::Key of the place; only those that differ
};

}  // namespace uq

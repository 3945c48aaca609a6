// PaneKeys: going through the workroom by keyboard alone, from pane to pane: map, tape, Table, what is in hand, Stack,
// sentences, overview, tabs, and round again.
//
// A pane is entered where one left it, else at its first control that can be reached; folded and empty panes are passed
// over. The interface's thread.
#pragma once

#include <QPointer>
#include <QWidget>
#include <vector>

namespace uq {

class PaneKeys {
 public:
  // Panes in their order. `entry`: what gets the keyboard, instead of the first control; may be nullptr.
  void add(QWidget* pane, QWidget* entry = nullptr);
  // From where the keyboard is now to the next pane, or to the one before; false where there is none.
  bool go(bool next);

 private:
  struct Pane {
    QWidget* widget;
    QWidget* entry;
    QPointer<QWidget> left;  // what had the keyboard last
  };
  QWidget* wayIn(const Pane& pane) const;

  std::vector<Pane> panes_;
};

}  // namespace uq

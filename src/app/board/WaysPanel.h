// WaysPanel: what stands right of the cloth: the ways of the pieces that are chosen as sentences, else all, and what hangs
// loose there.
//
// A press on a sentence shows its cord on the Board, a second one goes to the door; likewise for a loose thread. The list
// of what hangs loose keeps its rows until other pieces are chosen. Threads: the interface's.
#pragma once

#include <QFrame>

#include "app/board/BoardView.h"
#include "app/workroom/ThreadListing.h"

class QLabel;
class QPushButton;

namespace uq {

class SentenceList;
class ThreadRound;

class WaysPanel : public QFrame {
  Q_OBJECT

 public:
  WaysPanel(BoardView* board, ThreadRound* round, QWidget* parent);

  void setSession(Session* session);  // nullptr: there is none

 Q_SIGNALS:
  void doorWanted(uq::PinAt pin);  // is to be shown on its map
  void threadWanted(const uq::LooseThread& thread);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void refresh();
  void fillWays();
  void fillThreads(bool anew);
  void refreshMend();
  const LooseThread* thread() const;

  BoardView* board_;
  ThreadRound* round_;
  Session* session_ = nullptr;
  QLabel* waysTitle_;
  SentenceList* waysList_;
  QLabel* noWays_;
  QLabel* threadsTitle_;
  SentenceList* threadsList_;
  QLabel* noThreads_;
  QPushButton* mend_;
  std::vector<Id> ways_;  // doorways, as listed
  ThreadListing threads_;
};

}  // namespace uq

// ThreadsCard: the list of all loose threads of the quilt, each a sentence with its place and the press that mends it.
//
// It lies at the lower right and stays while one works; a row leads to its place. What was mended meanwhile is struck through
// (ThreadListing).
#pragma once

#include "app/look/Card.h"
#include "app/workroom/ThreadListing.h"
#include "app/workroom/ThreadRound.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace uq {

class ThreadsCard : public Card {
  Q_OBJECT

 public:
  ThreadsCard(ThreadRound* round, QWidget* parent);

  // Opens it, or closes it where it is open.
  void open(Session* session);

 Q_SIGNALS:
  // A thread's place is to be shown: its map, and the cell where there is one.
  void chosen(const uq::LooseThread& thread);
  void closed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void refresh(bool anew);
  void fill();
  void refreshRow();
  void close();
  void moveToCorner();
  const LooseThread* current() const;

  ThreadRound* round_;
  Session* session_ = nullptr;
  QLabel* title_;
  QComboBox* maps_;
  QComboBox* kinds_;
  QListWidget* list_;
  QLabel* none_;
  QPushButton* mend_;
  QPushButton* silence_;
  QLineEdit* reason_;
  ThreadListing listing_;
  std::vector<std::size_t> rows_;  // of the listing, those that the filters let through
};

}  // namespace uq

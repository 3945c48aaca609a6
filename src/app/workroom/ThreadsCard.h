// ThreadsCard: the list of all loose threads of the quilt, each a sentence with its place and the press that mends it.
//
// It lies at the lower right and stays while one works; a row leads to its place. Rows stay where they are while the list is
// open: what was mended meanwhile is struck through, so that no press meets another row than the one that was seen.
#pragma once

#include <QSet>

#include "app/look/Card.h"
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
  bool isLoose(const LooseThread& thread) const { return loose_.contains(keyOf(thread)); }
  static QString keyOf(const LooseThread& thread);
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
  std::vector<LooseThread> listed_;
  QSet<QString> known_;  // keys of those
  QSet<QString> loose_;  // and of what hangs loose now
  std::vector<std::size_t> rows_;  // of listed_, those that the filters let through
};

}  // namespace uq

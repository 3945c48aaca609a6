// SentenceList: a list of sentences, each on up to three lines, of which there may be very many.
//
// A row's words are asked for when it is drawn, so that twenty thousand cost no more than those in sight. All rows are as
// high as one another; what does not fit ends in dots and is told whole by the tip. Threads: the interface's.
#pragma once

#include <QListView>
#include <functional>

namespace uq {

class SentenceList : public QListView {
  Q_OBJECT

 public:
  struct Rows {
    int count = 0;
    std::function<QString(int)> words;
    std::function<bool(int)> isDone;  // shown struck through; may be left out
  };

  explicit SentenceList(QWidget* parent);

  // What the functions use must live until others are shown. The same row stays the current one where there is one still.
  void show(Rows rows);
  // The current one; -1: none.
  int row() const { return currentIndex().row(); }
  int count() const { return model()->rowCount(); }
  QString words(int row) const;

 Q_SIGNALS:
  void rowChosen(int row);  // pressed, or come to by the keys
  void rowOpened(int row);  // pressed twice, or Enter
  void handsFree();         // Esc

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
};

}  // namespace uq

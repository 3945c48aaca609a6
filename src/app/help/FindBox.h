// FindBox (F1): one field that finds help pages and actions alike, by their titles and by other words for them. Enter
// runs an action; a page is read beside the list.
#pragma once

#include <QFrame>
#include <optional>
#include <vector>

#include "app/actions/Actions.h"

class QLabel;
class QLineEdit;
class QListWidget;

namespace uq {

class FindBox : public QFrame {
  Q_OBJECT

 public:
  FindBox(Actions* actions, QWidget* parent);

  // Shows the box with its upper middle at a place on the screen. `about` is what was refused just now, whose page then
  // comes first; may be empty.
  void open(QPoint middle, const QString& about);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  // What can be found.
  struct Entry {
    QString title;
    QString words;  // other words for it
    QString text;   // rich
    std::optional<ActionId> action;
    // The words of these three, in lower case, worked out once for all that is typed.
    QStringList titleWords{}, otherWords{}, textWords{};
  };
  // How well a word is found: 4 as the beginning of the title, 3 inside it, 2 among the other words, 1 in the text.
  static int found(const QString& word, const Entry& entry);

  void buildEntries();
  void filter(const QString& wanted);
  void showText();
  void choose();

  Actions* actions_;
  std::vector<Entry> entries_;
  QLineEdit* field_;
  QListWidget* list_;
  QLabel* text_;
};

}  // namespace uq

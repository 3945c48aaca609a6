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
    QString words;  // in lower case, with the text
    QString text;   // rich
    std::optional<ActionId> action;
  };

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

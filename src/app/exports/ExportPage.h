// ExportPage: all targets of the quilt as cards, the forms that a new one can have, and the command that is run after saving.
//
// It lies over the map. One press on a form makes a target that can go out at once. Esc goes back from a form of one's own to the
// cards, and from these to the map. Threads: the interface's.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QScrollArea>
#include <QStackedWidget>
#include <QToolButton>

#include "app/exports/FormView.h"
#include "app/exports/TargetCard.h"
#include "app/look/Card.h"

namespace uq {

// Cards of one width side by side, row by row; each row as high as its highest card, so that a card never moves because another one in
// its row says more.
class CardRows : public QWidget {
  Q_OBJECT

 public:
  using QWidget::QWidget;
  void setCards(std::vector<QWidget*> cards);
  // After what a card says has changed.
  void arrange();

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  std::vector<QWidget*> cards_;
};

class ExportPage : public Card {
  Q_OBJECT

 public:
  // Lies over all of `parent` above the tape.
  ExportPage(Exports* exports, QWidget* parent);

  void setSession(Session* session);  // nullptr: there is none
  void open();
  FormView* form() const { return form_; }

 Q_SIGNALS:
  void closed();
  void said(const QString& text);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;
  void changeEvent(QEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QWidget* buildForms();
  QWidget* buildFoot();
  void refresh(bool looks);
  TargetCard* newCard(Id target);
  void refreshCommand();
  void add(TargetForm form);
  void showForm(Id target);
  void showCards();

  Session* session_ = nullptr;
  Exports* exports_;
  QStackedWidget* pages_;
  CardRows* list_;
  QScrollArea* scroll_;
  QWidget* forms_;
  std::vector<TargetCard*> cards_;  // as the quilt lists them
  std::vector<OfferCard*> offers_;  // while there is none
  FormView* form_;
  QLineEdit* command_;
  QPlainTextEdit* output_;
  QToolButton* stop_;
  QToolButton* all_;
};

}  // namespace uq

// RolesCard: what layers of the quilt may be for — the roles in the order in which they are offered, dragged to another
// place, renamed by a double click or F2, dropped with Del where no layer has them.
#pragma once

#include "app/look/Card.h"
#include "app/workroom/Session.h"

class QLabel;
class QListWidget;

namespace uq {

class RolesCard : public Card {
  Q_OBJECT

 public:
  explicit RolesCard(QWidget* parent);

  void setSession(Session* session);
  void open();

 Q_SIGNALS:
  void closed();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void refresh();
  void takeOrder();
  void rename(const QString& role, const QString& name);
  void drop(int row);

  Session* session_ = nullptr;
  QListWidget* list_;
  QLabel* told_;
};

}  // namespace uq

// LayerSentences: what is known of the active layer, as sentences whose words and numbers can be changed in place.
#pragma once

#include <QFrame>

#include "app/workroom/Session.h"

class QComboBox;
class QLabel;
class QLineEdit;

namespace uq {

class NumberField;

class LayerSentences : public QFrame {
  Q_OBJECT

 public:
  explicit LayerSentences(QWidget* parent);

  void setSession(Session* session) { session_ = session; }
  // Shows the active layer of the session; hides where there is none.
  void refresh();
  // The sentences that only tell.
  QString told() const;

 Q_SIGNALS:
  void handsFree();  // something was changed by mouse or Enter: the keys may go back to the map

 private:
  void buildRoles(const std::string& role);

  Session* session_ = nullptr;
  LayerAt shown_;
  QLabel* title_;
  QComboBox* role_;
  NumberField* offsetX_;
  NumberField* offsetY_;
  NumberField* opacity_;
  QLabel* levelName_;
  NumberField* rise_;
  QLabel* risePx_;
  QComboBox* order_;
  QLabel* orderEnd_;
  QLabel* told_;
  QLineEdit* note_;
};

}  // namespace uq

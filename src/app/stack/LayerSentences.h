// LayerSentences: what is known of the active layer, as sentences whose words and numbers can be changed in place. What
// is changed is changed for all chosen layers.
#pragma once

#include <QFrame>

#include "app/workroom/Session.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;

namespace uq {

class ColourField;
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

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  bool tries_ = false;  // a list is open, and what is pointed at there is shown
  void buildRoles(const std::string& role);

  Session* session_ = nullptr;
  LayerAt shown_;
  QLabel* title_;
  QComboBox* role_;
  // Makes what the session changes of the chosen layers out of a value.
  template <class Edit>
  void change(const QString& what, Edit&& edit);
  template <class Value>
  QComboBox* makeChoice(const char* object, const QString& name, const QString& what, const QStringList& texts,
                        const std::vector<Value>& values,
                        const std::function<Quilt(const Quilt&, LayerAt, Value)>& edit);

  NumberField* place_;  // from the farthest, 1 on
  NumberField* acrossShare_;
  NumberField* downShare_;
  NumberField* offsetX_;
  NumberField* offsetY_;
  NumberField* opacity_;
  QComboBox* blend_;
  ColourField* tint_;
  QCheckBox* inGame_;
  QWidget* hung_;  // the sentence of a backdrop
  QComboBox* repeats_;
  QComboBox* fit_;
  NumberField* shownAt_;
  QLabel* levelName_;
  NumberField* rise_;
  QLabel* risePx_;
  QComboBox* order_;
  QLabel* orderEnd_;
  QLabel* told_;
  QLineEdit* note_;
};

}  // namespace uq

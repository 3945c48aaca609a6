// PinSentences: what is known of the chosen pin, as sentences whose words can be changed in place: its name, where it leads,
// which way one faces there, the way back, what it needs, and whether the player begins here.
#pragma once

#include <QFrame>

#include "app/workroom/Session.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QStringListModel;

namespace uq {

class PinSentences : public QFrame {
  Q_OBJECT

 public:
  explicit PinSentences(QWidget* parent);

  void setSession(Session* session) { session_ = session; }
  // Shows the pin that is chosen with the tool Pins; false, and hidden, where there is none.
  bool refresh();

 Q_SIGNALS:
  void leadWanted();  // a way from the pin is to be made
  void handsFree();  // something was changed: the keys may go back to the map

 private:
  const Doorway* doorway() const;  // the first that leads from the pin, else one that leads there
  // Changes the doorway that is shown.
  template <class Change>
  void change(Change&& what);
  void fillHeadings(QComboBox* box, Id map, Heading now);
  void fillTargets();
  void showLooks(const Doorway& doorway);
  void fillPlaces(const Pin& pin);

  Session* session_ = nullptr;
  PinAt shown_;
  QLabel* title_;
  QLineEdit* name_;
  QComboBox* lies_;
  QPushButton* lead_;
  QWidget* way_;  // what is said of the doorway
  QComboBox* target_;
  QComboBox* facing_;
  QCheckBox* back_;
  QComboBox* facingBack_;
  QCheckBox* meant_;
  QLineEdit* needs_;
  QStringListModel* known_;  // what doorways of the quilt need
  QPushButton* looks_;  // the tile that the doorway is shown as
  QLineEdit* sound_;
  QLineEdit* note_;
  QPushButton* through_;
  QPushButton* out_;
  QLabel* others_;
  QPushButton* begins_;
  std::vector<PinAt> targets_;
};

}  // namespace uq

// KeyBindings: which keys stand for which action, as the user wants it; for all windows of the program.
//
// Begins with the keys of the action table, and keeps what differs in the settings. Three more wishes belong to it:
// whether single letters act at all (for people who press keys by accident), and whether the right button and Ctrl+left
// change their roles.
#pragma once

#include <QKeySequence>
#include <QObject>
#include <map>
#include <optional>

#include "app/actions/ActionTable.h"

namespace uq {

class KeyBindings : public QObject {
  Q_OBJECT

 public:
  // The program's one table of keys.
  static KeyBindings& shared();

  // Empty where the action has none. A key that is switched off is still its key.
  QKeySequence keys(ActionId id) const;
  // For people: the keys in their own spelling.
  QString text(ActionId id) const;
  // The other action that these keys stand for where both act; none for no keys.
  std::optional<ActionId> holder(const QKeySequence& keys, ActionId besides) const;
  // Gives keys to an action, and takes them from the one that had them. Empty keys take them away.
  void setKeys(ActionId id, const QKeySequence& keys);
  // Back to the table's keys, of one action (which takes them from another, too) or of all.
  void reset(ActionId id);
  void resetAll();
  bool isChanged(ActionId id) const { return own_.contains(id); }

  // Single letters and digits act on canvas and Table.
  bool lettersAct() const { return lettersAct_; }
  void setLettersAct(bool act);
  // Whether keys would do nothing while letters are switched off.
  static bool isSingle(const QKeySequence& keys);

  // The right button takes away, Ctrl+left takes into the hand.
  bool buttonsExchanged() const { return buttonsExchanged_; }
  void setButtonsExchanged(bool exchanged);

 Q_SIGNALS:
  void changed();

 private:
  KeyBindings();
  void keep();

  std::map<ActionId, QKeySequence> own_;
  bool lettersAct_ = true;
  bool buttonsExchanged_ = false;
};

}  // namespace uq

#include "app/actions/KeyBindings.h"

#include <QSettings>

#include "app/actions/KeyLabels.h"

namespace uq {

namespace {

QKeySequence tableKeys(const ActionRow& row) {
  return QKeySequence(QLatin1String(row.keys), QKeySequence::PortableText);
}

}  // namespace

KeyBindings& KeyBindings::shared() {
  static KeyBindings bindings;
  return bindings;
}

KeyBindings::KeyBindings() {
  connect(&KeyLabels::shared(), &KeyLabels::changed, this, &KeyBindings::changed);
  QSettings settings;
  lettersAct_ = settings.value(QStringLiteral("keys/letters"), true).toBool();
  buttonsExchanged_ = settings.value(QStringLiteral("keys/exchange"), false).toBool();
  for (const ActionRow& row : actionTable()) {
    const QVariant kept = settings.value(QStringLiteral("keys/of/") + QLatin1String(row.name));
    if (!row.gesture && kept.isValid()) own_[row.id] = QKeySequence(kept.toString(), QKeySequence::PortableText);
  }
}

QKeySequence KeyBindings::keys(ActionId id) const {
  const auto own = own_.find(id);
  return own == own_.end() ? tableKeys(actionRow(id)) : own->second;
}

QString KeyBindings::text(ActionId id) const {
  // Keys with Ctrl act by their label, as on any desktop; those of map and Table by their place.
  const bool byPlace = actionRow(id).actsIn == ActsIn::canvas;
  return byPlace ? KeyLabels::shared().text(keys(id)) : keys(id).toString(QKeySequence::NativeText);
}

std::optional<ActionId> KeyBindings::holder(const QKeySequence& keys, ActionId besides) const {
  if (keys.isEmpty()) return std::nullopt;
  for (const ActionRow& row : actionTable()) {
    if (!row.gesture && row.id != besides && this->keys(row.id) == keys) return row.id;
  }
  return std::nullopt;
}

void KeyBindings::setKeys(ActionId id, const QKeySequence& keys) {
  const auto give = [this](ActionId to, const QKeySequence& what) {
    if (what == tableKeys(actionRow(to))) {
      own_.erase(to);
    } else {
      own_[to] = what;
    }
  };
  if (const auto other = holder(keys, id)) give(*other, QKeySequence());
  give(id, keys);
  keep();
}

void KeyBindings::reset(ActionId id) { setKeys(id, tableKeys(actionRow(id))); }

void KeyBindings::resetAll() {
  own_.clear();
  lettersAct_ = true;
  buttonsExchanged_ = false;
  keep();
}

void KeyBindings::setLettersAct(bool act) {
  lettersAct_ = act;
  keep();
}

bool KeyBindings::isSingle(const QKeySequence& keys) {
  if (keys.isEmpty()) return false;
  const QKeyCombination combination = keys[0];
  const bool plain = !(combination.keyboardModifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
  const Qt::Key key = combination.key();
  return plain && key >= Qt::Key_Space && key <= Qt::Key_AsciiTilde;
}

void KeyBindings::setButtonsExchanged(bool exchanged) {
  buttonsExchanged_ = exchanged;
  keep();
}

void KeyBindings::keep() {
  QSettings settings;
  settings.setValue(QStringLiteral("keys/letters"), lettersAct_);
  settings.setValue(QStringLiteral("keys/exchange"), buttonsExchanged_);
  settings.remove(QStringLiteral("keys/of"));
  for (const auto& [id, keys] : own_) {
    settings.setValue(QStringLiteral("keys/of/") + QLatin1String(actionRow(id).name),
                      keys.toString(QKeySequence::PortableText));
  }
  Q_EMIT changed();
}

}  // namespace uq

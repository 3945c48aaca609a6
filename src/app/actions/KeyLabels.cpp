#include "app/actions/KeyLabels.h"

#include <xkbcommon/xkbcommon-x11.h>

#include <QCoreApplication>
#include <QGuiApplication>
#include <QKeyEvent>

#include "app/actions/PhysicalKeys.h"

namespace uq {

namespace {

// Digits are printed on their keys everywhere, whatever stands beside them.
constexpr const char* kLetters = "QWERTYUIOPASDFGHJKLZXCVBNM";

// The label of a key without Shift in the first layout of an X11 keyboard; empty for one that prints nothing.
std::map<int, QString> labelsOf(xkb_keymap* keymap) {
  std::map<int, QString> labels;
  for (const char* place = kLetters; *place; ++place) {
    const auto key = static_cast<Qt::Key>(*place);
    const xkb_keysym_t* symbols = nullptr;
    if (xkb_keymap_key_get_syms_by_level(keymap, scanCodeOf(key), 0, 0, &symbols) != 1) continue;
    const std::uint32_t character = xkb_keysym_to_utf32(symbols[0]);
    const char32_t text = character;
    const QString label = QString::fromUcs4(&text, 1).toUpper();
    if (character > 32 && label != QChar(key)) labels[key] = label;
  }
  return labels;
}

}  // namespace

KeyLabels& KeyLabels::shared() {
  static KeyLabels labels;
  return labels;
}

KeyLabels::KeyLabels() {
  readKeyboard();
  QCoreApplication::instance()->installEventFilter(this);
}

void KeyLabels::readKeyboard() {
  const auto* x11 = qGuiApp ? qGuiApp->nativeInterface<QNativeInterface::QX11Application>() : nullptr;
  if (!x11 || !x11->connection()) return;
  xkb_context* context = xkb_context_new(XKB_CONTEXT_NO_FLAGS);
  const int device = xkb_x11_get_core_keyboard_device_id(x11->connection());
  xkb_keymap* keymap =
      device < 0 ? nullptr
                 : xkb_x11_keymap_new_from_device(context, x11->connection(), device, XKB_KEYMAP_COMPILE_NO_FLAGS);
  if (keymap) labels_ = labelsOf(keymap);
  xkb_keymap_unref(keymap);
  xkb_context_unref(context);
  if (keymap) Q_EMIT changed();
}

QString KeyLabels::labelOf(Qt::Key place) const {
  const auto found = labels_.find(place);
  return found == labels_.end() ? QString(QChar(place)) : found->second;
}

QString KeyLabels::text(const QKeySequence& keys) const {
  QString text = keys.toString(QKeySequence::NativeText);
  if (keys.isEmpty()) return text;
  const Qt::Key key = keys[0].key();
  if (scanCodeOf(key) != 0 && text.endsWith(QChar(key))) text = text.chopped(1) + labelOf(key);
  return text;
}

bool KeyLabels::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const auto& pressed = *static_cast<QKeyEvent*>(event);
    const Qt::Key place = physicalKey(pressed);
    const bool plain = pressed.modifiers() == Qt::NoModifier && place >= Qt::Key_A && place <= Qt::Key_Z &&
                       pressed.nativeScanCode() == scanCodeOf(place);
    const int key = pressed.key();
    if (plain && key > Qt::Key_Space && key < Qt::Key_Escape && labelOf(place) != QChar(key)) {
      labels_[place] = QChar(key);
      Q_EMIT changed();
    }
  }
  return QObject::eventFilter(watched, event);
}

}  // namespace uq

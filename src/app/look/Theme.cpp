#include "app/look/Theme.h"

#include <array>

// The icons lie in a library, which has to be asked for them (outside any namespace).
static void loadIcons() { Q_INIT_RESOURCE(icons); }

namespace uq {

namespace {
const Theme* inForce = nullptr;
}

const Theme& Theme::linen() {
  static const Theme theme{QColor(0xEF, 0xE9, 0xDC), QColor(0xD3, 0xC8, 0xB2), QColor(0xFA, 0xF7, 0xF0),
                           QColor(0x1F, 0x2A, 0x3C), QColor(0x5B, 0x65, 0x77), QColor(0xB4, 0x43, 0x2F),
                           QColor(0x2F, 0x5D, 0x8A), QColor(0x86, 0x61, 0x0F), QColor(0x4A, 0x4F, 0x58),
                           QColor(0xDD, 0xD3, 0xBF), QColor(0xF6, 0xD9, 0x8A)};
  return theme;
}

const Theme& Theme::indigo() {
  static const Theme theme{QColor(0x1B, 0x22, 0x33), QColor(0x34, 0x40, 0x5A), QColor(0x24, 0x30, 0x49),
                           QColor(0xE8, 0xE2, 0xD0), QColor(0xA3, 0xAD, 0xBF), QColor(0xEA, 0x77, 0x61),
                           QColor(0x7F, 0xB0, 0xDC), QColor(0xE3, 0xB6, 0x4A), QColor(0x11, 0x16, 0x1F),
                           QColor(0x15, 0x1B, 0x29), QColor(0xF6, 0xD9, 0x8A)};
  return theme;
}

const Theme& Theme::current() { return inForce ? *inForce : linen(); }

QColor Theme::faintInk() const {
  return QColor((edge.red() + softInk.red()) / 2, (edge.green() + softInk.green()) / 2,
                (edge.blue() + softInk.blue()) / 2);
}

QColor Theme::thread(const Thread& thread) const {
  // Okabe and Ito, Color Universal Design, 2008.
  static const std::array<QColor, Thread::kColours> colours = {
      QColor(0xE6, 0x9F, 0x00), QColor(0x56, 0xB4, 0xE9), QColor(0x00, 0x9E, 0x73), QColor(0xF0, 0xE4, 0x42),
      QColor(0x00, 0x72, 0xB2), QColor(0xD5, 0x5E, 0x00), QColor(0xCC, 0x79, 0xA7), QColor(0x99, 0x99, 0x99)};
  return colours[static_cast<std::size_t>(thread.colour)];
}

QPalette Theme::palette() const {
  QPalette palette;
  palette.setColor(QPalette::Window, panel);
  palette.setColor(QPalette::Button, panel);
  palette.setColor(QPalette::Base, paper);
  palette.setColor(QPalette::AlternateBase, panel);
  palette.setColor(QPalette::ToolTipBase, paper);
  palette.setColor(QPalette::Highlight, woad);
  palette.setColor(QPalette::HighlightedText, paper);
  palette.setColor(QPalette::Mid, edge);
  palette.setColor(QPalette::Light, paper);
  palette.setColor(QPalette::Dark, edge.darker(120));
  for (auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText, QPalette::ToolTipText}) {
    palette.setColor(role, ink);
    palette.setColor(QPalette::Disabled, role, softInk);
  }
  palette.setColor(QPalette::PlaceholderText, softInk);
  return palette;
}

void applyTheme(QApplication& application, const Theme& theme) {
  loadIcons();
  // A style sheet is given to every widget anew, which takes as long as building the window.
  if (inForce == &theme && application.styleSheet() == theme.styleSheet()) return;
  inForce = &theme;
  QApplication::setStyle(QStringLiteral("fusion"));
  QApplication::setPalette(theme.palette());
  application.setStyleSheet(theme.styleSheet());
}

QString Theme::styleSheet() const {
  return QStringLiteral(
             "QMenuBar { background: %1; color: %4; padding: 4px 2px 4px 4px; }"
             "QMenuBar::item { padding: 4px 8px; border-radius: 4px; background: transparent; }"
             "QMenuBar::item:selected { background: %3; }"
             "QMenu { background: %3; color: %4; border: 1px solid %2; padding: 4px; }"
             "QMenu::item { padding: 5px 28px 5px 12px; border-radius: 3px; }"
             "QMenu::item:selected { background: %1; color: %4; }"
             "QMenu::item:disabled { color: %5; }"
             "QMenu::separator { height: 1px; background: %2; margin: 4px 8px; }"
             "QToolTip { background: %3; color: %4; border: 1px solid %2; padding: 4px; }"
             "QToolButton { background: transparent; color: %4; border: 1px solid transparent; border-radius: 4px;"
             " padding: 4px 8px; }"
             "QToolButton:hover { background: %3; border-color: %2; }"
             "QToolButton:focus { border-color: %6; }"
             "QToolButton:disabled { color: %5; }"
             "QToolButton:checked { background: %1; border: 1px solid %7; }"
             "QToolButton[raised=\"true\"] { background: %1; border-color: %2; }"
             "QToolButton:checked { background: %1; border: 1px solid %7; }"
             "QToolButton[raised=\"true\"]:hover { background: %3; }"
             "QToolButton[raised=\"true\"]:focus { border-color: %6; }"
             "QToolButton[tight=\"true\"] { padding: 3px 2px; }"
             "QFileDialog QToolButton { padding: 3px; }"
             "QPushButton { background: %3; color: %4; border: 1px solid %2; border-radius: 4px; padding: 5px 16px; }"
             "QPushButton:hover { background: %1; border-color: %5; }"
             "QPushButton:default { border: 2px solid %6; padding: 4px 15px; }"
             "QPushButton:focus { border-color: %6; }"
             "QPushButton:disabled { color: %5; background: %1; }"
             "QSplitter::handle { background: %2; }"
             "QScrollArea { background: transparent; border: none; }"
             "QScrollBar:vertical { background: %1; width: 10px; margin: 0; }"
             "QScrollBar::handle:vertical { background: %2; border-radius: 4px; min-height: 24px; margin: 1px; }"
             "QScrollBar::add-line, QScrollBar::sub-line { height: 0; }"
             "QLineEdit { background: %3; color: %4; border: 1px solid %2; border-radius: 3px; padding: 2px 4px; }"
             "QLineEdit:focus { border-color: %6; }"
             "QComboBox { background: %3; color: %4; border: 1px solid %2; border-radius: 3px; padding: 2px 6px; }"
             "QComboBox:focus, QComboBox:hover { border-color: %6; }"
             "QComboBox::drop-down { border: none; width: 18px; }"
             "QComboBox::down-arrow { image: url(:/icons/down-%9.svg); width: 10px; height: 10px; }"
             "QComboBox QAbstractItemView { background: %3; color: %4; border: 1px solid %2; outline: none;"
             " selection-background-color: %1; selection-color: %4; }"
             "QCheckBox { color: %4; spacing: 8px; border: 1px solid transparent; border-radius: 3px; }"
             "QCheckBox:focus { border-color: %6; }"
             "QTreeWidget { background: %3; color: %4; border: 1px solid %2; border-radius: 4px; outline: none; }"
             "QTreeWidget::item { padding: 4px 6px; border: none; background: transparent; }"
             "QTreeWidget::item:hover { background: %1; }"
             "QTreeWidget::item:selected { background: %1; color: %4; }"
             "QHeaderView::section { background: %1; color: %5; border: none; border-bottom: 1px solid %2;"
             " padding: 4px 6px; }"
             "QLabel[warning=\"true\"] { color: %8; }"
             "QPushButton[broad=\"true\"] { padding: 8px 22px; }"
             "QListWidget { background: %3; color: %4; border: 1px solid %2; border-radius: 4px; padding: 4px;"
             " outline: none; }"
             "QListWidget::item { padding: 5px 8px; border-radius: 3px; border-left: 3px solid transparent; }"
             "QListWidget::item:hover { background: %1; }"
             "QListWidget::item:selected { background: %1; color: %4; border-left: 3px solid %7; }"
             "QLabel[soft=\"true\"] { color: %5; }"
             "QFrame[card=\"true\"] { background: %3; border: 1px solid %2; border-radius: 4px; }"
             "QFrame#notices { background: %3; border: none; border-left: 5px solid %8; border-bottom: 1px solid %2; }"
             "QFrame#progress { background: %3; border: none; border-right: 1px solid %2; }"
             "QFrame#drop-line { background: %7; }"
             "QProgressBar { background: %1; border: 1px solid %2; border-radius: 4px; }"
             "QProgressBar::chunk { background: %8; border-radius: 3px; }")
      .arg(panel.name(), edge.name(), paper.name(), ink.name(), softInk.name(), woad.name(), madder.name(), weld.name(),
           QLatin1String(this == &indigo() ? "light" : "dark"));
}

}  // namespace uq

// Theme: every colour of the workroom, by its role. No widget holds a colour of its own.
#pragma once

#include <QApplication>
#include <QColor>
#include <QPalette>
#include <QString>

#include "core/document/Thread.h"

namespace uq {

struct Theme {
  QColor panel;
  QColor edge;
  QColor paper;  // inputs, cards
  QColor ink;
  QColor softInk;
  QColor madder;    // active
  QColor woad;      // focus, information
  QColor weld;      // warning
  QColor surround;  // round the map
  QColor cloth;     // the Table's surface
  QColor lamp;      // light on cells that are looked for

  static const Theme& linen();   // light
  static const Theme& indigo();  // dark
  // The theme in force.
  static const Theme& current();

  // Between edge and soft ink: marks that only say that nothing is switched on.
  QColor faintInk() const;
  QColor thread(const Thread& thread) const;
  QPalette palette() const;
  // Of menus, tips, scroll bars, buttons and cards.
  QString styleSheet() const;
};

// Puts a theme in force; every window is drawn anew with it.
void applyTheme(QApplication& application, const Theme& theme = Theme::linen());

// One grid of spacing for the whole workroom, in logical pixels.
inline constexpr int kGap = 8;
inline constexpr int kCorner = 4;

}  // namespace uq

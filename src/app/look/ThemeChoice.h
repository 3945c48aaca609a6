// ThemeChoice: linen, indigo, or whichever the desktop asks for — what the user wants, kept in the settings.
//
// The desktop's wish comes from its portal over DBus (org.freedesktop.appearance, color-scheme), now and whenever it
// changes; where there is no portal, from how dark the palette is that the program was started with.
#pragma once

namespace uq {

enum class ThemeChoice { asDesktop, linen, indigo };

ThemeChoice themeChoice();
// Keeps the choice, and puts the theme that follows from it in force.
void chooseTheme(ThemeChoice choice);
// Puts the theme of the kept choice in force, and follows the desktop from now on.
void startTheme();

}  // namespace uq

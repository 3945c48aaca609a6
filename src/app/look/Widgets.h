// Small parts that every panel is made of, so that they look alike.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

#include "core/grid/Pixels.h"

namespace uq {

// Gives a frame, which must have an object name, the look of a card: paper, a fine edge, round corners.
void makeCard(QFrame* frame);

// The head of a card that lies over the map: its title, and a button of that object name that closes it.
QLayout* makeCardHead(QFrame* card, QWidget* title, const char* closeName);

// The layout of a part of a card, whose lines lie close.
QVBoxLayout* makeSection(QWidget* part);

QLabel* makeTitle(const QString& text, QWidget* parent);
// Soft ink, wraps.
QLabel* makeSoftLabel(QWidget* parent);

// A name as a button has to be told it, so that its & shows as it is.
QString onButton(QString name);

// A raised button with words, for cards.
QToolButton* makePlainButton(const char* object, QWidget* parent);

// Gives a button an icon by its name, in the ink of whatever theme is in force.
void setInkedIcon(QToolButton* button, const QString& name);

// A size in pixels: "32", or "32 × 16" where it is no square.
QString sizeText(PixelSize size);

// A button that triggers an action and never takes the focus from the canvas by a click. `text` is shown beside the
// icon.
QToolButton* makeActionButton(QAction* action, const QString& text, QWidget* parent);

}  // namespace uq

// The help pages: one for each tool, panel and refusal, short enough to be read beside the work.
//
// Each has a title, a text in simple rich text, and more words by which people look for it. Actions have such words,
// too: what somebody calls a thing who does not know our name for it.
#pragma once

#include <QString>
#include <span>

#include "app/actions/ActionTable.h"

// Marks a text of the help for translation.
#define UQ_HELP(text) QT_TRANSLATE_NOOP("help", text)

namespace uq {

struct HelpPage {
  const char* name;  // for tests
  const char* title;
  const char* words;
  const char* text;
};

std::span<const HelpPage> helpPages();

// More words for an action; may be empty.
QString wordsFor(ActionId id);

QString helpText(const char* text);  // in the user's language

}  // namespace uq

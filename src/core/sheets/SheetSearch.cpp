#include "core/sheets/SheetSearch.h"

#include <algorithm>
#include <charconv>

namespace uq {

namespace {

// ASCII letters only: others are compared as they are.
std::string lower(std::string_view text) {
  std::string small(text);
  for (char& c : small) {
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  }
  return small;
}

struct Word {
  std::string text;
  std::optional<std::uint32_t> number;
  std::optional<Footing> footing;
  std::optional<std::uint32_t> colour;  // a colour to be near to
  int colourWord = -1;
  bool used = false;
  bool animated = false;
};

Word wordOf(std::string text) {
  Word word;
  const std::string_view digits = text.front() == '#' ? std::string_view(text).substr(1) : std::string_view(text);
  std::uint32_t number = 0;
  const char* end = digits.data() + digits.size();
  if (!digits.empty() && std::from_chars(digits.data(), end, number).ptr == end) word.number = number;
  word.colour = parsedColour(text);
  if (text == "open") word.footing = Footing::open;
  if (text == "solid") word.footing = Footing::solid;
  if (text == "overhead") word.footing = Footing::overhead;
  const auto& words = colourWords();
  const auto colour = std::find(words.begin(), words.end(), text == "gray" ? "grey" : text);
  if (colour != words.end()) word.colourWord = static_cast<int>(colour - words.begin());
  word.used = text == "used";
  word.animated = text == "animated";
  word.text = std::move(text);
  return word;
}

std::vector<Word> wordsOf(std::string_view text) {
  std::vector<Word> words;
  std::string one;
  for (const char c : lower(text) + ' ') {
    if (c != ' ') {
      one += c;
    } else if (!one.empty()) {
      words.push_back(wordOf(std::exchange(one, {})));
    }
  }
  return words;
}

bool hasText(std::string_view text, const Word& word) { return lower(text).find(word.text) != std::string::npos; }

}  // namespace

std::vector<SheetHit> searchSheets(const Quilt& quilt, const std::vector<Id>& sheets, std::string_view text,
                                   const SearchHelp& help, std::size_t most) {
  const std::vector<Word> words = wordsOf(text);
  std::vector<SheetHit> exact;
  std::vector<SheetHit> hits;
  if (words.empty()) return hits;
  const std::string whole = lower(text);
  for (const Id id : sheets) {
    const Sheet* sheet = quilt.sheet(id);
    if (!sheet) continue;
    const auto slot = quilt.slots().find(id);
    const TileColours* colours = help.colours ? help.colours(*sheet) : nullptr;
    // What every tile of the sheet is found by already.
    std::vector<const Word*> open;
    for (const Word& word : words) {
      if (!hasText(sheet->name, word) && !hasText(sheet->origin.pile, word)) open.push_back(&word);
    }
    const auto fits = [&](const Word& word, std::uint32_t cell, std::uint32_t number, const TileFacts* facts) {
      if (word.number == number) return true;
      if (word.footing && *word.footing == (facts && facts->footing ? *facts->footing : sheet->footing)) return true;
      if (word.used && help.uses && slot && help.uses->contains({*slot, number})) return true;
      if (colours && cell < colours->size() && (*colours)[cell] != 0) {
        const std::uint32_t colour = (*colours)[cell];
        if (word.colour && isNearColour(*word.colour, colour)) return true;
        if (word.colourWord >= 0 && word.colourWord == colourWord(colour)) return true;
      }
      if (!facts) return false;
      if (word.animated && !facts->frames.empty()) return true;
      return hasText(facts->name, word) || std::any_of(facts->tags.begin(), facts->tags.end(),
                                                       [&](const std::string& tag) { return hasText(tag, word); });
    };
    const auto count = static_cast<std::uint32_t>(sheet->tileCount());
    for (std::uint32_t cell = 0; cell < count && hits.size() < most; ++cell) {
      const std::uint32_t number = sheet->numberAt(cell);
      const auto said = sheet->tiles.empty() ? sheet->tiles.end() : sheet->tiles.find(number);
      const TileFacts* facts = said == sheet->tiles.end() ? nullptr : &said->second;
      const bool found =
          std::all_of(open.begin(), open.end(), [&](const Word* word) { return fits(*word, cell, number, facts); });
      if (!found || !sheet->offers(number)) continue;
      const bool isExact = facts && lower(facts->name) == whole;
      (isExact ? exact : hits).push_back({id, number});
    }
  }
  hits.insert(hits.begin(), exact.begin(), exact.end());
  if (hits.size() > most) hits.resize(most);
  return hits;
}

}  // namespace uq

#include "core/store/TilesText.h"

#include <algorithm>
#include <charconv>
#include <cstdio>
#include <set>

#include "core/cells/Cell.h"

namespace uq {

namespace {

constexpr std::string_view kMagic = "tiles 1";
constexpr std::size_t kLongestLine = 1024;  // bytes
constexpr std::size_t kItemsALine = 48;

std::string hex(std::uint64_t mark) {
  char text[17];
  std::snprintf(text, sizeof text, "%llx", static_cast<unsigned long long>(mark));
  return text;
}

// Numbers as "4 9-12", at most kItemsALine items a line, each line begun by `begin(index of its first number)`.
template <class Begin>
void writeNumbers(std::string& out, const std::vector<std::uint32_t>& numbers, Begin&& begin) {
  std::size_t items = 0;
  for (std::size_t i = 0; i < numbers.size();) {
    std::size_t last = i;
    while (last + 1 < numbers.size() && numbers[last + 1] == numbers[last] + 1) ++last;
    if (items == 0) out += begin(i);
    out += ' ' + std::to_string(numbers[i]);
    if (last > i) out += '-' + std::to_string(numbers[last]);
    i = last + 1;
    if (++items == kItemsALine || i == numbers.size()) {
      out += '\n';
      items = 0;
    }
  }
}

// The words of one line.
class Line {
 public:
  Line(std::string_view text, int number) : rest_(text), number_(number) {}

  int number() const { return number_; }
  bool atEnd() const { return rest_.empty(); }
  // Up to the next space or the end.
  std::string_view word() {
    const std::size_t end = std::min(rest_.find(' '), rest_.size());
    const std::string_view word = rest_.substr(0, end);
    rest_.remove_prefix(std::min(end + 1, rest_.size()));
    return word;
  }

 private:
  std::string_view rest_;
  int number_;
};

template <class Number>
bool parse(std::string_view word, Number& number, Number most, int base = 10) {
  const char* end = word.data() + word.size();
  const auto done = std::from_chars(word.data(), end, number, base);
  return !word.empty() && done.ec == std::errc{} && done.ptr == end && number <= most;
}

// A number followed by a colon.
bool parseHead(std::string_view word, std::uint32_t& number) {
  return word.ends_with(':') && parse(word.substr(0, word.size() - 1), number, kLastTileNumber);
}

// Numbers like "4 9-12" to the end of the line, appended; false where they are wrong or too many.
bool parseNumbers(Line& line, std::vector<std::uint32_t>& numbers) {
  while (!line.atEnd()) {
    const std::string_view word = line.word();
    const std::size_t dash = word.find('-');
    std::uint32_t first = 0;
    if (!parse(word.substr(0, dash), first, kLastTileNumber)) return false;
    std::uint32_t last = first;
    if (dash != std::string_view::npos && (!parse(word.substr(dash + 1), last, kLastTileNumber) || last <= first)) {
      return false;
    }
    if (numbers.size() + (last - first) > kLastTileNumber) return false;
    for (std::uint32_t n = first; n <= last; ++n) numbers.push_back(n);
  }
  return true;
}

class Reader {
 public:
  explicit Reader(const Sheet& sheet) : sheet_(sheet) {}

  // What is wrong with the line; empty when nothing.
  std::string take(Line& line) {
    const std::string_view what = line.word();
    if (what == "picture") return parse(line.word(), marks.picture, ~std::uint64_t{0}, 16) ? "" : "no mark is given";
    if (what == "cells") return takeCells(line);
    if (what == "retired") return takeRetired(line);
    if (what == "twin") return takeTwin(line);
    if (what == "marks") return takeMarks(line);
    if (what == "dropped:") {
      std::vector<std::uint32_t> numbers;
      if (!parseNumbers(line, numbers)) return "the dropped tiles are no list of numbers";
      places.dropped.insert(numbers.begin(), numbers.end());
      return "";
    }
    return "it begins with none of the words that are known";
  }

  // What is wrong with all lines together; empty when nothing.
  std::string finish() {
    const auto count = static_cast<std::size_t>(sheet_.tileCount());
    if (!numbers_.empty() && numbers_.size() != count) return "the cells are not all named";
    std::set<std::uint32_t> known;
    for (const std::uint32_t number : numbers_) {
      if (!known.insert(number).second) return "the tile " + std::to_string(number) + " stands on two cells";
    }
    for (const auto& [number, rect] : places.retired) {
      if (numbers_.empty() ? number < count : known.contains(number)) {
        return "the retired tile " + std::to_string(number) + " stands on a cell";
      }
    }
    for (const auto& [number, twin] : places.twins) {
      if (places.twins.contains(twin.of)) return "the tile of the twin " + std::to_string(number) + " is a twin itself";
    }
    if (!marks.tiles.empty() && marks.tiles.size() != count) return "the cells do not all have a mark";
    places.setNumbers(std::move(numbers_));
    return "";
  }

  TilePlaces places;
  SheetMarks marks;

 private:
  std::string takeCells(Line& line) {
    std::uint32_t first = 0;
    if (sheet_.isCollection() || !parseHead(line.word(), first) || first != numbers_.size() ||
        !parseNumbers(line, numbers_)) {
      return "the cells are no list that goes on where the one before ends";
    }
    return "";
  }

  std::string takeRetired(Line& line) {
    std::uint32_t number = 0;
    PixelRect rect;
    bool good = parseHead(line.word(), number);
    for (int* part : {&rect.x, &rect.y, &rect.w, &rect.h})
      good = good && parse(line.word(), *part, kLargestPictureSide);
    if (!good || rect.x < 0 || rect.y < 0 || rect.empty() || !line.atEnd() ||
        !places.retired.emplace(number, rect).second) {
      return "the retired tile has no number and rectangle of its own";
    }
    return "";
  }

  std::string takeTwin(Line& line) {
    std::uint32_t number = 0;
    TilePlaces::Twin twin;
    const bool good = parseHead(line.word(), number) && parse(line.word(), twin.of, kLastTileNumber);
    const std::string_view more = line.word();
    twin.mirrored = more == "mirrored";
    if (!good || (!more.empty() && !twin.mirrored) || number == twin.of || !places.twins.emplace(number, twin).second) {
      return "the twin has no number and tile of its own";
    }
    return "";
  }

  std::string takeMarks(Line& line) {
    std::uint32_t first = 0;
    if (!parseHead(line.word(), first) || first != marks.tiles.size()) {
      return "the marks are no list that goes on where the one before ends";
    }
    while (!line.atEnd()) {
      std::uint64_t mark = 0;
      if (!parse(line.word(), mark, ~std::uint64_t{0}, 16) || marks.tiles.size() > kLastTileNumber) {
        return "a mark is no number of base 16";
      }
      marks.tiles.push_back(mark);
    }
    return "";
  }

  const Sheet& sheet_;
  std::vector<std::uint32_t> numbers_;
};

}  // namespace

std::string writeTiles(const Sheet& sheet) {
  const TilePlaces& places = sheet.places.read();
  const SheetMarks& marks = sheet.marks.read();
  if (places.empty() && marks == SheetMarks()) return {};
  std::string out = std::string(kMagic) + '\n';
  if (marks.picture != 0) out += "picture " + hex(marks.picture) + '\n';
  writeNumbers(out, places.numbers(), [](std::size_t cell) { return "cells " + std::to_string(cell) + ":"; });
  for (const auto& [number, rect] : places.retired) {
    out += "retired " + std::to_string(number) + ": " + std::to_string(rect.x) + ' ' + std::to_string(rect.y) + ' ' +
           std::to_string(rect.w) + ' ' + std::to_string(rect.h) + '\n';
  }
  for (const auto& [number, twin] : places.twins) {
    out += "twin " + std::to_string(number) + ": " + std::to_string(twin.of) + (twin.mirrored ? " mirrored\n" : "\n");
  }
  writeNumbers(out, std::vector<std::uint32_t>(places.dropped.begin(), places.dropped.end()),
               [](std::size_t) { return std::string("dropped:"); });
  for (std::size_t i = 0; i < marks.tiles.size(); i += kItemsALine) {
    out += "marks " + std::to_string(i) + ":";
    for (std::size_t k = i; k < std::min(i + kItemsALine, marks.tiles.size()); ++k) out += ' ' + hex(marks.tiles[k]);
    out += '\n';
  }
  return out + "end\n";
}

Result<void> readTiles(std::string_view text, const std::string& file, Sheet& sheet) {
  Reader reader(sheet);
  int number = 0;
  bool ended = false;
  while (!text.empty() && !ended) {
    ++number;
    const std::size_t end = text.find('\n');
    if (end == std::string_view::npos) return fail(Error::Cause::broken, "the line ends in the middle", file, number);
    const std::string_view one = text.substr(0, end);
    text.remove_prefix(end + 1);
    if (one.size() > kLongestLine) return fail(Error::Cause::broken, "the line is too long", file, number);
    if (number == 1) {
      if (one != kMagic) return fail(Error::Cause::broken, "it does not begin with \"tiles 1\"", file, number);
    } else if (one == "end") {
      ended = true;
    } else {
      Line line(one, number);
      if (const std::string wrong = reader.take(line); !wrong.empty()) {
        return fail(Error::Cause::broken, wrong, file, number);
      }
    }
  }
  if (!ended) return fail(Error::Cause::broken, "it ends before its \"end\"", file, number);
  if (const std::string wrong = reader.finish(); !wrong.empty()) return fail(Error::Cause::broken, wrong, file, number);
  sheet.places = reader.places.empty() ? Shared<TilePlaces>() : Shared(std::move(reader.places));
  sheet.marks = Shared(std::move(reader.marks));
  return {};
}

}  // namespace uq

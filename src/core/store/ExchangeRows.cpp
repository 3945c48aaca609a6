#include "core/store/ExchangeRows.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cstring>
#include <memory>
#include <vector>

#include "core/base/Squeezed.h"
#include "core/cells/NumberGrid.h"

namespace uq {

namespace {

// Numbers as text with a comma after each. Few different ones lie on a map, so they are kept as they were spelt last.
class Spelling {
 public:
  // Writes at most kLongest characters; the end of them.
  static constexpr std::size_t kLongest = 11;
  char* spell(std::uint32_t number, char* to) {
    if (number == 0) {
      to[0] = '0', to[1] = ',';
      return to + 2;
    }
    Spelt& known = known_[(number ^ number >> 11) & (known_.size() - 1)];
    if (known.number != number || known.length == 0) {
      known.number = number;
      char* end = std::to_chars(known.text, known.text + sizeof known.text, number).ptr;
      *end++ = ',';
      known.length = static_cast<unsigned char>(end - known.text);
    }
    std::memcpy(to, known.text, sizeof known.text);
    return to + known.length;
  }

 private:
  struct Spelt {
    std::uint32_t number = 0;
    char text[kLongest] = {};
    unsigned char length = 0;
  };
  std::array<Spelt, 1024> known_;
};

// The numbers of a row of an area, chunk by chunk.
template <class NumberOf>
void fillRow(const CellGrid& cells, const CellRect& area, int y, const NumberOf& numberOf, std::vector<std::uint32_t>& to) {
  for (int x = area.x0; x < area.x1;) {
    const CellGrid::ChunkView chunk = cells.chunk(ChunkPos::of({x, y}));
    const CellRect all = chunk.at.cells();
    const int end = std::min(area.x1, all.x1);
    const auto at = to.begin() + (x - area.x0);
    if (chunk.isUniform()) {
      std::fill(at, at + (end - x), numberOf(chunk.uniform()));
    } else {
      const auto row = chunk.row(y - all.y0);
      std::transform(row.begin() + (x - all.x0), row.begin() + (end - all.x0), at, numberOf);
    }
    x = end;
  }
}

std::string base64(std::string_view bytes) {
  constexpr std::string_view kDigits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  std::string text;
  text.reserve((bytes.size() + 2) / 3 * 4);
  for (std::size_t at = 0; at < bytes.size(); at += 3) {
    const std::size_t count = std::min<std::size_t>(3, bytes.size() - at);
    std::uint32_t bits = 0;
    for (std::size_t i = 0; i < 3; ++i) bits = bits << 8 | (i < count ? static_cast<unsigned char>(bytes[at + i]) : 0u);
    for (std::size_t i = 0; i < 4; ++i) text += i <= count ? kDigits[bits >> (18 - 6 * i) & 63] : '=';
  }
  return text;
}

template <class NumberOf>
void addPacked(std::string& out, const CellGrid& cells, const CellRect& area, const NumberOf& numberOf) {
  std::vector<std::uint32_t> numbers(static_cast<std::size_t>(area.width()));
  std::string bytes;
  for (int y = area.y0; y < area.y1; ++y) {
    fillRow(cells, area, y, numberOf, numbers);
    for (const std::uint32_t number : numbers) {
      for (int shift = 0; shift < 32; shift += 8) bytes += static_cast<char>(number >> shift & 255);
    }
  }
  out.append("\"" + base64(squeezed(bytes)) + "\"");
}

// Some rows of an area.
template <class NumberOf>
void addRows(std::string& out, const ExchangeRows& rows, int from, int to, const NumberOf& numberOf) {
  const CellRect& area = rows.area;
  if (rows.as == CellsAs::packed) return addPacked(out, rows.cells, area, numberOf);
  const auto wide = static_cast<std::size_t>(std::max(area.width(), 0));
  if (rows.as == CellsAs::plain) out.reserve(out.size() + wide * static_cast<std::size_t>(std::max(to - from, 0)) * 4);
  const auto spelling = std::make_unique<Spelling>();
  std::vector<std::uint32_t> numbers(wide);
  std::vector<char> row((wide * 2 + 1) * Spelling::kLongest);
  for (int y = from; y < to; ++y) {
    out.append(y == area.y0 ? "\n[" : ",\n[");
    fillRow(rows.cells, area, y, numberOf, numbers);
    char* end = row.data();
    for (auto at = numbers.begin(); at != numbers.end();) {
      auto next = at + 1;
      if (rows.as == CellsAs::runs) {
        next = std::find_if(next, numbers.end(), [&](std::uint32_t one) { return one != *at; });
        end = spelling->spell(static_cast<std::uint32_t>(next - at), end);
      }
      end = spelling->spell(*at, end);
      at = next;
    }
    // Without the last comma.
    out.append(std::string_view(row.data(), static_cast<std::size_t>(end - row.data() - 1)));
    out.append("]");
  }
}

}  // namespace

void addExchangeRows(std::string& out, const ExchangeRows& rows, int from, int to) {
  if (rows.numbers) return addRows(out, rows, from, to, [&](Cell cell) { return rows.numbers->numberOf(cell); });
  addRows(out, rows, from, to, [](Cell cell) { return static_cast<std::uint32_t>(NumberGrid::numberOf(cell)); });
}

}  // namespace uq

#include "core/store/CellsText.h"

#include <algorithm>
#include <charconv>
#include <map>
#include <set>
#include <unordered_map>

namespace uq {

namespace {

constexpr std::string_view kMagic = "cells 1";

void appendNumber(std::string& out, std::int64_t number) {
  char digits[24];
  const auto end = std::to_chars(digits, digits + sizeof digits, number).ptr;
  out.append(digits, end);
}

// Which code each used slot is written with.
std::map<SheetSlot, std::string> codesFor(const std::set<SheetSlot>& used, const Quilt& quilt) {
  std::vector<SheetSlot> byId(used.begin(), used.end());
  std::sort(byId.begin(), byId.end(),
            [&](SheetSlot a, SheetSlot b) { return quilt.slots().sheet(a) < quilt.slots().sheet(b); });
  std::map<SheetSlot, std::string> codes;
  std::set<std::string> taken;
  std::vector<SheetSlot> late;
  for (SheetSlot slot : byId) {
    const Sheet* sheet = quilt.sheetAt(slot);
    const std::string& wanted = sheet ? sheet->code : quilt.slots().code(slot);
    if (isSheetCode(wanted) && taken.insert(wanted).second) {
      codes[slot] = wanted;
    } else {
      late.push_back(slot);
    }
  }
  for (SheetSlot slot : late) {
    int n = 0;
    while (!taken.insert(sheetCode(n)).second) ++n;
    codes[slot] = sheetCode(n);
  }
  return codes;
}

std::string rowText(const CellGrid::ChunkView& chunk, int y, const std::map<SheetSlot, std::string>& codes) {
  std::string text;
  int last = kChunkSide - 1;
  while (last >= 0 && chunk.cell(last, y).empty()) --last;
  SheetSlot lastSlot = 0;
  for (int x = 0; x <= last;) {
    const Cell cell = chunk.cell(x, y);
    int run = 1;
    while (x + run <= last && chunk.cell(x + run, y) == cell) ++run;
    text += ' ';
    if (cell.empty()) {
      text += '.';
      if (run > 1) appendNumber(text, run);
    } else {
      const TileRef tile = cell.tile();
      if (tile.slot != lastSlot) text += codes.at(tile.slot);
      lastSlot = tile.slot;
      appendNumber(text, tile.number);
      if (const auto turn = cell.turn().code()) text += static_cast<char>('a' + turn);
      if (run > 1) {
        text += 'x';
        appendNumber(text, run);
      }
    }
    x += run;
  }
  return text;
}

// Reads one line from left to right; `ok` turns false at the first thing that does not fit.
class LineReader {
 public:
  explicit LineReader(std::string_view rest) : rest_(rest) {}

  bool atEnd() const { return rest_.empty(); }
  char peek() const { return rest_.empty() ? '\0' : rest_.front(); }
  bool take(char c) {
    if (peek() != c) return false;
    rest_.remove_prefix(1);
    return true;
  }
  // A number without leading zeros, at most `most`.
  std::optional<int> number(int most) {
    int value = 0;
    const auto [end, error] = std::from_chars(rest_.data(), rest_.data() + rest_.size(), value);
    const auto length = static_cast<std::size_t>(end - rest_.data());
    const bool spelt = peek() >= '0' && peek() <= '9' && (length == 1 || peek() != '0');
    if (error != std::errc{} || !spelt || value > most) return std::nullopt;
    rest_.remove_prefix(length);
    return value;
  }
  std::optional<int> signedNumber(int most) {
    const bool negative = take('-');
    const auto value = number(most);
    if (!value || (negative && *value == 0)) return std::nullopt;
    return negative ? -*value : *value;
  }
  std::string_view capitals() {
    std::size_t length = 0;
    while (length < rest_.size() && rest_[length] >= 'A' && rest_[length] <= 'Z') ++length;
    const std::string_view letters = rest_.substr(0, length);
    rest_.remove_prefix(length);
    return letters;
  }

 private:
  std::string_view rest_;
};

class Reader {
 public:
  Reader(Quilt& quilt, int turnOrder) : quilt_(quilt), turnOrder_(turnOrder) {}

  // Why the line is wrong; empty when it was taken. `first` is the file's first line.
  std::string takeLine(std::string_view line, bool first) {
    if (line.size() > kLongestCellsLine) return "the line is longer than 1,024 bytes";
    if (first) {
      if (line == kMagic) return {};
      return line.starts_with("cells ") ? "this version reads \"cells 1\" only" : "it does not begin with \"cells 1\"";
    }
    if (ended_) return "something follows \"end\"";
    if (line == "end") {
      ended_ = true;
      return {};
    }
    if (line.starts_with('@')) return takeChunk(LineReader(line.substr(1)));
    if (!line.empty() && line[0] >= 'A' && line[0] <= 'Z') return takeSheet(line);
    return takeRow(LineReader(line));
  }

  bool ended() const { return ended_; }
  CellGrid cells;

 private:
  std::string takeSheet(std::string_view line) {
    if (chunk_) return "a sheet is named after the first cells";
    LineReader reader(line);
    const std::string code(reader.capitals());
    const auto space = line.find(' ');
    const auto id = space == std::string_view::npos ? std::nullopt : Id::parse(line.substr(space + 1));
    if (!isSheetCode(code) || space != code.size() || !id) return "a sheet line is a code, a space and a sheet's id";
    const auto slot = quilt_.slotFor(*id, code);
    if (!slot) return "the quilt names more than 1,023 sheets";
    if (!slots_.emplace(code, *slot).second) return "the code " + code + " is given twice";
    return {};
  }

  std::string takeChunk(LineReader reader) {
    constexpr int kMost = kFarthestCell / kChunkSide - 1;
    const auto cx = reader.signedNumber(kMost);
    const bool comma = cx && reader.take(',');
    const auto cy = comma ? reader.signedNumber(kMost) : std::nullopt;
    if (!cy || !reader.atEnd()) return "a chunk's place is not written as @x,y within the grid";
    chunk_ = ChunkPos{*cx, *cy};
    return {};
  }

  std::string takeRow(LineReader reader) {
    if (!chunk_) return "cells stand before the first @";
    const auto top = reader.number(kChunkSide - 1);
    if (!top) return "a row does not begin with its number from 0 to 63";
    auto bottom = top;
    if (reader.take('-')) bottom = reader.number(kChunkSide - 1);
    if (!bottom || *bottom < *top) return "a range of rows does not rise within 0 to 63";
    if (!reader.take(':') || reader.atEnd()) return "a row's number is not followed by a colon and its cells";

    const CellRect area = chunk_->cells();
    int x = 0;
    std::optional<SheetSlot> slot;
    while (!reader.atEnd()) {
      if (!reader.take(' ')) return "cells are not parted by one space";
      Cell cell;
      int run = 1;
      if (reader.take('.')) {
        if (reader.peek() >= '0' && reader.peek() <= '9') {
          const auto count = reader.number(kChunkSide);
          if (!count || *count < 2) return "a run is not between 2 and 64";
          run = *count;
        }
      } else {
        const std::string code(reader.capitals());
        if (!code.empty()) {
          const auto named = slots_.find(code);
          if (named == slots_.end()) return "the sheet code " + code.substr(0, 8) + " is not named at the top";
          slot = named->second;
        }
        const auto number = reader.number(static_cast<int>(kLastTileNumber));
        if (!slot) return "the row's first tile has no sheet code";
        if (!number) return "a tile has no number up to 262,143";
        Turn turn;
        if (reader.peek() >= 'b' && reader.peek() <= 'l') {
          const auto turnCode = static_cast<std::uint32_t>(reader.peek() - 'a');
          if (!Turn::isCode(turnCode, turnOrder_)) return "a turn letter is not one of this grid's";
          turn = Turn::fromCode(turnCode);
          reader.take(reader.peek());
        }
        if (reader.take('x')) {
          const auto count = reader.number(kChunkSide);
          if (!count || *count < 2) return "a run is not between 2 and 64";
          run = *count;
        }
        cell = Cell({*slot, static_cast<std::uint32_t>(*number)}, turn);
      }
      if (x + run > kChunkSide) return "a row holds more than 64 cells";
      if (!cell.empty()) {
        const CellRect part{area.x0 + x, area.y0 + *top, area.x0 + x + run, area.y0 + *bottom + 1};
        for (int cy = part.y0; cy < part.y1; ++cy) {
          for (int cx = part.x0; cx < part.x1; ++cx) {
            if (!cells.at({cx, cy}).empty()) {
              return "cell " + std::to_string(cx) + ", " + std::to_string(cy) + " is given twice";
            }
          }
        }
        cells.fill(part, cell);
      }
      x += run;
    }
    return {};
  }

  Quilt& quilt_;
  int turnOrder_;
  std::unordered_map<std::string, SheetSlot> slots_;
  std::optional<ChunkPos> chunk_;
  bool ended_ = false;
};

}  // namespace

std::string writeCells(const CellGrid& cells, const Quilt& quilt) {
  std::set<SheetSlot> used;
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    SheetSlot last = 0;
    const auto note = [&](Cell cell) {
      const SheetSlot slot = cell.tile().slot;
      if (slot == last) return;
      last = slot;
      if (slot != 0) used.insert(slot);
    };
    if (!chunk.dense) {
      note(chunk.uniform);
    } else {
      for (Cell cell : chunk.dense->cells) note(cell);
    }
  });
  const auto codes = codesFor(used, quilt);

  std::string out(kMagic);
  out += '\n';
  // By code: shorter ones first, so that AA follows Z.
  std::vector<std::pair<std::string, SheetSlot>> lines;
  for (const auto& [slot, code] : codes) lines.emplace_back(code, slot);
  std::sort(lines.begin(), lines.end(), [](const auto& a, const auto& b) {
    return std::pair(a.first.size(), a.first) < std::pair(b.first.size(), b.first);
  });
  for (const auto& [code, slot] : lines) out += code + " " + quilt.slots().sheet(slot).text() + "\n";

  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    out += '@';
    appendNumber(out, chunk.at.cx);
    out += ',';
    appendNumber(out, chunk.at.cy);
    out += '\n';
    std::string row = rowText(chunk, 0, codes);
    for (int y = 0; y < kChunkSide;) {
      int next = y + 1;
      std::string nextRow;
      while (next < kChunkSide && (nextRow = rowText(chunk, next, codes)) == row) ++next;
      if (!row.empty()) {
        appendNumber(out, y);
        if (next - y > 1) {
          out += '-';
          appendNumber(out, next - 1);
        }
        out += ':';
        out += row;
        out += '\n';
      }
      row = std::move(nextRow);
      y = next;
    }
  });
  out += "end\n";
  return out;
}

CellsRead readCells(std::string_view text, Quilt& quilt, int turnOrder, const std::string& file) {
  Reader reader(quilt, turnOrder);
  CellsRead result;
  int line = 0;
  while (!text.empty()) {
    ++line;
    const auto end = text.find('\n');
    std::string wrong;
    if (end == std::string_view::npos) {
      wrong = "the file is cut off in the middle of this line";
    } else {
      wrong = reader.takeLine(text.substr(0, end), line == 1);
    }
    if (!wrong.empty()) {
      result.error = Error{Error::Cause::broken, std::move(wrong), file, line, {}, {}};
      break;
    }
    text.remove_prefix(end + 1);
  }
  if (!result.error && !reader.ended()) {
    result.error = Error{Error::Cause::broken,
                         line == 0 ? "the file is empty" : "the file is cut off: \"end\" is missing",
                         file,
                         line + 1,
                         {},
                         {}};
  }
  result.cells = std::move(reader.cells);
  return result;
}

std::string sheetCode(int count) {
  std::string code;
  for (++count; count > 0; count = (count - 1) / 26) {
    code.insert(code.begin(), static_cast<char>('A' + (count - 1) % 26));
  }
  return code;
}

bool isSheetCode(std::string_view text) {
  return !text.empty() && text.size() <= 3 &&
         std::all_of(text.begin(), text.end(), [](char c) { return c >= 'A' && c <= 'Z'; });
}

}  // namespace uq

#include "core/store/CellsText.h"

#include <unordered_map>

namespace uq {

namespace {

bool isDigit(char c) { return c >= '0' && c <= '9'; }

// Reads one line from left to right.
class LineReader {
 public:
  explicit LineReader(std::string_view line) : at_(line.data()), end_(line.data() + line.size()) {}

  bool atEnd() const { return at_ == end_; }
  char peek() const { return at_ == end_ ? '\0' : *at_; }
  bool take(char c) {
    if (peek() != c) return false;
    ++at_;
    return true;
  }
  // A number without leading zeros, at most `most`; -1 when there is none.
  int number(int most) {
    if (!isDigit(peek())) return -1;
    int value = *at_++ - '0';
    if (value == 0) return isDigit(peek()) ? -1 : 0;
    while (isDigit(peek())) {
      value = value * 10 + (*at_++ - '0');
      if (value > most) return -1;
    }
    return value;
  }
  std::optional<int> signedNumber(int most) {
    const bool negative = take('-');
    const int value = number(most);
    if (value < 0 || value > most || (negative && value == 0)) return std::nullopt;
    return negative ? -value : value;
  }
  std::string_view capitals() {
    const char* from = at_;
    while (at_ != end_ && *at_ >= 'A' && *at_ <= 'Z') ++at_;
    return {from, static_cast<std::size_t>(at_ - from)};
  }

 private:
  const char* at_;
  const char* end_;
};

class Reader {
 public:
  Reader(Quilt& quilt, int turnOrder) : quilt_(&quilt), turnOrder_(turnOrder) {}
  // Of plain numbers.
  explicit Reader(int most) : most_(most) {}

  // Why the line is wrong; empty when it was taken. `first` is the file's first line.
  std::string takeLine(std::string_view line, bool first) {
    if (line.size() > kLongestCellsLine) return "the line is longer than 1,024 bytes";
    if (first) {
      if (line == kCellsMagic) return {};
      return line.starts_with("cells ") ? "this version reads \"cells 1\" only" : "it does not begin with \"cells 1\"";
    }
    if (ended_) return "something follows \"end\"";
    if (line == "end") {
      ended_ = true;
      return {};
    }
    if (line.starts_with('@')) return takeChunk(LineReader(line.substr(1)));
    if (quilt_ && !line.empty() && line[0] >= 'A' && line[0] <= 'Z') return takeSheet(line);
    return takeRow(LineReader(line));
  }

  bool ended() const { return ended_; }

  // What was read so far.
  CellGrid takeCells() {
    finishChunk();
    return std::move(cells_);
  }

 private:
  std::string takeSheet(std::string_view line) {
    if (chunk_) return "a sheet is named after the first cells";
    LineReader reader(line);
    const std::string code(reader.capitals());
    const auto space = line.find(' ');
    const auto id = space == std::string_view::npos ? std::nullopt : Id::parse(line.substr(space + 1));
    if (!isSheetCode(code) || space != code.size() || !id) return "a sheet line is a code, a space and a sheet's id";
    const auto slot = quilt_->slotFor(*id, code);
    if (!slot) return "the quilt names more than 1,022 sheets";
    if (!slots_.emplace(code, *slot).second) return "the code " + code + " is given twice";
    return {};
  }

  std::string takeChunk(LineReader reader) {
    constexpr int kMost = kFarthestCell / kChunkSide;
    const auto cx = reader.signedNumber(kMost);
    const bool comma = cx && reader.take(',');
    const auto cy = comma ? reader.signedNumber(kMost) : std::nullopt;
    const bool inside = cy && isWritable(ChunkPos{*cx, *cy}.cells());
    if (!inside || !reader.atEnd()) return "a chunk's place is not written as @x,y within the grid";
    finishChunk();
    chunk_ = ChunkPos{*cx, *cy};
    const CellGrid::ChunkView before = cells_.chunk(*chunk_);
    if (before.isUniform()) {
      open_.fill(before.uniform());  // as nearly always, and without a copy
    } else {
      open_ = before.cells();
    }
    return {};
  }

  std::string takeRow(LineReader reader) {
    if (!chunk_) return "cells stand before the first @";
    const int top = reader.number(kChunkSide - 1);
    if (top < 0 || top >= kChunkSide) return "a row does not begin with its number from 0 to 63";
    int bottom = top;
    if (reader.take('-')) bottom = reader.number(kChunkSide - 1);
    if (bottom < top || bottom >= kChunkSide) return "a range of rows does not rise within 0 to 63";
    if (!reader.take(':') || reader.atEnd()) return "a row's number is not followed by a colon and its cells";

    std::array<Cell, kChunkSide> row{};
    int x = 0;
    SheetSlot slot = quilt_ ? 0 : NumberGrid::kSlot;
    while (!reader.atEnd()) {
      if (!reader.take(' ')) return "cells are not parted by one space";
      Cell cell;
      int run = 1;
      if (reader.take('.')) {
        if (isDigit(reader.peek())) run = runLength(reader);
      } else {
        if (!isDigit(reader.peek())) {
          const std::string_view code = reader.capitals();
          if (!code.empty()) {
            const auto named = slots_.find(std::string(code));
            if (named == slots_.end()) {
              return "the sheet code " + std::string(code.substr(0, 8)) + " is not named at the top";
            }
            slot = named->second;
          }
        }
        const int number = reader.number(static_cast<int>(kLastTileNumber));
        if (slot == 0) return "the row's first tile has no sheet code";
        if (!quilt_ && (number < 1 || number > most_)) return "a number is not one from 1 to " + std::to_string(most_);
        if (number < 0) return "a tile has no number up to 262,143";
        Turn turn;
        if (const char letter = reader.peek(); quilt_ && letter >= 'b' && letter <= 'l') {
          const auto turnCode = static_cast<std::uint32_t>(letter - 'a');
          if (!Turn::isCode(turnCode, turnOrder_)) return "a turn letter is not one of this grid's";
          turn = Turn::fromCode(turnCode);
          reader.take(letter);
        }
        if (reader.take('x')) run = runLength(reader);
        cell = Cell({slot, static_cast<std::uint32_t>(number)}, turn);
      }
      if (run < 1) return "a run is not between 2 and 64";
      if (x + run > kChunkSide) return "a row holds more than 64 cells";
      for (const int end = x + run; x < end; ++x) row[static_cast<std::size_t>(x)] = cell;
    }
    return layRow(row, x, top, bottom);
  }

  // 2 to 64; anything else is -1.
  static int runLength(LineReader& reader) {
    const int run = reader.number(kChunkSide);
    return run >= 2 && run <= kChunkSide ? run : -1;
  }

  // Lays the first `length` cells of a row on rows `top` to `bottom` of the open chunk.
  std::string layRow(const std::array<Cell, kChunkSide>& row, int length, int top, int bottom) {
    for (int y = top; y <= bottom; ++y) {
      Cell* target = open_.data() + y * kChunkSide;
      for (int x = 0; x < length; ++x) {
        const Cell cell = row[static_cast<std::size_t>(x)];
        if (cell.empty()) continue;
        if (!target[x].empty()) {
          const CellRect area = chunk_->cells();
          return "cell " + std::to_string(area.x0 + x) + ", " + std::to_string(area.y0 + y) + " is given twice";
        }
        target[x] = cell;
      }
    }
    return {};
  }

  void finishChunk() {
    if (chunk_) cells_.setChunk(*chunk_, open_);
  }

  Quilt* quilt_ = nullptr;  // none for plain numbers
  int turnOrder_ = 0;
  int most_ = 0;
  std::unordered_map<std::string, SheetSlot> slots_;
  CellGrid cells_;
  std::optional<ChunkPos> chunk_;  // the chunk whose rows are being read
  ChunkCells open_{};              // and its cells so far
  bool ended_ = false;
};

// Reads all lines; the Error where one is wrong or the end is missing.
std::optional<Error> readLines(Reader& reader, std::string_view text, const std::string& file) {
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
    if (!wrong.empty()) return Error{Error::Cause::broken, std::move(wrong), file, line, {}, {}};
    text.remove_prefix(end + 1);
  }
  if (reader.ended()) return std::nullopt;
  const char* wrong = line == 0 ? "the file is empty" : "the file is cut off: \"end\" is missing";
  return Error{Error::Cause::broken, wrong, file, line + 1, {}, {}};
}

}  // namespace

CellsRead readCells(std::string_view text, Quilt& quilt, int turnOrder, const std::string& file) {
  Reader reader(quilt, turnOrder);
  CellsRead result;
  result.error = readLines(reader, text, file);
  result.cells = reader.takeCells();
  return result;
}

NumbersRead readNumbers(std::string_view text, int most, const std::string& file) {
  Reader reader(most);
  NumbersRead result;
  result.error = readLines(reader, text, file);
  result.numbers = NumberGrid::ofCells(reader.takeCells());
  return result;
}

std::map<SheetSlot, std::int64_t> missingOf(const CellGrid& cells, CellRect bounds, const Quilt& quilt) {
  std::map<SheetSlot, std::int64_t> missing;
  for (const auto& [ref, count] : cells.tally(bounds)) {
    if (!quilt.sheetAt(ref.slot)) missing[ref.slot] += count;
  }
  return missing;
}

}  // namespace uq

#include "core/store/CellsText.h"

#include <algorithm>
#include <array>
#include <bit>
#include <charconv>
#include <cstring>
#include <map>
#include <set>
#include <unordered_map>

namespace uq {

namespace {

constexpr std::string_view kMagic = "cells 1";
constexpr std::size_t kUsualChunkText = 10 * 1024;  // bytes of a dense chunk; only a guess at the room to ask for

// Writes at the end of a text, through a buffer, so that single characters cost next to nothing.
class Pen {
 public:
  explicit Pen(std::string& out) : out_(out), buffer_(kBuffer) {}
  ~Pen() { flush(); }
  Pen(const Pen&) = delete;
  Pen& operator=(const Pen&) = delete;

  // Makes room; to be called before each line, which has at most kLongestCellsLine bytes.
  void beginLine() {
    if (kBuffer - length_ < kLongestCellsLine) flush();
  }
  void put(char c) { buffer_[length_++] = c; }
  void put(std::string_view text) {
    if (text.empty()) return;
    std::memcpy(buffer_.data() + length_, text.data(), text.size());
    length_ += text.size();
  }
  // The first `length` of eight characters.
  void putEight(const char (&text)[8], std::uint32_t length) {
    std::memcpy(buffer_.data() + length_, text, sizeof text);
    length_ += length;
  }
  void put(std::int64_t number) {
    if (number >= 0 && number < 10) {
      put(static_cast<char>('0' + number));
      return;
    }
    char* at = buffer_.data() + length_;
    length_ += static_cast<std::size_t>(std::to_chars(at, at + 20, number).ptr - at);
  }

 private:
  static constexpr std::size_t kBuffer = std::size_t{1} << 16;

  void flush() {
    out_.append(buffer_.data(), length_);
    length_ = 0;
  }

  std::string& out_;
  std::vector<char> buffer_;
  std::size_t length_ = 0;
};

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

using Row = std::array<Cell, kChunkSide>;

// What a tile is written as when its sheet needs no code: a space, the number and the turn. At most eight characters,
// kept for the cells met lately, so that a number's digits are worked out once and copied in one go.
class TokenCache {
 public:
  struct Token {
    std::uint32_t cell = 0;
    std::uint32_t length = 0;
    char text[8] = {};
  };

  const Token& of(Cell cell) {
    Token& token = tokens_[(cell.bits() * 2654435761u) >> 22];
    if (token.cell != cell.bits()) fill(token, cell);
    return token;
  }

 private:
  static void fill(Token& token, Cell cell) {
    token.cell = cell.bits();
    token.text[0] = ' ';
    char* end = std::to_chars(token.text + 1, token.text + 7, cell.tile().number).ptr;
    if (const auto turn = cell.turn().code()) *end++ = static_cast<char>('a' + turn);
    token.length = static_cast<std::uint32_t>(end - token.text);
  }

  std::array<Token, 1024> tokens_{};
};

// "x12" for a run of twelve, nothing for one cell: looked up, for whether a tile repeats cannot be foreseen.
struct RunSuffix {
  char text[8] = {};
  std::uint32_t length = 0;
};
constexpr std::array<RunSuffix, kChunkSide + 1> kRunSuffixes = [] {
  std::array<RunSuffix, kChunkSide + 1> all{};
  for (int run = 2; run <= kChunkSide; ++run) {
    RunSuffix& suffix = all[static_cast<std::size_t>(run)];
    suffix.text[suffix.length++] = 'x';
    if (run > 9) suffix.text[suffix.length++] = static_cast<char>('0' + run / 10);
    suffix.text[suffix.length++] = static_cast<char>('0' + run % 10);
  }
  return all;
}();

// Bit x is set where the cell at x ends a run: its right neighbour differs, or it is the last.
std::uint64_t runEnds(const Row& row) {
  std::uint64_t ends = std::uint64_t{1} << (kChunkSide - 1);
  for (std::size_t x = 0; x + 1 < row.size(); ++x) ends |= std::uint64_t{row[x] != row[x + 1]} << x;
  return ends;
}

void writeRow(const Row& row, const std::vector<std::string_view>& codes, TokenCache& tokens, Pen& pen) {
  SheetSlot lastSlot = 0;
  int x = 0;
  for (std::uint64_t ends = runEnds(row); ends != 0; ends &= ends - 1) {
    const int end = std::countr_zero(ends) + 1;
    const Cell cell = row[static_cast<std::size_t>(x)];
    const int run = end - x;
    x = end;
    if (cell.empty()) {
      if (end == kChunkSide) return;
      pen.put(std::string_view(" ."));
      if (run > 1) pen.put(std::int64_t{run});
      continue;
    }
    const TokenCache::Token& token = tokens.of(cell);
    if (const SheetSlot slot = cell.tile().slot; slot != lastSlot) {
      pen.put(' ');
      pen.put(codes[slot]);
      pen.put(std::string_view(token.text + 1, token.length - 1));
      lastSlot = slot;
    } else {
      pen.putEight(token.text, token.length);
    }
    const RunSuffix& suffix = kRunSuffixes[static_cast<std::size_t>(run)];
    pen.putEight(suffix.text, suffix.length);
  }
}

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
      if (line == kMagic) return {};
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

// The chunks of cells, each slot written with its code.
void writeChunks(std::string& out, const CellGrid& cells, const std::vector<std::string_view>& codeOf) {
  constexpr Row kEmptyRow{};
  TokenCache tokens;
  Pen pen(out);
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    pen.beginLine();
    pen.put('@');
    pen.put(std::int64_t{chunk.at.cx});
    pen.put(',');
    pen.put(std::int64_t{chunk.at.cy});
    pen.put('\n');
    Row row = chunk.row(0);
    for (int y = 0; y < kChunkSide;) {
      int next = y + 1;
      Row nextRow{};
      while (next < kChunkSide && (nextRow = chunk.row(next)) == row) ++next;
      if (row != kEmptyRow) {
        pen.beginLine();
        pen.put(std::int64_t{y});
        if (next - y > 1) {
          pen.put('-');
          pen.put(std::int64_t{next} - 1);
        }
        pen.put(':');
        writeRow(row, codeOf, tokens, pen);
        pen.put('\n');
      }
      row = nextRow;
      y = next;
    }
  });
}

}  // namespace

std::string writeCells(const CellGrid& cells, const Quilt& quilt) {
  std::set<SheetSlot> used;
  std::size_t dense = 0;
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    if (!chunk.dense()) {
      chunk.forEachOccurring([&](Cell cell) {
        if (!cell.empty()) used.insert(cell.tile().slot);
      });
      return;
    }
    ++dense;
    const ChunkCells& all = *chunk.dense();
    const auto painted = std::find_if(all.begin(), all.end(), [](Cell cell) { return !cell.empty(); });
    const SheetSlot first = painted->tile().slot;
    used.insert(first);
    // Most chunks hold tiles of one sheet, which is found out without a branch a cell.
    unsigned others = 0;
    for (Cell cell : all)
      others |= static_cast<unsigned>(cell.bits() != 0) & static_cast<unsigned>(cell.tile().slot != first);
    if (others == 0) return;
    for (Cell cell : all) {
      if (!cell.empty()) used.insert(cell.tile().slot);
    }
  });
  const auto codes = codesFor(used, quilt);

  std::string out;
  out.reserve(64 + dense * kUsualChunkText);
  out += kMagic;
  out += '\n';
  // By code: shorter ones first, so that AA follows Z.
  std::vector<std::pair<std::string, SheetSlot>> lines;
  for (const auto& [slot, code] : codes) lines.emplace_back(code, slot);
  std::sort(lines.begin(), lines.end(), [](const auto& a, const auto& b) {
    return std::pair(a.first.size(), a.first) < std::pair(b.first.size(), b.first);
  });
  for (const auto& [code, slot] : lines) out += code + " " + quilt.slots().sheet(slot).text() + "\n";

  std::vector<std::string_view> codeOf(kLastSlot + 1);
  for (const auto& [slot, code] : codes) codeOf[slot] = code;
  writeChunks(out, cells, codeOf);
  out += "end\n";
  return out;
}

CellsRead readCells(std::string_view text, Quilt& quilt, int turnOrder, const std::string& file) {
  Reader reader(quilt, turnOrder);
  CellsRead result;
  result.error = readLines(reader, text, file);
  result.cells = reader.takeCells();
  return result;
}

std::string writeNumbers(const NumberGrid& numbers) {
  std::string out;
  out += kMagic;
  out += '\n';
  writeChunks(out, numbers.cells(), std::vector<std::string_view>(kLastSlot + 1));
  out += "end\n";
  return out;
}

NumbersRead readNumbers(std::string_view text, int most, const std::string& file) {
  Reader reader(most);
  NumbersRead result;
  result.error = readLines(reader, text, file);
  result.numbers = NumberGrid::ofCells(reader.takeCells());
  return result;
}

}  // namespace uq

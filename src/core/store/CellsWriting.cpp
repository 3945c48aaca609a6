// What of CellsText writes.
#include <algorithm>
#include <array>
#include <bit>
#include <charconv>
#include <cstring>
#include <future>
#include <map>
#include <set>
#include <thread>

#include "core/base/InShares.h"
#include "core/store/CellsText.h"

namespace uq {

namespace {

constexpr std::size_t kChunksAThread = 128;         // fewer are not worth a thread
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

void writeChunk(const CellGrid::ChunkView& chunk, const std::vector<std::string_view>& codeOf, TokenCache& tokens,
                Pen& pen) {
  constexpr Row kEmptyRow{};
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
}

// The chunks of cells, each slot written with its code: many of them by as many threads as there are cores.
void writeChunks(std::string& out, const CellGrid& cells, const std::vector<std::string_view>& codeOf) {
  std::vector<CellGrid::ChunkView> chunks;
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) { chunks.push_back(chunk); });
  const auto written = inShares(chunks.size(), kChunksAThread, [&](std::size_t from, std::size_t to) {
    std::string text;
    text.reserve((to - from) * kUsualChunkText);
    TokenCache tokens;
    Pen pen(text);
    for (std::size_t i = from; i < to; ++i) writeChunk(chunks[i], codeOf, tokens, pen);
    return text;
  });
  for (const std::string& text : written) out += text;
}

}  // namespace

std::string writeCells(const CellGrid& cells, const Quilt& quilt) {
  // A mark for each slot, so that a cell costs one store; slot 0 is that of empty cells.
  std::array<bool, kLastSlot + 1> marks{};
  std::size_t dense = 0;
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    dense += chunk.dense() ? 1 : 0;
    chunk.forEachOccurring([&](Cell cell) { marks[cell.empty() ? 0 : cell.tile().slot] = true; });
  });
  std::set<SheetSlot> used;
  for (std::size_t slot = 1; slot < marks.size(); ++slot) {
    if (marks[slot]) used.insert(static_cast<SheetSlot>(slot));
  }
  const auto codes = codesFor(used, quilt);

  std::string out;
  out.reserve(64 + dense * kUsualChunkText);
  out += kCellsMagic;
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

std::string writeNumbers(const NumberGrid& numbers) {
  std::string out;
  out += kCellsMagic;
  out += '\n';
  writeChunks(out, numbers.cells(), std::vector<std::string_view>(kLastSlot + 1));
  out += "end\n";
  return out;
}

}  // namespace uq

#include "core/store/CellsPatch.h"

#include <charconv>
#include <map>

#include "core/store/CellsText.h"

namespace uq {

namespace {

constexpr std::string_view kEnd = "end";

template <class Visit>
void forEachLine(std::string_view text, Visit&& visit) {
  while (!text.empty()) {
    const auto end = text.find('\n');
    visit(text.substr(0, end));
    if (end == std::string_view::npos) return;
    text.remove_prefix(end + 1);
  }
}

// "@3,-4": the chunk that begins there; nothing for other lines.
std::optional<std::pair<int, int>> chunkOf(std::string_view line) {
  if (!line.starts_with('@')) return std::nullopt;
  const auto comma = line.find(',');
  if (comma == std::string_view::npos) return std::nullopt;
  std::pair<int, int> at;
  const auto x = std::from_chars(line.data() + 1, line.data() + comma, at.first);
  const auto y = std::from_chars(line.data() + comma + 1, line.data() + line.size(), at.second);
  const bool whole = x.ptr == line.data() + comma && y.ptr == line.data() + line.size();
  return whole ? std::optional(at) : std::nullopt;
}

// "AB abcdefgh2345": the code and the sheet of a line in the head.
std::pair<std::string, std::string> sheetOf(std::string_view line) {
  const auto space = line.find(' ');
  if (space == std::string_view::npos) return {};
  return {std::string(line.substr(0, space)), std::string(line.substr(space + 1))};
}

bool isCapital(char one) { return one >= 'A' && one <= 'Z'; }

// A code that is none of these.
std::string freeCodeAmong(const std::map<std::string, std::string>& taken) {
  for (char a = 'A'; a <= 'Z'; ++a) {
    for (char b = 'A'; b <= 'Z'; ++b) {
      for (char c = 'A'; c <= 'Z'; ++c) {
        std::string code{a, b, c};
        if (!taken.contains(code)) return code;
      }
    }
  }
  return "ZZZ";
}

// A row with other codes: each item begins with one, or with its number.
std::string recoded(std::string_view line, const std::map<std::string, std::string>& codes) {
  std::string out;
  bool begins = false;
  for (std::size_t i = 0; i < line.size(); ++i) {
    if (begins && isCapital(line[i])) {
      std::size_t end = i;
      while (end < line.size() && isCapital(line[end])) ++end;
      const std::string code(line.substr(i, end - i));
      const auto other = codes.find(code);
      out += other == codes.end() ? code : other->second;
      i = end - 1;
      begins = false;
      continue;
    }
    begins = line[i] == ' ';
    out += line[i];
  }
  return out;
}

}  // namespace

std::vector<ChunkPos> chunksBetween(const CellGrid& before, const CellGrid& after) {
  std::vector<ChunkPos> chunks;
  const auto differs = [](const CellGrid::ChunkView& a, const CellGrid::ChunkView& b) { return !(a.cells() == b.cells()); };
  LayerCells a;
  LayerCells b;
  a.cells = before;
  b.cells = after;
  for (const CellRect& box : LayerCells::differences(a, b)) {
    const ChunkPos at = ChunkPos::of({box.x0, box.y0});
    if (differs(before.chunk(at), after.chunk(at))) chunks.push_back(at);
  }
  return chunks;
}

std::string writeChunks(const CellGrid& cells, const std::vector<ChunkPos>& chunks, const Quilt& quilt) {
  CellGrid part;
  for (const ChunkPos at : chunks) part.setChunk(at, cells.chunk(at).cells());
  return writeCells(part, quilt);
}

std::string patchedCells(std::string_view text, std::string_view patch, const std::set<std::pair<int, int>>& chunks) {
  // The heads: sheets by code.
  std::map<std::string, std::string> codes;
  std::string head = text.empty() ? std::string(kCellsMagic) + "\n" : std::string();
  std::string body;
  bool inBody = false;
  bool left = false;
  bool ends = text.empty();
  forEachLine(text, [&](std::string_view line) {
    ends = ends || line == kEnd;
    if (line == kEnd) return;
    if (const auto chunk = chunkOf(line)) {
      inBody = true;
      left = chunks.contains(*chunk);
    }
    if (inBody && left) return;
    std::string& to = inBody ? body : head;
    to.append(line).push_back('\n');
    if (!inBody && line != kCellsMagic) {
      const auto [code, sheet] = sheetOf(line);
      codes[code] = sheet;
    }
  });
  std::map<std::string, std::string> renamed;
  inBody = false;
  bool patchEnds = false;
  forEachLine(patch, [&](std::string_view line) {
    patchEnds = patchEnds || line == kEnd;
    if (line == kEnd || line == kCellsMagic) return;
    inBody = inBody || chunkOf(line);
    if (inBody) {
      body.append(renamed.empty() || line.starts_with('@') ? std::string(line) : recoded(line, renamed)).push_back('\n');
      return;
    }
    auto [code, sheet] = sheetOf(line);
    const auto known = codes.find(code);
    if (known != codes.end() && known->second == sheet) return;
    if (known != codes.end()) {
      std::string other;
      for (const auto& [old, of] : codes) other = of == sheet ? old : other;
      const bool isNew = other.empty();
      if (isNew) other = freeCodeAmong(codes);
      renamed[code] = other;
      if (!isNew) return;
      code = other;
    }
    codes[code] = sheet;
    head.append(code + " " + sheet).push_back('\n');
  });
  // Where one of them is cut off, so is what comes of them.
  return ends && patchEnds ? head + body + std::string(kEnd) + "\n" : head + body;
}

}  // namespace uq

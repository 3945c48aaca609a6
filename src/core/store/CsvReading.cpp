#include "core/store/CsvReading.h"

#include <csv.h>

#include <algorithm>
#include <charconv>
#include <map>
#include <optional>

#include "core/store/ExchangeText.h"

namespace uq {

namespace {

constexpr int kMostAcross = 65'536;  // columns, and rows
constexpr std::size_t kMostNamesTold = 20;

class CsvTable {
 public:
  explicit CsvTable(const Quilt& quilt) {
    for (const auto& [id, number] : exchangeNumbers(quilt)) {
      if (const auto slot = quilt.slots().find(id)) byNumber_[number] = {*slot, quilt.sheet(id)};
    }
    byNumber_[kChalkSlot] = {kChalkSlot, &chalk()};
    for (const Shared<Sheet>& sheet : quilt.sheets()) {
      const auto slot = quilt.slots().find(sheet->id);
      for (std::uint32_t tile = 0; slot && tile < sheet->endOfNumbers(); ++tile) {
        if (sheet->place(tile)) byName_.try_emplace(sheet->tileName(tile), Cell({*slot, tile}, {}));
      }
    }
  }

  void value(std::string_view text) {
    if (column_ >= kMostAcross || read_.rows >= kMostAcross) tooLarge_ = true;
    const int x = column_++;
    if (tooLarge_ || text.empty() || text == "0" || text == "-1") return;
    const auto cell = cellOf(text);
    if (cell) {
      read_.cells.set({x, read_.rows}, *cell);
      ++read_.laid;
      return;
    }
    ++read_.unknown;
    std::string name(text.substr(0, 100));
    if (read_.unknownNames.size() < kMostNamesTold && std::find(read_.unknownNames.begin(), read_.unknownNames.end(), name) == read_.unknownNames.end()) read_.unknownNames.push_back(std::move(name));
  }
  void endLine() {
    read_.columns = std::max(read_.columns, std::exchange(column_, 0));
    ++read_.rows;
  }
  bool isTooLarge() const { return tooLarge_; }
  CsvCells take() { return std::move(read_); }

 private:
  struct Numbered {
    SheetSlot slot = 0;
    const Sheet* sheet = nullptr;
  };
  std::optional<Cell> cellOf(std::string_view text) const {
    if (const auto named = byName_.find(text); named != byName_.end()) return named->second;
    std::uint32_t number = 0;
    const auto read = std::from_chars(text.data(), text.data() + text.size(), number);
    if (read.ec != std::errc() || read.ptr != text.data() + text.size()) return std::nullopt;
    const auto sheet = byNumber_.find(number >> 22);
    const std::uint32_t tile = number >> 4 & 0x3FFFF;
    const std::uint32_t turn = number & 15;
    if (sheet == byNumber_.end() || turn >= Turn::kCodes || !sheet->second.sheet->place(tile)) return std::nullopt;
    return Cell({sheet->second.slot, tile}, Turn::fromCode(turn));
  }

  std::map<std::uint32_t, Numbered> byNumber_;
  std::map<std::string, Cell, std::less<>> byName_;
  CsvCells read_;
  int column_ = 0;
  bool tooLarge_ = false;
};

}  // namespace

Result<CsvCells> readCsv(const Quilt& quilt, const std::string& text, const std::string& file) {
  CsvTable table(quilt);
  csv_parser parser{};
  if (csv_init(&parser, CSV_STRICT | CSV_STRICT_FINI) != 0) return fail(Error::Cause::other, "there is no memory for it", file);
  const auto value = [](void* bytes, std::size_t size, void* to) { static_cast<CsvTable*>(to)->value({static_cast<const char*>(bytes), size}); };
  const auto line = [](int, void* to) { static_cast<CsvTable*>(to)->endLine(); };
  const std::size_t read = csv_parse(&parser, text.data(), text.size(), value, line, &table);
  const bool isWhole = read == text.size() && csv_fini(&parser, value, line, &table) == 0;
  csv_free(&parser);
  CsvCells cells = table.take();
  if (!isWhole) {
    const int at = 1 + static_cast<int>(std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(std::min(read, text.size())), '\n'));
    return fail(Error{Error::Cause::broken, "a quoted value does not end, or stands amid another", file, at, "Nothing was changed", "Mend the table there"});
  }
  if (table.isTooLarge()) return fail(Error{Error::Cause::tooLarge, "it has more than 65,536 columns or rows", file, 0, "Nothing was changed", "Bring in a part of it"});
  if (cells.columns == 0 || cells.rows == 0) return fail(Error{Error::Cause::broken, "there is nothing in it", file, 0, "Nothing was changed", "Choose another file"});
  return cells;
}

}  // namespace uq

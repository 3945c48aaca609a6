#include "core/store/CsvText.h"

#include <charconv>

#include "core/cells/CellReader.h"
#include "core/store/ExchangeText.h"

namespace uq {

namespace {

void addQuoted(std::string& text, const std::string& value) {
  if (value.find_first_of(",\"\r\n") == std::string::npos) {
    text += value;
    return;
  }
  text += '"';
  for (const char one : value) {
    if (one == '"') text += '"';
    text += one;
  }
  text += '"';
}

}  // namespace

std::string_view csvAsName(CsvAs as) { return as == CsvAs::names ? "names" : "numbers"; }
std::optional<CsvAs> csvAsFromName(std::string_view name) {
  for (const CsvAs as : {CsvAs::numbers, CsvAs::names}) {
    if (name == csvAsName(as)) return as;
  }
  return std::nullopt;
}

std::string csvText(const Quilt& quilt, const Map& map, const Layer& layer, CsvAs as) {
  const ExchangeCells numbers(quilt);
  CellReader cells(layer.cells);
  std::string text;
  for (int y = map.bounds.y0; y < map.bounds.y1; ++y) {
    for (int x = map.bounds.x0; x < map.bounds.x1; ++x) {
      if (x > map.bounds.x0) text += ',';
      const Cell cell = cells.at({x, y});
      if (as == CsvAs::names) {
        const Sheet* sheet = cell.empty() ? nullptr : quilt.sheetAt(cell.tile().slot);
        if (sheet) addQuoted(text, sheet->tileName(cell.tile().number));
        continue;
      }
      char digits[16];
      text.append(digits, std::to_chars(digits, digits + sizeof digits, numbers.numberOf(cell)).ptr);
    }
    text += "\r\n";
  }
  return text;
}

}  // namespace uq

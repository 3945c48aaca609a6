#define XXH_INLINE_ALL
#include <xxhash.h>

#include "core/store/ExportState.h"

#include <charconv>
#include <memory>
#include <vector>

#include "core/store/Documents.h"
#include "core/store/ExchangeText.h"
#include "core/store/JsonText.h"
#include "core/store/PinsText.h"

namespace uq {

namespace {

std::string hexOf(std::uint64_t sum) {
  char digits[16];
  const std::string text(digits, std::to_chars(digits, digits + sizeof digits, sum, 16).ptr);
  return std::string(16 - text.size(), '0') + text;
}

// Of several texts, each with its length, so that none can be taken for a part of another.
class Summing {
 public:
  void add(std::string_view bytes) {
    const std::uint64_t size = bytes.size();
    sum_.add({reinterpret_cast<const char*>(&size), sizeof size});
    sum_.add(bytes);
  }
  std::string text() const { return sum_.text(); }

 private:
  BytesSum sum_;
};

// By numbers of the exchange: slots are given out anew each time a quilt is opened.
void addCells(Summing& sum, const CellGrid& cells, const std::function<std::uint32_t(Cell)>& numberOf) {
  std::vector<std::uint32_t> numbers;
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    numbers = {static_cast<std::uint32_t>(chunk.at.cx), static_cast<std::uint32_t>(chunk.at.cy)};
    if (chunk.isUniform()) {
      numbers.push_back(numberOf(chunk.uniform()));
    } else {
      for (int y = 0; y < kChunkSide; ++y) {
        for (const Cell cell : chunk.row(y)) numbers.push_back(numberOf(cell));
      }
    }
    sum.add({reinterpret_cast<const char*>(numbers.data()), numbers.size() * sizeof(std::uint32_t)});
  });
}

}  // namespace

struct BytesSum::State {
  XXH3_state_t* sum = XXH3_createState();
  State() { XXH3_64bits_reset(sum); }
  ~State() { XXH3_freeState(sum); }
  State(const State&) = delete;
  State& operator=(const State&) = delete;
};

BytesSum::BytesSum() : state_(std::make_unique<State>()) {}
BytesSum::~BytesSum() = default;
void BytesSum::add(std::string_view bytes) { XXH3_64bits_update(state_->sum, bytes.data(), bytes.size()); }
std::string BytesSum::text() const { return hexOf(XXH3_64bits_digest(state_->sum)); }

std::string sumOf(std::string_view bytes) { return hexOf(XXH3_64bits(bytes.data(), bytes.size())); }

ExportStates::ExportStates(const Quilt& quilt, std::string how, bool ofOthers) : quilt_(quilt), how_(std::move(how)) {
  Summing sum;
  sum.add(how_);
  sum.add(std::to_string(kFormatMinor) + "." + std::to_string(kExchangeMinor));
  for (const Shared<Sheet>& sheet : quilt.sheets()) {
    sum.add(writeJson(sheetDocument(sheet.read())));
    sum.add(sheet->source.read());
    for (const CollectedPicture& one : sheet->collection) sum.add(one.source.read());
  }
  names_ = sumOf(exchangeQuiltText(quilt));
  if (ofOthers) sum.add(names_);
  shared_ = sum.text();
}

std::string ExportStates::of(const Map& map) const {
  const ExchangeCells numbers(quilt_);
  Summing sum;
  sum.add(shared_);
  sum.add(writeJson(mapDocument(map)));
  for (const Shared<Layer>& layer : map.layers) {
    addCells(sum, layer->cells, [&](Cell cell) { return numbers.numberOf(cell); });
    addCells(sum, layer->lifts.cells(), [](Cell cell) { return static_cast<std::uint32_t>(NumberGrid::numberOf(cell)); });
    if (layer->holdsPins()) sum.add(writeJson(pinsDocument(layer->pins.read())));
  }
  return sum.text();
}

std::string ExportStates::ofQuilt(bool withCells) const {
  Summing sum;
  sum.add(shared_);
  sum.add(names_);
  for (const Shared<Map>& map : quilt_.maps()) {
    if (withCells) sum.add(of(map.read()));
  }
  return sum.text();
}

}  // namespace uq

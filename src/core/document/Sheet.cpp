#include "core/document/Sheet.h"

#include <algorithm>
#include <cmath>

namespace uq {

namespace {

int cellsAlong(int room, int border, int cell, int gap) {
  return std::max(0, (room - 2 * border + gap) / (cell + gap));
}

auto memberFor(const std::vector<CollectedPicture>& collection, std::uint32_t number) {
  const auto found = std::lower_bound(collection.begin(), collection.end(), number,
                                      [](const CollectedPicture& one, std::uint32_t n) { return one.number < n; });
  return found != collection.end() && found->number == number ? found : collection.end();
}

}  // namespace

PixelSize cellsOf(const SheetCut& cut, PixelSize picture) {
  return {cellsAlong(picture.w - cut.offset.x, cut.border, cut.cell.w, cut.gap),
          cellsAlong(picture.h - cut.offset.y, cut.border, cut.cell.h, cut.gap)};
}

int Sheet::columns() const {
  return isCollection() ? static_cast<int>(collection.size()) : cellsOf(cut, pictureSize).w;
}
int Sheet::rows() const { return isCollection() ? 1 : cellsOf(cut, pictureSize).h; }

PixelRect Sheet::cellRect(std::uint32_t cell) const {
  if (isCollection()) {
    const CollectedPicture& one = collection[cell];
    return {one.at.x, one.at.y, one.size.w, one.size.h};
  }
  const int wide = std::max(1, columns());
  const int column = static_cast<int>(cell) % wide;
  const int row = static_cast<int>(cell) / wide;
  return {cut.offset.x + cut.border + column * (cut.cell.w + cut.gap),
          cut.offset.y + cut.border + row * (cut.cell.h + cut.gap), cut.cell.w, cut.cell.h};
}

std::uint32_t Sheet::numberAt(std::uint32_t cell) const {
  return isCollection() ? collection[cell].number : places->numberAt(cell);
}

std::optional<std::uint32_t> Sheet::cellOf(std::uint32_t number) const {
  if (isCollection()) {
    const auto found = memberFor(collection, number);
    if (found == collection.end()) return std::nullopt;
    return static_cast<std::uint32_t>(found - collection.begin());
  }
  const std::uint32_t cell = places->cellOf(number);
  if (cell >= static_cast<std::uint32_t>(tileCount())) return std::nullopt;
  return cell;
}

std::optional<std::uint32_t> Sheet::cellAt(PixelPos at) const {
  if (isCollection()) {
    for (std::uint32_t i = 0; i < collection.size(); ++i) {
      if (cellRect(i).contains(at)) return i;
    }
    return std::nullopt;
  }
  const int x = at.x - cut.offset.x - cut.border;
  const int y = at.y - cut.offset.y - cut.border;
  const int column = x < 0 ? -1 : x / (cut.cell.w + cut.gap);
  const int row = y < 0 ? -1 : y / (cut.cell.h + cut.gap);
  if (column < 0 || row < 0 || column >= columns() || row >= rows()) return std::nullopt;
  const auto cell = static_cast<std::uint32_t>(row * columns() + column);
  return cellRect(cell).contains(at) ? std::optional(cell) : std::nullopt;
}

TilePlaces::Twin Sheet::shows(std::uint32_t number) const {
  const auto twin = places->twins.find(number);
  return twin == places->twins.end() ? TilePlaces::Twin{number, false} : twin->second;
}

std::optional<PixelRect> Sheet::place(std::uint32_t number) const {
  const std::uint32_t shown = shows(number).of;
  if (const auto old = places->retired.find(shown); old != places->retired.end()) return old->second;
  const auto cell = cellOf(shown);
  if (!cell) return std::nullopt;
  return cellRect(*cell);
}

bool Sheet::offers(std::uint32_t number) const {
  return cellOf(number) && !places->twins.contains(number) && !places->dropped.contains(number);
}

std::uint32_t Sheet::endOfNumbers() const {
  std::uint32_t end = static_cast<std::uint32_t>(tileCount());
  if (isCollection()) end = collection.back().number + 1;
  for (const std::uint32_t number : places->numbers()) end = std::max(end, number + 1);
  if (!places->retired.empty()) end = std::max(end, places->retired.rbegin()->first + 1);
  if (!places->twins.empty()) end = std::max(end, places->twins.rbegin()->first + 1);
  return end;
}

const TileFacts& Sheet::factsOf(std::uint32_t number) const {
  static const TileFacts none;
  const auto said = tiles.find(number);
  return said == tiles.end() ? none : said->second;
}

const Stance& Sheet::stanceOf(std::uint32_t number) const {
  const TileFacts& facts = factsOf(number);
  return facts.stance ? *facts.stance : stance;
}

Footing Sheet::footingOf(std::uint32_t number) const { return factsOf(number).footing.value_or(footing); }

const Facing* Sheet::facingOf(std::uint32_t number) const {
  for (const Facing& facing : facings) {
    if (std::find(facing.begin(), facing.end(), std::optional(number)) != facing.end()) return &facing;
  }
  return nullptr;
}

const Frames* Sheet::framesOf(std::uint32_t number) const {
  const Frames& frames = factsOf(number).frames;
  return frames.empty() ? nullptr : &frames;
}

std::string Sheet::tileName(std::uint32_t number) const {
  const TileFacts& facts = factsOf(number);
  return facts.name.empty() ? name + " " + std::to_string(number) : facts.name;
}

namespace {

constexpr std::pair<OddSizes, std::string_view> kOddSizes[] = {{OddSizes::asTheyAre, "as-they-are"},
                                                              {OddSizes::padded, "padded"},
                                                              {OddSizes::cropped, "cropped"},
                                                              {OddSizes::scaled, "scaled"}};

// Whether the one side is the other, enlarged or shrunk by a whole factor.
bool isWhole(int from, int to) { return from > 0 && to > 0 && (to % from == 0 || from % to == 0); }

}  // namespace

std::string_view oddSizesName(OddSizes odd) { return kOddSizes[static_cast<std::size_t>(odd)].second; }

std::optional<OddSizes> oddSizesFromName(std::string_view name) {
  for (const auto& [odd, called] : kOddSizes) {
    if (called == name) return odd;
  }
  return std::nullopt;
}

PixelSize usualSize(const std::vector<PixelSize>& sizes) {
  std::map<std::pair<int, int>, int> counts;
  for (const PixelSize size : sizes) ++counts[{size.w, size.h}];
  PixelSize usual;
  int most = 0;
  for (const auto& [size, count] : counts) {
    if (count <= most) continue;
    most = count;
    usual = {size.first, size.second};
  }
  return usual;
}

std::optional<std::vector<PixelSize>> fittedSizes(const std::vector<PixelSize>& sizes, OddSizes odd) {
  if (odd == OddSizes::asTheyAre || sizes.empty()) return sizes;
  PixelSize all = odd == OddSizes::scaled ? usualSize(sizes) : sizes.front();
  for (const PixelSize size : sizes) {
    const auto side = [odd](int a, int b) { return odd == OddSizes::padded ? std::max(a, b) : std::min(a, b); };
    if (odd != OddSizes::scaled) {
      all = {side(all.w, size.w), side(all.h, size.h)};
      continue;
    }
    const bool grows = size.w <= all.w;
    const bool alike = isWhole(size.w, all.w) && isWhole(size.h, all.h) &&
                       (grows ? all.w / size.w * size.h == all.h : size.w / all.w * all.h == size.h);
    if (!alike) return std::nullopt;
  }
  return std::vector<PixelSize>(sizes.size(), all);
}

void layOutCollection(Sheet& sheet) {
  constexpr int kBetween = 2;
  double area = 0;
  for (const CollectedPicture& one : sheet.collection) {
    area += static_cast<double>(one.size.w + kBetween) * (one.size.h + kBetween);
  }
  const int wide = std::max(kUsualTableWidth, static_cast<int>(std::sqrt(area)));
  int x = 0;
  int y = 0;
  int high = 0;
  PixelSize all{1, 1};
  for (CollectedPicture& one : sheet.collection) {
    if (x > 0 && x + one.size.w > wide) {
      x = 0;
      y += high + kBetween;
      high = 0;
    }
    one.at = {x, y};
    x += one.size.w + kBetween;
    high = std::max(high, one.size.h);
    all.w = std::max(all.w, one.at.x + one.size.w);
    all.h = std::max(all.h, y + high);
  }
  sheet.pictureSize = all;
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

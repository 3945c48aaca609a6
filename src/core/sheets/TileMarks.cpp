#include "core/sheets/TileMarks.h"

namespace uq {

namespace {

constexpr std::uint64_t kBasis = 0xcbf29ce484222325u;
constexpr std::uint64_t kPrime = 0x100000001b3u;

constexpr std::uint64_t mixed(std::uint64_t mark, std::uint64_t value) { return (mark ^ value) * kPrime; }

bool isInside(const PixelView& picture, const PixelRect& part) {
  return part.x >= 0 && part.y >= 0 && part.right() <= picture.w && part.bottom() <= picture.h;
}

template <class At>
std::uint64_t markedBy(const PixelRect& part, At&& at) {
  std::uint64_t mark = mixed(mixed(kBasis, static_cast<std::uint64_t>(part.w)), static_cast<std::uint64_t>(part.h));
  std::uint32_t any = 0;
  for (int y = 0; y < part.h; ++y) {
    for (int x = 0; x < part.w; ++x) {
      const std::uint32_t pixel = at(x, y);
      any |= pixel;
      mark = mixed(mark, pixel);
    }
  }
  return alphaOf(any) == 0 ? 0 : mark == 0 ? 1 : mark;
}

}  // namespace

std::uint64_t markOf(std::string_view bytes) {
  std::uint64_t mark = kBasis;
  for (const char c : bytes) mark = mixed(mark, static_cast<unsigned char>(c));
  return mark == 0 ? 1 : mark;
}

std::uint64_t markOf(const PixelView& picture, const PixelRect& part) {
  return markedBy(part, [&](int x, int y) { return picture.at(part.x + x, part.y + y); });
}

std::uint64_t mirroredMarkOf(const PixelView& picture, const PixelRect& part) {
  return markedBy(part, [&](int x, int y) { return picture.at(part.right() - 1 - x, part.y + y); });
}

std::uint64_t sourceMark(const Sheet& sheet) {
  if (!sheet.isCollection()) return markOf(sheet.source.read());
  std::uint64_t mark = kBasis;
  for (const CollectedPicture& one : sheet.collection) mark = mixed(mark, markOf(one.source.read()));
  return mark == 0 ? 1 : mark;
}

SheetMarks marksOf(const Sheet& sheet, const PixelView& picture, Progress* progress) {
  SheetMarks marks;
  marks.picture = sourceMark(sheet);
  const auto count = static_cast<std::uint32_t>(sheet.tileCount());
  marks.tiles.resize(count, 0);
  for (std::uint32_t cell = 0; cell < count; ++cell) {
    if (progress && cell % 4096 == 0 && progress->isCancelled()) break;
    const PixelRect part = sheet.cellRect(cell);
    if (isInside(picture, part)) marks.tiles[cell] = markOf(picture, part);
  }
  return marks;
}

}  // namespace uq

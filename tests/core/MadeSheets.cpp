#include "core/MadeSheets.h"

#include <algorithm>
#include <array>
#include <random>

namespace uq::test {

namespace {

constexpr std::array<int, 8> kUsual = {8, 16, 24, 32, 48, 64, 96, 128};
// Pairs of a colour and a darker shade.
constexpr std::array<std::array<std::uint32_t, 2>, 8> kColours = {{{0xff8fa46f, 0xff61795a},
                                                                   {0xffa0563f, 0xff6e3b2e},
                                                                   {0xff8f8c86, 0xff6b7689},
                                                                   {0xff5a9a9b, 0xff2f6b74},
                                                                   {0xffe0a84e, 0xffc77b4a},
                                                                   {0xffe6dcc8, 0xffb9b3a5},
                                                                   {0xffa2627c, 0xff5b3a55},
                                                                   {0xff3a4256, 0xff1b2030}}};
constexpr std::array<std::array<int, 4>, 4> kOrdered = {{{0, 8, 2, 10}, {12, 4, 14, 6}, {3, 11, 1, 9}, {15, 7, 13, 5}}};

class Maker {
 public:
  explicit Maker(std::uint64_t seed) : random_(seed * 0x9e3779b97f4a7c15u + 1) {}

  MadeSheet make() {
    made_.art = kArts[below(4)];
    SheetCut& cut = made_.cut;
    switch (below(4)) {
      case 0: cut.cell = {usual(), usual()}; break;
      case 1: cut.cell = {8 + below(121), 8 + below(121)}; break;
      default: cut.cell.w = cut.cell.h = usual();
    }
    if (below(3) == 0) cut.gap = 1 + below(4);
    if (below(4) == 0) cut.border = 1 + below(8);
    const auto count = [this](int cell) { return 3 + below(std::clamp(900 / cell, 4, 22) - 2); };
    columns_ = count(cut.cell.w);
    rows_ = count(cut.cell.h);
    const auto along = [&cut](int cells, int cell) { return 2 * cut.border + cells * cell + (cells - 1) * cut.gap; };
    made_.size = {along(columns_, cut.cell.w), along(rows_, cut.cell.h)};
    const std::uint32_t between = below(4) == 0 ? kColours[below(8)][1] : (below(8) == 0 ? 0xffff00ffu : 0u);
    made_.pixels.assign(static_cast<std::size_t>(made_.size.w) * static_cast<std::size_t>(made_.size.h), between);
    // Where the sheet is opaque between its tiles, objects stand on that colour.
    const int empties = below(34);
    for (int row = 0; row < rows_; ++row) {
      const Art art = made_.art == Art::mixture ? kArts[below(3)] : made_.art;
      for (int column = 0; column < columns_; ++column) {
        if (below(100) < empties) continue;
        const PixelRect at{cut.border + column * (cut.cell.w + cut.gap), cut.border + row * (cut.cell.h + cut.gap),
                           cut.cell.w, cut.cell.h};
        const std::size_t colour = static_cast<std::size_t>(below(8));
        switch (art) {
          case Art::ground: column += ground(at, colour, columns_ - column - 1); break;
          case Art::objects: object(at, colour, column, row); break;
          default: framed(at, colour);
        }
      }
    }
    return made_;
  }

 private:
  int below(int end) { return static_cast<int>(random_() % static_cast<std::uint64_t>(end)); }
  int usual() { return kUsual[static_cast<std::size_t>(below(kUsual.size()))]; }

  void set(int x, int y, std::uint32_t colour) {
    if (x < 0 || y < 0 || x >= made_.size.w || y >= made_.size.h) return;
    made_.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(made_.size.w) + static_cast<std::size_t>(x)] =
        colour;
  }

  void texture(const PixelRect& at, std::size_t colour, int density) {
    const int kind = below(3);
    const int step = 3 + below(6);
    for (int y = 0; y < at.h; ++y) {
      for (int x = 0; x < at.w; ++x) {
        bool dark = kOrdered[static_cast<std::size_t>(y % 4)][static_cast<std::size_t>(x % 4)] < density;
        if (kind == 1) dark = (y % step == 0) || ((x + (y / step % 2) * step) % (2 * step) == 0);  // setts
        if (kind == 2) dark = dark && (x / step + y / step) % 2 == 0;                              // patches
        set(at.x + x, at.y + y, kColours[colour][dark ? 1 : 0]);
      }
    }
  }

  // A ground and up to two look-alikes to its right; how many of those.
  int ground(const PixelRect& at, std::size_t colour, int room) {
    const int looks = std::min(room, below(3));
    const int density = 2 + below(7);
    for (int look = 0; look <= looks; ++look) {
      PixelRect one = at;
      one.x += look * (at.w + made_.cut.gap);
      texture(one, colour, density);
      const int marks = 1 + below(5);
      for (int i = 0; i < marks; ++i) {
        const int x = one.x + below(one.w);
        const int y = one.y + below(one.h);
        for (int k = 0; k < 2 + below(4) && x + k < one.right(); ++k) set(x + k, y, kColours[(colour + 7) % 8][1]);
      }
    }
    return looks;
  }

  // A round or square thing with a dark edge, light from the upper left.
  void object(PixelRect at, std::size_t colour, int column, int row) {
    if (below(8) == 0 && column + 1 < columns_) at.w += made_.cut.cell.w + made_.cut.gap;
    if (below(8) == 0 && row + 1 < rows_) at.h += made_.cut.cell.h + made_.cut.gap;
    const int most = std::max(1, std::min(at.w, at.h) / 4);
    PixelRect box = at;
    box.x += below(most);
    box.y += below(most);
    box.w = std::max(3, at.right() - box.x - below(most));
    box.h = std::max(3, at.bottom() - box.y - below(most));
    const bool round = below(2) == 0;
    for (int y = 0; y < box.h; ++y) {
      for (int x = 0; x < box.w; ++x) {
        const double dx = (2.0 * x + 1 - box.w) / box.w;
        const double dy = (2.0 * y + 1 - box.h) / box.h;
        const double far = round ? dx * dx + dy * dy : std::max(dx * dx, dy * dy);
        if (far > 1) continue;
        const bool edge = far > 0.8 || x == 0 || y == 0;
        set(box.x + x, box.y + y, edge ? 0xff1b2030 : kColours[colour][x + y > (box.w + box.h) / 2 ? 1 : 0]);
      }
    }
  }

  void framed(const PixelRect& at, std::size_t colour) {
    texture(at, colour, 3 + below(5));
    const int width = 1 + below(2);
    const std::uint32_t frame = below(2) == 0 ? 0xff1b2030 : kColours[colour][1];
    for (int y = 0; y < at.h; ++y) {
      for (int x = 0; x < at.w; ++x) {
        if (std::min({x, y, at.w - 1 - x, at.h - 1 - y}) < width) set(at.x + x, at.y + y, frame);
      }
    }
  }

  std::mt19937_64 random_;
  MadeSheet made_;
  int columns_ = 0;
  int rows_ = 0;
};

}  // namespace

std::string MadeSheet::text() const {
  constexpr const char* names[] = {"ground", "objects", "framed", "mixture"};
  return std::string(names[static_cast<int>(art)]) + ", " + std::to_string(cut.cell.w) + " × " +
         std::to_string(cut.cell.h) + ", border " + std::to_string(cut.border) + ", gap " + std::to_string(cut.gap);
}

MadeSheet madeSheet(std::uint64_t seed) { return Maker(seed).make(); }

}  // namespace uq::test

// TileMaker: a sheet that grows as a map asks for tiles. A tile is drawn when it is asked for first, and keeps its number.
#pragma once

#include <functional>
#include <map>
#include <string>
#include <vector>

#include "art/Pixels.h"
#include "art/Sheets.h"

namespace uq::art {

class TileMaker {
 public:
  TileMaker(int tileWidth, int tileHeight, int columns) : width_(tileWidth), height_(tileHeight), columns_(columns) {}

  // The number of the tile of that name; drawn by `draw` on an empty canvas if it is new.
  unsigned tile(const std::string& name, const std::function<void(Pixels&)>& draw) {
    const auto [at, isNew] = numbers_.try_emplace(name, static_cast<unsigned>(tiles_.size()));
    if (isNew) {
      tiles_.emplace_back(width_, height_);
      draw(tiles_.back());
    }
    return at->second;
  }
  unsigned count() const { return static_cast<unsigned>(tiles_.size()); }

  // All tiles in rows, with their names.
  DrawnSheet drawn() const {
    const int count = static_cast<int>(tiles_.size());
    Pixels all(width_ * columns_, height_ * ((count + columns_ - 1) / columns_));
    for (int i = 0; i < count; ++i) {
      all.paste(tiles_[static_cast<std::size_t>(i)], i % columns_ * width_, i / columns_ * height_);
    }
    DrawnSheet sheet{all.image(), {}};
    for (const auto& [name, number] : numbers_) sheet.names[number] = name;
    return sheet;
  }

 private:
  int width_;
  int height_;
  int columns_;
  std::vector<Pixels> tiles_;
  std::map<std::string, unsigned> numbers_;
};

}  // namespace uq::art

// FilmWriter: how a map was made, as pictures: an animated WebP (libwebp's animation encoder, without loss), or one PNG for each frame.
//
// All frames show the same part: whatever the map ever covered. A state that is seen for several frames is one of the WebP. Cost: a
// drawing of the map for each state that is seen, and packing its pixels. Threads: any one, with a painter of its own.
#pragma once

#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/history/Film.h"
#include "core/store/Disk.h"
#include "raster/MapPainter.h"

namespace uq {

inline constexpr int kFilmFrames = 25;  // a second
inline constexpr int kMostFilmSeconds = 600;
inline constexpr int kWidestFilm = 4096;  // pixels each way

struct FilmPlan {
  Id map;
  int width = 1280;   // of a frame, in pixels, 16 .. kWidestFilm; it is as high as that makes it
  int seconds = 20;   // 1 .. kMostFilmSeconds
  bool asFrames = false;  // PNGs in a folder, frame-0001.png and on; else one WebP
};

// The states that look different on the map, and the map in each; those before it was there are left out.
std::vector<FilmState> filmOfMap(const std::vector<FilmState>& states, Id map);

// What all frames show, in map pixels.
PixelRect filmPart(MapPainter& painter, const std::vector<FilmState>& states, Id map);
// One of them, `size` at most; over its cloth.
QImage filmFrame(MapPainter& painter, const FilmState& state, Id map, const PixelRect& part, QSize size);

// Writes a film; `path` is the file, or the folder of frames, which is made. How many pictures that are. The file is whole or not
// there. An Error where there is no state, it cannot be written, or was cancelled; frames that are written stay then.
Result<int> writeFilm(Disk& disk, MapPainter& painter, const std::vector<FilmState>& states, const FilmPlan& plan, const std::string& path, Progress* progress = nullptr);

}  // namespace uq

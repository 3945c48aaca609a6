#include "raster/FilmWriter.h"

#include <webp/encode.h>
#include <webp/mux.h>

#include <algorithm>
#include <cmath>
#include <memory>

#include "raster/BlankPicture.h"
#include "raster/MapExport.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr float kEffort = 60;  // of packing without loss, 0 .. 100

Error cancelled(const std::string& path) { return {Error::Cause::cancelled, "writing the film was cancelled", path, 0, "No file was changed", {}}; }

QSize frameSize(const PixelRect& part, int width) {
  const int wide = std::clamp(width, 16, kWidestFilm);
  const double high = static_cast<double>(wide) * part.h / std::max(part.w, 1);
  return {wide, std::clamp(static_cast<int>(std::lround(high)), 16, kWidestFilm)};
}

// Frames as they come, into one WebP.
class WebpFilm {
 public:
  explicit WebpFilm(QSize size) : size_(size), encoder_(nullptr, WebPAnimEncoderDelete) {
    WebPAnimEncoderOptions options;
    if (WebPAnimEncoderOptionsInit(&options) == 0) return;
    options.anim_params.loop_count = 0;
    encoder_.reset(WebPAnimEncoderNew(size.width(), size.height(), &options));
    isReady_ = WebPConfigInit(&config_) != 0 && WebPConfigLosslessPreset(&config_, 2) != 0 && encoder_;
    config_.quality = kEffort;
  }

  bool add(const QImage& frame, int milliseconds) {
    WebPPicture picture;
    if (!isReady_ || WebPPictureInit(&picture) == 0) return false;
    picture.use_argb = 1;
    picture.width = size_.width();
    picture.height = size_.height();
    const QImage straight = frame.convertToFormat(QImage::Format_RGBA8888);
    const bool isDone = WebPPictureImportRGBA(&picture, straight.constBits(), static_cast<int>(straight.bytesPerLine())) != 0 && WebPAnimEncoderAdd(encoder_.get(), &picture, milliseconds, &config_) != 0;
    WebPPictureFree(&picture);
    return isDone;
  }

  std::optional<std::string> end(int milliseconds) {
    if (!isReady_ || WebPAnimEncoderAdd(encoder_.get(), nullptr, milliseconds, nullptr) == 0) return std::nullopt;
    WebPData data;
    WebPDataInit(&data);
    const bool isDone = WebPAnimEncoderAssemble(encoder_.get(), &data) != 0;
    std::optional<std::string> bytes;
    if (isDone) bytes.emplace(reinterpret_cast<const char*>(data.bytes), data.size);
    WebPDataClear(&data);
    return bytes;
  }

 private:
  QSize size_;
  std::unique_ptr<WebPAnimEncoder, void (*)(WebPAnimEncoder*)> encoder_;
  WebPConfig config_{};
  bool isReady_ = false;
};

}  // namespace

std::vector<FilmState> filmOfMap(const std::vector<FilmState>& states, Id map) {
  std::vector<FilmState> seen;
  for (const FilmState& state : states) {
    const Map* now = state.quilt.map(map);
    if (!now) continue;
    const Map* before = seen.empty() ? nullptr : seen.back().quilt.map(map);
    if (before && before->revision.is(now->revision)) continue;
    seen.push_back(state);
  }
  return seen;
}

PixelRect filmPart(MapPainter& painter, const std::vector<FilmState>& states, Id map) {
  std::optional<QRect> all;
  for (const FilmState& state : states) {
    const Map* now = state.quilt.map(map);
    if (!now) continue;
    const PixelRect part = painter.extentOf(state.quilt, *now, runsOf(*now, inGame(*now)));
    const QRect rect(part.x, part.y, part.w, part.h);
    all = all ? all->united(rect) : rect;
  }
  return all ? PixelRect{all->x(), all->y(), all->width(), all->height()} : PixelRect{};
}

QImage filmFrame(MapPainter& painter, const FilmState& state, Id id, const PixelRect& part, QSize size) {
  QImage frame = blankPicture(size);
  const Map* map = state.quilt.map(id);
  if (!map || part.empty() || frame.isNull()) return frame;
  const ViewScale scale{std::clamp(std::min(static_cast<double>(size.width()) / part.w, static_cast<double>(size.height()) / part.h), kSmallestZoom, kLargestZoom)};
  const QRect device(scale.toDevice(part).topLeft(), size);
  return overCloth(painter, state.quilt, *map, runsOf(*map, inGame(*map)), scale, device);
}

Result<int> writeFilm(Disk& disk, MapPainter& painter, const std::vector<FilmState>& all, const FilmPlan& plan, const std::string& path, Progress* progress) {
  const std::vector<FilmState> states = filmOfMap(all, plan.map);
  const PixelRect part = filmPart(painter, states, plan.map);
  if (states.empty() || part.empty()) return fail(Error{Error::Cause::notFound, "there is nothing to show", path, 0, "Nothing was written", "Choose a map on which something was done"});
  const QSize size = frameSize(part, plan.width);
  const int frames = std::clamp(plan.seconds, 1, kMostFilmSeconds) * kFilmFrames;
  if (progress) progress->expect(frames);
  if (plan.asFrames) {
    if (auto made = disk.makeFolder(path); !made) return fail(made.error());
  }
  WebpFilm film(size);
  std::optional<std::size_t> shown;
  QImage picture;
  int written = 0;
  for (int frame = 0; frame < frames; ++frame) {
    if (progress && progress->isCancelled()) return fail(cancelled(path));
    const std::size_t state = stateAt(states.size(), static_cast<double>(frame) / frames);
    if (shown != state) picture = filmFrame(painter, states[state], plan.map, part, size);
    if (plan.asFrames) {
      const std::string number = std::to_string(frame + 1);
      const std::string name = "frame-" + std::string(number.size() < 4 ? 4 - number.size() : 0, '0') + number + ".png";
      if (auto put = writeWhole(disk, joined(path, name), pngOf(picture)); !put) return fail(put.error());
      ++written;
    } else if (shown != state) {
      if (!film.add(picture, frame * 1000 / kFilmFrames)) return fail(Error{Error::Cause::other, "there is not enough memory for the film", path, 0, "Nothing was written", "Choose a smaller size"});
      ++written;
    }
    shown = state;
    if (progress) progress->step(1);
  }
  if (plan.asFrames) return written;
  const auto bytes = film.end(frames * 1000 / kFilmFrames);
  if (!bytes) return fail(Error{Error::Cause::other, "there is not enough memory for the film", path, 0, "Nothing was written", "Choose a smaller size"});
  if (auto put = writeWhole(disk, path, *bytes); !put) return fail(put.error());
  return written;
}

}  // namespace uq

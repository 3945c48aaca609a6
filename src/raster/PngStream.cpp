#include "raster/PngStream.h"

#include <png.h>

#include <algorithm>
#include <csetjmp>
#include <functional>

#include "raster/MapExport.h"

namespace uq {

namespace {

// What libpng is given, and what went wrong: no C++ object may be passed over by its long jumps, so all that lives is kept here.
struct Sink {
  const std::function<Result<void>(std::string_view)>* add = nullptr;
  std::optional<Error> error;
};

void putBytes(png_structp png, png_bytep bytes, png_size_t count) {
  auto* sink = static_cast<Sink*>(png_get_io_ptr(png));
  if (sink->error) return;
  if (auto done = (*sink->add)({reinterpret_cast<const char*>(bytes), count}); !done) sink->error = done.error();
}

void flushNothing(png_structp) {}

// One call of libpng at a time, so that nothing lives across a jump. False where it failed.
template <class Call>
bool guarded(png_structp png, Call&& call) {
  if (setjmp(png_jmpbuf(png))) return false;
  call();
  return true;
}

Error tooLarge() { return {Error::Cause::tooLarge, "the picture would be larger than 65,536 pixels each way", {}, 0, "What was there before is as it was", "Write it smaller, or screen by screen"}; }

}  // namespace

Result<void> streamPng(MapPainter& painter, const MapPart& part, const std::function<Result<void>(std::string_view)>& add, Progress* progress) {
  const QRect device = part.device;
  if (device.width() > kLargestStreamed || device.height() > kLargestStreamed) return fail(tooLarge());
  Sink sink{&add, {}};
  png_structp png = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
  png_infop info = png ? png_create_info_struct(png) : nullptr;
  const auto close = [&] { png_destroy_write_struct(&png, &info); };
  const auto noMemory = [&] {
    close();
    return fail(Error{Error::Cause::other, "there is not enough memory for the picture", {}, 0, "What was there before is as it was", "Write it smaller, or screen by screen"});
  };
  if (!info) return noMemory();
  const bool isBegun = guarded(png, [&] {
    png_set_write_fn(png, &sink, putBytes, flushNothing);
    png_set_compression_level(png, 3);
    png_set_IHDR(png, info, static_cast<png_uint_32>(device.width()), static_cast<png_uint_32>(device.height()), 8, PNG_COLOR_TYPE_RGBA, PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
    png_write_info(png, info);
  });
  if (!isBegun) return noMemory();
  const int rows = std::max(1, (kBandMegabytes << 20) / 4 / std::max(1, device.width()));
  if (progress) progress->expect((device.height() + rows - 1) / rows);
  for (int from = 0; from < device.height(); from += rows) {
    if (progress && progress->isCancelled()) {
      close();
      return fail(Error::Cause::cancelled, "exporting was cancelled");
    }
    const QRect band(device.x(), device.y() + from, device.width(), std::min(rows, device.height() - from));
    QImage picture = part.onCloth ? overCloth(painter, part.quilt, part.map, part.runs, part.scale, band) : painter.draw(part.quilt, part.map, part.runs, part.scale, band);
    picture.convertTo(QImage::Format_RGBA8888);
    if (picture.isNull()) return noMemory();
    for (int y = 0; y < picture.height(); ++y) {
      auto* row = const_cast<png_bytep>(picture.constScanLine(y));
      if (!guarded(png, [&] { png_write_row(png, row); })) return noMemory();
    }
    if (sink.error) break;
    if (progress) progress->step(1);
  }
  const bool isEnded = sink.error || guarded(png, [&] { png_write_end(png, info); });
  close();
  if (sink.error) return fail(*sink.error);
  if (!isEnded) return fail(Error{Error::Cause::other, "the picture could not be packed", {}, 0, "What was there before is as it was", {}});
  return {};
}

}  // namespace uq

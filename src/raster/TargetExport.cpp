#include "raster/TargetExport.h"

#include <algorithm>
#include <map>

#include "core/edit/LinkGraph.h"
#include "core/edit/Targets.h"
#include "core/store/CsvText.h"
#include "core/store/ExportState.h"
#include "core/store/JsonText.h"
#include "core/store/OutlineText.h"
#include "core/store/TargetText.h"
#include "core/store/TemplateText.h"
#include "raster/BoardPicture.h"
#include "raster/ExchangeExport.h"
#include "raster/MapExport.h"
#include "raster/OpenRaster.h"
#include "raster/PackedSheet.h"
#include "raster/PictureFile.h"
#include "raster/PngStream.h"

namespace uq {

namespace {

constexpr std::string_view kWholeOwner = "quilt";
constexpr std::int64_t kMostFilledCells = 100'000;  // of a map that a sample of a form of one's own shows whole
constexpr int kPartShown = 64;                  // columns and rows of a larger one
constexpr int kRowsShown = 32;                  // of a table in a sample
constexpr std::int64_t kMostHeld = 16 << 20;  // pixels of a picture that is drawn at once

// A text takes much more memory while it is filled in.
ExchangeMapParts templateParts(const Map& map, bool withCells) {
  ExchangeMapParts parts;
  parts.drawing = exchangeDrawing(map);
  parts.wholeMap = true;
  parts.withCells = withCells;
  return parts;
}

std::string endingOf(const Target& target) { return target.ending.empty() ? ".txt" : target.ending; }

Result<std::string> ownName(const Quilt& quilt, const Target& target, const Map& map) {
  if (target.naming.empty()) return nameInside(map.folder + endingOf(target));
  const Result<Json> data = templateData(quilt, map, templateParts(map, false));
  if (!data) return fail(data.error());
  const auto name = filledTemplate(target.naming, *data, Escaping::none, "the names of the files");
  return name ? nameInside(*name) : name;
}

Result<std::string> ownText(const Quilt& quilt, const Target& target, const Map& map) {
  const Result<Json> data = templateData(quilt, map, templateParts(map, true));
  if (!data) return fail(data.error());
  return filledTemplate(target.text, *data, escapingFromName(target.escape).value_or(escapingFor(endingOf(target))), target.name);
}

Error tooLarge(const std::string& file) { return {Error::Cause::tooLarge, "the picture would be larger than 32,768 pixels or 512 MB", file, 0, "What was there before is as it was", "Write it smaller, or screen by screen"}; }

// The files that come of one map, or of the whole quilt.
class Making {
 public:
  Making(MapPainter& painter, const Quilt& quilt, const Target& target, const FilePuts& puts, std::vector<std::string>& lacks, Progress* progress = nullptr)
      : painter_(painter), quilt_(quilt), target_(target), puts_(puts), lacks_(lacks), progress_(progress) {}

  Result<void> ofMap(const Map& map) {
    switch (target_.form) {
      case TargetForm::json: return putExchangeMap(painter_, quilt_, map, cellsAsFromName(target_.cells).value_or(CellsAs::plain), puts_, lacks_);
      case TargetForm::csv: return tables(map);
      case TargetForm::png: return pictures(map);
      case TargetForm::ora: {
        const PixelRect part = painter_.extentOf(quilt_, map, runsOf(map, inGame(map)));
        if (isTooLargeToRender(part.w, part.h)) return fail(tooLarge(map.folder + ".ora"));
        return put(map.folder + ".ora", openRaster(painter_, quilt_, map));
      }
      case TargetForm::svg: return put(map.folder + ".svg", outlineText(map));
      case TargetForm::sheet:
      case TargetForm::links: return {};
      case TargetForm::own: {
        const auto name = ownName(quilt_, target_, map);
        return name ? put(*name, ownText(quilt_, target_, map)) : Result<void>(fail(name.error()));
      }
    }
    return {};
  }

  Result<void> ofQuilt() {
    switch (target_.form) {
      case TargetForm::json: return putExchangeQuilt(painter_, quilt_, puts_, lacks_);
      case TargetForm::svg: return puts_.whole("board.svg", boardDrawing(painter_, quilt_, ViewScale{1}));
      case TargetForm::sheet: return sheets();
      case TargetForm::links: return puts_.whole("links.json", writeJson(linkGraph(quilt_)));
      default: return {};
    }
  }

  // What one picture of a map shows.
  struct Shown {
    std::string path;
    std::vector<Run> runs;
    PixelRect part;
    bool onCloth = true;
  };
  std::vector<Shown> shownOf(const Map& map) {
    Seeing seeing = inGame(map);
    if (target_.hidden) seeing.hidden.clear();
    const std::vector<Run> all = runsOf(map, seeing);
    const PixelRect whole = painter_.extentOf(quilt_, map, all);
    std::vector<Shown> shown;
    if (target_.of == PictureOf::map) shown.push_back({map.folder + ".png", all, whole});
    if (target_.of == PictureOf::layer) {
      for (const Shared<Layer>& layer : map.layers) {
        if (layer->holdsPins() || seeing.hidden.contains(layer->id)) continue;
        Seeing alone = seeing;
        for (const Shared<Layer>& other : map.layers) {
          if (other->id != layer->id) alone.hidden.insert(other->id);
        }
        shown.push_back({joined(map.folder, layer->file + ".png"), runsOf(map, alone), whole, false});
      }
    }
    if (target_.of == PictureOf::screen) {
      const PixelRect cells = makeGrid(map.grid)->pixelBounds(map.bounds);
      const PixelSize screen = quilt_.facts().screen;
      for (int row = 0; row * screen.h < cells.h; ++row) {
        for (int column = 0; column * screen.w < cells.w; ++column) {
          const std::string name = "screen-" + std::to_string(column + 1) + "-" + std::to_string(row + 1) + ".png";
          shown.push_back({joined(map.folder, name), all, {cells.x + column * screen.w, cells.y + row * screen.h, screen.w, screen.h}});
        }
      }
    }
    return shown;
  }

  Result<QImage> drawn(const Map& map, const Shown& shown, double zoom) {
    const ViewScale scale{zoom};
    const QRect device = scale.toDevice(shown.part);
    if (isTooLargeToRender(device.width(), device.height())) {
      return fail(tooLarge(shown.path));
    }
    if (shown.onCloth) return overCloth(painter_, quilt_, map, shown.runs, scale, device);
    return painter_.draw(quilt_, map, shown.runs, scale, device);
  }

 private:
  Result<void> put(const std::string& path, const Result<std::string>& bytes) { return bytes ? puts_.whole(path, *bytes) : Result<void>(fail(bytes.error())); }

  Result<void> tables(const Map& map) {
    for (const Shared<Layer>& layer : map.layers) {
      if (!layer->holdsTiles()) continue;
      const std::string text = csvText(quilt_, map, layer.read(), csvAsFromName(target_.cells).value_or(CsvAs::numbers));
      if (auto done = puts_.whole(joined(map.folder, layer->file + ".csv"), text); !done) return done;
    }
    return {};
  }

  Result<void> pictures(const Map& map) {
    for (const Shown& one : shownOf(map)) {
      const ViewScale scale{static_cast<double>(target_.scale)};
      const QRect device = scale.toDevice(one.part);
      if (std::int64_t{device.width()} * device.height() > kMostHeld) {
        const MapPart part{quilt_, map, one.runs, scale, device, one.onCloth};
        if (auto done = puts_.made(one.path, [&](const auto& add) { return streamPng(painter_, part, add, progress_); }); !done) return done;
        continue;
      }
      auto picture = drawn(map, one, target_.scale);
      if (!picture) return fail(picture.error());
      if (auto done = puts_.whole(one.path, pngOf(std::move(*picture))); !done) return done;
    }
    return {};
  }

  Result<void> sheets() {
    TileUses uses;
    for (const Map* map : mapsOf(quilt_, target_)) {
      for (const auto& [which, count] : usesWithin(*map)) uses[which] += count;
    }
    const auto numbers = exchangeNumbers(quilt_);
    for (const Shared<Sheet>& sheet : quilt_.sheets()) {
      const auto slot = quilt_.slots().find(sheet->id);
      const auto number = numbers.find(sheet->id);
      const auto tiles = slot ? usedTiles(sheet.read(), uses, *slot) : std::set<std::uint32_t>();
      if (tiles.empty() || number == numbers.end()) continue;
      const auto packed = packedSheet(sheet.read(), painter_.pictures().picture(sheet.read()), inOrder(sheet.read(), tiles, uses, *slot, target_), target_);
      if (!packed && packed.error().cause == Error::Cause::missing) {
        lacks_.push_back("The picture of the sheet “" + sheet->name + "” is missing");
        continue;
      }
      if (!packed) return fail(packed.error());
      if (auto done = puts_.whole(sheet->file + ".png", pngOf(packed->picture)); !done) return done;
      if (auto done = puts_.whole(sheet->file + ".json", writeJson(packedPlaces(sheet.read(), number->second, *packed, sheet->file + ".png", target_.bleed))); !done) return done;
    }
    return {};
  }

  MapPainter& painter_;
  const Quilt& quilt_;
  const Target& target_;
  const FilePuts& puts_;
  std::vector<std::string>& lacks_;
  Progress* progress_;
};

// All that decides what comes out beside the quilt.
std::string howOf(const Target& target) {
  Target plain = target;
  plain.id = {};
  plain.name = "export";
  // Which tiles a packed sheet has comes of the maps.
  if (target.form != TargetForm::sheet) plain.maps.clear();
  plain.folder.clear();
  plain.extra.clear();
  return writeJson(targetDocument(plain));
}

bool hasMapFiles(TargetForm form) { return form != TargetForm::sheet && form != TargetForm::links; }

std::set<std::string> ownersOf(const Quilt& quilt, const Target& target) {
  std::set<std::string> owners{std::string(kWholeOwner)};
  if (!hasMapFiles(target.form)) return owners;
  for (const Map* map : mapsOf(quilt, target)) owners.insert(map->id.text());
  return owners;
}

// Two maps whose files of one's own form would be one; nothing where all have their own names.
std::optional<Error> whyNoNames(const Quilt& quilt, const Target& target) {
  if (target.form != TargetForm::own) return std::nullopt;
  std::map<std::string, std::string> taken;
  for (const Map* map : mapsOf(quilt, target)) {
    const auto name = ownName(quilt, target, *map);
    if (!name) return name.error();
    const auto [other, isNew] = taken.emplace(*name, map->name);
    if (isNew) continue;
    return Error{Error::Cause::broken, other->second + " and " + map->name + " would be written to the same file", *name, 0, "Nothing was written", "Say a name that tells maps apart, such as {{file}}" + endingOf(target)};
  }
  return std::nullopt;
}

}  // namespace

Result<TargetDone> exportTarget(Disk& disk, MapPainter& painter, const Quilt& quilt, const Target& target, const TargetAsk& ask, Progress* progress) {
  if (const std::string why = whyNoTarget(target); !why.empty()) return fail(Error::Cause::broken, why, target.name);
  if (auto why = whyNotInto(disk, ask.folder)) return fail(std::move(*why));
  if (auto why = whyNoNames(quilt, target)) return fail(std::move(*why));
  TargetDone done;
  ExportFolder folder(disk, ask.folder, ask.keepsBooks ? target.id.text() : std::string(), progress);
  const FilePuts puts = folder.puts();
  Making making(painter, quilt, target, puts, done.lacks, progress);
  const ExportStates states(quilt, howOf(target), target.form == TargetForm::own);
  const auto maps = mapsOf(quilt, target);
  if (progress) progress->expect(static_cast<std::int64_t>(maps.size()) + 1);
  const auto write = [&](const std::string& owner, const std::string& name, const std::string& state, const std::function<Result<void>()>& make) -> Result<bool> {
    if (progress && progress->isCancelled()) return fail(Error::Cause::cancelled, "exporting was cancelled", target.name);
    if (ask.onlyChanged && folder.isOf(owner, state)) {
      if (progress) progress->step(1);
      return false;
    }
    const std::size_t before = folder.written().size();
    folder.begin(owner, name);
    if (auto made = make(); !made) return fail(made.error());
    if (auto ended = folder.end(state); !ended) return fail(ended.error());
    if (progress) progress->step(1);
    return folder.written().size() > before;
  };
  for (const Map* map : hasMapFiles(target.form) ? maps : std::vector<const Map*>()) {
    if (!ask.maps.empty() && std::find(ask.maps.begin(), ask.maps.end(), map->id) == ask.maps.end()) continue;
    const std::size_t before = folder.written().size() + folder.same().size();
    const auto wrote = write(map->id.text(), map->name, states.of(*map), [&] { return making.ofMap(*map); });
    if (!wrote) return fail(wrote.error());
    if (*wrote) done.maps.push_back(map->id);
    if (folder.written().size() + folder.same().size() == before) ++done.passedOver;
  }
  if (ask.maps.empty()) {
    const bool ofCells = target.form == TargetForm::sheet || target.form == TargetForm::svg;
    const auto wrote = write(std::string(kWholeOwner), quilt.facts().name, states.ofQuilt(ofCells), [&] { return making.ofQuilt(); });
    if (!wrote) return fail(wrote.error());
    for (const ExportFolder::Gone& gone : ask.takesAway ? folder.gone(ownersOf(quilt, target)) : std::vector<ExportFolder::Gone>()) {
      if (auto taken = folder.takeAway(gone); !taken) return fail(taken.error());
    }
  }
  done.written = folder.written();
  done.same = folder.same();
  done.removed = folder.removed();
  done.left = folder.left();
  return done;
}

std::vector<ExportFolder::Gone> goneFrom(Disk& disk, const Quilt& quilt, const Target& target, const std::string& folder) {
  return ExportFolder(disk, folder, target.id.text()).gone(ownersOf(quilt, target));
}

TargetSample sampleOf(MapPainter& painter, const Quilt& quilt, const Target& target, Id id, QSize room) {
  TargetSample sample;
  const Map* map = quilt.map(id);
  std::vector<std::string> lacks;
  const auto stop = [&](const std::string& path, const std::string& bytes) -> Result<void> {
    // The first text is enough, of the whole quilt the list of places rather than the picture.
    if (path.ends_with(".png")) return {};
    sample.file = path;
    sample.text = bytes.substr(0, kLongestSample);
    return fail(Error::Cause::cancelled, "it was looked at");
  };
  const FilePuts puts{stop, [&](const std::string& path, const FileMaking& make) { return make([&](std::string_view piece) { return stop(path, std::string(piece)); }); }};
  Making making(painter, quilt, target, puts, lacks);
  const bool isPicture = target.form == TargetForm::png || target.form == TargetForm::ora || target.form == TargetForm::svg;
  if (!map && hasMapFiles(target.form)) {
    sample.wrong = "There is no map to write";
    return sample;
  }
  if (isPicture) {
    Target whole = target;
    if (target.form != TargetForm::png) whole.of = PictureOf::map;
    Making looking(painter, quilt, whole, puts, lacks);
    const auto shown = looking.shownOf(*map);
    if (shown.empty()) return sample;
    sample.file = target.form == TargetForm::png ? shown.front().path : map->folder + "." + std::string(targetFormName(target.form));
    const PixelRect& part = shown.front().part;
    const double fit = std::min({static_cast<double>(room.width()) / std::max(part.w, 1), static_cast<double>(room.height()) / std::max(part.h, 1), static_cast<double>(target.scale)});
    auto picture = looking.drawn(*map, shown.front(), std::max(fit, kSmallestZoom));
    if (picture) sample.picture = std::move(*picture);
    else sample.wrong = picture.error().text();
    return sample;
  }
  // The first rows of a table are enough.
  Map shown = map ? *map : Map();
  if (target.form == TargetForm::csv) shown.bounds.y1 = std::min(shown.bounds.y1, shown.bounds.y0 + kRowsShown);
  // A text is filled in at each look.
  if (map && target.form == TargetForm::own && map->bounds.count() * static_cast<std::int64_t>(map->layers.size()) > kMostFilledCells) {
    shown.bounds.x1 = std::min(shown.bounds.x1, shown.bounds.x0 + kPartShown);
    shown.bounds.y1 = std::min(shown.bounds.y1, shown.bounds.y0 + kPartShown);
    sample.isPart = true;
  }
  const auto done = hasMapFiles(target.form) ? making.ofMap(shown) : making.ofQuilt();
  if (!done && sample.file.empty()) {
    sample.wrong = done.error().reason + (done.error().line > 0 ? ", line " + std::to_string(done.error().line) : "");
    sample.line = done.error().line;
  }
  return sample;
}

}  // namespace uq

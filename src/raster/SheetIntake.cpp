#include "raster/SheetIntake.h"

#include <QBuffer>
#include <QImageReader>
#include <QPainter>
#include <algorithm>
#include <set>

#include "core/sheets/TileMarks.h"
#include "core/store/Documents.h"
#include "raster/BlankPicture.h"
#include "raster/Blend.h"
#include "raster/PictureFile.h"
#include "raster/SafeSvg.h"

namespace uq {

namespace {

constexpr std::size_t kMostInFolder = 100'000;
constexpr int kDeepestFolder = 4;
// Among several pictures, one of at least so many pixels and tiles each way is a sheet of its own.
constexpr int kLeastSheet = 128;
constexpr int kLeastTiles = 4;

std::string nameOf(const std::string& path) { return path.substr(path.find_last_of('/') + 1); }

struct Read {
  std::string name;
  PictureBytes bytes;
  QImage picture;
};

Result<Read> readPicture(const std::string& path, Disk& disk) {
  auto bytes = disk.read(path, std::int64_t{kMostPictureMegabytes} << 20);
  if (!bytes) return fail(bytes.error());
  auto picture = decodePicture(*bytes, path);
  if (!picture) return fail(picture.error());
  return Read{nameOf(path), PictureBytes(std::move(*bytes)), std::move(*picture)};
}

// The frames of an animated picture, side by side, and their times; nothing where it stands still.
struct FrameStrip {
  QImage picture;
  std::vector<int> times;
};
std::optional<FrameStrip> framesOf(const PictureBytes& bytes) {
  if (mayBeSvg(bytes.read())) return std::nullopt;
  QByteArray data = QByteArray::fromRawData(bytes->data(), static_cast<qsizetype>(bytes->size()));
  QBuffer buffer(&data);
  buffer.open(QIODevice::ReadOnly);
  QImageReader reader(&buffer);
  if (!reader.supportsAnimation()) return std::nullopt;
  std::vector<QImage> frames;
  FrameStrip strip;
  QImage frame;
  std::int64_t pixels = 0;
  while (frames.size() < kMostFrames && reader.read(&frame)) {
    pixels += std::int64_t{frame.width()} * frame.height();
    if (pixels > (std::int64_t{kMostPictureMegabytes} << 20) / 4) break;
    frames.push_back(frame.convertToFormat(QImage::Format_ARGB32_Premultiplied));
    const int time = reader.nextImageDelay();
    strip.times.push_back(std::clamp(time > 0 ? time : kUsualFrame, 1, kLongestFrame));
  }
  if (frames.size() < 2) return std::nullopt;
  const QSize size = frames.front().size();
  if (size.width() * static_cast<qint64>(frames.size()) > kLargestPictureSide) return std::nullopt;
  strip.picture = blankPicture({size.width() * static_cast<int>(frames.size()), size.height()});
  QPainter painter(&strip.picture);
  for (std::size_t i = 0; i < frames.size(); ++i) painter.drawImage(static_cast<int>(i) * size.width(), 0, frames[i]);
  return strip;
}

bool fitsCell(QSize size) {
  return std::min(size.width(), size.height()) >= kSmallestCell &&
         std::max(size.width(), size.height()) <= kLargestCell;
}

IntakeDraft animatedDraft(const std::string& name, FrameStrip strip) {
  IntakeDraft draft;
  const int count = static_cast<int>(strip.times.size());
  draft.pictureName = name.substr(0, name.rfind('.')) + ".png";
  draft.sheet.pictureSize = {strip.picture.width(), strip.picture.height()};
  draft.sheet.cut.cell = {strip.picture.width() / count, strip.picture.height()};
  Frames& frames = draft.sheet.tiles[0].frames;
  for (int i = 0; i < count; ++i) {
    frames.push_back({static_cast<std::uint32_t>(i), strip.times[static_cast<std::size_t>(i)]});
  }
  draft.sheet.source = PictureBytes(pngOf(strip.picture));
  draft.picture = std::move(strip.picture);
  draft.sheet.marks = Shared(marksOf(draft.sheet, viewOf(draft.picture)));
  draft.notes.findings = findingsOf(viewOf(draft.picture));
  return draft;
}

IntakeDraft sheetDraft(Read read, PixelSize usual, Progress& progress) {
  IntakeDraft draft;
  draft.pictureName = read.name;
  draft.sheet.pictureSize = {read.picture.width(), read.picture.height()};
  draft.sheet.source = std::move(read.bytes);
  draft.picture = std::move(read.picture);
  draft.notes = notesOn(draft.sheet, draft.picture, usual);
  draft.sheet.cut = draft.notes.proposals.front().cut;
  draft.sheet.marks = Shared(marksOf(draft.sheet, viewOf(draft.picture), &progress));
  return draft;
}

// Whether a picture among others shows tiles, however large the cells of the open map are.
bool isSheet(const QImage& picture, PixelSize usual) {
  if (std::min(picture.width(), picture.height()) < kLeastSheet) return false;
  const CutProposal best = measureCut(viewOf(picture), usual).front();
  const PixelSize tiles = cellsOf(best.cut, {picture.width(), picture.height()});
  return tiles.w >= kLeastTiles && tiles.h >= kLeastTiles;
}

// A name that no picture of the collection has: pictures of several folders may be called the same.
std::string toldApart(const std::string& name, const Sheet& collection) {
  const auto has = [&](const std::string& one) {
    return std::any_of(collection.collection.begin(), collection.collection.end(),
                       [&](const CollectedPicture& picture) { return picture.file == one; });
  };
  const std::size_t dot = std::min(name.rfind('.'), name.size());
  std::string free = name;
  for (int n = 2; has(free); ++n) free = name.substr(0, dot) + " " + std::to_string(n) + name.substr(dot);
  return free;
}

}  // namespace

bool isPictureName(const std::string& name) {
  static const std::set<std::string> endings = {"png", "jpg", "jpeg", "webp", "gif", "bmp", "svg"};
  const std::size_t dot = name.rfind('.');
  if (dot == std::string::npos) return false;
  std::string ending = name.substr(dot + 1);
  for (char& c : ending) c = static_cast<char>(c >= 'A' && c <= 'Z' ? c - 'A' + 'a' : c);
  return endings.contains(ending);
}

Result<std::vector<std::string>> picturesAmong(const std::vector<std::string>& paths, Disk& disk, Progress& progress) {
  std::vector<std::string> found;
  const auto tooMany = [] {
    return fail(Error{Error::Cause::tooLarge,
                      "more than 4,096 pictures were given at once",
                      {},
                      0,
                      "Nothing was brought in",
                      "Bring in a few folders at a time"});
  };
  const std::function<bool(const std::string&, int)> look = [&](const std::string& folder, int depth) {
    const auto entries = disk.list(folder, kMostInFolder);
    if (!entries) return false;
    for (const Disk::Entry& entry : *entries) {
      if (progress.isCancelled() || found.size() > kMostPictures) return true;
      if (entry.name.starts_with('.')) continue;
      const std::string path = joined(folder, entry.name);
      if (entry.kind == Disk::Kind::file && isPictureName(entry.name)) found.push_back(path);
      if (entry.kind == Disk::Kind::folder && depth < kDeepestFolder) look(path, depth + 1);
    }
    return true;
  };
  for (const std::string& path : paths) {
    if (!look(path, 0)) found.push_back(path);
    if (found.size() > kMostPictures) return tooMany();
  }
  if (found.empty()) {
    return fail(Error{Error::Cause::notFound, "no picture was found here",
                      paths.empty() ? std::string() : paths.front(), 0, "Nothing was brought in",
                      "Bring in PNG, JPEG, WebP, GIF, BMP or SVG files"});
  }
  return found;
}

IntakeNotes notesOn(const Sheet& sheet, const QImage& picture, PixelSize usual) {
  IntakeNotes notes;
  if (picture.isNull()) return notes;
  const PixelView view = viewOf(picture);
  notes.findings = findingsOf(view);
  if (sheet.isCollection()) {
    Sheet plain = sheet;
    plain.care.shrink = 1;
    notes.sizes = sizesAsTheyAre(plain).value_or(std::vector<PixelSize>());
  }
  notes.isLineDrawing = !sheet.isCollection() && isLineDrawing(sheet.source.read());
  if (!sheet.isCollection()) notes.proposals = measureCut(view, usual);
  return notes;
}

Result<Intake> takeIn(const std::vector<std::string>& paths, PixelSize usual, Disk& disk, Progress& progress) {
  const auto cancelled = [] { return fail(Error::Cause::cancelled, "bringing in was cancelled"); };
  const auto files = picturesAmong(paths, disk, progress);
  if (progress.isCancelled()) return cancelled();
  if (!files) return fail(files.error());
  Intake intake;
  Sheet collection;
  std::int64_t pixels = 0;
  progress.expect(static_cast<std::int64_t>(files->size()) * 2);
  for (const std::string& file : *files) {
    if (progress.isCancelled()) return cancelled();
    auto read = readPicture(file, disk);
    progress.step(1);
    if (!read) {
      Error error = read.error();
      if (error.kept.empty()) error.kept = files->size() > 1 ? "The other pictures come in" : "The quilt is as it was";
      if (error.todo.empty()) error.todo = "Bring in PNG, JPEG, WebP, GIF, BMP or SVG files";
      intake.problems.push_back(std::move(error));
      continue;
    }
    auto strip = framesOf(read->bytes);
    const QSize size = read->picture.size();
    if (strip && fitsCell(size)) {
      intake.drafts.push_back(animatedDraft(read->name, std::move(*strip)));
    } else {
      if (files->size() == 1 || isSheet(read->picture, usual)) {
        intake.drafts.push_back(sheetDraft(std::move(*read), usual, progress));
      } else {
        pixels += std::int64_t{size.width()} * size.height();
        if (pixels > (std::int64_t{kMostPictureMegabytes} << 20) / 4) {
          return fail(Error{Error::Cause::tooLarge, "together the pictures take more than 512 MB", file, 0,
                            "Nothing was brought in", "Bring in fewer at a time"});
        }
        collection.collection.push_back({static_cast<std::uint32_t>(collection.collection.size()),
                                         toldApart(read->name, collection),
                                         {size.width(), size.height()},
                                         std::move(read->bytes),
                                         {},
                                         {}});
      }
    }
    progress.step(1);
  }
  if (!collection.collection.empty()) {
    IntakeDraft draft;
    const std::string folder = paths.front().substr(0, paths.front().find_last_of('/'));
    const bool isFolder = paths.size() == 1 && files->front() != paths.front();
    draft.pictureName = nameOf(isFolder ? paths.front() : folder);
    if (draft.pictureName.empty()) draft.pictureName = "pictures";
    layOutCollection(collection);
    // Their usual size is the cell, which nothing else tells of a collection.
    std::map<std::pair<int, int>, int> sizes;
    for (const CollectedPicture& one : collection.collection) ++sizes[{one.size.w, one.size.h}];
    const auto most =
        std::max_element(sizes.begin(), sizes.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
    collection.cut.cell = {std::clamp(most->first.first, kSmallestCell, kLargestCell),
                           std::clamp(most->first.second, kSmallestCell, kLargestCell)};
    auto picture = decodeSheet(collection);
    if (!picture) return fail(picture.error());
    draft.picture = std::move(*picture);
    draft.notes = notesOn(collection, draft.picture, usual);
    collection.marks = Shared(marksOf(collection, viewOf(draft.picture), &progress));
    draft.sheet = std::move(collection);
    intake.drafts.push_back(std::move(draft));
  }
  if (progress.isCancelled()) return cancelled();
  if (intake.drafts.empty()) return fail(intake.problems.front());
  return intake;
}

Result<Sheet> refreshed(Sheet sheet, SheetPictures& pictures, Progress* progress) {
  if (sheet.isCollection()) {
    auto sizes = sizesAsTheyAre(sheet);
    if (!sizes) return fail(sizes.error());
    // A missing picture stays as large as it was.
    std::vector<PixelSize> there;
    for (std::size_t i = 0; i < sizes->size(); ++i) {
      if (!sheet.collection[i].source.isBlank()) there.push_back((*sizes)[i]);
    }
    if (const auto fitted = fittedSizes(there, sheet.care.odd)) {
      there = *fitted;
    } else {
      sheet.care.odd = OddSizes::asTheyAre;
    }
    std::size_t next = 0;
    for (CollectedPicture& one : sheet.collection) {
      if (!one.source.isBlank()) one.size = there[next++];
    }
    layOutCollection(sheet);
  }
  auto picture = decodeSheet(sheet);
  if (!picture) return fail(picture.error());
  if (!sheet.isCollection()) sheet.pictureSize = {picture->width(), picture->height()};
  Sheet straight = sheet;
  straight.places = {};
  sheet.marks = Shared(marksOf(straight, viewOf(*picture), progress));
  pictures.set(sheet, std::move(*picture));
  return sheet;
}

}  // namespace uq

#include "cli/SheetCommands.h"

#include <QImage>
#include <iostream>

#include "core/edit/ArrangeSheets.h"
#include "core/sheets/SheetTidy.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"
#include "raster/Blend.h"
#include "raster/PictureFile.h"
#include "raster/SheetExport.h"
#include "raster/SheetIntake.h"

namespace uq::cli {

namespace {

void report(const Error& error) { std::cerr << error.text() << "\n"; }

int refuse(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

std::string sizeText(PixelSize size) { return std::to_string(size.w) + " × " + std::to_string(size.h); }

// Opens a quilt, or says why not.
std::optional<QuiltStore::Opened> opened(const std::string& quilt, QuiltStore::Access access, int& code) {
  auto store = QuiltStore::open(realDisk(), quiltFolder(quilt), access);
  if (!store) {
    report(store.error());
    code = kNotOpened;
    return std::nullopt;
  }
  for (const Error& problem : store->problems) report(problem);
  code = store->problems.empty() ? kFine : kProblems;
  return std::move(*store);
}

int save(QuiltStore& store, const Quilt& quilt, int code) {
  const auto saved = store.save(quilt);
  if (saved) return code;
  report(saved.error());
  return kNotWritten;
}

}  // namespace

const Sheet* sheetNamed(const Quilt& quilt, const std::string& name) {
  for (const auto& sheet : quilt.sheets()) {
    if (sheet->name == name || sheet->file == name || sheet->code == name) return &sheet.read();
  }
  return nullptr;
}

int measureSheet(const std::string& path, bool json) {
  const auto bytes = realDisk()->read(path, std::int64_t{kMostPictureMegabytes} << 20);
  const auto picture = bytes ? decodePicture(*bytes, path) : Result<QImage>(fail(bytes.error()));
  if (!picture) {
    report(picture.error());
    return kNotOpened;
  }
  const PixelSize size{picture->width(), picture->height()};
  Json::Array list;
  for (const CutProposal& one : measureCut(viewOf(*picture))) {
    const PixelSize cells = cellsOf(one.cut, size);
    if (json) {
      list.push_back(Json::Object{{"cell_width", one.cut.cell.w},
                                  {"cell_height", one.cut.cell.h},
                                  {"border", one.cut.border},
                                  {"gap", one.cut.gap},
                                  {"offset_x", one.cut.offset.x},
                                  {"offset_y", one.cut.offset.y},
                                  {"columns", cells.w},
                                  {"rows", cells.h},
                                  {"reason", one.reason}});
    } else {
      std::cout << sizeText(one.cut.cell) << " px, border " << one.cut.border << ", gap " << one.cut.gap << ": "
                << cells.w << " × " << cells.h << " tiles (" << one.reason << ")\n";
    }
  }
  if (json) std::cout << writeJson(Json(std::move(list)));
  return kFine;
}

int bringSheetIn(const BringInOrder& order) {
  constexpr std::pair<const char*, Footing> footings[] = {
      {"open", Footing::open}, {"solid", Footing::solid}, {"overhead", Footing::overhead}};
  std::optional<Footing> footing;
  for (const auto& [name, one] : footings) {
    if (order.footing == name) footing = one;
  }
  if (!footing) return refuse(kUsage, "--footing is open, solid or overhead");
  const bool cuts = !order.cell.empty();
  if (cuts && (order.cell.size() != 2 || std::min(order.cell[0], order.cell[1]) < kSmallestCell ||
               std::max(order.cell[0], order.cell[1]) > kLargestCell)) {
    return refuse(kUsage, "--cell is a width and a height from 2 to 512");
  }
  int code = kFine;
  auto store = opened(order.quilt, QuiltStore::Access::write, code);
  if (!store) return code;
  if (store->store.readOnly()) return kNotWritten;
  Progress progress;
  const PixelSize usual = store->quilt.maps().empty() ? PixelSize{} : store->quilt.maps().front()->grid.cell;
  auto intake = takeIn(order.pictures, usual, *realDisk(), progress);
  if (!intake) {
    report(intake.error());
    return kNotOpened;
  }
  for (const Error& problem : intake->problems) {
    report(problem);
    code = kProblems;
  }
  IdSource ids = IdSource::fromSystem();
  Quilt quilt = store->quilt;
  for (IntakeDraft& draft : intake->drafts) {
    Sheet sheet = std::move(draft.sheet);
    if (!order.name.empty()) sheet.name = order.name;
    sheet.origin.pile = order.pile;
    sheet.footing = *footing;
    if (cuts && !sheet.isCollection()) {
      sheet.cut = {{order.cell[0], order.cell[1]}, order.border, order.gap, {}};
      if (sheet.tileCount() < 1 || sheet.tileCount() > static_cast<int>(kLastTileNumber) + 1) {
        return refuse(kUsage, "so cut, " + draft.pictureName +
                                  " would give no tile or more than 262,144. Nothing was brought in.");
      }
      SheetPictures pictures;
      auto fresh = refreshed(std::move(sheet), pictures);
      if (!fresh) {
        report(fresh.error());
        return kNotOpened;
      }
      sheet = std::move(*fresh);
    }
    const SheetAdded added = addSheet(quilt, std::move(sheet), draft.pictureName, ids);
    if (added.sheet.empty()) return refuse(kNotWritten, "a quilt holds at most 1,022 sheets. Nothing was brought in.");
    quilt = added.quilt;
    const Sheet& now = *quilt.sheet(added.sheet);
    std::cout << now.name << ": " << now.tileCount()
              << (now.isCollection() ? " pictures" : " tiles of " + sizeText(now.cut.cell) + " px");
    if (!cuts && !draft.notes.proposals.empty()) std::cout << " (" << draft.notes.proposals.front().reason << ")";
    std::cout << "\n";
  }
  return save(store->store, quilt, code);
}

int tidySheet(const TidyOrder& order) {
  int code = kFine;
  auto store = opened(order.quilt, order.dryRun ? QuiltStore::Access::read : QuiltStore::Access::write, code);
  if (!store) return code;
  if (!order.dryRun && store->store.readOnly()) return kNotWritten;
  const Sheet* sheet = sheetNamed(store->quilt, order.sheet);
  if (!sheet) return refuse(kNotOpened, "there is no sheet \"" + order.sheet + "\" in this quilt");
  const auto picture = decodeSheet(*sheet);
  if (!picture) {
    report(picture.error());
    return kProblems;
  }
  const auto slot = store->quilt.slots().find(sheet->id).value_or(0);
  TidyFinds finds = findToTidy(*sheet, viewOf(*picture), usesIn(store->quilt), slot);
  const bool all = !order.blank && !order.stray && !order.doubles && !order.unused;
  if (!all && !order.blank) finds.blank.clear();
  if (!all && !order.stray) finds.stray.clear();
  if (!all && !order.doubles) finds.twins.clear();
  if (!order.unused) finds.unused.clear();
  const auto print = [](const char* what, const std::vector<std::uint32_t>& tiles) {
    if (tiles.empty()) return;
    std::cout << what << ":";
    for (const std::uint32_t tile : tiles) std::cout << " " << tile;
    std::cout << "\n";
  };
  print("blank", finds.blank);
  print("stray", finds.stray);
  for (const auto& [one, twin] : finds.twins) {
    std::cout << "double: " << one << " equals " << twin.of << (twin.mirrored ? " mirrored" : "") << "\n";
  }
  print("unused", finds.unused);
  if (finds.empty()) std::cout << "nothing to tidy\n";
  if (order.dryRun || finds.empty()) return code;
  return save(store->store, store->quilt.with(tidied(*sheet, finds)), code);
}

int exportSheet(const ExportOrder& order) {
  constexpr std::pair<const char*, uq::ExportOrder> orders[] = {{"as-cut", uq::ExportOrder::asCut},
                                                                {"by-number", uq::ExportOrder::byNumber},
                                                                {"by-name", uq::ExportOrder::byName},
                                                                {"by-use", uq::ExportOrder::byUse},
                                                                {"by-colour", uq::ExportOrder::byColour}};
  std::optional<uq::ExportOrder> how;
  for (const auto& [name, one] : orders) {
    if (order.order == name) how = one;
  }
  if (!how) return refuse(kUsage, "--order is as-cut, by-number, by-name, by-use or by-colour");
  int code = kFine;
  auto store = opened(order.quilt, QuiltStore::Access::read, code);
  if (!store) return code;
  const Sheet* sheet = sheetNamed(store->quilt, order.sheet);
  if (!sheet) return refuse(kNotOpened, "there is no sheet \"" + order.sheet + "\" in this quilt");
  const auto picture = decodeSheet(*sheet);
  if (!picture) {
    report(picture.error());
    return kProblems;
  }
  const int columns = order.columns > 0 ? order.columns : sheet->isCollection() ? 8 : sheet->columns();
  const auto tiles =
      exportedTiles(*sheet, *picture, *how, usesIn(store->quilt), store->quilt.slots().find(sheet->id).value_or(0));
  const auto out = exportedSheet(*sheet, *picture, {columns, order.gap, order.border, *how}, tiles);
  if (!out) {
    report(out.error());
    return kProblems;
  }
  const auto written = writePng(*realDisk(), *out, order.output);
  if (!written) {
    report(written.error());
    return kNotWritten;
  }
  std::cout << tiles.size() << " tiles in " << out->width() << " × " << out->height() << " px: " << order.output
            << "\n";
  return code;
}

}  // namespace uq::cli

#include "cli/EditCommand.h"

#include <algorithm>
#include <iostream>
#include <iterator>

#include "cli/Commands.h"
#include "core/work/EditList.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"
#include "raster/CellCover.h"
#include "raster/JointFinder.h"

namespace uq::cli {

namespace {

constexpr std::size_t kMostListBytes = std::size_t{64} << 20;

int refuse(const Error& error, int code) {
  std::cerr << error.text() << "\n";
  return code;
}

Result<std::string> readList(const std::string& path) {
  if (!path.empty()) return realDisk()->read(path, static_cast<std::int64_t>(kMostListBytes));
  std::string text;
  for (std::istreambuf_iterator<char> at(std::cin), end; at != end; ++at) {
    if (text.size() >= kMostListBytes) return fail(Error::Cause::tooLarge, "the list is larger than 64 MB", "standard input");
    text.push_back(*at);
  }
  return text;
}

}  // namespace

int editQuilt(const std::string& quilt, const std::string& path, bool dryRun) {
  const std::string name = path.empty() ? "standard input" : path;
  const auto text = readList(path);
  if (!text) return refuse(text.error(), kUsage);
  const auto list = readJson(*text, name);
  if (!list) return refuse(Error(list.error()).keeping("Nothing was changed"), kUsage);
  auto opened = QuiltStore::open(realDisk(), quiltFolder(quilt),
                                 dryRun ? QuiltStore::Access::read : QuiltStore::Access::write);
  if (!opened) return refuse(opened.error(), kNotOpened);
  int code = opened->problems.empty() ? kFine : kProblems;
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  const SheetPictures pictures = SheetPictures::load(opened->quilt, opened->problems);
  CellCover cover(pictures);
  JointFinder joints(pictures);
  EditLooks looks;
  looks.tiles = {[&](const Quilt& now, const GridShape& shape, TileRef tile) { return cover.covers(now, shape, tile); },
                 [&](const Quilt& now, const GridShape& shape, TileRef tile) { return cover.hides(now, shape, tile); },
                 [&](const Quilt& now, const GridShape& shape, TileRef tile) { return cover.keepsIn(now, shape, tile); },
                 [&](const Quilt& now, const GridShape& shape, TileRef tile) { return cover.fills(now, shape, tile); }};
  looks.joints = [&](const Quilt& now, const GridShape& shape) { return &joints.bookFor(now, shape); };
  const StepRules rules{[&](Id map) { return opened->store.damage(map); }, {}};
  const auto done = doEdits(opened->quilt, *list, looks, name, rules);
  if (!done) return refuse(done.error(), done.error().cause == Error::Cause::notFound ? kNotOpened : kUsage);
  std::int64_t cells = 0;
  for (const EditDone& step : done->steps) {
    std::cout << step.what << ": " << step.cells << (step.cells == 1 ? " cell\n" : " cells\n");
    cells += step.cells;
  }
  std::cout << done->steps.size() << (done->steps.size() == 1 ? " step" : " steps");
  if (dryRun) {
    std::cout << (done->quilt == opened->quilt ? ", which would change nothing\n" : ", nothing was saved\n");
    return code;
  }
  const auto saved = opened->store.save(done->quilt);
  if (!saved) {
    std::cout << "\n";
    const std::string why = saved.error().text();
    const bool isSaid = std::any_of(opened->problems.begin(), opened->problems.end(),
                                    [&](const Error& problem) { return problem.text() == why; });
    return isSaid ? kNotWritten : refuse(saved.error(), kNotWritten);
  }
  std::cout << ", " << saved->written.size() << (saved->written.size() == 1 ? " file written\n" : " files written\n");
  return code;
}

}  // namespace uq::cli

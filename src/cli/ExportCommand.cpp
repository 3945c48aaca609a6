#include "cli/ExportCommand.h"

#include <algorithm>
#include <filesystem>
#include <iostream>

#include "cli/Commands.h"
#include "core/edit/FormLosses.h"
#include "core/edit/Targets.h"
#include "core/store/ExportPlaces.h"
#include "core/store/QuiltStore.h"
#include "core/store/StateFolder.h"
#include "core/store/TemplateText.h"
#include "raster/MapExport.h"
#include "raster/TargetExport.h"

namespace uq::cli {

namespace {

int refuse(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

int notWritten(const Error& error) { return refuse(kNotWritten, error.text()); }

// What is the quilt's own is never written over: its documents and the folders of its parts.
bool isOwnOf(const std::string& quilt, const std::string& path) {
  const auto inside = std::filesystem::path(canonicalPath(path)).lexically_relative(canonicalPath(quilt));
  if (inside.empty() || inside == "." || *inside.begin() == "..") return false;
  const std::string first = inside.begin()->string();
  return first == ".urban-quilt" || !whyNoExportFolder(inside.generic_string()).empty();
}

int refuseOwn(const std::string& path) { return refuse(kNotWritten, path + ": what the quilt keeps there is not written over. Nothing was written. Choose another place"); }

// "level.h.mustache" writes files that end in ".h".
std::string endingOf(const std::string& file) {
  std::string name = std::filesystem::path(file).filename().string();
  if (name.ends_with(".mustache")) name.resize(name.size() - std::string_view(".mustache").size());
  const std::size_t dot = name.rfind('.');
  return dot == std::string::npos ? ".txt" : name.substr(dot);
}

// Where a target goes, and what it is.
struct Going {
  Target target;
  std::string folder;
  bool keepsBooks = true;
};

class Exports {
 public:
  Exports(const MapsExportOrder& order, QuiltStore::Opened& opened) : order_(order), opened_(opened), quilt_(opened.quilt) {}

  int run() {
    for (const std::string& name : order_.maps) {
      const Map* map = quilt_.mapNamed(name);
      if (!map) return refuse(kNotOpened, "\"" + name + "\" is no map of this quilt. 'uquilt info' lists them.");
      maps_.push_back(map->id);
    }
    const bool byTarget = order_.allTargets || !order_.targets.empty();
    if (byTarget && !order_.form.empty()) return refuse(kUsage, "A target has its form: say --form or --target, not both.");
    if (order_.onlyChanged && !byTarget) return refuse(kUsage, "--changed is of targets: say --target NAME, or --all.");
    const int gathered = byTarget ? gatherTargets() : gatherByHand();
    if (gathered != kFine || going_.empty()) return gathered;
    MapPainter painter(SheetPictures::load(quilt_, opened_.problems));
    for (const Error& problem : opened_.problems) std::cerr << problem.text() << "\n";
    for (const Going& one : going_) sayLosses(one.target);
    for (const Going& one : going_) {
      if (const int done = write(painter, one); done != kFine && done != kProblems) return done;
    }
    return opened_.problems.empty() && !lacks_ ? kFine : kProblems;
  }

 private:
  int gatherTargets() {
    const ExportPlaces places = exportPlaces(*disk_, quiltFolder(order_.quilt));
    std::vector<const Target*> targets;
    for (const std::string& name : order_.targets) {
      const Target* target = targetNamed(quilt_, name);
      if (!target) return refuse(kNotOpened, "\"" + name + "\" is no target of this quilt: " + listed());
      targets.push_back(target);
    }
    if (order_.allTargets) {
      for (const Shared<Target>& one : quilt_.all<Target>()) targets.push_back(&one.read());
    }
    if (targets.empty()) return refuse(kNotOpened, "This quilt has no targets yet: Quilt > Export in the window makes them.");
    if (targets.size() > 1 && !order_.output.empty()) return refuse(kUsage, "-o is the folder of one target: say which with --target.");
    for (const Target* target : targets) {
      auto folder = order_.output.empty() ? folderOf(places, quiltFolder(order_.quilt), *target) : std::optional(order_.output);
      if (!folder) return refuse(kUsage, "\"" + target->name + "\" has no folder on this machine: say one with -o, or choose it in the window.");
      if (isOwnOf(quiltFolder(order_.quilt), *folder)) return refuseOwn(*folder);
      going_.push_back({*target, *folder, true});
    }
    return kFine;
  }

  std::string listed() const {
    std::string names;
    for (const Shared<Target>& one : quilt_.all<Target>()) names += (names.empty() ? "\"" : ", \"") + one->name + "\"";
    return names.empty() ? "it has none yet" : "it has " + names;
  }

  int gatherByHand() {
    if (order_.output.empty()) return refuse(kUsage, "-o says where to write.");
    auto form = order_.form == "template" ? std::optional(TargetForm::own) : targetFormFromName(order_.form);
    if (order_.form == "own") form.reset();
    if (order_.form.empty()) {
      for (const TargetForm one : {TargetForm::png, TargetForm::ora}) {
        if (order_.output.ends_with("." + std::string(targetFormName(one)))) form = one;
      }
    }
    if (!form) return refuse(kUsage, "--form is json, csv, png, ora, svg, sheet, links or template; without it -o ends in .png or .ora.");
    Target target = order_.how;
    target.name = "export";
    target.form = *form;
    target.cells = order_.cells;
    const auto of = pictureOfFromName(order_.of);
    if (!of) return refuse(kUsage, "--of is map, layer or screen.");
    target.of = *of;
    if (*form == TargetForm::own) {
      if (const int read = readTemplate(target); read != kFine) return read;
    }
    if (const std::string why = whyNoTarget(target); !why.empty()) return refuse(kUsage, why + ".");
    if (isOwnOf(quiltFolder(order_.quilt), order_.output)) return refuseOwn(order_.output);
    if (*form == TargetForm::png || *form == TargetForm::ora) {
      if (order_.output.ends_with("." + std::string(targetFormName(*form)))) return writeFile(target);
    }
    if (canonicalPath(order_.output) == canonicalPath(quiltFolder(order_.quilt))) return refuse(kNotWritten, order_.output + ": the quilt itself lies there. Nothing was written. Choose a folder for what is exported");
    target.maps = maps_;
    going_.push_back({target, order_.output, false});
    return kFine;
  }

  int readTemplate(Target& target) {
    if (order_.templateFile.empty()) return refuse(kUsage, "--form template needs --template FILE; examples/templates has some to begin with.");
    const auto text = disk_->read(order_.templateFile, static_cast<std::int64_t>(kLongestTemplate));
    if (!text) return notWritten(text.error());
    target.text = *text;
    target.ending = endingOf(order_.templateFile);
    target.escape = order_.escape;
    if (!order_.escape.empty() && !escapingFromName(order_.escape)) return refuse(kUsage, "--escape is none, xml or c.");
    return kFine;
  }

  // One map as one picture of a name that was said.
  int writeFile(const Target& target) {
    if (maps_.empty() && quilt_.maps().size() == 1) maps_.push_back(quilt_.maps().front()->id);
    if (maps_.size() != 1) return refuse(kUsage, "One file holds one map: say which, or a folder after -o.");
    const Map& map = *quilt_.map(maps_.front());
    MapPainter painter(SheetPictures::load(quilt_, opened_.problems));
    for (const Error& problem : opened_.problems) std::cerr << problem.text() << "\n";
    sayLosses(target);
    if (const auto written = exportMap(*disk_, painter, quilt_, map, order_.output); !written) return notWritten(written.error());
    std::cout << order_.output << ": " << map.name << ", " << map.layers.size() << " layers\n";
    return opened_.problems.empty() ? kFine : kProblems;
  }

  void sayLosses(const Target& target) {
    for (const Map* map : mapsOf(quilt_, target)) {
      const bool isAsked = maps_.empty() || std::find(maps_.begin(), maps_.end(), map->id) != maps_.end();
      const std::string lost = isAsked ? lossesInWords(quilt_, *map, target.form) : std::string();
      if (!lost.empty()) std::cerr << lost << ".\n";
    }
  }

  int write(MapPainter& painter, const Going& going) {
    TargetAsk ask{going.folder, order_.onlyChanged, going.keepsBooks};
    if (going.keepsBooks) ask.maps = maps_;
    if (going.keepsBooks && maps_.empty()) {
      // What goes is named before it does.
      for (const ExportFolder::Gone& gone : goneFrom(*disk_, quilt_, going.target, going.folder)) {
        if (gone.files.empty()) continue;
        const auto map = Id::parse(gone.owner);
        std::cout << gone.name << (map && quilt_.map(*map) ? " goes out no more, and its files go:" : " is gone, and its files go, too:");
        for (const std::string& file : gone.files) std::cout << " " << file;
        std::cout << "\n";
      }
    }
    const auto done = exportTarget(*disk_, painter, quilt_, going.target, ask);
    if (!done) return notWritten(done.error());
    lacks_ = lacks_ || !done->lacks.empty();
    for (const std::string& lacks : done->lacks) std::cerr << lacks << ".\n";
    for (const std::string& file : done->left) std::cerr << going.folder << "/" << file << ": it is of no map any more, but somebody changed it, so it stays.\n";
    for (const std::string& file : done->written) std::cout << going.folder << "/" << file << "\n";
    std::cout << done->written.size() << " files written, " << done->same.size() << " were as they are";
    if (order_.onlyChanged) std::cout << ", " << done->passedOver << " maps had not changed";
    if (!done->removed.empty()) std::cout << ", " << done->removed.size() << " removed";
    std::cout << "\n";
    return kFine;
  }

  const MapsExportOrder& order_;
  QuiltStore::Opened& opened_;
  const Quilt& quilt_;
  std::shared_ptr<Disk> disk_ = realDisk();
  std::vector<Id> maps_;
  std::vector<Going> going_;
  bool lacks_ = false;
};

}  // namespace

int exportMaps(const MapsExportOrder& order) {
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), QuiltStore::Access::read);
  if (!opened) return refuse(kNotOpened, opened.error().text());
  return Exports(order, *opened).run();
}

}  // namespace uq::cli

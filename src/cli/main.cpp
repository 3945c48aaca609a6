// uquilt: looks at quilts, renders and checks them, and works on their sheets, for scripts and build machines.
#include <CLI/CLI.hpp>
#include <QGuiApplication>

#include "cli/BoardCommand.h"
#include "cli/CheckCommand.h"
#include "cli/Commands.h"
#include "cli/EdgingCommand.h"
#include "cli/EditCommand.h"
#include "cli/ExportCommand.h"
#include "cli/ImportCommand.h"
#include "cli/JointsCommand.h"
#include "cli/LinksCommand.h"
#include "cli/ResizeCommand.h"
#include "cli/PackCommand.h"
#include "cli/QueryCommand.h"
#include "cli/RecoverCommand.h"
#include "cli/SheetCommands.h"

int main(int argc, char** argv) {
  // Drawing labels needs fonts, never a screen.
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  qInstallMessageHandler([](QtMsgType, const QMessageLogContext&, const QString&) {});  // our own errors say enough
  const QGuiApplication application(argc, argv);

  CLI::App app{"uquilt — look at quilts, render and check them without a window."};
  app.set_version_flag("--version", std::string("uquilt ") + UQ_VERSION);
  app.require_subcommand(1);
  app.footer(
      "Exit codes: 0 fine; 1 done, but something in the quilt is broken or missing;\n"
      "2 the command line makes no sense; 3 no such quilt, map or layer; 4 the result could not be written.");

  std::string quilt;
  bool json = false;
  uq::cli::RenderOrder order;
  const std::string quiltHelp = "The quilt's folder, or one inside it (default: the current folder)";

  auto* info = app.add_subcommand("info", "List maps, grids, sizes, layers, sheets and counts");
  info->add_option("QUILT", quilt, quiltHelp);
  info->add_flag("--json", json, "Print JSON for programs");

  auto* render = app.add_subcommand("render", "Draw a whole map, or all maps on the Board, into a PNG");
  auto* rendered = render->add_option("MAP", order.map, "The map's name, its folder's name, or a path to its folder");
  render->add_option("-o,--output", order.output, "The PNG to write")->required();
  render->add_option("--quilt", order.quilt, "The quilt's folder (default: the current folder, or MAP's)");
  render->add_option("--zoom", order.zoom, "Pixels of the picture for one of the map, 0.02 to 32")
      ->capture_default_str();
  render->add_option("--only", order.only, "Draw only this layer (may be given several times)")
      ->allow_extra_args(false);
  render->add_option("--without", order.without, "Leave this layer out (may be given several times)")
      ->allow_extra_args(false);

  render->add_option("--camera", order.camera, "Where the screen's upper left is, X Y: layers move by their parallax")
      ->expected(2)
      ->delimiter(',');
  render->add_option("--frame", order.frame, "With --camera: how much the screen shows, as 320x180");
  render->add_flag("--exact", order.exact, "Only the map's cells: cut what reaches or rises beyond them");
  auto* onBoard = render->add_flag("--board", order.board, "All maps as they lie on the Board, with names and stitches; the file may end in .svg");
  rendered->excludes(onBoard);
  auto* beside = render->add_option("--with-neighbours", order.neighbours, "Also what is sewn to the map, over at most so many seams")
                     ->check(CLI::Range(1, 100));
  for (const char* alone : {"--only", "--without", "--camera", "--frame", "--exact"}) {
    onBoard->excludes(render->get_option(alone));
    beside->excludes(render->get_option(alone));
  }
  onBoard->excludes(beside);

  auto* out = app.add_subcommand("export", "Maps for a game or another program, in open forms, by hand or as targets of the quilt say");
  uq::cli::MapsExportOrder mapsOut;
  out->add_option("MAP", mapsOut.maps, "Names of maps (default: all)");
  out->add_option("-o,--output", mapsOut.output, "The folder to write into, or for one map a file: .ora or .png; of a target in place of its own");
  out->add_option("--target", mapsOut.targets, "A target of the quilt, as Quilt > Export makes them; may be said several times")->allow_extra_args(false);
  out->add_flag("--all", mapsOut.allTargets, "All targets of the quilt");
  out->add_flag("--changed", mapsOut.onlyChanged, "Of targets: pass over maps that have not changed since they were written");
  out->add_option("--form", mapsOut.form, "json (docs/exchange.md), csv, png, ora, svg, sheet, links or template; without it as -o ends");
  out->add_option("--template", mapsOut.templateFile, "A form of one's own in the Mustache language: NAME.ENDING.mustache (examples/templates)");
  out->add_option("--escape", mapsOut.escape, "How a template writes what is filled in: none, xml or c (default: as its ending asks)");
  out->add_option("--name", mapsOut.how.naming, "What a template's files are called, as a template itself: \"levels/{{id}}.h\"");
  out->add_option("--cells", mapsOut.cells, "Of json: plain, runs or packed. Of csv: numbers or names");
  out->add_option("--of", mapsOut.of, "What one PNG shows: map, layer or screen")->capture_default_str();
  out->add_option("--scale", mapsOut.how.scale, "Of png: picture pixels for each map pixel")->check(CLI::Range(1, uq::kLargestTargetScale));
  out->add_flag("--hidden", mapsOut.how.hidden, "Of png: with what the game hides");
  out->add_option("--order", mapsOut.how.order, "Of sheet: tiles by name, or by use (default: by number)");
  out->add_option("--columns", mapsOut.how.columns, "Of sheet: tiles in a row (default: as square as may be)")->check(CLI::Range(0, uq::kMostTargetColumns));
  out->add_option("--bleed", mapsOut.how.bleed, "Of sheet: pixels by which rims of tiles are drawn on")->check(CLI::Range(0, uq::kMostBleed))->capture_default_str();
  out->add_flag("--powers-of-two", mapsOut.how.powersOfTwo, "Of sheet: sides of the picture are powers of two");
  out->add_option("--quilt", mapsOut.quilt, "The quilt's folder (default: the current folder)");

  auto* check = app.add_subcommand("check", "Open everything and report what is wrong");
  check->add_option("QUILT", quilt, quiltHelp);
  uq::cli::CheckOrder checking;
  check->add_flag("--sizes", checking.sizes, "Also list sizes that do not agree: map and screen, backdrop and map, tiles and cells");
  check->add_flag("--json", checking.json, "Print what is broken and all loose threads as one JSON object");
  check->add_flag("--round-trip", checking.roundTrip, "Also save it beside, open it there, and compare everything");
  check->add_flag("--strict", checking.strict, "Exit with 1 where a thread hangs loose");
  check->add_flag("--joints", checking.joints, "Also list sides where a picture is cut off and its sheet has what belongs there");

  uq::cli::QueryOrder asked;
  auto* in = app.add_subcommand("import", "A new map made of the picture of a map, or of tables of cells, one for each layer");
  uq::cli::ImportOrder mapIn;
  in->add_option("FILE", mapIn.files, "One picture, or tables (.csv), the farthest layer first")->required();
  in->add_option("--map", mapIn.name, "What the map is called (default: as the file)");
  auto* likeMap = in->add_option("--like", mapIn.like, "A map whose grid the new one has (default: the first of the quilt)");
  in->add_option("--grid", mapIn.grid, "Its grid: orthogonal, diamond, staggered, hexagonal-pointy or hexagonal-flat")->excludes(likeMap);
  in->add_option("--cell", mapIn.cell, "The size of its cells in pixels: 32x32")->excludes(likeMap);
  in->add_flag("--sheet", mapIn.makesSheet, "Make a sheet of pieces that are in none");
  in->add_flag("--json", mapIn.json, "Print what came of it as one JSON object");
  in->add_option("--quilt", mapIn.quilt, "The quilt's folder (default: the current folder)");

  auto* queries = app.add_subcommand("query", "What a quilt holds, one JSON object a line, for scripts (docs/exchange.md)");
  queries->add_option("WHAT", asked.what, "facts, maps, layers, cells, tiles, spots or doorways")->required();
  queries->add_option("--quilt", asked.quilt, "The quilt's folder (default: the current folder)");
  queries->add_option("--map", asked.map, "Only of this map");
  queries->add_option("--layer", asked.layer, "Only of layers of this name");
  queries->add_option("--region", asked.region, "Only cells and spots in X,Y,WIDTH,HEIGHT");

  auto* links = app.add_subcommand("links", "How the maps hang together: seams, doorways, spots, and what doorways need");
  links->add_option("QUILT", quilt, quiltHelp);
  links->add_flag("--json", json, "Print JSON for programs (docs/links.md)");

  uq::cli::JointsOrder laying;
  auto* jointsCommand = app.add_subcommand("joints", "Lay what belongs at loose joints, where no other one comes of it");
  jointsCommand->add_option("QUILT", laying.quilt, quiltHelp);
  jointsCommand->add_option("--map", laying.map, "Only on this map (default: on all)");
  jointsCommand->add_flag("--dry-run", laying.dryRun, "Only say what would change");

  uq::cli::ResizeOrder resizing;
  resizing.room = "empty";
  auto* resize = app.add_subcommand("resize", "Move the edges of a map; what is cut off is kept");
  resize->add_option("MAP", resizing.map, "The map's name")->required();
  resize->add_option("--quilt", resizing.quilt, "The quilt's folder (default: the current folder)");
  resize->add_flag("--used", resizing.ask.toUsed, "First to what is painted");
  resize->add_option("--left", resizing.ask.by.left, "Move the left edge outwards by so many cells; inwards if negative");
  resize->add_option("--top", resizing.ask.by.top, "The upper edge");
  resize->add_option("--right", resizing.ask.by.right, "The right edge");
  resize->add_option("--bottom", resizing.ask.by.bottom, "The lower edge");
  resize->add_option("--to", resizing.to, "Then the right and the lower edge, to so many cells in all, as 64x48");
  resize->add_option("--room", resizing.room, "What new room gets: empty, lastRow or ground")->capture_default_str();
  resize->add_option("--insert-columns", resizing.insertedColumns,
                     "First put in columns, as AT:N: N before column AT, counted from the map's corner");
  resize->add_option("--insert-rows", resizing.insertedRows, "Rows likewise");
  resize->add_option("--remove-columns", resizing.removedColumns, "Take out N columns from AT on, as AT:N");
  resize->add_option("--remove-rows", resizing.removedRows, "Rows likewise");
  resize->add_option("--layer", resizing.layer, "Rows and columns of that layer alone (default: of all layers)");
  resize->add_flag("--drop-allowance", resizing.ask.dropsAllowance, "Take away what lies outside the edges then");
  resize->add_flag("--dry-run", resizing.dryRun, "Only say what would change");

  uq::cli::RecoverOrder recovering;
  bool listsKept = false;
  auto* recover = app.add_subcommand("recover", "Work that was kept and not saved: list it, save it, or drop it");
  recover->add_option("QUILT", recovering.quilt, "The quilt's folder (to list: default all; else the current folder)");
  auto* lists = recover->add_flag("--list", listsKept, "Say what is kept (the default)");
  auto* applies = recover->add_flag("--apply", recovering.apply, "Save the quilt as it was kept last");
  auto* drops = recover->add_flag("--drop", recovering.drop, "Take away what was kept of it");
  applies->excludes(lists, drops);
  drops->excludes(lists, applies);

  std::string packedFile;
  std::string target;
  auto* packs = app.add_subcommand("pack", "Write a quilt into one file, to be sent or put away");
  packs->add_option("QUILT", quilt, quiltHelp);
  packs->add_option("-o,--output", packedFile, "The file to write (default: beside the folder, as its name.quilt)");
  auto* unpacks = app.add_subcommand("unpack", "Open a packed quilt into a folder");
  unpacks->add_option("FILE", packedFile, "The packed quilt")->required();
  unpacks->add_option("-o,--output", target, "The folder, empty or new (default: the file's name, here)");

  std::string list;
  bool dryRun = false;
  auto* edit = app.add_subcommand("edit", "Do a list of edits: paint, fill, swap, stamp … (docs/edit-lists.md)");
  edit->add_option("QUILT", quilt, quiltHelp);
  edit->add_option("--list", list, "The list's file (default: standard input)");
  edit->add_flag("--dry-run", dryRun, "Only say what would change");

  auto* sheet = app.add_subcommand("sheet", "Measure pictures; bring in, tidy and export sheets");
  sheet->require_subcommand(1);
  std::string picture;
  uq::cli::BringInOrder bringIn;
  uq::cli::TidyOrder tidy;
  uq::cli::ExportOrder exporting;
  const std::string inQuilt = "The quilt's folder (default: the current folder)";
  const std::string whichSheet = "The sheet's name, its file's name, or its code";
  auto* measure = sheet->add_subcommand("measure", "Say how a picture is likely to be cut, best first");
  measure->add_option("PICTURE", picture, "The picture's file")->required();
  measure->add_flag("--json", json, "Print a JSON array for programs");
  auto* bring = sheet->add_subcommand("bring-in", "Bring pictures in: one is cut, several become a collection");
  bring->add_option("PICTURE", bringIn.pictures, "Pictures, or folders of them")->required();
  bring->add_option("--quilt", bringIn.quilt, inQuilt);
  bring->add_option("--name", bringIn.name, "The sheet's name (default: the picture's)");
  bring->add_option("--pile", bringIn.pile, "The theme with which it lies on the Table");
  bring->add_option("--footing", bringIn.footing, "open, solid or overhead")->capture_default_str();
  bring->add_option("--cell", bringIn.cell, "Width and height of a tile (default: as measured)")->expected(2);
  bring->add_option("--border", bringIn.border, "With --cell: pixels round the picture")->check(CLI::Range(0, 4096));
  bring->add_option("--gap", bringIn.gap, "With --cell: pixels between tiles")->check(CLI::Range(0, 4096));
  auto* tidying = sheet->add_subcommand("tidy", "Take away blank, stray, double and, if asked, unused tiles");
  tidying->add_option("SHEET", tidy.sheet, whichSheet)->required();
  tidying->add_option("--quilt", tidy.quilt, inQuilt);
  tidying->add_flag("--blank", tidy.blank, "Only those named: blank tiles");
  tidying->add_flag("--stray", tidy.stray, "Tiles with only a stray mark");
  tidying->add_flag("--double", tidy.doubles, "Tiles that equal another one, also mirrored");
  tidying->add_flag("--unused", tidy.unused, "Tiles that are used nowhere");
  tidying->add_flag("--dry-run", tidy.dryRun, "Only say what would go");
  auto* exported = sheet->add_subcommand("export", "Write a sheet's tiles into a PNG");
  exported->add_option("SHEET", exporting.sheet, whichSheet)->required();
  exported->add_option("-o,--output", exporting.output, "The PNG to write")->required();
  exported->add_option("--quilt", exporting.quilt, inQuilt);
  exported->add_option("--columns", exporting.columns, "Tiles in a row (default: as the sheet is cut)")->check(CLI::Range(1, 4096));
  exported->add_option("--gap", exporting.gap, "Pixels between tiles")->check(CLI::Range(0, 4096));
  exported->add_option("--border", exporting.border, "Pixels around all tiles")->check(CLI::Range(0, 4096));
  exported->add_option("--order", exporting.order, "as-cut, by-number, by-name, by-use or by-colour")->capture_default_str();

  uq::cli::GuessOrder guessing;
  auto* edging = app.add_subcommand("edging", "Sets of tiles that join by themselves");
  edging->require_subcommand(1);
  auto* guess = edging->add_subcommand("guess", "Guess from its pixels what the tiles of a sheet join");
  guess->add_option("SHEET", guessing.sheet, whichSheet)->required();
  guess->add_option("--quilt", guessing.quilt, inQuilt);
  guess->add_option("--region", guessing.region, "X,Y,W,H: columns and rows of the cut (default: all of it)");
  guess->add_option("--grid", guessing.grid, "The grid's name (default: that of the quilt's maps with such cells)");
  guess->add_option("--keep", guessing.keep, "Keep it in the quilt under this name");
  guess->add_flag("--json", guessing.json, "Print one JSON object for programs");
  uq::cli::CoverageOrder covering;
  auto* coverage = edging->add_subcommand("coverage", "List the shapes that an edging needs and lacks");
  coverage->add_option("EDGING", covering.edging, "The edging's name or file")->required();
  coverage->add_option("--quilt", covering.quilt, inQuilt);
  coverage->add_flag("--json", covering.json, "Print one JSON object for programs");

  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return app.exit(error) == 0 ? uq::cli::kFine : uq::cli::kUsage;
  }
  if (info->parsed()) return uq::cli::info(quilt, json);
  if (guess->parsed()) return uq::cli::guessEdging(guessing);
  if (coverage->parsed()) return uq::cli::edgingCoverage(covering);
  if (links->parsed()) return uq::cli::links(quilt, json);
  if (render->parsed() && order.board) return uq::cli::renderBoard(order);
  if (render->parsed() && order.map.empty()) {
    std::fprintf(stderr, "render needs a MAP, or --board\n");
    return uq::cli::kUsage;
  }
  if (render->parsed() && order.neighbours > 0) return uq::cli::renderWithNeighbours(order);
  if (render->parsed()) return uq::cli::render(order);
  if (packs->parsed()) return uq::cli::pack(quilt, packedFile);
  if (unpacks->parsed()) return uq::cli::unpack(packedFile, target);
  if (recover->parsed()) return uq::cli::recover(recovering);
  if (resize->parsed()) return uq::cli::resizeMap(resizing);
  if (jointsCommand->parsed()) return uq::cli::layJoints(laying);
  if (edit->parsed()) return uq::cli::editQuilt(quilt, list, dryRun);
  if (measure->parsed()) return uq::cli::measureSheet(picture, json);
  if (bring->parsed()) return uq::cli::bringSheetIn(bringIn);
  if (tidying->parsed()) return uq::cli::tidySheet(tidy);
  if (exported->parsed()) return uq::cli::exportSheet(exporting);
  if (in->parsed()) return uq::cli::importFiles(mapIn);
  if (queries->parsed()) return uq::cli::query(asked);
  if (out->parsed()) return uq::cli::exportMaps(mapsOut);
  checking.quilt = quilt;
  return uq::cli::check(checking);
}

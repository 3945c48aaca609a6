// uquilt: looks at quilts, renders and checks them, for scripts and build machines.
#include <CLI/CLI.hpp>
#include <QGuiApplication>

#include "cli/Commands.h"

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

  auto* render = app.add_subcommand("render", "Draw a whole map into a PNG");
  render->add_option("MAP", order.map, "The map's name, its folder's name, or a path to its folder")->required();
  render->add_option("-o,--output", order.output, "The PNG to write")->required();
  render->add_option("--quilt", order.quilt, "The quilt's folder (default: the current folder, or MAP's)");
  render->add_option("--zoom", order.zoom, "Pixels of the picture for one of the map, 0.02 to 32")
      ->capture_default_str();
  render->add_option("--only", order.only, "Draw only this layer (may be given several times)")
      ->allow_extra_args(false);
  render->add_option("--without", order.without, "Leave this layer out (may be given several times)")
      ->allow_extra_args(false);

  render->add_flag("--exact", order.exact, "Only the map's cells: cut what reaches or rises beyond them");

  auto* check = app.add_subcommand("check", "Open everything and report what is wrong");
  check->add_option("QUILT", quilt, quiltHelp);

  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return app.exit(error) == 0 ? uq::cli::kFine : uq::cli::kUsage;
  }
  if (info->parsed()) return uq::cli::info(quilt, json);
  if (render->parsed()) return uq::cli::render(order);
  return uq::cli::check(quilt);
}

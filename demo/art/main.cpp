// draw-demo FOLDER: draws the demo quilt into a new folder. The result is what demo/copperline holds.
#include <QGuiApplication>
#include <cstdio>
#include <filesystem>

#include "art/DepotYard.h"
#include "core/store/QuiltStore.h"

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  const QGuiApplication application(argc, argv);
  if (argc != 2) {
    std::fprintf(stderr, "usage: draw-demo FOLDER (new or empty)\n");
    return 2;
  }
  const std::string folder = argv[1];
  const auto created = uq::QuiltStore::create(uq::realDisk(), folder, uq::art::composeDemo().quilt);
  if (!created) {
    std::fprintf(stderr, "%s\n", created.error().text().c_str());
    return 1;
  }
  std::filesystem::remove_all(folder + "/.urban-quilt");
  return 0;
}

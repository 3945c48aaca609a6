// uquilt as a script or build machine calls it.
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <fstream>

#include "cli/Uquilt.h"
#include "core/edit/MapFacts.h"
#include "core/store/JsonText.h"
#include "core/store/KeptWork.h"
#include "core/store/QuiltStore.h"

namespace uq {

TEST_F(Uquilt, InfoTellsMapsSheetsAndSizes) {
  const Answer info = run(words({"info"}));
  EXPECT_EQ(info.code, 0) << info.err;
  EXPECT_THAT(info.out, testing::HasSubstr("48 × 32 cells = 1536 × 1024 px"));
  EXPECT_THAT(info.out, testing::HasSubstr("Paving (ground): 1536 cells painted"));
  EXPECT_THAT(info.out, testing::HasSubstr("Chimneys (backdrop, Far away): the picture of chimneys"));
  EXPECT_THAT(info.out, testing::HasSubstr("Goods (things, Quay, up 32 px): 74 cells painted"));
  EXPECT_THAT(info.out, testing::HasSubstr("sheet street: 70 tiles of 32 × 32 px in street.png"));
  EXPECT_EQ(info.err, "");
}

TEST_F(Uquilt, InfoInJsonIsForPrograms) {
  const Answer info = run(words({"info", "--json"}) + QStringList{QString::fromStdString(folder)});
  EXPECT_EQ(info.code, 0);
  const auto json = readJson(info.out, "info");
  ASSERT_TRUE(json) << json.error().text();
  const Json& map = (*json->find("maps")->as<Json::Array>())[1];
  EXPECT_EQ(*map.find("name")->as<std::string>(), "Depot Yard");
  EXPECT_EQ(*map.find("pixels"), Json(Json::Array{1536, 1024}));
  const Json& quayside = (*json->find("maps")->as<Json::Array>())[4];
  EXPECT_EQ(*quayside.find("order"), Json("by-depth"));
  const Json::Array& layers = *quayside.find("layers")->as<Json::Array>();
  EXPECT_EQ(*layers.back().find("name"), Json("Pins"));
  const Json& goods = layers[layers.size() - 2];
  EXPECT_EQ(*goods.find("level"), Json("Quay"));
  EXPECT_EQ(*goods.find("rise"), Json(32));
  EXPECT_EQ(*(*map.find("layers")->as<Json::Array>())[0].find("painted"), Json(1536));
}

// What rises or reaches beyond the cells is in the picture, and where the cells begin is said.
TEST_F(Uquilt, RendersEveryGridWithWhatReachesBeyondItsCells) {
  const std::tuple<const char*, QSize, QSize, const char*> maps[] = {
      {"Quayside", {1792, 944}, {1792, 896}, ", the map's cells from 0, 48"},
      {"Roof Market", {1312, 752}, {1312, 656}, ", the map's cells from 0, 96"},
      {"Ward Board", {1372, 976}, {1372, 976}, ""},
      {"Canal Locks", {624, 720}, {592, 700}, ", the map's cells from 16, 20"}};
  for (const auto& [map, whole, cells, says] : maps) {
    const Answer answer = render(map, {});
    EXPECT_EQ(answer.code, 0) << answer.err;
    EXPECT_EQ(QImage(png()).size(), whole) << map;
    EXPECT_THAT(answer.out, testing::HasSubstr(std::string(" px") + says + "\n"));
    EXPECT_EQ(render(map, {"--exact"}).code, 0);
    EXPECT_EQ(QImage(png()).size(), cells) << map;
  }
}

TEST_F(Uquilt, RendersAtAZoomByNameFolderOrPath) {
  for (const char* map : {"Depot Yard", "depot-yard", "maps/depot-yard"}) {
    const Answer answer = render(map, {"--zoom", "0.25"});
    EXPECT_EQ(answer.code, 0) << answer.err;
    EXPECT_EQ(QImage(png()).size(), QSize(384, 256));
  }
}

TEST_F(Uquilt, RendersOnlyOrWithoutLayers) {
  const auto opaque = [&](std::initializer_list<const char*> more) {
    const Answer answer = render("Depot Yard", more);
    EXPECT_EQ(answer.code, 0) << answer.err;
    const QImage picture(png());
    int count = 0;
    for (int y = 0; y < picture.height(); y += 16) {
      for (int x = 0; x < picture.width(); x += 16) count += qAlpha(picture.pixel(x, y)) == 255 ? 1 : 0;
    }
    return count;
  };
  const int all = opaque({});
  EXPECT_EQ(all, 96 * 64);
  EXPECT_EQ(opaque({"--only", "Paving"}), all);
  const int without = opaque({"--without", "Paving"});
  EXPECT_GT(without, 100);
  EXPECT_LT(without, all / 2);
  EXPECT_EQ(opaque({"--only", "Paving", "--without", "Paving"}), 0);
}

TEST_F(Uquilt, ExitCodesTellWhatWentWrong) {
  EXPECT_EQ(run({}).code, 2);
  EXPECT_EQ(run(words({"paint"})).code, 2);
  EXPECT_EQ(run(words({"--help"})).code, 0);
  EXPECT_EQ(run(words({"info", "/no/such/quilt"})).code, 3);
  EXPECT_EQ(render("Nowhere").code, 3);
  EXPECT_EQ(render("Depot Yard", {"--only", "Nothing"}).code, 3);
  EXPECT_EQ(run(words({"render", "Depot Yard", "-o", "/no/such/out.png"})).code, 4);
  EXPECT_EQ(render("Depot Yard", {"--zoom", "99"}).code, 2);
}

TEST_F(Uquilt, CheckIsQuietAboutASoundQuilt) {
  const Answer check = run(words({"check"}));
  EXPECT_EQ(check.code, 0);
  EXPECT_THAT(check.out, testing::StartsWith("Copperline: everything opens (8 maps, 21 sheets)\n"));
  EXPECT_THAT(check.out, testing::HasSubstr(" loose thread"));
  EXPECT_EQ(run(words({"check", "--strict"})).code, 1) << "one is there on purpose";
  const Answer json = run(words({"check", "--json"}));
  EXPECT_EQ(json.code, 0);
  const QJsonObject all = QJsonDocument::fromJson(QByteArray::fromStdString(json.out)).object();
  EXPECT_TRUE(all.value(QStringLiteral("broken")).toArray().isEmpty());
  EXPECT_FALSE(all.value(QStringLiteral("threads")).toArray().isEmpty());
}

TEST_F(Uquilt, CheckListsJointsThatDoNotHoldWhenAsked) {
  EXPECT_EQ(run(words({"check", "--joints"})).code, 0);
  // The right end of a hedge goes.
  const std::string file = scratch.filePath(QStringLiteral("list.json")).toStdString();
  std::ofstream(file) << R"({"version": 1, "steps": [{"do": "erase", "map": "Depot Yard", "layer": "Sheds & trams",
    "path": [[45, 7], [45, 8]]}]})";
  const Answer edit = run(words({"edit", "--list"}) + QStringList{QString::fromStdString(file)});
  ASSERT_EQ(edit.code, 0) << edit.err;
  EXPECT_EQ(run(words({"check"})).code, 0) << "only when asked";
  const Answer check = run(words({"check", "--joints"}));
  EXPECT_EQ(check.code, 1);
  EXPECT_THAT(check.out, testing::HasSubstr("Depot Yard, Sheds & trams, cell 44, 7, side 1: hedge"));
  EXPECT_THAT(check.out, testing::HasSubstr("1 loose joint\n"));
  // What belongs there is laid.
  const Answer tried = run(words({"joints", "--dry-run"}));
  EXPECT_EQ(tried.code, 0) << tried.err;
  EXPECT_THAT(tried.out, testing::HasSubstr("would be laid"));
  EXPECT_EQ(run(words({"check", "--joints"})).code, 1) << "it was only said";
  EXPECT_EQ(run(words({"joints", "--map", "Nowhere"})).code, 3);
  const Answer laid = run(words({"joints", "--map", "Depot Yard"}));
  EXPECT_EQ(laid.code, 0) << laid.err;
  EXPECT_THAT(laid.out, testing::HasSubstr("Depot Yard, Sheds & trams: "));
  EXPECT_EQ(run(words({"check", "--joints"})).code, 0);
}

TEST_F(Uquilt, ResizesAMapAndKeepsWhatIsCutOff) {
  const auto bytesOf = [](const std::string& path) { return realDisk()->read(path, 1 << 24).value_or(""); };
  const Answer tried = run(words({"resize", "Depot Yard", "--left", "-3", "--dry-run"}));
  EXPECT_EQ(tried.code, 0) << tried.err;
  EXPECT_THAT(tried.out, testing::HasSubstr("Depot Yard: 45 x 32 cells, 1440 x 1024 px, if it were done"));
  EXPECT_THAT(tried.out, testing::HasSubstr("cut off, kept in the seam allowance"));
  ASSERT_EQ(run(words({"resize", "Depot Yard", "--left", "-3"})).code, 0);
  EXPECT_THAT(run(words({"info"})).out, testing::HasSubstr("45"));
  // Back at the old size nothing is missing.
  const Answer back = run(words({"resize", "Depot Yard", "--left", "3"}));
  EXPECT_EQ(back.code, 0) << back.err;
  EXPECT_THAT(back.out, testing::HasSubstr("brought back"));
  EXPECT_EQ(bytesOf(folder + "/maps/depot-yard/map.json"), bytesOf(UQ_SOURCE_DIR "/demo/copperline/maps/depot-yard/map.json"));
  EXPECT_EQ(bytesOf(folder + "/maps/depot-yard/paving.cells"),
            bytesOf(UQ_SOURCE_DIR "/demo/copperline/maps/depot-yard/paving.cells"));
  const Answer dropped = run(words({"resize", "Depot Yard", "--to", "20x20", "--drop-allowance"}));
  EXPECT_EQ(dropped.code, 0) << dropped.err;
  EXPECT_THAT(dropped.out, testing::HasSubstr("of the seam allowance dropped"));
  for (const QStringList& wrong :
       {words({"resize", "Depot Yard", "--to", "3 parsecs"}), words({"resize", "Depot Yard", "--left", "-20"}),
        words({"resize", "Depot Yard", "--right", "2000000000"}), words({"resize", "Depot Yard", "--room", "snow"})}) {
    const Answer refused = run(wrong);
    EXPECT_EQ(refused.code, 2) << refused.out;
    EXPECT_NE(refused.err, "");
  }
  EXPECT_EQ(run(words({"resize", "Nowhere", "--left", "1"})).code, 3);
}

TEST_F(Uquilt, PutsRowsAndColumnsInAndTakesThemOut) {
  const auto bytesOf = [](const std::string& path) { return realDisk()->read(path, 1 << 24).value_or(""); };
  const Answer in = run(words({"resize", "Depot Yard", "--insert-columns", "20:2", "--insert-rows", "4:1"}));
  EXPECT_EQ(in.code, 0) << in.err;
  EXPECT_THAT(in.out, testing::HasSubstr("Depot Yard: 50 x 33 cells"));
  const Answer out = run(words({"resize", "Depot Yard", "--remove-columns", "20:2", "--remove-rows", "4:1"}));
  EXPECT_EQ(out.code, 0) << out.err;
  EXPECT_THAT(out.out, testing::Not(testing::HasSubstr("removed with"))) << "nothing was painted there";
  EXPECT_EQ(bytesOf(folder + "/maps/depot-yard/paving.cells"),
            bytesOf(UQ_SOURCE_DIR "/demo/copperline/maps/depot-yard/paving.cells"));
  const Answer alone = run(words({"resize", "Depot Yard", "--remove-rows", "4:2", "--layer", "Paving", "--dry-run"}));
  EXPECT_EQ(alone.code, 0) << alone.err;
  EXPECT_THAT(alone.out, testing::HasSubstr("48 x 32 cells"));
  EXPECT_THAT(alone.out, testing::HasSubstr("painted cells removed with rows and columns"));
  for (const char* wrong : {"20", "x:1", "20:0", "-1:2", "3:4:5", "20:99999999999"}) {
    EXPECT_EQ(run(words({"resize", "Depot Yard", "--insert-columns", wrong})).code, 2) << wrong;
  }
  EXPECT_EQ(run(words({"resize", "Depot Yard", "--remove-rows", "31:2"})).code, 2);
  EXPECT_EQ(run(words({"resize", "Depot Yard", "--insert-rows", "1:1", "--layer", "Nowhere"})).code, 3);
}

TEST_F(Uquilt, NamesSizesThatDoNotAgree) {
  auto opened = QuiltStore::open(realDisk(), folder, QuiltStore::Access::write);
  ASSERT_TRUE(opened);
  const Map& yard = *opened->quilt.mapNamed("Depot Yard");
  const PixelRect all = makeGrid(yard.grid)->pixelBounds(yard.bounds);
  ASSERT_TRUE(opened->store.save(withScreen(opened->quilt, yard.id, PixelSize{all.w, all.h + 8})));
  const Answer named = run(words({"check", "--sizes"}));
  EXPECT_EQ(named.code, 1);
  EXPECT_THAT(named.out, testing::HasSubstr("Depot Yard: The map is 8 px lower than the screen. Lay the last row again?"));
}

TEST_F(Uquilt, RecoversWorkThatWasKeptAndNotSaved) {
  const std::string state = scratch.filePath(QStringLiteral("state")).toStdString();
  qputenv("XDG_STATE_HOME", QByteArray::fromStdString(state));
  const Answer nothing = run(words({"recover"}));
  EXPECT_EQ(nothing.code, 0);
  EXPECT_EQ(nothing.out, "Nothing is kept\n");
  const auto opened = QuiltStore::open(realDisk(), folder, QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  const Map& yard = *opened->quilt.mapNamed("Depot Yard");
  LayerCells cells = *yard.layerNamed("Paving");
  cells.lay(CellPos{1, 1}, Cell({kChalkSlot, 3}, {}), 0);
  const Quilt now = opened->quilt.with({yard.id, yard.layerNamed("Paving")->id}, cells);
  const auto keep = [&] {
    return KeptWork(realDisk(), keptPlace(state + "/urban-quilt", folder))
        .keep(opened->quilt, now, {folder, "Copperline", 7, 1'800'000'000});
  };
  ASSERT_TRUE(keep());
  const Answer listed = run(words({"recover", "--list"}));
  EXPECT_EQ(listed.code, 0);
  EXPECT_THAT(listed.out, testing::HasSubstr("Copperline, " + folder + ": 7 steps until 2027-01-1"));
  EXPECT_EQ(run(words({"recover", "--apply", "--drop"})).code, 2);
  const Answer applied = run(words({"recover", "--apply"}));
  EXPECT_EQ(applied.code, 0) << applied.err;
  EXPECT_THAT(applied.out, testing::HasSubstr("Copperline: saved as it was kept"));
  const auto after = QuiltStore::open(realDisk(), folder, QuiltStore::Access::read);
  ASSERT_TRUE(after);
  EXPECT_EQ(after->quilt.mapNamed("Depot Yard")->layerNamed("Paving")->cells.at({1, 1}), Cell({kChalkSlot, 3}, {}));
  EXPECT_EQ(run(words({"recover"})).out, "Nothing is kept\n");
  // What lies on other files than it was kept for is never laid over them.
  ASSERT_TRUE(keep());
  std::ofstream(folder + "/maps/depot-yard/paving.cells") << "cells 1\nend\n";
  EXPECT_EQ(run(words({"recover", "--apply"})).code, 4);
  EXPECT_EQ(run(words({"recover", "--drop"})).code, 0);
  EXPECT_EQ(run(words({"recover"})).out, "Nothing is kept\n");
  qunsetenv("XDG_STATE_HOME");
}

TEST_F(Uquilt, RendersWhatTheScreenShows) {
  const Answer shown = render("Lantern Row", {"--camera", "900,736", "--frame", "320x180"});
  EXPECT_EQ(shown.code, 0) << shown.err;
  const QImage screen(png());
  EXPECT_EQ(screen.size(), QSize(320, 180));
  // What is far away moves less: the same place of the map looks otherwise from elsewhere.
  EXPECT_EQ(render("Lantern Row", {"--camera", "1000,736"}).code, 0);
  const QImage other(png());
  EXPECT_EQ(other.size(), QSize(448, 288)) << "as the quilt's screen";
  EXPECT_NE(screen.copy(100, 0, 220, 180), other.copy(0, 0, 220, 180));
  EXPECT_EQ(screen.copy(100, 165, 220, 10), other.copy(0, 165, 220, 10)) << "the street is the same";
  EXPECT_EQ(render("Lantern Row", {"--frame", "320x180"}).code, 2);
  EXPECT_EQ(render("Lantern Row", {"--camera", "1,2", "--frame", "wide"}).code, 2);
}

TEST_F(Uquilt, ExportsALayeredPictureThatHoldsWhatIsDrawn) {
  const QString file = scratch.filePath(QStringLiteral("row.ora"));
  const Answer done = run(words({"export", "Lantern Row", "-o"}) + QStringList{file});
  EXPECT_EQ(done.code, 0) << done.err;
  QFile ora(file);
  ASSERT_TRUE(ora.open(QIODevice::ReadOnly));
  const QByteArray bytes = ora.readAll();
  // The first file says what it is, unpacked, so that any program knows it by its first bytes.
  EXPECT_EQ(bytes.mid(30, 8), "mimetype");
  EXPECT_EQ(bytes.mid(38, 16), "image/openraster");
  EXPECT_EQ(run(words({"export", "Lantern Row", "-o"}) + QStringList{png()}).code, 0);
  EXPECT_FALSE(QImage(png()).isNull());
  EXPECT_EQ(run(words({"export", "Nowhere", "-o"}) + QStringList{file}).code, 3);
}

TEST_F(Uquilt, CheckNamesABrokenPictureAMissingOneAndACutOffLayer) {
  cut("sheets/rails.png", 100);
  std::filesystem::remove(folder + "/sheets/yard.png");
  cut("maps/depot-yard/paving.cells", 300);
  const Answer check = run(words({"check"}));
  EXPECT_EQ(check.code, 1);
  EXPECT_THAT(check.err, testing::HasSubstr("sheets/rails.png: the picture cannot be read"));
  EXPECT_THAT(check.err, testing::HasSubstr("sheets/yard.png: it does not exist"));
  EXPECT_THAT(check.err, testing::HasSubstr("maps/depot-yard/paving.cells, line "));
  EXPECT_THAT(check.err, testing::HasSubstr("cut off"));
}

TEST_F(Uquilt, RendersWhatIsThereAndReportsTheRest) {
  std::filesystem::remove(folder + "/sheets/yard.png");
  EXPECT_EQ(render("Depot Yard").code, 1);
  EXPECT_EQ(QImage(png()).size(), QSize(1536, 1024));
}

TEST_F(Uquilt, AFolderThatWasMovedStillWorks) {
  const std::string moved = scratch.filePath(QStringLiteral("elsewhere")).toStdString();
  std::filesystem::rename(folder, moved);
  folder = moved;
  EXPECT_EQ(run(words({"check"})).code, 0);
}

TEST_F(Uquilt, LeavesTheQuiltAsItIs) {
  const auto listing = [&] {
    std::map<std::string, std::filesystem::file_time_type> files;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(folder)) {
      files[entry.path().string()] = entry.last_write_time();
    }
    return files;
  };
  const auto before = listing();
  run(words({"check"}));
  render("Depot Yard");
  EXPECT_EQ(listing(), before);
}

TEST_F(Uquilt, SheetsAreMeasuredForPrograms) {
  const Answer measured = run(words({"sheet", "measure", "sheets/street.png", "--json"}));
  EXPECT_EQ(measured.code, 0) << measured.err;
  const auto json = readJson(measured.out, "answer");
  ASSERT_TRUE(json);
  const auto* list = json->as<Json::Array>();
  ASSERT_TRUE(list && !list->empty());
  const auto number = [&](const char* name) { return *list->front().find(name)->as<std::int64_t>(); };
  EXPECT_EQ(number("cell_width"), 32);
  EXPECT_EQ(number("cell_height"), 32);
  EXPECT_EQ(number("border"), 0);
  EXPECT_EQ(number("gap"), 0);
  EXPECT_EQ(number("columns"), 14);
  EXPECT_EQ(number("rows"), 5);
  EXPECT_TRUE(list->front().find("reason")->as<std::string>());
  EXPECT_EQ(run(words({"sheet", "measure", "quilt.json"})).code, 3);
  EXPECT_EQ(run(words({"sheet", "measure", "nothing.png"})).code, 3);
}

TEST_F(Uquilt, ASheetIsBroughtInTidiedAndExported) {
  const Answer brought = run(
      words({"sheet", "bring-in", "sheets/rails.png", "--name", "Sidings", "--pile", "rails", "--footing", "solid"}));
  EXPECT_EQ(brought.code, 0) << brought.err;
  EXPECT_THAT(brought.out, testing::HasSubstr("Sidings: 24 tiles of 32 × 32 px"));
  EXPECT_TRUE(std::filesystem::exists(folder + "/sheets/sidings.png"));
  EXPECT_EQ(run(words({"check"})).code, 0);
  const Answer would = run(words({"sheet", "tidy", "Sidings", "--unused", "--dry-run"}));
  EXPECT_THAT(would.out, testing::HasSubstr("unused: 0 1 2"));
  EXPECT_EQ(run(words({"sheet", "tidy", "Sidings", "--unused"})).code, 0);
  const Answer none = run(words({"sheet", "export", "Sidings", "-o"}) + QStringList{png()});
  EXPECT_EQ(none.code, 1) << "all of its tiles were tidied away";
  const Answer exported =
      run(words({"sheet", "export", "street", "--columns", "5", "--gap", "2", "--order", "by-name", "-o"}) +
          QStringList{png()});
  EXPECT_EQ(exported.code, 0) << exported.err;
  EXPECT_EQ(QImage(png()).width(), 5 * 32 + 4 * 2);
  EXPECT_EQ(run(words({"sheet", "export", "nowhere", "-o"}) + QStringList{png()}).code, 3);
  EXPECT_EQ(run(words({"sheet", "bring-in", "sheets/rails.png", "--cell", "600", "600"})).code, 2);
}

TEST_F(Uquilt, EditDoesAListOfEditsAndSaysWhatItDid) {
  const std::string file = scratch.filePath(QStringLiteral("list.json")).toStdString();
  std::ofstream(file) << R"({"version": 1, "seed": 5, "steps": [
    {"do": "newMap", "name": "Siding", "size": [24, 16]},
    {"do": "box", "layer": "Ground", "from": [0, 0], "to": [23, 15],
     "hand": {"tiles": [[0, 0, "street", 24]], "manner": "mix",
              "mix": [{"tiles": [[0, 0, "street", 24]], "weight": 3}, {"tiles": [[0, 0, "street", 25]]}]}},
    {"do": "line", "tile": ["street", 26], "from": [2, 2], "to": [10, 2]},
    {"do": "swap", "from": ["street", 26], "to": ["street", 27], "in": "layer"},
    {"do": "keep", "name": "Kerb", "hand": {"tiles": [[0, 0, "street", 1], [1, 0, "street", 2], [2, 0, "street", 3]],
                                            "manner": "stretch"}},
    {"do": "stretch", "layer": "Things", "from": [4, 6], "to": [12, 6]},
    {"do": "select", "from": [4, 6], "to": [12, 6]},
    {"do": "move", "by": [0, 3]}]})";
  const Answer dry = run(words({"edit", "--list"}) + QStringList{QString::fromStdString(file)} + words({"--dry-run"}));
  EXPECT_EQ(dry.code, 0) << dry.err;
  EXPECT_THAT(dry.out, testing::HasSubstr("box on Ground of Siding: 384 cells"));
  EXPECT_THAT(dry.out, testing::HasSubstr("swap on Ground of Siding: 9 cells"));
  EXPECT_THAT(dry.out, testing::HasSubstr("8 steps, nothing was saved"));
  EXPECT_THAT(run(words({"info"})).out, testing::Not(testing::HasSubstr("Siding")));
  const Answer done = run(words({"edit", "--list"}) + QStringList{QString::fromStdString(file)});
  EXPECT_EQ(done.code, 0) << done.err;
  EXPECT_THAT(run(words({"info"})).out, testing::HasSubstr("Siding"));
  EXPECT_THAT(run(words({"info"})).out, testing::HasSubstr("Things (things): 9 cells painted"));
  EXPECT_TRUE(std::filesystem::exists(folder + "/stamps/kerb/stamp.json"));
  EXPECT_EQ(run(words({"check"})).code, 0);
}

TEST_F(Uquilt, AnEditThatCannotBeDoneIsNamedAndNothingIsSaved) {
  const std::string file = scratch.filePath(QStringLiteral("list.json")).toStdString();
  const auto refused = [&](const char* step) {
    std::ofstream(file) << "{\"version\": 1, \"steps\": [{\"do\": \"delete\", \"map\": \"Depot Yard\", \"layer\": "
                           "\"Rails\"}, "
                        << step << "]}";
    return run(words({"edit", "--list"}) + QStringList{QString::fromStdString(file)});
  };
  std::ofstream(file) << "{\"version\": 1}";
  EXPECT_EQ(run(words({"edit", "--list"}) + QStringList{QString::fromStdString(file)}).code, 2);
  const Answer nothing = refused("{}");
  EXPECT_EQ(nothing.code, 2);
  EXPECT_THAT(nothing.err, testing::HasSubstr("step 1: nothing is selected"));
  std::ofstream(file) << R"({"version": 1, "steps": [
    {"do": "select", "map": "Depot Yard", "layer": "Rails", "all": true}, {"do": "delete"},
    {"do": "box", "from": [0, 0], "to": [1, 1], "tile": ["nowhere", 3]}]})";
  const Answer unknown = run(words({"edit", "--list"}) + QStringList{QString::fromStdString(file)});
  EXPECT_EQ(unknown.code, 2);
  EXPECT_THAT(unknown.err, testing::HasSubstr("step 3: there is no sheet “nowhere”"));
  EXPECT_THAT(unknown.err, testing::HasSubstr("Nothing was changed"));
  EXPECT_THAT(run(words({"info"})).out, testing::Not(testing::HasSubstr("Rails (tracks): 0 cells painted")));
}

// What is not there is told by its own code, and everything is said once.
TEST_F(Uquilt, AnEditSaysOnceWhatIsWrongAndByItsCode) {
  const std::string file = scratch.filePath(QStringLiteral("list.json")).toStdString();
  const auto listed = [&](const char* text) {
    std::ofstream(file) << text;
    return run(words({"edit", "--list"}) + QStringList{QString::fromStdString(file)});
  };
  EXPECT_EQ(listed(R"({"version": 1, "steps": [{"do": "select", "map": "Harbour", "all": true}]})").code, 3);
  EXPECT_EQ(listed(R"({"version": 1, "steps": [{"do": "select", "map": "Depot Yard", "layer": "Moss"}]})").code, 3);
  const Answer broken = listed(R"({"version": 1, "steps": [)");
  EXPECT_EQ(broken.code, 2);
  EXPECT_THAT(broken.err, testing::HasSubstr("Nothing was changed"));
  // Where nothing may be written, that is told once.
  std::filesystem::remove_all(folder + "/.urban-quilt");
  std::ofstream(folder + "/.urban-quilt") << "in the way";
  const Answer barred = listed(R"({"version": 1, "steps": [{"do": "newMap", "name": "Harbour", "size": [4, 4]}]})");
  EXPECT_EQ(barred.code, 4) << barred.err;
  const auto first = barred.err.find("can be looked at");
  EXPECT_NE(first, std::string::npos) << barred.err;
  EXPECT_EQ(barred.err.find("can be looked at", first + 1), std::string::npos) << barred.err;
}

TEST_F(Uquilt, PacksAQuiltAndUnpacksItElsewhere) {
  const auto at = [&](const char* name) { return scratch.filePath(QString::fromUtf8(name)); };
  ASSERT_EQ(run(words({"pack", "-o"}) + QStringList{at("one.quilt")}).code, 0);
  const Answer there = run(words({"unpack"}) + QStringList{at("one.quilt"), QStringLiteral("-o"), at("elsewhere")});
  ASSERT_EQ(there.code, 0) << there.err;
  EXPECT_EQ(run(words({"check"}) + QStringList{at("elsewhere")}).code, 0);
  ASSERT_EQ(run(words({"pack"}) + QStringList{at("elsewhere")}).code, 0);
  const auto bytesOf = [](const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
  };
  EXPECT_EQ(bytesOf(at("elsewhere.quilt")), bytesOf(at("one.quilt"))) << "beside its folder, the same bytes";
  // What lies there stays.
  EXPECT_EQ(run(words({"unpack"}) + QStringList{at("one.quilt"), QStringLiteral("-o"), at("elsewhere")}).code, 4);
  EXPECT_EQ(run(words({"unpack", "quilt.json"})).code, 3);
}

TEST_F(Uquilt, APictureThatIsTooLargeIsRefusedBeforeItIsDrawn) {
  const Answer large = render("Depot Yard", {"--zoom", "20"});
  EXPECT_EQ(large.code, 4);
  EXPECT_THAT(large.err, testing::HasSubstr("512 MB"));
}

TEST_F(Uquilt, PrintsHowMapsHangTogether) {
  const QString quilt = QString::fromStdString(folder);
  EXPECT_THAT(run(words({"links"}) + QStringList{quilt}).out, testing::HasSubstr("Gate leads to Lantern Row, arriving at “door”"));
  const Answer links = run(words({"links", "--json"}) + QStringList{quilt});
  EXPECT_EQ(links.code, 0);
  const auto json = readJson(links.out, "links");
  ASSERT_TRUE(json) << json.error().text();
  EXPECT_EQ(json->find("maps")->as<Json::Array>()->size(), 8u);
  EXPECT_GE(json->find("doorways")->as<Json::Array>()->size(), 7u);
  EXPECT_EQ(*json->find("needs")->as<Json::Array>()->front().find("what"), Json("the brass key"));
}

TEST_F(Uquilt, GuessesWhatASheetJoinsAndPaintsWithIt) {
  const QStringList inQuilt{QStringLiteral("--quilt"), QString::fromStdString(folder)};
  const Answer guess = run(words({"edging", "guess", "street", "--region", "0,0,8,4", "--json"}) + inQuilt);
  EXPECT_EQ(guess.code, 0) << guess.err;
  const auto json = readJson(guess.out, "guess");
  ASSERT_TRUE(json) << json.error().text();
  const Json::Array& members = *json->find("members")->as<Json::Array>();
  EXPECT_THAT(members, testing::SizeIs(32));
  EXPECT_EQ(members.front().find("corners")->as<Json::Array>()->size(), 4u);
  EXPECT_EQ(*members.front().find("turn"), Json(0));
  EXPECT_EQ(run(words({"edging", "guess", "no such"}) + inQuilt).code, 3);
  EXPECT_EQ(run(words({"edging", "guess", "street", "--region", "1,x"}) + inQuilt).code, 2);
  EXPECT_EQ(run(words({"edging", "guess", "street", "--grid", "round"}) + inQuilt).code, 2);
  EXPECT_EQ(run(words({"edging", "guess", "street", "--keep", "Street"}) + inQuilt).code, 0);
  EXPECT_THAT(realDisk()->read(folder + "/edgings/street.json", 1 << 24).value_or(""), testing::HasSubstr("\"document\": \"edging\""));
  const Answer coverage = run(words({"edging", "coverage", "Street", "--json"}) + inQuilt);
  EXPECT_EQ(coverage.code, 0) << coverage.err;
  const auto covered = readJson(coverage.out, "coverage");
  ASSERT_TRUE(covered) << covered.error().text();
  const auto number = [&](const char* field) { return *covered->find(field)->as<std::int64_t>(); };
  EXPECT_EQ(number("needed") - number("there"), static_cast<std::int64_t>(covered->find("missing")->as<Json::Array>()->size()));
  EXPECT_EQ(run(words({"edging", "coverage", "Moat"}) + inQuilt).code, 3);
}

}  // namespace uq

// A quilt given to a game: the example reader, which is not ours, rebuilds the same pictures from what was exported.
#include <QXmlStreamReader>

#include "Uquilt.h"

namespace uq {

class Exchange : public Uquilt {
 protected:
  QString out() { return scratch.filePath(QStringLiteral("game")); }
  Answer exported(std::initializer_list<const char*> more = {}) { return run(words({"export", "--form", "json", "-o"}) + QStringList{out()} + words(more)); }
  Answer read(const QStringList& arguments) {
    QProcess process;
    process.start(QStringLiteral("python3"), QStringList{QStringLiteral(UQ_SOURCE_DIR "/examples/python/quilt_reader.py"), out()} + arguments);
    EXPECT_TRUE(process.waitForFinished(120'000));
    return {process.exitCode(), process.readAllStandardOutput().toStdString(), process.readAllStandardError().toStdString()};
  }
  // Pixels that differ between what uquilt draws and what the reader does.
  int different(const char* map, std::initializer_list<const char*> camera = {}) {
    const Answer drawn = render(map, camera);
    EXPECT_EQ(drawn.code, 0) << drawn.err;
    const QString theirs = scratch.filePath(QStringLiteral("theirs.png"));
    const Answer rebuilt = read(words({"draw", map}) + QStringList{theirs} + words(camera));
    EXPECT_EQ(rebuilt.code, 0) << rebuilt.err;
    return differences(QImage(png()), QImage(theirs));
  }
  static int differences(const QImage& ours, const QImage& theirs) {
    const QImage a = ours.convertToFormat(QImage::Format_ARGB32_Premultiplied);
    const QImage b = theirs.convertToFormat(QImage::Format_ARGB32_Premultiplied);
    EXPECT_EQ(a.size(), b.size());
    if (a.size() != b.size() || a.isNull()) return -1;
    int count = 0;
    for (int y = 0; y < a.height(); ++y) {
      for (int x = 0; x < a.width(); ++x) {
        const auto at = [&](const QImage& one) { return reinterpret_cast<const QRgb*>(one.constScanLine(y))[x]; };
        count += at(a) != at(b) ? 1 : 0;
      }
    }
    return count;
  }
};

TEST_F(Exchange, AnotherReaderDrawsEveryMapOfTheDemoTheSame) {
  const Answer done = exported();
  ASSERT_EQ(done.code, 0) << done.err;
  for (const char* map : {"Depot Yard", "Canal Locks", "Ferry Street", "Lantern Row", "Quayside", "Roof Market", "Signal Loft", "Ward Board"}) {
    EXPECT_EQ(different(map), 0) << map;
  }
}

TEST_F(Exchange, TheReaderInCDrawsEveryMapOfTheDemoTheSame) {
  ASSERT_EQ(exported({"--cells", "runs"}).code, 0);
  const QString theirs = scratch.filePath(QStringLiteral("theirs.png"));
  for (const char* map : {"Depot Yard", "Canal Locks", "Ferry Street", "Lantern Row", "Quayside", "Roof Market", "Signal Loft", "Ward Board"}) {
    ASSERT_EQ(render(map).code, 0);
    QProcess process;
    process.start(QStringLiteral(UQ_READER), QStringList{out(), QString::fromUtf8(map), theirs});
    ASSERT_TRUE(process.waitForFinished());
    EXPECT_EQ(process.exitCode(), 0) << process.readAllStandardError().toStdString();
    EXPECT_EQ(differences(QImage(png()), QImage(theirs)), 0) << map;
  }
}

TEST_F(Exchange, AnotherReaderMovesTheLayersWithTheCamera) {
  ASSERT_EQ(exported({"--cells", "runs"}).code, 0);
  EXPECT_EQ(different("Lantern Row", {"--camera", "200,40", "--frame", "480x270"}), 0);
  EXPECT_EQ(different("Depot Yard", {"--camera", "31,77", "--frame", "320x180"}), 0);
}

TEST_F(Exchange, AnotherReaderFollowsEveryWayAndTellsSolidCells) {
  ASSERT_EQ(exported().code, 0);
  const Answer ways = read(words({"ways"}));
  EXPECT_EQ(ways.code, 0) << ways.err;
  EXPECT_THAT(ways.out, testing::HasSubstr("is sewn to"));
  EXPECT_THAT(ways.out, testing::HasSubstr("<->"));
  const Answer solid = read(words({"solid", "Depot Yard"}));
  EXPECT_EQ(solid.code, 0) << solid.err;
  EXPECT_THAT(solid.out, testing::HasSubstr("#"));
  EXPECT_THAT(solid.out, testing::HasSubstr("."));
}

TEST_F(Exchange, IsAsItsSchemaSays) {
  ASSERT_EQ(exported().code, 0);
  QProcess process;
  process.start(QStringLiteral("python3"), QStringList{QStringLiteral(UQ_SOURCE_DIR "/tests/exchange_schema.py"), QStringLiteral(UQ_SOURCE_DIR), out()});
  ASSERT_TRUE(process.waitForFinished(120'000));
  EXPECT_EQ(process.exitCode(), 0) << process.readAllStandardOutput().toStdString() << process.readAllStandardError().toStdString();
}

TEST_F(Exchange, TheSameQuiltGivesTheSameBytesAndIsWrittenOnce) {
  ASSERT_EQ(exported().code, 0);
  const Answer again = exported();
  EXPECT_EQ(again.code, 0);
  EXPECT_THAT(again.out, testing::StartsWith("0 files written"));
}

TEST_F(Exchange, WhatAFormHasNoPlaceForIsNamed) {
  const Answer csv = run(words({"export", "Lantern Row", "--form", "csv", "-o"}) + QStringList{out()});
  EXPECT_EQ(csv.code, 0) << csv.err;
  EXPECT_THAT(csv.err, testing::HasSubstr("CSV of Lantern Row has no place for"));
  EXPECT_THAT(csv.err, testing::HasSubstr("doorway"));
  EXPECT_THAT(exported().err, testing::Not(testing::HasSubstr("no place")));
}

TEST_F(Exchange, NamesInCsvAreThoseOfTheTiles) {
  ASSERT_EQ(run(words({"export", "Depot Yard", "--form", "csv", "--cells", "names", "-o"}) + QStringList{out()}).code, 0);
  QFile paving(out() + QStringLiteral("/depot-yard/paving.csv"));
  ASSERT_TRUE(paving.open(QIODevice::ReadOnly));
  const QByteArray text = paving.readAll();
  EXPECT_EQ(text.count('\n'), 32);
  EXPECT_EQ(text.left(text.indexOf('\r')).count(','), 47);
  EXPECT_TRUE(text.startsWith("lawn 5,"));
}

// A line is an object; what a script asks for is what is there.
TEST_F(Exchange, AQueryGivesWhatIsThereAsLines) {
  const auto lines = [&](std::initializer_list<const char*> words_) {
    const Answer told = run(words({"query"}) + words(words_));
    EXPECT_EQ(told.code, 0) << told.err;
    return QByteArray::fromStdString(told.out).split('\n');
  };
  const auto cells = lines({"cells", "--map", "Depot Yard", "--layer", "Paving", "--region", "2,3,4,5"});
  EXPECT_EQ(cells.size(), 21) << "and an empty line at the end";
  EXPECT_TRUE(cells.front().startsWith("{\"map\": \"Depot Yard\", \"layer\": \"Paving\", \"x\": 2, \"y\": 3, \"sheet\": \"street\"")) << cells.front().toStdString();
  EXPECT_EQ(lines({"maps"}).size(), 9);
  EXPECT_EQ(lines({"facts"}).size(), 2);
  EXPECT_GE(lines({"tiles"}).size(), 800);
  EXPECT_EQ(lines({"spots", "--map", "Depot Yard"}).size(), 5);
  EXPECT_EQ(lines({"doorways", "--map", "Depot Yard"}).size(), 4);
  EXPECT_GE(lines({"layers", "--map", "Depot Yard"}).size(), 5);
  EXPECT_EQ(run(words({"query", "clouds"})).code, 2);
  EXPECT_EQ(run(words({"query", "cells", "--region", "1,2,3"})).code, 2);
  EXPECT_EQ(run(words({"query", "maps", "--map", "Nowhere"})).code, 3);
}

TEST_F(Exchange, AScriptMakesAVillageFromAPlan) {
  QProcess process;
  process.start(QStringLiteral("python3"), QStringList{QStringLiteral(UQ_SOURCE_DIR "/examples/python/make_village.py"), QString::fromStdString(folder), QStringLiteral("New Wharf"),
                                                       QStringLiteral("--uquilt"), QStringLiteral(UQ_UQUILT)});
  ASSERT_TRUE(process.waitForFinished());
  EXPECT_EQ(process.exitCode(), 0) << process.readAllStandardError().toStdString();
  EXPECT_THAT(process.readAllStandardOutput().toStdString(), testing::AllOf(testing::HasSubstr("Ground: 180 cells"), testing::HasSubstr("Things: 3 cells")));
  EXPECT_EQ(run(words({"check", "--joints"})).code, 0);
  EXPECT_THAT(run(words({"query", "spots", "--map", "New Wharf"})).out, testing::HasSubstr("door 1"));
}

TEST_F(Exchange, EveryTemplateOfTheGalleryFillsEveryMap) {
  int count = 0;
  for (const auto& file : std::filesystem::directory_iterator(UQ_SOURCE_DIR "/examples/templates")) {
    const Answer done = run(words({"export", "--form", "template", "--template"}) + QStringList{QString::fromStdString(file.path().string())} + words({"-o"}) + QStringList{out()});
    EXPECT_EQ(done.code, 0) << file.path() << done.err;
    ++count;
  }
  EXPECT_GE(count, 5);
  QFile xml(out() + QStringLiteral("/lantern-row.xml"));
  ASSERT_TRUE(xml.open(QIODevice::ReadOnly));
  QXmlStreamReader reader(&xml);
  while (!reader.atEnd()) reader.readNext();
  EXPECT_FALSE(reader.hasError()) << reader.errorString().toStdString();
  QProcess compiler;
  compiler.start(QStringLiteral("cc"), QStringList{QStringLiteral("-fsyntax-only"), QStringLiteral("-x"), QStringLiteral("c"), out() + QStringLiteral("/lantern-row.h")});
  ASSERT_TRUE(compiler.waitForFinished());
  EXPECT_EQ(compiler.exitCode(), 0) << compiler.readAllStandardError().toStdString();
}

TEST_F(Exchange, ATemplateThatIsWrongOrLeavesTheFolderWritesNothing) {
  const QString file = scratch.filePath(QStringLiteral("own.txt.mustache"));
  const auto put = [&](const char* text) {
    QFile own(file);
    EXPECT_TRUE(own.open(QIODevice::WriteOnly));
    own.write(text);
  };
  const auto fill = [&](std::initializer_list<const char*> more) { return run(words({"export", "--form", "template", "--template"}) + QStringList{file} + words({"-o"}) + QStringList{out()} + words(more)); };
  put("{{name}}\n{{#layers}}");
  const Answer wrong = fill({});
  EXPECT_EQ(wrong.code, 4);
  EXPECT_THAT(wrong.err, testing::HasSubstr("line 2"));
  put("{{name}}");
  EXPECT_EQ(fill({"--name", "../{{file}}.txt"}).code, 4);
  EXPECT_EQ(fill({"--name", "all.txt"}).code, 4) << "all maps in one file";
  EXPECT_FALSE(std::filesystem::exists(out().toStdString()));
  EXPECT_EQ(fill({"Depot Yard", "--name", "levels/{{id}}.txt"}).code, 0);
}

// The folder of a quilt has a quilt.json of its own.
TEST_F(Exchange, NeverWritesOverTheQuilt) {
  const auto bytesOf = [&](const char* file) {
    QFile one(QString::fromStdString(folder + file));
    EXPECT_TRUE(one.open(QIODevice::ReadOnly));
    return one.readAll();
  };
  const QByteArray before = bytesOf("/quilt.json");
  EXPECT_EQ(run(words({"export", "--form", "json", "-o", "."})).code, 4);
  EXPECT_EQ(run(words({"export", "--form", "json", "-o"}) + QStringList{QString::fromStdString(folder)}).code, 4);
  // Whatever it is called.
  {
    QFile facts(QString::fromStdString(folder + "/quilt.json"));
    ASSERT_TRUE(facts.open(QIODevice::WriteOnly));
    facts.write(QByteArray(before).replace("\"Copperline\"", "\"exchange-quilt\""));
  }
  EXPECT_EQ(run(words({"export", "--form", "json", "-o", "."})).code, 4);
  {
    QFile facts(QString::fromStdString(folder + "/quilt.json"));
    ASSERT_TRUE(facts.open(QIODevice::WriteOnly));
    facts.write(before);
  }
  EXPECT_EQ(run(words({"export", "--form", "png", "-o", "sheets"})).code, 4);
  EXPECT_EQ(run(words({"export", "Depot Yard", "-o", "sheets/street.png"})).code, 4);
  EXPECT_EQ(run(words({"export", "Depot Yard", "--form", "template", "--name", "quilt.json", "--template", UQ_SOURCE_DIR "/examples/templates/own.txt.mustache", "-o", "."})).code, 4);
  EXPECT_EQ(bytesOf("/quilt.json"), before);
  EXPECT_EQ(run(words({"export", "--form", "json", "-o", "game"})).code, 0) << "a folder of its own is fine";
  EXPECT_EQ(run(words({"export", "--form", "json", "-o", "game"})).code, 0) << "again, too";
  EXPECT_EQ(run(words({"check"})).code, 0);
}

TEST_F(Exchange, RefusesWhatMakesNoSense) {
  EXPECT_EQ(run(words({"export", "--form", "clay", "-o"}) + QStringList{out()}).code, 2);
  EXPECT_EQ(run(words({"export", "--form", "json", "--cells", "names", "-o"}) + QStringList{out()}).code, 2);
  EXPECT_EQ(run(words({"export", "Nowhere", "--form", "json", "-o"}) + QStringList{out()}).code, 3);
  EXPECT_EQ(run(words({"export", "--form", "json", "-o", "/proc/nowhere"})).code, 4);
  EXPECT_EQ(run(words({"export", "-o", "all.png"})).code, 2) << "one file holds one map";
}

// What the window sets up goes out without it, too: all of it, one map, what has changed.
TEST_F(Exchange, TargetsGoOutWithoutAWindow) {
  ASSERT_TRUE(std::filesystem::create_directories(folder + "/targets"));
  const auto target = [&](const char* file, const char* text) {
    QFile written(QString::fromStdString(folder + "/targets/" + file));
    EXPECT_TRUE(written.open(QIODevice::WriteOnly));
    written.write(text);
  };
  target("levels.json", R"({"document": "target", "version": "1.14", "id": "aaaaaaaaaaab", "name": "Levels", "form": "json", "folder": "exports/levels", "cells": "runs"})");
  target("names.json", R"({"document": "target", "version": "1.14", "id": "aaaaaaaaaaac", "name": "Names", "form": "own", "folder": "exports/names", "text": ["{{name}}", ""], "naming": "{{id}}", "ending": ".txt"})");
  ASSERT_EQ(run(words({"check"})).code, 0);
  const Answer all = run(words({"export", "--all", "--changed"}));
  EXPECT_EQ(all.code, 0) << all.err;
  EXPECT_TRUE(std::filesystem::exists(folder + "/exports/levels/maps/depot-yard.json"));
  EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder + "/exports/names"), {}), 9) << "eight maps, and the books";
  const Answer again = run(words({"export", "--all", "--changed"}));
  EXPECT_THAT(again.out, testing::HasSubstr("0 files written, 0 were as they are, 8 maps had not changed"));
  // One map is painted on.
  const QString edits = scratch.filePath(QStringLiteral("edits.json"));
  {
    QFile list(edits);
    ASSERT_TRUE(list.open(QIODevice::WriteOnly));
    list.write(R"({"version": 1, "steps": [{"do": "paint", "map": "Depot Yard", "layer": "Paving", "tile": ["street", 24], "at": [20, 20]}]})");
  }
  const Answer edited = run(words({"edit", "--list"}) + QStringList{edits});
  ASSERT_EQ(edited.code, 0) << edited.err;
  const Answer changed = run(words({"export", "--target", "Levels", "--changed"}));
  EXPECT_THAT(changed.out, testing::HasSubstr("exports/levels/maps/depot-yard.json\n1 files written")) << changed.out;
  EXPECT_EQ(run(words({"export", "--target", "Levels", "Quayside", "-o"}) + QStringList{out()}).code, 0);
  EXPECT_TRUE(std::filesystem::exists(out().toStdString() + "/maps/quayside.json"));
  EXPECT_FALSE(std::filesystem::exists(out().toStdString() + "/quilt.json")) << "what is of the whole quilt is not one map's";
  // What makes no sense.
  EXPECT_EQ(run(words({"export", "--target", "Nowhere"})).code, 3);
  EXPECT_EQ(run(words({"export", "--target", "Levels", "--form", "json"})).code, 2);
  EXPECT_EQ(run(words({"export", "--changed", "--form", "json", "-o"}) + QStringList{out()}).code, 2);
  EXPECT_EQ(run(words({"export", "--all", "-o"}) + QStringList{out()}).code, 2);
  EXPECT_EQ(run(words({"export", "--target", "Levels", "-o", "maps"})).code, 4);
  // Nobody has said on this machine where it goes.
  target("names.json", R"({"document": "target", "version": "1.14", "id": "aaaaaaaaaaac", "name": "Names", "form": "own", "text": ["{{name}}"]})");
  EXPECT_EQ(run(words({"export", "--target", "Names"})).code, 2);
}

// What needs pictures is done where there are some.
TEST_F(Exchange, AListStripsWhatIsCoveredAndClosesJoints) {
  const QString edits = scratch.filePath(QStringLiteral("edits.json"));
  {
    QFile list(edits);
    ASSERT_TRUE(list.open(QIODevice::WriteOnly));
    list.write(R"({"version": 1, "steps": [
      {"do": "copyLayer", "map": "Depot Yard", "layer": "Paving", "name": "Paving again"},
      {"do": "stripCovered", "layer": "Paving"},
      {"do": "select", "layer": "Sheds & trams", "from": [45, 7], "to": [45, 8]}, {"do": "delete", "layer": "Sheds & trams"},
      {"do": "select", "layer": "Sheds & trams", "all": true}, {"do": "closeJoints", "layer": "Sheds & trams"}]})");
  }
  const Answer done = run(words({"edit", "--list"}) + QStringList{edits});
  ASSERT_EQ(done.code, 0) << done.err;
  EXPECT_THAT(done.out, testing::HasSubstr("stripCovered on Paving of Depot Yard: 1495 cells")) << "tiles that move hide nothing; " << done.out;
  EXPECT_THAT(done.out, testing::Not(testing::HasSubstr("closeJoints on Sheds & trams of Depot Yard: 0 cells"))) << done.out;
}

TEST_F(Exchange, WhatGoesOutComesIn) {
  ASSERT_EQ(run(words({"export", "Depot Yard", "--form", "csv", "-o"}) + QStringList{out()}).code, 0);
  const QStringList tables{out() + QStringLiteral("/depot-yard/paving.csv"), out() + QStringLiteral("/depot-yard/rails.csv")};
  const Answer tabled = run(words({"import"}) + tables + words({"--like", "Depot Yard", "--map", "From tables"}));
  EXPECT_EQ(tabled.code, 0) << tabled.err;
  ASSERT_EQ(run(words({"export", "Depot Yard", "Ward Board", "--form", "png", "--of", "layer", "-o"}) + QStringList{out()}).code, 0);
  const Answer seen = run(words({"import"}) + QStringList{out() + QStringLiteral("/depot-yard/paving.png")} + words({"--like", "Depot Yard", "--map", "From a picture", "--json"}));
  EXPECT_EQ(seen.code, 0) << seen.err;
  EXPECT_THAT(seen.out, testing::HasSubstr("\"known\": 1536, \"unknown\": 0"));
  const Answer hexagons = run(words({"import"}) + QStringList{out() + QStringLiteral("/ward-board/wards.png")} + words({"--like", "Ward Board", "--map", "Wards again"}));
  EXPECT_THAT(hexagons.out, testing::HasSubstr("479 recognised, 1 with 1 pictures")) << "the gasworks reach over one cell";
  const auto cells = [&](const char* map, const char* layer) {
    QByteArray lines = QByteArray::fromStdString(run(words({"query", "cells", "--map", map, "--layer", layer})).out);
    return lines.replace(QByteArray("\"map\": \"") + map + '"', "").replace(QByteArray("\"layer\": \"") + layer + '"', "");
  };
  EXPECT_EQ(cells("From tables", "paving"), cells("Depot Yard", "Paving"));
  EXPECT_EQ(cells("From tables", "rails"), cells("Depot Yard", "Rails"));
  EXPECT_EQ(cells("Wards again", "Ground").count('\n') + 1, cells("Ward Board", "Wards").count('\n'));
  const Answer round = run(words({"check", "--round-trip"}));
  EXPECT_EQ(round.code, 0) << round.out;
  EXPECT_THAT(round.out, testing::HasSubstr(" 0 differences"));
  // What is no picture and no table, and what is not there.
  EXPECT_EQ(run(words({"import", "quilt.json"})).code, 1);
  EXPECT_EQ(run(words({"import", "nowhere.png"})).code, 3);
  EXPECT_EQ(run(words({"import"}) + QStringList{tables[0], out() + QStringLiteral("/depot-yard/paving.png")}).code, 1);
}

}  // namespace uq

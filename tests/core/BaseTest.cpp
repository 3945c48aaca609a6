#include <rapidcheck/gtest.h>

#include "core/base/Id.h"
#include "core/base/Revision.h"
#include "core/base/Shared.h"
#include "core/store/JsonText.h"

namespace uq {

TEST(Shared, AKeptCopyNeverChanges) {
  Shared<std::string> now(std::string("Depot Yard"));
  const Shared<std::string> kept = now;
  now.edit([](std::string& name) { name = "Ferry Street"; });
  EXPECT_EQ(kept.read(), "Depot Yard");
  EXPECT_EQ(now.read(), "Ferry Street");
}

TEST(Shared, CopiesOnlyWhenSomebodyElseLooks) {
  Shared<std::vector<int>> alone(std::vector<int>{1, 2, 3});
  const int* place = alone.read().data();
  alone.edit([](std::vector<int>& v) { v[0] = 9; });
  EXPECT_EQ(alone.read().data(), place);
  const auto other = alone;
  alone.edit([](std::vector<int>& v) { v[0] = 8; });
  EXPECT_NE(alone.read().data(), place);
  EXPECT_EQ(other.read()[0], 9);
}

TEST(Shared, BlankReadsAsADefaultValue) {
  Shared<std::string> blank;
  EXPECT_TRUE(blank.isBlank());
  EXPECT_EQ(blank.read(), "");
  EXPECT_EQ(blank, Shared<std::string>(std::string()));
  blank.edit([](std::string& s) { s = "x"; });
  EXPECT_EQ(blank.read(), "x");
}

TEST(Revision, IsNoPartOfEqualityButTellsEditsApart) {
  const Revision a = Revision::next();
  const Revision b = Revision::next();
  EXPECT_FALSE(a.is(b));
  EXPECT_TRUE(a.is(Revision(a)));
  EXPECT_EQ(a, b);
  EXPECT_GT(a.number(), 0xffffffffu);
}

RC_GTEST_PROP(Id, ReadsBackWhatItWrites, (std::uint64_t seed)) {
  const Id id = IdSource(seed).next();
  RC_ASSERT(id.text().size() == std::size_t{Id::kLength});
  RC_ASSERT(Id::parse(id.text()) == id);
}

TEST(Id, RefusesWhatIsNoId) {
  for (const char* text : {"", "abc", "ABCDEFGHIJKL", "abcdefghijk1", "aaaaaaaaaaaa", "abcdefghijklm"}) {
    EXPECT_FALSE(Id::parse(text)) << text;
  }
}

TEST(Id, TheSameSeedGivesTheSameIds) { EXPECT_EQ(IdSource(5).next(), IdSource(5).next()); }

TEST(JsonText, KeepsOrderSpellingAndLines) {
  const std::string text =
      "{\n  \"name\": \"Gate — \\\"east\\\"\",\n  \"big\": 18446744073709551615,\n  \"part\": 0.30000,\n"
      "  \"size\": [32, -32],\n  \"none\": null,\n  \"list\": [\n    {\"a\": true, \"b\": [1, 2]},\n    \"x\"\n  "
      "]\n}\n";
  const auto json = readJson(text, "map.json");
  ASSERT_TRUE(json) << json.error().text();
  EXPECT_EQ(json->find("size")->line, 5);
  EXPECT_EQ(writeJson(*json), text);
}

struct BadJson {
  const char* what;
  std::string text;
  int line;
  const char* says;
};

// What is quoted of a text ends with a whole character.
TEST(JsonText, QuotesWholeCharactersOnly) {
  for (std::size_t length = 1; length < 12; ++length) {
    const auto json = readJson(std::string("{\"größe: ×§€\" ").substr(0, length + 3), "quilt.json");
    ASSERT_FALSE(json);
    EXPECT_TRUE(isUtf8(json.error().text())) << length;
  }
}

class JsonTextRefuses : public testing::TestWithParam<BadJson> {};

TEST_P(JsonTextRefuses, WithFileAndLine) {
  const auto json = readJson(GetParam().text, "quilt.json");
  ASSERT_FALSE(json);
  EXPECT_EQ(json.error().file, "quilt.json");
  EXPECT_EQ(json.error().line, GetParam().line);
  EXPECT_THAT(json.error().reason, testing::HasSubstr(GetParam().says));
}

INSTANTIATE_TEST_SUITE_P(
    Broken, JsonTextRefuses,
    testing::Values(BadJson{"cut off", "{\n\"a\": 1,\n", 3, "syntax error"}, BadJson{"empty", "", 1, "syntax error"},
                    BadJson{"twice", "{\"a\": 1,\n\"a\": 2}", 2, "stands twice"},
                    BadJson{"deep", std::string(200'000, '['), 1, "64 deep"},
                    BadJson{"utf8", "{\"a\": \"\xff\xfe\"}", 1, "UTF-8"},
                    BadJson{"long", "[\"" + std::string((1 << 20) + 1, 'x') + "\"]", 1, "longer than a megabyte"}),
    [](const auto& test) {
      std::string name = test.param.what;
      std::replace(name.begin(), name.end(), ' ', '_');
      return name;
    });

}  // namespace uq

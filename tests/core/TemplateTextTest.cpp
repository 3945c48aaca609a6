// Forms of one's own: what a template says, what it may not do, and where it goes.
#include "core/store/TemplateText.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/store/JsonText.h"

namespace uq::test {

namespace {

std::string filled(std::string_view text, std::string_view json, Escaping escaping = Escaping::none) {
  const auto data = readJson(json, "data.json");
  EXPECT_TRUE(data.has_value());
  const auto done = filledTemplate(text, *data, escaping, "own.mustache");
  EXPECT_TRUE(done.has_value()) << (done ? "" : done.error().text());
  return done.value_or("");
}

Error refused(std::string_view text) {
  const auto done = filledTemplate(text, Json(Json::Object{}), Escaping::none, "own.mustache");
  EXPECT_FALSE(done.has_value()) << *done;
  return done ? Error() : done.error();
}

}  // namespace

TEST(TemplateText, FillsInWhatIsThere) {
  EXPECT_EQ(filled("{{name}} {{size.w}}{{none}}", R"({"name": "Yard", "size": {"w": 3}})"), "Yard 3");
  EXPECT_EQ(filled("{{#layers}}{{index}}{{name}}{{^last}}, {{/last}}{{/layers}}", R"({"layers": [{"name": "a"}, {"name": "b"}]})"), "0a, 1b");
  EXPECT_EQ(filled("{{#cells}}[{{text}}]{{/cells}} {{cellsText}}", R"({"cells": [[1, 2], [3, 4]]})"), "[1,2][3,4] 1,2,3,4");
  EXPECT_EQ(filled("{{#tags}}{{value}};{{/tags}}", R"({"tags": ["x", "y"]})"), "x;y;");
  EXPECT_EQ(filled("{{^role}}none{{/role}}{{#inGame}}shown{{/inGame}}", R"({"role": null, "inGame": true})"), "noneshown");
  EXPECT_EQ(filled("{{=<% %>=}}{<%name%>}", R"({"name": "x"})"), "{x}");
}

TEST(TemplateText, EscapesAsAsked) {
  const char* json = R"({"name": "a \"b\" <c> & \\"})";
  EXPECT_EQ(filled("{{name}}", json), "a \"b\" <c> & \\");
  EXPECT_EQ(filled("{{name}}", json, Escaping::xml), "a &quot;b&quot; &lt;c&gt; &amp; \\");
  EXPECT_EQ(filled("{{name}}", json, Escaping::c), "a \\\"b\\\" <c> & \\\\");
  EXPECT_EQ(filled("{{{name}}}", json, Escaping::xml), "a \"b\" <c> & \\") << "three braces fill in as it is";
}

TEST(TemplateText, NamesTheLineOfWhatIsWrong) {
  EXPECT_EQ(refused("one\n{{#a}}\ntwo").line, 2);
  EXPECT_EQ(refused("one\ntwo\n{{/a}}").line, 3);
  EXPECT_EQ(refused("{{#a}}\n{{/b}}").line, 2);
  EXPECT_EQ(refused("\n\n{{name").line, 3);
  EXPECT_THAT(refused("{{#a}}\n{{/b}}").reason, testing::HasSubstr("line 1"));
  EXPECT_THAT(refused("{{> other}}").reason, testing::HasSubstr("bring in another"));
  EXPECT_EQ(refused("x\n{{=<%=}}").line, 2);
}

TEST(TemplateText, EndsWhateverItSays) {
  std::string deep;
  for (int i = 0; i < 5000; ++i) deep += "{{#a}}";
  EXPECT_THAT(refused(deep).reason, testing::HasSubstr("64 sections"));
  EXPECT_EQ(refused(std::string(kLongestTemplate + 1, ' ')).cause, Error::Cause::tooLarge);
  // 300 lists in one another of 300 would be written 27 million times.
  std::string list = "[";
  for (int i = 0; i < 300; ++i) list += i == 0 ? "{}" : ",{}";
  const auto data = readJson("{\"a\": " + list + "]}", "data.json");
  ASSERT_TRUE(data.has_value());
  const auto done = filledTemplate("{{#a}}{{#a}}{{#a}}0123456789ABCDEF{{/a}}{{/a}}{{/a}}", *data, Escaping::none, "own.mustache");
  ASSERT_FALSE(done.has_value());
  EXPECT_EQ(done.error().cause, Error::Cause::tooLarge);
}

TEST(TemplateText, TakesAnyBytesForATemplate) {
  EXPECT_TRUE(rc::check([] {
    const auto piece = rc::gen::element<std::string>("{{", "}}", "{{{", "}}}", "{{#a}}", "{{/a}}", "{{^b}}", "{{/b}}", "{{=", "=}}", " ", "\n", "a", "{{!", "{{&a}}", "<%", "%>", "{{=<% %>=}}");
    std::string text;
    for (const std::string& one : *rc::gen::container<std::vector<std::string>>(piece)) text += one;
    const auto data = readJson(R"({"a": [{"b": 1}, 2], "b": false})", "data.json");
    const auto done = filledTemplate(text, *data, Escaping::c, "own.mustache");
    RC_TAG(done.has_value() ? "filled" : "refused");
  }));
}

TEST(TemplateText, ANameStaysInsideTheFolder) {
  for (const char* good : {"a.h", "levels/a b.txt", "..a/b"}) EXPECT_TRUE(nameInside(good).has_value()) << good;
  for (const char* bad : {"", "/etc/x", "../x", "a/../x", "a//b", "a/", ".", "a\\b", "c:x", "a\nb"}) EXPECT_FALSE(nameInside(bad).has_value()) << bad;
}

}  // namespace uq::test

#include "core/store/TemplateText.h"

#include <algorithm>
#include <array>
#include <kainjow/mustache.hpp>
#include <vector>

namespace uq {

namespace {

using Data = kainjow::mustache::data;

constexpr std::array<std::string_view, 3> kEscapings = {"none", "xml", "c"};

Data dataOf(const Json& json);

std::string scalarText(const Json& json) {
  if (const auto* text = json.as<std::string>()) return *text;
  if (const auto* number = json.as<std::int64_t>()) return std::to_string(*number);
  if (const auto* spelt = json.as<Json::Number>()) return spelt->text;
  if (const auto* flag = json.as<bool>()) return *flag ? "true" : "false";
  return {};
}

bool isScalar(const Json& json) { return !json.as<Json::Array>() && !json.as<Json::Object>(); }

// With commas between them; of rows, all of them.
std::string joinedText(const Json::Array& list) {
  std::string text;
  for (const Json& one : list) {
    if (!text.empty()) text += ',';
    if (const auto* row = one.as<Json::Array>()) text += joinedText(*row);
    else text += scalarText(one);
  }
  return text;
}

bool isNumbers(const Json::Array& list) {
  return std::all_of(list.begin(), list.end(), [](const Json& one) {
    const auto* row = one.as<Json::Array>();
    return row ? isNumbers(*row) : one.as<std::int64_t>() != nullptr;
  });
}

Data listOf(const Json::Array& list) {
  Data items(Data::type::list);
  for (std::size_t i = 0; i < list.size(); ++i) {
    Data item(Data::type::object);
    if (const auto* row = list[i].as<Json::Array>()) {
      item.set("values", listOf(*row));
      item.set("text", joinedText(*row));
    } else if (isScalar(list[i])) {
      item.set("value", scalarText(list[i]));
    } else {
      item = dataOf(list[i]);
    }
    item.set("index", std::to_string(i));
    item.set("first", i == 0 ? Data::type::bool_true : Data::type::bool_false);
    item.set("last", i + 1 == list.size() ? Data::type::bool_true : Data::type::bool_false);
    items.push_back(item);
  }
  return items;
}

Data dataOf(const Json& json) {
  if (const auto* flag = json.as<bool>()) return *flag ? Data::type::bool_true : Data::type::bool_false;
  if (const auto* list = json.as<Json::Array>()) return listOf(*list);
  const auto* fields = json.as<Json::Object>();
  // Nothing is false, so that a section can ask for it.
  if (!fields) return json.value.index() == 0 ? Data(Data::type::bool_false) : Data(scalarText(json));
  Data object(Data::type::object);
  for (const auto& [name, value] : *fields) {
    object.set(name, dataOf(value));
    const auto* list = value.as<Json::Array>();
    if (list && isNumbers(*list)) object.set(name + "Text", joinedText(*list));
  }
  return object;
}

// As it stands between quotes in C and most languages that came of it.
std::string escapedC(const std::string& text) {
  std::string escaped;
  for (const char one : text) {
    if (one == '\n') escaped += "\\n";
    else if (one == '\t') escaped += "\\t";
    else if (one == '"' || one == '\\') escaped += {'\\', one};
    else if (static_cast<unsigned char>(one) >= 32) escaped += one;
  }
  return escaped;
}

int lineOf(std::string_view text, std::size_t at) { return 1 + static_cast<int>(std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(std::min(at, text.size())), '\n')); }

Error wrong(const std::string& why, const std::string& file, int line) { return {Error::Cause::broken, why, file, line, "Nothing was written", "Change the template there"}; }

// What the library would take without a word, or not live through: sections too deep, one that has another's end, a partial.
std::optional<Error> foundWrong(std::string_view text, const std::string& file) {
  std::string begin = "{{";
  std::string end = "}}";
  std::vector<std::pair<std::string, std::size_t>> open;
  std::size_t at = 0;
  while ((at = text.find(begin, at)) != std::string_view::npos) {
    const std::size_t from = at + begin.size();
    const bool isRaw = begin == "{{" && from < text.size() && text[from] == '{';
    const std::size_t to = text.find(isRaw ? "}}}" : end, from);
    if (to == std::string_view::npos) return wrong("what begins with " + begin + " here has no " + (isRaw ? "}}}" : end), file, lineOf(text, at));
    std::string tag(text.substr(from, to - from));
    std::erase_if(tag, [](char one) { return one == ' ' || one == '\t' || one == '\n' || one == '\r'; });
    const char kind = tag.empty() ? '\0' : tag.front();
    if (kind == '>') return wrong("one template cannot bring in another", file, lineOf(text, at));
    if (kind == '#' || kind == '^') {
      open.emplace_back(tag.substr(1), at);
      if (open.size() > kDeepestTemplate) return wrong("more than 64 sections lie in one another", file, lineOf(text, at));
    }
    if (kind == '/') {
      if (open.empty()) return wrong("{{" + tag + "}} ends what did not begin", file, lineOf(text, at));
      if (open.back().first != tag.substr(1)) return wrong("{{" + tag + "}} stands where “" + open.back().first + "” must end, which began in line " + std::to_string(lineOf(text, open.back().second)), file, lineOf(text, at));
      open.pop_back();
    }
    const std::size_t after = to + (isRaw ? 3 : end.size());
    if (kind == '=') {
      const std::string_view marks = text.substr(from + 1, to - from - 2);
      const std::size_t space = marks.find(' ');
      const std::size_t last = marks.rfind(' ');
      if (space == std::string_view::npos || space == 0 || last + 1 >= marks.size()) return wrong("other marks are spelt like {{=<% %>=}}", file, lineOf(text, at));
      begin = std::string(marks.substr(0, space));
      end = std::string(marks.substr(last + 1));
    }
    at = after;
  }
  if (!open.empty()) return wrong("“" + open.back().first + "” begins here and does not end", file, lineOf(text, open.back().second));
  return std::nullopt;
}

struct TooMuch {};

}  // namespace

std::string escapedXml(const std::string& text) {
  std::string escaped;
  for (const char one : text) {
    switch (one) {
      case '&': escaped += "&amp;"; break;
      case '<': escaped += "&lt;"; break;
      case '>': escaped += "&gt;"; break;
      case '"': escaped += "&quot;"; break;
      case '\'': escaped += "&apos;"; break;
      default: escaped += one;
    }
  }
  return escaped;
}

Escaping escapingFor(std::string_view ending) {
  for (const char* one : {".xml", ".html", ".svg"}) {
    if (ending == one) return Escaping::xml;
  }
  for (const char* one : {".h", ".c", ".cpp", ".hpp", ".lua", ".json", ".js", ".py"}) {
    if (ending == one) return Escaping::c;
  }
  return Escaping::none;
}

std::string_view escapingName(Escaping escaping) { return kEscapings[static_cast<std::size_t>(escaping)]; }
std::optional<Escaping> escapingFromName(std::string_view name) {
  const auto found = std::find(kEscapings.begin(), kEscapings.end(), name);
  return found == kEscapings.end() ? std::nullopt : std::optional(static_cast<Escaping>(found - kEscapings.begin()));
}

Result<std::string> filledTemplate(std::string_view text, const Json& data, Escaping escaping, const std::string& file) {
  if (text.size() > kLongestTemplate) return fail(Error{Error::Cause::tooLarge, "a template of more than 256 KB", file, 0, "Nothing was written", {}});
  if (auto found = foundWrong(text, file)) return fail(*found);
  kainjow::mustache::mustache filling{std::string(text)};
  if (!filling.is_valid()) return fail(wrong(filling.error_message(), file, 0));
  if (escaping == Escaping::none) filling.set_custom_escape([](const std::string& one) { return one; });
  else filling.set_custom_escape(escaping == Escaping::xml ? escapedXml : escapedC);
  std::string filled;
  try {
    filling.render(dataOf(data), [&](const std::string& part) {
      if (filled.size() + part.size() > kMostFilled) throw TooMuch();
      filled += part;
    });
  } catch (const TooMuch&) {
    return fail(Error{Error::Cause::tooLarge, "more than 256 MB come of this template", file, 0, "Nothing was written", "Fill it with fewer maps, or say less"});
  }
  return filled;
}

Result<std::string> nameInside(const std::string& name) {
  const auto refuse = [&](const std::string& why) { return fail(Error{Error::Cause::broken, why, name, 0, "Nothing was written", "Give it another name"}); };
  if (name.empty() || name.size() > 1000) return refuse("a file has a name of 1 to 1,000 characters");
  std::size_t from = 0;
  while (from <= name.size()) {
    const std::size_t to = std::min(name.find('/', from), name.size());
    const std::string part = name.substr(from, to - from);
    if (part.empty() || part == "." || part == "..") return refuse("“" + name + "” leaves the folder, or names none");
    from = to + 1;
  }
  const bool isPlain = std::all_of(name.begin(), name.end(), [](char one) { return static_cast<unsigned char>(one) >= 32 && one != '\\' && one != ':' && one != 127; });
  if (!isPlain) return refuse("“" + name + "” holds what no file's name can");
  return name;
}

}  // namespace uq

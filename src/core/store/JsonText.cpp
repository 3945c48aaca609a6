#include "core/store/JsonText.h"

#include <algorithm>
#include <iterator>
#include <nlohmann/json.hpp>
#include <set>

namespace uq {

namespace {

// Feeds the parser and counts the lines that it has read.
class LineCountingIterator {
 public:
  using iterator_category = std::input_iterator_tag;
  using value_type = char;
  using difference_type = std::ptrdiff_t;
  using pointer = const char*;
  using reference = const char&;

  LineCountingIterator(const char* at, int* line) : at_(at), line_(line) {}
  reference operator*() const { return *at_; }
  LineCountingIterator& operator++() {
    if (line_ && *at_ == '\n') ++*line_;
    ++at_;
    return *this;
  }
  LineCountingIterator operator++(int) {
    LineCountingIterator old = *this;
    ++*this;
    return old;
  }
  friend bool operator==(const LineCountingIterator& a, const LineCountingIterator& b) { return a.at_ == b.at_; }

 private:
  const char* at_;
  int* line_;
};

class Builder final : public nlohmann::json_sax<nlohmann::json> {
 public:
  explicit Builder(const int& line) : line_(line) {}

  bool null() override { return add(Json()); }
  bool boolean(bool value) override { return add(value); }
  bool number_integer(number_integer_t value) override { return add(std::int64_t{value}); }
  bool number_unsigned(number_unsigned_t value) override {
    if (value > static_cast<number_unsigned_t>(INT64_MAX)) return add(Json::Number{std::to_string(value)});
    return add(static_cast<std::int64_t>(value));
  }
  bool number_float(number_float_t, const string_t& text) override { return add(Json::Number{text}); }
  bool string(string_t& value) override {
    if (value.size() > kLongestJsonString) return refuse("a text is longer than a megabyte");
    return add(std::move(value));
  }
  bool binary(binary_t&) override { return refuse("binary data has no place here"); }
  bool start_object(std::size_t) override { return open(Json::Object{}); }
  bool start_array(std::size_t) override { return open(Json::Array{}); }
  bool end_object() override { return close(); }
  bool end_array() override { return close(); }
  bool key(string_t& name) override {
    if (name.size() > kLongestJsonString) return refuse("a name is longer than a megabyte");
    if (!open_.back().names.insert(name).second) return refuse("the name \"" + name.substr(0, 80) + "\" stands twice");
    open_.back().key = std::move(name);
    return true;
  }
  bool parse_error(std::size_t, const std::string&, const nlohmann::json::exception& error) override {
    // The library's text begins with its own error number and position; the last part says what was found.
    const std::string text = error.what();
    const auto colon = text.rfind("syntax error");
    if (colon == std::string::npos) return refuse("it is not valid JSON or not valid UTF-8");
    // It quotes the text so far, which may end inside a character.
    const std::string quoted = nlohmann::json(text.substr(colon)).dump(-1, ' ', false, nlohmann::json::error_handler_t::ignore);
    return refuse(nlohmann::json::parse(quoted).get<std::string>());
  }

  Json root;
  std::string refusal;
  int refusalLine = 0;

 private:
  struct Open {
    Json value;
    std::set<std::string> names;
    std::string key;
  };

  bool refuse(std::string why) {
    refusal = std::move(why);
    refusalLine = line_;
    return false;
  }
  bool add(Json value) {
    if (++values_ > kMostJsonValues) return refuse("it holds more than a million values");
    if (value.line == 0) value.line = line_;
    if (open_.empty()) {
      root = std::move(value);
    } else if (auto* array = std::get_if<Json::Array>(&open_.back().value.value)) {
      array->push_back(std::move(value));
    } else {
      std::get<Json::Object>(open_.back().value.value).emplace_back(std::move(open_.back().key), std::move(value));
    }
    return true;
  }
  bool open(Json value) {
    if (static_cast<int>(open_.size()) >= kDeepestJson) return refuse("it is nested more than 64 deep");
    value.line = line_;
    open_.push_back({std::move(value), {}, {}});
    return true;
  }
  bool close() {
    Json done = std::move(open_.back().value);
    open_.pop_back();
    return add(std::move(done));
  }

  const int& line_;
  std::vector<Open> open_;
  std::size_t values_ = 0;
};

bool isPlain(const Json& json) { return !json.as<Json::Array>() && !json.as<Json::Object>(); }

bool allPlain(const Json& json) {
  if (const auto* array = json.as<Json::Array>()) return std::all_of(array->begin(), array->end(), isPlain);
  const auto* object = json.as<Json::Object>();
  return object && std::all_of(object->begin(), object->end(), [](const auto& field) {
           return isPlain(field.second) || (field.second.template as<Json::Array>() && allPlain(field.second));
         });
}

bool allNumbers(const Json::Array& array) {
  return std::all_of(array.begin(), array.end(),
                     [](const Json& j) { return j.as<std::int64_t>() || j.as<Json::Number>(); });
}

void writeValue(const Json& json, int level, bool oneLine, std::string& out);

void writeString(const std::string& text, std::string& out) {
  out += nlohmann::json(text).dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
}

// Writes the parts of a list or object, each through `writePart`, on one line or one a line.
template <class Parts, class WritePart>
void writeParts(const Parts& parts, std::string_view brackets, int level, bool oneLine, std::string& out,
                WritePart writePart) {
  out += brackets[0];
  bool first = true;
  for (const auto& part : parts) {
    if (!first) out += oneLine ? ", " : ",";
    first = false;
    if (!oneLine) out.append("\n").append(static_cast<std::size_t>(level + 1) * 2, ' ');
    writePart(part);
  }
  if (!oneLine && !parts.empty()) out.append("\n").append(static_cast<std::size_t>(level) * 2, ' ');
  out += brackets[1];
}

void writeValue(const Json& json, int level, bool oneLine, std::string& out) {
  if (const auto* array = json.as<Json::Array>()) {
    const bool flat = oneLine || allNumbers(*array);
    writeParts(*array, "[]", level, flat, out,
               [&](const Json& part) { writeValue(part, level + 1, flat || allPlain(part), out); });
  } else if (const auto* object = json.as<Json::Object>()) {
    writeParts(*object, "{}", level, oneLine, out, [&](const Json::Field& field) {
      writeString(field.first, out);
      out += ": ";
      writeValue(field.second, level + 1, oneLine, out);
    });
  } else if (const auto* text = json.as<std::string>()) {
    writeString(*text, out);
  } else if (const auto* number = json.as<std::int64_t>()) {
    out += std::to_string(*number);
  } else if (const auto* spelt = json.as<Json::Number>()) {
    out += spelt->text;
  } else if (const auto* flag = json.as<bool>()) {
    out += *flag ? "true" : "false";
  } else {
    out += "null";
  }
}

}  // namespace

bool isUtf8(std::string_view text) {
  try {
    (void)nlohmann::json(text).dump();
    return true;
  } catch (const nlohmann::json::type_error&) {
    return false;  // the library's word for bytes that are no UTF-8
  }
}

Result<Json> readJson(std::string_view text, const std::string& file) {
  int line = 1;
  Builder builder(line);
  const LineCountingIterator begin(text.data(), &line);
  const LineCountingIterator end(text.data() + text.size(), nullptr);
  if (!nlohmann::json::sax_parse(begin, end, &builder)) {
    return fail(Error::Cause::broken, builder.refusal, file, builder.refusalLine);
  }
  return std::move(builder.root);
}

std::string writeJsonLine(const Json& json) {
  std::string out;
  writeValue(json, 0, true, out);
  return out;
}

std::string writeJson(const Json& json) {
  std::string out;
  writeValue(json, 0, false, out);
  out += '\n';
  return out;
}

}  // namespace uq

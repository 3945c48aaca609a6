#include "core/store/Fields.h"

#include <algorithm>
#include <charconv>

#include "core/store/Documents.h"

namespace uq {

Fields::Fields(const Json& json, std::string file) : json_(json), file_(std::move(file)) {
  if (!json.as<Json::Object>()) refuse("an object is expected here", json.line);
}

const Json* Fields::field(const char* name) {
  known_.insert(name);
  const Json* found = json_.find(name);
  if (!found) refuse(std::string("\"") + name + "\" is missing", json_.line);
  return found;
}

std::string Fields::text(const char* name, std::size_t most) {
  const Json* found = field(name);
  const auto* text = found ? found->as<std::string>() : nullptr;
  if (found && (!text || text->empty() || text->size() > most)) {
    refuse(std::string("\"") + name + "\" is not a text of 1 to " + std::to_string(most) + " characters",
           found->line);
  }
  return text ? *text : std::string();
}

std::string Fields::fileName(const char* name, std::string_view ending) {
  const std::string text = this->text(name);
  const bool plain =
      text.size() > ending.size() && text.size() <= 200 && text.ends_with(ending) && text.front() != '.' &&
      text.find('/') == std::string::npos &&
      std::none_of(text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) < 32; });
  if (!plain && !error_) {
    refuse(std::string("\"") + name + "\" is not the plain name of a file", json_.find(name)->line);
  }
  return plain ? text.substr(0, text.size() - ending.size()) : std::string();
}

Id Fields::id(const char* name) {
  const std::string text = this->text(name);
  const auto id = Id::parse(text);
  if (!id && !error_) refuse(std::string("\"") + name + "\" is not an id", json_.find(name)->line);
  return id.value_or(Id{});
}

Colour Fields::colour(const char* name) {
  const auto colour = colourFromText(text(name));
  if (!colour) refuse(std::string("\"") + name + "\" is not a colour like \"#1b2030\"", line(name));
  return colour.value_or(kNoTint);
}

bool Fields::flag(const char* name) {
  const Json* found = field(name);
  const auto* flag = found ? found->as<bool>() : nullptr;
  if (found && !flag) refuse(std::string("\"") + name + "\" is neither true nor false", found->line);
  return flag && *flag;
}

int Fields::number(const char* name, int least, int most) {
  const Json* found = field(name);
  return found ? within(*found, name, least, most) : least;
}

std::vector<int> Fields::numbers(const char* name, std::size_t count, int least, int most) {
  const Json* found = field(name);
  const auto* array = found ? found->as<Json::Array>() : nullptr;
  if (found && (!array || array->size() != count)) {
    refuse(std::string("\"") + name + "\" is not a list of " + std::to_string(count) + " numbers", found->line);
    array = nullptr;
  }
  std::vector<int> numbers(count, least);
  for (std::size_t i = 0; array && i < count; ++i) numbers[i] = within((*array)[i], name, least, most);
  return numbers;
}

const Json::Array& Fields::list(const char* name, std::size_t most) {
  static const Json::Array none;
  const Json* found = field(name);
  const auto* array = found ? found->as<Json::Array>() : nullptr;
  if (found && (!array || array->size() > most)) {
    refuse(std::string("\"") + name + "\" is not a list of at most " + std::to_string(most), found->line);
    return none;
  }
  return array ? *array : none;
}

std::vector<std::string> Fields::names(const char* name, std::size_t most) {
  std::vector<std::string> names;
  for (const Json& one : list(name, most)) {
    const auto* text = one.as<std::string>();
    if (!text || text->empty() || text->size() > kLongestName) {
      refuse(std::string("\"") + name + "\" holds something that is no text of 1 to 1000 characters", one.line);
    } else if (std::find(names.begin(), names.end(), *text) != names.end()) {
      refuse("\"" + *text + "\" stands twice in \"" + name + "\"", one.line);
    } else {
      names.push_back(*text);
    }
  }
  return names;
}

const Json* Fields::any(const char* name) {
  known_.insert(name);
  return json_.find(name);
}

std::string Fields::textIfAny(const char* name, std::size_t most) {
  const Json* found = any(name);
  const auto* text = found ? found->as<std::string>() : nullptr;
  if (found && (!text || text->size() > most)) {
    refuse(std::string("\"") + name + "\" is not a text of at most " + std::to_string(most) + " characters", found->line);
    return {};
  }
  return text ? *text : std::string();
}

bool Fields::flagIfAny(const char* name, bool otherwise) { return any(name) ? flag(name) : otherwise; }

int Fields::numberIfAny(const char* name, int least, int most, int otherwise) {
  const Json* found = any(name);
  return found ? within(*found, name, least, most) : otherwise;
}

std::int64_t Fields::wholeIfAny(const char* name, std::int64_t otherwise) {
  const Json* found = any(name);
  const auto* number = found ? found->as<std::int64_t>() : nullptr;
  if (found && !number) refuse(std::string("\"") + name + "\" is no whole number", found->line);
  return number ? *number : otherwise;
}

const Json::Array& Fields::listIfAny(const char* name, std::size_t most) {
  static const Json::Array none;
  return any(name) ? list(name, most) : none;
}

const Json& Fields::objectIfAny(const char* name) {
  static const Json none = Json::Object();
  const Json* found = any(name);
  return found ? *found : none;
}

void Fields::document(const char* kind) {
  const std::string is = text("document");
  if (!error_ && is != kind) {
    refuse("this is a \"" + is + "\" document where a \"" + kind + "\" is expected", json_.find("document")->line);
  }
  const std::string version = text("version");
  if (error_) return;
  int major = 0;
  int minor = 0;
  const char* end = version.data() + version.size();
  const auto dot = std::from_chars(version.data(), end, major);
  const bool spelt = dot.ec == std::errc{} && dot.ptr != end && *dot.ptr == '.' &&
                     std::from_chars(dot.ptr + 1, end, minor).ptr == end && major >= 0 && minor >= 0;
  const int line = json_.find("version")->line;
  if (!spelt) {
    refuse("\"version\" is not two numbers like \"1.0\"", line);
  } else if (major > kFormatMajor) {
    refuse("it was written by a newer version of Urban Quilt (format " + version + ")", line);
    error_->cause = Error::Cause::newer;
    error_->todo = "Open it with that version";
  }
}

void Fields::refuse(std::string why, int line) {
  if (!error_) error_ = Error{Error::Cause::broken, std::move(why), file_, line, {}, {}};
}

void Fields::take(Error error) {
  if (!error_) error_ = std::move(error).in(file_);
}

void Fields::takeFrom(const Fields& inner) {
  if (!error_) error_ = inner.error_;
}

int Fields::line(const char* name) const {
  const Json* found = json_.find(name);
  return found ? found->line : json_.line;
}

Json::Object Fields::rest() const {
  Json::Object rest;
  if (const auto* object = json_.as<Json::Object>()) {
    for (const auto& field : *object) {
      if (!known_.contains(field.first)) rest.push_back(field);
    }
  }
  return rest;
}

int Fields::within(const Json& json, const char* name, int least, int most) {
  const auto* number = json.as<std::int64_t>();
  if (number && *number >= least && *number <= most) return static_cast<int>(*number);
  refuse(std::string("\"") + name + "\" is not a whole number from " + std::to_string(least) + " to " +
             std::to_string(most),
         json.line);
  return least;
}

}  // namespace uq

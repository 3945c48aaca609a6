#include "core/base/Error.h"

namespace uq {

std::string Error::text() const {
  std::string text = file;
  if (line > 0) text += (text.empty() ? "line " : ", line ") + std::to_string(line);
  if (!text.empty()) text += ": ";
  text += reason + ".";
  if (!kept.empty()) text += " " + kept + ".";
  if (!todo.empty()) text += " " + todo + ".";
  return text;
}

Error&& Error::in(std::string path) && {
  if (file.empty()) file = std::move(path);
  return std::move(*this);
}

Error&& Error::keeping(std::string text) && {
  kept = std::move(text);
  return std::move(*this);
}

Error&& Error::advising(std::string text) && {
  todo = std::move(text);
  return std::move(*this);
}

tl::unexpected<Error> fail(Error::Cause cause, std::string reason, std::string file, int line) {
  return tl::unexpected<Error>(Error{cause, std::move(reason), std::move(file), line, {}, {}});
}

tl::unexpected<Error> fail(Error error) { return tl::unexpected<Error>(std::move(error)); }

}  // namespace uq

#include "app/workroom/SpillFile.h"

#include <QDir>
#include <QTemporaryFile>

#include "app/workroom/KeptState.h"

namespace uq {

namespace {

tl::unexpected<Error> failed(const QFile& file, const char* reason) {
  return fail(Error::Cause::other, std::string(reason) + ": " + file.errorString().toStdString(),
              file.fileName().toStdString());
}

}  // namespace

Result<Spill::Place> SpillFile::write(std::string_view bytes) {
  const std::lock_guard lock(mutex_);
  if (!file_.isOpen()) {
    QDir().mkpath(stateFolder());
    QTemporaryFile name(stateFolder() + QStringLiteral("/undo-XXXXXX"));
    name.setAutoRemove(false);
    if (!name.open()) return failed(name, "old steps cannot be put aside");
    file_.setFileName(name.fileName());
    if (!file_.open(QIODevice::ReadWrite)) return failed(file_, "old steps cannot be put aside");
    QFile::remove(name.fileName());  // the open file lives on
  }
  const Place place{end_, static_cast<std::int64_t>(bytes.size())};
  if (!file_.seek(end_) || file_.write(bytes.data(), place.size) != place.size || !file_.flush()) {
    return failed(file_, "old steps cannot be put aside");
  }
  end_ += place.size;
  return place;
}

Result<std::string> SpillFile::read(Place place) {
  const std::lock_guard lock(mutex_);
  std::string bytes(static_cast<std::size_t>(place.size), '\0');
  if (!file_.seek(place.at) || file_.read(bytes.data(), place.size) != place.size) {
    return failed(file_, "an old step cannot be read back");
  }
  return bytes;
}

}  // namespace uq

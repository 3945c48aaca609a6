#include "app/workroom/KeptState.h"

#include <QCoreApplication>
#include <QCryptographicHash>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QThreadPool>
#include <algorithm>
#include <set>

#include "core/store/StateFolder.h"
#include "core/store/Disk.h"
#include "core/store/JsonText.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr qint64 kLargestFile = 4 << 20;

std::optional<Json> read(const QString& path);
void write(const QString& path, const Json& json);

QString canonical(const QString& folder) {
  const QString path = QFileInfo(folder).canonicalFilePath();
  return path.isEmpty() ? QDir::cleanPath(folder) : path;
}

QString fileFor(const QString& folder, const QString& ending) {
  const auto hash = QCryptographicHash::hash(canonical(folder).toUtf8(), QCryptographicHash::Sha1).toHex();
  return stateFolder() + QLatin1String("/quilts/") + QString::fromLatin1(hash) + ending;
}

// The paths that the quilt in a folder may follow.
std::set<std::string> followedBy(const QString& folder) {
  std::set<std::string> paths;
  const auto json = read(fileFor(folder, QStringLiteral(".follows.json")));
  const auto* list = json ? json->as<Json::Array>() : nullptr;
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    if (const auto* path = (*list)[i].as<std::string>()) paths.insert(*path);
  }
  return paths;
}

void keepFollowed(const QString& folder, const std::set<std::string>& paths) {
  Json::Array list(paths.begin(), paths.end());
  write(fileFor(folder, QStringLiteral(".follows.json")), list);
}

QString recentFile() { return stateFolder() + QLatin1String("/recent.json"); }

// Writes one after the other, beside the interface: a disk may be busy with something else. What is being kept is
// finished before the application goes, because pictures are drawn with its fonts.
QThreadPool& keeper() {
  static QThreadPool pool;
  static const bool finishes = [] {
    pool.setMaxThreadCount(1);
    qAddPostRoutine([] { pool.waitForDone(); });
    return true;
  }();
  Q_UNUSED(finishes);
  return pool;
}

std::optional<Json> read(const QString& path) {
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly) || file.size() > kLargestFile) return std::nullopt;
  const QByteArray bytes = file.readAll();
  auto json = readJson({bytes.constData(), static_cast<std::size_t>(bytes.size())}, path.toStdString());
  return json ? std::optional(std::move(*json)) : std::nullopt;
}

void write(const QString& path, const Json& json) {
  QDir().mkpath(QFileInfo(path).absolutePath());
  // Where it cannot be kept, the next start is as the first.
  (void)writeWhole(*realDisk(), path.toStdString(), writeJson(json));
}

QString textOf(const Json& json, const char* field) {
  const Json* found = json.find(field);
  const auto* text = found ? found->as<std::string>() : nullptr;
  return text ? QString::fromStdString(*text) : QString();
}

std::vector<RecentQuilt> allRecent() {
  std::vector<RecentQuilt> all;
  const auto json = read(recentFile());
  const auto* list = json ? json->as<Json::Array>() : nullptr;
  for (std::size_t i = 0; list && i < list->size() && i < kMostRecent; ++i) {
    RecentQuilt one{textOf((*list)[i], "folder"),
                    textOf((*list)[i], "name"),
                    QDateTime::fromString(textOf((*list)[i], "when"), Qt::ISODate),
                    {}};
    one.picture = fileFor(one.folder, QStringLiteral(".png"));
    if (!one.folder.isEmpty()) all.push_back(std::move(one));
  }
  return all;
}

void keepRecent(const std::vector<RecentQuilt>& all) {
  Json::Array list;
  for (const RecentQuilt& one : all) {
    if (list.size() == kMostRecent) break;
    list.push_back(Json::Object{{"folder", one.folder.toStdString()},
                                {"name", one.name.toStdString()},
                                {"when", one.when.toString(Qt::ISODate).toStdString()}});
  }
  write(recentFile(), list);
}

}  // namespace

QString stateFolder() { return QString::fromStdString(stateFolderPath()); }

std::optional<Json> keptState(const QString& folder) {
  keeper().waitForDone();
  return read(fileFor(folder, QStringLiteral(".json")));
}

void keepState(const QString& folder, const Json& state) {
  // Where a folder really lies is asked of the disk, too.
  keeper().start([folder, state] { write(fileFor(folder, QStringLiteral(".json")), state); });
}

std::vector<RecentQuilt> recentQuilts() {
  keeper().waitForDone();
  std::vector<RecentQuilt> all = allRecent();
  std::erase_if(all,
                [](const RecentQuilt& one) { return !QFileInfo(one.folder + QLatin1String("/quilt.json")).isFile(); });
  return all;
}

void rememberQuilt(const QString& folder, const QString& name, std::function<QImage()> picture) {
  const QString path = canonical(folder);
  const QString file = fileFor(path, QStringLiteral(".png"));
  keeper().start([path, name, picture = std::move(picture), file, now = QDateTime::currentDateTime()] {
    std::vector<RecentQuilt> all = allRecent();
    std::erase_if(all, [&](const RecentQuilt& one) { return one.folder == path; });
    all.insert(all.begin(), {path, name, now, {}});
    keepRecent(all);
    const QImage drawn = picture ? picture() : QImage();
    if (drawn.isNull()) return;
    QDir().mkpath(QFileInfo(file).absolutePath());
    (void)writeWhole(*realDisk(), file.toStdString(), pngOf(drawn));
  });
}

bool mayFollow(const QString& quiltFolder, const QString& path) {
  return followedBy(quiltFolder).contains(path.toStdString());
}

void letFollow(const QString& quiltFolder, const QString& path) {
  std::set<std::string> paths = followedBy(quiltFolder);
  if (paths.insert(path.toStdString()).second) keepFollowed(quiltFolder, paths);
}

void letFollowLike(const QString& quiltFolder, const QString& other) {
  const std::set<std::string> paths = followedBy(other);
  if (!paths.empty()) keepFollowed(quiltFolder, paths);
}

void forgetQuilt(const QString& folder) {
  keeper().waitForDone();
  std::vector<RecentQuilt> all = allRecent();
  std::erase_if(all, [&](const RecentQuilt& one) { return one.folder == folder; });
  keepRecent(all);
}

}  // namespace uq

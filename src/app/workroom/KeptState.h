// KeptState: what is remembered of quilts outside of their files — which were open last, what they look like, and how
// somebody had laid out their work on each.
//
// Lies in $XDG_STATE_HOME/urban-quilt (XDG Base Directory Specification), one small file a quilt, named after its
// folder. Losing all of it loses no work: what cannot be read counts as not there, what cannot be written is let go.
// Keeping never waits for the disk; reading waits for what is being kept.
#pragma once

#include <QDateTime>
#include <QImage>
#include <QString>
#include <functional>
#include <optional>
#include <vector>

#include "core/base/Json.h"

namespace uq {

inline constexpr std::size_t kMostRecent = 24;

QString stateFolder();

// What was kept for the quilt in a folder. On any thread.
std::optional<Json> keptState(const QString& quiltFolder);
void keepState(const QString& quiltFolder, const Json& state);

struct RecentQuilt {
  QString folder;
  QString name;
  QDateTime when;
  QString picture;  // file
};

// The quilts that were open last, newest first, without those whose folder is gone.
std::vector<RecentQuilt> recentQuilts();
// Puts a quilt first. `picture` is called on another thread; none, or a null picture, leaves the one that is there.
void rememberQuilt(const QString& folder, const QString& name, std::function<QImage()> picture = {});
void forgetQuilt(const QString& folder);

// Pictures outside of a quilt that somebody chose, on this machine, to be followed by it. Any quilt may name a path; only
// these are read.
bool mayFollow(const QString& quiltFolder, const QString& path);
void letFollow(const QString& quiltFolder, const QString& path);
// What one folder may follow another one may, too: the same quilt saved there.
void letFollowLike(const QString& quiltFolder, const QString& other);

}  // namespace uq

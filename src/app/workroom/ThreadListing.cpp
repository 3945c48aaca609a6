#include "app/workroom/ThreadListing.h"

#include <QCoreApplication>

namespace uq {

QString ThreadListing::keyOf(const LooseThread& thread) {
  return QString::fromStdString(thread.map.text() + thread.about.text() + thread.text);
}

void ThreadListing::take(const Checked& checked, bool anew, const std::function<bool(const LooseThread&)>& wanted) {
  if (anew) {
    rows_.clear();
    known_.clear();
  }
  loose_.clear();
  for (const LooseThread& one : checked.threads) {
    const QString key = keyOf(one);
    loose_.insert(key);
    if (rows_.size() == kMost || known_.contains(key) || (wanted && !wanted(one))) continue;
    known_.insert(key);
    rows_.push_back(one);
  }
}

QString ThreadListing::wordsOf(const Quilt& quilt, const LooseThread& thread) {
  const Map* map = quilt.map(thread.map);
  QString place = map ? QString::fromStdString(map->name) : QString();
  if (map && thread.cell) {
    place += QCoreApplication::translate("ThreadListing", ", cell %1, %2").arg(thread.cell->x - map->bounds.x0).arg(thread.cell->y - map->bounds.y0);
  }
  return QString::fromStdString(thread.text) + (place.isEmpty() ? QString() : QStringLiteral("\n") + place);
}

}  // namespace uq

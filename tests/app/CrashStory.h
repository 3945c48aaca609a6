// CrashStory: a story in which the program goes as if it had been killed, and comes back.
#pragma once

#include <QDir>
#include <QFile>
#include <QSignalSpy>

#include "app/Story.h"
#include "app/workroom/KeptState.h"
#include "app/workroom/WorkKeeper.h"

namespace uq::test {

class CrashStory : public Story {
 protected:
  void SetUp() override {
    QDir(keptFolder()).removeRecursively();
    openDemo();
  }
  void TearDown() override { QDir(keptFolder()).removeRecursively(); }

  static QString keptFolder() { return stateFolder() + QStringLiteral("/kept"); }
  void waitForKeeping() {
    QSignalSpy kept(session().beside().keeper, &WorkKeeper::kept);
    session().beside().keeper->keepSoon();
    ASSERT_TRUE(waitFor([&] { return kept.count() > 0; }));
  }
  // The window goes as if the program had been killed: what is kept stays as it is.
  void crash() {
    const QString aside = stateFolder() + QStringLiteral("/as-killed");
    copyAll(keptFolder(), aside);
    room.reset();
    QDir(keptFolder()).removeRecursively();
    copyAll(aside, keptFolder());
    QDir(aside).removeRecursively();
  }
  QWidget* strip() { return room->findChild<QWidget*>(QStringLiteral("came-back")); }

 private:
  static void copyAll(const QString& from, const QString& to) {
    QDir().mkpath(to);
    const QDir all(from);
    for (const QFileInfo& one : all.entryInfoList(QDir::AllEntries | QDir::NoDotAndDotDot)) {
      const QString there = to + QLatin1Char('/') + one.fileName();
      if (one.isDir()) {
        copyAll(one.filePath(), there);
      } else {
        ASSERT_TRUE(QFile::copy(one.filePath(), there));
      }
    }
  }
};

}  // namespace uq::test

// uquilt on a copy of the demo, as a script or build machine calls it.
#pragma once

#include <QCoreApplication>
#include <QFile>
#include <QImage>
#include <QProcess>
#include <QTemporaryDir>
#include <filesystem>

#include <gmock/gmock.h>

namespace uq {

struct Answer {
  int code = -1;
  std::string out;
  std::string err;
};

// The words of a command line.
inline QStringList words(std::initializer_list<const char*> list) {
  QStringList words;
  for (const char* word : list) words << QString::fromUtf8(word);
  return words;
}

class Uquilt : public testing::Test {
 protected:
  Uquilt() {
    folder = scratch.filePath(QStringLiteral("copperline")).toStdString();
    std::filesystem::copy(UQ_SOURCE_DIR "/demo/copperline", folder, std::filesystem::copy_options::recursive);
  }

  Answer run(const QStringList& arguments) {
    QProcess process;
    process.setWorkingDirectory(QString::fromStdString(folder));
    process.start(QStringLiteral(UQ_UQUILT), arguments);
    EXPECT_TRUE(process.waitForFinished());
    return {process.exitCode(), process.readAllStandardOutput().toStdString(),
            process.readAllStandardError().toStdString()};
  }
  QString png() { return scratch.filePath(QStringLiteral("out.png")); }
  // Renders a map into png() with further words.
  Answer render(const char* map, std::initializer_list<const char*> more = {}) {
    return run(words({"render", map, "-o"}) + QStringList{png()} + words(more));
  }
  void cut(const std::string& file, std::size_t bytes) { std::filesystem::resize_file(folder + "/" + file, bytes); }

  QTemporaryDir scratch;
  std::string folder;
};

}  // namespace uq

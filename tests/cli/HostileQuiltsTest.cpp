// Every command over every hostile quilt: nothing outside changes or shows, nothing is lost, nothing hangs or breaks off.
#include <sys/resource.h>
#include <sys/wait.h>
#include <fcntl.h>
#include <unistd.h>

#include <QImage>
#include <QDir>
#include <filesystem>
#include <fstream>

#include "core/HostileQuilts.h"

namespace uq::test {

namespace {

// What a command may take: with the sanitizers, which watch every byte, several times as much.
#ifdef __SANITIZE_ADDRESS__
constexpr double kMostSeconds = 16;
constexpr long kMostKilobytes = 6'000'000;
#else
constexpr double kMostSeconds = 2;
constexpr long kMostKilobytes = 1'000'000;
#endif

// Names that are no text are left behind by Qt's.
struct Scratch {
  std::string path = QDir::tempPath().toStdString() + "/uq-hostile-" + std::to_string(::getpid());
  Scratch() { std::filesystem::create_directories(path); }
  ~Scratch() { std::filesystem::remove_all(path); }
};

struct Ran {
  int status = 0;
  double seconds = 0;  // of the processor
  long kilobytes = 0;  // at most, in memory
  std::string said;
};

// Runs uquilt in a folder, and ends it after half a minute.
Ran ran(const std::string& folder, const std::vector<std::string>& more, const std::string& log) {
  std::vector<std::string> words{UQ_UQUILT};
  for (const std::string& word : more) words.push_back(word);
  const pid_t child = ::fork();
  if (child == 0) {
    ::alarm(30);
    const int out = ::open(log.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0600);
    ::dup2(out, 1);
    ::dup2(out, 2);
    if (::chdir(folder.c_str()) != 0) ::_exit(99);
    std::vector<char*> arguments;
    for (std::string& word : words) arguments.push_back(word.data());
    arguments.push_back(nullptr);
    ::execv(arguments[0], arguments.data());
    ::_exit(98);
  }
  Ran ran;
  rusage usage{};
  EXPECT_EQ(::wait4(child, &ran.status, 0, &usage), child);
  ran.seconds = double(usage.ru_utime.tv_sec + usage.ru_stime.tv_sec) +
                double(usage.ru_utime.tv_usec + usage.ru_stime.tv_usec) / 1e6;
  ran.kilobytes = usage.ru_maxrss;
  std::ifstream stream(log);
  ran.said = {std::istreambuf_iterator<char>(stream), {}};
  return ran;
}

}  // namespace

TEST(HostileQuilts, NoCommandHarmsOrIsHarmed) {
  const Scratch scratch;
  const std::string& root = scratch.path;
  std::filesystem::create_directories(root + "/quilts");
  const HostileQuilts all = makeHostileQuilts(root + "/quilts");
  const auto treasures = treasuresOf(all);
  const std::string out = root + "/out";
  const std::string list = root + "/list.json";
  std::ofstream(list) << R"({"document": "edits", "version": 1, "steps": [
    {"do": "fill", "map": "Yard", "layer": "Sheds", "tile": ["street", 3], "at": [2, 2], "asSeen": false},
    {"do": "box", "tile": ["street", 4], "from": [-1048576, -1048576], "to": [1048576, 1048576], "outline": true},
    {"do": "newMap", "name": "Far", "size": [4, 4]}, {"do": "newMap", "name": "Yard", "size": [4, 4]}]})";
  const std::string small = root + "/small.json";
  std::ofstream(small) << R"({"document": "edits", "version": 1, "steps": [
    {"do": "paint", "map": "Yard", "layer": "Sheds", "tile": ["street", 3], "at": [2, 2]},
    {"do": "keep", "name": "pair"}]})";
  const std::vector<std::vector<std::string>> commands = {
      {"info"},
      {"info", "--json"},
      {"joints"},
      {"render", "Yard", "-o", out + ".png"},
      {"export", "Yard", "-o", out + ".ora"},
      {"sheet", "export", "street", "-o", out + ".png"},
      {"sheet", "measure", "sheets/street.png"},
      {"sheet", "measure", "sheets/street.svg"},
      {"edit", "--list", list},
      {"edit", "--list", small},
      {"sheet", "tidy", "street", "--unused"},
      {"sheet", "bring-in", all.outside + "/secret.png", "--name", "street"},
      {"check"}};
  for (const std::string& folder : all.folders) {
    for (const auto& words : commands) {
      std::string what = folder.substr(folder.rfind('/') + 1) + ":";
      for (const std::string& word : words) what += " " + word;
      std::filesystem::remove(out + ".png");
      Ran one = ran(folder, words, root + "/log");
      // What really takes long takes as long once more; a machine that was busy elsewhere does not.
      for (int again = 0; again < 2 && one.seconds >= kMostSeconds; ++again) one = ran(folder, words, root + "/log");
      EXPECT_TRUE(WIFEXITED(one.status)) << what << " ended by signal " << WTERMSIG(one.status) << "\n" << one.said;
      EXPECT_LE(WEXITSTATUS(one.status), 4) << what << "\n" << one.said;
      EXPECT_LT(one.seconds, kMostSeconds) << what;
      EXPECT_LT(one.kilobytes, kMostKilobytes) << what;
      EXPECT_FALSE(one.said.empty()) << what;
      // Nothing red, which is outside.
      const QImage picture(QString::fromStdString(out + ".png"));
      bool shows = false;
      for (int y = 0; y < picture.height() && !shows; ++y) {
        for (int x = 0; x < picture.width(); ++x) shows = shows || picture.pixel(x, y) == 0xffff0000u;
      }
      EXPECT_FALSE(shows) << what;
    }
  }
  EXPECT_EQ(treasuresOf(all), treasures);
}

// What could not be read is there, byte for byte, whatever was saved beside it.
TEST(HostileQuilts, WhatCouldNotBeReadIsNeverOverwritten) {
  const Scratch scratch;
  const std::string& root = scratch.path;
  const HostileQuilts all = makeHostileQuilts(root);
  const std::string folder = root + "/conflict";
  const auto before = filesBelow(folder + "/maps/yard");
  const std::string list = root + "/list.json";
  std::ofstream(list) << R"({"document": "edits", "version": 1, "steps": [{"do": "newMap", "name": "Yard", "size": [4, 4]}]})";
  const Ran one = ran(folder, {"edit", "--list", list}, root + "/log");
  EXPECT_EQ(WEXITSTATUS(one.status), 1) << one.said;
  EXPECT_EQ(filesBelow(folder + "/maps/yard"), before);
  EXPECT_TRUE(std::filesystem::exists(folder + "/maps/yard-2/map.json"));
}

}  // namespace uq::test

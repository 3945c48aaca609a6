// KillingDisk: the real disk, which kills its own process at one change; and a way to try every such place.
#pragma once

#include <gtest/gtest.h>
#include <sys/wait.h>
#include <unistd.h>

#include <csignal>
#include <cstdio>
#include <filesystem>
#include <functional>

#include "core/ForwardingDisk.h"

namespace uq::test {

class KillingDisk : public ForwardingDisk {
 public:
  // Counted from 0.
  explicit KillingDisk(int at) : left_(at) {}

 private:
  void beforeChanging(const std::string&) override {
    if (left_-- == 0) raise(SIGKILL);
  }
  int left_;
};

struct Killing {
  // Makes what is worked on, in an empty folder.
  std::function<void(const std::string& folder)> prepare;
  // What is killed, in a process of its own; true when it came to its end.
  std::function<bool(std::shared_ptr<Disk> disk, const std::string& folder)> work;
  // Looks at what is there then.
  std::function<void(const std::string& folder, int step)> look;
};

// Kills the work at each of its changes in turn, until it comes to its end. How often it was killed.
inline int killEverywhere(const Killing& killing) {
  char scratch[] = "/tmp/killed-XXXXXX";
  EXPECT_NE(mkdtemp(scratch), nullptr);
  int step = 0;
  for (bool isKilled = true; isKilled && !testing::Test::HasFatalFailure(); ++step) {
    const std::string folder = std::string(scratch) + "/" + std::to_string(step);
    std::filesystem::create_directories(folder);
    killing.prepare(folder);
    const pid_t child = fork();
    if (child == 0) _exit(killing.work(std::make_shared<KillingDisk>(step), folder) ? 0 : 1);
    int status = 0;
    EXPECT_EQ(waitpid(child, &status, 0), child);
    isKilled = WIFSIGNALED(status);
    EXPECT_TRUE(isKilled || WEXITSTATUS(status) == 0) << "it came to its end, but not well";
    killing.look(folder, step);
  }
  std::filesystem::remove_all(scratch);
  std::printf("killed at %d places\n", step - 1);
  return step - 1;
}

}  // namespace uq::test

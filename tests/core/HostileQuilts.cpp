#include "core/HostileQuilts.h"

#include <gtest/gtest.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/un.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>
#include <functional>

#include "core/Support.h"
#include "core/edit/ArrangeStamps.h"
#include "core/store/Journal.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

namespace {

namespace fs = std::filesystem;

void put(const fs::path& path, std::string_view bytes) {
  fs::create_directories(path.parent_path());
  std::ofstream(path, std::ios::binary) << bytes;
}

std::string bytesOf(const fs::path& path) {
  std::ifstream stream(path, std::ios::binary);
  return {std::istreambuf_iterator<char>(stream), {}};
}

void change(const fs::path& path, const std::string& from, const std::string& to) {
  std::string text = bytesOf(path);
  const auto at = text.find(from);
  ASSERT_NE(at, std::string::npos) << path << " has no " << from;
  put(path, text.replace(at, from.size(), to));
}

// Moves a part of a quilt outside, and leaves a link to it.
void linkOut(const fs::path& quilt, const std::string& part, const fs::path& outside) {
  fs::create_directories(outside);
  const fs::path there = outside / fs::path(part).filename();
  fs::rename(quilt / part, there);
  fs::create_symlink(there, quilt / part);
}

void linkTo(const fs::path& link, const fs::path& target) {
  fs::create_directories(link.parent_path());
  fs::remove(link);
  fs::create_symlink(target, link);
}

void pipeAt(const fs::path& path) {
  fs::create_directories(path.parent_path());
  fs::remove(path);
  ASSERT_EQ(::mkfifo(path.c_str(), 0600), 0) << path;
}

void journal(const fs::path& quilt, const std::string& writes, const std::string& moves, const std::string& removes) {
  put(quilt / ".urban-quilt/journal", "{\"document\": \"journal\", \"version\": \"1.0\", \"writes\": [" + writes +
                                          "], \"moves\": [" + moves + "], \"removes\": [" + removes + "]}\n");
}

std::string withStamp(const std::string& cells) {
  return "cells 1\nA " + smallQuilt().sheets().back()->id.text() + "\n" + cells + "end\n";
}

using Harm = std::function<void(const fs::path& quilt, const fs::path& outside)>;

// By what is done to them.
std::map<std::string, Harm> harms() {
  std::map<std::string, Harm> all;
  for (const char* part : {"maps", "maps/yard", "maps/yard/map.json", "maps/yard/sheds.cells", "sheets", "stamps",
                           "stamps/pair", "stamps/pair/tiles.cells", "sheets/street.json", "sheets/street.png",
                           "quilt.json", ".urban-quilt", ".urban-quilt/.gitignore", ".urban-quilt/lock"}) {
    std::string name = std::string("link-") + part;
    std::replace(name.begin(), name.end(), '/', '-');
    all[name] = [part](const fs::path& quilt, const fs::path& outside) {
      linkOut(quilt, part, outside / fs::path(part).stem());
    };
  }
  all["link-new-names"] = [](const fs::path& quilt, const fs::path& outside) {
    for (const char* name : {"maps/yard/.sheds.cells.new", "maps/yard/.map.json.new", ".quilt.json.new",
                             ".urban-quilt/journal.new"}) {
      linkTo(quilt / name, outside / "victim.txt");
    }
  };
  all["link-journal"] = [](const fs::path& quilt, const fs::path& outside) {
    put(outside / "journal", R"({"document": "journal", "version": "1.0", "writes": [], "moves": [], "removes": ["quilt.json"]})");
    linkTo(quilt / ".urban-quilt/journal", outside / "journal");
  };
  all["journal-inside"] = [](const fs::path& quilt, const fs::path&) {
    put(quilt / ".git/HEAD", "ref: main\n");
    put(quilt / "notes/plan.txt", "the plan");
    journal(quilt, "", "", R"(".git/HEAD", "notes/plan.txt")");
  };
  all["journal-moves"] = [](const fs::path& quilt, const fs::path&) {
    put(quilt / "notes/plan.txt", "the plan");
    journal(quilt, "", R"({"from": "notes/plan.txt", "to": "maps/yard/x.cells"})", "");
  };
  all["journal-outside"] = [](const fs::path& quilt, const fs::path&) {
    journal(quilt, "", "", R"("../outside/victim.txt", "/tmp/victim.txt")");
  };
  all["journal-by-link"] = [](const fs::path& quilt, const fs::path& outside) {
    put(outside / "yard/map.json", "precious");
    linkTo(quilt / "maps/far", outside / "yard");
    journal(quilt, "", "", R"("maps/far/map.json")");
  };
  all["journal-writes-by-link"] = [](const fs::path& quilt, const fs::path& outside) {
    put(outside / "yard/map.json", "precious");
    put(outside / "yard/.map.json.new", "worthless");
    linkTo(quilt / "maps/far", outside / "yard");
    journal(quilt, R"("maps/far/map.json")", "", "");
  };
  for (const char* part : {"quilt.json", "maps/yard/map.json", "maps/yard/paving.cells", "sheets/street.png",
                           "maps/yard/.sheds.cells.new", ".urban-quilt/journal", ".urban-quilt/journal.new",
                           ".urban-quilt/lock"}) {
    std::string name = std::string("pipe-") + part;
    std::replace(name.begin(), name.end(), '/', '-');
    all[name] = [part](const fs::path& quilt, const fs::path&) { pipeAt(quilt / part); };
  }
  all["socket"] = [](const fs::path& quilt, const fs::path&) {
    const fs::path path = quilt / "maps/yard/map.json";
    fs::remove(path);
    const int fd = ::socket(AF_UNIX, SOCK_STREAM, 0);
    sockaddr_un address{};
    address.sun_family = AF_UNIX;
    const fs::path here = fs::current_path();
    fs::current_path(path.parent_path());
    std::snprintf(address.sun_path, sizeof address.sun_path, "map.json");
    EXPECT_EQ(::bind(fd, reinterpret_cast<sockaddr*>(&address), sizeof address), 0);
    fs::current_path(here);
    ::close(fd);
  };
  const auto drawing = [](const fs::path& quilt, const std::string& svg) {
    put(quilt / "sheets/street.svg", svg);
    change(quilt / "sheets/street.json", "street.png", "street.svg");
  };
  const std::string head = R"(<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="128" height="64">)";
  all["svg-image"] = [=](const fs::path& quilt, const fs::path& outside) {
    drawing(quilt, head + "<image xlink:href=\"" + (outside / "secret.png").string() + "\" width=\"64\" height=\"64\"/></svg>");
  };
  all["svg-pipe"] = [=](const fs::path& quilt, const fs::path& outside) {
    pipeAt(outside / "pipe.png");
    drawing(quilt, head + "<image href=\"" + (outside / "pipe.png").string() + "\" width=\"64\" height=\"64\"/></svg>");
  };
  all["svg-style"] = [=](const fs::path& quilt, const fs::path& outside) {
    pipeAt(outside / "style.css");
    drawing(quilt, "<?xml-stylesheet type=\"text/css\" href=\"" + (outside / "style.css").string() + "\"?>" + head + "</svg>");
  };
  all["svg-huge"] = [=](const fs::path& quilt, const fs::path&) {
    drawing(quilt, R"(<svg xmlns="http://www.w3.org/2000/svg" width="2000000" height="2000000"><rect width="9" height="9"/></svg>)");
  };
  all["follows"] = [](const fs::path& quilt, const fs::path& outside) {
    change(quilt / "sheets/street.json", "\"tiles\"", "\"follows\": \"" + (outside / "secret.png").string() + "\",\n  \"tiles\"");
  };
  all["deep-json"] = [](const fs::path& quilt, const fs::path&) {
    put(quilt / "maps/yard/map.json", std::string(5'000'000, '['));
  };
  all["huge-map"] = [](const fs::path& quilt, const fs::path&) {
    change(quilt / "maps/yard/map.json", "\"cell\": [32, 32]", "\"cell\": [8, 8]");
    change(quilt / "maps/yard/map.json", "[-4, -4, 16, 8]", "[-1048576, -1048576, 1048576, 1048576]");
  };
  all["huge-cells"] = [](const fs::path& quilt, const fs::path&) { fs::resize_file(quilt / "maps/yard/paving.cells", std::uintmax_t{2} << 30); };
  all["huge-journal"] = [](const fs::path& quilt, const fs::path&) {
    put(quilt / ".urban-quilt/journal", "{");
    fs::resize_file(quilt / ".urban-quilt/journal", std::uintmax_t{3} << 30);
  };
  all["far-stamp"] = [](const fs::path& quilt, const fs::path&) {
    put(quilt / "stamps/pair/tiles.cells", withStamp("@-16383,-16383\n0: A1\n@16383,16383\n0: A1\n"));
  };
  all["wide-stamp"] = [](const fs::path& quilt, const fs::path&) {
    put(quilt / "stamps/pair/tiles.cells", withStamp("@-60,-60\n0: A1\n@60,60\n0: A1\n"));
  };
  all["outermost-cells"] = [](const fs::path& quilt, const fs::path&) {
    put(quilt / "maps/yard/sheds.cells", withStamp("@-16384,-16384\n0: A1\n@16383,16383\n63: A1\n"));
  };
  all["conflict"] = [](const fs::path& quilt, const fs::path&) {
    change(quilt / "maps/yard/map.json", "\"name\"", "<<<<<<< ours\n  \"name\"");
  };
  all["bytes-as-name"] = [](const fs::path& quilt, const fs::path&) {
    fs::rename(quilt / "maps/loft", quilt / "maps/lo\xff\xfe");
  };
  all["line-as-name"] = [](const fs::path& quilt, const fs::path&) {
    fs::rename(quilt / "maps/loft", quilt / "maps/lo\nft");
  };
  return all;
}

bool isQuiltsOwn(const std::string& inside) {
  return isQuiltFile(inside) || inside.starts_with(".urban-quilt") || inside.ends_with(".new");
}

}  // namespace

HostileQuilts makeHostileQuilts(const std::string& scratch) {
  HostileQuilts made;
  made.outside = scratch + "/outside";
  put(made.outside + "/victim.txt", "dear");
  // A picture of one red pixel, which would be seen.
  put(made.outside + "/secret.png",
      std::string("\x89PNG\r\n\x1a\n\0\0\0\rIHDR\0\0\0\1\0\0\0\1\b\2\0\0\0\x90wS\xde\0\0\0\fIDATx\x9c" "c\xf8\xcf\xc0\0\0\3\1\1\0"
                  "\xc9\xfe\x92\xef\0\0\0\0IEND\xae" "B`\x82", 69));
  Quilt quilt = smallQuilt();
  IdSource ids(5);
  InHand pair(Block({{{0, 0}, tileOf(quilt, "street", 1), 0}, {{1, 0}, tileOf(quilt, "street", 2), 0}}));
  quilt = keepStamp(quilt, pair, "pair", ids).quilt;
  const std::string sound = scratch + "/sound";
  {
    const auto created = QuiltStore::create(realDisk(), sound, quilt);
    EXPECT_TRUE(created) << created.error().text();
  }
  for (const auto& [name, harm] : harms()) {
    const std::string folder = scratch + "/" + name;
    fs::copy(sound, folder, fs::copy_options::recursive);
    harm(folder, made.outside);
    made.folders.push_back(folder);
  }
  return made;
}

std::map<std::string, std::string> filesBelow(const std::string& folder) {
  std::map<std::string, std::string> files;
  for (const auto& entry : fs::recursive_directory_iterator(folder)) {
    const std::string path = entry.path().string();
    if (entry.is_symlink()) {
      files[path] = "→ " + fs::read_symlink(entry.path()).string();
    } else if (entry.is_regular_file() && entry.file_size() < 10'000'000) {
      files[path] = bytesOf(entry.path());
    } else if (!entry.is_directory()) {
      files[path] = "something else";
    }
  }
  return files;
}

std::map<std::string, std::string> treasuresOf(const HostileQuilts& all) {
  std::map<std::string, std::string> treasures = filesBelow(all.outside);
  for (const std::string& folder : all.folders) {
    for (const auto& [path, bytes] : filesBelow(folder)) {
      const std::string inside = path.substr(folder.size() + 1);
      if (!isQuiltsOwn(inside)) treasures[path] = bytes;
    }
  }
  return treasures;
}

}  // namespace uq::test

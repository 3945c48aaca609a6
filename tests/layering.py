#!/usr/bin/env python3
"""Holds the ground plan: which part of the program may know which other.

Reads the dependency list that the build itself keeps (`ninja -t deps`) and the link lines of its programs, and reports
every file that includes, and every target that links, what it may not. See docs/architecture.md.

usage: layering.py BUILD_DIR SOURCE_DIR
"""
import pathlib
import re
import subprocess
import sys

build, source = (pathlib.Path(p).resolve() for p in sys.argv[1:3])

# Inside the core, each folder may include itself and those before it; history and store never each other, and work, the
# last of all, both.
CORE = ["base", "grid", "cells", "document", "sheets", "edit"]
LAST = ["history", "store", "check"]
# Headers of other people's libraries, by a part of their path.
OUTSIDE = {"qtwidgets": "/QtWidgets/", "qt": "/qt6/", "nlohmann": "/nlohmann/", "mustache": "/kainjow/", "cli11": "/CLI/"}

wrong = []


def may_include(user, header):
    """Whether the file `user` may include the project's header `header`; both relative to src/."""
    part, used = user.parts[0], header.parts[0]
    order = {"core": ["core"], "raster": ["core", "raster"], "app": ["core", "raster", "app"], "cli": ["core", "raster", "cli"]}
    if used not in order[part]:
        return False
    if part != "core":
        return True
    mine, theirs = user.parts[1], header.parts[1]
    if mine == "work":
        return theirs in CORE + LAST + ["work"]
    if mine in LAST:
        return theirs == mine or theirs in CORE
    return theirs in CORE and CORE.index(theirs) <= CORE.index(mine)


def may_use(user, library):
    part = user.parts[0]
    if library == "qtwidgets":
        return part == "app"
    if library == "qt":
        return part != "core"
    if library in ("nlohmann", "mustache"):
        return user.parts[:2] == ("core", "store")
    return user == pathlib.Path("cli/main.cpp")


def check_includes():
    text = subprocess.run(["ninja", "-C", build, "-t", "deps"], capture_output=True, text=True, check=True).stdout
    seen = 0
    for block in text.split("\n\n"):
        lines = block.strip().splitlines()
        files = [(build / line.strip()).resolve() for line in lines[1:]]
        users = [f for f in files if f.is_relative_to(source / "src") and f.suffix == ".cpp"]
        if not users:
            continue
        user = users[0].relative_to(source / "src")
        seen += len(users)
        # Files are compiled some at a time, and then share one list.
        if len({f.parent for f in users}) > 1:
            wrong.append(f"src/{user} is compiled together with files of another folder")
        for file in files:
            if file.is_relative_to(source / "src") and not may_include(user, file.relative_to(source / "src")):
                wrong.append(f"src/{user} includes {file.relative_to(source)}")
            for library, sign in OUTSIDE.items():
                if sign in str(file) and not file.is_relative_to(source) and not may_use(user, library):
                    wrong.append(f"src/{user} includes {file}")
                    break
    if seen < 150:
        wrong.append(f"the build lists the dependencies of {seen} files only: build it first")
    return seen


def check_headers():
    """A header must obey for itself, whoever includes it."""
    for header in (source / "src").rglob("*.h"):
        user = header.relative_to(source / "src")
        for name in re.findall(r'^#include "([^"]+)"', header.read_text(), re.M):
            if not may_include(user, pathlib.Path(name)):
                wrong.append(f"src/{user} includes src/{name}")


def check_links():
    """What the programs are linked with."""
    text = (build / "build.ninja").read_text()
    programs = []
    for block in re.findall(r"^build bin/[^:\n]+: CXX_EXECUTABLE_LINKER.*?\n\n", text, re.M | re.S):
        name = re.match(r"build bin/(\S+?)(?: |:)", block).group(1)
        programs.append(name)
        libraries = re.search(r"LINK_LIBRARIES = (.*)", block).group(1)
        if name == "uquilt" and "Qt6Widgets" in libraries:
            wrong.append("uquilt links Qt6Widgets")
        if name == "core_tests" and "libQt6" in libraries:
            wrong.append("core_tests links Qt: the core must be tested without it")
    if not {"uquilt", "core_tests"} <= set(programs):
        wrong.append(f"the link lines of uquilt and core_tests were not found among {programs}")


seen = check_includes()
check_headers()
check_links()
for line in wrong:
    print(line)
print(f"layering: {seen} files, {len(wrong)} wrong")
sys.exit(1 if wrong else 0)

#!/usr/bin/env python3
"""Makes a village from a plan: a new map in a quilt, painted by a list of edits. Shows how uquilt query and uquilt edit go together.

  make_village.py QUILT NAME PLAN.txt [--uquilt PROGRAM]

A plan is a text, one letter a cell (see LEGEND). What joins is said as materials, so that kerbs and shores come by themselves.
"""
import json
import subprocess
import sys

EDGING = "Street ground"
LEGEND = {".": "setts", "=": "slabs", ",": "lawn", "~": "canal", "L": "slabs", "B": "slabs", "D": "slabs"}
THINGS = {"L": "harbour lamp", "B": "tar barrel"}  # what stands there, by the name of its tile
SPOT = "D"  # a door, as a spot of the map

PLAN = """\
,,,,,,,,,,,,,,,,,,,,
,,,,,,,....,,,,,,,,,
,,,,,,,....,,,,,,,,,
....................
..=D=...............
====================
===L=====B====L=====
~~~~~~~~~~~~~~~~~~~~
~~~~~~~~~~~~~~~~~~~~
"""


def uquilt(program, *words, **more):
    done = subprocess.run([program, *words], capture_output=True, text=True, check=False, **more)
    if done.returncode > 1:
        sys.exit(f"{' '.join(words[:2])}: {done.stderr.strip()}")
    return done.stdout


def query(program, quilt, *words):
    return [json.loads(line) for line in uquilt(program, "query", *words, "--quilt", quilt).splitlines()]


def runs(plan):
    """Stretches of one letter: row, first and last column, letter."""
    for y, row in enumerate(plan):
        x = 0
        while x < len(row):
            end = x
            while end + 1 < len(row) and row[end + 1] == row[x]:
                end += 1
            yield y, x, end, row[x]
            x = end + 1


def edits(program, quilt, name, plan):
    width, height = max(map(len, plan)), len(plan)
    plan = [row.ljust(width, ".") for row in plan]
    cell = query(program, quilt, "maps")[0]["grid"]["cell"]
    squares = [one for one in query(program, quilt, "maps") if one["grid"]["kind"] == "orthogonal"]
    if squares:
        cell = squares[0]["grid"]["cell"]
    things = {tile["name"]: [tile["sheet"], tile["number"]] for tile in query(program, quilt, "tiles") if tile.get("name") in THINGS.values()}
    steps = [{"do": "newMap", "name": name, "grid": "orthogonal", "cell": cell, "size": [width, height]}]

    def hand(letter):
        return {"edging": EDGING, "material": LEGEND.get(letter, "setts")}

    ground = "Ground"
    # First the ground everywhere, then what lies on it, the widest first, so that joints are mended once.
    steps.append({"do": "box", "map": name, "layer": ground, "hand": hand("."), "from": [0, 0], "to": [width - 1, height - 1]})
    for letter in sorted(set("".join(plan)) - {"."}, key=lambda one: LEGEND.get(one, "setts")):
        for y, x, end, found in runs(plan):
            if found == letter and LEGEND.get(letter, "setts") != "setts":
                steps.append({"do": "box", "map": name, "layer": ground, "hand": hand(letter), "from": [x, y], "to": [end, y]})
    number = 0
    for y, row in enumerate(plan):
        for x, letter in enumerate(row):
            if letter == SPOT:
                number += 1
                steps.append({"do": "pin", "map": name, "at": [x, y], "name": f"door {number}"})
            if THINGS.get(letter) in things:
                steps.append({"do": "paint", "map": name, "layer": "Things", "tile": things[THINGS[letter]], "path": [[x, y]]})
    return {"document": "edits", "version": 1, "seed": 7, "steps": steps}


def main(words):
    program = "uquilt"
    if "--uquilt" in words:
        at = words.index("--uquilt")
        program = words[at + 1]
        del words[at : at + 2]
    if len(words) not in (2, 3):
        sys.exit(__doc__)
    plan = (open(words[2], encoding="utf-8").read() if len(words) == 3 else PLAN).splitlines()
    done = edits(program, words[0], words[1], plan)
    print(uquilt(program, "edit", words[0], input=json.dumps(done)), end="")
    there = {}
    for one in query(program, words[0], "cells", "--map", words[1]):
        there[one["layer"]] = there.get(one["layer"], 0) + 1
    print("\n".join(f"{layer}: {count} cells" for layer, count in there.items()))


if __name__ == "__main__":
    main(sys.argv[1:])

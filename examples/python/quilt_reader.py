#!/usr/bin/env python3
"""Reads a quilt that Urban Quilt exported as exchange JSON, and rebuilds what the game shows of its maps.

Only Python's standard library. Copy what you need: everything that a game must know is in the classes Quilt and Map, how a map is
drawn is in Map.draw, and nothing here is needed to understand the files, which docs/exchange.md describes.

  quilt_reader.py FOLDER                          what there is
  quilt_reader.py FOLDER draw MAP PICTURE.png     draws a map
      [--camera X,Y --frame WxH]                  as the player's screen shows it there
  quilt_reader.py FOLDER ways                     follows every doorway and every seam
  quilt_reader.py FOLDER solid MAP                which cells somebody walking cannot enter, # and .
"""
import ctypes
import json
import pathlib
import struct
import sys
import zlib

SHEET_BITS, TURN_BITS = 22, 4  # a cell is sheet << 22 | tile << 4 | turn


class Picture:
    """Premultiplied RGBA, 8 bits a channel, row by row."""

    def __init__(self, width, height, rows=None):
        self.width, self.height = width, height
        self.rows = rows or [bytearray(4 * width) for _ in range(height)]

    @staticmethod
    def read(path):
        """A PNG of 8 bits a channel with alpha, as all exported ones are."""
        data = pathlib.Path(path).read_bytes()
        if data[:8] != b"\x89PNG\r\n\x1a\n":
            raise ValueError(f"{path} is no PNG")
        at, packed, header = 8, b"", None
        while at < len(data):
            size, kind = struct.unpack(">I4s", data[at : at + 8])
            body = data[at + 8 : at + 8 + size]
            if kind == b"IHDR":
                header = struct.unpack(">IIBBBBB", body)
            elif kind == b"IDAT":
                packed += body
            at += 12 + size
        width, height, depth, colours, _, _, interlaced = header
        if (depth, colours, interlaced) != (8, 6, 0):
            raise ValueError(f"{path} is no plain PNG of RGBA")
        return Picture(width, height, [premultiplied(row) for row in unfiltered(zlib.decompress(packed), width, height)])

    def write(self, path):
        def chunk(kind, body):
            return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))

        rows = b"".join(b"\0" + bytes(straight(row)) for row in self.rows)
        header = struct.pack(">IIBBBBB", self.width, self.height, 8, 6, 0, 0, 0)
        body = chunk(b"IHDR", header) + chunk(b"IDAT", zlib.compress(rows, 6)) + chunk(b"IEND", b"")
        pathlib.Path(path).write_bytes(b"\x89PNG\r\n\x1a\n" + body)

    def part(self, x, y, width, height):
        return Picture(width, height, [row[4 * x : 4 * (x + width)] for row in self.rows[y : y + height]])

    def turned(self, mirror, quarters):
        """Mirrored across, then turned clockwise."""
        pixels = [[bytes(row[4 * x : 4 * x + 4]) for x in range(self.width)] for row in self.rows]
        if mirror:
            pixels = [row[::-1] for row in pixels]
        for _ in range(quarters):
            pixels = [list(column) for column in zip(*pixels[::-1])]
        return Picture(len(pixels[0]), len(pixels), [bytearray(b"".join(row)) for row in pixels])

    def runs(self):
        """Of each row the stretches that are not see-through: from, to, whether all of it covers."""
        if not hasattr(self, "_runs"):
            self._runs = [stretches(row, self.width) for row in self.rows]
        return self._runs


def unfiltered(data, width, height):
    stride, before, at = 4 * width, bytearray(4 * width), 0
    for _ in range(height):
        kind, row = data[at], bytearray(data[at + 1 : at + 1 + stride])
        at += 1 + stride
        if kind == 1:
            for i in range(4, stride):
                row[i] = row[i] + row[i - 4] & 255
        elif kind == 2:
            row = bytearray(a + b & 255 for a, b in zip(row, before))
        elif kind == 3:
            for i in range(stride):
                row[i] = row[i] + ((row[i - 4] if i > 3 else 0) + before[i]) // 2 & 255
        elif kind == 4:
            for i in range(stride):
                a, b, c = (row[i - 4] if i > 3 else 0), before[i], (before[i - 4] if i > 3 else 0)
                p = a + b - c
                near = min((abs(p - a), 0, a), (abs(p - b), 1, b), (abs(p - c), 2, c))
                row[i] = row[i] + near[2] & 255
        before = row
        yield bytearray(row)


def times(channel, by):
    """channel * by / 255, rounded."""
    t = channel * by
    return t + (t >> 8) + 128 >> 8


def premultiplied(row):
    alphas = row[3::4]
    if alphas.count(255) == len(alphas):
        return row
    for i in range(0, len(row), 4):
        a = row[i + 3]
        if a == 0:
            row[i : i + 3] = b"\0\0\0"
        elif a != 255:
            row[i], row[i + 1], row[i + 2] = times(row[i], a), times(row[i + 1], a), times(row[i + 2], a)
    return row


def straight(row):
    alphas = row[3::4]
    if alphas.count(255) == len(alphas):
        return row
    row = bytearray(row)
    for i in range(0, len(row), 4):
        a = row[i + 3]
        if a not in (0, 255):
            for c in range(i, i + 3):
                row[c] = row[c] * (0xFF00FF // a) + 0x8000 >> 16
    return row


def stretches(row, width):
    found, x, alphas = [], 0, row[3::4]
    while x < width:
        if alphas[x] == 0:
            x += 1
            continue
        start, covers = x, alphas[x] == 255
        while x < width and alphas[x] != 0 and (alphas[x] == 255) == covers:
            x += 1
        found.append((start, x, covers))
    return found


def lay(target, picture, x, y, left=None, right=None):
    """Source over, where the target has room; of the picture only columns left .. right."""
    left = max(0 if left is None else left, -x)
    right = min(picture.width if right is None else right, target.width - x)
    for j in range(max(0, -y), min(picture.height, target.height - y)):
        below, above = target.rows[y + j], picture.rows[j]
        for start, end, covers in picture.runs()[j]:
            start, end = max(start, left), min(end, right)
            if start >= end:
                continue
            if covers:
                below[4 * (x + start) : 4 * (x + end)] = above[4 * start : 4 * end]
                continue
            for i in range(4 * start, 4 * end, 4):
                rest, to = 255 - above[i + 3], 4 * x + i
                for c in range(4):
                    below[to + c] = above[i + c] + times(below[to + c], rest)


def single(number):
    return ctypes.c_float(number).value


BLENDS = {
    "normal": lambda s, b, sa, ba: s + single(b * single(1 - sa)),
    "multiply": lambda s, b, sa, ba: single(single(s * b) + single(s * single(1 - ba))) + single(b * single(1 - sa)),
    "screen": lambda s, b, sa, ba: single(s + b) - single(s * b),
    "add": lambda s, b, sa, ba: s + b,
}


def lay_whole(target, picture, opacity, blend):
    """A whole layer over what is behind it (W3C Compositing and Blending Level 1), in numbers of single precision."""
    if blend == "normal" and opacity == 100:
        return lay(target, picture, 0, 0)
    share, known = single(opacity / 100), {}

    def mixed(above, below):
        sa, ba = single(single(above[3] / 255) * share), single(below[3] / 255)
        pixel = []
        for c in range(4):
            s, b = single(single(above[c] / 255) * share), single(below[c] / 255)
            value = single(BLENDS[blend](s, b, sa, ba))
            pixel.append(int(single(single(min(max(value, 0.0), 1.0) * 255) + 0.5)))
        return bytes(pixel)

    for above, below, runs in zip(picture.rows, target.rows, picture.runs()):
        for start, end, _ in runs:
            for i in range(4 * start, 4 * end, 4):
                key = bytes(above[i : i + 4]), bytes(below[i : i + 4])
                if key not in known:
                    known[key] = mixed(*key)
                below[i : i + 4] = known[key]


class Quilt:
    def __init__(self, folder):
        self.folder = pathlib.Path(folder)
        self.facts = json.loads((self.folder / "quilt.json").read_text())
        if self.facts["document"] != "exchange-quilt" or self.facts["version"].split(".")[0] != "1":
            raise ValueError(f"{folder} is no quilt that this reader knows")
        self.sheets = {sheet["number"]: sheet for sheet in self.facts["sheets"]}
        self.tiles = {n: {tile["number"]: tile for tile in sheet["tiles"]} for n, sheet in self.sheets.items()}
        self._pictures, self._maps = {}, {}

    def map(self, name_or_id):
        for one in self.facts["maps"]:
            if name_or_id in (one["name"], one["id"]):
                if one["id"] not in self._maps:
                    self._maps[one["id"]] = Map(self, json.loads((self.folder / one["file"]).read_text()))
                return self._maps[one["id"]]
        raise KeyError(f"{name_or_id} is no map of this quilt")

    def picture(self, path):
        if path not in self._pictures:
            self._pictures[path] = Picture.read(self.folder / path)
        return self._pictures[path]


class Map:
    def __init__(self, quilt, facts):
        self.quilt, self.facts, self.layers = quilt, facts, facts["layers"]
        self._tiles = {}
        self._footprints = {tuple(one["size"]): one["cells"] for one in facts["footprints"]}

    # -- where things are --------------------------------------------------------------------------------------------
    def box(self, x, y):
        """The upper left of a cell's box, in map pixels."""
        b = self.facts["boxes"]
        return tuple(
            b["origin"][i] + x * b["column"][i] + y * b["row"][i] + (x & 1) * b["oddColumn"][i] + (y & 1) * b["oddRow"][i]
            for i in (0, 1)
        )

    def cells(self, layer, what="cells"):
        """x, y and number of all cells of a layer on which something lies, row by row."""
        if what not in layer:
            return
        if layer["as"] == "packed":
            raise ValueError("these cells are packed, for which Python has no unpacker of its own: export them plain, or as runs")
        x0, y0, _, _ = layer["area"]
        for j, row in enumerate(layer[what]):
            if layer["as"] == "runs":
                row = [number for count, number in zip(row[::2], row[1::2]) for _ in range(count)]
            for i, number in enumerate(row):
                if number:
                    yield x0 + i, y0 + j, number

    def number_at(self, layer, x, y):
        x0, y0, x1, y1 = layer.get("area", (0, 0, 0, 0))
        if not (x0 <= x < x1 and y0 <= y < y1):
            return 0
        row = layer["cells"][y - y0]
        if layer["as"] == "runs":
            row = [number for count, number in zip(row[::2], row[1::2]) for _ in range(count)]
        return row[x - x0]

    # -- what lies there ---------------------------------------------------------------------------------------------
    def tile(self, number):
        """Picture, seat and footprint of what a cell's number says, turned as it is drawn; None where it has no picture."""
        if number not in self._tiles:
            self._tiles[number] = self._made(number)
        return self._tiles[number]

    def _made(self, number):
        sheet, tile, turn = number >> SHEET_BITS, number >> TURN_BITS & 0x3FFFF, number & 15
        mirror, quarters = self.facts["turns"][turn]
        width, height = self.facts["boxes"]["size"]
        if sheet == 1023:  # chalk
            picture = self.quilt.picture(self.facts["chalk"]).part(tile * width, 0, width, height)
            return picture, (0, 0), (1, 1)
        facts = self.quilt.tiles.get(sheet, {}).get(tile)
        if not facts:
            return None
        seat = facts.get("seat", self.quilt.sheets[sheet]["seat"])
        footprint = tuple(facts.get("footprint", self.quilt.sheets[sheet]["footprint"]))
        picture = self.quilt.picture(self.quilt.sheets[sheet]["picture"]).part(*facts["at"])
        if mirror or quarters:
            picture = picture.turned(mirror, quarters)
        squares = self.facts["stands"] == "left"
        if mirror and not squares:
            seat = (-seat[0], seat[1])
        swapped = quarters % 2 == 1 if squares else mirror and self.facts["grid"]["kind"] in ("diamond", "staggered")
        return picture, tuple(seat), footprint[::-1] if swapped else footprint

    def footprint(self, x, y, size):
        flat = self._footprints[size][(x & 1) + 2 * (y & 1)]
        return [(x + flat[i], y + flat[i + 1]) for i in range(0, len(flat), 2)]

    def place(self, x, y, picture, seat, footprint, lift):
        """The upper left of a picture that stands on a cell: on the lowest point of its cells, left or in their middle."""
        width, height = self.facts["boxes"]["size"]
        left, top = self.box(x, y)
        right, bottom = left + width, top + height
        if footprint != (1, 1) and self.facts["stands"] == "middle":
            boxes = [self.box(*cell) for cell in self.footprint(x, y, footprint)]
            left, right = min(b[0] for b in boxes), max(b[0] for b in boxes) + width
            bottom = max(b[1] for b in boxes) + height
        if self.facts["stands"] == "middle":
            left += (right - left - picture.width) // 2
        return left + seat[0], bottom - picture.height + seat[1] - lift

    def strips(self, x, y, footprint, left, right):
        """What stands on several cells is drawn in strips, each with its front cell: from, to, that cell."""
        width, height = self.facts["boxes"]["size"]
        boxes = [(self.box(*cell), cell) for cell in self.footprint(x, y, footprint)]
        edges = sorted({edge for (bx, _), _ in boxes for edge in (bx, bx + width)})
        strips = []
        for a, b in zip(edges, edges[1:]):
            spanning = [(by, cell) for (bx, by), cell in boxes if bx <= a and bx + width >= b]
            if not spanning:
                continue
            front = max(spanning, key=lambda one: one[0])[1]
            if strips and strips[-1][2] == front:
                strips[-1][1] = b
            else:
                strips.append([a, b, front])
        strips[0][0], strips[-1][1] = min(strips[0][0], left), max(strips[-1][1], right)
        return [(max(a, left), min(b, right), front) for a, b, front in strips if max(a, left) < min(b, right)]

    # -- drawing -----------------------------------------------------------------------------------------------------
    def draw(self, camera=None, frame=None):
        """What the game shows: all of the map, or what the screen shows whose upper left is at `camera`."""
        x, y, width, height = self.facts["picture"]
        if camera:
            (x, y), (width, height) = camera, frame or self.facts["screen"]
        picture = Picture(width, height)
        if self.facts["cloth"]:
            cloth = bytes.fromhex(self.facts["cloth"][1:]) + b"\xff"
            picture.rows = [bytearray(cloth * width) for _ in range(height)]
        for step in self.facts["drawing"]:
            moved = [0, 0]
            if camera:  # a layer of parallax 100 moves with the ground, one of 0 stays on the screen
                moved = [c - (c * p + 50) // 100 for c, p in zip(camera, step["parallax"])]
            layer = Picture(width, height)
            self._draw_step(step, layer, x - step["offset"][0] - moved[0], y - step["offset"][1] - moved[1], bool(camera))
            if step["tint"] != "#ffffff":
                tint(layer, bytes.fromhex(step["tint"][1:]))
            lay_whole(picture, layer, step["opacity"], step["blend"])
        return picture

    def _draw_step(self, step, target, x0, y0, endless):
        first = self.layers[step["layers"][0]]
        if first["kind"] == "backdrop":
            return self._draw_backdrop(first["backdrop"], target, x0, y0, endless)
        width, height = self.facts["boxes"]["size"]
        blits = []
        for rank, index in enumerate(step["layers"]):
            shift = step["shifts"][rank] if "shifts" in step else (0, 0)
            lifts = {(x, y): lift for x, y, lift in self.cells(self.layers[index], "lifts")}
            for x, y, number in self.cells(self.layers[index]):
                made = self.tile(number)
                if not made:
                    continue
                picture, seat, footprint = made
                left, top = self.place(x, y, picture, seat, footprint, lifts.get((x, y), 0))
                parts = [(None, None, (x, y))]
                if footprint != (1, 1):
                    parts = [(a - left, b - left, front) for a, b, front in self.strips(x, y, footprint, left, left + picture.width)]
                for a, b, front in parts:
                    bx, by = self.box(*front)
                    # By depth the foot decides, then the layer; by layers the layer, then the foot. What stands on several
                    # cells comes before what stands on its front cell alone.
                    foot = (by + height, rank) if step["order"] == "by-depth" else (rank, by + height)
                    blits.append((foot + (bx, 1 if a is None else 0), picture, left + shift[0] - x0, top + shift[1] - y0, a, b))
        for _, picture, left, top, a, b in sorted(blits, key=lambda blit: blit[0]):
            lay(target, picture, left, top, a, b)

    def _draw_backdrop(self, backdrop, target, x0, y0, endless):
        if not backdrop:
            return
        picture, (width, height) = self.quilt.picture(backdrop["picture"]), backdrop["size"]
        xs = range(-x0 % width - width, target.width, width) if backdrop["repeatsAcross"] else [-x0]
        ys = range(-y0 % height - height, target.height, height) if backdrop["repeatsDown"] else [-y0]
        for y in ys:
            for x in xs:
                lay(target, picture, x, y)

    # -- walking -----------------------------------------------------------------------------------------------------
    def is_solid(self, x, y):
        """Whether some tile in the game on that cell keeps somebody walking out."""
        for layer in self.layers:
            number = self.number_at(layer, x, y) if layer["kind"] == "tiles" and layer["inGame"] else 0
            sheet, tile = number >> SHEET_BITS, number >> TURN_BITS & 0x3FFFF
            facts = self.quilt.tiles.get(sheet, {}).get(tile)
            if facts and facts.get("footing", self.quilt.sheets[sheet]["footing"]) == "solid":
                return True
        return False


def tint(picture, colour):
    for row in picture.rows:
        for c in range(3):
            if colour[c] != 255:
                row[c::4] = row[c::4].translate(bytes(times(v, colour[c]) for v in range(256)))


def ways(quilt):
    """Every doorway and every seam, as lines of text; raises where one leads nowhere."""
    for doorway in quilt.facts["doorways"]:
        ends = [quilt.map(doorway[end]["map"]) for end in ("from", "to")]
        for end, there in zip(("from", "to"), ends):
            spots = [spot for layer in there.layers for spot in layer.get("spots", ())]
            if not any(spot["id"] == doorway[end]["spot"] for spot in spots):
                raise KeyError(f"doorway {doorway['id']} leads to a spot that is not there")
        arrow = "<->" if doorway["leadsBack"] else "->"
        yield f"{ends[0].facts['name']} {tuple(doorway['from']['cell'])} {arrow} {ends[1].facts['name']} {tuple(doorway['to']['cell'])}, facing {doorway['to']['facing']}"
    for seam in quilt.facts["seams"]:
        a, b = quilt.map(seam["map"]), quilt.map(seam["other"])
        yield f"{b.facts['name']} is sewn to {a.facts['name']}: its cell 0, 0 is there {seam['at'][0]}, {seam['at'][1]}"


def pair(text):
    return tuple(int(one) for one in text.replace("x", ",").split(","))


def main(arguments):
    if not arguments:
        sys.exit(__doc__)
    quilt = Quilt(arguments[0])
    what = arguments[1] if len(arguments) > 1 else ""
    if what == "draw":
        options = dict(zip(arguments[4::2], arguments[5::2]))
        camera = pair(options["--camera"]) if "--camera" in options else None
        frame = pair(options["--frame"]) if "--frame" in options else None
        quilt.map(arguments[2]).draw(camera, frame).write(arguments[3])
    elif what == "ways":
        print("\n".join(ways(quilt)))
    elif what == "solid":
        place = quilt.map(arguments[2])
        x0, y0, x1, y1 = place.facts["bounds"]
        for y in range(y0, y1):
            print("".join("#" if place.is_solid(x, y) else "." for x in range(x0, x1)))
    else:
        for one in quilt.facts["maps"]:
            there = quilt.map(one["id"])
            print(f"{one['name']}: {there.facts['size'][0]} x {there.facts['size'][1]} cells, {len(there.layers)} layers")


if __name__ == "__main__":
    main(sys.argv[1:])

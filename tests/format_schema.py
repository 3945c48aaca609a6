#!/usr/bin/env python3
"""Checks that docs/format.schema.json describes the demo's documents, and refuses broken ones.

usage: format_schema.py SOURCE_DIR
"""
import copy
import json
import pathlib
import sys

import jsonschema

source = pathlib.Path(sys.argv[1])
schema = json.loads((source / "docs/format.schema.json").read_text())
jsonschema.Draft7Validator.check_schema(schema)
validator = jsonschema.Draft7Validator(schema)
failed = 0


def expect(valid, document, what):
    global failed
    errors = list(validator.iter_errors(document))
    if bool(errors) == valid:
        failed += 1
        print(f"{what}: " + ("; ".join(e.message for e in errors[:3]) if errors else "was accepted"))


documents = sorted((source / "demo/copperline").rglob("*.json"))
assert len(documents) >= 5, "the demo is missing"
for path in documents:
    document = json.loads(path.read_text())
    expect(True, document, path)
    newer = dict(document, weather={"rain": 1})
    expect(True, newer, f"{path} with an unknown field")
    for field in document:
        lacking = copy.deepcopy(document)
        del lacking[field]
        later = field in ("roles", "screen", "opensWith", "table", "order", "seat", "footprint", "facings", "firstShift",
                          "offset", "footing", "pile", "from", "by", "licence", "maySell", "mayTurn", "mayMirrorAcross",
                          "mayMirrorDown", "seeThrough", "shrink", "closesRims", "enlarge", "shelf", "role", "manner",
                          "ends", "parts", "mix", "neverAlike", "turnsByChance", "cloth", "shownTimes", "cameraRunsFree", "onBoard", "seen", "growsAsPainted", "title", "walker", "seams", "pieces", "doorways", "silenced", "start", "hems")
        expect(later, lacking, f"{path} without {field}")
links = json.loads((source / "demo/copperline/links.json").read_text())
expect(False, dict(links, seams=[{"id": "aaaaaaaaaaab", "map": "aaaaaaaaaaac"}]), "a seam to nothing")
expect(False, dict(links, seams=[dict(links["seams"][0], wraps="round")]), "a way of wrapping that nobody knows")
expect(False, dict(links, seams=[dict(links["seams"][0], at=[1.5, 0])]), "half a cell")
expect(True, dict(links, doorways=[{"id": "aaaaaaaaaaab", "from": {"map": "aaaaaaaaaaac", "pin": "aaaaaaaaaaad"}, "to": {"map": "aaaaaaaaaaac", "pin": "aaaaaaaaaaae"}, "arriving": "north-east"}]), "a doorway")
expect(False, dict(links, doorways=[{"id": "aaaaaaaaaaab", "from": {"map": "aaaaaaaaaaac", "pin": "aaaaaaaaaaad"}, "arriving": "north"}]), "a doorway to nowhere")
pins = {"document": "pins", "version": "1.12", "pins": [{"id": "aaaaaaaaaaab", "number": 1, "cell": [3, 4], "name": "Gate"}]}
expect(True, pins, "a layer's pins")
expect(False, dict(pins, pins=[{"id": "aaaaaaaaaaab", "number": 1}]), "a pin that lies nowhere")
edging = {"document": "edging", "version": "1.12", "id": "aaaaaaaaaaab", "name": "Quay", "grid": "orthogonal", "decides": "corners",
          "materials": [{"name": "canal", "colour": "#336699"}],
          "members": [{"sheet": "aaaaaaaaaaac", "tile": 3, "middle": "canal", "corners": ["canal", "canal", "nothing", "nothing"]}]}
expect(True, edging, "an edging")
hem = {"name": "face", "material": "canal", "side": "bottom", "rows": 3, "grows": True, "tiles": [{"sheet": "aaaaaaaaaaac", "tile": 5, "row": "foot", "piece": "left"}]}
expect(True, dict(edging, hems=[hem, {"name": "walls", "material": "canal", "role": "things", "around": "aaaaaaaaaaad", "with": "wall"}]), "an edging with hems")
expect(False, dict(edging, hems=[dict(hem, tiles=[])]), "a hem without tiles")
expect(False, dict(edging, hems=[dict(hem, rows=33)]), "a hem of too many rows")
expect(False, dict(edging, decides="centre"), "a way of deciding that nobody knows")
expect(False, dict(edging, materials=[{"name": "nothing", "colour": "#000000"}]), "a material that is called nothing")
plan = json.loads((source / "demo/copperline/plan.json").read_text())
expect(False, dict(plan, pieces=[dict(plan["pieces"][0], size=[0, 5])]), "a planned map of no size")
expect(False, dict(plan, pieces=[{"id": "aaaaaaaaaaab", "name": "Market"}]), "a planned map without a place")
broken = json.loads((source / "demo/copperline/maps/depot-yard/map.json").read_text())
broken["layers"][0].update(offset=[3, -4], opacity=60, note="Quay edge")
broken["layers"][0].update(parallax=[50, 0], tint="#1b2030", blend="add", inGame=False)
expect(True, broken, "a layer with everything that may be said of it")
hung = {key: broken["layers"][0][key] for key in ("name", "role", "thread", "stitch")}
hung.update(id="aaaaaaaaaaac", kind="backdrop", sheet="aaaaaaaaaaad", repeatsAcross=True, fit="screen", shownAt=50)
expect(True, dict(broken, cloth="#7a86a8", screen=[320, 180], title="The Yard", layers=[hung]), "a map with a backdrop")
expect(False, dict(broken, layers=[dict(hung, cells="sky.cells")]), "a backdrop with cells")
expect(False, dict(broken, layers=[dict(hung, fit="tight")]), "a fit that nobody knows")
expect(False, dict(broken, cloth="blue"), "a colour by its name")
expect(True, dict(broken, grid="hexagonal-flat", cell=[64, 56], side=32, firstShift=True), "a map of hexagons")
expect(False, dict(broken, grid="triangular"), "a grid that nobody knows")
level = {"id": "aaaaaaaaaaab", "kind": "folder", "name": "Level 1", "rise": 32, "order": "by-depth", "layers": [broken["layers"][0]]}
expect(True, dict(broken, order="by-layers", layers=[level]), "a map with a level")
expect(False, dict(broken, layers=[dict(level, layers=[])]), "a level that holds nothing")
expect(False, dict(broken, order="by-chance"), "an order that nobody knows")
broken["layers"][0]["opacity"] = 160
expect(False, broken, "a layer of 160 per cent")
broken["layers"][0]["opacity"] = 60
broken["layers"][0]["cells"] = "../outside.cells"
expect(False, broken, "a map whose cells lie outside the quilt")
print(f"format schema: {len(documents)} documents, {failed} wrong")
sys.exit(1 if failed else 0)

#!/usr/bin/env python3
"""Checks that docs/exchange.schema.json describes what was exported, and refuses what was broken.

usage: exchange_schema.py SOURCE_DIR EXPORT_DIR
"""
import json
import pathlib
import sys

import jsonschema

source, exported = (pathlib.Path(p) for p in sys.argv[1:3])
schema = json.loads((source / "docs/exchange.schema.json").read_text())
jsonschema.Draft7Validator.check_schema(schema)
whole = jsonschema.Draft7Validator(schema)
failed = 0
for path in [exported / "quilt.json", *sorted((exported / "maps").glob("*.json"))]:
    document = json.loads(path.read_text())
    # Against the one of both that it says it is, so that errors tell what is wrong.
    kind = schema["oneOf"][0 if document["document"] == "exchange-quilt" else 1]
    validator = jsonschema.Draft7Validator({**kind, "definitions": schema["definitions"]})
    for error in list(validator.iter_errors(document))[:3]:
        print(f"{path}: {'/'.join(map(str, error.path))}: {error.message[:200]}")
        failed += 1
    del document["name"]
    if whole.is_valid(document):
        print(f"{path}: is taken without its name")
        failed += 1
sys.exit(1 if failed else 0)

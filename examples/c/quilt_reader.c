/* Reads a quilt that Urban Quilt exported as exchange JSON, and rebuilds what the game shows of its maps.
 *
 * One file of C99; nothing but zlib, for PNG. docs/exchange.md describes the files. What a game copies from here: the cells of a layer
 * (layer_cell), where the box of a cell lies (box_of), what a cell's number says (made_tile), the order of drawing (draw_step) and of laying
 * (lay, lay_whole). Whatever is wrong ends the program with a line of text; a game would rather return an error.
 *
 *   cc -O2 -std=c99 quilt_reader.c -lz -o quilt_reader
 *   quilt_reader FOLDER MAP PICTURE.png [X Y WIDTH HEIGHT]     the last four: what the player's screen shows, its upper left at X, Y
 */
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <zlib.h>

static void fail(const char* what, const char* which) {
  fprintf(stderr, "quilt_reader: %s%s%s\n", what, which ? ": " : "", which ? which : "");
  exit(1);
}

static void* take(size_t bytes) {
  void* memory = calloc(bytes ? bytes : 1, 1);
  if (!memory) fail("out of memory", NULL);
  return memory;
}

/* -- JSON ----------------------------------------------------------------------------------------------------------- */

typedef enum { J_NULL, J_FALSE, J_TRUE, J_NUMBER, J_TEXT, J_LIST, J_OBJECT } Kind;
typedef struct Json {
  Kind kind;
  long long number;
  char* text;          /* of a text */
  size_t count, room;  /* of a list, or fields of an object */
  struct Json* items;
  char** names; /* of fields */
} Json;

static const char* at; /* where reading is */

static void skip(void) {
  while (*at == ' ' || *at == '\n' || *at == '\t' || *at == '\r') ++at;
}

static int hex4(void) {
  int value = 0;
  for (int i = 0; i < 4; ++i, ++at) {
    int digit = *at >= '0' && *at <= '9' ? *at - '0' : (*at | 32) >= 'a' && (*at | 32) <= 'f' ? (*at | 32) - 'a' + 10 : -1;
    if (digit < 0) fail("a text of the JSON is broken", NULL);
    value = value * 16 + digit;
  }
  return value;
}

static char* read_text(void) {
  if (*at != '"') fail("a text is missing in the JSON", NULL);
  const char* end = ++at;
  while (*end && *end != '"') end += *end == '\\' && end[1] ? 2 : 1;
  char* text = take((size_t)(end - at) + 1);
  char* to = text;
  while (*at && *at != '"') {
    if (*at != '\\') {
      *to++ = *at++;
      continue;
    }
    at += 2;
    switch (at[-1]) {
      case 'n': *to++ = '\n'; break;
      case 't': *to++ = '\t'; break;
      case 'r': *to++ = '\r'; break;
      case 'b': *to++ = '\b'; break;
      case 'f': *to++ = '\f'; break;
      case 'u': { /* control characters only are spelt so */
        int code = hex4();
        if (code < 0x80) *to++ = (char)code;
        else if (code < 0x800) *to++ = (char)(0xc0 | code >> 6), *to++ = (char)(0x80 | (code & 63));
        else *to++ = (char)(0xe0 | code >> 12), *to++ = (char)(0x80 | (code >> 6 & 63)), *to++ = (char)(0x80 | (code & 63));
        break;
      }
      default: *to++ = at[-1];
    }
  }
  if (*at++ != '"') fail("a text of the JSON has no end", NULL);
  return text;
}

static Json read_value(int depth);

static void read_items(Json* value, char end, int depth) {
  ++at;
  for (skip(); *at != end; skip()) {
    if (value->count > 0) {
      if (*at++ != ',') fail("a comma is missing in the JSON", NULL);
      skip();
    }
    if (value->count == value->room) {
      value->room = value->room ? value->room * 2 : 8;
      value->items = realloc(value->items, value->room * sizeof(Json));
      if (end == '}') value->names = realloc(value->names, value->room * sizeof(char*));
      if (!value->items || (end == '}' && !value->names)) fail("out of memory", NULL);
    }
    if (end == '}') {
      value->names[value->count] = read_text();
      skip();
      if (*at++ != ':') fail("a colon is missing in the JSON", NULL);
    }
    value->items[value->count++] = read_value(depth + 1);
  }
  ++at;
}

static Json read_value(int depth) {
  Json value = {J_NULL, 0, NULL, 0, 0, NULL, NULL};
  if (depth > 64) fail("the JSON is too deep", NULL);
  skip();
  if (*at == '{') value.kind = J_OBJECT, read_items(&value, '}', depth);
  else if (*at == '[') value.kind = J_LIST, read_items(&value, ']', depth);
  else if (*at == '"') value.kind = J_TEXT, value.text = read_text();
  else if (!strncmp(at, "true", 4)) value.kind = J_TRUE, at += 4;
  else if (!strncmp(at, "false", 5)) value.kind = J_FALSE, at += 5;
  else if (!strncmp(at, "null", 4)) at += 4;
  else {
    char* end;
    value.kind = J_NUMBER;
    value.number = strtoll(at, &end, 10);
    if (end == at) fail("the JSON is broken", NULL);
    at = end;
  }
  return value;
}

static const Json* find(const Json* object, const char* name) { /* NULL where there is none */
  for (size_t i = 0; object && object->kind == J_OBJECT && i < object->count; ++i) {
    if (!strcmp(object->names[i], name)) return &object->items[i];
  }
  return NULL;
}

static const Json* need(const Json* object, const char* name) {
  const Json* found = find(object, name);
  if (!found) fail("the export lacks a field", name);
  return found;
}

static int item(const Json* list, size_t i) {
  if (list->kind != J_LIST || i >= list->count) fail("a list of the export is too short", NULL);
  return (int)list->items[i].number;
}

static int is(const Json* value, const char* text) { return value && value->kind == J_TEXT && !strcmp(value->text, text); }

static char* read_file(const char* folder, const char* name, size_t* size) {
  char path[4096];
  if (snprintf(path, sizeof path, "%s/%s", folder, name) >= (int)sizeof path) fail("a path is too long", name);
  FILE* file = fopen(path, "rb");
  if (!file) fail("cannot be read", path);
  fseek(file, 0, SEEK_END);
  long length = ftell(file);
  rewind(file);
  char* bytes = take((size_t)length + 1);
  if (fread(bytes, 1, (size_t)length, file) != (size_t)length) fail("cannot be read", path);
  fclose(file);
  if (size) *size = (size_t)length;
  return bytes;
}

static Json read_json(const char* folder, const char* name, const char* document) {
  at = read_file(folder, name, NULL);
  Json json = read_value(0);
  if (!is(find(&json, "document"), document)) fail("is no such document", name);
  if (strncmp(need(&json, "version")->text, "1.", 2)) fail("is of a version that this reader does not know", name);
  return json;
}

/* -- pictures: premultiplied RGBA, 8 bits a channel ------------------------------------------------------------------ */

typedef struct {
  int w, h;
  uint8_t* pixels;
} Picture;

static Picture blank(int w, int h) {
  Picture picture = {w, h, take((size_t)w * (size_t)h * 4)};
  return picture;
}

static uint8_t* pixel(const Picture* picture, int x, int y) { return picture->pixels + 4 * ((size_t)y * (size_t)picture->w + (size_t)x); }

static int times(int channel, int by) { /* channel * by / 255, rounded */
  int t = channel * by;
  return (t + (t >> 8) + 128) >> 8;
}

static uint32_t big_endian(const uint8_t* bytes) { return (uint32_t)bytes[0] << 24 | (uint32_t)bytes[1] << 16 | (uint32_t)bytes[2] << 8 | bytes[3]; }

static Picture read_png(const char* folder, const char* name) {
  size_t size, used = 0;
  uint8_t* file = (uint8_t*)read_file(folder, name, &size);
  if (size < 33 || memcmp(file, "\x89PNG\r\n\x1a\n", 8)) fail("is no PNG", name);
  int w = (int)big_endian(file + 16), h = (int)big_endian(file + 20);
  if (file[24] != 8 || file[25] != 6 || file[28] != 0 || w < 1 || h < 1 || w > 65536 || h > 65536) fail("is no plain PNG of RGBA", name);
  uint8_t* packed = take(size);
  for (size_t chunk = 8; chunk + 12 <= size;) {
    uint32_t length = big_endian(file + chunk);
    if (length > size - chunk - 12) fail("is cut short", name);
    if (!memcmp(file + chunk + 4, "IDAT", 4)) memcpy(packed + used, file + chunk + 8, length), used += length;
    chunk += 12 + (size_t)length;
  }
  size_t stride = 4 * (size_t)w;
  uLongf room = (uLongf)((stride + 1) * (size_t)h);
  uint8_t* rows = take(room);
  if (uncompress(rows, &room, packed, (uLong)used) != Z_OK || room != (stride + 1) * (size_t)h) fail("is broken", name);
  Picture picture = blank(w, h);
  for (int y = 0; y < h; ++y) {
    const uint8_t* from = rows + (stride + 1) * (size_t)y;
    uint8_t* row = pixel(&picture, 0, y);
    const uint8_t* above = y > 0 ? pixel(&picture, 0, y - 1) : NULL;
    for (size_t i = 0; i < stride; ++i) {
      int a = i > 3 ? row[i - 4] : 0, b = above ? above[i] : 0, c = above && i > 3 ? above[i - 4] : 0, add = 0;
      int p = a + b - c, pa = abs(p - a), pb = abs(p - b), pc = abs(p - c);
      if (from[0] == 1) add = a;
      if (from[0] == 2) add = b;
      if (from[0] == 3) add = (a + b) / 2;
      if (from[0] == 4) add = pa <= pb && pa <= pc ? a : pb <= pc ? b : c;
      row[i] = (uint8_t)(from[1 + i] + add);
    }
  }
  for (uint8_t* p = picture.pixels; p < picture.pixels + stride * (size_t)h; p += 4) {
    for (int c = 0; c < 3; ++c) p[c] = (uint8_t)times(p[c], p[3]);
  }
  free(file), free(packed), free(rows);
  return picture;
}

static void write_chunk(FILE* file, const char* kind, const uint8_t* body, size_t length) {
  uint8_t head[8] = {(uint8_t)(length >> 24), (uint8_t)(length >> 16), (uint8_t)(length >> 8), (uint8_t)length};
  memcpy(head + 4, kind, 4);
  uLong sum = crc32(crc32(0, head + 4, 4), body, (uInt)length);
  uint8_t tail[4] = {(uint8_t)(sum >> 24), (uint8_t)(sum >> 16), (uint8_t)(sum >> 8), (uint8_t)sum};
  if (fwrite(head, 1, 8, file) != 8 || fwrite(body, 1, length, file) != length || fwrite(tail, 1, 4, file) != 4) fail("the picture could not be written", NULL);
}

static void write_png(const Picture* picture, const char* path) {
  size_t stride = 4 * (size_t)picture->w;
  uint8_t* rows = take((stride + 1) * (size_t)picture->h);
  for (int y = 0; y < picture->h; ++y) {
    uint8_t* to = rows + (stride + 1) * (size_t)y + 1;
    const uint8_t* from = pixel(picture, 0, y);
    for (size_t i = 0; i < stride; ++i) {
      int alpha = from[i | 3];
      to[i] = (i & 3) == 3 || alpha == 0 || alpha == 255 ? from[i] : (uint8_t)((from[i] * (0xff00ff / alpha) + 0x8000) >> 16);
    }
  }
  uLong length = (uLong)((stride + 1) * (size_t)picture->h);
  uLongf room = compressBound(length);
  uint8_t* packed = take(room);
  if (compress2(packed, &room, rows, length, 6) != Z_OK) fail("out of memory", NULL);
  FILE* file = fopen(path, "wb");
  if (!file) fail("cannot be written", path);
  uint8_t head[13] = {(uint8_t)(picture->w >> 24), (uint8_t)(picture->w >> 16), (uint8_t)(picture->w >> 8), (uint8_t)picture->w,
                      (uint8_t)(picture->h >> 24), (uint8_t)(picture->h >> 16), (uint8_t)(picture->h >> 8), (uint8_t)picture->h, 8, 6, 0, 0, 0};
  if (fwrite("\x89PNG\r\n\x1a\n", 1, 8, file) != 8) fail("cannot be written", path);
  write_chunk(file, "IHDR", head, sizeof head);
  write_chunk(file, "IDAT", packed, room);
  write_chunk(file, "IEND", head, 0);
  if (fclose(file)) fail("cannot be written", path);
  free(rows), free(packed);
}

static Picture turned(Picture from, int mirror, int quarters) { /* mirrored across, then turned clockwise */
  Picture to = quarters % 2 ? blank(from.h, from.w) : blank(from.w, from.h);
  for (int y = 0; y < from.h; ++y) {
    for (int x = 0; x < from.w; ++x) {
      int a = mirror ? from.w - 1 - x : x, b = y;
      int w = from.w, h = from.h;
      for (int i = 0; i < quarters; ++i) {
        int turned_x = h - 1 - b, swap = w;
        b = a, a = turned_x, w = h, h = swap;
      }
      memcpy(pixel(&to, a, b), pixel(&from, x, y), 4);
    }
  }
  return to;
}

/* Source over, where the target has room; of the picture only columns left .. right. */
static void lay(Picture* target, const Picture* picture, int x, int y, int left, int right) {
  if (left < -x) left = -x;
  if (left < 0) left = 0;
  if (right > picture->w) right = picture->w;
  if (right > target->w - x) right = target->w - x;
  for (int j = y < 0 ? -y : 0; j < picture->h && j < target->h - y; ++j) {
    for (int i = left; i < right; ++i) {
      const uint8_t* above = pixel(picture, i, j);
      uint8_t* below = pixel(target, x + i, y + j);
      if (above[3] == 0) continue;
      for (int c = 0; c < 4; ++c) below[c] = (uint8_t)(above[c] + times(below[c], 255 - above[3]));
    }
  }
}

/* A whole layer over what is behind it: W3C Compositing and Blending Level 1, in numbers of single precision. */
static void lay_whole(Picture* target, const Picture* picture, int opacity, const Json* blend) {
  if (is(blend, "normal") && opacity == 100) {
    lay(target, picture, 0, 0, 0, picture->w);
    return;
  }
  int how = is(blend, "multiply") ? 1 : is(blend, "screen") ? 2 : is(blend, "add") ? 3 : 0;
  float share = (float)(opacity / 100.0);
  size_t count = 4 * (size_t)target->w * (size_t)target->h;
  for (size_t i = 0; i < count; i += 4) {
    const uint8_t* above = picture->pixels + i;
    uint8_t* below = target->pixels + i;
    if (above[3] == 0) continue;
    float sa = (float)above[3] / 255 * share, ba = (float)below[3] / 255;
    for (int c = 0; c < 4; ++c) {
      float s = (float)above[c] / 255 * share, b = (float)below[c] / 255, mixed = s + b;
      if (how == 0) mixed = s + b * (1 - sa);
      if (how == 1) mixed = s * b + s * (1 - ba) + b * (1 - sa);
      if (how == 2) mixed = s + b - s * b;
      mixed = mixed < 0 ? 0 : mixed > 1 ? 1 : mixed;
      below[c] = (uint8_t)(mixed * 255 + 0.5f);
    }
  }
}

/* -- a map ------------------------------------------------------------------------------------------------------------ */

typedef struct {
  const char* folder;
  Json quilt, map;
  Picture sheets[1024]; /* by number; without pixels: not read yet */
} Reader;

typedef struct {
  int x, y;
} Pos;

static Pos box_of(const Reader* r, int x, int y) { /* the upper left of a cell's box, in map pixels */
  const Json* boxes = need(&r->map, "boxes");
  Pos pos;
  int* to[2] = {&pos.x, &pos.y};
  for (size_t i = 0; i < 2; ++i) {
    *to[i] = item(need(boxes, "origin"), i) + x * item(need(boxes, "column"), i) + y * item(need(boxes, "row"), i) +
             (x & 1) * item(need(boxes, "oddColumn"), i) + (y & 1) * item(need(boxes, "oddRow"), i);
  }
  return pos;
}

static uint32_t layer_cell(const Json* layer, const char* what, int x, int y) { /* 0 where nothing lies */
  const Json* area = need(layer, "area");
  const Json* rows = find(layer, what);
  if (!rows || x < item(area, 0) || y < item(area, 1) || x >= item(area, 2) || y >= item(area, 3)) return 0;
  if (is(need(layer, "as"), "packed")) fail("these cells are packed: export them plain, or as runs", NULL);
  const Json* row = &rows->items[y - item(area, 1)];
  int place = x - item(area, 0);
  if (is(need(layer, "as"), "plain")) return (uint32_t)row->items[place].number;
  for (size_t i = 0; i + 1 < row->count; i += 2) {
    if ((place -= (int)row->items[i].number) < 0) return (uint32_t)row->items[i + 1].number;
  }
  return 0;
}

typedef struct {
  Picture picture; /* without pixels: there is none */
  int seat_x, seat_y, wide, deep;
} Tile;

static Picture sheet_picture(Reader* r, uint32_t number, const char* path) {
  if (!r->sheets[number].pixels) r->sheets[number] = read_png(r->folder, path);
  return r->sheets[number];
}

static Picture part(Picture from, int x, int y, int w, int h) {
  if (x < 0 || y < 0 || w < 1 || h < 1 || x + w > from.w || y + h > from.h) fail("a tile lies outside its sheet's picture", NULL);
  Picture to = blank(w, h);
  for (int j = 0; j < h; ++j) memcpy(pixel(&to, 0, j), pixel(&from, x, y + j), 4 * (size_t)w);
  return to;
}

/* What a cell's number says, turned as it is drawn. */
static Tile made_tile(Reader* r, uint32_t number) {
  uint32_t sheet_number = number >> 22, tile_number = number >> 4 & 0x3ffff;
  const Json* turn = &need(&r->map, "turns")->items[number & 15];
  const Json* size = need(need(&r->map, "boxes"), "size");
  Tile tile = {{0, 0, NULL}, 0, 0, 1, 1};
  if (sheet_number == 1023) { /* chalk */
    Picture all = sheet_picture(r, 1023, need(&r->map, "chalk")->text);
    tile.picture = part(all, (int)tile_number * item(size, 0), 0, item(size, 0), item(size, 1));
    return tile;
  }
  const Json* sheets = need(&r->quilt, "sheets");
  for (size_t i = 0; i < sheets->count; ++i) {
    const Json* sheet = &sheets->items[i];
    const Json* tiles = need(sheet, "tiles");
    if (need(sheet, "number")->number != (long long)sheet_number) continue;
    for (size_t j = 0; j < tiles->count; ++j) {
      const Json* one = &tiles->items[j];
      if (need(one, "number")->number != (long long)tile_number) continue;
      const Json* place = need(one, "at");
      const Json* seat = find(one, "seat") ? find(one, "seat") : need(sheet, "seat");
      const Json* footprint = find(one, "footprint") ? find(one, "footprint") : need(sheet, "footprint");
      int mirror = item(turn, 0), quarters = item(turn, 1), squares = is(need(&r->map, "stands"), "left");
      const Json* kind = need(need(&r->map, "grid"), "kind");
      int swapped = squares ? quarters % 2 : mirror && (is(kind, "diamond") || is(kind, "staggered"));
      tile.picture = part(sheet_picture(r, sheet_number, need(sheet, "picture")->text), item(place, 0), item(place, 1), item(place, 2), item(place, 3));
      if (mirror || quarters) tile.picture = turned(tile.picture, mirror, quarters);
      tile.seat_x = mirror && !squares ? -item(seat, 0) : item(seat, 0);
      tile.seat_y = item(seat, 1);
      tile.wide = item(footprint, swapped ? 1 : 0);
      tile.deep = item(footprint, swapped ? 0 : 1);
      return tile;
    }
  }
  return tile;
}

static const Json* footprint_of(const Reader* r, int x, int y, const Tile* tile) { /* ways from the cell, x, y, x, y … */
  const Json* all = need(&r->map, "footprints");
  for (size_t i = 0; i < all->count; ++i) {
    const Json* size = need(&all->items[i], "size");
    if (item(size, 0) == tile->wide && item(size, 1) == tile->deep) return &need(&all->items[i], "cells")->items[(x & 1) + 2 * (y & 1)];
  }
  fail("a footprint is missing", NULL);
  return NULL;
}

typedef struct {
  long long key[4]; /* foot and layer, or layer and foot; then from the left; what stands on several cells first */
  size_t order;
  const Picture* picture;
  int x, y, left, right;
} Blit;

typedef struct {
  Blit* all;
  size_t count, room;
} Blits;

static int compare(const void* a, const void* b) {
  const Blit *one = a, *other = b;
  for (int i = 0; i < 4; ++i) {
    if (one->key[i] != other->key[i]) return one->key[i] < other->key[i] ? -1 : 1;
  }
  return one->order < other->order ? -1 : 1;
}

static void add_blit(Blits* blits, Blit blit) {
  if (blits->count == blits->room) {
    blits->room = blits->room ? blits->room * 2 : 256;
    blits->all = realloc(blits->all, blits->room * sizeof(Blit));
    if (!blits->all) fail("out of memory", NULL);
  }
  blit.order = blits->count;
  blits->all[blits->count++] = blit;
}

/* A tile on a cell: where its picture stands, and with which cell each strip of it is drawn. */
static void add_tile(const Reader* r, Blits* blits, int by_depth, int rank, int x, int y, int lift, const Tile* tile, int dx, int dy) {
  const Json* size = need(need(&r->map, "boxes"), "size");
  int w = item(size, 0), h = item(size, 1), middle = is(need(&r->map, "stands"), "middle"), wide = tile->wide > 1 || tile->deep > 1;
  Pos own = box_of(r, x, y);
  int left = own.x, right = own.x + w, bottom = own.y + h;
  Pos boxes[4096];
  size_t cells = 0;
  if (wide) {
    const Json* ways = footprint_of(r, x, y, tile);
    for (size_t i = 0; i + 1 < ways->count && cells < 4096; i += 2) boxes[cells++] = box_of(r, x + item(ways, i), y + item(ways, i + 1));
  }
  for (size_t i = 0; i < cells && middle; ++i) {
    if (boxes[i].x < left) left = boxes[i].x;
    if (boxes[i].x + w > right) right = boxes[i].x + w;
    if (boxes[i].y + h > bottom) bottom = boxes[i].y + h;
  }
  if (middle) {
    int beside = right - left - tile->picture.w;
    left += beside >= 0 ? beside / 2 : -((1 - beside) / 2);
  }
  left += tile->seat_x;
  int top = bottom - tile->picture.h + tile->seat_y - lift;
  Blit blit = {{0, 0, 0, 0}, 0, &tile->picture, left + dx, top + dy, 0, tile->picture.w};
  if (!wide) {
    blit.key[by_depth ? 0 : 1] = own.y + h, blit.key[by_depth ? 1 : 0] = rank, blit.key[2] = own.x, blit.key[3] = 1;
    add_blit(blits, blit);
    return;
  }
  /* From edge to edge of the boxes; the outermost strips hold what reaches beyond them. */
  int first = boxes[0].x, last = boxes[0].x + w;
  for (size_t i = 0; i < cells; ++i) first = boxes[i].x < first ? boxes[i].x : first, last = boxes[i].x + w > last ? boxes[i].x + w : last;
  for (int edge = first; edge < last;) {
    int next = last;
    const Pos* front = NULL;
    for (size_t i = 0; i < cells; ++i) {
      if (boxes[i].x > edge && boxes[i].x < next) next = boxes[i].x;
      if (boxes[i].x + w > edge && boxes[i].x + w < next) next = boxes[i].x + w;
    }
    for (size_t i = 0; i < cells; ++i) {
      if (boxes[i].x <= edge && boxes[i].x + w >= next && (!front || boxes[i].y > front->y)) front = &boxes[i];
    }
    if (front) {
      int from = edge == first && left < edge ? left : edge, to = next == last && left + tile->picture.w > next ? left + tile->picture.w : next;
      blit.left = from - left, blit.right = to - left;
      blit.key[by_depth ? 0 : 1] = front->y + h, blit.key[by_depth ? 1 : 0] = rank, blit.key[2] = front->x, blit.key[3] = 0;
      if (blit.left < blit.right) add_blit(blits, blit);
    }
    edge = next;
  }
}

static void draw_backdrop(const Reader* r, const Json* backdrop, Picture* target, int x0, int y0) {
  if (!backdrop || backdrop->kind != J_OBJECT) return;
  Picture picture = read_png(r->folder, need(backdrop, "picture")->text);
  int across = need(backdrop, "repeatsAcross")->kind == J_TRUE, down = need(backdrop, "repeatsDown")->kind == J_TRUE;
  int x = -x0, y = -y0;
  while (across && x > 0) x -= picture.w;
  while (down && y > 0) y -= picture.h;
  for (int j = y; j < target->h; j += picture.h) {
    for (int i = x; i < target->w; i += picture.w) {
      lay(target, &picture, i, j, 0, picture.w);
      if (!across) break;
    }
    if (!down) break;
  }
  free(picture.pixels);
}

/* Draws the layers of a step; map pixel x0, y0 is the target's upper left. */
static void draw_step(Reader* r, const Json* step, Picture* target, int x0, int y0) {
  const Json* layers = need(step, "layers");
  const Json* all = need(&r->map, "layers");
  const Json* first = &all->items[item(layers, 0)];
  if (is(need(first, "kind"), "backdrop")) {
    draw_backdrop(r, find(first, "backdrop"), target, x0, y0);
    return;
  }
  typedef struct Known {
    uint32_t number;
    Tile tile;
    struct Known* next;
  } Known;
  Known* known[4096] = {NULL};
  Blits blits = {NULL, 0, 0};
  for (size_t rank = 0; rank < layers->count; ++rank) {
    const Json* layer = &all->items[item(layers, rank)];
    const Json* shifts = find(step, "shifts");
    int dx = -x0 + (shifts ? item(&shifts->items[rank], 0) : 0), dy = -y0 + (shifts ? item(&shifts->items[rank], 1) : 0);
    const Json* area = need(layer, "area");
    for (int y = item(area, 1); y < item(area, 3); ++y) {
      for (int x = item(area, 0); x < item(area, 2); ++x) {
        uint32_t number = layer_cell(layer, "cells", x, y);
        if (number == 0) continue;
        Known** slot = &known[(number ^ number >> 12) & 4095];
        while (*slot && (*slot)->number != number) slot = &(*slot)->next;
        if (!*slot) {
          *slot = take(sizeof(Known));
          (*slot)->number = number;
          (*slot)->tile = made_tile(r, number);
        }
        if ((*slot)->tile.picture.pixels) add_tile(r, &blits, is(need(step, "order"), "by-depth"), (int)rank, x, y, (int)layer_cell(layer, "lifts", x, y), &(*slot)->tile, dx, dy);
      }
    }
  }
  if (blits.count > 0) qsort(blits.all, blits.count, sizeof(Blit), compare);
  for (size_t i = 0; i < blits.count; ++i) lay(target, blits.all[i].picture, blits.all[i].x, blits.all[i].y, blits.all[i].left, blits.all[i].right);
  free(blits.all);
  for (size_t i = 0; i < 4096; ++i) {
    while (known[i]) {
      Known* next = known[i]->next;
      free(known[i]->tile.picture.pixels), free(known[i]);
      known[i] = next;
    }
  }
}

static int floor_div(int a, int b) { return a >= 0 ? a / b : -((b - 1 - a) / b); }

static void colour_of(const Json* text, int* channels) {
  unsigned long colour = strtoul(text->text + 1, NULL, 16);
  for (int c = 0; c < 3; ++c) channels[c] = (int)(colour >> (16 - 8 * c) & 255);
}

/* What the game shows: all of the map, or what the screen shows whose upper left is at the camera. */
static Picture draw_map(Reader* r, const int* camera) {
  const Json* place = need(&r->map, "picture");
  int x = camera ? camera[0] : item(place, 0), y = camera ? camera[1] : item(place, 1);
  Picture picture = blank(camera ? camera[2] : item(place, 2), camera ? camera[3] : item(place, 3));
  size_t count = (size_t)picture.w * (size_t)picture.h;
  int cloth[3];
  if (need(&r->map, "cloth")->kind == J_TEXT) {
    colour_of(need(&r->map, "cloth"), cloth);
    for (size_t i = 0; i < count; ++i) {
      for (int c = 0; c < 4; ++c) picture.pixels[4 * i + (size_t)c] = c < 3 ? (uint8_t)cloth[c] : 255;
    }
  }
  const Json* drawing = need(&r->map, "drawing");
  for (size_t i = 0; i < drawing->count; ++i) {
    const Json* step = &drawing->items[i];
    const Json *offset = need(step, "offset"), *parallax = need(step, "parallax");
    int dx = item(offset, 0), dy = item(offset, 1), tint[3];
    if (camera) { /* parallax 100 moves with the ground, 0 stays on the screen */
      dx += camera[0] - floor_div(camera[0] * item(parallax, 0) + 50, 100);
      dy += camera[1] - floor_div(camera[1] * item(parallax, 1) + 50, 100);
    }
    Picture layer = blank(picture.w, picture.h);
    draw_step(r, step, &layer, x - dx, y - dy);
    colour_of(need(step, "tint"), tint);
    for (size_t p = 0; p < count && (tint[0] & tint[1] & tint[2]) != 255; ++p) {
      for (int c = 0; c < 3; ++c) layer.pixels[4 * p + (size_t)c] = (uint8_t)times(layer.pixels[4 * p + (size_t)c], tint[c]);
    }
    lay_whole(&picture, &layer, (int)need(step, "opacity")->number, need(step, "blend"));
    free(layer.pixels);
  }
  return picture;
}

int main(int count, char** words) {
  if (count != 4 && count != 8) fail("usage", "quilt_reader FOLDER MAP PICTURE.png [X Y WIDTH HEIGHT]");
  static Reader reader;
  reader.folder = words[1];
  reader.quilt = read_json(words[1], "quilt.json", "exchange-quilt");
  const Json* maps = need(&reader.quilt, "maps");
  const char* file = NULL;
  for (size_t i = 0; i < maps->count; ++i) {
    if (is(need(&maps->items[i], "name"), words[2])) file = need(&maps->items[i], "file")->text;
  }
  if (!file) fail("is no map of this quilt", words[2]);
  reader.map = read_json(words[1], file, "exchange-map");
  int camera[4];
  for (int i = 4; i < count; ++i) camera[i - 4] = atoi(words[i]);
  if (count == 8 && (camera[2] < 1 || camera[3] < 1)) fail("a screen has a width and a height", NULL);
  Picture picture = draw_map(&reader, count == 8 ? camera : NULL);
  write_png(&picture, words[3]);
  return 0;
}

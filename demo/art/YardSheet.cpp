// The yard sheet: sheds, trams, trees and what stands about a depot; see-through, each with its shadow.
#include <algorithm>

#include "art/Pixels.h"
#include "art/Sheets.h"

namespace uq::art {

namespace {

Pixels canvasFor(const Thing& thing) { return Pixels(thing.w * kTile, thing.h * kTile); }

// Bricks in running bond.
void bricks(Pixels& p, int x, int y, int w, int h) {
  for (int py = y; py < y + h; ++py) {
    for (int px = x; px < x + w; ++px) {
      const int row = (py - y) / 4;
      const bool joint = (py - y) % 4 == 3 || (px - x + row % 2 * 4) % 8 == 7;
      const bool light = (py - y) % 4 == 0 && dither(px, py, 6);
      p.dot(px, py, joint ? Ink::darkBrick : light ? Ink::copper : Ink::brick);
    }
  }
}

void litWindow(Pixels& p, int x, int y, int w, int h) {
  p.box(x, y, w, h, Ink::amber);
  p.box(x + 1, y + 1, w - 2, h / 2, Ink::lamp);
  p.down(x + w / 2, y, h, Ink::darkBrick);
  p.across(x, y + h / 2, w, Ink::darkBrick);
  p.frame(x, y, w, h, Ink::ink);
  p.across(x - 1, y + h, w + 2, Ink::paleStone);
}

// The tram shed: a slate roof with three skylights over a brick front with two gates.
Pixels drawShed() {
  constexpr int kWidth = 8 * kTile;
  Pixels p = canvasFor(thing::shed);
  constexpr int kEaves = 108;
  constexpr int kFoot = 184;
  // Roof: courses of slate, lighter above the ridge where the last light falls.
  for (int y = 6; y < kEaves; ++y) {
    for (int x = 2; x < kWidth - 4; ++x) {
      const int course = (y - 6) / 6;
      const bool joint = (y - 6) % 6 == 5 || (x + course % 2 * 5) % 10 == 9;
      const bool upper = y < 52;
      Ink ink = upper ? Ink::steel : Ink::slate;
      if (joint) ink = upper ? Ink::slate : Ink::ink;
      if (!joint && upper && y < 20 && dither(x, y, 3)) ink = Ink::farSky;
      if (!joint && !upper && dither(x, y, y < 70 ? 5 : 2)) ink = Ink::steel;
      p.dot(x, y, ink);
    }
  }
  p.box(2, 50, kWidth - 6, 4, Ink::stone);
  p.across(2, 50, kWidth - 6, Ink::paleStone);
  p.across(2, 54, kWidth - 6, Ink::ink);
  for (int x : {30, 108, 186}) {
    p.box(x, 64, 36, 26, Ink::farSky);
    p.dithered(x, 64, 36, 10, Ink::lamp, 8);
    p.dithered(x, 74, 36, 16, Ink::amber, 4);
    for (int i = 0; i <= 36; i += 9) p.down(x + i, 64, 26, Ink::slate);
    p.frame(x - 1, 63, 39, 28, Ink::ink);
    p.across(x - 1, 62, 39, Ink::paleStone);
  }
  for (int x : {62, 216}) {
    p.box(x, 14, 12, 22, Ink::brick);
    bricks(p, x, 18, 12, 18);
    p.box(x - 1, 12, 14, 4, Ink::paleStone);
    p.box(x + 2, 10, 3, 3, Ink::darkBrick);
    p.box(x + 7, 10, 3, 3, Ink::darkBrick);
    p.frame(x - 1, 10, 14, 27, Ink::ink);
  }
  p.box(0, kEaves, kWidth - 2, 5, Ink::stone);
  p.across(0, kEaves, kWidth - 2, Ink::linen);
  p.across(0, kEaves + 5, kWidth - 2, Ink::ink);
  // Front.
  bricks(p, 4, kEaves + 6, kWidth - 10, kFoot - kEaves - 6);
  p.dithered(4, kEaves + 6, kWidth - 10, 4, Ink::darkBrick, 9);
  p.box(4, kFoot - 5, kWidth - 10, 5, Ink::stone);
  p.across(4, kFoot - 5, kWidth - 10, Ink::paleStone);
  for (int x : {4, 122, kWidth - 14}) {
    bricks(p, x, kEaves + 6, 8, kFoot - kEaves - 6);
    p.down(x, kEaves + 6, kFoot - kEaves - 6, Ink::copper);
    p.down(x + 8, kEaves + 6, kFoot - kEaves - 6, Ink::darkBrick);
    p.box(x - 1, kEaves + 6, 10, 4, Ink::paleStone);
  }
  for (int x : {16, 222}) litWindow(p, x, kEaves + 22, 16, 24);
  // Gates, each centred on a column of cells so that rails run in.
  for (int middle : {80, 176}) {
    const int left = middle - 30;
    p.box(left - 4, kEaves + 12, 68, kFoot - kEaves - 12, Ink::paleStone);
    p.box(left - 4, kEaves + 12, 68, 3, Ink::linen);
    p.box(left, kEaves + 17, 60, kFoot - kEaves - 17, Ink::ink);
    p.dithered(left, kEaves + 17, 60, 20, Ink::slate, 5);
    p.disc(middle, kEaves + 24, 5, Ink::amber);
    p.disc(middle, kEaves + 24, 3, Ink::lamp);
    p.dithered(middle - 20, kEaves + 32, 40, 30, Ink::darkBrick, 4);
    p.dithered(middle - 14, kEaves + 34, 28, 12, Ink::copper, 2);
    for (int side : {left, left + 52}) {
      p.box(side, kEaves + 17, 8, kFoot - kEaves - 17, Ink::deepCanal);
      p.down(side, kEaves + 17, kFoot - kEaves - 17, Ink::canal);
      for (int y = kEaves + 22; y < kFoot; y += 12) p.across(side, y, 8, Ink::ink);
    }
    // The rails inside.
    for (int rail : {middle - 6, middle + 5}) p.down(rail, kFoot - 16, 16, Ink::paleStone);
  }
  p.outline(Ink::ink);
  p.castShadow(20);
  return p;
}

Pixels drawTram(const Thing& thing, Ink panel, Ink panelDark, Ink stripe) {
  Pixels p = canvasFor(thing);
  constexpr int kLeft = 4;
  constexpr int kWidth = 138;
  // Side: windows over panels over wheels.
  p.box(kLeft + 2, 34, kWidth - 4, 38, panel);
  p.box(kLeft + 2, 66, kWidth - 4, 6, panelDark);
  p.across(kLeft + 2, 58, kWidth - 4, stripe);
  p.across(kLeft + 2, 59, kWidth - 4, stripe);
  p.box(kLeft + 2, 34, kWidth - 4, 3, panelDark);
  for (int i = 0; i < 7; ++i) {
    const int x = kLeft + 8 + i * 18;
    p.box(x, 39, 13, 15, Ink::lamp);
    p.dithered(x, 46, 13, 8, Ink::amber, 8);
    p.box(x, 39, 13, 2, Ink::linen);
    if (i == 2 || i == 5) {
      // A passenger.
      p.disc(x + 6, 48, 2, Ink::slate);
      p.box(x + 3, 51, 7, 3, Ink::slate);
    }
    p.frame(x - 1, 38, 15, 17, panelDark);
  }
  for (int x : {kLeft + 20, kLeft + 92}) {
    p.box(x, 72, 28, 4, Ink::slate);
    for (int wheel : {x + 6, x + 21}) {
      p.disc(wheel, 75, 4, Ink::ink);
      p.disc(wheel, 74, 2, Ink::steel);
    }
  }
  p.box(kLeft + 4, 71, kWidth - 8, 3, Ink::slate);
  p.box(kLeft + 1, 64, 4, 5, Ink::lamp);
  p.box(kLeft + kWidth - 5, 64, 4, 5, Ink::rose);
  // Roof, seen from above.
  p.box(kLeft, 12, kWidth, 22, Ink::paleStone);
  p.box(kLeft + 3, 10, kWidth - 6, 3, Ink::linen);
  p.across(kLeft, 13, kWidth, Ink::linen);
  p.dithered(kLeft, 27, kWidth, 4, Ink::stone, 8);
  p.box(kLeft, 31, kWidth, 3, Ink::stone);
  for (int x = kLeft + 16; x < kLeft + kWidth - 8; x += 20) {
    p.box(x, 18, 10, 6, Ink::stone);
    p.across(x, 18, 10, Ink::linen);
    p.frame(x - 1, 17, 12, 8, Ink::steel);
  }
  // The trolley pole.
  for (int i = 0; i < 40; ++i) p.dot(kLeft + 66 + i, 20 - i / 4, Ink::ink);
  p.disc(kLeft + 66, 20, 3, Ink::slate);
  p.outline(Ink::ink);
  p.castShadow(12);
  return p;
}

// Leaves in tufts, light on the upper left.
void foliage(Pixels& p, int cx, int cy, int radius) {
  p.disc(cx, cy, radius, Ink::deepMoss);
  p.disc(cx - 2, cy - 2, radius - 3, Ink::moss);
  for (int y = -radius; y <= radius; ++y) {
    for (int x = -radius; x <= radius; ++x) {
      if (x * x + y * y > radius * radius) continue;
      const bool lit = x + y < -radius / 4;
      const int tuft = ((x + 64) / 5 * 3 + (y + 64) / 4 * 5) % 7;
      const bool leafy = tuft < 3 && ((x + 64) % 5 < 3) && ((y + 64) % 4 < 2);
      if (leafy && p.at(cx + x, cy + y) == Ink::moss) p.dot(cx + x, cy + y, lit ? Ink::leaf : Ink::deepMoss);
      if (leafy && !lit && p.at(cx + x, cy + y) == Ink::deepMoss && dither(x + 64, y + 64, 5)) {
        p.dot(cx + x, cy + y, Ink::moss);
      }
    }
  }
}

Pixels drawTree() {
  Pixels p = canvasFor(thing::tree);
  p.box(38, 56, 10, 30, Ink::darkBrick);
  p.box(38, 56, 3, 30, Ink::brick);
  p.box(35, 82, 16, 4, Ink::darkBrick);
  foliage(p, 28, 40, 20);
  foliage(p, 58, 40, 20);
  foliage(p, 43, 28, 24);
  p.outline(Ink::ink);
  p.castShadow(10);
  return p;
}

Pixels drawSmallTree() {
  Pixels p = canvasFor(thing::smallTree);
  p.box(25, 34, 6, 22, Ink::darkBrick);
  p.down(25, 34, 22, Ink::brick);
  foliage(p, 28, 22, 18);
  p.outline(Ink::ink);
  p.castShadow(7);
  return p;
}

Pixels drawKiosk() {
  Pixels p = canvasFor(thing::kiosk);
  p.box(12, 34, 64, 46, Ink::canal);
  p.box(12, 72, 64, 8, Ink::deepCanal);
  p.box(18, 44, 40, 20, Ink::lamp);
  p.dithered(18, 54, 40, 10, Ink::amber, 7);
  p.box(24, 54, 6, 10, Ink::plum);
  p.box(34, 56, 5, 8, Ink::rose);
  p.box(42, 52, 8, 12, Ink::darkBrick);
  p.frame(17, 43, 42, 22, Ink::ink);
  p.box(14, 64, 48, 4, Ink::linen);
  p.box(62, 44, 11, 36, Ink::deepCanal);
  p.box(64, 47, 7, 12, Ink::farSky);
  // The awning, striped.
  for (int x = 6; x < 82; ++x) {
    const bool red = (x / 7) % 2 == 0;
    p.down(x, 14, 22, red ? Ink::brick : Ink::linen);
    p.down(x, 32, 4, red ? Ink::darkBrick : Ink::paleStone);
    if (x % 7 != 0 && x % 7 != 6) p.down(x, 36, 2, red ? Ink::darkBrick : Ink::paleStone);
  }
  p.box(10, 8, 68, 6, Ink::steel);
  p.across(10, 8, 68, Ink::paleStone);
  p.outline(Ink::ink);
  p.castShadow(12);
  return p;
}

Pixels drawBarge() {
  Pixels p = canvasFor(thing::barge);
  for (int y = 20; y < 76; ++y) {
    const int bow = y < 50 ? (50 - y) / 2 : (y - 50) / 2;
    const int left = 8 + bow;
    const int right = 206 - bow * 3 / 2;
    const bool hull = y > 58;
    p.across(left, y, right - left, hull ? (y > 66 ? Ink::plum : Ink::darkBrick) : Ink::copper);
  }
  p.box(30, 26, 150, 30, Ink::darkBrick);
  p.frame(29, 25, 152, 32, Ink::amber);
  for (int heap = 0; heap < 6; ++heap) {
    const int x = 46 + heap * 20;
    p.disc(x, 40 - heap % 2 * 2, 11, Ink::ink);
    p.dithered(x - 8, 32, 12, 10, Ink::slate, 8);
    p.dot(x - 3, 34, Ink::steel);
    p.dot(x + 2, 37, Ink::steel);
  }
  p.box(158, 14, 30, 30, Ink::linen);
  p.box(158, 30, 30, 16, Ink::canal);
  p.box(163, 33, 8, 8, Ink::lamp);
  p.box(176, 33, 8, 8, Ink::lamp);
  p.box(156, 12, 34, 5, Ink::brick);
  p.frame(157, 13, 32, 33, Ink::ink);
  p.box(16, 44, 8, 8, Ink::steel);
  p.outline(Ink::ink);
  p.castShadow(7);
  return p;
}

Pixels drawCabin() {
  Pixels p = canvasFor(thing::cabin);
  bricks(p, 14, 64, 60, 48);
  p.box(14, 106, 60, 6, Ink::stone);
  p.box(44, 80, 18, 32, Ink::deepCanal);
  p.box(46, 83, 14, 12, Ink::farSky);
  p.frame(43, 79, 20, 33, Ink::ink);
  litWindow(p, 22, 80, 14, 16);
  p.box(12, 38, 64, 26, Ink::linen);
  p.box(14, 42, 60, 16, Ink::lamp);
  p.dithered(14, 50, 60, 8, Ink::amber, 6);
  for (int x = 14; x <= 74; x += 12) p.box(x - 1, 40, 3, 22, Ink::canal);
  p.box(12, 58, 64, 5, Ink::canal);
  p.across(12, 63, 64, Ink::ink);
  for (int y = 8; y < 38; ++y) {
    const int in = (38 - y) / 3;
    p.across(6 + in, y, 76 - 2 * in, (y - 8) % 6 == 5 ? Ink::ink : (y < 20 ? Ink::steel : Ink::slate));
  }
  p.box(4, 36, 80, 4, Ink::stone);
  p.across(4, 36, 80, Ink::paleStone);
  p.box(40, 2, 6, 9, Ink::brick);
  p.outline(Ink::ink);
  p.castShadow(12);
  return p;
}

Pixels drawBench() {
  Pixels p = canvasFor(thing::bench);
  for (int y : {8, 12, 18}) {
    p.box(6, y, 46, 3, Ink::brick);
    p.across(6, y, 46, Ink::copper);
  }
  for (int x : {9, 46}) p.box(x, 7, 3, 20, Ink::slate);
  p.outline(Ink::ink);
  p.castShadow(5);
  return p;
}

Pixels drawLampPost() {
  Pixels p = canvasFor(thing::lampPost);
  p.box(13, 18, 3, 38, Ink::slate);
  p.down(13, 18, 38, Ink::steel);
  p.box(10, 53, 9, 5, Ink::slate);
  p.box(8, 6, 13, 13, Ink::lamp);
  p.box(10, 8, 5, 6, Ink::linen);
  p.box(7, 4, 15, 3, Ink::slate);
  p.box(12, 1, 5, 3, Ink::slate);
  p.outline(Ink::ink);
  p.castShadow(5);
  return p;
}

Pixels drawRailPile() {
  Pixels p = canvasFor(thing::railPile);
  for (int i = 0; i < 5; ++i) {
    p.box(4 + i, 6 + i * 4, 82 - i * 2, 4, Ink::slate);
    p.across(4 + i, 6 + i * 4, 82 - i * 2, i < 2 ? Ink::paleStone : Ink::steel);
  }
  for (int x : {14, 66}) p.box(x, 24, 8, 4, Ink::darkBrick);
  p.outline(Ink::ink);
  p.castShadow(5);
  return p;
}

void crate(Pixels& p, int x, int y, int size) {
  p.box(x, y, size, size, Ink::copper);
  p.box(x, y + size / 3, size, size - size / 3, Ink::brick);
  for (int i = 4; i < size; i += 5) p.across(x, y + i, size, Ink::darkBrick);
  p.frame(x, y, size, size, Ink::amber);
  p.frame(x + 1, y + size / 3, size - 2, size - size / 3 - 1, Ink::darkBrick);
}

Pixels drawCrates() {
  Pixels p = canvasFor(thing::crates);
  crate(p, 30, 24, 22);
  crate(p, 6, 30, 24);
  crate(p, 16, 8, 22);
  p.outline(Ink::ink);
  p.castShadow(6);
  return p;
}

Pixels drawBollard() {
  Pixels p = canvasFor(thing::bollard);
  p.box(11, 10, 8, 16, Ink::slate);
  p.down(11, 10, 16, Ink::steel);
  p.box(9, 7, 12, 5, Ink::steel);
  p.across(9, 7, 12, Ink::paleStone);
  p.outline(Ink::ink);
  p.castShadow(4);
  return p;
}

Pixels drawBarrel() {
  Pixels p = canvasFor(thing::barrel);
  p.box(7, 6, 16, 20, Ink::canal);
  p.box(7, 6, 16, 5, Ink::lightCanal);
  p.down(8, 11, 14, Ink::lightCanal);
  p.across(7, 15, 16, Ink::slate);
  p.across(7, 21, 16, Ink::slate);
  p.outline(Ink::ink);
  p.castShadow(4);
  return p;
}

Pixels drawDrain() {
  Pixels p = canvasFor(thing::drain);
  p.box(8, 12, 16, 9, Ink::slate);
  for (int x = 10; x < 23; x += 3) p.down(x, 13, 7, Ink::ink);
  p.across(8, 12, 16, Ink::steel);
  return p;
}

Pixels drawPuddle() {
  Pixels p = canvasFor(thing::puddle);
  p.each([](int x, int y) {
    const int d = (x - 16) * (x - 16) + 3 * (y - 17) * (y - 17);
    if (d > 150) return Ink::none;
    if (d > 125) return Ink::steel;
    return y < 16 && x < 18 && dither(x, y, 6) ? Ink::dusk : Ink::farSky;
  });
  return p;
}

Pixels drawFlowers() {
  Pixels p = canvasFor(thing::flowers);
  p.box(4, 16, 22, 10, Ink::brick);
  p.across(4, 16, 22, Ink::copper);
  for (int i = 0; i < 5; ++i) {
    p.disc(7 + i * 4, 12 + i % 2 * 2, 3, Ink::moss);
    p.box(6 + i * 4, 9 + i % 2 * 3, 3, 3, i % 2 == 0 ? Ink::rose : Ink::lamp);
  }
  p.outline(Ink::ink);
  p.castShadow(4);
  return p;
}

Pixels drawHedge() {
  Pixels p = canvasFor(thing::hedge);
  for (int x = 3; x < 5 * kTile - 5; ++x) {
    for (int y = 6; y < 38; ++y) {
      // Repeats every cell, so that the middles meet.
      const int tuft = ((x % kTile) / 4 * 3 + y / 4 * 5) % 8;
      Ink ink = y < 22 ? Ink::moss : Ink::deepMoss;
      if (tuft < 3 && x % 4 < 3 && y % 4 < 2) ink = y < 22 ? Ink::leaf : Ink::moss;
      p.dot(x, y, ink);
    }
  }
  p.outline(Ink::ink);
  p.castShadow(6);
  return p;
}

Pixels drawSign() {
  Pixels p = canvasFor(thing::sign);
  p.box(14, 14, 3, 14, Ink::slate);
  p.disc(15, 9, 7, Ink::linen);
  p.disc(15, 9, 5, Ink::brick);
  p.box(12, 8, 7, 3, Ink::linen);
  p.outline(Ink::ink);
  p.castShadow(4);
  return p;
}

// Steps from the quay to the water; the upper row lies on the slabs.
Pixels drawSteps() {
  Pixels p = canvasFor(thing::steps);
  for (int i = 0; i < 8; ++i) {
    p.box(4, 14 + i * 5, 56, 5, i < 5 ? Ink::paleStone : Ink::stone);
    p.across(4, 14 + i * 5, 56, i < 5 ? Ink::linen : Ink::paleStone);
    p.across(4, 18 + i * 5, 56, Ink::steel);
  }
  for (int x : {2, 58}) p.box(x, 12, 4, 44, Ink::stone), p.down(x, 12, 44, Ink::linen);
  p.dithered(4, 48, 56, 8, Ink::canal, 8);
  return p;
}

struct Entry {
  Thing thing;
  Pixels pixels;
  const char* name;
};

}  // namespace

DrawnSheet drawYardSheet() {
  const Entry entries[] = {
      {thing::shed, drawShed(), "tram shed"},
      {thing::copperTram, drawTram(thing::copperTram, Ink::copper, Ink::brick, Ink::lamp), "copper tram"},
      {thing::canalTram, drawTram(thing::canalTram, Ink::canal, Ink::deepCanal, Ink::linen), "green tram"},
      {thing::tree, drawTree(), "tree"},
      {thing::kiosk, drawKiosk(), "kiosk"},
      {thing::barge, drawBarge(), "coal barge"},
      {thing::cabin, drawCabin(), "signal cabin"},
      {thing::bench, drawBench(), "bench"},
      {thing::lampPost, drawLampPost(), "lamp post"},
      {thing::railPile, drawRailPile(), "pile of rails"},
      {thing::crates, drawCrates(), "crates"},
      {thing::smallTree, drawSmallTree(), "small tree"},
      {thing::bollard, drawBollard(), "bollard"},
      {thing::drain, drawDrain(), "drain"},
      {thing::puddle, drawPuddle(), "puddle"},
      {thing::barrel, drawBarrel(), "barrel"},
      {thing::flowers, drawFlowers(), "flower box"},
      {thing::hedge, drawHedge(), "hedge"},
      {thing::sign, drawSign(), "stop sign"},
      {thing::steps, drawSteps(), "quay steps"},
  };
  Pixels sheet(kYardColumns * kTile, kYardRows * kTile);
  DrawnSheet drawn;
  for (const Entry& entry : entries) {
    sheet.paste(entry.pixels, entry.thing.x * kTile, entry.thing.y * kTile);
    for (int y = 0; y < entry.thing.h; ++y) {
      for (int x = 0; x < entry.thing.w; ++x) {
        const auto number = static_cast<unsigned>((entry.thing.y + y) * kYardColumns + entry.thing.x + x);
        const bool single = entry.thing.w * entry.thing.h == 1;
        drawn.names[number] = entry.name + (single ? "" : " " + std::to_string(x + 1) + ", " + std::to_string(y + 1));
      }
    }
  }
  drawn.picture = sheet.image();
  return drawn;
}

}  // namespace uq::art

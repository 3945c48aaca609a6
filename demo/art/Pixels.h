// Pixels: the drawing kit of the demo's art — a palette, ordered dithering, and a canvas of single pixels.
//
// All is deterministic. Light comes from the upper left, shadows fall to the lower right, objects get an outline one
// step darker than ink allows, ground gets none.
#pragma once

#include <QImage>
#include <functional>

namespace uq::art {

enum class Ink : unsigned {
  none = 0,
  ink = 0xff1B2030,
  slate = 0xff3A4256,
  steel = 0xff6B7689,
  stone = 0xff8F8C86,
  paleStone = 0xffB9B3A5,
  linen = 0xffE6DCC8,
  darkBrick = 0xff6E3B2E,
  brick = 0xffA0563F,
  copper = 0xffC77B4A,
  amber = 0xffE0A84E,
  lamp = 0xffF6D98A,
  deepMoss = 0xff3D5140,
  moss = 0xff61795A,
  leaf = 0xff8FA46F,
  deepCanal = 0xff1F4550,
  canal = 0xff2F6B74,
  lightCanal = 0xff5A9A9B,
  plum = 0xff5B3A55,
  rose = 0xffA2627C,
  dusk = 0xffC98F86,
  farSky = 0xff7A86A8,
};

// True for `level` of 16 pixels, spread by the 4 × 4 matrix of ordered dithering (Bayer, 1973).
bool dither(int x, int y, int level);

class Pixels {
 public:
  Pixels(int w, int h);

  int width() const { return image_.width(); }
  int height() const { return image_.height(); }
  const QImage& image() const { return image_; }

  // Outside the canvas nothing is drawn and nothing is there.
  void dot(int x, int y, Ink ink);
  Ink at(int x, int y) const;
  bool covered(int x, int y) const { return at(x, y) != Ink::none; }

  void box(int x, int y, int w, int h, Ink ink);
  // `level` of 16 pixels of the box get the ink.
  void dithered(int x, int y, int w, int h, Ink ink, int level);
  void frame(int x, int y, int w, int h, Ink ink);
  void across(int x, int y, int length, Ink ink) { box(x, y, length, 1, ink); }
  void down(int x, int y, int length, Ink ink) { box(x, y, 1, length, ink); }
  void disc(int cx, int cy, int radius, Ink ink);
  void each(const std::function<Ink(int x, int y)>& colour);
  void paste(const Pixels& other, int x, int y);

  // One pixel of ink around everything that is covered, inside the canvas.
  void outline(Ink ink);
  // A soft shadow to the lower right of everything that is covered, `length` pixels long.
  void castShadow(int length);

 private:
  QImage image_;
};

}  // namespace uq::art

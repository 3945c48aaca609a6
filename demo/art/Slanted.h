// Slanted: drawing on isometric ground — boxes, faces and textures in the ways of the grid, pixel by pixel.
//
// Places are in cells: u runs to the lower right, v to the lower left, z up in pixels. A Stand is a picture and the
// point of it where cell 0, 0 has its upper corner. Cells are 64 × 32 px; light comes from the upper left, so a left
// face is lighter than a right one.
#pragma once

#include "art/Pixels.h"

namespace uq::art {

inline constexpr int kSlantW = 64;  // pixels of a cell
inline constexpr int kSlantH = 32;

// Colour of a place on a face, in pixels along its two ways, from 0; (x, y) is the pixel of the picture, for dithering.
using Texture = std::function<Ink(int a, int b, int x, int y)>;

struct Stand {
  Pixels& pixels;
  int x;  // of the upper corner of cell 0, 0
  int y;
};

// The stand of a picture whose cell, or footprint of `across` × `down` cells, lies at its bottom.
Stand standOf(Pixels& pixels, int across = 1, int down = 1);

// A box over the ground from (u0, v0) to (u1, v1), from height z up by `height` pixels. Each face is textured in pixels:
// the top along u and v (32 a cell), the sides along u or v and down from their upper edge.
struct Box {
  double u0, v0, u1, v1;
  int z = 0;
  int height = 0;
};
void box(const Stand& stand, const Box& at, const Texture& top, const Texture& left, const Texture& right);
// Only the top.
void sheet(const Stand& stand, const Box& at, const Texture& top);

// Where a place lies on the picture.
struct Spot {
  int x, y;
};
Spot spot(const Stand& stand, double u, double v, int z = 0);

// A soft shadow on the ground to the right of a box, `length` cells long.
void groundShadow(const Stand& stand, const Box& at, double length);

// --- Textures
Texture plain(Ink ink);
Texture mixed(Ink ink, Ink other, int level);  // `level` of 16 pixels are the other
Texture setts(int seed);                       // small paving stones
Texture slabs(int seed);                       // large ones
Texture planks(Ink ink, Ink joint, Ink light);
Texture courses(Ink stone, Ink joint, Ink light, int height, int length);  // a wall of stones or bricks
Texture grass(int seed);
Texture water(int seed);

// 0 .. `below` − 1, scattered but always the same.
int scattered(int a, int b, int seed, int below);

}  // namespace uq::art

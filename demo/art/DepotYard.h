// The demo quilt, composed by hand in code: sheets with their names, and Depot Yard.
#pragma once

#include <QImage>
#include <map>
#include <string>

#include "core/document/Quilt.h"

namespace uq::art {

struct Demo {
  Quilt quilt;
  std::map<std::string, QImage> pictures;  // by path inside the quilt
};

// Always the same quilt, ids included.
Demo composeDemo();

}  // namespace uq::art

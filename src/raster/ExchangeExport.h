// ExchangeExport: a quilt written for a game: its maps as exchange JSON (core/store/ExchangeText.h), and the pictures that they name.
//
// Files that would not change are not written, each other one is written whole or not at all. Pictures are PNGs of 8 bits a channel with
// alpha, whatever they came as: of a sheet the picture that is drawn from, of a backdrop one as large as it hangs, of chalk the
// colours that lie on cells of that shape. The same quilt gives the same bytes. Cost: the text and the pictures, one after the other.
#pragma once

#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/store/Disk.h"
#include "core/store/ExchangeText.h"
#include "core/store/ExportFolder.h"
#include "raster/MapPainter.h"

namespace uq {

struct ExchangeAsk {
  std::string folder;      // it is made where it is missing
  std::vector<Id> maps{};  // empty: all. quilt.json and pictures of sheets are always written
  CellsAs cells = CellsAs::plain;
};

struct ExchangeDone {
  std::vector<std::string> written;  // paths inside the folder
  std::vector<std::string> same;     // that were as they are
  std::vector<std::string> lacks;    // what could not be given, in words: pictures that are missing
};

// The Error says which file could not be written; those before it are. A folder in which a quilt is kept is refused.
Result<ExchangeDone> exportExchange(Disk& disk, MapPainter& painter, const Quilt& quilt, const ExchangeAsk& ask, Progress* progress = nullptr);

// The same piece by piece, for who writes the files: those of the whole quilt, and those of one map. `lacks` gets what could not be given.
Result<void> putExchangeQuilt(MapPainter& painter, const Quilt& quilt, const FilePuts& puts, std::vector<std::string>& lacks);
Result<void> putExchangeMap(MapPainter& painter, const Quilt& quilt, const Map& map, CellsAs cells, const FilePuts& puts, std::vector<std::string>& lacks);
// Why no export may go to a folder: a quilt is kept there. Nothing where it may.
std::optional<Error> whyNotInto(Disk& disk, const std::string& folder);

// What of a map is drawn in the game, in words of the exchange.
std::vector<ExchangeStep> exchangeDrawing(const Map& map);

}  // namespace uq

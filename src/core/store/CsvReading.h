// CsvReading: a table of values with commas (RFC 4180) as the cells of a layer, one line a row: what CsvText writes, and tables from elsewhere.
//
// A value is a number of the exchange, or the name of a tile; empty, 0 and -1 are cells on which nothing lies. What is none of these lies
// nowhere and is told. Read with libcsv. Cost: the text. Threads: any.
#pragma once

#include <string>
#include <vector>

#include "core/base/Error.h"
#include "core/document/Quilt.h"

namespace uq {

struct CsvCells {
  CellGrid cells;  // from 0, 0
  int columns = 0;  // of the longest line
  int rows = 0;
  std::int64_t laid = 0;
  std::int64_t unknown = 0;
  std::vector<std::string> unknownNames;  // at most 20 different ones, as they came
};

// An Error where the text is no table, or larger than a map may be; it names the line.
Result<CsvCells> readCsv(const Quilt& quilt, const std::string& text, const std::string& file);

}  // namespace uq

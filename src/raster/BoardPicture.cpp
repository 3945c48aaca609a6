#include "raster/BoardPicture.h"

#include <QPainter>
#include <algorithm>
#include <cmath>
#include <deque>
#include <set>

#include "core/edit/Patchwork.h"
#include "core/edit/Stitch.h"
#include "raster/MapExport.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr QRgb kBoardCloth = 0xffe3dac8;
constexpr QRgb kBoardInk = 0xff1f2a3c;
constexpr QRgb kBoardStitch = 0xffb4432f;
constexpr QRgb kBoardPaper = 0xfffaf7f0;
constexpr QRgb kBoardButton = 0xffffd166;
constexpr int kButton = 8;        // device pixels, radius
constexpr int kBoardMargin = 24;  // device pixels
constexpr int kNameHeight = 20;   // likewise, above a piece

// A map's own device pixels, with what reaches beyond its cells, and where these lie.
QRect deviceRectOf(MapPainter& painter, const Quilt& quilt, const PlacedMap& one, ViewScale scale) {
  const Map& map = *quilt.map(one.map);
  return scale.toDevice(painter.extentOf(quilt, map, runsOf(map, {}))).translated(deviceShift(one.at, scale));
}

QImage pictureOf(MapPainter& painter, const Quilt& quilt, const PlacedMap& one, ViewScale scale, const QRect& part) {
  const Map& map = *quilt.map(one.map);
  return overCloth(painter, quilt, map, runsOf(map, {}), scale, part.translated(-deviceShift(one.at, scale)));
}

QLine onPicture(const StitchSide& side, ViewScale scale) {
  const auto at = [scale](PixelPos pixel) { return deviceShift(pixel, scale); };
  return {at(side.from), at(side.to)};
}

std::vector<QLine> stitchesOn(const Quilt& quilt, ViewScale scale) {
  const SewnMaps sewn(quilt);
  const std::vector<Piece> pieces = piecesOf(quilt);
  std::vector<QLine> lines;
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (!sewn.whyWrong(seam->id).empty()) continue;
    for (const StitchSide& side : seamOnBoard(quilt, pieces, seam.read())) lines.push_back(onPicture(side, scale));
  }
  return lines;
}

// The cords of all ways whose ends are there, as lines, and the buttons at them.
struct CordOnPicture {
  QLine line;
  int from = 0;  // the numbers of its pins
  int to = 0;
};
std::vector<CordOnPicture> cordsOn(const Quilt& quilt, ViewScale scale) {
  std::vector<CordOnPicture> cords;
  for (const LaidCord& one : laidCords(quilt, piecesOf(quilt))) {
    if (one.from.at && one.to.at) cords.push_back({{deviceShift(*one.from.at, scale), deviceShift(*one.to.at, scale)}, one.from.number, one.to.number});
  }
  return cords;
}

void drawCords(QPainter& on, const std::vector<CordOnPicture>& cords) {
  on.save();
  on.setRenderHint(QPainter::Antialiasing);
  QFont font = on.font();
  font.setPixelSize(10);
  on.setFont(font);
  for (const CordOnPicture& cord : cords) {
    on.setPen(QPen(QColor::fromRgb(kBoardButton), 3));
    on.drawLine(cord.line);
    on.setPen(QPen(QColor::fromRgb(kBoardInk), 3, Qt::DashLine, Qt::FlatCap));
    on.drawLine(cord.line);
  }
  on.setPen(QPen(QColor::fromRgb(kBoardInk), 1));
  on.setBrush(QColor::fromRgb(kBoardButton));
  for (const CordOnPicture& cord : cords) {
    for (const auto& [at, number] : {std::pair(cord.line.p1(), cord.from), std::pair(cord.line.p2(), cord.to)}) {
      on.drawEllipse(at, kButton, kButton);
      on.drawText(QRect(at - QPoint(20, 10), QSize(40, 20)), Qt::AlignCenter, QString::number(number));
    }
  }
  on.restore();
}

// The device pixels of a chalk piece.
QRect chalkRect(const ChalkPiece& chalk, ViewScale scale) { return scale.toDevice(chalk.at); }

std::string escaped(const std::string& text) {
  return QString::fromStdString(text).toHtmlEscaped().toStdString();
}

}  // namespace

std::vector<PlacedMap> placedOnBoard(const Quilt& quilt) {
  std::vector<PlacedMap> placed;
  for (const Piece& piece : piecesOf(quilt)) {
    if (!piece.chalk) placed.push_back({piece.map, piece.at});
  }
  return placed;
}

std::vector<PlacedMap> placedAround(const Quilt& quilt, Id map, int seams) {
  const Map* home = quilt.map(map);
  if (!home) return {};
  const SewnMaps sewn(quilt);
  std::map<Id, int> far{{map, 0}};
  std::deque<Id> next{map};
  while (!next.empty()) {
    const Id from = next.front();
    next.pop_front();
    if (far[from] >= seams) continue;
    for (const Shared<Seam>& seam : quilt.seams()) {
      if (!seam->joins(from) || !sewn.whyWrong(seam->id).empty()) continue;
      const Id to = seam->map == from ? seam->other : seam->map;
      if (far.try_emplace(to, far[from] + 1).second) next.push_back(to);
    }
  }
  std::vector<PlacedMap> placed;
  const Period period = sewn.period(map);
  for (const Sewn& one : sewn.around(map)) {
    const auto reached = far.find(one.map);
    if (reached == far.end()) continue;
    const int left = seams - reached->second;
    const int across = period.across > 0 ? left : 0;
    const int down = period.down > 0 ? left : 0;
    for (int y = -down; y <= down; ++y) {
      for (int x = -across; x <= across; ++x) {
        const CellPos by{one.by.x + x * period.across, one.by.y + y * period.down};
        placed.push_back({one.map, pixelStep(*home, *quilt.map(one.map), by)});
      }
    }
  }
  const auto isHome = [&](const PlacedMap& one) { return one.map == map && one.at == PixelPos{}; };
  std::stable_partition(placed.begin(), placed.end(), [&](const PlacedMap& one) { return !isHome(one); });
  return placed;
}

QRect deviceExtent(MapPainter& painter, const Quilt& quilt, const std::vector<PlacedMap>& maps, ViewScale scale, bool named) {
  QRect all;
  for (const PlacedMap& one : maps) {
    const QRect own = deviceRectOf(painter, quilt, one, scale);
    all = all.united(named ? own.adjusted(0, -kNameHeight, 0, 0) : own);
  }
  return named && !all.isEmpty() ? all.adjusted(-kBoardMargin, -kBoardMargin, kBoardMargin, kBoardMargin) : all;
}

QImage drawTogether(MapPainter& painter, const Quilt& quilt, const std::vector<PlacedMap>& maps, ViewScale scale,
                    const QRect& part) {
  QImage picture(part.size(), QImage::Format_ARGB32_Premultiplied);
  picture.fill(Qt::transparent);
  QPainter on(&picture);
  for (const PlacedMap& one : maps) {
    const QRect own = deviceRectOf(painter, quilt, one, scale).intersected(part);
    if (!own.isEmpty()) on.drawImage(own.topLeft() - part.topLeft(), pictureOf(painter, quilt, one, scale, own));
  }
  return picture;
}

QRect boardExtent(MapPainter& painter, const Quilt& quilt, ViewScale scale) {
  QRect all = deviceExtent(painter, quilt, placedOnBoard(quilt), scale, true);
  for (const Shared<ChalkPiece>& chalk : quilt.chalkPieces()) {
    all = all.united(chalkRect(chalk.read(), scale).adjusted(-kBoardMargin, -kBoardMargin - kNameHeight, kBoardMargin, kBoardMargin));
  }
  return all;
}

QImage boardPicture(MapPainter& painter, const Quilt& quilt, ViewScale scale) {
  const std::vector<PlacedMap> maps = placedOnBoard(quilt);
  const QRect part = boardExtent(painter, quilt, scale);
  QImage picture = drawTogether(painter, quilt, maps, scale, part);
  if (picture.isNull()) return picture;
  QPainter on(&picture);
  on.setCompositionMode(QPainter::CompositionMode_DestinationOver);
  on.fillRect(picture.rect(), QColor::fromRgb(kBoardCloth));
  on.setCompositionMode(QPainter::CompositionMode_SourceOver);
  on.translate(-part.topLeft());
  for (const QLine& line : stitchesOn(quilt, scale)) {
    on.setPen(QPen(QColor::fromRgb(kBoardPaper), 3));
    on.drawLine(line);
    on.setPen(QPen(QColor::fromRgb(kBoardStitch), 3, Qt::DashLine, Qt::FlatCap));
    on.drawLine(line);
  }
  on.setPen(QColor::fromRgb(kBoardInk));
  QFont font = on.font();
  font.setBold(true);
  font.setPixelSize(13);
  on.setFont(font);
  for (const PlacedMap& one : maps) {
    const QRect own = deviceRectOf(painter, quilt, one, scale);
    on.drawText(QRect(own.left(), own.top() - kNameHeight, std::max(own.width(), 200), kNameHeight), Qt::AlignLeft | Qt::AlignVCenter,
                QString::fromStdString(quilt.map(one.map)->name));
  }
  drawCords(on, cordsOn(quilt, scale));
  font.setItalic(true);
  on.setFont(font);
  for (const Shared<ChalkPiece>& chalk : quilt.chalkPieces()) {
    const QRect own = chalkRect(chalk.read(), scale);
    on.setPen(QPen(QColor::fromRgb(kBoardInk), 1, Qt::DashLine));
    on.drawRect(own.adjusted(0, 0, -1, -1));
    on.drawText(own.adjusted(6, 4, -6, -4), Qt::AlignLeft | Qt::AlignTop, QString::fromStdString(chalk->name));
  }
  return picture;
}

std::string boardDrawing(MapPainter& painter, const Quilt& quilt, ViewScale scale) {
  const std::vector<PlacedMap> maps = placedOnBoard(quilt);
  const QRect part = boardExtent(painter, quilt, scale);
  const auto colour = [](QRgb rgb) { return QColor::fromRgb(rgb).name().toStdString(); };
  const auto number = [](int value) { return std::to_string(value); };
  std::string text = "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + number(part.width()) + "\" height=\"" +
                     number(part.height()) + "\" viewBox=\"" + number(part.x()) + " " + number(part.y()) + " " +
                     number(part.width()) + " " + number(part.height()) + "\">\n<rect x=\"" + number(part.x()) + "\" y=\"" +
                     number(part.y()) + "\" width=\"" + number(part.width()) + "\" height=\"" + number(part.height()) +
                     "\" fill=\"" + colour(kBoardCloth) + "\"/>\n";
  for (const PlacedMap& one : maps) {
    const QRect own = deviceRectOf(painter, quilt, one, scale);
    const std::string png = pngOf(pictureOf(painter, quilt, one, scale, own));
    const QByteArray coded = QByteArray(png.data(), static_cast<qsizetype>(png.size())).toBase64();
    text += "<image x=\"" + number(own.x()) + "\" y=\"" + number(own.y()) + "\" width=\"" + number(own.width()) + "\" height=\"" +
            number(own.height()) + "\" href=\"data:image/png;base64," + coded.toStdString() + "\"/>\n";
    text += "<text x=\"" + number(own.x()) + "\" y=\"" + number(own.y() - 6) + "\" font-family=\"sans-serif\" font-weight=\"bold\" font-size=\"13\" fill=\"" +
            colour(kBoardInk) + "\">" + escaped(quilt.map(one.map)->name) + "</text>\n";
  }
  for (const QLine& line : stitchesOn(quilt, scale)) {
    const std::string ends = "x1=\"" + number(line.x1()) + "\" y1=\"" + number(line.y1()) + "\" x2=\"" + number(line.x2()) +
                             "\" y2=\"" + number(line.y2()) + "\" stroke-width=\"3\"";
    text += "<line " + ends + " stroke=\"" + colour(kBoardPaper) + "\"/>\n<line " + ends + " stroke=\"" + colour(kBoardStitch) +
            "\" stroke-dasharray=\"9 5\"/>\n";
  }
  const std::vector<CordOnPicture> cords = cordsOn(quilt, scale);
  for (const CordOnPicture& cord : cords) {
    const std::string ends = "x1=\"" + number(cord.line.x1()) + "\" y1=\"" + number(cord.line.y1()) + "\" x2=\"" + number(cord.line.x2()) +
                             "\" y2=\"" + number(cord.line.y2()) + "\" stroke-width=\"3\"";
    text += "<line " + ends + " stroke=\"" + colour(kBoardButton) + "\"/>\n<line " + ends + " stroke=\"" + colour(kBoardInk) +
            "\" stroke-dasharray=\"9 5\"/>\n";
  }
  for (const CordOnPicture& cord : cords) {
    for (const auto& [at, pin] : {std::pair(cord.line.p1(), cord.from), std::pair(cord.line.p2(), cord.to)}) {
      text += "<circle cx=\"" + number(at.x()) + "\" cy=\"" + number(at.y()) + "\" r=\"" + number(kButton) + "\" fill=\"" +
              colour(kBoardButton) + "\" stroke=\"" + colour(kBoardInk) + "\"/>\n<text x=\"" + number(at.x()) + "\" y=\"" + number(at.y() + 4) +
              "\" text-anchor=\"middle\" font-family=\"sans-serif\" font-size=\"10\" fill=\"" + colour(kBoardInk) + "\">" + number(pin) + "</text>\n";
    }
  }
  for (const Shared<ChalkPiece>& chalk : quilt.chalkPieces()) {
    const QRect own = chalkRect(chalk.read(), scale);
    text += "<rect x=\"" + number(own.x()) + "\" y=\"" + number(own.y()) + "\" width=\"" + number(own.width()) + "\" height=\"" +
            number(own.height()) + "\" fill=\"none\" stroke-dasharray=\"6 4\" stroke=\"" + colour(kBoardInk) + "\"/>\n<text x=\"" +
            number(own.x() + 6) + "\" y=\"" + number(own.y() + 17) + "\" font-family=\"sans-serif\" font-style=\"italic\" font-size=\"13\" fill=\"" +
            colour(kBoardInk) + "\">" + escaped(chalk->name) + "</text>\n";
  }
  return text + "</svg>\n";
}

}  // namespace uq

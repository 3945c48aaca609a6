#include "core/edit/ArrangeSheets.h"

#include <algorithm>
#include <map>
#include <tuple>

#include "core/cells/Cell.h"

namespace uq {

namespace {

std::string freeCode(const Quilt& quilt) {
  std::set<std::string> taken = {chalk().code};
  for (SheetSlot slot = 1; slot <= quilt.slots().count(); ++slot) taken.insert(quilt.slots().code(slot));
  for (const auto& sheet : quilt.sheets()) taken.insert(sheet->code);
  int n = 0;
  while (taken.contains(sheetCode(n))) ++n;
  return sheetCode(n);
}

std::string endingOf(const std::string& name) {
  const std::size_t dot = name.rfind('.');
  const bool plain = dot != std::string::npos && dot > 0 && name.size() - dot <= 6 && name.size() - dot > 1;
  return plain ? "." + slugFor(name.substr(dot + 1), {}) : ".png";
}

std::string stemOf(const std::string& name) {
  const std::size_t dot = name.rfind('.');
  return dot == std::string::npos || dot == 0 ? name : name.substr(0, dot);
}

using Rect = std::tuple<int, int, int, int>;
Rect keyOf(const PixelRect& rect) { return {rect.x, rect.y, rect.w, rect.h}; }

}  // namespace

SheetAdded addSheet(const Quilt& quilt, Sheet sheet, const std::string& pictureName, IdSource& ids) {
  std::vector<std::string> files = quilt.taken().names<Sheet>();
  std::set<std::string> pictures;
  for (const auto& other : quilt.sheets()) {
    files.push_back(other->file);
    pictures.insert(other->picture);
  }
  sheet.id = freshId(quilt, ids);
  sheet.code = freeCode(quilt);
  if (sheet.turns == TurnsAllowed()) sheet.turns = quilt.facts().turns;
  if (sheet.name.empty()) sheet.name = stemOf(pictureName);
  if (sheet.name.empty()) sheet.name = "sheet";
  sheet.file = slugFor(sheet.name, files);
  if (sheet.isCollection()) {
    std::vector<std::string> slugs;
    for (CollectedPicture& one : sheet.collection) {
      slugs.push_back(slugFor(stemOf(one.file), slugs));
      one.file = slugs.back() + endingOf(one.file);
    }
    layOutCollection(sheet);
  } else {
    // A picture that lies in the quilt's folder already may keep its name.
    if (sheet.picture.empty()) sheet.picture = sheet.file + endingOf(pictureName);
    for (int n = 2; pictures.contains(sheet.picture); ++n) {
      sheet.picture = sheet.file + "-" + std::to_string(n) + endingOf(pictureName);
    }
  }
  const Id id = sheet.id;
  Quilt next = quilt.with(std::move(sheet));
  if (!next.sheet(id)) return {quilt, {}};
  return {std::move(next), id};
}

Quilt cutAnew(const Quilt& quilt, Id id, const SheetCut& cut, SheetMarks marks, const std::set<std::uint32_t>& inUse) {
  return changedSheet(quilt, id, [&](Sheet& sheet) {
    const Sheet old = sheet;
    sheet.cut = cut;
    sheet.marks = Shared(std::move(marks));
    TilePlaces places;
    const auto count = static_cast<std::uint32_t>(std::max(0, sheet.tileCount()));
    if (!inUse.empty()) {
      std::map<Rect, std::uint32_t> stood;
      for (const auto& [number, rect] : old.places->retired) stood[keyOf(rect)] = number;
      for (std::uint32_t cell = 0; cell < static_cast<std::uint32_t>(old.tileCount()); ++cell) {
        stood[keyOf(old.cellRect(cell))] = old.numberAt(cell);
      }
      std::uint32_t next = old.endOfNumbers();
      std::uint32_t reusable = 0;
      std::vector<std::uint32_t> numbers(count);
      std::set<std::uint32_t> kept;
      for (std::uint32_t cell = 0; cell < count; ++cell) {
        const auto before = stood.find(keyOf(sheet.cellRect(cell)));
        if (before != stood.end()) kept.insert(numbers[cell] = before->second);
      }
      for (std::uint32_t cell = 0; cell < count; ++cell) {
        if (stood.contains(keyOf(sheet.cellRect(cell)))) continue;
        if (next <= kLastTileNumber) {
          numbers[cell] = next++;
        } else {
          while (kept.contains(reusable) || inUse.contains(reusable)) ++reusable;
          numbers[cell] = reusable++;
        }
      }
      for (const std::uint32_t number : inUse) {
        const auto rect = old.place(number);
        if (rect && !kept.contains(number) && !old.places->twins.contains(number)) places.retired[number] = *rect;
      }
      const auto isKnown = [&](std::uint32_t number) { return kept.contains(number) || inUse.contains(number); };
      for (const auto& [number, twin] : old.places->twins) {
        if (isKnown(number) && isKnown(twin.of)) places.twins.emplace(number, twin);
      }
      for (const std::uint32_t number : old.places->dropped) {
        if (isKnown(number)) places.dropped.insert(number);
      }
      places.setNumbers(std::move(numbers));
    }
    sheet.places = places.empty() ? Shared<TilePlaces>() : Shared(std::move(places));
  });
}

SheetCut scaledCut(const SheetCut& cut, int from, int to) {
  SheetCut scaled = cut;
  for (int* part : {&scaled.cell.w, &scaled.cell.h, &scaled.border, &scaled.gap, &scaled.offset.x, &scaled.offset.y}) {
    if (*part * from % to != 0) return cut;
    *part = *part * from / to;
  }
  const auto fits = [](int side) { return side >= kSmallestCell && side <= kLargestCell; };
  return fits(scaled.cell.w) && fits(scaled.cell.h) ? scaled : cut;
}

Quilt withCare(const Quilt& quilt, Id id, const PixelCare& care, PixelSize size) {
  return changedSheet(quilt, id, [&](Sheet& sheet) {
    const int before = sheet.care.shrink * care.enlarge;
    const int after = care.shrink * sheet.care.enlarge;
    sheet.care = care;
    if (sheet.isCollection()) {
      for (CollectedPicture& one : sheet.collection) {
        one.size = {std::max(1, one.size.w * before / after), std::max(1, one.size.h * before / after)};
      }
      layOutCollection(sheet);
    } else {
      sheet.pictureSize = size;
      sheet.cut = scaledCut(sheet.cut, before, after);
    }
  });
}

std::string freeTileName(const Sheet& sheet, std::uint32_t number, const std::string& name) {
  const auto isTaken = [&](const std::string& one) {
    return std::any_of(sheet.tiles.begin(), sheet.tiles.end(),
                       [&](const auto& other) { return other.first != number && other.second.name == one; });
  };
  std::string free = name;
  for (int n = 2; !name.empty() && isTaken(free); ++n) free = name + " " + std::to_string(n);
  return free;
}

Quilt deleteSheet(const Quilt& quilt, Id sheet) { return quilt.without<Sheet>(sheet); }

Quilt renameSheet(const Quilt& quilt, Id sheet, const std::string& name) {
  if (name.empty()) return quilt;
  return changedSheet(quilt, sheet, [&](Sheet& s) { s.name = name; });
}

Quilt changedSheet(const Quilt& quilt, Id id, const std::function<void(Sheet&)>& change) {
  const Sheet* sheet = quilt.sheet(id);
  if (!sheet || id == chalk().id) return quilt;
  Sheet next = *sheet;
  change(next);
  return quilt.with(std::move(next));
}

Quilt changedTiles(const Quilt& quilt, Id sheet, const std::set<std::uint32_t>& numbers,
                   const std::function<void(TileFacts&)>& change) {
  return changedSheet(quilt, sheet, [&](Sheet& s) {
    for (const std::uint32_t number : numbers) {
      TileFacts& facts = s.tiles[number];
      change(facts);
      if (facts.empty()) s.tiles.erase(number);
    }
  });
}

std::vector<Id> tableOrder(const Quilt& quilt) {
  struct Lies {
    std::size_t place;
    std::size_t codeLength;
    std::string code;
    std::string pile;
    Id id;
  };
  const std::vector<Id>& said = quilt.facts().table;
  std::vector<Lies> all;
  for (const auto& sheet : quilt.sheets()) {
    const auto place = static_cast<std::size_t>(std::find(said.begin(), said.end(), sheet->id) - said.begin());
    all.push_back({place, sheet->code.size(), sheet->code, sheet->origin.pile, sheet->id});
  }
  std::sort(all.begin(), all.end(), [](const Lies& a, const Lies& b) {
    return std::tie(a.place, a.codeLength, a.code, a.id) < std::tie(b.place, b.codeLength, b.code, b.id);
  });
  // A pile lies where its first sheet does; sheets in none come last.
  std::map<std::string, std::size_t> firsts;
  for (std::size_t i = 0; i < all.size(); ++i) firsts.emplace(all[i].pile, all[i].pile.empty() ? all.size() : i);
  std::stable_sort(all.begin(), all.end(),
                   [&](const Lies& a, const Lies& b) { return firsts[a.pile] < firsts[b.pile]; });
  std::vector<Id> order;
  for (const Lies& one : all) order.push_back(one.id);
  return order;
}

std::vector<std::string> pilesOf(const Quilt& quilt) {
  std::vector<std::string> piles;
  for (const Id id : tableOrder(quilt)) {
    const std::string& pile = quilt.sheet(id)->origin.pile;
    if (piles.empty() || piles.back() != pile) piles.push_back(pile);
  }
  return piles;
}

Quilt movedOnTable(const Quilt& quilt, Id sheet, const std::string& pile, Id before) {
  if (!quilt.sheet(sheet) || sheet == chalk().id) return quilt;
  const Quilt piled = changedSheet(quilt, sheet, [&](Sheet& s) { s.origin.pile = pile; });
  std::vector<Id> order = tableOrder(quilt);
  std::erase(order, sheet);
  auto at = std::find(order.begin(), order.end(), before);
  if (before.empty() || at == order.end()) {
    // Behind the last of its pile.
    const auto last =
        std::find_if(order.rbegin(), order.rend(), [&](Id id) { return quilt.sheet(id)->origin.pile == pile; });
    at = last.base() == order.begin() && last == order.rend() ? order.end() : last.base();
  }
  order.insert(at, sheet);
  QuiltFacts facts = piled.facts();
  facts.table = std::move(order);
  return piled.with(std::move(facts));
}

}  // namespace uq

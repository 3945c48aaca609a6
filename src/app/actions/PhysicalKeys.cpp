#include "app/actions/PhysicalKeys.h"

namespace uq {

namespace {

struct Row {
  quint32 first;  // scan code of the row's first key
  const char* keys;
};
constexpr Row kRows[] = {{10, "1234567890"}, {24, "QWERTYUIOP"}, {38, "ASDFGHJKL"}, {52, "ZXCVBNM"}};

}  // namespace

Qt::Key physicalKey(const QKeyEvent& event) {
  for (const Row& row : kRows) {
    const auto length = static_cast<quint32>(qstrlen(row.keys));
    const quint32 code = event.nativeScanCode();
    if (code >= row.first && code < row.first + length) return static_cast<Qt::Key>(row.keys[code - row.first]);
  }
  return static_cast<Qt::Key>(event.key());
}

quint32 scanCodeOf(Qt::Key key) {
  for (const Row& row : kRows) {
    for (quint32 i = 0; row.keys[i]; ++i) {
      if (row.keys[i] == static_cast<int>(key)) return row.first + i;
    }
  }
  return 0;
}

}  // namespace uq

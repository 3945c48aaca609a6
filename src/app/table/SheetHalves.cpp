#include "app/table/SheetHalves.h"

#include <algorithm>

namespace uq {

namespace {

constexpr qint64 kMadeAtOnce = 1 << 19;  // pixels that are halved while one waits

QImage halved(const QImage& picture) {
  return picture.scaled(std::max(1, picture.width() / 2), std::max(1, picture.height() / 2), Qt::IgnoreAspectRatio,
                        Qt::SmoothTransformation);
}

}  // namespace

QImage SheetHalves::at(Id sheet, const QImage& picture, double zoom) {
  Chain& chain = chains_[sheet];
  if (chain.key != picture.cacheKey()) chain = {picture.cacheKey(), {}, false};
  QImage from = picture;
  double scale = 1;
  for (std::size_t i = 0; scale / 2 >= zoom && std::min(from.width(), from.height()) > 1; ++i) {
    if (i == chain.halves.size()) {
      if (qint64{from.width()} * from.height() > kMadeAtOnce) {
        if (!chain.making) {
          chain.making = true;
          pool_.start([this, sheet, from, key = chain.key] {
            const QImage half = halved(from);
            QMetaObject::invokeMethod(
                this,
                [this, sheet, half, key] {
                  Chain& to = chains_[sheet];
                  if (to.key != key) return;
                  to.making = false;
                  to.halves.push_back(half);
                  Q_EMIT came();
                },
                Qt::QueuedConnection);
          });
        }
        return from;
      }
      chain.halves.push_back(halved(from));
    }
    from = chain.halves[i];
    scale /= 2;
  }
  return from;
}

}  // namespace uq

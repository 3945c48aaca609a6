// SheetHalves: the pictures of sheets at a half, a quarter … of their size, for showing large ones small.
//
// Each is made when it is first wanted, large ones on another thread; until then the nearest larger one is given.
// Memory: a third of the pictures at most.
#pragma once

#include <QImage>
#include <QObject>
#include <QThreadPool>
#include <map>
#include <vector>

#include "core/base/Id.h"

namespace uq {

class SheetHalves : public QObject {
  Q_OBJECT

 public:
  explicit SheetHalves(QObject* parent = nullptr) : QObject(parent) { pool_.setMaxThreadCount(1); }
  ~SheetHalves() override { pool_.waitForDone(); }

  // The smallest picture of the sheet that is no smaller than `zoom` times it.
  QImage at(Id sheet, const QImage& picture, double zoom);

 Q_SIGNALS:
  void came();

 private:
  struct Chain {
    qint64 key = 0;  // of the picture
    std::vector<QImage> halves;
    bool making = false;
  };
  std::map<Id, Chain> chains_;
  QThreadPool pool_;
};

}  // namespace uq

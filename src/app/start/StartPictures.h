// StartPictures: draws the pictures of the start page beside the interface — what one can do, shown on the demo, the
// demo's maps, and quilts whose files are newer than the picture that was kept of them.
//
// What was drawn of the demo is remembered for the whole program. When this goes, what is being drawn is cancelled and
// waited for. Cost: reading the demo once, and each quilt that was changed since; on another thread.
#pragma once

#include <QImage>
#include <QObject>
#include <QThreadPool>

#include "app/workroom/KeptState.h"
#include "core/base/Progress.h"

namespace uq {

// Where the demo lies: beside the installed program, else in the sources it was built from.
QString demoFolder();

class StartPictures : public QObject {
  Q_OBJECT

 public:
  explicit StartPictures(QObject* parent);
  ~StartPictures() override;

  enum CanDo { bringIn, paint, layers };
  static constexpr int kCanDo = 3;

  // Draws what is not there yet; nothing while it is at that.
  void draw(const std::vector<RecentQuilt>& quilts);
  // Draws no more than what is just being drawn.
  void stop() { stop_->cancel(); }

 Q_SIGNALS:
  void canDo(int which, const QImage& picture);
  void demoMap(const QString& name, const QImage& picture);
  void quilt(const QString& folder, const QImage& picture);
  void drawn();  // all of them

 private:
  template <class Tell>
  void tell(Tell&& tell);

  QThreadPool worker_;
  std::shared_ptr<Progress> stop_ = std::make_shared<Progress>();
  bool draws_ = false;
};

}  // namespace uq

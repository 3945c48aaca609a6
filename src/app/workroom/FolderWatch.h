// FolderWatch: sees that another program changes the files of an open quilt (a pull, a script, a synced folder), reads them
// beside the interface, and has what changed taken in.
//
// What changed there and not here comes in by itself, as one step. Where both changed a part, the person is asked, once,
// through `asks`. Files that are half written, or broken, are looked at again for a while before somebody is told. Pictures
// are the SheetWork's. Where somebody else has the quilt open it waits for them to close it, and takes it over. Saving cancels a look that is under way. Threads: the interface's; reading is done on another.
#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QThreadPool>
#include <QTimer>
#include <memory>
#include <optional>

#include "core/edit/JoinQuilts.h"
#include "core/store/QuiltStore.h"
#include "raster/SheetPictures.h"

namespace uq {

class Session;

class FolderWatch : public QObject {
  Q_OBJECT

 public:
  explicit FolderWatch(Session& session);
  ~FolderWatch() override;

  // Watches the files that the quilt has now.
  void follow();
  // Looks now instead of when it is told.
  void lookSoon() { timer_.start(0); }
  // Cancels a look and waits for its end; it is made up for later.
  void stop();
  // The answers to what was asked, in that order; then it is taken in.
  void answer(const std::vector<Side>& sides);
  // The quilt as it is in the folder, while something is asked about it.
  const Quilt* there() const { return waiting_ ? &waiting_->quilt : nullptr; }

 Q_SIGNALS:
  void tookOver();                   // nobody else has the quilt open any more
  void told(const QString& what);    // what was taken in
  void failed(const Error& error);   // files that cannot be read
  void asks(const std::vector<uq::BothChanged>& what);

 private:
  struct Look {
    QuiltStore::Reread reread;
    Quilt quilt;  // as it is to be compared: pictures are those of here
  };
  void look();
  void tryToTakeOver();
  void came(Result<std::optional<Look>> look);
  void join(Look look);
  void tryAgain(const Error& why);

  Session& session_;
  QFileSystemWatcher watcher_;
  QTimer timer_;
  QTimer waitsForOthers_;
  QThreadPool worker_;
  std::shared_ptr<Progress> progress_;
  bool looks_ = false;
  bool again_ = false;
  int tries_ = 0;
  std::optional<Look> waiting_;
  std::vector<BothChanged> asked_;
};

}  // namespace uq

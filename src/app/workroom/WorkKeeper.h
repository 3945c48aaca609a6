// WorkKeeper: keeps what was done to an open quilt since it was saved, beside the interface, so that a crash or a power
// cut loses nothing (KeptWork).
//
// Soon after a step, never within a gesture; a keep that took long is followed by the next one so much later that keeping
// takes at most a twentieth of the time. When the quilt is saved, or left as somebody wanted it, nothing is kept.
// Only for who holds the quilt's lock: another window that looks on neither keeps nor drops anything.
// The interface hands values over and waits for nothing but, when a quilt is left, the end of what is being written.
#pragma once

#include <QDateTime>
#include <QObject>
#include <QThreadPool>
#include <QTimer>

#include "core/store/KeptWork.h"

namespace uq {

class Session;

class WorkKeeper : public QObject {
  Q_OBJECT

 public:
  explicit WorkKeeper(Session& session);
  ~WorkKeeper() override;

  // Where work on the quilt in a folder is kept.
  static std::string placeFor(const std::string& folder);
  // Until when it was kept: the time of today, or day and time.
  static QString untilText(const KeptFacts& facts);

  // Until when everything is kept; nothing where nothing is.
  std::optional<QDateTime> keptUntil() const { return until_; }
  // Keeps now what is not kept yet, without waiting for its time.
  void keepSoon();
  // What was kept stays as it is, aside, and nothing more is kept.
  void putAside();
  // The quilt was saved in another folder, which is its own from now on.
  void moveTo(const std::string& folder);

 Q_SIGNALS:
  void keeps();  // the desk may be kept along
  void kept();   // or not any more
  void failed(const Error& error);

 private:
  bool mayKeep();
  void follow();
  void keep();

  Session& session_;
  std::shared_ptr<KeptWork> work_;
  QThreadPool worker_;
  QTimer timer_;
  qint64 lastTook_ = 0;  // ms
  bool keeps_ = false;
  bool again_ = false;   // something was done meanwhile
  bool stopped_ = false;
  bool told_ = false;    // that it does not work
  std::unique_ptr<Disk::Lock> alone_;  // of a quilt that nobody can lock, as nothing may be written in its folder
  std::int64_t stepsSaved_ = 0;  // of the line; negative where some of those since did not come back
  std::optional<QDateTime> until_;
};

}  // namespace uq

// ThreadRound: the loose threads of the open quilt, kept up beside the interface.
//
// Some time after the last change a copy of the quilt is looked through on another thread, so neither a stroke nor any event
// waits for it; while a gesture goes on, or the quilt is still being read, it waits itself. What is told is of the quilt as
// it was then. Threads: the interface's; one look at a time.
#pragma once

#include <QObject>
#include <QTimer>
#include <memory>

#include "app/workroom/Session.h"
#include "core/check/Checks.h"

namespace uq {

class ThreadRound : public QObject {
  Q_OBJECT

 public:
  explicit ThreadRound(QObject* parent = nullptr);
  ~ThreadRound() override;

  void setSession(Session* session);  // nullptr: there is none
  // As it was looked at last.
  const Checked& checked() const { return checked_; }
  bool hasLooked() const { return hasLooked_; }
  // Whether it may be out of date: a look is due or under way.
  bool isDue() const { return timer_.isActive() || looks_; }

 Q_SIGNALS:
  void looked();

 private:
  void look();

  Session* session_ = nullptr;
  QTimer timer_;
  std::vector<Shared<Sheet>> pictured_;  // the sheets with whose pictures it looks
  std::shared_ptr<Checks> checks_;      // of this session; used by the one look under way
  std::shared_ptr<Progress> progress_;  // of that look
  bool looks_ = false;
  bool again_ = false;
  Checked checked_;
  bool hasLooked_ = false;
};

}  // namespace uq

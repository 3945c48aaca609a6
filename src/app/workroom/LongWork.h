// LongWork: one thing that takes long, done beside the interface, with progress and Cancel.
//
// The work gets values of its own and runs on another thread; its result comes back to the thread of the interface.
// One work at a time. When this goes, running work is cancelled and waited for, and its result is dropped.
#pragma once

#include <QObject>
#include <functional>
#include <memory>
#include <thread>

#include "core/base/Progress.h"

namespace uq {

class LongWork : public QObject {
  Q_OBJECT

 public:
  enum class Kind { open, save, bringIn, look };

  explicit LongWork(QObject* parent = nullptr) : QObject(parent) {}
  ~LongWork() override;

  bool isRunning() const { return progress_ != nullptr; }
  Kind kind() const { return kind_; }
  // What the user reads while it runs: "Saving Copperline…".
  const QString& title() const { return title_; }
  int perMille() const { return progress_ ? progress_->perMille() : 0; }
  // False from keepOn() on, until the work has ended.
  bool mayCancel() const { return mayCancel_; }
  // What runs has come so far that it has to end by itself.
  void keepOn();
  // Also asked by `done`, of the work that has just ended.
  bool isCancelled() const { return progress_ ? progress_->isCancelled() : wasCancelled_; }
  void cancel();  // where it may be

  // Calls `done` with what `work` returned. Nothing may be running.
  template <class T>
  void start(Kind kind, const QString& title, std::function<T(Progress&)> work, std::function<void(T)> done) {
    run(kind, title, [work = std::move(work), done = std::move(done)](Progress& progress) {
      auto result = std::make_shared<T>(work(progress));
      return [result, done] { done(std::move(*result)); };
    });
  }

 Q_SIGNALS:
  void began();
  void cancelled();  // what runs was asked to stop
  void ended();  // after `done`

 private:
  void run(Kind kind, const QString& title, std::function<std::function<void()>(Progress&)> work);

  std::shared_ptr<Progress> progress_;  // null: nothing runs
  bool wasCancelled_ = false;           // the last work
  bool mayCancel_ = true;
  Kind kind_ = Kind::open;
  QString title_;
  std::thread thread_;
};

}  // namespace uq

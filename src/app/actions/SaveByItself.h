// SaveByItself: says when a quilt is to be saved without being asked: each few minutes, or when the window is left; off
// unless somebody chose it, and kept in the settings.
//
// It saves nothing itself. Leaving means that no window of the program is the active one any more; a dialog or menu of
// ours is no leaving. Threads: the interface's.
#pragma once

#include <QObject>
#include <QTimer>

namespace uq {

enum class SavesWhen { never, eachMinutes, onLeaving };
SavesWhen savesWhen();
// Of the two ways one at a time; chosen again it is off.
void toggleSaves(SavesWhen when);

class SaveByItself : public QObject {
  Q_OBJECT

 public:
  static constexpr int kMinutes = 5;

  explicit SaveByItself(QObject* parent);

 Q_SIGNALS:
  void due();

 private:
  QTimer timer_;
};

}  // namespace uq

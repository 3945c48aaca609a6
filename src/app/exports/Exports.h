// Exports: targets going out beside the interface, again with one key; and the command that is run after saving.
//
// What goes out is the quilt as it is when it is asked for, whether it is saved or not; painting goes on meanwhile. What this machine
// alone knows of it, which is where targets outside the quilt go, the command, and which targets were the last, is kept here.
// Threads: the interface's.
#pragma once

#include <QObject>
#include <QProcess>
#include <QStringList>
#include <set>

#include "app/workroom/LongWork.h"
#include "core/store/ExportPlaces.h"
#include "raster/TargetExport.h"

namespace uq {

class Session;

class Exports : public QObject {
  Q_OBJECT

 public:
  Exports(LongWork* work, QObject* parent);
  ~Exports() override;

  void setSession(Session* session);  // nullptr: there is none
  const ExportPlaces& places() const { return places_; }
  // Where a target goes; empty: nobody has said so on this machine.
  QString folderOf(const Target& target) const;
  // A folder inside the quilt's is said in the target, as a step; any other is kept on this machine.
  void setFolder(Id target, const QString& folder);
  void setCommand(const QString& command);

  // Of a target, what the next export would take away, which is named by this: nothing goes before it was named.
  std::vector<ExportFolder::Gone> nameGone(const Target& target);

  // Writes targets, one after the other. Why it cannot, in words; empty where it began.
  QString write(const std::vector<Id>& targets);
  // Those that went out last, or else all.
  QString again();

  // What the line of the last command wrote, and whether it is still running.
  const QString& output() const { return output_; }
  bool runsCommand() const { return command_ != nullptr; }
  // Runs the command for maps that were saved; their names are its arguments.
  void afterSaving(const QStringList& maps);
  void stopCommand();

 Q_SIGNALS:
  void began();
  void said(const QString& line);  // what was written
  void failed(const uq::Error& error);
  void changed();                  // places, or what was written
  void outputChanged();
  void commandFailed(const QString& why);

 private:
  void keepPlaces();
  // Nobody listens to the command any more; it goes on.
  void leaveCommand();

  LongWork* work_;
  Session* session_ = nullptr;
  ExportPlaces places_;
  std::set<std::pair<Id, std::string>> named_;  // by target: owners of files that are to go
  QString output_;
  QProcess* command_ = nullptr;  // a child; nullptr: none runs
};

}  // namespace uq

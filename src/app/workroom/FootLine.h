// FootLine: what mouse and keys do right now (left), where the pointer is and how large the map is, and what of the work is
// saved or kept (right).
#pragma once

#include <QWidget>

#include "app/canvas/MapCanvas.h"

class QLabel;
class QToolButton;

namespace uq {

class FootLine : public QWidget {
  Q_OBJECT

 public:
  explicit FootLine(QWidget* parent = nullptr);

  void refresh(const Session* session, const MapCanvas& canvas, bool overTable);
  // Says what of the work is saved or kept. Compares the quilt with the saved one: not for each move of the pointer.
  void tellKept(const Session* session);
  // How many threads hang loose; nothing while that is not known.
  void tellThreads(std::optional<int> count);
  // Says something for the next few seconds in place of the hands, for what needs no answer.
  void say(const QString& text);

  // Without the count of loose threads, which goes where there is no room for it.
  QSize minimumSizeHint() const override;

 Q_SIGNALS:
  void sizePressed();
  void threadsPressed();

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  int leastWidth() const;

  QLabel* hands_;
  QLabel* place_;
  QToolButton* size_;
  QLabel* scale_;
  QToolButton* threads_;
  QLabel* kept_;
  QString said_;
  int sayings_ = 0;
};

}  // namespace uq

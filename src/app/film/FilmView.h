// FilmView: how the map that is worked on was made, played back over it at any speed, and written as a film.
//
// It shows copies of the quilt's past; nothing can be changed here, and the work goes on where it was. Space plays and stops, the arrow
// keys go step by step, Esc closes. States are gathered beside the interface. Threads: the interface's.
#pragma once

#include <QLabel>
#include <QSlider>
#include <QTimer>
#include <QToolButton>

#include "app/look/Card.h"
#include "app/look/NumberField.h"
#include "app/workroom/LongWork.h"
#include "raster/FilmWriter.h"

namespace uq {

class Session;

// The picture of one moment.
class FilmScreen : public QWidget {
  Q_OBJECT

 public:
  explicit FilmScreen(QWidget* parent);
  void show(MapPainter* painter, const FilmState* state, Id map, const PixelRect& part);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  MapPainter* painter_ = nullptr;
  const FilmState* state_ = nullptr;
  Id map_;
  PixelRect part_;
};

class FilmView : public Card {
  Q_OBJECT

 public:
  // Lies over all of `parent` above the tape.
  FilmView(LongWork* work, QWidget* parent);

  void setSession(Session* session);  // nullptr: there is none
  // Gathers the states of the map that is worked on, then plays them.
  void open();
  std::size_t states() const { return states_.size(); }
  int shown() const { return moment_->value(); }
  bool plays() const { return timer_.isActive(); }

 Q_SIGNALS:
  void closed();
  void said(const QString& text);
  void failed(const uq::Error& error);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QLayout* buildPlaying();
  QLayout* buildWriting();
  void began(std::vector<FilmState> states);
  void play(bool on);
  void goTo(int state);
  void write(bool asFrames);

  LongWork* work_;
  Session* session_ = nullptr;
  std::vector<FilmState> states_;
  Id map_;
  PixelRect part_;
  std::unique_ptr<MapPainter> painter_;
  QTimer timer_;
  QLabel* title_;
  FilmScreen* screen_;
  QToolButton* play_;
  QSlider* moment_;
  NumberField* speed_;
  QLabel* words_;
  NumberField* width_;
  NumberField* seconds_;
};

}  // namespace uq

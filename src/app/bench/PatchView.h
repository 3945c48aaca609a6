// PatchView: the test patch of an edging (core/edit/TestPatch.h) as it is seen on the bench, where one may paint on it and point
// at its spots.
//
// With a material to paint a drag lays it, with Ctrl takes it away; without, a press asks for the tiles that might lie at that
// spot. Shapes for which there is no picture are empty outlines, or show the stand-in that will lie there. The arrows move a
// frame from cell to cell; Enter presses there. The view fits the patch and never scrolls. Threads: the interface's.
#pragma once

#include <QImage>
#include <QWidget>
#include <memory>
#include <optional>

#include "app/canvas/MapView.h"
#include "app/workroom/Session.h"
#include "core/edit/TestPatch.h"

namespace uq {

class PatchView : public QWidget {
  Q_OBJECT

 public:
  explicit PatchView(QWidget* parent);

  // Shows the edging anew, with what was painted on it; nullptr: nothing.
  void show(Session* session, const Edging* edging, const GridShape& shape);
  const TestPatch* patch() const { return patch_.get(); }
  // What a drag lays; nothing: a press points.
  void setBrush(std::optional<MaterialIndex> material) { brush_ = material; }
  void setStandIns(bool shown);
  // Takes away what was painted on it.
  void clean();
  bool isPaintedOn() const { return !own_.empty(); }
  // The spot that is being put right, stitched round; nothing: none is.
  void setChosen(std::optional<CellPos> spot);
  QRectF cellRect(CellPos cell) const;

 Q_SIGNALS:
  void spotPressed(uq::CellPos cell);
  // The cell under the pointer or the frame; nothing where there is none.
  void pointedAt(std::optional<uq::CellPos> cell);
  void paintedOn();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void build();
  void fit();
  void draw();
  void point(std::optional<CellPos> cell);
  std::optional<CellPos> cellUnder(QPointF at) const;
  bool isMissing(CellPos cell) const;
  void paintStroke(const PatchStroke& stroke);

  Session* session_ = nullptr;
  std::optional<Edging> edging_;
  GridShape shape_;
  std::unique_ptr<TestPatch> patch_;
  std::vector<PatchStroke> own_;
  std::optional<MaterialIndex> brush_;
  std::optional<PatchStroke> stroke_;  // under the button
  std::optional<CellPos> pointed_;
  std::optional<CellPos> frame_;  // of the keys
  std::optional<CellPos> chosen_;
  bool standIns_ = false;
  MapView view_;
  QImage picture_;
  std::vector<CellPos> missing_;
};

}  // namespace uq

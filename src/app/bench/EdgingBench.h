// EdgingBench: where one sees at once what was understood of tiles that join, and puts it right where it is wrong.
//
// It shows the test patch of one edging, its materials, and how many shapes are there and missing. A press on a spot fans out the
// tiles that might lie there; the one that is taken is held fast, and everything else is guessed anew with it. Every press is one
// step of the quilt, so the edging is there from the beginning, and Undo takes back what was told. No map is touched.
// Esc drops the fan, then closes the bench. Threads: the interface's.
#pragma once

#include <QButtonGroup>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>

#include "app/bench/CandidateFan.h"
#include "app/bench/HemRows.h"
#include "app/bench/PatchView.h"
#include "app/look/Card.h"

class QMenu;

namespace uq {

class EdgingBench : public Card {
  Q_OBJECT

 public:
  // Lies over all of `parent` above the tape.
  explicit EdgingBench(QWidget* parent);

  void setSession(Session* session);  // nullptr: there is none
  void open(Id edging);
  Id edging() const { return isVisible() ? edging_ : Id(); }
  PatchView* patch() const { return patch_; }

 Q_SIGNALS:
  void closed();
  void said(const QString& text);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  const Edging* now() const;
  GridShape shape() const;
  QWidget* buildDecides();
  QLayout* buildFoot();
  void refresh();
  void refreshMaterials(const Edging& edging);
  void refreshCoverage(const Edging& edging);
  void showBrush();
  void sayOf(std::optional<CellPos> cell);
  void askAt(CellPos cell);
  void tell(CellPos cell, const TileId& tile, Turn turn);
  void change(const QString& name, Edging edging);
  void guessAnew(const QString& name, const Edging& edging);
  // Makes what is missing of parts of tiles that are there.
  void cutTogether();
  void merge(MaterialIndex keep, MaterialIndex gone, const QString& name);
  void rename(MaterialIndex material, const QString& name);
  void takeMaterial(MaterialIndex material, bool on);
  void makeMaterials(int count);
  void fillMenu(QMenu* menu, MaterialIndex material);

  Session* session_ = nullptr;
  Id edging_;
  std::optional<MaterialIndex> brush_;
  QLineEdit* name_;
  QButtonGroup* decides_;
  PatchView* patch_;
  CandidateFan* fan_;
  QLabel* words_;
  QWidget* materials_;
  HemRows* hems_;
  QLabel* coverage_;
  QToolButton* turn_;
  QToolButton* parts_;
  QToolButton* standIns_;
  QToolButton* clean_;
  QToolButton* remove_;
};

}  // namespace uq

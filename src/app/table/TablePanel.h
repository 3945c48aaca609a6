// TablePanel: the Table with what finds things on it — the search field, "used here", "fits here" — and what was held
// last.
#pragma once

#include <QTimer>
#include <QWidget>

#include "app/table/FoundTiles.h"
#include "app/table/MaterialStrip.h"
#include "app/table/Shelf.h"
#include "app/table/TableView.h"

class QLabel;
class QLineEdit;
class QStackedWidget;
class QToolButton;

namespace uq {

class MapCanvas;
class Panes;

class TablePanel : public QWidget {
  Q_OBJECT

 public:
  TablePanel(Actions* actions, MapCanvas* canvas, QWidget* parent = nullptr);

  void setSession(Session* session);
  TableView* table() const { return table_; }
  // The shelf above the sheets.
  Panes* panes() const { return panes_; }
  Shelf* shelf() const { return shelf_; }
  FoundTiles* found() const { return found_; }

  // The keys go to the search field.
  void search();
  void showUsed(bool on);
  void showFitting(bool on);
  bool showsUsed() const { return view_ == View::used; }
  bool showsFitting() const { return view_ == View::fitting; }
  // Shows the sheets again.
  void showSheets();
  // Goes to the next place of a tile on the map, from the one shown last on.
  void showNextPlace(TileRef tile);

 Q_SIGNALS:
  void pointedAt(const QString& tile);
  void handsFree();
  void benchWanted(uq::Id edging);
  void said(const QString& text);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  enum class View { sheets, search, used, fitting };
  void setView(View view);
  void refresh();
  void light(std::optional<TileRef> tile);
  std::vector<Id> sheetsInOrder() const;

  Actions* actions_;
  MapCanvas* canvas_;
  Session* session_ = nullptr;
  View view_ = View::sheets;
  QLineEdit* field_;
  QLabel* pointed_;
  QToolButton* used_;
  QToolButton* fits_;
  Shelf* shelf_;
  MaterialStrip* materials_;
  Panes* panes_;
  TableView* table_;
  FoundTiles* found_;
  QStackedWidget* pages_;
  QTimer soon_;
  bool pointedTo_ = false;  // the pointer alone gave the field the keys
  std::optional<TileRef> travelled_;
  std::size_t place_ = 0;
};

}  // namespace uq

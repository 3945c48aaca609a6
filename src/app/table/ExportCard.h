// ExportCard: a sheet as the picture that it will be written as, live, with its columns, gap and order.
#pragma once

#include "app/look/Card.h"
#include "raster/SheetExport.h"

class QComboBox;
class QLabel;
class QToolButton;

namespace uq {

class NumberField;
class Session;

class ExportCard : public Card {
  Q_OBJECT

 public:
  explicit ExportCard(QWidget* parent);

  void setSession(Session* session);
  void open(Id sheet);
  // What is shown and would be written; an Error where it cannot be.
  const Result<QImage>& result() const { return result_; }

 Q_SIGNALS:
  void failed(const uq::Error& error);
  void said(const QString& text);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void refresh();
  void write();

  Session* session_ = nullptr;
  Id sheet_;
  Result<QImage> result_;
  QLabel* title_;
  QLabel* sample_;
  QLabel* text_;
  NumberField* columns_;
  NumberField* gap_;
  NumberField* border_;
  QComboBox* order_;
  QToolButton* write_;
};

}  // namespace uq

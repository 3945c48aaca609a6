// ColourField: a colour in a sentence. A press opens a sheet of colours with a field for any other, as "#1b2030".
#pragma once

#include <QToolButton>
#include <optional>

#include "core/document/Layer.h"

class QLineEdit;

namespace uq {

class ColourField : public QToolButton {
  Q_OBJECT

 public:
  // `none` is what having no colour is called: "no tint".
  ColourField(const QString& name, const QString& none, QWidget* parent);

  std::optional<Colour> value() const { return value_; }
  // Shows a colour; tells nobody.
  void setValue(std::optional<Colour> value);

 Q_SIGNALS:
  void valueChanged(std::optional<uq::Colour> value);  // by the user

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  void open();
  // With a picker of any colour.
  void pick();
  void take(std::optional<Colour> value);

  QString name_;
  QString none_;
  std::optional<Colour> value_;
};

}  // namespace uq

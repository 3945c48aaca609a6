// NumberField: a field for a number that takes arithmetic ("23*16", "+5"), the wheel and the arrow keys, and is dragged
// sideways by a press that begins outside of it: a pixel is a hundredth, of whole numbers two are one.
//
// What is typed counts on Enter or when the field is left; what is no expression, or out of range, gives the number
// from before back.
#pragma once

#include <QLineEdit>

namespace uq {

class NumberField : public QLineEdit {
  Q_OBJECT

 public:
  // `name` is what the field is called for people who cannot see it. Whole numbers only, unless `decimals` is more
  // than 0.
  NumberField(const QString& name, double least, double most, int decimals, QWidget* parent);

  double value() const { return value_; }
  int wholeValue() const { return static_cast<int>(value_); }
  // Shows a number; tells nobody.
  void setValue(double value);
  // The number that the present text stands for; value() where it stands for none.
  double typed() const;

 Q_SIGNALS:
  void valueChanged(double value);  // by the user
  // Around the changes of one drag, if anybody listens: without, the number counts when it is let go.
  void dragBegan();
  void dragEnded();

 protected:
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 protected:
  void focusInEvent(QFocusEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;

 private:
  QString spelt(double value) const;
  void take(double value);

  double value_ = 0;
  double least_;
  double most_;
  int decimals_;
  bool cameByPress_ = false;  // the press that is made now brought the keys here
  bool mayDrag_ = false;
  bool drags_ = false;
  QPoint pressedAt_;
  double pressedValue_ = 0;
};

}  // namespace uq

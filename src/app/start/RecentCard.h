// RecentCard: one quilt on the start page — its picture, its name, where it lies and when it was open.
#pragma once

#include <QAbstractButton>

#include "app/workroom/KeptState.h"

namespace uq {

class RecentCard : public QAbstractButton {
  Q_OBJECT

 public:
  RecentCard(RecentQuilt quilt, QWidget* parent);

  const RecentQuilt& quilt() const { return quilt_; }
  QSize sizeHint() const override { return {288, 252}; }

 Q_SIGNALS:
  void forgetWanted(const QString& folder);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  RecentQuilt quilt_;
  QImage picture_;
};

}  // namespace uq

// RecentCard: one quilt on the start page — its picture, its name, where it lies and when it was open, or what of it is not saved.
#pragma once

#include "app/start/PictureCard.h"
#include "app/workroom/KeptState.h"

namespace uq {

class RecentCard : public PictureCard {
  Q_OBJECT

 public:
  RecentCard(RecentQuilt quilt, QWidget* parent);

  const RecentQuilt& quilt() const { return quilt_; }

 Q_SIGNALS:
  void forgetWanted(const QString& folder);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  RecentQuilt quilt_;
};

}  // namespace uq

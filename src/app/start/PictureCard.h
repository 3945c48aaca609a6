// PictureCard: a picture that is pressed, with a name and lines about it below — a quilt, a map, what one can do.
//
// Its size is said once. The picture may come later; it fills the frame, cut at its sides.
#pragma once

#include <QAbstractButton>
#include <QImage>
#include <QStringList>

namespace uq {

class PictureCard : public QAbstractButton {
  Q_OBJECT

 public:
  // `picture`: the size of its frame in logical pixels. `lines` below the name, the first elided in its middle where
  // it is a path.
  PictureCard(const QString& name, const QStringList& lines, QSize picture, QWidget* parent);

  void setPicture(const QImage& picture);
  bool hasPicture() const { return !picture_.isNull(); }
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  QString name_;
  QStringList lines_;
  QSize frame_;
  QImage picture_;
};

}  // namespace uq

#include "app/table/OddSizesPart.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "raster/PictureFile.h"
#include "raster/SheetPictures.h"

namespace uq {

namespace {

constexpr int kShown = 44;  // logical pixels of a chip's picture

// A picture on a ground that shows where it is see-through, as large as fits.
QPixmap onGround(const QImage& picture, double ratio) {
  QPixmap shown(QSize(kShown, kShown) * ratio);
  shown.setDevicePixelRatio(ratio);
  const Theme& theme = Theme::current();
  shown.fill(Qt::transparent);
  const QSize fitted = picture.size().scaled(kShown, kShown, Qt::KeepAspectRatio);
  const QRect place(QPoint((kShown - fitted.width()) / 2, (kShown - fitted.height()) / 2), fitted);
  QPainter painter(&shown);
  painter.fillRect(place, theme.surround.lighter(140));
  painter.fillRect(place, QBrush(theme.edge, Qt::Dense6Pattern));
  painter.drawImage(place, picture);
  painter.setPen(theme.madder);
  painter.drawRect(place.adjusted(0, 0, -1, -1));
  return shown;
}

}  // namespace

OddSizesPart::OddSizesPart(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("odd-sizes"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(kGap / 2);
  words_ = makeSoftLabel(this);
  words_->setObjectName(QStringLiteral("odd-sizes-text"));
  chips_ = new QHBoxLayout;
  chips_->setSpacing(kGap / 2);
  layout->addWidget(words_);
  layout->addLayout(chips_);
}

void OddSizesPart::refresh(const Sheet& sheet, const std::vector<PixelSize>& sizes) {
  const PixelSize usual = usualSize(sizes);
  const auto odd = std::find_if(sizes.begin(), sizes.end(), [&](PixelSize size) { return size != usual; });
  setVisible(odd != sizes.end() && sizes.size() == sheet.collection.size());
  if (isHidden()) return shown_.reset();
  if (shown_ && *shown_ == sheet) return;
  shown_ = sheet;
  const auto differ =
      std::count_if(sizes.begin(), sizes.end(), [&](PixelSize size) { return size != usual; });
  const bool noneAlike = differ + 1 == static_cast<std::ptrdiff_t>(sizes.size()) && sizes.size() > 2;
  words_->setText(noneAlike
                      ? tr("No two of these %1 pictures have one size; the first that is shown has %2 px.")
                            .arg(sizes.size())
                            .arg(sizeText(*odd))
                      : tr("%1 of %2 pictures differ from the others, which have %3 px; the first of them has %4 px.")
                            .arg(differ)
                            .arg(sizes.size())
                            .arg(sizeText(usual), sizeText(*odd)));
  while (QLayoutItem* item = chips_->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  const auto index = static_cast<std::size_t>(odd - sizes.begin());
  const CollectedPicture& first = sheet.collection[index];
  auto decoded = first.source.isBlank() ? Result<QImage>(QImage())
                                        : decodePicture(first.source.read(), first.file, sheet.care.enlarge);
  const QImage picture = decoded ? caredFor(std::move(*decoded), sheet.care) : QImage();
  const auto offer = [&](OddSizes way, const char* object, auto&& text) {
    const auto fitted = fittedSizes(sizes, way);
    if (!fitted) return;
    auto* chip = makePlainButton(object, this);
    chip->setCheckable(true);
    chip->setChecked(sheet.care.odd == way);
    chip->setText(text((*fitted)[index]));
    chip->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    chip->setIconSize({kShown, kShown});
    if (!picture.isNull()) chip->setIcon(onGround(fittedTo(picture, (*fitted)[index], way), devicePixelRatioF()));
    connect(chip, &QToolButton::clicked, this, [this, way] { Q_EMIT chosen(way); });
    chips_->addWidget(chip);
  };
  offer(OddSizes::asTheyAre, "odd-as-they-are", [](PixelSize) { return tr("as it is"); });
  offer(OddSizes::padded, "odd-padded", [](PixelSize size) { return tr("pad to %1").arg(sizeText(size)); });
  offer(OddSizes::cropped, "odd-cropped", [](PixelSize size) { return tr("cut to %1").arg(sizeText(size)); });
  offer(OddSizes::scaled, "odd-scaled", [](PixelSize size) { return tr("scale to %1").arg(sizeText(size)); });
  chips_->addStretch();
}

}  // namespace uq

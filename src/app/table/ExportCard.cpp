#include "app/table/ExportCard.h"

#include <QComboBox>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "app/workroom/SheetWork.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {
constexpr QSize kSample(300, 220);  // logical pixels
}

ExportCard::ExportCard(QWidget* parent) : Card(parent) {
  setObjectName(QStringLiteral("export-card"));
  setAccessibleName(tr("Export the sheet as a picture"));
  makeCard(this);
  title_ = makeTitle({}, this);
  QLayout* head = makeCardHead(this, title_, "export-close");
  sample_ = new QLabel(this);
  sample_->setFixedSize(kSample);
  sample_->setAccessibleName(tr("The picture as it will be written"));
  text_ = makeSoftLabel(this);
  text_->setObjectName(QStringLiteral("export-text"));
  const auto number = [this](const char* object, const QString& name, int least, int most) {
    auto* field = new NumberField(name, least, most, 0, this);
    field->setObjectName(QLatin1String(object));
    connect(field, &NumberField::valueChanged, this, &ExportCard::refresh);
    return field;
  };
  columns_ = number("export-columns", tr("Tiles in a row"), 1, kMostExportColumns);
  gap_ = number("export-gap", tr("Pixels between tiles"), 0, 64);
  border_ = number("export-border", tr("Pixels around all tiles"), 0, 64);
  order_ = new QComboBox(this);
  order_->setObjectName(QStringLiteral("export-order"));
  order_->setAccessibleName(tr("The order of the tiles"));
  order_->addItems({tr("as they are cut"), tr("by number"), tr("by name"), tr("by use, most first"), tr("by colour")});
  connect(order_, &QComboBox::activated, this, &ExportCard::refresh);
  write_ = new QToolButton(this);
  write_->setObjectName(QStringLiteral("export-write"));
  write_->setProperty("raised", true);
  setInkedIcon(write_, QStringLiteral("export"));
  write_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  write_->setText(tr("Write the picture…"));
  connect(write_, &QToolButton::clicked, this, &ExportCard::write);
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap + 2, kGap, kGap + 2, kGap);
  layout->setSpacing(kGap);
  layout->addLayout(head);
  layout->addWidget(sample_);
  layout->addWidget(text_);
  layout->addLayout(new SentenceLayout({columns_, word(tr("tiles in a row,")), gap_, word(tr("px between,")), border_,
                                        word(tr("px around them,")), order_, word(tr("."))}));
  layout->addWidget(write_, 0, Qt::AlignLeft);
  hide();
}

void ExportCard::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  hide();
  session_ = session;
  if (!session_) return;
  connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
    const bool byUse = static_cast<ExportOrder>(order_->currentIndex()) == ExportOrder::byUse;
    if (change.has<Sheet>(sheet_) || (byUse && change.any<Map>())) refresh();
  });
}

void ExportCard::open(Id sheet) {
  const Sheet* shown = session_ ? session_->quilt().sheet(sheet) : nullptr;
  if (!shown || sheet == chalk().id) return;
  if (sheet != sheet_) {
    columns_->setValue(shown->isCollection() ? 8 : std::clamp(shown->columns(), 1, kMostExportColumns));
    gap_->setValue(0);
    border_->setValue(0);
  }
  sheet_ = sheet;
  show();
  refresh();
  const int width = kSample.width() + 2 * (kGap + 2) + 2;
  setGeometry(kGap, kGap, width, layout()->heightForWidth(width));
  raise();
}

void ExportCard::refresh() {
  if (!isVisible() || !session_) return;
  const Sheet* sheet = session_->quilt().sheet(sheet_);
  if (!sheet) return hide();
  const QImage picture = session_->painter().pictures().picture(*sheet);
  const auto order = static_cast<ExportOrder>(order_->currentIndex());
  const SheetExportPlan plan{columns_->wholeValue(), gap_->wholeValue(), border_->wholeValue(), order};
  const auto tiles = exportedTiles(*sheet, picture, order, session_->sheets().usesEverywhere(),
                                   session_->quilt().slots().find(sheet_).value_or(0));
  result_ = exportedSheet(*sheet, picture, plan, tiles);
  title_->setText(tr("Export %1").arg(QString::fromStdString(sheet->name)));
  write_->setEnabled(result_.has_value());
  const double ratio = devicePixelRatioF();
  QPixmap sample((QSizeF(kSample) * ratio).toSize());
  sample.setDevicePixelRatio(ratio);
  sample.fill(Theme::current().surround.lighter(150));
  if (!result_) {
    text_->setText(QString::fromStdString(result_.error().text()));
  } else {
    text_->setText(tr("%n tile(s) in a picture of %1 × %2 px.", nullptr, static_cast<int>(tiles.size()))
                       .arg(result_->width())
                       .arg(result_->height()));
    QPainter painter(&sample);
    const QSizeF room(kSample);
    const double fit = std::min({room.width() / result_->width(), room.height() / result_->height(), 2.0});
    const QSizeF size(result_->width() * fit, result_->height() * fit);
    painter.setRenderHint(QPainter::SmoothPixmapTransform, fit < 1);
    painter.drawImage(QRectF(QPointF((room.width() - size.width()) / 2, (room.height() - size.height()) / 2), size),
                      *result_);
  }
  sample_->setPixmap(sample);
}

void ExportCard::write() {
  const Sheet* sheet = session_->quilt().sheet(sheet_);
  if (!sheet || !result_) return;
  QFileDialog dialog(this, tr("Write the picture of %1").arg(QString::fromStdString(sheet->name)));
  dialog.setObjectName(QStringLiteral("export-dialog"));
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setAcceptMode(QFileDialog::AcceptSave);
  dialog.setDefaultSuffix(QStringLiteral("png"));
  dialog.setNameFilter(tr("PNG pictures (*.png)"));
  dialog.setDirectory(QFileInfo(QString::fromStdString(session_->folder())).absolutePath());
  dialog.selectFile(QString::fromStdString(sheet->file) + QStringLiteral("-tiles.png"));
  if (dialog.exec() != QDialog::Accepted) return;
  const QString path = dialog.selectedFiles().value(0);
  const auto written = writePng(*realDisk(), *result_, path.toStdString());
  if (!written) {
    Q_EMIT failed(written.error());
  } else {
    Q_EMIT said(tr("Written: %1.").arg(QDir::toNativeSeparators(path)));
    hide();
  }
}

void ExportCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) {
    hide();
  } else {
    QFrame::keyPressEvent(event);
  }
}

}  // namespace uq

#include "app/workroom/Clipboard.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QMimeData>

#include "core/store/ClipText.h"
#include "core/store/HandText.h"

namespace uq {

namespace {

// Tells what was copied last from what any other program put on the clipboard, without fetching it.
constexpr const char* kCopyMark = "application/x-urban-quilt-copy";

struct Copied {
  InHand hand;
  Id quilt;
  QByteArray mark;
};

Copied& last() {
  static Copied copied;
  return copied;
}

bool isOwnCopy(const QMimeData* data) {
  return data && !last().mark.isEmpty() && data->data(QLatin1String(kCopyMark)) == last().mark;
}

bool holdsCells() {
  static std::optional<bool> known;
  static const bool follows = [] {
    QObject::connect(QGuiApplication::clipboard(), &QClipboard::dataChanged, qApp, [] { known.reset(); });
    return true;
  }();
  Q_UNUSED(follows);
  if (!known) {
    const QMimeData* data = QGuiApplication::clipboard()->mimeData();
    known = data && (data->hasFormat(QLatin1String(kCopyMark)) ||
                     (data->hasText() && isClipText(data->text().left(64).toStdString())));
  }
  return *known;
}

}  // namespace

void putOnClipboard(InHand copied, const Quilt& quilt, const QImage& picture) {
  static IdSource marks = IdSource::fromSystem();
  std::size_t parts = 0;
  copied.forEachCell([&parts](Cell) { ++parts; });
  last() = {std::move(copied), quilt.facts().id, QByteArray::fromStdString(marks.next().text())};
  auto* data = new QMimeData;
  data->setData(QLatin1String(kCopyMark), last().mark);
  if (parts <= kMostSpeltParts) data->setText(QString::fromStdString(clipText(last().hand, quilt)));
  if (!picture.isNull()) data->setImageData(picture);
  QGuiApplication::clipboard()->setMimeData(data);
}

Result<InHand> takenFromClipboard(const Quilt& quilt) {
  const QMimeData* data = QGuiApplication::clipboard()->mimeData();
  const bool sameQuilt = last().quilt == quilt.facts().id;
  if (sameQuilt && isOwnCopy(data)) return last().hand;
  const std::string text = data && data->hasText() ? data->text().toStdString() : std::string();
  if (isClipText(text)) return readClip(text, quilt);
  if (sameQuilt) return last().hand;
  return fail(Error::Cause::tooLarge, "More than 180,000 cells can only be pasted into the quilt that they are from");
}

QString whyNothingCopied(const Quilt& quilt) {
  if (!last().hand.empty() && last().quilt == quilt.facts().id) return {};
  return holdsCells() ? QString() : QCoreApplication::translate("Clipboard", "Nothing was copied yet");
}

}  // namespace uq

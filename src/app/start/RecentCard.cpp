#include "app/start/RecentCard.h"

#include <QDir>
#include <QKeyEvent>
#include <QLocale>

namespace uq {

namespace {

constexpr QSize kQuiltPicture(272, 180);  // logical pixels

QString shortened(const QString& folder) {
  const QString home = QDir::homePath();
  return folder.startsWith(home + QLatin1Char('/')) ? QLatin1Char('~') + folder.mid(home.size()) : folder;
}

}  // namespace

RecentCard::RecentCard(RecentQuilt quilt, QWidget* parent)
    : PictureCard(quilt.name,
                  {shortened(quilt.folder), QLocale().toString(quilt.when.date(), QLocale::LongFormat)}, kQuiltPicture,
                  parent),
      quilt_(std::move(quilt)) {
  setPicture(QImage(quilt_.picture));
  setAccessibleName(tr("Open %1, in %2").arg(quilt_.name, shortened(quilt_.folder)));
  setToolTip(tr("Open %1\n%2\nDel takes it off this list").arg(quilt_.name, quilt_.folder));
}

void RecentCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Delete) {
    Q_EMIT forgetWanted(quilt_.folder);
  } else {
    PictureCard::keyPressEvent(event);
  }
}

}  // namespace uq

#include "app/start/RecentCard.h"

#include <QDir>
#include <QKeyEvent>
#include <QLocale>

#include "app/workroom/WorkKeeper.h"

namespace uq {

namespace {

constexpr QSize kQuiltPicture(272, 180);  // logical pixels

QString shortened(const QString& folder) {
  const QString home = QDir::homePath();
  return folder.startsWith(home + QLatin1Char('/')) ? QLatin1Char('~') + folder.mid(home.size()) : folder;
}

// When it was open; or what of it was kept and not saved, which comes back when it is opened.
QString lastOf(const RecentQuilt& quilt) {
  const auto kept = keptAt(*realDisk(), WorkKeeper::placeFor(quilt.folder.toStdString()));
  if (!kept || !*kept) return QLocale().toString(quilt.when.date(), QLocale::LongFormat);
  const KeptFacts& facts = (*kept)->facts;
  return RecentCard::tr("%n step(s) not saved, kept until %1", nullptr, static_cast<int>(facts.steps))
      .arg(WorkKeeper::untilText(facts));
}

}  // namespace

RecentCard::RecentCard(RecentQuilt quilt, QWidget* parent)
    : PictureCard(quilt.name, {shortened(quilt.folder), lastOf(quilt)}, kQuiltPicture, parent),
      quilt_(std::move(quilt)) {
  setPicture(QImage(quilt_.picture));
  setAccessibleName(tr("Open %1, in %2").arg(quilt_.name, shortened(quilt_.folder)));
  setAccessibleDescription(lastOf(quilt_));
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

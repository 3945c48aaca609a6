#include "app/actions/SaveByItself.h"

#include <QGuiApplication>
#include <QSettings>

namespace uq {

namespace {

QString settingKey() { return QStringLiteral("saves-by-itself"); }

}  // namespace

SavesWhen savesWhen() {
  const QString name = QSettings().value(settingKey()).toString();
  return name == QLatin1String("minutes")   ? SavesWhen::eachMinutes
         : name == QLatin1String("leaving") ? SavesWhen::onLeaving
                                            : SavesWhen::never;
}

void toggleSaves(SavesWhen when) {
  if (when == SavesWhen::never || when == savesWhen()) {
    QSettings().remove(settingKey());
  } else {
    QSettings().setValue(settingKey(), when == SavesWhen::eachMinutes ? QStringLiteral("minutes") : QStringLiteral("leaving"));
  }
}

SaveByItself::SaveByItself(QObject* parent) : QObject(parent) {
  timer_.setInterval(kMinutes * 60 * 1000);
  connect(&timer_, &QTimer::timeout, this, [this] {
    if (savesWhen() == SavesWhen::eachMinutes) Q_EMIT due();
  });
  timer_.start();
  connect(qGuiApp, &QGuiApplication::applicationStateChanged, this, [this](Qt::ApplicationState state) {
    if (state != Qt::ApplicationActive && savesWhen() == SavesWhen::onLeaving) Q_EMIT due();
  });
}

}  // namespace uq

#include "app/look/ThemeChoice.h"

#include <QDBusConnection>
#include <QDBusMessage>
#include <QDBusPendingCall>
#include <QDBusPendingReply>
#include <QDBusVariant>
#include <QSettings>
#include <optional>
#include <utility>

#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr const char* kService = "org.freedesktop.portal.Desktop";
constexpr const char* kPath = "/org/freedesktop/portal/desktop";
constexpr const char* kInterface = "org.freedesktop.portal.Settings";
constexpr const char* kNamespace = "org.freedesktop.appearance";
constexpr const char* kKey = "color-scheme";
constexpr uint kPrefersDark = 1;

std::optional<ThemeChoice> kept;  // once it was asked for

QString settingKey() { return QStringLiteral("look/theme"); }

// Listens to the desktop, and knows what it asked for last.
class Desktop : public QObject {
  Q_OBJECT

 public:
  Desktop() : dark_(QApplication::palette().color(QPalette::Window).lightness() < 128) {
    QDBusConnection bus = QDBusConnection::sessionBus();
    if (!bus.isConnected()) return;
    bus.connect(QLatin1String(kService), QLatin1String(kPath), QLatin1String(kInterface),
                QStringLiteral("SettingChanged"), this, SLOT(settingChanged(QString, QString, QDBusVariant)));
    QDBusMessage ask = QDBusMessage::createMethodCall(QLatin1String(kService), QLatin1String(kPath),
                                                      QLatin1String(kInterface), QStringLiteral("Read"));
    ask << QString::fromLatin1(kNamespace) << QString::fromLatin1(kKey);
    auto* watcher = new QDBusPendingCallWatcher(bus.asyncCall(ask), this);
    connect(watcher, &QDBusPendingCallWatcher::finished, this, [this, watcher] {
      watcher->deleteLater();
      const QDBusPendingReply<QDBusVariant> reply = *watcher;
      if (!reply.isError()) take(reply.value().variant());
    });
  }

  bool isDark() const { return dark_; }

 private Q_SLOTS:
  void settingChanged(const QString& space, const QString& key, const QDBusVariant& value) {
    if (space == QLatin1String(kNamespace) && key == QLatin1String(kKey)) take(value.variant());
  }

 private:
  void take(QVariant value) {
    // The portal wraps the value once more than it says.
    if (value.canConvert<QDBusVariant>()) value = value.value<QDBusVariant>().variant();
    const bool dark = value.toUInt() == kPrefersDark;
    if (std::exchange(dark_, dark) != dark) chooseTheme(themeChoice());
  }

  bool dark_;
};

Desktop& desktop() {
  static auto* desktop = new Desktop;  // lives as long as the program
  return *desktop;
}

}  // namespace

ThemeChoice themeChoice() {
  if (!kept) {
    const QString name = QSettings().value(settingKey()).toString();
    kept = name == QLatin1String("linen")    ? ThemeChoice::linen
           : name == QLatin1String("indigo") ? ThemeChoice::indigo
                                             : ThemeChoice::asDesktop;
  }
  return *kept;
}

void chooseTheme(ThemeChoice choice) {
  kept = choice;
  if (choice == ThemeChoice::asDesktop) {
    QSettings().remove(settingKey());
  } else {
    QSettings().setValue(settingKey(),
                         choice == ThemeChoice::linen ? QStringLiteral("linen") : QStringLiteral("indigo"));
  }
  startTheme();
}

void startTheme() {
  // Asked before the first theme changes the palette.
  const bool desktopIsDark = desktop().isDark();
  const ThemeChoice choice = themeChoice();
  const bool dark = choice == ThemeChoice::indigo || (choice == ThemeChoice::asDesktop && desktopIsDark);
  const Theme& wanted = dark ? Theme::indigo() : Theme::linen();
  static bool started = false;
  if (std::exchange(started, true) && &wanted == &Theme::current()) return;
  applyTheme(*qApp, wanted);
}

}  // namespace uq

#include "ThemeChoice.moc"

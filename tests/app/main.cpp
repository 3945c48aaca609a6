#include <QApplication>
#include <QSettings>
#include <QTemporaryDir>

#include "app/look/Plurals.h"
#include "app/look/Theme.h"

int main(int argc, char** argv) {
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  testing::InitGoogleTest(&argc, argv);
  QApplication application(argc, argv);
  // No test reads or writes what whoever runs it has kept: settings, remembered quilts, quilts.
  const QTemporaryDir settings;
  qputenv("XDG_STATE_HOME", settings.filePath(QStringLiteral("state")).toUtf8());
  qputenv("HOME", settings.filePath(QStringLiteral("home")).toUtf8());
  QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
  QApplication::setOrganizationName(QStringLiteral("urban-quilt"));
  QApplication::setApplicationName(QStringLiteral("urban-quilt"));
  uq::usePlurals(application);
  uq::applyTheme(application);
  return RUN_ALL_TESTS();
}

#include <QApplication>
#include <QSettings>
#include <QTemporaryDir>

#include "app/look/Theme.h"

int main(int argc, char** argv) {
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  testing::InitGoogleTest(&argc, argv);
  QApplication application(argc, argv);
  // No test reads or writes the settings of whoever runs it.
  const QTemporaryDir settings;
  QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
  QApplication::setOrganizationName(QStringLiteral("urban-quilt"));
  QApplication::setApplicationName(QStringLiteral("urban-quilt"));
  uq::applyTheme(application);
  return RUN_ALL_TESTS();
}

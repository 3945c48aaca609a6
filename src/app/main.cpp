// urban-quilt: the workroom.
#include <QApplication>
#include <QCommandLineParser>

#include "app/look/Theme.h"
#include "app/workroom/Workroom.h"

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  QApplication::setApplicationName(QStringLiteral("urban-quilt"));
  QApplication::setApplicationDisplayName(QString());
  QApplication::setApplicationVersion(QStringLiteral(UQ_VERSION));
  QApplication::setDesktopFileName(QStringLiteral("urban-quilt"));
  uq::applyTheme(application);

  QCommandLineParser parser;
  parser.setApplicationDescription(QApplication::translate("main", "Paint layered tile maps."));
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument(QStringLiteral("quilt"),
                               QApplication::translate("main", "The folder of a quilt to open."),
                               QStringLiteral("[quilt]"));
  parser.process(application);

  uq::Workroom workroom;
  workroom.resize(workroom.sizeHint());
  workroom.show();
  if (!parser.positionalArguments().isEmpty()) workroom.openQuilt(parser.positionalArguments().front());
  return QApplication::exec();
}

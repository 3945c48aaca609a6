// urban-quilt: the workroom.
#include <QApplication>
#include <QCommandLineParser>

#include "app/look/ThemeChoice.h"
#include "app/workroom/Workroom.h"

namespace {

// Ends the program when a widget has been painted for the first time, for measuring how long that takes.
class FirstFrameWatch : public QObject {
 public:
  explicit FirstFrameWatch(QWidget* widget) : QObject(widget) { widget->installEventFilter(this); }
  bool eventFilter(QObject*, QEvent* event) override {
    if (event->type() == QEvent::Paint) {
      QMetaObject::invokeMethod(qApp, &QCoreApplication::quit, Qt::QueuedConnection);
    }
    return false;
  }
};

}  // namespace

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  QApplication::setOrganizationName(QStringLiteral("urban-quilt"));
  QApplication::setApplicationName(QStringLiteral("urban-quilt"));
  QApplication::setApplicationDisplayName(QString());
  QApplication::setApplicationVersion(QStringLiteral(UQ_VERSION));
  QApplication::setDesktopFileName(QStringLiteral("urban-quilt"));
  uq::startTheme();

  QCommandLineParser parser;
  parser.setApplicationDescription(QApplication::translate("main", "Paint layered tile maps."));
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument(QStringLiteral("quilt"),
                               QApplication::translate("main", "The folder of a quilt to open."),
                               QStringLiteral("[quilt]"));
  const QCommandLineOption firstFrame(
      QStringLiteral("first-frame"),
      QApplication::translate("main", "Quit when the map has been painted once, for measuring."));
  parser.addOption(firstFrame);
  parser.process(application);

  uq::Workroom workroom;
  workroom.resize(workroom.sizeHint());
  if (!parser.positionalArguments().isEmpty()) workroom.openQuilt(parser.positionalArguments().front());
  if (parser.isSet(firstFrame)) new FirstFrameWatch(workroom.canvas());
  workroom.show();
  return QApplication::exec();
}

// urban-quilt: the workroom.
#include <QApplication>
#include <QCommandLineParser>

#include "app/look/Plurals.h"
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
  QCoreApplication::setOrganizationName(QStringLiteral("urban-quilt"));
  QCoreApplication::setApplicationName(QStringLiteral("urban-quilt"));
  QCoreApplication::setApplicationVersion(QStringLiteral(UQ_VERSION));
  QCommandLineParser parser;
  parser.setApplicationDescription(QCoreApplication::translate("main", "Paint layered tile maps."));
  const auto help = parser.addHelpOption();
  const auto version = parser.addVersionOption();
  parser.addPositionalArgument(QStringLiteral("quilt"),
                               QCoreApplication::translate("main", "The folder of a quilt to open."),
                               QStringLiteral("[quilt]"));
  const QCommandLineOption firstFrame(
      QStringLiteral("first-frame"),
      QCoreApplication::translate("main", "Quit when the window has been painted once, for measuring."));
  parser.addOption(firstFrame);
  // Questions are answered without a display, too.
  QStringList arguments;
  for (int i = 0; i < argc; ++i) arguments << QString::fromLocal8Bit(argv[i]);
  if (parser.parse(arguments) && (parser.isSet(help) || parser.isSet(version))) {
    const QCoreApplication plain(argc, argv);
    parser.process(plain);
  }

  QApplication application(argc, argv);
  QApplication::setApplicationDisplayName(QString());
  QApplication::setDesktopFileName(QStringLiteral("org.urbanquilt.UrbanQuilt"));
  uq::usePlurals(application);
  uq::startTheme();
  parser.process(application);

  uq::Workroom workroom;
  workroom.resize(workroom.sizeHint());
  if (!parser.positionalArguments().isEmpty()) workroom.openQuilt(parser.positionalArguments().front());
  if (parser.isSet(firstFrame)) {
    const bool opens = !parser.positionalArguments().isEmpty();
    new FirstFrameWatch(opens ? static_cast<QWidget*>(workroom.canvas()) : workroom.startPage());
  }
  workroom.show();
  return QApplication::exec();
}

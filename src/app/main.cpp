// urban-quilt: the workroom.
#include <QApplication>
#include <QCommandLineParser>
#include <QSessionManager>
#include <QSocketNotifier>

#include <fcntl.h>
#include <unistd.h>

#include <csignal>

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

// SIGTERM, SIGINT and SIGHUP close the windows like a hand does, with all that is asked then. A handler may do next to
// nothing, so it only writes to a pipe (signal-safety(7)).
int signalPipe[2] = {-1, -1};

void tellSignal(int) {
  const char one = 1;
  [[maybe_unused]] const auto written = ::write(signalPipe[1], &one, 1);
}

void closeOnSignals(QApplication& application) {
  if (::pipe2(signalPipe, O_CLOEXEC | O_NONBLOCK) != 0) return;
  auto* notifier = new QSocketNotifier(signalPipe[0], QSocketNotifier::Read, &application);
  QObject::connect(notifier, &QSocketNotifier::activated, &application, [] {
    char taken[16];
    [[maybe_unused]] const auto read = ::read(signalPipe[0], taken, sizeof taken);
    // Not within the notifier, under which a question could not be drawn.
    QMetaObject::invokeMethod(qApp, [] { QApplication::closeAllWindows(); }, Qt::QueuedConnection);
  });
  for (const int signal : {SIGTERM, SIGINT, SIGHUP}) std::signal(signal, tellSignal);
  // The desktop's session ends: windows are closed as by hand, and one that stays open holds it up.
  QObject::connect(&application, &QGuiApplication::commitDataRequest, &application, [](QSessionManager& manager) {
    if (!manager.allowsInteraction()) return;
    uq::Workroom::closeAll() ? manager.release() : manager.cancel();
  });
}

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
                               QCoreApplication::translate("main", "The folder of a quilt to open, or a packed quilt."),
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
  closeOnSignals(application);
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

#include "app/look/Plurals.h"

#include <QTranslator>

namespace uq {

namespace {

class Plurals : public QTranslator {
 public:
  using QTranslator::QTranslator;
  bool isEmpty() const override { return false; }
  QString translate(const char*, const char* text, const char*, int count) const override {
    QString counted = QString::fromUtf8(text);
    if (count < 0 || !counted.contains(QLatin1String("(s)"))) return {};
    return counted.replace(QLatin1String("(s)"), count == 1 ? QLatin1String("") : QLatin1String("s"));
  }
};

}  // namespace

void usePlurals(QCoreApplication& application) { QCoreApplication::installTranslator(new Plurals(&application)); }

}  // namespace uq

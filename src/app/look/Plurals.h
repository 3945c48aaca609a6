// Plurals: counted words in English. Texts with a count are written like "%n tile(s)"; without a translation, which
// would bring its language's own plurals, one gives "1 tile" and more "2 tiles".
#pragma once

#include <QCoreApplication>

namespace uq {

void usePlurals(QCoreApplication& application);

}  // namespace uq

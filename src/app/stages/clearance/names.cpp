#include "app/stages/clearance/names.h"

#include "app/desk/desk.h"

#include <QCoreApplication>

namespace mavrel::app {

QString gap_name(const Desk& desk, assess::Mover mover, const assess::Near& near) {
  const QString who = QCoreApplication::translate("clearance", assess::name_of(mover)),
                what = desk.words_of(near.told());
  if (what.startsWith(who + " ")) return what; // named so by whoever taped it
  return QCoreApplication::translate("clearance", "%1 to %2").arg(who, what);
}

} // namespace mavrel::app

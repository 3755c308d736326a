#include "app/desk/clock.h"

#include <QDateTime>

namespace mavrel::app {

work::Moment clock_now() {
  if (const QByteArray told = qgetenv("MAVREL_NOW"); !told.isEmpty())
    if (const auto moment = work::parse_moment(told.toStdString())) return *moment;
  const auto now = work::parse_moment(QDateTime::currentDateTime().toString("yyyy-MM-dd HH:mm").toStdString());
  return now.value_or(work::Moment{});
}

} // namespace mavrel::app

#include "app/kit/stage_page.h"

#include "app/theme/look.h"

#include <QVBoxLayout>

namespace mavrel::app {

QVBoxLayout* StagePage::stage_column() {
  const int u = desk_.look().unit();
  QVBoxLayout* const made = column();
  layout()->setContentsMargins(2 * u, u, 0, u);
  made->setSpacing(u);
  return made;
}

} // namespace mavrel::app

#include "app/kit/stage_page.h"

#include "app/kit/field.h"

namespace mavrel::app {

bool StagePage::go_to(const QString& path) {
  for (Field* field : findChildren<Field*>())
    if (field->path() == path && field->isEnabled()) {
      field->edit()->setFocus(Qt::OtherFocusReason);
      return true;
    }
  return false;
}

} // namespace mavrel::app

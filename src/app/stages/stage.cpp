#include "app/stages/stage.h"

#include "app/widgets/field.h"

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

#include "app/stages/swing/panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"

namespace mavrel::app {

bool SwingPanel::go_to(const QString& path) {
  for (Field* field : findChildren<Field*>())
    if (desk_.resolve(field->path()) == path) {
      field->edit()->setFocus(Qt::OtherFocusReason);
      return true;
    }
  return false;
}

} // namespace mavrel::app

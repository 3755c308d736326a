#include "app/kit/end_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/page.h"
#include "build/names.h"

#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

bool EndPanel::go_to(const QString& path) {
  for (Field* field : findChildren<Field*>())
    if (desk_.resolve(field->path()) == path) {
      field->edit()->setFocus(Qt::OtherFocusReason);
      return true;
    }
  return false;
}

Field* EndPanel::field(const QString& path, const QString& caption) {
  const auto bound = [this, path] { return QString(path).replace('%', build::key_of(desk_.end())); };
  auto* made = new Field(desk_, bound(), caption, this);
  connect(&desk_, &Desk::looked_at, made, [made, bound] { made->bind(bound()); });
  return made;
}

QPushButton* EndPanel::button(QBoxLayout* row, const QString& text, const QString& tip, std::function<void()> act) {
  auto* made = new QPushButton(text, this);
  made->setToolTip(tip);
  connect(made, &QPushButton::clicked, this, std::move(act));
  row->addWidget(made);
  return made;
}

QVBoxLayout* EndPanel::scrolled_page() {
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  auto* page = new QWidget(this);
  whole->addWidget(scrolled(page, this));
  auto* layout = new QVBoxLayout(page);
  layout->setContentsMargins(0, 0, desk_.look().unit() / 2, 0);
  layout->setSpacing(desk_.look().unit() / 2);
  return layout;
}

} // namespace mavrel::app

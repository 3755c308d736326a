#include "app/kit/chips.h"

#include "app/desk/desk.h"
#include "app/kit/plain.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QToolButton>

namespace mavrel::app {

Chips::Chips(Desk& desk, QString accessible_name, int most_width, QWidget* parent)
    : QWidget(parent), desk_(desk), most_width_(most_width), group_(new QButtonGroup(this)),
      row_(new QHBoxLayout(this)) {
  setAccessibleName(std::move(accessible_name));
  row_->setContentsMargins(0, 0, 0, 0);
  row_->setSpacing(0);
  connect(group_, &QButtonGroup::idClicked, this, &Chips::chosen);
}

void Chips::show_choices(const QStringList& names, int current) {
  if (names == names_ && current == current_ && look_ == desk_.look()) return;
  names_ = names;
  current_ = current;
  look_ = desk_.look();
  // Buttons are kept where they are: the one with the keyboard's focus must not vanish under it.
  auto buttons = group_->buttons();
  while (buttons.size() > names.size())
    delete buttons.takeLast();
  while (buttons.size() < names.size()) {
    auto* button = new QToolButton(this);
    button->setCheckable(true);
    button->setFocusPolicy(Qt::StrongFocus);
    group_->addButton(button, static_cast<int>(buttons.size()));
    row_->addWidget(button);
    buttons.append(button);
  }
  for (int i = 0; i < names.size(); ++i) {
    auto* button = buttons[i];
    button->setFont(desk_.look().font(TextSize::small, i == current));
    button->setText(
        on_button(button->fontMetrics().elidedText(names[i], Qt::ElideRight, desk_.look().px(most_width_))));
    button->setToolTip(names[i]);
    button->setAccessibleName(accessibleName() + ": " + names[i]);
    button->setChecked(i == current);
  }
}

} // namespace mavrel::app

#include "app/kit/chips.h"

#include "app/desk/desk.h"
#include "app/kit/plain.h"

#include <QButtonGroup>
#include <QLayout>
#include <QToolButton>

#include <algorithm>
#include <memory>
#include <vector>

namespace mavrel::app {

namespace {

/// Side by side, and in further lines where one is too short for all.
class Lines : public QLayout {
public:
  explicit Lines(QWidget* parent) : QLayout(parent) { setContentsMargins(0, 0, 0, 0); }
  void addItem(QLayoutItem* item) override { items_.emplace_back(item); }
  [[nodiscard]] int count() const override { return static_cast<int>(items_.size()); }
  [[nodiscard]] QLayoutItem* itemAt(int i) const override {
    return i >= 0 && i < count() ? items_[static_cast<std::size_t>(i)].get() : nullptr;
  }
  QLayoutItem* takeAt(int i) override {
    if (i < 0 || i >= count()) return nullptr;
    QLayoutItem* const taken = items_[static_cast<std::size_t>(i)].release();
    items_.erase(items_.begin() + i);
    return taken;
  }
  [[nodiscard]] QSize sizeHint() const override {
    QSize all;
    for (const auto& item : items_)
      all = {all.width() + item->sizeHint().width(), std::max(all.height(), item->sizeHint().height())};
    // A hint is kept from before a button was dressed for the first time: it may be a little wider now.
    return {all.width() + count(), all.height()};
  }
  [[nodiscard]] QSize minimumSize() const override {
    QSize all;
    for (const auto& item : items_)
      all = all.expandedTo(item->sizeHint());
    return all;
  }
  [[nodiscard]] bool hasHeightForWidth() const override { return true; }
  [[nodiscard]] Qt::Orientations expandingDirections() const override { return {}; }
  [[nodiscard]] int heightForWidth(int width) const override { return place({0, 0, width, 0}, false); }
  void setGeometry(const QRect& rect) override {
    QLayout::setGeometry(rect);
    place(rect, true);
  }

private:
  /// @returns the height it takes
  int place(const QRect& rect, bool moves) const {
    int x = 0, y = 0, line = 0;
    for (const auto& item : items_) {
      const QSize size = item->sizeHint();
      if (x > 0 && x + size.width() > rect.width()) x = 0, y += line, line = 0;
      if (moves) item->setGeometry({rect.topLeft() + QPoint(x, y), size});
      x += size.width();
      line = std::max(line, size.height());
    }
    return y + line;
  }

  std::vector<std::unique_ptr<QLayoutItem>> items_;
};

} // namespace

Chips::Chips(Desk& desk, QString accessible_name, int most_width, QWidget* parent)
    : QWidget(parent), desk_(desk), most_width_(most_width), group_(new QButtonGroup(this)), row_(new Lines(this)) {
  setAccessibleName(std::move(accessible_name));
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

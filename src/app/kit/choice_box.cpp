#include "app/kit/choice_box.h"

#include "app/desk/desk.h"
#include "app/kit/long_text.h"

#include <QStyleOptionComboBox>
#include <QWheelEvent>

#include <algorithm>

namespace mavrel::app {

ChoiceBox::ChoiceBox(Desk& desk, QString path, const QString& accessible_name, std::function<std::vector<Row>()> rows,
                     QWidget* parent)
    : QComboBox(parent), desk_(desk), path_(std::move(path)), rows_(std::move(rows)) {
  setAccessibleName(accessible_name);
  setObjectName("choice:" + path_);
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  setMinimumContentsLength(8);
  setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  connect(this, &QComboBox::activated, this, [this](int) {
    if (const auto wrong = desk_.type(path_, currentData().toString())) {
      desk_.refuse(*wrong);
      refresh();
    }
  });
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      stale_ = true;
      if (isVisible()) refresh();
    });
}

void ChoiceBox::refresh() {
  stale_ = false;
  const auto rows = rows_();
  // What stands there may be shown another way (a choice) or the same (a text).
  const auto view = build::look_up(desk_.build(), desk_.resolve(path_).toStdString(), {});
  const QString now = view ? QString::fromStdString(view->editable) : QString();
  const QString shown = view ? QString::fromStdString(view->shown) : QString();
  const QSignalBlocker quiet(this);
  clear();
  int at = -1;
  for (const Row& row : rows) {
    if (row.typed == now || (!now.isEmpty() && (row.shown == now || row.shown == shown)) ||
        (row.typed.isEmpty() && now.isEmpty()))
      at = count();
    addItem(row.shown, row.typed);
  }
  if (at < 0 && !now.isEmpty()) { // named, and not to be had
    at = count();
    addItem(tr("%1 (not on the shelf)").arg(now), now);
  }
  setCurrentIndex(at);
  if (toolTip() != currentText()) {
    setToolTip(currentText());
    updateGeometry();
  }
}

QSize ChoiceBox::minimumSizeHint() const {
  QSize least = QComboBox::minimumSizeHint();
  QStyleOptionComboBox option;
  initStyleOption(&option);
  const QString text = currentText().size() <= never_cut ? currentText() : currentText().left(never_cut);
  const QSize wanted = style()->sizeFromContents(
      QStyle::CT_ComboBox, &option, {fontMetrics().horizontalAdvance(text) + 6, fontMetrics().height()}, this);
  return {std::max(least.width(), wanted.width()), least.height()};
}

void ChoiceBox::bind(const QString& path) {
  if (path_ == path) return;
  path_ = path;
  setObjectName("choice:" + path_);
  stale_ = true;
  if (isVisible()) refresh();
}

void ChoiceBox::showEvent(QShowEvent* event) {
  QComboBox::showEvent(event);
  if (stale_) refresh();
}

void ChoiceBox::wheelEvent(QWheelEvent* event) {
  event->ignore();
}

} // namespace mavrel::app

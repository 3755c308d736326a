#include "app/kit/row_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"

#include <QApplication>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <optional>

namespace mavrel::app {

namespace {

/// What can have the keyboard's focus on a page of rows, in the order it was made, each by a name that it keeps when
/// the rows are made anew.
struct Stop {
  QWidget* widget;
  QString name;
  bool takes_away; // a remover: no focus goes to it unasked
};

std::vector<Stop> stops_on(const Desk& desk, const QWidget* page) {
  std::vector<Stop> out;
  for (QWidget* widget : page->findChildren<QWidget*>()) {
    if (auto* field = qobject_cast<Field*>(widget)) {
      out.push_back({field, desk.resolve(field->path()), false});
    } else if ((widget->focusPolicy() & Qt::TabFocus) && !qobject_cast<Field*>(widget->parentWidget()) &&
               !(widget->parentWidget() && qobject_cast<QComboBox*>(widget->parentWidget()))) {
      const QString name = !widget->objectName().isEmpty() ? widget->objectName() : widget->accessibleName();
      out.push_back({widget, name, widget->property("takes_away").toBool()});
    }
  }
  return out;
}

/// Where the focus was on the rows that go: which stop, and what they all were.
struct Held {
  std::vector<Stop> stops; // their widgets may be gone
  std::size_t place = 0;
};

std::optional<Held> held_on(const Desk& desk, const QWidget* page) {
  const QWidget* now = QApplication::focusWidget();
  if (!page || !now || !page->isAncestorOf(now)) return std::nullopt;
  Held out{stops_on(desk, page), 0};
  for (std::size_t i = 0; i < out.stops.size(); ++i)
    if (out.stops[i].widget == now || out.stops[i].widget->isAncestorOf(now)) {
      out.place = i;
      return out;
    }
  return std::nullopt;
}

/// The row that was made, or what stood where the focus was; never what takes a row away.
void hold_again(const Desk& desk, const QWidget* page, const Held& held) {
  const std::vector<Stop> now = stops_on(desk, page);
  if (now.empty()) return;
  const auto is_in = [](const std::vector<Stop>& all, const QString& name) {
    return std::any_of(all.begin(), all.end(), [&](const Stop& s) { return s.name == name; });
  };
  const Stop& was = held.stops[held.place];
  const Stop* to = nullptr;
  if (now.size() > held.stops.size())
    for (const Stop& s : now)
      if (!to && qobject_cast<Field*>(s.widget) && !is_in(held.stops, s.name)) to = &s;
  for (const Stop& s : now)
    if (!to && !was.takes_away && !was.name.isEmpty() && s.name == was.name) to = &s;
  if (!to) {
    std::size_t at = std::min(held.place, now.size() - 1);
    while (at > 0 && (now[at].takes_away || !qobject_cast<Field*>(now[at].widget)))
      --at;
    to = &now[at];
  }
  if (!to->takes_away) to->widget->setFocus(Qt::OtherFocusReason);
}

} // namespace

RowPanel::RowPanel(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk), grid_(nullptr) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
}

void RowPanel::start() {
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &RowPanel::refresh);
  refresh();
}

void RowPanel::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (stale_) refresh();
}

void RowPanel::refresh() {
  stale_ = !isVisible() && !built_.isEmpty();
  if (stale_) return;
  const QString now =
      shape() + QString::number(desk_.look().scale) + QString::number(static_cast<int>(desk_.look().theme));
  if (now != built_) {
    built_ = now;
    // The old page may hold the very button whose click led here: it goes once that click is over.
    const auto held = held_on(desk_, page_);
    if (page_) {
      // What is looked for by name from here on is on the new page.
      for (QWidget* widget : page_->findChildren<QWidget*>())
        widget->setObjectName({});
      page_->hide();
      page_->deleteLater();
    }
    page_ = new QWidget(this);
    grid_ = new QGridLayout(page_);
    grid_->setContentsMargins(0, 0, 0, 0);
    grid_->setHorizontalSpacing(desk_.look().unit());
    grid_->setVerticalSpacing(desk_.look().px(3));
    removers_.clear();
    build_rows();
    layout()->addWidget(page_);
    page_->show();
    if (held) hold_again(desk_, page_, *held);
  }
  refresh_rows();
  for (const auto& [button, what] : removers_) {
    button->setToolTip(tr("Remove %1").arg(what()));
    button->setAccessibleName(button->toolTip());
  }
}

std::size_t RowPanel::shown_of(const QString& list, std::size_t count) {
  Rows& rows = rows_[list];
  if (rows.count > 0 && count == rows.count + 1) rows.most = std::max(rows.most, count);
  rows.count = count;
  return std::min(count, rows.most);
}

int RowPanel::add_more(const QString& list, std::size_t count, int row) {
  constexpr std::size_t more_at_once = 16;
  const std::size_t most = rows_[list].most;
  if (count <= most) return row;
  auto* button = new QToolButton(page_);
  button->setText(tr("%1 more …").arg(count - most));
  button->setObjectName("more_" + list);
  connect(button, &QToolButton::clicked, this, [this, list] {
    rows_[list].most += more_at_once;
    built_ += '+'; // made anew
    refresh();
  });
  grid_->addWidget(button, row, 0);
  return row + 1;
}

QLabel* RowPanel::quiet_label(const QString& text) {
  auto* label = new PlainLabel(text, page_);
  set_small(label, desk_.look());
  label->setProperty("quiet", true);
  return label;
}

QLabel* RowPanel::heading(const QString& text, int row, int column) {
  QLabel* label = quiet_label(text);
  grid_->addWidget(label, row, column);
  return label;
}

QToolButton* RowPanel::remover(std::function<QString()> what) {
  auto* button = new QToolButton(page_);
  button->setProperty("plain", true);
  button->setProperty("takes_away", true);
  button->setText("×");
  removers_.emplace_back(button, std::move(what));
  return button;
}

} // namespace mavrel::app

#include "app/kit/page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/height_plot.h"
#include "app/kit/list_table.h"
#include "app/kit/page_stack.h"
#include "app/kit/plain.h"
#include "app/theme/look.h"
#include "file/text_file.h"

#include <QFileDialog>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>

#include <utility>

namespace mavrel::app {

Page::Page(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  connect(&desk_, &Desk::restyled, this, &Page::redress);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &Page::refresh);
  connect(&desk_.answers(), &Answers::changed, this, &Page::refresh);
}

// ---- filling

void Page::refresh() {
  stale_ = !isVisible();
  if (stale_) {
    for (AskedAnything* asked : kept_)
      if (asked->is_running()) asked->keep();
    return;
  }
  // What a page fills may speak up while it is filled: that is heard once it is whole.
  if (std::exchange(filling_, true)) {
    again_ = true;
    return;
  }
  for (AskedAnything* asked : wanted_)
    asked->want();
  for (AskedAnything* asked : kept_)
    asked->keep();
  fill();
  filling_ = false;
  if (std::exchange(again_, false)) QMetaObject::invokeMethod(this, &Page::refresh, Qt::QueuedConnection);
}

void Page::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (stale_) refresh();
}

// ---- where things lie

QVBoxLayout* Page::make_column(bool beside) {
  if (column_) return column_;
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  column_ = new QVBoxLayout;
  column_->setContentsMargins(0, 0, beside ? u : 0, 0);
  column_->setSpacing(u / 2);
  whole->addLayout(column_, 1);
  beside_ = new QWidget(this);
  if (beside) whole->addWidget(beside_);
  return column_;
}

QVBoxLayout* Page::column() {
  return make_column(true);
}

QVBoxLayout* Page::wide_column() {
  return make_column(false);
}

QVBoxLayout* Page::beside_posts(int stretch) {
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  auto* left = new QVBoxLayout;
  left->setSpacing(0);
  foot->addLayout(left, 1);
  foot->addWidget(beside_);
  column_->addLayout(foot, stretch);
  return left;
}

void Page::set_plot(HeightPlot* plot) {
  plot_ = plot;
  connect(plot_, &HeightPlot::band_moved, this, &Page::band_moved);
}

void Page::reserve_right(int px) {
  if (beside_) beside_->setFixedWidth(px);
}

std::optional<std::pair<int, int>> Page::band() const {
  if (!plot_) return std::nullopt;
  const auto [top, bottom] = plot_->band();
  const int y = plot_->mapTo(this, QPoint(0, 0)).y();
  return std::pair{y + top, y + bottom};
}

bool Page::takes_arrows() const {
  return std::any_of(arrows_.begin(), arrows_.end(), [](const QWidget* view) { return view->hasFocus(); });
}

bool Page::go_to(const QString& path) {
  return go_to_field(desk_, this, path);
}

QHBoxLayout* Page::row(QBoxLayout* into, int stretch) {
  auto* made = new QHBoxLayout;
  made->setSpacing(desk_.look().unit());
  into->addLayout(made, stretch);
  return made;
}

// ---- what it is made of

void Page::dress(QWidget* widget, TextSize size, bool bold) {
  dressed_.push_back({widget, size, bold});
  widget->setFont(desk_.look().font(size, bold));
}

void Page::redress() {
  std::erase_if(dressed_, [](const Dressed& one) { return one.widget.isNull(); });
  for (const Dressed& one : dressed_)
    one.widget->setFont(desk_.look().font(one.size, one.bold));
}

QLabel* Page::words(const char* name, TextSize size, bool bold) {
  auto* made = new PlainLabel(this);
  if (name) made->setObjectName(name);
  made->setWordWrap(true);
  dress(made, size, bold);
  return made;
}

QLabel* Page::small_words(const char* name) {
  return words(name, TextSize::small);
}

QLabel* Page::cut_words(const char* name) {
  auto* made = new CutLabel(this);
  made->setObjectName(name);
  made->setProperty("quiet", true);
  dress(made, TextSize::small);
  return made;
}

QLabel* Page::rich_words(const char* name) {
  QLabel* made = small_words(name);
  made->setTextFormat(Qt::RichText);
  made->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  return made;
}

QLabel* Page::quiet(const QString& text) {
  QLabel* made = small_words();
  made->setText(text);
  made->setProperty("quiet", true);
  return made;
}

QLabel* Page::heading(const QString& text, bool large) {
  QLabel* made = words(nullptr, large ? TextSize::large : TextSize::normal, true);
  made->setWordWrap(false);
  made->setText(text);
  return made;
}

QPushButton* Page::button(QBoxLayout* row, const QString& text, const char* name, std::function<void()> act) {
  auto* made = new QPushButton(text, this);
  made->setObjectName(name);
  if (act) connect(made, &QPushButton::clicked, this, std::move(act));
  if (row) row->addWidget(made);
  return made;
}

ListTable* Page::table(const char* name, const QString& spoken, const QStringList& heads) {
  auto* made = new ListTable(name, spoken, heads, this);
  dress(made, TextSize::small);
  connect(made, &ListTable::wants_file, this,
          [this, spoken](const QString& text) { save_csv(spoken, text.toStdString()); });
  return made;
}

void Page::fields(QBoxLayout* row, const QString& base, std::initializer_list<std::pair<const char*, QString>> keys,
                  int stretch) {
  for (const auto& [key, caption] : keys)
    row->addWidget(new Field(desk_, base + key, caption, this), stretch);
}

// ---- files

bool Page::save_text(const QString& title, const QString& kinds, const std::string& text) {
  const QString to = QFileDialog::getSaveFileName(this, title, {}, kinds);
  if (to.isEmpty() || desk_.refuses_to_write(to.toStdString())) return false;
  const auto done = write_atomically(to.toStdString(), text);
  desk_.tell(done ? tr("Written: %1").arg(to) : desk_.words_of(done.error()));
  return done.has_value();
}

bool Page::save_csv(const QString& title, const std::string& text) {
  return save_text(title, tr("CSV (*.csv)"), text);
}

// ----

bool go_to_field(const Desk& desk, const QWidget* page, const QString& path) {
  for (QWidget* widget : page->findChildren<QWidget*>()) {
    auto* box = qobject_cast<ChoiceBox*>(widget);
    auto* field = qobject_cast<Field*>(widget);
    if (box && desk.resolve(box->path()) == path) {
      box->setFocus(Qt::OtherFocusReason);
      return true;
    }
    if (field && desk.resolve(field->path()) == path) {
      field->edit()->setFocus(Qt::OtherFocusReason);
      return true;
    }
    // A choice made by hand says by a property which field it is of.
    if (const QString of = widget->property("path").toString(); !of.isEmpty() && desk.resolve(of) == path) {
      widget->setFocus(Qt::OtherFocusReason);
      return true;
    }
  }
  return false;
}

namespace {

/// Up and down only: to the sides it is as wide as what stands in it, and the window scrolls where that is too much.
class Scrolled : public QScrollArea {
public:
  using QScrollArea::QScrollArea;
  [[nodiscard]] QSize minimumSizeHint() const override {
    const int least = widget() ? least_room(widget(), 0).width() : 0;
    return {least + verticalScrollBar()->sizeHint().width(), std::min(4 * fontMetrics().height(), 80)};
  }

protected:
  void keyPressEvent(QKeyEvent* event) override {
    if (is_arrow(*event)) return event->ignore();
    QScrollArea::keyPressEvent(event);
  }
  bool eventFilter(QObject* watched, QEvent* event) override {
    const bool taken = QScrollArea::eventFilter(watched, event);
    if (watched == widget() && event->type() == QEvent::LayoutRequest) updateGeometry();
    return taken;
  }
};

} // namespace

QWidget* scrolled(QWidget* inside, QWidget* parent) {
  auto* area = new Scrolled(parent);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  area->setFocusPolicy(Qt::NoFocus);
  area->viewport()->setAutoFillBackground(false);
  inside->setAutoFillBackground(false);
  area->setWidget(inside);
  return area;
}

} // namespace mavrel::app

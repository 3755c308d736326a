#include "app/kit/plain_page.h"

#include "app/kit/paged_stage.h"
#include "file/text_file.h"

#include <QFileDialog>
#include <QPushButton>
#include <QVBoxLayout>

#include <utility>

namespace mavrel::app {

PlainPage::PlainPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), column_(new QVBoxLayout), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  column_->setContentsMargins(0, 0, u, 0);
  column_->setSpacing(u);
  whole->addLayout(column_, 1);
  whole->addWidget(beside_);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, &PlainPage::refresh);
}

void PlainPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

bool PlainPage::go_to(const QString& path) {
  return go_to_field(desk_, this, path);
}

void PlainPage::refresh() {
  stale_ = !isVisible();
  if (stale_) return;
  // What a page fills may speak up while it is filled: that is heard once it is whole.
  if (std::exchange(filling_, true)) {
    again_ = true;
    return;
  }
  fill();
  filling_ = false;
  if (std::exchange(again_, false)) QMetaObject::invokeMethod(this, &PlainPage::refresh, Qt::QueuedConnection);
}

void PlainPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (stale_) refresh();
}

void PlainPage::add_button(QHBoxLayout* row, const QString& text, const char* name, std::function<void()> act) {
  auto* made = new QPushButton(text, this);
  made->setObjectName(name);
  connect(made, &QPushButton::clicked, this, std::move(act));
  row->addWidget(made);
}

void PlainPage::save_csv(const QString& title, const std::string& text) {
  const QString to = QFileDialog::getSaveFileName(this, title, {}, tr("CSV (*.csv)"));
  if (to.isEmpty() || desk_.refuses_to_write(to.toStdString())) return;
  const auto done = write_atomically(to.toStdString(), text);
  desk_.tell(done ? tr("Written: %1").arg(to) : desk_.words_of(done.error()));
}

} // namespace mavrel::app

#include "app/kit/row_panel.h"

#include "app/desk/desk.h"
#include "app/kit/plain.h"

#include <QGridLayout>
#include <QLabel>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>

namespace mavrel::app {

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
    if (page_) {
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
  }
  refresh_rows();
  for (const auto& [button, what] : removers_) {
    button->setToolTip(tr("Remove %1").arg(what()));
    button->setAccessibleName(button->toolTip());
  }
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
  button->setText("×");
  removers_.emplace_back(button, std::move(what));
  return button;
}

} // namespace mavrel::app

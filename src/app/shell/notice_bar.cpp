#include "app/shell/notice_bar.h"

#include "app/kit/plain.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <utility>

namespace mavrel::app {

NoticeBar::NoticeBar(QWidget* parent) : QWidget(parent), rows_(new QVBoxLayout(this)) {
  setObjectName("notice");
  setAttribute(Qt::WA_StyledBackground);
  rows_->setSpacing(0);
  rows_->setContentsMargins(0, 0, 0, 0);
  hide();
}

void NoticeBar::show_notice(Notice notice) {
  if (!notice.stays) forget_said();
  auto* row = new QWidget(this);
  auto* layout = new QHBoxLayout(row);
  auto* text = new PlainLabel(notice.text, row);
  text->setWordWrap(true);
  text->setTextFormat(Qt::PlainText); // file names are no markup
  layout->addWidget(text, 1);
  const auto button = [&](const QString& name, std::function<void()> act) {
    if (name.isEmpty()) return;
    auto* made = new QPushButton(name, row);
    layout->addWidget(made);
    connect(made, &QPushButton::clicked, this, [this, row, does = std::move(act)] {
      drop(row);
      if (does) does();
    });
  };
  button(notice.action, std::move(notice.act));
  button(notice.other, std::move(notice.otherwise));
  rows_->insertWidget(0, row);
  row->show(); // a child of a widget already on screen is not shown by itself
  if (!notice.stays) said_ = row;
  show();
  emit resized_itself();
}

void NoticeBar::forget_said() {
  if (said_) drop(said_);
}

void NoticeBar::drop(QWidget* row) {
  if (row == said_) said_ = nullptr;
  rows_->removeWidget(row);
  row->hide();
  row->deleteLater(); // its own button may be what was pressed
  setVisible(rows_->count() > 0);
  emit resized_itself();
}

} // namespace mavrel::app

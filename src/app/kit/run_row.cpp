#include "app/kit/run_row.h"

#include "app/kit/plain.h"
#include "app/theme/look.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>

namespace mavrel::app {

RunRow::RunRow(Desk& desk, AskedAnything& asked, const char* name, QString start, QWidget* parent)
    : QWidget(parent), desk_(desk), asked_(asked), start_(std::move(start)), row_(new QHBoxLayout(this)),
      button_(new QPushButton(start_, this)), bar_(new QProgressBar(this)), words_(new PlainLabel(this)) {
  const int u = desk_.look().unit();
  row_->setContentsMargins(0, 0, 0, 0);
  row_->setSpacing(u);
  button_->setObjectName(name);
  row_->addWidget(button_);
  bar_->setTextVisible(false);
  bar_->setFixedHeight(u);
  bar_->setRange(0, 1000);
  bar_->setAccessibleName(tr("How far it is"));
  row_->addWidget(bar_, 1);
  words_->setWordWrap(true);
  words_->setObjectName(QString("%1_words").arg(name));
  set_small(words_, desk_.look());
  row_->addWidget(words_, 4);
  connect(button_, &QPushButton::clicked, this, &RunRow::press);
  asked_.set_moved([this] { bar_->setValue(static_cast<int>(asked_.done() * 1000)); });
  bar_->hide();
}

void RunRow::press() {
  if (asked_.is_running()) return asked_.forget();
  if (!before_ || before_()) asked_.ask();
}

void RunRow::show_words(const QString& words, const QString& running) {
  const bool runs = asked_.is_running();
  button_->setText(runs ? tr("Stop") : start_);
  bar_->setVisible(runs);
  bar_->setValue(static_cast<int>(asked_.done() * 1000));
  const auto trouble = asked_.trouble();
  words_->setText(runs                   ? running
                  : trouble              ? desk_.words_of(*trouble)
                  : asked_.is_outdated() ? tr("What it was worked out from has changed: start it again.")
                                         : words);
}

QString RunRow::text() const {
  return words_->text();
}

} // namespace mavrel::app

#include "app/shell/finder.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace mavrel::app {

Finder::Finder(std::vector<Entry> entries, QWidget* parent)
    : QDialog(parent), entries_(std::move(entries)), line_(new QLineEdit(this)), list_(new QListWidget(this)) {
  setWindowTitle(tr("Find by name"));
  setObjectName("finder");
  line_->setPlaceholderText(tr("a reading, a bag, a stage, a command"));
  line_->setAccessibleName(tr("Find by name"));
  line_->installEventFilter(this);
  auto* layout = new QVBoxLayout(this);
  layout->addWidget(line_);
  layout->addWidget(list_);
  resize(460, 420);
  connect(line_, &QLineEdit::textChanged, this, &Finder::filter);
  connect(line_, &QLineEdit::returnPressed, this, &Finder::go);
  connect(list_, &QListWidget::itemClicked, this, &Finder::go);
  filter();
}

void Finder::filter() {
  const QStringList wanted = line_->text().toLower().split(' ', Qt::SkipEmptyParts);
  list_->clear();
  for (std::size_t i = 0; i < entries_.size(); ++i) {
    const QString text = entries_[i].name + "   " + entries_[i].kind;
    const QString low = text.toLower();
    if (!std::all_of(wanted.begin(), wanted.end(), [&](const QString& w) { return low.contains(w); })) continue;
    auto* item = new QListWidgetItem(text, list_);
    item->setData(Qt::UserRole, static_cast<int>(i));
  }
  list_->setCurrentRow(0);
}

void Finder::go() {
  const auto* item = list_->currentItem();
  if (!item) return;
  const auto action = entries_[static_cast<std::size_t>(item->data(Qt::UserRole).toInt())].go;
  accept();
  action();
}

bool Finder::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    const int by = key == Qt::Key_Down ? 1 : key == Qt::Key_Up ? -1 : 0;
    if (by != 0) {
      list_->setCurrentRow(std::clamp(list_->currentRow() + by, 0, std::max(0, list_->count() - 1)));
      return true;
    }
  }
  return QDialog::eventFilter(watched, event);
}

} // namespace mavrel::app

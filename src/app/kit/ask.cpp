#include "app/kit/ask.h"

#include <QMessageBox>
#include <QPushButton>

namespace mavrel::app {

bool ask(QWidget* parent, const QString& title, const QString& text, const QString& yes) {
  QMessageBox box(QMessageBox::Question, title, text, QMessageBox::Cancel, parent);
  box.setObjectName("ask");
  box.setTextFormat(Qt::PlainText); // names are no markup
  const QPushButton* does = box.addButton(yes, QMessageBox::AcceptRole);
  box.setDefaultButton(QMessageBox::Cancel);
  box.exec();
  return box.clickedButton() == does;
}

} // namespace mavrel::app

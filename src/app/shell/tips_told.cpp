#include "app/shell/tips_told.h"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QApplication>

namespace mavrel::app {

namespace {

QString on_one_line(QString tip) {
  return tip.replace('\n', QStringLiteral(" · "));
}

QString tip_of(const QAbstractItemView* view) {
  const QModelIndex at = view->currentIndex();
  const QString tip = at.data(Qt::ToolTipRole).toString();
  return tip == at.data(Qt::DisplayRole).toString() ? QString() : on_one_line(tip);
}

QString tip_of(const QWidget* widget) {
  const auto* button = qobject_cast<const QAbstractButton*>(widget);
  return button && button->text() == widget->toolTip() ? QString() : on_one_line(widget->toolTip());
}

} // namespace

TipsTold::TipsTold(QWidget* window) : QObject(window), window_(window) {
  connect(qApp, &QApplication::focusChanged, this, [this](QWidget*, QWidget* now) { follow(now); });
}

void TipsTold::follow(QWidget* focus) {
  disconnect(cells_);
  if (!focus || focus->window() != window_) return;
  auto* view = qobject_cast<QAbstractItemView*>(focus);
  if (!view) {
    emit tells(tip_of(focus));
    return;
  }
  emit tells(tip_of(view));
  if (view->selectionModel())
    cells_ = connect(view->selectionModel(), &QItemSelectionModel::currentChanged, this, [this, view = QPointer(view)] {
      if (view) emit tells(tip_of(view));
    });
}

} // namespace mavrel::app

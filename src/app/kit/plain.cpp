#include "app/kit/plain.h"

#include <QAbstractItemView>
#include <QApplication>
#include <QHelpEvent>
#include <QPainter>
#include <QPointer>
#include <QStyle>
#include <QTextDocument>
#include <QToolTip>

namespace mavrel::app {

namespace {

/// Qt takes a tip for markup by its looks. None of ours is; what looks so is shown as it was typed.
class PlainTips : public QObject {
public:
  using QObject::QObject;
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() != QEvent::ToolTip || !watched->isWidgetType()) return false;
    auto* widget = static_cast<QWidget*>(watched);
    const auto* help = static_cast<QHelpEvent*>(event);
    const auto* view = qobject_cast<QAbstractItemView*>(widget->parentWidget());
    const bool in_view = view && view->viewport() == widget;
    const QString tip = in_view ? view->indexAt(help->pos()).data(Qt::ToolTipRole).toString() : widget->toolTip();
    if (!Qt::mightBeRichText(tip)) return false;
    QToolTip::showText(help->globalPos(), Qt::convertFromPlainText(tip, Qt::WhiteSpaceNormal), widget);
    return true;
  }
};

} // namespace

CutLabel::CutLabel(QWidget* parent) : PlainLabel(parent) {
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
}

QSize CutLabel::minimumSizeHint() const {
  return {0, PlainLabel::minimumSizeHint().height()};
}

QString CutLabel::shown() const {
  return fontMetrics().elidedText(text(), Qt::ElideRight, contentsRect().width());
}

void CutLabel::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  style()->drawItemText(&painter, contentsRect(), QStyle::visualAlignment(layoutDirection(), alignment()), palette(),
                        isEnabled(), shown(), foregroundRole());
}

bool CutLabel::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip && toolTip().isEmpty() && shown() != text()) {
    QToolTip::showText(static_cast<QHelpEvent*>(event)->globalPos(),
                       Qt::convertFromPlainText(text(), Qt::WhiteSpaceNormal), this);
    return true;
  }
  return PlainLabel::event(event);
}

void keep_tips_plain() {
  static QPointer<QObject> tips;
  if (tips) return;
  tips = new PlainTips(qApp);
  qApp->installEventFilter(tips);
}

QString on_button(QString name) {
  return name.replace('&', "&&");
}

} // namespace mavrel::app

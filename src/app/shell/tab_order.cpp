#include "app/shell/tab_order.h"

#include <QAbstractItemView>
#include <QComboBox>
#include <QWidget>

#include <algorithm>

namespace mavrel::app {

namespace {

bool is_stop(const QWidget* widget) {
  return (widget->focusPolicy() & Qt::TabFocus) == Qt::TabFocus && widget->isEnabled() && !widget->focusProxy();
}

/// Is one read before the other? Side by side, where they share half of the lower one's height: from the left.
bool is_before(const QWidget* a, const QWidget* b) {
  const QRect one = a->geometry(), other = b->geometry();
  const int shared = std::min(one.bottom(), other.bottom()) - std::max(one.top(), other.top()) + 1;
  if (2 * shared >= std::min(one.height(), other.height())) return one.left() < other.left();
  return one.top() < other.top();
}

void walk(QWidget* widget, const QWidget* also, std::vector<QWidget*>& out) {
  if (is_stop(widget) || widget == also) out.push_back(widget);
  // What they are made of is theirs to walk.
  if (qobject_cast<QAbstractItemView*>(widget) || qobject_cast<QComboBox*>(widget)) {
    for (QWidget* inner : widget->findChildren<QWidget*>())
      if (inner == also) out.push_back(inner);
    return;
  }
  std::vector<QWidget*> children;
  for (QObject* child : widget->children()) {
    auto* one = qobject_cast<QWidget*>(child);
    if (!one || one->isWindow() || one->isHidden()) continue;
    // By insertion: "before" is no order that a sort may rely on.
    const auto after =
        std::find_if(children.begin(), children.end(), [&](const QWidget* other) { return is_before(one, other); });
    children.insert(after, one);
  }
  for (QWidget* one : children)
    walk(one, also, out);
}

} // namespace

std::vector<QWidget*> reading_order(const QWidget* window, const QWidget* also) {
  std::vector<QWidget*> out;
  walk(const_cast<QWidget*>(window), also, out);
  return out;
}

QWidget* next_in_reading(const QWidget* window, const QWidget* from, bool forward) {
  std::vector<QWidget*> all = reading_order(window, from);
  const auto at = std::find(all.begin(), all.end(), from);
  const std::size_t n = all.size(), begin = at == all.end() ? (forward ? n - 1 : 0) : std::size_t(at - all.begin());
  for (std::size_t step = 1; step <= n; ++step) {
    QWidget* one = all[(begin + (forward ? step : n - step)) % n];
    if (one != from && is_stop(one)) return one;
  }
  return nullptr;
}

} // namespace mavrel::app

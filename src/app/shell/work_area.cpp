#include "app/shell/work_area.h"

#include "app/desk/desk.h"
#include "app/kit/height_posts.h"
#include "app/kit/page_stack.h"
#include "app/kit/stage_page.h"

#include <QKeyEvent>
#include <QLayout>
#include <QStackedWidget>

namespace mavrel::app {

namespace {
constexpr double least_beside_posts = 500; // px at normal text that a page keeps beside them
} // namespace

WorkArea::WorkArea(Desk& desk, QWidget* parent)
    : QScrollArea(parent), desk_(desk), both_(new QWidget), pages_(new QStackedWidget(both_)),
      posts_(new HeightPosts(desk, both_)) {
  setFrameShape(QFrame::NoFrame);
  setFocusPolicy(Qt::NoFocus);
  viewport()->setAutoFillBackground(false);
  setWidget(both_);
  both_->setAutoFillBackground(false);
  pages_->installEventFilter(this);
}

StagePage* WorkArea::page() const {
  return qobject_cast<StagePage*>(pages_->currentWidget());
}

void WorkArea::line_up() {
  soon_ = false;
  if (!page()) return;
  const Look& look = desk_.look();
  const QSize room = viewport()->size();
  const int width = posts_->sizeHint().width();
  const bool stands = page()->wants_posts() && room.width() - width >= look.px(least_beside_posts);
  posts_->setVisible(stands);
  page()->reserve_right(stands ? width : 0);
  both_->resize(room.expandedTo(least_room(page(), room.width())));
  pages_->setGeometry(both_->rect());
  if (page()->layout()) page()->layout()->activate();
  if (!stands) return;
  // Beside a stage's own height scale the posts stand exactly on it; elsewhere they take the whole height.
  const int head = look.px(56), foot = look.px(24);
  const auto band = page()->band();
  const int top = band ? band->first : head + look.unit(), bottom = band ? band->second : both_->height() - foot;
  posts_->setGeometry(both_->width() - width, top - head, width, bottom + foot - (top - head));
  posts_->set_band(head, posts_->height() - foot, band.has_value() && page()->reads_across());
  posts_->raise();
}

/// What stands on a page asks for more or less room while it is filled: once, when it is whole.
void WorkArea::line_up_soon() {
  if (std::exchange(soon_, true)) return;
  QMetaObject::invokeMethod(this, &WorkArea::line_up, Qt::QueuedConnection);
}

bool WorkArea::eventFilter(QObject* watched, QEvent* event) {
  if (watched == pages_ && event->type() == QEvent::LayoutRequest) line_up_soon();
  return QScrollArea::eventFilter(watched, event);
}

void WorkArea::keyPressEvent(QKeyEvent* event) {
  if (is_arrow(*event)) return event->ignore(); // they are the window's
  QScrollArea::keyPressEvent(event);
}

void WorkArea::resizeEvent(QResizeEvent* event) {
  QScrollArea::resizeEvent(event);
  line_up();
}

} // namespace mavrel::app

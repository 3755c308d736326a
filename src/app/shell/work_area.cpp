#include "app/shell/work_area.h"

#include "app/desk/desk.h"
#include "app/kit/height_posts.h"
#include "app/kit/height_strip.h"
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
      posts_(new HeightPosts(desk, both_)), strip_(new HeightStrip(desk, both_)) {
  connect(strip_, &HeightStrip::opened, this, &WorkArea::toggle_posts);
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
  const bool wanted = page()->wants_posts() && room.width() - width >= look.px(least_beside_posts);
  const bool stands = wanted && (opened_ || page()->reads_heights()), slim = wanted && !stands;
  posts_->setVisible(stands);
  strip_->setVisible(slim);
  page()->reserve_right(stands ? width : slim ? strip_->sizeHint().width() : 0);
  both_->resize(room.expandedTo(least_room(page(), room.width())));
  pages_->setGeometry(both_->rect());
  if (page()->layout()) page()->layout()->activate();
  if (slim) {
    strip_->setGeometry(both_->width() - strip_->sizeHint().width(), 0, strip_->sizeHint().width(), both_->height());
    strip_->raise();
  }
  if (!stands) return;
  // Beside a stage's own height scale the posts stand exactly on it; elsewhere they take the whole height.
  const int head = look.px(56), foot = look.px(24);
  const auto band = page()->band();
  const int top = band ? band->first : head + look.unit(), bottom = band ? band->second : both_->height() - foot;
  posts_->setGeometry(both_->width() - width, top - head, width, bottom + foot - (top - head));
  posts_->set_band(head, posts_->height() - foot, band.has_value() && page()->reads_across());
  posts_->raise();
}

void WorkArea::toggle_posts() {
  if (page() && page()->reads_heights()) return desk_.tell(tr("The posts stand on this page already."));
  opened_ = !opened_;
  line_up();
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

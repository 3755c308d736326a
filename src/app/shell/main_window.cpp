#include "app/shell/main_window.h"

#include "app/desk/sureness.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"
#include "app/shell/findings_panel.h"
#include "app/shell/next_line.h"
#include "app/shell/notice_bar.h"
#include "app/shell/stage_rail.h"
#include "app/shell/stages.h"
#include "app/shell/start_page.h"
#include "app/shell/tab_order.h"
#include "app/shell/tips_told.h"
#include "app/shell/top_strip.h"
#include "app/shell/work_area.h"

#include <QApplication>
#include <QDropEvent>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenuBar>
#include <QMimeData>
#include <QScreen>
#include <QScrollArea>
#include <QStackedWidget>
#include <QStatusBar>
#include <QTextDocument>
#include <QToolTip>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
constexpr int told_for_ms = 9000;
} // namespace

MainWindow::MainWindow(shelf::Shelf shelf, std::filesystem::path recovery, QWidget* parent)
    : QMainWindow(parent), desk_(std::move(shelf)),
      keeper_(desk_, recovery.empty() ? Keeper::usual_folder() : std::move(recovery)) {
  setObjectName("main_window");
  keep_tips_plain();
  desk_.view().set_prefs(settings_.prefs());
  desk_.view().set_look(settings_.look());
  // Before whoever shows it: what is not of this car any more is dropped before anybody looks.
  Sureness& sure = Sureness::of(desk_);
  sure.set_wanted(settings_.sureness());
  connect(&sure, &Sureness::wanted, this, [this](bool want) { settings_.keep_sureness(want); });
  restyle();
  setAcceptDrops(true);

  auto* centre = new QWidget(this);
  auto* column = new QVBoxLayout(centre);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  strip_ = new TopStrip(desk_, centre);
  column->addWidget(strip_);
  next_ = new NextLine(desk_, this);
  notices_ = new NoticeBar(centre);
  column->addWidget(notices_);
  connect(notices_, &NoticeBar::resized_itself, this, [this] { QTimer::singleShot(0, work_, &WorkArea::line_up); });
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  column->addLayout(row, 1);
  rail_ = new StageRail(desk_, centre);
  row->addWidget(rail_);
  work_ = new WorkArea(desk_, centre);
  make_stages();
  row->addWidget(work_, 1);
  findings_ = new FindingsPanel(desk_, centre);
  row->addWidget(findings_);
  start_ = new StartPage(desk_, centre);
  row->addWidget(start_, 1);
  start_->hide();
  setCentralWidget(centre);
  told_ = new CutLabel(this);
  told_->setObjectName("told");
  told_->setContentsMargins(desk_.look().unit(), 0, 0, 0);
  statusBar()->addWidget(told_, 1);
  statusBar()->setSizeGripEnabled(false);
  told_timer_.setSingleShot(true);
  const auto quiet = [this] {
    told_->setText(tip_.isEmpty() ? tr("F1 lists the keys · Ctrl+K finds anything by name") : tip_);
  };
  connect(&told_timer_, &QTimer::timeout, this, quiet);
  connect(new TipsTold(this), &TipsTold::tells, this, [this, quiet](const QString& tip) {
    tip_ = tip;
    if (!told_timer_.isActive()) quiet();
  });
  told_timer_.start(0);

  connect(rail_, &StageRail::chosen, this, &MainWindow::go_to_stage);
  connect(start_, &StartPage::wants_new, this, &MainWindow::begin);
  connect(start_, &StartPage::closed, this, &MainWindow::leave_start);
  connect(start_, &StartPage::wants_open, this, &MainWindow::open_dialog);
  connect(start_, &StartPage::wants_book, this, [this] { go_to_stage("book"); });
  connect(start_, &StartPage::wants_file, this, [this](const QString& file) {
    if (may_leave()) open_file(file);
  });
  connect(strip_, &TopStrip::units_wanted, this, [this](QPoint at) {
    QMenu menu(this);
    fill_units(&menu);
    menu.exec(at);
  });
  connect(&desk_, &Desk::told, this, [this](const QString& sentence) {
    told_->setText(sentence);
    told_timer_.start(told_for_ms);
  });
  connect(&desk_, &Desk::refused, this, [this](const QString& sentence) {
    // Beside what was used, which still has the focus; a click elsewhere takes it away.
    if (QWidget* used = focusWidget(); used && used->isVisible())
      QToolTip::showText(used->mapToGlobal(QPoint(0, used->height())),
                         Qt::convertFromPlainText(sentence, Qt::WhiteSpaceNormal), used, {}, told_for_ms);
  });
  connect(&desk_, &Desk::went_to, this, &MainWindow::go_to);
  connect(&desk_, &Desk::changed, this, &MainWindow::leave_start); // nothing changes out of sight
  connect(&desk_, &Desk::changed, this, &MainWindow::leave_what_closed);
  connect(&desk_, &Desk::changed, this, &MainWindow::refresh_title);
  connect(&desk_, &Desk::restyled, this, [this] {
    settings_.keep(desk_.prefs());
    settings_.keep(desk_.look());
    restyle();
  });
  make_menus();
  next_->setParent(menuBar()); // in a row that is there anyway: no page has less room for it
  next_->show();
  qApp->installEventFilter(this);
  go_to_stage(stage_entries().front().key);
  refresh_title();
  // Within the screen, however small it is.
  const QSize most = screen() ? screen()->availableSize() : QSize(1280, 800);
  setMinimumSize(QSize(1100, 700).boundedTo(most));
  resize(QSize(1280, 800).boundedTo(most));
  page()->setFocus(Qt::OtherFocusReason); // no button has it that Space would press
  for (const auto& problem : desk_.shelf().problems)
    desk_.tell(tr("A bag card was left on the shelf's floor: %1").arg(desk_.words_of(problem.what)));
}

MainWindow::~MainWindow() {
  qApp->removeEventFilter(this);
  // The widgets listen to the desk, which is a member and would otherwise die before them.
  delete centralWidget();
}

bool MainWindow::focusNextPrevChild(bool next) {
  QWidget* to = next_in_reading(this, focusWidget(), next);
  if (!to) return false;
  to->setFocus(next ? Qt::TabFocusReason : Qt::BacktabFocusReason);
  for (QWidget* around = to->parentWidget(); around; around = around->parentWidget())
    if (auto* scrolls = qobject_cast<QScrollArea*>(around)) scrolls->ensureWidgetVisible(to);
  return true;
}

StagePage* MainWindow::page() const {
  return qobject_cast<StagePage*>(work_->pages()->currentWidget());
}

void MainWindow::make_stages() {
  for (const StageEntry& entry : stage_entries()) {
    StagePage* made = entry.make(desk_, work_->pages());
    stages_.push_back(made);
    work_->pages()->addWidget(made);
    connect(made, &StagePage::band_moved, work_, &WorkArea::line_up);
    connect(made, &StagePage::band_moved, this, &MainWindow::refresh_title); // another part of it is shown
    connect(made, &StagePage::undo_changed, this, &MainWindow::refresh_title);
    connect(made, &StagePage::wants_open, this, [this](const QString& file) {
      if (may_leave() && open_file(file)) go_to_stage(stage_entries().front().key);
    });
    connect(made, &StagePage::called, this, [this, key = entry.key] { go_to_stage(key); });
  }
}

/// A page that can't be gone to any more is left at once: what it shows is of what is gone.
void MainWindow::leave_what_closed() {
  for (std::size_t i = 0; i < stages_.size(); ++i)
    if (stages_[i] == page() && !stage_entries()[i].closed(desk_).isEmpty()) go_to_stage(stage_entries().front().key);
}

StagePage* MainWindow::stage(const QString& key) const {
  for (std::size_t i = 0; i < stages_.size(); ++i)
    if (stage_entries()[i].key == key) return stages_[i];
  return nullptr;
}

void MainWindow::show_start() {
  // A car that nobody entered anything of is none to go back to.
  const build::Build& open = desk_.build();
  const bool is_one = !desk_.document().file().empty() || !desk_.document().may_close();
  start_->show_recent(settings_.recent(), !is_one                ? QString()
                                          : open.job.car.empty() ? tr("the unnamed car")
                                                                 : QString::fromStdString(open.job.car));
  for (QWidget* one : std::initializer_list<QWidget*>{strip_, next_, rail_, work_, findings_})
    one->hide();
  start_->show();
  start_->findChild<QWidget*>("style")->setFocus(Qt::OtherFocusReason);
}

void MainWindow::leave_start() {
  if (start_->isHidden()) return;
  start_->hide();
  for (QWidget* one : std::initializer_list<QWidget*>{strip_, next_, rail_, work_, findings_})
    one->show();
}

void MainWindow::begin(const build::Build& build) {
  if (!may_leave()) return;
  desk_.document().put(build, {}, true);
  go_to_stage(stage_entries().front().key);
}

void MainWindow::go_to_stage(const QString& key) {
  leave_start();
  std::size_t wanted = 0;
  for (std::size_t i = 0; i < stages_.size(); ++i)
    if (stage_entries()[i].key == key) wanted = i;
  if (const QString why = stage_entries()[wanted].closed(desk_); !why.isEmpty()) {
    desk_.tell(why);
    wanted = 0;
  }
  work_->pages()->setCurrentWidget(stages_[wanted]);
  stages_[wanted]->arrive();
  rail_->set_current(stage_entries()[wanted].key);
  findings_->show_stage(stage_entries()[wanted].stage);
  if (undo_) refresh_title();
  work_->line_up();
}

void MainWindow::go_to(const QString& stage, const QString& place) {
  // Where it is entered whatever it troubles; else at the stage it troubles; else wherever its field stands.
  for (std::size_t i = 0; i < stages_.size(); ++i)
    if (stages_[i]->owns(place)) {
      go_to_stage(stage_entries()[i].key);
      stages_[i]->go_to(place);
      return;
    }
  go_to_stage(stage);
  if (page()->go_to(place)) return;
  for (std::size_t i = 0; i < stages_.size(); ++i)
    if (stages_[i] != page() && stages_[i]->go_to(place)) {
      go_to_stage(stage_entries()[i].key);
      stages_[i]->go_to(place); // once more, now that it is shown
      return;
    }
}

std::optional<OwnUndo> MainWindow::own_undo() const {
  return page() ? page()->own_undo() : std::nullopt;
}

void MainWindow::resizeEvent(QResizeEvent* event) {
  QMainWindow::resizeEvent(event);
  QTimer::singleShot(0, this, &MainWindow::fit_next); // the menus have their places then
  findings_->fit_to(width());
  QTimer::singleShot(0, work_, &WorkArea::line_up);
}

/// As wide as the menus leave.
void MainWindow::fit_next() {
  const auto menus = menuBar()->actions();
  if (menus.isEmpty()) return;
  const int from = menuBar()->actionGeometry(menus.back()).right() + 1;
  next_->setGeometry(from, 0, menuBar()->width() - from, menuBar()->height() - 1);
}

void MainWindow::restyle() {
  const Look& look = desk_.look();
  qApp->setPalette(look.palette());
  qApp->setFont(look.font());
  setStyleSheet(look.style_sheet());
  if (centralWidget()) {
    restyle_small(this, look);
    findings_->fit_to(width());
    told_->setFont(look.font(TextSize::small));
    QTimer::singleShot(0, this, &MainWindow::fit_next);
    QTimer::singleShot(0, work_, &WorkArea::line_up);
  }
}

void MainWindow::refresh_title() {
  const auto& car = desk_.build().job.car;
  const QString name = desk_.document().file().empty()
                           ? tr("new build")
                           : QString::fromStdString(desk_.document().file().filename().string());
  setWindowTitle(
      QString("%1 — %2[*] — Mavrel").arg(car.empty() ? tr("Unnamed car") : QString::fromStdString(car), name));
  setWindowModified(!desk_.document().may_close());
  if (const auto own = own_undo()) {
    undo_->setEnabled(own->can_undo);
    undo_->setText(tr("Undo: %1").arg(own->what));
    redo_->setEnabled(own->can_redo);
    redo_->setText(tr("Redo: %1").arg(own->what));
    return;
  }
  const auto& history = desk_.document().history();
  undo_->setEnabled(history.can_undo());
  undo_->setText(history.can_undo() ? tr("Undo: %1").arg(QString::fromStdString(history.undo_name())) : tr("Undo"));
  redo_->setEnabled(history.can_redo());
  redo_->setText(history.can_redo() ? tr("Redo: %1").arg(QString::fromStdString(history.redo_name())) : tr("Redo"));
}

// ---- files dropped, keys

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls() && event->mimeData()->urls().front().isLocalFile()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  event->acceptProposedAction();
  QStringList files;
  for (const QUrl& url : event->mimeData()->urls())
    files << url.toLocalFile();
  // The page that is looked at goes first.
  std::vector<StagePage*> takers{page()};
  for (StagePage* one : stages_)
    if (one != page()) takers.push_back(one);
  for (StagePage* one : takers)
    for (const QString& taken : one->take_files(files))
      files.removeAll(taken);
  if (!files.isEmpty() && may_leave()) open_file(files.front());
}

bool MainWindow::handle_pose_key(QKeyEvent* event) {
  const Qt::KeyboardModifiers m = event->modifiers() & (Qt::ShiftModifier | Qt::AltModifier | Qt::ControlModifier);
  if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
    if (m & Qt::ControlModifier) return false;
    const double by = m == Qt::ShiftModifier ? 0.010 : m == Qt::AltModifier ? 0.0002 : 0.001;
    desk_.view().nudge_pose(event->key() == Qt::Key_Up ? by : -by);
    return true;
  }
  if (m != Qt::NoModifier) return false;
  if (event->key() == Qt::Key_E) {
    desk_.set_end(desk_.end() == End::front ? End::rear : End::front);
    return true;
  }
  if (event->key() == Qt::Key_L) {
    desk_.set_load_case((desk_.load_case() + 1) % desk_.assessment().loads.size());
    return true;
  }
  return false;
}

void MainWindow::keyPressEvent(QKeyEvent* event) {
  if (!handle_pose_key(event)) QMainWindow::keyPressEvent(event);
}

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
  // A line of text has keys of its own for some of ours: end of line, delete to its end. Ours are meant, but for those
  // that edit.
  if (event->type() == QEvent::ShortcutOverride && qobject_cast<QLineEdit*>(watched)) {
    auto* key = static_cast<QKeyEvent*>(event);
    const QKeySequence pressed(key->keyCombination());
    for (const QAction* action : actions_)
      if (action != undo_ && action != redo_ && action->shortcut() == pressed &&
          static_cast<QWidget*>(watched)->window() == this) {
        event->ignore();
        return true;
      }
  }
  // Lists use the plain arrows for themselves; fields too. With Shift or Alt the arrows move the pose from there as
  // well.
  if (event->type() == QEvent::KeyPress && isActiveWindow()) {
    auto* key = static_cast<QKeyEvent*>(event);
    auto* widget = qobject_cast<QWidget*>(watched);
    const bool ours = widget && widget->window() == this && !(page() && page()->takes_arrows());
    const bool arrow = key->key() == Qt::Key_Up || key->key() == Qt::Key_Down;
    const bool typing = qobject_cast<QLineEdit*>(watched) != nullptr;
    if (ours && arrow && (key->modifiers() & Qt::AltModifier)) return handle_pose_key(key);
    if (ours && arrow && typing) return handle_pose_key(key); // a one-line field has no use for them
  }
  return QMainWindow::eventFilter(watched, event);
}

} // namespace mavrel::app

// A hand that does anything: clicks, keys, half-typed words, undo and other pages, drawn by lot over every stage. What
// it does comes from a seed alone. `MAVREL_PLAY_SECONDS` plays longer, `MAVREL_PLAY_SEED` another game; a game that
// goes wrong says both.
#include "app/kit/paged_stage.h"
#include "app/shell/stages.h"
#include "app/window_fixture.h"

#include <QComboBox>
#include <QDialog>
#include <QFileDialog>
#include <QMenu>
#include <QMessageBox>
#include <QTabBar>
#include <QTableWidget>

#include <cstdio>
#include <deque>
#include <random>

namespace mavrel::app {
namespace {

QStringList* warned = nullptr; // what Qt warned of while somebody listens
void hear(QtMsgType type, const QMessageLogContext&, const QString& text) {
  // The platform of the tests can't do these.
  if (warned && type != QtDebugMsg && type != QtInfoMsg && !text.contains("This plugin does not support"))
    *warned << text;
}

class PlayerTest : public WindowTest {
protected:
  void SetUp() override {
    qputenv("XDG_DATA_HOME", folder_.path().c_str());
    WindowTest::SetUp();
    // Whatever asks is answered: files are never chosen, other questions by lot.
    answers_.callOnTimeout([this] { answer(); });
    answers_.start(15);
  }
  void TearDown() override {
    answers_.stop();
    window_.reset();
    qunsetenv("XDG_DATA_HOME");
  }

  std::size_t draw(std::size_t below) {
    return below < 2 ? 0 : std::uniform_int_distribution<std::size_t>(0, below - 1)(lot_);
  }
  bool one_in(std::size_t n) { return draw(n) == 0; }
  void note(const QString& what) {
    acts_.push_back(what);
    if (acts_.size() > 25) acts_.pop_front();
  }

  void answer() {
    if (QWidget* popup = QApplication::activePopupWidget()) {
      if (one_in(3)) {
        QTest::keyClick(popup, Qt::Key_Down);
        QTest::keyClick(popup, one_in(2) && !qobject_cast<QMenu*>(popup) ? Qt::Key_Return : Qt::Key_Escape);
      }
      if (QApplication::activePopupWidget() == popup) popup->close();
      return;
    }
    QWidget* modal = QApplication::activeModalWidget();
    if (!modal) return;
    if (auto* box = qobject_cast<QMessageBox*>(modal)) {
      const auto buttons = box->buttons();
      if (!buttons.isEmpty())
        return buttons[static_cast<qsizetype>(draw(static_cast<std::size_t>(buttons.size())))]->click();
    }
    for (QLineEdit* line : modal->findChildren<QLineEdit*>())
      if (!qobject_cast<QFileDialog*>(modal) && line->isVisible() && one_in(2)) line->setText("Tamsin");
    auto* dialog = qobject_cast<QDialog*>(modal);
    if (dialog && !qobject_cast<QFileDialog*>(modal) && one_in(2)) return dialog->accept();
    if (dialog) return dialog->reject();
    modal->close();
  }

  /// Not played with: what leaves the program or the car that is open, or starts another program.
  static bool is_left_alone(const QWidget* widget) {
    const QString name = widget->objectName(), spoken = widget->accessibleName();
    for (const char* other : {"play", "rig", "link", "open", "recover", "sync", "sound", "begin_from", "folder"})
      if (name.contains(other, Qt::CaseInsensitive)) return true;
    return qobject_cast<const QMenu*>(widget) || spoken.startsWith("Open");
  }
  std::vector<QWidget*> in_sight() {
    std::vector<QWidget*> out;
    for (QWidget* one : window_->findChildren<QWidget*>())
      if (one->isVisible() && one->isEnabled() && one->focusPolicy() != Qt::NoFocus && one->window() == window_.get() &&
          !one->visibleRegion().isEmpty() && !is_left_alone(one))
        out.push_back(one);
    return out;
  }
  QPoint somewhere(const QWidget* on) {
    return {static_cast<int>(draw(static_cast<std::size_t>(std::max(1, on->width())))),
            static_cast<int>(draw(static_cast<std::size_t>(std::max(1, on->height()))))};
  }

  void click() {
    const auto all = in_sight();
    if (all.empty()) return;
    QWidget* on = all[draw(all.size())];
    if (auto* scrolls = qobject_cast<QAbstractScrollArea*>(on)) on = scrolls->viewport();
    QPoint at = somewhere(on);
    note(QString("click %1 %2 “%3” at %4,%5")
             .arg(on->metaObject()->className(), on->objectName(), on->accessibleName())
             .arg(at.x())
             .arg(at.y()));
    const QPointer<QWidget> there = on;
    if (one_in(8)) {
      QTest::mouseDClick(on, Qt::LeftButton, {}, at);
      return;
    }
    QTest::mousePress(on, Qt::LeftButton, {}, at);
    for (std::size_t moves = one_in(3) ? draw(6) : 0; moves > 0 && there; --moves) {
      at += QPoint(static_cast<int>(draw(41)) - 20, static_cast<int>(draw(41)) - 20);
      QTest::mouseMove(there, at);
    }
    if (there) QTest::mouseRelease(there, Qt::LeftButton, {}, at);
  }
  void strike() {
    QWidget* on = QApplication::focusWidget();
    if (!on || on->window() != window_.get() || is_left_alone(on)) return;
    static constexpr Qt::Key keys[] = {
        Qt::Key_Tab,    Qt::Key_Tab, Qt::Key_Backtab,  Qt::Key_Return, Qt::Key_Return,   Qt::Key_Space,
        Qt::Key_Escape, Qt::Key_Up,  Qt::Key_Down,     Qt::Key_Left,   Qt::Key_Right,    Qt::Key_Delete,
        Qt::Key_Home,   Qt::Key_End, Qt::Key_PageDown, Qt::Key_F2,     Qt::Key_Backspace};
    const Qt::Key key = keys[draw(std::size(keys))];
    const Qt::KeyboardModifiers with = one_in(6) ? Qt::ShiftModifier : one_in(10) ? Qt::AltModifier : Qt::NoModifier;
    note(QString("key %1+%2 on %3 %4").arg(with).arg(key).arg(on->metaObject()->className(), on->objectName()));
    if (with == Qt::AltModifier && key != Qt::Key_Up && key != Qt::Key_Down) return;
    QTest::keyClick(on, key, with);
  }
  void type() {
    std::vector<QWidget*> lines;
    for (QWidget* one : in_sight())
      if (qobject_cast<QLineEdit*>(one) && !static_cast<QLineEdit*>(one)->isReadOnly()) lines.push_back(one);
    QWidget* on = lines.empty() || one_in(3) ? QApplication::focusWidget() : lines[draw(lines.size())];
    if (!on || on->window() != window_.get()) return;
    static const char* const texts[] = {"343",        "34",   "1e9",   "-3 mm",     "",        "2 f",
                                        "drop 60 mm", "0",    "heavy", "4 h 30",    "12.5 in", "; ;",
                                        "<b>x</b>",   "0.35", "yes",   "2026-12-05"};
    const char* text = texts[draw(std::size(texts))];
    note(QString("type “%1” on %2 %3 %4")
             .arg(text, on->metaObject()->className(), on->objectName(), on->accessibleName()));
    on->setFocus(Qt::TabFocusReason);
    if (auto* line = qobject_cast<QLineEdit*>(on); line && one_in(2)) line->selectAll();
    QTest::keyClicks(on, QString::fromUtf8(text));
    if (QWidget* still = QApplication::focusWidget(); still && one_in(2)) QTest::keyClick(still, Qt::Key_Return);
  }
  void choose() {
    std::vector<QComboBox*> boxes;
    for (QWidget* one : in_sight())
      if (auto* box = qobject_cast<QComboBox*>(one); box && box->count() > 1) boxes.push_back(box);
    if (boxes.empty()) return;
    QComboBox* box = boxes[draw(boxes.size())];
    const int to = static_cast<int>(draw(static_cast<std::size_t>(box->count())));
    note(QString("choose %1 of %2 %3").arg(to).arg(box->objectName(), box->accessibleName()));
    box->setFocus();
    box->setCurrentIndex(to);
    emit box->activated(to);
  }
  void go() {
    const auto stages = stage_entries();
    const StageEntry& stage = stages[draw(stages.size())];
    if (!stage.closed(desk()).isEmpty()) return;
    note(QString("stage %1").arg(stage.key));
    window_->go_to_stage(stage.key);
    QCoreApplication::processEvents();
    if (auto* paged = dynamic_cast<PagedStage*>(window_->stage(stage.key))) {
      const int page = static_cast<int>(draw(7));
      note(QString("page %1").arg(page));
      paged->show_page(page);
    }
    for (QTabBar* tabs : window_->stage(stage.key)->findChildren<QTabBar*>())
      if (tabs->isVisible() && one_in(2))
        tabs->setCurrentIndex(static_cast<int>(draw(static_cast<std::size_t>(tabs->count()))));
  }
  void elsewhere() {
    switch (draw(6)) {
    case 0:
      note("variant");
      return key(one_in(2) ? Qt::Key_PageDown : Qt::Key_PageUp, Qt::ControlModifier);
    case 1:
      note("load case");
      return desk().set_load_case(draw(desk().assessment().loads.size()));
    case 2:
      note("end");
      return desk().set_end(one_in(2) ? End::front : End::rear);
    case 3:
      note("save");
      return key(Qt::Key_S, Qt::ControlModifier);
    default:
      note(one_in(3) ? "redo" : "undo");
      return key(Qt::Key_Z, acts_.back() == "redo" ? Qt::ControlModifier | Qt::ShiftModifier : Qt::ControlModifier);
    }
  }
  void act() {
    const std::size_t what = draw(20);
    if (what < 8)
      click();
    else if (what < 12)
      strike();
    else if (what < 15)
      type();
    else if (what < 16)
      choose();
    else if (what < 18)
      elsewhere();
    else
      go();
    QCoreApplication::processEvents();
  }

  std::mt19937 lot_;
  std::deque<QString> acts_; // the last ones
  QTimer answers_;
};

TEST_F(PlayerTest, NothingThatAHandDoesBreaksItOrIsMoreThanUndoTakesBack) {
  const unsigned seed = qEnvironmentVariableIntValue("MAVREL_PLAY_SEED")
                            ? static_cast<unsigned>(qEnvironmentVariableIntValue("MAVREL_PLAY_SEED"))
                            : 28;
  const int seconds = qEnvironmentVariableIntValue("MAVREL_PLAY_SECONDS");
  constexpr int acts_a_game = 160; // fewer steps than undo keeps
  const QString demo = QStringLiteral(MAVREL_DEMO);
  const QStringList cars{demo + "/sorrel-wayfare.mavrel", demo + "/hollin-tarnway.mavrel", demo + "/shop/w-14.mavrel",
                         demo + "/shop/t-03.mavrel",      demo + "/shop/w-16.mavrel",      demo + "/shop/w-11.mavrel"};
  QStringList said;
  warned = &said;
  const auto before = qInstallMessageHandler(hear);
  QElapsedTimer clock;
  clock.start();
  int games = 0, acts = 0, undone = 0;
  for (unsigned game = 0; game < 2 || clock.elapsed() < 1000LL * seconds; ++game) {
    lot_.seed(seed + game);
    acts_.clear();
    const auto copy_of = folder_ / ("game" + std::to_string(game) + ".mavrel");
    std::filesystem::copy_file(cars[static_cast<qsizetype>(game) % cars.size()].toStdString(), copy_of,
                               std::filesystem::copy_options::overwrite_existing);
    ASSERT_TRUE(window_->open_file(QString::fromStdString(copy_of.string())));
    QCoreApplication::processEvents();
    const build::Build first = build();
    const auto of = [&](int n) {
      QStringList last;
      for (const QString& one : acts_)
        last << "  " + one;
      return QString("MAVREL_PLAY_SEED=%1, act %2 of game %3:\n%4")
          .arg(seed)
          .arg(n)
          .arg(game)
          .arg(last.join('\n'))
          .toStdString();
    };
    int n = 0;
    for (; n < acts_a_game; ++n) {
      act();
      if (desk().document().file() != copy_of) break; // another car is open: that game is over
      ASSERT_TRUE(said.isEmpty()) << said.join('\n').toStdString() << "\n" << of(n);
    }
    ++games;
    acts += n;
    if (desk().document().file() != copy_of) continue;
    // What is half typed is given up, then everything is taken back.
    if (QWidget* focus = QApplication::focusWidget()) QTest::keyClick(focus, Qt::Key_Escape);
    for (int steps = 0; steps < 600 && desk().document().history().can_undo(); ++steps)
      desk().document().undo(), ++undone;
    build::Build back = build();
    back.active_variant = first.active_variant;
    EXPECT_TRUE(back == first) << "undo does not come back to where it began: " << of(n);
  }
  qInstallMessageHandler(before);
  warned = nullptr;
  if (seconds > 0) std::printf("%d games, %d acts, %d steps undone\n", games, acts, undone);
  EXPECT_GT(acts, 100);
  EXPECT_GT(undone, 0) << "nothing was edited";
}

} // namespace
} // namespace mavrel::app

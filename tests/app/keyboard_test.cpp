// A car from nothing to paper with keys alone: no mouse, and no widget is spoken to that has not the focus.
#include "app/every_page.h"

#include "app/stages/fit_up/questions.h"
#include "build/care.h"

#include <QContextMenuEvent>
#include <QDialog>
#include <QFileDialog>
#include <QMenu>
#include <QTableWidget>

namespace mavrel::app {
namespace {

class KeyboardTest : public WindowTest {
protected:
  void press(Qt::Key key, Qt::KeyboardModifiers with = Qt::NoModifier) {
    QWidget* on = QApplication::focusWidget();
    QTest::keyClick(on ? on : window_.get(), key, with);
    settle_events();
  }
  void write(const QString& text) {
    QTest::keyClicks(QApplication::focusWidget(), text);
    settle_events();
  }
  /// Tab, until it has the focus.
  bool tab_to(const std::function<bool(QWidget*)>& is_it) {
    QApplication::setActiveWindow(window_.get());
    for (int i = 0; i < 400; ++i) {
      QWidget* on = QApplication::focusWidget();
      if (on && is_it(on)) return true;
      press(Qt::Key_Tab);
    }
    return false;
  }
  bool tab_to(const char* name) {
    return tab_to([&](QWidget* one) { return one->objectName() == name; });
  }
  void fill_in(const QString& path, const QString& text) {
    ASSERT_TRUE(tab_to([&](QWidget* one) {
      const auto* field = qobject_cast<Field*>(one->parentWidget());
      return field && desk().resolve(field->path()) == desk().resolve(path);
    })) << path.toStdString();
    write(text);
    press(Qt::Key_Return);
  }
  /// By name, with the finder.
  void go(const QString& words) {
    QTimer answers;
    answers.setSingleShot(true);
    answers.callOnTimeout([&] {
      QWidget* finder = QApplication::activeModalWidget();
      ASSERT_NE(finder, nullptr);
      QTest::keyClicks(finder->findChild<QLineEdit*>(), words);
      QTest::keyClick(finder->findChild<QLineEdit*>(), Qt::Key_Return);
      if (QApplication::activeModalWidget() != finder) return;
      ADD_FAILURE() << "nothing is called " << words.toStdString();
      QTest::keyClick(finder, Qt::Key_Escape);
    });
    answers.start(30);
    QApplication::setActiveWindow(window_.get());
    press(Qt::Key_K, Qt::ControlModifier);
    EXPECT_FALSE(answers.isActive()) << "the finder did not come for " << words.toStdString();
    QApplication::setActiveWindow(window_.get());
    settle_events();
  }
};

TEST_F(KeyboardTest, ACarIsBegunAndItsBagAndObstacleAreChosen) {
  press(Qt::Key_N, Qt::ControlModifier);
  ASSERT_TRUE(tab_to("start_empty"));
  press(Qt::Key_Space);
  ASSERT_TRUE(build().job.car.empty());
  for (const auto& [path, text] : {std::pair{"front.left.mass_kg", "410 kg"},
                                   {"front.left.height_m", "378 mm"},
                                   {"rear.left.mass_kg", "340 kg"},
                                   {"rear.left.height_m", "385 mm"},
                                   {"front.wheel", "215/45R17 7.5 ET42"}})
    fill_in(path, text);
  EXPECT_EQ(desk().field("front.left.height_m").shown, "378 mm");
  // What is wished for.
  ASSERT_TRUE(tab_to("car_in_tabs"));
  for (int i = 0; i < 3; ++i)
    press(Qt::Key_Right);
  const std::size_t presets = build().variant().brief.presets.size();
  ASSERT_TRUE(tab_to("add_preset"));
  press(Qt::Key_Space);
  ASSERT_EQ(build().variant().brief.presets.size(), presets + 1) << told().toStdString();
  const QString preset = "@.brief.presets." + QString::number(presets) + ".";
  fill_in(preset + "name", "Low road");
  fill_in(preset + "front", "330 mm");
  EXPECT_EQ(build().variant().brief.presets.back().name, "Low road");
  EXPECT_TRUE(build().variant().brief.presets.back().wish[0]) << told().toStdString();
  // A bag.
  press(Qt::Key_2, Qt::ControlModifier);
  ASSERT_TRUE(tab_to("bag_table"));
  press(Qt::Key_Down);
  press(Qt::Key_Return);
  EXPECT_FALSE(build().variant().fit[build::at(desk().end())].bag.empty()) << told().toStdString();
  // Something near the wheel.
  press(Qt::Key_4, Qt::ControlModifier);
  ASSERT_TRUE(tab_to("add_obstacle"));
  QTimer answers;
  answers.setSingleShot(true);
  answers.callOnTimeout([] {
    if (QWidget* menu = QApplication::activePopupWidget()) {
      QTest::keyClick(menu, Qt::Key_Down);
      QTest::keyClick(menu, Qt::Key_Return);
    }
  });
  answers.start(50);
  press(Qt::Key_Space);
  settle_events();
  EXPECT_EQ(build().end(desk().end()).obstacles.size(), 1U);
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build().end(desk().end()).obstacles.size(), 0U);
}

TEST_F(KeyboardTest, ALineIsLaidALiftTurnedACheckSignedAnEntryStruckOutAndPaperWritten) {
  // A line.
  go("fit-up: routes");
  const auto points = [&] {
    std::size_t sum = 0;
    for (const build::Route& r : build().variant().fit_up->routes)
      sum += r.points.size();
    return sum;
  };
  const std::size_t before = points();
  ASSERT_TRUE(tab_to("add_way_point"));
  press(Qt::Key_Space);
  EXPECT_GT(points(), before);
  // A lift the other way.
  go("air: lift");
  ASSERT_TRUE(tab_to("lift_from"));
  auto* from = static_cast<QComboBox*>(QApplication::focusWidget());
  const int was = from->currentIndex();
  press(was == 0 ? Qt::Key_Down : Qt::Key_Up);
  EXPECT_NE(from->currentIndex(), was);
  // A check.
  go("port hold point");
  ASSERT_TRUE(tab_to("begin_check"));
  press(Qt::Key_Space);
  const auto signed_now = [&] {
    int out = 0;
    for (const build::HoldCheck& c : build().variant().fit_up->checks)
      out += c.result == build::CheckResult::passed;
    return out;
  };
  const int stood = signed_now();
  ASSERT_TRUE(tab_to([](QWidget* one) { return one->objectName().startsWith("yes_"); }));
  press(Qt::Key_Space);
  while (
      tab_to([](QWidget* one) { return one->objectName().startsWith("yes_") || one->objectName() == "signed_by"; }) &&
      QApplication::focusWidget()->objectName() != "signed_by") {
    press(Qt::Key_Space);
    press(Qt::Key_Tab);
  }
  write("Tamsin");
  {
    const TakesOn taking("Tamsin");
    ASSERT_TRUE(tab_to("sign_check"));
    press(Qt::Key_Space);
  }
  EXPECT_GT(signed_now(), stood) << told().toStdString();
  // An entry of the log, and out again.
  go("care: logbook");
  const std::size_t entries = build().care->log.size();
  ASSERT_TRUE(tab_to("log_kind"));
  press(Qt::Key_End); // a remark
  ASSERT_TRUE(tab_to("log_text"));
  write("Squeaks on the market road");
  press(Qt::Key_Return);
  ASSERT_EQ(build().care->log.size(), entries + 1) << told().toStdString();
  ASSERT_TRUE(tab_to("care_log"));
  press(Qt::Key_Down);
  ASSERT_TRUE(tab_to("log_remove"));
  press(Qt::Key_Space);
  EXPECT_EQ(build().care->log.size(), entries);
  // A table in another order.
  go("fit-up: cut and buy");
  ASSERT_TRUE(tab_to("parts_list"));
  auto* list = static_cast<QTableWidget*>(QApplication::focusWidget());
  const QString top = list->item(0, 0)->text();
  QContextMenuEvent menu_key(QContextMenuEvent::Keyboard, {}, {});
  QApplication::sendEvent(list, &menu_key);
  QWidget* menu = QApplication::activePopupWidget();
  ASSERT_NE(menu, nullptr);
  for (int i = 0; i < 2; ++i) // from below: by what each costs
    QTest::keyClick(menu, Qt::Key_Up);
  QTest::keyClick(menu, Qt::Key_Return);
  settle_events();
  EXPECT_NE(list->item(0, 0)->text(), top);
  // On paper.
  const auto paper = folder_ / "sheet.pdf";
  const QObject answers; // while it stands
  QTimer::singleShot(200, &answers, [&] {
    auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
    ASSERT_NE(dialog, nullptr);
    auto* line = dialog->findChild<QLineEdit*>();
    line->selectAll();
    QTest::keyClicks(line, QString::fromStdString(paper.string()));
    QTest::keyClick(line, Qt::Key_Return);
  });
  QApplication::setActiveWindow(window_.get());
  list->setFocus(); // where the menu came from
  press(Qt::Key_P, Qt::ControlModifier | Qt::ShiftModifier);
  wait_for([&] { return std::filesystem::exists(paper); }, 20000);
}

} // namespace
} // namespace mavrel::app

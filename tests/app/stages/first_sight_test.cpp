// What one meets first: a build with hardly anything in it, the tape, and posts whose labels can be read.
#include "app/kit/height_posts.h"
#include "app/shell/stages.h"
#include "app/stages/bags/questions/questions.h"
#include "app/stages/car_in/tape_drawing.h"
#include "app/stages/car_in/tape_mode.h"
#include "app/window_fixture.h"
#include "assess/end/end_answer.h"
#include "assess/rows.h"

#include <QPainter>

#include <set>

namespace mavrel::app {
namespace {

class FirstSight : public WindowTest {
protected:
  HeightPosts* posts() { return window_->findChild<HeightPosts*>(); }
  TapeDrawing* drawing() { return window_->findChild<TapeDrawing*>(); }

  /// No two labels of an end touch, and none stands outside the widget.
  void expect_labels_apart(const char* when) {
    for (const End end : build::both_ends) {
      const auto labels = posts()->labels(end);
      for (std::size_t i = 0; i < labels.size(); ++i) {
        EXPECT_GE(labels[i].box.top(), 0) << when;
        EXPECT_LE(labels[i].box.bottom(), posts()->height()) << when;
        for (std::size_t k = 0; k < i; ++k)
          EXPECT_FALSE(labels[i].box.intersects(labels[k].box))
              << when << ": " << labels[i].number.toStdString() << " and " << labels[k].number.toStdString();
      }
    }
  }
};

TEST_F(FirstSight, FiveReadingsTypedIntoANewBuildGiveARoughWindowAtBothEnds) {
  desk().document().put(build::empty_build(), {}, true);
  window_->go_to_stage("car_in");
  for (const auto& [path, text] : {std::pair{"front.left.mass_kg", "410"}, std::pair{"rear.left.mass_kg", "340"},
                                   std::pair{"front.left.height_m", "378"}, std::pair{"rear.left.height_m", "385"},
                                   std::pair{"front.wheel", "215/45R17 7.5 ET42"}})
    type(path, text);
  for (const End end : build::both_ends) {
    const auto& e = desk().assessment().end(end);
    ASSERT_TRUE(e.windows.reach && e.windows.road);
    EXPECT_TRUE(e.rough());
    const auto labels = posts()->labels(end);
    ASSERT_EQ(labels.size(), 4U);
    for (const auto& label : labels)
      EXPECT_TRUE(label.number.startsWith("≈")) << "a rough number is marked";
  }
  // What stands in is shown where it is to be measured, until it is.
  Field* ratio = field("front.motion_ratio");
  ASSERT_NE(ratio, nullptr);
  EXPECT_TRUE(ratio->edit()->placeholderText().contains("≈")) << ratio->edit()->placeholderText().toStdString();
  EXPECT_TRUE(ratio->edit()->text().isEmpty());
  type("front.motion_ratio", "0.9");
  EXPECT_DOUBLE_EQ(*desk().assessment().end(End::front).motion_ratio, 0.9);
  // The finding leads to the reading that would firm it up most.
  const auto& findings = desk().assessment().findings;
  const auto rough =
      std::find_if(findings.begin(), findings.end(), [](const auto& f) { return f.code == "window_rough"; });
  ASSERT_NE(rough, findings.end());
  emit desk().went_to("car_in", QString::fromStdString(rough->place));
  ASSERT_NE(window_->focusWidget(), nullptr);
  EXPECT_EQ(static_cast<Field*>(window_->focusWidget()->parentWidget())->path().toStdString(), rough->place);
}

TEST_F(FirstSight, LabelsOnThePostsNeverTouch) {
  desk().set_load_case(1);
  window_->go_to_stage("bags");
  QCoreApplication::processEvents();
  expect_labels_apart("the demo at 1280 × 800");
  for (const char* stack : {"0 mm", "20 mm", "34 mm", "46 mm", "60 mm"})
    for (const char* bump : {"0 mm", "12 mm", "45 mm", "60 mm"}) {
      ASSERT_FALSE(desk().type("@.front.upper_stack_m", stack));
      ASSERT_FALSE(desk().type("@.rear.upper_stack_m", stack));
      ASSERT_FALSE(desk().type("@.brief.bump_travel_m", bump));
      expect_labels_apart(stack);
    }
  window_->resize(1100, 700);
  QCoreApplication::processEvents();
  expect_labels_apart("the least window");
}

TEST_F(FirstSight, NamesOnThePostsAreWhole) {
  desk().set_load_case(1);
  const QFontMetricsF metrics(desk().look().font(TextSize::small));
  for (const End end : build::both_ends)
    for (const auto& label : posts()->labels(end))
      EXPECT_LE(metrics.horizontalAdvance(label.name), label.box.width()) << label.name.toStdString();
}

TEST_F(FirstSight, TheTapeLiesWhereTheReadingIsTaken) {
  car_in()->begin_tape();
  QCoreApplication::processEvents();
  auto* tape = window_->findChild<TapeMode*>();
  ASSERT_TRUE(drawing()->isVisible());
  EXPECT_FALSE(posts()->isVisible()) << "the car has the page to itself";
  EXPECT_EQ(tape->place(), "front.left.height_m");
  const QLineF front = drawing()->tape();
  EXPECT_GT(front.length(), 40) << "large";
  EXPECT_DOUBLE_EQ(front.x1(), front.x2()) << "straight up from the hub";
  EXPECT_LT(front.y2(), front.y1());
  std::set<QString> seen;
  int taped = 0;
  for (int i = 0; i < 40 && !seen.contains(tape->place()); ++i) {
    seen.insert(tape->place());
    if (drawing()->tape().length() > 1) {
      ++taped;
      EXPECT_TRUE(drawing()->rect().adjusted(-1, -1, 1, 1).contains(drawing()->tape().p1().toPoint()))
          << tape->place().toStdString();
      EXPECT_TRUE(drawing()->rect().adjusted(-1, -1, 1, 1).contains(drawing()->tape().p2().toPoint()))
          << tape->place().toStdString();
    }
    QTest::keyClick(window_->focusWidget(), Qt::Key_Down);
  }
  EXPECT_GE(seen.size(), 24U);
  EXPECT_GE(taped, 12) << "heights, springs, dampers, gaps, the wheelbase";
  // A longer height is a longer tape.
  const auto tape_at = [&](const char* path) {
    drawing()->show_place(path);
    return drawing()->tape().length();
  };
  const double before = tape_at("front.left.height_m");
  ASSERT_FALSE(desk().type("front.left.height_m", "420 mm"));
  ASSERT_FALSE(desk().type("front.right.height_m", "420 mm"));
  EXPECT_GT(tape_at("front.left.height_m"), before * 1.05);
  QTest::keyClick(window_->focusWidget(), Qt::Key_Escape);
  EXPECT_TRUE(posts()->isVisible());
}

TEST_F(FirstSight, EveryPlaceOfTheTapeIsDrawn) {
  car_in()->begin_tape();
  QCoreApplication::processEvents();
  std::set<QByteArray> pictures;
  for (const char* path : {"front.left.height_m", "rear.left.height_m", "front.left.mass_kg", "front.wheel",
                           "front.spring_length_m", "front.damper_length_m", "front.damper_open_m", "rear.motion_ratio",
                           "front.bump_stop_gap_m", "rear.bag_room_m", "body.wheelbase_m"}) {
    drawing()->show_place(path);
    const QImage picture = drawing()->grab().toImage().convertToFormat(QImage::Format_RGB32);
    EXPECT_TRUE(
        pictures.insert(QByteArray(reinterpret_cast<const char*>(picture.constBits()), picture.sizeInBytes())).second)
        << path << " looks like another place";
  }
}

TEST(Tables, StagesAndQuestionsHaveKeysAndKeysOfTheirOwn) {
  std::set<std::string> keys, strokes;
  std::size_t with_findings = 0;
  for (const StageEntry& entry : stage_entries()) {
    EXPECT_TRUE(keys.insert(entry.key).second) << entry.key;
    EXPECT_TRUE(strokes.insert(entry.keys).second) << entry.keys;
    if (!entry.stage) continue;
    ++with_findings;
    EXPECT_STREQ(entry.stage->key, entry.key);
  }
  EXPECT_EQ(with_findings, assess::all_stages().size()) << "every stage that something can be found at has a page";
  for (const QuestionEntry& entry : question_entries()) {
    EXPECT_TRUE(keys.insert(entry.key).second) << entry.key;
    for (const QuestionField& one : entry.fields) {
      QString path = QString(one.path).replace("@", "variants.0").replace("#", "front");
      EXPECT_TRUE(build::look_up(test::demo_build(), path.toStdString(), {})) << one.path;
    }
  }
}

} // namespace
} // namespace mavrel::app

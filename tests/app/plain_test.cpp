// What a person typed is text on every page: markup in names neither shows as markup nor reads a file.
#include "app/kit/plain.h"

#include "app/kit/paged_stage.h"
#include "app/shell/stages.h"
#include "app/window_fixture.h"
#include "build/brief.h"

#include <QHelpEvent>
#include <QMessageBox>
#include <QTableWidget>
#include <QToolButton>
#include <QToolTip>

namespace mavrel::app {
namespace {

const char* const markup = "<img src='x.png'><b>A & B</b>";

build::Build marked_up() {
  build::Build b = test::demo_whole();
  for (std::string* text : {&b.job.car, &b.job.number, &b.job.owner, &b.job.shop, &b.job.notes, &b.job.platform})
    *text = markup;
  for (std::size_t i = 0; i < b.load_cases.size(); ++i)
    b.load_cases[i].name = markup + std::to_string(i);
  for (const End end : build::both_ends)
    for (std::size_t i = 0; i < b.end(end).obstacles.size(); ++i)
      b.end(end).obstacles[i].name = markup;
  for (std::size_t v = 0; v < b.variants.size(); ++v) {
    b.variants[v].name = markup + std::to_string(v);
    for (std::size_t i = 0; i < b.variants[v].brief.presets.size(); ++i)
      b.variants[v].brief.presets[i].name = markup + std::to_string(i);
    for (std::size_t i = 0; i < b.variants[v].brief.grounds.size(); ++i)
      b.variants[v].brief.grounds[i].name = markup;
  }
  for (std::size_t i = 0; i < b.body.underside.size(); ++i)
    b.body.underside[i].name = markup;
  for (std::size_t i = 0; i < b.body.hot.size(); ++i)
    b.body.hot[i].name = markup;
  return b;
}

using PlainTest = WindowTest;

TEST_F(PlainTest, NoLabelOfAnyPageTakesANameForMarkup) {
  const auto file = folder_ / "marked.mavrel";
  ASSERT_TRUE(build::save(marked_up(), file));
  ASSERT_TRUE(window_->open_file(QString::fromStdString(file.string())));
  int labels = 0, with_it = 0;
  const auto look = [&](const QString& where) {
    QApplication::processEvents();
    for (const QLabel* label : window_->findChildren<QLabel*>()) {
      ++labels;
      with_it += label->text().contains("<img");
      EXPECT_NE(label->textFormat(), Qt::AutoText) << where.toStdString() << label->text().toStdString();
      EXPECT_FALSE(label->textFormat() == Qt::RichText && label->text().contains("<img"))
          << where.toStdString() << ": " << label->text().toStdString();
    }
  };
  for (const StageEntry& stage : stage_entries()) {
    window_->go_to_stage(stage.key);
    look(stage.key);
    if (auto* paged = dynamic_cast<PagedStage*>(window_->stage(stage.key)))
      for (int page = 0; page < 9; ++page) {
        paged->show_page(page);
        look(QString("%1 %2").arg(stage.key).arg(page));
      }
  }
  EXPECT_GT(labels, 500);
  EXPECT_GT(with_it, 20) << "the names are shown";
}

TEST_F(PlainTest, AnAndIsOneOnButtons) {
  const auto file = folder_ / "marked.mavrel";
  ASSERT_TRUE(build::save(marked_up(), file));
  ASSERT_TRUE(window_->open_file(QString::fromStdString(file.string())));
  int chips = 0;
  for (const QToolButton* button : window_->findChildren<QToolButton*>())
    if (button->toolTip().contains("<b>A & B")) {
      ++chips;
      EXPECT_FALSE(QString(button->text()).remove("&&").contains('&')) << button->text().toStdString();
    }
  EXPECT_GE(chips, 4) << "variants and load cases";
}

TEST_F(PlainTest, TipsAreText) {
  QTableWidget table(1, 1, window_.get());
  auto* item = new QTableWidgetItem("cell");
  item->setToolTip(markup);
  table.setItem(0, 0, item);
  PlainLabel label("name", window_.get());
  label.setToolTip(markup);
  table.setGeometry(300, 300, 200, 80);
  table.show();
  label.show();
  const auto ask_tip = [&](QWidget* of, QPoint at) {
    QHelpEvent help(QEvent::ToolTip, at, of->mapToGlobal(at));
    QApplication::sendEvent(of, &help);
    return QToolTip::text();
  };
  for (const QString& tip : {ask_tip(&label, {2, 2}), ask_tip(table.viewport(), table.visualItemRect(item).center())}) {
    EXPECT_TRUE(tip.contains("&lt;img")) << tip.toStdString();
    EXPECT_FALSE(tip.contains("<img")) << tip.toStdString();
    QToolTip::hideText();
  }
  label.setToolTip("plain words");
  EXPECT_EQ(ask_tip(&label, {2, 2}), "plain words");
}

} // namespace
} // namespace mavrel::app

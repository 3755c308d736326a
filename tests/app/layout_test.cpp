// Every page at every size of text: nothing lies over another thing, nothing is out of reach, no word is cut.
#include "app/every_page.h"
#include "app/kit/plain.h"
#include "app/shell/work_area.h"
#include "app/stages/bags/bags.h"
#include "app/stages/bags/search/search_page.h"
#include "app/stages/leveling/bench_page.h"
#include "app/stages/leveling/drive_page.h"
#include "app/stages/leveling/leveling.h"
#include "app/theme/look.h"

#include <QAbstractItemView>
#include <QScrollArea>
#include <QScrollBar>
#include <QStyleOptionComboBox>
#include <QTableWidget>

#include <map>

namespace mavrel::app {
namespace {

/// What is read or used, and is no part of another such thing.
bool is_leaf(const QWidget* one) {
  return qobject_cast<const QLabel*>(one) || qobject_cast<const QAbstractButton*>(one) ||
         qobject_cast<const QLineEdit*>(one) || qobject_cast<const QComboBox*>(one) ||
         qobject_cast<const QAbstractItemView*>(one);
}

bool is_part_of_a_leaf(const QWidget* one) {
  for (const QWidget* around = one->parentWidget(); around; around = around->parentWidget())
    if (is_leaf(around)) return true;
  return false;
}

QString name_of(const QWidget* one) {
  QString text;
  if (auto* label = qobject_cast<const QLabel*>(one)) text = label->text();
  if (auto* button = qobject_cast<const QAbstractButton*>(one)) text = button->text();
  if (auto* line = qobject_cast<const QLineEdit*>(one)) text = line->text();
  if (auto* box = qobject_cast<const QComboBox*>(one)) text = box->currentText();
  return QString("%1 %2 “%3” (%4)")
      .arg(one->metaObject()->className(), one->objectName(), text.left(50), one->accessibleName());
}

class LayoutTest : public WindowTest {
protected:
  /// The part of a widget that can be brought into sight, in the window; what lies in a page that scrolls counts whole
  /// in the directions in which that scrolls.
  QRect reachable(const QWidget* one) {
    QRect all = one->rect();
    for (const QWidget* at = one; at != window_.get(); at = at->parentWidget()) {
      all.translate(at->pos());
      const QWidget* around = at->parentWidget();
      QRect room = around->rect();
      const auto* scrolls = qobject_cast<const QAbstractScrollArea*>(around->parentWidget());
      if (scrolls && scrolls->viewport() == around) {
        // What it hides it can show.
        const auto into = [](int from, int size, int of) {
          return std::clamp(from, std::min(0, of - size), std::max(0, of - size));
        };
        if (scrolls->verticalScrollBarPolicy() != Qt::ScrollBarAlwaysOff)
          all.moveTop(into(all.top(), all.height(), room.height())),
              room.setHeight(std::max(room.height(), all.height()));
        const bool sideways = scrolls->horizontalScrollBarPolicy() != Qt::ScrollBarAlwaysOff;
        if (sideways && all.width() >= room.width()) return one->rect(); // end by end
        if (sideways)
          all.moveLeft(into(all.left(), all.width(), room.width())), room.setWidth(std::max(room.width(), all.width()));
        all.moveTopLeft({std::max(0, all.left()), std::max(0, all.top())});
      }
      all &= room;
    }
    return all;
  }

  std::vector<QWidget*> leaves() {
    std::vector<QWidget*> out;
    for (QWidget* one : window_->findChildren<QWidget*>())
      if (one->isVisible() && one->window() == window_.get() && is_leaf(one) && !is_part_of_a_leaf(one) &&
          one->width() > 0 && one->height() > 0)
        out.push_back(one);
    return out;
  }

  /// What takes most of a page that is too wide.
  static std::string widest(const QWidget* page, int room) {
    QStringList out;
    for (const QWidget* one : page->findChildren<QWidget*>()) {
      if (!one->isVisible() || !one->parentWidget() || !one->parentWidget()->layout()) continue;
      const int least = QWidgetItem(const_cast<QWidget*>(one)).minimumSize().width();
      if (least > room / 4) out << QString("at least %1 px: %2").arg(least).arg(name_of(one));
    }
    return out.join("\n  ").toStdString();
  }

  /// What is wrong with what is shown.
  QStringList faults() {
    QStringList out;
    const auto all = leaves();
    std::vector<QRect> seen;
    for (QWidget* one : all) {
      seen.push_back(one->visibleRegion().isEmpty()
                         ? QRect()
                         : one->visibleRegion().boundingRect().translated(one->mapTo(window_.get(), QPoint())));
      const QRect there = reachable(one);
      if (there.width() < one->width() - 2 || (there.height() < one->height() - 2 && there.height() < 40))
        out << QString("cut to %1 × %2 of %3 × %4: %5")
                   .arg(there.width())
                   .arg(there.height())
                   .arg(one->width())
                   .arg(one->height())
                   .arg(name_of(one));
      if (auto* label = qobject_cast<QLabel*>(one);
          label && !label->wordWrap() && !qobject_cast<CutLabel*>(label) && label->textFormat() == Qt::PlainText) {
        const int wanted = label->fontMetrics().size(0, label->text()).width();
        if (wanted > label->contentsRect().width() + 2)
          out << QString("words cut, %1 of %2: %3").arg(label->contentsRect().width()).arg(wanted).arg(name_of(one));
      }
      if (auto* button = qobject_cast<QAbstractButton*>(one); button && !button->text().isEmpty()) {
        const int wanted = button->fontMetrics().size(Qt::TextShowMnemonic, button->text()).width();
        if (wanted > button->width() - 2)
          out << QString("words cut, %1 of %2: %3").arg(button->width()).arg(wanted).arg(name_of(one));
      }
      if (auto* table = qobject_cast<QTableWidget*>(one))
        for (int r = 0; r < std::min(table->rowCount(), 12); ++r)
          for (int c = 0; c < table->columnCount(); ++c) {
            const QTableWidgetItem* cell = table->item(r, c);
            if (!cell || cell->text().size() > 20) continue;
            const int wanted = QFontMetrics(cell->font().resolve(table->font())).horizontalAdvance(cell->text());
            if (wanted > table->columnWidth(c) - 4)
              out << QString("cell cut, %1 of %2: “%3” of %4")
                         .arg(table->columnWidth(c))
                         .arg(wanted)
                         .arg(cell->text(), table->objectName());
          }
      if (auto* box = qobject_cast<QComboBox*>(one); box && box->currentText().size() <= 20) {
        QStyleOptionComboBox option;
        option.initFrom(box);
        const int room =
            box->style()->subControlRect(QStyle::CC_ComboBox, &option, QStyle::SC_ComboBoxEditField, box).width();
        const int wanted = box->fontMetrics().horizontalAdvance(box->currentText());
        if (wanted > room + 2) out << QString("words cut, %1 of %2: %3").arg(room).arg(wanted).arg(name_of(one));
      }
      if (auto* line = qobject_cast<QLineEdit*>(one); line && !line->isReadOnly() && line->text().size() <= 20) {
        const int wanted = line->fontMetrics().horizontalAdvance(line->text());
        const int around = line->sizeHint().width() - 17 * line->fontMetrics().horizontalAdvance('x');
        if (wanted > line->width() - around)
          out << QString("words cut, %1 of %2: %3").arg(line->width()).arg(wanted).arg(name_of(one));
      }
    }
    for (std::size_t i = 0; i < all.size(); ++i)
      for (std::size_t j = i + 1; j < all.size(); ++j) {
        const QRect both = seen[i] & seen[j];
        if (both.width() > 3 && both.height() > 3 && !all[i]->isAncestorOf(all[j]) && !all[j]->isAncestorOf(all[i]))
          out << QString("%1 × %2 of %3 over %4")
                     .arg(both.width())
                     .arg(both.height())
                     .arg(name_of(all[i]), name_of(all[j]));
      }
    out.removeDuplicates();
    return out;
  }
};

TEST_F(LayoutTest, NothingLiesOverAnotherThingOrIsCutAtAnySizeOfText) {
  const QString only = qEnvironmentVariable("MAVREL_LAYOUT");
  std::vector<double> scales{1.0, 0.8, 1.3, 2.0};
  if (!only.isEmpty()) scales = {only.toDouble()};
  for (const double scale : scales) {
    Look look = desk().look();
    look.scale = scale;
    desk().view().set_look(look);
    settle_events();
    on_every_page(*window_, [&](const QString& where) {
      const QStringList wrong = faults();
      // At its usual size a page is seen whole.
      const auto* area = window_->findChild<WorkArea*>();
      EXPECT_TRUE(scale != 1 || area->horizontalScrollBar()->maximum() == 0)
          << where.toStdString() << " at " << scale << " is " << area->horizontalScrollBar()->maximum()
          << " px too wide";
      EXPECT_TRUE(scale != 1 || area->verticalScrollBar()->maximum() == 0)
          << where.toStdString() << " at " << scale << " is " << area->verticalScrollBar()->maximum() << " px too high";
      EXPECT_TRUE(wrong.isEmpty()) << where.toStdString() << " at " << scale << ":\n  "
                                   << wrong.join("\n  ").toStdString();
    });
  }
}

TEST_F(LayoutTest, NorOnceItsAnswersAreThere) {
  window_->go_to_stage("bags");
  auto* bags = dynamic_cast<BagsStage*>(window_->stage("bags"));
  bags->show_side("search");
  click("search_go");
  wait_for([&] { return !bags->search_page()->is_running(); });
  ASSERT_FALSE(desk().type("drive.duration_s", "1 min"));
  ASSERT_FALSE(desk().type("drive.events.0.at_s", "20 s"));
  window_->go_to_stage("leveling");
  auto* leveling = dynamic_cast<LevelingStage*>(window_->stage("leveling"));
  leveling->show_page(0);
  wait_for([&] { return leveling->drive()->is_settled() && leveling->drive()->drives(); });
  leveling->bench()->play();
  wait_for([&] { return leveling->bench()->bench().state() != nullptr; });
  for (const double scale : {1.0, 1.4}) {
    Look look = desk().look();
    look.scale = scale;
    desk().view().set_look(look);
    settle_events();
    on_every_page(*window_, [&](const QString& where) {
      if (!where.startsWith("leveling") && !where.startsWith("bags")) return;
      const QStringList wrong = faults();
      const auto* area = window_->findChild<WorkArea*>();
      EXPECT_TRUE(scale != 1 || area->horizontalScrollBar()->maximum() == 0)
          << where.toStdString() << " is " << area->horizontalScrollBar()->maximum() << " px too wide:\n  "
          << widest(area->widget(), area->viewport()->width());
      EXPECT_TRUE(wrong.isEmpty()) << where.toStdString() << " at " << scale << ":\n  "
                                   << wrong.join("\n  ").toStdString();
    });
  }
}

TEST_F(LayoutTest, AnotherSizeOfTextAndBackLeavesNothingBehind) {
  const auto needs = [&] {
    std::map<QString, QSize> out;
    on_every_page(*window_, [&](const QString& where) {
      const auto* area = window_->findChild<WorkArea*>();
      out[where] = area->widget()->size() - area->viewport()->size();
    });
    return out;
  };
  const auto before = needs();
  for (const double scale : {2.0, 1.0}) {
    Look look = desk().look();
    look.scale = scale;
    desk().view().set_look(look);
    settle_events();
    const auto now = needs();
    if (scale != 1) continue;
    for (const auto& [where, size] : before) {
      const auto is = now.find(where);
      ASSERT_NE(is, now.end()) << where.toStdString();
      EXPECT_EQ(is->second, size) << where.toStdString() << " is " << is->second.width() << " × " << is->second.height()
                                  << " px over, was " << size.width() << " × " << size.height();
    }
  }
}

TEST_F(LayoutTest, NorOnAScreenOfWhichHalfIsTakenByItsScale) {
  // 1280 × 800 at one and a half.
  window_->setMinimumSize(0, 0);
  window_->resize(853, 533);
  settle_events();
  on_every_page(*window_, [&](const QString& where) {
    const QStringList wrong = faults();
    EXPECT_TRUE(wrong.isEmpty()) << where.toStdString() << ":\n  " << wrong.join("\n  ").toStdString();
  });
}

} // namespace
} // namespace mavrel::app

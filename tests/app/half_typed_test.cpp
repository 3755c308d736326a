// Half a value in an editor, and then something else is done: it is in the place it was begun at, or it is said why it
// is not; nothing else has changed, nothing is silently gone. `MAVREL_EVERY=1` tries every editor with everything.
#include "app/every_page.h"

#include "app/kit/path_table.h"
#include "build/json.h"

#include <nlohmann/json.hpp>

#include <map>

namespace mavrel::app {
namespace {

using Flat = std::map<std::string, std::string>;
void flatten(const nlohmann::json& json, const std::string& at, Flat& out) {
  if (json.is_object())
    for (const auto& [key, value] : json.items())
      flatten(value, at.empty() ? key : at + "." + key, out);
  else if (json.is_array() && !json.empty() && json[0].is_structured())
    for (std::size_t i = 0; i < json.size(); ++i)
      flatten(json[i], at + "." + std::to_string(i), out);
  else
    out[at] = json.dump();
}
Flat flat(const build::Build& b) {
  Flat out;
  flatten(nlohmann::json::parse(build::to_json(b)), "", out);
  out.erase("active_variant");
  return out;
}
/// Paths of what is not as it was.
std::set<std::string> changed(const Flat& before, const Flat& after) {
  std::set<std::string> out;
  for (const auto* side : {&before, &after})
    for (const auto& [path, value] : *side) {
      const auto a = before.find(path), b = after.find(path);
      if (a == before.end() || b == after.end() || a->second != b->second) out.insert(path);
    }
  return out;
}

class HalfTypedTest : public WindowTest {
protected:
  struct Act {
    const char* name;
    std::function<void()> act;
  };
  std::vector<Act> acts() {
    return {{"save", [this] { key(Qt::Key_S, Qt::ControlModifier); }},
            {"another page", [this] { window_->go_to_stage("care"); }},
            {"the first page", [this] { window_->go_to_stage("car_in"); }},
            {"another variant", [this] { key(Qt::Key_PageDown, Qt::ControlModifier); }},
            {"the other end", [this] { desk().set_end(desk().end() == End::front ? End::rear : End::front); }},
            {"another load case", [this] { key(Qt::Key_L, Qt::ControlModifier); }},
            {"a copy", [this] { key(Qt::Key_D, Qt::ControlModifier); }}};
  }
};

/// One place that something is typed at: what begins it and leaves the caret in it, and which field it is of.
struct Editor {
  QString path;
  std::function<QLineEdit*()> begin; // nullptr: it can't be typed at now
};

/// All of what is shown: fields, and of each table the cells of its first row.
std::vector<Editor> editors(MainWindow& window) {
  std::vector<Editor> out;
  for (Field* one : window.findChildren<Field*>())
    if (one->isVisible() && one->isEnabled() && !one->edit()->isReadOnly())
      out.push_back({one->path(), [one = QPointer(one)]() -> QLineEdit* {
                       if (!one) return nullptr;
                       one->edit()->setFocus(Qt::TabFocusReason);
                       return one->edit();
                     }});
  for (PathTable* table : window.findChildren<PathTable*>()) {
    if (!table->isVisible() || table->rowCount() == 0) continue;
    for (const QString& path : table->paths().mid(0, table->columnCount()))
      if (!path.isEmpty() && !path.startsWith("+"))
        out.push_back({path, [table = QPointer(table), at = window.desk().resolve(path)]() -> QLineEdit* {
                         if (!table || !table->go_to(at)) return nullptr;
                         QTest::keyClick(table, Qt::Key_F2);
                         return qobject_cast<QLineEdit*>(QApplication::focusWidget());
                       }});
  }
  return out;
}

TEST_F(HalfTypedTest, InAnyEditorItIsTakenWhereItWasBegunOrRefusedInWords) {
  const bool every = qEnvironmentVariableIntValue("MAVREL_EVERY") > 0;
  const build::Build first = build();
  const auto all = acts();
  std::size_t turn = 0, tried = 0, taken = 0;
  on_every_page(*window_, [&](const QString& where) {
    const std::size_t count = editors(*window_).size();
    const std::size_t tries = count == 0 ? 0 : every ? count * all.size() : std::min<std::size_t>(2, count);
    const QString stage = where.section(' ', 0, 0);
    for (std::size_t k = 0; k < tries; ++k, ++turn) {
      const auto there = editors(*window_);
      if (there.empty()) return;
      const Editor& one = there[every ? (k / all.size()) % there.size() : (turn * 7) % there.size()];
      const Act& act = all[every ? k % all.size() : turn % all.size()];
      const std::string path = desk().resolve(one.path).toStdString();
      const Flat before = flat(build());
      const std::size_t variants = build().variants.size();
      const QPointer<QLineEdit> line = one.begin();
      if (!line) continue;
      line->selectAll();
      QTest::keyClicks(line, "13.7");
      desk().tell({});
      act.act();
      settle_events();
      ++tried;
      Flat after = flat(build());
      // A copy takes what was typed with it: only the design it was typed in is looked at.
      if (build().variants.size() > variants) {
        const std::string copy = "variants." + std::to_string(build().variants.size() - 1) + ".";
        std::erase_if(after, [&](const auto& row) { return row.first.starts_with(copy); });
      }
      const auto moved = changed(before, after);
      for (const std::string& other : moved)
        EXPECT_TRUE(other == path || other.starts_with(path + ".") || path.starts_with(other))
            << where.toStdString() << ", " << act.name << ": typed in " << path << ", landed in " << other;
      taken += !moved.empty();
      // Refused it is said; what nobody asked to be taken yet still stands where it was typed.
      const bool stands = line && line->isVisible() && line->text().startsWith("13.7");
      EXPECT_TRUE(!moved.empty() || !told().isEmpty() || stands)
          << where.toStdString() << ", " << act.name << ": what was typed in " << path << " is gone without a word";
      // Everything back, and here again.
      desk().document().put(first, desk().document().file(), true);
      settle_events();
      window_->go_to_stage(stage);
      settle_events();
    }
  });
  EXPECT_GT(tried, 60U);
  EXPECT_GT(taken, tried / 3); // the others stand where they were typed, or were refused
}

} // namespace
} // namespace mavrel::app

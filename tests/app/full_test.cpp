// A build with every list as full as it may be: every page opens, and how long the window stands still is told where
// `MAVREL_TIMES` asks for it.
#include "app/every_page.h"
#include "build/json.h"
#include "build/table.h"

#include <cstdio>

namespace mavrel::app {
namespace {

/// Every list of a struct filled with copies of its first entry, or of a new one, each with a name of its own.
void fill(const build::Table& table, void* in) {
  for (const build::Field& field : table.fields) {
    if (field.type == build::FieldType::object) fill(field.of(), field.own(field.at(in)));
    if (field.type != build::FieldType::list) continue;
    const build::ListType& list = *field.list;
    void* const all = field.at(in);
    if (list.size(all) == 0) list.add(all);
    for (std::size_t i = list.size(all); i < field.most; ++i)
      list.push(all, list.at(all, 0));
    for (std::size_t i = 0; i < list.size(all); ++i) {
      void* const one = list.own(all, i);
      if (const build::Field* name = list.of().name; name && name->type == build::FieldType::text && i > 0)
        name->get<std::string>(one) += " " + std::to_string(i);
      if (i < 2) fill(list.of(), one);
    }
  }
}

class FullTest : public WindowTest {};

TEST_F(FullTest, EveryPageOpensOnABuildWithEveryListFull) {
  build::Build full = build();
  fill(build::table_of<build::Build>(), &full);
  const bool told = qEnvironmentVariableIntValue("MAVREL_TIMES") > 0;
  QElapsedTimer clock;
  clock.start();
  desk().document().put(full, {}, true);
  settle_events();
  if (told) std::printf("%6lld ms opened, %zu bytes\n", clock.elapsed(), build::to_json(full).size());
  int pages = 0;
  clock.start();
  on_every_page(*window_, [&](const QString& where) {
    if (told && clock.elapsed() > 100) std::printf("%6lld ms %s\n", clock.elapsed(), qPrintable(where));
    ++pages;
    clock.start();
  });
  EXPECT_GT(pages, 50);
}

} // namespace
} // namespace mavrel::app

#include "app/stages/doubt/edits.h"

#include "app/desk/desk.h"
#include "build/doubts.h"

#include <QObject>

#include <algorithm>

namespace mavrel::app {

bool set_tool(Desk& desk, const assess::DoubtInput& reading, assess::Tool tool) {
  build::Build build = desk.build();
  auto& list = build.doubts.taken_with;
  const std::string place = assess::taken_place(reading.path);
  std::erase_if(list, [&](const build::TakenWith& t) { return t.what == place; });
  if (tool != reading.usual) {
    if (list.size() >= build::most_taken_with) {
      desk.tell(QObject::tr("%1 readings are taken otherwise than usual already; more are not kept.")
                    .arg(build::most_taken_with));
      return false;
    }
    list.push_back({place, tool, {}});
  }
  desk.edit(QObject::tr("%1: taken with %2").arg(desk.words_of(reading.name), QObject::tr(assess::tool_name(tool))),
            std::move(build));
  return true;
}

} // namespace mavrel::app

#include "assess/fit_up/asking.h"

namespace mavrel::assess {

AskedFigure& Asking::add(std::string key, Message name, Kind kind) {
  AskedFigure& f = figures_.emplace_back();
  f.key = std::move(key);
  f.name = std::move(name);
  f.kind = kind;
  return f;
}

void Asking::yes(const char* key, const char* name) {
  AskedFigure& f = add(key, {name, {}}, Kind::plain);
  f.yes_no = true;
  f.designed = 1;
  f.least = 1;
}

void Asking::both_sides(const std::string& key, const char* name, Kind kind, std::optional<double> designed,
                        double within) {
  for (const build::Side side : build::both_sides) {
    AskedFigure& f = add(key + "_" + build::key_of(side), {words("{0}, {1}"), {name, build::name_of(side)}}, kind);
    f.designed = designed;
    if (designed) f.least = *designed - within, f.most = *designed + within;
    if (side == build::Side::right) f.twin = last() - 1, f.alike = within;
  }
}

} // namespace mavrel::assess

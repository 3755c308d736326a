// Where the kit lies, place by place: room, drain, heat, shake, sound, service, and radio through sheet metal.
#pragma once

#include "assess/fit_up/fit_up_given.h"

namespace mavrel::assess {

enum class PlaceAspect { room, drain, heat, shake, sound, service, radio, seen };
[[nodiscard]] const char* name_of(PlaceAspect aspect);
enum class PlaceJudged { good, care, bad };

struct PlaceWord {
  PlaceAspect aspect = PlaceAspect::room;
  PlaceJudged judged = PlaceJudged::good;
  Message said;
};
struct JudgedPlace {
  Message what;      // `tank`
  std::string part;  // its card
  std::string place; // field of its place, below the variant: `air.tank_at`
  build::PartPlace at;
  std::vector<PlaceWord> words;
  [[nodiscard]] PlaceJudged worst() const;
};
/// Tanks, compressors, valves, controller and handset.
/// Source: docs/models.md, "Places".
[[nodiscard]] std::vector<JudgedPlace> judged_places(const FitUpGiven& given);

} // namespace mavrel::assess

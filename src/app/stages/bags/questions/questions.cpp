#include "app/stages/bags/questions/questions.h"

#include "app/stages/bags/questions/comfort_view.h"
#include "app/stages/bags/questions/gauge_view.h"
#include "app/stages/bags/questions/height_sheet.h"
#include "app/stages/bags/questions/lean_view.h"
#include "app/stages/bags/questions/stroke_view.h"
#include "app/stages/bags/questions/volume_view.h"
#include "app/stages/bags/questions/weather_view.h"

namespace mavrel::app {

namespace {

template <class View>
QuestionView view_of(Desk& desk, QWidget* parent) {
  auto* view = new View(desk, parent);
  QuestionView out{view, nullptr, [view] { return view->summary(); }};
  if constexpr (std::is_base_of_v<HeightPlot, View>) out.plot = view;
  return out;
}

#define WORDS(text) QT_TRANSLATE_NOOP("questions", text)
constexpr QuestionField upper_stack{"@.#.upper_stack_m", WORDS("upper stack"), nullptr};
constexpr QuestionField lower_stack{"@.#.lower_stack_m", WORDS("lower stack"), nullptr};
constexpr QuestionField damper_open{"@.#.damper_open_m", WORDS("other damper, open"), WORDS("as surveyed")};
constexpr QuestionField damper_shut{"@.#.damper_shut_m", WORDS("other damper, shut"), WORDS("as surveyed")};

} // namespace

std::span<const QuestionEntry> question_entries() {
  static const std::vector<QuestionEntry> entries = {
      {"height",
       WORDS("At every height"),
       WORDS("Bag at every height"),
       view_of<HeightSheet>,
       {upper_stack,
        lower_stack,
        damper_open,
        damper_shut,
        {"@.#.damper_gas_n", WORDS("damper's gas force"), nullptr}}},
      {"volume",
       WORDS("Added volume"),
       WORDS("Added volume"),
       view_of<VolumeView>,
       {upper_stack, lower_stack, {"#.tyre_rate_n_per_m", WORDS("tyre's rate"), WORDS("usual")}}},
      {"stroke",
       WORDS("Stroke"),
       WORDS("Through the stroke"),
       view_of<StrokeView>,
       {upper_stack, lower_stack, damper_open, damper_shut, {"#.bump_stop_give_m", WORDS("bump stop gives"), nullptr}}},
      {"weather",
       WORDS("Weather"),
       WORDS("Weather"),
       view_of<WeatherView>,
       {upper_stack,
        lower_stack,
        {"surroundings.night_temperature_k", WORDS("cold night"), nullptr},
        {"surroundings.shut_off_above_k", WORDS("shut off warmer by"), nullptr},
        {"surroundings.pass_altitude_m", WORDS("mountain pass"), nullptr},
        {"surroundings.worked_temperature_k", WORDS("worked air"), nullptr}}},
      {"gauge",
       WORDS("Gauge"),
       WORDS("Does pressure tell height"),
       view_of<GaugeView>,
       {upper_stack,
        lower_stack,
        {"@.brief.gauge_error_pa", WORDS("gauge error ±"), nullptr},
        {"#.friction_n", WORDS("friction at wheel"), nullptr},
        {"@.brief.load_doubt_kg", WORDS("load known to ±"), nullptr}}},
      {"comfort",
       WORDS("Comfort"),
       WORDS("Comfort of the whole car"),
       view_of<ComfortView>,
       {upper_stack, lower_stack}},
      {"lean", WORDS("Lean"), WORDS("Lean"), view_of<LeanView>, {upper_stack, lower_stack}},
  };
  return entries;
}
#undef WORDS

} // namespace mavrel::app

#include "assess/end/fitted_end.h"

#include "build/names.h"

namespace mavrel::assess {

namespace {

/// The bag as this car has taught it: another effective area than its card's, everywhere alike.
std::shared_ptr<const shelf::ShelfBag> with_area(const shelf::ShelfBag& bag, double times) {
  auto out = std::make_shared<shelf::ShelfBag>(bag);
  for (auto& column : out->card.loads)
    for (double& load : column)
      load *= times;
  out->curve = air::BagCurve(out->card);
  return out;
}

} // namespace

FittedEnd fitted_end(const EndGiven& given) {
  FittedEnd out;
  out.model = end_model(given);
  if (given.bag) out.bag = given.bag->pointer();
  if (out.bag && given.fit.learned_area) out.bag = with_area(*out.bag, *given.fit.learned_area);
  out.stand_on(given.fit.upper_stack, given.fit.lower_stack);
  out.presets = preset_heights(given.brief, out.model);
  out.parked = height_of_use(given.brief, out.presets, build::PresetUse::parked);
  out.road = height_of_use(given.brief, out.presets, build::PresetUse::road);
  out.ramp = height_of_use(given.brief, out.presets, build::PresetUse::ramp);
  return out;
}

FittedEnd fitted_end(const build::Build& build, const shelf::Shelf& shelf, End end) {
  return fitted_end(end_given(build, shelf, end));
}

Expected<PosedEnd> posed_end(const FittedEnd& end, double H, std::size_t load_case) {
  const char* name = build::name_of(end.model.end);
  if (!end.model.map) return refuse(words("{0}: the height is needed."), {name});
  if (!end.bag) return refuse(words("{0}: choose a bag first."), {name});
  if (load_case >= end.model.loads.size() || !end.model.loads[load_case])
    return refuse(words("{0}: the corner weights are needed."), {name});
  const BagOnEnd bag = end.on();
  const EndLoad& load = *end.model.loads[load_case];
  const auto place = bag.place(H);
  if (!place) {
    const auto [low, high] = bag.heights();
    return refuse(
        words("{0} at {1} lies outside the bag's card, which answers from {2} to {3}."),
        {name, told_from(metres(H), H < low ? low : high), told_from(metres(low), H), told_from(metres(high), H)});
  }
  const auto state = bag.state(*place, load);
  if (!state) return refuse(words("{0} at {1}: other springs carry all of it."), {name, metres(H)});
  return PosedEnd{*place, load, *state, end.model.spring_force(load.sprung_mass, H, place->map)};
}

} // namespace mavrel::assess

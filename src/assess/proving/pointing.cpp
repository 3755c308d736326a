#include "assess/proving/pointing.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <string_view>

namespace mavrel::assess {

namespace {

constexpr double slow = 1.25, fast = 0.8; // of the time predicted
constexpr double alike = 0.15;            // share that times differ by without meaning anything

class Pointing {
public:
  explicit Pointing(const HoldPoint& point) : point_(point) {}

  std::vector<Pointer> find() {
    constexpr struct {
      std::string_view key;
      void (Pointing::*look)();
    } rows[] = {
        {"fill", &Pointing::fill},         {"leak_minutes", &Pointing::leaks},    {"leak_hold", &Pointing::leaks},
        {"times", &Pointing::times},       {"pressures", &Pointing::pressures},   {"heights", &Pointing::heights},
        {"calibrated", &Pointing::taught}, {"lock_gaps", &Pointing::gaps},        {"gaps", &Pointing::gaps},
        {"top_out", &Pointing::top_out},   {"stop_first", &Pointing::stop_first}, {"road_test", &Pointing::road},
        {"camber", &Pointing::alignment},  {"lamps", &Pointing::lamps},
    };
    for (const auto& row : rows)
      if (row.key == point_.row->key) (this->*row.look)();
    return std::move(out_);
  }

private:
  void add(Message where, const char* cause, const char* next) {
    out_.push_back({std::move(where), {cause, {}}, {next, {}}});
  }
  [[nodiscard]] std::optional<std::size_t> place(std::string_view key) const {
    for (std::size_t i = 0; i < point_.figures.size(); ++i)
      if (point_.figures[i].key == key) return i;
    return std::nullopt;
  }
  [[nodiscard]] bool wrong(std::size_t i) const {
    return std::find(point_.wrong.begin(), point_.wrong.end(), i) != point_.wrong.end();
  }
  [[nodiscard]] bool no(std::string_view key) const {
    const auto i = place(key);
    return i && wrong(*i);
  }
  /// Measured over predicted; none while one of them is missing.
  [[nodiscard]] std::optional<double> over(std::size_t i) const {
    const AskedFigure& f = point_.figures[i];
    if (!point_.measured[i] || !f.designed || !(*f.designed > 0)) return std::nullopt;
    return *point_.measured[i] / *f.designed;
  }
  /// Measured less designed.
  [[nodiscard]] std::optional<double> off(std::size_t i) const {
    const AskedFigure& f = point_.figures[i];
    return point_.measured[i] && f.designed ? std::optional(*point_.measured[i] - *f.designed) : std::nullopt;
  }
  void said_no(std::string_view key, const char* cause, const char* next) {
    if (const auto i = place(key); i && wrong(*i)) add(point_.figures[*i].name, cause, next);
  }

  void fill() {
    said_no("quiet", words("A fitting that is not home, a tube cut askew, a thread without tape."),
            words("Release the pressure, cut the tube square, push it home; soap again."));
    said_no("stands", words("Nobody is safe under a car held by air."), words("Stands first, then the rest."));
    if (const auto i = place("own"))
      if (const auto share = over(*i); share && *share > slow)
        add(point_.figures[*i].name,
            words("A worn or starved compressor, voltage lost on the way, a clogged intake, or a leak that it works "
                  "against."),
            words("Volts at its terminals while it runs; then the tank’s hold with the valves shut."));
    for (const char* key : {"cut_in", "cut_out"})
      if (no(key))
        add(point_.figures[*place(key)].name,
            words("Another pressure switch than the card’s, or a gauge that reads wrong."),
            words("A second gauge at the tank."));
  }

  void leaks() {
    std::vector<std::size_t> corners;
    std::size_t dropping = 0;
    for (std::size_t i = 0; i < point_.figures.size(); ++i)
      if (point_.figures[i].read == ReadBy::drop && point_.figures[i].corner && point_.measured[i]) {
        corners.push_back(i);
        dropping += wrong(i);
      }
    const bool all = corners.size() > 2 && dropping == corners.size();
    if (all)
      add({words("All corners"), {}},
          words("What they share: the thermometer, the valve block, or a tee; a colder night that was not read."),
          words("Hold again with the thermometer at a bag; then soap the block."));
    else
      for (const std::size_t i : corners)
        if (wrong(i))
          add(point_.figures[i].name, words("Its fitting, its valve’s seat, or the bag itself."),
              words("Plug the line at the bag and hold again: if it still falls it is the bag, else line or valve."));
    if (no("tank"))
      add(point_.figures[*place("tank")].name, words("Check valve, drain, relief valve or the switch’s thread."),
          words("Soap them; a check valve is heard at the compressor’s intake."));
  }

  /// All corners at once against one at a time: what slows them only together is what the air of all goes through.
  /// @param alone  were corners timed alone?
  /// @param quick  was each of them quick alone? Then all at once are quick for the same reason.
  void together(bool alone, bool quick) {
    for (const bool up : {true, false}) {
      const auto i = place(up ? "all_up" : "all_down");
      const auto share = i ? over(*i) : std::nullopt;
      if (!share || (*share <= slow && *share >= fast)) continue;
      bool one_lags = false; // and says for itself why
      for (std::size_t k = 0; k < point_.figures.size(); ++k)
        if (point_.figures[k].read == (up ? ReadBy::fill : ReadBy::vent))
          one_lags = one_lags || over(k).value_or(1) > slow;
      if (one_lags && *share > slow) continue;
      if (*share < fast && quick) continue;
      if (*share < fast)
        add(point_.figures[*i].name,
            words("More air at once than the kit says: a wider feed, a larger tank, or it did not begin where it "
                  "should."),
            words("Bring it to where the time begins and take it again; then read the tube’s marking."));
      else if (!alone)
        add(point_.figures[*i].name, words("One corner that lags, or what all share."),
            words("Time the corners one by one: the last to be there says which."));
      else if (up)
        add(point_.figures[*i].name,
            words(
                "What only all together ask for: the feed line or its fittings, the block’s inlet, or a tank that runs "
                "down sooner than its size says."),
            words("Watch the tank’s gauge while all fill; drain it and look for water."));
      else
        add(point_.figures[*i].name, words("What all let out through: one exhaust or silencer for all of them."),
            words("Time it with the silencer off."));
    }
  }

  void times() {
    const auto key_of_corner = [](const std::string& key) { return key.substr(key.find('_') + 1); };
    std::vector<double> shares;
    for (std::size_t i = 0; i < point_.figures.size(); ++i)
      if (const auto share = over(i); share && point_.figures[i].corner) shares.push_back(*share);
    const bool known = shares.size() > 2;
    const bool all_slow = known && std::all_of(shares.begin(), shares.end(), [](double s) { return s > slow; });
    const bool all_fast = known && std::all_of(shares.begin(), shares.end(), [](double s) { return s < fast; });
    together(known, all_fast);
    if (all_slow)
      return add({words("All corners"), {}},
                 words("What they share: a tank that was not full, the line to the block, or water in it."),
                 words("Fill the tank to where the switch stops, and time one again."));
    if (all_fast)
      return add({words("All corners"), {}}, words("Lines or valves wider than the kit says, or shorter ways."),
                 words("Read the tube’s marking; then let the model learn it."));
    for (std::size_t i = 0; i < point_.figures.size(); ++i) {
      const AskedFigure& f = point_.figures[i];
      if (f.read != ReadBy::fill) continue;
      const auto fills = over(i);
      std::optional<double> vents;
      for (std::size_t k = 0; k < point_.figures.size(); ++k)
        if (point_.figures[k].read == ReadBy::vent && key_of_corner(point_.figures[k].key) == key_of_corner(f.key))
          vents = over(k);
      const bool slow_in = fills && *fills > slow, slow_out = vents && *vents > slow;
      if (slow_in && slow_out)
        add(f.name, words("Its line is pinched, kinked or wet: slow both ways."),
            words("Look along the line; blow it through; time it with the line swapped to its twin’s port."));
      else if (slow_in)
        add(f.name, words("Its fill valve does not open wide, or its port is dirty: slow in, not out."),
            words("Swap the two coils’ plugs; then clean the valve."));
      else if (slow_out)
        add(f.name, words("Its vent valve or the silencer is clogged: slow out, not in."),
            words("Time it with the silencer off."));
      else if (vents && *vents < fast && (!fills || *fills > 1 - alike))
        add(f.name, words("It loses air besides the valve: quick out, not in."), words("Hold it again, and soap it."));
    }
  }

  void pressures() {
    for (std::size_t corner = 0; corner < 4; ++corner) {
      const std::string key = corner_line_key(corner);
      const auto up = place("up_" + key), down = place("down_" + key);
      if (!up || !down) continue;
      const auto above = off(*up), below = off(*down);
      if (!above || !below) continue;
      const bool either = wrong(*up) || wrong(*down);
      if (!either) continue;
      const Message& where = point_.figures[*up].name;
      if (*above > 0 && *below < 0)
        add(where, words("More friction than assumed: up and down lie further apart."),
            words("Loosen the bushes at road height and torque them there; look for a bag that rubs."));
      else if (*above < 0 && *below > 0)
        add(where, words("Less friction than assumed."), words("Let the model learn it."));
      else if (*above > 0)
        add(where, words("It carries more than was weighed, works at a smaller ratio, or the bag’s area is less."),
            words("Weigh that corner as it stands; then let the model learn."));
      else
        add(where, words("It carries less than was weighed, another spring helps, or the bag’s area is more."),
            words("Weigh that corner as it stands; then let the model learn."));
    }
  }

  /// Sides that are off alike, or one alone.
  void heights() {
    for (std::size_t right = 0; right < point_.figures.size(); ++right) {
      const AskedFigure& f = point_.figures[right];
      if (!f.twin || !(wrong(right) || wrong(*f.twin))) continue;
      const auto l = off(*f.twin), r = off(right);
      if (!l || !r) continue;
      if (std::abs(*l - *r) <= f.alike)
        add(f.name, words("Both sides are off alike: the stored height is another, or the floor is not level."),
            words("Store the preset again on a level floor."));
      else
        add(f.name, words("One side is off by itself: its sensor rod slipped, or the tape was held elsewhere."),
            words("Tape both from hub to lip again; then look at that side’s rod."));
    }
  }

  void taught() {
    for (std::size_t i = 0; i < point_.figures.size(); ++i)
      if (point_.figures[i].key.starts_with("counts_") && wrong(i))
        add(point_.figures[i].name,
            words("The lever turned on its shaft, sits on the other side of square, or plugs are swapped."),
            words("Press that corner down by hand and see whose counts move, and which way."));
    said_no("stored", words("A preset that does not come back: band too narrow, or a corner that sticks."),
            words("Call it up from above and from below; Leveling says what band holds."));
  }

  void gaps() {
    for (std::size_t i = 0; i < point_.figures.size(); ++i)
      if (wrong(i))
        add(point_.figures[i].name,
            off(i).value_or(0) < 0 ? words("Less room than the places on Clearance give: a tyre wider than its size, "
                                           "or a place that was taped wrong.")
                                   : words("As little as Clearance says it is."),
            words("Measure the tyre’s width as mounted, and tape that place again on Clearance."));
  }

  void top_out() {
    said_no("no_knock", words("The damper reaches its end: it tops out."),
            words("A lower highest preset, a longer damper, or a strap that stops it before."));
    said_no("slack", words("Something is tight before the wheel is all the way down."),
            words("Whatever is tight sets the highest height: Swing takes its measures."));
    said_no("seated", words("A bag that is held at one end has left its seat."),
            words("Hold both ends, or keep the wheel from hanging so far."));
    for (std::size_t i = 0; i < point_.figures.size(); ++i)
      if (point_.figures[i].key.starts_with("rod_") && wrong(i))
        add(point_.figures[i].name, words("Less of the damper is left than its measures say."),
            words("Tape the damper eye to eye at that height, and its open length."));
  }

  void stop_first() {
    for (std::size_t i = 0; i < point_.figures.size(); ++i)
      if (point_.figures[i].key.starts_with("bag_height") && wrong(i))
        add(point_.figures[i].name, words("The bag would meet before the stop: it is none that bears being one."),
            words("A higher stop, or a lower stack under the bag."));
  }

  void road() {
    said_no("no_knock", words("It tops out, or a collar is loose."),
            words("Ten millimetres lower: if the knock goes it was topping out; else a hand on every collar."));
    said_no("no_rub", words("A tyre meets something at lock, in bump or laden."),
            words("Chalk on the tyre, the same way again; Clearance says where it lies nearest."));
    said_no("straight", words("Ends not square, or heights that differ from side to side."),
            words("Diagonals, then heights; the aligner last."));
    said_no("quiet", words("Leaks, or a band so narrow that it always corrects."),
            words("Hold it overnight; then Leveling with a wider band."));
    for (std::size_t i = 0; i < point_.figures.size(); ++i)
      if (point_.figures[i].key.starts_with("after_") && wrong(i))
        add(point_.figures[i].name, words("It wandered while it was driven: a leak, a stuck valve, a sensor’s rod."),
            words("Hold it with the valves shut and see whether it goes on."));
  }

  void alignment() {
    for (std::size_t right = 0; right < point_.figures.size(); ++right) {
      const AskedFigure& f = point_.figures[right];
      if (!f.twin || !(wrong(right) || wrong(*f.twin))) continue;
      const auto l = off(*f.twin), r = off(right);
      if (l && r && std::abs(*l - *r) <= f.alike)
        add(f.name,
            words("Both sides are off alike: the car did not stand at road height, or the mount sits elsewhere."),
            words("Road height first, bounced and settled, then the aligner again."));
      else
        add(f.name, words("One side by itself: a bolt that slipped, a bent part, an axle that is not square."),
            words("Compare that side’s joints with the other’s before turning anything."));
    }
  }

  void lamps() {
    said_no("aimed", words("They point where the car pointed before it was lowered."),
            words("Aim them at road height."));
    said_no("laden", words("The tail sinks under load: pressure presets do not hold height."),
            words("Aim within what the law leaves, or keep the height by sensors."));
  }

  const HoldPoint& point_;
  std::vector<Pointer> out_;
};

} // namespace

std::vector<Pointer> points_to(const HoldPoint& point) {
  return Pointing(point).find();
}

} // namespace mavrel::assess

#include "quantity/quantity.h"

#include "support.h"

#include <cmath>

namespace mavrel {
namespace {

double si(std::string_view text, Kind kind, const UnitPrefs& prefs = {}) {
  const auto value = parse_quantity(text, kind, prefs);
  EXPECT_TRUE(value) << text << ": " << (value ? "" : say(value.error()));
  return value.value_or(NAN);
}

TEST(Quantity, ReadsWhatBuildersType) {
  EXPECT_DOUBLE_EQ(si("320 mm", Kind::length), 0.320);
  EXPECT_DOUBLE_EQ(si("32cm", Kind::length), 0.32);
  EXPECT_NEAR(si("5/8\"", Kind::length), 0.015875, 1e-12);
  EXPECT_NEAR(si("2 3/16 in", Kind::length), 2.1875 * 0.0254, 1e-12);
  EXPECT_NEAR(si("5 1/2 in", Kind::length), 5.5 * 0.0254, 1e-12);
  EXPECT_NEAR(si("2½ in", Kind::length), 2.5 * 0.0254, 1e-12);
  EXPECT_NEAR(si("5 ft 3 in", Kind::length), 63 * 0.0254, 1e-12);
  EXPECT_NEAR(si("5' 3\"", Kind::length), 63 * 0.0254, 1e-12);
  EXPECT_DOUBLE_EQ(si("4 f", Kind::length), 4 * 0.017);
  EXPECT_DOUBLE_EQ(si("2 fingers", Kind::length), 0.034);
  EXPECT_NEAR(si("38psi", Kind::pressure), 38 * 6894.757293168, 1e-3);
  EXPECT_DOUBLE_EQ(si("2.6 bar", Kind::pressure), 2.6e5);
  EXPECT_DOUBLE_EQ(si("2,6 bar", Kind::pressure), 2.6e5);
  EXPECT_DOUBLE_EQ(si("260 kPa", Kind::pressure), 2.6e5);
  EXPECT_DOUBLE_EQ(si("9.5kN", Kind::force), 9500);
  EXPECT_DOUBLE_EQ(si("410 kg", Kind::mass), 410);
  EXPECT_NEAR(si("900 lb", Kind::mass), 408.2331, 1e-3);
  EXPECT_DOUBLE_EQ(si("2l", Kind::volume), 2e-3);
  EXPECT_DOUBLE_EQ(si("20 °C", Kind::temperature), 293.15);
  EXPECT_NEAR(si("−4 °C", Kind::temperature), 269.15, 1e-9);
  EXPECT_NEAR(si("68 °F", Kind::temperature), 293.15, 1e-9);
  EXPECT_DOUBLE_EQ(si("70 %", Kind::share), 0.7);
  EXPECT_DOUBLE_EQ(si("1800", Kind::altitude), 1800);
  EXPECT_NEAR(si("4500 ft", Kind::altitude), 1371.6, 1e-9);
  EXPECT_DOUBLE_EQ(si("130 mm/s", Kind::speed), 0.13);
  EXPECT_DOUBLE_EQ(si("90 km/h", Kind::road_speed), 25);
  EXPECT_DOUBLE_EQ(si("2 m/s", Kind::road_speed), 2);
  EXPECT_NEAR(si("300 Nm/°", Kind::turning), 300 * 180 / 3.14159265358979, 1e-6);
  EXPECT_DOUBLE_EQ(si("1.2e-3 m", Kind::length), 1.2e-3);
  EXPECT_DOUBLE_EQ(si("2.5e-8", Kind::plain), 2.5e-8);
  EXPECT_DOUBLE_EQ(si("-12 mm", Kind::length), -0.012);
  EXPECT_DOUBLE_EQ(si("20 cm3", Kind::volume), 20e-6);
}

TEST(Quantity, WeightsAndMassesStandForEachOther) {
  EXPECT_NEAR(si("4200 N", Kind::mass), 4200 / 9.80665, 1e-9);
  EXPECT_NEAR(si("100 kg", Kind::force), 980.665, 1e-9);
}

TEST(Quantity, HoursAreWrittenAsAClockToo) {
  for (const auto& [typed, seconds] : {std::pair<const char*, double>{"7:30", 27000},
                                       {"07:05", 25500},
                                       {" 7 : 30 h", 27000},
                                       {"4 h 30", 16200},
                                       {"4h30", 16200},
                                       {"4 h 30 min", 16200},
                                       {"90 min", 5400},
                                       {"0:00", 0}}) {
    const auto read = parse_quantity(typed, Kind::hours);
    ASSERT_TRUE(read) << typed;
    EXPECT_DOUBLE_EQ(*read, seconds) << typed;
  }
  EXPECT_DOUBLE_EQ(*parse_quantity("3:20", Kind::time), 200) << "of what takes seconds: minutes and seconds";
  EXPECT_DOUBLE_EQ(*parse_quantity("3 min 20", Kind::minutes), 200);
  for (const char* wrong : {"7:60", "7:", ":30", "7:30:10", "4 h 90", "7:30 mm", "12345:00"})
    EXPECT_FALSE(parse_quantity(wrong, Kind::hours)) << wrong;
  EXPECT_FALSE(parse_quantity("7:30", Kind::length));
}

TEST(Quantity, BareNumbersTakeThePreferredUnit) {
  UnitPrefs imperial{LengthUnit::inch, PressureUnit::psi, MassUnit::lb, TemperatureUnit::fahrenheit, 0.020};
  EXPECT_DOUBLE_EQ(si("343", Kind::length), 0.343);
  EXPECT_NEAR(si("13 9/16", Kind::length, imperial), 13.5625 * 0.0254, 1e-12);
  EXPECT_NEAR(si("32", Kind::temperature, imperial), 273.15, 1e-9);
  EXPECT_DOUBLE_EQ(si("3f", Kind::length, imperial), 0.060);
  EXPECT_DOUBLE_EQ(parse_quantity("900", Kind::length, {}, "m").value_or(0), 900);
}

TEST(Quantity, RefusesWithAReasonAndAnExample) {
  const auto wrong_kind = parse_quantity("3 kg", Kind::length);
  ASSERT_FALSE(wrong_kind);
  EXPECT_EQ(say(wrong_kind.error()), "“3 kg” is a mass; a length is wanted here, for example 320 mm.");
  const auto unit = parse_quantity("3 furlongs", Kind::length);
  ASSERT_FALSE(unit);
  EXPECT_NE(say(unit.error()).find("furlongs"), std::string::npos);
  for (const char* text : {"", "   ", "abc", "mm", "1 2 3", "300 200", "1/0 in", "--3", "3..4 mm", "nan", "inf",
                           "1e999 mm", "0x10 mm", "5 5/ in", "12 mm 3", "20 °C 5", "/", "½½"}) {
    const auto read = parse_quantity(text, Kind::length);
    EXPECT_FALSE(read) << text << " was read as " << read.value_or(0);
    if (!read) {
      EXPECT_GT(say(read.error()).size(), 20U) << text;
    }
  }
  EXPECT_FALSE(parse_quantity(std::string(5000, '9'), Kind::length));
}

TEST(Quantity, ReadingsAreSeparatedPlainly) {
  const auto three = parse_readings("343; 344 mm;34.5cm", Kind::length);
  ASSERT_TRUE(three);
  EXPECT_EQ(three->size(), 3U);
  EXPECT_DOUBLE_EQ((*three)[2], 0.345);
  EXPECT_EQ(parse_readings("343, 344", Kind::length)->size(), 2U);
  EXPECT_EQ(parse_readings("343,5", Kind::length)->size(), 1U) << "a decimal comma is no separator";
  EXPECT_TRUE(parse_readings(" ", Kind::length)->empty());
  EXPECT_FALSE(parse_readings("343; hello", Kind::length));
}

TEST(Quantity, ShowsFractionsAndKeepsTheSignOfNothing) {
  UnitPrefs inches;
  inches.length = LengthUnit::inch;
  EXPECT_EQ(show(13.5625 * 0.0254, Kind::length, inches), "13 9/16 in");
  EXPECT_EQ(show(0.5 * 0.0254, Kind::length, inches), "1/2 in");
  EXPECT_EQ(show(12 * 0.0254, Kind::length, inches), "12 in");
  EXPECT_EQ(show(-0.25 * 0.0254, Kind::length, inches), "-1/4 in");
  EXPECT_EQ(show(-0.0001, Kind::length), "0 mm");
  EXPECT_EQ(show(0.343, Kind::length), "343 mm");
  EXPECT_EQ(show_exact(0.3435, Kind::length), "343.5 mm");
  EXPECT_EQ(show(0.7, Kind::share), "70 %");
  EXPECT_EQ(show(3.94e5, Kind::pressure), "3.9 bar");
}

TEST(Quantity, ShownThenParsedReturnsTheSameWithinWhatWasShown) {
  constexpr Kind kinds[] = {Kind::length,     Kind::mass,        Kind::force,     Kind::pressure,
                            Kind::volume,     Kind::temperature, Kind::frequency, Kind::angle,
                            Kind::stiffness,  Kind::time,        Kind::altitude,  Kind::speed,
                            Kind::road_speed, Kind::turning,     Kind::share,     Kind::plain};
  EXPECT_TRUE(rc::check("round trip", [&] {
    const Kind kind = *rc::gen::elementOf(std::vector<Kind>(std::begin(kinds), std::end(kinds)));
    UnitPrefs prefs{*rc::gen::element(LengthUnit::mm, LengthUnit::inch),
                    *rc::gen::element(PressureUnit::bar, PressureUnit::psi, PressureUnit::kpa),
                    *rc::gen::element(MassUnit::kg, MassUnit::lb),
                    *rc::gen::element(TemperatureUnit::celsius, TemperatureUnit::fahrenheit), 0.017};
    const int decimals = *rc::gen::element(-2, -1, 2);
    const double value = from_shown_unit(test::between(-2000, 2000), kind, prefs);
    const auto back = parse_quantity(show(value, kind, prefs, decimals), kind, prefs);
    RC_ASSERT(back.has_value());
    RC_ASSERT(std::abs(*back - value) <= 0.5000001 * shown_step(kind, prefs, decimals) + 1e-9 * std::abs(value));
  }));
}

TEST(Quantity, NeverCrashesOnTypedRubbish) {
  EXPECT_TRUE(rc::check("any text", [](const std::string& text) {
    for (const Kind kind : {Kind::length, Kind::temperature, Kind::plain}) {
      const auto read = parse_quantity(text, kind);
      RC_ASSERT((!read || std::isfinite(*read)));
    }
  }));
}

TEST(Message, PutsAmountsInTheReadersUnits) {
  const Message m{"{0} is {1} too low", {std::string("Road"), metres(0.0254)}};
  UnitPrefs inches;
  inches.length = LengthUnit::inch;
  EXPECT_EQ(say(m), "Road is 25 mm too low");
  EXPECT_EQ(say(m, inches), "Road is 1 in too low");
  EXPECT_EQ(say(m, {}, [](const std::string&) { return std::string("{1} zu tief: {0}"); }), "25 mm zu tief: Road");
  EXPECT_EQ(say({"{7} {x} {", {}}), " {x} {");
}

} // namespace
} // namespace mavrel

#include "quantity/text.h"

#include "quantity/message.h"
#include "quantity/quantity.h"
#include "support.h"

namespace mavrel {
namespace {

// ---- text

TEST(Text, ControlCharactersAreNoWriting) {
  EXPECT_EQ(first_control("two\nlines\tand a tab\r\n"), std::nullopt);
  EXPECT_EQ(first_control("ünß"), std::nullopt);
  EXPECT_EQ(first_control(std::string_view("a\0b", 3)), 2U);
  EXPECT_EQ(first_control("üb\x0B"), 3U);
  EXPECT_EQ(first_control("\x1B[31m"), 1U);
  EXPECT_EQ(first_control("a\x7F"), 2U);
  EXPECT_EQ(first_control("a\u0085"), 2U);
  EXPECT_EQ(first_control("\xFF\xFE"), std::nullopt) << "bytes that are no text are said elsewhere";
}

TEST(Text, IsCountedAndCutByLettersAndNeverInTheMiddleOfOne) {
  EXPECT_EQ(letters("Größe"), 5U);
  EXPECT_EQ(letters("½ бар"), 5U);
  EXPECT_EQ(excerpt("Größe", 3), "Grö…");
  EXPECT_EQ(excerpt("Größe", 5), "Größe");
  EXPECT_EQ(excerpt("", 3), "");
  EXPECT_TRUE(rc::check("an excerpt is UTF-8 where the text is", [](const std::vector<std::uint16_t>& codes) {
    std::string text;
    for (const std::uint16_t code : codes) {
      if (code < 0x80)
        text += static_cast<char>(code);
      else if (code < 0x800)
        text += {static_cast<char>(0xC0 | (code >> 6)), static_cast<char>(0x80 | (code & 0x3F))};
    }
    const auto most = *rc::gen::inRange<std::size_t>(0, 12);
    const std::string cut = excerpt(text, most);
    RC_ASSERT(!first_bad_utf8(cut));
    RC_ASSERT(letters(cut) <= most + 1);
  }));
}

TEST(Text, IsMadeFitToBeRead) {
  EXPECT_EQ(presentable("a\x01z\n\x7Fq\tw"), "a z  q w");
  EXPECT_EQ(presentable("caf\xE9.mavrel"), "caf\uFFFD.mavrel");
  EXPECT_EQ(presentable("Größe ½"), "Größe ½");
  EXPECT_EQ(presentable("a\u202Ecba"), "a cba") << "nothing turns the writing round";
  EXPECT_TRUE(rc::check("whatever comes in, one line of UTF-8 comes out", [](const std::string& bytes) {
    const std::string out = presentable(bytes);
    RC_ASSERT(!first_bad_utf8(out));
    RC_ASSERT(std::none_of(out.begin(), out.end(), [](char c) { return static_cast<unsigned char>(c) < 0x20; }));
  }));
}

TEST(Text, IsTrimmedOfEveryBlank) {
  EXPECT_EQ(trimmed(" \t a b\r\n"), "a b");
  EXPECT_EQ(trimmed(" \n"), "");
}

// ---- sentences

TEST(Message, EveryNumberInsideIsShownInTheReadersUnits) {
  const Message inner{words("{0} off the bump stop"), {metres(0.0127)}};
  const Message outer{words("Sit {0} higher, or {1}."), {metres(0.0254), inner}};
  EXPECT_EQ(say(outer), "Sit 25 mm higher, or 13 mm off the bump stop.");
  UnitPrefs inches;
  inches.length = LengthUnit::inch;
  EXPECT_EQ(say(outer, inches), "Sit 1 in higher, or 1/2 in off the bump stop.");
}

TEST(Message, EveryWordOfOursInsideIsTranslatedAndNoneOfTheirs) {
  const Translate loud = [](const std::string& text) {
    std::string out = text;
    for (char& c : out)
      if (c >= 'a' && c <= 'z') c = static_cast<char>(c - 'a' + 'A');
    return out;
  };
  const Message limit{words("{0}, {1}"), {words("bag pressure high"), std::string("half a ton")}};
  EXPECT_EQ(say({words("it ends at {0}: {1}."), {metres(0.4), limit}}, {}, loud),
            "IT ENDS AT 400 mm: BAG PRESSURE HIGH, half a ton.");
}

TEST(Message, WordsBeginASentenceWithACapital) {
  EXPECT_EQ(say({words("Nothing is typed. {0} is wanted."), {words("a length")}}),
            "Nothing is typed. A length is wanted.");
  EXPECT_EQ(say({words("This is {0}."), {words("a length")}}), "This is a length.");
  EXPECT_EQ(say({words("So. {0} it is."), {std::string("sand in the bed")}}), "So. sand in the bed it is.")
      << "what somebody named stays as named";
}

TEST(Message, TwoUnequalNumbersNeverLookTheSame) {
  const double edge = 0.062;
  const auto outside = [&](double H) {
    return say({words("{0} lies outside, from {1}."), {told_from(metres(H, 1), edge), told_from(metres(edge, 1), H)}});
  };
  EXPECT_EQ(outside(0.050), "50.0 mm lies outside, from 62.0 mm.");
  EXPECT_EQ(outside(0.06198), "61.98 mm lies outside, from 62.00 mm.");
  EXPECT_EQ(outside(0.0619999), "61.9999 mm lies outside, from 62.0000 mm.");
  UnitPrefs inches;
  inches.length = LengthUnit::inch;
  EXPECT_TRUE(rc::check("in any unit", [&] {
    const double a = test::between(0.05, 0.4), b = a + test::between(1e-7, 1e-3);
    for (const UnitPrefs& prefs : {UnitPrefs{}, inches})
      RC_ASSERT(say({"{0}", {told_from(metres(a), b)}}, prefs) != say({"{0}", {told_from(metres(b), a)}}, prefs));
  }));
}

TEST(Message, WhatIsTypedCanNotBreakTheLine) {
  EXPECT_EQ(say({words("“{0}” is no unit."), {std::string("m\nm\x1b[2J")}}), "“m m [2J” is no unit.");
}

TEST(Message, AListReadsAsOne) {
  EXPECT_EQ(say(list_of({})), "");
  EXPECT_EQ(say(list_of({{"a", {}}})), "a");
  EXPECT_EQ(say(list_of({{"a", {}}, {"b", {}}, {"c", {}}})), "a, b, c");
}

// ---- what typed quantities are refused

TEST(Quantity, TwoNumbersAreNotOne) {
  EXPECT_FALSE(parse_quantity("4000N 4000N", Kind::force));
  EXPECT_FALSE(parse_quantity("3 in 5 ft", Kind::length)) << "the coarser unit stands in front";
  EXPECT_FALSE(parse_quantity("2 bar 3 psi 1 bar", Kind::pressure));
  EXPECT_NEAR(parse_quantity("5 ft 3 in", Kind::length).value(), 63 * 0.0254, 1e-12);
  EXPECT_NEAR(parse_quantity("1 h 30 min", Kind::time).value(), 5400, 1e-9);
}

TEST(Quantity, OutOfAllReasonIsRefused) {
  for (const char* text : {"1e300l", "-1e300 l", "1e13 m3"})
    EXPECT_FALSE(parse_quantity(text, Kind::volume)) << text;
  EXPECT_FALSE(parse_quantity("1e300", Kind::frequency));
  EXPECT_TRUE(parse_quantity("1e11 N", Kind::force));
}

TEST(Quantity, ADifferenceOfTemperatureHasNoZero) {
  EXPECT_DOUBLE_EQ(parse_quantity("15", Kind::temperature_step).value(), 15);
  EXPECT_DOUBLE_EQ(parse_quantity("15 °C", Kind::temperature_step).value(), 15);
  EXPECT_NEAR(parse_quantity("27 °F", Kind::temperature_step).value(), 15, 1e-12);
  EXPECT_DOUBLE_EQ(parse_quantity("-6C", Kind::temperature).value(), 267.15);
  EXPECT_EQ(show(15, Kind::temperature_step), "15 K");
}

TEST(Quantity, AMistakeQuotesLittleOfALongText) {
  std::string text(70, 'x');
  text += "ü";
  const auto wrong = parse_quantity(text, Kind::length);
  ASSERT_FALSE(wrong);
  EXPECT_LT(say(wrong.error()).size(), 160U);
}

} // namespace
} // namespace mavrel

// Tables as people's spreadsheets write them.
#include "file/csv.h"

#include "support.h"

namespace mavrel {
namespace {

TEST(Csv, ReadsWhatSpreadsheetsWrite) {
  const auto table =
      read_csv("\xEF\xBB\xBF# a sheet\r\nheight_mm , spring_mm\r\n\r\n300, 122 \r\n# between\r\n324,145");
  ASSERT_TRUE(table);
  ASSERT_EQ(table->head.size(), 2U);
  EXPECT_EQ(table->head[1].text, "spring_mm");
  ASSERT_EQ(table->rows.size(), 2U);
  EXPECT_EQ(table->rows[0].cells[1].text, "122");
  EXPECT_EQ(table->rows[0].line, 4U);
  EXPECT_EQ(table->rows[1].line, 6U);
  EXPECT_EQ(table->rows[0].cells[1].column, 5U);
}

TEST(Csv, SaysWhereAMistakeStands) {
  const auto wrong = [](const std::string& text, const CsvBounds& bounds = {}) {
    const auto table = read_csv(text, bounds);
    return table ? std::string("read") : say(table.error());
  };
  EXPECT_NE(wrong("a,b\n1,2\n1,2,3\n").find("Line 3"), std::string::npos);
  EXPECT_NE(wrong("").find("empty"), std::string::npos);
  EXPECT_NE(wrong("# only words\n").find("empty"), std::string::npos);
  EXPECT_NE(wrong("a,b\n\xFF,2\n").find("UTF-8"), std::string::npos);
  EXPECT_NE(wrong("a\n1\n2\n3\n", {2, 4, 1000}).find("more than 2 rows"), std::string::npos);
  EXPECT_EQ(wrong("a\n1\n2\n", {2, 4, 1000}), "read") << "the maximum itself";
  EXPECT_NE(wrong("a,b,c\n", {2, 2, 1000}).find("more than 2 columns"), std::string::npos);
  EXPECT_EQ(wrong("a,b\n", {2, 2, 1000}), "read");
  EXPECT_NE(wrong(std::string(2000, 'a'), {2, 2, 1024}).find("larger than"), std::string::npos);
}

TEST(Csv, AnyTextIsReadOrRefusedInOneSentence) {
  EXPECT_TRUE(rc::check("any text", [](const std::string& text) {
    const auto table = read_csv(text);
    if (!table) {
      RC_ASSERT(!say(table.error()).empty());
      return;
    }
    for (const CsvRow& row : table->rows)
      RC_ASSERT(row.cells.size() == table->head.size());
  }));
}

TEST(Csv, ACellIsWrittenSoThatASpreadsheetReadsItBack) {
  EXPECT_EQ(csv_cell("plain words; 2.5"), "plain words; 2.5");
  EXPECT_EQ(csv_cell("left, rear"), "\"left, rear\"");
  EXPECT_EQ(csv_cell("a \"short\" one"), "\"a \"\"short\"\" one\"");
  EXPECT_EQ(csv_cell("two\nlines"), "\"two\nlines\"");
  EXPECT_EQ(csv_cell(""), "");
  EXPECT_EQ(csv_cell("up\x0B"
                     "down"),
            "up down");
}

TEST(Csv, TextIsNeverAFormula) {
  for (const char* text :
       {"=1+1", "=HYPERLINK(\"x\")", "+cmd|' /C calc'!A0", "-2+3", "@SUM(1)", "-5 +cmd", "=", "-", "'=1", "''-x"}) {
    EXPECT_EQ(no_formula(text), "'" + std::string(text));
    EXPECT_EQ(without_guard(no_formula(text)), text);
  }
  for (const char* text : {"-5", "-5.25 mm", "+3 %", "-1e-05", "plain = words", "'quoted'", "", "−4 mm"}) {
    EXPECT_EQ(no_formula(text), text);
    EXPECT_EQ(without_guard(text), text);
  }
}

} // namespace
} // namespace mavrel

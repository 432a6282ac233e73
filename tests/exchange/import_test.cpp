#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>

#include "exchange/tables/sweep_table.h"

using namespace sunbreak;
using namespace sunbreak::exchange;

namespace {

TableContext context(GridKind kind = GridKind::Cells, const Footprint& fp = {1.2, 1.2}) {
  return {fp, kind, std::nullopt, std::nullopt};
}

TableDraft taken(const std::string& bytes, const TableContext& c = context(), const TableOptions& options = {}) {
  auto draft = read_sweep_table(bytes, c, options);
  if (!draft) {
    ADD_FAILURE() << draft.problem().sentence();
    return {};
  }
  return draft.value();
}

std::string utf16(const std::string& ascii, bool little) {
  std::string bytes = little ? "\xFF\xFE" : "\xFE\xFF";
  for (const char c : ascii) bytes += little ? std::string{c, '\0'} : std::string{'\0', c};
  return bytes;
}

bool mentions(const TableDraft& draft, const std::string& words) {
  for (const Finding& f : draft.findings)
    if (f.words.find(words) != std::string::npos) return true;
  return false;
}

}  // namespace

TEST(Matrix, TheFirstLineIsTheFarRow) {
  const TableDraft d = taken("7,8,9\n4,5,6\n1,2,3\n");
  EXPECT_EQ(d.raw, (std::vector<double>{1, 2, 3, 4, 5, 6, 7, 8, 9}));
  EXPECT_EQ(d.grid.columns, 3);
}

TEST(Matrix, TheFirstLineCanBeTheRowAtTheDoor) {
  TableOptions options;
  options.first_row_is_far = false;
  EXPECT_EQ(taken("7,8,9\n4,5,6\n1,2,3\n", context(), options).raw.front(), 7);
}

TEST(Matrix, EverySeparatorAndDecimalMark) {
  for (const char* bytes : {"424.5,430.25\n401.5,399\n", "424,5;430,25\n401,5;399\n", "424,5\t430,25\n401,5\t399\n",
                            "424.5\t430.25\r\n401.5\t399\r\n"}) {
    const TableDraft d = taken(bytes);
    EXPECT_EQ(d.raw, (std::vector<double>{401.5, 399, 424.5, 430.25})) << bytes;
  }
}

TEST(Matrix, EveryEncoding) {
  const std::string ascii = "424.5,430\n401,399\n";
  for (const std::string& bytes : {ascii, "\xEF\xBB\xBF" + ascii, utf16(ascii, true), utf16(ascii, false)})
    EXPECT_EQ(taken(bytes).raw[2], 424.5);
  EXPECT_EQ(taken("H\xF6he;1;2\n30;424,5;430,1\n10;401,5;399,2\n").raw[2], 424.5) << "Latin-1";
}

TEST(Matrix, LabelsAreLeftOutAndRisingOnesTurnTheTableRound) {
  const TableDraft d = taken("y/x,20,60,100\n20,1.5,2.5,3.5\n60,4.5,5.5,6.5\n100,7.5,8.5,9.5\n");
  EXPECT_EQ(d.grid.columns, 3);
  EXPECT_EQ(d.raw.front(), 1.5);
}

TEST(Matrix, ACellThatIsNoNumberIsAMissingStation) {
  const TableDraft d = taken("7,8,9\n4,n/a,6\n1,2,3\n");
  EXPECT_TRUE(std::isnan(d.raw[4]));
  EXPECT_EQ(d.readings(), 8);
  EXPECT_TRUE(mentions(d, "row 2, column 2: 'n/a' is not a number; kept as a missing station"));
}

TEST(Matrix, ARaggedRowIsRefusedWhole) {
  const TableDraft d = taken("7,8,9\n4,6\n1,2,3\n");
  EXPECT_EQ(d.readings(), 6);
  EXPECT_TRUE(std::isnan(d.raw[3]) && std::isnan(d.raw[5]));
}

TEST(Matrix, DoubtfulThousandsAreNotGuessed) {
  const TableDraft d = taken("1.024\t998\n997\t1.013\n");
  EXPECT_TRUE(std::isnan(d.raw[2]));
  EXPECT_TRUE(mentions(d, "thousands"));
  TableOptions options;
  options.decimal_mark = ',';
  EXPECT_EQ(taken("1024\t998\n997\t1013\n", context(), options).raw[2], 1024);
}

TEST(Matrix, ValuesNoSensorShowsAreRefused) {
  const TableDraft d = taken("424,99999\n-400,401\n");
  EXPECT_EQ(d.readings(), 2);
  const TableDraft none = taken("424,inf\n1e999,nan\n400,four\n");
  for (const char* told : {"'inf' is no finite number", "'1e999' is no finite number", "'nan' is no finite number",
                           "'four' is not a number"})
    EXPECT_TRUE(mentions(none, told)) << told;
}

TEST(Matrix, AnotherGridThanPlannedIsSaid) {
  TableContext c = context();
  c.planned = Grid{GridKind::Cells, 6, 6, 0, 0, {}};
  EXPECT_TRUE(mentions(taken("7,8,9\n4,5,6\n1,2,3\n", c), "the plan 6 × 6"));
}

TEST(Long, UnitsInTheHeaderAreTaken) {
  const TableDraft d =
      taken("x (in),y (in),PPFD\n11.811,11.811,10.5\n35.433,11.811,20.5\n11.811,35.433,30.5\n35.433,35.433,40.5\n");
  EXPECT_EQ(d.raw, (std::vector<double>{10.5, 20.5, 30.5, 40.5}));
}

TEST(Long, WithoutAHeaderTheUnitIsTheOneThatFits) {
  const TableDraft d = taken("300;300;10,5\n900;300;20,5\n300;900;30,5\n900;900;40,5\n");
  EXPECT_EQ(d.raw.back(), 40.5);
}

TEST(Long, OnePlaceOffTheGridNamesItsRowAndLosesNoOther) {
  const std::tuple<GridKind, double, double> grids[] = {{GridKind::Cells, 10, 20}, {GridKind::Nodes, 0, 24}};
  for (const auto& [kind, first, step] : grids)
    for (const char* slipped : {"700", "36.5", "-50"}) {
      std::string table = "x cm,y cm,ppfd\n";
      for (int i = 0; i < 36; ++i)
        table += fmt::format("{},{},{}\n", i == 14 ? slipped : fmt::format("{}", first + step * (i % 6)),
                             first + step * (i / 6), 400 + i);
      TableContext c = context();
      c.footprint = {1.2, 1.2};
      c.kind = kind;
      const TableDraft d = taken(table, c);
      EXPECT_EQ(d.grid.columns, 6) << slipped;
      EXPECT_EQ(d.grid.rows, 6) << slipped;
      EXPECT_EQ(d.readings(), 35) << slipped;
      EXPECT_TRUE(mentions(d, "row 16: the place")) << slipped;
    }
}

TEST(Long, TheSameStationTwiceIsTakenNeitherTime) {
  const TableDraft d = taken("x cm,y cm,ppfd\n30,30,10.5\n90,30,20.5\n30,90,30.5\n90,90,40.5\n90,90,41.5\n");
  EXPECT_EQ(d.readings(), 3);
  EXPECT_TRUE(mentions(d, "same station"));
}

/// The sentence with which a table is refused; empty where it was taken.
static std::string refused(const std::string& bytes, const TableOptions& options = {}) {
  const auto read = read_sweep_table(bytes, context(), options);
  return read.ok() ? std::string() : read.problem().sentence();
}

TEST(Places, AreNeverTakenForLight) {
  TableOptions all_light;
  all_light.form = TableForm::Matrix;
  for (const std::string& bytes : {
           std::string("13,3;13,3;482,4\n40,0;13,3;274,6\n66,7;13,3;837,2"),  // three rows of x, y, value
           std::string("10.5,400,410,409\n30.5,420,431,418\n50.5,418,433,412\n70.5,402,405,409\n"),
           std::string("20,40,60,80\n410,400,409,399\n420,431,418,433\n"),
           std::string(",5,20,60\n110,400,410,409\n80,420,431,418\n10,418,433,412\n"),
           std::string("col,row,value\n0,0,482\n1,0,493\n0,1,499\n1,1,502\n"),
           std::string("reading,x (cm)\n482,30\n493,41\n499,90\n"),
           std::string("station,ppfd\n3,482\n17,493\n2,499\n"),
       }) {
    EXPECT_NE(refused(bytes).find("taken for light"), std::string::npos) << bytes << refused(bytes);
    EXPECT_NE(refused(bytes).find("matrix form"), std::string::npos) << bytes;
  }
  EXPECT_EQ(refused("13.5,13.5,482\n40,13.5,274\n66,13.5,837\n", all_light), "");
  // Light itself, whatever its shape: a plane, columns that are numbered or named, even labels.
  for (const std::string& bytes : {std::string("400,410,420,430\n410,420,430,440\n420,430,440,450\n430,440,450,460\n"),
                                   std::string("row 1,row 2,row 3\n400,410,405\n402,411,406\n"),
                                   std::string("left,middle,right\n400,410,405\n402,411,406\n"),
                                   std::string("y/x,30,90\n90,400,410\n30,405,411\n")})
    EXPECT_EQ(refused(bytes), "") << bytes;
}

TEST(Places, AMatrixOfAnotherQuantityIsRefused) {
  for (const char* title : {"Foot-candles", "Illuminance [lux]", "Irradiance W/m2", "DLI at 12 h"})
    EXPECT_NE(refused(std::string(title) + ",\n400,410\n402,411\n").find("not PPFD"), std::string::npos) << title;
  for (const char* title : {"Fixture of 320 W", "PPFD (not lux)", "Tent by the door"})
    EXPECT_EQ(refused(std::string(title) + ",\n400,410\n402,411\n"), "") << title;
  EXPECT_NE(refused("left lux,right lux\n400,410\n402,411\n").find("not PPFD"), std::string::npos);
}

TEST(Table, CutInTheMiddleOfALineSaysSo) {
  EXPECT_TRUE(mentions(taken("7,8,9\n4,5,6\n1,2,3"), "middle of a line"));
  EXPECT_TRUE(mentions(taken("7,8,9\n4,5,6\n1,2"), "row 3 has 2 cells"));
  EXPECT_FALSE(mentions(taken("7,8,9\n4,5,6\n1,2,3\n"), "middle of a line"));
}

TEST(Columns, AreThoseThatAreNamed) {
  const std::string bytes =
      "id,east (cm),north (cm),first,second\n1,30,30,10,11\n2,90,30,20,21\n3,30,90,30,31\n4,90,90,40,41\n";
  TableOptions o;
  o.x_column = "east (cm)", o.y_column = "3", o.value_column = "SECOND";
  EXPECT_EQ(taken(bytes, context(), o).raw, (std::vector<double>{11, 21, 31, 41}));
  o.value_column = "third";
  EXPECT_NE(refused(bytes, o).find("no column 'third'"), std::string::npos);
  o.value_column = "9";
  EXPECT_NE(refused(bytes, o).find("no column '9'"), std::string::npos);
  o.value_column = "5", o.form = TableForm::Matrix;
  EXPECT_NE(refused(bytes, o).find("columns were named"), std::string::npos);
  for (const char* beyond : {"5", "6", "7"}) {  // of rows shorter and longer than the titles'
    TableOptions wide;
    wide.value_column = beyond;
    EXPECT_NE(refused("x,y,ppfd\n30,30,1\n90,30,1,2,3,4,5\n", wide).find("no column"), std::string::npos) << beyond;
    EXPECT_NE(refused("30,30\n90,30\n", wide).find("no column"), std::string::npos) << beyond;
  }
  TableOptions twice;
  twice.value_column = "1";
  EXPECT_NE(refused("x,y,ppfd\n30,30,400\n90,30,410\n", twice).find("taken for light"), std::string::npos);
  TableOptions two;
  two.x_column = "1";
  EXPECT_NE(refused("30,30\n90,30\n", two).find("three columns"), std::string::npos);
  TableOptions bare;  // without titles
  bare.x_column = "3", bare.y_column = "2", bare.value_column = "1";
  EXPECT_EQ(taken("10,30,30\n20,30,90\n30,90,30\n40,90,90\n", context(), bare).raw,
            (std::vector<double>{10, 20, 30, 40}));
  TableOptions lux;
  lux.x_column = "x", lux.y_column = "y", lux.value_column = "lux";
  EXPECT_NE(refused("x,y,lux,ppfd\n30,30,1,2\n90,30,1,2\n", lux).find("not PPFD"), std::string::npos);
}

TEST(Long, LuxIsNotTakenForPpfd) {
  const auto titled = [&](const std::string& title) {
    return read_sweep_table("x,y," + title + "\n30,30,500\n90,30,505\n30,90,510\n90,90,520\n", context());
  };
  for (const char* other : {"lux", "PPFD (fc)", "foot-candles", "light [W/m²]", "Irradiance, mW/cm2", "DLI",
                            "mol/m²/day", "Candela", "E (klx)"}) {
    const auto read = titled(other);
    ASSERT_FALSE(read.ok()) << other;
    EXPECT_NE(read.problem().sentence().find("not PPFD"), std::string::npos) << read.problem().sentence();
  }
  for (const char* ppfd : {"PPFD", "value", "µmol/m²/s", "ppfd umol m-2 s-1"}) EXPECT_TRUE(titled(ppfd).ok()) << ppfd;
}

TEST(Long, AnOutermostPlaceSetsTheInsetMargin) {
  std::string bytes = "x cm,y cm,ppfd\n";
  for (const int y : {10, 60, 110})
    for (const int x : {10, 60, 110}) bytes += std::to_string(x) + "," + std::to_string(y) + ",400.5\n";
  const TableDraft d = taken(bytes, context(GridKind::Inset));
  EXPECT_NEAR(d.grid.margin_x_m, 0.1, 1e-9);
  EXPECT_NEAR(d.layout.measured.width_m, 1.0, 1e-9);
}

TEST(Refusal, SaysWhatWasSeenAndWhatToDo) {
  for (const std::string& bytes : {std::string(), std::string("\n\n\n"), std::string("only words\nand more words\n"),
                                   std::string("\x00\x01\x02\x03", 4)}) {
    const auto draft = read_sweep_table(bytes, context());
    ASSERT_FALSE(draft.ok());
    EXPECT_FALSE(draft.problem().seen.empty());
    EXPECT_FALSE(draft.problem().remedy.empty());
  }
}

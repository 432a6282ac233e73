#include "doors/doors.h"

#include <gtest/gtest.h>

#include "exchange/package/verification.h"

using namespace sunbreak;
using namespace sunbreak::doors;

namespace {

/// A slice of `./sunbreak study doors`, of other seeds.
void expect_held(const char* name, int cases, std::uint64_t seed, Case (*run)(Random&)) {
  Tally tally;
  run_cases(tally, name, cases, seed, run);
  EXPECT_FALSE(tally.falls_short()) << tally.shortcomings;
}

}  // namespace

TEST(Doors, PackagesThatCannotBeAreRefusedByTheirPlace) { expect_held("packages", 250, 1'000'000, package_case); }
TEST(Doors, GarbledTextEndsInASentence) { expect_held("texts", 250, 2'000'000, text_case); }
TEST(Doors, HarmedLabBooksAreToldOrSetApart) { expect_held("lab books", 25, 3'000'000, book_case); }

TEST(Doors, AlteredReadingsAreTold) {
  Random random(77);
  const exchange::Archive sound = exchange::make_package(whole_test());
  EXPECT_TRUE(exchange::alterations(sound, exchange::read_package(sound).value()).empty());
  for (int i = 0; i < 60; ++i) {
    record::TestRecord altered = whole_test();
    const auto at = random() % altered.readings.size();
    altered.readings[at].raw *= i % 2 == 0 ? 1.1 : 0.97;
    exchange::Archive package = sound;
    package["reading.csv"] = exchange::make_package(altered).at("reading.csv");
    if (i % 3 == 0) package["datapackage.json"] = exchange::make_package(altered).at("datapackage.json");
    const auto read = exchange::read_package(package);
    ASSERT_TRUE(read.ok()) << read.problem().sentence();
    EXPECT_FALSE(exchange::alterations(package, read.value()).empty()) << "reading " << at;
  }
}

#include "exchange/package/verification.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <random>

#include "doors/whole_record.h"
#include "exchange/package/data_package.h"
#include "record/json.h"

using namespace sunbreak;
using namespace sunbreak::exchange;

namespace {

const Archive& sound() {
  static const Archive archive = make_package(doors::whole_test());
  return archive;
}

/// What an honest or a careful hand would do after a change: sizes and check sums stated anew.
void state_sums_anew(Archive& a) {
  auto descriptor = record::json_of(a.at("datapackage.json"));
  for (auto& resource : descriptor["resources"]) {
    const auto member = a.find(resource["path"].text());
    if (member == a.end()) continue;
    resource["bytes"] = member->second.size();
    resource["hash"] = sha256_words(member->second);
  }
  a["datapackage.json"] = record::json_text(descriptor, 2);
}

std::vector<std::string> lines_of(const std::string& csv) {
  std::vector<std::string> lines;
  for (std::size_t at = 0; at < csv.size();) {
    const auto end = std::min(csv.find("\r\n", at), csv.size());
    lines.push_back(csv.substr(at, end - at));
    at = end + 2;
  }
  return lines;
}

std::string csv_of(const std::vector<std::string>& lines) {
  std::string csv;
  for (const std::string& line : lines) csv += line + "\r\n";
  return csv;
}

/// Where a column begins and ends in a line without quoted commas before it.
std::pair<std::size_t, std::size_t> cell_of(const std::vector<std::string>& lines, std::size_t line,
                                            const std::string& column) {
  std::size_t number = 0, at = 0;
  for (std::size_t begin = 0;; ++number) {
    const auto end = std::min(lines[0].find(',', begin), lines[0].size());
    if (lines[0].substr(begin, end - begin) == column) break;
    if (end == lines[0].size()) return {0, 0};
    begin = end + 1;
  }
  while (number-- > 0) at = lines[line].find(',', at) + 1;
  return {at, std::min(lines[line].find(',', at), lines[line].size())};
}

/// Changes a number of a column in a random row that has one; false where none has.
bool change_number(std::string& csv, const std::string& column, std::mt19937_64& random) {
  std::vector<std::string> lines = lines_of(csv);
  for (int tries = 0; tries < 200; ++tries) {
    const std::size_t line = 1 + random() % (lines.size() - 1);
    const auto [from, to] = cell_of(lines, line, column);
    if (to <= from) continue;
    const double was = std::stod(lines[line].substr(from, to - from));
    lines[line].replace(from, to - from, fmt::format("{}", was * 1.02 + 0.5));
    csv = csv_of(lines);
    return true;
  }
  return false;
}

}  // namespace

TEST(Verification, ASoundPackageAgrees) {
  const Verification v = verify_package(sound(), read_package(sound()).value());
  EXPECT_TRUE(v.differences.empty()) << v.differences.front().sentence;
  EXPECT_GT(v.values, 100u);
}

/// A package of the method before has other ± than this version: that is told, and accuses nobody. Its figures are
/// held.
TEST(Verification, OneOfAnEarlierMethodIsHeldToItsFigures) {
  Archive a = sound();
  std::mt19937_64 random(4);
  auto descriptor = record::json_of(a.at("datapackage.json"));
  descriptor["sunbreak_method"] = 3;
  a["datapackage.json"] = record::json_text(descriptor, 2);
  ASSERT_TRUE(change_number(a["figures.csv"], "expanded_k2", random));
  state_sums_anew(a);
  const record::TestRecord record = read_package(a).value();
  const Verification earlier = verify_package(a, record);
  EXPECT_TRUE(earlier.differences.empty()) << earlier.differences.front().sentence;
  EXPECT_TRUE(std::ranges::any_of(earlier.notes, [](const auto& n) { return n.starts_with("written by method 3"); }));
  ASSERT_TRUE(change_number(a["figures.csv"], "value", random));
  state_sums_anew(a);
  EXPECT_EQ(verify_package(a, record).differences.size(), 1u);
}

/// 300 packages altered by one of ten hands, with and without new check sums: each is told, by the file it is in.
TEST(Verification, ThreeHundredAlteredOnesAreNamed) {
  std::mt19937_64 random(20270301);
  for (int n = 0; n < 300; ++n) {
    Archive a = sound();
    std::string expected;  // a file that has to be named
    const bool new_sums = n % 20 >= 10;
    switch (n % 10) {
      case 0:
      case 1: {  // a reading that counts
        ASSERT_TRUE(change_number(a["reading.csv"], "raw", random));
        expected = new_sums ? "stations.csv" : "reading.csv";
        break;
      }
      case 2:
        ASSERT_TRUE(change_number(a["stations.csv"], "ppfd_umol_m2_s", random));
        expected = "stations.csv";
        break;
      case 3:
        ASSERT_TRUE(change_number(a["stations.csv"], "raw", random));
        expected = "stations.csv";
        break;
      case 4:
        ASSERT_TRUE(change_number(a["figures.csv"], "value", random));
        expected = "figures.csv";
        break;
      case 5:
        ASSERT_TRUE(change_number(a["figures.csv"], "expanded_k2", random));
        expected = "figures.csv";
        break;
      case 6: {  // a row left out, or told twice
        std::vector<std::string> lines = lines_of(a["figures.csv"]);
        const auto at = 1 + random() % (lines.size() - 1);
        if (n % 20 < 10)
          lines.erase(lines.begin() + std::ptrdiff_t(at));
        else
          lines.insert(lines.begin() + std::ptrdiff_t(at), std::string(lines[at]));
        a["figures.csv"] = csv_of(lines);
        expected = "figures.csv";
        break;
      }
      case 7:  // watts make the efficacy
        ASSERT_TRUE(change_number(a["sweep.csv"], "power_w", random));
        expected = new_sums ? "figures.csv" : "sweep.csv";
        break;
      case 8:
        a.erase(n % 20 < 10 ? "stations.csv" : "figures.csv");
        expected = n % 20 < 10 ? "stations.csv" : "figures.csv";
        break;
      default: {  // nobody vouches for a table any more
        auto descriptor = record::json_of(a.at("datapackage.json"));
        const auto at = random() % descriptor["resources"].size();
        expected = descriptor["resources"][at]["path"].text();
        auto kept = record::Json::array();
        for (std::size_t i = 0; i < descriptor["resources"].size(); ++i) {
          const record::Json& resource = descriptor["resources"][i];
          if (i != at) kept.push_back(resource);
          if (i != at || n % 20 >= 10) continue;
          auto without_hash = record::Json::object();
          for (const std::string& name : resource.names())
            if (name != "hash") without_hash.add(name, resource[name]);
          kept.push_back(without_hash);
        }
        descriptor["resources"] = kept;
        a["datapackage.json"] = record::json_text(descriptor);
      }
    }
    if (new_sums && n % 10 != 9) state_sums_anew(a);
    const auto record = read_package(a);
    ASSERT_TRUE(record.ok()) << n << ": " << record.problem().sentence();
    const Verification v = verify_package(a, record.value());
    EXPECT_TRUE(std::ranges::any_of(v.differences, [&](const Difference& d) { return d.file == expected; }))
        << "case " << n << " in " << expected << ", "
        << (v.differences.empty() ? "nothing told" : v.differences.front().sentence);
    for (const Difference& d : v.differences) EXPECT_FALSE(d.sentence.empty());
  }
}

TEST(Verification, SaysWhatWasStatedAndWhatComesOut) {
  Archive a = sound();
  std::vector<std::string> lines = lines_of(a["figures.csv"]);
  const auto [from, to] = cell_of(lines, 1, "value");
  const std::string was = lines[1].substr(from, to - from);
  lines[1].replace(from, to - from, "999");
  a["figures.csv"] = csv_of(lines);
  state_sums_anew(a);
  const Verification v = verify_package(a, read_package(a).value());
  ASSERT_EQ(v.differences.size(), 1u);
  const Difference& d = v.differences.front();
  EXPECT_EQ(d.row, 2u);
  EXPECT_EQ(d.stated, "999");
  EXPECT_NEAR(std::stod(d.found), std::stod(was), 1e-9 * std::abs(std::stod(was)));
  EXPECT_NE(d.sentence.find("figures.csv, row 2: value of sweep 1, figure"), std::string::npos) << d.sentence;
}

// The tables of docs/formats.md and the JSON schema of packages follow from what the kinds of records say. Where this
// fails, SUNBREAK_RENEW_DOCS=1 ./sunbreak test writes both anew.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <cstdlib>
#include <fstream>
#include <sstream>

#include "exchange/package/cell_values.h"
#include "exchange/package/data_package.h"
#include "record/json.h"
#include "record/kinds.h"

using namespace sunbreak;

namespace {

constexpr std::string_view begin_mark = "<!-- tables of records: made by a test -->\n",
                           end_mark = "<!-- end of the tables of records -->\n";

std::string file_text(const char* path) {
  std::stringstream text;
  text << std::ifstream(path).rdbuf();
  return text.str();
}

std::string range_words(const record::Column& c) {
  if (!c.refers_to.empty()) return "an id of " + c.refers_to;
  if (!c.words.empty()) return fmt::format("{}", fmt::join(c.words, ", "));
  if (c.time == record::Column::Date) return "a date, ISO 8601";
  if (c.time == record::Column::Moment) return "a moment in UTC, ISO 8601";
  return std::isfinite(c.least) ? fmt::format("{:.10g} to {:.10g}", c.least, c.most) : "";
}

/// "2", or empty for what was there from the first.
std::string format_words(int since) { return since > 2 ? std::to_string(since - 1) : ""; }

std::string tables() {
  std::string page;
  for (const record::Kind& kind : record::kinds()) {
    if (!kind.facts.published) continue;
    page += fmt::format("### {}.csv\n\n", kind.name());
    if (const std::string since = format_words(kind.facts.since); !since.empty())
      page += fmt::format("From format {} on.\n\n", since);
    page += "| column | type | unit | may hold | from format | meaning |\n|---|---|---|---|---|---|\n";
    for (const record::Column& c : kind.columns)
      if (c.type != record::Type::Bytes)
        page += fmt::format("| {} | {}{} | {} | {} | {} | {} |\n", c.name, exchange::field_type(c.type),
                            c.optional ? ", or nothing" : "", c.unit, range_words(c),
                            c.since > kind.facts.since ? format_words(c.since) : "", c.meaning);
    page += "\n";
  }
  return page;
}

std::string with_tables(const std::string& page) {
  const auto begin = page.find(begin_mark), end = page.find(end_mark);
  if (begin == std::string::npos || end == std::string::npos) return {};
  return page.substr(0, begin + begin_mark.size()) + "\n" + tables() + page.substr(end);
}

std::string with_resources(const std::string& schema) {
  auto j = record::json_of(schema);
  auto names = record::Json::array();
  for (const record::Kind& kind : record::kinds())
    if (kind.facts.published) names.push_back(kind.name());
  for (const char* more : {"log_sample", "stations", "figures"}) names.push_back(more);
  j["properties"]["sunbreak_format"]["const"] = exchange::package_format();
  j["properties"]["resources"]["minItems"] = names.size();
  names.push_back("whole_light");                                       // where its light was found
  for (const char* more : {"audit", "verdict"}) names.push_back(more);  // where something is claimed
  j["properties"]["resources"]["items"]["anyOf"][0]["properties"]["name"]["enum"] = names;
  return json_text(j, 2) + "\n";
}

void expect_current(const char* path, std::string (*renewed)(const std::string&)) {
  const std::string there = file_text(path), wanted = renewed(there);
  ASSERT_FALSE(wanted.empty()) << path;
  if (std::getenv("SUNBREAK_RENEW_DOCS")) std::ofstream(path) << wanted;
  EXPECT_TRUE(file_text(path) == wanted) << path << " is not as the kinds of records are; see this test's first lines";
}

}  // namespace

TEST(FormatsPage, ItsTablesAreThoseOfTheRecords) { expect_current(FORMATS_PAGE, with_tables); }
TEST(FormatsPage, TheSchemaOfPackagesNamesTheirTables) { expect_current(PACKAGE_SCHEMA, with_resources); }

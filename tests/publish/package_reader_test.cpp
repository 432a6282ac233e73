#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <fstream>
#include <sstream>

#include "exchange/package/data_package.h"
#include "publish/run_program.h"
#include "publish/sample_tests.h"

namespace sunbreak {
namespace {

namespace fs = std::filesystem;

void write_file(const fs::path& file, const std::string& content) {
  fs::create_directories(file.parent_path());
  std::ofstream(file, std::ios::binary) << content;
}

}  // namespace

/// The sample book's packages, read by the public data package library and by the profiles of Frictionless, and their
/// descriptors by our own schema and a JSON Schema validator.
TEST(PackageReaders, FrictionlessAndOurSchemaFindNothingWrong) {
  const auto& tests = sample_tests();
  for (std::size_t n = 0; n < tests.size(); n += 3) {
    TemporaryFolder folder;
    const exchange::Archive archive = exchange::make_package(tests[n]);
    for (const auto& [name, content] : archive) write_file(folder.path() / name, content);
    const auto [status, said] =
        run_program(fmt::format("NODE_PATH={} node {} {}", NODE_MODULES, CHECK_PACKAGE, folder.path().string()));
    EXPECT_EQ(status, 0) << tests[n].test.name << ": " << said;
    EXPECT_GT(std::stoi(said), 100) << "rows were read";
    const auto [valid, words] = run_program(
        fmt::format("/usr/bin/python3 -c 'import json, jsonschema, sys; "
                    "jsonschema.validate(json.load(open(sys.argv[1])), json.load(open(sys.argv[2])))' {} {}",
                    (folder.path() / "datapackage.json").string(), PACKAGE_SCHEMA));
    EXPECT_EQ(valid, 0) << words;
  }
}

/// The script in docs gives the mean and efficacy that the package states.
TEST(PackageReaders, TwentyLinesOfPythonGiveTheSameFigures) {
  TemporaryFolder folder;
  int compared = 0;
  for (const record::TestRecord& test : sample_tests()) {
    const fs::path file = folder.path() / fmt::format("{}.zip", test.test.id);
    write_file(file, exchange::zip_bytes(exchange::make_package(test)));
    const auto [status, said] = run_program(fmt::format("/usr/bin/python3 {} {}", RECOMPUTE, file.string()));
    ASSERT_EQ(status, 0) << said;
    std::istringstream lines(said);
    std::string sweep, mean, efficacy, stated_mean, stated_efficacy;
    while (lines >> sweep >> mean >> efficacy >> stated_mean >> stated_efficacy) {
      EXPECT_NEAR(std::stod(mean), std::stod(stated_mean), 1e-7 * std::stod(stated_mean)) << test.test.name;
      if (stated_efficacy != "None") {
        EXPECT_NEAR(std::stod(efficacy), std::stod(stated_efficacy), 1e-7 * std::stod(stated_efficacy));
      }
      ++compared;
    }
  }
  EXPECT_GT(compared, 20);
}

}  // namespace sunbreak

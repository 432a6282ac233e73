#include <gtest/gtest.h>

#include "doors/whole_record.h"
#include "exchange/files/digest.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"
#include "exchange/package/verification.h"
#include "exchange/tables/delimited.h"
#include "pictures/made_pictures.h"
#include "record/configurations.h"
#include "record/kinds.h"
#include "record/renumber.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::exchange;

namespace {

/// A whole test whose pictures are of one file, given as it is.
TestRecord pictured(const std::string& file) {
  TestRecord t = doors::whole_test();
  const std::string digest = sha256_digits(file);
  each_picture(t, [&](auto& p) {
    p.digest = digest;
    p.media_type = "image/jpeg";
    p.size_bytes = static_cast<int>(file.size());
  });
  return t;
}

PictureSource source_of(const std::string& file) {
  return
      [file](const std::string& digest) { return digest == sha256_digits(file) ? std::optional(file) : std::nullopt; };
}

std::size_t pictures_in_it(const Archive& archive) {
  std::size_t count = 0;
  for (const auto& [name, content] : archive) count += name.starts_with("pictures/");
  return count;
}

}  // namespace

TEST(PicturePackage, PicturesGoAlongOnceAndComeBack) {
  const std::string file = pictures::small_jpeg();
  const TestRecord t = pictured(file);
  const Archive archive = make_package(t, source_of(file));
  EXPECT_EQ(pictures_in_it(archive), 1u) << "five records, one file";
  const auto path = std::filesystem::temp_directory_path() / "sunbreak-pictures-test.zip";
  ASSERT_FALSE(write_new_file(path, zip_bytes(archive), Existing::Replace));
  PictureFiles files;
  const auto back = read_package_file(path, &files);
  std::filesystem::remove(path);
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(back.value(), with_plain_ids(t));
  EXPECT_EQ(back.value().test.altered, "");
  ASSERT_EQ(files.size(), 1u);
  EXPECT_EQ(files.begin()->second, file);
}

TEST(PicturePackage, NothingThatACameraToldIsPublished) {
  const std::string file = pictures::camera_jpeg(6);
  const Archive archive = make_package(pictured(file), source_of(file));
  ASSERT_EQ(pictures_in_it(archive), 1u);
  for (const auto& [name, content] : archive)
    for (const char* told : {pictures::told_make, pictures::told_model, pictures::told_remark})
      EXPECT_EQ(content.find(told), std::string::npos) << name;
  const auto back = read_package(archive);
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(pictures_in(archive, back.value()).size(), 1u) << "found by the digest of what was published";
}

TEST(PicturePackage, AnotherFileInItsPlaceIsNotTaken) {
  const std::string file = pictures::small_jpeg();
  const TestRecord t = pictured(file);
  for (const std::string& other : {pictures::camera_jpeg(), std::string("no picture"), pictures::small_jpeg(8, 8)}) {
    Archive archive = make_package(t, source_of(file));
    for (auto& [name, content] : archive)
      if (name.starts_with("pictures/")) content = other;
    const auto back = read_package(archive);
    ASSERT_TRUE(back.ok()) << "the figures are as they were";
    EXPECT_EQ(back.value().readings, with_plain_ids(t).readings);
    EXPECT_TRUE(pictures_in(archive, back.value()).empty());
    EXPECT_FALSE(alterations(archive, back.value()).empty()) << "and it is told";
  }
}

TEST(PicturePackage, OneWithoutItsFilesIsStillWhole) {
  const TestRecord t = pictured(pictures::small_jpeg());
  const Archive archive = make_package(t);
  EXPECT_EQ(pictures_in_it(archive), 0u);
  const auto back = read_package(archive);
  ASSERT_TRUE(back.ok());
  EXPECT_EQ(back.value().pictures.size(), t.pictures.size());
}

TEST(DataPackage, OfAnEarlierFormatHowUnitsHangWasTheFixtures) {
  const TestRecord t = doors::whole_test();
  Archive archive = make_package(t);
  std::string& descriptor = archive.at("datapackage.json");
  const std::string now = "\"sunbreak_format\": " + std::to_string(package_format());
  descriptor.replace(descriptor.find(now), now.size(), "\"sunbreak_format\": 6");
  // As that format had it: columns of the fixture, none of the test.
  Rows fixture = split_verbatim(archive.at("fixture.csv"));
  std::string csv;
  for (std::size_t row = 0; row < fixture.size(); ++row) {
    for (const std::string& cell : fixture[row]) csv += "\"" + cell + "\",";
    csv += row == 0 ? "units,unit_spacing_m,unit_tilt_deg\r\n" : "2,0.58,12\r\n";
  }
  // Empty cells of numbers are not quoted.
  for (std::size_t at; (at = csv.find("\"\"")) != std::string::npos;) csv.erase(at, 2);
  archive.at("fixture.csv") = csv;
  const auto back = read_package(archive);
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(back.value().test.unit_columns, 2);
  EXPECT_EQ(back.value().test.unit_spacing_x_m, 0.58);
  EXPECT_EQ(back.value().test.unit_tilt_deg, 12);
}

TEST(DataPackage, EachConfigurationIsInTheFiguresAndTheTable) {
  const TestRecord t = doors::whole_test();
  const Archive archive = make_package(t);
  EXPECT_TRUE(alterations(archive, read_package(archive).value()).empty());
  EXPECT_NE(archive.at("figures.csv").find("\r\n5,mean_ppfd,"), std::string::npos)
      << "the fifth sweep is of the second";
  const std::string table = spreadsheet_csv(evaluation::evaluate_all(t));
  EXPECT_TRUE(table.starts_with("configuration,height_cm,")) << table.substr(0, 60);
  EXPECT_NE(table.find("two bars added"), std::string::npos);
}

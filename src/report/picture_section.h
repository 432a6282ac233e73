#pragma once

#include <functional>
#include <kainjow/mustache.hpp>
#include <vector>

#include "report/html_report.h"

namespace sunbreak::report {

/// A picture as a page needs it.
struct PagePicture {
  std::string digest, caption, kind;
};

/// The pictures of a test that `wanted` holds for.
std::vector<PagePicture> pictures_of(const record::TestRecord& record,
                                     const std::function<bool(const record::Picture&)>& wanted);

/// Puts pictures into a part of a page, scaled for it (on screens that show figures apart, to a side) and without
/// anything told beside them. One that is missing or damaged leaves a sentence in its place.
void add_pictures(kainjow::mustache::data& part, const std::vector<PagePicture>& pictures, const ReportOptions& options,
                  int side_on_screen_px = 480);

void add_fixture_pictures(kainjow::mustache::data& page, const record::TestRecord& record,
                          const ReportOptions& options);
/// Those of the test as a whole.
void add_test_pictures(kainjow::mustache::data& page, const record::TestRecord& record, const ReportOptions& options);

/// What grew under the fixture, as noted, with its pictures.
void add_notes_section(kainjow::mustache::data& page, const record::TestRecord& record, const ReportOptions& options);

}  // namespace sunbreak::report

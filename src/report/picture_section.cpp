#include "report/picture_section.h"

#include <fmt/format.h>

#include "drawing/png.h"
#include "pictures/pixels.h"
#include "report/facts_table.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

constexpr int most_side_px = 1200, most_side_on_screen_px = 720;

data picture_data(const PagePicture& picture, const ReportOptions& options) {
  data one;
  if (!picture.caption.empty()) one.set("caption", picture.caption);
  one.set("alt", picture.caption.empty() ? "a " + picture.kind + (picture.kind == "photograph" ? "" : " picture")
                                         : picture.caption);
  const auto file = options.pictures ? options.pictures(picture.digest) : std::nullopt;
  const auto pixels = file ? pictures::pixels_of(*file, options.figures_apart ? most_side_on_screen_px : most_side_px)
                           : Result<pictures::Rgb8>(Problem{"the picture's file is not here", "", ""});
  one.set("drawn", pixels.ok());
  if (!pixels) {
    one.set("why", pixels.problem().seen);
    return one;
  }
  one.set("source", "data:image/jpeg;base64," + drawing::base64(pictures::jpeg_of(pixels.value(), 82)));
  one.set("width", std::to_string(pixels.value().width));
  one.set("height", std::to_string(pixels.value().height));
  one.set("partly", pixels.value().partly);
  return one;
}

}  // namespace

std::vector<PagePicture> pictures_of(const record::TestRecord& record,
                                     const std::function<bool(const record::Picture&)>& wanted) {
  std::vector<PagePicture> pictures;
  for (const record::Picture& p : record.pictures)
    if (wanted(p)) pictures.push_back({p.digest, p.caption, p.kind});
  return pictures;
}

void add_pictures(data& part, const std::vector<PagePicture>& pictures, const ReportOptions& options) {
  List list;
  for (const PagePicture& picture : pictures) list.push_back(picture_data(picture, options));
  part.set("has_pictures", !list.empty());
  part.set("pictures", data(list));
}

void add_fixture_pictures(data& page, const record::TestRecord& record, const ReportOptions& options) {
  data part;
  std::vector<PagePicture> pictures;
  for (const record::FixturePicture& p : record.fixture_pictures) pictures.push_back({p.digest, p.caption, p.kind});
  add_pictures(part, pictures, options);
  page.set("fixture_pictures", part);
}

void add_test_pictures(data& page, const record::TestRecord& record, const ReportOptions& options) {
  data part;
  add_pictures(part,
               pictures_of(record,
                           [](const record::Picture& p) {
                             return !p.sweep_id && !p.temperature_id && !p.growth_note_id && p.check_rule.empty();
                           }),
               options);
  page.set("test_pictures", part);
}

void add_notes_section(data& page, const record::TestRecord& record, const ReportOptions& options) {
  List notes;
  for (const record::GrowthNote& note : record.growth_notes) {
    data one;
    one.set("on", stated(note.noted_on));
    one.set("words", note.words);
    add_pictures(one, pictures_of(record, [&](const record::Picture& p) { return p.growth_note_id == note.id; }),
                 options);
    notes.push_back(one);
  }
  page.set("has_notes", !notes.empty());
  page.set("notes", data(notes));
}

}  // namespace sunbreak::report

#include "report/picture_section.h"

#include <fmt/format.h>

#include <algorithm>

#include "drawing/png.h"
#include "pictures/pixels.h"
#include "report/facts_table.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

constexpr std::size_t most_on_screen = 12;  ///< of one thing

/// The more pictures of one thing there are, the smaller each is drawn.
int side_px(std::size_t count) { return count <= 12 ? 1200 : count <= 40 ? 900 : 640; }

data picture_data(const PagePicture& picture, const ReportOptions& options, int most_side_px) {
  data one;
  if (!picture.caption.empty()) one.set("caption", picture.caption);
  one.set("alt", picture.caption.empty() ? "a " + picture.kind + (picture.kind == "photograph" ? "" : " picture")
                                         : picture.caption);
  const auto file = options.pictures ? options.pictures(picture.digest) : std::nullopt;
  const auto pixels = file ? pictures::pixels_of(*file, most_side_px)
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

void add_pictures(data& part, const std::vector<PagePicture>& pictures, const ReportOptions& options,
                  int side_on_screen_px) {
  List list;
  const std::size_t drawn = options.figures_apart ? std::min(most_on_screen, pictures.size()) : pictures.size();
  const int side = options.figures_apart ? side_on_screen_px : side_px(pictures.size());
  for (std::size_t i = 0; i < drawn; ++i) list.push_back(picture_data(pictures[i], options, side));
  if (drawn < pictures.size())
    part.set("more_pictures", fmt::format("{} more pictures are in the page as written.", pictures.size() - drawn));
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

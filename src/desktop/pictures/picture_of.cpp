#include "desktop/pictures/picture_of.h"

#include <set>

#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

template <typename Row>
KeptPicture kept(const Row& row, bool of_fixture) {
  return {row.id,     of_fixture,   row.digest,    row.caption,   row.kind,
          row.origin, row.width_px, row.height_px, row.size_bytes};
}

PictureOf owner_of(const record::Picture& p) {
  return {0, p.sweep_id, p.temperature_id, p.growth_note_id, p.check_rule};
}

QString words_of_sweep(const Desk& desk, record::Id sweep_id) {
  const record::Sweep* sweep = desk.test()->sweep(sweep_id);
  const record::Rung* rung = sweep ? desk.test()->rung(sweep->rung_id) : nullptr;
  const record::Stop* stop = sweep ? desk.test()->stop(sweep->stop_id) : nullptr;
  return rung && stop ? QStringLiteral("%1 · %2 %")
                            .arg(text_of(length_text(rung->height_m, desk.units())), show_number(stop->percent))
                      : QObject::tr("a sweep");
}

template <typename Row>
Row described(Row row, const std::string& kind, const std::string& caption) {
  row.kind = kind;
  row.caption = caption;
  return row;
}

template <typename Row>
bool describe(Desk& desk, record::Id id, const std::string& kind, const std::string& caption) {
  const auto row = desk.book().find<Row>(id);
  return row && desk.edits().make(QObject::tr("caption of a picture"),
                                  [&](book::Edit& e) { e.save(described(*row, kind, caption)); });
}

}  // namespace

std::vector<KeptPicture> pictures_of(const Desk& desk, const PictureOf& of) {
  std::vector<KeptPicture> found;
  if (of.fixture_id != 0) {
    for (const auto& p : desk.book().all<record::FixturePicture>("WHERE fixture_id = ? ORDER BY id", of.fixture_id))
      found.push_back(kept(p, true));
  } else if (desk.test()) {
    for (const record::Picture& p : desk.test()->pictures)
      if (owner_of(p) == of) found.push_back(kept(p, false));
  }
  return found;
}

std::vector<std::pair<PictureOf, QString>> picture_owners(const Desk& desk) {
  std::vector<std::pair<PictureOf, QString>> owners;
  const record::TestRecord* test = desk.test();
  if (!test) return owners;
  owners.emplace_back(PictureOf::test(), QObject::tr("the test"));
  owners.emplace_back(PictureOf::fixture(test->fixture.id), QObject::tr("the fixture, in all its tests"));
  if (const record::Sweep* sweep = desk.sweep())
    owners.emplace_back(PictureOf::sweep(sweep->id),
                        QObject::tr("this sweep, %1").arg(words_of_sweep(desk, sweep->id)));
  for (const record::Temperature& t : test->temperatures)
    owners.emplace_back(PictureOf::temperature(t.id), QObject::tr("the temperature: %1").arg(text_of(t.place)));
  std::set<std::string> rules;
  for (const evaluation::TestFinding& f : desk.worked_out().all_findings())
    if (rules.insert(f.check.id).second)
      owners.emplace_back(PictureOf::check(f.check.id, f.sweep_id ? std::optional(f.sweep_id) : std::nullopt),
                          QObject::tr("the check: %1").arg(text_of(f.check.id)));
  for (const record::GrowthNote& note : test->growth_notes)
    owners.emplace_back(PictureOf::note(note.id), QObject::tr("the note of %1").arg(text_of(note.noted_on)));
  return owners;
}

bool attach_picture(Desk& desk, const PictureOf& of, const pictures::CleanPicture& picture, const std::string& kind,
                    const std::string& caption, const std::string& origin) {
  const auto filled = [&](auto row, const std::string& digest) {
    row.kind = kind;
    row.caption = caption;
    row.digest = digest;
    row.media_type = picture.media_type;
    row.width_px = picture.width_px;
    row.height_px = picture.height_px;
    row.size_bytes = static_cast<int>(picture.bytes.size());
    row.origin = origin;
    row.added_at = book::utc_now();
    return row;
  };
  return desk.edits().make(QObject::tr("attach a picture"), [&](book::Edit& e) {
    const std::string digest = e.keep_picture(picture.bytes);
    if (of.fixture_id != 0) {
      record::FixturePicture row;
      row.fixture_id = of.fixture_id;
      e.add(filled(row, digest));
    } else {
      record::Picture row;
      row.test_id = desk.test()->test.id;
      row.sweep_id = of.sweep_id;
      row.temperature_id = of.temperature_id;
      row.growth_note_id = of.growth_note_id;
      row.check_rule = of.check_rule;
      e.add(filled(row, digest));
    }
  });
}

bool describe_picture(Desk& desk, const KeptPicture& picture, const std::string& kind, const std::string& caption) {
  return picture.of_fixture ? describe<record::FixturePicture>(desk, picture.id, kind, caption)
                            : describe<record::Picture>(desk, picture.id, kind, caption);
}

bool take_picture_out(Desk& desk, const KeptPicture& picture) {
  return desk.edits().make(QObject::tr("take out a picture"), [&](book::Edit& e) {
    if (picture.of_fixture)
      e.erase<record::FixturePicture>(picture.id);
    else
      e.erase<record::Picture>(picture.id);
  });
}

}  // namespace sunbreak::desktop

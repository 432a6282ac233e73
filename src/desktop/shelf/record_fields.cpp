#include "desktop/shelf/record_fields.h"

#include <algorithm>

#include "book/plan.h"
#include "core/power/dimmer_steps.h"
#include "desktop/shelf/figures_at_stake.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"
#include "record/claim_kinds.h"
#include "record/claim_splitting.h"

namespace sunbreak::desktop {

using record::Bench;
using record::Claim;
using record::Fixture;
using record::Id;
using record::Meter;

namespace {

QString unit_text(const Desk& desk) { return text_of(symbol(surface_unit(desk.units()))); }

/// A line over an optional number of a record.
template <typename Record>
void number_line(Form& form, Desk& desk, const WhichId& id, const QString& name, std::optional<double> Record::*member,
                 const NumberRange& range, const QString& unit) {
  form.line(
      name, [=, &desk] { return show_number(member_of(desk, id(), member).value_or(std::nullopt)); },
      parse_number_field(
          range, [=, &desk](std::optional<double> v) { return store_member(desk, id(), member, v, name.toLower()); }),
      [unit] { return unit; });
}

template <typename Record>
QLineEdit* length_line(Form& form, Desk& desk, const WhichId& id, const QString& name,
                       std::optional<double> Record::*member, const NumberRange& range) {
  return form.line(
      name, [=, &desk] { return show_length(member_of(desk, id(), member).value_or(std::nullopt), desk.units()); },
      parse_length_field(
          [&desk] { return desk.units(); }, range,
          [=, &desk](std::optional<double> v) { return store_member(desk, id(), member, v, name.toLower()); }),
      [&desk] { return unit_text(desk); });
}

/// Kinds of claims that stand among a fixture's fields; Audit has them all.
constexpr std::string_view claims_on_the_shelf[] = {"power_w",  "ppf_umol_s",    "efficacy_umol_j", "coverage",
                                                    "height_m", "dimming_range", "equivalent"};

std::optional<Claim> claim_of(Desk& desk, Id fixture_id, const std::string& kind) {
  // The desk's own test has them at hand.
  if (const record::TestRecord* test = desk.test(); test && test->fixture.id == fixture_id) {
    const auto found = std::ranges::find(test->claims, kind, &Claim::kind);
    return found == test->claims.end() ? std::nullopt : std::optional(*found);
  }
  const auto claims = desk.book().all<Claim>("WHERE fixture_id = ? AND kind = ? ORDER BY id", fixture_id, kind);
  return claims.empty() ? std::nullopt : std::optional(claims.front());
}

QString store_claim(Desk& desk, Id fixture_id, const std::string& kind, std::optional<double> value,
                    const std::string& words) {
  const auto present = claim_of(desk, fixture_id, kind);
  const bool kept = desk.edits().make(QObject::tr("claim"), [&](book::Edit& e) {
    if (present && !value && words.empty()) return e.erase<Claim>(present->id);
    Claim claim = present.value_or(Claim{});
    if (!words.empty()) {
      // Words that are surely one claim of the kind state it; others are kept as words, for Audit to split.
      const auto split = record::split_claim(words, kind);
      const bool surely = split.claims.size() == 1 && split.rest.empty() && split.claims.front().kind == kind;
      Claim stated = surely ? split.claims.front() : Claim{};
      stated.id = claim.id, stated.source = claim.source, stated.stated_on = claim.stated_on;
      claim = stated;
    } else {
      claim.value = value;
    }
    claim.fixture_id = fixture_id;
    claim.kind = kind;
    claim.words = words;
    if (present)
      e.save(claim);
    else
      e.add(claim);
  });
  return kept ? QString() : QObject::tr("Not kept.");
}

}  // namespace

QLineEdit* add_fixture_name(Form& form, Desk& desk, const WhichId& id, const QString& label) {
  auto* line = text_line<Fixture>(form, desk, id, label, &Fixture::name);
  line->setObjectName("fixtureName");
  return line;
}

void add_fixture_details(Form& form, Desk& desk, const WhichId& id) {
  text_line<Fixture>(form, desk, id, QObject::tr("Maker"), &Fixture::maker);
  text_line<Fixture>(form, desk, id, QObject::tr("Kind"), &Fixture::kind, QObject::tr("such as: six LED bars"));
  text_line<Fixture>(form, desk, id, QObject::tr("Emitters"), &Fixture::emitters,
                     QObject::tr("such as: 6 bars, 20 cm apart"));
  length_line<Fixture>(form, desk, id, QObject::tr("Width of one unit"), &Fixture::width_m, {0.01, 10})
      ->setObjectName("fixtureWidth");
  length_line<Fixture>(form, desk, id, QObject::tr("Depth of one unit"), &Fixture::depth_m, {0.01, 10})
      ->setObjectName("fixtureDepth");
  const auto count = [&](const QString& name, std::optional<int> Fixture::*member) {
    form.line(
        name,
        [=, &desk] {
          const auto value = member_of(desk, id(), member).value_or(std::nullopt);
          return value ? QString::number(*value) : QString();
        },
        parse_number_field({1, 200}, [=, &desk](std::optional<double> v) {
          return store_member(desk, id(), member, v ? std::optional(static_cast<int>(*v)) : std::nullopt,
                              name.toLower());
        }));
  };
  count(QObject::tr("Emitters or bars across"), &Fixture::emitters_across);
  count(QObject::tr("Emitters front to back"), &Fixture::emitters_deep);
  length_line<Fixture>(form, desk, id, QObject::tr("Widest emitter gap"), &Fixture::emitter_spacing_m, {0.001, 2})
      ->setObjectName("emitterSpacing");
  number_line<Fixture>(form, desk, id, QObject::tr("Beam angle"), &Fixture::beam_angle_deg, {5, 179}, QObject::tr("°"));
  form.line(
          QObject::tr("Dimmer can be set to"),
          [=, &desk] { return text_of(member_of(desk, id(), &Fixture::dimmer_steps).value_or("")); },
          [=, &desk](const QString& text) -> QString {
            if (const auto steps = parse_dimmer_steps(text_of(text)); !steps)
              return text_of(steps.problem().sentence());
            store_member(desk, id(), &Fixture::dimmer_steps, text_of(text.trimmed()), QObject::tr("dimmer's steps"));
            return {};
          },
          {}, QObject::tr("such as: 5 %; 25, 50, 75, 100; free"))
      ->setObjectName("dimmerSteps");
  number_line<Fixture>(form, desk, id, QObject::tr("Price"), &Fixture::price, {0, 1e7}, {});
  text_line<Fixture>(form, desk, id, QObject::tr("Currency"), &Fixture::currency);
  date_line<Fixture>(form, desk, id, QObject::tr("Day of the price"), &Fixture::price_on);
  number_line<Fixture>(form, desk, id, QObject::tr("Discount"), &Fixture::discount_pct, {0, 100}, QObject::tr("%"));
  number_line<Fixture>(form, desk, id, QObject::tr("Shipping"), &Fixture::shipping, {0, 1e7}, {});
  text_line<Fixture>(form, desk, id, QObject::tr("Remarks"), &Fixture::notes)->setObjectName("fixtureRemarks");
}

void add_claim_fields(Form& form, Desk& desk, const WhichId& fixture_id) {
  for (const std::string_view name : claims_on_the_shelf) {
    const record::ClaimKind& kind = *record::claim_kind(name);
    const std::string key(name);
    const QString label = text_of(kind.label);
    if (kind.holds == record::ClaimKind::Number)
      form.line(
          label,
          [=, &desk] {
            const auto claim = claim_of(desk, fixture_id(), key);
            return claim ? show_number(claim->value) : QString();
          },
          parse_number_field(
              {kind.least, kind.most},
              [=, &desk](std::optional<double> v) { return store_claim(desk, fixture_id(), key, v, ""); }),
          [unit = text_of(kind.units.front().symbol)] { return unit; });
    else
      form.line(
          label,
          [=, &desk] {
            const auto claim = claim_of(desk, fixture_id(), key);
            if (!claim) return QString();
            return text_of(claim->words.empty() ? record::claimed_value_words(*claim, desk.units()) : claim->words);
          },
          [=, &desk](const QString& text) { return store_claim(desk, fixture_id(), key, {}, text_of(text)); }, {},
          QObject::tr("in the maker's words"));
  }
  form.note([=, &desk]() -> QString {
    const record::TestRecord* test = desk.test();
    const bool at_hand = test && test->fixture.id == fixture_id();
    const auto all = at_hand ? test->claims : desk.book().all<Claim>("WHERE fixture_id = ?", fixture_id());
    std::size_t shown = 0;
    for (const std::string_view name : claims_on_the_shelf)
      shown += claim_of(desk, fixture_id(), std::string(name)).has_value();
    return all.size() > shown
               ? QObject::tr("%1 more stand on Audit, where claims of every kind are kept.").arg(all.size() - shown)
               : QString();
  });
}

void add_bench_size(Form& form, Desk& desk, const WhichId& id) {
  const auto side = [&](const QString& name, double Bench::*member) {
    return form.line(
        name, [=, &desk] { return show_length(member_of(desk, id(), member), desk.units()); },
        parse_length_field(
            [&desk] { return desk.units(); }, {0.05, 20, false},
            [=, &desk](std::optional<double> v) -> QString {
              auto bench = desk.book().find<Bench>(id());
              if (!bench) return {};
              (*bench).*member = *v;
              // The test on the desk may change its own bench; from the shelf, no test is exempt.
              record::TestRecord around;
              if (desk.test() && desk.test()->bench.id == bench->id)
                around = *desk.test();
              else
                around.bench = *desk.book().find<Bench>(id());
              const auto resize = [&] {
                return desk.edits().plan(
                    [&] { return book::resize_bench(desk.book(), around, record::footprint_of(*bench)); });
              };
              if (!agreed_for_figures(desk,
                                      QObject::tr("This bench was walked. With another size the stations "
                                                  "lie elsewhere, and the readings hold for another area."),
                                      resize))
                return {};
              return resize();
            }),
        [&desk] { return unit_text(desk); });
  };
  side(QObject::tr("Width, left to right"), &Bench::width_m)->setObjectName("benchWidth");
  side(QObject::tr("Depth, from the door"), &Bench::depth_m)->setObjectName("benchDepth");
}

void add_bench_details(Form& form, Desk& desk, const WhichId& id) {
  text_line<Bench>(form, desk, id, QObject::tr("Name of the bench"), &Bench::name)->setObjectName("benchName");
  length_line<Bench>(form, desk, id, QObject::tr("Height available"), &Bench::height_m, {0.1, 20});
  const std::tuple<QString, std::string Bench::*, const char*> walls[] = {
      {QObject::tr("Left wall"), &Bench::wall_left, "wallLeft"},
      {QObject::tr("Right wall"), &Bench::wall_right, "wallRight"},
      {QObject::tr("Front, with door"), &Bench::wall_front, "wallFront"},
      {QObject::tr("Back wall"), &Bench::wall_back, "wallBack"},
      {QObject::tr("Ceiling"), &Bench::ceiling, "benchCeiling"},
      {QObject::tr("Floor"), &Bench::floor, "benchFloor"}};
  for (const auto& [name, member, object] : walls) {
    form.choice(
            name,
            [may_be_open = member != &Bench::floor] {
              std::vector<Choice> choices{{QObject::tr("not stated"), ""},
                                          {QObject::tr("reflective"), "reflective"},
                                          {QObject::tr("white"), "white"},
                                          {QObject::tr("dark"), "dark"}};
              if (may_be_open) choices.push_back({QObject::tr("open"), "open"});
              return choices;
            },
            [=, &desk, member = member] { return QVariant(text_of(member_of(desk, id(), member).value_or(""))); },
            [=, &desk, member = member, name = name](const QVariant& v) {
              return store_member(desk, id(), member, text_of(v.toString()), name.toLower());
            })
        ->setObjectName(object);
  }
  text_line<Bench>(form, desk, id, QObject::tr("Remarks"), &Bench::notes)->setObjectName("benchRemarks");
}

namespace {

/// As its maker quotes it: the number, and what it is quoted as. The book keeps one standard deviation.
void add_meter_uncertainty(Form& form, Desk& desk, const WhichId& id) {
  const auto quoted = [=, &desk]() -> std::optional<double> {
    const auto meter = desk.book().find<Meter>(id());
    if (!meter || !meter->uncertainty_pct) return {};
    return *meter->uncertainty_pct * meter->uncertainty_k.value_or(1);
  };
  const auto store = [=, &desk](std::optional<double> quoted_pct, std::optional<double> k) {
    auto meter = desk.book().find<Meter>(id());
    if (!meter) return QString();
    meter->uncertainty_k = k;
    meter->uncertainty_pct = quoted_pct ? std::optional(*quoted_pct / k.value_or(1)) : std::nullopt;
    return desk.edits().make(QObject::tr("uncertainty of a meter"), [&](book::Edit& e) { e.save(*meter); })
               ? QString()
               : QObject::tr("Not kept.");
  };
  const auto factor = [=, &desk] { return member_of(desk, id(), &Meter::uncertainty_k).value_or(std::nullopt); };
  form.line(
          QObject::tr("Uncertainty, as quoted"), [=] { return show_number(quoted()); },
          parse_number_field({0, 100}, [=](std::optional<double> v) { return store(v, factor()); }),
          [] { return QStringLiteral("± %"); })
      ->setObjectName("meterUncertainty");
  form.choice(
          QObject::tr("Quoted as"),
          [] {
            return std::vector<Choice>{{QObject::tr("not stated"), ""},
                                       {QObject::tr("k = 2, holds 95 of 100"), 2.0},
                                       {QObject::tr("one standard deviation"), 1.0},
                                       {QObject::tr("k = 3, holds nearly all"), 3.0}};
          },
          [=] { return factor() ? QVariant(*factor()) : QVariant(""); },
          [=](const QVariant& v) {
            return store(quoted(), v == QVariant("") ? std::nullopt : std::optional(v.toDouble()));
          })
      ->setObjectName("meterQuotedAs");
  form.note([=]() -> QString {
    return quoted() && !factor()
               ? QObject::tr("Not known what it is quoted as: one standard deviation is assumed, and marked so.")
               : QString();
  });
}

}  // namespace

void add_meter_fields(Form& form, Desk& desk, const WhichId& id, const std::string& kind) {
  text_line<Meter>(form, desk, id, QObject::tr("Name"), &Meter::name);
  date_line<Meter>(form, desk, id, QObject::tr("Calibrated on"), &Meter::calibrated_on)->setObjectName("calibratedOn");
  if (kind != "wall") {
    const auto plain = [&](const QString& name, double Meter::*member, const NumberRange& range, const QString& unit) {
      form.line(
          name, [=, &desk] { return show_number(member_of(desk, id(), member)); },
          parse_number_field(
              range,
              [=, &desk](std::optional<double> v) { return store_member(desk, id(), member, *v, name.toLower()); }),
          [unit] { return unit; });
    };
    const QString shown = kind == "lux" ? QStringLiteral("lx") : QStringLiteral("µmol/m²/s");
    plain(QObject::tr("Calibration factor"), &Meter::factor, {0.01, 100, false}, {});
    plain(QObject::tr("Reading in the dark"), &Meter::dark_offset, {-100, 100, false}, shown);
    length_line<Meter>(form, desk, id, QObject::tr("Receiving height"), &Meter::receiving_height_m, {0, 1});
    length_line<Meter>(form, desk, id, QObject::tr("Nearest to a wall"), &Meter::closest_approach_m, {0, 1});
    number_line<Meter>(form, desk, id, QObject::tr("Range up to"), &Meter::range_max, {1, 1e5}, "µmol/m²/s");
  }
  add_meter_uncertainty(form, desk, id);
  text_line<Meter>(form, desk, id, QObject::tr("Remarks"), &Meter::notes)->setObjectName("meterRemarks");
}

}  // namespace sunbreak::desktop

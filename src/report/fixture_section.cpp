#include "report/fixture_section.h"

#include <fmt/format.h>

#include "evaluation/rig_model.h"
#include "record/claim_kinds.h"
#include "record/fact_sheet.h"
#include "report/facts_table.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

std::string money(double amount, const std::string& currency) {
  return short_number(amount, 2) + (currency.empty() ? "" : " " + currency);
}

std::string price_words(const record::Fixture& f) {
  if (!f.price) return {};
  std::string words = money(*f.price, f.currency);
  if (f.discount_pct) words += fmt::format(", less {} %", short_number(*f.discount_pct, 1));
  if (f.shipping) words += fmt::format(", shipping {}", money(*f.shipping, f.currency));
  if (f.discount_pct || f.shipping) words += fmt::format(": {}", money(*record::cost_of(f), f.currency));
  if (!f.price_on.empty()) words += fmt::format(" (on {})", f.price_on);
  return words;
}

std::string fact_text(const record::FactKind& kind, const record::BoxFact& fact, UnitSystem units) {
  if (kind.holds == record::FactKind::Length) return length_text(*fact.value, units);
  if (!fact.value) return fact.words;
  return short_number(*fact.value, 2) + (kind.unit.empty() ? "" : " " + std::string(kind.unit));
}

/// A row of the sheet: what the maker says of it, what was found, and what follows. Nothing where neither is known.
std::optional<data> sheet_row(const std::string& name, const std::string& stated, const std::string& checked,
                              const std::string& follows) {
  if (stated.empty() && checked.empty() && follows.empty()) return {};
  data row;
  row.set("name", name);
  row.set("stated", stated);
  row.set("checked", checked);
  row.set("follows", follows);
  return row;
}

std::optional<data> fact_row(const record::TestRecord& b, const record::FactKind& kind, UnitSystem units) {
  const auto text = [&](const char* source) {
    const record::BoxFact* fact = record::box_fact(b, kind.name, source);
    return fact ? fact_text(kind, *fact, units) : std::string();
  };
  const std::string stated = text("stated"), checked = text("checked");
  return sheet_row(std::string(kind.label), stated, checked,
                   kind.holds == record::FactKind::ProtectionCode
                       ? record::protection_words(checked.empty() ? stated : checked)
                       : std::string());
}

/// Watts an emitter: the most that was read at the wall, or is claimed, over their number.
std::string watts_an_emitter(const record::TestRecord& b) {
  const record::BoxFact* count = record::box_fact(b, "emitter_count", "checked");
  if (!count) count = record::box_fact(b, "emitter_count", "stated");
  if (!count) return {};
  std::optional<double> watts;
  for (const record::Sweep& sweep : b.sweeps)
    if (sweep.power_w && *sweep.power_w > watts.value_or(0)) watts = sweep.power_w;
  const bool measured = watts.has_value();
  for (const record::Claim& claim : b.claims)
    if (!watts && claim.kind == "power_w") watts = claim.value;
  if (!watts) return {};
  return fmt::format("{} W each, of {} W {}", short_number(*watts / *count->value, 2), short_number(*watts, 1),
                     measured ? "read at the wall" : "claimed");
}

}  // namespace

std::string arrangement_words(const record::TestRecord& b, UnitSystem units) {
  const FixtureOutline o = evaluation::outline_of(b);
  std::string words;
  if (units_of(o) > 1) {
    words = fmt::format("{} × {} units", o.columns, o.rows);
    if (o.columns > 1) words += fmt::format(", {} apart left to right", length_text(o.spacing_x_m, units));
    if (o.rows > 1) words += fmt::format(", {} apart front to back", length_text(o.spacing_y_m, units));
  }
  const auto also = [&](const std::string& more) { words += (words.empty() ? "" : "; ") + more; };
  if (o.turn_deg != 0) also(fmt::format("turned by {}°", short_number(o.turn_deg, 1)));
  if (o.unit_tilt_deg != 0)
    also(fmt::format("outer units turned inward by {}°, heights to their middle", short_number(o.unit_tilt_deg, 1)));
  return words;
}

void add_fixture_section(data& page, const record::TestRecord& b, UnitSystem units) {
  const record::Fixture& f = b.fixture;
  page.set("fixture", FactsTable()
                          .add("Name", f.name)
                          .add("Maker", f.maker)
                          .add("Kind", f.kind)
                          .add("Emitters", f.emitters)
                          .add("Size", f.width_m && f.depth_m ? size_text(*f.width_m, *f.depth_m, units) : "")
                          .add_given("Arrangement", arrangement_words(b, units))
                          .add("Price", price_words(f))
                          .take());
  List groups;
  for (std::size_t i = 0; i < record::fact_kinds().size();) {
    const std::string_view group = record::fact_kinds()[i].group;
    List facts;
    const auto add = [&](std::optional<data> row) {
      if (row) facts.push_back(*row);
      return row.has_value();
    };
    for (; i < record::fact_kinds().size() && record::fact_kinds()[i].group == group; ++i) {
      const record::FactKind& kind = record::fact_kinds()[i];
      const bool known = add(fact_row(b, kind, units));
      if (kind.name == "emitter_count") add(sheet_row("Watts an emitter", "", "", watts_an_emitter(b)));
      if (kind.name == "listing_number" && known)
        add(sheet_row("What it covers", "", "", std::string(record::listing_caution())));
    }
    if (facts.empty()) continue;
    data one;
    one.set("group", std::string(group));
    one.set("facts", data(facts));
    groups.push_back(one);
  }
  page.set("has_sheet", !groups.empty());
  page.set("sheet", data(groups));
  FactsTable claims;
  for (const record::Claim& c : record::claims_of(b)) {
    const record::ClaimKind* kind = record::claim_kind(c.kind);
    claims.add(kind ? std::string(kind->label) : c.kind, record::claim_words(c, units));
  }
  page.set("claims", claims.take());
}

}  // namespace sunbreak::report

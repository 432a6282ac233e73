#include "report/card_section.h"

#include <fmt/format.h>

#include "core/power/running_cost.h"
#include "core/quantity/daily_light.h"
#include "core/quantity/number.h"
#include "core/quantity/uncertain_text.h"
#include "core/visible.h"
#include "embedded/sunbreak_report.h"
#include "evaluation/provenance.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using CardRows = kainjow::mustache::list;

}  // namespace

void add_card_section(data& page, const evaluation::TestRecord& record, const evaluation::SettingsCard* card,
                      UnitSystem units) {
  page.set("has_card", card != nullptr && !card->lines.empty());
  if (!card) return;
  const auto tariff = record.test.tariff_per_kwh;
  CardRows rows;
  for (const evaluation::CardLine& line : card->lines) {
    data row;
    row.set("stage", line.row.stage + (line.row.own ? " (typed by the tester)" : ""));
    row.set("band", fmt::format("{:.0f}–{:.0f}", line.row.low_ppfd, line.row.high_ppfd));
    row.set("hours", short_number(line.row.photoperiod_h, 1));
    row.set("weeks", line.row.weeks ? short_number(*line.row.weeks, 1) : "");
    row.set("known", line.point.has_value());
    row.set("why", line.why);
    const std::string said = line.point ? evaluation::card_line_words(line) : std::string();
    row.set("has_said", !said.empty());
    row.set("said", said);
    if (line.point) {
      const SettlePoint& p = *line.point;
      row.set("height", length_text(p.height->height_m, units));
      row.set("dimmer", short_number(p.setting.percent, 1) + " %");
      row.set("mean", uncertain_text(p.figures.mean, line.expanded.mean, 0));
      row.set("edge", uncertain_text(p.figures.edge, line.expanded.edge, 0));
      row.set("daily", fmt::format("{:.1f}", dli_mol_m2_d(p.figures.mean, line.row.photoperiod_h)));
      row.set("covered", fmt::format("{:.0f} %", 100 * p.figures.in_band));
      row.set("chance", chance_text(p.chance));
      const auto watts = p.setting.power_w;
      const RunningCost cost = running_cost(watts.value_or(0), line.row.photoperiod_h, tariff.value_or(0));
      row.set("watts", watts ? fmt::format("{:.0f}", *watts) : "–");
      row.set("energy", watts ? fmt::format("{:.2f}", cost.kwh_day) : "–");
      row.set("money", watts && tariff ? fmt::format("{:.2f}", cost.money_day) : "–");
    }
    rows.push_back(row);
  }
  page.set("card_rows", data(rows));
  page.set("card_money", tariff ? record.test.tariff_currency : std::string("money"));
  page.set("card_rule",
           fmt::format(
               "Predicted from the measured sweeps where none was walked. A stage is served where the rule is met over "
               "{}: {}. Chance: that it is, with all that readings, model and meters leave open.",
               size_text(card->area.width_m, card->area.depth_m, units), serving_rule_words(card->request.rule)));
  std::string sum;
  if (const auto grow = evaluation::grow_sum(*card)) {
    sum = fmt::format("The whole grow, {:.0f} days: {:.0f} kWh", grow->days, grow->kwh);
    if (tariff) sum += fmt::format(", {:.2f} {}", grow->kwh * *tariff, record.test.tariff_currency);
    sum += ".";
  }
  page.set("card_sum", sum);
  std::string maker;
  for (const std::string& claim : evaluation::claimed_heights(record, units))
    maker += (maker.empty() ? "" : "; ") + claim;
  page.set("card_maker", maker.empty() ? std::string() : "The maker recommends to hang it at " + maker + ".");
}

std::string settings_card_page(const evaluation::TestRecord& record, const evaluation::SettingsCard& card,
                               UnitSystem units) {
  data page;
  page.set("css", std::string(embedded::report_css) + std::string(embedded::web_css));
  page.set("title", "Settings card: " + record::title_of(record));
  page.set("lead", fmt::format("{} on {}{}", record.fixture.name, record.bench.name,
                               record.test.tested_by.empty() ? "" : ", measured by " + record.test.tested_by));
  page.set("simulated", evaluation::provenance_sentence(record.test));
  add_card_section(page, record, &card, units);
  page.set("part_card_table", std::string(embedded::card_table_mustache));
  kainjow::mustache::mustache own{std::string(embedded::settings_card_mustache)};
  return visible(own.render(page));
}

}  // namespace sunbreak::report

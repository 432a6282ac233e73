#include <fmt/format.h>

#include "core/quantity/daily_light.h"
#include "core/quantity/uncertain_text.h"
#include "evaluation/crop_targets.h"
#include "evaluation/read_sweeps.h"
#include "paper/still_frame.h"

namespace sunbreak::paper {
namespace {

using namespace drawing;
using evaluation::Evaluation;

constexpr std::size_t most_claims = 7, most_sentences = 3, most_rows = 9;

void draw_claims(Canvas& c, const StillFrame& frame, const record::TestRecord& b, const evaluation::Audit& audit) {
  const double top =
      draw_still_heading(c, frame, b.fixture.name, "What the maker claims, held against what was measured");
  const double bottom = still_height - still_foot - 8, width = frame.width - 2 * still_edge;
  const std::size_t shown = std::min(most_claims, audit.claims.size());
  const double step = std::min(frame.tall() ? 46.0 : 38.0, (bottom - top) / static_cast<double>(shown));
  double y = top;
  for (std::size_t i = 0; i < shown; ++i) {
    const evaluation::AuditedClaim& a = audit.claims[i];
    const Verdict v = a.judgement.verdict;
    const Rgb ink = v == Verdict::Short || v == Verdict::Contradicted ? c.colors().ember : c.colors().ink;
    const std::string verdict = verdict_words(a.judgement);
    const double verdict_width = std::min(width * 0.55, c.text_width(verdict, 11, true));
    c.text({still_edge, y, width - verdict_width - 8, 14}, Align::Left,
           fitted(c, a.label, 11, true, width - verdict_width - 8), {11, true, c.colors().ink});
    c.text({still_edge, y, width, 14}, Align::Right, fitted(c, verdict, 11, true, verdict_width + 1), {11, true, ink});
    std::string line = "claimed " + a.claimed_words;
    if (!a.measured_words.empty()) line += ", measured " + a.measured_words;
    c.text({still_edge, y + 14, width, 12}, Align::Left, fitted(c, line, least_points, false, width),
           {least_points, false, c.colors().quiet});
    y += step;
  }
}

void draw_title(Canvas& c, const StillFrame& frame, const Evaluation& evaluation, const evaluation::Audit* audit) {
  const record::TestRecord& b = evaluation.record();
  const double width = frame.width - 2 * still_edge;
  double y = frame.tall() ? 60 : 50;
  const int points = frame.tall() ? 20 : 34;
  for (const std::string& line : wrapped(c, b.fixture.name, points, width)) {
    c.text({still_edge, y, width, points * 1.3}, Align::Left, line, {points, true, c.colors().ink});
    y += points * 1.3;
  }
  const auto lines = [&](const std::string& words, int size, const Rgb& ink) {
    for (const std::string& line : wrapped(c, words, size, width)) {
      if (y > still_height - still_foot - 26) return;
      c.text({still_edge, y, width, size * 1.35}, Align::Left, line, {size, false, ink});
      y += size * 1.4;
    }
    y += 6;
  };
  lines(b.fixture.kind.empty() ? b.fixture.maker : b.fixture.kind, frame.tall() ? 12 : 15, c.colors().quiet);
  std::size_t told = 0;
  if (audit)
    for (const evaluation::VerdictWords& w : audit->words)
      if (!w.struck && told++ < most_sentences) lines(w.sentence, frame.tall() ? 11 : 14, c.colors().ink);
  if (const auto grade = evaluation.grade())
    lines(fmt::format("Evidence: {} grade", name(*grade)), frame.tall() ? 10 : 12, c.colors().lake);
}

/// Of each target the walked setting that serves it best.
std::vector<std::vector<std::string>> target_rows(const Evaluation& evaluation,
                                                  const std::vector<record::CropTarget>& targets, UnitSystem units) {
  const record::TestRecord& b = evaluation.record();
  std::vector<Band> bands;
  for (const record::CropTarget& t : targets) bands.push_back(evaluation::band_of(t, t.photoperiod_h));
  std::vector<std::vector<TargetFit>> fits(bands.size());
  std::vector<double> watts;
  evaluation::ReadSweeps fitted;
  for (const auto& of : evaluation::read_sweeps(evaluation)) {
    const auto own = evaluation.target_fits(of.first->id, bands);
    if (own.empty()) continue;
    fitted.push_back(of);
    watts.push_back(of.first->power_w.value_or(std::numeric_limits<double>::infinity()));
    for (std::size_t t = 0; t < bands.size(); ++t) fits[t].push_back(own[t]);
  }
  std::vector<std::vector<std::string>> rows;
  for (std::size_t t = 0; t < bands.size() && rows.size() < most_rows; ++t) {
    const int best = best_fit(fits[t], watts);
    const std::string band = fmt::format("{:.0f}–{:.0f}", bands[t].low, bands[t].high);
    if (best < 0) {
      rows.push_back({targets[t].name, "none", "0 %", band});
      continue;
    }
    const TargetFit& fit = fits[t][static_cast<std::size_t>(best)];
    rows.push_back({targets[t].name, evaluation::sweep_name(b, *fitted[static_cast<std::size_t>(best)].first, units),
                    in_band_text(fit.coverage), band});
  }
  return rows;
}

std::vector<std::vector<std::string>> card_rows(const evaluation::SettingsCard& card, UnitSystem units) {
  std::vector<std::vector<std::string>> rows;
  for (const evaluation::CardLine& line : card.lines) {
    if (rows.size() == most_rows) break;
    if (!line.point) {
      rows.push_back({line.row.stage, line.why});
      continue;
    }
    const SettlePoint& p = *line.point;
    rows.push_back({line.row.stage + (line.met ? "" : " (nearest)"), length_text(p.height->height_m, units),
                    short_number(p.setting.percent, 1) + " %", short_number(line.row.photoperiod_h, 1) + " h",
                    uncertain_text(p.figures.mean, line.expanded.mean, 0),
                    p.setting.power_w ? fmt::format("{:.0f} W", *p.setting.power_w) : "–"});
  }
  return rows;
}

/// A table in words, for who cannot see it.
std::string rows_alt(const std::vector<std::string>& heads, const std::vector<std::vector<std::string>>& rows) {
  std::string alt;
  for (const auto& row : rows) {
    for (std::size_t k = 0; k < row.size(); ++k)
      alt += (k == 0 ? "" : k == 1 ? ": " : ", ") + (k > 0 ? heads[k] + " " : std::string()) + row[k];
    alt += ". ";
  }
  return alt;
}

}  // namespace

Result<std::vector<Still>> told_stills(const Evaluation& evaluation, const evaluation::Audit* audit,
                                       const std::vector<record::CropTarget>& targets,
                                       const evaluation::SettingsCard* card, StillShape shape, UnitSystem units,
                                       const Palette& palette) {
  const StillFrame frame(shape);
  const record::TestRecord& b = evaluation.record();
  std::vector<Still> made;
  std::optional<Problem> problem;
  const auto add = [&](std::string name, std::string alt, const std::function<void(Canvas&)>& draw) {
    if (problem) return;
    auto one = still(frame, palette, std::move(name), std::move(alt), still_foot_words(b), draw);
    if (one)
      made.push_back(std::move(one.value()));
    else
      problem = one.problem();
  };
  const auto add_table = [&](const char* name, const std::string& what, const std::vector<std::string>& heads,
                             const std::vector<std::vector<std::string>>& rows) {
    if (rows.empty()) return;
    add(name, fmt::format("{}: {}. {}", b.fixture.name, what, rows_alt(heads, rows)), [&](Canvas& c) {
      const double top = draw_still_heading(c, frame, b.fixture.name, what);
      draw_still_table(c, {still_edge, top, frame.inner_width(), frame.bottom() - top}, heads, rows);
    });
  };
  add("title", fmt::format("{}: title of its light test.", b.fixture.name),
      [&](Canvas& c) { draw_title(c, frame, evaluation, audit); });
  add_table("targets", "The walked setting that serves each target best", {"Target", "Setting", "In band", "µmol/m²/s"},
            target_rows(evaluation, targets, units));
  if (card)
    add_table("settings-card", "How to run it, stage by stage (predicted)",
              {"Stage", "Height", "Dimmer", "A day", "µmol/m²/s", "At the wall"}, card_rows(*card, units));
  if (audit && !audit->claims.empty()) {
    std::string alt = fmt::format("{}: the maker's claims. ", b.fixture.name);
    for (const evaluation::AuditedClaim& a : audit->claims)
      alt += fmt::format("{}: {}. ", a.label, verdict_words(a.judgement));
    add("claims", std::move(alt), [&](Canvas& c) { draw_claims(c, frame, b, *audit); });
  }
  if (problem) return *problem;
  return made;
}

}  // namespace sunbreak::paper

#include <gtest/gtest.h>

#include <cmath>
#include <regex>

#include "audit/simulated_audit.h"
#include "core/figures/area_light.h"
#include "core/figures/figure_table.h"
#include "core/quantity/length.h"
#include "evaluation/crop_targets.h"
#include "evaluation/test_light.h"

namespace sunbreak::trial {
namespace {

using namespace evaluation;

constexpr std::uint64_t words_seed = 4711;
constexpr int tests_read = 200;

/// The numbers that a sentence states, as they stand there.
std::vector<std::string> numbers_in(const std::string& sentence) {
  static const std::regex number(R"((?:−)?\d+(?:\.\d+)?)");
  // Numbers in a unit's own name are none of the sentence's.
  const std::string text = std::regex_replace(sentence, std::regex("m²|m³"), "m");
  std::vector<std::string> found;
  for (std::sregex_iterator at(text.begin(), text.end(), number), end; at != end; ++at) found.push_back(at->str());
  return found;
}

double stated(std::string text) {
  if (const auto minus = text.find("−"); minus != std::string::npos) text.replace(minus, std::string("−").size(), "-");
  return std::stod(text);
}

/// Half of the last digit that a number is stated with.
double rounding(const std::string& text) {
  const auto point = text.find('.');
  return 0.5000001 * std::pow(10, point == std::string::npos ? 0 : -static_cast<double>(text.size() - point - 1));
}

/// The figure that a sentence is tied to, worked out anew from the test; nothing for what is checked elsewhere.
std::optional<double> worked_out_anew(const Evaluation& e, const Audit& audit, const VerdictWords& words,
                                      const StatedNumber& n) {
  if (n.figure.starts_with("claim.")) {
    for (const AuditedClaim& a : audit.claims) {
      if (n.figure == "claim." + a.slot + ".measured") return a.measured;
      if (n.figure == "claim." + a.slot + ".claimed") return a.claimed;
      if (n.figure == "claim." + a.slot + ".measured_to") return a.measured_to;
      if (n.figure == "claim." + a.slot + ".claimed_to") return a.claimed_to;
    }
    ADD_FAILURE() << "no claim " << n.figure;
  }
  if (n.figure == "whole_ppf_umol_s") return e.light()->ppf_umol_s().value;
  if (n.figure == "whole_efficacy_umol_j") return e.light()->efficacy_umol_j().value;
  if (words.slot != "light" && words.slot != "evenness" && words.slot != "hot_spot") return {};
  // Of the walked sweep whose height and setting the verdict names first.
  double height_m = 0;
  for (const VerdictWords& w : audit.words)
    if (w.slot == "light")
      for (const StatedNumber& k : w.numbers)
        if (k.figure == "height") height_m = to_m(k.value, LengthUnit::Centimeter);
  for (const Sweep& sweep : e.record().sweeps) {
    if (std::abs(e.record().rung(sweep.rung_id)->height_m - height_m) > 1e-6) continue;
    const SweepFigures& f = *e.figures(sweep.id);
    if (n.figure == "highest_over_mean") return f.highest.ppfd / f.mean_ppfd;
    if (n.figure == "power_w") return *sweep.power_w;
    if (const int at = figure_index(n.figure); at >= 0) {
      const SweepView& view = *e.view(sweep.id);
      return figures()[static_cast<std::size_t>(at)].value(FigureSource(view.layout, view.ppfd, f));
    }
  }
  return {};
}

/// What a sentence on a target promises has to hold by the rule, at the height, setting and size that it states.
void check_use(const Evaluation& e, const VerdictWords& words) {
  const auto value = [&](const char* figure) -> std::optional<double> {
    for (const StatedNumber& n : words.numbers)
      if (n.figure == figure) return n.value;
    return {};
  };
  const auto low = value("target_low_ppfd"), high = value("target_high_ppfd"), height_cm = value("settle_height"),
             percent = value("settle_dimmer"), side_cm = value("served_area");
  ASSERT_TRUE(low && high);
  if (!height_cm || !percent) return;
  const TestLight& light = *e.light();
  const Layout& stations = light.question().fit.sweeps.front().layout;
  std::vector<Vec3> places;
  for (const Station& s : stations.stations) places.push_back({s.x_m, s.y_m, 0});
  const double height_m = *height_cm / 100, factor = light.setting(*percent).value().light_factor;
  std::vector<double> ppfd = light.between().at_places(places)->at({&height_m, 1}).front().front();
  for (double& at : ppfd) at *= factor;
  // As a tester would find it at the stations, over the size that is stated.
  const Rectangle floor = stations.measured;
  const double side_m = side_cm ? *side_cm / 100 : floor.width_m, corner = (floor.width_m - side_m) / 2;
  const AreaLight found = AreaPlan(stations, {corner, corner, side_m, side_m}).light(ppfd);
  // Heights and settings are stated to a millimeter and a tenth, and noise of a percent repeats in no prediction.
  constexpr double near = 0.025;
  if (const auto mean = value("settle_mean_ppfd")) {
    EXPECT_NEAR(found.mean, *mean, near * *mean);
    EXPECT_NEAR(found.edge, *value("settle_edge_ppfd"), near * *value("settle_edge_ppfd"));
    return;
  }
  EXPECT_GE(found.edge, (1 - near) * *low);
  EXPECT_LE(found.highest, (1 + near) * *high);
}

/// Claims of a few kinds, true or off by what the number says.
void claim_something(AuditBench& b, int number) {
  const double off = 1 + 0.05 * (number % 7 - 3);
  for (const auto& [kind, truth] : {std::pair{"power_w", b.full_w},
                                    {"ppf_umol_s", b.ppf_umol_s},
                                    {"efficacy_umol_j", b.efficacy()},
                                    {"beam_angle_deg", 110.0},
                                    {"evenness", 0.6}}) {
    Claim claim;
    claim.kind = kind, claim.value = truth * off;
    if (claim.kind == "evenness") claim.says = "lowest_over_mean";
    b.record.claims.push_back(claim);
  }
  if (number % 4 != 0) return;  // coverage takes most of the time
  Claim coverage;
  coverage.kind = "coverage", coverage.stage = number % 2 == 0 ? "young plants" : "flowering & fruiting";
  coverage.width_m = coverage.depth_m = 0.3 + 0.1 * (number % 5);
  b.record.claims.push_back(coverage);
}

TEST(VerdictWords, EverySentenceOfTwoHundredTestsStatesItsFigures) {
  AuditContext context;
  context.targets = shipped_targets();
  int sentences = 0, anew = 0;
  for (int n = 0; n < tests_read; ++n) {
    AuditBench b = audit_bench(words_seed, n, n % 20 == 0 ? Benches::Any : Benches::Open);
    claim_something(b, n);
    const auto e = evaluate(b.record);
    const Audit all = audit(*e, context);
    for (const VerdictWords& words : all.words) {
      SCOPED_TRACE(words.drafted);
      ++sentences;
      ASSERT_FALSE(words.numbers.empty()) << "no figure behind it";
      // Every number that stands in the sentence is one of its figures, or that one's ±, in their order.
      std::vector<double> behind;
      for (const StatedNumber& k : words.numbers) {
        behind.push_back(k.value);
        if (!std::isnan(k.expanded)) behind.push_back(k.expanded);
      }
      const auto seen = numbers_in(words.drafted);
      ASSERT_EQ(seen.size(), behind.size());
      for (std::size_t i = 0; i < seen.size(); ++i) EXPECT_NEAR(stated(seen[i]), behind[i], rounding(seen[i]));
      for (const StatedNumber& k : words.numbers)
        if (const auto worked = worked_out_anew(*e, all, words, k)) {
          ++anew;
          EXPECT_NEAR(*worked, k.value, 1e-9 * std::abs(*worked)) << k.figure;
        }
      if (words.aspect == VerdictWords::Use) check_use(*e, words);
      // What a claim's sentence says is what its verdict is.
      for (const AuditedClaim& a : all.claims)
        if (words.slot == "claim." + a.slot && a.claim.kind != "coverage") {
          EXPECT_EQ(words.drafted.find("is as claimed") != std::string::npos,
                    a.judgement.verdict == Verdict::Confirmed);
          // Less watts than on the badge are no weakness, but where the light is short, too.
          const bool frugal = words.drafted.find("It draws less than its badge says") != std::string::npos;
          EXPECT_EQ(words.drafted.find("falls short") != std::string::npos || frugal,
                    a.judgement.verdict == Verdict::Short);
          if (frugal) {
            EXPECT_EQ(a.claim.kind, "power_w");
            EXPECT_NE(words.aspect, VerdictWords::Weakness);
            for (const AuditedClaim& light : all.claims) {
              if (light.claim.kind == "ppf_umol_s") {
                EXPECT_NE(light.judgement.verdict, Verdict::Short);
              }
            }
          }
        }
    }
  }
  EXPECT_GT(sentences, 5 * tests_read);
  EXPECT_GT(anew, 5 * tests_read);
}

}  // namespace
}  // namespace sunbreak::trial

#include "report/light_section.h"

#include <fmt/format.h>

#include "evaluation/light_words.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using Lines = kainjow::mustache::list;

std::string with_sureness(const FoundValue& v, int decimals) {
  std::string text = evaluation::found_text(v, decimals, "");
  while (!text.empty() && text.back() == ' ') text.pop_back();
  return text;
}

}  // namespace

void add_light_section(data& page, const evaluation::TestLight* light, UnitSystem units) {
  page.set("has_light", light != nullptr);
  if (!light) return;
  Lines sentences, estimates, references;
  for (const std::string& sentence : evaluation::light_sentences(*light, units)) sentences.push_back(data(sentence));
  page.set("light_sentences", data(sentences));
  page.set("light_fits", light->found().fits);
  for (const evaluation::LightEstimate& e : evaluation::light_estimates(*light, units)) {
    data row;
    row.set("name", e.name);
    row.set("value", evaluation::found_text(e.value, e.decimals, e.unit));
    estimates.push_back(row);
  }
  page.set("light_estimates", data(estimates));
  for (const evaluation::ReferenceFigures& r : light->in_reference_rooms()) {
    data row;
    row.set("room", r.room);
    row.set("height", length_text(r.height_m, units));
    row.set("mean", with_sureness(r.mean_ppfd, 0));
    row.set("efficacy", with_sureness(r.efficacy_umol_j, 2));
    row.set("even", fmt::format("{:.2f}", r.lowest_over_mean));
    references.push_back(row);
  }
  page.set("has_references", !references.empty());
  page.set("references", data(references));
}

}  // namespace sunbreak::report

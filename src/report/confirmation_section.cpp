#include "report/confirmation_section.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/number.h"
#include "evaluation/confirmation.h"

namespace sunbreak::report {

using kainjow::mustache::data;

void add_confirmations(data& page, const evaluation::Evaluation& evaluation, const evaluation::TestLight* light,
                       UnitSystem units) {
  kainjow::mustache::list all;
  for (const record::Sweep& sweep : evaluation.record().sweeps) {
    const auto c = light ? evaluation::confirmation(evaluation, *light, sweep.id) : std::nullopt;
    if (!c || c->read == 0) continue;
    data one;
    one.set("where", fmt::format("{}, {} %", length_text(c->height_m, units), short_number(c->percent, 1)));
    one.set("words", c->words);
    kainjow::mustache::list places;
    for (const evaluation::ConfirmedPlace& place : c->places) {
      data row;
      row.set("name", place.name);
      row.set("predicted", fmt::format("{:.0f}", place.predicted_ppfd));
      row.set("sure", fmt::format("± {:.0f}", place.expanded));
      row.set("read", std::isnan(place.read_ppfd)
                          ? "not read"
                          : fmt::format("{:.0f}{}", place.read_ppfd, place.within() ? "" : " (outside)"));
      places.push_back(row);
    }
    one.set("places", data(places));
    all.push_back(one);
  }
  page.set("has_confirmations", !all.empty());
  page.set("confirmations", data(all));
}

}  // namespace sunbreak::report

#include "desktop/read/shown_values.h"

#include <algorithm>
#include <cmath>

#include "core/figures/statistics.h"
#include "core/quantity/daily_light.h"
#include "core/sweep/difference.h"
#include "desktop/read/outside_sweep.h"
#include "desktop/widgets/takers.h"

namespace sunbreak::desktop {
namespace {

struct Ends {
  double low = INFINITY, high = -INFINITY;
  void take(double value) {
    if (!std::isnan(value)) low = std::min(low, value), high = std::max(high, value);
  }
};

double mean_of(const book::SweepView& view) {
  std::vector<double> weights;
  for (const Station& s : view.layout.stations) weights.push_back(s.weight);
  return weighted_mean(view.ppfd, weights);
}

/// PPFD times a factor of each sweep's own, over one sweep or all of the test.
template <typename Factor>
report::ScaleRange range_of(const Desk& desk, const book::SweepView& view, bool own, Factor factor) {
  Ends ends;
  const auto take = [&](const book::SweepView& v) {
    const double by = factor(v);
    for (const double ppfd : v.ppfd) ends.take(by * ppfd);
  };
  take(view);
  if (!own)
    for (const book::Sweep& sweep : desk.test()->sweeps)
      if (const book::SweepView* other = desk.view_of(sweep.id)) take(*other);
  return report::round_range(ends.low, ends.high);
}

template <typename Factor>
void scale_light(ShownValues& shown, const Desk& desk, const book::SweepView& view, bool own, Factor factor) {
  const double by = factor(view);
  for (const double ppfd : view.ppfd) shown.values.push_back(by * ppfd);
  shown.scale.range = range_of(desk, view, own, factor);
  if (const auto band = desk.band()) shown.band = Band{by * band->low, by * band->high};
}

void show_difference(ShownValues& shown, const Desk& desk, const book::SweepView& view, const MapSettings& settings) {
  const book::SweepView* other = compared(desk, settings);
  shown.values.assign(view.ppfd.size(), unread);
  if (other) shown.values = difference(view.layout, view.ppfd, other->layout, other->ppfd);
  Ends ends;
  for (const double value : shown.values) ends.take(std::abs(value));
  const double most = std::isfinite(ends.high) && ends.high > 0 ? report::round_range(0, ends.high).high : 1;
  shown.scale = {{-most, most}, true};
  shown.text.with_sign = true;
  shown.text.decimals = most < 20 ? 1 : 0;
}

}  // namespace

ShownValues shown_values(const Desk& desk, const book::SweepView& view, const MapSettings& settings) {
  ShownValues shown;
  const double hours = desk.test()->test.photoperiod_h;
  switch (settings.quantity) {
    case Quantity::Ppfd:
      scale_light(shown, desk, view, settings.own_scale, [](auto&) { return 1.0; });
      shown.title = QObject::tr("PPFD");
      break;
    case Quantity::DailyLight:
      scale_light(shown, desk, view, settings.own_scale, [&](auto&) { return dli_mol_m2_d(1, hours); });
      shown.text = {1, false, QObject::tr("mol/m²/d")};
      shown.title = QObject::tr("Daily light over %1 h").arg(show_number(hours, 1));
      break;
    case Quantity::PercentOfMean:
      scale_light(shown, desk, view, settings.own_scale, [](auto& v) { return 100 / mean_of(v); });
      shown.text = {0, false, QObject::tr("% of mean")};
      shown.title = QObject::tr("Percent of the mean");
      break;
    case Quantity::Difference:
      show_difference(shown, desk, view, settings);
      shown.title = QObject::tr("Difference from %1")
                        .arg(settings.outside ? settings.outside->words : sweep_words(desk, settings.other));
      break;
  }
  return shown;
}

const book::SweepView* compared(const Desk& desk, const MapSettings& settings) {
  return settings.outside ? &settings.outside->view : desk.view_of(settings.other);
}

std::vector<book::Id> other_sweeps(const Desk& desk, book::Id sweep_id) {
  std::vector<book::Id> others;
  if (!desk.test()) return others;
  for (const book::Rung& rung : desk.test()->rungs)
    for (const book::Stop& stop : desk.test()->stops) {
      const book::Sweep* sweep = desk.test()->sweep(rung.id, stop.id);
      const book::SweepView* view = sweep && sweep->id != sweep_id ? desk.view_of(sweep->id) : nullptr;
      if (view && view->read() > 0) others.push_back(sweep->id);
    }
  return others;
}

QString sweep_words(const Desk& desk, book::Id sweep_id) {
  if (desk.test())
    for (const book::Sweep& s : desk.test()->sweeps) {
      const book::Rung* rung = desk.test()->rung(s.rung_id);
      const book::Stop* stop = desk.test()->stop(s.stop_id);
      if (s.id == sweep_id && rung && stop)
        return QObject::tr("%1 · %2 %")
            .arg(text_of(length_text(rung->height_m, desk.units())), show_number(stop->percent));
    }
  return {};
}

}  // namespace sunbreak::desktop

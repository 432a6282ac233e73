#include "desktop/read/shown_values.h"

#include <algorithm>
#include <cmath>

#include "core/checks/slipped_readings.h"
#include "core/figures/sweep_figures.h"
#include "core/quantity/daily_light.h"
#include "core/sweep/difference.h"
#include "desktop/read/outside_sweep.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

struct Ends {
  double low = INFINITY, high = -INFINITY;
  void take(double value) {
    if (!std::isnan(value)) low = std::min(low, value), high = std::max(high, value);
  }
};

/// What PPFD is multiplied by to become the quantity, in a sweep of some mean.
double factor_of(const Desk& desk, double mean_ppfd, Quantity quantity) {
  if (quantity == Quantity::DailyLight) return dli_mol_m2_d(1, desk.test()->test.photoperiod_h);
  if (quantity == Quantity::PercentOfMean) return 100 / mean_ppfd;
  return 1;
}
double factor_of(const Desk& desk, const evaluation::SweepView& view, Quantity quantity) {
  return factor_of(desk, quantity == Quantity::PercentOfMean ? area_mean(view.layout, view.ppfd) : 0, quantity);
}

std::vector<double> values_of(const Desk& desk, const evaluation::SweepView& view, const MapSettings& settings) {
  if (settings.quantity == Quantity::Difference) {
    const evaluation::SweepView* other = compared(desk, settings);
    return other ? difference(view.layout, view.ppfd, other->layout, other->ppfd)
                 : std::vector<double>(view.ppfd.size(), unread);
  }
  std::vector<double> values = view.ppfd;
  const double factor = factor_of(desk, view, settings.quantity);
  for (double& value : values) value *= factor;
  return values;
}

/// Round ends that hold all values; of a difference about zero.
drawing::ScaleRange range_of(const Ends& ends, Quantity quantity) {
  if (quantity != Quantity::Difference) return drawing::round_range(ends.low, ends.high);
  const double most = std::max(std::abs(ends.low), std::abs(ends.high));
  const double end = std::isfinite(most) && most > 0 ? drawing::round_range(0, most).high : 1;
  return {-end, end};
}

}  // namespace

drawing::ScaleRange shared_range(const Desk& desk, const MapSettings& settings) {
  Ends ends;
  for (const record::Sweep& sweep : desk.test()->sweeps) {
    const evaluation::SweepView* view = desk.view_of(sweep.id);
    if (!view) continue;
    if (settings.quantity == Quantity::Difference) {
      for (const double value : values_of(desk, *view, settings)) ends.take(value);
      continue;
    }
    const evaluation::SweepDigest& digest = *desk.digest_of(sweep.id);
    const double factor = factor_of(desk, digest.mean_ppfd, settings.quantity);
    ends.take(factor * digest.scale_low_ppfd);
    ends.take(factor * digest.scale_high_ppfd);
  }
  return range_of(ends, settings.quantity);
}

ShownValues shown_values(const Desk& desk, const evaluation::SweepView& view, const MapSettings& settings,
                         const std::optional<drawing::ScaleRange>& range) {
  ShownValues shown;
  shown.values = values_of(desk, view, settings);
  const bool differs = settings.quantity == Quantity::Difference;
  const auto own_range = [&] {
    Ends own;
    std::vector<bool> odd(shown.values.size());
    if (!differs)
      for (const SlippedReading& o : slipped_readings(view.layout, view.ppfd))
        odd[static_cast<std::size_t>(o.station)] = true;
    for (std::size_t i = 0; i < shown.values.size(); ++i)
      if (!odd[i]) own.take(shown.values[i]);
    return range_of(own, settings.quantity);
  };
  shown.scale.diverging = differs;
  shown.scale.range = range ? *range : settings.own_scale || differs ? own_range() : shared_range(desk, settings);
  if (const auto band = desk.band(); band && !differs) {
    const double factor = factor_of(desk, view, settings.quantity);
    shown.band = Band{factor * band->low, factor * band->high};
  }
  switch (settings.quantity) {
    case Quantity::Ppfd:
      shown.title = QObject::tr("PPFD");
      break;
    case Quantity::DailyLight:
      shown.text = {1, false, "mol/m²/d"};
      shown.title = QObject::tr("Daily light over %1 h").arg(show_number(desk.test()->test.photoperiod_h, 1));
      break;
    case Quantity::PercentOfMean:
      shown.text = {0, false, "% of mean"};
      shown.title = QObject::tr("Percent of the mean");
      break;
    case Quantity::Difference:
      shown.text.with_sign = true;
      shown.text.decimals = shown.scale.range.high < 20 ? 1 : 0;
      shown.title = QObject::tr("Difference from %1")
                        .arg(settings.outside ? settings.outside->words : sweep_words(desk, settings.other));
      break;
  }
  return shown;
}

const evaluation::SweepView* compared(const Desk& desk, const MapSettings& settings) {
  return settings.outside ? &settings.outside->view : desk.view_of(settings.other);
}

std::vector<record::Id> other_sweeps(const Desk& desk, record::Id sweep_id) {
  std::vector<record::Id> others;
  if (!desk.test()) return others;
  for (const record::Rung& rung : desk.test()->rungs)
    for (const record::Stop& stop : desk.test()->stops) {
      const record::Sweep* sweep = desk.test()->sweep(rung.id, stop.id);
      const evaluation::SweepDigest* digest = sweep && sweep->id != sweep_id ? desk.digest_of(sweep->id) : nullptr;
      if (digest && digest->read > 0) others.push_back(sweep->id);
    }
  return others;
}

QString sweep_words(const Desk& desk, record::Id sweep_id) {
  if (desk.test())
    for (const record::Sweep& s : desk.test()->sweeps) {
      const record::Rung* rung = desk.test()->rung(s.rung_id);
      const record::Stop* stop = desk.test()->stop(s.stop_id);
      if (s.id == sweep_id && rung && stop)
        return QObject::tr("%1 · %2 %")
            .arg(text_of(length_text(rung->height_m, desk.units())), show_number(stop->percent));
    }
  return {};
}

}  // namespace sunbreak::desktop

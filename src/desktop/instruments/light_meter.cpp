#include "desktop/instruments/light_meter.h"

#include <QObject>

#include "core/limits/light_limits.h"
#include "core/quantity/lux.h"
#include "desktop/desk/desk.h"
#include "desktop/instruments/instrument_hub.h"

namespace sunbreak::desktop {
namespace {
bool by_lux(const Desk& desk) { return desk.test() && record::walked_by_lux(*desk.test()); }
}  // namespace

std::optional<double> live_reading(const Desk& desk, const InstrumentHub& hub) {
  return by_lux(desk) ? std::nullopt : hub.channel(instruments::Measures::Light).live();
}

QString light_unit(const Desk& desk) { return by_lux(desk) ? QObject::tr("lx") : QObject::tr("µmol/m²/s"); }

double most_light(const Desk& desk) { return by_lux(desk) ? most_lux : most_ppfd; }

}  // namespace sunbreak::desktop

#pragma once

#include <QString>
#include <initializer_list>
#include <optional>

#include "record/kinds/meter.h"

class QComboBox;
class QWidget;

namespace sunbreak::desktop {

class Desk;
class InstrumentHub;

/// The meters of these kinds on the shelf, each with its id; with `fresh` an entry of that name and the id 0 at the
/// end. The one that the test on the desk uses is chosen.
QComboBox* meter_box(Desk& desk, std::initializer_list<const char*> kinds, const QString& fresh, const char* object,
                     QWidget* parent);

/// What the connected sensor shows now, corrected by the card of the meter that it is; nothing where it is silent.
std::optional<double> live_light(const InstrumentHub& hub, const std::optional<record::Meter>& meter);
/// What is said where there is no such value.
QString no_live_light();

}  // namespace sunbreak::desktop

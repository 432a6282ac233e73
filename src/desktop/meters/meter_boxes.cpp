#include "desktop/meters/meter_boxes.h"

#include <QComboBox>
#include <algorithm>

#include "book/shelf.h"
#include "desktop/desk/desk.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

QComboBox* meter_box(Desk& desk, std::initializer_list<const char*> kinds, const QString& fresh, const char* object,
                     QWidget* parent) {
  auto* box = new QComboBox(parent);
  box->setObjectName(object);
  for (const auto& m : book::on_shelf<record::Meter>(desk.book())) {
    if (std::ranges::find(kinds, m.kind) == kinds.end()) continue;
    box->addItem(text_of(m.name), QVariant::fromValue<qlonglong>(m.id));
    if (desk.test() && desk.test()->test.sensor_id == m.id) box->setCurrentIndex(box->count() - 1);
  }
  // Where no test says which, the first kind named is the likelier one.
  if (!desk.test())
    for (int i = box->count() - 1; i >= 0; --i)
      if (const auto meter = desk.book().find<record::Meter>(box->itemData(i).toLongLong());
          meter && meter->kind == *kinds.begin())
        box->setCurrentIndex(i);
  if (!fresh.isEmpty()) box->addItem(fresh, QVariant::fromValue<qlonglong>(0));
  return box;
}

std::optional<double> live_light(const InstrumentHub& hub, const std::optional<record::Meter>& meter) {
  const auto live = hub.channel(instruments::Measures::Light).live();
  return live && meter ? std::optional((*live - meter->dark_offset) * meter->factor) : live;
}

QString no_live_light() {
  return QObject::tr("No sensor is connected, or it is silent. Type the value, or connect it with Ctrl+I.");
}

}  // namespace sunbreak::desktop

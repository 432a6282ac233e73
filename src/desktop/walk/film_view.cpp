#include "desktop/walk/film_view.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include "desktop/paint/sweep_map.h"
#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

FilmView::FilmView(Desk& desk, QWidget* stage) : QWidget(stage) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  setAccessibleName(tr("The walk as it is filmed"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(32, 32, 32, 32);
  row->setSpacing(32);
  map_ = new SweepMap(desk, this);
  row->addWidget(map_, 3);
  auto* words = new QVBoxLayout;
  place_ = wrapped_label({}, this);
  place_->setObjectName("filmPlace");
  size_letters(place_, 44, true);
  value_ = new QLabel(this);
  value_->setObjectName("filmValue");
  size_letters(value_, 120, true);
  unit_ = quiet_label(tr("µmol/m²/s"), this);
  size_letters(unit_, 28, false);
  simulated_ = wrapped_label({}, this);
  set_tone(simulated_, "attention");
  words->addStretch();
  for (QLabel* label : {place_, value_, unit_, simulated_}) words->addWidget(label);
  words->addStretch();
  row->addLayout(words, 2);
  hide();
}

void FilmView::show_station(int station, const QString& place) {
  map_->set_current(station);
  place_->setText(place);
}

void FilmView::show_value(const QString& value, const QString& unit) {
  value_->setText(value.isEmpty() ? QStringLiteral("–") : value);
  unit_->setText(unit);
}

void FilmView::show_simulated(const QString& words) {
  simulated_->setText(words);
  simulated_->setVisible(!words.isEmpty());
}

void FilmView::fit() { setGeometry(parentWidget()->rect()); }

}  // namespace sunbreak::desktop

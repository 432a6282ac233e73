#pragma once

#include <QWidget>

class QLabel;

namespace sunbreak::desktop {

class Desk;
class SweepMap;

/// Walk as it is filmed: the value, the station and the map, nothing else (but that readings are simulated, where they
/// are). Lies over the stage, which goes on having the keyboard.
class FilmView : public QWidget {
  Q_OBJECT
 public:
  FilmView(Desk& desk, QWidget* stage);
  void show_station(int station, const QString& place);
  void show_value(const QString& value, const QString& unit);
  void show_simulated(const QString& words);
  /// As large as the stage.
  void fit();

 private:
  QLabel *place_, *value_, *unit_, *simulated_;
  SweepMap* map_;
};

}  // namespace sunbreak::desktop

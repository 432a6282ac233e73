#pragma once

#include <QWidget>
#include <memory>
#include <utility>
#include <vector>

#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"
#include "evaluation/test_light.h"

class QComboBox;
class QLabel;
class QLineEdit;

namespace sunbreak::desktop {

class FiguresTable;
class LightMaps;

/// The fixture in another room, alone or several of them, drawn as it is changed; and how many a room wants.
class ElsewherePage : public QWidget {
 public:
  explicit ElsewherePage(Desk& desk, QWidget* parent = nullptr);
  void refresh();

 private:
  /// What is typed, understood; or why not.
  struct Wish {
    Room room;
    HangingPattern pattern;
    double height_m = 0, percent = 100;
  };
  struct Answer;
  void fill_fields();
  Result<Room> typed_room() const;
  Result<Wish> wish() const;
  void work();
  void take(Answer answer);
  void ask_count();
  void show_problem(const Problem& problem);

  Desk& desk_;
  QWidget* fields_;
  std::vector<std::pair<QLabel*, QString>> lengths_;  ///< names of fields that hold one
  QComboBox *room_, *walls_;
  QLineEdit *width_, *depth_, *room_height_, *columns_, *rows_, *column_spacing_, *row_spacing_, *height_, *dimmer_,
      *wanted_;
  QLabel *state_, *count_words_;
  FiguresTable* table_;
  LightMaps* maps_;
  const evaluation::TestLight* filled_for_ = nullptr;
  std::shared_ptr<const Elsewhere> kept_;  ///< of the room shown
  const evaluation::TestLight* kept_for_ = nullptr;
  Background background_, counting_;
};

}  // namespace sunbreak::desktop

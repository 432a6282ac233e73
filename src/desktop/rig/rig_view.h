#pragma once

#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"
#include "desktop/rig/plan_handles.h"

class QLabel;
class QLineEdit;

namespace sunbreak::desktop {

class Form;
class HangPanel;
class InstrumentHub;
class PlanDrawing;
class RigAdvice;
class SideDrawing;

/// Rig: the fixture and its claims, the bench, the meters, the grid, the heights and settings, the watts, the
/// disclosure; beside them the bench drawn to scale as it is typed, and what the plan will cost in readings and time.
class RigView : public StageView {
 public:
  RigView(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);
  void arrive() override;
  void reveal(const QString& field) override;
  std::vector<KeyHint> keys() const override;

 private:
  void build_form();
  void add_fixture_picker();
  void add_bench_picker();
  void add_meter_picker(const QString& name, std::optional<record::Id> record::Test::*member, const char* object);
  bool agreed_for_watts(record::Id meter);
  void add_sensor_note();
  void add_grid_size();
  void add_grid_details();
  QString change_grid(const std::function<void(Grid&)>& alter);
  void add_watts();
  void add_disclosure();
  QWidget* build_side();
  void refresh();
  void show_draft(const std::optional<record::TestRecord>& draft);
  void keep_moved(const record::TestRecord& wanted, const PlanHandle& handle);
  void show_effort(const record::TestRecord* test);
  template <typename Value>
  QString store_test(Value record::Test::*member, const Value& value, const QString& label);

  Desk& desk_;
  Form* form_;
  RigAdvice* advice_;
  PlanDrawing* plan_;
  SideDrawing* side_;
  HangPanel* hang_;
  QLabel *effort_, *stations_advice_, *height_advice_;
  QLineEdit* first_field_ = nullptr;
};

}  // namespace sunbreak::desktop

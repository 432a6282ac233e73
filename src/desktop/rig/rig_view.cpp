#include "desktop/rig/rig_view.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>
#include <algorithm>

#include "book/plan.h"
#include "book/shelf.h"
#include "book/test_rows.h"
#include "desktop/hang/hang_panel.h"
#include "desktop/rig/lux_fields.h"
#include "desktop/rig/plan_drawing.h"
#include "desktop/rig/plan_fields.h"
#include "desktop/rig/rig_advice.h"
#include "desktop/rig/side_drawing.h"
#include "desktop/rig/state_fields.h"
#include "desktop/shelf/figures_at_stake.h"
#include "desktop/shelf/record_fields.h"
#include "desktop/shelf/sheet_dialog.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/question.h"
#include "desktop/widgets/text.h"
#include "record/plan_grid.h"

namespace sunbreak::desktop {

using record::Test;

namespace {
constexpr record::Id new_spectrometer = -2, new_lux_meter = -3;  ///< in the picker of light meters
constexpr double minutes_a_change = 3;                           ///< to hang it anew or dim it, and let it settle

/// Options of a picker: what is on the shelf, and a last one that makes a new one (id 0).
template <typename Record>
std::vector<Choice> shelf_choices(Desk& desk, const QString& new_one, const std::string& condition = "") {
  std::vector<Choice> choices;
  for (const Record& r : book::on_shelf<Record>(desk.book(), condition))
    choices.push_back({text_of(r.name), QVariant::fromValue<qlonglong>(r.id)});
  choices.push_back({new_one, QVariant::fromValue<qlonglong>(0)});
  return choices;
}
}  // namespace

RigView::RigView(Desk& desk, InstrumentHub& hub, QWidget* parent) : StageView(parent), desk_(desk) {
  hang_ = new HangPanel("rig", desk_, hub, this);
  advice_ = new RigAdvice(desk_, this);
  plan_ = new PlanDrawing(desk_, this);
  side_ = new SideDrawing(desk_, this);
  auto* scroll = new QScrollArea(this);
  auto* page = new QWidget(scroll->viewport());
  scroll->setWidget(page);
  form_ = new Form(page);
  form_->on_typing = [this](const std::function<QString()>& change) { show_draft(desk_.edits().rehearse(change)); };
  build_form();
  auto* page_layout = new QVBoxLayout(page);
  page_layout->setContentsMargins(24, 16, 16, 24);
  page_layout->addWidget(form_);
  page_layout->addStretch();
  scroll->setWidgetResizable(true);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setMinimumWidth(384);
  scroll->setMaximumWidth(520);
  scroll->setFocusPolicy(Qt::NoFocus);
  connect(qApp, &QApplication::focusChanged, scroll, [scroll, page](QWidget*, QWidget* now) {
    if (now && page->isAncestorOf(now)) scroll->ensureWidgetVisible(now);
  });
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(scroll, 5);
  layout->addWidget(build_side(), 7);
  connect(&desk_, &Desk::stepped_in_history, form_, &Form::drop_refusals);
  connect(&desk_, &Desk::changed, this, [this, shown = desk_.shown()]() mutable {
    if (const auto now = desk_.shown(); std::exchange(shown, now) != now) form_->drop_refusals();
    if (!isVisible()) return;
    show_draft({});
    refresh();
  });
  connect(advice_, &RigAdvice::changed, this, &RigView::refresh);
  connect(plan_, &PlanDrawing::dragged, this, [this](const record::TestRecord& draft) { show_draft(draft); });
  connect(plan_, &PlanDrawing::moved_to, this, &RigView::keep_moved);
  connect(side_, &SideDrawing::heights_wanted, this, [this](const std::vector<double>& heights_m) {
    if (!desk_.test()) return;
    const QString problem =
        desk_.edits().plan([&] { return book::plan_heights(desk_.book(), *desk_.test(), heights_m); });
    if (!problem.isEmpty()) desk_.warn(problem);
  });
  refresh();
}

QWidget* RigView::build_side() {
  auto* side = new QWidget(this);
  side->setObjectName("ground");
  side->setAttribute(Qt::WA_StyledBackground);
  auto* layout = new QVBoxLayout(side);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(4);
  auto* drawings = new QHBoxLayout;
  drawings->setSpacing(16);
  const auto column = [&](const QString& title, QWidget* drawing, int stretch) {
    auto* box = new QVBoxLayout;
    box->setSpacing(4);
    box->addWidget(heading_label(title, side));
    box->addWidget(drawing, 1);
    drawings->addLayout(box, stretch);
  };
  column(tr("From above"), plan_, 5);
  column(tr("From the side"), side_, 4);
  layout->addLayout(drawings, 1);
  effort_ = wrapped_label({}, side);
  effort_->setProperty("heading", true);
  effort_->setObjectName("effort");
  layout->addWidget(effort_);
  layout->addSpacing(4);
  stations_advice_ = wrapped_label({}, side);
  stations_advice_->setObjectName("stationsAdvice");
  stations_advice_->setProperty("quiet", true);
  layout->addWidget(stations_advice_);
  height_advice_ = wrapped_label({}, side);
  height_advice_->setObjectName("heightAdvice");
  set_tone(height_advice_, "attention");
  layout->addWidget(height_advice_);
  layout->addWidget(thin_rule(side));
  layout->addWidget(hang_);
  auto* row = new QHBoxLayout;
  row->addStretch();
  auto* next = primary_button(tr("Walk the first sweep"), side);
  next->setObjectName("rigNext");
  connect(next, &QPushButton::clicked, this, [this] { emit go(Stage::Walk); });
  row->addWidget(next);
  layout->addSpacing(8);
  layout->addLayout(row);
  return side;
}

void RigView::show_draft(const std::optional<record::TestRecord>& draft) {
  plan_->set_draft(draft);
  side_->set_draft(draft);
  show_effort(draft ? &*draft : desk_.test());
}

void RigView::keep_moved(const record::TestRecord& wanted, const PlanHandle& handle) {
  if (!desk_.test()) return;
  if (is_of_fixture(handle)) {
    const bool kept = desk_.edits().make(tr("size of the fixture"), [&](book::Edit& e) {
      if (wanted.fixture != desk_.test()->fixture) e.save(wanted.fixture);
      if (wanted.test != desk_.test()->test) e.save(wanted.test);
    });
    if (!kept) show_draft({});
    return;
  }
  const QString problem =
      desk_.edits().plan([&] { return book::plan_grid(desk_.book(), *desk_.test(), record::grid_of(wanted.test)); });
  if (problem.isEmpty()) return;
  show_draft({});
  desk_.warn(problem);
}

template <typename Value>
QString RigView::store_test(Value Test::*member, const Value& value, const QString& label) {
  return desk_.test() ? store_member(desk_, desk_.test()->test.id, member, value, label) : QString();
}

/// First the dozen that every test needs; the rest is folded, under names that say how much of it is filled.
void RigView::build_form() {
  const auto fixture_id = [this] { return desk_.test() ? desk_.test()->fixture.id : 0; };
  const auto bench_id = [this] { return desk_.test() ? desk_.test()->bench.id : 0; };
  form_->heading(tr("What every test needs"));
  add_fixture_picker();
  add_bench_picker();
  first_field_ = add_fixture_name(*form_, desk_, fixture_id, tr("Fixture's name"));
  add_bench_size(*form_, desk_, bench_id);
  add_grid_size();
  add_height_fields(*form_, desk_);
  add_meter_picker(tr("Light meter"), &Test::sensor_id, "sensorPicker");
  add_sensor_note();
  form_->section(tr("Fixture"), "fixture");
  add_fixture_details(*form_, desk_, fixture_id);
  form_->button_row({{tr("The sheet and pictures of the fixture…"), [this] {
                        if (desk_.test()) SheetDialog(desk_, desk_.test()->fixture.id, this).exec();
                      }}});
  form_->section(tr("How its units hang"), "arrangement");
  add_arrangement_fields(*form_, desk_);
  form_->section(tr("Its configuration"), "configuration");
  add_configuration_fields(*form_, desk_);
  form_->section(tr("What its maker claims"), "claims");
  add_claim_fields(*form_, desk_, fixture_id);
  form_->section(tr("Bench and walls"), "bench");
  add_bench_details(*form_, desk_, bench_id);
  form_->section(tr("Kind of grid"), "grid");
  add_grid_details();
  form_->section(tr("Tape and lists of heights"), "heights");
  add_height_details(*form_, desk_, *advice_);
  form_->section(tr("How it is walked"), "walk");
  add_walk_fields(*form_, desk_);
  form_->section(tr("Walked by a lux meter"), "lux");
  add_lux_fields(*form_, desk_);
  form_->section(tr("Wall meter and watts"), "watts");
  add_meter_picker(tr("Wall meter"), &Test::wall_meter_id, "wallMeterPicker");
  add_watts();
  form_->section(tr("How it is driven"), "control");
  add_control_fields(*form_, desk_);
  form_->section(tr("Hours run, and retests"), "history");
  add_history_fields(*form_, desk_);
  form_->section(tr("Disclosure, printed in every report"), "disclosure");
  add_disclosure();
  form_->section(tr("Before the light goes on"), "checklist", Form::Begins::Open);
  add_checklist(*form_, desk_);
}

void RigView::add_fixture_picker() {
  const auto fixture_id = [this] { return desk_.test() ? desk_.test()->fixture.id : 0; };
  form_
      ->choice(
          tr("Fixture"), [this] { return shelf_choices<record::Fixture>(desk_, tr("New fixture")); },
          [fixture_id] { return QVariant::fromValue<qlonglong>(fixture_id()); },
          [this](const QVariant& v) {
            if (!desk_.test()) return QString();
            const record::Id test = desk_.test()->test.id;
            if (book::readings_of(desk_.book(), test) > 0)
              return tr(
                  "Readings were taken of this fixture, so this test stays with it. Duplicate the plan on Home for "
                  "another.");
            desk_.edits().make(tr("choose a fixture"), [&](book::Edit& e) {
              const record::Id id = v.toLongLong();
              record::Fixture fresh;
              fresh.name = "New fixture";
              book::choose_fixture(e, *book::load_test(desk_.book(), test), id ? id : e.add(fresh));
            });
            return QString();
          })
      ->setObjectName("fixturePicker");
}

void RigView::add_bench_picker() {
  const auto bench_id = [this] { return desk_.test() ? desk_.test()->bench.id : 0; };
  form_
      ->choice(
          tr("Bench"), [this] { return shelf_choices<record::Bench>(desk_, tr("New bench")); },
          [bench_id] { return QVariant::fromValue<qlonglong>(bench_id()); },
          [this](const QVariant& v) -> QString {
            if (!desk_.test()) return {};
            if (!desk_.test()->readings.empty())
              return tr(
                  "Readings were taken on this bench, so this test stays with it. Duplicate the plan on Home to test "
                  "on another one.");
            desk_.edits().make(tr("choose a bench"), [&](book::Edit& e) {
              Test test = desk_.test()->test;
              const record::Id id = v.toLongLong();
              record::Bench fresh = desk_.test()->bench;
              fresh.id = 0;
              fresh.name = "New bench";
              test.bench_id = id ? id : e.add(fresh);
              e.save(test);
            });
            return {};
          })
      ->setObjectName("benchPicker");
}

void RigView::add_meter_picker(const QString& name, std::optional<record::Id> Test::*member, const char* object) {
  const bool light = member == &Test::sensor_id;
  form_
      ->choice(
          name,
          [this, light] {
            auto choices = shelf_choices<record::Meter>(
                desk_, light ? tr("New quantum sensor") : tr("New meter"),
                light ? " AND kind IN ('quantum', 'spectrometer', 'lux')" : " AND kind = 'wall'");
            if (light) {
              choices.push_back({tr("New spectrometer"), QVariant::fromValue<qlonglong>(new_spectrometer)});
              choices.push_back({tr("New lux meter"), QVariant::fromValue<qlonglong>(new_lux_meter)});
            }
            choices.insert(choices.begin(), {tr("not stated"), QVariant::fromValue<qlonglong>(-1)});
            return choices;
          },
          [this, member] {
            return QVariant::fromValue<qlonglong>(desk_.test() ? (desk_.test()->test.*member).value_or(-1) : -1);
          },
          [this, member, light](const QVariant& v) {
            if (!desk_.test()) return QString();
            const record::Id id = v.toLongLong();
            if (light && book::readings_of(desk_.book(), desk_.test()->test.id) > 0) {
              const auto chosen = desk_.book().find<record::Meter>(id);
              const bool lux = id == new_lux_meter || (chosen && chosen->kind == "lux");
              if (lux != record::walked_by_lux(*desk_.test()))
                return lux ? tr("The readings of this test are PPFD, and a lux meter tells lux. Duplicate the plan on "
                                "Home to walk it by that meter.")
                           : tr("The readings of this test are lux, and no other meter's. Duplicate the plan on Home "
                                "to "
                                "walk it by that sensor.");
            }
            const auto choose = [&] {
              // Its readings are those of all configurations.
              std::optional<record::TestRecord> all;
              if (!desk_.test()->configurations.empty()) all = book::load_test(desk_.book(), desk_.test()->test.id);
              const record::TestRecord& whole = all ? *all : *desk_.test();
              desk_.edits().make(tr("choose a meter"), [&](book::Edit& e) {
                record::Meter fresh;
                fresh.kind = !light                   ? "wall"
                             : id == new_spectrometer ? "spectrometer"
                             : id == new_lux_meter    ? "lux"
                                                      : "quantum";
                fresh.name = record::new_meter_name(fresh.kind);
                std::optional<record::Meter> chosen;
                if (id == 0 || id == new_spectrometer || id == new_lux_meter) fresh.id = e.add(fresh), chosen = fresh;
                if (id > 0) chosen = desk_.book().find<record::Meter>(id);
                if (light) return book::choose_sensor(e, whole, chosen);
                Test test = desk_.test()->test;
                test.*member = chosen ? std::optional(chosen->id) : std::nullopt;
                e.save(test);
              });
              return QString();
            };
            const bool agreed =
                light ? agreed_for_figures(desk_,
                                           tr("All readings of this test are taken as this sensor's: its dark offset "
                                              "and factor correct those that are there too."),
                                           choose)
                      : agreed_for_watts(id);
            if (agreed) choose();
            return QString();
          })
      ->setObjectName(object);
}

/// Whether watts that were read with one meter may count as another's: asked, since their ± becomes that one's.
bool RigView::agreed_for_watts(record::Id meter) {
  const record::TestRecord& test = *desk_.test();
  const record::Meter* before = test.meter(test.test.wall_meter_id);
  const auto with_watts = std::count_if(test.sweeps.begin(), test.sweeps.end(),
                                        [](const record::Sweep& sweep) { return sweep.power_w.has_value(); });
  if (!before || before->id == meter || with_watts == 0 || desk_.edits().rehearsing()) return true;
  const Question question{tr("Watts of another meter"),
                          tr("%1 with watts, read with %2. Naming another meter changes no value; what the watts and "
                             "the efficacy are sure to becomes that meter's. One step of undo takes it back.")
                              .arg(counted(with_watts, tr("sweep"), tr("sweeps")), text_of(before->name)),
                          {},
                          "wattsAtStake",
                          {{tr("Leave %1").arg(text_of(before->name)), "leaveMeter"},
                           {tr("Name the other meter"), "nameMeter", Answer::Leads}}};
  return ask(this, question) == 1;
}

void RigView::add_sensor_note() {
  form_->note([this]() -> QString {
    const record::Meter* sensor = desk_.test() ? desk_.test()->meter(desk_.test()->test.sensor_id) : nullptr;
    if (!sensor)
      return tr("Without a sensor on record, readings are taken as they are and no one can say how sure they are.");
    if (sensor->kind == "lux")
      return tr("A lux meter: choose its factor below, under Walked by a lux meter. Its details are on Home.");
    return tr("Calibrated %1, factor %2. Its details are on Home, under Meters.")
        .arg(sensor->calibrated_on.empty() ? tr("on a day not stated") : text_of(sensor->calibrated_on),
             show_number(sensor->factor));
  });
}

QString RigView::change_grid(const std::function<void(Grid&)>& alter) {
  if (!desk_.test()) return {};
  Grid grid = record::grid_of(desk_.test()->test);
  alter(grid);
  return desk_.edits().plan([&] { return book::plan_grid(desk_.book(), *desk_.test(), grid); });
}

void RigView::add_grid_size() {
  const auto grid = [this] { return desk_.test() ? record::grid_of(desk_.test()->test) : Grid{}; };
  const auto count = [&](const QString& label, int Grid::*member, const char* object) {
    form_
        ->line(
            label, [=] { return QString::number(grid().*member); },
            parse_number_field({1, 500, false},
                               [=, this](std::optional<double> v) {
                                 return change_grid([&](Grid& g) { g.*member = static_cast<int>(*v); });
                               }),
            [] { return QString(); })
        ->setObjectName(object);
  };
  count(tr("Stations left to right"), &Grid::columns, "gridColumns");
  count(tr("Stations front to back"), &Grid::rows, "gridRows");
}

void RigView::add_grid_details() {
  const auto grid = [this] { return desk_.test() ? record::grid_of(desk_.test()->test) : Grid{}; };
  form_
      ->choice(
          tr("Kind"),
          [] {
            return std::vector<Choice>{{tr("cells: middles of equal cells"), "cells"},
                                       {tr("nodes: edge to edge"), "nodes"},
                                       {tr("inset: stops short of the walls"), "inset"},
                                       {tr("spots: nine quick ones"), "spots"}};
          },
          [grid] { return QVariant(text_of(std::string(name(grid().kind)))); },
          [this](const QVariant& v) {
            return change_grid([&](Grid& g) {
              g.kind = parse_grid_kind(text_of(v.toString())).value();
              const Footprint fp = record::footprint_of(desk_.test()->bench);
              if (g.kind == GridKind::Inset && g.margin_x_m <= 0) g.margin_x_m = g.margin_y_m = 0.05;
              if (g.kind == GridKind::Spots && g.spots.empty()) g.spots = nine_spots(fp, 0.05);
            });
          })
      ->setObjectName("gridKind");
  const auto margin = [&](const QString& label, double Grid::*member, const char* object) {
    form_
        ->line(
            label, [=, this] { return show_length(grid().*member, desk_.units()); },
            parse_length_field(
                [this] { return desk_.units(); }, {0, 5, false},
                [=, this](std::optional<double> v) { return change_grid([&](Grid& g) { g.*member = *v; }); }),
            [this] { return text_of(symbol(surface_unit(desk_.units()))); })
        ->setObjectName(object);
  };
  margin(tr("Inset: from left and right"), &Grid::margin_x_m, "gridMarginX");
  margin(tr("from front and far"), &Grid::margin_y_m, "gridMarginY");
  form_->note([this]() -> QString {
    if (!desk_.test() || desk_.test()->readings.empty()) return {};
    return tr("Sweeps already begun keep the grid they were walked on.");
  });
}

void RigView::add_watts() {
  form_
      ->line(
          tr("Watts, this sweep"), [this] { return desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString(); },
          parse_number_field(
              {0, 20000},
              [this](std::optional<double> v) { return desk_.edits().set_watts(v) ? QString() : tr("Not kept."); }),
          [] { return QStringLiteral("W"); })
      ->setObjectName("watts");
  form_->note([this]() -> QString {
    if (!desk_.rung() || !desk_.stop()) return {};
    return tr("For %1 at %2 %. Read them at the plug, in the state the sweep is walked in; driver losses belong in.")
        .arg(text_of(length_text(desk_.rung()->height_m, desk_.units())), show_number(desk_.stop()->percent));
  });
}

void RigView::add_disclosure() {
  const auto test_id = [this] { return desk_.test() ? desk_.test()->test.id : 0; };
  const auto fixture_id = [this] { return desk_.test() ? desk_.test()->fixture.id : 0; };
  text_line<Test>(*form_, desk_, test_id, tr("Name of the test"), &Test::name)->setObjectName("testName");
  text_line<record::Fixture>(*form_, desk_, fixture_id, tr("Unit obtained"), &record::Fixture::obtained,
                             tr("bought, lent, given, sample"))
      ->setObjectName("obtained");
  text_line<record::Fixture>(*form_, desk_, fixture_id, tr("Payment, interest"), &record::Fixture::interest,
                             tr("none, or what it is"))
      ->setObjectName("interest");
  text_line<record::Fixture>(*form_, desk_, fixture_id, tr("Unit serial"), &record::Fixture::serial)
      ->setObjectName("serial");
  text_line<Test>(*form_, desk_, test_id, tr("Measured by"), &Test::tested_by)->setObjectName("testedBy");
  date_line<Test>(*form_, desk_, test_id, tr("Measured on"), &Test::tested_on)->setObjectName("testedOn");
  const auto mains = [&](const QString& label, std::optional<double> Test::*member, const NumberRange& range,
                         const QString& unit, const char* object) {
    form_
        ->line(
            label, [=, this] { return desk_.test() ? show_number(desk_.test()->test.*member) : QString(); },
            parse_number_field(range,
                               [=, this](std::optional<double> v) { return store_test(member, v, label.toLower()); }),
            [unit] { return unit; })
        ->setObjectName(object);
  };
  mains(tr("Mains voltage"), &Test::mains_v, {50, 500}, "V", "mainsVoltage");
  mains(tr("Mains frequency"), &Test::mains_hz, {10, 500}, "Hz", "mainsFrequency");
  text_line<Test>(*form_, desk_, test_id, tr("Remarks"), &Test::notes);
}

void RigView::refresh() {
  if (!desk_.test()) return;
  form_->refresh();
  form_->set_editable(!desk_.read_only());
  advice_->refresh();
  stations_advice_->setText(advice_->stations_words());
  height_advice_->setText(marked_attention(advice_->height_words()));
  height_advice_->setVisible(!advice_->height_words().isEmpty());
  show_effort(desk_.test());
  hang_->refresh();
}

void RigView::show_effort(const record::TestRecord* test) {
  if (!test) return;
  const auto layout = lay_out(record::footprint_of(test->bench), record::grid_of(test->test));
  if (!layout) return effort_->setText({});
  const auto sweeps = static_cast<qsizetype>(test->planned_sweeps());
  const auto stations = static_cast<qsizetype>(layout.value().stations.size());
  const double reading_min = static_cast<double>(stations * sweeps) * test->test.seconds_a_reading / 60;
  const double change_min = static_cast<double>(std::max<qsizetype>(sweeps - 1, 0)) * minutes_a_change;
  const auto time = [](double minutes) {
    return minutes < 90 ? tr("%1 min").arg(minutes, 0, 'f', 0) : tr("%1 h").arg(minutes / 60, 0, 'f', 1);
  };
  effort_->setText(tr("%1, %2: %3, about %4: %5 to read at %6 s each, %7 for the changes between sweeps, %8 to warm up")
                       .arg(counted(stations, tr("station"), tr("stations")),
                            counted(sweeps, tr("sweep"), tr("sweeps")),
                            counted(stations * sweeps, tr("reading"), tr("readings")),
                            time(reading_min + change_min + test->test.warm_up_min), time(reading_min),
                            show_number(test->test.seconds_a_reading), time(change_min), time(test->test.warm_up_min)));
}

void RigView::arrive() {
  show_draft({});
  refresh();
  if (first_field_) {
    first_field_->setFocus(Qt::OtherFocusReason);
    first_field_->selectAll();
  }
}

void RigView::reveal(const QString& field) { form_->reveal(field); }

std::vector<KeyHint> RigView::keys() const {
  return {{tr("Tab, Shift+Tab"), tr("next field, field before")},
          {tr("Enter"), tr("keep what was typed")},
          {tr("Space, arrows in the plan"),
           tr("choose outer stations, a spot or a side of the fixture, and move it by 1 cm")},
          {tr("Left, Right, Up, Down beside it"), tr("choose a height, and move it by 1 cm")}};
}

}  // namespace sunbreak::desktop

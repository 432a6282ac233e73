#include "desktop/rig/rig_view.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>

#include "book/plan.h"
#include "desktop/rig/plan_drawing.h"
#include "desktop/shelf/record_fields.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/takers.h"

namespace sunbreak::desktop {

using book::Test;

namespace {
constexpr double seconds_a_reading = 10;

/// Options of a picker: what is on the shelf, and a last one that makes a new one (id 0).
template <typename Record>
std::vector<Choice> shelf_choices(Desk& desk, const QString& new_one, const std::string& condition = "") {
  std::vector<Choice> choices;
  for (const Record& r : desk.book().all<Record>("WHERE removed = 0" + condition + " ORDER BY name COLLATE NOCASE"))
    choices.push_back({text_of(r.name), QVariant::fromValue<qlonglong>(r.id)});
  choices.push_back({new_one, QVariant::fromValue<qlonglong>(0)});
  return choices;
}
}  // namespace

RigView::RigView(Desk& desk, QWidget* parent) : StageView(parent), desk_(desk) {
  form_ = new Form(this);
  build_form();
  auto* page = new QWidget(this);
  auto* page_layout = new QVBoxLayout(page);
  page_layout->setContentsMargins(24, 16, 16, 24);
  page_layout->addWidget(form_);
  page_layout->addStretch();
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setWidget(page);
  scroll->setMinimumWidth(400);
  scroll->setMaximumWidth(520);
  scroll->setFocusPolicy(Qt::NoFocus);

  auto* side = new QWidget(this);
  side->setObjectName("ground");
  side->setAttribute(Qt::WA_StyledBackground);
  auto* side_layout = new QVBoxLayout(side);
  side_layout->setContentsMargins(24, 16, 24, 16);
  side_layout->setSpacing(4);
  side_layout->addWidget(heading_label(tr("The bench from above"), side));
  plan_ = new PlanDrawing(desk_, side);
  side_layout->addWidget(plan_, 1);
  effort_ = wrapped_label({}, side);
  effort_->setProperty("heading", true);
  effort_->setObjectName("effort");
  side_layout->addWidget(effort_);
  side_layout->addWidget(thin_rule(side));
  side_layout->addWidget(heading_label(tr("Before the light goes on"), side));
  for (const QString& words :
       {tr("Hang it from rated hangers and anchor points, with both hands, and stand clear while it is raised."),
        tr("Level it, center it over the footprint, then measure the height from the stated datum to the sensor's "
           "receiving surface."),
        tr("Dry hands and floor, earthed outlet, meter within its rating. Wiring and anything opened up is for a "
           "licensed electrician; local codes decide."),
        tr("Do not look into the lit fixture; wear suitable eye protection. Some fixtures emit UV or infrared that the "
           "eye does not see.")}) {
    auto* line = wrapped_label(QStringLiteral("– ") + words, side);
    line->setProperty("quiet", true);
    line->setStyleSheet("font-size: 12px;");
    side_layout->addWidget(line);
  }
  auto* row = new QHBoxLayout;
  row->addStretch();
  auto* next = primary_button(tr("Walk the first sweep"), side);
  next->setObjectName("rigNext");
  connect(next, &QPushButton::clicked, this, [this] { emit go(2); });
  row->addWidget(next);
  side_layout->addSpacing(8);
  side_layout->addLayout(row);

  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(scroll, 5);
  layout->addWidget(side, 6);
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
  refresh();
}

template <typename Value>
QString RigView::store_test(Value Test::*member, const Value& value, const QString& label) {
  return desk_.test() ? store_member(desk_, desk_.test()->test.id, member, value, label) : QString();
}

void RigView::build_form() {
  add_pickers_fixture();
  add_picker_bench();
  add_meters();
  add_grid();
  add_steps();
  add_watts();
  add_disclosure();
}

void RigView::add_pickers_fixture() {
  const auto fixture_id = [this] { return desk_.test() ? desk_.test()->fixture.id : 0; };
  form_->heading(tr("Fixture"));
  form_->choice(
      tr("From the shelf"), [this] { return shelf_choices<book::Fixture>(desk_, tr("New fixture")); },
      [fixture_id] { return QVariant::fromValue<qlonglong>(fixture_id()); },
      [this](const QVariant& v) {
        if (!desk_.test()) return QString();
        desk_.edit(tr("choose a fixture"), [&](book::Edit& e) {
          Test test = desk_.test()->test;
          const book::Id id = v.toLongLong();
          book::Fixture fresh;
          fresh.name = "New fixture";
          test.fixture_id = id ? id : e.add(fresh);
          e.save(test);
        });
        return QString();
      });
  text_line<Test>(
      *form_, desk_, [this] { return desk_.test() ? desk_.test()->test.id : 0; }, tr("Name of the test"), &Test::name)
      ->setObjectName("testName");
  form_->heading(tr("What it is"));
  add_fixture_fields(*form_, desk_, fixture_id);
  first_field_ = form_->findChild<QLineEdit*>("fixtureName");
  add_claim_fields(*form_, desk_, fixture_id);
}

void RigView::add_picker_bench() {
  const auto bench_id = [this] { return desk_.test() ? desk_.test()->bench.id : 0; };
  form_->heading(tr("Bench"));
  form_
      ->choice(
          tr("Test space"), [this] { return shelf_choices<book::Bench>(desk_, tr("New bench")); },
          [bench_id] { return QVariant::fromValue<qlonglong>(bench_id()); },
          [this](const QVariant& v) -> QString {
            if (!desk_.test()) return {};
            if (!desk_.test()->readings.empty())
              return tr(
                  "Readings were taken on this bench, so this test stays with it. Duplicate the plan on Home to test "
                  "on another one.");
            desk_.edit(tr("choose a bench"), [&](book::Edit& e) {
              Test test = desk_.test()->test;
              const book::Id id = v.toLongLong();
              book::Bench fresh = desk_.test()->bench;
              fresh.id = 0;
              fresh.name = "New bench";
              test.bench_id = id ? id : e.add(fresh);
              e.save(test);
            });
            return {};
          })
      ->setObjectName("benchPicker");
  add_bench_fields(*form_, desk_, bench_id);
  form_->choice(
      tr("Door while reading"),
      [] {
        return std::vector<Choice>{{tr("not stated"), ""}, {tr("closed"), "closed"}, {tr("open"), "open"}};
      },
      [this] { return QVariant(desk_.test() ? text_of(desk_.test()->test.door) : QString()); },
      [this](const QVariant& v) { return store_test(&Test::door, text_of(v.toString()), tr("door")); });
}

void RigView::add_meters() {
  const auto picker = [this](const QString& name, const std::string& kind, std::optional<book::Id> Test::*member) {
    form_->choice(
        name,
        [this, kind] {
          auto choices = shelf_choices<book::Meter>(desk_, tr("New meter"), " AND kind = '" + kind + "'");
          choices.insert(choices.begin(), {tr("not stated"), QVariant::fromValue<qlonglong>(-1)});
          return choices;
        },
        [this, member] {
          return QVariant::fromValue<qlonglong>(desk_.test() ? (desk_.test()->test.*member).value_or(-1) : -1);
        },
        [this, member, kind](const QVariant& v) {
          if (!desk_.test()) return QString();
          desk_.edit(tr("choose a meter"), [&](book::Edit& e) {
            Test test = desk_.test()->test;
            const book::Id id = v.toLongLong();
            book::Meter fresh;
            fresh.kind = kind;
            fresh.name = kind == "quantum" ? "New sensor" : "New wall meter";
            test.*member = id < 0 ? std::nullopt : std::optional(id ? id : e.add(fresh));
            e.save(test);
          });
          return QString();
        });
  };
  form_->heading(tr("Meters"));
  picker(tr("Quantum sensor"), "quantum", &Test::sensor_id);
  form_->note([this]() -> QString {
    const book::Meter* sensor = desk_.test() ? desk_.test()->meter(desk_.test()->test.sensor_id) : nullptr;
    if (!sensor)
      return tr("Without a sensor on record, readings are taken as they are and no one can say how sure they are.");
    return tr("Calibrated %1, factor %2. Its details are on Home, under Meters.")
        .arg(sensor->calibrated_on.empty() ? tr("on a day not stated") : text_of(sensor->calibrated_on),
             show_number(sensor->factor));
  });
  picker(tr("Wall meter"), "wall", &Test::wall_meter_id);
}

void RigView::add_grid() {
  const auto change = [this](const std::function<void(Grid&)>& alter) {
    if (!desk_.test()) return QString();
    Grid grid = book::grid_of(desk_.test()->test);
    alter(grid);
    return desk_.plan([&] { return book::plan_grid(desk_.book(), *desk_.test(), grid); });
  };
  const auto grid = [this] { return desk_.test() ? book::grid_of(desk_.test()->test) : Grid{}; };
  form_->heading(tr("Grid of stations"));
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
          [this, change](const QVariant& v) {
            return change([&](Grid& g) {
              g.kind = parse_grid_kind(text_of(v.toString())).value();
              const Footprint fp = book::footprint_of(desk_.test()->bench);
              if (g.kind == GridKind::Inset && g.margin_x_m <= 0) g.margin_x_m = g.margin_y_m = 0.05;
              if (g.kind == GridKind::Spots && g.spots.empty()) g.spots = nine_spots(fp, 0.05);
            });
          })
      ->setObjectName("gridKind");
  const auto count = [&](const QString& label, int Grid::*member, const char* object) {
    form_
        ->line(
            label, [=] { return QString::number(grid().*member); },
            take_number(
                {1, 500, false},
                [=](std::optional<double> v) { return change([&](Grid& g) { g.*member = static_cast<int>(*v); }); }),
            [] { return QString(); })
        ->setObjectName(object);
  };
  count(tr("Stations left to right"), &Grid::columns, "gridColumns");
  count(tr("Stations front to back"), &Grid::rows, "gridRows");
  form_->line(
      tr("Margin, for inset"), [this, grid] { return show_length(grid().margin_x_m, desk_.units()); },
      take_length(
          [this] { return desk_.units(); }, {0, 5, false},
          [change](std::optional<double> v) { return change([&](Grid& g) { g.margin_x_m = g.margin_y_m = *v; }); }),
      [this] { return QString::fromUtf8(symbol(surface_unit(desk_.units())).data()); });
  form_->note([this]() -> QString {
    if (!desk_.test() || desk_.test()->readings.empty()) return {};
    return tr("Sweeps already begun keep the grid they were walked on.");
  });
}

void RigView::add_steps() {
  form_->heading(tr("Heights and dimmer settings"));
  form_->choice(
      tr("Heights are from"),
      [] {
        return std::vector<Choice>{{tr("not stated"), ""},
                                   {tr("diodes"), "diodes"},
                                   {tr("lens"), "lens"},
                                   {tr("lamp underside"), "lamp underside"}};
      },
      [this] { return QVariant(desk_.test() ? text_of(desk_.test()->test.datum) : QString()); },
      [this](const QVariant& v) { return store_test(&Test::datum, text_of(v.toString()), tr("height datum")); });
  form_
      ->line(
          tr("Heights"),
          [this] {
            QStringList texts;
            if (desk_.test())
              for (const book::Rung& r : desk_.test()->rungs) texts << show_length(r.height_m, desk_.units());
            return texts.join(", ");
          },
          [this](const QString& text) -> QString {
            QString problem;
            const auto heights = length_list(text, desk_.units(), &problem);
            if (!heights || !desk_.test()) return problem;
            return desk_.plan([&] { return book::plan_heights(desk_.book(), *desk_.test(), *heights); });
          },
          [this] { return QString::fromUtf8(symbol(surface_unit(desk_.units())).data()); }, tr("such as 75, 60, 45"))
      ->setObjectName("heights");
  form_
      ->line(
          tr("Dimmer settings"),
          [this] {
            QStringList texts;
            if (desk_.test())
              for (const book::Stop& s : desk_.test()->stops) texts << show_number(s.percent);
            return texts.join(", ");
          },
          [this](const QString& text) -> QString {
            QString problem;
            const auto percents = number_list(text, &problem);
            if (!percents || !desk_.test()) return problem;
            return desk_.plan([&] { return book::plan_stops(desk_.book(), *desk_.test(), *percents); });
          },
          [] { return QStringLiteral("%"); }, tr("100 where there is no dimmer"))
      ->setObjectName("stops");
}

void RigView::add_watts() {
  form_->heading(tr("Watts at the wall"));
  form_
      ->line(
          tr("Watts, this sweep"), [this] { return desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString(); },
          take_number({0, 20000},
                      [this](std::optional<double> v) { return desk_.set_watts(v) ? QString() : tr("Not kept."); }),
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
  form_->heading(tr("Disclosure, printed in every report"));
  text_line<book::Fixture>(*form_, desk_, fixture_id, tr("Unit obtained"), &book::Fixture::obtained,
                           tr("bought, lent, given, sample"));
  text_line<book::Fixture>(*form_, desk_, fixture_id, tr("Payment, interest"), &book::Fixture::interest,
                           tr("none, or what it is"));
  text_line<book::Fixture>(*form_, desk_, fixture_id, tr("Unit serial"), &book::Fixture::serial);
  text_line<Test>(*form_, desk_, test_id, tr("Measured by"), &Test::tested_by);
  text_line<Test>(*form_, desk_, test_id, tr("Measured on"), &Test::tested_on, tr("year-month-day"));
  const auto mains = [&](const QString& label, std::optional<double> Test::*member, const NumberRange& range,
                         const QString& unit) {
    form_->line(
        label, [=, this] { return desk_.test() ? show_number(desk_.test()->test.*member) : QString(); },
        take_number(range, [=, this](std::optional<double> v) { return store_test(member, v, label.toLower()); }),
        [unit] { return unit; });
  };
  mains(tr("Mains voltage"), &Test::mains_v, {50, 500}, "V");
  mains(tr("Mains frequency"), &Test::mains_hz, {10, 500}, "Hz");
  text_line<Test>(*form_, desk_, test_id, tr("Remarks"), &Test::notes);
}

void RigView::refresh() {
  if (!desk_.test()) return;
  form_->refresh();
  form_->set_editable(!desk_.read_only());
  const auto layout = lay_out(book::footprint_of(desk_.test()->bench), book::grid_of(desk_.test()->test));
  if (!layout) return effort_->setText({});
  const auto sweeps = desk_.test()->rungs.size() * desk_.test()->stops.size();
  const auto stations = layout.value().stations.size();
  const double minutes = static_cast<double>(stations * sweeps) * seconds_a_reading / 60;
  const QString time = minutes < 90 ? tr("%1 min").arg(minutes, 0, 'f', 0) : tr("%1 h").arg(minutes / 60, 0, 'f', 1);
  effort_->setText(tr("%1, %2: %3, about %4 at %5 s each")
                       .arg(counted(static_cast<qsizetype>(stations), tr("station"), tr("stations")),
                            counted(static_cast<qsizetype>(sweeps), tr("sweep"), tr("sweeps")),
                            counted(static_cast<qsizetype>(stations * sweeps), tr("reading"), tr("readings")), time)
                       .arg(seconds_a_reading));
}

void RigView::arrive() {
  refresh();
  if (first_field_) {
    first_field_->setFocus(Qt::OtherFocusReason);
    first_field_->selectAll();
  }
}

std::vector<KeyHint> RigView::keys() const {
  return {{tr("Tab, Shift+Tab"), tr("next field, field before")}, {tr("Enter"), tr("keep what was typed")}};
}

}  // namespace sunbreak::desktop

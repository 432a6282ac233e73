#include "book/demo/demo_book.h"

#include "book/demo/demo_meters.h"
#include "book/demo/demo_pictures.h"
#include "book/demo/demo_spectra.h"
#include "book/demo/demo_writer.h"
#include "core/optics/fixture_shapes.h"

namespace sunbreak::book {
namespace {

/// Emitters of a unit, the widest gap between them, and the beam.
struct Build {
  int across = 8, deep = 8;
  double gap_m = 0.03, beam_deg = 120;
};

Fixture fixture(const char* name, const char* maker, const char* kind, const char* emitters, double width, double depth,
                double price, const Build& build) {
  Fixture f;
  f.emitters_across = build.across;
  f.emitters_deep = build.deep;
  f.emitter_spacing_m = build.gap_m;
  f.beam_angle_deg = build.beam_deg;
  f.name = name;
  f.maker = maker;
  f.kind = kind;
  f.emitters = emitters;
  f.width_m = width;
  f.depth_m = depth;
  if (price > 0) f.price = price;
  f.currency = "EUR";
  f.obtained = "bought by the library";
  f.interest = "none";
  return f;
}

const Grid twelve{GridKind::Cells, 12, 12, 0, 0, {}}, bay_grid{GridKind::Cells, 6, 12, 0, 0, {}},
    ten{GridKind::Cells, 10, 10, 0, 0, {}}, eight{GridKind::Inset, 8, 8, 0.05, 0.05, {}};
constexpr const char* flowering = "flowering & fruiting";
constexpr Band fruiting{555, 925}, leafy{210, 295}, sprouts{105, 175};

BoxFact fact(const char* name, const char* source, std::optional<double> value, const char* words) {
  return {0, 0, name, source, value, words};
}
BoxFact stated(const char* name, double value) { return fact(name, "stated", value, ""); }
BoxFact stated(const char* name, const char* words) { return fact(name, "stated", {}, words); }
BoxFact checked(const char* name, double value) { return fact(name, "checked", value, ""); }
BoxFact checked(const char* name, const char* words) { return fact(name, "checked", {}, words); }

SamplePlan ostler_six_bar() {
  return {.title = "Ostler Six-Bar in the tent",
          .fixture = fixture("Ostler Six-Bar", "Ostler", "six LED bars", "6 bars, 20 cm apart, white with red", 1.08,
                             1.06, 389, {6, 18, 0.20, 120}),
          .truth = {bars(6, 1.0, 1.02, 18, 896), 0.01, 0, 322},
          .heights_m = {0.6, 0.45, 0.3, 0.2},
          .percents = {100, 75, 50},
          .grid = twelve,
          .target_name = flowering,
          .target = fruiting,
          .walked = 12,
          .power = PowerTruth{.fall = 0.045,
                              .time_constant_s = 420,
                              .logged_min = 75,
                              .stair = {100, 90, 75, 50, 30, 20, 10, 0, 100},
                              .shots = {{"air", "contact", 23.4, {}, {}},
                                        {"driver", "infrared", 51.8, 0.95, 0.92},
                                        {"bar top", "infrared", 44.6, 0.95, 0.90},
                                        {"bar underside", "infrared", 47.9, 0.95, 0.90},
                                        {"leaf", "infrared", 25.1, 0.95, 0.96},
                                        {"swatch", "infrared", 27.4, 0.95, 0.95, false, "black"}}},
          .facts = {stated("weight", 9.4),
                    checked("weight", 9.65),
                    stated("outer_length_m", 1.1),
                    stated("outer_width_m", 1.08),
                    stated("outer_height_m", 0.07),
                    checked("condition", "new"),
                    checked("contents", "lamp, two hangers, cord, a leaflet"),
                    checked("assembly_min", 25),
                    stated("driver_kind", "built in"),
                    checked("driver_place", "across the middle, on top"),
                    stated("emitter_count", 1728),
                    stated("emitter_mix", "white, with red at 660 nm"),
                    checked("lenses", "none"),
                    stated("ip_code", "IP65"),
                    stated("warranty_years", 5),
                    checked("cooling", "passive"),
                    checked("noise_words", "none at any setting"),
                    checked("cord_length_m", 1.8),
                    stated("voltages", "100–277 V"),
                    stated("dimming", "knob"),
                    stated("dimming_low_pct", 10),
                    stated("dimming_high_pct", 100),
                    stated("chain_power", 4)},
          .hours_run = 40};
}

SamplePlan ostler_seven_months_on(const Test& first) {
  Fixture same = fixture("", "", "", "", 0, 0, 0, {});
  same.id = first.fixture_id;
  return {.title = "Ostler Six-Bar, seven months on",
          .fixture = same,
          .truth = {bars(6, 1.0, 1.02, 18, 896 * 0.968), 0.006, 0, 320},
          .heights_m = {0.6, 0.45},
          .percents = {100},
          .grid = twelve,
          .target_name = flowering,
          .target = fruiting,
          .walked = 2,
          .hours_run = 2540,
          .retest_of = first.id};
}

SamplePlan brindle_panel() {
  return {
      .title = "Brindle Panel 135 in the tent",
      .fixture = fixture("Brindle Panel 135", "Brindle", "one LED board, passive cooling", "board 25 × 28 cm, white",
                         0.26, 0.30, 149, {10, 10, 0.03, 120}),
      .truth = {board(0.24, 0.27, 10, 10, 343), 0, 0, 137},
      .heights_m = {0.6, 0.45, 0.3},
      .percents = {100},
      .grid = twelve,
      .target_name = flowering,
      .target = fruiting,
      .walked = 3,
      .power = PowerTruth{.fall = 0.07,
                          .time_constant_s = 3000,
                          .logged_min = 170,
                          .shots = {{"air", "contact", 22.8, {}, {}}, {"bar top", "infrared", 41.0, 0.95, {}, true}}}};
}

SamplePlan pell_narrow() {
  return {.title = "Pell Narrow 300 on the loft floor",
          .fixture = fixture("Pell Narrow 300", "Pell", "one long strip of lensed pucks",
                             "9 lensed pucks in a row, 11 cm apart", 0.1, 0.98, 119, {1, 9, 0.11, 60}),
          .truth = {bars(1, 0, 0.88, 9, 432, 4.8), 0, 0, 228},
          .heights_m = {0.6, 0.45},
          .percents = {100},
          .grid = eight,
          .target_name = flowering,
          .target = fruiting,
          .walked = 2};
}

SamplePlan wicket_four_tube() {
  return {.title = "Wicket Four-Tube in the window bay",
          .fixture = fixture("Wicket Four-Tube", "Wicket", "four fluorescent tubes", "4 tubes of 110 cm, 14 cm apart",
                             0.56, 1.18, 85, {4, 16, 0.14, 120}),
          .truth = {bars(4, 0.42, 1.1, 16, 118), 0, 0, 112},
          .heights_m = {0.4, 0.2},
          .percents = {100},
          .grid = bay_grid,
          .target_name = "propagation",
          .target = sprouts,
          .photoperiod_h = 16,
          .walked = 2,
          .power = PowerTruth{.fall = -0.06,
                              .time_constant_s = 500,
                              .logged_min = 60,
                              .shots = {{"air", "contact", 21.9, {}, {}}, {"ballast", "contact", 71.5, {}, {}}}}};
}

SamplePlan bess_sodium() {
  return {.title = "Bess 400 in the tent",
          .fixture = fixture("Bess 400", "Bess", "sodium lamp in a deep hood", "one lamp in a deep hood", 0.5, 0.4, 0,
                             {8, 4, 0.05, 80}),
          .truth = {reflector_lamp(0.3, 0.16, 640, 2.6), 0, 0, 434},
          .heights_m = {0.8, 0.6},
          .percents = {100},
          .grid = twelve,
          .target_name = flowering,
          .target = fruiting,
          .walked = 2,
          .power = PowerTruth{.fall = 0.03,
                              .time_constant_s = 380,
                              .logged_min = 18,
                              .shots = {{"air", "contact", 24.6, {}, {}}, {"ballast", "infrared", 84.0, 0.95, 0.93}}},
          .facts = {checked("hours_run", 6200)},
          .states = {{"a new lamp", "the same hood and ballast", 1.19, 1.01, {0.8, 0.6}, {100}}},
          .as_it_comes = "lamp of 6,200 h"};
}

SamplePlan marrow_row() {
  return {.title = "Marrow Row in the ironing room",
          .fixture = fixture("Marrow Row", "Marrow", "three LED boards in a row", "board of 25 × 28 cm, white", 0.26,
                             0.30, 396, {10, 10, 0.03, 120}),
          .truth = {joined(joined(placed(tilted(board(0.24, 0.27, 8, 8, 394), 1.5, 0), {-0.33, 0, 0}),
                                  board(0.24, 0.27, 8, 8, 394)),
                           placed(board(0.24, 0.27, 8, 8, 394), {0.33, 0, 0})),
                    0, 0, 488},
          .heights_m = {0.6, 0.45, 0.3},
          .percents = {100, 80, 60},
          .grid = ten,
          .target_name = flowering,
          .target = fruiting,
          .walked = 4,
          .then_readings = 41,
          .power = PowerTruth{.fall = 0.05,
                              .time_constant_s = 600,
                              .logged_min = 70,
                              .stair = {100, 80, 60, 40, 20, 0, 100},
                              .shots = {{"air", "contact", 23.1, {}, {}},
                                        {"driver", "infrared", 55.2, 0.95, 0.93, false, "", 100, -40},
                                        {"driver", "infrared", 58.6, 0.95, 0.93, false, "", 100, -12}}},
          .units = 3,
          .unit_spacing_m = 0.33};
}

SamplePlan tansy_round() {
  return {.title = "Tansy Round 60 in the window bay",
          .fixture = fixture("Tansy Round 60", "Tansy", "small round LED board", "round board of 22 cm, white", 0.22,
                             0.22, 59, {6, 6, 0.03, 120}),
          .truth = {disc(0.1, 5, 158), 0, 0, 59},
          .heights_m = {0.45, 0.3},
          .percents = {100, 115},
          .grid = bay_grid,
          .target_name = "leafy & herbs",
          .target = leafy,
          .photoperiod_h = 16,
          .walked = 1,
          .power = PowerTruth{.fall = 0.04,
                              .time_constant_s = 500,
                              .logged_min = 45,
                              .stair = {100, 115, 100, 80, 60, 40, 20, 0, 100},
                              .shots = {{"air", "contact", 22.4, {}, {}},
                                        {"driver", "infrared", 57.8, 0.95, 0.93, false, "", 100, -10},
                                        {"driver", "infrared", 66.4, 0.95, 0.93, false, "", 115, 0, 71.0, 42.5}}},
          .surface_limit_c = 63};
}

}  // namespace

void fill_demo(Book& book) {
  book.edit("Sample lab book", [](Edit& edit) {
    DemoWriter writer(edit, 20260314);
    const Bench tent = writer.add_bench(
        {0, "Drying loft tent", 1.2, 1.2, 2.0, "reflective", "reflective", "reflective", "reflective", "", false});
    const Bench bay = writer.add_bench(
        {0, "Window bay", 0.6, 1.2, 1.6, "reflective", "reflective", "reflective", "reflective", "", false});
    const Bench floor = writer.add_bench({0, "Loft floor", 1.2, 1.2, 2.4, "open", "open", "open", "open",
                                          "No walls: light past the edge is lost.", false});
    const Bench room =
        writer.add_bench({0, "Ironing room", 1.0, 1.0, 2.2, "white", "white", "white", "white", "", false});
    const double factor = 1.012;
    Meter known{0, "quantum", "loft sensor", "2025-04-22", factor, 0, 2.5, 4000.0, 0.032, 0.03, "", false, 2};
    know_response(known);
    const Id loft_sensor = writer.add_meter(known);
    const Id old_sensor = writer.add_meter({0, "quantum", "old sensor", "2021-05-11", 1, 0, 5.0, 3000.0, 0.028, 0.025,
                                            "Reads 3 % low beside the loft sensor.", false, 2});
    const Id plug_meter = writer.add_meter(
        {0, "wall", "plug meter", "2025-11-02", 1, 0, 1.0, 3680.0, std::nullopt, std::nullopt, "", false, 2});

    const Id lux_meter = writer.add_meter(sample_lux_meter());
    for (const CheckLampReading& reading : sample_check_readings(loft_sensor, old_sensor)) edit.add(reading);

    const auto test = [&](const SamplePlan& plan, const Bench& bench) {
      return writer.add_test(plan, bench, loft_sensor, factor, plug_meter);
    };
    const Test ostler = test(ostler_six_bar(), tent);
    edit.add(sample_lux_factor(lux_meter, ostler.fixture_id));
    const Id ostler_driver = writer.taken_temperatures().at(1);
    test(brindle_panel(), tent);
    test(pell_narrow(), floor);
    test(wicket_four_tube(), bay);
    test(bess_sodium(), tent);
    test(marrow_row(), room);
    test(tansy_round(), bay);
    writer.in_month(10, 12);
    const Test later = test(ostler_seven_months_on(ostler), tent);
    Test first = ostler, repeated = later;
    first.mark = repeated.retest_of = "5b0c3a51a6f14f0e9d2f7c1a84e6d390";
    repeated.retest_unit = "same";
    edit.save(first);
    edit.save(repeated);
    for (MeasuredSpectrum spectrum : sample_spectra()) {
      spectrum.test_id = ostler.id;
      edit.add(spectrum);
    }
    const Id basil = edit.add(GrowthNote{0, ostler.id, "2026-05-02", "basil at 60 cm, 75 %: even over the whole tray"});
    edit.add(GrowthNote{0, ostler.id, "2026-06-20", "tomatoes at 45 cm: first trusses, the corners a week behind"});
    add_sample_pictures(edit, ostler, ostler_driver, basil);
  });
  book.forget_history();
}

}  // namespace sunbreak::book

#include "desktop/rig/plan_handles.h"

#include <algorithm>
#include <cmath>

#include "core/optics/fixture_shapes.h"
#include "evaluation/rig_model.h"

namespace sunbreak::desktop {
namespace {

constexpr double step_m = 0.01, least_side_m = 0.02, most_side_m = 5, least_inside_m = 0.1;

double whole(double meters) { return std::round(meters / step_m) * step_m; }
double side(double meters) { return std::clamp(whole(meters), least_side_m, most_side_m); }

/// How far the outer stations are from the left and right walls, from the front and far walls.
struct Margins {
  double x_m = 0, y_m = 0;
};
Margins margins_of(const Layout& layout) { return {layout.xs_m.front(), layout.ys_m.front()}; }

/// How far a place is from the walls, as its margins would be.
Margins margins_at(const record::TestRecord& test, double x_m, double y_m) {
  return {std::min(x_m, test.bench.width_m - x_m), std::min(y_m, test.bench.depth_m - y_m)};
}

void set_margins(record::TestRecord& test, const Margins& m) {
  Grid grid = record::grid_of(test.test);
  const Footprint floor = record::footprint_of(test.bench);
  const auto margin = [](double wanted, double floor_m) {
    return std::clamp(whole(wanted), 0.0, std::max((floor_m - least_inside_m) / 2, 0.0));
  };
  grid.kind = GridKind::Inset;
  grid.margin_x_m = margin(m.x_m, floor.width_m);
  grid.margin_y_m = margin(m.y_m, floor.depth_m);
  record::set_grid(test.test, grid);
}

void set_spot(record::TestRecord& test, int spot, double x_m, double y_m) {
  Grid grid = record::grid_of(test.test);
  const Footprint floor = record::footprint_of(test.bench);
  Spot& s = grid.spots[static_cast<std::size_t>(spot)];
  s.x_m = std::clamp(whole(x_m), 0.0, floor.width_m);
  s.y_m = std::clamp(whole(y_m), 0.0, floor.depth_m);
  record::set_grid(test.test, grid);
}

/// How far a place is from the middle of the floor along the sides of the units, which may be turned.
Place out_of_middle(const record::TestRecord& t, double turn_deg, double x_m, double y_m) {
  const Vec3 own = turned_about_vertical({x_m - t.bench.width_m / 2, y_m - t.bench.depth_m / 2, 0}, -turn_deg);
  return {std::abs(own.x), std::abs(own.y)};
}

/// A unit's side that puts the outer edge of the outer units so far from the middle.
double side_reaching(int units, double spacing_m, bool spaced, double out_m) {
  return spaced ? 2 * (out_m - (units - 1) * spacing_m / 2) : 2 * out_m / units;
}

}  // namespace

bool is_of_fixture(const PlanHandle& handle) {
  return handle.kind != PlanHandle::Margin && handle.kind != PlanHandle::Spot;
}

Spot spot_of(const record::TestRecord& test, const PlanHandle& handle) {
  return record::grid_of(test.test).spots[static_cast<std::size_t>(handle.spot)];
}

std::vector<std::array<Place, 4>> units_from_above(const record::TestRecord& test) {
  const FixtureOutline o = evaluation::outline_of(test);
  const double middle_x = test.bench.width_m / 2, middle_y = test.bench.depth_m / 2;
  std::vector<std::array<Place, 4>> units;
  for (int unit = 0; unit < units_of(o); ++unit) {
    auto& corners = units.emplace_back();
    const auto around = unit_corners(o, unit);
    for (std::size_t i = 0; i < corners.size(); ++i) corners[i] = {middle_x + around[i].x_m, middle_y + around[i].y_m};
  }
  return units;
}

std::vector<PlanHandle> plan_handles(const record::TestRecord& test) {
  std::vector<PlanHandle> handles;
  const auto layout = lay_out(record::footprint_of(test.bench), record::grid_of(test.test));
  const bool spots = record::grid_of(test.test).kind == GridKind::Spots;
  if (layout && !spots && layout.value().columns > 1 && layout.value().rows > 1)
    handles.push_back({PlanHandle::Margin});
  if (layout && spots)
    for (int i = 0; i < std::ssize(record::grid_of(test.test).spots); ++i) handles.push_back({PlanHandle::Spot, i});
  handles.push_back({PlanHandle::Width});
  handles.push_back({PlanHandle::Depth});
  if (test.test.unit_columns > 1) handles.push_back({PlanHandle::Spacing});
  if (test.test.unit_rows > 1) handles.push_back({PlanHandle::RowSpacing});
  return handles;
}

int handle_at(const record::TestRecord& test, double x_m, double y_m, double reach_m) {
  const auto layout = lay_out(record::footprint_of(test.bench), record::grid_of(test.test));
  const FixtureOutline o = evaluation::outline_of(test);
  const double outer_edge = whole_width_m(o) / 2, far_edge = whole_depth_m(o) / 2;
  const Place out = out_of_middle(test, o.turn_deg, x_m, y_m);
  const double across = out.x_m, deep = out.y_m;
  const auto near = [&](double a, double b) { return std::abs(a - b) <= reach_m; };
  const auto handles = plan_handles(test);
  for (std::size_t i = 0; i < handles.size(); ++i) {
    bool here = false;
    switch (handles[i].kind) {
      case PlanHandle::Margin: {
        const Margins m = margins_of(layout.value()), at = margins_at(test, x_m, y_m);
        here = near(at.x_m, m.x_m) && near(at.y_m, m.y_m);
        break;
      }
      case PlanHandle::Spot: {
        const Spot s = spot_of(test, handles[i]);
        here = std::hypot(s.x_m - x_m, s.y_m - y_m) <= reach_m;
        break;
      }
      case PlanHandle::Width:
        here = near(across, outer_edge) && deep <= far_edge;
        break;
      case PlanHandle::Depth:
        here = near(deep, far_edge) && across <= outer_edge;
        break;
      case PlanHandle::Spacing:
        here = across >= outer_edge - o.width_m && across <= outer_edge && deep <= far_edge;
        break;
      case PlanHandle::RowSpacing:
        here = deep >= far_edge - o.depth_m && deep <= far_edge && across <= outer_edge;
        break;
    }
    if (here) return static_cast<int>(i);
  }
  return -1;
}

record::TestRecord moved(record::TestRecord test, const PlanHandle& handle, double x_m, double y_m) {
  const FixtureOutline o = evaluation::outline_of(test);
  const Place out = out_of_middle(test, o.turn_deg, x_m, y_m);
  switch (handle.kind) {
    case PlanHandle::Margin:
      set_margins(test, margins_at(test, x_m, y_m));
      break;
    case PlanHandle::Spot:
      set_spot(test, handle.spot, x_m, y_m);
      break;
    case PlanHandle::Width:
      test.fixture.width_m =
          side(side_reaching(o.columns, o.spacing_x_m, test.test.unit_spacing_x_m.has_value(), out.x_m));
      break;
    case PlanHandle::Depth:
      test.fixture.depth_m =
          side(side_reaching(o.rows, o.spacing_y_m, test.test.unit_spacing_y_m.has_value(), out.y_m));
      break;
    case PlanHandle::Spacing:
      test.test.unit_spacing_x_m = side(2 * out.x_m / (o.columns - 1));
      break;
    case PlanHandle::RowSpacing:
      test.test.unit_spacing_y_m = side(2 * out.y_m / (o.rows - 1));
      break;
  }
  return test;
}

record::TestRecord nudged(record::TestRecord test, const PlanHandle& handle, int steps_x, int steps_y) {
  const FixtureOutline o = evaluation::outline_of(test);
  const double by_m = (steps_x + steps_y) * step_m;
  switch (handle.kind) {
    case PlanHandle::Margin:
      if (const auto layout = lay_out(record::footprint_of(test.bench), record::grid_of(test.test))) {
        const Margins m = margins_of(layout.value());
        set_margins(test, {m.x_m - steps_x * step_m, m.y_m - steps_y * step_m});
      }
      break;
    case PlanHandle::Spot: {
      const Spot s = spot_of(test, handle);
      set_spot(test, handle.spot, s.x_m + steps_x * step_m, s.y_m + steps_y * step_m);
      break;
    }
    case PlanHandle::Width:
      test.fixture.width_m = side(o.width_m + by_m);
      break;
    case PlanHandle::Depth:
      test.fixture.depth_m = side(o.depth_m + by_m);
      break;
    case PlanHandle::Spacing:
      test.test.unit_spacing_x_m = side(o.spacing_x_m + by_m);
      break;
    case PlanHandle::RowSpacing:
      test.test.unit_spacing_y_m = side(o.spacing_y_m + by_m);
      break;
  }
  return test;
}

}  // namespace sunbreak::desktop

#include "core/whole_light/fit_parameters.h"

#include <algorithm>

namespace sunbreak {
namespace {

using ParameterKind = FitParameter::Kind;

constexpr double least_reflectance = 0.02, most_reflectance = 0.97;

}  // namespace

void set_reflectance(Room::Reflectance& r, const Face& face, double value) {
  double* const all[3][2] = {{&r.left, &r.right}, {&r.front, &r.back}, {&r.floor, &r.ceiling}};
  *all[face.axis][face.high] = value;
}

FitParameters::FitParameters(const WholeLightQuestion& q, const std::vector<double>& heights_m)
    : heights_m_(heights_m), sides_(q.sides), units_(units_of(q.outline)) {
  const auto add = [&](ParameterKind kind, int index, double believed, double sd, double reach, double step) {
    list_.push_back({kind, index, believed, sd, believed - reach, believed + reach, step});
  };
  add(ParameterKind::OffsetX, 0, 0, q.offset_sd_m, 0.2, 0.03);
  add(ParameterKind::OffsetY, 0, 0, q.offset_sd_m, 0.2, 0.03);
  add(ParameterKind::Datum, 0, 0, q.datum_sd_m, 0.06, 0.02);
  for (std::size_t r = 0; r < heights_m.size(); ++r)
    add(ParameterKind::HeightShift, static_cast<int>(r), 0, q.height_sd_m, 0.03, 0.01);
  for (int unit = 0; unit < leans(); ++unit) {
    add(ParameterKind::Roll, unit, 0, q.lean_sd_deg, 15, 1.5);
    add(ParameterKind::Pitch, unit, 0, q.lean_sd_deg, 15, 1.5);
  }
  for (int unit = 1; unit < leans(); ++unit) add(ParameterKind::Share, unit, 1, q.share_sd, 0.6, 0.1);
  add(ParameterKind::Span, 0, 1, q.span_sd, 0.35, 0.06);
  for (std::size_t side = 0; side < faces.size(); ++side) {
    if (q.sides[side].value <= 0) continue;
    add(ParameterKind::Side, static_cast<int>(side), q.sides[side].value, q.sides[side].sd, 0, 0.12);
    list_.back().lower = least_reflectance;
    list_.back().upper = most_reflectance;
  }
  int settings = 1;
  for (const FitSweep& sweep : q.sweeps) settings = std::max(settings, sweep.setting + 1);
  for (int setting = 1; setting < settings; ++setting) {
    add(ParameterKind::Setting, setting, 1, 10, 0, 0.5);
    list_.back().lower = 1e-3;
    list_.back().upper = 20;
  }
}

Eigen::Index FitParameters::find(ParameterKind kind, int index) const {
  for (std::size_t i = 0; i < list_.size(); ++i)
    if (list_[i].kind == kind && list_[i].index == index) return static_cast<Eigen::Index>(i);
  return -1;
}

double FitParameters::value_of(const Eigen::VectorXd& values, ParameterKind kind, int index, double otherwise) const {
  const Eigen::Index at = find(kind, index);
  return at < 0 ? otherwise : values(at);
}

Eigen::VectorXd FitParameters::believed() const {
  Eigen::VectorXd values(size());
  for (Eigen::Index i = 0; i < size(); ++i) values(i) = (*this)[i].believed;
  return values;
}

Hang FitParameters::hang(const Eigen::VectorXd& values, std::size_t height) const {
  return hang_at(values,
                 heights_m_[height] + value_of(values, ParameterKind::HeightShift, static_cast<int>(height), 0));
}

Hang FitParameters::hang_at(const Eigen::VectorXd& values, double height_m) const {
  Hang hang{value_of(values, ParameterKind::OffsetX, 0, 0),
            value_of(values, ParameterKind::OffsetY, 0, 0),
            height_m + value_of(values, ParameterKind::Datum, 0, 0),
            {},
            value_of(values, ParameterKind::Span, 0, 1)};
  for (int unit = 0; unit < units_; ++unit)
    hang.leans.push_back({value_of(values, ParameterKind::Roll, lean_of(unit), 0),
                          value_of(values, ParameterKind::Pitch, lean_of(unit), 0)});
  return hang;
}

Room::Reflectance FitParameters::reflectance(const Eigen::VectorXd& values) const {
  Room::Reflectance r;
  for (std::size_t side = 0; side < faces.size(); ++side)
    set_reflectance(r, faces[side], value_of(values, ParameterKind::Side, static_cast<int>(side), 0));
  return r;
}

double FitParameters::setting(const Eigen::VectorXd& values, int index) const {
  return value_of(values, ParameterKind::Setting, index, 1);
}

double FitParameters::share(const Eigen::VectorXd& values, int unit) const {
  if (unit > 0) return value_of(values, ParameterKind::Share, unit, 1);
  double rest = units_;
  for (int other = 1; other < units_; ++other) rest -= value_of(values, ParameterKind::Share, other, 1);
  return rest;
}

}  // namespace sunbreak

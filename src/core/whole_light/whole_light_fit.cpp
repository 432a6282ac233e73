#include "core/whole_light/whole_light_fit.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/linear/products.h"
#include "core/whole_light/bounded_quadratic.h"

namespace sunbreak {
namespace {

constexpr double most_flux = 1e9;
/// Of more stations than this a lattice's every second, third … line is taken: a beam is smooth.
constexpr int enough_stations = 200;
/// Real beams are in no family: so much more the readings may lose than those of the family's own.
constexpr double beams_of_no_family = 1.2;
/// Beams are taken for round until the readings say otherwise: lobes to the sides that make this part of the whole
/// light together, or one of them alone, cost as much as a reading that is off by its standard deviation.
constexpr double usual_side_part = 0.15;
/// What the room's patches leave of an error at one station, relative.
constexpr double station_model_error = 0.0015;
/// Residuals beyond so many times the common scatter lose weight, and beyond the other are left out.
constexpr double doubtful = 2.5, odd = 6;
/// However well they agree, readings are not trusted beyond this part of what meters, places and the model's patches
/// allow: else what the model leaves out is bent into the height.
constexpr double least_scale = 0.1;

bool same_places(const Layout& a, const Layout& b) {
  return a.stations.size() == b.stations.size() &&
         std::equal(a.stations.begin(), a.stations.end(), b.stations.begin(),
                    [](const Station& p, const Station& q) { return p.x_m == q.x_m && p.y_m == q.y_m; });
}

double median_of(std::vector<double> values) {
  if (values.empty()) return 0;
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

}  // namespace

std::vector<int> fitted_stations(const Layout& layout) {
  std::vector<int> used;
  const auto count = static_cast<double>(layout.stations.size());
  const int stride = count > enough_stations ? static_cast<int>(std::ceil(std::sqrt(count / enough_stations))) : 1;
  for (std::size_t i = 0; i < layout.stations.size(); ++i) {
    const Station& s = layout.stations[i];
    if (layout.is_lattice() ? s.column % stride == stride / 2 && s.row % stride == stride / 2
                            : static_cast<int>(i) % (stride * stride) == 0)
      used.push_back(static_cast<int>(i));
  }
  return used;
}

std::vector<double> heights_of(const WholeLightQuestion& question) {
  std::vector<double> heights;
  for (const FitSweep& sweep : question.sweeps) heights.push_back(sweep.height_m);
  std::sort(heights.begin(), heights.end());
  heights.erase(std::unique(heights.begin(), heights.end()), heights.end());
  return heights;
}

WholeLightFit::WholeLightFit(const WholeLightQuestion& question, std::shared_ptr<const WholeLightModel> model,
                             int left_out)
    : question_(question), model_(std::move(model)), noise_(std::hypot(question.noise, station_model_error)) {
  std::vector<const Layout*> known;
  std::vector<std::vector<int>> used;
  for (std::size_t s = 0; s < question.sweeps.size(); ++s) {
    const FitSweep& sweep = question.sweeps[s];
    const auto& heights = model_->heights_m();
    const auto height =
        static_cast<std::size_t>(std::lower_bound(heights.begin(), heights.end(), sweep.height_m) - heights.begin());
    if (static_cast<int>(height) == left_out) continue;
    std::size_t layout = 0;
    while (layout < known.size() && !same_places(*known[layout], sweep.layout)) ++layout;
    if (layout == known.size()) {
      known.push_back(&sweep.layout);
      used.push_back(fitted_stations(sweep.layout));
      std::vector<Vec3> places;
      for (const int i : used.back()) {
        const Station& station = sweep.layout.stations[static_cast<std::size_t>(i)];
        places.push_back({station.x_m, station.y_m, 0});
      }
      layouts_.push_back(model_->places(std::move(places)));
    }
    std::size_t view = 0;
    while (view < views_.size() && !(views_[view].height == height && views_[view].layout == layout)) ++view;
    if (view == views_.size()) views_.push_back({height, layout});
    for (std::size_t k = 0; k < used[layout].size(); ++k) {
      const int station = used[layout][k];
      const double ppfd = sweep.ppfd[static_cast<std::size_t>(station)];
      if (std::isnan(ppfd) || ppfd <= 0) continue;
      rows_.push_back(
          {view, static_cast<Eigen::Index>(k), static_cast<int>(s), station, sweep.setting, ppfd, noise_ * ppfd, 1});
    }
  }
}

WholeLightFit::State WholeLightFit::state_at(const Eigen::VectorXd& values) const {
  State state;
  state.at.values = values;
  state.exchange = model_->room().exchange(model_->parameters().reflectance(values));
  for (const ModelPlaces& places : layouts_) state.reflections.push_back(state.exchange.reflections(places.gathering));
  for (const FitView& view : views_)
    state.lights.push_back(model_->light(layouts_[view.layout], state.reflections[view.layout],
                                         model_->parameters().hang(values, view.height), values));
  find_flux(state);
  state.cost = cost_of(state);
  return state;
}

/// The best mix at the state's parameters.
void WholeLightFit::find_flux(State& state) const {
  const auto count = static_cast<Eigen::Index>(rows_.size());
  Eigen::MatrixXd form = Eigen::MatrixXd::Zero(mixes, mixes), terms(mixes, count);
  Eigen::VectorXd wanted(count);
  for (Eigen::Index i = 0; i < count; ++i) {
    const FitRow& row = rows_[static_cast<std::size_t>(i)];
    const double weight = std::sqrt(row.trust) / (scale_ * row.sd);
    terms.col(i) = weight * model_->parameters().setting(state.at.values, row.setting) *
                   state.lights[row.view].by_lobe.row(row.place).transpose();
    wanted(i) = weight * row.ppfd;
  }
  add_square(terms, form);
  const Eigen::VectorXd pull = times(terms, wanted);
  form.diagonal() *= 1 + 1e-10;
  prefer_round(form);
  state.at.flux = bounded_minimum(form, pull, Eigen::VectorXd::Zero(mixes), Eigen::VectorXd::Constant(mixes, most_flux),
                                  Eigen::VectorXd::Zero(mixes));
}

void WholeLightFit::prefer_round(Eigen::MatrixXd& form) const {
  if (usual_flux_ <= 0) return;
  const double weight = 1 / std::pow(usual_side_part * usual_flux_, 2);
  const auto first = static_cast<Eigen::Index>(round_lobes), count = mixes - first;
  form.block(first, first, count, count).array() += weight;
  form.diagonal().segment(first, count).array() += weight;
}

void WholeLightFit::add_slopes(State& state) const {
  for (std::size_t v = 0; v < views_.size(); ++v)
    model_->add_slopes(state.lights[v], layouts_[views_[v].layout], state.reflections[views_[v].layout], state.exchange,
                       model_->parameters().hang(state.at.values, views_[v].height), static_cast<int>(views_[v].height),
                       state.at);
}

Eigen::VectorXd WholeLightFit::fitted(const State& state) const {
  std::vector<Eigen::VectorXd> light;
  for (const ModelLight& view : state.lights) light.push_back(times(view.by_lobe, state.at.flux));
  Eigen::VectorXd fitted(static_cast<Eigen::Index>(rows_.size()));
  for (std::size_t i = 0; i < rows_.size(); ++i)
    fitted(static_cast<Eigen::Index>(i)) =
        model_->parameters().setting(state.at.values, rows_[i].setting) * light[rows_[i].view](rows_[i].place);
  return fitted;
}

Eigen::VectorXd WholeLightFit::fitted() const { return fitted(last_); }

double WholeLightFit::cost_of(const State& state) const {
  const Eigen::VectorXd light = fitted(state);
  double cost = 0;
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    const double off = (rows_[i].ppfd - light(static_cast<Eigen::Index>(i))) / (scale_ * rows_[i].sd);
    cost += rows_[i].trust * off * off;
  }
  Eigen::MatrixXd form = Eigen::MatrixXd::Zero(model_->parameters().size(), model_->parameters().size());
  Eigen::VectorXd pull = Eigen::VectorXd::Zero(form.rows());
  add_beliefs(form, pull, 0);
  const Eigen::VectorXd off = state.at.values - model_->parameters().believed();
  const auto side = state.at.flux.tail(mixes - static_cast<Eigen::Index>(round_lobes));
  const double part = usual_side_part * usual_flux_;
  const double sideways = part > 0 ? (side.squaredNorm() + side.sum() * side.sum()) / (part * part) : 0;
  return cost + sideways + off.dot(times(form, off));
}

/// Each parameter about what is believed of it, and the walls about their mean.
void WholeLightFit::add_beliefs(Eigen::MatrixXd& form, Eigen::VectorXd& pull, Eigen::Index first) const {
  const FitParameters& parameters = model_->parameters();
  const Eigen::Index n = parameters.size();
  Eigen::MatrixXd beliefs = Eigen::MatrixXd::Zero(n, n);
  for (Eigen::Index k = 0; k < n; ++k) beliefs(k, k) = 1 / (parameters[k].sd * parameters[k].sd);
  std::vector<Eigen::Index> walls;
  for (int side = 0; side < 4; ++side)
    if (const Eigen::Index k = parameters.find(FitParameter::Kind::Side, side); k >= 0) walls.push_back(k);
  const double count = static_cast<double>(walls.size());
  for (const Eigen::Index wall : walls) {
    Eigen::VectorXd off_mean = Eigen::VectorXd::Zero(n);
    for (const Eigen::Index other : walls) off_mean(other) -= 1 / count;
    off_mean(wall) += 1;
    off_mean /= question_.walls_alike_sd;
    add_square(off_mean, beliefs);
  }
  form.block(first, first, n, n) += beliefs;
  pull.segment(first, n) += times(beliefs, parameters.believed());
}

/// How sure each reading is, by the light and its slopes there; then the common scatter and which stand off.
void WholeLightFit::weigh(const State& state) {
  const Eigen::Index x = model_->parameters().find(FitParameter::Kind::OffsetX),
                     y = model_->parameters().find(FitParameter::Kind::OffsetY);
  const Eigen::VectorXd light = fitted(state);
  std::vector<double> sizes;
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    FitRow& row = rows_[i];
    const auto& slopes = state.lights[row.view].by_parameter;
    const double factor = model_->parameters().setting(state.at.values, row.setting);
    const double slope = factor * std::hypot(slopes(row.place, x), slopes(row.place, y));
    // Where the fit is dark and the reading is not, the reading says how sure it can be.
    const double level = std::max(light(static_cast<Eigen::Index>(i)), 0.3 * row.ppfd);
    row.sd = std::hypot(noise_ * level, question_.place_m * slope);
    sizes.push_back(std::abs(row.ppfd - light(static_cast<Eigen::Index>(i))) / row.sd);
  }
  const double typical = std::max(1.4826 * median_of(sizes), 1e-6);
  double squares = 0, taken = 0;
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    const double off = sizes[i] / typical;
    rows_[i].trust = off > odd ? 0 : off > doubtful ? doubtful / off : 1;
    if (rows_[i].trust > 0) squares += rows_[i].trust * sizes[i] * sizes[i], taken += 1;
  }
  double unknowns = 3;
  for (const double flux : state.at.flux) unknowns += flux > 0;
  for (const auto kind : {FitParameter::Kind::Roll, FitParameter::Kind::Side, FitParameter::Kind::HeightShift})
    unknowns += model_->parameters().find(kind) >= 0;
  scale_ = std::max(least_scale, std::sqrt(squares / std::max(taken - unknowns, 0.3 * taken)));
}

void WholeLightFit::normal_equations(const State& state, Eigen::MatrixXd& form, Eigen::VectorXd& pull) const {
  const FitParameters& parameters = model_->parameters();
  const Eigen::Index n = mixes + parameters.size();
  const auto count = static_cast<Eigen::Index>(rows_.size());
  Eigen::MatrixXd terms(n, count);
  Eigen::VectorXd wanted(count);
  std::vector<Eigen::VectorXd> light;
  for (const ModelLight& view : state.lights) light.push_back(times(view.by_lobe, state.at.flux));
  for (Eigen::Index i = 0; i < count; ++i) {
    const FitRow& row = rows_[static_cast<std::size_t>(i)];
    const double weight = std::sqrt(row.trust) / (scale_ * row.sd);
    const double factor = parameters.setting(state.at.values, row.setting);
    const ModelLight& view = state.lights[row.view];
    auto own = terms.col(i);
    own.head(mixes) = factor * view.by_lobe.row(row.place).transpose();
    own.tail(parameters.size()) = factor * view.by_parameter.row(row.place).transpose();
    if (const Eigen::Index k = parameters.find(FitParameter::Kind::Setting, row.setting); k >= 0)
      own(mixes + k) = light[row.view](row.place);
    wanted(i) = weight * (row.ppfd + own.tail(parameters.size()).dot(state.at.values));
    own *= weight;
  }
  form.setZero(n, n);
  add_square(terms, form);
  pull = times(terms, wanted);
  add_beliefs(form, pull, mixes);
  form.diagonal() *= 1 + 1e-10;
  prefer_round(form);
}

bool WholeLightFit::run(const std::stop_token& stop) {
  if (rows_.size() < 6) return false;
  const FitParameters& parameters = model_->parameters();
  Eigen::VectorXd start = parameters.believed();
  // Settings begin with the ratio of the means at heights that both were walked at, or of all their readings.
  for (Eigen::Index k = 0; k < parameters.size(); ++k) {
    if (parameters[k].kind != FitParameter::Kind::Setting) continue;
    std::map<std::pair<std::size_t, Eigen::Index>, double> first;
    for (const FitRow& row : rows_)
      if (row.setting == 0) first[{row.view, row.place}] = row.ppfd;
    std::vector<double> ratios;
    for (const FitRow& row : rows_)
      if (row.setting == parameters[k].index)
        if (const auto at = first.find({row.view, row.place}); at != first.end())
          ratios.push_back(row.ppfd / at->second);
    if (!ratios.empty()) start(k) = median_of(ratios);
  }
  State best;
  for (const double shift : {0.0, -0.2, 0.15}) {
    Eigen::VectorXd values = start;
    for (Eigen::Index k = 0; k < parameters.size(); ++k)
      if (parameters[k].kind == FitParameter::Kind::Side && parameters[k].index < 4)
        values(k) = std::clamp(values(k) + shift, parameters[k].lower, parameters[k].upper);
    State state = state_at(values);
    if (best.lights.empty() || state.cost < best.cost) best = std::move(state);
    if (!model_->room().reflects()) break;
  }
  usual_flux_ = best.at.flux.sum();
  if (usual_flux_ <= 0) return false;
  find_flux(best);
  rounds(std::move(best), 12, stop);
  return true;
}

void WholeLightFit::run_from(const FitUnknowns& start, const std::stop_token& stop) {
  usual_flux_ = start.flux.sum();
  rounds(state_at(start.values), 4, stop);
}

void WholeLightFit::rounds(State state, int most, const std::stop_token& stop) {
  const FitParameters& parameters = model_->parameters();
  double reach = 1;
  for (int round = 0; round < most && !stop.stop_requested(); ++round) {
    add_slopes(state);
    weigh(state);
    state.cost = cost_of(state);
    Eigen::MatrixXd form;
    Eigen::VectorXd pull;
    normal_equations(state, form, pull);
    const Eigen::Index n = form.rows();
    State next;
    bool better = false;
    for (int attempt = 0; attempt < 4 && !better; ++attempt, reach /= 3) {
      Eigen::VectorXd lower = Eigen::VectorXd::Zero(n), upper = Eigen::VectorXd::Constant(n, most_flux);
      for (Eigen::Index k = 0; k < parameters.size(); ++k) {
        const double step = reach * parameters[k].step;
        lower(mixes + k) = std::max(parameters[k].lower, state.at.values(k) - step);
        upper(mixes + k) = std::min(parameters[k].upper, state.at.values(k) + step);
      }
      Eigen::VectorXd x(n);
      x << state.at.flux, state.at.values;
      x = bounded_minimum(form, pull, lower, upper, x);
      next = state_at(x.tail(parameters.size()));
      better = next.cost < state.cost + 1e-6;
    }
    if (!better) break;
    reach = std::min(1.0, 6 * reach);
    double moved = 0;
    for (Eigen::Index k = 0; k < parameters.size(); ++k)
      moved = std::max(moved, std::abs(next.at.values(k) - state.at.values(k)) / parameters[k].step);
    const double gained = state.cost - next.cost;
    state = std::move(next);
    if (round > 1 && moved < 0.02 && gained < 0.01 + 1e-4 * state.cost) break;
  }
  add_slopes(state);
  weigh(state);
  best_ = state.at;
  last_ = std::move(state);
}

double WholeLightFit::structure() const {
  // Ninths of each sweep: the mean of as many residuals of pure noise would have their variance over their number.
  constexpr int parts = 3;
  struct Part {
    double sum = 0;
    int count = 0;
  };
  const Eigen::VectorXd light = fitted();
  std::map<std::pair<int, int>, Part> all;
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    const FitRow& row = rows_[i];
    if (row.trust == 0) continue;
    const Layout& layout = question_.sweeps[static_cast<std::size_t>(row.sweep)].layout;
    const Station& s = layout.stations[static_cast<std::size_t>(row.station)];
    const auto part = [](double at, double length) {
      return std::clamp(static_cast<int>(parts * at / length), 0, parts - 1);
    };
    Part& p = all[{row.sweep, part(s.x_m, layout.footprint.width_m) * parts + part(s.y_m, layout.footprint.depth_m)}];
    p.sum += std::sqrt(row.trust) * (row.ppfd - light(static_cast<Eigen::Index>(i))) / (scale_ * row.sd);
    ++p.count;
  }
  double squares = 0;
  for (const auto& [at, part] : all) squares += part.sum * part.sum / part.count;
  return all.empty() ? 1 : squares / static_cast<double>(all.size());
}

FitForm WholeLightFit::form() const {
  FitForm known;
  known.best = best_;
  normal_equations(last_, known.form, known.pull);
  const FitParameters& parameters = model_->parameters();
  known.lower = Eigen::VectorXd::Zero(known.form.rows());
  known.upper = Eigen::VectorXd::Constant(known.form.rows(), most_flux);
  for (Eigen::Index k = 0; k < parameters.size(); ++k) {
    known.lower(mixes + k) = parameters[k].lower;
    known.upper(mixes + k) = parameters[k].upper;
  }
  known.reach2 = 4 * beams_of_no_family * std::max(1.0, structure());
  return known;
}

}  // namespace sunbreak

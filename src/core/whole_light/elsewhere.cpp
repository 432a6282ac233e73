#include "core/whole_light/elsewhere.h"

#include <algorithm>
#include <cmath>

#include "core/linear/products.h"
#include "core/whole_light/whole_light_model.h"

namespace sunbreak {
namespace {

constexpr double span_step = 0.01;
constexpr int rough_emitters = 6;  ///< along each side of a unit at most, for what sides send back

/// How closely what sides send back is looked at: the rule on their patches, and how many emitters light them.
enum class Look { Close, FewPlaces, FewPlacesAndEmitters };

}  // namespace

struct Elsewhere::Parts {
  std::shared_ptr<const WholeLightModel> model;
  LobeRoom room;
  LobeRoom::Exchange exchange;
  Layout layout;
  FacingPlaces facing;
  HungFixture rough_fixture;
  LobeRoom::Gathering gathering;
  Eigen::VectorXd weights;

  Parts(std::shared_ptr<const WholeLightModel> found, const Room& shape, Layout stations)
      : model(std::move(found)),
        room(shape),
        layout(std::move(stations)),
        rough_fixture(model->fixture().outline(), rough_emitters) {
    std::vector<Vec3> places;
    weights.resize(static_cast<Eigen::Index>(layout.stations.size()));
    for (std::size_t i = 0; i < layout.stations.size(); ++i) {
      const Station& s = layout.stations[i];
      places.push_back({s.x_m, s.y_m, 0});
      facing.add(places.back());
      weights(static_cast<Eigen::Index>(i)) = s.weight;
    }
    weights /= weights.sum();
    gathering = room.gathering(places);
    exchange = room.exchange(shape.reflectance);
  }

  /// The middles that a pattern hangs fixtures over.
  std::vector<Vec3> middles(const HangingPattern& p) const {
    std::vector<Vec3> all;
    for (int j = 0; j < p.rows; ++j)
      for (int i = 0; i < p.columns; ++i)
        all.push_back({room.shape().width_m / 2 + (i - (p.columns - 1) / 2.0) * p.column_spacing_m,
                       room.shape().depth_m / 2 + (j - (p.rows - 1) / 2.0) * p.row_spacing_m, 0});
    return all;
  }

  /// One unit number of all fixtures of a pattern as one list of sources.
  std::vector<LobeSource> sources(const HungFixture& fixture, const std::vector<Vec3>& middles, int unit,
                                  double height_m, double span) const {
    std::vector<LobeSource> all;
    Hang hang;
    hang.height_m = height_m;
    hang.span = span;
    for (const Vec3& middle : middles) {
      const auto one = fixture.unit(unit, hang, middle);
      all.insert(all.end(), one.begin(), one.end());
    }
    return all;
  }
  double span() const {
    const Eigen::Index k = model->parameters().find(FitParameter::Kind::Span);
    return k < 0 ? 1 : model->known.best.values(k);
  }
  Eigen::VectorXd of_mix(const std::vector<Vec3>& middles, double height_m, double span_now,
                         Look look = Look::Close) const {
    const LobeFlux mix = mix_of(model->known.best.flux);
    Eigen::VectorXd light = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(facing.size()));
    Eigen::VectorXd received = Eigen::VectorXd::Zero(room.fine_patches());
    const int units = model->fixture().units();
    for (int unit = 0; unit < units; ++unit) {
      const auto lamp = sources(model->fixture(), middles, unit, height_m, span_now);
      const double part = model->parameters().share(model->known.best.values, unit) / units;
      light += part * direct_of_mix(lamp, mix, facing);
      if (!room.reflects()) continue;
      const bool few = look == Look::FewPlacesAndEmitters;
      received += part * room.received(few ? sources(rough_fixture, middles, unit, height_m, span_now) : lamp, mix,
                                       look != Look::Close);
    }
    if (room.reflects()) light += exchange.reflected(gathering, received);
    return static_cast<double>(middles.size()) * light;
  }
  /// Light of the stations, each by its weight, for 1 µmol/s of each lobe and fixture: a column a column of weights.
  Eigen::MatrixXd weighed_by_lobe(const std::vector<Vec3>& middles, double height_m,
                                  const Eigen::MatrixXd& weighings) const {
    Eigen::MatrixXd received = Eigen::MatrixXd::Zero(room.fine_patches(), mixes);
    Eigen::MatrixXd light = Eigen::MatrixXd::Zero(mixes, weighings.cols());
    const int units = model->fixture().units();
    for (int unit = 0; unit < units; ++unit) {
      const auto lamp = sources(model->fixture(), middles, unit, height_m, span());
      const double part = model->parameters().share(model->known.best.values, unit) / units;
      const Eigen::MatrixXd by_lobe = direct_by_lobe(lamp, facing);
      for (Eigen::Index w = 0; w < light.cols(); ++w) light.col(w) += part * turned_times(by_lobe, weighings.col(w));
      received += part * room.received(lamp, true);
    }
    if (room.reflects()) {
      LobeRoom::Gathering weighed{Eigen::MatrixXd(weighings.cols(), gathering.coarse.cols()),
                                  Eigen::MatrixXd(weighings.cols(), gathering.fine.cols())};
      for (Eigen::Index w = 0; w < light.cols(); ++w) {
        weighed.coarse.row(w) = turned_times(gathering.coarse, weighings.col(w)).transpose();
        weighed.fine.row(w) = turned_times(gathering.fine, weighings.col(w)).transpose();
      }
      light += exchange.reflections(weighed).of(received).transpose();
    }
    return static_cast<double>(middles.size()) * light;
  }
};

Elsewhere::Elsewhere(const WholeLight& found, const Room& room, Layout stations)
    : parts_(std::make_unique<Parts>(found.model, room, std::move(stations))) {}
Elsewhere::~Elsewhere() = default;
Elsewhere::Elsewhere(Elsewhere&&) noexcept = default;

const Layout& Elsewhere::layout() const { return parts_->layout; }
const Room& Elsewhere::room() const { return parts_->room.shape(); }

std::vector<double> Elsewhere::ppfd_at(const HangingPattern& pattern, double height_m, double light_factor) const {
  const Eigen::VectorXd light = light_factor * parts_->of_mix(parts_->middles(pattern), height_m, parts_->span());
  return {light.begin(), light.end()};
}

std::vector<double> Elsewhere::rough_ppfd_at(const HangingPattern& pattern, double height_m) const {
  const Eigen::VectorXd light =
      parts_->of_mix(parts_->middles(pattern), height_m, parts_->span(), Look::FewPlacesAndEmitters);
  return {light.begin(), light.end()};
}

Restated Elsewhere::at(const HangingPattern& pattern, double height_m, double light_factor) const {
  const Parts& p = *parts_;
  const std::vector<Vec3> middles = p.middles(pattern);
  const Eigen::VectorXd light = light_factor * p.of_mix(middles, height_m, p.span());
  Restated r;
  r.ppfd.assign(light.begin(), light.end());
  r.lowest_ppfd = light.minCoeff();
  r.highest_ppfd = light.maxCoeff();
  r.mean_ppfd.value = p.weights.dot(light);
  // What beam, whole light and the emitters' extent do to the mean and to the dimmest station.
  Eigen::Index dimmest = 0;
  light.minCoeff(&dimmest);
  Eigen::MatrixXd weighings = Eigen::MatrixXd::Zero(light.size(), 2);
  weighings.col(0) = p.weights;
  weighings(dimmest, 1) = 1;
  Eigen::MatrixXd slopes = Eigen::MatrixXd::Zero(mixes + p.model->parameters().size(), 2);
  slopes.topRows(mixes) = light_factor * p.weighed_by_lobe(middles, height_m, weighings);
  if (const Eigen::Index k = p.model->parameters().find(FitParameter::Kind::Span); k >= 0) {
    const Eigen::VectorXd wider = p.of_mix(middles, height_m, p.span() + span_step, Look::FewPlaces);
    const Eigen::VectorXd as_is = p.of_mix(middles, height_m, p.span(), Look::FewPlaces);
    slopes.row(mixes + k) = light_factor / span_step * turned_times(weighings, wider - as_is).transpose();
  }
  const double mean = r.mean_ppfd.value, evenness = r.lowest_ppfd / mean;
  r.mean_ppfd.expanded = std::hypot(p.model->known.expanded(slopes.col(0)), model_error * mean);
  r.lowest_over_mean = {evenness, std::hypot(p.model->known.expanded((slopes.col(1) - evenness * slopes.col(0)) / mean),
                                             model_error * evenness)};
  return r;
}

}  // namespace sunbreak

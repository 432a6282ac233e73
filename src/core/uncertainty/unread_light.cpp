#include "core/uncertainty/unread_light.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/quantity/normal_deviates.h"

namespace sunbreak {
namespace {

constexpr std::size_t fewest_read = 4;
constexpr double beyond_the_walls = 1.4;  ///< the sines' box, in units of the footprint
constexpr int most_waves = 14;            ///< along the longer side
constexpr double least_likely = 1e-3;     ///< of ways that are kept
constexpr double open_level = 10;         ///< standard deviation of ln PPFD as a whole: nothing is known of it
constexpr double least_relative_sd = 0.002;
constexpr std::uint64_t field_seed = 20261202;

// In units of half the longer side; relative standard deviations; and what the parts that are no mirror image have of
// the variance of the one that is.
constexpr double roughnesses[] = {0.2, 0.35, 0.6, 1.0, 1.7}, strengths[] = {0.1, 0.3, 1, 3},
                 unlike_shares[] = {0.001, 0.01, 0.1, 1};

/// The field's sines at places of the footprint.
class Waves {
 public:
  explicit Waves(const Layout& layout)
      : middle_x_(layout.footprint.width_m / 2),
        middle_y_(layout.footprint.depth_m / 2),
        unit_(std::max(middle_x_, middle_y_)),
        box_x_(beyond_the_walls * middle_x_ / unit_),
        box_y_(beyond_the_walls * middle_y_ / unit_) {
    const auto along = [&](double box) {
      return std::max(3, static_cast<int>(std::ceil(most_waves * box / beyond_the_walls)));
    };
    for (int i = 1; i <= along(box_x_); ++i)
      for (int j = 1; j <= along(box_y_); ++j) waves_.push_back({i, j});
  }
  /// With the level, which is the last.
  Eigen::Index count() const { return static_cast<Eigen::Index>(waves_.size()) + 1; }

  void at(const Station& s, Eigen::Ref<Eigen::RowVectorXd> row) const {
    const double x = (s.x_m - middle_x_) / unit_ + box_x_, y = (s.y_m - middle_y_) / unit_ + box_y_;
    for (std::size_t k = 0; k < waves_.size(); ++k)
      row(static_cast<Eigen::Index>(k)) = std::sin(waves_[k].x * std::numbers::pi * x / (2 * box_x_)) *
                                          std::sin(waves_[k].y * std::numbers::pi * y / (2 * box_y_)) /
                                          std::sqrt(box_x_ * box_y_);
    row(count() - 1) = 1;
  }

  /// Standard deviations of the waves' weights: the spectrum of Matérn's field with ν = 5/2 in the plane.
  Eigen::VectorXd believed(double rough, double strength, double unlike) const {
    constexpr double nu = 2.5;
    Eigen::VectorXd sd(count());
    for (std::size_t k = 0; k < waves_.size(); ++k) {
      const double wx = waves_[k].x * std::numbers::pi / (2 * box_x_),
                   wy = waves_[k].y * std::numbers::pi / (2 * box_y_);
      const double density = 2 * std::numbers::pi * rough * rough *
                             std::pow(1 + (wx * wx + wy * wy) * rough * rough / (2 * nu), -(nu + 1));
      // Odd waves of a box about the middle are their own mirror images.
      const bool alike = waves_[k].x % 2 == 1 && waves_[k].y % 2 == 1;
      sd(static_cast<Eigen::Index>(k)) = strength * std::sqrt(density * (alike ? 1 : unlike));
    }
    sd(count() - 1) = open_level;
    return sd;
  }

 private:
  struct Wave {
    int x, y;
  };
  double middle_x_, middle_y_, unit_, box_x_, box_y_;
  std::vector<Wave> waves_;
};

}  // namespace

UnreadLight::UnreadLight(const Layout& layout, std::span<const double> ppfd, std::span<const double> relative_sd)
    : readings_(ppfd.begin(), ppfd.end()) {
  std::vector<std::size_t> read;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (std::isnan(ppfd[i])) unread_.push_back(i);
    if (ppfd[i] > 0) read.push_back(i);
  }
  if (unread_.empty() || read.size() < fewest_read) return;
  const Waves waves(layout);
  const auto rows_at = [&](const std::vector<std::size_t>& stations) {
    Eigen::MatrixXd rows(static_cast<Eigen::Index>(stations.size()), waves.count());
    for (std::size_t r = 0; r < stations.size(); ++r) {
      Eigen::RowVectorXd row(waves.count());
      waves.at(layout.stations[stations[r]], row);
      rows.row(static_cast<Eigen::Index>(r)) = row;
    }
    return rows;
  };
  Eigen::MatrixXd known = rows_at(read);
  const Eigen::MatrixXd sought = rows_at(unread_);
  Eigen::VectorXd light(known.rows());
  for (Eigen::Index r = 0; r < known.rows(); ++r) {
    const std::size_t i = read[static_cast<std::size_t>(r)];
    const double sd = std::max(relative_sd[i], least_relative_sd);
    light(r) = std::log(ppfd[i]) / sd;
    known.row(r) /= sd;
  }
  const Eigen::MatrixXd squares = known.transpose() * known;
  const Eigen::VectorXd products = known.transpose() * light;
  const double all = light.squaredNorm();
  deviates_ = static_cast<std::size_t>(waves.count());

  struct Weighed {
    double log_likelihood;
    Eigen::VectorXd believed;
  };
  std::vector<Weighed> weighed;
  const auto factored = [&](const Eigen::VectorXd& sd) {
    Eigen::MatrixXd a = sd.asDiagonal() * squares * sd.asDiagonal();
    a.diagonal().array() += 1;
    return Eigen::LLT<Eigen::MatrixXd>(std::move(a));
  };
  for (const double rough : roughnesses)
    for (const double strength : strengths)
      for (const double unlike : unlike_shares) {
        Eigen::VectorXd sd = waves.believed(rough, strength, unlike);
        const Eigen::LLT<Eigen::MatrixXd> factor = factored(sd);
        const Eigen::VectorXd right = sd.cwiseProduct(products);
        const double determinant = 2 * factor.matrixLLT().diagonal().array().log().sum();
        weighed.push_back({-(all - right.dot(factor.solve(right)) + determinant) / 2, std::move(sd)});
      }
  const double best = std::ranges::max_element(weighed, {}, &Weighed::log_likelihood)->log_likelihood;
  double sum = 0;
  for (const Weighed& w : weighed)
    if (const double share = std::exp(w.log_likelihood - best); share > least_likely) {
      const Eigen::LLT<Eigen::MatrixXd> factor = factored(w.believed);
      const Eigen::VectorXd weights =
          w.believed.cwiseProduct(factor.solve(Eigen::VectorXd(w.believed.cwiseProduct(products))));
      // Weights scatter as sd · L⁻ᵀ z, so the field at a row φ as (L⁻¹ (sd φᵀ))ᵀ z.
      const Eigen::MatrixXd spread =
          factor.matrixL().solve(Eigen::MatrixXd(w.believed.asDiagonal() * sought.transpose()));
      const Eigen::VectorXd middle = sought * weights;
      Way way{share, {middle.begin(), middle.end()}, std::vector<double>(unread_.size() * deviates_)};
      for (std::size_t u = 0; u < unread_.size(); ++u)
        for (std::size_t d = 0; d < deviates_; ++d)
          way.spread[u * deviates_ + d] = spread(static_cast<Eigen::Index>(d), static_cast<Eigen::Index>(u));
      sum += share;
      ways_.push_back(std::move(way));
    }
  for (Way& way : ways_) way.share /= sum;
}

std::vector<double> UnreadLight::filled() const {
  std::vector<double> light = readings_;
  for (std::size_t u = 0; u < unread_.size() && exists(); ++u) {
    double log = 0;
    for (const Way& way : ways_) log += way.share * way.middle[u];
    light[unread_[u]] = std::exp(log);
  }
  return light;
}

std::vector<double> UnreadLight::drawn(int n) const {
  std::vector<double> light = readings_;
  if (!exists()) return light;
  // Ways come up as often as they are likely, whatever the number of draws.
  double at = std::fmod((n + 0.5) * std::numbers::phi, 1.0);
  const Way* way = &ways_.back();
  for (const Way& w : ways_) {
    if (at < w.share) {
      way = &w;
      break;
    }
    at -= w.share;
  }
  NormalDeviates normal(field_seed + static_cast<std::uint64_t>(n));
  std::vector<double> deviates(deviates_);
  for (double& d : deviates) d = normal();
  for (std::size_t u = 0; u < unread_.size(); ++u) {
    double log = way->middle[u];
    for (std::size_t d = 0; d < deviates_; ++d) log += way->spread[u * deviates_ + d] * deviates[d];
    light[unread_[u]] = std::exp(log);
  }
  return light;
}

}  // namespace sunbreak

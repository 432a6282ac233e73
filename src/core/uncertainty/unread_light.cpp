#include "core/uncertainty/unread_light.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/quantity/normal_deviates.h"

namespace sunbreak {
namespace {

/// Of more readings every so many are taken: what they tell of a smooth field is told by these.
constexpr std::size_t fewest_read = 4, most_read = 1000;
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

/// The field's sines at places of the footprint: of each along one side times each along the other, and a level.
class Waves {
 public:
  explicit Waves(const Layout& layout)
      : middle_x_(layout.footprint.width_m / 2),
        middle_y_(layout.footprint.depth_m / 2),
        unit_(std::max(middle_x_, middle_y_)),
        box_x_(beyond_the_walls * middle_x_ / unit_),
        box_y_(beyond_the_walls * middle_y_ / unit_),
        across_(along(box_x_)),
        deep_(along(box_y_)) {}
  /// With the level, which is the last.
  Eigen::Index count() const { return across_ * deep_ + 1; }

  Eigen::VectorXd at(const Station& s) const {
    const Eigen::VectorXd x = sines(s.x_m - middle_x_, box_x_, across_), y = sines(s.y_m - middle_y_, box_y_, deep_);
    Eigen::VectorXd row(count());
    for (Eigen::Index i = 0; i < across_; ++i) row.segment(i * deep_, deep_) = x(i) * y;
    row(count() - 1) = 1;
    return row;
  }

  /// Standard deviations of the waves' weights: the spectrum of Matérn's field with ν = 5/2 in the plane.
  Eigen::VectorXd believed(double rough, double strength, double unlike) const {
    constexpr double nu = 2.5;
    Eigen::VectorXd sd(count());
    for (Eigen::Index i = 0; i < across_; ++i)
      for (Eigen::Index j = 0; j < deep_; ++j) {
        const double wx = static_cast<double>(i + 1) * std::numbers::pi / (2 * box_x_),
                     wy = static_cast<double>(j + 1) * std::numbers::pi / (2 * box_y_);
        const double density = 2 * std::numbers::pi * rough * rough *
                               std::pow(1 + (wx * wx + wy * wy) * rough * rough / (2 * nu), -(nu + 1));
        // Odd waves of a box about the middle are their own mirror images.
        const bool alike = i % 2 == 0 && j % 2 == 0;
        sd(i * deep_ + j) = strength * std::sqrt(density * (alike ? 1 : unlike));
      }
    sd(count() - 1) = open_level;
    return sd;
  }

 private:
  static Eigen::Index along(double box) {
    return std::max<Eigen::Index>(3, static_cast<Eigen::Index>(std::ceil(most_waves * box / beyond_the_walls)));
  }
  Eigen::VectorXd sines(double off_m, double box, Eigen::Index waves) const {
    Eigen::VectorXd values(waves);
    const double phase = std::numbers::pi * (off_m / unit_ + box) / (2 * box);
    for (Eigen::Index i = 0; i < waves; ++i) values(i) = std::sin(static_cast<double>(i + 1) * phase) / std::sqrt(box);
    return values;
  }

  double middle_x_, middle_y_, unit_, box_x_, box_y_;
  Eigen::Index across_, deep_;
};

/// One way of how rough, strong and symmetric the field is: its sines' weights, and what turns as many normal deviates
/// into how these are off.
struct Way {
  double share = 0;  ///< of its likelihood among all
  Eigen::VectorXd weights;
  Eigen::MatrixXd spread;
};

}  // namespace

struct UnreadLight::Field {
  explicit Field(const Layout& layout) : waves(layout) {}
  /// The readings, with the field of some weights where none are.
  std::vector<double> with(std::vector<double> light, const Eigen::VectorXd& weights) const {
    for (const auto& [at, station] : unread) light[at] = std::exp(waves.at(station).dot(weights));
    return light;
  }

  Waves waves;
  std::vector<std::pair<std::size_t, Station>> unread;
  std::vector<Way> ways;
};

UnreadLight::UnreadLight(const Layout& layout, std::span<const double> ppfd, std::span<const double> relative_sd)
    : readings_(ppfd.begin(), ppfd.end()) {
  auto field = std::make_shared<Field>(layout);
  std::vector<std::size_t> read;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (std::isnan(ppfd[i])) field->unread.emplace_back(i, layout.stations[i]);
    if (ppfd[i] > 0) read.push_back(i);
  }
  if (field->unread.empty() || read.size() < fewest_read) return;
  const Waves& waves = field->waves;
  Eigen::MatrixXd squares = Eigen::MatrixXd::Zero(waves.count(), waves.count());
  Eigen::VectorXd products = Eigen::VectorXd::Zero(waves.count());
  double all = 0;
  for (std::size_t n = 0, step = (read.size() + most_read - 1) / most_read; n < read.size(); n += step) {
    const double sd = std::max(relative_sd[read[n]], least_relative_sd), log = std::log(ppfd[read[n]]) / sd;
    const Eigen::VectorXd row = waves.at(layout.stations[read[n]]) / sd;
    squares.selfadjointView<Eigen::Lower>().rankUpdate(row);
    products += log * row;
    all += log * log;
  }

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
  for (const Weighed& w : weighed) {
    const double share = std::exp(w.log_likelihood - best);
    if (!(share > least_likely)) continue;
    const Eigen::LLT<Eigen::MatrixXd> factor = factored(w.believed);
    const Eigen::VectorXd right = w.believed.cwiseProduct(products);
    // Weights scatter as sd · L⁻ᵀ z.
    Eigen::MatrixXd spread = Eigen::MatrixXd::Identity(waves.count(), waves.count());
    factor.matrixU().solveInPlace(spread);
    field->ways.push_back({share, w.believed.cwiseProduct(factor.solve(right)), w.believed.asDiagonal() * spread});
    sum += share;
  }
  for (Way& way : field->ways) way.share /= sum;
  field_ = std::move(field);
}

std::vector<double> UnreadLight::filled() const {
  if (!exists()) return readings_;
  Eigen::VectorXd middle = Eigen::VectorXd::Zero(field_->waves.count());
  for (const Way& way : field_->ways) middle += way.share * way.weights;
  return field_->with(readings_, middle);
}

std::vector<double> UnreadLight::drawn(int n) const {
  if (!exists()) return readings_;
  // Ways come up as often as they are likely, whatever the number of draws.
  double at = std::fmod((n + 0.5) * std::numbers::phi, 1.0);
  const Way* way = &field_->ways.back();
  for (const Way& w : field_->ways) {
    if (at < w.share) {
      way = &w;
      break;
    }
    at -= w.share;
  }
  NormalDeviates normal(field_seed + static_cast<std::uint64_t>(n));
  Eigen::VectorXd deviates(field_->waves.count());
  for (double& d : deviates) d = normal();
  return field_->with(readings_, way->weights + way->spread * deviates);
}

}  // namespace sunbreak

#pragma once

#include <Eigen/Core>
#include <memory>
#include <stop_token>
#include <vector>

#include "core/whole_light/whole_light_model.h"

namespace sunbreak {

/// One reading as the fit takes it.
struct FitRow {
  std::size_t view = 0;  ///< which light of FitViews it is part of
  Eigen::Index place = 0;
  int sweep = 0, station = 0, setting = 0;
  double ppfd = 0;
  double sd = 0;     ///< [µmol m⁻² s⁻¹]
  double trust = 1;  ///< 1 where it agrees, less where it stands off, 0 where it is left out
};

/// The places of one layout as they are lit at one height: sweeps at other settings share it.
struct FitView {
  std::size_t height = 0, layout = 0;
};

/// The readings of a question, sorted for the fit, and the rounds that find the unknowns.
class WholeLightFit {
 public:
  /// `left_out`: index of a height whose readings are not looked at.
  WholeLightFit(const WholeLightQuestion& question, std::shared_ptr<const WholeLightModel> model, int left_out = -1);

  /// Finds the unknowns; false where the readings leave nothing to find. Where `stop` asks for an end it ends soon, and
  /// what is found means nothing.
  bool run(const std::stop_token& stop = {});
  /// The same again from unknowns found before, in few rounds.
  void run_from(const FitUnknowns& start, const std::stop_token& stop = {});

  const FitUnknowns& best() const { return best_; }
  const std::vector<FitRow>& rows() const { return rows_; }
  const std::vector<FitView>& views() const { return views_; }
  const std::vector<ModelPlaces>& layouts() const { return layouts_; }
  /// Light of the best mix at the reading's place and setting [µmol m⁻² s⁻¹].
  Eigen::VectorXd fitted() const;
  /// What is left of all residuals and beliefs, and the scatter of single readings beside their stated uncertainty.
  double cost() const { return last_.cost; }
  double scale() const { return scale_; }
  /// How much larger the residuals of whole regions are than those of single readings, as variances; 1 for pure noise.
  double structure() const;
  /// What is known of the unknowns now.
  FitForm form() const;

 private:
  struct State {
    FitUnknowns at;
    LobeRoom::Exchange exchange;
    std::vector<LobeRoom::Reflections> reflections;  ///< one a layout
    std::vector<ModelLight> lights;                  ///< one a view
    double cost = 0;
  };
  State state_at(const Eigen::VectorXd& values) const;
  void find_flux(State& state) const;
  void add_slopes(State& state) const;
  double cost_of(const State& state) const;
  Eigen::VectorXd fitted(const State& state) const;
  void weigh(const State& state);
  void normal_equations(const State& state, Eigen::MatrixXd& form, Eigen::VectorXd& pull) const;
  void prefer_round(Eigen::MatrixXd& form) const;
  void add_beliefs(Eigen::MatrixXd& form, Eigen::VectorXd& pull, Eigen::Index first) const;
  void rounds(State state, int most, const std::stop_token& stop);

  const WholeLightQuestion& question_;
  std::shared_ptr<const WholeLightModel> model_;
  std::vector<FitRow> rows_;
  std::vector<FitView> views_;
  std::vector<ModelPlaces> layouts_;
  double noise_ = 0, scale_ = 1;
  double usual_flux_ = 0;  ///< of the first fit, to measure parts of it by
  FitUnknowns best_;
  State last_;
};

/// Which of a layout's stations the fit looks at: of very many a lattice's every second, third … line.
std::vector<int> fitted_stations(const Layout& layout);

/// The heights of a question's sweeps, lowest first, each once.
std::vector<double> heights_of(const WholeLightQuestion& question);

}  // namespace sunbreak

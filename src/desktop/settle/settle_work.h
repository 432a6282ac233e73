#pragma once

#include <QObject>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"
#include "evaluation/settle_field.h"

namespace sunbreak::desktop {

/// What is worked out for Settle of the test on the desk: the field, height by height, the answers on it, and the point
/// under the hand. Everything that takes time is done on another thread.
class SettleWork : public QObject {
  Q_OBJECT
 public:
  explicit SettleWork(Desk& desk, QObject* parent = nullptr);

  /// The answers to one request on one field, and the chances over that field, setting by setting of each height.
  struct Answers {
    SettleRequest request;
    std::shared_ptr<const SettleMaps> maps;
    SettleAnswers best;
    std::optional<SettlePoint> likely;  ///< fewest watts for an even chance
    std::vector<float> chances;         ///< empty where the rule asks too much for all of the field
  };

  /// While the stage is in sight the field follows the test.
  void set_in_sight(bool in_sight);
  /// Takes the test, its target and what is asked as they are now.
  void follow();

  /// Null where whole light is not known yet, or nothing is read.
  const evaluation::TestLight* light() const { return desk_.worked_out().light(); }
  /// Null until the first heights are there.
  const std::shared_ptr<const SettleMaps>& maps() const { return maps_; }
  bool filling() const { return filling_; }
  /// Why there is no field.
  const std::optional<Problem>& problem() const { return problem_; }
  const SettleRequest& request() const { return request_; }
  /// Null until they are worked out.
  const std::shared_ptr<const Answers>& answers() const { return answers_; }

  /// What the tester asks, as it is on record; changed by an edit.
  record::Settling settling() const;
  bool change(const std::function<void(record::Settling&)>& alter);

  /// A band that is looked at while it is dragged, in place of the test's; none ends it.
  void try_band(const std::optional<Band>& band);
  bool trying() const { return tried_.has_value(); }

  /// The way of running it that is looked at; nothing without a field.
  const std::optional<SettlePoint>& point() const { return point_; }
  void stand_at(double height_m, double percent);
  void stand_on(const SettlePoint& point);
  /// So many heights and settings of the field further on.
  void step(int heights, int settings);

 signals:
  void field_changed();  ///< heights, or what is asked of them
  void answered();
  void moved();

 private:
  void make_field();
  void take_field(std::shared_ptr<const SettleMaps> maps, bool all);
  void ask();
  void look_again();

  Desk& desk_;
  bool in_sight_ = false, filling_ = false, stood_ = false;
  const evaluation::TestLight* made_for_ = nullptr;
  std::shared_ptr<const evaluation::Evaluation> evaluation_;  ///< keeps that alive
  record::Settling made_of_;                                  ///< its area alone counts
  UnitSystem made_in_ = UnitSystem::Metric;
  std::pair<record::Id, record::Id> shown_;  ///< test and configuration
  record::Id rung_id_ = 0, stop_id_ = 0;
  int generation_ = 0;
  std::shared_ptr<const SettleMaps> maps_;
  std::optional<Problem> problem_;
  SettleRequest request_;
  std::shared_ptr<const Answers> answers_;
  std::optional<Band> tried_;
  std::optional<SettlePoint> point_;
  double height_m_ = 0, percent_ = 0;  ///< where one stands
  Background making_, asking_;
};

}  // namespace sunbreak::desktop

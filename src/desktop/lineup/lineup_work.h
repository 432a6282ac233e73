#pragma once

#include <QObject>
#include <QTimer>
#include <atomic>
#include <memory>

#include "desktop/desk/desk.h"
#include "gathering/line_up_request.h"
#include "gathering/line_up_work.h"
#include "gathering/members.h"

namespace sunbreak::desktop {

/// A line-up as it was worked out. Never changes.
struct ShownLineUp {
  record::SavedLineUp asked;
  gathering::ReadyLineUp ready;
  std::shared_ptr<const evaluation::LineUp> lineup;  ///< of those that the filter lets through
  int left_out = 0;                                  ///< by hand
  int all = 0;                                       ///< entrants there are
  std::vector<gathering::RefusedGuest> refused;
  std::optional<Problem> problem;  ///< why there is no line-up
};

/// The line-up that a screen shows, worked out on another thread as it is asked for.
class LineUpWork : public QObject {
  Q_OBJECT
 public:
  explicit LineUpWork(Desk& desk, QObject* parent = nullptr);
  ~LineUpWork() override;

  void set_in_sight(bool in_sight);
  const record::SavedLineUp& asked() const { return asked_; }
  void ask(record::SavedLineUp asked);
  /// Works it out anew: guests' folders are looked through again.
  void look_again();
  void cancel();
  /// Whether it was stopped before it was worked out; then go_on() takes it up again.
  bool stopped() const { return stopped_; }
  void go_on();

  /// The latest; null until there is one.
  const std::shared_ptr<const ShownLineUp>& shown() const { return shown_; }
  bool working() const { return background_.working(); }
  gathering::Filling filling() const { return {done_->load(), of_->load()}; }

 signals:
  void changed();
  void progressed();

 private:
  void follow();

  Desk& desk_;
  bool in_sight_ = false, stale_ = true, stopped_ = false;
  UnitSystem units_ = UnitSystem::Metric;  ///< that it was asked for in
  record::SavedLineUp asked_;
  std::shared_ptr<const ShownLineUp> shown_;
  std::shared_ptr<gathering::EntryStore> store_ = std::make_shared<gathering::EntryStore>();
  /// Guests as they were read last, kept while their places on record are the same.
  struct KnownGuests {
    std::vector<std::filesystem::path> places;
    gathering::Guests guests;
  };
  std::shared_ptr<const KnownGuests> guests_;
  std::shared_ptr<std::atomic<int>> done_ = std::make_shared<std::atomic<int>>(0),
                                    of_ = std::make_shared<std::atomic<int>>(0);
  QTimer tick_;
  Background background_;
};

/// What a member left out by hand is known by.
std::string lineup_key(const evaluation::Entrant& entrant);

}  // namespace sunbreak::desktop

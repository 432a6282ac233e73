#include "desktop/rig/rig_advice.h"

#include <fmt/format.h>

#include <QFutureWatcher>
#include <QtConcurrent>
#include <algorithm>

#include "core/checks/between_sweeps.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/height_for_center.h"
#include "desktop/shell/room_lights.h"
#include "desktop/widgets/text.h"
#include "evaluation/rig_model.h"

namespace sunbreak::desktop {
namespace {
constexpr double tolerance = 0.01, lowest_tried_m = 0.05, clearance_m = 0.1;
constexpr int rest_ms = 500;

/// Runs `work` on another thread and hands its result to `done` on this one, unless `owner` is gone by then.
template <typename Work, typename Done>
void beside(QObject* owner, Work work, Done done) {
  using Answer = std::invoke_result_t<Work>;
  auto* watcher = new QFutureWatcher<Answer>(owner);
  QObject::connect(watcher, &QFutureWatcher<Answer>::finished, owner, [watcher, done] {
    watcher->deleteLater();
    done(watcher->result());
  });
  watcher->setFuture(QtConcurrent::run(work));
}

}  // namespace

std::optional<double> claimed_ppf(const record::TestRecord& test) {
  std::optional<double> ppf, watts, efficacy;
  for (const record::Claim& c : test.claims) {
    if (c.kind == "ppf_umol_s") ppf = c.value;
    if (c.kind == "power_w") watts = c.value;
    if (c.kind == "efficacy_umol_j") efficacy = c.value;
  }
  if (ppf) return ppf;
  if (watts && efficacy) return *watts * *efficacy;
  return {};
}

RigAdvice::RigAdvice(Desk& desk, QObject* parent) : QObject(parent), desk_(desk) {
  rest_.setSingleShot(true);
  rest_.setInterval(rest_ms);
  connect(&rest_, &QTimer::timeout, this, &RigAdvice::ask);
}

void RigAdvice::refresh() { rest_.start(); }

void RigAdvice::ask() {
  const record::TestRecord* test = desk_.test();
  if (!test || test->rungs.empty()) return;
  const Room room = evaluation::room_of(test->bench);
  const FixtureOutline o = evaluation::outline_of(test->fixture, test->bench);
  const double height_m = std::min(test->rungs.back().height_m, room.height_m - 0.01);
  const auto& w = room.reflectance;
  const std::string question =
      fmt::format("{} {} {} {} {} {} {} {} {} {} {} {} {} {} {} {}", room.width_m, room.depth_m, room.height_m, w.left,
                  w.right, w.front, w.back, o.width_m, o.depth_m, o.units, o.unit_spacing_m, o.unit_tilt_deg, o.across,
                  o.deep, o.beam_angle_deg, height_m);
  if (question == asked_) return;
  asked_ = question;
  needed_.reset();
  emit changed();
  beside(
      this,
      [=] {
        const auto hung = placed(nominal_fixture(o), {room.width_m / 2, room.depth_m / 2, height_m});
        return stations_for_mean(*light_of(room), hung, tolerance);
      },
      [this, question](const StationsNeeded& answer) {
        if (question != asked_) return;
        needed_ = answer;
        emit changed();
      });
}

QString RigAdvice::stations_words() const {
  const record::TestRecord* test = desk_.test();
  if (!test || test->rungs.empty()) return {};
  if (!needed_) return tr("Working out how many stations the mean needs…");
  const QString height = text_of(length_text(test->rungs.back().height_m, desk_.units()));
  QString words = tr("By the model, %1 × %2 stations give the mean to 1 % at %3, the lowest height.")
                      .arg(needed_->columns)
                      .arg(needed_->rows)
                      .arg(height);
  const Grid grid = record::grid_of(test->test);
  if (grid.kind != GridKind::Spots && (grid.columns < needed_->columns || grid.rows < needed_->rows))
    words += tr(" The grid of %1 × %2 is coarser than that.").arg(grid.columns).arg(grid.rows);
  return words;
}

QString RigAdvice::height_words() const {
  const record::TestRecord* test = desk_.test();
  if (!test || test->rungs.empty()) return {};
  const auto check = too_close_check(test->rungs.back().height_m, test->fixture.emitter_spacing_m);
  return check ? text_of(check->saw + ": " + check->effect + "; " + check->remedy + ".") : QString();
}

void RigAdvice::find_height(double ppfd, double ppf_umol_s) {
  const record::TestRecord* test = desk_.test();
  if (!test) return;
  const Room room = evaluation::room_of(test->bench);
  std::vector<Emitter> fixture = nominal_fixture(evaluation::outline_of(test->fixture, test->bench));
  for (Emitter& e : fixture) e.ppf_umol_s *= ppf_umol_s;
  beside(
      this,
      [=] { return height_for_center(*light_of(room), fixture, ppfd, lowest_tried_m, room.height_m - clearance_m); },
      [this, ppfd](const std::optional<double>& height_m) {
        if (height_m)
          emit height_found(*height_m, ppfd);
        else
          emit no_height(ppfd);
      });
}

}  // namespace sunbreak::desktop

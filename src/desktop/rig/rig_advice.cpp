#include "desktop/rig/rig_advice.h"

#include <algorithm>

#include "core/checks/between_sweeps.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/height_for_center.h"
#include "core/optics/room_lights.h"
#include "desktop/widgets/text.h"
#include "evaluation/rig_model.h"

namespace sunbreak::desktop {
namespace {
constexpr double tolerance = 0.01, lowest_tried_m = 0.05, clearance_m = 0.1;
constexpr int rest_ms = 500;

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

RigAdvice::RigAdvice(Desk& desk, QObject* parent) : QObject(parent), desk_(desk), stations_(this), height_(this) {
  rest_.setSingleShot(true);
  rest_.setInterval(rest_ms);
  connect(&rest_, &QTimer::timeout, this, &RigAdvice::ask);
}

void RigAdvice::refresh() { rest_.start(); }

void RigAdvice::ask() {
  const record::TestRecord* test = desk_.test();
  if (!test || test->rungs.empty()) return;
  const Room room = evaluation::room_of(test->bench);
  const FixtureOutline o = evaluation::outline_of(*test);
  const double height_m = std::min(test->rungs.back().height_m, room.height_m - 0.01);
  const Question question{room, o, height_m};
  if (question == asked_) return;
  asked_ = question;
  needed_.reset();
  emit changed();
  stations_.ask(
      [question](auto) {
        const auto& [within, outline, height] = question;
        const auto hung = placed(nominal_fixture(outline), {within.width_m / 2, within.depth_m / 2, height});
        return stations_for_mean(*light_of(within), hung, tolerance);
      },
      [this](const StationsNeeded& answer) {
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
  const auto check = too_close_check(test->rungs.back().height_m, test->fixture.emitter_spacing_m, desk_.units());
  return check ? text_of(check->saw + ": " + check->effect + "; " + check->remedy + ".") : QString();
}

void RigAdvice::find_height(double ppfd, double ppf_umol_s) {
  const record::TestRecord* test = desk_.test();
  if (!test) return;
  const Room room = evaluation::room_of(test->bench);
  std::vector<Emitter> fixture = nominal_fixture(evaluation::outline_of(*test));
  for (Emitter& e : fixture) e.ppf_umol_s *= ppf_umol_s;
  const auto asked_of = desk_.shown();
  height_.ask(
      [=](auto) {
        return height_for_center(*light_of(room), fixture, ppfd, lowest_tried_m, room.height_m - clearance_m);
      },
      [this, ppfd, asked_of](const std::optional<double>& height_m) {
        // Another test may have come onto the desk meanwhile: the height is not its.
        if (!desk_.test() || desk_.shown() != asked_of) return;
        if (height_m)
          emit height_found(*height_m, ppfd);
        else
          emit no_height(ppfd);
      });
}

}  // namespace sunbreak::desktop

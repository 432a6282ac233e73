#include "desktop/home/test_summaries.h"

#include <QPainter>
#include <algorithm>

#include "book/test_rows.h"
#include "core/figures/figure_table.h"
#include "desktop/desk/desk.h"
#include "desktop/paint/map_painter.h"
#include "desktop/widgets/text.h"
#include "drawing/light_scale.h"
#include "evaluation/configurations.h"
#include "evaluation/part_read.h"
#include "evaluation/told_figures.h"

namespace sunbreak::desktop {

using record::Id;

namespace {

constexpr double widest_px = 180, highest_px = 102;

/// The sweep with most readings; 0 where none has any.
Id fullest_of(const evaluation::Evaluation& evaluation) {
  Id fullest = 0;
  int most = 0;
  for (const auto& [id, view] : evaluation.views())
    if (view->read() > most) fullest = id, most = view->read();
  return fullest;
}

QString evenness_of(const evaluation::Evaluation& evaluation, Id sweep_id) {
  const evaluation::SweepView* view = evaluation.view(sweep_id);
  const SweepFigures* f = view ? evaluation.figures(sweep_id) : nullptr;
  if (!f) return {};
  const Figure& lead = figure(evaluation.record().test.evenness_lead);
  if (evaluation::is_read_in_part(evaluation, sweep_id)) {
    const std::string_view ids[] = {lead.id};
    const auto told = evaluation::told_figures(evaluation, sweep_id, ids, UnitSystem::Metric);
    return text_of(told.empty() ? evaluation::part_read_words(evaluation, sweep_id)
                                : told.front().label + " " + told.front().value_with_unit());
  }
  const double value = lead.value(FigureSource(view->layout, view->ppfd, *f));
  return text_of(std::string(lead.label) + " " + shown_with_unit(lead, value, UnitSystem::Metric));
}

/// A sweep's map, on the scale of all sweeps.
QImage thumbnail_of(const evaluation::Evaluation& evaluation, Id sweep_id, const Theme& look) {
  const evaluation::SweepView* fullest = evaluation.view(sweep_id);
  if (!fullest) return {};
  const Footprint fp = fullest->layout.footprint;
  const double scale = std::min(widest_px / fp.width_m, highest_px / fp.depth_m);
  QImage image(QSize(static_cast<int>(fp.width_m * scale * 2), static_cast<int>(fp.depth_m * scale * 2)),
               QImage::Format_ARGB32_Premultiplied);
  image.setDevicePixelRatio(2);
  image.fill(look.ground);
  QPainter p(&image);
  MapScene scene;
  scene.view = fullest;
  scene.bench = &evaluation.record().bench;
  scene.scale.range = drawing::round_range(evaluation.light_range()->first, evaluation.light_range()->second);
  scene.numbers = scene.rulers = false;
  paint_map(p, fit_map(QRectF(0, 0, fp.width_m * scale, fp.depth_m * scale), fp, false), scene);
  return image;
}

std::optional<TestSummary> summary_of(const std::filesystem::path& book, Id test_id, const Theme& look) {
  std::optional<record::TestRecord> record;
  try {
    record = book::load_test(*book::Book::read_beside(book), test_id);
  } catch (const std::exception&) {
    // The window that shows the book says what is wrong with it; a card without a summary says nothing false.
  }
  if (!record) return {};
  TestSummary s;
  s.test = record->test;
  const auto evaluations = evaluation::evaluate_all(*record);
  for (const auto& evaluation : evaluations) {
    s.planned += evaluation->record().planned_sweeps();
    for (const auto& [id, view] : evaluation->views()) {
      if (record->sweep(id)->confirms) continue;
      s.read += view->read();
      s.complete += view->complete();
    }
    for (const record::Sweep& sweep : evaluation->record().sweeps) s.apart += record->apart(sweep.id) != nullptr;
  }
  s.grade = evaluation::weakest_grade(evaluations);
  const evaluation::Evaluation& shown = *evaluations.front();
  const Id fullest = fullest_of(shown);
  s.thumbnail = thumbnail_of(shown, fullest, look);
  s.evenness = evenness_of(shown, fullest);
  s.look = look.look;
  return s;
}

}  // namespace

TestSummaries::TestSummaries(Desk& desk, QObject* parent) : QObject(parent), desk_(desk), background_(this) {
  connect(&desk, &Desk::book_changed, this, &TestSummaries::follow);
}

const TestSummary* TestSummaries::of(Id test_id) const {
  const auto found = known_.find(test_id);
  return found == known_.end() ? nullptr : &found->second.summary;
}

bool TestSummaries::knows(Id test_id) const {
  const auto found = known_.find(test_id);
  return found != known_.end() && !found->second.stale && found->second.summary.look == theme().look;
}

void TestSummaries::follow(const book::Change& change) {
  for (auto& [id, kept] : known_) {
    const record::Test& test = kept.summary.test;
    const auto shows = [&](const book::Change::Row& row) {
      const std::string_view kind = row.kind->name();
      return (kind == "fixture" && row.id == test.fixture_id) || (kind == "bench" && row.id == test.bench_id) ||
             (kind == "meter" && (row.id == test.sensor_id || row.id == test.wall_meter_id)) ||
             (kind == "check_reading" && test.sensor_id);  // whether its sensor has moved
    };
    if (change.tests.contains(id) || std::ranges::any_of(change.rows, shows)) kept.stale = true;
  }
}

void TestSummaries::want(const std::vector<Id>& tests) {
  wanted_.clear();
  std::ranges::copy_if(tests, std::back_inserter(wanted_), [&](Id id) { return !knows(id); });
  background_.drop();
  go_on();
}

void TestSummaries::go_on() {
  if (background_.working() || wanted_.empty()) return;
  const Id id = wanted_.front();
  wanted_.pop_front();
  background_.ask([book = desk_.book().file(), id, look = theme()](auto) { return summary_of(book, id, look); },
                  [this, id](std::optional<TestSummary> summary) {
                    if (summary)
                      known_[id] = {std::move(*summary), false};
                    else
                      known_.erase(id);
                    emit summarized(id);
                    go_on();
                  });
}

}  // namespace sunbreak::desktop

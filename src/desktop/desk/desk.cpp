#include "desktop/desk/desk.h"

#include <QSettings>
#include <QTimer>
#include <algorithm>
#include <cmath>

#include "book/test_rows.h"
#include "book/trouble.h"
#include "core/bench/walk_order.h"
#include "core/sweep/field.h"
#include "desktop/widgets/text.h"
#include "record/configurations.h"

namespace sunbreak::desktop {

using record::Id;

namespace {
constexpr int most_readings_at_once = 700, worth_a_word_ms = 200;
}

Desk::Desk(std::unique_ptr<book::Book> book, QObject* parent)
    : QObject(parent), book_(std::move(book)), edits_(*this), worked_out_(new WorkedOut(*this)), reading_(this) {
  units_ = QSettings().value("units").toString() == "imperial" ? UnitSystem::Imperial : UnitSystem::Metric;
  book_->on_change = [this](const book::Change& change) { take(change); };
}

Desk::~Desk() { book_->on_change = nullptr; }

void Desk::set_units(UnitSystem units) {
  units_ = units;
  QSettings().setValue("units", units == UnitSystem::Imperial ? "imperial" : "metric");
  const book::Change nothing;
  worked_out_->follow(&nothing);
  emit changed();
}

/// Takes a change of the lab book in, reading of the test on the desk only what it touched.
void Desk::take(const book::Change& change) {
  if (test_ && !book::refresh_test(own_test(), *book_, change)) test_.reset();
  look();
  worked_out_->follow(&change);
  emit book_changed(change);
  emit changed();
}

/// The test, to be changed: a copy where another thread has it.
record::TestRecord& Desk::own_test() {
  if (test_.use_count() > 1) test_ = std::make_shared<record::TestRecord>(*test_);
  return *test_;
}

void Desk::open_test(std::optional<Id> id, const std::function<void()>& then) { open(id, 0, then); }

void Desk::choose_configuration(Id configuration_id, const std::function<void()>& then) {
  if (!test_ || test_->configuration_id == configuration_id) return;
  emit leaving_sweep();
  open(test_->test.id, configuration_id, then);
}

void Desk::step_configuration(int by) {
  if (!test_ || test_->configurations.empty()) return;
  const std::vector<Id> ids = record::configurations_of(*test_);
  const auto at = std::ranges::find(ids, test_->configuration_id) - ids.begin();
  const auto count = std::ssize(ids);
  choose_configuration(ids[static_cast<std::size_t>((at + by + count) % count)]);
}

void Desk::open(std::optional<Id> id, Id configuration_id, const std::function<void()>& then) {
  reading_.drop();
  if (id && book::readings_of(*book_, *id) > most_readings_at_once) return read_beside(*id, configuration_id, then);
  std::optional<record::TestRecord> loaded;
  try {
    if (id) loaded = book::load_test(*book_, *id);
    if (loaded) record::keep_configuration(*loaded, configuration_id);
  } catch (const std::exception& e) {
    return warn(text_of(book::trouble_with(book_->file(), e).sentence()));
  }
  put_down(loaded ? std::make_shared<record::TestRecord>(std::move(*loaded)) : nullptr, nullptr);
  if (then) then();
}

void Desk::read_beside(Id id, Id configuration_id, const std::function<void()>& then) {
  struct Read {
    std::shared_ptr<record::TestRecord> test;
    std::shared_ptr<const evaluation::Evaluation> evaluation;
    std::string problem;
  };
  QTimer::singleShot(worth_a_word_ms, this, [this] {
    if (reading_.working()) say(tr("Opening the test…"));
  });
  reading_.ask(
      [file = book_->file(), id, configuration_id, units = units_](auto) {
        Read read;
        try {
          if (auto loaded = book::load_test(*book::Book::read_beside(file), id)) {
            record::keep_configuration(*loaded, configuration_id);
            read.test = std::make_shared<record::TestRecord>(std::move(*loaded));
            read.evaluation = evaluation::evaluate(*read.test, std::make_shared<const evaluation::WallLog>(), units);
          }
        } catch (const std::exception& e) {
          read.problem = book::trouble_with(file, e).sentence();
        }
        return read;
      },
      [this, id, configuration_id, then, revision = book_->revision(), units = units_](const Read& read) {
        if (!read.problem.empty()) return warn(text_of(read.problem));
        if (revision != book_->revision() || units != units_) return read_beside(id, configuration_id, then);
        put_down(read.test, read.evaluation);
        if (then) then();
      });
}

void Desk::put_down(std::shared_ptr<record::TestRecord> test,
                    std::shared_ptr<const evaluation::Evaluation> evaluation) {
  test_ = std::move(test);
  rung_id_ = stop_id_ = 0;
  worked_out_->follow(nullptr, std::move(evaluation));
  if (test_) {
    for (const record::Rung& rung : test_->rungs)
      for (const record::Stop& stop : test_->stops) {
        if (rung_id_) break;
        if (!test_->planned(rung, stop)) continue;
        const record::Sweep* sweep = test_->sweep(rung.id, stop.id);
        if (const evaluation::SweepDigest* digest = sweep ? digest_of(sweep->id) : nullptr; digest && digest->complete)
          continue;
        rung_id_ = rung.id, stop_id_ = stop.id;
      }
  }
  look();
  worked_out_->look_at_chosen();
  emit changed();
}

void Desk::take_log_part(const record::LogPart& part) {
  if (!test_ || part.test_id != test_->test.id) return;
  auto& parts = own_test().log_parts;
  const auto present = std::ranges::find(parts, part.id, &record::LogPart::id);
  if (present == parts.end())
    parts.push_back(part);
  else
    *present = part;
}

const record::Rung* Desk::rung() const { return test_ ? test_->rung(rung_id_) : nullptr; }
const record::Stop* Desk::stop() const { return test_ ? test_->stop(stop_id_) : nullptr; }
const record::Sweep* Desk::sweep() const { return test_ ? test_->sweep(rung_id_, stop_id_) : nullptr; }

void Desk::choose(Id rung_id, Id stop_id) {
  if (std::pair(rung_id, stop_id) != std::pair(rung_id_, stop_id_)) emit leaving_sweep();
  rung_id_ = rung_id, stop_id_ = stop_id;
  between_m_.reset();
  between_percent_.reset();
  look();
  worked_out_->look_at_chosen();
  emit changed();
}

void Desk::offer_between(bool offered) {
  between_offered_ = offered;
  if (!offered && between_m_) stand_between({});
}

void Desk::stand_between(std::optional<double> height_m, std::optional<double> percent) {
  if (height_m && !between_offered_) return;
  between_m_ = height_m;
  between_percent_.reset();
  if (height_m) between_percent_ = percent ? percent : stop() ? std::optional(stop()->percent) : std::nullopt;
  if (!between_percent_) between_m_.reset();
  emit changed();
}

void Desk::choose_fullest() {
  if (!test_) return;
  int most = 0;
  std::pair<Id, Id> fullest{rung_id_, stop_id_};
  for (const record::Rung& rung : test_->rungs)
    for (const record::Stop& stop : test_->stops) {
      const record::Sweep* candidate = test_->sweep(rung.id, stop.id);
      const evaluation::SweepDigest* digest = candidate ? digest_of(candidate->id) : nullptr;
      if (!digest || digest->read <= most) continue;
      most = digest->read;
      fullest = {rung.id, stop.id};
    }
  choose(fullest.first, fullest.second);
}

namespace {
/// The id `by` places further on in a list, stopping at its ends.
template <typename Step>
Id stepped(const std::vector<Step>& steps, Id id, int by) {
  if (steps.empty()) return 0;
  const auto found = std::find_if(steps.begin(), steps.end(), [&](const Step& s) { return s.id == id; });
  const auto at = std::clamp<std::ptrdiff_t>(found - steps.begin() + by, 0, std::ssize(steps) - 1);
  return steps[static_cast<std::size_t>(at)].id;
}
}  // namespace

void Desk::step_rung(int by) {
  if (test_) choose(stepped(test_->rungs, rung_id_, by), stop_id_);
}

void Desk::step_stop(int by) {
  if (test_) choose(rung_id_, stepped(test_->stops, stop_id_, by));
}

bool Desk::step_by_arrow(int key) {
  switch (key) {
    case Qt::Key_Up:
      step_rung(-1);
      return true;
    case Qt::Key_Down:
      step_rung(1);
      return true;
    case Qt::Key_Left:
      step_stop(-1);
      return true;
    case Qt::Key_Right:
      step_stop(1);
      return true;
    default:
      return false;
  }
}

std::optional<Band> Desk::band() const {
  if (!test_ || test_->test.target_high_ppfd <= test_->test.target_low_ppfd) return {};
  return Band{test_->test.target_low_ppfd, test_->test.target_high_ppfd};
}

/// Finds what the choice comes to in the test as it is now.
void Desk::look() {
  if (!test_) {
    planned_.reset();
    walk_.clear();
    walk_key_.reset();
    return;
  }
  if (!test_->rung(rung_id_)) rung_id_ = test_->rungs.empty() ? 0 : test_->rungs.front().id;
  if (!test_->stop(stop_id_)) stop_id_ = test_->stops.empty() ? 0 : test_->stops.front().id;
  const record::Sweep* chosen = sweep();
  if (chosen && test_->apart(chosen->id)) chosen = nullptr;  // shown as a sweep of which nothing can be said
  WalkKey key{chosen ? record::grid_of(*chosen) : record::grid_of(test_->test), record::footprint_of(test_->bench),
              test_->test.walk_order, test_->test.opening_probe};
  if (key == walk_key_ && planned_.has_value() == !chosen) return;
  planned_.reset();
  walk_.clear();
  walk_key_ = std::move(key);
  auto layout = lay_out(walk_key_->footprint, walk_key_->grid);
  if (!layout) return;
  walk_ = evaluation::walk_of(test_->test, layout.value());
  if (chosen) return;
  const std::size_t count = layout.value().stations.size();
  planned_ = evaluation::SweepView{std::move(layout.value()),
                                   std::vector<evaluation::StationState>(count),
                                   std::vector<double>(count, unread),
                                   {},
                                   {}};
}

const evaluation::SweepView* Desk::view() const {
  if (const record::Sweep* chosen = sweep(); chosen && !test_->apart(chosen->id)) return view_of(chosen->id);
  return planned_ ? &*planned_ : nullptr;
}

const evaluation::SweepView* Desk::view_of(Id sweep_id) const {
  const auto& evaluation = worked_out_->evaluation();
  return evaluation ? evaluation->view(sweep_id) : nullptr;
}

const evaluation::SweepDigest* Desk::digest_of(Id sweep_id) const {
  const auto& evaluation = worked_out_->evaluation();
  return evaluation ? evaluation->digest(sweep_id) : nullptr;
}

const SweepFigures* Desk::figures() const {
  const auto& evaluation = worked_out_->evaluation();
  return evaluation && sweep() ? evaluation->figures(sweep()->id) : nullptr;
}

drawing::ScaleRange Desk::scale() const {
  const auto& evaluation = worked_out_->evaluation();
  const auto range = evaluation ? evaluation->light_range() : std::nullopt;
  return range ? drawing::round_range(range->first, range->second) : drawing::round_range(INFINITY, -INFINITY);
}

SweepOnWalk Desk::sweep_on_walk() const {
  const evaluation::SweepView& v = *view();
  on_walk_.clear();
  for (const evaluation::StationState& s : v.states)
    on_walk_.push_back({s.kind == evaluation::StationState::Read      ? StationOnWalk::Read
                        : s.kind == evaluation::StationState::Missing ? StationOnWalk::Missing
                                                                      : StationOnWalk::Untouched,
                        s.at_the_bench, s.taken_s});
  SweepOnWalk walked{v.layout, walk_, on_walk_, test_->test.reference_every};
  for (const record::SideReading& s : v.side_readings)
    if (s.purpose == "reference")
      walked.reference_taken_s = std::max(walked.reference_taken_s, record::seconds_of(s.taken_at));
  return walked;
}

}  // namespace sunbreak::desktop

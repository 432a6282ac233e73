#include "desktop/lineup/lineup_work.h"

#include <fmt/format.h>

#include <algorithm>

#include "book/target_shelf.h"

namespace sunbreak::desktop {
namespace {

constexpr int progress_every_ms = 120;

bool is_left_out(const std::string& list, const evaluation::Entrant& entrant) {
  return list.find("\n" + lineup_key(entrant) + "\n") != std::string::npos;
}

}  // namespace

std::string lineup_key(const evaluation::Entrant& e) {
  return e.guest.empty() ? fmt::format("{}/{}", e.test_id, e.configuration_id)
                         : fmt::format("{}/{}", e.guest, e.configuration_id);
}

LineUpWork::LineUpWork(Desk& desk, QObject* parent) : QObject(parent), desk_(desk), background_(this) {
  const auto saved = desk_.book().all<record::SavedLineUp>("WHERE removed = 0 ORDER BY id DESC LIMIT 1");
  if (!saved.empty()) asked_ = saved.front();
  connect(&desk_, &Desk::book_changed, this, [this](const book::Change& change) {
    if (!change.tests.empty() || !change.shelves.empty()) stale_ = true;
  });
  connect(&desk_, &Desk::changed, this, &LineUpWork::follow);
  tick_.setInterval(progress_every_ms);
  connect(&tick_, &QTimer::timeout, this, &LineUpWork::progressed);
}

LineUpWork::~LineUpWork() { background_.drop(); }

void LineUpWork::set_in_sight(bool in_sight) {
  in_sight_ = in_sight;
  if (in_sight) follow();
}

void LineUpWork::ask(record::SavedLineUp asked) {
  if (asked == asked_ && !stale_ && shown_) return;
  asked_ = std::move(asked);
  stale_ = true;
  follow();
}

void LineUpWork::look_again() {
  guests_.reset();
  stale_ = true;
  follow();
}

void LineUpWork::cancel() {
  if (!background_.working()) return;
  background_.drop();
  tick_.stop();
  stopped_ = true;
  emit changed();
}

void LineUpWork::go_on() {
  desk_.say({});  // what stopped it is past, or is told anew
  stale_ = true;
  follow();
}

void LineUpWork::follow() {
  const UnitSystem units = desk_.units();
  if (!in_sight_ || (!stale_ && units_ == units)) return;
  stale_ = stopped_ = false, units_ = units;
  std::vector<std::filesystem::path> places;
  for (const record::Guest& g : desk_.book().all<record::Guest>()) places.emplace_back(g.path);
  if (guests_ && guests_->places != places) guests_.reset();
  struct Answer {
    std::shared_ptr<const ShownLineUp> shown;
    std::shared_ptr<const KnownGuests> guests;
  };
  done_->store(0), of_->store(0);
  tick_.start();
  background_.ask(
      [asked = asked_, file = desk_.book().file(), known = guests_, places = std::move(places), store = store_,
       done = done_, of = of_, units](std::stop_token stop) mutable -> Answer {
        auto shown = std::make_shared<ShownLineUp>();
        shown->asked = asked;
        const auto book = book::Book::read_beside(file);
        std::vector<evaluation::Entrant> entrants = gathering::entrants_of(*book);
        if (!known)
          known = std::make_shared<const KnownGuests>(KnownGuests{places, gathering::guests_from(places, stop)});
        // Which of them are the lab book's own changes with it.
        gathering::Guests guests = known->guests;
        gathering::leave_out_own(guests, *book);
        for (const auto& one : guests.tests)
          for (const auto& e : one.entrants) entrants.push_back(e);
        shown->refused = guests.refused;
        shown->all = static_cast<int>(entrants.size());
        const auto filter = evaluation::EntrantFilter::parse(asked.filter);
        auto ready = gathering::ready_line_up(asked, entrants, book::crop_targets(*book));
        if (!filter || !ready) {
          shown->problem = !ready ? ready.problem() : filter.problem();
          return {shown, known};
        }
        shown->ready = std::move(ready.value());
        std::erase_if(entrants, [&](const evaluation::Entrant& e) {
          const bool out = is_left_out(asked.left_out, e);
          shown->left_out += out;
          return out || !filter.value().may_let(e);
        });
        const auto entries =
            gathering::fill_entries(entrants, shown->ready.question, file, *store, units, stop,
                                    [&](const gathering::Filling& f) { done->store(f.done), of->store(f.of); });
        if (stop.stop_requested()) return {};
        std::vector<evaluation::LineUpMember> members;
        for (std::size_t i = 0; i < entrants.size(); ++i)
          if (entries[i] && filter.value().lets(entrants[i], entries[i].get()))
            members.push_back({std::move(entrants[i]), entries[i]});
        auto lineup = std::make_shared<evaluation::LineUp>(std::move(members), shown->ready.terms, units);
        lineup->dominated();
        shown->lineup = std::move(lineup);
        return {shown, known};
      },
      [this](Answer answer) {
        tick_.stop();
        if (!answer.shown) return;
        shown_ = std::move(answer.shown), guests_ = std::move(answer.guests);
        emit changed();
      },
      [this] {
        tick_.stop();
        stopped_ = true;
        emit changed();
      });
  emit changed();
}

}  // namespace sunbreak::desktop

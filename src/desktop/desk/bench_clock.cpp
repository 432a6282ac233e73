#include "desktop/desk/bench_clock.h"

#include <algorithm>
#include <chrono>

#include "book/book.h"

namespace sunbreak::desktop {

BenchClock::BenchClock() : from_real_s_(real_s()), from_s_(from_real_s_) {}

double BenchClock::real_s() {
  return std::chrono::duration<double>(std::chrono::system_clock::now().time_since_epoch()).count();
}

double BenchClock::now_s() const { return from_s_ + (real_s() - from_real_s_) * speed_; }

std::string BenchClock::utc_text() const { return record::utc_text(now_s()); }

void BenchClock::run_at(double speed) {
  from_s_ = now_s();
  from_real_s_ = real_s();
  speed_ = std::clamp(speed, 1.0, 10'000.0);
}

void BenchClock::back_to_now() { from_s_ = from_real_s_ = real_s(); }

void BenchClock::not_before(double time_s) {
  const double now = now_s();
  if (time_s > now) from_s_ += time_s - now;
}

}  // namespace sunbreak::desktop

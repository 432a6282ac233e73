#include "book/log_edits.h"

#include "evaluation/lux_walk.h"
#include "record/configurations.h"

#include <algorithm>

namespace sunbreak::book {

using namespace evaluation;

LogPart empty_part(const TestRecord& test, const std::string& source) {
  LogPart part;
  part.configuration_id = configuration_of(test);
  part.test_id = test.test.id;
  part.source = source;
  const Correction correction = live_correction(test);
  part.dark_offset = correction.dark_offset;
  part.calibration_factor = correction.calibration_factor;
  return part;
}

void take_log(Book& book, const TestRecord& test, const exchange::LogDraft& draft, const std::string& origin,
              double begins_s) {
  constexpr std::size_t a_part = 86400;
  book.edit("bring in a log", [&](Edit& edit) {
    std::vector<LogSample> samples = draft.samples;
    if (!draft.dated && !samples.empty()) {
      const double shift = begins_s - samples.front().time_s;
      for (LogSample& s : samples) s.time_s += shift;
    }
    for (std::size_t from = 0; from < samples.size(); from += a_part) {
      const std::span some(samples.data() + from, std::min(a_part, samples.size() - from));
      LogPart part = empty_part(test, "file");
      part.origin = origin;
      part.count = static_cast<int>(some.size());
      part.samples = pack_samples(some);
      edit.add(part);
    }
  });
}

LogRecorder::LogRecorder(Book& book, const TestRecord& test, const std::string& source)
    : book_(book), part_(empty_part(test, source)) {}

void LogRecorder::keep() {
  if (!has_news()) return;
  LogPart next = part_;
  next.count = static_cast<int>(samples_.size());
  next.samples = pack_samples(samples_);
  book_.keep(next);
  part_ = next;
}

}  // namespace sunbreak::book

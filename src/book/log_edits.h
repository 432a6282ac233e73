#pragma once

#include <string>

#include "book/book.h"
#include "evaluation/wall_log.h"
#include "exchange/tables/log_table.h"

namespace sunbreak::book {

/// Brings a logger's table into a test as one undoable edit. Times without a date count from `begins_s` (since 1970).
void take_log(Book& book, const TestRecord& test, const exchange::LogDraft& draft, const std::string& origin,
              double begins_s);

/// A log part being recorded. It is not an edit: recording is not undone step by step, and what was recorded stays.
class LogRecorder {
 public:
  /// Begins a part of a test's log with the sensor's correction; nothing is written before the first keep().
  LogRecorder(Book& book, const TestRecord& test, const std::string& source);

  void add(const record::LogSample& sample) { samples_.push_back(sample); }
  bool has_news() const { return static_cast<int>(samples_.size()) != part_.count; }
  /// Full parts are closed, so that one is never rewritten at length: time to begin another.
  bool full() const { return samples_.size() >= 3600; }

  /// Writes what has come since; it is on disk when this returns. Throws where it cannot be written.
  void keep();
  const LogPart& part() const { return part_; }
  const std::vector<record::LogSample>& samples() const { return samples_; }

 private:
  Book& book_;
  LogPart part_;
  std::vector<record::LogSample> samples_;
};

/// The sensor's correction that a part of the log is kept with.
LogPart empty_part(const TestRecord& test, const std::string& source);

}  // namespace sunbreak::book

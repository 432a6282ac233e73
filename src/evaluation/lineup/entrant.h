#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "evaluation/lineup/lineup_entry.h"

namespace sunbreak::evaluation {

/// Who stands in a line-up: a test in one configuration, told by what is on record of it without its readings.
struct Entrant {
  Id test_id = 0, configuration_id = 0;  ///< in the lab book; 0 for a guest's test
  std::string guest;                     ///< the package it comes from; empty for the lab book's own
  std::string content;                   ///< by which kept entries are found again; empty where none may be kept
  std::string title;                     ///< of the test, with the configuration where it has several
  std::string tester, tested_on;
  std::string fixture, maker, kind, obtained;
  std::string bench, walls, sensor;
  std::string facts;  ///< emitters, and what is known of the box in words: "cooling: passive"
  std::string currency;
  std::optional<double> cost;  ///< price less discount, with shipping
  std::optional<double> claimed_w;
  double width_m = 0, depth_m = 0;       ///< of the bench
  std::vector<double> walked_heights_m;  ///< planned, at least
  std::string target_name;
  Band target;  ///< of the test
  double photoperiod_h = 12;
  bool simulated = false;
  std::string altered;          ///< as the test has it
  std::string mark, retest_of;  ///< by which retests know each other
  std::string serial;
};

/// What an entrant is told by, of a record with or without its readings, in the configuration it is narrowed to.
Entrant entrant_of(const TestRecord& record);

/// A condition on entrants: words that all have to be found in what is told of them, and bounds in words such as
/// "price<200", "watts>=100", "size<=0.4", "year=2026", "guest", "own", "simulated", "grade>=working" of those whose
/// entry is known. A Problem names the word that cannot be read.
class EntrantFilter {
 public:
  static Result<EntrantFilter> parse(const std::string& text);
  bool lets(const Entrant& entrant, const LineUpEntry* entry) const;
  /// Whether it may let an entrant through whose entry is not known yet.
  bool may_let(const Entrant& entrant) const;
  bool empty() const { return words_.empty() && bounds_.empty(); }

 private:
  bool words_found(const Entrant& entrant) const;
  struct Bound {
    std::string what;
    enum { Less, AtMost, Equal, AtLeast, More } how;
    double number = 0;
    bool holds(double value) const;
  };
  std::vector<std::string> words_;
  std::vector<Bound> bounds_;
};

}  // namespace sunbreak::evaluation

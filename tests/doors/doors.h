#pragma once

#include <functional>
#include <map>
#include <random>
#include <span>
#include <string>

#include "doors/whole_record.h"
#include "exchange/package/data_package.h"

/// A trial of every door: packages, tables, logs, stairs, scenes and lab books that hold what cannot be, what is
/// implausible, what is at a boundary, and what is sound; each is read, evaluated, printed and imported.
namespace sunbreak::doors {

using Random = std::mt19937_64;

enum class Outcome {
  RefusedWithPlace,     ///< and what had to be refused
  Taken,                ///< and what may be taken
  SetApart,             ///< a lab book whose figures leave it out
  RefusedWithoutPlace,  ///< falls short: nobody can tell what to mend
  RefusedSound,         ///< falls short: nothing was wrong with it
  TookImpossible        ///< falls short: a figure may come of it
};

struct Case {
  std::string family, what;
  Outcome outcome = Outcome::Taken;
};

/// What a case tries, as a file would hold it.
struct Input {
  std::string ending;  ///< .zip, .csv, .log.csv, .json or .sunbreak
  std::string bytes;
};
/// Where it is set, it is given the input of every case.
inline std::function<void(const Input&)> also_try;

/// One mutation of a package: a numeric cell, a relation, columns or rows.
Case try_package(const exchange::Archive& sound, Random& random);

/// One garbled table of readings, log, stair or scene. That it ends is all that is asked: what is taken from a damaged
/// table is the importers' own trial.
Case try_text(Random& random);

/// One lab book harmed by its bytes or by an impossible value behind the application's back.
Case try_book(const std::string& sound_file, const std::string& scratch_folder, Random& random);

/// Cases by family and outcome.
struct Tally {
  std::map<std::string, std::map<Outcome, int>> families;
  std::map<std::string, int> died;  ///< crashed or hung
  std::string shortcomings;         ///< the first few, in words

  void add(const Case& c);
  bool falls_short() const;
  void print() const;
};

/// Runs cases in processes of their own, a few hundred in each, so that one that dies is counted and named.
/// `run(random)` makes one case; each has ten seconds.
void run_cases(Tally& tally, const std::string& name, int cases, std::uint64_t seed, Case (*run)(Random&));

/// One part of a trial.
struct Part {
  const char* name;
  int cases;
  std::uint64_t seed;  ///< of the first; the others count on from it
  Case (*run)(Random&);
};

/// Runs the parts of a trial and prints what came of them. With a part's name as the first argument only that one; with
/// a seed as the second that case alone, in this process. The exit status: 1 where it falls short.
int run_trial(std::span<const Part> parts, int argc, char** argv);

/// The three parts of the trial.
Case package_case(Random& random);
Case text_case(Random& random);
Case book_case(Random& random);

}  // namespace sunbreak::doors

#pragma once

#include <optional>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "core/limits/light_limits.h"
#include "core/result.h"
#include "core/sweep/correction.h"
#include "record/kinds/description.h"

namespace sunbreak::record {

struct TestRecord;

/// Rows of a lab book that are not as they were written, by their kind and id.
using DamagedRows = std::set<std::pair<std::string_view, Id>>;

/// Something in a record that cannot be: a value out of its range or words, or a relation that does not hold. Told by
/// its place.
struct Fault {
  std::string table;     ///< the kind
  std::size_t row = 0;   ///< from 1, in the table's order
  std::string column;    ///< empty: the row as a whole, which is not as it was written
  std::string value;     ///< as it stands there
  std::string expected;  ///< in words
  Id sweep_id = 0;       ///< the sweep whose figures it would enter; 0: none, or all of them
  bool of_all = false;   ///< it would enter every sweep's figures

  /// "reading, row 3, column raw: '1e9'; expected −1000 to 20000 umol/m2/s"
  std::string words() const;
  bool operator==(const Fault&) const = default;
};

/// What a reading as its meter shows it would be once corrected, where no light is so; nothing where it may be.
std::optional<Fault> light_fault(double raw, const Correction& correction);

inline constexpr std::size_t faults_told = 50;

/// Two centuries about ours: 1900 to 2100 [s since 1970, UTC].
inline constexpr double first_moment_s = -2208988800, last_moment_s = 4102444800;

/// What a column may hold, in words; empty where anything will do.
std::string allowed_words(const Column& column);

/// Whether a column may hold a value: finite and in its range, one of its words, a date or a moment of two centuries
/// about ours where it is one. Nothing where it may; else what is expected, in words.
std::optional<std::string> value_fault(const Column& column, const Value& value);

/// The first impossible value of one row; nothing where there is none. The row's number is 0.
std::optional<Fault> row_fault(const Kind& kind, const void* row);

/// Everything in a test's record that cannot be: values, ids that stand twice, references to what
/// is not there, two placements of one station, placements of another sweep's or station's reading, stations beyond
/// their grid, grids that cannot be laid out, light out of bounds once corrected. Beyond `most`, one more for each
/// sweep that is not named yet. Costs a pass over all rows.
std::vector<Fault> faults_of(const TestRecord& record, std::size_t most = faults_told);

/// Finds the faults of a record read from a lab book, `damaged` rows among them, and sees to it that none enters what
/// is worked out: sweeps are set apart (TestRecord::apart), and rows of no sweep that hold one are left out of this
/// copy of the record, with what names them.
void set_apart(TestRecord& record, const DamagedRows& damaged = {});

/// What a door says of them: how many there are, and the first few by their place.
Problem refusal(const std::vector<Fault>& faults, const std::string& what);

/// A row that was to be written and may not be: it holds an impossible value.
class ImpossibleRow : public std::exception {
 public:
  explicit ImpossibleRow(const Fault& fault);
  const char* what() const noexcept override { return sentence_.c_str(); }

 private:
  std::string sentence_;
};

}  // namespace sunbreak::record

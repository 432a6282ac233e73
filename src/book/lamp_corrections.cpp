#include "book/lamp_corrections.h"

#include <algorithm>

#include "evaluation/check_lamps.h"

namespace sunbreak::book {
namespace {

constexpr double lamp_day_s = 86'400;

std::vector<Sweep> uncorrected(const Book& book, const Test& test) {
  return book.all<Sweep>("WHERE test_id = ? AND moved_factor = 1 ORDER BY id", test.id);
}

}  // namespace

std::vector<Test> tests_since(const Book& book, const LampFinding& finding) {
  std::vector<Test> since;
  for (const Test& test : book.all<Test>("WHERE removed = 0 AND sensor_id IS NOT NULL ORDER BY id")) {
    const auto sensor = book.find<Meter>(*test.sensor_id);
    if (sensor && sensor->name == finding.who && evaluation::tested_at_s(test) >= finding.since_day * lamp_day_s &&
        !uncorrected(book, test).empty())
      since.push_back(test);
  }
  return since;
}

void correct_by_lamp(Edit& edit, const Book& book, const Test& test, const DriftCorrection& correction) {
  for (Sweep sweep : uncorrected(book, test)) {
    sweep.moved_factor = correction.factor;
    sweep.moved_uncertainty_pct = 100 * correction.standard_uncertainty;
    edit.save(sweep);
  }
}

}  // namespace sunbreak::book

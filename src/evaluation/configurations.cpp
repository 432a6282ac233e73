#include "evaluation/configurations.h"

#include "record/configurations.h"

namespace sunbreak::evaluation {

Evaluations evaluate_all(const TestRecord& whole, UnitSystem units, const std::shared_ptr<const Evaluation>& known) {
  Evaluations all;
  for (const Id configuration : configurations_of(whole))
    all.push_back(known && known->record().configuration_id == configuration
                      ? known
                      : evaluate(of_configuration(whole, configuration), nullptr, units));
  return all;
}

std::optional<Grade> weakest_grade(const Evaluations& evaluations) {
  std::optional<Grade> weakest;
  for (const auto& evaluation : evaluations)
    if (const auto grade = evaluation->grade(); grade && (!weakest || *grade < *weakest)) weakest = grade;
  return weakest;
}

}  // namespace sunbreak::evaluation

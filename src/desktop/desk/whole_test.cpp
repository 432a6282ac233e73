#include "desktop/desk/whole_test.h"

#include <algorithm>

#include "book/target_shelf.h"
#include "book/test_rows.h"
#include "desktop/desk/desk.h"
#include "gathering/standing_line_up.h"

namespace sunbreak::desktop {

std::function<WholeTest()> whole_test(const Desk& desk) {
  return [file = desk.book().file(), test = desk.snapshot(), known = desk.worked_out().evaluation(),
          units = desk.units(), metric = auditing(desk, UnitSystem::Metric),
          imperial = auditing(desk, UnitSystem::Imperial)] {
    WholeTest whole{test, {known}, {}, nullptr, {}, {}};
    whole.line_up = [file, units] { return gathering::standing_line_up(*book::Book::read_beside(file), file, units); };
    const auto with_audits = [&]() -> WholeTest& {
      whole.audits = [metric, imperial](const evaluation::Evaluations& evaluations, UnitSystem told_in) {
        std::vector<evaluation::Audit> audits;
        for (const auto& evaluation : evaluations)
          audits.push_back(*(told_in == UnitSystem::Metric ? metric : imperial)(evaluation, {}));
        return audits;
      };
      return whole;
    };
    const bool alone = test->configurations.empty() && test->test.retest_of.empty() && test->pictures.empty() &&
                       test->fixture_pictures.empty();
    if (alone) return with_audits();
    const std::shared_ptr<const book::Book> beside = book::Book::read_beside(file);
    if (!test->configurations.empty()) {
      auto loaded = book::load_test(*beside, test->test.id);
      if (!loaded) throw std::runtime_error("the test is not in the lab book any more");
      whole.record = std::make_shared<record::TestRecord>(std::move(*loaded));
      whole.evaluations = evaluation::evaluate_all(*whole.record, units, known);
    }
    whole.pictures = [beside](const std::string& digest) { return beside->picture(digest); };
    if (const auto earlier = book::earlier_test(*beside, test->test))
      whole.earlier = evaluation::evaluate(*earlier, nullptr, units);
    return with_audits();
  };
}

Auditing auditing(const Desk& desk, UnitSystem units) {
  evaluation::AuditContext context;
  context.targets = book::crop_targets(desk.book());
  context.units = units;
  return [context, keeper = desk.audits(), file = desk.book().file()](
             const std::shared_ptr<const evaluation::Evaluation>& evaluation, std::stop_token stop) {
    evaluation::AuditContext with = context;
    const auto& claims = evaluation->record().claims;
    if (std::ranges::any_of(claims, [](const record::Claim& c) { return c.kind == "equivalent"; }))
      for (const record::TestRecord& lamp : book::lamps_claimed(*book::Book::read_beside(file), evaluation->record()))
        with.others.push_back(evaluation::evaluate(lamp, nullptr, context.units));
    return keeper->get(evaluation, with, stop);
  };
}

}  // namespace sunbreak::desktop

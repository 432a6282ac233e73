#include "desktop/desk/whole_test.h"

#include "book/test_rows.h"
#include "desktop/desk/desk.h"

namespace sunbreak::desktop {

std::function<WholeTest()> whole_test(const Desk& desk) {
  return [file = desk.book().file(), test = desk.snapshot(), known = desk.worked_out().evaluation(),
          units = desk.units()] {
    WholeTest whole{test, {known}, {}, nullptr};
    const bool alone = test->configurations.empty() && test->test.retest_of.empty() && test->pictures.empty() &&
                       test->fixture_pictures.empty();
    if (alone) return whole;
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
    return whole;
  };
}

}  // namespace sunbreak::desktop

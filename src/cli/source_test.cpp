#include "cli/source_test.h"

#include <fmt/format.h>

#include <filesystem>

#include "book/test_rows.h"
#include "cli/say.h"
#include "evaluation/provenance.h"
#include "exchange/package/data_package.h"
#include "gathering/standing_line_up.h"
#include "record/configurations.h"

namespace sunbreak::cli {

using book::Book;

namespace {

/// The test meant by a number or a name; without one, the only test there is.
Result<record::TestRecord> find_test(const Book& book, const std::string& wanted) {
  std::vector<record::Test> matches;
  for (const record::Test& test : book.all<record::Test>("WHERE removed = 0 ORDER BY id"))
    if (wanted.empty() || test.name == wanted || std::to_string(test.id) == wanted) matches.push_back(test);
  if (matches.empty())
    return Problem{fmt::format("the lab book holds no test '{}'", wanted), "", "see its tests with: sunbreak-cli list"};
  if (matches.size() > 1)
    return Problem{
        wanted.empty() ? "the lab book holds several tests" : fmt::format("several tests are called '{}'", wanted), "",
        "name one by its number from: sunbreak-cli list"};
  return *book::load_test(book, matches.front().id);
}

bool is_package(const std::string& file) { return std::filesystem::path(file).extension() == ".zip"; }

}  // namespace

namespace {

Result<record::TestRecord> test_in_book(const std::string& file, const std::string& test) {
  auto opened = Book::open(file, Book::Mode::ReadOnly);
  if (!opened) return opened.problem();
  auto found = find_test(*opened.value(), test);
  if (!opened.value()->notice().empty()) warn("{}\n", opened.value()->notice());
  if (found)
    for (const record::Fault& fault : found.value().faults) warn("set apart: {}\n", fault.words());
  return found;
}

}  // namespace

Result<record::TestRecord> whole_test(const std::string& file, const std::string& test) {
  auto found = is_package(file) ? exchange::read_package_file(file) : test_in_book(file, test);
  if (const std::string altered = found ? evaluation::altered_words(found.value().test) : ""; !altered.empty())
    warn("note: {}\n", altered);
  return found;
}

Result<record::TestRecord> source_test(const std::string& file, const std::string& test,
                                       const std::string& configuration) {
  auto whole = whole_test(file, test);
  if (!whole) return whole;
  std::string names;
  for (const record::Id id : record::configurations_of(whole.value())) {
    const std::string name = record::configuration_name(whole.value(), id);
    names += (names.empty() ? "" : ", ") + name;
    if (name != configuration && !(configuration.empty() && id == 0)) continue;
    record::keep_configuration(whole.value(), id);
    return whole;
  }
  return Problem{fmt::format("the test has no configuration '{}'", configuration), "", "it has: " + names};
}

record::PictureSource source_pictures(const std::string& file) {
  if (is_package(file)) {
    auto files = std::make_shared<record::PictureFiles>();
    if (!exchange::read_package_file(file, files.get())) return {};
    return [files](const std::string& digest) {
      const auto found = files->find(digest);
      return found == files->end() ? std::nullopt : std::optional(found->second);
    };
  }
  auto opened = Book::open(file, Book::Mode::ReadOnly);
  if (!opened) return {};
  return [book = std::shared_ptr<const Book>(std::move(opened.value()))](const std::string& digest) {
    return book->picture(digest);
  };
}

std::shared_ptr<const evaluation::Evaluation> source_earlier(const std::string& file, const record::TestRecord& test) {
  if (test.test.retest_of.empty() || is_package(file)) return nullptr;
  auto opened = Book::open(file, Book::Mode::ReadOnly);
  const auto earlier = opened ? book::earlier_test(*opened.value(), test.test) : std::nullopt;
  return earlier ? evaluation::evaluate(*earlier) : nullptr;
}

evaluation::AuditContext source_audit_context(const std::string& file, const record::TestRecord& test) {
  evaluation::AuditContext context;
  context.targets = source_targets(file);
  if (is_package(file)) return context;
  if (auto opened = Book::open(file, Book::Mode::ReadOnly))
    for (const record::TestRecord& lamp : book::lamps_claimed(*opened.value(), test))
      context.others.push_back(evaluation::evaluate(lamp));
  return context;
}

std::vector<evaluation::Audit> source_audits(const std::string& file, const evaluation::Evaluations& evaluations,
                                             UnitSystem units) {
  evaluation::AuditContext context = source_audit_context(file, evaluations.front()->record());
  context.units = units;
  std::vector<evaluation::Audit> audits;
  for (const auto& evaluation : evaluations) audits.push_back(evaluation::audit(*evaluation, context));
  return audits;
}

publishing::Publication source_publication(const std::string& file, record::TestRecord test, UnitSystem units) {
  publishing::Publication p;
  p.units = units;
  p.whole = std::make_shared<const record::TestRecord>(std::move(test));
  p.evaluations = evaluation::evaluate_all(*p.whole, units);
  p.audit = [file](const evaluation::Evaluations& evaluations, UnitSystem told_in) {
    return source_audits(file, evaluations, told_in);
  };
  p.targets = source_targets(file);
  if (!is_package(file))
    p.line_up = [file, units] {
      const auto opened = Book::open(file, Book::Mode::ReadOnly);
      return opened ? gathering::standing_line_up(*opened.value(), file, units) : evaluation::StandingLineUp{};
    };
  p.pictures = source_pictures(file);
  p.earlier = source_earlier(file, *p.whole);
  return p;
}

std::vector<record::CropTarget> source_targets(const std::string& file) {
  if (!is_package(file))
    if (auto opened = Book::open(file, Book::Mode::ReadOnly)) return book::crop_targets(*opened.value());
  return evaluation::shipped_targets();
}

}  // namespace sunbreak::cli

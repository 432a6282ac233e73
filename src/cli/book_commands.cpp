#include <fmt/format.h>

#include <fstream>
#include <iostream>
#include <memory>

#include "book/demo/demo_book.h"
#include "book/test_rows.h"
#include "cli/figures_command.h"
#include "cli/source_test.h"
#include "evaluation/sweep_view.h"
#include "exchange/package/data_package.h"
#include "report/html_report.h"

namespace sunbreak::cli {
namespace {

namespace fs = std::filesystem;
using book::Book;

int fail(const Problem& problem) {
  std::cerr << problem.sentence() << "\n";
  return input_error;
}

/// Writes a text file whole or not at all.
std::optional<Problem> write_file(const fs::path& file, const std::string& text) {
  const fs::path partial = file.string() + ".partial";
  std::ofstream out(partial, std::ios::binary);
  out << text;
  out.close();
  std::error_code error;
  if (out) fs::rename(partial, file, error);
  if (!out || error) {
    fs::remove(partial, error);
    return Problem{fmt::format("{} cannot be written", file.string()), "", "check the folder and its free space"};
  }
  return {};
}

int demo(const std::string& file) {
  if (fs::exists(file))
    return fail(
        {fmt::format("{} is there already", file), "it was left as it is", "name a new file, or move that one away"});
  auto opened = Book::open(file);
  if (!opened) return fail(opened.problem());
  book::fill_demo(*opened.value());
  return 0;
}

int list(const std::string& file) {
  auto opened = Book::open(file, Book::Mode::ReadOnly);
  if (!opened) return fail(opened.problem());
  for (const record::Test& test : opened.value()->all<record::Test>("WHERE removed = 0 ORDER BY id")) {
    const auto bundle = *book::load_test(*opened.value(), test.id);
    int read = 0;
    for (const record::Placement& p : bundle.placements) read += p.reading_id.has_value();
    fmt::print("{}\t{}\t{} heights × {} settings\t{} readings\n", test.id, record::title_of(bundle),
               bundle.rungs.size(), bundle.stops.size(), read);
  }
  return 0;
}

int report(const std::string& file, const std::string& test, const std::string& out, bool imperial) {
  const auto bundle = source_test(file, test);
  if (!bundle) return fail(bundle.problem());
  report::ReportOptions options;
  options.units = imperial ? UnitSystem::Imperial : UnitSystem::Metric;
  const auto evaluation = evaluation::evaluate(bundle.value(), nullptr, options.units);
  if (const auto problem = write_file(out, report::html_report(*evaluation, options).html)) return fail(*problem);
  return 0;
}

int export_test(const std::string& file, const std::string& test, const std::string& out, bool csv) {
  const auto bundle = source_test(file, test);
  if (!bundle) return fail(bundle.problem());
  if (csv) {
    if (const auto problem = write_file(out, exchange::spreadsheet_csv(*evaluation::evaluate(bundle.value()))))
      return fail(*problem);
    return 0;
  }
  try {
    exchange::write_zip(out, exchange::make_package(bundle.value()));
  } catch (const std::exception& e) {
    return fail({e.what(), "", "check the folder and its free space"});
  }
  return 0;
}

int import_test(const std::string& file, const std::string& package) {
  const auto bundle = exchange::read_package_file(package);
  if (!bundle) return fail(bundle.problem());
  auto opened = Book::open(file);
  if (!opened) return fail(opened.problem());
  if (opened.value()->read_only())
    return fail({fmt::format("the lab book {} is open in another window", file), "nothing was added",
                 "close that window, or import there"});
  const record::Id id = book::add_test(*opened.value(), bundle.value(), "Import a data package");
  fmt::print("{}\t{}\n", id, record::title_of(bundle.value()));
  return 0;
}

}  // namespace

void add_book_commands(CLI::App& app, int& status) {
  struct Arguments {
    std::string book, test, out, package;
    bool imperial = false, csv = false;
  };
  const auto a = std::make_shared<Arguments>();
  const auto with_book = [&](const char* name, const char* help, const char* book_help) {
    CLI::App* command = app.add_subcommand(name, help);
    command->add_option("FILE", a->book, book_help)->required();
    return command;
  };
  with_book("demo", "Write the sample lab book", "the lab book to make")->callback([a, &status] {
    status = demo(a->book);
  });
  with_book("list", "List the tests of a lab book", "the lab book")->callback([a, &status] { status = list(a->book); });
  constexpr const char* either = "a lab book or a data package (.zip)";

  CLI::App* command = with_book("report", "Write a test's report as one HTML page", either);
  command->add_option("--test", a->test, "the test's number or name");
  command->add_option("-o,--out", a->out, "the page to write")->required();
  command->add_flag("--imperial", a->imperial, "inches and square feet");
  command->callback([a, &status] { status = report(a->book, a->test, a->out, a->imperial); });

  command = with_book("export", "Write a test as a data package, or as one table for a spreadsheet", either);
  command->add_option("--test", a->test, "the test's number or name");
  command->add_option("-o,--out", a->out, "the file to write")->required();
  command->add_flag("--csv", a->csv, "one table of all stations for a spreadsheet");
  command->callback([a, &status] { status = export_test(a->book, a->test, a->out, a->csv); });

  command =
      with_book("import", "Add the test in a data package to a lab book", "the lab book, made where there is none");
  command->add_option("PACKAGE", a->package, "the data package (.zip)")->required();
  command->callback([a, &status] { status = import_test(a->book, a->package); });
}

}  // namespace sunbreak::cli

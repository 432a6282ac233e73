#include <fmt/format.h>

#include <memory>

#include "book/demo/demo_book.h"
#include "book/test_rows.h"
#include "cli/figures_command.h"
#include "cli/options.h"
#include "cli/say.h"
#include "cli/source_test.h"
#include "evaluation/provenance.h"
#include "exchange/files/digest.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"
#include "exchange/package/verification.h"
#include "record/configurations.h"
#include "record/json.h"

namespace sunbreak::cli {
namespace {

namespace fs = std::filesystem;
using book::Book;

int fail(const Problem& problem) {
  warn("{}\n", problem.sentence());
  return input_error;
}

/// Writes what a command made; over a file that is there only where that was asked for.
int write(const std::string& out, std::string_view content, bool force) {
  const auto problem =
      exchange::write_new_file(out, content, force ? exchange::Existing::Replace : exchange::Existing::Keep);
  return problem ? fail(*problem) : 0;
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
    auto test_record = *book::load_test(*opened.value(), test.id);
    int read = 0;
    for (const record::Placement& p : test_record.placements) read += p.reading_id.has_value();
    const std::size_t configurations = test_record.configurations.size() + 1;
    record::keep_configuration(test_record, 0);
    say("{}\t{}\t{} heights × {} settings{}\t{} readings\n", test.id, record::title_of(test_record),
        test_record.rungs.size(), test_record.stops.size(),
        configurations > 1 ? fmt::format(", {} configurations", configurations) : "", read);
  }
  if (const std::string damage = opened.value()->damage_words(); !damage.empty()) warn("{}\n", damage);
  return 0;
}

/// Writes one form of a test, of one file, under a name of one's own.
int write_form(const std::string& file, const std::string& test, const char* form, const std::string& out,
               UnitSystem units, bool force) {
  auto test_record = whole_test(file, test);
  if (!test_record) return fail(test_record.problem());
  const auto parts =
      publishing::form_named(form)->make(source_publication(file, std::move(test_record.value()), units));
  return parts ? write(out, parts.value().front().content, force) : fail(parts.problem());
}

int import_test(const std::string& file, const std::string& package, bool as_altered) {
  record::PictureFiles pictures;
  const auto test_record = exchange::read_package_file(package, &pictures);
  if (!test_record) return fail(test_record.problem());
  const std::string altered = evaluation::altered_words(test_record.value().test);
  if (!altered.empty()) warn("note: {}\n", altered);
  if (!altered.empty() && !as_altered)
    return fail({package + " was " + evaluation::altered_on_its_way, "nothing was added",
                 "ask for the file again, or take it as it is with --as-altered"});
  auto opened = Book::open(file);
  if (!opened) return fail(opened.problem());
  if (opened.value()->read_only())
    return fail({fmt::format("the lab book {} cannot be changed: {}", file, opened.value()->why_read_only()),
                 "nothing was added", ""});
  const record::Id id = book::add_test(*opened.value(), test_record.value(), "Import a data package", pictures);
  say("{}\t{}\n", id, record::title_of(test_record.value()));
  return 0;
}

/// What kept a package from being held against anything, or what differs; a status that scripts can tell apart.
int verify(const std::string& package, bool as_json) {
  constexpr int differs = 1;
  const auto archive = exchange::read_zip(package, {}, exchange::picture_folder);
  const auto record = archive ? exchange::read_package(archive.value()) : Result<record::TestRecord>(archive.problem());
  if (!record) {
    if (as_json) say_json(record::Json{{"sound", nullptr}, {"problem", record.problem().sentence()}});
    return fail(record.problem());
  }
  const exchange::Verification v = exchange::verify_package(archive.value(), record.value());
  const std::string digest = exchange::digest_of_file(package);
  if (as_json) {
    record::Json j{{"sound", v.differences.empty()},       {"title", record::title_of(record.value())},
                   {"digest", "sha256:" + digest},         {"values", v.values},
                   {"differences", record::Json::array()}, {"notes", v.notes}};
    for (const exchange::Difference& d : v.differences)
      j["differences"].push_back({{"file", d.file},
                                  {"row", d.row > 0 ? record::Json(d.row) : record::Json()},
                                  {"what", d.what},
                                  {"stated", d.stated},
                                  {"found", d.found},
                                  {"words", d.sentence}});
    say_json(j);
  } else {
    say("{}\nsha256:{}\n", record::title_of(record.value()), digest);
    for (const exchange::Difference& d : v.differences) say("differs: {}\n", d.sentence);
    for (const std::string& words : v.notes) say("note: {}\n", words);
    if (v.differences.empty())
      say("All {} stated values come out of its readings. That these were taken, no file can show.\n", v.values);
    else
      say("{} of {} stated values do not come out of its readings.\n", v.differences.size(), v.values);
  }
  return v.differences.empty() ? 0 : differs;
}

}  // namespace

void add_book_commands(CLI::App& app, int& status) {
  struct Arguments {
    std::string book, test, out, package;
    bool imperial = false, csv = false, force = false, as_altered = false, json = false;
  };
  const auto a = std::make_shared<Arguments>();
  const auto with_book = [&](const char* name, const char* help, const char* book_help) {
    CLI::App* command = app.add_subcommand(name, help);
    add_text(*command, "FILE", a->book, book_help)->required();
    return command;
  };
  with_book("demo", "Write the sample lab book", "the lab book to make")->callback([a, &status] {
    status = demo(a->book);
  });
  with_book("list", "List the tests of a lab book", "the lab book")->callback([a, &status] { status = list(a->book); });
  constexpr const char* either = "a lab book or a data package (.zip)";

  CLI::App* command = with_book("report", "Write a test's report as one HTML page", either);
  add_text(*command, "--test", a->test, "the test's number or name");
  add_text(*command, "-o,--out", a->out, "the page to write")->required();
  command->add_flag("--force", a->force, "replace a file that is there already");
  command->add_flag("--imperial", a->imperial, "inches and square feet");
  command->callback([a, &status] {
    status =
        write_form(a->book, a->test, "page", a->out, a->imperial ? UnitSystem::Imperial : UnitSystem::Metric, a->force);
  });

  command = with_book("export", "Write a test as a data package, or as one table for a spreadsheet", either);
  add_text(*command, "--test", a->test, "the test's number or name");
  add_text(*command, "-o,--out", a->out, "the file to write")->required();
  command->add_flag("--force", a->force, "replace a file that is there already");
  command->add_flag("--csv", a->csv, "one table of all stations for a spreadsheet");
  command->callback([a, &status] {
    status = write_form(a->book, a->test, a->csv ? "table" : "package", a->out, UnitSystem::Metric, a->force);
  });

  command = app.add_subcommand("verify", "Hold all that a data package states against what its own readings give");
  add_text(*command, "PACKAGE", a->package, "the data package (.zip)")->required();
  command->add_flag("--json", a->json, "as JSON");
  command->footer("Status 0 where all agrees, 1 where something differs, 3 where it cannot be read.");
  command->callback([a, &status] { status = verify(a->package, a->json); });

  command =
      with_book("import", "Add the test in a data package to a lab book", "the lab book, made where there is none");
  add_text(*command, "PACKAGE", a->package, "the data package (.zip)")->required();
  command->add_flag("--as-altered", a->as_altered, "take it even where it is not as its writer left it");
  command->callback([a, &status] { status = import_test(a->book, a->package, a->as_altered); });
}

}  // namespace sunbreak::cli

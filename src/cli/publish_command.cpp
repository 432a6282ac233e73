#include <fmt/format.h>

#include <filesystem>
#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "cli/source_test.h"
#include "publishing/publish.h"

namespace sunbreak::cli {
namespace {

struct PublishArguments {
  std::string file, test, out;
  std::vector<std::string> forms, without;
  bool all = false, force = false, imperial = false, letter = false;
};

std::string form_ids() {
  std::string ids;
  for (const publishing::Form& form : publishing::forms()) ids += (ids.empty() ? "" : ", ") + std::string(form.id);
  return ids;
}

std::string part_ids() {
  std::string ids;
  for (const report::PartName& part : report::page_parts()) ids += (ids.empty() ? "" : ", ") + std::string(part.id);
  return ids;
}

int run_publish(const PublishArguments& a) {
  auto record = whole_test(a.file, a.test);
  if (!record) return refuse(record.problem());
  std::vector<const publishing::Form*> wanted;
  for (const std::string& id : a.forms) {
    const publishing::Form* form = publishing::form_named(id);
    if (!form) {
      return refuse({fmt::format("there is no form '{}'", id), "nothing was written", "choose among " + form_ids()});
    }
    wanted.push_back(form);
  }
  if (wanted.empty())
    for (const publishing::Form& form : publishing::forms()) wanted.push_back(&form);
  publishing::Publication p =
      source_publication(a.file, std::move(record.value()), a.imperial ? UnitSystem::Imperial : UnitSystem::Metric);
  for (const std::string& id : a.without) {
    const auto part = report::part_named(id);
    if (!part) {
      return refuse(
          {fmt::format("the page has no part '{}'", id), "nothing was written", "choose among " + part_ids()});
    }
    p.parts.reset(static_cast<std::size_t>(*part));
  }
  p.paper = a.letter ? publishing::Paper::Letter : publishing::Paper::A4;
  int status = 0;
  publishing::publish(p, wanted, a.out, a.force ? exchange::Existing::Replace : exchange::Existing::Keep,
                      [&](const publishing::Written& w) {
                        for (const auto& file : w.files) say("{}\t{}\n", w.form->id, file.string());
                        if (!w.problem) return;
                        warn("{}\n", w.problem->sentence());
                        status = input_error;
                      });
  return status;
}

}  // namespace

void add_publish_command(CLI::App& app, int& status) {
  const auto a = std::make_shared<PublishArguments>();
  CLI::App* c = app.add_subcommand("publish", "Write a test in the forms that others read, into a folder");
  add_text(*c, "FILE", a->file, "a lab book or a data package (.zip)")->required();
  add_text(*c, "--test", a->test, "the test's number or name");
  auto* all = c->add_flag("--all", a->all, "every form, which is also what no --form means");
  add_text(*c, "--form", a->forms, "one form, may be given several times: " + form_ids())->excludes(all);
  add_text(*c, "--without", a->without, "a part that the page leaves out, may be given several times: " + part_ids());
  add_text(*c, "-o,--out", a->out, "the folder to write into, made where there is none")->required();
  c->add_flag("--force", a->force, "replace files that are there already");
  c->add_flag("--imperial", a->imperial, "inches and square feet");
  c->add_flag("--letter", a->letter, "Letter paper instead of A4");
  c->callback([a, &status] { status = run_publish(*a); });
}

}  // namespace sunbreak::cli

#include <fmt/format.h>

#include <cmath>
#include <iostream>
#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/source_test.h"
#include "core/quantity/uncertain_text.h"
#include "evaluation/audit/audit.h"
#include "evaluation/evaluation.h"
#include "exchange/audit/audit_json.h"
#include "record/json.h"

namespace sunbreak::cli {
namespace {

struct AuditArguments {
  std::string file, test, configuration;
  bool json = false;
};

int run_audit(const AuditArguments& a) {
  const auto test = source_test(a.file, a.test, a.configuration);
  if (!test) return refuse(test.problem());
  const auto evaluation = evaluation::evaluate(test.value());
  const evaluation::Audit audit = evaluation::audit(*evaluation, source_audit_context(a.file, test.value()));
  if (a.json) {
    std::cout << record::json_text(exchange::audit_json(audit), 2) << "\n";
    return 0;
  }
  for (const auto& claim : audit.claims) {
    fmt::print("{}: {}\n", claim.label, claim.claimed_words);
    fmt::print("  {}{}\n", verdict_words(claim.judgement),
               claim.measured_words.empty() ? "" : " · measured: " + claim.measured_words);
    fmt::print("  {}\n", claim.reason);
    if (!claim.lifts.empty()) fmt::print("  What would help: {}.\n", claim.lifts);
  }
  if (audit.claims.empty()) fmt::print("Nothing is claimed of this fixture.\n");
  for (const auto& w : audit.watts)
    fmt::print("{:6.4g} %  badge {}  wall {} W\n", w.percent,
               std::isnan(w.badge_w) ? "–" : fmt::format("{:.0f} W", w.badge_w), w.wall_words());
  for (const auto& w : audit.words)
    if (!w.struck)
      fmt::print("{}{}{}\n", w.sentence, w.own ? " (the tester's own words)" : "",
                 w.own && w.figure_changed ? " (its figure has changed since)" : "");
  return 0;
}

}  // namespace

void add_audit_command(CLI::App& app, int& status) {
  auto a = std::make_shared<AuditArguments>();
  CLI::App* c = app.add_subcommand("audit", "What the maker claims, held against what was measured");
  c->add_option("FILE", a->file, "a lab book or a data package (.zip)")->required();
  c->add_option("--test", a->test, "the test's number or name");
  c->add_option("--configuration", a->configuration, "its name; the fixture as it comes by default");
  c->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  c->callback([a, &status] { status = run_audit(*a); });
}

}  // namespace sunbreak::cli

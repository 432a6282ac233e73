#include <fmt/format.h>

#include <cmath>
#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
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
    say_json(exchange::audit_json(audit));
    return 0;
  }
  for (const auto& claim : audit.claims) {
    say("{}: {}\n", claim.label, claim.claimed_words);
    say("  {}{}\n", verdict_words(claim.judgement),
        claim.measured_words.empty() ? "" : " · measured: " + claim.measured_words);
    say("  {}\n", claim.reason);
    if (!claim.lifts.empty()) say("  What would help: {}.\n", claim.lifts);
  }
  if (audit.claims.empty()) say("Nothing is claimed of this fixture.\n");
  for (const auto& w : audit.watts)
    say("{:6.4g} %  badge {}  wall {} W\n", w.percent, std::isnan(w.badge_w) ? "–" : fmt::format("{:.0f} W", w.badge_w),
        w.wall_words());
  for (const auto& w : audit.words)
    if (!w.struck)
      say("{}{}{}\n", w.sentence, w.own ? " (the tester's own words)" : "",
          w.own && w.figure_changed ? " (its figure has changed since)" : "");
  return 0;
}

}  // namespace

void add_audit_command(CLI::App& app, int& status) {
  auto a = std::make_shared<AuditArguments>();
  CLI::App* c = app.add_subcommand("audit", "What the maker claims, held against what was measured");
  add_text(*c, "FILE", a->file, "a lab book or a data package (.zip)")->required();
  add_text(*c, "--test", a->test, "the test's number or name");
  add_text(*c, "--configuration", a->configuration, "its name; the fixture as it comes by default");
  c->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  c->callback([a, &status] { status = run_audit(*a); });
}

}  // namespace sunbreak::cli

#include <fmt/format.h>

#include <limits>
#include <memory>

#include "book/book.h"
#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "cli/source_test.h"
#include "core/quantity/uncertain_text.h"
#include "evaluation/check_lamps.h"
#include "exchange/files/companions.h"
#include "exchange/files/new_file.h"
#include "exchange/meters/meters_json.h"
#include "exchange/tables/meter_tables.h"
#include "record/json.h"
#include "report/factor_card.h"

namespace sunbreak::cli {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

int lux_factor_of(const std::string& file, bool json) {
  const auto draft = draft_of(file, exchange::read_lux_pairs);
  if (!draft) return refuse(draft.problem());
  const auto fitted = lux_factor(draft.value().pairs);
  if (!fitted) return refuse(fitted.problem(), file);
  const LuxFactor& f = fitted.value();
  if (json) {
    say_json(exchange::lux_factor_json(f));
    return 0;
  }
  say("PPFD = k · lux with k = {} µmol/m²/s per lx (1/k = {:.2f}), {:.0f} to {:.0f} lx.\n",
      uncertain_text(f.k, f.k_expanded, 5), f.inverse(), f.lowest_lux, f.highest_lux);
  say("{} pairs, scatter {:.2f} %, R² {:.5f}.\n", f.residuals.size(), 100 * f.scatter, f.r_squared);
  if (f.holds()) say("It holds for this meter under this spectrum.\n");
  for (const std::string& reason : f.reasons) say("It does not hold: {}.\n", reason);
  return 0;
}

int agree(const std::string& file, bool json, double first_pct, double second_pct) {
  const auto draft = draft_of(file, exchange::read_sensor_pairs);
  if (!draft) return refuse(draft.problem());
  warn("understood: '{}' is the sensor that is trusted, '{}' the other\n", draft.value().first, draft.value().second);
  const auto compared = agreement(draft.value().pairs, first_pct / 100, second_pct / 100);
  if (!compared) return refuse(compared.problem(), file);
  const Agreement& a = compared.value();
  if (json) {
    say_json(exchange::agreement_json(a));
    return 0;
  }
  say("Ratio {:.4f} ({:.4f} to {:.4f}), mean difference {:+.2f} %, limits of agreement {:+.1f} to {:+.1f} %.\n",
      a.ratio.value, a.ratio.low, a.ratio.high, a.mean_difference_pct.value, a.low_limit_pct.value,
      a.high_limit_pct.value);
  say("{}\n", a.words);
  return 0;
}

/// The check lamps of a lab book, or of a table.
Result<evaluation::LampBoard> lamp_board_of(const std::string& file) {
  if (exchange::is_lab_book(file)) {
    auto opened = book::Book::open(file, book::Book::Mode::ReadOnly);
    if (!opened) return opened.problem();
    const auto rows = opened.value()->all<record::CheckLampReading>("ORDER BY taken_at");
    const auto meters = opened.value()->all<record::Meter>("ORDER BY id");
    auto board = evaluation::lamp_board(rows, meters);
    return board ? std::move(board) : in_file(file, board.problem());
  }
  auto draft = draft_of(file, exchange::read_check_readings);
  if (!draft) return draft.problem();
  auto board = evaluation::lamp_board(std::move(draft.value().readings), std::move(draft.value().days));
  return board ? std::move(board) : in_file(file, board.problem());
}

int check_lamp(const std::string& file, bool json) {
  const auto found = lamp_board_of(file);
  if (!found) return refuse(found.problem());
  const evaluation::LampBoard& board = found.value();
  if (json) {
    say_json(exchange::check_lamp_json(board.readings, board.charts, board.days));
    return 0;
  }
  for (const LampChart& c : board.charts)
    say("{}{}{}: {} readings, {:.2f} % from day to day.\n", c.lamp.empty() ? "Check lamp" : c.lamp,
        c.meter.empty() ? "" : " by ", c.meter, c.readings.size(), 100 * c.sd);
  for (const LampFinding& f : board.findings) say("{}\n", f.words);
  if (board.findings.empty()) say("Nothing has moved.\n");
  return 0;
}

int factor_card_of(const std::string& file, const std::string& out, bool force) {
  auto opened = book::Book::open(file, book::Book::Mode::ReadOnly);
  if (!opened) return refuse(opened.problem());
  const auto page = report::factor_card(opened.value()->all<record::FittedLuxFactor>("ORDER BY id"),
                                        opened.value()->all<record::Meter>("WHERE removed = 0 ORDER BY name"));
  if (!page) return refuse(page.problem(), file);
  const auto existing = force ? exchange::Existing::Replace : exchange::Existing::Keep;
  if (const auto problem = exchange::write_new_file(out, page.value(), existing)) return refuse(*problem);
  return 0;
}

}  // namespace

void add_meter_commands(CLI::App& app, int& status) {
  const auto add = [&](const char* name, const char* does, const char* takes, const char* what) {
    struct Request {
      std::string file;
      bool json = false;
    };
    auto request = std::make_shared<Request>();
    CLI::App* command = app.add_subcommand(name, does);
    add_text(*command, takes, request->file, what)->required();
    command->add_flag("--json", request->json, "as JSON");
    return std::pair{command, request};
  };
  const auto [lux, lux_request] = add("lux-factor", "Fit the factor that makes PPFD of a lux meter's readings", "PAIRS",
                                      "a table with the columns lux, ppfd");
  lux->callback([&status, r = lux_request] { status = lux_factor_of(r->file, r->json); });
  const auto [pairs, pairs_request] =
      add("agree", "Hold two sensors against each other", "PAIRS",
          "a table with two columns of PPFD, the trusted sensor first; places beside them");
  auto first = std::make_shared<double>(unknown), second = std::make_shared<double>(unknown);
  const QuantityRange uncertainty{"standard uncertainty", "%", 0, 50};
  add_number(*pairs, "--trusted-pct", *first, uncertainty, "standard uncertainty of the trusted one's calibration, %");
  add_number(*pairs, "--other-pct", *second, uncertainty, "standard uncertainty of the other's, %");
  pairs->callback([=, &status, r = pairs_request] { status = agree(r->file, r->json, *first, *second); });
  const auto [lamp, lamp_request] =
      add("check-lamp", "Watch a check lamp's readings for a sensor or a lamp that moves", "FILE",
          "a lab book, or a table with the columns date, lamp, meter, center and other stations, watts");
  lamp->callback([&status, r = lamp_request] { status = check_lamp(r->file, r->json); });
  struct CardRequest {
    std::string book, out;
    bool force = false;
  };
  auto card = std::make_shared<CardRequest>();
  CLI::App* command = app.add_subcommand("factor-card", "Write the lux factors of a lab book as a page");
  add_text(*command, "BOOK", card->book, "the lab book")->required();
  add_text(*command, "--output", card->out, "the page, .html")->required();
  command->add_flag("--force", card->force, "replace a file that is there");
  command->callback([&status, card] { status = factor_card_of(card->book, card->out, card->force); });
}

}  // namespace sunbreak::cli

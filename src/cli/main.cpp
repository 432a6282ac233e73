#include "cli/figures_command.h"
#include "cli/say.h"
#include "exchange/files/targets.h"

int main(int argc, char** argv) {
  CLI::App app{"Sunbreak without a screen: figures, reports and data packages of grow light tests"};
  app.require_subcommand(1);
  int status = 0;
  sunbreak::cli::add_figures_command(app, status);
  sunbreak::cli::add_predict_command(app, status);
  sunbreak::cli::add_power_commands(app, status);
  sunbreak::cli::add_spectrum_commands(app, status);
  sunbreak::cli::add_meter_commands(app, status);
  sunbreak::cli::add_read_command(app, status);
  sunbreak::cli::add_light_commands(app, status);
  sunbreak::cli::add_settle_command(app, status);
  sunbreak::cli::add_audit_command(app, status);
  sunbreak::cli::add_line_up_commands(app, status);
  sunbreak::cli::add_book_commands(app, status);
  sunbreak::cli::add_publish_command(app, status);
  sunbreak::cli::add_site_command(app, status);
  const sunbreak::exchange::HeldSources held;
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& e) {
    if (e.get_exit_code() == 0) return app.exit(e);
    sunbreak::cli::warn("{}\nRun with --help for more information.\n", e.what());
    return sunbreak::cli::usage_error;
  } catch (const std::exception& e) {
    sunbreak::cli::warn("{}.\n", e.what());
    return sunbreak::cli::input_error;
  }
  return status;
}

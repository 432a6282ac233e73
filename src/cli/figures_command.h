#pragma once

#include <CLI/CLI.hpp>

namespace sunbreak::cli {

constexpr int usage_error = 2, input_error = 3;

/// Adds `figures FILE …`; its callback sets `status`.
void add_figures_command(CLI::App& app, int& status);

/// Adds `predict SCENE`.
void add_predict_command(CLI::App& app, int& status);

/// Adds `settle-check LOG` and `dimmer STAIR`.
void add_power_commands(CLI::App& app, int& status);

/// Adds `whole-light FILE`, `between FILE` and `elsewhere FILE`.
void add_light_commands(CLI::App& app, int& status);
void add_settle_command(CLI::App& app, int& status);

/// Adds `audit FILE`.
void add_audit_command(CLI::App& app, int& status);

/// Adds `line-up FILE...` and `suits FILE...`.
void add_line_up_commands(CLI::App& app, int& status);

/// Adds `lux-factor`, `agree` and `check-lamp`.
void add_meter_commands(CLI::App& app, int& status);

/// Adds `spectrum FILE`.
void add_spectrum_commands(CLI::App& app, int& status);

/// Adds `read FILE`.
void add_read_command(CLI::App& app, int& status);

/// Adds `demo`, `list`, `report`, `export` and `import`; their callbacks set `status`.
void add_book_commands(CLI::App& app, int& status);
/// The commands `site` and `publish`.
void add_site_command(CLI::App& app, int& status);
void add_publish_command(CLI::App& app, int& status);

}  // namespace sunbreak::cli

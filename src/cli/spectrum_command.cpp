#include <fmt/format.h>

#include <cmath>
#include <iostream>
#include <memory>
#include <nlohmann/json.hpp>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "core/spectrum/spectral_mix.h"
#include "core/spectrum/spectrum_figures.h"
#include "exchange/meters/spectrum_json.h"
#include "exchange/spectra/spectrum_file.h"

namespace sunbreak::cli {
namespace {

using nlohmann::ordered_json;

struct SpectrumRequest {
  std::string file, unit, column, with_file;
  double share = 0.5;
  bool json = false;
};

Result<SpectralCurve> curve_of(const std::string& path, const SpectrumRequest& request) {
  const auto bytes = text_of_file(path);
  if (!bytes) return bytes.problem();
  exchange::SpectrumOptions options;
  if (!request.unit.empty()) options.scale = request.unit == "photons" ? SpectralScale::Photons : SpectralScale::Power;
  if (!request.column.empty()) options.column = request.column;
  const auto file = exchange::read_spectra(bytes.value(), options);
  const auto in_file = [&](Problem problem) {
    problem.seen = path + ": " + problem.seen;
    return problem;
  };
  if (!file) return in_file(file.problem());
  if (file.value().scale_needed)
    return in_file({"Nothing in the file says whether its values are photons or power", "all figures depend on that",
                    "say so with --unit photons or --unit power"});
  for (const std::string& words : file.value().understood) std::cerr << "understood: " << words << "\n";
  const exchange::SpectrumDraft& taken = file.value().spectra.front();
  if (file.value().spectra.size() > 1)
    std::cerr << fmt::format("note: the file holds {} spectra; column {} was taken, choose another with --column\n",
                             file.value().spectra.size(), taken.column);
  say_findings(taken.findings);
  return SpectralCurve(taken.spectrum);
}

std::string shown(double value, const char* format) {
  return std::isfinite(value) ? fmt::format(fmt::runtime(format), value) : "not measured";
}

void say(const SpectrumFigures& f) {
  std::cout << fmt::format("Measured: {:g} to {:g} nm.\nPhotons:", f.range.from_nm, f.range.to_nm);
  for (std::size_t i = 0; i < photon_bands.size(); ++i)
    std::cout << fmt::format(" {} {},", photon_bands[i].label, shown(100 * f.bands[i].share, "{:.1f} %"));
  std::cout << fmt::format(" 400 to 700 nm {} of all.\n", shown(100 * f.ppfd_share, "{:.1f} %"));
  std::cout << fmt::format("ePPFD / PPFD {}, red / far red {}, blue / red {}.\n", shown(f.eppfd_over_ppfd, "{:.3f}"),
                           shown(f.red_over_far_red, "{:.2f}"), shown(f.blue_over_red, "{:.2f}"));
  for (const SpectralPeak& p : f.peaks)
    std::cout << fmt::format("Peak at {:.1f} nm, {} wide, {:.1f} % of the photons.\n", p.nm,
                             shown(p.width_nm, "{:.1f} nm"), 100 * p.share);
  if (f.temperature)
    std::cout << fmt::format("Color temperature {:.0f} K, Duv {:+.4f}; ", f.temperature->cct_k, f.temperature->duv);
  if (f.color) std::cout << fmt::format("x {:.4f}, y {:.4f}.\n", f.color->x, f.color->y);
  if (f.rendering) {
    std::cout << fmt::format("Ra {:.1f};", f.rendering->ra);
    for (std::size_t i = 0; i < f.rendering->r.size(); ++i)
      std::cout << fmt::format(" R{} {:.0f}", i + 1, f.rendering->r[i]);
    std::cout << ".\n";
  }
  std::cout << fmt::format("PPFD per lux {}, lux per PPFD {}.\n", shown(f.ppfd_per_lux(), "{:.5f}"),
                           shown(f.lux_per_ppfd, "{:.2f}"));
  if (f.ppfd) std::cout << fmt::format("PPFD {:.1f} µmol/m²/s.\n", *f.ppfd);
  for (const std::string& note : f.notes) std::cout << note << "\n";
}

int spectrum(const SpectrumRequest& request) {
  auto curve = curve_of(request.file, request);
  if (!curve) return refuse(curve.problem());
  if (!request.with_file.empty()) {
    const auto other = curve_of(request.with_file, request);
    if (!other) return refuse(other.problem());
    const auto mix = mixed(curve.value(), other.value(), request.share);
    if (!mix) return refuse(mix.problem());
    curve = SpectralCurve(mix.value());
  }
  const SpectrumFigures figures = spectrum_figures(curve.value());
  if (request.json)
    std::cout << exchange::spectrum_json(figures).dump(2) << "\n";
  else
    say(figures);
  return 0;
}

}  // namespace

void add_spectrum_commands(CLI::App& app, int& status) {
  auto request = std::make_shared<SpectrumRequest>();
  CLI::App* command = app.add_subcommand("spectrum", "Tell what the light of a spectrum is made of");
  command->add_option("FILE", request->file, "a table, TM-27 XML or CGATS text (docs/formats.md)")->required();
  command->add_option("--column", request->column, "which column of light, by title or number from 1");
  command->add_option("--unit", request->unit, "what values are, where the file does not say")
      ->check(CLI::IsMember({"photons", "power"}));
  command->add_option("--with", request->with_file, "a second spectrum, mixed with the first");
  command->add_option("--share", request->share, "the second's share of the PPFD, 0 to 1")->check(CLI::Range(0.0, 1.0));
  command->add_flag("--json", request->json, "as JSON");
  command->callback([=, &status] { status = spectrum(*request); });
}

}  // namespace sunbreak::cli

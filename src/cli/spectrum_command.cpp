#include <fmt/format.h>

#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "core/spectrum/spectral_mix.h"
#include "core/spectrum/spectrum_figures.h"
#include "evaluation/spectrum_words.h"
#include "exchange/files/read_file.h"
#include "exchange/meters/spectrum_json.h"
#include "exchange/spectra/spectrum_file.h"
#include "record/json.h"

namespace sunbreak::cli {
namespace {

using record::Json;

struct SpectrumRequest {
  std::string file, unit, column, with_file;
  std::vector<std::string> bands;
  double share = 0.5;
  bool json = false;
};

Result<SpectralCurve> curve_of(const std::string& path, const SpectrumRequest& request) {
  const auto bytes = exchange::read_file(path);
  if (!bytes) return bytes.problem();
  exchange::SpectrumOptions options;
  if (!request.unit.empty()) options.scale = request.unit == "photons" ? SpectralScale::Photons : SpectralScale::Power;
  if (!request.column.empty()) options.column = request.column;
  const auto file = exchange::read_spectra(bytes.value(), options);
  if (!file) return in_file(path, file.problem());
  if (file.value().scale_needed)
    return in_file(path, {"Nothing in the file says whether its values are photons or power",
                          "all figures depend on that", "say so with --unit photons or --unit power"});
  for (const std::string& words : file.value().understood) warn("understood: {}\n", words);
  const exchange::SpectrumDraft& taken = file.value().spectra.front();
  if (file.value().spectra.size() > 1)
    warn("note: the file holds {} spectra; column {} was taken, choose another with --column\n",
         file.value().spectra.size(), taken.column);
  say_findings(taken.findings);
  return SpectralCurve(taken.spectrum);
}

void say_figures(const SpectrumFigures& figures) {
  for (const evaluation::SpectrumRow& row : evaluation::spectrum_rows(figures)) say("{:<22}{}\n", row.label, row.value);
  for (const std::string& note : figures.notes) say("{}\n", note);
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
  std::vector<exchange::OwnBand> own;
  for (const std::string& text : request.bands) {
    const auto band = own_band(text);
    if (!band) return refuse(band.problem(), "--band");
    own.push_back({band.value(), band_share(curve.value(), band.value())});
  }
  const SpectrumFigures figures = spectrum_figures(curve.value());
  if (request.json) {
    say_json(exchange::spectrum_json(figures, own));
    return 0;
  }
  say_figures(figures);
  for (const exchange::OwnBand& o : own)
    say("{:<22}{}\n", fmt::format("{:g} to {:g} nm", o.range.from_nm, o.range.to_nm),
        o.share.any() ? fmt::format("{:.1f} %{}", 100 * o.share.share, o.share.whole ? "" : ", as far as measured")
                      : "not measured");
  return 0;
}

}  // namespace

void add_spectrum_commands(CLI::App& app, int& status) {
  auto request = std::make_shared<SpectrumRequest>();
  CLI::App* command = app.add_subcommand("spectrum", "Tell what the light of a spectrum is made of");
  add_text(*command, "FILE", request->file, "a table, TM-27 XML or CGATS text (docs/formats.md)")->required();
  add_text(*command, "--column", request->column, "which column of light, by title or number from 1");
  add_text(*command, "--unit", request->unit, "what values are, where the file does not say")
      ->check(CLI::IsMember({"photons", "power"}));
  add_text(*command, "--with", request->with_file, "a second spectrum, mixed with the first");
  add_number(*command, "--share", request->share, {"share", "", 0, 1}, "the second's share of the PPFD, 0 to 1");
  add_text(*command, "--band", request->bands, "a band of one's own, such as 640-680; may be given again");
  command->add_flag("--json", request->json, "as JSON");
  command->callback([=, &status] { status = spectrum(*request); });
}

}  // namespace sunbreak::cli

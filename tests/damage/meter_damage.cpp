#include "meter_damage.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/meters/agreement.h"
#include "core/meters/lux_factor.h"
#include "core/quantity/number.h"
#include "core/spectrum/spectrum_figures.h"
#include "exchange/spectra/spectrum_file.h"
#include "exchange/tables/meter_tables.h"
#include "exchange/tables/text_decoding.h"

namespace sunbreak::damage {
namespace {

int among(Random& random, int low, int high) {
  return low + static_cast<int>(random() % static_cast<unsigned>(high - low + 1));
}

/// All numbers of a line, with point and with comma as the mark, whatever separates them.
std::vector<double> numbers_in(std::string_view line) {
  std::vector<double> found;
  for (const char mark : {'.', ','}) {
    std::string word;
    for (const char c : std::string(line) + " ") {
      if ((c >= '0' && c <= '9') || c == mark || c == '-' || c == '+' || c == 'e' || c == 'E') {
        word += c;
        continue;
      }
      if (const auto value = parse_number(word, mark)) found.push_back(*value);
      word.clear();
    }
  }
  return found;
}

bool close(double a, double b) { return std::fabs(a - b) <= 1e-9 * std::max(1.0, std::fabs(a)); }

std::vector<std::vector<double>> numbers_by_line(const std::string& bytes) {
  std::vector<std::vector<double>> lines;
  const auto text = exchange::decode_text(bytes);
  if (!text) return lines;
  std::string line;
  for (const char c : text.value().utf8 + "\n") {
    if (c != '\n' && c != '\r')
      line += c;
    else
      lines.push_back(numbers_in(std::exchange(line, {})));
  }
  return lines;
}

/// `hint`: the line that the last one was found in, where the next one mostly follows.
bool stands_there(const std::vector<std::vector<double>>& lines, double a, double b, double scale, std::size_t& hint) {
  const auto holds = [](const std::vector<double>& line, double value) {
    return std::any_of(line.begin(), line.end(), [&](double v) { return close(v, value); });
  };
  for (std::size_t i = 0; i < lines.size(); ++i) {
    const std::size_t at = (hint + i) % lines.size();
    if (holds(lines[at], a) && holds(lines[at], b / scale)) return hint = at, true;
  }
  return false;
}

}  // namespace

ValidMeterFile make_valid_meter_file(Random& random) {
  ValidMeterFile file;
  file.kind = static_cast<ValidMeterFile::Kind>(random() % 5);
  const int rows = among(random, 20, 90), step = among(random, 1, 5);
  const bool comma = random() % 3 == 0;
  const auto number = [&](double value, int decimals) {
    std::string text = fmt::format("{:.{}f}", value, decimals);
    if (comma) std::replace(text.begin(), text.end(), '.', ',');
    return text;
  };
  const char separator = comma ? ';' : ",;\t"[random() % 3];
  for (int i = 0; i < rows; ++i) {
    const double a = file.kind <= ValidMeterFile::Tm27 ? 400 + i * step : 100 + i * 37;
    const double b = file.kind <= ValidMeterFile::Tm27
                         ? std::round(1e4 * (0.05 + std::exp(-std::pow((i - rows / 2.0) / 9, 2)))) / 1e4
                         : std::round(100 * a * 0.0183 + 100) / 100;
    file.truth.emplace_back(a, b);
  }
  switch (file.kind) {
    case ValidMeterFile::Spectrum:
      file.bytes = fmt::format("made lamp\nnm{}W/m2/nm\n", separator);
      for (const auto& [nm, light] : file.truth)
        file.bytes += fmt::format("{:g}{}{}\n", nm, separator, number(light, 4));
      break;
    case ValidMeterFile::Cgats: {
      std::string fields, values;
      for (const auto& [nm, light] : file.truth)
        fields += fmt::format("SPEC_{:g} ", nm), values += fmt::format("{:.4f} ", light);
      file.bytes = fmt::format(
          "SPECT\nSPECTRAL_BANDS \"{}\"\nSPECTRAL_START_NM \"{:g}\"\nSPECTRAL_END_NM \"{:g}\"\nNUMBER_OF_FIELDS {}\n"
          "BEGIN_DATA_FORMAT\n{}\nEND_DATA_FORMAT\nNUMBER_OF_SETS 1\nBEGIN_DATA\n{}\nEND_DATA\n",
          rows, file.truth.front().first, file.truth.back().first, rows, fields, values);
      break;
    }
    case ValidMeterFile::Tm27:
      file.bytes =
          "<?xml version=\"1.0\"?>\n<IESTM2714><SpectralDistribution><SpectralQuantity>flux</SpectralQuantity>\n";
      for (const auto& [nm, light] : file.truth)
        file.bytes += fmt::format("<SpectralData wavelength=\"{:g}\">{:.4f}</SpectralData>\n", nm, light);
      file.bytes += "</SpectralDistribution></IESTM2714>\n";
      break;
    case ValidMeterFile::LuxPairs:
      file.bytes = fmt::format("lux{}ppfd\n", separator);
      for (const auto& [lux, ppfd] : file.truth)
        file.bytes += fmt::format("{:g}{}{}\n", lux, separator, number(ppfd, 2));
      break;
    case ValidMeterFile::SensorPairs:
      file.bytes = fmt::format("trusted{}other\n", separator);
      for (const auto& [first, second] : file.truth)
        file.bytes += fmt::format("{:g}{}{}\n", first, separator, number(second, 2));
      break;
  }
  return file;
}

Judgement judge(const ValidMeterFile& valid, const std::string& damaged) {
  std::vector<std::pair<double, double>> taken;
  bool told = false;
  double scale = 1;
  const bool spectrum = valid.kind <= ValidMeterFile::Tm27;
  if (spectrum) {
    const auto read = exchange::read_spectra(damaged);
    if (!read) return {Outcome::Refused, {}};
    const exchange::SpectrumDraft& draft = read.value().spectra.front();
    told = !draft.findings.empty() || read.value().scale_needed || read.value().spectra.size() != 1;
    for (std::size_t i = 0; i < draft.spectrum.values.size(); ++i)
      taken.emplace_back(draft.spectrum.wavelengths_nm[i], draft.spectrum.values[i]);
    if (draft.spectrum.absolute && !(damaged.find("W/m2/nm") != std::string::npos)) scale = 0;
    const SpectrumFigures figures = spectrum_figures(SpectralCurve(draft.spectrum));
    for (const BandShare& band : figures.bands)
      if (std::isfinite(band.share) && (band.share < -2 || band.share > 3)) told = told || !figures.notes.empty();
  } else if (valid.kind == ValidMeterFile::LuxPairs) {
    const auto read = exchange::read_lux_pairs(damaged);
    if (!read) return {Outcome::Refused, {}};
    told = !read.value().findings.empty();
    for (const LuxPair& pair : read.value().pairs) taken.emplace_back(pair.lux, pair.ppfd);
    (void)lux_factor(read.value().pairs);
  } else {
    const auto read = exchange::read_sensor_pairs(damaged);
    if (!read) return {Outcome::Refused, {}};
    told = !read.value().findings.empty();
    for (const SensorPair& pair : read.value().pairs) taken.emplace_back(pair.first, pair.second);
    (void)agreement(read.value().pairs, 0.02, 0.02);
  }
  // Of CGATS wavelengths are counted, not written beside their light.
  if (valid.kind != ValidMeterFile::Cgats) {
    const auto lines = numbers_by_line(damaged);
    std::size_t hint = 0;
    for (const auto& [a, b] : taken)
      if (scale > 0 && !stands_there(lines, a, b, scale, hint))
        return {Outcome::Misleading, fmt::format("{} with {} was taken and stands in no line", a, b)};
  }
  if (spectrum && !told) {
    std::set<double> known;
    for (const auto& [nm, light] : valid.truth) known.insert(nm);
    for (const auto& [nm, light] : taken)
      if (!known.contains(nm)) return {Outcome::Misleading, fmt::format("{} nm is no wavelength of the file", nm)};
    const auto between =
        static_cast<std::size_t>(std::distance(known.find(taken.front().first), known.find(taken.back().first)));
    if (between + 1 != taken.size())
      return {Outcome::Misleading,
              fmt::format("{} samples between {} and {} nm", taken.size(), taken.front().first, taken.back().first)};
  }
  return {told ? Outcome::TakenWithFindings : Outcome::TakenInFull, {}};
}

}  // namespace sunbreak::damage

#include "exchange/spectra/cgats_file.h"

#include <fmt/format.h>

#include <cmath>
#include <map>
#include <optional>

#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"
#include "exchange/spectra/sample_list.h"

namespace sunbreak::exchange {
namespace {

/// Words of a line; what stands in quotation marks is one, without them. What follows a # is a remark.
std::vector<std::string> words_in(std::string_view line) {
  std::vector<std::string> words;
  std::string word;
  bool quoted = false, begun = false;
  const auto end_word = [&] {
    if (begun) words.push_back(std::exchange(word, {}));
    begun = false;
  };
  for (const char c : line) {
    if (c == '"')
      quoted = !quoted, begun = true;
    else if (!quoted && c == '#')
      break;
    else if (!quoted && (c == ' ' || c == '\t' || c == '\r'))
      end_word();
    else
      word += c, begun = true;
  }
  end_word();
  return words;
}

struct CgatsText {
  std::map<std::string, std::string> keywords;
  std::vector<std::string> fields;
  std::vector<std::string> cells;
  std::vector<int> cell_rows;
  bool format_ended = false, data_ended = false;
};

CgatsText taken_apart(std::string_view text) {
  CgatsText parts;
  enum { Keywords, Format, Data } within = Keywords;
  int row = 0;
  for (std::size_t at = 0; at <= text.size() && !parts.data_ended;) {
    const std::size_t end = std::min(text.find('\n', at), text.size());
    ++row;
    const std::vector<std::string> words = words_in(text.substr(at, end - at));
    at = end + 1;
    if (words.empty()) continue;
    if (words[0] == "BEGIN_DATA_FORMAT")
      within = Format;
    else if (words[0] == "BEGIN_DATA")
      within = Data;
    else if (words[0] == "END_DATA_FORMAT")
      within = Keywords, parts.format_ended = true;
    else if (words[0] == "END_DATA")
      parts.data_ended = true;
    else if (within == Format)
      parts.fields.insert(parts.fields.end(), words.begin(), words.end());
    else if (within == Data) {
      parts.cells.insert(parts.cells.end(), words.begin(), words.end());
      parts.cell_rows.insert(parts.cell_rows.end(), words.size(), row);
    } else if (words.size() >= 2 && words[0] != "KEYWORD")
      parts.keywords.emplace(words[0], words[1]);
  }
  return parts;
}

}  // namespace

bool looks_like_cgats(std::string_view text) {
  return text.find("BEGIN_DATA_FORMAT") != std::string_view::npos ||
         text.find("SPECTRAL_BANDS") != std::string_view::npos;
}

Result<SpectrumFile> read_cgats(std::string_view text, const SpectrumOptions& options) {
  const CgatsText parts = taken_apart(text);
  const auto keyword = [&](const char* name) -> std::optional<double> {
    const auto found = parts.keywords.find(name);
    return found == parts.keywords.end() ? std::nullopt : parse_number(found->second);
  };
  const auto bands = keyword("SPECTRAL_BANDS"), start = keyword("SPECTRAL_START_NM"), end = keyword("SPECTRAL_END_NM");
  if (!bands || !start || !end || !(*bands >= 2 && *bands <= static_cast<double>(most_samples)) ||
      *bands != std::floor(*bands) || !(*end > *start))
    return Problem{"The file does not say its wavelengths with SPECTRAL_BANDS, SPECTRAL_START_NM and SPECTRAL_END_NM",
                   "which light belongs to which wavelength is not known", "write the file again, or give a table"};
  if (!parts.format_ended || !parts.data_ended || parts.fields.empty())
    return Problem{"The file ends before its data do", "it was cut short", "copy it again"};
  if (parts.cells.size() % parts.fields.size() != 0)
    return Problem{fmt::format("There are {} values for sets of {} fields", parts.cells.size(), parts.fields.size()),
                   "which value belongs to which wavelength is not sure", "write the file again"};
  if (const auto sets = keyword("NUMBER_OF_SETS");
      sets && *sets * static_cast<double>(parts.fields.size()) != static_cast<double>(parts.cells.size()))
    return Problem{fmt::format("The file says that it has {:g} sets, and holds {}", *sets,
                               parts.cells.size() / parts.fields.size()),
                   "values were lost or added", "copy it again"};
  std::vector<std::size_t> places;
  std::optional<std::size_t> name;
  for (std::size_t i = 0; i < parts.fields.size(); ++i) {
    if (parts.fields[i].starts_with("SPEC_")) places.push_back(i);
    if (parts.fields[i] == "SAMPLE_ID" || parts.fields[i] == "SAMPLE_NAME") name = i;
  }
  if (static_cast<double>(places.size()) != *bands)
    return Problem{
        fmt::format("The file says that it has {:g} bands, and names {} fields SPEC_", *bands, places.size()),
        "which value belongs to which wavelength is not sure", "write the file again"};
  const double step = (*end - *start) / (*bands - 1);
  for (std::size_t k = 0; k < places.size(); ++k) {
    const auto named = parse_number(std::string_view(parts.fields[places[k]]).substr(5));
    if (!named || std::fabs(*named - (*start + step * static_cast<double>(k))) > 0.51)
      return Problem{fmt::format("Field {} should be of {:g} nm", parts.fields[places[k]].substr(0, 40),
                                 *start + step * static_cast<double>(k)),
                     "which value belongs to which wavelength is not sure", "write the file again"};
  }
  SpectrumFile file;
  file.understood.push_back(fmt::format("a CGATS text, {:g} bands from {:g} to {:g} nm", *bands, *start, *end));
  const SpectralScale scale = options.scale.value_or(SpectralScale::Power);
  file.understood.push_back(options.scale ? "values as you chose" : "values are power, as CGATS spectra are");
  std::optional<Problem> last_problem;
  for (std::size_t set = 0; set < parts.cells.size() / parts.fields.size(); ++set) {
    const std::size_t first = set * parts.fields.size();
    SpectrumDraft draft;
    draft.column = static_cast<int>(set) + 1;
    const auto descriptor = parts.keywords.find("DESCRIPTOR");
    draft.title = name ? parts.cells[first + *name] : descriptor != parts.keywords.end() ? descriptor->second : "";
    draft.spectrum.scale = scale;
    if (options.column && *options.column != draft.title && *options.column != std::to_string(set + 1)) continue;
    std::vector<FileSample> samples;
    for (std::size_t k = 0; k < places.size(); ++k) {
      const std::size_t cell = first + places[k];
      const double nm = *start + step * static_cast<double>(k);
      const auto value = parse_number(parts.cells[cell]);
      if (value && std::fabs(*value) <= 1e12)
        samples.push_back({nm, *value, parts.cell_rows[cell]});
      else
        draft.findings.push_back(
            {parts.cell_rows[cell], 0, true,
             fmt::format("'{}' is no number: {:g} nm was left out", parts.cells[cell].substr(0, 40), nm)});
    }
    if (const auto problem = take_samples(std::move(samples), draft))
      last_problem = *problem;
    else
      file.spectra.push_back(std::move(draft));
  }
  if (!file.spectra.empty()) return file;
  return last_problem.value_or(
      Problem{"There is no such set in the file", "nothing was taken", "choose one by its number"});
}

}  // namespace sunbreak::exchange

#include "exchange/spectra/spectrum_file.h"

#include "core/quantity/number.h"
#include "exchange/spectra/cgats_file.h"
#include "exchange/spectra/spectrum_table.h"
#include "exchange/spectra/tm27_file.h"
#include "exchange/tables/text_decoding.h"

namespace sunbreak::exchange {

Result<SpectrumFile> read_spectra(std::string_view bytes, const SpectrumOptions& options) {
  constexpr std::size_t most_bytes = 16u << 20;
  if (bytes.size() > most_bytes)
    return Problem{"The file is larger than 16 MiB", "no spectrum is that large", "check that it is the right file"};
  const auto text = decode_text(bytes);
  if (!text) return text.problem();
  const std::string& utf8 = text.value().utf8;
  const std::string_view begin = trimmed(utf8);
  if (begin.empty()) return Problem{"The file is empty", "there is nothing to take", "choose another file"};
  // An XML document says its own encoding.
  if (begin.starts_with('<')) return read_tm27(bytes, options);
  if (looks_like_cgats(begin)) return read_cgats(utf8, options);
  return read_spectrum_table(utf8, options);
}

}  // namespace sunbreak::exchange

#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/result.h"
#include "core/spectrum/spectrum.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::exchange {

/// What the user has chosen; what is left open is read off the file and said.
struct SpectrumOptions {
  std::optional<SpectralScale> scale;  ///< where the file says nothing, or something else
  std::optional<std::string> column;   ///< by its title or its number from 1
};

/// One spectrum of a file.
struct SpectrumDraft {
  std::string title;  ///< as the file calls it, or ""
  int column = 0;     ///< where it stands in the table, from 1
  Spectrum spectrum;
  std::vector<Finding> findings;
};

/// What a file of spectra was understood to say. Nothing is in the lab book yet.
struct SpectrumFile {
  std::vector<SpectrumDraft> spectra;   ///< in the file's order; one at least
  bool scale_needed = false;            ///< nothing says whether values are photons or power: it has to be chosen
  std::vector<std::string> understood;  ///< in words, for the preview
};

/// Reads what spectrometers write: a table with a column of wavelengths [nm] and one or more of light, lying or
/// standing, with any header; an XML document as of IES TM-27-14; a CGATS.17 text with SPECTRAL_ keywords. A row whose
/// cells are not surely a wavelength and a number is left out and told; so is a wavelength that is out of order or
/// comes twice with different light. Spectra of under two good rows, or with over a tenth of their rows out of order,
/// are refused. Units come from the header or from `options`, never from the values. A Problem where nothing could be
/// taken.
Result<SpectrumFile> read_spectra(std::string_view bytes, const SpectrumOptions& options = {});

}  // namespace sunbreak::exchange

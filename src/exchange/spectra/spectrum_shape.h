#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/result.h"
#include "core/spectrum/spectrum.h"
#include "exchange/tables/delimited.h"

namespace sunbreak::exchange {

/// A table of spectra as it lies: its cells, where the samples begin, what stands over them, and which column holds
/// wavelengths.
struct SpectrumShape {
  Rows rows;              ///< with wavelengths in a column
  std::string separator;  ///< in words
  bool turned = false;    ///< they lay in a row; rows and columns changed places
  std::size_t first = 0, width = 0, nm_column = 0;
  std::vector<std::string> titles;  ///< of the columns; of two rows where a unit stands under each
  std::string remarks;              ///< what else stands above
};

/// A Problem where no two rows hold a wavelength and a number, or wavelengths are said to be in another unit than nm.
Result<SpectrumShape> spectrum_shape(std::string_view text);

/// A wavelength in a cell: a number, perhaps with its unit; nothing where it is none that a spectrum may have.
std::optional<double> wavelength_in(std::string_view cell, char decimal_mark);

}  // namespace sunbreak::exchange

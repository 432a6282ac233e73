#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/spectrum/spectrum_figures.h"

namespace sunbreak::exchange {

/// A spectrum's figures as the command line and packages tell them; what is not known is null.
nlohmann::ordered_json spectrum_json(const SpectrumFigures& figures);

}  // namespace sunbreak::exchange

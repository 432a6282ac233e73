#pragma once

#include <optional>
#include <vector>

#include "core/spectrum/spectrum_figures.h"
#include "record/test_record.h"

namespace sunbreak::evaluation {

/// A spectrum of a test's record with what it says.
struct SpectrumRead {
  record::Id id = 0;
  SpectralCurve curve;
  SpectrumFigures figures;
};

/// All spectra of a record, in its order; what is no spectrum is left out. Some milliseconds each.
std::vector<SpectrumRead> measured_spectra(const record::TestRecord& record);

/// The light of spectrum_at_full() alone, without what it says.
std::optional<SpectralCurve> light_at_full(const record::TestRecord& record);

/// The spectrum that claims are held against: of the setting nearest to full, the first of them; one that names no
/// setting counts as full. Nothing where there is none.
std::optional<SpectrumRead> spectrum_at_full(const record::TestRecord& record);

/// Share of all photons under 400 nm, of what was measured there; NaN where nothing was.
double uv_share(const SpectrumFigures& figures);

/// Whether a spectrum shows ultraviolet (under 400 nm), or far red (over 700 nm), as an emitter of its own gives it.
/// Nothing where it does not reach far enough, or shows a trace that may be the tail of something else.
std::optional<bool> shows_uv(const SpectrumFigures& figures);
std::optional<bool> shows_far_red(const SpectrumFigures& figures);

}  // namespace sunbreak::evaluation

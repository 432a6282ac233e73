#include "exchange/meters/spectrum_json.h"

#include "exchange/meters/or_null.h"

namespace sunbreak::exchange {
namespace {

using nlohmann::ordered_json;

ordered_json range_json(const WavelengthRange& range) { return ordered_json::array({range.from_nm, range.to_nm}); }

}  // namespace

ordered_json spectrum_json(const SpectrumFigures& f, const std::vector<OwnBand>& own) {
  ordered_json j;
  for (std::size_t i = 0; i < photon_bands.size(); ++i) {
    const std::string id(photon_bands[i].id);
    j["photon_share"][id] = or_null(f.bands[i].share);
    j["photon_share_measured_nm"][id] = f.bands[i].any() ? range_json(f.bands[i].measured) : ordered_json(nullptr);
  }
  for (const OwnBand& band : own)
    j["own_bands"].push_back({{"from_nm", band.range.from_nm},
                              {"to_nm", band.range.to_nm},
                              {"share", or_null(band.share.share)},
                              {"whole", band.share.whole}});
  j["ppfd_share"] = or_null(f.ppfd_share);
  j["eppfd_over_ppfd"] = or_null(f.eppfd_over_ppfd);
  j["red_over_far_red"] = or_null(f.red_over_far_red);
  j["blue_over_red"] = or_null(f.blue_over_red);
  j["peaks"] = ordered_json::array();
  for (const SpectralPeak& p : f.peaks)
    j["peaks"].push_back({{"nm", p.nm}, {"width_nm", or_null(p.width_nm)}, {"share", or_null(p.share)}});
  j["cct_k"] = f.temperature ? or_null(f.temperature->cct_k) : ordered_json(nullptr);
  j["duv"] = f.temperature ? or_null(f.temperature->duv) : ordered_json(nullptr);
  j["x"] = f.color ? or_null(f.color->x) : ordered_json(nullptr);
  j["y"] = f.color ? or_null(f.color->y) : ordered_json(nullptr);
  j["ra"] = f.rendering ? or_null(f.rendering->ra) : ordered_json(nullptr);
  j["r"] = f.rendering ? ordered_json(f.rendering->r) : ordered_json(nullptr);
  j["ra_within_cie_13_3"] = f.rendering ? ordered_json(f.rendering->within_standard()) : ordered_json(nullptr);
  j["ppfd_per_lux"] = or_null(f.ppfd_per_lux());
  j["lux_per_ppfd"] = or_null(f.lux_per_ppfd);
  j["ppfd"] = f.ppfd ? or_null(*f.ppfd) : ordered_json(nullptr);
  j["range_nm"] = range_json(f.range);
  j["gaps_nm"] = ordered_json::array();
  for (const WavelengthRange& gap : f.gaps) j["gaps_nm"].push_back(range_json(gap));
  j["notes"] = f.notes;
  return j;
}

}  // namespace sunbreak::exchange

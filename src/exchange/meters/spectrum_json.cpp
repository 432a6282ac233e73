#include "exchange/meters/spectrum_json.h"

namespace sunbreak::exchange {
namespace {

using record::Json;

Json range_json(const WavelengthRange& range) { return Json::array({range.from_nm, range.to_nm}); }

}  // namespace

Json spectrum_json(const SpectrumFigures& f, const std::vector<OwnBand>& own) {
  Json j;
  for (std::size_t i = 0; i < photon_bands.size(); ++i) {
    const std::string id(photon_bands[i].id);
    j["photon_share"][id] = f.bands[i].share;
    j["photon_share_measured_nm"][id] = f.bands[i].any() ? range_json(f.bands[i].measured) : Json();
  }
  for (const OwnBand& band : own)
    j["own_bands"].push_back({{"from_nm", band.range.from_nm},
                              {"to_nm", band.range.to_nm},
                              {"share", band.share.share},
                              {"whole", band.share.whole}});
  j["ppfd_share"] = f.ppfd_share;
  j["eppfd_over_ppfd"] = f.eppfd_over_ppfd;
  j["red_over_far_red"] = f.red_over_far_red;
  j["blue_over_red"] = f.blue_over_red;
  j["peaks"] = Json::array();
  for (const SpectralPeak& p : f.peaks)
    j["peaks"].push_back({{"nm", p.nm}, {"width_nm", p.width_nm}, {"share", p.share}});
  j["cct_k"] = f.temperature ? Json(f.temperature->cct_k) : Json();
  j["duv"] = f.temperature ? Json(f.temperature->duv) : Json();
  j["x"] = f.color ? Json(f.color->x) : Json();
  j["y"] = f.color ? Json(f.color->y) : Json();
  j["ra"] = f.rendering ? Json(f.rendering->ra) : Json();
  j["r"] = f.rendering ? Json(f.rendering->r) : Json();
  j["ra_within_cie_13_3"] = f.rendering ? Json(f.rendering->within_standard()) : Json();
  j["ppfd_per_lux"] = f.ppfd_per_lux();
  j["lux_per_ppfd"] = f.lux_per_ppfd;
  j["ppfd"] = f.ppfd;
  j["range_nm"] = range_json(f.range);
  j["gaps_nm"] = Json::array();
  for (const WavelengthRange& gap : f.gaps) j["gaps_nm"].push_back(range_json(gap));
  j["notes"] = f.notes;
  return j;
}

}  // namespace sunbreak::exchange

#include "exchange/spectra/tm27_file.h"

#include <fmt/format.h>
#include <libxml/parser.h>
#include <libxml/tree.h>

#include <cmath>
#include <memory>

#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"
#include "exchange/spectra/sample_list.h"

namespace sunbreak::exchange {
namespace {

bool named(const xmlNode* node, const char* name) {
  return node->type == XML_ELEMENT_NODE && xmlStrEqual(node->name, reinterpret_cast<const xmlChar*>(name));
}

std::string text_of(xmlNode* node) {
  const std::unique_ptr<xmlChar, decltype(xmlFree)> text(xmlNodeGetContent(node), xmlFree);
  return text ? std::string(trimmed(reinterpret_cast<const char*>(text.get()))) : std::string();
}

xmlNode* child(xmlNode* parent, const char* name) {
  for (xmlNode* node = parent->children; node; node = node->next)
    if (named(node, name)) return node;
  return nullptr;
}

}  // namespace

Result<SpectrumFile> read_tm27(std::string_view bytes, const SpectrumOptions& options) {
  const std::unique_ptr<xmlDoc, decltype(&xmlFreeDoc)> document(
      xmlReadMemory(bytes.data(), static_cast<int>(bytes.size()), nullptr, nullptr,
                    XML_PARSE_NONET | XML_PARSE_NOERROR | XML_PARSE_NOWARNING),
      xmlFreeDoc);
  if (!document)
    return Problem{"The file begins as XML and is not well formed", "it may have been cut short", "copy it again"};
  if (document->intSubset)
    return Problem{"The XML document declares entities", "no spectrum needs any, and they may hide what it holds",
                   "write it again without a DOCTYPE"};
  xmlNode* root = xmlDocGetRootElement(document.get());
  xmlNode* distribution = root ? child(root, "SpectralDistribution") : nullptr;
  if (root && named(root, "SpectralDistribution")) distribution = root;
  if (!distribution)
    return Problem{"The XML document holds no SpectralDistribution", "it is not of IES TM-27-14",
                   "write the spectrum as of TM-27-14, or give a table"};
  xmlNode* quantity = child(distribution, "SpectralQuantity");
  const std::string what = quantity ? lower_case(text_of(quantity)) : std::string();
  const bool light = what == "flux" || what == "intensity" || what == "irradiance" || what == "radiance" ||
                     what == "exitance" || what == "relative";
  if (!what.empty() && what != "other" && !light)
    return Problem{fmt::format("The document tells '{}' by wavelength", what.substr(0, 40)), "that is no light",
                   "give a spectrum of a lamp"};
  SpectrumFile file;
  SpectrumDraft draft;
  draft.column = 1;
  if (xmlNode* header = child(root, "Header"))
    if (xmlNode* description = child(header, "Description")) draft.title = text_of(description).substr(0, 200);
  std::vector<FileSample> samples;
  for (xmlNode* node = distribution->children; node; node = node->next) {
    if (!named(node, "SpectralData")) continue;
    const std::unique_ptr<xmlChar, decltype(xmlFree)> place(
        xmlGetProp(node, reinterpret_cast<const xmlChar*>("wavelength")), xmlFree);
    const std::string place_text = place ? reinterpret_cast<const char*>(place.get()) : "";
    const auto nm = parse_number(trimmed(place_text));
    const std::string text = text_of(node);
    const auto value = parse_number(text);
    const int row = static_cast<int>(xmlGetLineNo(node));
    if (!nm || *nm < shortest_nm || *nm > longest_nm)
      draft.findings.push_back(
          {row, 0, true, fmt::format("'{}' is no wavelength in nm: not taken", place_text.substr(0, 40))});
    else if (!value || std::fabs(*value) > 1e12)
      draft.findings.push_back(
          {row, 0, true, fmt::format("'{}' is no number: {:g} nm was left out", text.substr(0, 40), *nm)});
    else
      samples.push_back({*nm, *value, row});
  }
  draft.spectrum.scale = options.scale.value_or(SpectralScale::Power);
  file.scale_needed = !options.scale && !light;
  if (const auto problem = take_samples(std::move(samples), draft)) return *problem;
  file.understood.push_back(fmt::format("an XML document as of IES TM-27-14, {} samples from {:g} to {:g} nm, {}",
                                        draft.spectrum.values.size(), draft.spectrum.wavelengths_nm.front(),
                                        draft.spectrum.wavelengths_nm.back(),
                                        options.scale ? "values as you chose"
                                        : light       ? "spectral " + what + ", which is power"
                                                      : "of photons or power: not said"));
  file.spectra.push_back(std::move(draft));
  return file;
}

}  // namespace sunbreak::exchange

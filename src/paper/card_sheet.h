#pragma once

#include <string>

#include "core/quantity/display.h"
#include "core/result.h"
#include "evaluation/settings_card.h"
#include "paper/pages.h"

namespace sunbreak::paper {

/// The settings card on paper, to hang beside the fixture: a row a stage of growth with height, dimmer, hours, light,
/// watts and the chance that it serves.
Result<std::string> settings_card_pdf(const record::TestRecord& record, const evaluation::SettingsCard& card,
                                      UnitSystem units, const PaperSize& size);

}  // namespace sunbreak::paper

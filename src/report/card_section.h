#pragma once

#include <kainjow/mustache.hpp>
#include <string>

#include "evaluation/settings_card.h"

namespace sunbreak::report {

/// The settings card of a test and the predictions that were confirmed or not. Nothing for a test without them.
void add_card_section(kainjow::mustache::data& page, const evaluation::TestRecord& record,
                      const evaluation::SettingsCard* card, UnitSystem units);

/// The settings card as a page of its own, to be printed: self-contained, no script.
std::string settings_card_page(const evaluation::TestRecord& record, const evaluation::SettingsCard& card,
                               UnitSystem units);

}  // namespace sunbreak::report

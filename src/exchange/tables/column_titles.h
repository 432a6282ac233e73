#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/result.h"

namespace sunbreak::exchange {

using TitleWords = std::vector<std::string>;

/// Lower-case words of a title: "x (cm)" gives x, cm.
TitleWords title_words(std::string_view title);

/// Whether a column's title says that it holds another quantity than PPFD, or PPFD in another unit.
bool names_other_quantity(const TitleWords& words);

/// What is said of a column or table of another quantity.
Problem not_ppfd(const std::string& title);

/// Whether a remark above a table says that it holds illuminance, irradiance or daily light: a word such as "watt"
/// there may well speak of the fixture.
bool remark_names_other_quantity(const TitleWords& words);

/// Whether a column's title names light read there: ppfd, value, reading, …
bool names_light(const TitleWords& words);

/// Whether a column's title says that it holds a place, a count or a moment: "row", "x (cm)", "station"; but not "row
/// 3", which numbers a column of readings.
bool names_place(const TitleWords& words);

}  // namespace sunbreak::exchange

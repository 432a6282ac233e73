#pragma once

#include <string>

namespace sunbreak {

/// A text without what cannot be seen in it but changes how it reads: control characters are shown as their symbols
/// (NUL as ␀), marks that turn the direction of text are dropped. Tabs and line ends stay.
std::string visible(const std::string& utf8);

}  // namespace sunbreak

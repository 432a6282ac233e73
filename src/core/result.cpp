#include "core/result.h"

namespace sunbreak {

std::string Problem::sentence() const {
  std::string text = seen;
  for (const std::string* part : {&means, &remedy})
    if (!part->empty()) text += "; " + *part;
  return text + ".";
}

}  // namespace sunbreak

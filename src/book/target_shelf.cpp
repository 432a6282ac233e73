#include "book/target_shelf.h"

#include <algorithm>

namespace sunbreak::book {

std::vector<CropTarget> crop_targets(const Book& book) { return book.all<CropTarget>("WHERE removed = 0 ORDER BY id"); }

void restore_shipped_targets(Edit& edit, const Book& book) {
  const auto present = book.all<CropTarget>("ORDER BY id");
  for (CropTarget t : evaluation::shipped_targets()) {
    const auto found = std::find_if(present.begin(), present.end(),
                                    [&](auto& p) { return p.set_name == t.set_name && p.name == t.name; });
    if (found == present.end()) {
      edit.add(t);
    } else {
      t.id = found->id;
      if (!(t == *found)) edit.save(t);
    }
  }
}

}  // namespace sunbreak::book

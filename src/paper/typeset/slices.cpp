#include "paper/typeset/slices.h"

namespace sunbreak::paper {

Slice together(Slices slices) {
  Slice one;
  for (std::size_t i = 0; i < slices.size(); ++i) one.height += (i > 0 ? slices[i].space_before : 0) + slices[i].height;
  if (!slices.empty()) one.space_before = slices.front().space_before;
  one.draw = [slices = std::move(slices)](CairoCanvas& canvas, double left, double top) {
    for (std::size_t i = 0; i < slices.size(); ++i) {
      if (i > 0) top += slices[i].space_before;
      if (slices[i].draw) slices[i].draw(canvas, left, top);
      top += slices[i].height;
    }
  };
  return one;
}

std::vector<std::vector<Placed>> paginated(const Slices& slices, double page_height) {
  std::vector<std::vector<Placed>> pages(1);
  double top = 0;
  for (std::size_t i = 0; i < slices.size();) {
    // What has to stand on one page with it.
    std::size_t end = i + 1;
    double height = slices[i].height;
    for (; end < slices.size() && slices[end - 1].stays_with_next; ++end)
      height += slices[end].space_before + slices[end].height;
    if (!pages.back().empty() && top + slices[i].space_before + height > page_height) {
      pages.emplace_back();
      top = 0;
      if (slices[i].above)
        for (const Slice& again : *slices[i].above) {
          pages.back().push_back({&again, top});
          top += again.height;
        }
    }
    // A chain longer than a page is broken where it has to be.
    do {
      if (!pages.back().empty()) top += slices[i].space_before;
      pages.back().push_back({&slices[i], top});
      top += slices[i].height;
      ++i;
    } while (i < end && top + slices[i].space_before + slices[i].height <= page_height);
  }
  return pages;
}

}  // namespace sunbreak::paper

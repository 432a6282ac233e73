#include "gathering/entry_bytes.h"

#include <cstring>
#include <stdexcept>
#include <type_traits>
#include <vector>

#include "evaluation/lineup/lineup_figures.h"

namespace sunbreak::gathering {
namespace {

using evaluation::EntryFigure;
using evaluation::LineUpEntry;

constexpr std::uint32_t most_items = 1 << 24;

/// Puts values one after another.
class Packer {
 public:
  template <typename T>
  requires std::is_arithmetic_v<T> || std::is_enum_v<T>
  void operator()(T& value) { bytes_.append(reinterpret_cast<const char*>(&value), sizeof value); }
  void operator()(std::string& text) {
    auto size = static_cast<std::uint32_t>(text.size());
    (*this)(size);
    bytes_ += text;
  }
  template <typename T>
  void operator()(std::vector<T>& list) {
    auto size = static_cast<std::uint32_t>(list.size());
    (*this)(size);
    for (T& item : list) pack(*this, item);
  }
  template <typename T>
  void operator()(std::optional<T>& value) {
    bool there = value.has_value();
    (*this)(there);
    if (there) pack(*this, *value);
  }
  std::string take() { return std::move(bytes_); }

 private:
  std::string bytes_;
};

/// Takes them out again in the same order.
class Unpacker {
 public:
  explicit Unpacker(std::string_view bytes) : bytes_(bytes) {}
  template <typename T>
  requires std::is_arithmetic_v<T> || std::is_enum_v<T>
  void operator()(T& value) { std::memcpy(&value, next(sizeof value), sizeof value); }
  void operator()(std::string& text) {
    const std::uint32_t size = count();
    text.assign(next(size), size);
  }
  template <typename T>
  void operator()(std::vector<T>& list) {
    list.resize(count());
    for (T& item : list) pack(*this, item);
  }
  template <typename T>
  void operator()(std::optional<T>& value) {
    bool there = false;
    (*this)(there);
    value.reset();
    if (there) pack(*this, value.emplace());
  }
  bool at_end() const { return bytes_.empty(); }

 private:
  std::uint32_t count() {
    std::uint32_t size = 0;
    (*this)(size);
    if (size > most_items || size > bytes_.size()) throw std::out_of_range("kept entry");
    return size;
  }
  const char* next(std::size_t size) {
    if (size > bytes_.size()) throw std::out_of_range("kept entry");
    const char* at = bytes_.data();
    bytes_.remove_prefix(size);
    return at;
  }
  std::string_view bytes_;
};

// What each is made of, for both ways.
template <typename Way, typename T>
void pack(Way& way, T& value) {
  way(value);
}
template <typename Way>
void pack(Way& way, std::pair<int, double>& part) {
  way(part.first), way(part.second);
}
template <typename Way>
void pack(Way& way, std::pair<int, std::string>& lack) {
  way(lack.first), way(lack.second);
}
template <typename Way>
void pack(Way& way, Problem& p) {
  way(p.seen), way(p.means), way(p.remedy);
}
template <typename Way>
void pack(Way& way, Spot& s) {
  way(s.name), way(s.x_m), way(s.y_m);
}
template <typename Way>
void pack(Way& way, EntryFigure& f) {
  way(f.value), way(f.own_variance), way(f.between_variance), way(f.bias), way(f.shared);
}
template <typename Way>
void pack(Way& way, LineUpEntry& e) {
  ComparedFacts& f = e.facts;
  way(e.none);
  way(f.footprint.width_m), way(f.footprint.depth_m), way(f.walls), way(f.grid), way(f.columns), way(f.rows);
  way(f.height_m), way(f.height_rule), way(f.sensor), way(f.grade), way(f.simulated);
  way(e.height_m), way(e.percent), way(e.power_w), way(e.photoperiod_h);
  way(e.changes), way(e.sources), way(e.figures), way(e.lacks);
  way(e.footprint.width_m), way(e.footprint.depth_m);
  way(e.grid.kind), way(e.grid.columns), way(e.grid.rows), way(e.grid.margin_x_m), way(e.grid.margin_y_m);
  way(e.grid.spots), way(e.ppfd), way(e.spectrum);
}

}  // namespace

std::string bytes_of(const LineUpEntry& entry) {
  LineUpEntry copy = entry;
  Packer packer;
  pack(packer, copy);
  return packer.take();
}

std::optional<LineUpEntry> entry_from(std::string_view bytes) {
  try {
    LineUpEntry entry;
    Unpacker unpacker(bytes);
    pack(unpacker, entry);
    const std::size_t figures = evaluation::lineup_figures().size();
    if (!unpacker.at_end() || entry.figures.size() != figures) return {};
    for (const EntryFigure& f : entry.figures)
      for (const auto& [source, standard] : f.shared)
        if (source < 0 || source >= std::ssize(entry.sources)) return {};
    return entry;
  } catch (const std::exception&) {
    return {};
  }
}

}  // namespace sunbreak::gathering

#include "record/log_samples.h"

#include <zlib.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <stdexcept>
#include <string>

#include <fmt/format.h>

#include "record/faults.h"
#include "record/kinds.h"

namespace sunbreak::record {
namespace {

constexpr char packed_version = 1;
constexpr int most_decimals = 6, kept_as_is = 255;
constexpr std::size_t most_samples = 10'000'000, most_unpacked = 512u << 20;
constexpr double largest_scaled = 9e15;

constexpr std::array columns{&LogSample::time_s,       &LogSample::light_raw,   &LogSample::power_w,
                             &LogSample::voltage_v,    &LogSample::current_a,   &LogSample::apparent_va,
                             &LogSample::power_factor, &LogSample::frequency_hz};

/// The fewest decimals with which all values of a column come back exactly; kept_as_is where six do not do.
int decimals_shared(std::span<const LogSample> samples, double LogSample::*column) {
  double scale = 1;
  for (int decimals = 0; decimals <= most_decimals; ++decimals, scale *= 10)
    if (std::all_of(samples.begin(), samples.end(), [&](const LogSample& s) {
          const double v = s.*column, scaled = std::round(v * scale);
          return std::isnan(v) ||
                 (std::abs(scaled) < largest_scaled && scaled / scale == v && !(v == 0 && std::signbit(v)));
        }))
      return decimals;
  return kept_as_is;
}

/// Unsigned, seven bits a byte, lowest first (LEB128).
void put(std::string& bytes, std::uint64_t value) {
  for (; value >= 0x80; value >>= 7) bytes += static_cast<char>(value | 0x80);
  bytes += static_cast<char>(value);
}

class Reader {
 public:
  explicit Reader(std::string_view bytes) : bytes_(bytes) {}
  std::uint8_t byte() {
    if (at_ >= bytes_.size()) throw std::runtime_error("they end too early");
    return static_cast<std::uint8_t>(bytes_[at_++]);
  }
  std::uint64_t number() {
    std::uint64_t value = 0;
    for (int shift = 0; shift < 64; shift += 7) {
      const std::uint8_t b = byte();
      value |= static_cast<std::uint64_t>(b & 0x7f) << shift;
      if (!(b & 0x80)) return value;
    }
    throw std::runtime_error("a number in them is too long");
  }
  double real() {
    double value = 0;
    if (at_ + sizeof value > bytes_.size()) throw std::runtime_error("they end too early");
    std::memcpy(&value, bytes_.data() + at_, sizeof value);
    at_ += sizeof value;
    return value;
  }
  bool at_end() const { return at_ == bytes_.size(); }

 private:
  std::string_view bytes_;
  std::size_t at_ = 0;
};

std::uint64_t zigzag(std::int64_t v) {
  return (static_cast<std::uint64_t>(v) << 1) ^ static_cast<std::uint64_t>(v >> 63);
}
std::int64_t unzigzag(std::uint64_t v) { return static_cast<std::int64_t>(v >> 1) ^ -static_cast<std::int64_t>(v & 1); }

std::vector<LogSample> unpack(const std::string& data) {
  if (data.size() < 5 || data[0] != packed_version) throw std::runtime_error("they are of no known kind");
  std::uint32_t size = 0;
  std::memcpy(&size, data.data() + 1, sizeof size);
  if (size > most_unpacked) throw std::runtime_error("they would be too many");
  std::string plain(size, '\0');
  uLongf got = size;
  if (uncompress(reinterpret_cast<Bytef*>(plain.data()), &got, reinterpret_cast<const Bytef*>(data.data()) + 5,
                 static_cast<uLong>(data.size() - 5)) != Z_OK ||
      got != size)
    throw std::runtime_error("they do not inflate");
  Reader from(plain);
  const std::uint64_t count = from.number();
  if (count > most_samples) throw std::runtime_error("they would be too many");
  std::vector<LogSample> samples(count);
  for (const auto column : columns) {
    const int decimals = from.byte();
    if (decimals > most_decimals && decimals != kept_as_is) throw std::runtime_error("a column is of no known kind");
    const double scale = std::pow(10.0, decimals == kept_as_is ? 0 : decimals);
    std::int64_t last = 0;
    for (LogSample& s : samples) {
      if (decimals == kept_as_is) {
        s.*column = from.real();
        continue;
      }
      const std::uint64_t step = from.number();
      if (step == 0) {
        s.*column = LogSample::missing;
        continue;
      }
      last =
          static_cast<std::int64_t>(static_cast<std::uint64_t>(last) + static_cast<std::uint64_t>(unzigzag(step - 1)));
      s.*column = static_cast<double>(last) / scale;
    }
  }
  if (!from.at_end()) throw std::runtime_error("something stands after them");
  return samples;
}

}  // namespace

Bytes pack_samples(std::span<const LogSample> samples) {
  std::string plain;
  put(plain, samples.size());
  for (const auto column : columns) {
    const int decimals = decimals_shared(samples, column);
    plain += static_cast<char>(decimals);
    const double scale = std::pow(10.0, decimals == kept_as_is ? 0 : decimals);
    std::int64_t last = 0;
    for (const LogSample& s : samples) {
      const double v = s.*column;
      if (decimals == kept_as_is) {
        plain.append(reinterpret_cast<const char*>(&v), sizeof v);
      } else if (std::isnan(v)) {
        put(plain, 0);
      } else {
        const auto scaled = static_cast<std::int64_t>(std::llround(v * scale));
        put(plain, zigzag(scaled - last) + 1);
        last = scaled;
      }
    }
  }
  uLongf size = compressBound(static_cast<uLong>(plain.size()));
  std::string packed(5 + size, '\0');
  packed[0] = packed_version;
  const auto plain_size = static_cast<std::uint32_t>(plain.size());
  std::memcpy(packed.data() + 1, &plain_size, sizeof plain_size);
  if (compress2(reinterpret_cast<Bytef*>(packed.data()) + 5, &size, reinterpret_cast<const Bytef*>(plain.data()),
                static_cast<uLong>(plain.size()), 6) != Z_OK)
    throw std::runtime_error("a log could not be packed");
  packed.resize(5 + size);
  return {std::move(packed)};
}

Result<std::vector<LogSample>> unpack_samples(const Bytes& bytes) {
  try {
    return unpack(bytes.data);
  } catch (const std::runtime_error& e) {
    return Problem{std::string("the samples of a log cannot be read: ") + e.what(), "that stretch is left out",
                   "bring the log in again, or open a backup"};
  }
}

namespace {

struct SampleRange {
  const char* name;
  double LogSample::*member;
  const Column* column;  ///< of a wall reading: what meter and sensor can show is said where these are described
};

const auto& sample_ranges() {
  static const auto ranges = [] {
    std::array<SampleRange, 7> all{{{"light_raw", &LogSample::light_raw, nullptr},
                                    {"power_w", &LogSample::power_w, nullptr},
                                    {"voltage_v", &LogSample::voltage_v, nullptr},
                                    {"current_a", &LogSample::current_a, nullptr},
                                    {"apparent_va", &LogSample::apparent_va, nullptr},
                                    {"power_factor", &LogSample::power_factor, nullptr},
                                    {"frequency_hz", &LogSample::frequency_hz, nullptr}}};
    for (SampleRange& r : all) r.column = kind_of<WallReading>().column(r.name);
    return all;
  }();
  return ranges;
}

bool outside(const SampleRange& range, double value) {
  return !std::isnan(value) && !(value >= range.column->least && value <= range.column->most);
}

bool is_moment(double time_s) { return time_s >= first_moment_s && time_s < last_moment_s; }

}  // namespace

bool sample_possible(const LogSample& s) {
  return is_moment(s.time_s) && std::none_of(sample_ranges().begin(), sample_ranges().end(),
                                             [&](const SampleRange& r) { return outside(r, s.*r.member); });
}

std::optional<std::string> sample_fault(const LogSample& s) {
  if (!is_moment(s.time_s)) return "its time is no moment from 1900 to 2100";
  for (const SampleRange& r : sample_ranges())
    if (outside(r, s.*r.member))
      return fmt::format("column {}: '{}'; expected {}", r.name, s.*r.member, allowed_words(*r.column));
  return {};
}

}  // namespace sunbreak::record

#pragma once

#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <string>
#include <type_traits>
#include <vector>

#include "core/optics/emitter.h"

namespace sunbreak::bench {

using nlohmann::json;

/// Arrays written one after another, with a list of what they are.
class ArrayFile {
 public:
  explicit ArrayFile(const std::filesystem::path& file) : file_(file), out_(file, std::ios::binary) {}
  template <typename T>
  void add(const char* name, const std::vector<T>& values, std::vector<std::size_t> shape) {
    out_.write(reinterpret_cast<const char*>(values.data()), static_cast<std::streamsize>(values.size() * sizeof(T)));
    const char* kind = std::is_same_v<T, double> ? "f8" : std::is_same_v<T, float> ? "f4" : "i4";
    list_.push_back({name, kind, shape});
  }
  std::string header() {
    out_.close();
    return json{{"file", file_.string()}, {"arrays", list_}}.dump();
  }

 private:
  std::filesystem::path file_;
  std::ofstream out_;
  json list_ = json::array();
};

inline std::vector<double> flat(const std::vector<Vec3>& vectors) {
  std::vector<double> numbers;
  for (const Vec3& v : vectors) numbers.insert(numbers.end(), {v.x, v.y, v.z});
  return numbers;
}

}  // namespace sunbreak::bench

#pragma once

#include <mutex>
#include <optional>

namespace sunbreak::evaluation {

/// A value that is worked out when it is first asked for, by whichever thread asks, and kept. What is handed out stays
/// where it is and never changes.
template <typename T>
class Once {
 public:
  /// Works the value out where it is not known; who asks meanwhile waits. `make` returns a T, or an optional one that
  /// is empty where the work was given up: then null is returned and nothing is kept.
  template <typename Make>
  const T* get(Make make) const {
    const std::lock_guard hold(mutex_);
    if (!value_) {
      if (std::optional<T> made = make())
        value_.emplace(std::move(*made));
      else
        return nullptr;
    }
    return &*value_;
  }
  /// Null where it is not known yet, or is being worked out at this moment.
  const T* known() const {
    const std::unique_lock hold(mutex_, std::try_to_lock);
    return hold && value_ ? &*value_ : nullptr;
  }

 private:
  mutable std::mutex mutex_;
  mutable std::optional<T> value_;
};

}  // namespace sunbreak::evaluation

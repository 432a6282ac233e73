#pragma once

#include <QByteArray>
#include <optional>

namespace sunbreak::instruments {

/// Cuts a stream into lines. What comes without a line end beyond the longest line is thrown away, so that no flood can
/// fill the memory; the rest of that line goes with it.
class LineBuffer {
 public:
  static constexpr qsizetype longest_line = 1024;

  void add(const QByteArray& bytes);
  /// The next whole line without its end; nothing where none is complete.
  std::optional<QByteArray> next();
  void clear();

 private:
  QByteArray pending_;
  bool skipping_ = false;
};

}  // namespace sunbreak::instruments

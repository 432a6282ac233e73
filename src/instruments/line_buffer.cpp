#include "instruments/line_buffer.h"

namespace sunbreak::instruments {

void LineBuffer::add(const QByteArray& bytes) {
  qsizetype from = 0;
  if (skipping_) {
    from = bytes.indexOf('\n') + 1;
    if (from == 0) return;
    skipping_ = false;
  }
  pending_.append(bytes.constData() + from, bytes.size() - from);
  // Whole lines are taken out by next(); only an unfinished one can be too long.
  const qsizetype last_end = pending_.lastIndexOf('\n');
  if (pending_.size() - last_end - 1 > longest_line) {
    pending_.truncate(last_end + 1);
    skipping_ = true;
  }
}

std::optional<QByteArray> LineBuffer::next() {
  const qsizetype end = pending_.indexOf('\n');
  if (end < 0) return {};
  QByteArray line = pending_.left(end);
  pending_.remove(0, end + 1);
  if (line.endsWith('\r')) line.chop(1);
  return line;
}

void LineBuffer::clear() {
  pending_.clear();
  skipping_ = false;
}

}  // namespace sunbreak::instruments

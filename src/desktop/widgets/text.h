#pragma once

#include <QString>
#include <string>
#include <string_view>

namespace sunbreak::desktop {

inline QString text_of(std::string_view text) {
  return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}
inline std::string text_of(const QString& text) { return text.toStdString(); }

}  // namespace sunbreak::desktop

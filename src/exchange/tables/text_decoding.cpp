#include "exchange/tables/text_decoding.h"

#include <iconv.h>

#include <algorithm>
#include <optional>

namespace sunbreak::exchange {
namespace {

constexpr std::size_t largest_file = 64u << 20;

std::optional<std::string> convert(std::string_view bytes, const char* encoding) {
  const iconv_t converter = iconv_open("UTF-8", encoding);
  if (converter == reinterpret_cast<iconv_t>(-1)) return {};
  std::string out(bytes.size() * 3 + 4, '\0');
  char* from = const_cast<char*>(bytes.data());
  char* to = out.data();
  std::size_t left = bytes.size(), room = out.size();
  const bool whole = iconv(converter, &from, &left, &to, &room) != static_cast<std::size_t>(-1) && left == 0;
  iconv_close(converter);
  if (!whole) return {};
  out.resize(out.size() - room);
  return out;
}

/// "UTF-16LE" or "UTF-16BE" where every other byte of the start is mostly zero.
const char* utf16_without_mark(std::string_view bytes) {
  const std::size_t pairs = std::min<std::size_t>(bytes.size() / 2, 2000);
  if (pairs < 2 || bytes.size() % 2 != 0) return nullptr;
  std::size_t zeros[2] = {0, 0};
  for (std::size_t i = 0; i < 2 * pairs; ++i) zeros[i % 2] += bytes[i] == '\0';
  if (zeros[1] > pairs * 9 / 10 && zeros[0] == 0) return "UTF-16LE";
  if (zeros[0] > pairs * 9 / 10 && zeros[1] == 0) return "UTF-16BE";
  return nullptr;
}

bool is_text(std::string_view utf8) {
  return std::none_of(utf8.begin(), utf8.end(),
                      [](unsigned char c) { return c < 32 && c != '\t' && c != '\n' && c != '\r'; });
}

}  // namespace

Result<DecodedText> decode_text(std::string_view bytes) {
  const Problem not_text{"the file is not a text table", "nothing was taken from it",
                         "save it as CSV or TSV and try again"};
  if (bytes.size() > largest_file)
    return Problem{"the file is over 64 MiB", "a sweep is far smaller", "cut out the part that holds the readings"};
  std::optional<std::string> text;
  std::string encoding = "UTF-8";
  if (bytes.starts_with("\xEF\xBB\xBF")) {
    text = convert(bytes.substr(3), "UTF-8");
  } else if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF")) {
    text = convert(bytes.substr(2), bytes.front() == '\xFF' ? "UTF-16LE" : "UTF-16BE");
    encoding = "UTF-16";
  } else if (const char* kind = utf16_without_mark(bytes)) {
    text = convert(bytes, kind);
    encoding = "UTF-16";
  } else if (text = convert(bytes, "UTF-8"); !text) {
    text = convert(bytes, "ISO-8859-1");
    encoding = "Latin-1";
  }
  if (!text || !is_text(*text)) return not_text;
  return DecodedText{std::move(*text), encoding};
}

}  // namespace sunbreak::exchange

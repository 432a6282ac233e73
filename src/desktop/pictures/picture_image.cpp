#include "desktop/pictures/picture_image.h"

#include "book/book.h"
#include "pictures/pixels.h"

namespace sunbreak::desktop {

QImage image_of(const std::string& file, int most_side_px) {
  const auto pixels = pictures::pixels_of(file, most_side_px);
  if (!pixels) return {};
  const pictures::Rgb8& p = pixels.value();
  return QImage(p.bytes.data(), p.width, p.height, 3 * p.width, QImage::Format_RGB888).copy();
}

QImage kept_image(const std::filesystem::path& book, const std::string& digest, int most_side_px) {
  const auto file = book::Book::read_beside(book)->picture(digest);
  return file ? image_of(*file, most_side_px) : QImage();
}

}  // namespace sunbreak::desktop

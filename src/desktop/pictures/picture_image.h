#pragma once

#include <QImage>
#include <filesystem>
#include <string>

namespace sunbreak::desktop {

/// A picture file's pixels for the screen, its longer side `most_side_px` at most; null where it cannot be drawn. May
/// be called on any thread.
QImage image_of(const std::string& file, int most_side_px);

/// The same of a picture in a lab book that is open in this process.
QImage kept_image(const std::filesystem::path& book, const std::string& digest, int most_side_px);

}  // namespace sunbreak::desktop

#pragma once

#include <filesystem>

namespace sunbreak::desktop {

class MainWindow;

/// Writes a picture of each main view at 1280 × 800 into a folder; for the documentation. False where one fails.
bool write_shots(MainWindow& window, const std::filesystem::path& folder);

}  // namespace sunbreak::desktop

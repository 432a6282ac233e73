#include "desktop/lineup/maps_page.h"

#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>

#include "desktop/lineup/lineup_scene.h"
#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

namespace {

constexpr int maps_a_row = 4, map_rows = 2;

}  // namespace

MapsPage::MapsPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  QVBoxLayout* column = whole_column();
  words_ = wrapped_label({}, this);
  words_->setProperty("quiet", true);
  column->addWidget(words_);
  for (int r = 0; r < map_rows; ++r) {
    rows_.push_back(new LightMaps(desk_, this));
    column->addWidget(rows_.back(), 1);
  }
}

void MapsPage::show_scene(const LineUpScene& scene) {
  scene_ = scene;
  std::erase_if(scene_.order, [&](int m) { return !member(scene, m).entry->has_light(); });
  if (first_ >= std::ssize(scene_.order)) first_ = 0;
  show_part();
}

bool MapsPage::turn(int by) {
  const int page = maps_a_row * map_rows, to = first_ + by * page;
  if (to < 0 || to >= std::ssize(scene_.order)) return true;
  first_ = to;
  show_part();
  return true;
}

void MapsPage::show_part() {
  const int count = static_cast<int>(scene_.order.size()), page = maps_a_row * map_rows;
  words_->setText(
      count == 0 ? tr("No light is known in this way.")
      : count <= page
          ? tr("All on one light scale, µmol/m²/s. A dashed frame: predicted, dimmed or averaged by the way.")
          : tr("%1 to %2 of %3, all on one light scale, µmol/m²/s. Page Up and Page Down turn.")
                .arg(first_ + 1)
                .arg(std::min(count, first_ + page))
                .arg(count));
  const drawing::ScaleRange range = count > 0 ? scale_over(scene_) : drawing::ScaleRange{};
  for (int r = 0; r < map_rows; ++r) {
    std::vector<RowMap> maps;
    for (int i = first_ + r * maps_a_row; i < std::min(count, first_ + (r + 1) * maps_a_row); ++i)
      maps.push_back(map_of(scene_, scene_.order[static_cast<std::size_t>(i)], range, desk_.units()));
    rows_[static_cast<std::size_t>(r)]->setVisible(!maps.empty());
    rows_[static_cast<std::size_t>(r)]->show_maps(std::move(maps));
  }
}

}  // namespace sunbreak::desktop

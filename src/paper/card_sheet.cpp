#include "paper/card_sheet.h"

#include <fmt/format.h>

#include "core/quantity/daily_light.h"
#include "core/quantity/uncertain_text.h"

namespace sunbreak::paper {
namespace {

using namespace drawing;

constexpr double row_height = 34, head_height = 30;
constexpr int stages_a_page = 16;

struct Column {
  const char *head, *unit;
  double share;  ///< of the width
  bool bold = false;
};
constexpr Column card_columns[] = {{"Stage", "", 0.24},
                                   {"Height", "", 0.11, true},
                                   {"Dimmer", "", 0.10, true},
                                   {"Hours", "a day", 0.09, true},
                                   {"Mean PPFD", "µmol/m²/s", 0.15},
                                   {"Daily light", "mol/m²/day", 0.12},
                                   {"Watts", "at the wall", 0.10},
                                   {"Chance", "", 0.09}};

std::vector<std::string> cells_of(const evaluation::CardLine& line, UnitSystem units) {
  std::vector<std::string> cells{line.row.stage};
  if (!line.point) return cells;
  const SettlePoint& p = *line.point;
  cells.push_back(length_text(p.height->height_m, units));
  cells.push_back(short_number(p.setting.percent, 1) + " %");
  cells.push_back(short_number(line.row.photoperiod_h, 1));
  cells.push_back(uncertain_text(p.figures.mean, line.expanded.mean, 0));
  cells.push_back(fmt::format("{:.1f}", dli_mol_m2_d(p.figures.mean, line.row.photoperiod_h)));
  cells.push_back(p.setting.power_w ? fmt::format("{:.0f}", *p.setting.power_w) : "–");
  cells.push_back(chance_text(p.chance) + (line.sure ? "" : "*"));
  return cells;
}

}  // namespace

Result<std::string> settings_card_pdf(const record::TestRecord& record, const evaluation::SettingsCard& card,
                                      UnitSystem units, const PaperSize& size) {
  if (card.lines.empty())
    return Problem{"the settings card has no row", "there is nothing to print", "make it in Settle"};
  const std::string title = "Settings card: " + record.fixture.name;
  const std::string words = fmt::format(
      "Predicted from measured sweeps over {}. A stage is served where the rule is met: {}. Chance: that it is; * "
      "where no way is sure enough. Lamps get hot and glare: switch off before you hang them otherwise.",
      size_text(card.area.width_m, card.area.depth_m, units), serving_rule_words(card.request.rule));
  const double width = size.width - 2 * margin;
  std::vector<Page> pages;
  const auto count = static_cast<int>(card.lines.size());
  for (int from = 0; from < count; from += stages_a_page)
    pages.push_back([&, from](Canvas& c) {
      double y = draw_page_head(c, size, title, words);
      double x = margin;
      for (const Column& column : card_columns) {
        const double wide = column.share * width - 6;
        c.text({x, y, wide, 14}, Align::Left, column.head, {10, true, c.colors().ink});
        c.text({x, y + 13, wide, 12}, Align::Left, column.unit, {8, false, c.colors().quiet});
        x += column.share * width;
      }
      y += head_height;
      for (int n = from; n < std::min(count, from + stages_a_page); ++n) {
        const evaluation::CardLine& line = card.lines[static_cast<std::size_t>(n)];
        c.line({margin, y}, {margin + width, y}, {c.colors().rule, 0.8});
        const std::vector<std::string> cells = cells_of(line, units);
        x = margin;
        for (std::size_t k = 0; k < cells.size(); ++k) {
          const double wide = card_columns[k].share * width - 6;
          c.text({x, y + 4, wide, 16}, Align::Left, fitted(c, cells[k], 11, card_columns[k].bold, wide),
                 {11, card_columns[k].bold, c.colors().ink});
          x += card_columns[k].share * width;
        }
        std::string below = fmt::format("{:.0f} to {:.0f} µmol/m²/s wanted", line.row.low_ppfd, line.row.high_ppfd);
        if (const std::string said = evaluation::card_line_words(line); !said.empty()) below += "; " + said;
        c.text({margin, y + 19, width, 12}, Align::Left, fitted(c, below, 8, false, width),
               {8, false, c.colors().quiet});
        y += row_height;
      }
    });
  return pdf_bytes(title, record.test.tested_on, size, pages);
}

}  // namespace sunbreak::paper

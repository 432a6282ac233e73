#include "desktop/lineup/lineup_writing.h"

#include "desktop/lineup/lineup_view.h"
#include "desktop/publish/publish_folder.h"
#include "desktop/widgets/text.h"
#include "gathering/line_up_json.h"
#include "publishing/line_up_forms.h"

namespace sunbreak::desktop {

void LineUpWriting::write(std::shared_ptr<const ShownLineUp> shown, const ChosenTwo& chosen) {
  if (!shown || !shown->lineup || shown->lineup->groups().empty() || working()) return;
  std::optional<std::pair<int, int>> pair;
  if (chosen.first >= 0 && chosen.second >= 0 && chosen.first != chosen.second) pair = {chosen.first, chosen.second};
  desk_.say(LineUpView::tr("Writing page, workbook, table and stills…"));
  struct Outcome {
    std::vector<std::filesystem::path> files;
    std::optional<Problem> problem;
  };
  work_.ask(
      [shown, pair, units = desk_.units(),
       folder = std::filesystem::path(text_of(publish_folder()))](std::stop_token stop) {
        const evaluation::LineUp& lineup = *shown->lineup;
        const publishing::LineUpPublication p{lineup,
                                              "Line-up by " + std::string(lineup.figure().label),
                                              gathering::declared_way(shown->ready, units),
                                              gathering::line_up_csv(lineup, shown->ready, units),
                                              pair,
                                              units};
        auto outcome = std::make_shared<Outcome>();
        const auto own = publishing::free_folder(folder, p.title);
        outcome->problem = publishing::publish_line_up(p, own, exchange::Existing::Keep, outcome->files, stop);
        return outcome;
      },
      [this](const std::shared_ptr<Outcome>& outcome) {
        desk_.say(outcome->problem ? text_of(outcome->problem->sentence())
                                   : LineUpView::tr("Written: %1 files in %2")
                                         .arg(outcome->files.size())
                                         .arg(text_of(outcome->files.front().parent_path().string())));
      });
}

}  // namespace sunbreak::desktop

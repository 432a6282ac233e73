#include <QLabel>
#include <QProcess>
#include <map>
#include <sstream>

#include "core/figures/figure_table.h"
#include "desktop/home/test_cards.h"
#include "desktop/read/figure_row.h"
#include "desktop/widgets/text.h"
#include "desktop/window_fixture.h"
#include "exchange/package/data_package.h"
#include "exchange/tables/delimited.h"
#include "record/json.h"
#include "report/html_report.h"

namespace sunbreak::desktop {
namespace {

/// figures.csv of a test: value and ± by sweep and figure.
std::map<std::pair<int, std::string>, std::pair<double, double>> figures_csv(const record::TestRecord& test) {
  std::map<std::pair<int, std::string>, std::pair<double, double>> figures;
  const auto rows = exchange::split_verbatim(exchange::make_package(test).at("figures.csv"));
  const auto number = [](const std::string& cell) { return cell.empty() ? unread : std::stod(cell); };
  for (std::size_t r = 1; r < rows.size(); ++r)
    if (rows[r].size() > 3) figures[{std::stoi(rows[r][0]), rows[r][1]}] = {number(rows[r][2]), number(rows[r][3])};
  return figures;
}

std::string without_tags(const std::string& html) {
  std::string text;
  bool tag = false;
  for (const char c : html) {
    if (c == '<') tag = true;
    if (!tag) text += c;
    if (c == '>') tag = false, text += ' ';
  }
  std::istringstream words(text);
  std::string plain;
  for (std::string word; words >> word;) plain += word + " ";
  return plain;
}

}  // namespace

class OneTableTest : public SampleWindowTest {
 protected:
  record::Json command_line(record::Id test) {
    QProcess cli;
    cli.start(SUNBREAK_CLI, {"read", text_of(book_file()), "--test", QString::number(test), "--json"});
    EXPECT_TRUE(cli.waitForFinished(60000));
    EXPECT_EQ(cli.exitCode(), 0) << cli.readAllStandardError().toStdString();
    return record::json_of(cli.readAllStandardOutput().toStdString());
  }
  std::string shown(const Figure& figure, const char* part) {
    auto* row = window_->findChild<FigureRow*>(text_of(figure.id));
    return part ? row->findChild<QLabel*>(part)->text().toStdString() : row->value().toStdString();
  }
};

// The same figures and grades everywhere: Read, the page, the package, the command line, the cards.
TEST_F(OneTableTest, EveryReaderTellsTheSameOfEverySweepOfTheSampleBook) {
  window_->show_home();
  auto* cards = window_->findChild<TestCards*>();
  ASSERT_TRUE(QTest::qWaitFor([&] { return cards->complete(); }, 60000));
  std::map<std::string, std::string> spoken;
  for (int i = 0; i < cards->count(); ++i)
    spoken[cards->item(i)->toolTip().toStdString()] =
        cards->item(i)->data(Qt::AccessibleTextRole).toString().toStdString();

  int compared = 0;
  for (const record::Test& test : desk().book().all<record::Test>("ORDER BY id")) {
    open_test(test.id, Stage::Read);
    const auto told = command_line(test.id);
    const auto csv = figures_csv(*desk().test());
    const std::string html = report::html_report({evaluation::evaluate(*desk().test())}).html;
    const std::string title = record::title_of(*desk().test());
    EXPECT_NE(spoken.at(title).find("evidence: " + told["grade"].text()), std::string::npos) << title;
    int number = 0;
    for (const record::Sweep& sweep : std::vector(desk().test()->sweeps)) {
      ++number;
      desk().choose(sweep.rung_id, sweep.stop_id);
      ASSERT_TRUE(
          QTest::qWaitFor([&] { return desk().worked_out().budget() && desk().worked_out().weakest(); }, 60000));
      for (int i = 0; i < 3; ++i) QTest::qWait(5);
      const auto of_the_cli = std::ranges::find_if(told["sweeps"], [&](const auto& s) {
        return std::abs(s["height_m"].number() - desk().rung()->height_m) < 1e-9 &&
               std::abs(s["dimmer_pct"].number() - desk().stop()->percent) < 1e-9;
      });
      ASSERT_NE(of_the_cli, told["sweeps"].end());
      const std::string where = title + ", " + std::to_string(desk().rung()->height_m);
      const std::string heading = "<h2 id=\"sweep-" + std::to_string(desk().sweep()->id) + "\">";
      const auto from = html.find(heading);
      ASSERT_NE(from, std::string::npos) << where;
      const std::string section = without_tags(html.substr(from, html.find("<h2", from + 4) - from));
      for (const Figure& figure : figures()) {
        if (!figure.value) continue;
        const auto in_csv = csv.find({number, std::string(figure.id)});
        const double value = in_csv == csv.end() ? unread : in_csv->second.first,
                     expanded = in_csv == csv.end() ? unread : in_csv->second.second;
        const Told in_text = shown_told(figure, value, expanded, UnitSystem::Metric);
        const std::string text = in_text.value, sure = in_text.sure(), unit = shown_unit(figure, UnitSystem::Metric);
        EXPECT_EQ(shown(figure, nullptr), text) << where << ": " << figure.id;
        EXPECT_EQ(shown(figure, "uncertainty"), sure) << where << ": " << figure.id;
        if (std::isnan(value)) continue;
        ++compared;
        std::string printed = std::string(figure.label) + " " + text + (unit.empty() ? "" : " " + unit) +
                              (sure.empty() ? "" : " " + sure);
        for (std::size_t at; (at = printed.find('\'')) != std::string::npos;) printed.replace(at, 1, "&apos;");
        EXPECT_NE(section.find(printed), std::string::npos) << where << ": the page lacks " << printed;
        const auto& json = (*of_the_cli)["figures"];
        if (figure.id == "coverage")
          EXPECT_DOUBLE_EQ(json["coverage"]["in_band_share"].number(), value) << where;
        else if (figure.shown == Figure::Shown::Length)
          EXPECT_DOUBLE_EQ(json["centroid_m"][figure.id == "centroid_y_m"].number(), value) << where;
        else
          EXPECT_DOUBLE_EQ(json[std::string(figure.id)].number(), value) << where << ": " << figure.id;
        if (std::isfinite(expanded)) {
          EXPECT_DOUBLE_EQ((*of_the_cli)["uncertainty"][std::string(figure.id)]["expanded_k2"].number(), expanded)
              << where << ": " << figure.id;
        }
      }
      EXPECT_EQ((*of_the_cli)["evidence"]["grade"].text(), name(desk().worked_out().evidence_of(sweep.id)->grade))
          << where;
    }
  }
  EXPECT_GT(compared, 400) << "twenty-odd sweeps of two dozen figures";
}

}  // namespace sunbreak::desktop

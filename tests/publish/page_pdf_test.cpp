#include <fmt/format.h>
#include <gtest/gtest.h>

#include <fstream>
#include <regex>

#include "drawing/drawing.h"
#include "paper/typeset/page_pdf.h"
#include "publish/published.h"
#include "publish/run_program.h"
#include "publish/sample_tests.h"

/// The page as a PDF, as programs that we did not write read it.
namespace sunbreak {
namespace {

namespace fs = std::filesystem;

std::string text_of(const fs::path& pdf, const std::string& options = "-layout") {
  const auto [status, said] = run_program(fmt::format("pdftotext {} '{}' -", options, pdf.string()));
  EXPECT_EQ(status, 0) << said;
  return said;
}

/// Its pages' words, one text a page.
std::vector<std::string> pages_of(const fs::path& pdf, const std::string& options = "-layout") {
  std::vector<std::string> pages(1);
  for (const char c : text_of(pdf, options)) c == '\f' ? pages.emplace_back() : pages.back() += c;
  if (pages.back().empty()) pages.pop_back();
  return pages;
}

std::size_t count_of(const std::string& text, const std::string& part) {
  std::size_t n = 0;
  for (std::size_t at = text.find(part); at != std::string::npos; at = text.find(part, at + 1)) ++n;
  return n;
}

fs::path set_in(const TemporaryFolder& folder, const std::string& body, const paper::PaperSize& size = paper::a4,
                const std::vector<drawing::Drawing>& figures = {}) {
  const auto pdf =
      paper::page_pdf("<html><body><main>" + body + "</main></body></html>", figures, "Set", "2026-01-02", size);
  EXPECT_TRUE(pdf.ok());
  const fs::path file = folder.path() / "set.pdf";
  std::ofstream(file, std::ios::binary) << pdf.value();
  return file;
}

}  // namespace

TEST(PagePdf, OfASampleTestHasContentsThatHoldAndRealLetters) {
  TemporaryFolder folder;
  const publishing::Publication p = publication_of(sample_tests()[2]);
  const auto made = publishing::form_named("pdf")->make(p);
  ASSERT_TRUE(made.ok());
  const fs::path file = folder.path() / "page.pdf";
  std::ofstream(file, std::ios::binary) << made.value().front().content;
  const auto pages = pages_of(file);
  ASSERT_GT(pages.size(), 4u);
  const auto info = run_program("pdfinfo " + file.string()).second;
  EXPECT_NE(info.find("595.276 x 841.89 pts (A4)"), std::string::npos) << info;
  const auto fonts = run_program("pdffonts " + file.string()).second;
  EXPECT_NE(fonts.find("SunbreakSans"), std::string::npos);
  EXPECT_EQ(fonts.find(" no "), std::string::npos) << "embedded, with their letters: " << fonts;
  for (std::size_t n = 0; n < pages.size(); ++n)
    EXPECT_NE(pages[n].find(fmt::format("page {} of {}", n + 1, pages.size())), std::string::npos);
  // What the contents say is where it is.
  int held = 0;
  static const std::regex entry("(Whole light|Bench and meters|Definitions|Disclosure|Warm-up and power) +(\\d+)");
  for (std::size_t n = 0; n < 2; ++n)
    for (auto at = std::sregex_iterator(pages[n].begin(), pages[n].end(), entry); at != std::sregex_iterator(); ++at) {
      const auto page = static_cast<std::size_t>(std::stoi((*at)[2]));
      ASSERT_LE(page, pages.size());
      EXPECT_TRUE(std::regex_search(pages[page - 1], std::regex("(^|\\n) *" + (*at)[1].str() + " *\\n")))
          << (*at)[0] << "\n"
          << pages[page - 1];
      ++held;
    }
  EXPECT_EQ(held, 5);
  // The readings are there as words, every one of them.
  std::string all;
  for (const std::string& page : pages) all += page;
  EXPECT_NE(all.find("Corrected PPFD in"), std::string::npos);
  // Drawn by a program of others, no page is empty.
  EXPECT_EQ(run_program(fmt::format("pdftoppm -r 20 -gray {} {}/p", file.string(), folder.path().string())).first, 0);
  std::size_t drawn = 0;
  for (const auto& page : fs::directory_iterator(folder.path())) {
    if (page.path().extension() != ".pgm") continue;
    ++drawn;
    const std::string grays = content_of(page.path());
    EXPECT_GT(std::ranges::count_if(grays, [](char c) { return static_cast<unsigned char>(c) < 150; }), 15)
        << page.path();
  }
  EXPECT_EQ(drawn, pages.size());
}

TEST(PagePdf, NoRowIsSplitAndTheHeadComesAgain) {
  std::string body = "<h2 id=\"t\">Long table</h2><table class=\"figures\"><tr><th>Name</th><th>Words</th></tr>";
  for (int i = 0; i < 90; ++i)
    body += fmt::format(
        "<tr><td>begin{0}</td><td class=\"where\">row {0} {1} end{0}</td></tr>", i,
        "with so many words that it takes more than one line of the page to hold them all, and then a few more of them "
        "so that it surely does");
  TemporaryFolder folder;
  for (const paper::PaperSize& size : {paper::a4, paper::letter}) {
    const auto pages = pages_of(set_in(folder, body + "</table>", size), "");
    ASSERT_GT(pages.size(), 2u);
    for (const std::string& page : pages) {
      EXPECT_EQ(count_of(page, "Words"), 1u) << "the head on every page";
      for (int i = 0; i < 90; ++i)
        EXPECT_EQ(std::regex_search(page, std::regex(fmt::format("begin{}\\b", i))),
                  std::regex_search(page, std::regex(fmt::format("end{}\\b", i))))
            << i;
    }
  }
}

TEST(PagePdf, AFigureKeepsWholeAndAHeadingStaysWithWhatItHeads) {
  std::vector<drawing::Drawing> figures;
  for (int i = 0; i < 5; ++i)
    figures.push_back({700, 620, "a figure", [i](drawing::Canvas& c) {
                         for (const double y : {10.0, 600.0})
                           c.text({10, y, 200, 14}, drawing::Align::Left,
                                  fmt::format("{}{}", y < 100 ? "top" : "foot", i), {12, false, c.colors().ink});
                       }});
  std::string body;
  for (int i = 0; i < 5; ++i)
    body += fmt::format(
        "<h2 id=\"f{0}\">heading{0}</h2><div class=\"map\"><img src=\"figure:{0}\" width=\"700\" "
        "height=\"620\"></div><p>after</p>",
        i);
  TemporaryFolder folder;
  const auto pages = pages_of(set_in(folder, body, paper::a4, figures), "");
  ASSERT_GE(pages.size(), 4u);
  int seen = 0;
  for (const std::string& page : pages)
    for (int i = 0; i < 5; ++i) {
      const bool top = page.find(fmt::format("top{}", i)) != std::string::npos;
      EXPECT_EQ(top, page.find(fmt::format("foot{}", i)) != std::string::npos);
      EXPECT_EQ(top, page.find(fmt::format("heading{}", i)) != std::string::npos);
      seen += top;
    }
  EXPECT_EQ(seen, 5);
}

TEST(PagePdf, NothingIsLostOfWhatIsLongerThanALineOrAPage) {
  std::string body = "<p>" + std::string(9'000, 'w') + "</p><table class=\"figures\"><tr><th>A</th><th>B</th></tr>";
  body += "<tr><td>" + std::string(9'000, 'm') + "</td><td class=\"where\">";
  for (int i = 0; i < 5'000; ++i) body += "word ";
  body += "last</td></tr></table><table class=\"readings\"><tr><td>y 1</td>";
  for (int i = 0; i < 70; ++i) body += fmt::format("<td>{}</td>", 7000 + i);
  TemporaryFolder folder;
  const std::string all = text_of(set_in(folder, body + "</tr></table>"), "");
  EXPECT_EQ(std::ranges::count(all, 'w'), 9'000 + 5'000) << "in as many lines as it takes";
  EXPECT_EQ(std::ranges::count(all, 'm'), 9'000);
  EXPECT_NE(all.find("last"), std::string::npos);
  for (int i = 0; i < 70; ++i) EXPECT_NE(all.find(std::to_string(7000 + i)), std::string::npos);
  const auto [status, boxes] = run_program(fmt::format("pdftotext -bbox {}/set.pdf -", folder.path().string()));
  EXPECT_EQ(status, 0);
  static const std::regex right("xMax=\"([0-9.]+)\"");
  for (auto at = std::sregex_iterator(boxes.begin(), boxes.end(), right); at != std::sregex_iterator(); ++at)
    EXPECT_LT(std::stod((*at)[1]), 595.276 - 30) << "nothing over the edge";
}

}  // namespace sunbreak

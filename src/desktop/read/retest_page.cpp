#include "desktop/read/retest_page.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "book/test_rows.h"
#include "desktop/read/change_chart.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"
#include "evaluation/light_words.h"

namespace sunbreak::desktop {

RetestPage::RetestPage(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk), background_(this) {
  setObjectName("retestPage");
  QVBoxLayout* column = scrolled_column(this);
  head_ = heading_label({}, this);
  head_->setObjectName("retestHead");
  column->addWidget(head_);
  words_ = wrapped_label({}, this);
  words_->setObjectName("retestWords");
  words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  column->addWidget(words_);
  choose_ = new QPushButton(tr("Say on Rig which test it repeats"), this);
  choose_->setObjectName("chooseRetest");
  connect(choose_, &QPushButton::clicked, this, [this] { emit go(Stage::Rig, "retestOf"); });
  column->addWidget(choose_, 0, Qt::AlignLeft);
  chart_ = new ChangeChart(this);
  column->addWidget(chart_);
  table_ = new FiguresTable(
      {tr("Sweep"), tr("Light"), tr("Watts"), tr("Light per watt"), tr("Pattern, RMS"), tr("if unchanged")},
      tr("Retest"), this);
  table_->setObjectName("retestTable");
  column->addWidget(table_);
  auto* about = wrapped_label(
      tr("± is k = 2. What both tests were measured with, such as one sensor on one calibration, cancels. Pattern: how "
         "far stations moved against the mean, RMS, and what hanging it anew and reading make of an unchanged one."),
      this);
  about->setProperty("quiet", true);
  column->addWidget(about);
  column->addStretch();
}

void RetestPage::refresh() {
  if (!desk_.test()) return;
  const std::string of = desk_.test()->test.retest_of;
  const bool as_it_comes = desk_.test()->configuration_id == 0;
  if (of.empty() || !as_it_comes) {
    background_.drop();
    shown_for_.reset();
    head_->setText(of.empty() ? tr("A first test") : tr("A retest"));
    words_->setText(
        of.empty()
            ? tr("A year on, or with another unit of the model: walk the same heights and settings, and say which test "
                 "that repeats. What changed beyond the uncertainty stands here then.")
            : tr("Retests are held against each other as the fixture comes: { and } go to that configuration."));
    choose_->setVisible(of.empty());
    table_->setVisible(false);
    chart_->setVisible(false);
    return;
  }
  const auto evaluation = desk_.worked_out().evaluation();
  if (evaluation == shown_for_ && of == shown_of_) {
    if (answered_) show_retest();  // in another look, or other units
    return;
  }
  shown_for_ = evaluation, shown_of_ = of, answered_ = false;
  choose_->setVisible(false);
  if (table_->rowCount() == 0) words_->setText(tr("Holding the two tests against each other…"));
  background_.ask(
      [evaluation, file = desk_.book().file(), units = desk_.units()](auto) -> std::optional<evaluation::Retest> {
        const auto earlier = book::earlier_test(*book::Book::read_beside(file), evaluation->record().test);
        if (!earlier) return {};
        return evaluation::retest_of(*evaluation, *evaluation::evaluate(*earlier, nullptr, units));
      },
      [this](std::optional<evaluation::Retest> retest) {
        retest_ = std::move(retest);
        answered_ = true;
        show_retest();
      },
      [this] {
        shown_for_.reset();
        chart_->setVisible(false);
        table_->setVisible(false);
        words_->setText(
            tr("The two tests could not be held against each other: the message below says why. Come back to "
               "this page to try again."));
      });
}

void RetestPage::show_retest() {
  if (!retest_) {
    chart_->setVisible(false);
    head_->setText(tr("A retest"));
    words_->setText(tr("The test that it repeats is not in this lab book: nothing can be compared."));
    table_->setVisible(false);
    return;
  }
  const evaluation::Retest& retest = *retest_;
  chart_->show_changes(retest.sweeps, desk_.units());
  head_->setText(tr("Against %1%2")
                     .arg(text_of(retest.earlier_title),
                          retest.earlier_on.empty() ? QString() : tr(", measured %1").arg(text_of(retest.earlier_on))));
  QStringList words;
  for (const std::string& sentence : evaluation::retest_sentences(retest, desk_.units())) words << text_of(sentence);
  words_->setText(words.join("\n"));
  std::vector<std::vector<FigureCell>> rows;
  for (const evaluation::RetestedSweep& s : retest.sweeps) {
    const auto change = [](const evaluation::FigureChange& c) {
      return FigureCell{text_of(evaluation::change_text(c)),
                        c.beyond() ? tr("beyond its uncertainty") : tr("within its uncertainty"), c.beyond()};
    };
    const bool patterned = s.pattern && s.pattern->farthest >= 0;
    const auto percent = [](double share) { return tr("%1 %").arg(100 * share, 0, 'f', 1); };
    rows.push_back({{tr("%1 · %2 %").arg(text_of(length_text(s.height_m, desk_.units())), show_number(s.percent)), {}},
                    change(s.mean),
                    change(s.power),
                    change(s.efficacy),
                    {patterned ? percent(s.pattern->rms) : QStringLiteral("–"), {}, patterned && s.pattern->beyond},
                    {patterned ? percent(s.pattern->expected_rms) : QStringLiteral("–"), {}}});
  }
  table_->setVisible(!rows.empty());
  table_->show_rows(rows);
}

}  // namespace sunbreak::desktop

#include "desktop/settle/questions_page.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "core/quantity/daily_light.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

enum SettleQuestion { OfWatts, OfHeight, OfCenter, OfCorners, OfMean, OfDailyLight, SettleQuestions };

const char* const question_names[] = {"askWatts", "askHeight", "askCenter", "askCorners", "askMean", "askDailyLight"};

}  // namespace

QuestionsPage::QuestionsPage(Desk& desk, SettleWork& work, QWidget* parent)
    : QWidget(parent), desk_(desk), work_(work), background_(this) {
  setObjectName("settleQuestions");
  QVBoxLayout* column = scrolled_column(this);
  QWidget* content = column->parentWidget();
  column->setSpacing(6);
  for (int q = 0; q < SettleQuestions; ++q) {
    auto* line = new QHBoxLayout;
    line->setSpacing(6);
    Row row{};
    row.before = new QLabel(content);
    row.number = new QLineEdit(content);
    row.number->setObjectName(question_names[q]);
    row.number->setFixedWidth(64);
    row.after = new QLabel(content);
    row.stand = new QPushButton(tr("Stand there"), content);
    row.stand->setProperty("plain", true);
    row.stand->setObjectName(QStringLiteral("stand%1").arg(q));
    line->addWidget(row.before);
    line->addWidget(row.number);
    line->addWidget(row.after);
    line->addStretch();
    line->addWidget(row.stand);
    column->addLayout(line);
    row.answer = wrapped_label({}, content);
    row.answer->setObjectName(QStringLiteral("answer%1").arg(q));
    column->addWidget(row.answer);
    column->addWidget(thin_rule(content));
    connect(row.number, &QLineEdit::textEdited, this, &QuestionsPage::ask);
    connect(row.stand, &QPushButton::clicked, this, [this, q] {
      if (static_cast<std::size_t>(q) < replies_.size() && replies_[q].place)
        work_.stand_at(replies_[q].place->first, replies_[q].place->second);
    });
    rows_.push_back(row);
  }
  column->addStretch();
  const auto in_sight = [this] {
    if (isVisible()) refresh();
  };
  connect(&work_, &SettleWork::moved, this, in_sight);
  connect(&work_, &SettleWork::field_changed, this, in_sight);
}

/// Numbers that are worth asking of, where none was typed yet.
void QuestionsPage::suggest() {
  const auto& point = work_.point();
  if (!point || !desk_.test() || suggested_for_ == desk_.shown()) return;
  suggested_for_ = desk_.shown();
  const Band band = work_.request().band;
  const auto put = [&](int q, const QString& text) { rows_[static_cast<std::size_t>(q)].number->setText(text); };
  put(OfWatts, point->setting.power_w ? show_number(std::round(*point->setting.power_w)) : QString());
  put(OfHeight, show_length(point->height->height_m, desk_.units()));
  put(OfCenter, show_number(std::round(band.high)));
  put(OfCorners, show_number(std::round(band.low)));
  put(OfMean, show_number(std::round(band.low)));
  put(OfDailyLight, show_number(std::round(dli_mol_m2_d(band.low, desk_.test()->test.photoperiod_h))));
}

void QuestionsPage::refresh() {
  suggest();
  const auto& point = work_.point();
  const QString here = point ? text_of(length_text(point->height->height_m, desk_.units())) : QString(),
                setting = point ? show_number(point->setting.percent, 1) : QString(),
                unit = text_of(symbol(surface_unit(desk_.units())));
  const std::pair<QString, QString> words[] = {
      {tr("With"), tr("W, which height?")},
      {tr("At"), tr("%1, which setting?").arg(unit)},
      {tr("At which height does the center read"), tr("µmol/m²/s, at %1 %?").arg(setting)},
      {tr("At which setting do the corners read"), tr("µmol/m²/s, at %1?").arg(here)},
      {tr("Which area has a mean of"), tr("µmol/m²/s, at %1 and %2 %?").arg(here, setting)},
      {tr("Which photoperiod brings"), tr("mol/m²/d, at %1 and %2 %?").arg(here, setting)}};
  for (std::size_t q = 0; q < rows_.size(); ++q) {
    rows_[q].before->setText(words[q].first);
    rows_[q].after->setText(words[q].second);
    rows_[q].number->setAccessibleName(words[q].first + " … " + words[q].second);
  }
  ask();
}

void QuestionsPage::ask() {
  const auto& point = work_.point();
  const evaluation::TestLight* light = work_.light();
  if (!point || !light || !work_.maps() || !desk_.test()) {
    for (const Row& row : rows_) {
      row.answer->setText({});
      row.stand->hide();
    }
    return;
  }
  evaluation::SettleAsked asked;
  const auto number = [&](int q) -> std::optional<double> {
    const QLineEdit* edit = rows_[static_cast<std::size_t>(q)].number;
    if (q == OfHeight) return typed_length_m(edit->text(), desk_.units());
    const auto value = typed_number(edit->text());
    return value && *value > 0 ? value : std::nullopt;
  };
  asked = {number(OfWatts),   number(OfHeight), number(OfCenter),
           number(OfCorners), number(OfMean),   number(OfDailyLight)};
  background_.ask(
      [evaluation = desk_.worked_out().evaluation(), light, maps = work_.maps(), request = work_.request(),
       here = *point, asked, hours = desk_.test()->test.photoperiod_h, units = desk_.units()](std::stop_token stop) {
        return evaluation::settle_replies(*light, *maps, request, here, asked, hours, units, stop);
      },
      [this](std::vector<evaluation::SettleReply> replies) {
        replies_ = std::move(replies);
        for (std::size_t q = 0; q < replies_.size(); ++q) {
          const evaluation::SettleReply& reply = replies_[q];
          const bool empty = rows_[q].number->text().trimmed().isEmpty();
          set_tone(rows_[q].answer, reply.known || empty ? "" : "attention");
          rows_[q].answer->setText(!reply.words.empty()
                                       ? (reply.known ? text_of(reply.words) : marked_attention(text_of(reply.words)))
                                   : empty ? QString()
                                           : marked_attention(tr("Type a number over 0.")));
          rows_[q].stand->setVisible(reply.place.has_value());
        }
      });
}

}  // namespace sunbreak::desktop

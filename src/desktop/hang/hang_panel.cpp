#include "desktop/hang/hang_panel.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "core/sweep/correction.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/hang_guides.h"
#include "evaluation/lux_walk.h"
#include "evaluation/rig_model.h"
#include "record/plan_grid.h"

namespace sunbreak::desktop {

HangPanel::HangPanel(const QString& stage, Desk& desk, InstrumentHub& hub, QWidget* parent)
    : QWidget(parent), desk_(desk), hub_(hub), background_(this) {
  setObjectName(stage + "HangPanel");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  auto* row = new QHBoxLayout;
  row->setSpacing(6);
  row->addWidget(quiet_label(tr("Until the center reads"), this));
  wanted_ = new QLineEdit(this);
  wanted_->setObjectName(stage + "HangWanted");
  wanted_->setAccessibleName(tr("PPFD that the center is to read"));
  wanted_->setFixedWidth(56);
  row->addWidget(wanted_);
  row->addWidget(quiet_label(tr("µmol/m²/s"), this));
  reads_label_ = quiet_label(tr("now"), this);
  row->addWidget(reads_label_);
  reads_ = new QLineEdit(this);
  reads_->setObjectName(stage + "HangReads");
  reads_->setAccessibleName(tr("PPFD that the center reads now"));
  reads_->setToolTip(tr("What the meter shows at the center, where it is not connected"));
  reads_->setFixedWidth(56);
  row->addWidget(reads_);
  connect(reads_, &QLineEdit::textChanged, this, &HangPanel::show_step);
  row->addStretch();
  hung_ = new QPushButton(this);
  hung_->setProperty("plain", true);
  hung_->setObjectName(stage + "HangAgree");
  row->addWidget(hung_);
  column->addLayout(row);
  words_ = wrapped_label({}, this);
  words_->setObjectName(stage + "HangWords");
  column->addWidget(words_);
  connect(wanted_, &QLineEdit::editingFinished, this, [this] {
    if (!wanted_->isModified() || !desk_.test()) return;
    const auto ppfd = typed_number(wanted_->text());
    const bool empty = wanted_->text().trimmed().isEmpty();
    if (!empty && (!ppfd || *ppfd <= 0 || *ppfd > 20000)) {
      set_tone(words_, "bad");
      return words_->setText(marked_attention(tr("'%1' is no PPFD over 0.").arg(wanted_->text())));
    }
    record::Test test = desk_.test()->test;
    test.height_rule_ppfd = ppfd;
    if (!empty) test.height_rule = "center";
    desk_.edits().make(tr("height rule"), [&](book::Edit& edit) { edit.save(test); });
    wanted_->setModified(false);
    refresh();
  });
  connect(hung_, &QPushButton::clicked, this, &HangPanel::agree);
  connect(&hub_, &InstrumentHub::measured, this, [this] {
    if (isVisible()) show_step();
  });
  connect(&hub_, &InstrumentHub::changed, this, [this] {
    if (isVisible()) show_step();
  });
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

std::optional<double> HangPanel::center_reads() const {
  auto raw = hub_.channel(instruments::Measures::Light).live();
  if (!raw) raw = typed_number(reads_->text());
  if (!raw || !(*raw > 0) || !desk_.test()) return {};
  return corrected_ppfd(*raw, evaluation::live_correction(*desk_.test()));
}

void HangPanel::refresh() {
  if (!desk_.test()) return;
  if (!(wanted_->hasFocus() && wanted_->isModified()))
    wanted_->setText(show_number(desk_.test()->test.height_rule_ppfd, 0));
  hung_->setText(desk_.rung()
                     ? tr("It hangs at %1 now").arg(text_of(length_text(desk_.rung()->height_m, desk_.units())))
                     : QString());
  make_guide();
  show_step();
}

void HangPanel::make_guide() {
  const evaluation::TestLight* light = desk_.worked_out().light();
  if (light && (!light->found().fits || !light->left_out_known())) light = nullptr;
  Of of{desk_.test()->test.id, light, desk_.stop() ? desk_.stop()->percent : 100,
        evaluation::room_of(desk_.test()->bench), evaluation::outline_of(*desk_.test())};
  if (of_ == of) return;
  of_ = of;
  guide_.reset();
  fitted_ = light != nullptr;
  agreed_ = fitted_;
  background_.ask(
      [of, evaluation = desk_.worked_out().evaluation()](std::stop_token) {
        return std::optional(of.light ? evaluation::fitted_guide(*of.light, of.percent)
                                      : evaluation::described_guide(of.room, of.outline));
      },
      [this](std::optional<HangGuide> guide) {
        guide_ = std::move(guide);
        show_step();
      });
}

void HangPanel::agree() {
  const auto reads = center_reads();
  if (!guide_ || !reads || !desk_.rung()) return;
  guide_->agree(desk_.rung()->height_m, *reads);
  agreed_ = true;
  show_step();
}

void HangPanel::show_step() {
  const bool live = hub_.channel(instruments::Measures::Light).live().has_value();
  reads_->setVisible(!live);
  reads_label_->setVisible(!live);
  const auto reads = center_reads();
  const auto wanted = desk_.test() ? desk_.test()->test.height_rule_ppfd : std::nullopt;
  hung_->setVisible(wanted && reads && !fitted_ && desk_.rung());
  const auto say = [&](const QString& words, const char* tone = "") {
    set_tone(words_, tone);
    words_->setText(words);
  };
  if (!wanted)
    return say(
        tr("Type what the center is to read: with the sensor there, this line then says how far to raise or lower."));
  if (!reads) return say(tr("Lay the sensor at the center, and type what it shows, or connect it."));
  if (!guide_) return say(tr("Working the height out…"));
  const QString now = tr("The center reads %1").arg(*reads, 0, 'f', 0);
  if (!agreed_) return say(tr("%1. Say at which height it hangs now, by the tape.").arg(now));
  const auto step = guide_->step(*reads, *wanted);
  if (!step)
    return say(marked_attention(tr("%1; %2 is at no height that the model reaches.").arg(now).arg(*wanted, 0, 'f', 0)),
               "attention");
  constexpr double near_enough = 0.01;
  if (std::abs(*reads / *wanted - 1) < near_enough)
    return say(tr("%1: it hangs right, at about %2.").arg(now, text_of(length_text(step->now_m, desk_.units()))),
               "good");
  say((step->raise_m() > 0 ? tr("%1: raise by %2, to about %3.") : tr("%1: lower by %2, to about %3."))
          .arg(now, text_of(length_text(std::abs(step->raise_m()), desk_.units())),
               text_of(length_text(step->wanted_m, desk_.units()))));
}

}  // namespace sunbreak::desktop

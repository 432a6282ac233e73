#include "desktop/audit/audit_view.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSplitter>
#include <QVBoxLayout>
#include <cmath>

#include "core/quantity/uncertain_text.h"
#include "desktop/audit/audit_work.h"
#include "desktop/audit/claim_dialog.h"
#include "desktop/audit/claim_list.h"
#include "desktop/audit/words_table.h"
#include "desktop/desk/desk.h"
#include "desktop/paint/light_maps.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/framed.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"
#include "evaluation/light_words.h"
#include "record/claim_splitting.h"

namespace sunbreak::desktop {

using evaluation::AuditedClaim;

AuditView::AuditView(Desk& desk, QWidget* parent) : StageView(parent), desk_(desk), work_(new AuditWork(desk, this)) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 8, 12, 8);
  column->setSpacing(6);
  auto* head = new QHBoxLayout;
  head->setSpacing(8);
  sentence_ = new QLineEdit(this);
  sentence_->setObjectName("claimSentence");
  sentence_->setAccessibleName(tr("What the box says"));
  sentence_->setPlaceholderText(tr("N  what the box says, such as: 300 W; 2.8 µmol/J; flowers 90 × 90 cm at 45 cm"));
  connect(sentence_, &QLineEdit::returnPressed, this, &AuditView::take_sentence);
  head->addWidget(sentence_, 1);
  const auto button = [&](const QString& text, const char* name, const QString& tip) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(name);
    b->setToolTip(tip);
    b->setFocusPolicy(Qt::NoFocus);
    head->addWidget(b);
    return b;
  };
  auto* add = button(tr("M  Map or other claim…"), "addClaim", tr("A claim field by field; a map is pasted there."));
  connect(add, &QPushButton::clicked, this, [this] { add_claim({}); });
  edit_ = button(tr("Change…"), "editClaim", tr("Enter on a claim changes it."));
  connect(edit_, &QPushButton::clicked, this, &AuditView::edit_chosen);
  split_ = button(tr("S  Split"), "splitClaim", tr("Reads a claim that is in words alone as what it states."));
  connect(split_, &QPushButton::clicked, this, &AuditView::split_chosen);
  erase_ = button(tr("Remove"), "eraseClaim", tr("Delete takes a claim away; Ctrl+Z brings it back."));
  connect(erase_, &QPushButton::clicked, this, &AuditView::erase_chosen);
  column->addLayout(head);
  state_ = wrapped_label({}, this);
  state_->setObjectName("auditState");
  column->addWidget(state_);

  auto* down = new QSplitter(Qt::Vertical, this);
  down->setChildrenCollapsible(false);
  auto* across = new QSplitter(Qt::Horizontal, down);
  across->setChildrenCollapsible(false);
  claims_ = new ClaimList(this);
  across->addWidget(framed(claims_, across));
  auto* detail = new QWidget(across);
  detail->setObjectName("ground");
  QVBoxLayout* side = scrolled_column(detail);
  detail_head_ = heading_label({}, detail);
  detail_head_->setWordWrap(true);
  side->addWidget(detail_head_);
  maps_ = new LightMaps(desk_, detail);
  maps_->setMinimumHeight(176);
  side->addWidget(maps_);
  map_words_ = wrapped_label({}, detail);
  map_words_->setProperty("quiet", true);
  side->addWidget(map_words_);
  detail_ = wrapped_label({}, detail);
  detail_->setObjectName("claimReason");
  detail_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  side->addWidget(detail_);
  watts_ = new FiguresTable({tr("Setting"), tr("Badge"), tr("At the wall"), tr("Difference")},
                            tr("Badge and wall watts"), detail);
  watts_->setObjectName("badgeWatts");
  side->addWidget(watts_);
  side->addStretch();
  across->addWidget(detail);
  across->setStretchFactor(0, 3);
  across->setStretchFactor(1, 2);
  across->setSizes({620, 420});
  words_ = new WordsTable(desk_, this);
  words_->setMinimumHeight(110);
  down->addWidget(across);
  down->addWidget(framed(words_, down));
  down->setStretchFactor(0, 3);
  down->setStretchFactor(1, 2);
  down->setSizes({360, 220});
  column->addWidget(down, 1);

  connect(work_, &AuditWork::changed, this, &AuditView::refresh);
  connect(claims_, &ClaimList::moved, this, &AuditView::show_chosen);
  connect(claims_, &ClaimList::wants_edit, this, &AuditView::edit_chosen);
}

void AuditView::arrive() {
  refresh();
  if (desk_.test() && !record::claims_of(*desk_.test()).empty())
    take_keyboard();
  else
    sentence_->setFocus(Qt::OtherFocusReason);
}

bool AuditView::take_keyboard() {
  claims_->setFocus(Qt::OtherFocusReason);
  return true;
}

void AuditView::showEvent(QShowEvent* event) {
  StageView::showEvent(event);
  work_->set_in_sight(true);
}

void AuditView::hideEvent(QHideEvent* event) {
  StageView::hideEvent(event);
  work_->set_in_sight(false);
}

void AuditView::refresh() {
  const auto& audit = work_->audit();
  claims_->show_audit(audit);
  words_->show_words(audit);
  const bool may = desk_.test() && !desk_.read_only();
  sentence_->setEnabled(may);
  QString words;
  if (!desk_.test()) {
    words.clear();
  } else if (work_->working()) {
    words = audit ? tr("Holding the claims against the measurements anew…")
                  : tr("Fitting beam and room, then holding the claims against them…");
  } else if (work_->missed()) {
    words =
        tr("The claims could not be held against the measurements: the message below says why. Come back to this "
           "stage to try again.");
  } else if (audit) {
    int held = 0, not_kept = 0, open = 0;
    for (const AuditedClaim& a : audit->claims) {
      const Verdict v = a.judgement.verdict;
      held += v == Verdict::Confirmed;
      not_kept += v == Verdict::Short || v == Verdict::Over || v == Verdict::Contradicted;
      open += v == Verdict::NotToldApart || v == Verdict::NotTestable;
    }
    words = tr("%1 confirmed, %2 not as claimed, %3 open. Coverage goes by the list '%4'.")
                .arg(held)
                .arg(not_kept)
                .arg(open)
                .arg(text_of(audit->target_list));
  }
  state_->setText(words);
  show_chosen();
}

void AuditView::show_chosen() {
  const AuditedClaim* a = claims_->chosen();
  const bool may = a && !desk_.read_only(), on_record = a && a->claim.id != 0;
  edit_->setEnabled(may && on_record);
  erase_->setEnabled(may && on_record);
  split_->setEnabled(may && on_record && !record::is_stated(a->claim));
  maps_->setVisible(a && a->map);
  map_words_->setVisible(a && a->map);
  watts_->setVisible(false);
  if (!a) {
    detail_head_->clear();
    detail_->setText(
        tr("A claim is held against its measured counterpart, with the uncertainty: confirmed, not told "
           "apart, short, over, contradicted, or not testable here, and what would make it so."));
    return;
  }
  detail_head_->setText(QStringLiteral("%1: %2").arg(text_of(a->label), text_of(verdict_words(a->judgement))));
  QStringList lines;
  lines << tr("Claimed: %1").arg(text_of(record::claim_words(a->claim, desk_.units())));
  if (!a->claim.words.empty() && a->claim.words != a->claimed_words && record::is_stated(a->claim))
    lines << tr("In its words: %1").arg(text_of(a->claim.words));
  if (!a->measured_words.empty()) lines << tr("Measured: %1").arg(text_of(a->measured_words));
  lines << text_of(a->reason);
  // Of a condition the reason says it.
  if (!std::isnan(a->judgement.chance) && a->claim.kind != "coverage" && a->claim.kind != "height_m")
    lines << tr("Chance that what is claimed is reached: %1").arg(text_of(chance_text(a->judgement.chance)));
  if (!a->weakest.empty()) lines << tr("Its ± comes mostly from %1.").arg(text_of(a->weakest));
  if (!a->lifts.empty()) lines << tr("What would help: %1.").arg(text_of(a->lifts));
  if (!on_record) lines << tr("It stands on the fixture's sheet; it is changed there.");
  detail_->setText(lines.join("\n"));
  if (a->map) {
    const HeldMap& h = a->map->held;
    const auto [lowest, highest] = h.light_range();
    const drawing::ValueScale scale{drawing::round_range(lowest, highest)};
    std::vector<RowMap> shown{
        {tr("The maker's"), tr("mean %1").arg(h.claimed_mean, 0, 'f', 0), h.layout, h.claimed, scale, {}},
        {tr("Ours, predicted"), tr("mean %1").arg(h.our_mean, 0, 'f', 0), h.layout, h.ours, scale, {}, {}, true}};
    std::vector<double> off;
    double most = 1;
    for (const double ratio : h.ratio) {
      off.push_back(100 * (ratio - 1));
      if (!std::isnan(ratio)) most = std::max(most, std::abs(off.back()));
    }
    shown.push_back({tr("Ours less theirs"),
                     tr("%1 %").arg(text_of(evaluation::plain_number(100 * (h.mean_ratio - 1), 0))),
                     h.layout,
                     off,
                     {{-most, most}, true},
                     {0, true, "%"},
                     {},
                     true});
    maps_->show_maps(std::move(shown));
    map_words_->setText(tr("The first two on one light scale, in µmol/m²/s; the third in % of the maker's."));
  }
  if (a->claim.kind == "power_w" && work_->audit()) {
    std::vector<std::vector<FigureCell>> rows;
    for (const auto& w : work_->audit()->watts) {
      const double off = w.difference_pct();
      rows.push_back(
          {{tr("%1 %").arg(show_number(w.percent, 1)), {}},
           {std::isnan(w.badge_w) ? QStringLiteral("–") : tr("%1 W").arg(w.badge_w, 0, 'f', 0), {}},
           {text_of(w.wall_words()) + " W", {}},
           {std::isnan(off) ? QStringLiteral("–") : text_of(uncertain_difference(off, unread, 1, "%")), {}}});
    }
    watts_->show_rows(rows);
    watts_->setVisible(!rows.empty());
  }
}

void AuditView::take_sentence() {
  if (!desk_.test() || desk_.read_only()) return;
  const std::string typed = text_of(sentence_->text().trimmed());
  if (typed.empty()) return;
  record::SplitClaim split = record::split_claim(typed);
  if (split.claims.empty())
    return desk_.warn(tr("Nothing in '%1' reads as a claim. Write figures with their units, as the box has them, or "
                         "press M for a claim field by field.")
                          .arg(text_of(typed)));
  const bool kept = desk_.edits().make(tr("claims"), [&](book::Edit& edit) {
    for (record::Claim& claim : split.claims) {
      claim.fixture_id = desk_.test()->fixture.id;
      edit.add(claim);
    }
  });
  if (!kept) return;
  QStringList read;
  for (const record::Claim& claim : split.claims)
    read << QStringLiteral("%1 %2").arg(text_of(std::string(record::claim_kind(claim.kind)->label)).toLower(),
                                        text_of(record::claim_words(claim, desk_.units())));
  sentence_->setText(text_of(split.rest));
  if (split.rest.empty())
    desk_.say(tr("Read as: %1.").arg(read.join("; ")));
  else
    desk_.warn(tr("Read as: %1. What is left in the line was not understood.").arg(read.join("; ")));
}

void AuditView::add_claim(record::Claim claim, const std::string* map) {
  if (!desk_.test() || desk_.read_only()) return;
  claim.fixture_id = desk_.test()->fixture.id;
  if (claim.kind.empty()) claim.kind = "map";
  ClaimDialog dialog(desk_, claim, window());
  if (map) dialog.take_map(*map);
  if (dialog.exec() != QDialog::Accepted) return;
  desk_.edits().make(tr("claim"), [&](book::Edit& edit) { edit.add(dialog.claim()); });
}

void AuditView::edit_chosen() {
  const AuditedClaim* a = claims_->chosen();
  if (!a || desk_.read_only()) return;
  if (a->claim.id == 0) return desk_.say(tr("It stands on the fixture's sheet, under Rig or on the shelf."));
  ClaimDialog dialog(desk_, a->claim, window());
  if (dialog.exec() != QDialog::Accepted) return;
  desk_.edits().make(tr("claim"), [&](book::Edit& edit) { edit.save(dialog.claim()); });
}

void AuditView::split_chosen() {
  const AuditedClaim* a = claims_->chosen();
  if (!a || desk_.read_only() || a->claim.id == 0) return;
  if (record::is_stated(a->claim)) return desk_.say(tr("This claim states its figures already; nothing to split."));
  const record::Claim words = a->claim;
  const record::SplitClaim split = record::split_claim(words);
  if (split.claims.empty())
    return desk_.warn(
        tr("Nothing in '%1' reads as a figure. Enter changes the claim field by field; the words are kept.")
            .arg(text_of(words.words)));
  desk_.edits().make(tr("split a claim"), [&](book::Edit& edit) {
    for (const record::Claim& claim : split.claims) edit.add(claim);
    if (split.rest.empty()) {
      edit.erase<record::Claim>(words.id);
    } else {
      record::Claim rest = words;
      rest.words = split.rest;
      edit.save(rest);
    }
  });
  desk_.say(
      tr("Split into %1. Ctrl+Z puts it back.").arg(counted(std::ssize(split.claims), tr("claim"), tr("claims"))));
}

void AuditView::erase_chosen() {
  const AuditedClaim* a = claims_->chosen();
  if (!a || desk_.read_only() || a->claim.id == 0) return;
  const record::Id id = a->claim.id;
  const QString words = text_of(a->label + ", " + a->claimed_words);
  if (desk_.edits().make(tr("remove a claim"), [&](book::Edit& edit) { edit.erase<record::Claim>(id); }))
    desk_.say(tr("%1 is no claim any more. Ctrl+Z brings it back.").arg(words));
}

bool AuditView::take_table(const std::string& bytes, const QString&, const std::string&) {
  record::Claim map;
  map.kind = "map";
  add_claim(map, &bytes);
  return true;
}

void AuditView::keyPressEvent(QKeyEvent* event) {
  if (event->modifiers() == Qt::NoModifier) switch (event->key()) {
      case Qt::Key_N:
        return sentence_->setFocus(Qt::ShortcutFocusReason);
      case Qt::Key_M:
        return add_claim({});
      case Qt::Key_S:
        return split_chosen();
      case Qt::Key_Delete:
        return erase_chosen();
      case Qt::Key_W:
        return words_->setFocus(Qt::ShortcutFocusReason);
      case Qt::Key_C:
        return claims_->setFocus(Qt::ShortcutFocusReason);
      default:
        break;
    }
  StageView::keyPressEvent(event);
}

std::vector<KeyHint> AuditView::keys() const {
  return {{"N", tr("type what the box says")},
          {"M", tr("a claim field by field; Ctrl+V there or here pastes a map")},
          {tr("Up, Down"), tr("another claim; Enter changes it, Delete takes it away")},
          {"S", tr("split a claim that is in words alone")},
          {"W, C", tr("to the verdict in words, and back to the claims")},
          {tr("Enter"), tr("in the words: write a sentence over; Delete strikes it, Backspace drafts it again")},
          {"Ctrl+C", tr("copy the claims with their verdicts as a table")}};
}

QString AuditView::copy() {
  const auto& audit = work_->audit();
  if (!audit || audit->claims.empty()) return {};
  const auto number = [](double v) { return std::isnan(v) ? QString() : QString::number(v, 'g', 8); };
  QStringList lines{tr("claim\tclaimed\tunit\tmeasured\texpanded_k2\tdifference_pct\tchance\tverdict\treason")};
  for (const AuditedClaim& a : audit->claims)
    lines << QStringList{text_of(a.claim.kind),
                         number(a.claimed),
                         text_of(a.unit),
                         number(a.measured),
                         number(a.expanded),
                         number(a.judgement.difference_pct),
                         number(a.judgement.chance),
                         text_of(std::string(verdict_id(a.judgement.verdict))),
                         text_of(a.reason)}
                 .join('\t');
  QApplication::clipboard()->setText(lines.join('\n') + '\n');
  return tr("The claims are on the clipboard, a row each.");
}

}  // namespace sunbreak::desktop

#include "desktop/shelf/sheet_dialog.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/pictures/picture_strip.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "record/fact_sheet.h"

namespace sunbreak::desktop {
namespace {

using record::BoxFact;
using record::FactKind;

std::optional<BoxFact> fact_of(const Desk& desk, record::Id fixture_id, std::string_view name, const char* source) {
  // The desk's own test has them at hand: a form of dozens asks at each change.
  if (const record::TestRecord* test = desk.test(); test && test->fixture.id == fixture_id) {
    const BoxFact* fact = record::box_fact(*test, name, source);
    return fact ? std::optional(*fact) : std::nullopt;
  }
  const auto facts = desk.book().all<BoxFact>("WHERE fixture_id = ? AND name = ? AND source = ? ORDER BY id",
                                              fixture_id, std::string(name), std::string(source));
  return facts.empty() ? std::nullopt : std::optional(facts.front());
}

QString shown(const Desk& desk, const FactKind& kind, const std::optional<BoxFact>& fact) {
  if (!fact) return {};
  if (kind.holds == FactKind::Length) return show_length(fact->value, desk.units());
  return fact->value ? show_number(fact->value) : text_of(fact->words);
}

QString store(Desk& desk, record::Id fixture_id, const FactKind& kind, const char* source, std::optional<double> value,
              const std::string& words) {
  const auto present = fact_of(desk, fixture_id, kind.name, source);
  BoxFact fact = present.value_or(BoxFact{0, fixture_id, std::string(kind.name), source});
  fact.value = value;
  fact.words = words;
  const bool nothing = !value && words.empty();
  if (!nothing)
    if (const auto expected = record::fact_fault(fact))
      return QObject::tr("Not kept: what can stand here is %1.").arg(text_of(*expected));
  if (nothing && !present) return {};
  const bool kept = desk.edits().make(text_of(std::string(kind.label)).toLower(), [&](book::Edit& e) {
    if (nothing)
      e.erase<BoxFact>(present->id);
    else if (present)
      e.save(fact);
    else
      e.add(fact);
  });
  return kept ? QString() : QObject::tr("Not kept.");
}

Form::Take taker(Desk& desk, const WhichId& fixture_id, const FactKind& kind, const char* source) {
  const auto number = [=, &desk, &kind](std::optional<double> v) {
    return store(desk, fixture_id(), kind, source, v, {});
  };
  switch (kind.holds) {
    case FactKind::Length:
      return parse_length_field([&desk] { return desk.units(); }, {kind.least, kind.most}, number);
    case FactKind::Number:
    case FactKind::Count:
      return parse_number_field({kind.least, kind.most}, number);
    case FactKind::Day:
      return parse_date_field(
          [=, &desk, &kind](const QString& day) { return store(desk, fixture_id(), kind, source, {}, text_of(day)); });
    case FactKind::ProtectionCode:
      return [=, &desk, &kind](const QString& text) {
        return store(desk, fixture_id(), kind, source, {}, text_of(text.toUpper().remove(' ')));
      };
    case FactKind::Choice:
    case FactKind::Words:
      break;
  }
  return [=, &desk, &kind](const QString& text) { return store(desk, fixture_id(), kind, source, {}, text_of(text)); };
}

Form::Cell cell(Desk& desk, const WhichId& fixture_id, const FactKind& kind, const char* source, const QString& name) {
  Form::Cell c;
  c.name = name;
  c.object = QStringLiteral("fact_%1_%2").arg(text_of(std::string(kind.name)), source);
  c.show = [=, &desk, &kind] { return shown(desk, kind, fact_of(desk, fixture_id(), kind.name, source)); };
  c.take = taker(desk, fixture_id, kind, source);
  if (std::string_view(source) == "stated") c.hint = text_of(std::string(kind.hint));
  if (kind.holds != FactKind::Choice) return c;
  c.choices.push_back({QObject::tr("not stated"), ""});
  for (const std::string_view choice : kind.choices) {
    const QString words = text_of(std::string(choice));
    c.choices.push_back({words, words});
  }
  return c;
}

}  // namespace

void add_sheet_fields(Form& form, Desk& desk, const WhichId& fixture_id) {
  std::string_view group;
  for (const FactKind& kind : record::fact_kinds()) {
    if (kind.group != group) {
      group = kind.group;
      form.section(text_of(std::string(group)), "sheet_" + text_of(std::string(kind.name)));
      form.pair_heads(QObject::tr("as stated"), QObject::tr("checked here"));
    }
    Form::Show unit = [text = text_of(std::string(kind.unit))] { return text; };
    if (kind.holds == FactKind::Length) unit = [&desk] { return text_of(symbol(surface_unit(desk.units()))); };
    form.pair(text_of(std::string(kind.label)), cell(desk, fixture_id, kind, "stated", QObject::tr("as stated")),
              cell(desk, fixture_id, kind, "checked", QObject::tr("as checked here")), unit);
    if (kind.name == "ip_code")
      form.note([=, &desk]() -> QString {
        auto fact = fact_of(desk, fixture_id(), "ip_code", "checked");
        if (!fact) fact = fact_of(desk, fixture_id(), "ip_code", "stated");
        const std::string words = fact ? record::protection_words(fact->words) : "";
        return words.empty() ? QString() : text_of(fact->words + ": " + words + ".");
      });
    if (kind.name == "listing_number")
      form.note([=, &desk]() -> QString {
        return fact_of(desk, fixture_id(), "listing_body", "stated") ||
                       fact_of(desk, fixture_id(), "listing_number", "stated")
                   ? text_of(std::string(record::listing_caution()))
                   : QString();
      });
  }
}

SheetDialog::SheetDialog(Desk& desk, record::Id fixture_id, QWidget* parent) : QDialog(parent) {
  setObjectName("sheetDialog");
  const auto fixture = desk.book().find<record::Fixture>(fixture_id);
  setWindowTitle(tr("The sheet of %1").arg(fixture ? text_of(fixture->name) : tr("a fixture")));
  auto* outer = new QVBoxLayout(this);
  outer->setContentsMargins(20, 16, 20, 16);
  outer->setSpacing(8);
  auto* head = wrapped_label(
      tr("Typed once, kept with the fixture, printed in every report. Left what the box says, right what you found; "
         "what is empty is not printed."),
      this);
  head->setProperty("quiet", true);
  outer->addWidget(head);
  auto* page = new QWidget(this);
  auto* column = scrolled_column(page);
  auto* form = new Form(page);
  add_sheet_fields(*form, desk, [fixture_id] { return fixture_id; });
  form->refresh();
  form->set_editable(!desk.read_only());
  connect(&desk, &Desk::changed, form, &Form::refresh);
  column->addWidget(form);
  column->addWidget(heading_label(tr("Pictures of the fixture"), page));
  column->addWidget(new PictureStrip(desk, PictureOf::fixture(fixture_id), page));
  column->addStretch();
  outer->addWidget(page, 1);
  auto* row = new QHBoxLayout;
  row->addStretch();
  auto* done = primary_button(tr("Done"), this);
  done->setObjectName("sheetDone");
  done->setAutoDefault(false);
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  row->addWidget(done);
  outer->addLayout(row);
  resize(640, 620);
}

}  // namespace sunbreak::desktop

#pragma once

#include "desktop/desk/desk.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/text.h"
#include "record/test_record.h"

namespace sunbreak::desktop {

/// Fields of the things that outlive a test, for the Rig and for the shelf alike. `id` names the record at hand at any
/// moment; 0 where there is none.
using WhichId = std::function<record::Id()>;

QLineEdit* add_fixture_name(Form& form, Desk& desk, const WhichId& id, const QString& label);
void add_fixture_details(Form& form, Desk& desk, const WhichId& id);
void add_claim_fields(Form& form, Desk& desk, const WhichId& fixture_id);
void add_bench_size(Form& form, Desk& desk, const WhichId& id);
void add_bench_details(Form& form, Desk& desk, const WhichId& id);
void add_meter_fields(Form& form, Desk& desk, const WhichId& id, const std::string& kind);

/// Shows a member of the record `id` names, and stores what is typed as one edit called `label`.
template <typename Record, typename Value>
std::optional<Value> member_of(Desk& desk, record::Id id, Value Record::*member) {
  const auto record = desk.book().find<Record>(id);
  return record ? std::optional<Value>((*record).*member) : std::nullopt;
}

template <typename Record, typename Value>
QString store_member(Desk& desk, record::Id id, Value Record::*member, const Value& value, const QString& label) {
  auto record = desk.book().find<Record>(id);
  if (!record) return {};
  (*record).*member = value;
  return desk.edits().make(label, [&](book::Edit& e) { e.save(*record); }) ? QString() : QObject::tr("Not kept.");
}

/// A line over a text member.
template <typename Record>
QLineEdit* text_line(Form& form, Desk& desk, const WhichId& id, const QString& name, std::string Record::*member,
                     const QString& hint = {}) {
  return form.line(
      name, [=, &desk] { return text_of(member_of(desk, id(), member).value_or("")); },
      [=, &desk](const QString& text) { return store_member(desk, id(), member, text_of(text), name.toLower()); }, {},
      hint);
}

/// A line over a day, kept as year-month-day.
template <typename Record>
QLineEdit* date_line(Form& form, Desk& desk, const WhichId& id, const QString& name, std::string Record::*member) {
  return form.line(
      name, [=, &desk] { return text_of(member_of(desk, id(), member).value_or("")); },
      parse_date_field(
          [=, &desk](const QString& day) { return store_member(desk, id(), member, text_of(day), name.toLower()); }),
      {}, QObject::tr("year-month-day"));
}

}  // namespace sunbreak::desktop

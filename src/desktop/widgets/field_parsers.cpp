#include "desktop/widgets/field_parsers.h"

#include <QCoreApplication>
#include <QDate>
#include <QRegularExpression>

#include "core/quantity/number.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

QString field_text(const char* text) { return QCoreApplication::translate("fields", text); }

QString out_of_range(const QString& text, const QString& low, const QString& high) {
  return field_text("'%1' is out of range: it should lie from %2 to %3. Check the number.").arg(text, low, high);
}

bool inside(double value, const NumberRange& range) { return value >= range.low && value <= range.high; }

}  // namespace

Form::Take parse_number_field(const NumberRange& range, const std::function<QString(std::optional<double>)>& store) {
  return [=](const QString& text) -> QString {
    if (text.isEmpty()) return range.may_be_empty ? store(std::nullopt) : field_text("A number is needed here.");
    const auto value = typed_number(text);
    if (!value) return field_text("'%1' is not a number; nothing was changed. Type digits only.").arg(text);
    if (!inside(*value, range)) return out_of_range(text, QString::number(range.low), QString::number(range.high));
    return store(value);
  };
}

std::optional<double> typed_number(const QString& text) {
  return parse_number(text_of(QString(text).trimmed().replace(',', '.')));
}

std::optional<double> typed_length_m(const QString& text, UnitSystem units) {
  if (const auto bare = typed_number(text)) return to_m(*bare, surface_unit(units));
  if (const auto length = parse_length_m(text_of(QString(text).replace(',', '.')))) return length.value();
  return {};
}

Form::Take parse_length_field(const std::function<UnitSystem()>& units, const NumberRange& range_m,
                              const std::function<QString(std::optional<double>)>& store) {
  return [=](const QString& text) -> QString {
    if (text.isEmpty()) return range_m.may_be_empty ? store(std::nullopt) : field_text("A length is needed here.");
    const auto value = typed_length_m(text, units());
    if (!value)
      return field_text(
                 "'%1' is not a length; nothing was changed. Type a number, or one with its unit such as 45 cm or 18 "
                 "in.")
          .arg(text);
    if (!inside(*value, range_m))
      return out_of_range(text, text_of(length_text(range_m.low, units())),
                          text_of(length_text(range_m.high, units())));
    return store(value);
  };
}

Form::Take parse_date_field(const std::function<QString(const QString&)>& store) {
  return [=](const QString& text) -> QString {
    static const QRegularExpression form("^\\d{4}-\\d{2}-\\d{2}$");
    if (text.isEmpty()) return store({});
    if (!form.match(text).hasMatch())
      return field_text(
                 "'%1' is not a day as it is kept here; nothing was changed. Type year-month-day, like 2026-05-12.")
          .arg(text);
    if (!QDate::fromString(text, Qt::ISODate).isValid())
      return field_text(
                 "There is no day '%1' in the calendar; nothing was changed. Type year-month-day, like 2026-05-12.")
          .arg(text);
    return store(text);
  };
}

QString show_number(std::optional<double> value, int decimals) {
  return value ? text_of(short_number(*value, decimals)) : QString();
}

QString show_length(std::optional<double> meters, UnitSystem units) {
  return meters ? text_of(short_number(from_m(*meters, surface_unit(units)), 2)) : QString();
}

namespace {
/// How the commas of a list are meant. "45,5" may be one value or two, and so may a part of "60, 45,5": only who typed
/// it knows.
enum class Commas { Between, Within, Unclear };
Commas commas_of(const QString& text) {
  static const QRegularExpression tight("\\d,\\d"), loose(",\\s"), apart(";|\\d\\s+\\d");
  if (!text.contains(tight)) return Commas::Between;
  if (text.contains(loose)) return Commas::Unclear;
  if (text.contains(apart)) return Commas::Within;
  return text.count(',') == 1 ? Commas::Unclear : Commas::Between;
}

template <typename Parse>
std::optional<std::vector<double>> list_of(const QString& text, QString* problem, Parse parse) {
  std::vector<double> values;
  const Commas commas = commas_of(text);
  if (commas == Commas::Unclear) {
    *problem = field_text(
                   "A comma in '%1' may stand between two values or within one; nothing was changed. Type values "
                   "with a semicolon between them, and a point within one: 60; 45.5.")
                   .arg(text.trimmed());
    return {};
  }
  static const QRegularExpression by_comma("[;,]\\s*|\\s{2,}|(?<=\\d)\\s+(?=\\d)"),
      by_rest(";\\s*|\\s{2,}|(?<=\\d)\\s+(?=\\d)");
  const QRegularExpression& between = commas == Commas::Within ? by_rest : by_comma;
  for (const QString& part : text.split(between, Qt::SkipEmptyParts)) {
    const std::optional<double> value = parse(part.trimmed());
    if (!value) {
      *problem = field_text("'%1' was not understood; nothing was changed. Type the values with commas between them.")
                     .arg(part.trimmed());
      return {};
    }
    values.push_back(*value);
  }
  return values;
}
}  // namespace

std::optional<std::vector<double>> number_list(const QString& text, QString* problem) {
  return list_of(text, problem, [](QString part) { return typed_number(part.remove('%')); });
}

std::optional<std::vector<double>> length_list(const QString& text, UnitSystem units, QString* problem) {
  return list_of(text, problem, [=](const QString& part) { return typed_length_m(part, units); });
}

}  // namespace sunbreak::desktop

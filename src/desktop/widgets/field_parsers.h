#pragma once

#include <functional>
#include <limits>
#include <optional>

#include "core/quantity/display.h"
#include "desktop/widgets/form.h"

namespace sunbreak::desktop {

/// Text ↔ value for form fields: what is shown, and what is made of what was typed.
struct NumberRange {
  double low = -std::numeric_limits<double>::infinity(), high = std::numeric_limits<double>::infinity();
  bool may_be_empty = true;
};

/// A typed number to its value; a decimal comma is understood. Refuses in words.
Form::Take parse_number_field(const NumberRange& range, const std::function<QString(std::optional<double>)>& store);

/// A typed length to meters: bare numbers are in the surface unit, others name their own ("18 in").
Form::Take parse_length_field(const std::function<UnitSystem()>& units, const NumberRange& range_m,
                              const std::function<QString(std::optional<double>)>& store);

/// A typed day, kept as year-month-day; empty where it is not stated. Refuses in words, with the form that is taken.
Form::Take parse_date_field(const std::function<QString(const QString&)>& store);

QString show_number(std::optional<double> value, int decimals = 4);
QString show_length(std::optional<double> meters, UnitSystem units);

/// Numbers with commas, semicolons or blanks between them; words where one of them is none.
std::optional<std::vector<double>> number_list(const QString& text, QString* problem);

/// The lengths in a typed list, in meters.
std::optional<std::vector<double>> length_list(const QString& text, UnitSystem units, QString* problem);

/// One finite number; a decimal comma is understood.
std::optional<double> typed_number(const QString& text);

/// One length in meters, by the same rule as parse_length_field.
std::optional<double> typed_length_m(const QString& text, UnitSystem units);

}  // namespace sunbreak::desktop

#pragma once

#include <string>

#include "record/kinds.h"

namespace sunbreak {

/// Texts that would be programs, formulas, templates, other writing directions or endless.
inline const std::vector<std::string>& hostile_texts() {
  static const std::vector<std::string> texts{"<script>alert(1)</script><img src=x onerror=alert(2)>",
                                              "\"'><svg onload=alert(3)>&amp;</td></table></script>",
                                              "=1+1|'cmd'!A1 {{#title}}x{{/title}} {{{css}}} {{>part_card}}",
                                              "\xE2\x80\xAE"
                                              "gnp.exe \xF0\x9F\x92\xA1",
                                              std::string(10'000, 'w'),
                                              "../../etc/passwd\n\"'&",
                                              "no \uFFFE\uFFFF character \u009B31m \x01\x1b[2J \u200B\uFF1D1+1"};
  return texts;
}

/// A test with one of them in every field of every record that holds any text; `first` says which comes first.
inline record::TestRecord hostile_record(record::TestRecord test, std::size_t first = 0) {
  std::size_t n = first;
  for (record::TableRows& rows : record::tables_of(test))
    for (std::size_t i = 0; i < rows.size(); ++i)
      for (const record::Column& column : rows.kind().columns)
        if (column.type == record::Type::Text && column.words.empty() && column.time == record::Column::Plain &&
            column.refers_to.empty() && column.name != "spots")
          column.set(rows.at(i), record::Value(std::string_view(hostile_texts()[n++ % hostile_texts().size()])));
  return test;
}

}  // namespace sunbreak

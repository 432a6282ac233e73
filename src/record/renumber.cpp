#include "record/renumber.h"

#include <fmt/format.h>

#include <map>
#include <stdexcept>
#include <unordered_map>

namespace sunbreak::record {

void renumber(TestRecord& record, const std::function<Id(const Kind& kind, void* row)>& assign) {
  std::map<std::string, std::unordered_map<Id, Id>, std::less<>> new_ids;
  for (TableRows& rows : tables_of(record)) {
    const Kind& kind = rows.kind();
    auto& own = new_ids[std::string(kind.name())];
    std::vector<std::pair<const Column*, const std::unordered_map<Id, Id>*>> references;
    for (const Column& column : kind.columns)
      if (!column.refers_to.empty()) references.emplace_back(&column, &new_ids.at(column.refers_to));
    for (std::size_t i = 0; i < rows.size(); ++i) {
      void* row = rows.at(i);
      for (const auto& [column, ids] : references) {
        const Value old = column->get(row);
        if (std::holds_alternative<std::monostate>(old)) continue;
        const auto found = ids->find(std::get<std::int64_t>(old));
        if (found == ids->end())
          throw std::runtime_error(fmt::format("{}, row {}: {} names {} {}, which is not there", kind.name(), i + 1,
                                               column->name, column->refers_to, std::get<std::int64_t>(old)));
        column->set(row, found->second);
      }
      const Id old = kind.id(row);
      if (own.contains(old))
        throw std::runtime_error(fmt::format("{}, row {}: the id {} stands in it twice", kind.name(), i + 1, old));
      own[old] = kind.id(row) = assign(kind, row);
    }
  }
}

TestRecord with_plain_ids(TestRecord record) {
  std::unordered_map<const Kind*, Id> last;
  renumber(record, [&](const Kind& kind, void*) { return ++last[&kind]; });
  return record;
}

}  // namespace sunbreak::record

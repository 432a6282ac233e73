#include "book/rows_definition.h"

namespace sunbreak::book {

template struct RowsOf<Reading>;
template struct RowsOf<SideReading>;
template struct RowsOf<Placement>;
template struct RowsOf<Dismissal>;
template struct RowsOf<WallReading>;
template struct RowsOf<LogPart>;
template struct RowsOf<LampEvent>;
template struct RowsOf<StairStop>;
template struct RowsOf<StairReading>;
template struct RowsOf<Temperature>;

}  // namespace sunbreak::book

#include "book/rows_definition.h"

namespace sunbreak::book {

template struct RowsOf<Fixture>;
template struct RowsOf<Claim>;
template struct RowsOf<Bench>;
template struct RowsOf<Meter>;
template struct RowsOf<Test>;
template struct RowsOf<Rung>;
template struct RowsOf<Stop>;
template struct RowsOf<Sweep>;
template struct RowsOf<CropTarget>;
template struct RowsOf<TargetSetting>;

}  // namespace sunbreak::book

#include "cli/say.h"

namespace sunbreak::cli {

void say_json(const record::Json& value) { say_table(json_for_terminal(record::json_text(value, 2)) + "\n"); }

void say_table(const std::string& csv) { std::fwrite(csv.data(), 1, csv.size(), stdout); }

}  // namespace sunbreak::cli

#!/usr/bin/env bash
# Fails where the core includes Qt, or where an arrow of the house runs backwards. Argument: the source folder.
set -u
cd "$1" || exit 1
status=0
forbid() { # forbid FOLDER PATTERN WHY
  local hits
  hits=$(grep -rnE "$2" "$1" --include='*.h' --include='*.cpp')
  if [ -n "$hits" ]; then echo "$3:"; echo "$hits"; status=1; fi
}
[ -n "$(ls core/*/*.h)" ] || { echo "no core files found"; exit 1; }
forbid core '#include *[<"](Q[A-Z]|Qt|q[a-z]+\.h)' "src/core includes Qt"
forbid core '#include *"(book|report|desktop|cli|instruments)/' "src/core looks up the house"
forbid core '#include *<(filesystem|fstream|iostream|chrono|ctime)>' "src/core reads files or the clock"
forbid book '#include *("(report|desktop|cli)/|[<"]Q[A-Z])' "src/book looks up the house"
forbid report '#include *("(desktop|cli)/|[<"]Q[A-Z])' "src/report looks up the house"
forbid cli '#include *("desktop/|[<"]Q[A-Z])' "src/cli needs a screen"
exit $status

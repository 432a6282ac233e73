#include <fmt/format.h>

#include "book/demo/demo_book.h"
#include "book/flip_rounds.h"
#include "book/temporary_book.h"

using namespace sunbreak;

/// `./sunbreak study flips`: one byte of a lab book is changed, 2,000 times, and all of it is read. Fixed seeds; what
/// is read as something else without a word is printed.
int main() {
  int silent = 0;
  for (const unsigned seed : {7100u, 7101u, 7102u, 7103u}) {
    book::TemporaryBook folder;
    book::fill_demo(*folder);
    folder.close();
    const book::FlipRounds rounds = book::flip_and_read(folder.file(), folder.folder(), 500, seed);
    fmt::print("seed {}: {} flips: {} refused, {} told, {} changed nothing, {} silent{}\n", seed, rounds.flips,
               rounds.refused, rounds.told, rounds.same, rounds.silent,
               rounds.first.empty() ? "" : "; first " + rounds.first);
    silent += rounds.silent;
  }
  return silent > 0 ? 1 : 0;
}

#pragma once

#include "book/demo/demo_book.h"
#include "book/temporary_book.h"

namespace sunbreak::book {

/// The sample lab book's file, made once a run: who changes it works on a copy.
inline std::filesystem::path sample_book_file() {
  static const auto sample = [] {
    auto made = std::make_unique<TemporaryBook>();
    fill_demo(**made);
    made->close();
    return made;
  }();
  return sample->file();
}

}  // namespace sunbreak::book

#pragma once

#include "book/book.h"

namespace sunbreak::book {

/// Fills an empty lab book with the sample world: a seed library that tests the lamps it lends. All of it is invented
/// and computed from a fixed seed by the optical model; the tests say so.
void fill_demo(Book& book);

}  // namespace sunbreak::book

#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "exchange/package/zip_archive.h"
#include "record/test_record.h"

namespace sunbreak::exchange {

/// "sha256:…" in hexadecimal (FIPS 180-4), as a package's descriptor states it of each resource.
std::string sha256_words(std::string_view bytes);

/// What is stated in a package and does not come out of its readings.
struct Difference {
  std::string file;
  std::size_t row = 0;        ///< counted as a person does, the head being the first; 0 of the file as a whole
  std::string what;           ///< "ppfd_umol_m2_s of sweep 2, station 17"
  std::string stated, found;  ///< empty where nothing is stated or found
  std::string sentence;
};

/// What came of holding a package against its own readings.
struct Verification {
  std::vector<Difference> differences;
  std::vector<std::string> notes;  ///< what could not be held against anything, and words that differ
  std::size_t values = 0;          ///< that were held against what comes out
};

/// Holds all that a package states against what its readings give by this version's methods: check sums and sizes of its
/// resources, stations, figures with their uncertainty, and, where it has them, whole light and verdicts on claims. A
/// package cannot prove that its readings are those that were taken: it is sound within itself, or it is not. `record`
/// is the package's. Takes as long as evaluating the test, and some seconds where it states whole light.
Verification verify_package(const Archive& archive, const record::TestRecord& record);

/// The same of sums, stations and figures' values alone, each difference a sentence, a dozen at most: fast enough for
/// opening many.
std::vector<std::string> alterations(const Archive& archive, const record::TestRecord& record);

}  // namespace sunbreak::exchange

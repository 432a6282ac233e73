#include "exchange/package/verification.h"

#include <gtest/gtest.h>

#include "doors/whole_record.h"
#include "exchange/package/data_package.h"

using namespace sunbreak;
using namespace sunbreak::exchange;

TEST(Integrity, WhatIsStatedBadlyIsToldAndNeverThrows) {
  const Archive sound = make_package(doors::whole_test());
  const auto record = read_package(sound).value();
  EXPECT_TRUE(alterations(sound, record).empty());
  for (const char* table : {"stations.csv", "figures.csv"})
    for (const std::string& bad :
         {std::string(), std::string("\xff\xfe"), std::string("sweep_id,x\r\n1\r\n"),
          std::string("sweep_id,station,raw,ppfd_umol_m2_s,figure,value\r\n1e300,nan,,,,\r\n")}) {
      Archive harmed = sound;
      harmed[table] = bad;
      EXPECT_FALSE(alterations(harmed, record).empty()) << table << ": " << bad;
    }
}

TEST(Integrity, CheckSumsAreThoseOfTheStandard) {
  EXPECT_EQ(sha256_words(""), "sha256:e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855");
  EXPECT_EQ(sha256_words("abc"), "sha256:ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
}

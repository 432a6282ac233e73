#pragma once

namespace sunbreak {

/// What the processor at hand can do: vectors of 256 and of 512 bits.
inline bool has_wide_vectors() {
#if defined(__x86_64__)
  return __builtin_cpu_supports("avx2") && __builtin_cpu_supports("fma");
#else
  return false;
#endif
}
inline bool has_widest_vectors() {
#if defined(__x86_64__)
  return __builtin_cpu_supports("avx512f") && __builtin_cpu_supports("avx512dq") &&
         __builtin_cpu_supports("avx512vl") && __builtin_cpu_supports("fma");
#else
  return false;
#endif
}

}  // namespace sunbreak

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

/// Of copies of the same loops, compiled for vectors of 128, 256 and 512 bits, the widest that the processor runs.
template <typename Kernels>
const Kernels& widest_of(const Kernels& plain, const Kernels& wide, const Kernels& widest) {
  return has_widest_vectors() ? widest : has_wide_vectors() ? wide : plain;
}

}  // namespace sunbreak

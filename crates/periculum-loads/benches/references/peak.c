/* What the registers of one core could do: fused multiply-adds that read no memory. Prints GFLOP/s. */
#include <immintrin.h>
#include "clock.h"

#ifdef __AVX512F__
typedef __m512d vector;
#define SPREAD _mm512_set1_pd
#define MULTIPLY_ADD _mm512_fmadd_pd
#else
typedef __m256d vector;
#define SPREAD _mm256_set1_pd
#define MULTIPLY_ADD _mm256_fmadd_pd
#endif

enum { CHAINS = 12, TIMES = 1000000 };

int main(void) {
    vector sums[CHAINS], factor = SPREAD(0.999999), addend = SPREAD(1e-9);
    for (int chain = 0; chain < CHAINS; chain++) sums[chain] = SPREAD(chain);
    double best = 0;
    for (int repetition = 0; repetition < 20; repetition++) {
        double began = seconds();
        for (long time = 0; time < TIMES; time++) {
#pragma GCC unroll 12
            for (int chain = 0; chain < CHAINS; chain++) sums[chain] = MULTIPLY_ADD(sums[chain], factor, addend);
        }
        double rate = 2.0 * CHAINS * TIMES * sizeof(vector) / sizeof(double) / (seconds() - began) / 1e9;
        if (rate > best) best = rate;
    }
    volatile double sink = 0;
    for (int chain = 0; chain < CHAINS; chain++) sink += ((double *)&sums[chain])[0];
    printf("%.3f\n", best);
    return 0;
}

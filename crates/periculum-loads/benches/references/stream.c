/* Memory read, written past the caches, or copied. Takes read, write or copy and MiB, prints GB/s: at best, or with a third word all in
   all. */
#define _GNU_SOURCE
#include <immintrin.h>
#include <string.h>
#include <sys/mman.h>
#include "clock.h"

#ifdef __AVX512F__
typedef __m512i vector;
#define LOAD _mm512_load_si512
#define STREAM _mm512_stream_si512
#define ADD _mm512_add_epi64
#else
typedef __m256i vector;
#define LOAD _mm256_load_si256
#define STREAM _mm256_stream_si256
#define ADD _mm256_add_epi64
#endif

static void move(char way, vector *memory, long vectors) {
    long half = vectors / 2;
    vector sums[4] = {memory[0], memory[1], memory[2], memory[3]};
    switch (way) {
    case 'r':
        for (long index = 0; index < vectors; index += 4) {
            _mm_prefetch((char *)&memory[index] + 1024, _MM_HINT_T0);
            for (int sum = 0; sum < 4; sum++) sums[sum] = ADD(sums[sum], LOAD(&memory[index + sum]));
        }
        break;
    case 'w':
        for (long index = 0; index < vectors; index++) STREAM(&memory[index], sums[0]);
        break;
    default:
        for (long index = 0; index < half; index++) {
            _mm_prefetch((char *)&memory[index] + 1024, _MM_HINT_T0);
            STREAM(&memory[half + index], LOAD(&memory[index]));
        }
    }
    _mm_sfence();
    vector total = ADD(ADD(sums[0], sums[1]), ADD(sums[2], sums[3]));
    __asm__ volatile("" : : "v"(total)); /* Somebody might look at it. */
}

int main(int count, char **arguments) {
    if (count < 3) return 2;
    long bytes = atol(arguments[2]) << 20;
    char *memory = aligned_alloc(2 << 20, bytes);
    madvise(memory, bytes, MADV_HUGEPAGE);
    memset(memory, 1, bytes);
    double best = 0, all = 0;
    for (int repetition = 1; repetition <= 8; repetition++) {
        double began = seconds();
        move(arguments[1][0], (vector *)memory, bytes / sizeof(vector));
        double time = seconds() - began;
        all += time;
        double rate = bytes / time / 1e9;
        if (count > 3) best = repetition * bytes / all / 1e9;
        else if (rate > best) best = rate;
    }
    printf("%.3f\n", best);
    return 0;
}

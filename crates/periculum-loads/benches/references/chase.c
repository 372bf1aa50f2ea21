/* A chase through a random cycle of lines. Takes huge or small and KiB, prints ns an access. */
#define _GNU_SOURCE
#include <stdint.h>
#include <sys/mman.h>
#include "clock.h"

enum { LINE = 64 };

static uint64_t state = 1;

static uint64_t below(uint64_t end) {
    state = state * 6364136223846793005u + 1442695040888963407u;
    return (uint64_t)(((unsigned __int128)state * end) >> 64);
}

int main(int count, char **arguments) {
    if (count < 3) return 2;
    long bytes = atol(arguments[2]) << 10, lines = bytes / LINE;
    char *memory = aligned_alloc(2 << 20, (bytes + (2 << 20) - 1) & -(2L << 20));
    madvise(memory, bytes, arguments[1][0] == 'h' ? MADV_HUGEPAGE : MADV_NOHUGEPAGE);
    uint64_t *order = malloc(sizeof(uint64_t) * lines);
    for (long line = 0; line < lines; line++) order[line] = line;
    for (long line = lines - 1; line > 0; line--) {
        uint64_t other = below(line), kept = order[line];
        order[line] = order[other];
        order[other] = kept;
    }
    for (long line = 0; line < lines; line++) *(void **)(memory + line * LINE) = memory + order[line] * LINE;
    void **place = (void **)memory;
    long steps = 1 << 20;
    double best = 1e9;
    for (int repetition = 0; repetition < 15; repetition++) {
        double began = seconds();
        for (long step = 0; step < steps; step++) place = *place;
        double time = (seconds() - began) * 1e9 / steps;
        if (time < best) best = time;
    }
    void **volatile sink = place;
    (void)sink;
    printf("%.3f\n", best);
    return 0;
}

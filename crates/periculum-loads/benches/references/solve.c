/* A linear system solved by a general library's dgesv. Takes the order, prints GFLOP/s. */
#include "clock.h"

extern void dgesv_(int *, int *, double *, int *, int *, double *, int *, int *);

int main(int count, char **arguments) {
    int order = count > 1 ? atoi(arguments[1]) : 1000, one = 1, info;
    double *a = malloc(sizeof(double) * order * order), *b = malloc(sizeof(double) * order);
    int *pivots = malloc(sizeof(int) * order);
    double best = 0;
    for (int repetition = 0; repetition < 2; repetition++) {
        srand(1);
        for (long index = 0; index < (long)order * order; index++) a[index] = rand() / (double)RAND_MAX - 0.5;
        for (int index = 0; index < order; index++) b[index] = 1;
        double began = seconds();
        dgesv_(&order, &one, a, &order, pivots, b, &order, &info);
        double n = order, rate = (2.0 / 3 * n * n * n + 2 * n * n) / (seconds() - began) / 1e9;
        if (rate > best) best = rate;
    }
    printf("%.3f\n", best);
    return info;
}

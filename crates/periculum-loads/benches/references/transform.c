/* A real sequence squared by a general library's measured transforms. Takes log2 of the points, prints GFLOP/s. */
#include <fftw3.h>
#include "clock.h"

int main(int count, char **arguments) {
    int exponent = count > 1 ? atoi(arguments[1]) : 16;
    long points = 1L << exponent;
    double *x = fftw_malloc(sizeof(double) * points);
    /* Planning takes minutes, so that one run keeps its plans for the next. */
    char wisdom[4096];
    snprintf(wisdom, sizeof wisdom, "%s.wisdom", arguments[0]);
    fftw_import_wisdom_from_filename(wisdom);
    fftw_complex *y = fftw_malloc(sizeof(fftw_complex) * (points / 2 + 1));
    fftw_plan there = fftw_plan_dft_r2c_1d(points, x, y, FFTW_MEASURE);
    fftw_plan back = fftw_plan_dft_c2r_1d(points, y, x, FFTW_MEASURE);
    fftw_export_wisdom_to_filename(wisdom);
    double best = 0;
    for (long repetition = 0; repetition < (1L << 24) / points + 4; repetition++) {
        for (long index = 0; index < points; index++) x[index] = index < points / 2 ? index * 7919 % 65537 - 32768 : 0;
        double began = seconds();
        fftw_execute(there);
        for (long index = 0; index <= points / 2; index++) {
            double re = y[index][0], im = y[index][1];
            y[index][0] = re * re - im * im;
            y[index][1] = 2 * re * im;
        }
        fftw_execute(back);
        double rate = 2 * 2.5 * points * exponent / (seconds() - began) / 1e9;
        if (rate > best) best = rate;
    }
    printf("%.3f\n", best);
    return 0;
}

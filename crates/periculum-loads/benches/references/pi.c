/* Digits of pi by the series of Chudnovsky and Chudnovsky, binary splitting and GMP.
   pi DIGITS [FILE]: prints millions of digits a second; the digits go to the file. */
#include <gmp.h>
#include <stdio.h>
#include <stdlib.h>

#include "clock.h"

#define DIGITS_PER_TERM 14.181647
#define DENOMINATOR 10939058860032000UL
#define CONSTANT 13591409UL
#define LINEAR 545140134UL

static void term(unsigned long k, mpz_t p, mpz_t q, mpz_t t)
{
    mpz_set_ui(p, (6 * k - 5) * (2 * k - 1));
    mpz_mul_ui(p, p, 6 * k - 1);
    mpz_set_ui(q, k * k);
    mpz_mul_ui(q, q, k);
    mpz_mul_ui(q, q, DENOMINATOR);
    mpz_mul_ui(t, p, CONSTANT + LINEAR * k);
    if (k % 2)
        mpz_neg(t, t);
}

static void sum(unsigned long first, unsigned long end, int wants_p, mpz_t p, mpz_t q, mpz_t t)
{
    if (end - first == 1) {
        term(first, p, q, t);
        return;
    }
    unsigned long middle = first + (end - first) / 2;
    mpz_t next_p, next_q, next_t;
    mpz_inits(next_p, next_q, next_t, NULL);
    sum(first, middle, 1, p, q, t);
    sum(middle, end, wants_p, next_p, next_q, next_t);
    mpz_mul(t, t, next_q);
    mpz_mul(next_t, next_t, p);
    mpz_add(t, t, next_t);
    mpz_mul(q, q, next_q);
    if (wants_p)
        mpz_mul(p, p, next_p);
    mpz_clears(next_p, next_q, next_t, NULL);
}

int main(int count, char **arguments)
{
    unsigned long digits = count > 1 ? strtoul(arguments[1], NULL, 10) : 1000000;
    double began = seconds();
    mpz_t p, q, t, power, root;
    mpz_inits(p, q, t, power, root, NULL);
    sum(1, (unsigned long)(digits / DIGITS_PER_TERM) + 2, 0, p, q, t);
    mpz_clear(p);
    mpz_addmul_ui(t, q, CONSTANT);
    /* Ten digits more than asked for take up the rounding errors. */
    mpz_ui_pow_ui(power, 10, digits + 10);
    mpz_mul(root, power, power);
    mpz_mul_ui(root, root, 10005);
    mpz_sqrt(root, root);
    mpz_mul_ui(root, root, 426880);
    mpz_mul(root, root, q);
    mpz_tdiv_q(root, root, t);
    char *text = mpz_get_str(NULL, 10, root);
    double taken = seconds() - began;
    if (count > 2) {
        FILE *file = fopen(arguments[2], "w");
        fprintf(file, "%.*s\n", (int)digits, text + 1);
        fclose(file);
    }
    printf("%.6f\n", digits / taken / 1e6);
    return text[0] != '3';
}

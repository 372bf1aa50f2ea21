//! `digits`: π to many digits, for single cores: long multiplications of every size, memory in between.
//!
//! The series of Chudnovsky and Chudnovsky (Approximations and complex multiplication according to Ramanujan, 1988) is
//! summed by binary splitting (Haible and Papanikolaou, Fast multiprecision evaluation of series of rational numbers,
//! 1998), the root and the quotient come from Newton's iteration, the decimal digits from a fraction that is halved
//! again and again. Every long product is checked for rounding errors and modulo 2⁶⁴ − 1; every digit must be the same
//! as in the reference in every round on every core.

mod circle;
mod decimal;
mod load;
mod multiply;
mod natural;
mod roots;
mod series;

pub use load::Digits;

//! Amounts of memory as people write and read them.

use serde::{Deserialize, Serialize};

/// Units of bytes, largest first: the powers of 1024 that a number may be written in, and those of 1000.
const UNITS: [(&str, u64); 9] = [
    ("TiB", 1 << 40),
    ("GiB", 1 << 30),
    ("MiB", 1 << 20),
    ("KiB", 1 << 10),
    ("TB", 1_000_000_000_000),
    ("GB", 1_000_000_000),
    ("MB", 1_000_000),
    ("kB", 1000),
    ("B", 1),
];

/// An amount of memory.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Amount {
    /// So many bytes.
    Bytes(u64),
    /// So many percent of all there is, 1 to 100.
    Percent(u8),
}

impl std::str::FromStr for Amount {
    type Err = BadAmount;

    /// `75%`, or bytes with a unit, as in `8GiB` or `512 MiB`.
    fn from_str(text: &str) -> Result<Self, BadAmount> {
        let Some(percent) = text.trim().strip_suffix('%') else { return bytes(text).map(Self::Bytes) };
        match percent.trim().parse() {
            Ok(percent @ 1..=100) => Ok(Self::Percent(percent)),
            _ => Err(BadAmount::NoShare(text.to_owned())),
        }
    }
}

/// Why a text is no amount of memory.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum BadAmount {
    /// It is no number of bytes.
    #[error("`{0}` is not an amount of memory; write it as in 8GiB, 512MiB or 1.5GB")]
    NoBytes(String),
    /// It is no share of memory.
    #[error("`{0}` is not a share of memory between 1% and 100%")]
    NoShare(String),
}

/// Bytes from text such as `8GiB`, `1.5 GB` or `4096 KiB`.
///
/// # Errors
/// What is wrong with the text.
pub fn bytes(text: &str) -> Result<u64, BadAmount> {
    let wrong = || BadAmount::NoBytes(text.to_owned());
    let text_trimmed = text.trim();
    let digits = text_trimmed.trim_end_matches(|c: char| c.is_ascii_alphabetic());
    let unit = &text_trimmed[digits.len()..];
    let (_, factor) = UNITS.iter().find(|(name, _)| name.eq_ignore_ascii_case(unit)).ok_or_else(wrong)?;
    let number: f64 = digits.trim().parse().map_err(|_| wrong())?;
    let bytes = number * *factor as f64;
    if bytes.is_finite() && bytes >= 0.0 && bytes < 2f64.powi(63) { Ok(bytes as u64) } else { Err(wrong()) }
}

/// Bytes as people read them: `6.0 GiB`, `512 MiB`, `37 B`.
pub fn written(bytes: u64) -> String {
    let unit = UNITS.iter().take(4).find(|(_, factor)| bytes >= *factor);
    let Some((name, factor)) = unit else { return format!("{bytes} B") };
    let number = bytes as f64 / *factor as f64;
    if number < 100.0 { format!("{number:.1} {name}") } else { format!("{number:.0} {name}") }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn amounts_are_read_with_their_unit() {
        assert_eq!("75%".parse(), Ok(Amount::Percent(75)));
        assert_eq!("8GiB".parse(), Ok(Amount::Bytes(8 << 30)));
        assert_eq!("1.5 GB".parse(), Ok(Amount::Bytes(1_500_000_000)));
        assert_eq!(bytes("512 mib"), Ok(512 << 20));
        for wrong in ["", "8", "GiB", "0%", "101%", "-1GiB", "nanGiB", "1e30TiB", "8 pages", "%"] {
            assert!(wrong.parse::<Amount>().is_err(), "{wrong}");
        }
    }

    #[test]
    fn bytes_are_written_in_the_unit_that_fits() {
        assert_eq!([37, 1 << 20, 6 << 30, 200 << 30].map(written), ["37 B", "1.0 MiB", "6.0 GiB", "200 GiB"]);
    }

    proptest! {
        #[test]
        fn what_is_written_is_read_as_nearly_the_same(amount in 0u64..1 << 50) {
            let again = bytes(&written(amount)).expect("bytes") as f64;
            prop_assert!((again - amount as f64).abs() <= amount as f64 * 0.051);
        }

        #[test]
        fn no_text_makes_reading_panic(text in any::<String>()) {
            let _ = text.parse::<Amount>();
        }
    }
}

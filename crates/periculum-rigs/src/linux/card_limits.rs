//! What holds a graphics card's clocks back now: a mask in its driver's binary table (kernel source, `kgd_pp_interface.h`:
//! `gpu_metrics`, and `amdgpu_smu.h`: `SMU_THROTTLER_…_BIT`), or an attribute for each reason (ABI/testing:
//! `gt/gt*/throttle_reason_…` and `freq*/throttle/reason_…`).

use std::path::{Path, PathBuf};

use super::attribute::{bytes, number};

/// What a reading stands for.
pub(super) const WORDS: [&str; 5] = ["nothing", "temperature", "power", "current", "something else"];

/// Their places.
const NOTHING: usize = 0;
const TEMPERATURE: usize = 1;
const POWER: usize = 2;
const CURRENT: usize = 3;
const ELSE: usize = 4;

/// How a driver tells it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Told {
    /// In the table that stands there.
    Table,
    /// By attributes beside this one that says whether there is a reason, which begin like this.
    Reasons(&'static str),
}

/// Where attributes of reasons stand below a card, the one that says whether there is any, and how the others begin.
const ATTRIBUTES: [(&str, &str, &str); 2] = [
    ("gt/gt0", "throttle_reason_status", "throttle_reason_"),
    ("device/tile0/gt0/freq0/throttle", "status", "reason_"),
];

/// Reasons, and what they come to; what heats most is said first.
const REASONS: [(&str, usize); 8] = [
    ("thermal", TEMPERATURE),
    ("prochot", TEMPERATURE),
    ("ratl", TEMPERATURE),
    ("vr_thermalert", TEMPERATURE),
    ("vr_tdc", CURRENT),
    ("pl1", POWER),
    ("pl2", POWER),
    ("pl4", POWER),
];

/// Bits of a table's mask, and what they come to, in the same order.
const BITS: [(std::ops::Range<u32>, usize); 4] =
    [(32..56, TEMPERATURE), (16..32, CURRENT), (0..16, POWER), (56..64, ELSE)];

/// Where a card tells it, and how; none where it does not.
pub(super) fn find(card: &Path) -> Option<(PathBuf, Told)> {
    let table = card.join("device/gpu_metrics");
    if read(&table, Told::Table).is_some() {
        return Some((table, Told::Table));
    }
    let mut attributes = ATTRIBUTES.into_iter().map(|(at, status, prefix)| (card.join(at).join(status), prefix));
    attributes.find(|(status, _)| number(status).is_some()).map(|(status, prefix)| (status, Told::Reasons(prefix)))
}

/// The reading of now, as a place in [`WORDS`].
pub(super) fn read(path: &Path, told: Told) -> Option<f64> {
    let place = match told {
        Told::Table => in_mask(mask(&bytes(path)?)?),
        Told::Reasons(prefix) => in_attributes(path, prefix)?,
    };
    Some(place as f64)
}

/// The mask that is the same for all cards; none in tables that have none, or whose card says nothing.
fn mask(table: &[u8]) -> Option<u64> {
    let at = match table.get(2..4)? {
        [1, 3] => 112,
        [2, 2..=4] => 120,
        _ => return None,
    };
    let mask = u64::from_le_bytes(table.get(at..at + 8)?.try_into().ok()?);
    (mask != u64::MAX).then_some(mask)
}

fn in_mask(mask: u64) -> usize {
    let is_among = |(bits, _): &(std::ops::Range<u32>, usize)| bits.clone().any(|bit| mask >> bit & 1 == 1);
    BITS.into_iter().find(is_among).map_or(NOTHING, |(_, place)| place)
}

fn in_attributes(status: &Path, prefix: &str) -> Option<usize> {
    if number(status)? == 0 {
        return Some(NOTHING);
    }
    let is_so =
        |reason: &str| number(&status.with_file_name(format!("{prefix}{reason}"))).is_some_and(|said| said != 0);
    Some(REASONS.into_iter().find(|(reason, _)| is_so(reason)).map_or(ELSE, |(_, place)| place))
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use proptest::prelude::*;
    use std::fs;

    fn table(version: [u8; 2], at: usize, mask: u64) -> Vec<u8> {
        let mut table = vec![0; 128];
        table[2..4].copy_from_slice(&version);
        table[at..at + 8].copy_from_slice(&mask.to_le_bytes());
        table
    }

    #[test]
    fn a_mask_says_what_limits_and_heat_comes_first() {
        let said = |version, at, bits: &[u32]| {
            let mask = bits.iter().fold(0, |mask, bit| mask | 1 << bit);
            mask_of(&table(version, at, mask))
        };
        assert_eq!(said([1, 3], 112, &[]), Some("nothing"));
        assert_eq!(said([1, 3], 112, &[0]), Some("power"));
        assert_eq!(said([1, 3], 112, &[2, 22]), Some("current"));
        assert_eq!(said([1, 3], 112, &[2, 36]), Some("temperature"));
        assert_eq!(said([2, 3], 120, &[57]), Some("something else"));
        assert_eq!(said([1, 0], 112, &[0]), None, "an older table has no such mask");
        assert_eq!(mask_of(&table([1, 3], 112, u64::MAX)), None, "the card does not say");
        assert_eq!(mask_of(&table([1, 3], 112, 1)[..116]), None, "cut off");
    }

    fn mask_of(table: &[u8]) -> Option<&'static str> {
        mask(table).map(|mask| WORDS[in_mask(mask)])
    }

    #[test]
    fn attributes_of_reasons_are_read_wherever_a_driver_has_them() {
        let older = "sys/class/drm/card0/gt/gt0/throttle_reason_";
        let newer = "sys/class/drm/card1/device/tile0/gt0/freq0/throttle/";
        let files = ["status", "pl1", "thermal"].map(|name| (format!("{older}{name}"), "0\n"));
        let more = [("status", "1\n"), ("reason_pl2", "1\n")].map(|(name, text)| (format!("{newer}{name}"), text));
        let files: Vec<(&str, &str)> = files.iter().chain(&more).map(|(path, text)| (path.as_str(), *text)).collect();
        let root = tree("card-limits", &files);
        let said = |card: &str| {
            let (path, told) = find(&root.join("sys/class/drm").join(card))?;
            read(&path, told).map(|place| WORDS[place as usize])
        };
        assert_eq!((said("card0"), said("card1"), said("card2")), (Some("nothing"), Some("power"), None));
        for name in ["status", "pl1", "thermal"] {
            fs::write(root.join(format!("{older}{name}")), "1\n").expect("written");
        }
        assert_eq!(said("card0"), Some("temperature"));
        fs::remove_dir_all(&root).expect("removed");
    }

    proptest! {
        #[test]
        fn garbage_is_no_table_and_no_panic(table in proptest::collection::vec(any::<u8>(), 0..140)) {
            let _ = mask_of(&table);
        }
    }
}

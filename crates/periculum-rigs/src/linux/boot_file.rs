//! One key of a text file that the machine reads when it starts: changed so that every other byte stays.
//!
//! Where the key stands several times, the last line counts, as for firmware that reads from top to bottom.

use serde::{Deserialize, Serialize};

/// How to take an edit back.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub(super) enum WayBack {
    /// The key had this value.
    Value(Vec<u8>),
    /// There was no such key; whether the file's last line had no end before.
    NoKey { lacked_end: bool },
}

/// Where a value stands, and the whole line with its end.
struct Place {
    line: std::ops::Range<usize>,
    value: std::ops::Range<usize>,
}

/// The value of a key; none where the file has none.
pub(super) fn value<'a>(text: &'a [u8], key: &str, between: &str) -> Option<&'a [u8]> {
    find(text, key, between).map(|place| &text[place.value])
}

/// The file with another value for the key, and the way back.
pub(super) fn with_value(text: &[u8], key: &str, between: &str, value: &str) -> (Vec<u8>, WayBack) {
    let Some(place) = find(text, key, between) else {
        let lacked_end = text.last().is_some_and(|last| *last != b'\n');
        let end: &[u8] = if lacked_end { b"\n" } else { b"" };
        let line = format!("{key}{between}{value}\n");
        return ([text, end, line.as_bytes()].concat(), WayBack::NoKey { lacked_end });
    };
    let before = text[place.value.clone()].to_vec();
    (replaced(text, place.value, value.as_bytes()), WayBack::Value(before))
}

/// The file as it was before, where nobody touched the key meanwhile; other changes stay.
pub(super) fn taken_back(text: &[u8], key: &str, between: &str, back: &WayBack) -> Vec<u8> {
    let Some(place) = find(text, key, between) else { return text.to_vec() };
    match back {
        WayBack::Value(before) => replaced(text, place.value, before),
        WayBack::NoKey { lacked_end } => {
            let is_last = place.line.end == text.len();
            let from = place.line.start - usize::from(*lacked_end && is_last && place.line.start > 0);
            replaced(text, from..place.line.end, b"")
        }
    }
}

fn replaced(text: &[u8], range: std::ops::Range<usize>, with: &[u8]) -> Vec<u8> {
    [&text[..range.start], with, &text[range.end..]].concat()
}

/// The last line `KEY BETWEEN VALUE`, with blanks around each and a comment behind it, if any.
fn find(text: &[u8], key: &str, between: &str) -> Option<Place> {
    let mut start = 0;
    let lines = text.split_inclusive(|byte| *byte == b'\n').map(|line| {
        let place = start..start + line.len();
        start = place.end;
        place
    });
    let places = lines.filter_map(|line| {
        let value = value_in(&text[line.clone()], key.as_bytes(), between.trim().as_bytes())?;
        let value = line.start + value.start..line.start + value.end;
        Some(Place { line, value })
    });
    places.last()
}

/// Where the value stands in a line, where the line is the key's.
fn value_in(line: &[u8], key: &[u8], between: &[u8]) -> Option<std::ops::Range<usize>> {
    let blanks = |from: usize| from + line[from..].iter().take_while(|byte| matches!(byte, b' ' | b'\t')).count();
    let behind_key = blanks(0) + key.len();
    if !line[blanks(0)..].starts_with(key) {
        return None;
    }
    let at = blanks(behind_key);
    let is_apart = !between.is_empty() || at > behind_key;
    if !line[at..].starts_with(between) || !is_apart {
        return None;
    }
    let from = blanks(at + between.len());
    let comment = line[from..].windows(2).position(|pair| matches!(pair, b" #" | b"\t#"));
    let whole = &line[from..comment.map_or(line.len(), |comment| from + comment)];
    Some(from..from + whole.trim_ascii_end().len())
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const FILE: &[u8] = b"# the dome's board\r\n[all]\ncore_mhz=1800\n  core_mhz = 2000   # by hand\ndisk_mode=500";

    #[test]
    fn the_last_line_of_a_key_is_read_and_changed_alone() {
        assert_eq!(value(FILE, "core_mhz", "="), Some(&b"2000"[..]));
        assert_eq!(value(FILE, "freq", "="), None);
        assert_eq!(value(b"# core_mhz=1", "core_mhz", "="), None);
        let (changed, back) = with_value(FILE, "core_mhz", "=", "2150");
        let expected = b"# the dome's board\r\n[all]\ncore_mhz=1800\n  core_mhz = 2150   # by hand\ndisk_mode=500";
        assert_eq!(changed, expected);
        assert_eq!(taken_back(&changed, "core_mhz", "=", &back), FILE);
    }

    #[test]
    fn a_new_key_becomes_a_line_of_its_own_and_leaves_no_trace() {
        let (changed, back) = with_value(FILE, "fan_mode", "=", "4");
        assert!(changed.ends_with(b"disk_mode=500\nfan_mode=4\n"));
        assert_eq!(taken_back(&changed, "fan_mode", "=", &back), FILE);
        let edited = [&changed[..], b"more=1\n"].concat();
        let kept = taken_back(&edited, "fan_mode", "=", &back);
        assert!(kept.ends_with(b"disk_mode=500\nmore=1\n"), "what was added meanwhile stays");
    }

    proptest! {
        /// Whatever the file is: only that key changes, and put back it is the same byte for byte.
        #[test]
        fn any_file_is_put_back_byte_for_byte(
            noise in prop::collection::vec(any::<u8>(), 0..60),
            lines in prop::collection::vec("( |\t)?#?(key|kez|keyy)? ?=? ?[a-z0-9# \r]{0,6}", 0..8),
            has_end in any::<bool>(),
            between in prop::sample::select(vec!["=", " = ", " ", ":"]),
            to in "[0-9]{1,4}",
        ) {
            let mut text = noise;
            text.extend(lines.join("\n").bytes());
            text.extend(has_end.then_some(b'\n'));
            let (changed, back) = with_value(&text, "key", between, &to);
            prop_assert_eq!(value(&changed, "key", between), Some(to.as_bytes()));
            prop_assert_eq!(taken_back(&changed, "key", between, &back), text.clone());
            let (again, _) = with_value(&changed, "key", between, &to);
            prop_assert_eq!(again, changed.clone(), "the same value changes nothing");
            let lines_before = text.split(|byte| *byte == b'\n').count();
            let lines_after = changed.split(|byte| *byte == b'\n').count();
            prop_assert!(lines_after <= lines_before + 2);
        }
    }
}

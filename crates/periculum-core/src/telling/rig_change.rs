//! Changes of a rig as people read them.

use std::fmt;

use crate::model::rig::{Part, Rig};
use crate::model::rig_change::RigChange;

impl fmt::Display for RigChange {
    /// As `board: firmware 1.4, slot 2; window open`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let of_part = [("specimen", &self.specimen), ("firmware", &self.firmware), ("slot", &self.slot)];
        let of_part = of_part.into_iter().filter(|(_, value)| !value.is_empty());
        let of_part: Vec<String> = of_part.map(|(what, value)| format!("{what} {value}")).collect();
        let part = self.part.as_deref().unwrap_or_default();
        match (of_part.is_empty(), part.is_empty()) {
            (false, _) => write!(f, "{part}: {}", of_part.join(", "))?,
            (true, false) => write!(f, "{part}")?,
            (true, true) => return f.write_str(&self.remark),
        }
        if self.remark.is_empty() { Ok(()) } else { write!(f, "; {}", self.remark) }
    }
}

/// What of a rig's parts is another now than it was then, as `board firmware 1.3, now 1.4`.
pub fn parts_changed(then: &Rig, now: &Rig) -> Vec<String> {
    let (names, old) = (then.part_names(), &then.parts);
    let of_part = |(name, old): (String, &Part)| {
        let place = now.part_names().iter().position(|other| *other == name);
        let Some(new) = place.and_then(|place| now.parts.get(place)) else { return vec![format!("{name}, now gone")] };
        let about = [
            ("", &old.model, &new.model),
            (" specimen", &old.specimen, &new.specimen),
            (" firmware", &old.firmware, &new.firmware),
            (" slot", &old.slot, &new.slot),
        ];
        let known = |value: &str| if value.is_empty() { "unknown" } else { value }.to_owned();
        let other = about.into_iter().filter(|(_, old, new)| old != new);
        other.map(|(what, old, new)| format!("{name}{what} {}, now {}", known(old), known(new))).collect()
    };
    let added =
        now.part_names().into_iter().filter(|name| !names.contains(name)).map(|name| format!("{name}, now new"));
    names.iter().cloned().zip(old).flat_map(of_part).chain(added).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_of_the_parts_is_another_now_is_told_part_by_part() {
        let part = |kind: &str, firmware: &str, slot: &str| Part {
            kind: kind.into(),
            model: "M".into(),
            specimen: String::new(),
            firmware: firmware.into(),
            slot: slot.into(),
            since: String::new(),
            paid: None,
        };
        let rig = |parts: Vec<Part>| Rig { parts, ..Rig::bare("r") };
        let then = rig(vec![part("board", "1.3", ""), part("memory", "", "1"), part("fan", "", "")]);
        let now = rig(vec![part("board", "1.4", ""), part("memory", "", "2"), part("pump", "", "")]);
        let told = ["board firmware 1.3, now 1.4", "memory slot 1, now 2", "fan, now gone", "pump, now new"];
        assert_eq!(parts_changed(&then, &now), told);
        assert!(parts_changed(&now, &now).is_empty());
    }

    #[test]
    fn what_changed_is_told_in_a_clause() {
        let change = |part: &str, firmware: &str, remark: &str| RigChange {
            part: Some(part.to_owned()).filter(|part| !part.is_empty()),
            firmware: firmware.into(),
            remark: remark.into(),
            ..RigChange::default()
        };
        for (change, told) in [
            (change("board", "1.4", ""), "board: firmware 1.4"),
            (change("board", "1.4", "reset"), "board: firmware 1.4; reset"),
            (change("cooler", "", "paste renewed"), "cooler; paste renewed"),
            (change("", "", "window open"), "window open"),
        ] {
            assert_eq!(change.to_string(), told);
        }
    }
}

//! What somebody changes on a rig beside its settings: another firmware, another part in a slot, new paste, an open window. The rig
//! is in another *state* from then on, and every trial belongs to one.

use serde::{Deserialize, Serialize};

use crate::model::field::{Entered, Field, Misfit, Takes, Written, check};
use crate::model::quantity::harmless;
use crate::model::rig::{Part, Rig};

/// A change that makes a rig's next state.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct RigChange {
    /// Which part it is about, by its name among the rig's; none where it is about none of them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part: Option<String>,
    /// Which specimen of the part there is now; empty where it is the same.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub specimen: String,
    /// Which firmware it has now; empty where it is the same.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub firmware: String,
    /// Which slot it sits in now; empty where it is the same.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub slot: String,
    /// What else is to be said, in words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub remark: String,
}

const PART: &str = "part";
const SPECIMEN: &str = "specimen";
const FIRMWARE: &str = "firmware";
const SLOT: &str = "slot";
const REMARK: &str = "remark";

impl RigChange {
    /// What may be written down of a change of this rig.
    pub fn fields(rig: &Rig) -> Vec<Field> {
        let field = |name: &str, takes| Field { name: name.into(), label: name.into(), takes, is_needed: false };
        let parts = (!rig.parts.is_empty()).then(|| field(PART, Takes::Words(rig.part_names())));
        let texts: &[&str] = if parts.is_some() { &[SPECIMEN, FIRMWARE, SLOT, REMARK] } else { &[REMARK] };
        parts.into_iter().chain(texts.iter().map(|name| field(name, Takes::Text))).collect()
    }

    /// The change of this rig that was written down.
    ///
    /// # Errors
    /// Where it says nothing, or does not say which part it is about.
    pub fn of(rig: &Rig, written: &Written) -> Result<Self, Misfit> {
        let fields = Self::fields(rig);
        check(&fields, written)?;
        let text = |name: &str| written.get(name).map(|text| harmless(text.trim())).unwrap_or_default();
        let named = fields.iter().find(|field| field.name == PART).zip(written.get(PART));
        let part = match named.map(|(field, typed)| field.read(typed)).transpose()? {
            Some(Entered::Word(place)) => rig.part_names().into_iter().nth(place),
            // Where there is but one, nobody has to name it.
            _ => rig.part_names().into_iter().next().filter(|_| rig.parts.len() == 1),
        };
        let change =
            Self { part, specimen: text(SPECIMEN), firmware: text(FIRMWARE), slot: text(SLOT), remark: text(REMARK) };
        let missing = |name: &str| Misfit::Missing { name: name.into(), label: name.into() };
        let is_of_part = ![&change.specimen, &change.firmware, &change.slot].into_iter().all(String::is_empty);
        match (is_of_part, &change.part, change.remark.is_empty()) {
            (true, None, _) => Err(missing(PART)),
            (false, _, true) => Err(missing(REMARK)),
            (false, _, false) if named.is_none() => Ok(Self { part: None, ..change }),
            _ => Ok(change),
        }
    }

    /// The rig as it is after the change.
    pub fn made(&self, mut rig: Rig) -> Rig {
        let place = self.part.as_ref().and_then(|part| rig.part_names().iter().position(|name| name == part));
        if let Some(part) = place.and_then(|place| rig.parts.get_mut(place)) {
            let Part { specimen, firmware, slot, .. } = part;
            for (old, new) in [(specimen, &self.specimen), (firmware, &self.firmware), (slot, &self.slot)] {
                if !new.is_empty() {
                    old.clone_from(new);
                }
            }
        }
        rig
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::{Document, Problems, rig_file};

    fn rig(parts: &str) -> Rig {
        let text = format!("format = 1\n[rig]\nname = \"r\"\n{parts}");
        rig_file::read(&Document::parse(&text).expect("TOML").top(&Problems::default())).expect("a rig")
    }

    const MODULES: &str = "[[part]]\nkind = \"board\"\nmodel = \"B\"\nfirmware = \"1.3\"\n[[part]]\nkind = \"memory\"\n\
        model = \"M\"\nspecimen = \"Q-1\"\nslot = \"1\"\n[[part]]\nkind = \"memory\"\nmodel = \"M\"\nspecimen = \"Q-2\"\nslot = \"3\"\n";

    fn written(pairs: &[(&str, &str)]) -> Written {
        pairs.iter().map(|(name, typed)| ((*name).to_owned(), (*typed).to_owned())).collect()
    }

    #[test]
    fn a_part_is_changed_by_its_name_and_everything_else_stays() {
        let rig = rig(MODULES);
        assert_eq!(rig.part_names(), ["board", "memory 1", "memory 2"]);
        let change = RigChange::of(&rig, &written(&[("part", "Memory 2"), ("specimen", "Q-7")])).expect("a change");
        let after = change.made(rig.clone());
        assert_eq!((after.parts[2].specimen.as_str(), after.parts[2].slot.as_str()), ("Q-7", "3"));
        assert_eq!(after.parts[..2], rig.parts[..2]);
        let update = RigChange::of(&rig, &written(&[("part", "board"), ("firmware", "1.4")])).expect("a change");
        assert_eq!(update.made(rig).parts[0].firmware, "1.4");
    }

    #[test]
    fn what_says_nothing_or_not_of_which_part_is_told() {
        let missing = |name: &str| Err(Misfit::Missing { name: name.into(), label: name.into() });
        let several = rig(MODULES);
        assert_eq!(RigChange::of(&several, &written(&[("firmware", "1.4")])), missing("part"));
        assert_eq!(RigChange::of(&several, &Written::new()), missing("remark"));
        assert!(matches!(RigChange::of(&several, &written(&[("part", "fan")])), Err(Misfit::NoWord { .. })));
        let remark = written(&[("remark", "window open")]);
        assert_eq!(RigChange::of(&several, &remark).expect("a change").part, None);
        let alone = rig("[[part]]\nkind = \"board\"\nmodel = \"B\"\n");
        assert_eq!(RigChange::of(&alone, &written(&[("firmware", "2")])).expect("a change").part, Some("board".into()));
        assert!(RigChange::of(&rig(""), &written(&[("firmware", "2")])).is_err());
        assert_eq!(RigChange::of(&rig(""), &remark).expect("a change").made(rig("")), rig(""));
    }
}

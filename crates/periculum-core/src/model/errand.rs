//! What is done to a rig in one visit: by somebody, or by one start of the machine.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::model::rig::Rig;
use crate::model::rung::{Change, InForce};

/// Changes that are made together, in this order, each of another setting; what takes effect at once is an errand of one.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(from = "Written", into = "Written")]
pub struct Errand {
    changes: Vec<Change>,
}

/// As records have it: those of earlier versions know one change only.
#[derive(Serialize, Deserialize)]
#[serde(untagged)]
enum Written {
    One { change: Change },
    Several { changes: Vec<Change> },
}

impl Errand {
    /// An errand of one change.
    pub fn of(change: Change) -> Self {
        Self { changes: vec![change] }
    }

    /// A start of the machine with everything as it is; none where nothing of the rig needs one, or nobody knows what is in force.
    pub fn start_alone(rig: &Rig, in_force: &InForce) -> Option<Self> {
        let setting = rig.settings.iter().find(|setting| setting.needs_start())?;
        let value = *in_force.get(&setting.name)?;
        Some(Self::of(Change { setting: setting.name.clone(), from: Some(value), to: value }))
    }

    /// Whether it changes nothing, so that all there is to do is a start.
    pub fn is_start_alone(&self) -> bool {
        self.changes.iter().all(|change| change.from == Some(change.to))
    }

    /// The changes, in the order in which they are made.
    pub fn changes(&self) -> &[Change] {
        &self.changes
    }

    /// What is in force when it is made, as far as it changes that.
    pub fn made(&self) -> impl Iterator<Item = (String, Decimal)> {
        self.changes.iter().map(|change| (change.setting.clone(), change.to))
    }

    /// The settings that it changes, as a place where something went wrong.
    pub fn settings(&self) -> String {
        self.changes.iter().map(|change| change.setting.as_str()).collect::<Vec<_>>().join(", ")
    }

    /// The change of this setting.
    pub fn change_of(&self, setting: &str) -> Option<&Change> {
        self.changes.iter().find(|change| change.setting == setting)
    }

    /// Takes another change in, unless its setting is changed already: what may not be done in one jump takes another visit.
    ///
    /// # Errors
    /// Gives the change back.
    pub fn add(&mut self, change: Change) -> Result<(), Change> {
        if self.change_of(&change.setting).is_some() {
            return Err(change);
        }
        self.changes.push(change);
        Ok(())
    }

    /// The same changes taken back, the last one first, as far as it is known from where they came.
    #[must_use]
    pub fn back(&self) -> Self {
        let taken_back =
            |change: &Change| Some(Change { setting: change.setting.clone(), from: Some(change.to), to: change.from? });
        Self { changes: self.changes.iter().rev().filter_map(taken_back).collect() }
    }

    /// Whether somebody has to make it, or to start the machine anew with it.
    pub fn needs_somebody(&self, rig: &Rig) -> bool {
        self.changes.iter().any(|change| rig.needs_somebody(&change.setting))
    }

    /// Whether the machine has to be started anew before it is in force.
    pub fn needs_start(&self, rig: &Rig) -> bool {
        self.changes.iter().any(|change| rig.needs_start(&change.setting))
    }

    /// Those of its changes that a start brings into force.
    pub fn with_start(&self, rig: &Rig) -> Self {
        let changes = self.changes.iter().filter(|change| rig.needs_start(&change.setting));
        Self { changes: changes.cloned().collect() }
    }

    /// Those of its changes that no start brings into force.
    pub fn without_start(&self, rig: &Rig) -> Option<Self> {
        let changes = self.changes.iter().filter(|change| !rig.needs_start(&change.setting));
        let changes: Vec<Change> = changes.cloned().collect();
        (!changes.is_empty()).then_some(Self { changes })
    }
}

impl From<Written> for Errand {
    fn from(written: Written) -> Self {
        match written {
            Written::One { change } => Self::of(change),
            Written::Several { changes } => Self { changes },
        }
    }
}

impl From<Errand> for Written {
    fn from(mut errand: Errand) -> Self {
        match errand.changes.pop() {
            Some(change) if errand.changes.is_empty() => Self::One { change },
            Some(last) => {
                errand.changes.push(last);
                Self::Several { changes: errand.changes }
            }
            None => Self::Several { changes: Vec::new() },
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn change(setting: &str, to: i64) -> Change {
        Change { setting: setting.into(), from: None, to: to.into() }
    }

    #[test]
    fn a_setting_is_changed_once_a_visit() {
        let mut errand = Errand::of(change("clock", 43));
        assert_eq!(errand.add(change("clock", 44)), Err(change("clock", 44)));
        assert_eq!(errand.add(change("volts", 130)), Ok(()));
        assert_eq!(errand.changes().len(), 2);
    }

    #[test]
    fn changes_are_taken_back_from_the_last_one_on() {
        let from = |setting: &str, from: i64, to: i64| Change { from: Some(from.into()), ..change(setting, to) };
        let mut errand = Errand::of(from("clock", 42, 43));
        errand.add(from("volts", 125, 130)).expect("another setting");
        assert_eq!(errand.back().changes(), [from("volts", 130, 125), from("clock", 43, 42)]);
        assert_eq!(Errand::of(change("clock", 43)).back().changes(), [], "nobody knows to where");
    }

    #[test]
    fn one_change_is_written_as_it_always_was() {
        let one = Errand::of(change("clock", 43));
        let written = serde_json::to_string(&one).expect("json");
        assert_eq!(written, r#"{"change":{"setting":"clock","from":null,"to":"43"}}"#);
        assert_eq!(serde_json::from_str::<Errand>(&written).expect("an errand"), one);
        let mut two = one;
        two.add(change("volts", 130)).expect("another setting");
        let written = serde_json::to_string(&two).expect("json");
        assert!(written.starts_with(r#"{"changes":["#), "{written}");
        assert_eq!(serde_json::from_str::<Errand>(&written).expect("an errand"), two);
    }
}

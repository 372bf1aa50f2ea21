//! One thing that can be changed on a rig, and how far.

use std::collections::BTreeMap;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::model::check::Check;
use crate::model::formula::Formula;
use crate::model::incident_kind::IncidentKind;
use crate::model::ladder::{Direction, Ladder};
use crate::model::moment::Span;
use crate::model::outlet::Outlet;
use crate::model::quantity::{grouped, with_unit};

/// Over so much of a setting's value failures usually grow more often by a factor of e: half a per cent to one for the clocks, voltages
/// and transfer rates of silicon near its limit.
const E_FOLDING: Decimal = Decimal::from_parts(65, 0, 0, false, 4);

/// What is usual for a step that is no share of a value: whoever chose it wants a few of them to matter.
const SLOPE_OF_CHOSEN: f64 = 0.9;

/// A step of a larger share of stock is none of a value like that.
const MOST_OF_STOCK: Decimal = Decimal::from_parts(1, 0, 0, false, 1);

/// Slopes that are usual at all, in factors of e a step.
const SLOPES: (f64, f64) = (0.05, 1.0);

/// When and by whom a change of a setting is made.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum TakesEffect {
    /// The adapter sets it while the rig runs; a restart puts it back to stock.
    AtOnce,
    /// The adapter writes it into a file that the machine reads when it starts; it outlives a restart, and is in force
    /// only after one.
    AtNextStart,
    /// A person changes it, in firmware or with a tool; it outlives a restart.
    ByHand,
}

impl TakesEffect {
    /// Whether somebody has to do something to the machine before a change is in force.
    pub fn needs_somebody(self) -> bool {
        self != Self::AtOnce
    }

    /// What a setting does not outlive where nobody says.
    fn usually_lost_on(self) -> LostOn {
        if self == Self::AtOnce { LostOn::Restart } else { LostOn::Defaults }
    }
}

/// The least that has to happen for a setting to be back at stock without anybody's doing, from the least to the most.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum LostOn {
    /// Its device was reset, while the machine lives on.
    DeviceReset,
    /// The machine was started anew.
    Restart,
    /// The machine was without power.
    PowerOff,
    /// Nothing but the machine's own defaults.
    Defaults,
}

impl LostOn {
    /// What a kind of incident takes away; nothing where it takes away nothing.
    fn by(kind: IncidentKind) -> Option<Self> {
        match kind {
            // A display that shows nothing has gone back to what it showed before.
            IncidentKind::DeviceReset | IncidentKind::NoPicture => Some(Self::DeviceReset),
            IncidentKind::Restart | IncidentKind::Freeze => Some(Self::Restart),
            // It is without power in between, since nothing else helps a machine that does not start.
            IncidentKind::NoStart => Some(Self::PowerOff),
            IncidentKind::SafeDefaults => Some(Self::Defaults),
            _ => None,
        }
    }
}

/// A line of a text file that the machine reads when it starts.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct BootLine {
    /// The file's path.
    pub file: String,
    /// What the line begins with.
    pub key: String,
    /// What stands between key and value.
    pub between: String,
}

/// One thing that can be changed, with its ladder, stock value and limits, all in the setting's unit.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Setting {
    /// The name that plans and formulas use.
    pub name: String,
    /// The name that people read.
    pub label: String,
    /// The unit of every value here; empty for a plain number.
    pub unit: String,
    /// The allowed values.
    pub ladder: Ladder,
    /// The value the rig has when nobody changes it.
    pub stock: Decimal,
    /// The smallest value that is ever applied.
    pub floor: Decimal,
    /// A floor that the other settings make, beside that; none where they make none.
    pub floor_by: Option<Formula>,
    /// The largest value that is ever applied, for each use.
    pub ceilings: BTreeMap<String, Decimal>,
    /// The farthest a single change may go; any distance where there is none.
    pub largest_jump: Option<Decimal>,
    /// How far the reported value may be from the asked one and still count as taken.
    pub tolerance: Decimal,
    /// The direction in which the rig finds it harder.
    pub harder: Direction,
    /// When a change is in force.
    pub takes_effect: TakesEffect,
    /// What it does not outlive, where that is not the usual.
    pub lost_on: Option<LostOn>,
    /// How long a new value stays without a word that all is well; for good where none has to be said.
    pub confirm: Option<Span>,
    /// What says so by itself, where something does.
    pub confirmed_by: Option<Check>,
    /// The adapter that changes it and reads it back.
    pub adapter: String,
    /// What the adapter calls it; empty where it needs no name.
    pub target: String,
    /// The program or the instrument that serves it; none where its adapter knows by itself.
    pub outlet: Option<Outlet>,
    /// Where it is written, for one that is in force at the next start.
    pub boot_line: Option<BootLine>,
    /// What the values 0, 1, 2, … stand for, where they are no numbers.
    pub words: Vec<String>,
    /// What was paid for each of these, in the currency of the rig's parts; empty where nobody says.
    pub paid: Vec<Decimal>,
    /// The processors whose limit it is, as the operating system numbers them; empty where it is not that of some alone.
    pub drives: Vec<u32>,
}

impl Setting {
    /// Whether somebody has to say that a change of it is well, since nothing else does.
    pub fn wants_a_word(&self) -> bool {
        self.confirm.is_some() && self.confirmed_by.is_none()
    }

    /// The largest value that may be applied for this use; without a ceiling for it, the stock value.
    pub fn ceiling(&self, use_name: &str) -> Decimal {
        self.ceilings.get(use_name).copied().unwrap_or(self.stock)
    }

    /// Whether the value may be applied for this use: on the ladder, not below the floor, not above the ceiling.
    pub fn allows(&self, value: Decimal, use_name: &str) -> bool {
        self.ladder.contains(value) && value >= self.floor && value <= self.ceiling(use_name)
    }

    /// The hardest value that may be applied for this use.
    pub fn hardest(&self, use_name: &str) -> Decimal {
        match self.harder {
            Direction::Up => self.ceiling(use_name),
            Direction::Down => self.floor,
        }
    }

    /// A step that matters where nobody says one: a tenth of the way from stock to the hardest value, as a multiple of the ladder's
    /// own step; none where the ladder has no next value.
    pub fn usual_step(&self, use_name: &str) -> Option<Decimal> {
        let share = (self.hardest(use_name) - self.stock).abs() / Decimal::TEN;
        let one = (self.ladder.next(self.stock, self.harder)? - self.stock).abs();
        (one > Decimal::ZERO).then(|| (share / one).round().max(Decimal::ONE) * one)
    }

    /// How much more often it usually fails a step of this size harder, in factors of e: as for most of what is pushed, by one for so much
    /// of its value; where stock is nothing to compare with, as if the step had been chosen well.
    pub fn usual_slope(&self, step: Decimal) -> f64 {
        let share = (!self.stock.is_zero()).then(|| (step / self.stock).abs()).filter(|share| *share <= MOST_OF_STOCK);
        let slope = share.and_then(|share| (share / E_FOLDING).to_f64()).unwrap_or(SLOPE_OF_CHOSEN);
        slope.clamp(SLOPES.0, SLOPES.1)
    }

    /// How many steps of this size it is from a value to another one, in the direction of what is harder.
    pub fn steps(&self, from: Decimal, to: Decimal, step: Decimal) -> f64 {
        let by = ((to - from) / step).to_f64().unwrap_or(0.0);
        if self.harder == Direction::Up { by } else { -by }
    }

    /// Whether a reported value is the asked one, as far as the rig can tell.
    pub fn is_as_asked(&self, asked: Decimal, reported: Decimal) -> bool {
        (reported - asked).abs() <= self.tolerance
    }

    /// Whether going from one value to the other makes it harder for the rig.
    pub fn is_harder(&self, from: Decimal, to: Decimal) -> bool {
        match self.harder {
            Direction::Up => to > from,
            Direction::Down => to < from,
        }
    }

    /// Whether it is back at stock after this happened.
    pub fn is_lost_by(&self, kind: IncidentKind) -> bool {
        let lost_on = self.lost_on.unwrap_or(self.takes_effect.usually_lost_on());
        LostOn::by(kind).is_some_and(|lost| lost_on <= lost)
    }

    /// Whether the machine has to be started anew before a change is in force.
    pub fn needs_start(&self) -> bool {
        self.takes_effect == TakesEffect::AtNextStart
    }

    /// The value and its unit, as people read them.
    pub fn written(&self, value: Decimal) -> String {
        self.word(value).map_or_else(|| with_unit(self.ladder.rescaled(value), &self.unit), str::to_owned)
    }

    /// The value as people read it where its unit is told elsewhere.
    pub fn written_short(&self, value: Decimal) -> String {
        self.word(value).map_or_else(|| grouped(self.ladder.rescaled(value)), str::to_owned)
    }

    /// What the setting is called, with its unit, as in the head of a column.
    pub fn title(&self) -> String {
        if self.unit.is_empty() { self.label.clone() } else { format!("{}, {}", self.label, self.unit) }
    }

    /// What a value stands for, where it is no number.
    fn word(&self, value: Decimal) -> Option<&str> {
        let index = usize::try_from(value).ok().filter(|_| value.fract().is_zero())?;
        self.words.get(index).map(String::as_str)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn more_takes_away_what_less_does() {
        let kinds =
            [IncidentKind::DeviceReset, IncidentKind::Restart, IncidentKind::NoStart, IncidentKind::SafeDefaults];
        for (nth, lost_on) in
            [LostOn::DeviceReset, LostOn::Restart, LostOn::PowerOff, LostOn::Defaults].into_iter().enumerate()
        {
            let is_lost = kinds.map(|kind| LostOn::by(kind).is_some_and(|lost| lost_on <= lost));
            assert_eq!(is_lost.iter().position(|lost| *lost), Some(nth), "{lost_on:?}");
            assert!(is_lost.is_sorted());
        }
        let is_of_a_device = |kind| matches!(kind, IncidentKind::DeviceReset | IncidentKind::NoPicture);
        assert!(
            IncidentKind::ALL
                .iter()
                .filter(|kind| LostOn::by(**kind).is_some())
                .all(|kind| is_of_a_device(*kind) || kind.takes_machine_down())
        );
    }
}

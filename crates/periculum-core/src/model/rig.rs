//! One machine under test, and what may be asked of it.

use rust_decimal::Decimal;

use crate::model::curve::{Curve, Point};
use crate::model::formula::Formula;
use crate::model::history::History;
pub use crate::model::illegal::{Illegal, Window};
use crate::model::plan::Raised;
use crate::model::quantity::{grouped, with_unit};
use crate::model::rung::Rung;
pub use crate::model::sensor::{Sensor, When};
use crate::model::setting::Setting;

/// One machine under test: named specimens of parts, settings, derived values and sensors.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Rig {
    /// The rig's name.
    pub name: String,
    /// What it is, in a sentence.
    pub summary: String,
    /// Where it is.
    pub place: Place,
    /// How it is cooled, as its ceilings may depend on; empty where nobody says.
    pub cooling: String,
    /// The watchdog that restarts it when it stands still, as a path; empty where it has none.
    pub watchdog: String,
    /// What its owner says that it did before.
    pub history: Vec<History>,
    /// Its parts; what was paid for them is of one currency.
    pub parts: Vec<Part>,
    /// What can be changed, in the order of the file; the levers of curves behind all others.
    pub settings: Vec<Setting>,
    /// The settings that move together.
    pub curves: Vec<Curve>,
    /// What is calculated from the settings.
    pub derived: Vec<Derived>,
    /// What is measured.
    pub sensors: Vec<Sensor>,
}

/// Where a rig is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Place {
    /// Nobody says, so that it is taken for the machine that this runs on.
    #[default]
    Unsaid,
    /// It is the machine that this runs on.
    Here,
    /// It is another machine, so that nothing here is set, loaded or watched for it.
    Elsewhere,
}

/// A part of a rig; results belong to its specimen.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Part {
    /// What kind of part, as in `processor`.
    pub kind: String,
    /// Its model.
    pub model: String,
    /// Which one of its model.
    pub specimen: String,
    /// Which firmware it has; empty where nobody says.
    pub firmware: String,
    /// Where it sits; empty where nobody says.
    pub slot: String,
    /// Since when it is there, as its owner writes dates; empty where nobody says.
    pub since: String,
    /// What was paid for it; none where nobody says.
    pub paid: Option<Paid>,
}

/// An amount of money.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Paid {
    /// How much.
    pub amount: Decimal,
    /// Of what, as in `EUR`.
    pub currency: String,
}

/// A value calculated from settings.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Derived {
    /// The name that people and files use.
    pub name: String,
    /// Its unit.
    pub unit: String,
    /// How it is calculated.
    pub formula: Formula,
    /// The smallest value within its specification.
    pub lowest: Option<Decimal>,
    /// The largest value within its specification.
    pub highest: Option<Decimal>,
}

impl Rig {
    /// A rig of this name with nothing in it.
    pub fn bare(name: &str) -> Self {
        Self {
            name: name.to_owned(),
            summary: String::new(),
            place: Place::Unsaid,
            cooling: String::new(),
            watchdog: String::new(),
            history: Vec::new(),
            parts: Vec::new(),
            settings: Vec::new(),
            curves: Vec::new(),
            derived: Vec::new(),
            sensors: Vec::new(),
        }
    }

    /// Whether it is another machine than the one that this runs on.
    pub fn is_elsewhere(&self) -> bool {
        self.place == Place::Elsewhere
    }

    /// The setting of this name.
    pub fn setting(&self, name: &str) -> Option<&Setting> {
        self.settings.iter().find(|setting| setting.name == name)
    }

    /// The curve that this setting is a lever of.
    pub fn curve_of(&self, setting: &str) -> Option<&Curve> {
        self.curves.iter().find(|curve| curve.levers().any(|lever| lever == setting))
    }

    /// Whether this setting is one point's own value of a curve: there are many of them, which hardly anybody moves one by one.
    pub fn is_point(&self, setting: &Setting) -> bool {
        let is_it = |point: &Point| point.setting.as_deref() == Some(setting.name.as_str());
        self.curves.iter().any(|curve| curve.points.iter().any(is_it))
    }

    /// The settings that are no point's own.
    pub fn settings_but_points(&self) -> impl Iterator<Item = &Setting> {
        self.settings.iter().filter(|setting| !self.is_point(setting))
    }

    /// Whether a value of a setting goes without saying: a curve has many levers, of which most are as they come.
    pub fn goes_without_saying(&self, setting: &Setting, value: Decimal) -> bool {
        value == setting.stock && self.curve_of(&setting.name).is_some()
    }

    /// The settings that have something to tell in any of these rungs.
    pub fn settings_told<'a>(&self, rungs: impl IntoIterator<Item = &'a Rung>) -> Vec<&Setting> {
        let is_lever = |setting: &&Setting| self.curve_of(&setting.name).is_some();
        let (levers, mut told): (Vec<&Setting>, Vec<&Setting>) = self.settings.iter().partition(is_lever);
        let mut moved = vec![false; levers.len()];
        for rung in rungs.into_iter().filter(|_| !levers.is_empty()) {
            for (lever, moved) in levers.iter().zip(&mut moved) {
                *moved |= rung.get(&lever.name).is_some_and(|value| value != lever.stock);
            }
        }
        told.extend(levers.iter().zip(moved).filter_map(|(lever, moved)| moved.then_some(*lever)));
        told
    }

    /// Whether somebody has to do something to the machine before a change of this setting is in force.
    pub fn needs_somebody(&self, name: &str) -> bool {
        self.setting(name).is_some_and(|setting| setting.takes_effect.needs_somebody())
    }

    /// Whether the machine has to be started anew before a change of this setting is in force.
    pub fn needs_start(&self, name: &str) -> bool {
        self.setting(name).is_some_and(Setting::needs_start)
    }

    /// The same rig with these ceilings for this use.
    #[must_use]
    pub fn raised(mut self, use_name: &str, raised: &[Raised]) -> Self {
        for one in raised {
            let setting = self.settings.iter_mut().find(|setting| setting.name == one.setting);
            setting.map(|setting| setting.ceilings.insert(use_name.to_owned(), one.ceiling));
        }
        self
    }

    /// Every setting at its stock value.
    pub fn stock(&self) -> Rung {
        self.settings.iter().map(|setting| (setting.name.clone(), setting.stock)).collect()
    }

    /// Whether the rung may be tried for this use.
    ///
    /// # Errors
    /// Says which setting or derived value stands against it.
    pub fn permit(&self, rung: &Rung, use_name: &str) -> Result<(), Illegal> {
        for setting in &self.settings {
            let value = rung.get(&setting.name).ok_or_else(|| Illegal::Missing { setting: setting.name.clone() })?;
            if !setting.allows(value, use_name) {
                return Err(Illegal::OutOfReach {
                    setting: setting.name.clone(),
                    value,
                    floor: setting.floor,
                    ceiling: setting.ceiling(use_name),
                });
            }
        }
        self.settings.iter().try_for_each(|setting| permit_floor(setting, rung))?;
        self.sensors.iter().try_for_each(|sensor| sensor.permit(rung))?;
        self.curves.iter().try_for_each(|curve| curve.permit(|name| rung.get(name), use_name))?;
        self.derived.iter().try_for_each(|derived| derived.permit(rung))
    }

    /// A rung as people read it, settings in the order of the file: `4 700 MHz at 1.250 V`, with labels where several
    /// have the same unit.
    pub fn written(&self, rung: &Rung) -> String {
        if self.settings.is_empty() {
            return "everything as it is".into();
        }
        self.written_but(rung, "")
    }

    /// The same without one setting. A number whose unit does not say what it is has its label before it.
    pub fn written_but(&self, rung: &Rung, left_out: &str) -> String {
        let is_told_by_unit = |one: &Setting| {
            let is_other = |other: &&Setting| other.name != one.name && other.unit == one.unit;
            !one.unit.is_empty() && !self.settings.iter().any(|other| is_other(&other))
        };
        let is_lever = |one: &Setting| self.curve_of(&one.name).is_some();
        let needs_label = |one: &Setting| one.words.is_empty() && (is_lever(one) || !is_told_by_unit(one));
        let needs_labels = self.settings.iter().any(needs_label);
        let value = |setting: &Setting| {
            let value = rung.get(&setting.name).filter(|value| !self.goes_without_saying(setting, *value))?;
            let value = setting.written(value);
            Some(if needs_label(setting) { format!("{} {value}", setting.label) } else { value })
        };
        let settings = self.settings.iter().filter(|setting| setting.name != left_out);
        let values: Vec<String> = settings.filter_map(value).collect();
        values.join(if needs_labels { ", " } else { " at " })
    }

    /// What each part is called: by its kind, and where there are several of one also by which.
    pub fn part_names(&self) -> Vec<String> {
        let name = |(place, part): (usize, &Part)| {
            let alike = |parts: &[Part]| parts.iter().filter(|other| other.kind == part.kind).count();
            match alike(&self.parts) {
                1 => part.kind.clone(),
                _ => format!("{} {}", part.kind, alike(&self.parts[..=place])),
            }
        };
        self.parts.iter().enumerate().map(name).collect()
    }

    /// Firmware, slot and date of each part that has one, as people read them; empty where none has.
    pub fn state_of_parts(&self) -> String {
        let told = |(name, part): (String, &Part)| {
            let about = [("firmware", &part.firmware), ("slot", &part.slot), ("since", &part.since)];
            let about = about.into_iter().filter(|(_, value)| !value.is_empty());
            let about: Vec<String> = about.map(|(what, value)| format!("{what} {value}")).collect();
            (!about.is_empty()).then(|| format!("{name} {}", about.join(" ")))
        };
        self.part_names().into_iter().zip(&self.parts).filter_map(told).collect::<Vec<_>>().join(", ")
    }

    /// The specimens of all parts, as people read them.
    pub fn specimens(&self) -> String {
        let named = self.parts.iter().filter(|part| !part.specimen.is_empty());
        named.map(|part| format!("{} {}", part.kind, part.specimen)).collect::<Vec<_>>().join(", ")
    }
}

/// A floor that other settings make.
fn permit_floor(setting: &Setting, rung: &Rung) -> Result<(), Illegal> {
    let Some(formula) = &setting.floor_by else { return Ok(()) };
    let floor = formula.value(|name| rung.get(name)).ok_or_else(|| Illegal::Limitless { of: setting.name.clone() })?;
    let value = rung.get(&setting.name).unwrap_or(setting.stock);
    if value >= floor { Ok(()) } else { Err(Illegal::BelowFloor { setting: setting.name.clone(), value, floor }) }
}

impl Rig {
    /// The sensor of the room's temperature, which is called so.
    pub fn room(&self) -> Option<&Sensor> {
        self.sensors.iter().find(|sensor| sensor.name == "room" && sensor.unit == "°C")
    }

    /// The sensors that somebody reads.
    pub fn read_by_hand(&self) -> impl Iterator<Item = &Sensor> {
        self.sensors.iter().filter(|sensor| sensor.asked.is_some())
    }

    /// What was paid for its parts, together; none where nobody says.
    pub fn paid(&self) -> Option<Paid> {
        let sum = |sum: Paid, part: Paid| Paid { amount: sum.amount + part.amount, ..sum };
        self.parts.iter().filter_map(|part| part.paid.clone()).reduce(sum)
    }

    /// The same rig with these sensors behind its own.
    #[must_use]
    pub fn with_sensors(&self, sensors: impl IntoIterator<Item = Sensor>) -> Self {
        let mut rig = self.clone();
        rig.sensors.extend(sensors);
        rig
    }
}

impl Derived {
    /// The value at a rung; none where it can't be calculated.
    pub fn value(&self, rung: &Rung) -> Option<Decimal> {
        self.formula.value(|name| rung.get(name))
    }

    /// What people call it.
    pub fn label(&self) -> String {
        self.name.replace('_', " ")
    }

    /// A value as people read it, to three decimals and with its unit.
    pub fn written(&self, value: Decimal) -> String {
        with_unit(value.round_dp(3).normalize(), &self.unit)
    }

    /// The same where its unit is told elsewhere.
    pub fn written_short(&self, value: Decimal) -> String {
        grouped(value.round_dp(3).normalize())
    }

    fn permit(&self, rung: &Rung) -> Result<(), Illegal> {
        let value = self.value(rung);
        let inside = value.is_some_and(|value| {
            self.lowest.is_none_or(|lowest| value >= lowest) && self.highest.is_none_or(|highest| value <= highest)
        });
        if inside {
            return Ok(());
        }
        Err(Illegal::OutsideWindow {
            derived: self.name.clone(),
            value: value.map_or("impossible to calculate".to_owned(), |value| value.round_dp(3).to_string()),
            window: Window(self.lowest, self.highest),
        })
    }
}

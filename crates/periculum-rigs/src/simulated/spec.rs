//! `[adapter.simulated]` of a rig file: which specimen it is, and the devices that the rig is made of.

use periculum_core::files::Section;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use periculum_core::model::task::Task;

use super::device::Device;
use super::devices::{KINDS, Kind, processor};
use super::law::Law;
use super::numbers::positive_or;

/// A simulated rig; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub struct Spec {
    /// Which specimen it is, unless the caller says otherwise.
    pub seed: u64,
    devices: Vec<Named>,
}

/// A device, and what its sources are called by where there are several; nothing where it is the only one.
#[derive(Clone, Debug, PartialEq)]
struct Named {
    name: String,
    kind: Kind,
}

/// What the seeds of two devices of one rig differ by.
const APART: u64 = 0x9e37_79b9_7f4a_7c15;

impl Spec {
    /// Reads `[adapter.simulated]`, for this rig: one processor, or each of `[adapter.simulated.device.…]`. Problems go where
    /// the section's problems go.
    pub fn read(section: Section, rig: &Rig) -> Option<Self> {
        let seed = section.optional_count("seed", 0).map_or(0, |seed| u64::from(seed.value));
        let room = positive_or(&section, "room", 21.0);
        let devices = match section.named_sections("device") {
            several if several.is_empty() => {
                processor::Spec::read(&section, rig, room).map(|spec| vec![Named::only(spec)])
            }
            several => several.into_iter().map(|(name, section)| Named::read(name.value, section, rig, room)).collect(),
        };
        section.finish();
        Some(Self { seed, devices: devices? })
    }

    /// A rig that is one processor.
    pub fn of_processor(seed: u64, processor: processor::Spec) -> Self {
        Self { seed, devices: vec![Named::only(processor)] }
    }

    /// By which law its first processor fails; none where it has none.
    pub fn law(&self) -> Option<Law> {
        self.devices.iter().find_map(|named| match &named.kind {
            Kind::Processor(spec) => Some(spec.silicon.law),
            _ => None,
        })
    }

    /// The names of the loads that it runs.
    pub fn loads(&self) -> Vec<&'static str> {
        let mut loads: Vec<&str> =
            self.devices(self.seed, &Rung::default()).iter().flat_map(|(_, it)| it.loads()).collect();
        loads.sort_unstable();
        loads.dedup();
        loads
    }

    /// The tests of it that somebody has to start and to read, each with what they write down.
    pub fn tests(&self) -> Vec<(&'static str, Task)> {
        self.devices(self.seed, &Rung::default()).iter().flat_map(|(_, it)| it.tests()).collect()
    }

    /// What a sensor's `source` may name.
    pub fn sources(&self) -> Vec<String> {
        let devices = self.devices(self.seed, &Rung::default());
        let named = |(name, device): &(String, Box<dyn Device>)| {
            device.sources().into_iter().map(|source| format!("{name}{source}")).collect::<Vec<_>>()
        };
        devices.iter().flat_map(named).collect()
    }

    /// The devices of the specimen of this seed, at rest with this rung, each with what its sources begin with.
    pub(super) fn devices(&self, seed: u64, rung: &Rung) -> Vec<(String, Box<dyn Device>)> {
        let made = self.devices.iter().zip(0u64..).map(|(Named { name, kind }, index)| {
            let seed = seed.wrapping_add(index.wrapping_mul(APART));
            let device = kind.specimen(seed, rung);
            let prefix = if name.is_empty() { String::new() } else { format!("{name}/") };
            (prefix, device)
        });
        made.collect()
    }
}

impl Named {
    fn only(processor: processor::Spec) -> Self {
        Self { name: String::new(), kind: Kind::Processor(processor) }
    }

    fn read(name: String, section: Section, rig: &Rig, room: f64) -> Option<Self> {
        let kind = section.choice("kind", &KINDS).and_then(|kind| (kind.value)(&section, rig, room));
        section.finish();
        Some(Self { name, kind: kind? })
    }
}

#[cfg(test)]
mod tests {
    use periculum_core::files::{Document, Problems};

    use super::super::rig::tests::rig;
    use super::*;

    fn read(text: &str) -> Result<Spec, Vec<String>> {
        let text = format!("format = 1\n[s]\n{text}");
        let document = Document::parse(&text).expect("a document");
        let problems = Problems::default();
        let section = document.top(&problems).optional_section("s").expect("a section");
        let spec = Spec::read(section, &rig());
        if problems.is_empty() {
            return Ok(spec.expect("a rig"));
        }
        Err(problems.into_sorted().into_iter().map(|problem| problem.what).collect())
    }

    #[test]
    fn one_device_needs_no_name_and_several_have_one() {
        let one = read("clock = \"core_clock\"\nvoltage = \"core_voltage\"\nseed = 3\n").expect("one");
        assert_eq!(one.seed, 3);
        assert!(one.sources().contains(&"hottest-core".to_owned()) && one.loads().contains(&"dense"));
        let two = read(
            "[s.device.near]\nkind = \"processor\"\nclock = \"core_clock\"\nvoltage = \"core_voltage\"\n\
             [s.device.far]\nkind = \"processor\"\nclock = \"core_clock\"\nvoltage = \"core_voltage\"\ncores = 4\n",
        )
        .expect("two");
        assert_eq!(two.loads(), one.loads());
        assert!(two.sources().contains(&"far/hottest-core".to_owned()), "{:?}", two.sources());
        assert_eq!(two.devices(3, &rig().stock()).len(), 2);
        assert_eq!(read("[s.device.near]\nkind = \"toaster\"\n"), Err(vec!["there is no `kind` `toaster`".to_owned()]));
    }
}

//! Which adapter serves a sensor, and what stands against it: each is a row of one table.

mod file;

use periculum_core::files::{Section, outlet_file};
use periculum_core::model::moment::Span;
use periculum_core::model::rig::{Rig, Sensor};

use file::Files;

use super::{Place, SIMULATED};
use crate::bench::Sensed;
use crate::latest::Latest;
use crate::linux::{self, Linux, Sampler};
use crate::outlet::Readings;
use crate::scpi::{self, Instruments};
use crate::simulated::Spec;

/// An adapter that reads sensors.
struct Reads {
    name: &'static str,
    /// Where the rigs are that it serves.
    serves: &'static [Place],
    check: fn(&Section, &[String]),
    /// Reads these sensors beside a bench; none where that is what the bench does.
    start: Option<Start>,
}

type Start = fn(&[Sensor], &Linux) -> Box<dyn Senses>;

/// Whoever reads sensors beside a bench.
pub(super) trait Senses: Send {
    /// What they read of late.
    fn sensed(&self) -> Sensed;
}

impl Senses for Instruments {
    fn sensed(&self) -> Sensed {
        self.sensed()
    }
}

impl Senses for Files {
    fn sensed(&self) -> Sensed {
        self.sensed()
    }
}

impl Senses for Readings {
    fn sensed(&self) -> Sensed {
        self.sensed()
    }
}

/// This machine's sensors.
struct OfKernel {
    latest: Latest,
    /// Reads as long as it lives.
    _sampler: Sampler,
}

impl Senses for OfKernel {
    fn sensed(&self) -> Sensed {
        self.latest.sensed()
    }
}

fn read_kernel(sensors: &[Sensor], linux: &Linux) -> Box<dyn Senses> {
    let latest = Latest::default();
    let sampler = Sampler::start(linux, sensors, &latest);
    Box::new(OfKernel { latest, _sampler: sampler })
}

/// Everybody who has to read sensors of this rig beside its bench, which reads those of these adapters by itself.
pub(super) fn beside(rig: &Rig, by_bench: &[&str], linux: &Linux) -> Vec<Box<dyn Senses>> {
    let others = ADAPTERS.iter().filter(|adapter| !by_bench.contains(&adapter.name));
    let start = |adapter: &Reads| {
        let named = |sensor: &&Sensor| sensor.adapter == adapter.name;
        let sensors: Vec<Sensor> = rig.sensors.iter().filter(named).cloned().collect();
        adapter.start.filter(|_| !sensors.is_empty()).map(|start| start(&sensors, linux))
    };
    others.filter_map(start).collect()
}

const ANYWHERE: &[Place] = &[Place::Here, Place::Simulated, Place::Elsewhere];

/// Every one; the first that serves a rig is that of sensors which name none.
const ADAPTERS: [Reads; 6] = [
    Reads { name: SIMULATED, serves: &[Place::Simulated], check: check_simulated, start: None },
    Reads {
        name: linux::ADAPTER,
        serves: &[Place::Here, Place::Simulated],
        check: |section, _| check_kernel(section),
        start: Some(read_kernel),
    },
    Reads {
        name: scpi::ADAPTER,
        serves: ANYWHERE,
        check: |section, _| check_instrument(section),
        start: Some(|sensors, _| Box::new(Instruments::start(sensors))),
    },
    Reads {
        name: file::ADAPTER,
        serves: ANYWHERE,
        check: |section, _| check_file(section),
        start: Some(|sensors, _| Box::new(Files::start(sensors))),
    },
    // What is run is read with the sensor itself.
    Reads {
        name: outlet_file::PROGRAM,
        serves: ANYWHERE,
        check: |_, _| (),
        start: Some(|sensors, _| Box::new(Readings::start(sensors))),
    },
    // Somebody is asked, by the engine.
    Reads { name: Sensor::BY_HAND, serves: ANYWHERE, check: |section, _| check_by_hand(section), start: None },
];

/// A simulated rig may have sensors of this machine and instruments beside its own.
pub(super) fn check(top: &Section, place: Place, simulated: Option<&Spec>) {
    let sources = simulated.map(Spec::sources).unwrap_or_default();
    let serving: Vec<&Reads> = ADAPTERS.iter().filter(|adapter| adapter.serves.contains(&place)).collect();
    for (_, section) in top.named_sections("sensor") {
        let named = section.optional_text("adapter");
        let adapter = serving.iter().find(|adapter| named.as_ref().is_none_or(|named| named.value == adapter.name));
        if let (None, Some(named)) = (adapter, named) {
            let known: Vec<&str> = serving.iter().map(|adapter| adapter.name).collect();
            section.problems().unknown(named.at, "adapter for the sensors of this rig called", &named.value, &known);
        }
        if let Some(adapter) = adapter.or(serving.first()) {
            (adapter.check)(&section, &sources);
        }
    }
}

fn check_simulated(section: &Section, sources: &[String]) {
    let sources: Vec<&str> = sources.iter().map(String::as_str).collect();
    check_source(section, SIMULATED, &sources, |_| false);
}

/// What somebody reads needs no source, and nobody is asked whether it follows a setting all the time.
fn check_by_hand(section: &Section) {
    if let Some(patience) = section.optional_text("patience") {
        section.problems().advise(patience.at, "somebody who is asked is waited for", "leave `patience` out");
    }
    for key in ["source", "follows", "least", "core"] {
        if section.has(key) {
            let help = format!("leave `{key}` out");
            section.problems().advise(section.at(), format!("a sensor that is read by hand has no `{key}`"), help);
        }
    }
}

fn check_kernel(section: &Section) {
    let is_found = |named: &str| linux::FOUND_SOURCES.iter().any(|kind| named.starts_with(kind));
    check_source(section, linux::ADAPTER, &linux::SOURCES, is_found);
}

fn check_source(section: &Section, adapter: &str, sources: &[&str], is_found: impl Fn(&str) -> bool) {
    if let Some(patience) = section.optional_text("patience") {
        section.problems().advise(patience.at, "only an instrument is waited for", "leave `patience` out");
    }
    let is_known = |named: &str| sources.contains(&named) || is_found(named);
    if let Some(named) = section.optional_text("source").filter(|named| !is_known(&named.value)) {
        let kind = format!("source of the {adapter} adapter called");
        section.problems().unknown(named.at, &kind, &named.value, sources);
    }
}

/// How long an instrument, or what writes a file, may be waited for at most.
const MOST_PATIENCE: Span = Span::from_seconds(60);

fn check_file(section: &Section) {
    check_patience(section);
    if let Some(source) = section.optional_text("source").filter(|source| !source.value.starts_with('/')) {
        let help = "write the whole path, as in `source = \"/run/pot/celsius\"`";
        section.problems().advise(source.at, "a file is named from the root on, wherever the program runs", help);
    }
}

fn check_patience(section: &Section) {
    let patience = section.optional_text("patience").and_then(|text| Some((Span::parse(&text.value).ok()?, text.at)));
    if let Some((_, at)) = patience.filter(|(patience, _)| !(Span::from_millis(1)..=MOST_PATIENCE).contains(patience)) {
        section.problems().add(at, "`patience` must be above nothing, and a minute at most");
    }
}

fn check_instrument(section: &Section) {
    check_patience(section);
    if let Some(source) = section.optional_text("source").filter(|source| scpi::Source::parse(&source.value).is_none())
    {
        section.problems().advise(
            source.at,
            "an instrument has a host, a port and a question",
            "write `source = \"127.0.0.1:5025 MEASure:VOLTage:DC?\"`",
        );
    }
}

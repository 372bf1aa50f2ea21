//! Every sensor that the kernel offers, with its unit and scaling as the kernel documents them.
//!
//! A sensor's source is a name that stays the same from start to start, though the kernel numbers its devices as it
//! finds them: `hwmon/CHIP/ATTRIBUTE`, `thermal/TYPE`, `clock/CPU`, `energy/ZONE`, `graphics/CARD/ATTRIBUTE`,
//! `pressure/RESOURCE`. Where two devices have the same name, the second one's is followed by `#2`.

use std::collections::BTreeMap;
use std::path::{Path, PathBuf};
use std::time::Instant;

use super::attribute::{lasting_chips, names, nth, number, numbered, patient_number, text, why_unread};
use super::card_limits::{self, Told};

/// A sensor that was found.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Found {
    /// What a rig file calls it.
    pub(super) source: String,
    /// What the kernel or the driver calls it.
    pub(super) label: String,
    /// The unit of its readings.
    pub(super) unit: &'static str,
    /// How many decimals of a reading mean something.
    pub(super) decimals: usize,
    /// The reading at which the device says it is critical; none where it does not say.
    pub(super) critical: Option<f64>,
    /// Where it is read.
    path: PathBuf,
    kind: Kind,
}

/// How an attribute becomes a reading.
#[derive(Clone, Copy, Debug, PartialEq)]
enum Kind {
    /// The number divided by this.
    Scaled(f64),
    /// A counter of energy in µJ that begins anew after this; its growth is power.
    Energy { range: u64 },
    /// The share of time in which some task waited, percent, in the last ten seconds.
    Pressure,
    /// What holds a card's clocks back.
    CardLimit(Told),
}

/// A way to read hwmon attributes: prefix, unit, divisor and decimals (kernel documentation, hwmon/sysfs-interface).
const HWMON: [(&str, &str, f64, usize); 6] = [
    ("temp", "°C", 1000.0, 1),
    ("in", "V", 1000.0, 3),
    ("curr", "A", 1000.0, 2),
    ("power", "W", 1_000_000.0, 1),
    ("fan", "1/min", 1.0, 0),
    ("freq", "MHz", 1_000_000.0, 0),
];

/// Every sensor below this root.
pub(super) fn find(root: &Path) -> Vec<Found> {
    let mut found = Vec::new();
    found.extend(hwmon(&root.join("sys/class/hwmon")));
    found.extend(thermal(&root.join("sys/class/thermal")));
    found.extend(clocks(&root.join("sys/devices/system/cpu")));
    found.extend(energy(&root.join("sys/class/powercap")));
    found.extend(graphics(&root.join("sys/class/drm")));
    found.extend(pressure(&root.join("proc/pressure")));
    found
}

fn hwmon(folder: &Path) -> Vec<Found> {
    let mut found = Vec::new();
    for (name, chip) in lasting_chips(folder) {
        for (prefix, unit, divisor, decimals) in HWMON {
            for (index, path) in inputs(&chip, prefix) {
                let attribute = format!("{prefix}{index}");
                let label = text(&chip.join(format!("{attribute}_label")));
                let critical = number(&chip.join(format!("{attribute}_crit"))).map(|limit| limit as f64 / divisor);
                found.push(Found {
                    source: format!("hwmon/{name}/{attribute}"),
                    label: label.map_or_else(|| format!("{name} {attribute}"), |label| format!("{name} {label}")),
                    unit,
                    decimals,
                    critical: critical.filter(|limit| *limit > 0.0),
                    path,
                    kind: Kind::Scaled(divisor),
                });
            }
        }
    }
    found
}

/// The attributes `PREFIXn_input` of a chip, and for power also `powern_average`, which some have instead.
fn inputs(chip: &Path, prefix: &str) -> Vec<(u32, PathBuf)> {
    let index = |name: &str, suffix: &str| name.strip_prefix(prefix)?.strip_suffix(suffix)?.parse::<u32>().ok();
    let mut found = BTreeMap::new();
    for name in names(chip) {
        if let Some(index) = index(&name, "_average").filter(|_| prefix == "power") {
            found.entry(index).or_insert_with(|| chip.join(&name));
        }
        if let Some(index) = index(&name, "_input") {
            found.insert(index, chip.join(&name));
        }
    }
    found.into_iter().collect()
}

fn thermal(folder: &Path) -> Vec<Found> {
    let mut seen = BTreeMap::new();
    let zones = numbered(folder, "thermal_zone");
    let zone = |(_, path): (u32, PathBuf)| {
        let name = nth(&mut seen, &text(&path.join("type"))?);
        let critical = numbered_trips(&path).into_iter().find(|(kind, _)| kind == "critical");
        Some(Found {
            source: format!("thermal/{name}"),
            label: name.replace('_', " "),
            unit: "°C",
            decimals: 1,
            critical: critical.map(|(_, limit)| limit / 1000.0),
            path: path.join("temp"),
            kind: Kind::Scaled(1000.0),
        })
    };
    zones.into_iter().filter_map(zone).collect()
}

/// The trip points of a thermal zone: kind and m°C.
fn numbered_trips(zone: &Path) -> Vec<(String, f64)> {
    (0..16)
        .map_while(|index| text(&zone.join(format!("trip_point_{index}_type"))).map(|kind| (index, kind)))
        .filter_map(|(index, kind)| Some((kind, number(&zone.join(format!("trip_point_{index}_temp")))? as f64)))
        .collect()
}

fn clocks(folder: &Path) -> Vec<Found> {
    let clock = |(cpu, path): (u32, PathBuf)| {
        let path = path.join("cpufreq/scaling_cur_freq");
        path.exists().then(|| Found {
            source: format!("clock/{cpu}"),
            label: format!("clock of core {cpu}"),
            unit: "MHz",
            decimals: 0,
            critical: None,
            path,
            kind: Kind::Scaled(1000.0),
        })
    };
    numbered(folder, "cpu").into_iter().filter_map(clock).collect()
}

fn energy(folder: &Path) -> Vec<Found> {
    let zone = |name: String| {
        let zone = folder.join(&name);
        let range = u64::try_from(number(&zone.join("max_energy_range_uj"))?).ok()?;
        let label = text(&zone.join("name"))?;
        Some(Found {
            source: format!("energy/{name}"),
            label: format!("power of {label}"),
            unit: "W",
            decimals: 1,
            critical: None,
            path: zone.join("energy_uj"),
            kind: Kind::Energy { range },
        })
    };
    names(folder).into_iter().filter(|name| name.contains(':')).filter_map(zone).collect()
}

/// What graphics drivers tell of a card besides its hwmon chip.
fn graphics(folder: &Path) -> Vec<Found> {
    let attributes = [
        ("gpu_busy_percent", "busy", "%", 1.0, 0),
        ("mem_busy_percent", "memory busy", "%", 1.0, 0),
        ("mem_info_vram_used", "memory used", "MiB", 1_048_576.0, 0),
    ];
    let of_card = |(card, path): (u32, PathBuf)| {
        attributes.into_iter().filter_map(move |(attribute, label, unit, divisor, decimals)| {
            let path = path.join("device").join(attribute);
            path.exists().then(|| Found {
                source: format!("graphics/card{card}/{attribute}"),
                label: format!("graphics {card} {label}"),
                unit,
                decimals,
                critical: None,
                path,
                kind: Kind::Scaled(divisor),
            })
        })
    };
    let limit = |(card, path): (u32, PathBuf)| {
        let (path, told) = card_limits::find(&path)?;
        Some(Found {
            source: format!("graphics/card{card}/limited-by"),
            label: format!("graphics {card} limited by"),
            unit: "",
            decimals: 0,
            critical: None,
            path,
            kind: Kind::CardLimit(told),
        })
    };
    let cards = numbered(folder, "card");
    cards.iter().cloned().flat_map(of_card).chain(cards.iter().cloned().filter_map(limit)).collect()
}

fn pressure(folder: &Path) -> Vec<Found> {
    let of = |name: &str| {
        let path = folder.join(name);
        path.exists().then(|| Found {
            source: format!("pressure/{name}"),
            label: format!("waiting for {name}"),
            unit: "%",
            decimals: 1,
            critical: None,
            path,
            kind: Kind::Pressure,
        })
    };
    ["cpu", "memory", "io"].into_iter().filter_map(of).collect()
}

/// A sensor while it is read again and again.
#[derive(Clone, Debug)]
pub(super) struct Reader {
    found: Found,
    /// The energy counter when it was last read, and when.
    before: Option<(u64, Instant)>,
}

impl Reader {
    /// The sensor of this source, where there is one.
    pub(super) fn of(root: &Path, source: &str) -> Option<Self> {
        find(root).into_iter().find(|found| found.source == source).map(|found| Self { found, before: None })
    }

    /// The reading of now; none where the sensor does not answer, or a counter was not read before.
    pub(super) fn read(&mut self, now: Instant) -> Option<f64> {
        match self.found.kind {
            Kind::Scaled(divisor) => Some(patient_number(&self.found.path)? as f64 / divisor),
            Kind::Pressure => some_waited(&text(&self.found.path)?),
            Kind::CardLimit(told) => card_limits::read(&self.found.path, told),
            Kind::Energy { range } => {
                let energy = u64::try_from(patient_number(&self.found.path)?).ok()?;
                let (before, then) = self.before.replace((energy, now))?;
                power(before, energy, range, now.duration_since(then).as_secs_f64())
            }
        }
    }
}

impl Found {
    /// What its readings 0, 1, 2, … stand for, where they are no numbers.
    pub(super) fn words(&self) -> &'static [&'static str] {
        if matches!(self.kind, Kind::CardLimit(_)) { &card_limits::WORDS } else { &[] }
    }
}

impl Reader {
    /// Why it does not answer, in words.
    pub(super) fn why_silent(&self) -> String {
        why_unread(&self.found.path)
    }
}

/// The power between two readings of an energy counter in µJ, W.
pub(super) fn power(before: u64, now: u64, range: u64, seconds: f64) -> Option<f64> {
    let used = if now >= before { now - before } else { range.checked_sub(before)?.checked_add(now)? };
    (seconds > 0.0).then(|| used as f64 / 1e6 / seconds)
}

/// `avg10` of the line `some` of a pressure file (kernel documentation, accounting/psi).
fn some_waited(text: &str) -> Option<f64> {
    let line = text.split(['\n', ' ']).skip_while(|word| *word != "some");
    line.skip(1).find_map(|word| word.strip_prefix("avg10="))?.parse().ok().filter(|share: &f64| share.is_finite())
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use proptest::prelude::*;
    use std::time::Duration;

    #[test]
    fn energy_becomes_power_and_its_counter_may_begin_anew() {
        assert_eq!(power(1_000_000, 31_000_000, 1 << 40, 2.0), Some(15.0));
        assert_eq!(power(262_000_000, 3_000_000, 265_000_000, 1.0), Some(6.0));
        assert_eq!(power(0, 5, 9, 0.0), None);
    }

    #[test]
    fn pressure_is_the_share_of_the_last_ten_seconds() {
        assert_eq!(some_waited("some avg10=1.53 avg60=0.87 avg300=0.24 total=128"), Some(1.53));
        assert_eq!(some_waited("full avg10=1.53"), None);
    }

    const CHIPS: [(&str, &str); 14] = [
        ("sys/class/hwmon/hwmon10/name", "boardchip\n"),
        ("sys/class/hwmon/hwmon10/in0_input", "1248\n"),
        ("sys/class/hwmon/hwmon10/in0_label", "Vcore\n"),
        ("sys/class/hwmon/hwmon10/fan2_input", "1180\n"),
        ("sys/class/hwmon/hwmon2/name", "corechip\n"),
        ("sys/class/hwmon/hwmon2/temp1_input", "61250\n"),
        ("sys/class/hwmon/hwmon2/temp1_label", "Package id 0\n"),
        ("sys/class/hwmon/hwmon2/temp1_crit", "100000\n"),
        ("sys/class/hwmon/hwmon2/power1_average", "88500000\n"),
        ("sys/class/hwmon/hwmon3/name", "corechip\n"),
        ("sys/class/hwmon/hwmon3/temp1_input", "-4000\n"),
        ("sys/class/powercap/socket:0/name", "package-0\n"),
        ("sys/class/powercap/socket:0/energy_uj", "5000000\n"),
        ("sys/class/powercap/socket:0/max_energy_range_uj", "262143328850\n"),
    ];

    #[test]
    fn chips_are_found_by_name_and_read_in_units() {
        let root = tree("chips", &CHIPS);
        let told = |found: &Found| format!("{} = {} [{}] {:?}", found.source, found.label, found.unit, found.critical);
        let found: Vec<String> = find(&root).iter().map(told).collect();
        assert_eq!(
            found,
            [
                "hwmon/corechip/temp1 = corechip Package id 0 [°C] Some(100.0)",
                "hwmon/corechip/power1 = corechip power1 [W] None",
                "hwmon/corechip#2/temp1 = corechip#2 temp1 [°C] None",
                "hwmon/boardchip/in0 = boardchip Vcore [V] None",
                "hwmon/boardchip/fan2 = boardchip fan2 [1/min] None",
                "energy/socket:0 = power of package-0 [W] None",
            ]
        );
        let read = |source: &str| Reader::of(&root, source).expect("found").read(Instant::now());
        assert_eq!(read("hwmon/corechip/temp1"), Some(61.25));
        assert_eq!(read("hwmon/corechip#2/temp1"), Some(-4.0));
        assert_eq!(read("hwmon/boardchip/in0"), Some(1.248));
        let mut energy = Reader::of(&root, "energy/socket:0").expect("found");
        let now = Instant::now();
        assert_eq!(energy.read(now), None, "a counter alone is no power");
        std::fs::write(root.join("sys/class/powercap/socket:0/energy_uj"), "65000000").expect("written");
        assert_eq!(energy.read(now + Duration::from_secs(2)), Some(30.0));
        std::fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn a_sensor_that_stops_answering_has_no_reading() {
        let root = tree("gone", &CHIPS);
        let path = root.join("sys/class/hwmon/hwmon2/temp1_input");
        let mut reader = Reader::of(&root, "hwmon/corechip/temp1").expect("found");
        let longest = "9".repeat(5000);
        for text in ["", "garbage", "61250 C", "99999999999999999999", longest.as_str(), "\u{0}"] {
            std::fs::write(&path, text).expect("written");
            assert_eq!(reader.read(Instant::now()), None, "{text:?}");
        }
        std::fs::write(&path, [0xff, 0xfe]).expect("written");
        assert_eq!(reader.read(Instant::now()), None);
        std::fs::remove_file(&path).expect("removed");
        assert_eq!(reader.read(Instant::now()), None);
        std::fs::write(&path, "62000\n").expect("written");
        assert_eq!(reader.read(Instant::now()), Some(62.0), "it is back");
        std::fs::remove_dir_all(&root).expect("removed");
    }

    proptest! {
        #[test]
        fn garbage_is_no_pressure_and_no_power(text in any::<String>(), a in any::<u64>(), b in any::<u64>(), range in any::<u64>()) {
            some_waited(&text);
            if let Some(power) = power(a, b, range, 0.5) {
                prop_assert!(power >= 0.0);
            }
        }
    }
}

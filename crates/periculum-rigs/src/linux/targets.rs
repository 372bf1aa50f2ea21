//! Every setting that the kernel lets a program set while the machine runs, with its unit, limits and choices.
//!
//! A target's name stays the same from start to start, as a sensor's source does: `clock/max`, `clock/min`,
//! `clock/governor`, `clock/boost` and, where the cores are of several kinds, `clock/N/max`; `power/ZONE/CONSTRAINT`,
//! `platform-profile`, `duty/CHIP/pwm1`, `power-cap/CHIP/power1`, `graphics/cardN/sclk/1`.

use std::fs::OpenOptions;
use std::io::{self, Write};
use std::os::unix::fs::OpenOptionsExt;
use std::path::{Path, PathBuf};

use periculum_core::Decimal;
use serde::{Deserialize, Serialize};

use super::attribute::{lasting_chips, lines, names, number, numbered, text, why_unread};
use super::fan_controls;
use super::fan_points::{self, Half};
use super::overdrive::{self, Adjustable, Entry};

/// What kind of number or word an attribute holds.
#[derive(Clone, Debug, PartialEq)]
enum Kind {
    /// A whole number: the value times this.
    Scaled(i64),
    /// The duty of a fan, 0 to 255, which counts only when its mode is manual.
    Duty { mode: PathBuf },
    /// One of the target's words.
    Word,
    /// An entry of an overdrive table.
    Overdrive(Entry),
    /// What the firmware of a card aims at with its fan.
    FanControl,
    /// A number of a point of a card's fan curve.
    FanPoint(fan_points::Entry),
}

/// Something that can be set.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Target {
    /// What a rig file calls it.
    pub(super) name: String,
    /// What people call it.
    pub(super) label: String,
    /// The unit of its values; empty for words.
    pub(super) unit: &'static str,
    /// The least and the most that the device says it takes, where it says so.
    pub(super) range: Option<(i64, i64)>,
    /// What its values 0, 1, 2, … stand for, where they are no numbers.
    pub(super) words: Vec<String>,
    /// The attributes that all get the same value.
    pub(super) attributes: Vec<PathBuf>,
    kind: Kind,
}

/// A text for an attribute.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct Writing {
    pub(super) path: PathBuf,
    pub(super) text: String,
    /// Whether it is a command to a driver, and not what the attribute is to say.
    is_command: bool,
}

/// The file systems that attributes of drivers stand in (statfs(2)): the kernel's own, and what a program serves in its place, as
/// containers have it.
const DRIVERS: [i64; 2] = [0x6265_6572, 0x6573_5546];

impl Writing {
    fn new(path: &Path, text: impl Into<String>) -> Self {
        Self { path: path.to_owned(), text: text.into(), is_command: false }
    }

    pub(super) fn command(path: &Path, text: impl Into<String>) -> Self {
        Self { is_command: true, ..Self::new(path, text) }
    }

    /// Writes it, in one piece as the kernel wants it; nothing is ever created.
    pub(super) fn carry_out(&self) -> io::Result<()> {
        // A file would keep the command in the place of its table.
        if self.is_command && !DRIVERS.contains(&(rustix::fs::statfs(&self.path)?.f_type as i64)) {
            return Err(io::Error::other("it is a plain file and no driver's table, so nothing was written to it"));
        }
        let mut attribute =
            OpenOptions::new().write(true).truncate(true).custom_flags(libc::O_NONBLOCK).open(&self.path)?;
        attribute.write_all(self.text.as_bytes())
    }
}

/// Everything below this root that can be set.
pub(super) fn find(root: &Path) -> Vec<Target> {
    let mut found = clocks(&root.join("sys/devices/system/cpu/cpufreq"));
    found.extend(power_limits(&root.join("sys/class/powercap")));
    found.extend(platform_profile(&root.join("sys/firmware/acpi")));
    found.extend(chips(&root.join("sys/class/hwmon")));
    found.extend(graphics(&root.join("sys/class/drm")));
    found.extend(numbered(&root.join("sys/class/drm"), "card").into_iter().flat_map(of_firmware));
    found
}

/// Clock limits and governors (kernel documentation, admin-guide/pm/cpufreq).
fn clocks(folder: &Path) -> Vec<Target> {
    let policies: Vec<(u32, PathBuf)> = numbered(folder, "policy");
    let range = |policy: &Path| {
        let megahertz = |attribute: &str| Some(number(&policy.join(attribute))? / 1000);
        Some((megahertz("cpuinfo_min_freq")?, megahertz("cpuinfo_max_freq")?))
    };
    let ranges: Vec<_> = policies.iter().map(|(_, path)| range(path)).collect();
    let are_alike = ranges.windows(2).all(|pair| pair[0] == pair[1]);
    let mut found = Vec::new();
    for (end, attribute, label) in
        [("max", "scaling_max_freq", "highest clock"), ("min", "scaling_min_freq", "lowest clock")]
    {
        let clock = |name: String, label: String, range, attributes| Target {
            name,
            label,
            unit: "MHz",
            range,
            words: Vec::new(),
            attributes,
            kind: Kind::Scaled(1000),
        };
        if are_alike {
            let all = policies.iter().map(|(_, path)| path.join(attribute)).collect();
            let range = ranges.first().copied().flatten();
            found.push(clock(format!("clock/{end}"), label.to_owned(), range, all));
            continue;
        }
        for ((policy, path), range) in policies.iter().zip(&ranges) {
            let cores = text(&path.join("affected_cpus")).unwrap_or_default();
            let label = format!("{label} of cores {cores}");
            found.push(clock(format!("clock/{policy}/{end}"), label, *range, vec![path.join(attribute)]));
        }
    }
    let governors = policies.first().and_then(|(_, path)| text(&path.join("scaling_available_governors")));
    let all = policies.iter().map(|(_, path)| path.join("scaling_governor")).collect();
    found.push(word("clock/governor", "clock governor", governors, all));
    found.push(Target {
        range: Some((0, 1)),
        kind: Kind::Scaled(1),
        ..word("clock/boost", "clock boost", None, vec![folder.join("boost")])
    });
    found.retain(Target::exists);
    found
}

/// A target that takes one of these words.
fn word(name: &str, label: &str, words: Option<String>, attributes: Vec<PathBuf>) -> Target {
    let words = words.unwrap_or_default().split_whitespace().map(str::to_owned).collect();
    Target { name: name.into(), label: label.into(), unit: "", range: None, words, attributes, kind: Kind::Word }
}

/// Power limits (kernel documentation, power/powercap).
fn power_limits(folder: &Path) -> Vec<Target> {
    let of_zone = |zone: String| {
        let path = folder.join(&zone);
        let label = text(&path.join("name")).unwrap_or_else(|| zone.clone());
        (0..8).map_while(move |index| {
            let constraint = text(&path.join(format!("constraint_{index}_name")))?;
            let most = number(&path.join(format!("constraint_{index}_max_power_uw"))).map(|most| most / 1_000_000);
            Some(Target {
                name: format!("power/{zone}/{constraint}"),
                label: format!("{} power limit of {label}", constraint.replace('_', " ")),
                unit: "W",
                range: most.filter(|most| *most > 0).map(|most| (1, most)),
                words: Vec::new(),
                attributes: vec![path.join(format!("constraint_{index}_power_limit_uw"))],
                kind: Kind::Scaled(1_000_000),
            })
        })
    };
    let zones = names(folder).into_iter().filter(|name| name.contains(':'));
    zones.flat_map(of_zone).filter(Target::exists).collect()
}

fn platform_profile(folder: &Path) -> Option<Target> {
    let choices = text(&folder.join("platform_profile_choices"));
    let profile = word("platform-profile", "platform profile", choices, vec![folder.join("platform_profile")]);
    Some(profile).filter(Target::exists)
}

/// Fan duties and power caps of sensor chips (kernel documentation, hwmon/sysfs-interface).
fn chips(folder: &Path) -> Vec<Target> {
    let mut found = Vec::new();
    for (name, chip) in lasting_chips(folder) {
        let target = |name: String, label: String, unit, range, attribute: PathBuf, kind| Target {
            name,
            label,
            unit,
            range,
            words: Vec::new(),
            attributes: vec![attribute],
            kind,
        };
        for (fan, path) in numbered(&chip, "pwm") {
            let kind = Kind::Duty { mode: chip.join(format!("pwm{fan}_enable")) };
            let (named, label) = (format!("duty/{name}/pwm{fan}"), format!("duty of fan {fan} at {name}"));
            found.push(target(named, label, "%", Some((0, 100)), path, kind));
        }
        for power in 1..=4 {
            let watts = |end: &str| Some(number(&chip.join(format!("power{power}_cap_{end}")))? / 1_000_000);
            let (named, label) = (format!("power-cap/{name}/power{power}"), format!("power cap of {name}"));
            let path = chip.join(format!("power{power}_cap"));
            found.push(target(named, label, "W", watts("min").zip(watts("max")), path, Kind::Scaled(1_000_000)));
        }
    }
    found.retain(Target::exists);
    found
}

/// Clock and voltage points of graphics drivers that have an overdrive table.
fn graphics(folder: &Path) -> Vec<Target> {
    let of_card = |(card, path): (u32, PathBuf)| {
        let table = path.join("device").join(overdrive::ATTRIBUTE);
        let entries = lines(&table).map(|table| overdrive::entries(&table)).unwrap_or_default();
        entries.into_iter().map(move |Adjustable { entry, unit, range }| Target {
            name: format!("graphics/card{card}/{}", entry.name()),
            label: format!("graphics {card} {}", entry.label()),
            unit,
            range,
            words: Vec::new(),
            attributes: vec![table.clone()],
            kind: Kind::Overdrive(entry),
        })
    };
    numbered(folder, "card").into_iter().flat_map(of_card).collect()
}

/// How a card's firmware chooses clocks (kernel documentation, gpu/amdgpu/thermal: `power_dpm_force_performance_level`).
const LEVELS: &str = "auto low high manual profile_standard profile_min_sclk profile_min_mclk profile_peak";

/// What the firmware of a card decides by itself: how it chooses clocks, and what it aims at with its fan.
fn of_firmware((card, path): (u32, PathBuf)) -> Vec<Target> {
    let device = path.join("device");
    let level = vec![device.join("power_dpm_force_performance_level")];
    let mut found = vec![word(
        &format!("graphics/card{card}/level"),
        &format!("graphics {card} performance level"),
        Some(LEVELS.into()),
        level,
    )];
    found.extend(fan_controls::CONTROLS.iter().map(|(attribute, name, label, unit)| {
        let path = device.join(fan_controls::FOLDER).join(attribute);
        Target {
            name: format!("graphics/card{card}/{name}"),
            label: format!("graphics {card} {label}"),
            unit,
            range: fan_controls::range(&path),
            words: Vec::new(),
            attributes: vec![path],
            kind: Kind::FanControl,
        }
    }));
    let curve = device.join(fan_controls::FOLDER).join(fan_points::ATTRIBUTE);
    let text = lines(&curve).unwrap_or_default();
    found.extend(fan_points::entries(&text).into_iter().map(|entry| Target {
        name: format!("graphics/card{card}/{}", entry.name()),
        label: format!("graphics {card} {}", entry.label()),
        unit: entry.half.unit(),
        range: entry.range(&text),
        words: Vec::new(),
        attributes: vec![curve.clone()],
        kind: Kind::FanPoint(entry),
    }));
    found.retain(Target::exists);
    found
}

impl Target {
    fn exists(&self) -> bool {
        !self.attributes.is_empty()
            && self.attributes.iter().all(|path| path.exists())
            && (self.kind != Kind::Word || !self.words.is_empty())
    }

    /// Whether less of it is harder for the machine: cooling and voltage.
    pub(super) fn is_harder_below(&self) -> bool {
        let is_cooling = match &self.kind {
            Kind::Duty { .. } => true,
            // The hotter a card may get, the less its fan does.
            Kind::FanControl => self.unit != "°C",
            Kind::FanPoint(entry) => entry.half == Half::Duty,
            _ => false,
        };
        is_cooling || matches!(self.kind, Kind::Overdrive(Entry::Curve(_) | Entry::VoltageOffset))
    }

    /// Whether it is one of the files that are written for this target.
    pub(super) fn writes_to(&self, path: &Path) -> bool {
        let is_mode = matches!(&self.kind, Kind::Duty { mode } if mode == path);
        is_mode || self.attributes.iter().any(|attribute| attribute == path)
    }

    /// The value of now; none where it can't be read, or the attributes differ.
    pub(super) fn read(&self) -> Option<Decimal> {
        let mut values = self.attributes.iter().map(|path| self.value(&lines(path)?));
        let first = values.next()??;
        values.all(|value| value == Some(first)).then_some(first)
    }

    /// Why it can't be read, in words.
    pub(super) fn why_unread(&self) -> String {
        let is_unread = |path: &&PathBuf| lines(path).and_then(|text| self.value(&text)).is_none();
        match self.attributes.iter().find(is_unread) {
            Some(path) => why_unread(path),
            None => format!("the {} attributes of {} are not the same", self.attributes.len(), self.name),
        }
    }

    fn value(&self, text: &str) -> Option<Decimal> {
        let whole = || text.trim().parse::<i64>().ok();
        match &self.kind {
            Kind::Scaled(factor) => Decimal::from(whole()?).checked_div(Decimal::from(*factor)),
            Kind::Duty { .. } => Some((Decimal::from(whole()?) * Decimal::from(100) / Decimal::from(255)).round()),
            Kind::Word => self.words.iter().position(|word| word == text.trim()).map(Decimal::from),
            Kind::Overdrive(entry) => entry.value(text).map(Decimal::from),
            Kind::FanControl => fan_controls::value(text).map(Decimal::from),
            Kind::FanPoint(entry) => entry.value(text).map(Decimal::from),
        }
    }

    /// What has to be written, in order, for this value; none where the target can't take it.
    pub(super) fn writings(&self, value: Decimal) -> Option<Vec<Writing>> {
        let whole = |value: Decimal| value.fract().is_zero().then(|| i64::try_from(value).ok()).flatten();
        let all = |text: String| self.attributes.iter().map(|path| Writing::new(path, text.clone())).collect();
        Some(match &self.kind {
            Kind::Scaled(factor) => all(whole(value.checked_mul(Decimal::from(*factor))?)?.to_string()),
            Kind::Word => all(self.words.get(usize::try_from(whole(value)?).ok()?)?.clone()),
            Kind::Duty { mode } => {
                let duty = (value * Decimal::from(255) / Decimal::from(100)).round();
                let duty = Writing::new(&self.attributes[0], whole(duty)?.to_string());
                if mode.exists() { vec![Writing::new(mode, "1"), duty] } else { vec![duty] }
            }
            Kind::Overdrive(entry) => self.overdrive(entry, whole(value)?)?,
            Kind::FanControl => self.fan_control(whole(value)?),
            Kind::FanPoint(entry) => self.fan_point(*entry, whole(value)?)?,
        })
    }

    /// What has to be written, in order, to bring back what is there now; none where it can't be read.
    pub(super) fn way_back(&self) -> Option<Vec<Writing>> {
        let as_it_is = |path: &Path| text(path).map(|text| Writing::new(path, text));
        match &self.kind {
            Kind::Overdrive(entry) => self.overdrive(entry, entry.value(&lines(&self.attributes[0])?)?),
            Kind::FanControl => Some(self.fan_control(fan_controls::value(&lines(&self.attributes[0])?)?)),
            Kind::FanPoint(entry) => self.fan_point(*entry, entry.value(&lines(&self.attributes[0])?)?),
            Kind::Duty { mode } if mode.exists() => {
                [&self.attributes[0], mode].into_iter().map(|path| as_it_is(path)).collect()
            }
            _ => self.attributes.iter().map(|path| as_it_is(path)).collect(),
        }
    }

    fn fan_control(&self, value: i64) -> Vec<Writing> {
        fan_controls::commands(value).into_iter().map(|text| Writing::command(&self.attributes[0], text)).collect()
    }

    fn fan_point(&self, entry: fan_points::Entry, value: i64) -> Option<Vec<Writing>> {
        self.committed(|curve| entry.command(curve, value))
    }

    fn overdrive(&self, entry: &Entry, value: i64) -> Option<Vec<Writing>> {
        self.committed(|table| entry.command(table, value))
    }

    /// A command that rests on what the attribute says, and what makes it count.
    fn committed(&self, command: impl FnOnce(&str) -> Option<String>) -> Option<Vec<Writing>> {
        let attribute = &self.attributes[0];
        let command = command(&lines(attribute)?)?;
        Some(vec![Writing::command(attribute, command), Writing::command(attribute, overdrive::COMMIT)])
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::Decimal;
    use std::str::FromStr;

    fn tree(name: &str, files: &[(&str, &str)]) -> PathBuf {
        super::super::attribute::tests::tree(name, files)
    }

    fn target(root: &Path, name: &str) -> Target {
        find(root).into_iter().find(|target| target.name == name).unwrap_or_else(|| panic!("no target {name}"))
    }

    const FILES: [(&str, &str); 22] = [
        ("sys/devices/system/cpu/cpufreq/boost", "1\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/cpuinfo_min_freq", "800000\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/cpuinfo_max_freq", "5400000\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/scaling_min_freq", "800000\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/scaling_max_freq", "5400000\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/scaling_governor", "schedutil\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/scaling_available_governors", "performance schedutil\n"),
        ("sys/devices/system/cpu/cpufreq/policy1/cpuinfo_min_freq", "800000\n"),
        ("sys/devices/system/cpu/cpufreq/policy1/cpuinfo_max_freq", "5400000\n"),
        ("sys/devices/system/cpu/cpufreq/policy1/scaling_min_freq", "800000\n"),
        ("sys/devices/system/cpu/cpufreq/policy1/scaling_max_freq", "5400000\n"),
        ("sys/devices/system/cpu/cpufreq/policy1/scaling_governor", "schedutil\n"),
        ("sys/class/powercap/socket:0/name", "package-0\n"),
        ("sys/class/powercap/socket:0/constraint_0_name", "long_term\n"),
        ("sys/class/powercap/socket:0/constraint_0_power_limit_uw", "125000000\n"),
        ("sys/class/powercap/socket:0/constraint_0_max_power_uw", "253000000\n"),
        ("sys/class/hwmon/hwmon4/name", "boardchip\n"),
        ("sys/class/hwmon/hwmon4/pwm2", "128\n"),
        ("sys/class/hwmon/hwmon4/pwm2_enable", "5\n"),
        ("sys/class/hwmon/hwmon4/power1_cap", "280000000\n"),
        ("sys/firmware/acpi/platform_profile", "balanced\n"),
        ("sys/firmware/acpi/platform_profile_choices", "quiet balanced performance\n"),
    ];

    #[test]
    fn targets_are_found_read_and_written_in_units() {
        let root = tree("targets", &FILES);
        let named: Vec<String> = find(&root).into_iter().map(|target| target.name).collect();
        assert_eq!(
            named,
            [
                "clock/max",
                "clock/min",
                "clock/governor",
                "clock/boost",
                "power/socket:0/long_term",
                "platform-profile",
                "duty/boardchip/pwm2",
                "power-cap/boardchip/power1",
            ]
        );
        for (name, before, to, after) in [
            ("clock/max", "5400", "4725", "4725000"),
            ("clock/governor", "1", "0", "performance"),
            ("clock/boost", "1", "0", "0"),
            ("power/socket:0/long_term", "125", "200", "200000000"),
            ("platform-profile", "1", "2", "performance"),
            ("duty/boardchip/pwm2", "50", "80", "204"),
        ] {
            let target = target(&root, name);
            let number = |text| Decimal::from_str(text).expect("a number");
            assert_eq!(target.read(), Some(number(before)), "{name}");
            let back = target.way_back().expect("readable");
            let forth = target.writings(number(to)).expect("possible");
            forth.iter().for_each(|writing| writing.carry_out().expect("written"));
            assert_eq!(target.read(), Some(number(to)), "{name}");
            for path in &target.attributes {
                assert_eq!(text(path).as_deref(), Some(after), "{name}");
            }
            back.iter().for_each(|writing| writing.carry_out().expect("written"));
            assert_eq!(target.read(), Some(number(before)), "{name}");
        }
        let mode = root.join("sys/class/hwmon/hwmon4/pwm2_enable");
        assert_eq!(text(&mode).as_deref(), Some("5"), "the fan is the firmware's again");
        std::fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn a_plain_file_in_the_place_of_a_table_is_left_as_it_is() {
        let root = tree("plain-table", &[("sys/class/drm/card0/device/pp_od_clk_voltage", "OD_SCLK:\n1: 2100Mhz\n")]);
        let targets = find(&root);
        let point = targets.iter().find(|target| target.name == "graphics/card0/sclk/1").expect("there");
        let writings = point.writings(Decimal::from(2150)).expect("taken");
        assert!(writings[0].carry_out().is_err_and(|error| error.to_string().contains("plain file")));
        assert_eq!(lines(&point.attributes[0]).as_deref(), Some("OD_SCLK:\n1: 2100Mhz"));
        std::fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn what_differs_or_is_no_value_is_not_read_and_not_written() {
        let root = tree("differs", &FILES);
        let clock = target(&root, "clock/max");
        std::fs::write(root.join("sys/devices/system/cpu/cpufreq/policy1/scaling_max_freq"), "4000000")
            .expect("written");
        assert_eq!(clock.read(), None);
        let profile = target(&root, "platform-profile");
        assert_eq!(profile.writings(Decimal::from(3)), None, "there is no fourth word");
        assert_eq!(profile.writings(Decimal::from(-1)), None);
        assert_eq!(clock.writings(Decimal::from_str("4000.0001").expect("a number")), None, "no whole kHz");
        let gone = Writing::new(&root.join("sys/nowhere"), "1");
        assert!(gone.carry_out().is_err() && !root.join("sys/nowhere").exists(), "nothing is created");
        std::fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn what_the_firmware_of_a_card_decides_can_be_set() {
        let device = "sys/class/drm/card1/device";
        let fan = format!("{device}/gpu_od/fan_ctrl");
        let text = "OD_ACOUSTIC_TARGET:\n1450\nOD_RANGE:\nACOUSTIC_TARGET: 500 3200\n";
        let root = tree(
            "firmware-of-a-card",
            &[
                (&format!("{device}/power_dpm_force_performance_level"), "auto\n"),
                (&format!("{fan}/acoustic_target_rpm_threshold"), text),
                (&format!("{fan}/fan_target_temperature"), "FAN_TARGET_TEMPERATURE:\n83\n"),
                (&format!("{fan}/fan_curve"), "OD_FAN_CURVE:\n0: 40C 20%\n1: 60C 45%\n"),
            ],
        );
        let level = target(&root, "graphics/card1/level");
        assert_eq!(
            (level.read(), level.writings(3.into()).expect("words")[0].text.as_str()),
            (Some(0.into()), "manual")
        );
        let speed = target(&root, "graphics/card1/fan-target");
        assert_eq!((speed.read(), speed.range), (Some(1450.into()), Some((500, 3200))));
        let written: Vec<String> =
            speed.writings(900.into()).expect("a value").into_iter().map(|one| one.text).collect();
        assert_eq!(written, ["900", "c"]);
        assert_eq!(speed.way_back().map(|way| way[0].text.clone()).as_deref(), Some("1450"));
        let aim = target(&root, "graphics/card1/fan-temperature");
        assert_eq!((aim.range, aim.is_harder_below(), speed.is_harder_below()), (None, false, true));
        let duty = target(&root, "graphics/card1/fan-curve/1/duty");
        let written: Vec<String> = duty.writings(30.into()).expect("a value").into_iter().map(|it| it.text).collect();
        assert_eq!((duty.read(), duty.is_harder_below()), (Some(45.into()), true));
        assert_eq!(written, ["1 60 30", "c"]);
        assert_eq!(duty.way_back().map(|way| way[0].text.clone()).as_deref(), Some("1 60 45"));
    }
}

//! What a Linux machine is and offers, as a rig file to edit.

use std::fmt::Write;
use std::path::Path;

use periculum_core::model::quantity::counted;

use super::attribute::{names, number, numbered, text};
use super::curves::{self, Table};
use super::cycles::Cycles;
use super::dmi::{self, Module};
use super::errors::Errors;
use super::limits::{self, Limits};
use super::overdrive::Shape;
use super::sensors::{self, Found};
use super::targets::{self, Target};
use super::topology::{self, Topology};
use super::{LIMITED_BY, Linux, Memory, TRUE_CLOCK};

/// A rig file of the machine whose file systems stand below this root, with what was found and what is missing in
/// comments.
pub fn rig_text(root: &Path) -> String {
    let mut out = String::new();
    // Writing to a string can't fail.
    let _ = write(&mut out, root);
    out
}

fn write(out: &mut String, root: &Path) -> std::fmt::Result {
    let topology = topology::read(root);
    let host = text(&root.join("proc/sys/kernel/hostname")).unwrap_or_else(|| "this-machine".into());
    writeln!(
        out,
        "# What this machine offers, as its kernel tells it. Edit it: add the settings that you change, with"
    )?;
    writeln!(
        out,
        "# their ladders and ceilings; take out the sensors that you do not need. docs/files.md explains every key."
    )?;
    writeln!(out, "format = 1\n\n[rig]\nname = {}\nsummary = {}\n", quoted(&host), quoted(&summary(root, &topology)))?;
    write_parts(out, root, &topology)?;
    write_settings(out, root)?;
    let found = sensors::find(root);
    write_sensors(out, root, &found)?;
    write_missing(out, root, &found)
}

fn summary(root: &Path, topology: &Topology) -> String {
    let kernel = text(&root.join("proc/sys/kernel/osrelease")).unwrap_or_else(|| "unknown".into());
    let (cores, threads) = (counted(topology.cores, "core"), counted(topology.threads, "thread"));
    format!("{}, {cores}, {threads}, kernel {kernel}", counted(topology.packages, "package"))
}

fn write_parts(out: &mut String, root: &Path, topology: &Topology) -> std::fmt::Result {
    let model = if topology.model.is_empty() { "unknown" } else { &topology.model };
    write_part(out, "processor", model)?;
    for (capacity, threads) in topology.capacities.iter().filter(|_| topology.capacities.len() > 1) {
        writeln!(out, "# {} with {capacity} of 1024 of the strongest core's capacity", counted(*threads, "thread"))?;
    }
    if !topology.caches.is_empty() {
        writeln!(out, "# caches of core 0: {}\n", topology.caches.join(", "))?;
    }
    let id = |name: &str| text(&root.join("sys/class/dmi/id").join(name));
    if let Some(board) = id("board_name") {
        let vendor = id("board_vendor").map(|vendor| format!("{vendor} ")).unwrap_or_default();
        write_part(out, "board", &format!("{vendor}{board}"))?;
        let date = id("bios_date").unwrap_or_default();
        writeln!(out, "# firmware {} {date}\n", id("bios_version").unwrap_or_else(|| "of unknown version".into()))?;
    }
    let modules = dmi::modules(root);
    modules.iter().try_for_each(|module| write_module(out, module))?;
    if let Some(Memory { total, .. }) = Linux::below(root).memory().filter(|_| modules.is_empty()) {
        write_part(out, "memory", &format!("{:.1} GiB", total as f64 / f64::from(1 << 30)))?;
    }
    for (card, path) in numbered(&root.join("sys/class/drm"), "card") {
        let of = |attribute: &str| text(&path.join("device").join(attribute));
        let Some((vendor, device)) = of("vendor").zip(of("device")) else { continue };
        write_part(out, "graphics", &format!("card {card}, PCI {vendor}:{device}"))?;
    }
    Ok(())
}

fn write_module(out: &mut String, module: &Module) -> std::fmt::Result {
    let Module { slot, mebibytes, rated, runs_at, model, serial } = module;
    let size = format!("{model} {} GiB", f64::from(*mebibytes) / 1024.0);
    writeln!(out, "[[part]]\nkind = \"memory\"\nmodel = {}\nspecimen = {}", quoted(size.trim()), quoted(serial))?;
    writeln!(out, "# {slot}: rated for {rated} MT/s, runs at {runs_at} MT/s\n")
}

fn write_part(out: &mut String, kind: &str, model: &str) -> std::fmt::Result {
    writeln!(out, "[[part]]\nkind = {}\nmodel = {}\n", quoted(kind), quoted(model))
}

/// What the kernel lets a program set, with its limits: as comments, since each has to be wanted.
fn write_settings(out: &mut String, root: &Path) -> std::fmt::Result {
    let targets = targets::find(root);
    if targets.is_empty() {
        return Ok(());
    }
    writeln!(
        out,
        "# What can be set here. Take the `#` away before what you want to climb, give it a ceiling for your use,"
    )?;
    writeln!(out, "# and allow it with `periculum allow` and this file.")?;
    targets.iter().try_for_each(|target| write_setting(out, target))?;
    curves::find(root).iter().try_for_each(|table| write_curve(out, table))?;
    writeln!(out)
}

/// A curve with its points as they are now.
fn write_curve(out: &mut String, table: &Table) -> std::fmt::Result {
    let points = table.points().unwrap_or_default();
    let told: Vec<String> = points.iter().map(|[clock, voltage]| format!("[{voltage}, {clock}]")).collect();
    let (points, levers) = match table.shape {
        Shape::Offset => ("[[MILLIVOLTS, MHZ], …]  # as far as you know them".to_owned(), "# levers = [\"offset\"]\n"),
        Shape::Points | Shape::Levels => (format!("[{}]", told.join(", ")), ""),
    };
    writeln!(out, "#\n# [curve.{}]\n# label = \"core\"\n# unit = \"MHz\"\n# across = \"mV\"", bare(&table.name))?;
    writeln!(out, "# points = {points}\n{levers}# ladder = {{ from = 0, step = 1, to = 4000 }}")?;
    writeln!(out, "# offset = {{ from = -200, step = 5, to = 200 }}\n# takes_effect = \"at-once\"")?;
    writeln!(out, "# adapter = \"linux\"\n# target = {}", quoted(&table.name))
}

fn write_setting(out: &mut String, target: &Target) -> std::fmt::Result {
    let Some(stock) = target.read().and_then(|value| i64::try_from(value).ok()) else {
        return writeln!(out, "# [{}: its value can't be read]", target.name);
    };
    writeln!(out, "#\n# [setting.{}]\n# label = {}", bare(&target.name), quoted(&target.label))?;
    if target.words.is_empty() {
        let (least, most) = target.range.map_or((stock, stock), |(least, most)| (least.min(stock), most.max(stock)));
        let fits = |step: &i64| (most - least) % step == 0 && (stock - least) % step == 0;
        let step = [25, 10, 5].into_iter().find(fits).unwrap_or(1);
        writeln!(out, "# unit = {}\n# ladder = {{ from = {least}, step = {step}, to = {most} }}", quoted(target.unit))?;
    } else {
        let values: Vec<String> = (0..target.words.len()).map(|index| index.to_string()).collect();
        let words: Vec<String> = target.words.iter().map(|word| quoted(word)).collect();
        writeln!(out, "# values = [{}]\n# words = [{}]", values.join(", "), words.join(", "))?;
    }
    let harder = if target.is_harder_below() { "down" } else { "up" };
    writeln!(out, "# stock = {stock}\n# harder = \"{harder}\"\n# takes_effect = \"at-once\"")?;
    writeln!(out, "# adapter = \"linux\"\n# target = {}", quoted(&target.name))
}

/// A name as TOML has it without quotes.
fn bare(name: &str) -> String {
    name.chars().map(|sign| if sign.is_ascii_alphanumeric() { sign.to_ascii_lowercase() } else { '_' }).collect()
}

fn write_sensors(out: &mut String, root: &Path, found: &[Found]) -> std::fmt::Result {
    let mut usual = vec![
        ("usage", "usage", "%", 0),
        ("reported_clock", "reported-clock", "MHz", 0),
        ("true_clock", TRUE_CLOCK, "MHz", 0),
    ];
    // Counters are the running kernel's, whatever stands below another root.
    let counted = Some(root).filter(|root| *root == Path::new("/")).and_then(|_| Cycles::open(&[0]));
    usual.extend(counted.map(|_| ("counted_clock", "counted-clock", "MHz", 0)));
    for (name, source, unit, decimals) in usual {
        let label = name.replace('_', " ");
        write_sensor(out, name, &label, unit, decimals, source, None)?;
    }
    if Limits::of(root).is_some() {
        write_state(out, "limited_by", "limited by", &limits::WORDS, LIMITED_BY)?;
    }
    for one in found {
        if !one.words().is_empty() {
            write_state(out, &bare(&one.source), &one.label, one.words(), &one.source)?;
            continue;
        }
        // A cut-off is only worth suggesting for heat.
        let critical = one.critical.filter(|_| one.unit == "°C");
        write_sensor(out, &bare(&one.source), &one.label, one.unit, one.decimals, &one.source, critical)?;
    }
    Ok(())
}

fn write_sensor(
    out: &mut String,
    name: &str,
    label: &str,
    unit: &str,
    decimals: usize,
    source: &str,
    critical: Option<f64>,
) -> std::fmt::Result {
    writeln!(out, "[sensor.{name}]\nlabel = {}\nunit = {}\ndecimals = {decimals}", quoted(label), quoted(unit))?;
    if let Some(critical) = critical {
        writeln!(out, "cut_off = {}  # critical at {critical}, as the device says", critical - 5.0)?;
    }
    writeln!(out, "adapter = \"linux\"\nsource = {}\n", quoted(source))
}

/// A sensor whose readings are words.
fn write_state(out: &mut String, name: &str, label: &str, words: &[&str], source: &str) -> std::fmt::Result {
    let words: Vec<String> = words.iter().map(|word| quoted(word)).collect();
    writeln!(out, "[sensor.{name}]\nlabel = {}\nwords = [{}]", quoted(label), words.join(", "))?;
    writeln!(out, "adapter = \"linux\"\nsource = {}\n", quoted(source))
}

/// What nobody but its owner knows, and says much of where its limit is.
const HISTORY: &str = "\
# How long did it work under full load at stock before, and how often did it crash, freeze or go wrong in that time?
# What you say makes a search shorter and its marks surer; say rather too little.
# [[history]]
# loaded = \"100h\"
# failures = 0
";

/// What is not there, and what would be needed for it.
fn write_missing(out: &mut String, root: &Path, found: &[Found]) -> std::fmt::Result {
    writeln!(out, "{HISTORY}")?;
    let has = |kind: &str| found.iter().any(|one| one.source.starts_with(kind));
    let mut missing = Vec::new();
    if !has("hwmon/") && !has("thermal/") {
        missing.push("no temperature: no sensor chip has a driver here, as in most virtual machines".to_owned());
    }
    if root.join("sys/firmware/dmi/tables/DMI").exists() && dmi::modules(root).is_empty() {
        missing.push("no memory modules: the firmware's table can only be read by root, or lists none".into());
    }
    if !has("energy/") {
        missing.push("no power: the kernel has no energy counters here".into());
    }
    if !has("clock/") {
        missing.push("no clock of single cores: the kernel has no cpufreq driver here".into());
        missing.push("the reported clock may be the rated one, whatever runs: a load measures the true one".into());
    }
    let energy = root.join("sys/class/powercap");
    for zone in names(&energy).into_iter().filter(|name| name.contains(':')) {
        let path = energy.join(&zone).join("energy_uj");
        if path.exists() && number(&path).is_none() {
            missing.push(format!("{} can't be read: it needs `chmod a+r {}` by root", zone, path.display()));
        }
    }
    let seen = Errors::of(root, |_| false).seen();
    if seen.is_empty() {
        missing.push("no errors that the hardware counts or the kernel logs".into());
    } else {
        writeln!(out, "# Errors that will be noticed: {}.", seen.join(", "))?;
    }
    if root.join("dev/watchdog").exists() {
        writeln!(
            out,
            "# There is a watchdog: write `watchdog = \"/dev/watchdog\"` below [rig] to have it armed in unattended climbs."
        )?;
    }
    if missing.is_empty() {
        return Ok(());
    }
    writeln!(out, "# What is missing:")?;
    missing.iter().try_for_each(|line| writeln!(out, "# - {line}"))
}

/// A text as TOML has it in quotes; the kernel's words have no control characters any more.
fn quoted(text: &str) -> String {
    format!("\"{}\"", text.replace('\\', "\\\\").replace('"', "\\\""))
}

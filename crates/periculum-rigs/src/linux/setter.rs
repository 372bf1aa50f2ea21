//! Changes the settings of a rig that this machine's kernel or its boot files carry.

use std::collections::BTreeMap;
use std::fs::OpenOptions;
use std::io;
use std::os::unix::fs::OpenOptionsExt;
use std::path::{Path, PathBuf};
use std::str::FromStr;

use periculum_core::Decimal;
use periculum_core::model::curve::Curve;
use periculum_core::model::errand::Errand;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::outlet::Outlet;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{Change, InForce};
use periculum_core::model::setting::{Setting, TakesEffect};

use super::Linux;
use super::boot_line::{Line, Wanted, write_lines};
use super::curves::{self, Table};
use super::keeper::Keeper;
use super::targets::{self, Target, Writing};
use super::whole_file::below;
use crate::bench::ReadBack;
use crate::display::Guard;
use crate::granted::{self, Terms, Written};
use crate::outlet;

/// The name of the adapter that rig files use.
pub const ADAPTER: &str = "linux";

/// Where a setting is written.
#[derive(Clone, Debug)]
enum Place {
    Attribute(Target),
    Line(Line),
    Outlet(Outlet),
}

/// A setting that is served.
#[derive(Clone, Debug)]
struct Served {
    /// The name that its way back is kept under.
    name: String,
    place: Place,
    stock: Decimal,
    /// What was allowed.
    terms: Terms,
}

/// A curve that is served.
#[derive(Clone, Debug)]
struct ServedCurve {
    curve: Curve,
    table: Table,
    /// What was allowed.
    terms: Terms,
    /// What its levers were set to; nothing of those that nobody has set.
    levers: InForce,
}

/// The settings of a rig that this machine can change by itself.
#[derive(Debug)]
pub struct Setter {
    /// By the setting's name.
    places: BTreeMap<String, Served>,
    /// Who brings back what was in force, by the setting's name, until somebody has said that all is well.
    guards: BTreeMap<String, Guard>,
    curves: Vec<ServedCurve>,
    boot: String,
    keeper: Keeper,
}

/// What a setting is kept under: the target's name, the file and key of its line, or what is run or sent.
fn name_of(setting: &Setting) -> String {
    match (&setting.outlet, &setting.boot_line) {
        (Some(outlet), _) => outlet::name(outlet),
        (None, Some(line)) => format!("{}:{}", line.file, line.key),
        (None, None) => setting.target.clone(),
    }
}

fn is_ours(setting: &Setting) -> bool {
    (setting.adapter == ADAPTER || setting.outlet.is_some()) && setting.takes_effect != TakesEffect::ByHand
}

/// The settings of this adapter that are none of a curve's levers.
fn single(rig: &Rig) -> impl Iterator<Item = &Setting> {
    rig.settings.iter().filter(|setting| is_ours(setting) && rig.curve_of(&setting.name).is_none())
}

/// The curves of this adapter, each with its levers, which all have the same target.
fn curves_of(rig: &Rig) -> impl Iterator<Item = (&Curve, Vec<&Setting>)> {
    let with_levers = |curve: &'_ Curve| curve.levers().filter_map(|lever| rig.setting(lever)).collect::<Vec<_>>();
    let all = rig.curves.iter().map(move |curve| (curve, with_levers(curve)));
    all.filter(|(_, levers)| levers.iter().all(|lever| is_ours(lever)))
}

fn place(root: &Path, setting: &Setting, found: &[Target]) -> Option<Place> {
    if let Some(outlet) = &setting.outlet {
        return Some(Place::Outlet(outlet.clone()));
    }
    if let Some(line) = &setting.boot_line {
        let (key, between) = (line.key.clone(), line.between.clone());
        return Some(Place::Line(Line { file: below(root, &line.file), key, between }));
    }
    found.iter().find(|target| target.name == setting.target).cloned().map(Place::Attribute)
}

impl Place {
    fn files(&self) -> Vec<PathBuf> {
        match self {
            Self::Attribute(target) => target.attributes.clone(),
            Self::Line(line) => vec![line.file.clone()],
            // They are run, and not written to.
            Self::Outlet(_) => Vec::new(),
        }
    }

    fn is_there(&self) -> bool {
        let files = self.files();
        match self {
            Self::Outlet(outlet) => outlet::programs(outlet).into_iter().all(|program| Path::new(program).exists()),
            _ => !files.is_empty() && files.iter().all(|file| file.exists()),
        }
    }
}

/// What stands against what serves a setting: it is not there, or does not go as far as the setting may.
fn objection(setting: &Setting, outlet: &Outlet) -> Option<String> {
    let (label, unit) = (&setting.label, &setting.unit);
    let highest = setting.ceilings.values().copied().fold(setting.stock, Decimal::max);
    let why = outlet::objection(outlet, (setting.floor, highest))?;
    Some(format!("{label} may be {} to {highest} {unit}, and {why}", setting.floor))
}

/// Everything that a rig would write to the machine below this root, or send to instruments.
pub fn written_by(root: &Path, rig: &Rig) -> Vec<Written> {
    let found = targets::find(root);
    let written = |setting: &Setting| {
        let place = place(root, setting, &found);
        Written {
            label: setting.label.clone(),
            target: name_of(setting),
            is_there: place.as_ref().is_some_and(Place::is_there),
            files: place.as_ref().map(Place::files).unwrap_or_default(),
            terms: terms(setting, place.as_ref()),
        }
    };
    let watchdog = Some(&rig.watchdog).filter(|device| !device.is_empty()).map(|device| {
        let file = below(root, device);
        Written {
            label: "the watchdog, where a plan is unattended".to_owned(),
            target: format!("watchdog:{device}"),
            is_there: file.exists(),
            files: vec![file],
            terms: vec![("watchdog".to_owned(), device.clone())],
        }
    });
    let tables = curves::find(root);
    let curves = curves_of(rig).map(|(curve, levers)| {
        let table = tables.iter().find(|table| table.name == levers[0].target);
        Written {
            label: curve.label.clone(),
            target: levers[0].target.clone(),
            is_there: table.is_some(),
            files: table.map(|table| table.path.clone()).into_iter().collect(),
            terms: terms_of_curve(curve, &levers),
        }
    });
    single(rig).map(written).chain(curves).chain(watchdog).chain(granted::sent_by(rig)).collect()
}

/// What decides what is written for a curve, and where: its points as they come, and what each lever may be.
fn terms_of_curve(curve: &Curve, levers: &[&Setting]) -> Terms {
    let points =
        curve.points.iter().map(|point| format!("{} {}: {} {}", point.at, curve.across, point.factory, curve.unit));
    let mut terms = vec![
        ("target".to_owned(), levers[0].target.clone()),
        ("points as they come".to_owned(), points.collect::<Vec<_>>().join(", ")),
    ];
    let ceilings = curve.ceilings.iter();
    terms.extend(ceilings.map(|(use_name, ceiling)| (format!("no point above, for {use_name}"), ceiling.to_string())));
    let of_lever = |lever: &&Setting| {
        let terms = granted::of_setting(lever).into_iter().map(|(name, value)| format!("{name} {value}"));
        (lever.label.clone(), terms.collect::<Vec<_>>().join("; "))
    };
    terms.extend(levers.iter().map(of_lever));
    terms
}

/// What decides what is written for a setting, and where.
fn terms(setting: &Setting, place: Option<&Place>) -> Terms {
    let term = |name: &str, value: &str| (name.to_owned(), value.to_owned());
    let mut terms = match (&setting.outlet, &setting.boot_line) {
        (Some(outlet), _) => outlet::terms(outlet),
        (None, Some(line)) => {
            vec![term("file", &line.file), term("key", &line.key), term("between key and value", &line.between)]
        }
        (None, None) => vec![term("target", &setting.target)],
    };
    terms.extend(granted::of_setting(setting));
    if let Some(Place::Attribute(Target { range: Some((least, most)), .. })) = place {
        let most_asked = setting.ceilings.values().copied().fold(setting.stock, Decimal::max);
        let is_beyond = most_asked > Decimal::from(*most) || setting.floor < Decimal::from(*least);
        let beyond = if is_beyond { ", AND MORE THAN THAT MAY BE WRITTEN" } else { "" };
        terms.push(("the device itself takes".to_owned(), format!("{least} to {most}{beyond}")));
    }
    terms
}

impl Setter {
    /// A setter for the rig's settings on the machine below this root, with the file that keeps what was there before.
    ///
    /// # Errors
    /// Everything that stands against it, each in a sentence: targets that are not there or may not be written.
    pub fn of(root: &Path, rig: &Rig, kept_in: &Path) -> Result<Self, Vec<String>> {
        let boot = Linux::below(root).boot().id;
        let unreadable = |error| vec![format!("{} can't be read: {error}", kept_in.display())];
        let keeper = Keeper::open(kept_in, &boot).map_err(unreadable)?;
        let found = targets::find(root);
        let (mut places, mut problems) = (BTreeMap::new(), Vec::new());
        for setting in single(rig) {
            let Some(place) = place(root, setting, &found) else {
                let known: Vec<&str> = found.iter().map(|target| target.name.as_str()).collect();
                problems.push(format!("{} has the target `{}`, {}", setting.label, setting.target, not_here(&known)));
                continue;
            };
            for file in place.files() {
                if let Err(error) = OpenOptions::new().write(true).custom_flags(libc::O_NONBLOCK).open(&file) {
                    problems.push(refusal(&setting.label, &file, &error));
                }
            }
            if let Place::Line(line) = &place
                && line.file.exists()
                && let Err(error) = line.try_folder()
            {
                problems.push(refusal(&setting.label, line.file.parent().unwrap_or(&line.file), &error));
            }
            if let Place::Outlet(outlet) = &place {
                problems.extend(objection(setting, outlet));
            }
            let terms = terms(setting, Some(&place));
            places.insert(setting.name.clone(), Served { name: name_of(setting), place, stock: setting.stock, terms });
        }
        let tables = curves::find(root);
        let mut curves = Vec::new();
        for (curve, levers) in curves_of(rig) {
            let target = &levers[0].target;
            let Some(table) = tables.iter().find(|table| table.name == *target) else {
                let known: Vec<&str> = tables.iter().map(|table| table.name.as_str()).collect();
                problems.push(format!("{} has the target `{target}`, {}", curve.label, not_here(&known)));
                continue;
            };
            if let Err(error) = OpenOptions::new().write(true).custom_flags(libc::O_NONBLOCK).open(&table.path) {
                problems.push(refusal(&curve.label, &table.path, &error));
            }
            problems.extend(table.objection(curve));
            let terms = terms_of_curve(curve, &levers);
            curves.push(ServedCurve { curve: curve.clone(), table: table.clone(), terms, levers: InForce::new() });
        }
        if problems.is_empty() {
            Ok(Self { places, guards: BTreeMap::new(), curves, boot, keeper })
        } else {
            Err(problems)
        }
    }

    /// Whether this setting is changed here.
    pub fn serves(&self, setting: &str) -> bool {
        self.places.contains_key(setting) || self.curve_of(setting).is_some()
    }

    /// The place of the curve that this is a lever of.
    fn curve_of(&self, setting: &str) -> Option<usize> {
        self.curves.iter().position(|served| served.curve.levers().any(|lever| lever == setting))
    }

    /// Makes the changes of an errand, those of a curve together; what is in force then has to be read back.
    ///
    /// # Errors
    /// The incident, where the kernel does not take one; those before it are made.
    pub fn apply(&mut self, errand: &Errand) -> Result<(), Incident> {
        self.go_back_before(errand);
        let mut moved: BTreeMap<usize, Vec<&Change>> = BTreeMap::new();
        for change in errand.changes() {
            match self.curve_of(&change.setting) {
                Some(curve) => moved.entry(curve).or_default().push(change),
                None => self.apply_one(change)?,
            }
        }
        for (curve, changes) in moved {
            let label = self.curves[curve].curve.label.clone();
            self.move_curve(curve, &changes).map_err(|why| Incident::new(IncidentKind::NotTaken, why).at(label))?;
        }
        Ok(())
    }

    /// Whoever goes on has been told that all is well with what was set before.
    pub fn settle(&mut self) {
        std::mem::take(&mut self.guards).into_values().for_each(Guard::keep);
    }

    /// What is changed again before anybody said so goes back first; all else was well.
    fn go_back_before(&mut self, errand: &Errand) {
        for change in errand.changes() {
            drop(self.guards.remove(&change.setting));
        }
        self.settle();
    }

    fn apply_one(&mut self, change: &Change) -> Result<(), Incident> {
        self.write(change).map_err(|why| Incident::new(IncidentKind::NotTaken, why).at(change.setting.clone()))
    }

    /// Gives the driver every point of a curve, and has it take them at once.
    fn move_curve(&mut self, curve: usize, changes: &[&Change]) -> Result<(), String> {
        let ServedCurve { curve, table, terms, levers } = &mut self.curves[curve];
        let moved = changes.iter().map(|change| (change.setting.clone(), change.to));
        let moved: InForce = levers.clone().into_iter().chain(moved).collect();
        let writings = table.writings(curve, &moved).ok_or_else(|| format!("{} can't be so", table.name))?;
        self.keeper
            .keep(&table.name, terms, || table.way_back())
            .map_err(|error| format!("{}: {error}", table.name))?;
        writings.iter().try_for_each(told_by)?;
        *levers = moved;
        Ok(())
    }

    /// Writes changes down that the next start brings into force: all of one file in one step.
    ///
    /// # Errors
    /// The incident, where a file can't be written; those before it are.
    pub fn write_down(&mut self, changes: &[Change]) -> Result<(), Incident> {
        let mut files: BTreeMap<PathBuf, (Vec<&str>, Vec<Wanted>)> = BTreeMap::new();
        for change in changes {
            let Some(Served { name, place: Place::Line(line), terms, .. }) = self.places.get(&change.setting) else {
                self.apply_one(change)?;
                continue;
            };
            let wanted = wanted(line, name, terms, change);
            let (settings, lines) = files.entry(line.file.clone()).or_default();
            settings.push(&change.setting);
            lines.push(wanted);
        }
        for (file, (settings, wanted)) in files {
            let told = |error: io::Error| {
                let why = format!("{}: {error}", file.display());
                Incident::new(IncidentKind::NotTaken, why).at(settings.join(", "))
            };
            write_lines(&file, &wanted, &mut self.keeper, &self.boot).map_err(told)?;
        }
        Ok(())
    }

    fn write(&mut self, change: &Change) -> Result<(), String> {
        let Served { name, place, stock, terms } = self.places.get(&change.setting).ok_or("nothing here changes it")?;
        match place {
            Place::Line(line) => {
                let wanted = [wanted(line, name, terms, change)];
                let told = |error: io::Error| format!("{}: {error}", line.file.display());
                write_lines(&line.file, &wanted, &mut self.keeper, &self.boot).map_err(told)
            }
            Place::Attribute(target) => {
                let writings = target.writings(change.to).ok_or_else(|| format!("{name} can't be {}", change.to))?;
                self.keeper.keep(name, terms, || target.way_back()).map_err(|error| format!("{name}: {error}"))?;
                writings.iter().try_for_each(told_by)
            }
            Place::Outlet(outlet) => {
                self.keeper.keep_outlet((name, terms), outlet).map_err(|error| format!("{name}: {error}"))?;
                if change.to == *stock {
                    return outlet::put_back(outlet, change.to);
                }
                // Nobody is asked about what was there before.
                if change.from.is_some() {
                    let guard = outlet::guard(outlet)?;
                    self.guards.extend(guard.map(|guard| (change.setting.clone(), guard)));
                }
                outlet::write(outlet, change.to)
            }
        }
    }

    /// What is in force, as far as it can be read, and why the rest can't be.
    pub fn read_back(&self) -> ReadBack {
        let mut read_back = ReadBack::default();
        for (setting, served) in &self.places {
            match self.value(served) {
                Ok(value) => drop(read_back.in_force.insert(setting.clone(), value)),
                Err(why) => drop(read_back.unread.insert(setting.clone(), why)),
            }
        }
        for ServedCurve { curve, table, levers, .. } in &self.curves {
            match table.in_force(curve, levers) {
                Ok(in_force) => read_back.in_force.extend(in_force),
                Err(why) => read_back.unread.extend(curve.levers().map(|lever| (lever.to_owned(), why.clone()))),
            }
        }
        read_back
    }

    fn value(&self, Served { name, place, .. }: &Served) -> Result<Decimal, String> {
        match place {
            Place::Attribute(target) => target.read().ok_or_else(|| target.why_unread()),
            Place::Line(line) => {
                let missing = || format!("{} has no line for {}", line.file.display(), line.key);
                let value = line.in_force(&self.keeper, name, &self.boot).ok_or_else(missing)?;
                Decimal::from_str(&value).map_err(|_| format!("{} says `{value}`", line.file.display()))
            }
            Place::Outlet(outlet) => outlet::read(outlet),
        }
    }

    /// Puts back what takes effect at once, as it was before; tells what could not be.
    pub fn put_back(&mut self) -> Vec<String> {
        self.guards.clear();
        self.keeper.put_back(false, |_| true)
    }
}

/// Puts back everything that an earlier life of the program changed and left, at places that are still allowed: what was put
/// back, and what could not be.
///
/// # Errors
/// When the file that keeps it can't be read.
pub fn restore(
    root: &Path,
    kept_in: &Path,
    is_allowed: impl Fn(&Terms) -> bool,
) -> io::Result<(Vec<String>, Vec<String>)> {
    let mut keeper = Keeper::open(kept_in, &Linux::below(root).boot().id)?;
    let before = keeper.targets();
    let (found, tables) = (targets::find(root), curves::find(root));
    let problems =
        keeper.put_back(true, |kept| kept.is_at_its_place(root, &found, &tables) && is_allowed(kept.terms()));
    let left = keeper.targets();
    Ok((before.into_iter().filter(|target| !left.contains(target)).collect(), problems))
}

fn wanted(line: &Line, name: &str, terms: &Terms, change: &Change) -> Wanted {
    Wanted { line: line.clone(), value: change.to.to_string(), target: name.to_owned(), terms: terms.clone() }
}

/// Writes it, and tells what went wrong with which.
fn told_by(writing: &Writing) -> Result<(), String> {
    let told = |error| format!("writing {:?} to {}: {error}", writing.text, writing.path.display());
    writing.carry_out().map_err(told)
}

fn not_here(known: &[&str]) -> String {
    match known {
        [] => "and the kernel lets nothing be set on this machine".into(),
        known => format!("which this machine does not have; it has {}", known.join(", ")),
    }
}

fn refusal(label: &str, file: &Path, error: &io::Error) -> String {
    let file = file.display();
    match error.kind() {
        io::ErrorKind::PermissionDenied => {
            format!("{label} needs the right to write {file}; root can give it with `chown $USER {file}`")
        }
        _ => format!("{label} can't be written to {file}: {error}"),
    }
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use periculum_core::files::{Document, Problems, rig_file};
    use std::fs;

    const FILES: [(&str, &str); 6] = [
        ("proc/sys/kernel/random/boot_id", "boot-1\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/cpuinfo_min_freq", "800000\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/cpuinfo_max_freq", "5400000\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/scaling_max_freq", "5000000\n"),
        ("sys/devices/system/cpu/cpufreq/policy0/scaling_min_freq", "800000\n"),
        ("boot/config.txt", "# dome\ncore_mhz=2000\n"),
    ];

    const RIG: &str = "format = 1\n[rig]\nname = \"r\"\n\
        [setting.top]\nunit = \"MHz\"\nladder = { from = 800, step = 25, to = 5400 }\nstock = 5000\nharder = \"up\"\n\
        takes_effect = \"at-once\"\nadapter = \"linux\"\ntarget = \"clock/max\"\n\
        [setting.arm]\nunit = \"MHz\"\nladder = { from = 1000, step = 50, to = 3000 }\nstock = 2000\nharder = \"up\"\n\
        takes_effect = \"next-start\"\nadapter = \"linux\"\nboot = { file = \"/boot/config.txt\", key = \"core_mhz\" }\n";

    fn rig() -> Rig {
        let document = Document::parse(RIG).expect("a document");
        let problems = Problems::default();
        let rig = rig_file::read(&document.top(&problems));
        rig.unwrap_or_else(|| panic!("{:?}", problems.into_sorted()))
    }

    fn change(setting: &str, to: i64) -> Errand {
        Errand::of(Change { setting: setting.into(), from: None, to: to.into() })
    }

    fn in_force(setter: &Setter, setting: &str) -> Option<i64> {
        setter.read_back().in_force.get(setting).map(|value| i64::try_from(*value).expect("whole"))
    }

    #[test]
    fn what_takes_effect_at_once_is_put_back_by_whoever_comes_next() {
        let root = tree("setter", &FILES);
        let kept = root.join("state/kept");
        let attribute = root.join("sys/devices/system/cpu/cpufreq/policy0/scaling_max_freq");
        let mut setter = Setter::of(&root, &rig(), &kept).expect("possible");
        setter.apply(&change("top", 4700)).expect("taken");
        setter.apply(&change("top", 4725)).expect("taken");
        assert_eq!(in_force(&setter, "top"), Some(4725));
        drop(setter);
        assert_eq!(fs::read_to_string(&attribute).expect("read"), "4725000", "the program died here");
        let (done, problems) = restore(&root, &kept, |_| true).expect("readable");
        assert_eq!((done, problems), (vec!["clock/max".to_owned()], vec![]));
        assert_eq!(fs::read_to_string(&attribute).expect("read"), "5000000");
        assert!(!kept.exists(), "nothing is left to be put back");
        fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn after_a_start_the_kernel_has_forgotten_and_the_file_has_not() {
        let root = tree("setter-boot", &FILES);
        let (kept, file) = (root.join("state/kept"), root.join("boot/config.txt"));
        let mut setter = Setter::of(&root, &rig(), &kept).expect("possible");
        setter.apply(&change("top", 4700)).expect("taken");
        setter.apply(&change("arm", 2100)).expect("taken");
        setter.apply(&change("arm", 2150)).expect("taken");
        assert_eq!(in_force(&setter, "arm"), Some(2000), "not before the next start");
        fs::write(root.join("proc/sys/kernel/random/boot_id"), "boot-2\n").expect("written");
        let mut setter = Setter::of(&root, &rig(), &kept).expect("possible");
        assert_eq!(in_force(&setter, "arm"), Some(2150));
        assert!(setter.put_back().is_empty(), "a line stays, as a setting by hand does");
        assert_eq!(fs::read_to_string(&file).expect("read"), "# dome\ncore_mhz=2150\n");
        let (done, problems) = restore(&root, &kept, |_| true).expect("readable");
        assert_eq!((done, problems), (vec!["/boot/config.txt:core_mhz".to_owned()], vec![]));
        assert_eq!(fs::read_to_string(&file).expect("read"), "# dome\ncore_mhz=2000\n");
        assert!(!root.join("boot/config.txt.before-periculum").exists());
        fs::remove_dir_all(&root).expect("removed");
    }

    /// A rig with two keys of one file.
    fn rig_of_keys() -> Rig {
        let text = RIG.replace("[setting.top]", "[setting.fan]").replace("target = \"clock/max\"\n", "");
        let text = text.replace("\"at-once\"", "\"next-start\"").replacen(
            "adapter = \"linux\"\n",
            "adapter = \"linux\"\nboot = { file = \"/boot/config.txt\", key = \"fan\" }\n",
            1,
        );
        let document = Document::parse(&text).expect("a document");
        rig_file::read(&document.top(&Problems::default())).expect("a rig")
    }

    #[test]
    fn the_lines_of_an_errand_are_written_in_one_step() {
        let root = tree("setter-errand", &[FILES[0], ("boot/config.txt", "# dome\nfan=800\n")]);
        let (kept, file) = (root.join("state/kept"), root.join("boot/config.txt"));
        let mut setter = Setter::of(&root, &rig_of_keys(), &kept).expect("possible");
        let both = [change("arm", 2100), change("fan", 925)].map(|errand| errand.changes()[0].clone());
        setter.write_down(&both).expect("written");
        assert_eq!(fs::read_to_string(&file).expect("read"), "# dome\nfan=925\ncore_mhz=2100\n");
        assert_eq!(
            (in_force(&setter, "fan"), in_force(&setter, "arm")),
            (Some(800), None),
            "not before the next start"
        );
        drop(setter);
        restore(&root, &kept, |_| true).expect("readable");
        assert_eq!(fs::read_to_string(&file).expect("read"), "# dome\nfan=800\n");
        fs::remove_dir_all(&root).expect("removed");
    }

    /// Two keys of one file, the first of them written again, in a file whose last line had no end.
    #[test]
    fn several_keys_of_one_file_are_put_back_byte_for_byte() {
        let root = tree("setter-keys", &[FILES[0], ("boot/config.txt", "# dome\nlast=1")]);
        let (kept, file) = (root.join("state/kept"), root.join("boot/config.txt"));
        let mut setter = Setter::of(&root, &rig_of_keys(), &kept).expect("possible");
        for (setting, to) in [("fan", 900), ("arm", 2100), ("fan", 925)] {
            setter.apply(&change(setting, to)).expect("written");
        }
        assert_eq!(fs::read_to_string(&file).expect("read"), "# dome\nlast=1\nfan=925\ncore_mhz=2100\n");
        let before = fs::read_to_string(root.join("boot/config.txt.before-periculum")).expect("kept");
        assert_eq!(before, "# dome\nlast=1", "as it was before the first change");
        let (done, problems) = restore(&root, &kept, |_| true).expect("readable");
        assert_eq!((done.len(), problems), (2, vec![]));
        assert_eq!(fs::read_to_string(&file).expect("read"), "# dome\nlast=1");
        assert!(!kept.exists());
        fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn what_can_not_be_set_here_is_told_before_anything_is() {
        let root = tree("setter-none", &FILES[..1]);
        let told = Setter::of(&root, &rig(), &root.join("kept")).expect_err("nothing there");
        assert_eq!(told.len(), 2, "{told:?}");
        assert!(told[0].contains("highest clock") || told[0].contains("`clock/max`"), "{told:?}");
        assert!(told[1].contains("config.txt"), "{told:?}");
        fs::remove_dir_all(&root).expect("removed");
    }
}

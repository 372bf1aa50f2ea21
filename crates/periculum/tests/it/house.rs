//! The structure of the house: no two modules know each other, and no room of the core knows one above it.
//!
//! Reading `use` lines is enough: nothing else is allowed to name a module of the own crate (`crate::…::` in the middle of code is
//! found too).

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};

/// The path of a module in its crate, or of something in it.
type Name = Vec<String>;

/// The rooms of the core, from the lowest.
const ROOMS: [&str; 7] = ["inference", "model", "engine", "files", "story", "analysis", "telling"];

/// The modules of a crate, and what is brought into each from its own crate.
struct Crate {
    uses: BTreeMap<Name, Vec<Name>>,
    /// What modules give on under a name of their own.
    given_on: BTreeMap<(Name, String), Name>,
}

fn sources(folder: &Path) -> Vec<PathBuf> {
    let entries = fs::read_dir(folder).expect("a folder").map(|entry| entry.expect("an entry").path());
    let (folders, files): (Vec<_>, Vec<_>) = entries.partition(|path| path.is_dir());
    let below = folders.iter().flat_map(|folder| sources(folder));
    below.chain(files.into_iter().filter(|path| path.extension().is_some_and(|ending| ending == "rs"))).collect()
}

fn module(root: &Path, file: &Path) -> Name {
    let below = file.strip_prefix(root).expect("below").with_extension("");
    let mut name: Name = below.iter().map(|part| part.to_string_lossy().into_owned()).collect();
    if name.last().is_some_and(|last| ["mod", "lib", "main"].contains(&last.as_str())) {
        name.pop();
    }
    name
}

/// What is compiled into the crate: neither comments nor tests.
fn code(text: &str) -> String {
    let text = text.split("#[cfg(test)]\nmod tests {").next().unwrap_or_default();
    text.lines().filter(|line| !line.trim_start().starts_with("//")).collect::<Vec<_>>().join("\n")
}

/// The paths of a tree like `a::{b, c::{self, d}}`.
fn paths(tree: &str) -> Vec<String> {
    let tree = tree.trim();
    let Some((before, inner)) = tree.split_once('{') else {
        return vec![tree.split(" as ").next().unwrap_or_default().trim().to_owned()];
    };
    // A text that only looks like a tree is none.
    let Some(inner) = inner.strip_suffix('}') else { return Vec::new() };
    let (mut depth, mut parts) = (0, vec![String::new()]);
    for sign in inner.chars() {
        depth += i32::from(sign == '{') - i32::from(sign == '}');
        match parts.last_mut() {
            Some(part) if sign != ',' || depth > 0 => part.push(sign),
            _ => parts.push(String::new()),
        }
    }
    let named = parts.iter().filter(|part| !part.trim().is_empty());
    named.flat_map(|part| paths(&format!("{before}{}", part.trim()))).collect()
}

/// The trees of all `use` items, and whether each is given on.
fn trees(code: &str) -> Vec<(String, bool)> {
    let mut trees = Vec::new();
    let mut rest = code;
    while let Some(at) = rest.find("use ") {
        let line_start = rest[..at].rfind('\n').map_or(0, |end| end + 1);
        let lead = rest[line_start..at].trim();
        let behind = &rest[at + 4..];
        let end = behind.find(';').unwrap_or(behind.len());
        if lead.is_empty() || lead.starts_with("pub") && !lead.contains(' ') {
            let tree = behind[..end].split_whitespace().collect::<Vec<_>>().join(" ");
            trees.push((tree, lead.starts_with("pub")));
        }
        rest = &behind[end.min(behind.len())..];
    }
    trees
}

impl Crate {
    fn read(folder: &Path) -> Self {
        let root = folder.join("src");
        let files = sources(&root);
        let texts: BTreeMap<Name, String> = files
            .iter()
            .filter(|file| !file.to_string_lossy().ends_with("tests.rs"))
            .map(|file| (module(&root, file), code(&fs::read_to_string(file).expect("a source"))))
            .collect();
        let mut read = Self { uses: BTreeMap::new(), given_on: BTreeMap::new() };
        for (name, text) in &texts {
            let mut uses = Vec::new();
            for (tree, is_given_on) in trees(text) {
                for path in paths(&tree) {
                    let Some(used) = in_crate(name, &path, &texts) else { continue };
                    match (is_given_on, used.last()) {
                        (true, Some(last)) => drop(read.given_on.insert((name.clone(), last.clone()), used.clone())),
                        _ => uses.push(used),
                    }
                }
            }
            let in_code = text.split("crate::").skip(1).map(|behind| {
                let end = behind.find(|sign: char| !(sign.is_alphanumeric() || sign == '_' || sign == ':'));
                behind[..end.unwrap_or(behind.len())].split("::").map(str::to_owned).collect::<Name>()
            });
            let in_code = in_code.filter(|path| path.len() > 1 && path[0].starts_with(char::is_lowercase));
            uses.extend(in_code.filter(|path| !path.iter().any(String::is_empty)));
            read.uses.insert(name.clone(), uses);
        }
        read
    }

    /// The module that something stands in, whoever gives it on.
    fn home_of(&self, path: &[String]) -> Name {
        let known = (0..=path.len()).rev().find(|length| self.uses.contains_key(&path[..*length])).unwrap_or(0);
        let module = path[..known].to_vec();
        let given_on = path.get(known).and_then(|name| self.given_on.get(&(module.clone(), name.clone())));
        match given_on {
            Some(from) if from[..] != path[..] => self.home_of(from),
            _ => module,
        }
    }

    fn arrows(&self) -> BTreeMap<Name, BTreeSet<Name>> {
        let homes = |(name, uses): (&Name, &Vec<Name>)| {
            let used = uses.iter().map(|path| self.home_of(path)).filter(|home| home != name && !home.is_empty());
            (name.clone(), used.collect())
        };
        self.uses.iter().map(homes).collect()
    }
}

/// A path as it is seen from the top of the crate; none where it is of another.
fn in_crate(module: &Name, path: &str, texts: &BTreeMap<Name, String>) -> Option<Name> {
    let parts: Name = path.split("::").map(str::to_owned).collect();
    let supers = parts.iter().take_while(|part| *part == "super").count();
    match parts.first()?.as_str() {
        "crate" => Some(parts[1..].to_vec()),
        "self" => Some(module.iter().chain(&parts[1..]).cloned().collect()),
        "super" => Some(module[..module.len() - supers].iter().chain(&parts[supers..]).cloned().collect()),
        child => {
            let own: Name = module.iter().cloned().chain([child.to_owned()]).collect();
            texts.contains_key(&own).then(|| module.iter().cloned().chain(parts).collect())
        }
    }
}

/// A way from a module back to itself.
fn circle(arrows: &BTreeMap<Name, BTreeSet<Name>>, from: &Name) -> Option<Vec<Name>> {
    let mut seen = BTreeSet::new();
    let mut ways = vec![vec![from.clone()]];
    while let Some(way) = ways.pop() {
        for next in way.last().and_then(|last| arrows.get(last)).into_iter().flatten() {
            if next == from {
                return Some(way);
            }
            if seen.insert(next.clone()) {
                ways.push(way.iter().chain([next]).cloned().collect());
            }
        }
    }
    None
}

fn crates() -> Vec<PathBuf> {
    let all = Path::new(env!("CARGO_MANIFEST_DIR")).parent().expect("the folder of all crates");
    let crates = fs::read_dir(all).expect("crates").map(|entry| entry.expect("an entry").path());
    crates.filter(|path| path.join("Cargo.toml").exists()).collect()
}

fn told(circle: &[Name]) -> String {
    circle.iter().map(|name| name.join("::")).collect::<Vec<_>>().join(" → ")
}

#[test]
fn no_two_modules_know_each_other() {
    let crates = crates();
    assert!(crates.len() >= 6, "{crates:?}");
    for folder in crates {
        let arrows = Crate::read(&folder).arrows();
        for name in arrows.keys() {
            let circle = circle(&arrows, name).map(|circle| told(&circle));
            assert_eq!(circle, None, "in {}", folder.display());
        }
    }
}

#[test]
fn the_rooms_of_the_core_know_only_those_below_them() {
    let core = Path::new(env!("CARGO_MANIFEST_DIR")).parent().expect("crates").join("periculum-core");
    let arrows = Crate::read(&core).arrows();
    let height = |name: &Name| ROOMS.iter().position(|room| Some(*room) == name.first().map(String::as_str));
    let mut arrows_between = 0;
    for (name, used) in &arrows {
        let Some(from) = height(name) else { continue };
        for other in used {
            let to = height(other).unwrap_or_else(|| panic!("{} is in no room", other.join("::")));
            assert!(to <= from, "{} knows {}", name.join("::"), other.join("::"));
            arrows_between += usize::from(to < from);
        }
    }
    assert!(arrows_between > 100, "the rooms were read: {arrows_between}");
}

#[test]
fn every_place_of_unsafe_code_is_named() {
    let architecture = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../ARCHITECTURE.md");
    let architecture = fs::read_to_string(architecture).expect("the document");
    let mut places = 0;
    for root in crates().iter().map(|folder| folder.join("src")) {
        for file in sources(&root) {
            let text = code(&fs::read_to_string(&file).expect("a source"));
            if text.split_whitespace().any(|word| word == "unsafe") {
                let name = file.strip_prefix(&root).expect("below").display().to_string();
                assert!(architecture.contains(&format!("`{name}`")), "ARCHITECTURE.md does not name {name}");
                places += 1;
            }
        }
    }
    assert!(places > 5, "the sources were read: {places}");
}

#[test]
fn a_circle_is_found() {
    let name = |name: &str| vec![name.to_owned()];
    let arrows = [("a", "b"), ("b", "c"), ("c", "a"), ("d", "a")];
    let arrows: BTreeMap<Name, BTreeSet<Name>> =
        arrows.iter().map(|(from, to)| (name(from), BTreeSet::from([name(to)]))).collect();
    assert_eq!(circle(&arrows, &name("a")), Some(vec![name("a"), name("b"), name("c")]));
    assert_eq!(circle(&arrows, &name("d")), None);
    assert_eq!(paths("a::{b, c::{self, D as E}}"), ["a::b", "a::c::self", "a::c::D"]);
}

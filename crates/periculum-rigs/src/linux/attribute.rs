//! One attribute of the kernel's file systems, read as what it says: text, a number, or nothing.

use std::collections::BTreeMap;
use std::fs::{File, OpenOptions};
use std::io::Read;
use std::os::unix::fs::OpenOptionsExt;
use std::path::{Path, PathBuf};

use periculum_core::model::quantity::harmless;

/// An attribute holds no more than a page; what claims to hold more is none.
const LONGEST: usize = 4096;

/// So much of what an attribute says is shown.
const SHOWN: usize = 40;

/// Opens an attribute to be read; a pipe in its place is not waited for.
fn open(path: &Path) -> Option<File> {
    OpenOptions::new().read(true).custom_flags(libc::O_NONBLOCK).open(path).ok()
}

/// The text of an attribute without the line end; none where it is gone, says no, or is no text.
pub(super) fn text(path: &Path) -> Option<String> {
    lines(path).map(|text| harmless(&text))
}

/// What an attribute holds that is no text.
pub(super) fn bytes(path: &Path) -> Option<Vec<u8>> {
    let mut bytes = Vec::with_capacity(64);
    open(path)?.take(LONGEST as u64 + 1).read_to_end(&mut bytes).ok()?;
    (bytes.len() <= LONGEST).then_some(bytes)
}

/// The same with its lines, for attributes that are tables.
pub(super) fn lines(path: &Path) -> Option<String> {
    let text = String::from_utf8(bytes(path)?).ok()?;
    let text = text.trim_end_matches('\n');
    let lines: Vec<String> = text.split('\n').map(harmless).collect();
    (!text.is_empty()).then(|| lines.join("\n"))
}

/// The whole number that an attribute holds; none where it holds anything else.
pub(super) fn number(path: &Path) -> Option<i64> {
    number_in(open(path)?)
}

/// The same for whoever may wait, on a thread of their own, as long as the driver behind it takes.
pub(super) fn patient_number(path: &Path) -> Option<i64> {
    number_in(File::open(path).ok()?)
}

fn number_in(mut attribute: File) -> Option<i64> {
    // Sensors are read hundreds of times a second: no more than a number is fetched, in one piece.
    let mut bytes = [0; 32];
    let length = attribute.read(&mut bytes).ok().filter(|length| *length < bytes.len())?;
    str::from_utf8(&bytes[..length]).ok()?.trim().parse().ok()
}

/// Why an attribute says nothing that could be used, in words.
pub(super) fn why_unread(path: &Path) -> String {
    let open = || OpenOptions::new().read(true).custom_flags(libc::O_NONBLOCK).open(path);
    let mut bytes = [0; LONGEST];
    match open().and_then(|mut attribute| attribute.read(&mut bytes)) {
        Err(error) => format!("{}: {error}", path.display()),
        Ok(length) => {
            let said = harmless(String::from_utf8_lossy(&bytes[..length]).trim());
            format!("{} says `{}`", path.display(), said.chars().take(SHOWN).collect::<String>())
        }
    }
}

/// The entries of a folder whose names begin like this, in the order of the numbers behind that.
pub(super) fn numbered(folder: &Path, prefix: &str) -> Vec<(u32, PathBuf)> {
    let Ok(entries) = std::fs::read_dir(folder) else { return Vec::new() };
    let number = |path: &PathBuf| path.file_name()?.to_str()?.strip_prefix(prefix)?.parse().ok();
    let mut found: Vec<(u32, PathBuf)> =
        entries.flatten().map(|entry| entry.path()).filter_map(|path| Some((number(&path)?, path))).collect();
    found.sort();
    found
}

/// The sensor chips of a class folder by names that last: a second chip of the same name is `NAME#2`.
pub(super) fn lasting_chips(folder: &Path) -> Vec<(String, PathBuf)> {
    let mut seen = BTreeMap::new();
    let named = |(_, path): (u32, PathBuf)| Some((nth(&mut seen, &text(&path.join("name"))?), path));
    numbered(folder, "hwmon").into_iter().filter_map(named).collect()
}

/// The name, or the name and which of its kind it is.
pub(super) fn nth(seen: &mut BTreeMap<String, u32>, name: &str) -> String {
    let count = seen.entry(name.to_owned()).or_insert(0);
    *count += 1;
    if *count == 1 { name.to_owned() } else { format!("{name}#{count}") }
}

/// The names in a folder, in order.
pub(super) fn names(folder: &Path) -> Vec<String> {
    let Ok(entries) = std::fs::read_dir(folder) else { return Vec::new() };
    let mut names: Vec<String> = entries.flatten().filter_map(|entry| entry.file_name().into_string().ok()).collect();
    names.sort();
    names
}

#[cfg(test)]
pub(super) mod tests {
    use std::fs;
    use std::path::PathBuf;

    /// A folder of its own with these files in it.
    pub(in crate::linux) fn tree(name: &str, files: &[(&str, &str)]) -> PathBuf {
        let root = std::env::temp_dir().join(format!("periculum-{name}-{}", std::process::id()));
        let _ = fs::remove_dir_all(&root);
        for (path, text) in files {
            let path = root.join(path);
            fs::create_dir_all(path.parent().expect("a folder")).expect("made");
            fs::write(path, text).expect("written");
        }
        root
    }
}

//! One attribute of the kernel's file systems, read as what it says: text, a number, or nothing.

use std::fs::File;
use std::io::Read;
use std::path::{Path, PathBuf};

use periculum_core::quantity::harmless;

/// An attribute holds no more than a page; what claims to hold more is none.
const LONGEST: usize = 4096;

/// The text of an attribute without the line end; none where it is gone, says no, or is no text.
pub(super) fn text(path: &Path) -> Option<String> {
    let mut bytes = Vec::with_capacity(64);
    File::open(path).ok()?.take(LONGEST as u64 + 1).read_to_end(&mut bytes).ok()?;
    if bytes.len() > LONGEST {
        return None;
    }
    let text = String::from_utf8(bytes).ok()?;
    let line = text.trim_end_matches('\n');
    (!line.is_empty()).then(|| harmless(line))
}

/// The whole number that an attribute holds; none where it holds anything else.
pub(super) fn number(path: &Path) -> Option<i64> {
    text(path)?.trim().parse().ok()
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

/// The names in a folder, in order.
pub(super) fn names(folder: &Path) -> Vec<String> {
    let Ok(entries) = std::fs::read_dir(folder) else { return Vec::new() };
    let mut names: Vec<String> = entries.flatten().filter_map(|entry| entry.file_name().into_string().ok()).collect();
    names.sort();
    names
}

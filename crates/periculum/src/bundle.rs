//! A climb to be handed on: its report, its tables and its whole record in one file, with digests that prove them.
//!
//! A bundle is a tar file (POSIX.1-2017, `ustar`): `bundle.json` says which climb it is, the digest of its record and that of each
//! file (SHA-256); `climb.ledger` is a ledger of that climb alone, from which everything else can be made anew.

use std::collections::BTreeMap;
use std::io::Read;
use std::path::Path;

use anyhow::{Context, Result, bail};
use periculum_charts::{incidents, samples, scores, trials};
use periculum_core::model::amount::written;
use periculum_core::model::quantity::counted;
use periculum_ledger::Ledger;
use serde::{Deserialize, Serialize};
use serde_json::json;
use sha2::{Digest, Sha256};

use crate::commands::date;
use crate::complaint::BadInput;
use crate::recalling::{recall_to_look, tell_past};
use crate::reports::report;
use crate::telling::bundles;

const DIRECTORY: &str = "bundle.json";
const RECORD: &str = "climb.ledger";

/// The format of the directory.
const FORMAT: u32 = 1;

/// No bundle is larger than this, bytes.
const LARGEST: u64 = 1 << 30;

/// What a bundle says of itself.
#[derive(Debug, Deserialize, Serialize)]
pub(crate) struct Directory {
    format: u32,
    version: String,
    pub(crate) climb: i64,
    pub(crate) plan: String,
    pub(crate) rig: String,
    /// When it began, as its report has it.
    pub(crate) begun: String,
    /// That of its record.
    pub(crate) digest: String,
    files: BTreeMap<String, String>,
}

/// Files by their names.
type Files = BTreeMap<String, Vec<u8>>;

/// The bundle of a climb.
///
/// # Errors
/// Where the climb can't be read.
pub(crate) fn of(ledger: &Ledger, climb: i64) -> Result<Vec<u8>> {
    let row = ledger.climb(climb)?;
    let begun = date(row.wall);
    let folder = tempfile::tempdir()?;
    ledger.extract(climb, &folder.path().join(RECORD))?;
    let mut files = made(ledger, climb, &begun)?;
    files.insert(RECORD.to_owned(), std::fs::read(folder.path().join(RECORD))?);
    let directory = Directory {
        format: FORMAT,
        version: env!("CARGO_PKG_VERSION").to_owned(),
        climb,
        plan: row.plan,
        rig: row.rig,
        begun,
        digest: hex(&ledger.digest(climb)?),
        files: files.iter().map(|(name, bytes)| (name.clone(), hex(&Sha256::digest(bytes)))).collect(),
    };
    files.insert(DIRECTORY.to_owned(), serde_json::to_vec_pretty(&directory)?);
    packed(&files, u64::try_from(row.wall.millis() / 1000).unwrap_or_default())
}

/// A tar file of these files, all written at this second.
fn packed(files: &Files, second: u64) -> Result<Vec<u8>> {
    let mut tar = tar::Builder::new(Vec::new());
    for (name, bytes) in files {
        let mut header = tar::Header::new_ustar();
        header.set_size(bytes.len() as u64);
        header.set_mode(0o644);
        header.set_mtime(second);
        tar.append_data(&mut header, name, bytes.as_slice())?;
    }
    Ok(tar.into_inner()?)
}

/// What is made of a climb's record.
fn made(ledger: &Ledger, climb: i64, begun: &str) -> Result<Files> {
    let row = ledger.climb(climb)?;
    let rig = recall_to_look(ledger, &row)?.rig;
    let (lines, readings) = (ledger.lines(climb)?, ledger.samples(climb)?);
    let story = tell_past(&lines);
    let mut files = Files::new();
    for form in ["html", "md"] {
        files.insert(format!("report.{form}"), report(ledger, climb, form, begun)?);
    }
    let tables = [
        ("trials", trials(&story, &rig, &readings)),
        ("scores", scores(&story)),
        ("incidents", incidents(&story)),
        ("samples", samples(&story, &readings, &rig)),
    ];
    for (name, table) in tables {
        let mut bytes = Vec::new();
        table.write_csv(&mut bytes)?;
        files.insert(format!("{name}.csv"), bytes);
    }
    let mut journal = Vec::new();
    for line in &lines {
        let told = json!({ "at": line.at, "wall": line.wall, "boot": line.boot, "event": line.event, "entries": line.entries });
        serde_json::to_writer(&mut journal, &told)?;
        journal.push(b'\n');
    }
    files.insert("journal.jsonl".into(), journal);
    Ok(files)
}

/// What was found in a bundle.
pub(crate) struct Verified {
    pub(crate) directory: Directory,
    /// Everything that is wrong with it.
    pub(crate) wrong: Vec<String>,
    /// What was not looked at, in a sentence; none where all was.
    pub(crate) left_out: Option<String>,
}

/// What a bundle is, and whether it is whole and unchanged.
///
/// # Errors
/// Where the file is no bundle at all.
pub(crate) fn verify(path: &Path) -> Result<Verified> {
    let is_none = || BadInput(bundles::is_no_bundle(path.display()));
    let mut files = unpacked(path).with_context(is_none)?;
    let directory = files.remove(DIRECTORY).and_then(|text| serde_json::from_slice::<Directory>(&text).ok());
    let directory = directory.ok_or(BadInput(bundles::NO_DIRECTORY.to_owned())).with_context(is_none)?;
    if directory.format > FORMAT {
        return Err(BadInput(bundles::too_new(directory.format))).with_context(is_none);
    }
    let wrong = compare(&directory, &files);
    let mut verified = Verified { directory, wrong, left_out: None };
    if verified.wrong.is_empty() {
        look_into(&files, &mut verified).with_context(is_none)?;
    }
    Ok(verified)
}

/// Looks whether the record is whole, and gives what stands beside it.
fn look_into(files: &Files, verified: &mut Verified) -> Result<()> {
    let Verified { directory, wrong, left_out } = verified;
    let folder = tempfile::tempdir()?;
    let path = folder.path().join(RECORD);
    std::fs::write(&path, &files[RECORD])?;
    let mut ledger = Ledger::open(&path)?;
    ledger.check()?;
    if !ledger.dropped().is_empty() {
        wrong.push(bundles::damaged(counted(ledger.dropped().len(), "problem")));
        return Ok(());
    }
    let found = hex(&ledger.digest(directory.climb)?);
    if found != directory.digest {
        wrong.push(bundles::another_digest(&directory.digest, found));
    } else if directory.version == env!("CARGO_PKG_VERSION") {
        let made = made(&ledger, directory.climb, &directory.begun)?;
        let differs = made.into_iter().filter(|(name, bytes)| files.get(name) != Some(bytes));
        wrong.extend(differs.map(|(name, _)| bundles::not_what_its_record_gives(name)));
    } else {
        *left_out = Some(bundles::another_version(&directory.version));
    }
    Ok(())
}

fn unpacked(path: &Path) -> Result<Files> {
    let mut files = Files::new();
    let mut left = LARGEST;
    for entry in tar::Archive::new(std::fs::File::open(path)?).entries()? {
        let mut entry = entry?;
        if !entry.header().entry_type().is_file() {
            continue;
        }
        let path = entry.path()?;
        let name = path.strip_prefix(".").unwrap_or(&path).display().to_string();
        if entry.size() > left {
            bail!(bundles::too_large(written(LARGEST)));
        }
        left -= entry.size();
        let mut bytes = Vec::new();
        entry.read_to_end(&mut bytes)?;
        files.insert(name, bytes);
    }
    Ok(files)
}

/// Files that are missing, others, or too many.
fn compare(directory: &Directory, files: &Files) -> Vec<String> {
    let is_listed = |name: &str| directory.files.contains_key(name);
    let listed = directory.files.iter().filter_map(|(name, digest)| match files.get(name) {
        None => Some(bundles::missing(name)),
        Some(bytes) => (hex(&Sha256::digest(bytes)) != *digest).then(|| bundles::changed(name)),
    });
    let unknown = files.keys().filter(|name| !is_listed(name)).map(bundles::unknown);
    listed.chain(unknown).chain((!is_listed(RECORD)).then(|| bundles::missing(RECORD))).collect()
}

fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|byte| format!("{byte:02x}")).collect()
}

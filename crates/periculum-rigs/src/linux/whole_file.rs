//! Files that are whole whenever the machine dies.

use std::fs;
use std::io::{self, ErrorKind, Write};
use std::os::unix::fs::{DirBuilderExt, MetadataExt, OpenOptionsExt, fchown};
use std::path::{Path, PathBuf};

/// A file of the machine, as it stands below a root that tests can move.
pub(super) fn below(root: &Path, file: &str) -> PathBuf {
    root.join(file.trim_start_matches('/'))
}

/// Writes a file anew in one step, so that it is whole whenever the machine dies.
///
/// A symbolic link is followed and stays; a file of several names is written in place, so that all of them stay its names.
pub(super) fn replace(path: &Path, bytes: &[u8], like: Option<&fs::Metadata>) -> io::Result<()> {
    let resolved =
        if like.is_some() { fs::canonicalize(path).unwrap_or_else(|_| path.to_owned()) } else { path.to_owned() };
    let path = resolved.as_path();
    let folder = path.parent().unwrap_or(Path::new("."));
    if like.is_none() {
        fs::DirBuilder::new().recursive(true).mode(0o700).create(folder)?;
    }
    let mut name = path.file_name().unwrap_or_default().to_owned();
    name.push(".next");
    let next = folder.join(name);
    let mut file = created(&next)?;
    if let Some(like) = like {
        file.set_permissions(like.permissions())?;
        fchown(&file, Some(like.uid()), Some(like.gid()))?;
    }
    file.write_all(bytes)?;
    file.sync_all()?;
    if fs::metadata(path).is_ok_and(|metadata| metadata.nlink() > 1) {
        // What is to be there is safe beside it, should the machine die in between.
        let mut file = fs::OpenOptions::new().write(true).truncate(true).open(path)?;
        file.write_all(bytes)?;
        file.sync_all()?;
        return fs::remove_file(&next);
    }
    fs::rename(&next, path)?;
    fs::File::open(folder)?.sync_all()
}

/// Makes a file of the user's own that was not there: what stands in its place is taken away, and no link is followed.
pub(super) fn created(path: &Path) -> io::Result<fs::File> {
    match fs::remove_file(path) {
        Err(error) if error.kind() != ErrorKind::NotFound => return Err(error),
        _ => {}
    }
    fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(path)
}

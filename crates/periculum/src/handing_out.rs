//! Where something that is written goes: into a file whose ending says as what, or to standard output.

use std::fs;
use std::io::{self, Write};
use std::path::Path;

use anyhow::{Context, Result};

use crate::telling::files;

/// What stands in the place of a file for standard output.
const STANDARD_OUTPUT: &str = "-";

/// As what it is written: as somebody says, or as the file's ending does; to standard output as is `usual`.
pub(crate) fn form<'a>(output: &'a Path, said: Option<&'a str>, usual: &'a str) -> &'a str {
    let usual = if goes_to_standard_output(output) { usual } else { ending(output) };
    said.unwrap_or(usual)
}

/// The ending of a file's name.
pub(crate) fn ending(path: &Path) -> &str {
    path.extension().and_then(|ending| ending.to_str()).unwrap_or_default()
}

/// Hands out what was made.
///
/// # Errors
/// When the file can't be written; a reader who has gone is none.
pub(crate) fn hand_out(output: &Path, bytes: &[u8]) -> Result<()> {
    if !goes_to_standard_output(output) {
        return fs::write(output, bytes).with_context(|| files::cannot_write(output.display()));
    }
    let mut out = io::stdout();
    match out.write_all(bytes).and_then(|()| out.flush()) {
        Err(error) if error.kind() != io::ErrorKind::BrokenPipe => Err(error.into()),
        _ => Ok(()),
    }
}

/// Whether what stands in the place of a file is standard output.
pub(crate) fn goes_to_standard_output(output: &Path) -> bool {
    output.as_os_str() == STANDARD_OUTPUT
}

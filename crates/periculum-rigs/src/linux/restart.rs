//! Starts the machine anew, where a plan says so and that was allowed: by the service manager, else by the kernel's own call.

use std::io;
use std::path::Path;
use std::process::{Command, Stdio};

use rustix::system::{RebootCommand, reboot};

use crate::granted::Written;

/// What a permission to restart this machine is given for.
pub fn restarting() -> Written {
    Written {
        label: "this machine".to_owned(),
        target: "restart".to_owned(),
        files: Vec::new(),
        is_there: true,
        terms: vec![("is started anew by itself".to_owned(), "whenever a change of the plan needs it".to_owned())],
    }
}

/// Asks for a start of the machine below this root; it ends this program soon.
///
/// # Errors
/// Where nobody takes the order, or the root is another machine's than the one this runs on.
pub fn restart(root: &Path) -> io::Result<()> {
    if root != Path::new("/") {
        return Err(io::Error::other("only the machine that this runs on can be restarted from here"));
    }
    if Path::new("/run/systemd/system").exists() {
        let mut order = Command::new("systemctl");
        let status = order.arg("reboot").stdin(Stdio::null()).stdout(Stdio::null()).stderr(Stdio::null()).status()?;
        return if status.success() { Ok(()) } else { Err(io::Error::other(format!("`systemctl reboot`: {status}"))) };
    }
    rustix::fs::sync();
    Ok(reboot(RebootCommand::Restart)?)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn another_machines_root_is_not_restarted() {
        assert!(restart(Path::new("/somewhere/else")).is_err());
        assert!(!restarting().terms.is_empty() && restarting().digest().len() == 64);
    }
}

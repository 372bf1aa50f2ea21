//! `periculum where`: where everything is kept.

use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::Result;
use serde_json::json;

use super::{DEMO_LEDGER, LEDGER};
use crate::cli::{Common, Listing};
use crate::output::{hand_out, say};
use crate::places;
use crate::telling::files;

pub(super) fn run(listing: &Listing, common: &Common) -> Result<ExitCode> {
    let demo = places::ledger(&Common { ledger: None, ..common.clone() }, DEMO_LEDGER)?;
    let kept: [(&str, PathBuf); 6] = [
        (files::LEDGER_IS, places::ledger(common, LEDGER)?),
        (files::DEMO_LEDGER_IS, demo),
        (files::PREFERENCES_ARE, places::preferences()?),
        (files::PERMITS_ARE, places::permits()?),
        (files::PUT_BACK_IS, places::kept()?),
        (files::LOG_IS, places::log()?),
    ];
    for (what, path) in kept {
        if listing.json {
            hand_out(json!({ "what": what, "path": path, "is_there": path.exists() }).to_string());
            continue;
        }
        let missing = if path.exists() { "" } else { files::NOT_YET };
        say(files::kept_at(what, path.display(), missing));
    }
    Ok(ExitCode::SUCCESS)
}

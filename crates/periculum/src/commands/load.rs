//! `periculum load`: what runs in a load's own process; not for people.

use std::process::ExitCode;
use std::time::Duration;

use anyhow::{Context, Result};
use periculum_loads::catalogue;
use periculum_loads::child::{SEED, run_load};
use periculum_loads::frame::{Order, Stop, Turns};

use crate::cli::Load;

pub(super) fn run(load: &Load) -> Result<ExitCode> {
    let kind = catalogue::find(&load.name).context("there is no such load")?;
    let order = Order {
        cores: load.cores.clone(),
        turns: if load.one_by_one { Turns::OneByOne } else { Turns::Together },
        size: load.size,
        length: Duration::from_millis(load.millis),
        times: load.times,
        warm_up: Duration::from_millis(load.warm_up_millis),
        seed: SEED,
        stop: if load.go_on { Stop::Never } else { Stop::AtFirstError },
    };
    run_load(kind, &order, load.niceness)?;
    Ok(ExitCode::SUCCESS)
}

//! `periculum load`: what runs in a load's own process; not for people.

use std::process::ExitCode;
use std::time::Duration;

use anyhow::{Context, Result};
use periculum_core::model::program::Program;
use periculum_loads::catalogue;
use periculum_loads::child::{enter, run_load};
use periculum_loads::frame::{Order, SEED, Stop, Turns};

use crate::cli::Load;
use crate::loading::{OnDevice, graphics, run_program};
use crate::telling::running;

pub(super) fn run(load: &Load) -> Result<ExitCode> {
    if let Some(program) = &load.program {
        return run_own(load, program);
    }
    if graphics::run(&load.name, on_device(load), &order(load), load.niceness)? {
        return Ok(ExitCode::SUCCESS);
    }
    let kind = catalogue::find(&load.name).context(running::NO_SUCH_LOAD)?;
    run_load(kind, &order(load), load.niceness)?;
    Ok(ExitCode::SUCCESS)
}

fn run_own(load: &Load, program: &str) -> Result<ExitCode> {
    let program: Program = serde_json::from_str(program).context(running::UNREADABLE_PROGRAM)?;
    if enter(load.niceness)? {
        run_program(&program, &order(load))?;
    }
    Ok(ExitCode::SUCCESS)
}

fn on_device(load: &Load) -> OnDevice {
    OnDevice {
        device: load.device.clone(),
        size: load.size,
        share: load.share,
        bytes: load.bytes,
        pictures: load.pictures.clone(),
    }
}

fn order(load: &Load) -> Order {
    Order {
        cores: load.cores.clone(),
        turns: if load.one_by_one { Turns::OneByOne } else { Turns::Together },
        size: load.size,
        length: Duration::from_millis(load.millis),
        times: load.times,
        warm_up: Duration::from_millis(load.warm_up_millis),
        seed: SEED,
        stop: if load.go_on { Stop::Never } else { Stop::AtFirstError },
    }
}

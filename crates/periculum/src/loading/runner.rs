//! Starts, watches and stops the child process of the running pass.

use std::path::{Path, PathBuf};
use std::thread;
use std::time::Duration;

use anyhow::{Context, Result};
use periculum_core::model::moment::Span;
use periculum_core::model::pass::{PassOrder, PassReport};
use periculum_core::model::plan::Plan;
use periculum_loads::cores::allowed;
use periculum_loads::process::LoadProcess;
use periculum_rigs::bench::{PassNews, RunPasses};
use periculum_rigs::linux::Linux;

use super::asked::Asked;
use super::foresight::no_round;
use super::graphics;
use super::order::{LoadOrder, Means, resolve};
use super::running::Running;
use crate::complaint::BadInput;
use crate::permits::Permits;
use crate::telling::running;

/// A pass is refused where a round is foreseen to take so many times what it has: caches that are shared may mislead.
const SURELY: f64 = 4.0;

/// Runs loads by starting this program again.
pub(crate) struct LoadRunner {
    program: PathBuf,
    linux: Linux,
    /// Where wrong pictures are kept.
    pictures: PathBuf,
    running: Option<Running>,
    /// Why the last pass could not be started.
    refusal: Option<String>,
}

impl LoadRunner {
    /// A runner of this machine's loads, after a look at whether it can run every pass of this plan now. Wrong pictures are kept in
    /// this folder.
    pub(crate) fn new(linux: Linux, plan: &Plan, permits: &Permits, pictures: PathBuf) -> Result<Self> {
        let program = std::env::current_exe().context(running::OWN_PROGRAM_NOT_FOUND)?;
        let means = means(&linux, &pictures);
        for pass in plan.proofs.iter().flat_map(|proof| &proof.passes) {
            pass.program.as_deref().map_or(Ok(()), |program| permits.check(program))?;
            let order = resolve(pass, &[], &means).map_err(|why| BadInput(running::cannot_run(&why)))?;
            if let Some(why) = no_round(&order, SURELY) {
                return Err(BadInput(running::checks_nothing(&why)).into());
            }
        }
        let passes = plan.proofs.iter().flat_map(|proof| &proof.passes);
        graphics::look_for(passes, &program).map_err(|why| BadInput(running::cannot_run(&why)))?;
        Ok(Self { program, linux, pictures, running: None, refusal: None })
    }

    fn spawn(&self, order: &LoadOrder) -> Result<Running, String> {
        let arguments = order.arguments().into_iter().map(Into::into);
        let process = LoadProcess::spawn(&self.program, arguments).map_err(|error| error.to_string())?;
        Ok(Running::new(process, Asked::of(order)))
    }
}

fn means(linux: &Linux, pictures: &Path) -> Means {
    Means { cores: allowed(), memory: linux.memory(), pictures: pictures.to_owned() }
}

impl RunPasses for LoadRunner {
    fn start(&mut self, order: &PassOrder) {
        let started = resolve(&order.pass, &order.cores, &means(&self.linux, &self.pictures))
            .and_then(|order| self.spawn(&order));
        match started {
            Ok(running) => self.running = Some(running),
            Err(why) => {
                tracing::error!(why, "the load did not start");
                self.refusal = Some(why);
            }
        }
    }

    fn stop(&mut self) {
        if let Some(running) = &mut self.running {
            running.stop();
        }
    }

    fn late(&self) -> Span {
        self.running.as_ref().map_or(Span::ZERO, Running::late)
    }

    fn wait(&mut self, at_most: Span) -> Vec<PassNews> {
        let at_most = Duration::from_millis(at_most.millis());
        if let Some(why) = self.refusal.take() {
            return vec![PassNews::Ended(PassReport { refused: Some(why), ..PassReport::default() })];
        }
        let Some(running) = &mut self.running else {
            thread::sleep(at_most);
            return Vec::new();
        };
        let news = running.next(at_most);
        if matches!(news, Some(PassNews::Ended(_))) {
            self.running = None;
        }
        news.into_iter().collect()
    }
}

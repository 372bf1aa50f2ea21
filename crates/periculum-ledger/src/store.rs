//! Where a climb is recorded while it is driven, and read when it goes on: on this machine, or on another than the one that may
//! crash.

use std::collections::BTreeMap;

use periculum_core::model::moment::Moment;
use periculum_core::story::series::Series;

use crate::claim::Claim;
use crate::error::LedgerError;
use crate::record::Line;
use crate::rows::{ClimbId, ClimbRow, LastLife, NewClimb};
use crate::signs::SignsOfLife;

/// A permanent record of climbs. A climb is known by its identifier; its number is only its place in a list.
pub trait Store: Send {
    /// What it is called to whoever asks where the record is.
    fn place(&self) -> String;

    /// Takes the right to climb on a rig, for as long as the process lives.
    ///
    /// # Errors
    /// [`LedgerError::Claimed`] where somebody has it.
    fn claim(&self, rig: &str) -> Result<Claim, LedgerError>;

    /// Writes down a new climb.
    ///
    /// # Errors
    /// When it can't be written.
    fn begin(&mut self, new: &NewClimb) -> Result<ClimbRow, LedgerError>;

    /// Writes the next line of a climb; it is permanent when this returns.
    ///
    /// # Errors
    /// When it can't be written; then nothing of it was.
    fn append(&mut self, climb: &ClimbId, line: &Line) -> Result<(), LedgerError>;

    /// Writes sensor readings, each set taken at its moment by the rig's clock; the newest may be lost.
    ///
    /// # Errors
    /// When they can't be written.
    fn add_samples(&mut self, climb: &ClimbId, readings: &[(Moment, BTreeMap<String, f64>)])
    -> Result<(), LedgerError>;

    /// Begins to give signs that a pass goes on, under this boot.
    ///
    /// # Errors
    /// When they can't be written.
    fn signs_of_life(&self, climb: &ClimbId, boot: &str) -> Result<SignsOfLife, LedgerError>;

    /// Every climb, oldest first.
    ///
    /// # Errors
    /// When they can't be read.
    fn list(&self) -> Result<Vec<ClimbRow>, LedgerError>;

    /// One climb.
    ///
    /// # Errors
    /// When there is no such climb.
    fn row(&self, climb: &ClimbId) -> Result<ClimbRow, LedgerError>;

    /// The texts of the rig file and the plan file of a climb, as they were when it began.
    ///
    /// # Errors
    /// When there is no such climb.
    fn files(&self, climb: &ClimbId) -> Result<(String, String), LedgerError>;

    /// Every line of a climb, in order; each is what was written.
    ///
    /// # Errors
    /// When one can't be read, or is not.
    fn journal(&self, climb: &ClimbId) -> Result<Vec<Line>, LedgerError>;

    /// Every sensor's readings during a climb.
    ///
    /// # Errors
    /// When they can't be read.
    fn readings(&self, climb: &ClimbId) -> Result<BTreeMap<String, Series>, LedgerError>;

    /// When a climb was last heard of; none where it never began.
    ///
    /// # Errors
    /// When it can't be read.
    fn heard_of(&self, climb: &ClimbId) -> Result<Option<LastLife>, LedgerError>;
}

//! A ledger's file as a store of climbs that are driven.

use std::collections::BTreeMap;

use periculum_core::model::moment::Moment;
use periculum_core::story::series::Series;

use super::ledger::Ledger;
use crate::claim::Claim;
use crate::error::LedgerError;
use crate::record::Line;
use crate::rows::{ClimbId, ClimbRow, LastLife, NewClimb};
use crate::signs::SignsOfLife;
use crate::store::Store;

impl Store for Ledger {
    fn place(&self) -> String {
        self.path().display().to_string()
    }

    fn claim(&self, rig: &str) -> Result<Claim, LedgerError> {
        Self::claim(self, rig)
    }

    fn begin(&mut self, new: &NewClimb) -> Result<ClimbRow, LedgerError> {
        let number = self.begin_climb(new)?;
        self.climb(number)
    }

    fn append(&mut self, climb: &ClimbId, line: &Line) -> Result<(), LedgerError> {
        Self::append(self, self.number(climb)?, line)
    }

    fn add_samples(
        &mut self,
        climb: &ClimbId,
        readings: &[(Moment, BTreeMap<String, f64>)],
    ) -> Result<(), LedgerError> {
        Self::add_samples(self, self.number(climb)?, readings)
    }

    fn signs_of_life(&self, climb: &ClimbId, boot: &str) -> Result<SignsOfLife, LedgerError> {
        let failed = |source| LedgerError::File { path: self.path().to_owned(), source };
        SignsOfLife::begin(self.path(), self.number(climb)?, boot).map_err(failed)
    }

    fn list(&self) -> Result<Vec<ClimbRow>, LedgerError> {
        self.climbs()
    }

    fn row(&self, climb: &ClimbId) -> Result<ClimbRow, LedgerError> {
        self.climb(self.number(climb)?)
    }

    fn files(&self, climb: &ClimbId) -> Result<(String, String), LedgerError> {
        self.texts(self.number(climb)?)
    }

    fn journal(&self, climb: &ClimbId) -> Result<Vec<Line>, LedgerError> {
        self.lines(self.number(climb)?)
    }

    fn readings(&self, climb: &ClimbId) -> Result<BTreeMap<String, Series>, LedgerError> {
        self.samples(self.number(climb)?)
    }

    fn heard_of(&self, climb: &ClimbId) -> Result<Option<LastLife>, LedgerError> {
        self.last_life(self.number(climb)?)
    }
}

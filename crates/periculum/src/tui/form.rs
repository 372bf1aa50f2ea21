//! What an operator who leads is about to try: values that differ from those tried last, and the proof.

use periculum_core::Decimal;
use periculum_core::analysis::ahead::Ahead;
use periculum_core::engine::{Question, Turn, Written};
use periculum_core::model::ladder::Direction;
use periculum_core::model::plan::{Plan, Proof};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{InForce, Rung};
use periculum_core::model::setting::Setting;

use super::climbed::Climbed;
use super::travel::Travel;

/// What is about to be tried in a turn.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Form {
    pub(super) turn: Turn,
    /// The row that keys change: a setting, or behind the last the proof.
    pub(super) row: usize,
    /// The values that were changed.
    values: InForce,
    proof: String,
}

impl Form {
    /// What was tried last, with the row of before.
    pub(super) fn of(turn: &Turn, row: usize) -> Self {
        Self { turn: turn.clone(), row, values: InForce::new(), proof: turn.proof.clone() }
    }

    /// The rung that it would try.
    pub(super) fn rung(&self) -> Rung {
        self.turn.with(&self.values)
    }

    /// The proof that it would be put to.
    pub(super) fn proof<'a>(&self, plan: &'a Plan) -> Option<&'a Proof> {
        plan.proofs.iter().find(|proof| proof.name == self.proof)
    }

    /// The setting of the selected row; none where that is the proof.
    pub(super) fn setting<'a>(&self, rig: &'a Rig) -> Option<&'a Setting> {
        rig.settings.get(self.row)
    }

    pub(super) fn select(&mut self, step: Travel, rig: &Rig) {
        self.row = step.from(self.row, rig.settings.len() + 1);
    }

    /// Moves the value of the selected row by so many of its own steps, as far as its ladder goes.
    pub(super) fn nudge(&mut self, direction: Direction, steps: u32, rig: &Rig) {
        let Some(setting) = self.setting(rig) else { return self.turn_proof(direction) };
        let at = self.rung().get(&setting.name).unwrap_or(setting.stock);
        let next = |value: &Decimal| setting.ladder.next(*value, direction);
        let to = std::iter::successors(Some(at), next).take(steps as usize + 1).last().unwrap_or(at);
        self.put(&setting.name, to);
    }

    /// Another value of a setting.
    pub(super) fn put(&mut self, setting: &str, value: Decimal) {
        self.values.insert(setting.to_owned(), value);
        self.values.retain(|name, value| self.turn.at.get(name) != Some(*value));
    }

    fn turn_proof(&mut self, direction: Direction) {
        let (count, proofs) = (self.turn.proofs.len(), &self.turn.proofs);
        let at = proofs.iter().position(|proof| *proof == self.proof).unwrap_or(0);
        let to = if direction == Direction::Up { at + 1 } else { at + count - 1 };
        self.proof.clone_from(&proofs[to % count]);
    }

    /// What is written down for it, as a line has it.
    pub(super) fn written(&self) -> Written {
        let proof = (self.proof != self.turn.proof).then(|| (Question::PROOF.to_owned(), self.proof.clone()));
        self.values.iter().map(|(name, value)| (name.clone(), value.to_string())).chain(proof).collect()
    }

    /// What is known of it.
    pub(super) fn ahead(&self, climbed: &Climbed) -> Ahead {
        let Climbed { rig, plan, story, .. } = climbed;
        let proof = plan.proofs.iter().position(|proof| proof.name == self.proof).unwrap_or_default();
        Ahead::of(rig, plan, story, &self.turn.in_force, &self.rung(), proof)
    }
}

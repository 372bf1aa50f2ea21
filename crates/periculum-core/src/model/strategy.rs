//! How a stage chooses its rungs, as a plan says it.

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;
use serde::{Deserialize, Serialize};

use crate::inference::hazard::SURVIVAL;
use crate::inference::laws;
use crate::model::moment::Span;

/// How a stage chooses its rungs.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Strategy {
    /// Prove the rig at stock, before anything is changed.
    Baseline {
        /// How many trials at most, above zero.
        repeats: u32,
        /// Fewer are enough when the 95 % interval of every pass's score is within this share of its mean.
        within: Option<Decimal>,
        /// How long the rig rests before its first trial, to be measured at rest; not at all without a length.
        idle: Option<Span>,
        /// Over how many starts of the machine its trials are spread, above zero: what a start leaves otherwise, and nobody can
        /// set, shows as scatter between them.
        starts: u32,
    },
    /// Take a limit that only holds the search back as far as it may go.
    Open {
        /// The setting that is the limit.
        setting: String,
    },
    /// Step a setting up until the rig falls, then step back.
    Ascend(Steps),
    /// Step a setting up and, where the rig falls, make another one easier and try again, up to its limit.
    Feed {
        /// The setting that goes up.
        steps: Steps,
        /// The setting that is fed, towards easier values.
        feed: Steps,
    },
    /// Take a setting's value away until the rig falls, then step back.
    Trim(Steps),
    /// Find the hardest value that survives the proof in the fewest test hours.
    Seek {
        /// The setting that moves.
        steps: Steps,
        /// How much easier than that value is what is put to the proof at last.
        margin: Margin,
    },
    /// Find the hardest value that survives the proof for each value of another setting.
    Map {
        /// The setting whose limit is found.
        steps: Steps,
        /// The values of the other one.
        over: Sweep,
    },
    /// Try every combination of the values of some settings.
    Grid {
        /// The settings, and their values.
        over: Vec<Sweep>,
    },
    /// Find the limit of each of some settings with the others parked, then of all together.
    Each(Each),
    /// Find the value with the best score.
    Peak {
        /// The setting that moves.
        steps: Steps,
        /// How many trials each value gets, so that the noise of its score is known; from 2.
        repeats: u32,
    },
    /// Try what the operator says, rung by rung.
    Lead {
        /// The setting whose values are shown as heights, and which is suggested to move first.
        setting: String,
    },
    /// Put what the stages before have come to, a margin easier, to a long proof.
    Soak {
        /// The settings that give way, and how far after a fall: that of the core that failed first, where that is known. One at
        /// least.
        steps: Vec<Steps>,
        /// How much easier than the mark it begins.
        margin: Margin,
    },
}

/// How far a stage steps, and which setting.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Steps {
    /// The setting that moves.
    pub setting: String,
    /// How far a step goes until the first fall, and then the next ones until the next; each above zero and below the
    /// one before, in the setting's unit.
    pub coarse: Vec<Decimal>,
    /// How far each step goes at last, above zero, in the setting's unit; none for one value of the ladder at a time.
    pub step: Option<Decimal>,
    /// How many steps it goes back after a fall, from 1.
    pub back: u32,
}

/// Values of a setting that are all tried, from easy to hard.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Sweep {
    /// The setting.
    pub setting: String,
    /// The values, on its ladder and within its limits, from easy to hard; never empty.
    pub values: Vec<Decimal>,
}

/// Settings of the same kind, as the clocks of the cores, that are climbed one by one.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Each {
    /// Which, at least two, and how each one steps.
    pub steps: Vec<Steps>,
    /// The value that a setting has while another one climbs, for each of them.
    pub park: Vec<Decimal>,
    /// How much easier than its own limit each of them is where all are tried together first.
    pub margin: Margin,
}

/// What is wanted of a mark: how often its rung survives its proof, and how sure that is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Assurance {
    /// The share of proofs that are survived, below one.
    pub survives: Decimal,
    /// The probability that it is at least as large, below one.
    pub sure: Decimal,
}

impl Assurance {
    /// The same for a proof of this length.
    pub fn aim(&self, proof: Span) -> laws::Aim {
        let [survives, sure] = [self.survives, self.sure].map(|share| share.to_f64().unwrap_or(SURVIVAL));
        laws::Aim { proof: proof.seconds(), survives, sure }
    }
}

impl Default for Assurance {
    /// Nine proofs of ten, with 95 %.
    fn default() -> Self {
        Self { survives: Decimal::new(9, 1), sure: Decimal::new(95, 2) }
    }
}

/// How far a daily rung stays below its mark.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Margin {
    /// So many steps.
    Steps(u32),
    /// This share of the mark's value, at least.
    Share(Decimal),
}

impl Strategy {
    /// The name of the strategy that proves the rig at stock.
    pub const BASELINE: &str = "baseline";

    /// The strategy's name in plans.
    pub fn name(&self) -> &'static str {
        match self {
            Self::Baseline { .. } => Self::BASELINE,
            Self::Open { .. } => "open",
            Self::Ascend(_) => "ascend",
            Self::Feed { .. } => "feed",
            Self::Trim(_) => "trim",
            Self::Seek { .. } => "seek",
            Self::Map { .. } => "map",
            Self::Grid { .. } => "grid",
            Self::Each(_) => "each",
            Self::Peak { .. } => "peak",
            Self::Lead { .. } => "lead",
            Self::Soak { .. } => "soak",
        }
    }

    /// What it is for.
    pub fn aim(&self) -> Aim {
        match self {
            Self::Baseline { .. } => Aim::KnowStock,
            Self::Open { .. } => Aim::RaiseLimit,
            Self::Ascend(_) | Self::Feed { .. } | Self::Trim(_) | Self::Seek { .. } | Self::Map { .. } => {
                Aim::FindLimit
            }
            Self::Each(_) => Aim::FindLimitsApart,
            Self::Grid { .. } => Aim::Survey,
            Self::Peak { .. } => Aim::BestScore,
            Self::Lead { .. } => Aim::Follow,
            Self::Soak { .. } => Aim::ProveDaily,
        }
    }

    /// The settings that move, the one that is climbed first.
    pub fn settings(&self) -> Vec<&str> {
        match self {
            Self::Baseline { .. } => Vec::new(),
            Self::Open { setting } | Self::Lead { setting } => vec![setting],
            Self::Ascend(steps) | Self::Trim(steps) | Self::Seek { steps, .. } | Self::Peak { steps, .. } => {
                vec![&steps.setting]
            }
            Self::Soak { steps, .. } => steps.iter().map(|steps| steps.setting.as_str()).collect(),
            Self::Feed { steps, feed } => vec![&steps.setting, &feed.setting],
            Self::Map { steps, over } => vec![&steps.setting, &over.setting],
            Self::Grid { over } => over.iter().map(|sweep| sweep.setting.as_str()).collect(),
            Self::Each(each) => each.steps.iter().map(|steps| steps.setting.as_str()).collect(),
        }
    }

    /// How each setting steps that moves by steps.
    pub fn steps(&self) -> Vec<&Steps> {
        match self {
            Self::Ascend(steps)
            | Self::Trim(steps)
            | Self::Seek { steps, .. }
            | Self::Peak { steps, .. }
            | Self::Map { steps, .. } => vec![steps],
            Self::Feed { steps, feed } => vec![steps, feed],
            Self::Soak { steps, .. } | Self::Each(Each { steps, .. }) => steps.iter().collect(),
            Self::Baseline { .. } | Self::Open { .. } | Self::Grid { .. } | Self::Lead { .. } => Vec::new(),
        }
    }

    /// What it does, piece by piece, in the order in which it is told.
    pub fn pieces(&self) -> Vec<Piece<'_>> {
        match self {
            Self::Baseline { repeats: 1, .. } => Vec::new(),
            Self::Baseline { repeats, within, starts, .. } => {
                let times = if within.is_some() { Piece::UpToTimes(*repeats) } else { Piece::Times(*repeats) };
                let starts = (*starts > 1).then_some(Piece::OverStarts(*starts));
                [times].into_iter().chain(starts).collect()
            }
            Self::Open { setting } | Self::Lead { setting } => vec![Piece::Setting(setting)],
            Self::Ascend(steps) | Self::Trim(steps) => vec![Piece::Moves(steps)],
            Self::Feed { steps, feed } => vec![Piece::Moves(steps), Piece::With(feed)],
            Self::Map { steps, over } => vec![Piece::Moves(steps), Piece::Over(over)],
            Self::Grid { over } => vec![Piece::Combines(over)],
            Self::Each(each) => vec![Piece::Of(each.steps.len()), Piece::Keeps(each.margin)],
            Self::Peak { steps, repeats } => vec![Piece::Moves(steps), Piece::EachTimes(*repeats)],
            Self::Seek { steps, margin } => vec![Piece::Moves(steps), Piece::Keeps(*margin)],
            Self::Soak { steps, margin } => match &steps[..] {
                [one] => vec![Piece::Moves(one), Piece::Keeps(*margin)],
                several => vec![Piece::Of(several.len()), Piece::Keeps(*margin)],
            },
        }
    }

    /// The setting that is climbed, where one is.
    pub fn setting(&self) -> Option<&str> {
        self.settings().first().copied()
    }

    /// The settings whose limits it finds; what it feeds or maps over only helps.
    pub fn climbed(&self) -> Vec<&str> {
        let each = match self.aim() {
            Aim::FindLimitsApart | Aim::Survey => usize::MAX,
            Aim::KnowStock | Aim::RaiseLimit | Aim::FindLimit | Aim::BestScore | Aim::Follow | Aim::ProveDaily => 1,
        };
        self.settings().into_iter().take(each).collect()
    }
}

impl Steps {
    /// Steps of one size, or one value of the ladder at a time, and one back.
    pub fn of(setting: impl Into<String>, step: Option<Decimal>) -> Self {
        Self { setting: setting.into(), coarse: Vec::new(), step, back: 1 }
    }

    /// The same with these steps at first.
    #[must_use]
    pub fn after(self, coarse: Vec<Decimal>) -> Self {
        Self { coarse, ..self }
    }

    /// The same, going back so many steps after a fall.
    #[must_use]
    pub fn back(self, back: u32) -> Self {
        Self { back, ..self }
    }

    /// The size of the steps after so many falls; none for one value of the ladder at a time.
    pub fn size(&self, falls: usize) -> Option<Decimal> {
        self.coarse.get(falls).copied().or(self.step)
    }
}

/// A piece of what a strategy does.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Piece<'a> {
    /// It makes so many trials.
    Times(u32),
    /// It makes at most so many.
    UpToTimes(u32),
    /// It spreads them over so many starts of the machine.
    OverStarts(u32),
    /// It makes so many of each rung.
    EachTimes(u32),
    /// It is about this setting.
    Setting(&'a str),
    /// It moves a setting in these steps.
    Moves(&'a Steps),
    /// It moves another one with it.
    With(&'a Steps),
    /// It does so for each of these values.
    Over(&'a Sweep),
    /// It tries every combination of these.
    Combines(&'a [Sweep]),
    /// It is about so many settings.
    Of(usize),
    /// It keeps a margin.
    Keeps(Margin),
}

/// What a strategy is for: what is asked of strategies elsewhere follows from it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Aim {
    /// To know the rig before anything is changed.
    KnowStock,
    /// To raise what would limit the search otherwise.
    RaiseLimit,
    /// To find how far one setting goes.
    FindLimit,
    /// To find how far each of several settings goes, with the others parked.
    FindLimitsApart,
    /// To know how all combinations do.
    Survey,
    /// To find where it scores best.
    BestScore,
    /// To try what somebody says.
    Follow,
    /// To prove what is to be used every day.
    ProveDaily,
}

impl Aim {
    /// Whether a rung of it that scores less is a loss: nothing is tried that is slower on purpose.
    pub fn may_not_score_less(self) -> bool {
        match self {
            Self::KnowStock | Self::RaiseLimit | Self::FindLimit | Self::ProveDaily => true,
            Self::FindLimitsApart | Self::Survey | Self::BestScore | Self::Follow => false,
        }
    }

    /// Whether all cores have the same values in it, so that they may be compared.
    pub fn keeps_cores_alike(self) -> bool {
        !matches!(self, Self::FindLimitsApart | Self::Follow)
    }
}

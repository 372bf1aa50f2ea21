//! When a climb has cost enough: hours, restarts, changes by hand, coolant, or a time of day.

use std::fmt;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;
use serde::{Deserialize, Serialize};

use crate::model::moment::{Moment, Span};

/// What a climb may cost at most; nothing is limited where there is none.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Budget {
    /// How long passes may run, together.
    pub hours: Option<Span>,
    /// How often the machine may go down.
    pub restarts: Option<u32>,
    /// How many changes may be made by hand.
    pub changes: Option<u32>,
    /// How much coolant there is.
    pub coolant: Option<Coolant>,
    /// The time of day at which the machine is wanted back.
    pub until: Option<TimeOfDay>,
}

/// Coolant that boils away.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Coolant {
    /// How much there is, litres.
    pub litres: Decimal,
    /// What an hour takes, litres.
    pub per_hour: Decimal,
    /// What a restart takes on top, litres: it comes back by itself or by a button, and the pot warms up meanwhile.
    pub per_restart: Decimal,
    /// What a cold start takes on top, litres: it did not start, or came back with its defaults, and all has to thaw first.
    pub per_cold_start: Decimal,
}

/// A time of day on the machine's own clock.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct TimeOfDay {
    /// Minutes after midnight, below 1440.
    pub minutes: u16,
}

/// What a climb has cost so far.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Spent {
    /// How long passes ran, together.
    pub tested: Span,
    /// How long ago it began.
    pub elapsed: Span,
    /// How often the machine went down.
    pub restarts: u32,
    /// How many of these were cold starts.
    pub cold_starts: u32,
    /// How many changes were made by hand.
    pub changes: u32,
}

/// Which limit of a budget was met.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Limit {
    /// The hours of passes.
    Hours,
    /// The restarts.
    Restarts,
    /// The changes by hand.
    Changes,
    /// The coolant.
    Coolant,
    /// The time of day.
    Until,
}

impl Budget {
    /// The limit that something would go beyond which takes this long and so many changes by hand; `deadline` is when
    /// `until` comes, as [`TimeOfDay::after`] has it.
    pub fn forbids(
        &self,
        spent: &Spent,
        now: Moment,
        deadline: Option<Moment>,
        length: Span,
        changes: u32,
    ) -> Option<Limit> {
        let is_over = |limit| match limit {
            Limit::Hours => self.hours.is_some_and(|most| spent.tested + length > most),
            Limit::Restarts => self.restarts.is_some_and(|most| spent.restarts >= most),
            Limit::Changes => self.changes.is_some_and(|most| spent.changes + changes > most),
            Limit::Coolant => self.coolant.as_ref().is_some_and(|coolant| coolant.left(spent) < coolant.of(length)),
            Limit::Until => deadline.is_some_and(|deadline| now + length > deadline),
        };
        [Limit::Hours, Limit::Restarts, Limit::Changes, Limit::Coolant, Limit::Until].into_iter().find(|l| is_over(*l))
    }

    /// What is left of it.
    pub fn rest(&self, spent: &Spent, now: Moment, deadline: Option<Moment>) -> Rest {
        Rest {
            passes: self.left(spent, now, deadline),
            restarts: self.restarts.map(|most| most.saturating_sub(spent.restarts)),
            changes: self.changes.map(|most| most.saturating_sub(spent.changes)),
            litres: self.coolant.as_ref().map(|coolant| coolant.left(spent).max(0.0)),
        }
    }

    /// For how long passes may still run; none where nothing limits it.
    pub fn left(&self, spent: &Spent, now: Moment, deadline: Option<Moment>) -> Option<Span> {
        let hours = self.hours.map(|most| most - spent.tested);
        let coolant = self.coolant.as_ref().map(|coolant| coolant.lasts(spent));
        let deadline = deadline.map(|deadline| deadline.since(now));
        [hours, coolant, deadline].into_iter().flatten().min()
    }
}

/// What is left of a budget; nothing of what is not limited.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Rest {
    /// For how long passes may still run.
    pub passes: Option<Span>,
    /// How often the machine may still go down.
    pub restarts: Option<u32>,
    /// How many changes may still be made by hand.
    pub changes: Option<u32>,
    /// How much coolant is left, litres.
    pub litres: Option<f64>,
}

impl Coolant {
    /// What is left, litres.
    fn left(&self, spent: &Spent) -> f64 {
        let float = |litres: Decimal| litres.to_f64().unwrap_or(0.0);
        let warm = spent.restarts.saturating_sub(spent.cold_starts);
        let starts =
            float(self.per_restart) * f64::from(warm) + float(self.per_cold_start) * f64::from(spent.cold_starts);
        float(self.litres) - self.of(spent.elapsed) - starts
    }

    fn of(&self, span: Span) -> f64 {
        self.per_hour.to_f64().unwrap_or(0.0) * span.hours()
    }

    fn lasts(&self, spent: &Spent) -> Span {
        let hours = self.left(spent) / self.per_hour.to_f64().unwrap_or(0.0);
        Span::from_millis((hours.clamp(0.0, 1e6) * 3_600_000.0) as u64)
    }
}

/// A text that is no time of day.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("`{0}` is no time of day, like `07:30`")]
pub struct NoTimeOfDay(String);

impl TimeOfDay {
    const DAY: i64 = 24 * 60 * 60 * 1000;

    /// Reads `7:30` or `07:30`.
    ///
    /// # Errors
    /// Says what such a time looks like.
    pub fn parse(text: &str) -> Result<Self, NoTimeOfDay> {
        let (hours, minutes) = text.trim().split_once(':').unwrap_or((text, ""));
        match (hours.parse::<u16>(), minutes.parse::<u16>()) {
            (Ok(hours @ 0..=23), Ok(of_hour @ 0..=59)) if minutes.len() == 2 => {
                Ok(Self { minutes: hours * 60 + of_hour })
            }
            _ => Err(NoTimeOfDay(text.to_owned())),
        }
    }

    /// The first such time after this moment, where clocks are so many minutes ahead of UTC.
    pub fn after(self, now: Moment, ahead: i32) -> Moment {
        let ahead = i64::from(ahead) * 60_000;
        let today = (now.millis() + ahead).rem_euclid(Self::DAY);
        let wait = (i64::from(self.minutes) * 60_000 - today - 1).rem_euclid(Self::DAY) + 1;
        Moment::from_millis(now.millis() + wait)
    }
}

impl fmt::Display for Limit {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::Hours => "the hours are used up",
            Self::Restarts => "the restarts are used up",
            Self::Changes => "the changes by hand are used up",
            Self::Coolant => "the coolant does not last any longer",
            Self::Until => "the machine is wanted back",
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn spent(tested: u64, restarts: u32, changes: u32) -> Spent {
        let elapsed = Span::from_seconds(2 * tested);
        Spent { tested: Span::from_seconds(tested), elapsed, restarts, cold_starts: 0, changes }
    }

    #[test]
    fn each_limit_forbids_what_goes_beyond_it() {
        let budget = Budget {
            hours: Some(Span::from_seconds(3600)),
            restarts: Some(2),
            changes: Some(5),
            coolant: Some(Coolant {
                litres: 4.into(),
                per_hour: 2.into(),
                per_restart: 1.into(),
                per_cold_start: 3.into(),
            }),
            until: None,
        };
        let forbids = |spent: Spent, length, changes| {
            budget.forbids(&spent, Moment::from_millis(0), None, Span::from_seconds(length), changes)
        };
        assert_eq!(forbids(spent(0, 0, 0), 3600, 5), None);
        assert_eq!(forbids(spent(1, 0, 0), 3600, 0), Some(Limit::Hours));
        assert_eq!(forbids(spent(0, 2, 0), 60, 0), Some(Limit::Restarts));
        assert_eq!(forbids(spent(0, 0, 4), 60, 2), Some(Limit::Changes));
        // An hour and a half gone and a restart leave nothing of four litres.
        assert_eq!(forbids(spent(2700, 1, 0), 60, 0), Some(Limit::Coolant));
        assert_eq!(budget.left(&spent(900, 0, 0), Moment::from_millis(0), None), Some(Span::from_seconds(2700)));
        assert_eq!(budget.left(&spent(1800, 1, 0), Moment::from_millis(0), None), Some(Span::from_seconds(1800)));
        let cold = Spent { cold_starts: 1, ..spent(0, 1, 0) };
        assert_eq!(budget.left(&cold, Moment::from_millis(0), None), Some(Span::from_seconds(1800)), "a litre is left");
        let left = budget.rest(&Spent { changes: 2, ..cold }, Moment::from_millis(0), None);
        assert_eq!((left.restarts, left.changes, left.litres), (Some(1), Some(3), Some(1.0)));
        assert_eq!(Budget::default().left(&spent(900, 9, 9), Moment::from_millis(0), None), None);
    }

    #[test]
    fn a_time_of_day_is_read_as_clocks_show_it() {
        assert_eq!(TimeOfDay::parse("07:30"), Ok(TimeOfDay { minutes: 450 }));
        assert_eq!(TimeOfDay::parse("7:30"), TimeOfDay::parse("07:30"));
        for wrong in ["24:00", "7", "7:3", "07:60", "-1:00", "7.30", ""] {
            assert!(TimeOfDay::parse(wrong).is_err(), "{wrong}");
        }
    }

    proptest! {
        #[test]
        fn the_next_such_time_is_within_a_day_and_shows_it(now in any::<i32>(), minutes in 0u16..1440, ahead in -720i32..840) {
            let now = Moment::from_millis(i64::from(now) * 1000);
            let then = TimeOfDay { minutes }.after(now, ahead);
            let wait = then.millis() - now.millis();
            prop_assert!(0 < wait && wait <= TimeOfDay::DAY);
            let shown = (then.millis() + i64::from(ahead) * 60_000).rem_euclid(TimeOfDay::DAY);
            prop_assert_eq!(shown, i64::from(minutes) * 60_000);
        }
    }
}

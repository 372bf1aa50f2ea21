//! How likely what lies between the trials survives, worked out beside the drawing since that takes a while.

use std::cell::Cell;
use std::rc::Rc;
use std::sync::Arc;
use std::thread;

use crossbeam_channel::{Receiver, Sender, unbounded};
use periculum_core::Decimal;
use periculum_core::analysis::chance::{Chance, Plane};
use periculum_core::model::ladder::Direction;
use periculum_core::story::Story;

use super::climbed::Climbed;

/// Of what the chances are wanted.
#[derive(Clone, Debug, PartialEq)]
struct Wanted {
    climb: i64,
    plane: Plane,
}

/// What was worked out.
pub(super) struct Worked {
    wanted: Wanted,
    /// How often what is known of the climb had changed then.
    judged: u32,
    rows: Option<Vec<Vec<Option<Chance>>>>,
}

/// How likely each rung of a plane survives.
pub(super) struct Chances {
    pub(super) across: Vec<Decimal>,
    pub(super) up: Vec<Decimal>,
    /// For each value upwards, one for each value across; none where nothing can be said.
    pub(super) rows: Vec<Vec<Option<Chance>>>,
}

impl Chances {
    /// The hardest value across up to which all survive at least so well, at one of the values upwards; none where the easiest does not,
    /// and where nothing can be said.
    pub(super) fn reach(&self, up: Decimal, worst: Chance, harder: Direction) -> Option<Decimal> {
        let row = &self.rows[self.up.iter().position(|value| *value == up)?];
        let known = self.across.iter().zip(row).filter_map(|(value, chance)| Some((*value, (*chance)?)));
        let survives = |(_, chance): &(Decimal, Chance)| *chance <= worst;
        let hardest = match harder {
            Direction::Up => known.take_while(survives).last(),
            Direction::Down => known.rev().take_while(survives).last(),
        };
        hardest.map(|(value, _)| value)
    }
}

/// The chances that were asked for last.
pub(super) struct Shading {
    last: Option<(Wanted, u32, Option<Rc<Chances>>)>,
    is_under_way: Cell<bool>,
    worked: (Sender<Worked>, Receiver<Worked>),
}

impl Default for Shading {
    fn default() -> Self {
        Self { last: None, is_under_way: Cell::new(false), worked: unbounded() }
    }
}

impl Shading {
    /// The chances of a plane, by as much as was known when they were worked out last; where that is not all, or they were of another
    /// plane, they are worked out anew. None until they have been, and where nothing can be said.
    pub(super) fn of(&self, shown: &Climbed, plane: Plane) -> Option<Rc<Chances>> {
        let wanted = Wanted { climb: shown.number, plane };
        let last = self.last.as_ref().filter(|(of, ..)| *of == wanted);
        if last.is_none_or(|(_, judged, _)| *judged != shown.judged) {
            self.work_out(shown, wanted);
        }
        last.and_then(|(.., chances)| chances.clone())
    }

    /// Whether something is being worked out.
    pub(super) fn is_under_way(&self) -> bool {
        self.is_under_way.get()
    }

    /// What was worked out comes here.
    pub(super) fn worked(&self) -> Receiver<Worked> {
        self.worked.1.clone()
    }

    pub(super) fn take(&mut self, Worked { wanted, judged, rows }: Worked) {
        self.is_under_way.replace(false);
        let (across, up) = (wanted.plane.across.1.clone(), wanted.plane.up.1.clone());
        let chances = rows.map(|rows| Rc::new(Chances { across, up, rows }));
        self.last = Some((wanted, judged, chances));
    }

    /// One at a time: what is wanted by then is asked for again when this is done.
    fn work_out(&self, shown: &Climbed, wanted: Wanted) {
        if self.is_under_way.replace(true) {
            return;
        }
        let (rig, plan, judged) = (Arc::clone(&shown.rig), Arc::clone(&shown.plan), shown.judged);
        let story: Story = shown.story.without_log();
        let listener = self.worked.0.clone();
        thread::spawn(move || {
            let rows = wanted.plane.chances(&story, &rig, &plan);
            // An interface that is closed hears nothing more.
            let _ = listener.send(Worked { wanted, judged, rows });
        });
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_chance_reaches_from_the_easy_side_to_the_first_that_is_worse() {
        let values = |all: &[i64]| all.iter().map(|value| Decimal::from(*value)).collect::<Vec<_>>();
        let row = vec![None, Some(Chance::Sure), Some(Chance::Rather), Some(Chance::Sure), Some(Chance::Hardly)];
        let all = Chances { across: values(&[1, 2, 3, 4, 5]), up: values(&[7]), rows: vec![row] };
        let reach = |up: i64, worst, harder| all.reach(up.into(), worst, harder).map(|value| value.to_string());
        assert_eq!(
            reach(7, Chance::Sure, Direction::Up).as_deref(),
            Some("2"),
            "what lies beyond a worse one is not reached"
        );
        assert_eq!(reach(7, Chance::Rather, Direction::Up).as_deref(), Some("4"));
        assert_eq!(reach(7, Chance::Rather, Direction::Down), None, "the easiest is the largest there");
        assert_eq!(reach(7, Chance::Hardly, Direction::Down).as_deref(), Some("2"));
        assert_eq!(reach(8, Chance::Hardly, Direction::Up), None, "nothing was worked out there");
    }
}

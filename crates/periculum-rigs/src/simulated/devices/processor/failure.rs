//! What goes wrong when a core fails: the deeper below its needs, the sooner and the worse.

use periculum_core::model::incident::{Incident, IncidentKind};

use crate::simulated::random::Stream;

/// A margin up to which these kinds of failure come, V, and their shares.
type Band = (f64, &'static [(IncidentKind, f64)]);

/// From deep to shallow. Near the border the hardware repairs some errors and results are wrong; deeper the
/// load dies, and at last the machine.
const BANDS: [Band; 5] = [
    (-0.035, &[(IncidentKind::Freeze, 0.6), (IncidentKind::Restart, 0.4)]),
    (-0.018, &[(IncidentKind::LoadDied, 0.3), (IncidentKind::Freeze, 0.35), (IncidentKind::Restart, 0.35)]),
    (-0.006, &[(IncidentKind::WrongResult, 0.5), (IncidentKind::LoadDied, 0.4), (IncidentKind::Restart, 0.1)]),
    (0.004, &[(IncidentKind::WrongResult, 0.85), (IncidentKind::LoadDied, 0.15)]),
    (f64::INFINITY, &[(IncidentKind::CorrectedError, 0.3), (IncidentKind::WrongResult, 0.7)]),
];

/// The failure of a core at this margin in V.
pub(super) fn failure(core: usize, margin: f64, random: &mut Stream) -> Incident {
    let (_, shares) = BANDS.iter().find(|(deepest, _)| margin <= *deepest).unwrap_or(&BANDS[BANDS.len() - 1]);
    let mut drawn = random.unit();
    let kind = shares.iter().find(|(_, share)| {
        drawn -= share;
        drawn < 0.0
    });
    let kind = kind.map_or(shares[shares.len() - 1].0, |(kind, _)| *kind);
    let place = Incident::on_core(core);
    let evidence = match kind {
        IncidentKind::WrongResult => {
            let residual = 16.0 + 10f64.powf(1.5 + 4.0 * random.unit());
            format!("scaled residual {residual:.1}, allowed 16")
        }
        IncidentKind::CorrectedError => format!("{} errors counted and repaired", 1 + (random.unit() * 4.0) as u32),
        IncidentKind::LoadDied => "the load died of signal 11".into(),
        IncidentKind::Freeze => "the machine stopped answering and was restarted".into(),
        _ => "the machine restarted by itself".into(),
    };
    let incident = Incident::new(kind, evidence);
    if kind.takes_machine_down() { incident } else { incident.at(place) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::simulated::random::Purpose;

    fn share_of(margin: f64, wanted: impl Fn(IncidentKind) -> bool) -> f64 {
        let mut random = Stream::new(3, Purpose::Specimen);
        let count = 4000;
        let hits = (0..count).filter(|_| wanted(failure(0, margin, &mut random).kind)).count();
        hits as f64 / f64::from(count)
    }

    #[test]
    fn deeper_failures_take_the_machine_down_more_often() {
        let down: Vec<f64> =
            [0.02, 0.0, -0.01, -0.03, -0.08].map(|margin| share_of(margin, IncidentKind::takes_machine_down)).to_vec();
        assert!(down.is_sorted(), "{down:?}");
        assert_eq!((down[0], down[4]), (0.0, 1.0));
    }

    #[test]
    fn near_the_border_most_failures_are_wrong_results() {
        assert!(share_of(0.001, |kind| kind == IncidentKind::WrongResult) > 0.7);
    }
}

//! What each view shows, for those who see it for the first time, and what the signs mean.

/// Signs with what they mean, in the order in which the help has them; their colours are the view's.
pub(in crate::tui) const SIGNS: [(&str, &str); 8] = [
    ("●", "held: it survived the whole proof"),
    ("◐", "slipped: it runs, but throttled, lost score, or did not take"),
    ("✕", "fell: anything wrong, lost or dead"),
    ("–", "broken off: it says nothing, and the rung is tried again"),
    ("○", "on trial now"),
    ("◇", "next, if this one holds"),
    ("⚑", "mark: the hardest rung that held, and to which proof"),
    ("┄", "ceiling: never crossed"),
];

pub(in crate::tui) const CLIMB: &str = "Trials from left to right; the value of the climbed setting is the height. A trial puts one rung, \
     a whole combination of settings, to one proof: passes of loads that know right from wrong.";

pub(in crate::tui) const MAP: &str = "Every trial in its place. Dots hold, as nothing there is harder than what held; behind the bar all falls, \
     as nothing there is easier than what fell; between them nobody knows. Lines are ceilings.";

pub(in crate::tui) const TRIALS: &str = "Every trial of this climb, and all that is known of the selected one. What you find by is looked for in \
     values, proof, verdict, incidents and notes; clock>=4700 finds by a setting's value.";

pub(in crate::tui) const PLAN: &str = "The plan, line by line. Change a value, add a key or a section, copy, move or remove a stage; what can't be is \
     told below its line. What it would do is played on rigs that are made up: on one nothing beyond stock holds, \
     on one everything, on one half of it. A climb goes on with the plan that it was begun with.";

pub(in crate::tui) const TRACES: &str = "What the sensors read: the mean of each column, before a shade from its least to its greatest reading; red is \
     over a cut-off. On the axis lie what went wrong and, as a line, the selected trial; `z` shows that trial alone.";

pub(in crate::tui) const CLIMBS: &str = "Every climb of this ledger, the newest first. Find some by what is known of a climb or one of its trials: rig, \
     specimen, date, verdict, incident, note, or a setting's value, as clock>=4700. An opened one is shown in every \
     view, until you go back to the climb that runs; that one goes on meanwhile.";

pub(in crate::tui) const COMPARE: &str = "What was picked, beside each other: what differs by more than chance comes first, with the difference to the \
     first one. Pick trials and climbs with p in their lists. With nothing to compare, specimens of this rig are \
     ranked by their marks.";

pub(in crate::tui) const SCORES: &str = "What each benchmark scored. Behind ± is how far chance alone may be off, in 95 of 100 cases; a gain within that \
     is grey. More pays as long as the score follows the setting by at \
     least a quarter. `periculum enter` writes down a score from elsewhere to be ranked with.";

pub(in crate::tui) const RIG: &str = "What the rig consists of, and of each setting what is asked, what the rig reports (≠ where that is something \
     else) and what is measured; what is calculated from that, and what the sensors read, with the limits of each.";

//! What the signs mean.

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

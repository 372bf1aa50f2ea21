//! The rigs that ship with the program: simulated, to practise on without risk.

/// A simulated rig with the plan that the demo climbs on it.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Practice {
    /// What it is called on the command line.
    pub(crate) name: &'static str,
    /// Its rig file.
    pub(crate) rig: &'static str,
    /// Its plan file.
    pub(crate) plan: &'static str,
    /// So many trials have ended when the demo shows it.
    pub(crate) before_curtain: u32,
    /// The demo has climbed another specimen of it so long before, days.
    pub(crate) earlier: i64,
}

macro_rules! practice {
    ($name:literal, $before_curtain:literal, $earlier:literal) => {
        Practice {
            name: $name,
            rig: include_str!(concat!("../../../demo/", $name, ".rig.toml")),
            plan: include_str!(concat!("../../../demo/", $name, ".plan.toml")),
            before_curtain: $before_curtain,
            earlier: $earlier,
        }
    };
}

/// The workstation under the dome: the first of them, and the one that is meant where nobody says.
pub(crate) const DOME: Practice = practice!("dome", 6, 402);

/// The archive server, with two groups of cores.
pub(crate) const VAULT: Practice = practice!("vault", 9, 93);

/// All of them.
pub(crate) const RIGS: [Practice; 8] = [
    DOME,
    VAULT,
    practice!("shelf", 8, 71),
    practice!("lens", 8, 55),
    practice!("mount", 8, 140),
    practice!("relic", 5, 210),
    practice!("cryo", 14, 12),
    practice!("lamp", 4, 33),
];

/// The one of this name.
pub(crate) fn named(name: &str) -> Option<Practice> {
    RIGS.into_iter().find(|practice| practice.name == name)
}

/// The names of all.
pub(crate) fn names() -> Vec<&'static str> {
    RIGS.map(|practice| practice.name).to_vec()
}

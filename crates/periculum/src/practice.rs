//! The rigs that ship with the program: simulated, to practise on without risk.

/// The rig file of the workstation under the dome.
pub(crate) const DOME: &str = include_str!("../../../demo/dome.rig.toml");

/// The rig file of the archive server.
pub(crate) const VAULT: &str = include_str!("../../../demo/vault.rig.toml");

/// The rig file of the machine with the plate scanner.
pub(crate) const RELIC: &str = include_str!("../../../demo/relic.rig.toml");

/// Each by its name.
pub(crate) const RIGS: [(&str, &str); 3] = [("dome", DOME), ("vault", VAULT), ("relic", RELIC)];

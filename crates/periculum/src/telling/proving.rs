//! What is said where a machine is proved as it is.

use super::sentences;

sentences! {
    cannot_listen(address) = "can't listen on {address}";
    meter_listens(address) = "A meter listens on {address}; it is asked with MEASure:VOLTage:DC?";
    only_this_machine(rig) = "{rig} is a simulated rig; what is in force is proved and scored on this machine";
}

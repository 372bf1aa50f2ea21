//! What the program must do, tried from outside, in one binary, so that it is linked once.

mod bundles;
mod by_hand;
mod card_driver;
#[cfg(feature = "graphics")]
mod cards;
mod commands;
mod common;
mod corpora;
mod displays;
mod endings;
mod fooled;
mod golden;
#[cfg(feature = "graphics")]
mod graphics;
mod house;
mod interface;
mod led;
mod licences;
mod listing;
mod loads;
mod machine;
mod outlets;
mod package;
mod practice;
mod preferences;
mod profiles;
mod programs;
mod readers;
mod recovery;
mod reveal;
mod served_files;
mod starting;
mod surgery;
mod terminal;

//! What is asked before something may be set or run.

use super::sentences;

pub(crate) const ALREADY: &str = " (allowed already)";
pub(crate) const FOLDER_OF_PERICULUM: &str = "the one that Periculum runs in";
pub(crate) const NOBODY_TO_ASK: &str = "nobody is there to be asked; say --yes to allow it";
pub(crate) const NOTHING_CHANGED: &str = "Nothing was changed.";
pub(crate) const NO_LONGER_ALLOWED: &str = "No longer allowed";
pub(crate) const SAME_IN_EVERY_RUN: &str = "the same in every run of a pass";
pub(crate) const WILL_RUN: &str = "Periculum will run this as you, whenever a plan or a proof says so.";
pub(crate) const WILL_WRITE: &str =
    "Periculum will write these values there, or send this, whenever a plan for this rig says so.";

sentences! {
    allow_it(what) = "{what} Allow it? [yes/no] ";
    as_file_says(done, file) = "{done}, as {file} says.";
    asked_of_program(name, already, words, folder, limit, status, output, score, digest) =
        "{name}{already}\n  runs, without a shell:\n{words}  in folder: {folder}\n  for at most: {limit}\n  right when it \
        exits with: {status}\n  and its output is: {output}\n  score: {score}\n  digest: {digest}\n";
    asked_of_setting(label, target, allowed, files, terms, digest) =
        "{label}, {target}{allowed}\n{files}{terms}  digest: {digest}";
    defines_no_program(file) = "{file} defines no program";
    from_pattern(pattern) = ", from /{pattern}/";
    is_written_to(files) = "  is written to:\n{files}";
    nobody_allowed(settings) =
        "nobody has allowed periculum to set {settings}, as this rig would; look at what is written and allow it with \
        `periculum allow RIG`, where RIG is the rig file, or the plan where that raises a ceiling";
    program_not_allowed(name, digest) =
        "the program `{name}` has not been allowed to run as it is defined (digest {digest}…); look at it and allow it with \
        `periculum allow FILE`, where FILE is the plan or proof that defines it";
    rig_lists(what) = "{what}; `periculum rig` lists what this machine has";
    target_is_missing(setting, target) = "{setting} is to be written to {target}, which is not there";
    writes_nothing(rig) = "no setting in {rig} is written to this machine";
}

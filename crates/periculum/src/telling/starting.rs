//! What the start screen says, and the comments in the plans that it writes.

use periculum_core::files::added::Blank;

use super::sentences;
use crate::starting::{Lack, Origin, Wish};

pub(crate) const TO_COMPARE: &str = "To see from where on more is not worth it.";
pub(crate) const TO_FIND: &str = "To find the limit.";
pub(crate) const USE: &str = "use";
pub(crate) const USE_IT: &str = "Use it as you always do, and look at what it does";
pub(crate) const WELL: &str = "well";
pub(crate) const DONE: &str = "done";
pub(crate) const TO_KNOW: &str = "To know the rig before anything is changed.";
pub(crate) const TO_LEAD: &str = "You say each rung.";
pub(crate) const TO_PROVE: &str = "To prove a rung for every day, a step below the limit.";

pub(crate) const CLIMBS: &str = "the last climbs";
pub(crate) const RIGS: &str = "rigs";
pub(crate) const WAITS: &str = "what waits";
pub(crate) const NOTHING_WAITS: &str = "Nothing waits. Choose a rig, and then what you want of it.";
pub(crate) const WHICH_SETTING: &str = "which setting?";
pub(crate) const WHICH_USE: &str = "for which use? It chooses the ceilings.";
pub(crate) const AT_STOCK: &str = "stock";
pub(crate) const WHERE_FROM: &str = "where do you start?";
pub(crate) const HOW_LONG: &str = "how long do you have?";
pub(crate) const REVIEW: &str = "before it begins";
pub(crate) const BEGIN: &str = "begin";
pub(crate) const GOES_NOW: &str =
    "It climbs. You can pause, stop or leave at any moment; nothing is lost if the machine goes down.";
pub(crate) const LEAVES_ALL: &str = "Nothing is begun and nothing is written.";
pub(crate) const LOOK_AT_PLAN: &str = "look at the plan and change it first";
pub(crate) const NOTHING_IS_WRITTEN: &str = "nothing of this machine is changed";
pub(crate) const BEGINS_NOW: &str = "Writes the files, then climbs. You can pause, stop or leave at any moment; nothing is lost if the machine goes down.";
pub(crate) const OPENS_PLAN: &str =
    "Writes the files and opens the plan, where each line can be changed; it begins from there.";
pub(crate) const ADD_BOOT_LINE: &str = "add a line of a boot file";
pub(crate) const ADD_BY_HAND: &str = "add a setting that you change by hand";
pub(crate) const BOOT_LINE_HERE: &str = "what the machine reads when it starts; each value needs a restart";
pub(crate) const BY_HAND_HERE: &str = "For what no program can set here: a jumper, a value of the firmware, another machine. You are asked to change it, on a card.";
pub(crate) const MORE_SETTINGS: &str = "more settings";
pub(crate) const NOT_NOW: &str = "not now";
pub(crate) const NO_MARK: &str = "no mark";
pub(crate) const NO_SUCH_SETTING: &str =
    "that makes no setting: stock and ceiling have to be values of its ladder, from the lowest on step by step";
pub(crate) const OFFERED_HERE: &str = "This machine offers it. With a ceiling it can be climbed; nothing is written to it before you have seen what and begun.";

pub(crate) const NINE_OF_TEN: &str = "Nine climbs of ten lie within the brackets.";

/// The times that are offered, hours, and what each is.
pub(crate) const TIMES: [(u32, &str); 4] =
    [(1, "an hour"), (4, "an evening, 4 hours"), (10, "a night, 10 hours"), (48, "a weekend, 48 hours")];

sentences! {
    at_most(label, ceiling) = "{label} never beyond {ceiling}";
    bounds(label, floor, ceiling) = "{label} from {floor} to {ceiling}";
    but_it(told) = "but {told}";
    climb_beside(plan, used_for, trials, tested) = "{plan}, for {used_for}: {trials}, {tested} of passes.";
    files_written(files) = "writes {files}";
    goes_on(rig, trial, since) = "`{rig}` waits at trial {trial} since {since}";
    goes_on_with(rung) = "It goes on with {rung}.";
    is_written_to(label, target) = "{label} is written to {target}";
    its_mark(mark) = "⚑ {mark}";
    ceiling_for(name) = "give `{name}` a ceiling";
    ceiling_of(name) = "the ceiling of {name}: no value above this is ever set";
    climb_of(climb, rig, begun) = "{climb}  {rig}, {begun}";
    not_for(blank) = "that can't be it: {blank}";
    of_rig(rig, plan, used_for) = "On `{rig}`: {plan}, for {used_for} use.";
    rig_fact(origin, mark) = "{origin:<28}   {mark}";
    stage(words) = "    {words}";
    setting_beside(stock, hardest) = "now {stock}, at most {hardest}";
    what_with(rig) = "what do you want with `{rig}`?";
}

/// A wish as a verb.
pub(crate) fn name_of(wish: Wish) -> &'static str {
    match wish {
        Wish::FindLimit => "find a limit",
        Wish::LessVoltage => "less voltage at the same speed",
        Wish::WhatPays => "what pays",
        Wish::Lead => "take the lead",
        Wish::Prove => "prove as it is",
        Wish::Score => "score",
    }
}

/// What comes of a wish.
pub(crate) fn beside_wish(wish: Wish) -> &'static str {
    match wish {
        Wish::FindLimit => {
            "Finds the hardest value that holds in the fewest test hours, and proves a step below it for every day."
        }
        Wish::LessVoltage => "Takes away what makes it easier until it falls, and proves a step above that.",
        Wish::WhatPays => "Measures the score value by value, and ends where more of it gains nothing.",
        Wish::Lead => {
            "You set any values, one or several at once, and choose how long each is proved; a strategy suggests what it would try."
        }
        Wish::Prove => "Runs loads that know right from wrong on what is in force now. Nothing is changed.",
        Wish::Score => "Measures benchmarks until they are known within a percent. Nothing is changed.",
    }
}

/// What a rig lacks, and what to do about it.
pub(crate) fn lack_words(lack: Lack) -> &'static str {
    match lack {
        Lack::Room => "No setting of it has a ceiling beyond stock. Add one below.",
        Lack::RoomBelow => "No setting of it is harder with less of it, and may be less than at stock.",
    }
}

/// What is asked of a setting that somebody changes by hand.
pub(crate) fn blank_words(blank: Blank) -> &'static str {
    match blank {
        Blank::Name => "what is it called, as bus clock?",
        Blank::File => "the file that the machine reads when it starts, as /boot/config.txt",
        Blank::Key => "the key that its line begins with, as core_mhz",
        Blank::Between => "what stands between key and value: nothing for =, the word space for a space",
        Blank::Unit => "its unit, as MHz; nothing for a plain number",
        Blank::Lowest => "the lowest value it can have",
        Blank::Step => "how far it is from one value to the next",
        Blank::Highest => "the highest value it can have",
        Blank::Stock => "its value when nobody changes it",
        Blank::Ceiling => "its ceiling: no value above this is ever set",
        Blank::Harder => "which way is it harder for the rig, up or down?",
    }
}

/// Where a rig is known from.
pub(crate) fn origin_words(origin: &Origin) -> String {
    match origin {
        Origin::ThisMachine => "this machine, as it is found".into(),
        Origin::File(path) => path.file_name().unwrap_or_default().to_string_lossy().into_owned(),
        Origin::Ledger(climb) => format!("from climb {climb}"),
        Origin::Practice => "simulated, to practise on".into(),
        Origin::Made => "with what you added".into(),
    }
}

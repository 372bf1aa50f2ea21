//! The one table of labels: whatever stands on the screen by itself is written here once, and nowhere else.

use crate::tui::screens::View;

// The state of a climb, at the right of the first line.
pub(in crate::tui) const ASKED_ELSEWHERE: &str = "the climb that runs asks you";
pub(in crate::tui) const ASKS: &str = "asks you";
pub(in crate::tui) const BUDGET_SPENT: &str = "budget spent";
pub(in crate::tui) const CLIMBING: &str = "climbing";
pub(in crate::tui) const DONE: &str = "done";
pub(in crate::tui) const NOT_BEGUN: &str = "not begun";
pub(in crate::tui) const NOT_FINISHED: &str = "not finished";
pub(in crate::tui) const OVER: &str = "over";
pub(in crate::tui) const PAUSED: &str = "paused";
pub(in crate::tui) const PAUSING: &str = "pausing after this pass";
pub(in crate::tui) const PLANNING: &str = "planning";
pub(in crate::tui) const STOPPED: &str = "stopped";

// What leads a line of the trial that runs, or of the end.
pub(in crate::tui) const AHEAD: &str = "ahead";
pub(in crate::tui) const IF_IT_FALLS: &str = "if it falls";
pub(in crate::tui) const IF_IT_HOLDS: &str = "if it holds";
pub(in crate::tui) const LAST_TROUBLE: &str = "last trouble";
pub(in crate::tui) const MARK_FLAG: &str = "⚑ mark";
pub(in crate::tui) const NO_MARK: &str = "no mark";
pub(in crate::tui) const IN_THIS_CLIMB: &str = "in this climb";
pub(in crate::tui) const NOW: &str = "now";
pub(in crate::tui) const ON_TRIAL: &str = "on trial";

// Over the large figure.
pub(in crate::tui) const HIGHEST_HELD: &str = "highest that held";
pub(in crate::tui) const HIGHEST_SO_FAR: &str = "highest so far";
pub(in crate::tui) const LOWEST_HELD: &str = "lowest that held";
pub(in crate::tui) const LOWEST_SO_FAR: &str = "lowest so far";
pub(in crate::tui) const MARK: &str = "mark";
pub(in crate::tui) const STOCK: &str = "stock";

// Heads of lists and parts.
pub(in crate::tui) const BEFORE_IT_BEGINS: &str = "before it begins";
pub(in crate::tui) const CLIMBS: &str = "climbs";
pub(in crate::tui) const LAST_TRIALS: &str = "trials before";
pub(in crate::tui) const LIMITS_OF_PLAN: &str = "what it never goes beyond";
pub(in crate::tui) const LOGBOOK: &str = "logbook";
pub(in crate::tui) const MARKS_OF_CLIMB: &str = "marks of this climb";
pub(in crate::tui) const PLAN: &str = "plan";
pub(in crate::tui) const PROFILES_OF_CLIMB: &str = "profiles of this climb";
pub(in crate::tui) const THE_SAME: &str = "the same, or no further apart than chance could make them";
pub(in crate::tui) const TRIALS: &str = "trials";
pub(in crate::tui) const TRIED_FIRST: &str = "what it tries first, while all holds";

// Columns.
pub(in crate::tui) const ASKED: &str = "asked";
pub(in crate::tui) const FACTORY: &str = "factory";
pub(in crate::tui) const HELD: &str = "held";
pub(in crate::tui) const FELL: &str = "fell";
pub(in crate::tui) const SITS_HERE: &str = "sits here";
pub(in crate::tui) const CURVE: &str = "curve";
pub(in crate::tui) const MAP: &str = "map";
pub(in crate::tui) const AT_LEAST: &str = "at least";
pub(in crate::tui) const AT_MOST: &str = "at most";
pub(in crate::tui) const BENCHMARK: &str = "benchmark";
pub(in crate::tui) const BEST: &str = "best";
pub(in crate::tui) const CEILING: &str = "ceiling";
pub(in crate::tui) const CELSIUS: &str = "°C";
pub(in crate::tui) const CLOCK: &str = "clock MHz";
pub(in crate::tui) const CORE: &str = "core";
pub(in crate::tui) const CUT_OFF: &str = "cut-off";
pub(in crate::tui) const DERIVED: &str = "derived";
pub(in crate::tui) const ERRORS: &str = "errors";
pub(in crate::tui) const FAHRENHEIT: &str = "°F";
pub(in crate::tui) const FLOOR: &str = "floor";
pub(in crate::tui) const IS_CHANGED: &str = "is changed";
pub(in crate::tui) const ITS_LIMIT: &str = "its limit";
pub(in crate::tui) const JUMP: &str = "jump";
pub(in crate::tui) const LAST_CHECK: &str = "last check";
pub(in crate::tui) const MEASURED: &str = "measured";
pub(in crate::tui) const OVER_LAST: &str = "over last, %";
pub(in crate::tui) const OVER_STOCK_PERCENT: &str = "over stock, %";
pub(in crate::tui) const REPORTED: &str = "reported";
pub(in crate::tui) const ROUNDS: &str = "rounds";
pub(in crate::tui) const SENSOR: &str = "sensor";
pub(in crate::tui) const SETTING: &str = "setting";
pub(in crate::tui) const TIMES: &str = "times";
pub(in crate::tui) const THAT_STANDS: &str = "that stands";
pub(in crate::tui) const WORTH_RAISING_TO: &str = "worth raising to";

// What stands in a column where there is no number.
pub(in crate::tui) const ANY: &str = "any";
pub(in crate::tui) const AS_IT_IS: &str = "as it is";
pub(in crate::tui) const AT_NEXT_START: &str = "at the next start";
pub(in crate::tui) const AT_ONCE: &str = "at once";
pub(in crate::tui) const BY_HAND: &str = "by hand";
pub(in crate::tui) const CALCULATED: &str = "calculated";
pub(in crate::tui) const CHECKED_JUST_NOW: &str = "just now";
pub(in crate::tui) const NO_LIMIT: &str = "open";
pub(in crate::tui) const NOT_CHECKED: &str = "none so far";
pub(in crate::tui) const THIS_CLIMB: &str = "this climb";

// Facts of a benchmark.
pub(in crate::tui) const AT_STOCK: &str = "at stock";
pub(in crate::tui) const NOISE: &str = "noise";
pub(in crate::tui) const STARTS: &str = "starts";
pub(in crate::tui) const OVER_STOCK: &str = "over stock";
pub(in crate::tui) const PER_WATT: &str = "per watt";

// What signs on a chart mean.
pub(in crate::tui) const BEHIND: &str = "▽ behind";
pub(in crate::tui) const BEST_SIGN: &str = "◆ best";
pub(in crate::tui) const FALLS_FROM_HERE: &str = "falls from here";
pub(in crate::tui) const FALLS: &str = "falls";
pub(in crate::tui) const HOLDS: &str = "holds";
pub(in crate::tui) const LITTLE_GAIN_SIGN: &str = "┆ little gain beyond here";
pub(in crate::tui) const LEAST_MEAN_MOST: &str = "least · mean · most";
pub(in crate::tui) const NOT_KNOWN: &str = "not known";
pub(in crate::tui) const SURE_SO_FAR: &str = "sure so far";
pub(in crate::tui) const SHADES_AWAITED: &str = "how likely they survive";
pub(in crate::tui) const EVEN: &str = "even";
pub(in crate::tui) const WARMING_UP: &str = "warming up";

// Titles of cards and of lines to write in.
pub(in crate::tui) const ASK_BEGIN: &str = "climb this plan?";
pub(in crate::tui) const ASK_GIVE_UP: &str = "give it up?";
pub(in crate::tui) const ASK_REPEAT: &str = "climb it again?";
pub(in crate::tui) const ASK_STOP: &str = "stop?";
pub(in crate::tui) const CLIMB_RUNS: &str = "a climb is running";
pub(in crate::tui) const FILE_FOR_PICTURE: &str = "the file to draw it into, .svg or .pdf";
pub(in crate::tui) const FILE_FOR_TRIALS: &str = "the file to write the trials into, .csv or .jsonl";
pub(in crate::tui) const FILE_OF_PLAN: &str = "the plan's file";
pub(in crate::tui) const HELP: &str = "what this view shows";
pub(in crate::tui) const NEW_ELEMENT: &str = "one of a list, as TOML has it";
pub(in crate::tui) const NEW_LINE: &str = "key = value for this section, or a section as [proof.long] or [[stage]]";
pub(in crate::tui) const NEW_VALUE: &str = "its new value";
pub(in crate::tui) const FILE_FOR_REPORT: &str = "the file to write the report into, .pdf or .md";
pub(in crate::tui) const NAME_OF_PROFILE: &str = "the name of the profile";
pub(in crate::tui) const NOTE: &str = "a note for the record";
pub(in crate::tui) const WHAT_TO_FIND: &str = "all of these words, numbers as clock>=4700 or dense>205, and sort:dense";
pub(in crate::tui) const WHAT_WAS_SEEN: &str = "what did you see? the trial ends with it";

// The names of the views.
pub(in crate::tui) fn name_of(view: View) -> &'static str {
    match view {
        View::Climb => "climb",
        View::Map => "map",
        View::Trials => "trials",
        View::Rig => "rig",
        View::Traces => "traces",
        View::Climbs => "climbs",
        View::Scores => "scores",
        View::Compare => "compare",
        View::Plan => "plan",
        View::Log => "log",
    }
}

// The action finder.
pub(in crate::tui) const DO_IT: &str = "do it";
pub(in crate::tui) const FIND_ACTION: &str = "what do you want to do?";
pub(in crate::tui) const FINDER_KEY: &str = "do";

// The start screen.
pub(in crate::tui) const CHOOSE: &str = "choose";
pub(in crate::tui) const PROGRAM: &str = "periculum";
pub(in crate::tui) const TAKE_IT: &str = "take it";
pub(in crate::tui) const WHAT_IT_IS: &str =
    "finds the limit of this very specimen, and loses nothing when the machine dies";

// What leads a line of the end.
pub(in crate::tui) const COST: &str = "cost";
pub(in crate::tui) const GAIN: &str = "gain";
pub(in crate::tui) const HARDER: &str = "harder";
pub(in crate::tui) const LIMIT: &str = "limit";

// What leads a line of the form in which the operator leads.
pub(in crate::tui) const EXPECTED: &str = "expected";
pub(in crate::tui) const KNOWN: &str = "known";
pub(in crate::tui) const NOT_ALLOWED: &str = "not allowed";
pub(in crate::tui) const PROOF: &str = "proof";
pub(in crate::tui) const SUGGESTED: &str = "suggested";
pub(in crate::tui) const WAY: &str = "way there";
pub(in crate::tui) const YOUR_TURN: &str = "your turn";

// What keys do.
pub(in crate::tui) const ANSWER_SAVE: &str = "profile";
pub(in crate::tui) const ANSWER_TAKE: &str = "take suggestion";
pub(in crate::tui) const ANSWER_TRY: &str = "try it";
pub(in crate::tui) const RIG_CHANGED: &str = "rig changed";
pub(in crate::tui) const READING: &str = "reading";
pub(in crate::tui) const REPORT: &str = "report";
pub(in crate::tui) const NUDGE: &str = "nudge";
pub(in crate::tui) const SELECT_SETTING: &str = "setting";
pub(in crate::tui) const TAKE_VALUE: &str = "take it";
pub(in crate::tui) const TYPE_VALUE: &str = "value";
pub(in crate::tui) const ADD: &str = "add";
pub(in crate::tui) const AGAIN: &str = "climb again";
pub(in crate::tui) const ANSWER_BACK: &str = "back to what held";
pub(in crate::tui) const ANSWER_DEFAULTS: &str = "defaults";
pub(in crate::tui) const ANSWER_DONE: &str = "done";
pub(in crate::tui) const ANSWER_HUNG: &str = "it hung";
pub(in crate::tui) const ANSWER_NOT_TODAY: &str = "not today";
pub(in crate::tui) const ANSWER_WRONG_PICTURE: &str = "wrong picture";
pub(in crate::tui) const ANSWER_END: &str = "enough";
pub(in crate::tui) const ANSWER_MARK: &str = "mark";
pub(in crate::tui) const ANSWER_NO_START: &str = "no start";
pub(in crate::tui) const BACK: &str = "back";
pub(in crate::tui) const BACK_TO_THIS_CLIMB: &str = "back to this climb";
pub(in crate::tui) const BEGIN: &str = "begin";
pub(in crate::tui) const CHANGE: &str = "change";
pub(in crate::tui) const CLIMB: &str = "climb";
pub(in crate::tui) const CLIMB_IT: &str = "climb it";
pub(in crate::tui) const CLIMB_IT_AGAIN: &str = "climb it again";
pub(in crate::tui) const CLOSER_FARTHER: &str = "closer, farther";
pub(in crate::tui) const COPY: &str = "copy";
pub(in crate::tui) const COPY_TRIAL: &str = "copy the trial";
pub(in crate::tui) const NOTHING_READ: &str = "no sensor was read so far";
pub(in crate::tui) const NO_OTHER_BENCHMARK: &str = "there is no other benchmark";
pub(in crate::tui) const NO_TRIAL_SO_FAR: &str = "there is no trial so far";
pub(in crate::tui) const CORES: &str = "cores";
pub(in crate::tui) const DISCARD: &str = "discard";
pub(in crate::tui) const DROP_LAST: &str = "drop the last";
pub(in crate::tui) const EARLIER_LATER: &str = "earlier, later";
pub(in crate::tui) const EXPORT: &str = "export";
pub(in crate::tui) const FAULT_SEEN: &str = "fault seen";
pub(in crate::tui) const FIND: &str = "find";
pub(in crate::tui) const GO_ON: &str = "go on";
pub(in crate::tui) const HELP_KEY: &str = "help";
pub(in crate::tui) const ITS_INCIDENT: &str = "its incident";
pub(in crate::tui) const ITS_PICTURE: &str = "its wrong picture";
pub(in crate::tui) const ITS_PROFILES: &str = "profiles";
pub(in crate::tui) const ITS_SCORES: &str = "scores";
pub(in crate::tui) const ITS_TRIAL: &str = "its trial";
pub(in crate::tui) const KEEP_IT: &str = "keep it";
pub(in crate::tui) const LAY_OVER: &str = "lay over";
pub(in crate::tui) const LEAVE: &str = "leave";
pub(in crate::tui) const LEAVE_WAITING: &str = "leave, it waits";
pub(in crate::tui) const MORE_SENSORS: &str = "more sensors";
pub(in crate::tui) const LOOK_AT_MOMENT: &str = "a moment";
pub(in crate::tui) const NEXT_INCIDENT: &str = "next incident";
pub(in crate::tui) const NOTE_KEY: &str = "note";
pub(in crate::tui) const ONE_BY_ONE: &str = "one by one";
pub(in crate::tui) const THEIR_ATTEMPTS: &str = "all attempts";
pub(in crate::tui) const THE_CLIMBS: &str = "the climbs";
pub(in crate::tui) const ATTEMPTS: &str = "attempts";
pub(in crate::tui) const CLIMB_AND_TRIAL: &str = "climb trial";
pub(in crate::tui) const COLUMN_RIG: &str = "rig";
pub(in crate::tui) const COLUMN_SPECIMEN: &str = "specimen";
pub(in crate::tui) const COLUMN_BEGAN: &str = "began";
pub(in crate::tui) const NO_ATTEMPT_SELECTED: &str = "no attempt is selected";
pub(in crate::tui) const OPEN_IT: &str = "open it";
pub(in crate::tui) const ALL_COLUMNS: &str = "all columns";
pub(in crate::tui) const COLUMN: &str = "column";
pub(in crate::tui) const HIDE_COLUMN: &str = "hide it";
pub(in crate::tui) const SORT_BY_IT: &str = "sort by it";
pub(in crate::tui) const OTHER_ACROSS: &str = "other → axis";
pub(in crate::tui) const OTHER_AXIS: &str = "other axis";
pub(in crate::tui) const OTHER_UP: &str = "other ↑ axis";
pub(in crate::tui) const PAUSE: &str = "pause";
pub(in crate::tui) const PICKED_SIGN: &str = "+";
pub(in crate::tui) const PICK: &str = "pick";
pub(in crate::tui) const REMOVE: &str = "remove";
pub(in crate::tui) const SAVE: &str = "save";
pub(in crate::tui) const SCROLL: &str = "scroll";
pub(in crate::tui) const SELECT: &str = "select";
pub(in crate::tui) const STOP: &str = "stop";
pub(in crate::tui) const STOP_AT_MARK: &str = "stop and stay at the last mark";
pub(in crate::tui) const STOP_AT_STOCK: &str = "stop and go back to stock";
pub(in crate::tui) const STOP_FOR_GOOD: &str = "stop it for good";
pub(in crate::tui) const THIS_TRIAL: &str = "this trial";
pub(in crate::tui) const TURN_BENCHMARK: &str = "benchmark";
pub(in crate::tui) const UNDO: &str = "undo";
pub(in crate::tui) const VIEWS: &str = "views";
pub(in crate::tui) const WHAT_IT_SAYS: &str = "what it says";
pub(in crate::tui) const WHAT_IT_SHOWS: &str = "what it shows";
pub(in crate::tui) const WHAT_WAS_WRONG_WITH_IT: &str = "what was wrong with the picture";
pub(in crate::tui) const WHOLE_CLIMB: &str = "the whole climb";
pub(in crate::tui) const WRITE_THE_FILE: &str = "write the file";

// Why something can't be done now.
pub(in crate::tui) const ALL_ARE_SHOWN: &str = "all of them are shown";
pub(in crate::tui) const NOBODY_READS: &str = "no sensor of this rig is read by hand";
pub(in crate::tui) const ANOTHER_RUNS: &str = "another climb is running";
pub(in crate::tui) const FILE_IS_WRITTEN: &str = "the file is as it is shown";
pub(in crate::tui) const NOTHING_CHANGED: &str = "nothing was changed";
pub(in crate::tui) const NOTHING_ELSE_MOVED: &str = "nothing else moved in this climb";
pub(in crate::tui) const NOTHING_IS_ASKED: &str = "nothing is asked that it would answer";
pub(in crate::tui) const NOTHING_IS_CLIMBED: &str = "nothing is climbed here";
pub(in crate::tui) const NOTHING_IS_PICKED: &str = "nothing is picked";
pub(in crate::tui) const NOTHING_WENT_WRONG: &str = "nothing went wrong there";
pub(in crate::tui) const NOT_OVER: &str = "the climb is not over";
pub(in crate::tui) const NO_PICTURE_KEPT: &str = "no picture was kept of it";
pub(in crate::tui) const PICTURE_IS_GONE: &str = "The picture can't be read, or is gone.";
pub(in crate::tui) const TOO_FEW_COLOURS: &str = "This terminal has too few colours for it: open the file.";
pub(in crate::tui) const WRONG_PICTURE: &str = "wrong picture";
pub(in crate::tui) const NO_CLIMB_SELECTED: &str = "no climb is selected";
pub(in crate::tui) const NO_PICTURE_OF_CURVE: &str = "the curve stands in the report, point by point";
pub(in crate::tui) const NO_CURVE: &str = "the rig has no curve";
pub(in crate::tui) const NO_MAP_OF_THIS: &str = "a map needs two settings";
pub(in crate::tui) const NO_VALUE_HERE: &str = "this line has no value";
pub(in crate::tui) const PICK_TWO: &str = "pick two trials or climbs first";
pub(in crate::tui) const PICK_TWO_TRIALS: &str = "pick two trials first";
pub(in crate::tui) const QUESTION_STANDS: &str = "it waits for your answer";
pub(in crate::tui) const WRITE_FIRST: &str = "write the file first";

// What files of a climb are called behind its number.
pub(in crate::tui) const FILE_ASCENT: &str = "ascent.svg";
pub(in crate::tui) const FILE_COMPARISON: &str = "comparison.svg";
pub(in crate::tui) const FILE_CORES: &str = "cores.svg";
pub(in crate::tui) const FILE_MAP: &str = "map.svg";
pub(in crate::tui) const FILE_SCORES: &str = "scores.svg";
pub(in crate::tui) const FILE_TRACES: &str = "traces.svg";
pub(in crate::tui) const FILE_ATTEMPTS: &str = "attempts.csv";
pub(in crate::tui) const FILE_TRIALS: &str = "trials.csv";

// What each view shows, for those who see it for the first time.
pub(in crate::tui) const HELP_OF_CLIMB: &str = "Trials from left to right; the value of the climbed setting is the height. A trial puts one rung, \
     a whole combination of settings, to one proof: passes of loads that know right from wrong. A mark says how often its rung survives its \
     proof, by all that the climb has seen: between the two numbers lie nine tenths of what is known.";

pub(in crate::tui) const HELP_OF_MAP: &str = "Every trial in its place. Dots hold, as nothing there is harder than what held; behind the bar all falls, \
     as nothing there is easier than what fell; between them nobody knows. The ground is how likely the proof is survived: up to the first \
     line as surely as is wanted, up to the second more often than not. Other lines are ceilings. Where more settings moved, it is the \
     plane of the selected trial.";

pub(in crate::tui) const HELP_OF_CURVE: &str = "A curve: faint as it comes, bright as the selected trial asked for it, red where something else is reported. \
     Signs stand where trials sat on it, and how they ended; ›‹ is where it sits. A bold number is not as it comes.";

pub(in crate::tui) const HELP_OF_TRIALS: &str = "Every trial of this climb with all that is known of it. Find by words and by numbers of any column, as \
     clock>=4700; sort:dense sorts, sort:-dense the greatest first. Best and worst scores stand out.";

pub(in crate::tui) const HELP_OF_PLAN: &str = "The plan, line by line. Change a value, add a key or a section, copy, move or remove a stage; what can't be is \
     told below its line. What it would do is played on rigs that are made up, whose limits lie anywhere between \
     stock and what it may come to: nine climbs of ten take what is between the brackets. A climb goes on with the plan that it was begun with.";

pub(in crate::tui) const HELP_OF_TRACES: &str = "What the sensors read: the mean of each column, before a shade from its least to its greatest reading; red is \
     over a cut-off. ←→ move a cursor that tells what was read then. Broken lines are cut-offs and limits. On the axis lie what went wrong and, as a line, the selected trial; `z` shows that trial alone.";

pub(in crate::tui) const HELP_OF_LOG: &str = "Everything that happened, by the time since the climb began: what was tried and why, what went \
     wrong, what you said, and what came of it. The newest stands last.";

pub(in crate::tui) const HELP_OF_CLIMBS: &str = "Every climb of this ledger, the newest first. Find some by what is known of a climb or one of its trials: rig, \
     specimen, date, verdict, incident, note, or any number of one of its trials, as clock>=4700, dense>=205 or room<23. \
     t shows all attempts of those that are found in one table. An opened one is shown in every view, until you go \
     back to the climb that runs; that one goes on meanwhile.";

pub(in crate::tui) const HELP_OF_COMPARE: &str = "What was picked, beside each other: what differs by more than chance comes first, with the difference to the \
     first one. Pick trials and climbs with p in their lists. With nothing to compare, specimens of this rig are \
     ranked by their marks.";

pub(in crate::tui) const HELP_OF_SCORES: &str = "What each benchmark scored. Behind ± is how far chance alone may be off, in 95 of 100 cases; a gain within that \
     is grey. More pays as long as the score follows the setting by at \
     least a quarter. The best is one of a rung that did not fall, where there is one; what a value gains over stock holds for all of them \
     together. `periculum enter` writes down a score from elsewhere to be ranked with.";

pub(in crate::tui) const HELP_OF_RIG: &str = "What the rig consists of, and of each setting what is asked, what the rig reports (≠ where that is something \
     else) and what is measured; what is calculated from that, and what the sensors read, with the limits of each.";

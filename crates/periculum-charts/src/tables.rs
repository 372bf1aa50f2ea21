//! The tables that a climb is exported as.

use std::collections::BTreeMap;

use periculum_core::Decimal;
use periculum_core::analysis::attempts::{Attempts, Cell as Known, Column};
use periculum_core::analysis::pool::{Pooled, Row};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::Score;
use periculum_core::model::rig::Rig;
use periculum_core::model::setting::Setting;
use periculum_core::story::readback;
use periculum_core::story::series::Series;
use periculum_core::story::{Story, TrialStory};

use crate::table::{Cell, Table};

/// A row for each trial: how it ended, its rung under the settings' names in their units, what the rig reported of each
/// and what was measured, what came of it (mean scores, scores per watt, derived values, readings), and why it was tried.
pub fn trials<'a>(story: &'a Story, rig: &'a Rig, readings: &'a BTreeMap<String, Series>) -> Table<'a> {
    let mut columns =
        named(&["trial", "began", "stage", "proof", "verdict", "incident", "tested_s", "score", "score_unit"]);
    columns.extend(rig.settings.iter().map(|setting| setting.name.clone()));
    columns.extend(rig.settings.iter().map(|setting| format!("{}_reported", setting.name)));
    columns.extend(rig.settings.iter().map(|setting| format!("{}_measured", setting.name)));
    let attempts = Attempts { story, rig, traces: readings };
    let came_of_it: Vec<Column> = attempts.columns().into_iter().filter(|column| !column.is_given()).collect();
    columns.extend(came_of_it.iter().map(|column| column.name.clone()));
    columns.push("because".into());
    let row = move |trial: &TrialStory| {
        let score = trial.score();
        let mut row = vec![
            whole(trial.number as usize),
            time(trial.began),
            whole(trial.stage + 1),
            Cell::text(trial.put_to()),
            Cell::text(trial.verdict.map_or("", |verdict| verdict.name())),
            Cell::text(trial.incident.map_or("", |kind| kind.name())),
            Cell::float(trial.tested.seconds()),
            score.map_or(Cell::Nothing, |score| Cell::float(score.value)),
            Cell::text(score.map_or("", |score| &score.unit)),
        ];
        let value = |value: Option<Decimal>| value.map_or(Cell::Nothing, |value| Cell::Number(value.to_string()));
        row.extend(rig.settings.iter().map(|setting| value(trial.rung.get(&setting.name))));
        let reported = |setting: &Setting| value(trial.reported.get(&setting.name).copied());
        row.extend(rig.settings.iter().map(reported));
        let taken = readback::of_trial(trial, rig, readings);
        let measured = |setting: &Setting| taken.iter().find(|taken| taken.setting == setting)?.measured;
        let reading = |setting| measured(setting).map_or(Cell::Nothing, |measured| Cell::float(measured.number()));
        row.extend(rig.settings.iter().map(reading));
        row.extend(
            came_of_it.iter().map(|column| attempts.cell(column, trial).number().map_or(Cell::Nothing, Cell::float)),
        );
        row.push(Cell::text(trial.reason.because(rig)));
        row
    };
    Table { columns, rows: Box::new(story.trials.iter().map(row)) }
}

/// A row for each of these attempts of several climbs, with these columns; two of one name are told by their titles.
pub fn attempts<'a>(rows: &[&'a Row], columns: &[&'a Pooled]) -> Table<'a> {
    let is_alone = |column: &Pooled| columns.iter().filter(|other| other.name == column.name).count() == 1;
    let name = |column: &&Pooled| if is_alone(column) { column.name.clone() } else { column.title.clone() };
    let names = named(&["climb", "trial", "verdict"]).into_iter().chain(columns.iter().map(name)).collect();
    let (rows, columns) = (rows.to_vec(), columns.to_vec());
    let cells = rows.into_iter().map(move |row| {
        let lead = [Cell::Number(row.climb.to_string()), whole(row.trial as usize)];
        let verdict = Cell::text(row.verdict.map_or("", |verdict| verdict.name()));
        let known = columns.iter().map(|column| match row.cell(column) {
            Known::Nothing => Cell::Nothing,
            Known::Number(number, _) => Cell::float(*number),
            Known::Words(words) => Cell::text(words),
        });
        lead.into_iter().chain([verdict]).chain(known).collect()
    });
    Table { columns: names, rows: Box::new(cells) }
}

/// A row for each pass that was run to its end and has a score.
pub fn scores(story: &Story) -> Table<'_> {
    let columns = named(&["trial", "pass", "load", "ran_s", "score", "unit", "less_is_better"]);
    let of_trial = |trial: &'_ TrialStory| {
        let number = trial.number as usize;
        let passes = trial.finished().enumerate();
        let scored = passes
            .flat_map(|(index, (order, report))| report.scores(&order.load).map(move |it| (index, report.ran, it)));
        let row = |(index, ran, (name, score)): (usize, Span, (String, &Score))| {
            vec![
                whole(number),
                whole(index + 1),
                Cell::text(name),
                Cell::float(ran.seconds()),
                Cell::float(score.value),
                Cell::text(score.unit.clone()),
                Cell::Flag(score.less_is_better),
            ]
        };
        scored.map(row).collect::<Vec<_>>()
    };
    Table { columns, rows: Box::new(story.trials.iter().flat_map(of_trial)) }
}

/// A row for each incident, with its place and its evidence.
pub fn incidents(story: &Story) -> Table<'_> {
    let columns = named(&["at", "into_climb_s", "trial", "pass", "incident", "place", "into_pass_s", "evidence"]);
    let began = story.began.unwrap_or_default();
    let rows = story.incidents.iter().map(move |told| {
        vec![
            time(told.at),
            Cell::float(told.at.since(began).seconds()),
            told.trial.map_or(Cell::Nothing, |number| whole(number as usize)),
            told.pass.map_or(Cell::Nothing, |pass| whole(pass + 1)),
            Cell::text(told.incident.kind.name()),
            Cell::text(told.incident.place.clone().unwrap_or_default()),
            told.incident.into_pass.map_or(Cell::Nothing, |span| Cell::float(span.seconds())),
            Cell::text(told.incident.evidence.to_string()),
        ]
    });
    Table { columns, rows: Box::new(rows) }
}

/// A row for each reading, sensor by sensor, with seconds since the climb began.
pub fn samples<'a>(story: &Story, readings: &'a BTreeMap<String, Series>, rig: &'a Rig) -> Table<'a> {
    let columns = named(&["sensor", "unit", "at", "into_climb_s", "reading"]);
    let began = story.began.unwrap_or_default();
    let of_sensor = move |(sensor, series): (&'a String, &'a Series)| {
        let unit = rig.sensors.iter().find(|known| known.name == *sensor).map_or("", |known| &known.unit);
        series.iter().map(move |(at, reading)| {
            vec![
                Cell::text(sensor.clone()),
                Cell::text(unit),
                time(at),
                Cell::float(at.since(began).seconds()),
                Cell::float(reading),
            ]
        })
    };
    Table { columns, rows: Box::new(readings.iter().flat_map(of_sensor)) }
}

/// A moment as ISO 8601 has it, in UTC, to the millisecond.
fn time(at: Moment) -> Cell {
    Cell::text(at.iso())
}

fn named(names: &[&str]) -> Vec<String> {
    names.iter().map(|name| (*name).to_owned()).collect()
}

fn whole(number: usize) -> Cell {
    Cell::Number(number.to_string())
}

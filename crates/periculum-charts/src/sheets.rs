//! What is told in rows and columns: a comparison, and where things went wrong.

use periculum_core::analysis::contrast::{Contrast, Fact, Row, Value, contrast};
use periculum_core::model::reason::StageEnd;
use periculum_core::model::rig::Rig;
use periculum_core::story::{IncidentStory, Story};

use crate::sheet::Sheet;

/// Sides beside each other under their titles: what differs first, with the difference to the first side.
pub fn comparison(titles: &[String], sides: &[&[Fact]]) -> Sheet {
    let Contrast { different, same } = contrast(sides);
    let mut head = vec![String::new()];
    head.extend(titles.iter().cloned());
    let blank = vec![String::new(); head.len()];
    let mut rows: Vec<Vec<String>> = different.iter().map(told).collect();
    let mut apart = blank.clone();
    apart[0] = "the same, or could be:".into();
    rows.extend([blank, apart]);
    rows.extend(same.iter().map(told));
    Sheet { head, rows }
}

fn told(row: &Row) -> Vec<String> {
    let cells = row.values.iter().zip(&row.differences).enumerate();
    let cells = cells.map(|(index, (value, difference))| {
        let told = value.as_ref().map_or_else(|| "–".into(), Value::to_string);
        match (value, difference) {
            (Some(Value::Number(number)), Some(difference)) if index > 0 && difference.by != 0.0 => {
                format!("{told}  {}", difference.told(number))
            }
            _ => told,
        }
    });
    std::iter::once(row.label.clone()).chain(cells).collect()
}

/// What went wrong core by core, module by module, and what each holds alone where that is known.
pub fn places(story: &Story, rig: &Rig) -> Sheet {
    let head = ["where", "incidents", "which", "first at"].map(str::to_owned).to_vec();
    let mut places: Vec<&str> = story.incidents.iter().filter_map(|told| told.incident.place.as_deref()).collect();
    places.sort_by_key(|place| (place.len(), *place));
    places.dedup();
    let row = |place: &str| {
        let here: Vec<&IncidentStory> =
            story.incidents.iter().filter(|told| told.incident.place.as_deref() == Some(place)).collect();
        let mut kinds: Vec<&str> = here.iter().map(|told| told.incident.kind.name()).collect();
        kinds.sort_unstable();
        kinds.dedup();
        let trial = here.first().and_then(|told| story.trial(told.trial?));
        let first = trial.map_or(String::new(), |trial| rig.written(&trial.rung));
        vec![place.to_owned(), here.len().to_string(), kinds.join(", "), first]
    };
    let mut rows: Vec<Vec<String>> = places.into_iter().map(row).collect();
    for end in story.stages.iter().filter_map(|told| told.end.as_ref()) {
        let StageEnd::EachKnown { alone, .. } = end else { continue };
        let held = alone.iter().filter_map(|one| {
            let setting = rig.setting(&one.setting)?;
            let holds = format!("holds {} alone", setting.written(one.value));
            Some(vec![setting.label.clone(), String::new(), holds, String::new()])
        });
        rows.extend(held);
    }
    Sheet { head, rows }
}

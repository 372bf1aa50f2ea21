//! The map of two settings as a picture.

use periculum_core::analysis::terrain::{Side, Terrain};
use plotters::element::{EmptyElement, PathElement, Rectangle, Text};
use plotters::style::Color;

use crate::figure::{Area, ChartError, Drawn, Figure};
use crate::palette::{GREEN, OCHRE, RED};
use crate::plane::{Plane, Scale, around, draw_broken, draw_sign, framed, on_axis, text, to_float};

/// Width and height of the picture, units.
const SIZE: (u32, u32) = (1000, 520);

/// Draws the map: every trial in its place, what is known of the border at each height, and the ceilings.
///
/// # Errors
/// When the drawing library refuses something.
pub fn map(terrain: &Terrain) -> Result<Figure, ChartError> {
    Figure::drawn(SIZE, |root| draw(root, terrain))
}

fn draw(root: &Area, terrain: &Terrain) -> Drawn {
    let across =
        around(terrain.places.iter().map(|place| to_float(place.across)).chain([to_float(terrain.across.stock)]));
    let up = around(terrain.places.iter().map(|place| to_float(place.up)).chain([to_float(terrain.up.stock)]));
    let (on_across, on_up) = (
        |value: &f64| on_axis(*value, &across, &terrain.across.axis),
        |value: &f64| on_axis(*value, &up, &terrain.up.axis),
    );
    let scale = |side: &Side, range: &std::ops::Range<f64>| (side.axis.title(), range.clone());
    let ((right, across_range), (upwards, up_range)) = (scale(&terrain.across, &across), scale(&terrain.up, &up));
    let chart = framed(
        root,
        &Scale { title: right, range: across_range, written: &on_across, labels: 8 },
        &Scale { title: upwards, range: up_range, written: &on_up, labels: 6 },
        28,
    )?;
    draw_border(&chart, terrain)?;
    let wall = to_float(terrain.across.ceiling);
    if across.contains(&wall) {
        draw_broken(&chart, (wall, up.start), (wall, up.end), RED)?;
        let words = Text::new("ceiling".to_owned(), (4, 4), text(&RED));
        chart.plotting_area().draw(&(EmptyElement::at((wall, up.end)) + words))?;
    }
    for place in &terrain.places {
        draw_sign(&chart, (to_float(place.across), to_float(place.up)), place.verdict)?;
    }
    Ok(())
}

/// At each height how far it is known to hold, and from where on it is known to fall; between them nobody knows.
fn draw_border(chart: &Plane, terrain: &Terrain) -> Drawn {
    let area = chart.plotting_area();
    for bounds in &terrain.border {
        let height = to_float(bounds.up);
        let edges = [bounds.holds.map(to_float), bounds.falls.map(to_float)];
        if let [Some(holds), Some(falls)] = edges {
            let (left, right) = (holds.min(falls), holds.max(falls));
            area.draw(&PathElement::new(vec![(left, height), (right, height)], OCHRE.mix(0.45).stroke_width(7)))?;
        }
        for (edge, colour) in edges.into_iter().zip([GREEN, RED]) {
            let Some(edge) = edge else { continue };
            // What holds is one stroke, what falls two: whoever sees no colours sees that.
            let strokes: &[i32] = if colour == GREEN { &[0] } else { &[-2, 2] };
            for x in strokes {
                let stroke = Rectangle::new([(x - 1, -8), (x + 1, 8)], colour.filled());
                area.draw(&(EmptyElement::at((edge, height)) + stroke))?;
            }
        }
    }
    Ok(())
}

//! The scene, a field of balls on a plain under an evening sky, and the light that comes along a ray.

use super::vector::Vector;
use crate::random::Random;

/// Balls in the scene.
const BALLS: usize = 24;

/// How often light is followed from surface to surface.
const BOUNCES: usize = 6;

/// Rays start so far off the surface they leave.
const OFF: f64 = 1e-6;

/// Where a ray starts and where it goes, a unit vector.
#[derive(Clone, Copy)]
pub(super) struct Ray {
    pub(super) from: Vector,
    pub(super) along: Vector,
}

#[derive(Clone, Copy)]
struct Ball {
    centre: Vector,
    radius: f64,
    surface: Surface,
}

#[derive(Clone, Copy)]
struct Surface {
    colour: Vector,
    /// The part of the light that is thrown back as by a mirror.
    gloss: f64,
}

/// Everything that can be seen.
pub(super) struct Scene {
    balls: Vec<Ball>,
}

struct Hit {
    distance: f64,
    normal: Vector,
    surface: Surface,
}

impl Scene {
    /// The scene of a seed.
    pub(super) fn new(seed: u64) -> Self {
        let mut random = Random::new(seed);
        let balls = (0..BALLS).map(|_| {
            let radius = 0.2 + 0.6 * random.unit();
            let centre = Vector(6.0 * random.unit() - 3.0, radius, 3.0 + 7.0 * random.unit());
            let colour = Vector(0.3 + 0.6 * random.unit(), 0.3 + 0.6 * random.unit(), 0.3 + 0.6 * random.unit());
            Ball { centre, radius, surface: Surface { colour, gloss: random.unit() * random.unit() } }
        });
        Self { balls: balls.collect() }
    }

    /// The light that comes back along a ray (Kajiya, The rendering equation, 1986).
    pub(super) fn light(&self, mut ray: Ray, random: &mut Random) -> Vector {
        let mut tint = Vector(1.0, 1.0, 1.0);
        for _ in 0..BOUNCES {
            let Some(hit) = self.hit(ray) else { return sky(ray.along).tinted(tint) };
            tint = tint.tinted(hit.surface.colour);
            let along = if random.unit() < hit.surface.gloss {
                ray.along - hit.normal * (2.0 * ray.along.dot(hit.normal))
            } else {
                // Off the surface in a direction as likely as its cosine (Lambert, Photometria, 1760).
                (hit.normal + direction(random)).unit()
            };
            ray = Ray { from: ray.from + ray.along * hit.distance + hit.normal * OFF, along };
        }
        Vector(0.0, 0.0, 0.0)
    }

    fn hit(&self, ray: Ray) -> Option<Hit> {
        let balls = self.balls.iter().filter_map(|ball| ball.hit(ray));
        balls.chain(ground(ray)).min_by(|a, b| a.distance.total_cmp(&b.distance))
    }
}

impl Ball {
    fn hit(&self, ray: Ray) -> Option<Hit> {
        let to_centre = self.centre - ray.from;
        let nearest = to_centre.dot(ray.along);
        let inside = self.radius * self.radius - (to_centre.dot(to_centre) - nearest * nearest);
        if inside < 0.0 {
            return None;
        }
        let distance = nearest - inside.sqrt();
        let normal = (ray.from + ray.along * distance - self.centre) * (1.0 / self.radius);
        (distance > 0.0).then_some(Hit { distance, normal, surface: self.surface })
    }
}

/// The plain, in two colours of squares.
fn ground(ray: Ray) -> Option<Hit> {
    let distance = -ray.from.1 / ray.along.1;
    if !(distance > 0.0 && distance < 1e4) {
        return None;
    }
    let place = ray.from + ray.along * distance;
    let is_light = (place.0.floor() + place.2.floor()).rem_euclid(2.0) < 1.0;
    let colour = if is_light { Vector(0.8, 0.8, 0.75) } else { Vector(0.25, 0.3, 0.35) };
    Some(Hit { distance, normal: Vector(0.0, 1.0, 0.0), surface: Surface { colour, gloss: 0.05 } })
}

/// Brighter towards the sun and the horizon.
fn sky(along: Vector) -> Vector {
    let sun = along.dot(Vector(0.6, 0.48, -0.64)).max(0.0);
    let sun = sun * sun * sun * sun;
    let height = along.1.max(0.0);
    Vector(0.9, 0.7, 0.6) * (1.0 - height) + Vector(0.2, 0.35, 0.7) * height + Vector(4.0, 3.2, 2.0) * (sun * sun)
}

/// Any direction, each equally likely: a point in the ball around the origin, drawn until there is one (von Neumann,
/// Various techniques used in connection with random digits, 1951).
fn direction(random: &mut Random) -> Vector {
    loop {
        let mut side = || 2.0 * random.unit() - 1.0;
        let point = Vector(side(), side(), side());
        let square = point.dot(point);
        if square > 1e-6 && square <= 1.0 {
            return point * (1.0 / square.sqrt());
        }
    }
}

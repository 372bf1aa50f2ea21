//! The rate of a load over a pass, on the first processor, or on the best device: `rate LOAD SECONDS`. The benchmark of what
//! checks cost builds it twice.

use std::sync::Arc;
use std::time::Duration;

use periculum_loads::catalogue;
use periculum_loads::cores::allowed;
use periculum_loads::frame::{Load, NoDisturbance, Order, Stop, Turns, run};
use periculum_loads::protocol::Message;

/// So long the program that began first runs before anything counts, so that both have begun.
const WARM_UP: Duration = Duration::from_secs(1);

fn main() {
    let arguments: Vec<String> = std::env::args().skip(1).collect();
    let [name, seconds] = &arguments[..] else { panic!("say LOAD SECONDS") };
    let length = Duration::from_secs(seconds.parse().expect("seconds"));
    match catalogue::find(name) {
        Some(load) => on_processor(load, length),
        None => on_device(name, length),
    }
}

fn on_processor(load: &'static dyn Load, length: Duration) {
    let order = Order {
        cores: allowed()[..1].to_vec(),
        turns: Turns::Together,
        size: load.about().usual_size,
        length,
        times: None,
        warm_up: WARM_UP,
        seed: 1,
        stop: Stop::AtFirstError,
    };
    run(load, &order, Arc::new(NoDisturbance), tell);
}

#[cfg(feature = "graphics")]
fn on_device(name: &str, length: Duration) {
    use periculum_loads::graphics::{Extent, GraphicsOrder, NoStrike, find, run};
    let order = GraphicsOrder {
        device: None,
        extent: Extent::Usual,
        length,
        times: None,
        warm_up: Duration::ZERO,
        seed: 1,
        stop: Stop::AtFirstError,
        pictures: None,
    };
    run(find(name).expect("a load"), &order, &NoStrike, tell);
}

#[cfg(not(feature = "graphics"))]
fn on_device(name: &str, _: Duration) {
    panic!("no load is called {name}");
}

fn tell(message: Message) {
    if let Message::Ended(progress) = message {
        println!("{}", progress.over_time);
    }
}

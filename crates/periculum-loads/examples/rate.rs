//! The rate of a load on the first processor over a pass: `rate LOAD SECONDS`. The benchmark of what checks cost builds it
//! twice.

use std::sync::Arc;
use std::time::Duration;

use periculum_loads::catalogue::find;
use periculum_loads::cores::allowed;
use periculum_loads::frame::{NoDisturbance, Order, Stop, Turns, run};
use periculum_loads::protocol::Message;

fn main() {
    let arguments: Vec<String> = std::env::args().skip(1).collect();
    let [name, seconds] = &arguments[..] else { panic!("say LOAD SECONDS") };
    let load = find(name).expect("a load");
    let order = Order {
        cores: allowed()[..1].to_vec(),
        turns: Turns::Together,
        size: load.about().usual_size,
        length: Duration::from_secs(seconds.parse().expect("seconds")),
        times: None,
        warm_up: Duration::ZERO,
        seed: 1,
        stop: Stop::AtFirstError,
    };
    run(load, &order, Arc::new(NoDisturbance), |message| {
        if let Message::Ended(progress) = message {
            println!("{}", progress.over_time);
        }
    });
}

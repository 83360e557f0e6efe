//! A minute of recording by four devices, with the server or its database killed in its middle; and how long a reading takes to be stored.

#[path = "../tests/soak.rs"]
mod soak;

use soak::Killed;
use std::time::Duration;

fn main() {
    for (killed, what) in [(Killed::Server, "the server"), (Killed::Database, "its database")] {
        let mut times = soak::soaked(Duration::from_secs(60), killed);
        times.sort_unstable();
        let at = |share: f64| times[((times.len() as f64 * share) as usize).min(times.len() - 1)];
        println!(
            "{} readings by four devices in a minute, {what} killed at half time: none lost, none twice",
            times.len()
        );
        println!(
            "  p50 {:.2?}   p95 {:.2?}   p99 {:.2?}   most {:.2?}",
            at(0.5),
            at(0.95),
            at(0.99),
            at(1.0)
        );
    }
}

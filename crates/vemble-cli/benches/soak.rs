//! A minute of recording by four devices, with the server killed in its middle; and how long a reading takes to be stored.

#[path = "../tests/soak.rs"]
mod soak;

use std::time::Duration;

fn main() {
    let runtime = tokio::runtime::Builder::new_current_thread().enable_all().build().expect("a runtime");
    let mut times = runtime.block_on(soak::soak(Duration::from_secs(60)));
    times.sort_unstable();
    let at = |share: f64| times[((times.len() as f64 * share) as usize).min(times.len() - 1)];
    println!(
        "{} readings by four devices in a minute, the server killed at half time: none lost, none twice",
        times.len()
    );
    println!("  p50 {:.2?}   p95 {:.2?}   p99 {:.2?}   most {:.2?}", at(0.5), at(0.95), at(0.99), at(1.0));
}

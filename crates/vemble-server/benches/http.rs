//! `POST /api/v1/solve` on loopback with 50 requests in flight: a fixed number of requests, the spread of their times.

use reqwest::Client;
use std::net::TcpListener;
use std::time::{Duration, Instant};

const IN_FLIGHT: usize = 50;
const EACH: usize = 200;
const DOCUMENT: &str = include_str!("../../../demo/corduroys.json");

fn main() {
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().build().expect("a runtime");
    let url = std::env::var("DATABASE_URL").expect("DATABASE_URL; `cargo xtask bench` sets it");
    let (sender, address) = std::sync::mpsc::channel();
    std::thread::spawn(move || {
        actix_web::rt::System::new().block_on(async {
            let store = vemble_store::Store::open(&url).await.expect("the store opens");
            let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
            let config =
                vemble_server::Config { listener, store, secret: vec![1; 64], web: None, household: false };
            let (server, address) = vemble_server::serve(config).expect("the server starts");
            sender.send(address).expect("somebody waits");
            server.await.expect("the server runs");
        });
    });
    let address = address.recv().expect("the server starts");
    let url = format!("http://{address}/api/v1/solve");
    let (times, whole) = runtime.block_on(load(&url));
    let at = |share: f64| times[((times.len() as f64 * share) as usize).min(times.len() - 1)];
    println!("POST /api/v1/solve, {} requests, {IN_FLIGHT} in flight", times.len());
    println!("  p50 {:.2?}   p95 {:.2?}   p99 {:.2?}   most {:.2?}", at(0.5), at(0.95), at(0.99), at(1.0));
    println!("  {:.0} requests a second", times.len() as f64 / whole.as_secs_f64());
}

async fn load(url: &str) -> (Vec<Duration>, Duration) {
    let client = Client::new();
    // Connections open before the clock starts.
    some(client.clone(), url.to_owned(), 1).await;
    let from = Instant::now();
    let workers: Vec<_> =
        (0..IN_FLIGHT).map(|_| tokio::spawn(some(client.clone(), url.to_owned(), EACH))).collect();
    let mut times = Vec::new();
    for worker in workers {
        times.extend(worker.await.expect("a worker ends"));
    }
    let whole = from.elapsed();
    times.sort_unstable();
    (times, whole)
}

/// Some requests one after the other, and how long each took.
async fn some(client: Client, url: String, count: usize) -> Vec<Duration> {
    let mut times = Vec::with_capacity(count);
    for _ in 0..count {
        let from = Instant::now();
        let request = client.post(&url).header("content-type", "application/json").body(DOCUMENT);
        let answer = request.send().await.expect("an answer");
        assert!(answer.status().is_success());
        answer.bytes().await.expect("a body");
        times.push(from.elapsed());
    }
    times
}

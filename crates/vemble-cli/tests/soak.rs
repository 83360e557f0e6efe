//! Readings recorded while the server or its database is killed: every one that was acknowledged is there afterwards, and none twice.

mod cluster;

use cluster::Cluster;
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};
use std::collections::BTreeMap;
use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};
use uuid::Uuid;

/// Devices that record at the same time.
const DEVICES: usize = 4;
/// Readings of one try-on, before the next is begun.
const IN_ONE: i64 = 60;

/// The program, on one database; killed when dropped.
struct Server(Child);

impl Server {
    /// Starts it, on a free port or on the one it had; gives its address.
    fn start(database: &str, port: &str) -> (Self, String) {
        let mut child = Command::new(env!("CARGO_BIN_EXE_vemble"))
            .args(["serve", "--example", "--migrate", "--port", port])
            .env("DATABASE_URL", database)
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .expect("the program starts");
        let mut address = String::new();
        BufReader::new(child.stdout.take().expect("its output"))
            .read_line(&mut address)
            .expect("its address");
        (Self(child), address.trim().to_owned())
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        // SIGKILL: it has no time for anything.
        drop(self.0.kill());
        drop(self.0.wait());
    }
}

/// What one device recorded: the readings of each of its try-ons, each acknowledged.
type Recorded = BTreeMap<Uuid, Vec<Uuid>>;

/// Records one reading after the other until the time is over. Sends the same change again until it is acknowledged.
async fn record(
    client: &Client,
    (garment, state): (&str, &Value),
    until: Instant,
    times: &mut Vec<Duration>,
) -> Recorded {
    let mut recorded = Recorded::new();
    while Instant::now() < until {
        let id = Uuid::now_v7();
        let mut stored = json!({ "version": 0, "try_on": { "state": state, "date": "2026-10-12" } });
        for n in 0..IN_ONE {
            if Instant::now() >= until {
                break;
            }
            let reading = Uuid::now_v7();
            let pin = json!({ "id": reading, "side": "left", "station": format!("{n} cm"), "amount": "1 cm", "how": "fold" });
            let mut change = json!({ "version": stored["version"], "try_on": stored["try_on"] });
            if n > 0 {
                change["base"] = stored["try_on"].clone();
                change["try_on"]["changes"][0]["seam"]["readings"]
                    .as_array_mut()
                    .expect("readings")
                    .push(pin);
            } else {
                change["try_on"]["changes"] = json!([{ "seam": { "seam": "outseam", "readings": [pin] } }]);
            }
            loop {
                let from = Instant::now();
                let sent = client.put(format!("{garment}/try-ons/{id}")).json(&change).send().await;
                // A refusal would come again however often it is sent.
                if let Ok(answer) = &sent {
                    assert!(!answer.status().is_client_error(), "refused: {}", answer.status());
                }
                if let Ok(answer) = sent
                    && answer.status() == StatusCode::OK
                    && let Ok(state) = answer.json::<Value>().await
                {
                    times.push(from.elapsed());
                    stored = state;
                    break;
                }
                // What a browser does while nothing answers: it keeps the change, and tries again.
                tokio::time::sleep(Duration::from_millis(50)).await;
            }
            recorded.entry(id).or_default().push(reading);
        }
    }
    recorded
}

/// What is killed, and started again, in the middle.
pub enum Killed {
    /// Vemble.
    Server,
    /// PostgreSQL.
    Database,
}

/// Records for so long, with one of both killed and started again in the middle; gives how long each reading took.
async fn soak(lasting: Duration, killed: Killed) -> Vec<Duration> {
    let own = Cluster::new();
    own.start(None);
    let database = own.url("vemble", "postgres");
    let (server, base) = Server::start(&database, "0");
    let port = base.rsplit(':').next().expect("a port").to_owned();
    let client = Client::builder().cookie_store(true).build().expect("a client");
    let entered = client
        .post(format!("{base}/api/v1/example/session"))
        .json(&json!({}))
        .send()
        .await
        .expect("the example opens");
    assert_eq!(entered.status(), StatusCode::OK);
    let rail: Value = client.get(format!("{base}/api/v1/rail")).send().await.unwrap().json().await.unwrap();
    let trousers =
        rail.as_array().expect("garments").iter().find(|g| g["kind"] == "trousers").expect("trousers");
    let garment = format!("{base}/api/v1/garments/{}", trousers["id"].as_str().expect("an id"));

    let before: Value = client.get(&garment).send().await.unwrap().json().await.unwrap();
    let newest = &before["document"]["states"][0]["id"];

    let until = Instant::now() + lasting;
    let recording = (0..DEVICES).map(async |_| {
        let mut times = Vec::new();
        (record(&client, (&garment, newest), until, &mut times).await, times)
    });
    let killing = async {
        tokio::time::sleep(lasting / 2).await;
        match killed {
            Killed::Server => {
                drop(server);
                tokio::time::sleep(Duration::from_millis(300)).await;
                Server::start(&database, &port).0
            }
            Killed::Database => {
                own.kill();
                tokio::time::sleep(Duration::from_millis(300)).await;
                own.start(None);
                server
            }
        }
    };
    let (devices, _server) = tokio::join!(futures_util::future::join_all(recording), killing);

    let state: Value = client.get(&garment).send().await.unwrap().json().await.unwrap();
    let try_ons = state["document"]["try_ons"].as_array().expect("try-ons");
    let mut all = 0;
    let mut times = Vec::new();
    for (recorded, took) in devices {
        times.extend(took);
        for (id, readings) in recorded {
            let stored = try_ons.iter().find(|t| t["id"] == json!(id)).expect("the try-on is there");
            let there: Vec<Uuid> = stored["changes"][0]["seam"]["readings"]
                .as_array()
                .expect("readings")
                .iter()
                .map(|r| r["id"].as_str().expect("an id").parse().expect("an id"))
                .collect();
            assert_eq!(there, readings, "every acknowledged reading once, and no other");
            all += readings.len();
        }
    }
    assert_eq!(all, times.len());
    times
}

/// The same, on a runtime of its own.
pub fn soaked(lasting: Duration, killed: Killed) -> Vec<Duration> {
    let runtime = tokio::runtime::Builder::new_current_thread().enable_all().build().expect("a runtime");
    runtime.block_on(soak(lasting, killed))
}

#[cfg(test)]
mod tests {
    #[test]
    fn killed_in_the_middle_nothing_acknowledged_is_lost_and_nothing_is_there_twice() {
        assert!(super::soaked(std::time::Duration::from_secs(4), super::Killed::Server).len() > 20);
    }

    #[test]
    fn when_the_database_is_killed_nothing_acknowledged_is_lost_either() {
        assert!(super::soaked(std::time::Duration::from_secs(4), super::Killed::Database).len() > 20);
    }
}

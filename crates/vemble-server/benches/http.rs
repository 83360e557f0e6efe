//! The server on loopback: `POST /api/v1/solve` with 50 requests in flight, the rail of an account with 300 garments, and what
//! signing in costs everybody else. A fixed number of requests each; the spread of their times.
//!
//! The load and the server share the machine, so the load is a bare socket: it writes the same bytes and counts what
//! comes back.

use std::net::{SocketAddr, TcpListener};
use std::time::{Duration, Instant};
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::TcpStream;
use uuid::Uuid;
use vemble_store::{NewAccount, Store};

/// What the program allocates with.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

const IN_FLIGHT: usize = 50;
const DOCUMENT: &str = include_str!("../../../demo/corduroys.json");
const PASSWORD: &str = "seven garments on one rail";

fn main() {
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().build().expect("a runtime");
    let url = std::env::var("DATABASE_URL").expect("DATABASE_URL; `cargo xtask bench` sets it");
    let (sender, started) = std::sync::mpsc::channel();
    std::thread::spawn(move || {
        actix_web::rt::System::new().block_on(async {
            let store = Store::open(&url).await.expect("the store opens");
            let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
            let config = vemble_server::Config {
                example: true,
                ..vemble_server::Config::at(listener, store.clone()).expect("a server")
            };
            let (server, address) = vemble_server::serve(config).expect("the server starts");
            sender.send((address, store)).expect("somebody waits");
            server.await.expect("the server runs");
        });
    });
    let (address, store) = started.recv().expect("the server starts");
    runtime.block_on(async {
        let solve = |document: &str| {
            request("POST", "/api/v1/solve?dragged=true", "content-type: application/json\r\n", document)
        };
        let drag: Vec<_> = a_drag(DOCUMENT).iter().map(|document| solve(document)).collect();
        load(address, &drag, IN_FLIGHT, 20).await;
        report("POST /api/v1/solve, 50 in flight", &load(address, &drag, IN_FLIGHT, 200).await);
        report("POST /api/v1/solve, one at a time", &load(address, &drag, 1, 1000).await);

        let many: Vec<_> = a_drag(&twelve_seams()).iter().map(|document| solve(document)).collect();
        report("POST /api/v1/solve of 12 seams and 84 pins", &load(address, &many, 1, 300).await);
        report("the same, 50 in flight", &load(address, &many, IN_FLIGHT, 60).await);

        let cookie = account_with_300_garments(address, &store).await;
        let rail = [request("GET", "/api/v1/rail", &format!("cookie: {cookie}\r\n"), "")];
        load(address, &rail, 1, 10).await;
        report("GET /api/v1/rail of 300 garments", &load(address, &rail, 1, 200).await);

        let paced = fifty_try_ons(address, &cookie, Duration::from_millis(500)).await;
        report("one more reading, 50 try-ons recorded at once, each twice a second", &paced);
        let unpaced = fifty_try_ons(address, &cookie, Duration::ZERO).await;
        report("one more reading, 50 try-ons recorded at once, without a pause", &unpaced);
        report("a reading sent until the second screen has it", &second_screen(address, &cookie).await);

        // Four people sign in over and over while somebody else works.
        let health = [request("GET", "/api/v1/health", "", "")];
        report("GET /api/v1/health", &load(address, &health, 1, 500).await);
        let entering: Vec<_> = (0..4)
            .map(|n| {
                let body = format!("{{\"email\":\"nobody{n}@example.org\",\"password\":\"not this one\"}}");
                let enter = [request("POST", "/api/v1/session", "content-type: application/json\r\n", &body)];
                tokio::spawn(async move { load(address, &enter, 1, 2).await })
            })
            .collect();
        report("GET /api/v1/health while four sign in", &load(address, &health, 1, 500).await);
        let mut sign_ins = Vec::new();
        for one in entering {
            sign_ins.extend(one.await.expect("a sign-in ends").0);
        }
        sign_ins.sort_unstable();
        report("POST /api/v1/session, four in flight", &(sign_ins, Duration::from_secs(1)));
    });
}

fn request(method: &str, path: &str, headers: &str, body: &str) -> Vec<u8> {
    let length = body.len();
    format!("{method} {path} HTTP/1.1\r\nhost: localhost\r\n{headers}content-length: {length}\r\n\r\n{body}")
        .into()
}

fn report(what: &str, (times, whole): &(Vec<Duration>, Duration)) {
    let at = |share: f64| times[((times.len() as f64 * share) as usize).min(times.len() - 1)];
    println!("{what}, {} requests", times.len());
    println!("  p50 {:.2?}   p95 {:.2?}   p99 {:.2?}   most {:.2?}", at(0.5), at(0.95), at(0.99), at(1.0));
    println!("  {:.0} requests a second", times.len() as f64 / whole.as_secs_f64());
}

/// Sends requests in turn, over and over, on so many connections, and tells how long each took.
async fn load(
    address: SocketAddr,
    requests: &[Vec<u8>],
    in_flight: usize,
    each: usize,
) -> (Vec<Duration>, Duration) {
    let from = Instant::now();
    let workers: Vec<_> =
        (0..in_flight).map(|_| tokio::spawn(some(address, requests.to_vec(), each))).collect();
    let mut times = Vec::new();
    for worker in workers {
        times.extend(worker.await.expect("a worker ends"));
    }
    let whole = from.elapsed();
    times.sort_unstable();
    (times, whole)
}

async fn some(address: SocketAddr, requests: Vec<Vec<u8>>, count: usize) -> Vec<Duration> {
    let mut socket = TcpStream::connect(address).await.expect("the server listens");
    let mut times = Vec::with_capacity(count);
    let mut buffer = Vec::with_capacity(1 << 20);
    for request in requests.iter().cycle().take(count) {
        let from = Instant::now();
        socket.write_all(request).await.expect("the request goes out");
        whole_answer(&mut socket, &mut buffer).await;
        times.push(from.elapsed());
    }
    times
}

/// Reads one answer to its end, by its content-length.
async fn whole_answer(socket: &mut TcpStream, buffer: &mut Vec<u8>) {
    buffer.clear();
    let mut wanted = usize::MAX;
    while buffer.len() < wanted {
        let read = socket.read_buf(buffer).await.expect("an answer");
        assert!(read > 0, "the server hung up");
        if wanted == usize::MAX
            && let Some(end) = buffer.windows(4).position(|w| w == b"\r\n\r\n")
        {
            let head = String::from_utf8_lossy(&buffer[..end]).to_lowercase();
            assert!(head.starts_with("http/1.1 200") || head.starts_with("http/1.1 401"), "{head}");
            let length = head.split("content-length: ").nth(1).and_then(|l| l.lines().next());
            wanted = end + 4 + length.and_then(|l| l.parse::<usize>().ok()).expect("a content-length");
        }
    }
}

/// What a browser sends while a pin is dragged: the document over and over, with the pin always elsewhere.
fn a_drag(document: &str) -> Vec<String> {
    let mut document: serde_json::Value = serde_json::from_str(document).expect("a document");
    let step = |tenths: i32| {
        document["try_ons"][0]["changes"][0]["seam"]["readings"][2]["amount"] =
            format!("{} mm", f64::from(tenths) / 10.0).into();
        document.to_string()
    };
    (60..160).map(step).collect()
}

/// A coat with twelve altered seams and seven pins on each.
fn twelve_seams() -> String {
    let mut document: serde_json::Value =
        serde_json::from_str(include_str!("../../../demo/overcoat.json")).expect("the example");
    let like = document["states"][0]["garment"]["seams"][0].clone();
    let seams = document["states"][0]["garment"]["seams"].as_array_mut().expect("seams");
    for name in ["princess_front", "princess_back", "panel_front", "centre_front", "yoke_seam", "neck_seam"] {
        let mut seam = like.clone();
        seam["seam"] = name.into();
        seams.push(seam);
    }
    let altered = seams.iter().take(12).map(|seam| {
        let readings = (1..=7).map(|n| {
            serde_json::json!({ "side": "left", "station": format!("{n} cm"), "amount": format!("{} mm", 4 + (n * 5) % 7), "how": "fold" })
        });
        serde_json::json!({ "seam": { "seam": seam["seam"], "readings": readings.collect::<Vec<_>>() } })
    });
    let altered: Vec<_> = altered.collect();
    document["try_ons"][0]["changes"] = altered.into();
    document.to_string()
}

/// The ids of the trousers of the account, each with that of its newest state.
async fn garments(address: SocketAddr, cookie: &str) -> Vec<(String, String)> {
    let answer = reqwest::Client::new().get(format!("http://{address}/api/v1/rail")).header("cookie", cookie);
    let rail: serde_json::Value = answer.send().await.expect("a rail").json().await.expect("JSON");
    let ids = rail.as_array().expect("garments").iter().filter(|g| g["kind"] == "trousers");
    let ids: Vec<String> = ids.map(|g| g["id"].as_str().expect("an id").to_owned()).collect();
    let mut garments = Vec::new();
    for id in ids {
        let url = format!("http://{address}/api/v1/garments/{id}");
        let answer = reqwest::Client::new().get(url).header("cookie", cookie).send().await;
        let garment: serde_json::Value = answer.expect("a garment").json().await.expect("JSON");
        let state = garment["document"]["states"][0]["id"].as_str().expect("a state").to_owned();
        garments.push((id, state));
    }
    garments
}

/// The body that stores a try-on with so many readings.
fn with_readings(state: &str, count: i64, ids: &[Uuid]) -> serde_json::Value {
    let reading = |(n, id): (i64, &Uuid)| serde_json::json!({ "id": id, "side": "left", "station": format!("{n} cm"), "amount": "1 cm", "how": "fold" });
    let readings: Vec<_> = (0..count).zip(ids).map(reading).collect();
    serde_json::json!({ "version": count - 1, "try_on": { "state": state, "date": "2026-10-12", "changes": [{ "seam": { "seam": "outseam", "readings": readings } }] } })
}

/// Fifty devices, each in a try-on of its own, enter one reading after the other with a pause between: no hand pins faster than
/// twice a second.
async fn fifty_try_ons(address: SocketAddr, cookie: &str, pause: Duration) -> (Vec<Duration>, Duration) {
    const READINGS: i64 = 12;
    let garments = garments(address, cookie).await;
    let from = Instant::now();
    let devices = (0..IN_FLIGHT).map(|n| {
        let (garment, state) = garments[n % garments.len()].clone();
        let path = format!("/api/v1/garments/{garment}/try-ons/{}", Uuid::now_v7());
        let headers = format!("content-type: application/json\r\ncookie: {cookie}\r\n");
        tokio::spawn(async move {
            let mut socket = TcpStream::connect(address).await.expect("the server listens");
            let (mut times, mut buffer) = (Vec::new(), Vec::new());
            let ids: Vec<Uuid> = (0..READINGS).map(|_| Uuid::now_v7()).collect();
            // Nobody begins at the same moment as everybody else.
            tokio::time::sleep(pause * n as u32 / IN_FLIGHT as u32).await;
            for count in 1..=READINGS {
                tokio::time::sleep(pause).await;
                let body = with_readings(&state, count, &ids).to_string();
                let sent = request("PUT", &path, &headers, &body);
                let from = Instant::now();
                socket.write_all(&sent).await.expect("the request goes out");
                whole_answer(&mut socket, &mut buffer).await;
                times.push(from.elapsed());
            }
            times
        })
    });
    let mut times = Vec::new();
    for device in devices.collect::<Vec<_>>() {
        times.extend(device.await.expect("a device ends"));
    }
    let whole = from.elapsed();
    times.sort_unstable();
    (times, whole)
}

/// From sending a reading until whoever listens has been told of it and has fetched it.
async fn second_screen(address: SocketAddr, cookie: &str) -> (Vec<Duration>, Duration) {
    let client = reqwest::Client::new();
    let base = format!("http://{address}/api/v1");
    let (garment, state) = garments(address, cookie).await.remove(0);
    let path = format!("{base}/garments/{garment}/try-ons/{}", Uuid::now_v7());
    let events = client.get(format!("{base}/events")).header("cookie", cookie).send().await;
    let mut events = events.expect("a stream");
    events.chunk().await.expect("the first event");
    let ids: Vec<Uuid> = (0..40).map(|_| Uuid::now_v7()).collect();
    let from = Instant::now();
    let mut times = Vec::new();
    for count in 1..=40 {
        let body = with_readings(&state, count, &ids);
        let from = Instant::now();
        client.put(&path).header("cookie", cookie).json(&body).send().await.expect("it is stored");
        events.chunk().await.expect("the stream goes on").expect("it is told");
        let seen = client.get(&path).header("cookie", cookie).send().await.expect("it is fetched");
        let state: serde_json::Value = seen.json().await.expect("JSON");
        assert_eq!(state["version"], count);
        times.push(from.elapsed());
    }
    times.sort_unstable();
    (times, from.elapsed())
}

/// Signs somebody up whose rail holds the example over and over; gives their cookie.
async fn account_with_300_garments(address: SocketAddr, store: &Store) -> String {
    let email = format!("{}@example.org", Uuid::now_v7().simple());
    let password_hash = password_auth::generate_hash(PASSWORD);
    let account = NewAccount { id: Uuid::now_v7(), name: "Many".into(), email: email.clone(), password_hash };
    store.sign_up(&account, None).await.expect("an account");
    let mut documents: Vec<_> = vemble_server::example_documents().into_iter().cycle().take(300).collect();
    for document in &mut documents {
        for try_on in &mut document.try_ons {
            try_on.id = None;
            try_on
                .changes
                .iter_mut()
                .flat_map(vemble_core::change::Change::readings_mut)
                .for_each(|r| r.id = None);
        }
    }
    store
        .account(account.id)
        .replace_all(&documents, &vemble_core::work::Workroom::default())
        .await
        .expect("300 garments");
    let client = reqwest::Client::new();
    let body = serde_json::json!({ "email": email, "password": PASSWORD });
    let answer =
        client.post(format!("http://{address}/api/v1/session")).json(&body).send().await.expect("in");
    let cookie = answer.headers()["set-cookie"].to_str().expect("a cookie");
    cookie.split(';').next().expect("a cookie").to_owned()
}

//! Who may come in: by which name, from which page, from where, on which device; and what cannot tire the server.

use super::*;
use std::io::Write;
use std::sync::{Arc, Mutex};
use std::time::Duration;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use vemble_server::{Doors, SignUp};

/// Sends a request as it stands, and gives the status and the text of the answer.
async fn raw(server: &Running, request: &str) -> (u16, String) {
    let url = reqwest::Url::parse(&server.base).unwrap();
    let mut socket = tokio::net::TcpStream::connect(("127.0.0.1", url.port().unwrap())).await.unwrap();
    socket.write_all(request.as_bytes()).await.unwrap();
    let mut answer = Vec::new();
    socket.read_to_end(&mut answer).await.unwrap();
    let answer = String::from_utf8_lossy(&answer).into_owned();
    (answer.split(' ').nth(1).unwrap().parse().unwrap(), answer)
}

async fn set_up(change: impl FnOnce(Config) -> Config) -> Running {
    let database = database().await;
    let listener = TcpListener::bind("127.0.0.1:0").unwrap();
    let store = Store::open(&database).await.unwrap();
    serving_as(change(Config::at(listener, store).unwrap()), database)
}

fn known_as(public_url: Option<&str>) -> Doors {
    let hosts = ["Sewing.Local".to_owned()];
    Doors::new("127.0.0.1:0".parse().unwrap(), public_url, &hosts, &["127.0.0.1".parse().unwrap()]).unwrap()
}

#[actix_web::test]
async fn a_name_that_somebody_points_here_reaches_nothing_and_a_page_elsewhere_changes_nothing() {
    let home = set_up(|config| Config { household: true, doors: known_as(None), ..config }).await;
    for (host, status) in [
        ("localhost", 200),
        ("LOCALHOST:1234", 200),
        ("127.0.0.1", 200),
        ("[::1]:8080", 200),
        ("sewing.local", 200),
        ("evil.example", 421),
        ("localhost.evil.example", 421),
        ("192.168.1.7", 421),
        ("127.0.0.1.evil.example", 421),
        ("evil.example@localhost", 421),
        ("", 421),
    ] {
        let request = format!("GET /api/v1/rail HTTP/1.1\r\nhost: {host}\r\nconnection: close\r\n\r\n");
        let answered = raw(&home, &request).await.0;
        assert!(answered == status || status == 421 && answered == 400, "{host}: {answered}");
    }
    let (status, _) = raw(&home, "GET /api/v1/rail HTTP/1.0\r\n\r\n").await;
    assert!(status >= 400, "no name at all: {status}");
    // As browsers send it, with and without saying where a page is from; what a program sends.
    let own = "http://localhost";
    for (headers, status) in [
        ("content-type: application/json\r\n".to_owned(), 200),
        (format!("content-type: application/json\r\norigin: {own}\r\n"), 200),
        ("content-type: application/json\r\norigin: http://evil.example\r\n".into(), 403),
        ("content-type: application/json\r\norigin: null\r\n".into(), 403),
        ("content-type: application/json\r\nsec-fetch-site: cross-site\r\n".into(), 403),
        ("content-type: application/json\r\nsec-fetch-site: same-origin\r\n".into(), 200),
        ("content-type: text/plain\r\n".into(), 415),
        ("content-type: text/plain; application/json\r\n".into(), 415),
        ("content-type: application/x-www-form-urlencoded\r\n".into(), 415),
        ("content-type: multipart/form-data; boundary=x\r\n".into(), 415),
        (String::new(), 415),
        ("vemble-client: web\r\norigin: http://evil.example\r\n".into(), 403),
    ] {
        let body = r#"{"version":0,"workroom":{}}"#;
        let request = format!(
            "PUT /api/v1/workroom HTTP/1.1\r\nhost: localhost\r\nconnection: close\r\n{headers}content-length: {}\r\n\r\n{body}",
            body.len()
        );
        let (answered, text) = raw(&home, &request).await;
        let stored_before = answered == 409 && status == 200;
        assert!(answered == status || stored_before, "{headers}: {text}");
    }
    // The same on the ways in, where nobody is yet.
    for path in ["session", "accounts", "example/session", "guest"] {
        let form = format!(
            "POST /api/v1/{path} HTTP/1.1\r\nhost: localhost\r\nconnection: close\r\ncontent-length: 0\r\n\r\n"
        );
        assert_eq!(raw(&home, &form).await.0, 415, "{path}");
    }
}

#[actix_web::test]
async fn behind_a_proxy_cookies_go_over_tls_and_the_guesser_is_counted_not_the_proxy() {
    let server =
        set_up(|config| Config { doors: known_as(Some("https://sewing.example.org")), ..config }).await;
    let sign_up = json!({ "name": "Odile", "email": "odile@example.org", "password": PASSWORD });
    assert_eq!(server.post("/accounts", &sign_up).await.0, StatusCode::ACCEPTED);
    let try_one = async |password: &str, passed_on: &str| {
        let request = server.somebody_else().client.post(format!("{}/session", server.base));
        let body = json!({ "email": "odile@example.org", "password": password });
        request.header("x-forwarded-for", passed_on).json(&body).send().await.unwrap()
    };
    // Whoever guesses is stopped, whatever they say of themselves before the proxy says where they are.
    for n in 0..10 {
        assert_eq!(try_one("guess", &format!("203.0.113.{n}, 198.51.100.9")).await.status(), 401);
    }
    let stopped = try_one(PASSWORD, "203.0.113.77, 198.51.100.9").await;
    assert_eq!(stopped.status(), StatusCode::TOO_MANY_REQUESTS);
    assert!(stopped.headers()["retry-after"].to_str().unwrap().parse::<u64>().unwrap() > 0);
    // All of a household's addresses count as one; the owner, elsewhere, comes in.
    for n in 0..10 {
        assert_eq!(try_one("guess", &format!("2001:db8:1:2::{n}")).await.status(), 401);
    }
    assert_eq!(try_one(PASSWORD, "2001:db8:1:2:ffff::1").await.status(), StatusCode::TOO_MANY_REQUESTS);
    let entered = try_one(PASSWORD, "2001:db8:1:3::1").await;
    assert_eq!(entered.status(), StatusCode::OK);
    let cookie = entered.headers()["set-cookie"].to_str().unwrap();
    assert!(cookie.starts_with("__Host-vemble_session=") && cookie.contains("Secure"), "{cookie}");
    assert!(entered.headers()["strict-transport-security"].to_str().unwrap().starts_with("max-age="));
    for (url, fits) in
        [("sewing.example.org", false), ("https://x.org/vemble", false), ("http://home:8080", true)]
    {
        assert_eq!(Doors::new("127.0.0.1:1".parse().unwrap(), Some(url), &[], &[]).is_ok(), fits, "{url}");
    }
}

#[actix_web::test]
async fn sessions_are_listed_ended_and_their_streams_end_with_them() {
    let here = running().await;
    here.sign_up("odile").await;
    let there = here.somebody_else();
    there.sign_in("odile@example.org", PASSWORD).await;
    let (_, lines) = here.get("/sessions").await;
    let lines = lines.as_array().unwrap();
    assert_eq!((lines.len(), lines.iter().filter(|line| line["this"] == true).count()), (2, 1));
    let mut stream = there.client.get(format!("{}/events", here.base)).send().await.unwrap();
    assert!(stream.chunk().await.unwrap().is_some());
    let other = lines.iter().find(|line| line["this"] == false).unwrap()["id"].as_str().unwrap();
    // Nobody else ends it.
    let bram = here.somebody_else();
    bram.sign_up("bram").await;
    assert_eq!(bram.delete(&format!("/sessions/{other}"), &json!({})).await.0, StatusCode::NOT_FOUND);
    assert_eq!(here.delete(&format!("/sessions/{other}"), &json!({})).await.0, StatusCode::NO_CONTENT);
    assert_eq!(there.get("/rail").await.0, StatusCode::UNAUTHORIZED);
    assert_eq!(stream.chunk().await.unwrap(), None, "the stream has ended");
    // A cookie that was copied is worth nothing once its session has ended.
    let (copied, garment, cookie) = Running::entered().await;
    let replay = async || {
        let request = reqwest::Client::new().get(format!("{}/garments/{garment}", copied.base));
        request.header("cookie", &cookie).send().await.unwrap().status()
    };
    assert_eq!(replay().await, StatusCode::OK);
    assert_eq!(copied.delete("/session", &json!({})).await.0, StatusCode::NO_CONTENT);
    assert_eq!(replay().await, StatusCode::UNAUTHORIZED);
}

#[actix_web::test]
async fn accounts_are_made_by_whom_it_is_said_and_every_visitor_has_an_example_of_their_own() {
    let new =
        |name: &str| json!({ "name": name, "email": format!("{name}@example.org"), "password": PASSWORD });
    let closed = set_up(|config| Config { sign_up: SignUp::Closed, ..config }).await;
    assert_eq!(
        closed.get("/doors").await.1,
        json!({ "example": false, "sign_up": "closed", "household": false })
    );
    assert_eq!(closed.post("/accounts", &new("odile")).await.1["type"], "nobody-new");
    assert_eq!(closed.post("/example/session", &json!({})).await.0, StatusCode::NOT_FOUND);
    let by_code = set_up(|config| Config { sign_up: SignUp::ByCode, ..config }).await;
    let code = vemble_server::new_code();
    by_code.store.invite_to_sign_up(&vemble_server::hash_of_code(&code)).await.unwrap();
    let with = |code: &str| {
        let mut body = new("odile");
        body["code"] = json!(code);
        body
    };
    assert_eq!(by_code.post("/accounts", &new("odile")).await.1["type"], "no-such-invitation");
    assert_eq!(by_code.post("/accounts", &with("2222-2222")).await.1["type"], "no-such-invitation");
    let typed = code.to_lowercase().replace('-', " ");
    assert_eq!(by_code.post("/accounts", &with(&typed)).await.0, StatusCode::ACCEPTED);
    assert_eq!(by_code.post("/accounts", &with(&code)).await.1["type"], "no-such-invitation", "good once");

    let (one, garment) = Running::signed_in().await;
    let other = one.somebody_else();
    assert_eq!(other.post("/example/session", &json!({})).await.0, StatusCode::OK);
    assert_eq!(other.get(&format!("/garments/{garment}")).await.0, StatusCode::NOT_FOUND);
    assert_eq!(one.delete(&format!("/garments/{garment}"), &json!({})).await.0, StatusCode::NO_CONTENT);
    assert_eq!(other.get("/rail").await.1.as_array().unwrap().len(), 8);
    // Passwords that everybody takes, one's name and one's address are none.
    for password in
        ["password123", "1234567890", "odile@example.org", "OdileOdile", "aaaaaaaaaaaa", "qwertyuiop"]
    {
        let mut body = new("odile");
        body["password"] = json!(password);
        assert_eq!(one.post("/accounts", &body).await.1["errors"][0]["path"], "password", "{password}");
    }
}

/// What is written to the log.
#[derive(Clone, Default)]
struct Lines(Arc<Mutex<Vec<u8>>>);

impl Write for Lines {
    fn write(&mut self, piece: &[u8]) -> std::io::Result<usize> {
        self.0.lock().unwrap().extend_from_slice(piece);
        Ok(piece.len())
    }

    fn flush(&mut self) -> std::io::Result<()> {
        Ok(())
    }
}

#[actix_web::test]
async fn the_log_tells_every_request_and_nothing_that_was_in_it() {
    // Of everything that is tried here, at whatever moment.
    let lines = Lines::default();
    let own = lines.clone();
    let log = tracing_subscriber::fmt().json().with_env_filter("vemble_server=trace,vemble_store=trace,info");
    tracing::subscriber::set_global_default(log.with_writer(move || own.clone()).finish()).unwrap();
    let server = running().await;
    server.sign_up("mallowname").await;
    let (wearer, garment) = server.wearer_with_skirt().await;
    let secret =
        json!({ "name": "Secretname", "measurements": [{ "what": "waist_girth", "value": "61.7 cm" }] });
    let mut ids = Vec::new();
    for version in [1, 5, 7] {
        let body = json!({ "version": version, "wearer": secret });
        let (status, problem) = server.put(&format!("/wearers/{wearer}"), &body).await;
        assert!(status == 200 || problem["stored_wearer"].is_object(), "{status} {problem}");
        ids.extend(problem["request"].as_str().map(str::to_owned));
    }
    let (_, state) = server.get(&format!("/garments/{garment}")).await;
    let first = &state["document"]["states"][0];
    let facts =
        json!({ "version": 9, "wearer_id": wearer, "state": first["id"], "garment": first["garment"] });
    assert_eq!(server.put(&format!("/garments/{garment}"), &facts).await.0, StatusCode::CONFLICT);
    server.get("/length?text=61.7secret&tape=cm").await;
    server.get("/calendar/secretcode.ics").await;
    let wrong = json!({ "email": "mallowname@example.org", "password": "secretpassword" });
    assert_eq!(server.post("/session", &wrong).await.0, StatusCode::UNAUTHORIZED);
    server.post("/solve", &json!({ "secret": "61.7 cm" })).await;
    let text = String::from_utf8(lines.0.lock().unwrap().clone()).unwrap();
    let own: Vec<&str> = text.lines().collect();
    assert_eq!(ids.len(), 2);
    for id in &ids {
        let line = own.iter().find(|line| line.contains(id.as_str())).expect("it is told");
        assert!(line.contains("\"level\":\"INFO\"") && line.contains("/api/v1/wearers/{wearer}"), "{line}");
    }
    for secret in [
        "Secretname",
        "61.7 cm",
        "61.7secret",
        "secretpassword",
        "secretcode",
        "mallowname",
        "Juno",
        "Skirt",
        PASSWORD,
    ] {
        let told: Vec<&&str> = own.iter().filter(|line| line.contains(secret)).collect();
        assert!(told.is_empty(), "{secret}: {told:?}");
    }
}

/// Nothing but noughts, as zlib packs them (RFC 1950): what takes a thousandth of it to send. One packed megabyte is repeated.
fn packed_noughts(count: usize) -> Vec<u8> {
    let pack = |count: usize| {
        let mut out = Vec::with_capacity(count / 50 + 100);
        let mut packer = flate2::Compress::new(flate2::Compression::fast(), false);
        packer.compress_vec(&vec![0; count], &mut out, flate2::FlushCompress::Full).unwrap();
        out
    };
    let mut bytes = vec![0x78, 0x01];
    bytes.extend(pack(1_000_000).repeat(count / 1_000_000));
    bytes.extend(pack(count % 1_000_000));
    // An empty last block, and the sum of noughts (Adler-32).
    bytes.extend([1, 0, 0, 0xff, 0xff]);
    bytes.extend((((count % 65_521) as u32) << 16 | 1).to_be_bytes());
    bytes
}

/// A chunk of a PNG.
fn chunk(kind: &[u8; 4], data: &[u8]) -> Vec<u8> {
    let mut crc = flate2::Crc::new();
    crc.update(kind);
    crc.update(data);
    [&(data.len() as u32).to_be_bytes()[..], kind, data, &crc.sum().to_be_bytes()].concat()
}

#[actix_web::test]
async fn photos_that_would_fill_the_memory_or_are_cut_off_are_refused() {
    use image::{ExtendedColorType, ImageEncoder};
    // Little to send and much to unpack: 16 bits of four colours.
    let (width, height) = (7_000_u32, 3_600_u32);
    let about = [&width.to_be_bytes()[..], &height.to_be_bytes(), &[16, 6, 0, 0, 0]].concat();
    let rows = packed_noughts((width as usize * 8 + 1) * height as usize);
    let deep =
        [&b"\x89PNG\r\n\x1a\n"[..], &chunk(b"IHDR", &about), &chunk(b"IDAT", &rows), &chunk(b"IEND", b"")];
    let deep = deep.concat();
    assert!(deep.len() < 2_000_000, "{}", deep.len());
    let mut whole = Vec::new();
    let noise: Vec<u8> = (0..120_000_u32).map(|n| (n.wrapping_mul(2_654_435_761) >> 24) as u8).collect();
    let encoder = image::codecs::jpeg::JpegEncoder::new(&mut whole);
    encoder.write_image(&noise, 200, 200, ExtendedColorType::Rgb8).unwrap();
    let cut = whole[..whole.len() - 2_000].to_vec();
    // A profile that unpacks to far more than it is sent as.
    let mut bomb = png();
    let profile = [&b"x\0\0"[..], &packed_noughts(1_000_000_000)].concat();
    bomb.splice(33..33, chunk(b"iCCP", &profile));
    let (server, garment) = Running::signed_in().await;
    for (file, wanted, why) in [
        (deep, 422, "a picture that takes 201 MB unpacked"),
        (cut, 422, "a picture that breaks off"),
        (whole, 201, ""),
    ] {
        let (status, problem) = server.photo(&garment, Uuid::now_v7(), file).await;
        let found = problem["errors"][0]["found"].as_str().unwrap_or_default();
        assert!(status == wanted && found.starts_with(why), "{why}: {status} {problem}");
    }
    // Its picture is a picture: the profile is left where it is, or it is refused; either way it is not unpacked.
    let before = peak();
    let status = server.photo(&garment, Uuid::now_v7(), bomb).await.0;
    assert!([201, 422].contains(&status.as_u16()), "{status}");
    assert!(peak() - before < 600_000_000, "{} bytes more", peak() - before);
}

/// The most memory that this process ever took, in bytes.
fn peak() -> u64 {
    let status = std::fs::read_to_string("/proc/self/status").unwrap();
    let line = status.lines().find(|line| line.starts_with("VmHWM:")).unwrap();
    line.split_whitespace().nth(1).unwrap().parse::<u64>().unwrap() * 1_000
}

/// Five seconds are promised; a machine that is busy may take some more.
const PATIENCE: Duration = Duration::from_secs(15);

/// A database that can be made to say nothing: a way to the real one that stops passing on.
async fn passing_on(to: String) -> (String, tokio::sync::watch::Sender<bool>) {
    let (open, _) = tokio::sync::watch::channel(true);
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0").await.unwrap();
    let here = listener.local_addr().unwrap().to_string();
    let (at, rest) = to.rsplit_once('@').map(|(user, at)| (user.to_owned(), at.to_owned())).unwrap();
    let (host, name) = rest.split_once('/').map(|(host, name)| (host.to_owned(), name.to_owned())).unwrap();
    let opened = open.clone();
    actix_web::rt::spawn(async move {
        loop {
            let (client, _) = listener.accept().await.unwrap();
            let server = tokio::net::TcpStream::connect(&host).await.unwrap();
            let ((cr, cw), (sr, sw)) = (client.into_split(), server.into_split());
            for (mut from, mut to) in [(cr, sw), (sr, cw)] {
                let mut open = opened.subscribe();
                actix_web::rt::spawn(async move {
                    let mut piece = vec![0; 16_384];
                    while let Ok(length @ 1..) = from.read(&mut piece).await {
                        let _ = open.wait_for(|open| *open).await;
                        if to.write_all(&piece[..length]).await.is_err() {
                            break;
                        }
                    }
                });
            }
        }
    });
    (format!("{at}@{here}/{name}"), open)
}

#[actix_web::test]
async fn a_database_that_hangs_keeps_nobody_waiting_and_is_used_again_when_it_is_back() {
    let database = database().await;
    Store::open(&database).await.unwrap();
    let (way, open) = passing_on(database.clone()).await;
    let server = {
        let listener = TcpListener::bind("127.0.0.1:0").unwrap();
        serving_as(Config::at(listener, Store::connect(&way).unwrap()).unwrap(), database)
    };
    server.sign_up("odile").await;
    let (wearer, _) = server.wearer_with_skirt().await;
    let path = format!("/wearers/{wearer}");
    let change = json!({ "version": 1, "wearer": { "name": "Juno Fenwick" } });
    open.send_replace(false);
    let asked =
        async { tokio::join!(server.get("/health"), server.get("/rail"), server.put(&path, &change)) };
    let (health, rail, stored) = tokio::time::timeout(PATIENCE, asked).await.expect("nobody is kept waiting");
    assert_eq!((health.0, &health.1["type"]), (StatusCode::SERVICE_UNAVAILABLE, &json!("no-database")));
    assert_eq!((rail.0, &rail.1["type"]), (StatusCode::SERVICE_UNAVAILABLE, &json!("no-database")));
    assert_eq!(stored.0, StatusCode::SERVICE_UNAVAILABLE);
    open.send_replace(true);
    while server.get("/health").await.0 != StatusCode::OK {
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    // Sent again it is there once, whichever it was.
    for _ in 0..2 {
        let (status, answer) = server.put(&path, &change).await;
        assert_eq!(status, 200, "{answer}");
    }
    assert_eq!(server.get(&path).await.1["state"]["version"], 2);
}

#[actix_web::test]
async fn what_is_not_there_is_said_so_and_a_wrong_method_names_the_right_ones() {
    let server = running().await;
    let root = server.base.trim_end_matches("/v1").to_owned();
    for path in ["/nothing", "/v1/nothing", "/v2/rail"] {
        assert_eq!(
            read(server.client.get(format!("{root}{path}")).send().await.unwrap()).await.0,
            404,
            "{path}"
        );
    }
    let wrong = server.client.post(format!("{}/rail", server.base)).json(&json!({})).send().await.unwrap();
    assert_eq!((wrong.status().as_u16(), wrong.headers()["allow"].to_str().unwrap()), (405, "GET"));
    let patch = server.client.patch(format!("{}/garments/{}", server.base, Uuid::now_v7())).json(&json!({}));
    let answer = patch.send().await.unwrap();
    assert_eq!(answer.headers()["allow"].to_str().unwrap(), "GET, PUT, DELETE");
}

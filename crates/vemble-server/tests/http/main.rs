//! The server over real HTTP against a real PostgreSQL: `cargo xtask test` provides it.

mod accounts;
mod archives;
mod doors;
mod history;
mod interface;
mod paper;
mod plans;
mod solving;
mod tape;
mod try_ons;

use diesel_async::{AsyncConnection, AsyncPgConnection, SimpleAsyncConnection};
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};
use std::net::{SocketAddr, TcpListener};
use uuid::Uuid;
use vemble_server::{Config, Queue, unbroken};
use vemble_store::Store;

/// A server on a database of its own, and a client that keeps its cookies.
struct Running {
    base: String,
    client: Client,
    store: Store,
    database: String,
}

async fn database() -> String {
    let url = std::env::var("DATABASE_URL").expect("DATABASE_URL; `cargo xtask test` sets it");
    let name = format!("test_{}", Uuid::now_v7().simple());
    let mut connection = AsyncPgConnection::establish(&url).await.expect("PostgreSQL answers");
    connection.batch_execute(&format!("CREATE DATABASE {name}")).await.expect("a database of its own");
    let (server, _) = url.rsplit_once('/').expect("a database in the URL");
    format!("{server}/{name}")
}

fn client() -> Client {
    Client::builder().cookie_store(true).build().expect("a client")
}

async fn serving(household: bool) -> Running {
    serving_on(database().await, household, None).await
}

/// Another instance on a database that there is already.
async fn serving_on(database: String, household: bool, tape: Option<SocketAddr>) -> Running {
    let store = Store::open(&database).await.expect("the store opens");
    let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
    let config = Config::at(listener, store.clone()).expect("a server");
    serving_as(Config { household, example: true, tape, ..config }, database)
}

/// A server that is set up so.
fn serving_as(config: Config, database: String) -> Running {
    let store = config.store.clone();
    let (server, address) = vemble_server::serve(config).expect("the server starts");
    actix_web::rt::spawn(server);
    Running { base: format!("http://{address}/api/v1"), client: client(), store, database }
}

async fn running() -> Running {
    serving(false).await
}

impl Running {
    /// The example, and the garment of it that has been pinned.
    async fn signed_in() -> (Self, String) {
        let (running, garment, _) = Self::entered().await;
        (running, garment)
    }

    /// The same, with the cookie of its session.
    async fn entered() -> (Self, String, String) {
        let running = running().await;
        let path = format!("{}/example/session", running.base);
        let answer = running.client.post(path).json(&json!({})).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::OK);
        let cookie = answer.headers()["set-cookie"].to_str().unwrap().split(';').next().unwrap().to_owned();
        let rail = running.get("/rail").await.1;
        let trousers = rail.as_array().expect("garments").iter().find(|g| g["kind"] == "trousers");
        let garment = trousers.expect("trousers")["id"].as_str().expect("an id").to_owned();
        (running, garment, cookie)
    }

    /// Somebody else in front of the same server.
    fn somebody_else(&self) -> Self {
        Self {
            client: client(),
            base: self.base.clone(),
            store: self.store.clone(),
            database: self.database.clone(),
        }
    }

    /// Signs up with this name, and in.
    async fn sign_up(&self, name: &str) {
        let email = format!("{name}@Example.org");
        let body = json!({ "name": name, "email": email, "password": PASSWORD });
        assert_eq!(self.post("/accounts", &body).await.0, StatusCode::ACCEPTED);
        self.sign_in(&email, PASSWORD).await;
    }

    async fn sign_in(&self, email: &str, password: &str) {
        let entered = self.post("/session", &json!({ "email": email, "password": password })).await;
        assert_eq!(entered.0, StatusCode::OK, "{}", entered.1);
    }

    /// The same account, in the same session, at another instance.
    fn at(&self, other: &Self) -> Self {
        Self {
            client: self.client.clone(),
            base: other.base.clone(),
            store: other.store.clone(),
            database: other.database.clone(),
        }
    }

    async fn get(&self, path: &str) -> (StatusCode, Value) {
        read(self.client.get(format!("{}{path}", self.base)).send().await.unwrap()).await
    }

    async fn put(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        read(self.client.put(format!("{}{path}", self.base)).json(body).send().await.unwrap()).await
    }

    async fn post(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        read(self.client.post(format!("{}{path}", self.base)).json(body).send().await.unwrap()).await
    }

    async fn delete(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        read(self.client.delete(format!("{}{path}", self.base)).json(body).send().await.unwrap()).await
    }

    async fn solve(&self, body: impl Into<reqwest::Body>) -> (StatusCode, Value) {
        let request =
            self.client.post(format!("{}/solve", self.base)).header("content-type", "application/json");
        read(request.body(body).send().await.unwrap()).await
    }

    /// Sends a photo of a garment.
    async fn photo(&self, garment: &str, id: Uuid, file: Vec<u8>) -> (StatusCode, Value) {
        let path = format!("{}/garments/{garment}/photos/{id}?moment=before", self.base);
        read(self.client.put(path).header("content-type", "image/png").body(file).send().await.unwrap()).await
    }

    /// The example's try-on as the server has it: its path, and the body that changes it.
    async fn try_on(&self, garment: &str) -> (String, Value) {
        let (_, state) = self.get(&format!("/garments/{garment}")).await;
        let try_on = state["document"]["try_ons"][0].clone();
        let path = format!("/garments/{garment}/try-ons/{}", try_on["id"].as_str().unwrap());
        (path, json!({ "version": state["try_on_versions"][0], "try_on": try_on }))
    }

    /// A wearer and a garment of theirs, made by whoever is signed in: their ids.
    async fn wearer_with_skirt(&self) -> (String, String) {
        let (wearer, garment) = (Uuid::now_v7().to_string(), Uuid::now_v7().to_string());
        let juno = json!({ "name": "Juno", "measurements": [{ "what": "waist_girth", "value": "62 cm" }] });
        let stored = self.put(&format!("/wearers/{wearer}"), &json!({ "version": 0, "wearer": juno })).await;
        assert_eq!(stored.0, StatusCode::OK, "{}", stored.1);
        let cloth = self.get("/cloths").await.1[0].clone();
        let beginning = json!({ "name": "Skirt", "kind": "skirt", "wearer": juno, "cloth": cloth });
        let (_, begun) = self.post("/garments/begin", &beginning).await;
        let body = json!({ "version": 0, "wearer_id": wearer, "state": Uuid::now_v7(), "garment": begun });
        let stored = self.put(&format!("/garments/{garment}"), &body).await;
        assert_eq!(stored, (StatusCode::OK, json!({ "version": 1 })));
        (wearer, garment)
    }

    /// The state that a garment is in now: its id.
    async fn state_of(&self, garment: &str) -> Value {
        let (_, state) = self.get(&format!("/garments/{garment}")).await;
        state["document"]["states"].as_array().unwrap().last().unwrap()["id"].clone()
    }
}

async fn read(answer: reqwest::Response) -> (StatusCode, Value) {
    let status = answer.status();
    if status.is_client_error() {
        assert_eq!(answer.headers()["content-type"], "application/problem+json");
    }
    (status, answer.json().await.unwrap_or_default())
}

const PASSWORD: &str = "seven garments on one rail";
const DEMO: &str = include_str!("../../../../demo/corduroys.json");

#[actix_web::test]
async fn a_changed_reading_is_stored_exactly_and_a_stale_change_gets_both_states() {
    let (server, garment) = Running::signed_in().await;
    let (path, mut body) = server.try_on(&garment).await;
    let before = body.clone();
    body["try_on"]["changes"][0]["seam"]["readings"][2]["amount"] = json!("1 3/16 in");
    let (status, stored) = server.put(&path, &body).await;
    assert_eq!((status, &stored["version"]), (StatusCode::OK, &json!(2)));
    assert_eq!(
        server.try_on(&garment).await.1["try_on"],
        body["try_on"],
        "every reading as it was written, in its order"
    );

    let (status, problem) = server.put(&path, &before).await;
    assert_eq!((status, &problem["type"]), (StatusCode::CONFLICT, &json!("stale")));
    assert_eq!(problem["stored"], json!({ "version": 2, "try_on": body["try_on"], "as_sent": false }));

    assert_eq!(server.post("/example/reset", &json!({})).await.0, StatusCode::NO_CONTENT);
    let (_, rail) = server.get("/rail").await;
    let trousers = rail.as_array().unwrap().iter().find(|g| g["kind"] == "trousers").unwrap();
    let (_, again) = server.try_on(trousers["id"].as_str().unwrap()).await;
    assert_eq!(again, before);
}

#[actix_web::test]
async fn a_new_try_on_is_made_by_the_client() {
    let (server, garment) = Running::signed_in().await;
    let path = format!("/garments/{garment}/try-ons/{}", Uuid::now_v7());
    let on = server.state_of(&garment).await;
    let body = json!({ "version": 0, "try_on": { "state": on, "date": "2026-10-03" } });
    assert_eq!(server.put(&path, &body).await.0, StatusCode::OK);
    let (_, state) = server.get(&format!("/garments/{garment}")).await;
    assert_eq!(state["document"]["try_ons"].as_array().unwrap().len(), 2);
    let (status, again) = server.put(&path, &body).await;
    assert_eq!((status, &again["version"]), (StatusCode::OK, &json!(1)), "made once only");
}

#[actix_web::test]
async fn what_is_wrong_is_named_by_its_path_and_nothing_is_stored_half() {
    let (server, garment) = Running::signed_in().await;
    let (path, good) = server.try_on(&garment).await;
    let reading = "try_on.changes[0].seam.readings[1]";
    for (field, value, status, at, found) in [
        ("amount", json!("4 1/"), 400, "amount", "“4 1/” has an unfinished fraction"),
        ("amount", json!("4.5"), 400, "amount", "“4.5” has no unit"),
        ("amount", json!("-3 cm"), 422, "amount", "-3 cm"),
        (
            "amount",
            json!("26 cm"),
            422,
            "amount",
            "26 cm: that takes out more than the 49.4 cm the garment measures there",
        ),
        (
            "station",
            json!("120 cm"),
            422,
            "station",
            "120 cm, but it is 104.0 cm long, measured from the hem",
        ),
        ("station", json!("0 mm"), 422, "station", "0 mm, where reading 1 already is on the left side"),
        ("colour", json!("red"), 400, "colour", "unknown field `colour`"),
    ] {
        let mut body = good.clone();
        body["try_on"]["changes"][0]["seam"]["readings"][1][field] = value;
        // A good change beside the bad one must not be stored either.
        body["try_on"]["conditions"] = json!("half");
        let (answered, problem) = server.put(&path, &body).await;
        assert_eq!(answered.as_u16(), status, "{problem}");
        assert_eq!(problem["errors"][0]["path"], format!("{reading}.{at}"));
        assert_eq!(problem["errors"][0]["found"], found);
        assert!(!problem["errors"][0]["expected"].as_str().unwrap().is_empty());
    }
    assert_eq!(server.try_on(&garment).await.1, good);
}

/// The smallest of pictures.
fn png() -> Vec<u8> {
    let mut bytes = std::io::Cursor::new(Vec::new());
    image::RgbImage::new(8, 6).write_to(&mut bytes, image::ImageFormat::Png).unwrap();
    bytes.into_inner()
}

#[actix_web::test]
async fn wearers_are_kept_with_their_history_and_their_garments() {
    let server = running().await;
    server.sign_up("odile").await;
    let (wearer, garment) = server.wearer_with_skirt().await;
    let path = format!("/wearers/{wearer}");
    let (_, page) = server.get(&path).await;
    assert_eq!(page["garments"][0]["name"], "Skirt");
    let line = |page: &Value, what: &str| {
        page["person"]["measurements"].as_array().unwrap().iter().find(|m| m["what"] == what).unwrap().clone()
    };
    assert_eq!(line(&page, "waist_girth")["taken"][0]["figure"]["text"], "62.0 cm");
    assert_eq!(line(&page, "hip_girth")["unlocks"][0], "ease at the hip (Skirt)");
    assert_eq!(line(&page, "bust_girth")["unlocks"], json!([]));

    // Read from CSV, all or nothing, then stored with the version that was read.
    let csv = |text: &'static str| {
        let request = server.client.post(format!("{}/measurements/read-csv", server.base));
        request.header("content-type", "text/csv").body(text).send()
    };
    let (status, taken) =
        read(csv("measurement,date,value_cm\nheight,2026-08-29,146.5\n").await.unwrap()).await;
    assert_eq!((status, taken.as_array().unwrap().len()), (StatusCode::OK, 1));
    let (status, problem) =
        read(csv("measurement,value_cm\nheight,146.5\nwaist_girth,thin\n").await.unwrap()).await;
    assert_eq!((status, &problem["errors"][0]["path"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("line 3")));
    let mut body = json!({ "version": 1, "wearer": page["state"]["wearer"] });
    body["wearer"]["measurements"].as_array_mut().unwrap().push(taken[0].clone());
    let (status, stored) = server.put(&path, &body).await;
    assert_eq!((status, &stored["state"]["version"]), (StatusCode::OK, &json!(2)));
    // Sent again it is stored once; another change of what was read is behind.
    assert_eq!(server.put(&path, &body).await.1["state"]["version"], 2);
    let other = json!({ "version": 1, "wearer": { "name": "Juno Fenwick" } });
    let (status, stale) = server.put(&path, &other).await;
    assert_eq!((status, &stale["stored_wearer"]["version"]), (StatusCode::CONFLICT, &json!(2)));
    let (_, seen) = server.get(&format!("{path}?tape=in")).await;
    assert_eq!(line(&seen, "height")["taken"][0]["figure"]["text"], "57 5/8 in");
    let exported = server.client.get(format!("{}{path}/measurements.csv", server.base)).send().await.unwrap();
    assert!(exported.text().await.unwrap().contains("height,2026-08-29,146.5"));

    // A body that cannot be, named at its figure; nothing of it stored.
    body["version"] = json!(2);
    body["wearer"]["measurements"][0]["value"] = json!("620 cm");
    let (status, problem) = server.put(&path, &body).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["path"], "measurements[0].value");

    // Names in any script, and two people of one name.
    for name in ["Юлия", "結衣", "Juno"] {
        let new = json!({ "version": 0, "wearer": { "name": name } });
        assert_eq!(server.put(&format!("/wearers/{}", Uuid::now_v7()), &new).await.0, StatusCode::OK);
    }
    let (_, all) = server.get("/wearers").await;
    assert_eq!(all.as_array().unwrap().iter().filter(|w| w["wearer"]["name"] == "Juno").count(), 2);

    // Somebody who has garments stays, and it is said which.
    let (status, problem) = server.delete(&path, &json!({})).await;
    assert_eq!((status, &problem["type"]), (StatusCode::CONFLICT, &json!("has-garments")));
    assert!(problem["detail"].as_str().unwrap().contains("Skirt"));
    assert_eq!(server.delete(&format!("/garments/{garment}"), &json!({})).await.0, StatusCode::NO_CONTENT);
    assert_eq!(server.delete(&path, &json!({})).await.0, StatusCode::NO_CONTENT);
    assert_eq!(server.get(&path).await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn a_garment_is_looked_over_put_away_and_photographed() {
    let server = running().await;
    server.sign_up("bram").await;
    let (wearer, garment) = server.wearer_with_skirt().await;
    let path = format!("/garments/{garment}");
    let (_, state) = server.get(&path).await;
    let first = &state["document"]["states"][0];
    let mut facts = first["garment"].clone();
    let on_wearer = |facts: &Value| json!({ "garment": facts, "wearer": state["document"]["wearer"] });
    let (_, over) = server.post("/look-over", &on_wearer(&facts)).await;
    let settled = over["settled"].as_i64().unwrap();
    facts["levels"][0] = json!({ "level": "waist", "station": "44 cm", "width": { "laid_flat": "33 cm" } });
    let (_, over) = server.post("/look-over", &on_wearer(&facts)).await;
    assert_eq!(over["settled"], settled + 1);
    let change = |version: i32, archived: bool, facts: &Value| json!({ "version": version, "wearer_id": wearer, "archived": archived, "state": first["id"], "garment": facts });
    assert_eq!(server.put(&path, &change(1, false, &facts)).await.0, StatusCode::OK);
    let (status, stale) = server.put(&path, &change(1, false, &first["garment"])).await;
    assert_eq!((status, &stale["stored_garment"]["version"]), (StatusCode::CONFLICT, &json!(2)));
    let (_, rail) = server.get("/rail").await;
    assert_eq!(rail[0]["next_step"], "Try it on and pin it");
    assert!(rail[0]["hanging"]["cloth"][0].as_str().unwrap().starts_with('M'));
    facts["levels"][0]["station"] = json!("-4 cm");
    let (status, problem) = server.put(&path, &change(2, false, &facts)).await;
    assert_eq!(
        (status, &problem["errors"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("garment.levels[0].station"))
    );
    facts["levels"][0]["station"] = json!("44 cm");
    assert_eq!(server.put(&path, &change(2, true, &facts)).await.0, StatusCode::OK);
    assert_eq!(server.get("/rail").await.1[0]["archived"], true);

    // Photos: taken in clean, paired, given out, removed; what is none is refused.
    let (before, after) = (Uuid::now_v7(), Uuid::now_v7());
    assert_eq!(server.photo(&garment, before, png()).await.0, StatusCode::CREATED);
    assert_eq!(server.photo(&garment, after, png()).await.0, StatusCode::CREATED);
    // Sent again it is there once; another under its id is none.
    assert_eq!(server.photo(&garment, before, png()).await.0, StatusCode::CREATED);
    let mut other = std::io::Cursor::new(Vec::new());
    image::RgbImage::new(9, 9).write_to(&mut other, image::ImageFormat::Png).unwrap();
    assert_eq!(server.photo(&garment, before, other.into_inner()).await.0, StatusCode::CONFLICT);
    let beside = json!({ "moment": "after", "pair": before, "caption": "hem let down" });
    assert_eq!(server.put(&format!("/photos/{after}"), &beside).await.0, StatusCode::NO_CONTENT);
    let (_, photos) = server.get(&format!("{path}/photos")).await;
    assert_eq!((&photos[1]["pair"], &photos[1]["width"]), (&json!(before), &json!(8)));
    let picture =
        server.client.get(format!("{}/photos/{after}/thumbnail", server.base)).send().await.unwrap();
    assert_eq!(picture.headers()["content-type"], "image/jpeg");
    assert!(image::load_from_memory(&picture.bytes().await.unwrap()).is_ok());
    let mut cut_off = png();
    cut_off.truncate(60);
    for (file, status) in [(b"not a photo".to_vec(), 422), (cut_off, 422), (vec![0; 15_000_001], 413)] {
        assert_eq!(server.photo(&garment, Uuid::now_v7(), file).await.0.as_u16(), status);
    }
    let text = server.client.put(format!("{}{path}/photos/{}?moment=before", server.base, Uuid::now_v7()));
    assert_eq!(text.body("words").send().await.unwrap().status(), StatusCode::UNSUPPORTED_MEDIA_TYPE);
    assert_eq!(server.delete(&format!("/photos/{before}"), &json!({})).await.0, StatusCode::NO_CONTENT);
    let (_, left) = server.get(&format!("{path}/photos")).await;
    assert_eq!(
        (left.as_array().unwrap().len(), &left[0]["pair"]),
        (1, &Value::Null),
        "its other half stands alone"
    );
}

#[actix_web::test]
async fn every_garment_of_the_example_hangs_looked_over() {
    let (server, _) = Running::signed_in().await;
    let (_, rail) = server.get("/rail").await;
    let rail = rail.as_array().unwrap();
    let steps: Vec<_> = rail.iter().map(|g| (g["kind"].clone(), g["next_step"].clone())).collect();
    insta::assert_json_snapshot!(steps);
    let (_, wearers) = server.get("/wearers").await;
    let names: Vec<_> = wearers.as_array().unwrap().iter().map(|w| w["wearer"]["name"].clone()).collect();
    assert_eq!(names, ["Bram Castellane", "Odile Fenwick", "Juno Fenwick"]);
    for kind in server.get("/kinds").await.1.as_array().unwrap() {
        assert!(kind["hanging"].is_object(), "{}", kind["name"]);
    }
}

#[actix_web::test]
async fn the_server_describes_itself_and_looks_at_its_database() {
    let server = running().await;
    assert_eq!(server.get("/health").await.0, StatusCode::OK);
    let root = server.base.trim_end_matches("/api/v1");
    let described = server.client.get(format!("{root}/api/openapi.json")).send().await.unwrap();
    let policy = described.headers()["content-security-policy"].to_str().unwrap().to_owned();
    assert!(policy.contains("script-src 'self';"), "no inline script: {policy}");
    let described: Value = described.json().await.unwrap();
    assert!(
        described["paths"]["/api/v1/garments/{garment}/try-ons/{try_on}"]["put"]["responses"]["409"]
            .is_object()
    );
}

/// What breaks while it is worked out breaks alone, and is told as what it is.
#[actix_web::test]
async fn what_breaks_breaks_alone() {
    assert_eq!((unbroken(|| 7), unbroken(|| -> i32 { panic!("as it should here") })), (Some(7), None));
    let (queue, whose) = (Queue::start().unwrap(), Uuid::now_v7());
    let broke = queue.run(whose, || -> i32 { panic!("as it should here") }).await;
    assert!(broke.unwrap_err().to_string().starts_with("This could not be worked out"), "not as busy");
    assert_eq!(queue.run(whose, || 7).await.unwrap(), 7, "and the queue goes on");
}

/// Whoever asks for much waits for whoever asks for little, makes room for them, and is refused what is far too much.
#[actix_web::test]
async fn everybody_has_their_turn() {
    use futures_util::future::{join, join_all};
    use std::sync::{Arc, Mutex};
    let (queue, little) = (Queue::start().unwrap(), Uuid::now_v7());
    let much = [Uuid::now_v7(), Uuid::now_v7(), Uuid::now_v7(), Uuid::now_v7()];
    let (done, open) = (Arc::new(Mutex::new(Vec::new())), Arc::new(Mutex::new(())));
    let job = |whose: Uuid| {
        let (done, open) = (done.clone(), open.clone());
        queue.run(whose, move || {
            drop(open.lock().unwrap());
            done.lock().unwrap().push(whose);
        })
    };
    // Nothing is worked on before all of it waits.
    let shut = open.lock().unwrap();
    let all = join(join_all((0..480).map(|n| job(much[n % 4]))), job(little));
    let opening = async move {
        tokio::task::yield_now().await;
        drop(shut);
    };
    let ((asked, other), ()) = join(all, opening).await;
    other.unwrap();
    let refused: Vec<String> =
        asked.iter().filter_map(|answer| answer.as_ref().err()).map(ToString::to_string).collect();
    assert!((150..300).contains(&refused.len()), "{} refused", refused.len());
    assert!(refused.iter().all(|words| words.starts_with("Too busy just now")), "{refused:?}");
    let place = done.lock().unwrap().iter().position(|whose| *whose == little).unwrap();
    let threads = std::thread::available_parallelism().unwrap().get();
    assert!(place <= threads + much.len(), "after {place} of the others");
}

/// A shoulder measured over one shoulder only: it hangs, and the look-over asks.
#[actix_web::test]
async fn a_garment_with_a_slip_in_it_hangs_and_is_asked_about() {
    let (server, garment) = Running::signed_in().await;
    let (_, state) = server.get(&format!("/garments/{garment}")).await;
    let wearer = &state["document"]["wearer"];
    let cloth = server.get("/cloths").await.1[0].clone();
    let beginning = json!({ "name": "Coat", "kind": "lined_coat", "wearer": wearer, "cloth": cloth });
    let (_, mut facts) = server.post("/garments/begin", &beginning).await;
    for level in facts["levels"].as_array_mut().unwrap() {
        if level["level"] == "shoulder" {
            level["width"] = json!({ "laid_flat": "12 cm" });
            level["assumed"] = json!(false);
        }
    }
    let id = Uuid::now_v7();
    let body = json!({
        "version": 0, "wearer_id": state["wearer_id"], "archived": false, "state": Uuid::now_v7(), "garment": facts,
    });
    let (status, said) = server.put(&format!("/garments/{id}"), &body).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let (status, rail) = server.get("/rail").await;
    assert_eq!(status, StatusCode::OK);
    assert!(rail.as_array().unwrap().iter().all(|g| g["hanging"].is_object()), "{rail}");
    let asked = json!({ "garment": facts, "wearer": wearer });
    let (_, look_over) = server.post("/look-over", &asked).await;
    assert!(look_over["doubts"].to_string().contains("Is that one shoulder?"), "{}", look_over["doubts"]);
}

/// Figures and versions beyond any limit: refused or stale, never broken.
#[actix_web::test]
async fn what_is_beyond_any_limit_is_refused() {
    let (server, garment) = Running::signed_in().await;
    let (_, state) = server.get(&format!("/garments/{garment}")).await;
    let nines = "9".repeat(400);
    for text in [&nines, &format!("0.{nines} cm"), &format!("1/{nines} in"), "1e308 cm", "1/0 in"] {
        let (status, _) = server.get(&format!("/length?text={text}")).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{text}");
    }
    let facts = &state["document"]["states"][0];
    for version in [json!(i32::MAX), json!(i32::MIN), json!(u32::MAX), json!(9e99), json!(-1)] {
        let body = json!({ "version": version, "wearer_id": state["wearer_id"], "archived": false, "state": facts["id"], "garment": facts["garment"] });
        let (status, _) = server.put(&format!("/garments/{garment}"), &body).await;
        assert!(matches!(status, StatusCode::CONFLICT | StatusCode::BAD_REQUEST), "{version}: {status}");
        let wearer = json!({ "version": version, "wearer": state["document"]["wearer"] });
        let (status, _) =
            server.put(&format!("/wearers/{}", state["wearer_id"].as_str().unwrap()), &wearer).await;
        assert!(matches!(status, StatusCode::CONFLICT | StatusCode::BAD_REQUEST), "{version}: {status}");
    }
}

/// A character that no text has: refused with its place, wherever it stands.
#[actix_web::test]
async fn a_nul_is_refused_with_its_field() {
    let (server, garment) = Running::signed_in().await;
    let (_, state) = server.get(&format!("/garments/{garment}")).await;
    let mut document = state["document"].clone();
    document["states"][0]["garment"]["name"] = json!("trou\u{0}sers");
    let (status, problem) = server.post("/solve", &document).await;
    assert_eq!(
        (status, &problem["errors"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("states[0].garment.name"))
    );
    let mut wearer = state["document"]["wearer"].clone();
    wearer["notes"] = json!(["one\u{0}two"]);
    let body = json!({ "version": 0, "wearer": wearer });
    let (status, problem) = server.put(&format!("/wearers/{}", Uuid::now_v7()), &body).await;
    assert_eq!(
        (status, &problem["errors"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("wearer.notes[0]"))
    );
    for path in ["/length?text=%00", "/invitations/%00", "/garments/%00"] {
        let (status, _) = server.get(path).await;
        assert!(status.is_client_error(), "{path}: {status}");
    }
}

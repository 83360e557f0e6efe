//! The server over real HTTP against a real PostgreSQL: `cargo xtask test` provides it.

use diesel_async::{AsyncConnection, AsyncPgConnection, SimpleAsyncConnection};
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};
use std::net::TcpListener;
use uuid::Uuid;
use vemble_store::Store;

/// A server on a database of its own, and a client that keeps its cookies.
struct Running {
    base: String,
    client: Client,
    store: Store,
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

async fn running() -> Running {
    let store = Store::open(&database().await).await.expect("the store opens");
    let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
    let config = vemble_server::Config { listener, store: store.clone(), secret: vec![7; 64], web: None };
    let (server, address) = vemble_server::serve(config).expect("the server starts");
    actix_web::rt::spawn(server);
    Running { base: format!("http://{address}/api/v1"), client: client(), store }
}

impl Running {
    async fn signed_in() -> (Self, String) {
        let running = running().await;
        let answer = running.client.post(format!("{}/session", running.base)).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::OK);
        let rail = running.get("/rail").await.1;
        let garment = rail[0]["id"].as_str().expect("a garment on the rail").to_owned();
        (running, garment)
    }

    async fn get(&self, path: &str) -> (StatusCode, Value) {
        read(self.client.get(format!("{}{path}", self.base)).send().await.unwrap()).await
    }

    async fn put(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        read(self.client.put(format!("{}{path}", self.base)).json(body).send().await.unwrap()).await
    }

    async fn solve(&self, body: impl Into<reqwest::Body>) -> (StatusCode, Value) {
        let request =
            self.client.post(format!("{}/solve", self.base)).header("content-type", "application/json");
        read(request.body(body).send().await.unwrap()).await
    }

    /// The example's try-on as the server has it: its path, and the body that changes it.
    async fn try_on(&self, garment: &str) -> (String, Value) {
        let (_, state) = self.get(&format!("/garments/{garment}")).await;
        let try_on = state["document"]["try_ons"][0].clone();
        let path = format!("/garments/{garment}/try-ons/{}", try_on["id"].as_str().unwrap());
        (path, json!({ "version": state["try_on_versions"][0], "try_on": try_on }))
    }
}

async fn read(answer: reqwest::Response) -> (StatusCode, Value) {
    let status = answer.status();
    if status.is_client_error() {
        assert_eq!(answer.headers()["content-type"], "application/problem+json");
    }
    (status, answer.json().await.unwrap_or_default())
}

const DEMO: &str = include_str!("../../../demo/corduroys.json");

#[actix_web::test]
async fn a_changed_reading_is_stored_exactly_and_a_stale_change_gets_both_states() {
    let (server, garment) = Running::signed_in().await;
    let (path, mut body) = server.try_on(&garment).await;
    let before = body.clone();
    body["try_on"]["alterations"][0]["readings"][2]["amount"] = json!("1 3/16 in");
    let (status, stored) = server.put(&path, &body).await;
    assert_eq!((status, &stored["version"]), (StatusCode::OK, &json!(2)));
    assert_eq!(
        server.try_on(&garment).await.1["try_on"],
        body["try_on"],
        "every reading as it was written, in its order"
    );

    let (status, problem) = server.put(&path, &before).await;
    assert_eq!((status, &problem["type"]), (StatusCode::CONFLICT, &json!("stale")));
    assert_eq!(problem["stored"], json!({ "version": 2, "try_on": body["try_on"] }));

    let reset = server.client.post(format!("{}/example/reset", server.base)).send().await.unwrap();
    assert_eq!(reset.status(), StatusCode::NO_CONTENT);
    let (_, rail) = server.get("/rail").await;
    let (_, again) = server.try_on(rail[0]["id"].as_str().unwrap()).await;
    assert_eq!(again, before);
}

#[actix_web::test]
async fn a_new_try_on_is_made_by_the_client() {
    let (server, garment) = Running::signed_in().await;
    let path = format!("/garments/{garment}/try-ons/{}", Uuid::now_v7());
    let body = json!({ "version": 0, "try_on": { "date": "2026-10-03", "alterations": [] } });
    assert_eq!(server.put(&path, &body).await.0, StatusCode::OK);
    let (_, state) = server.get(&format!("/garments/{garment}")).await;
    assert_eq!(state["document"]["try_ons"].as_array().unwrap().len(), 2);
    assert_eq!(server.put(&path, &body).await.0, StatusCode::CONFLICT, "made once only");
}

#[actix_web::test]
async fn what_is_wrong_is_named_by_its_path_and_nothing_is_stored_half() {
    let (server, garment) = Running::signed_in().await;
    let (path, good) = server.try_on(&garment).await;
    let reading = "try_on.alterations[0].readings[1]";
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
        ("station", json!("120 cm"), 422, "station", "120 cm, but the seam is 104.0 cm long"),
        ("station", json!("0 mm"), 422, "station", "0 mm, where reading 1 already is on the left side"),
        ("colour", json!("red"), 400, "colour", "unknown field `colour`"),
    ] {
        let mut body = good.clone();
        body["try_on"]["alterations"][0]["readings"][1][field] = value;
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

#[actix_web::test]
async fn solving_needs_no_account_and_has_limits() {
    let server = running().await;
    let (status, solved) = server.solve(DEMO).await;
    assert_eq!(status, StatusCode::OK);
    let document: Value = serde_json::from_str(DEMO).unwrap();
    let typed = serde_json::from_value(document).unwrap();
    let core = vemble_core::solve::solve(&typed, vemble_core::length::Tape::Cm).unwrap();
    assert!(solved == serde_json::to_value(core).unwrap(), "the same core call serves the API");

    let (status, problem) = server.solve(vec![b' '; 30_000_000]).await;
    assert_eq!((status, &problem["type"]), (StatusCode::PAYLOAD_TOO_LARGE, &json!("too-large")));
    let (status, problem) = server.solve("{\"version\": 9}").await;
    assert_eq!((status, &problem["type"]), (StatusCode::BAD_REQUEST, &json!("malformed")));
    let form = server.client.post(format!("{}/solve", server.base)).body(DEMO).send().await.unwrap();
    assert_eq!(form.status(), StatusCode::UNSUPPORTED_MEDIA_TYPE, "no form of another site can send this");

    let (status, read) = server.get("/length?text=2-1/4&tape=in").await;
    assert_eq!((status, &read["measure"]), (StatusCode::OK, &json!("2 1/4 in")));
    for (path, status) in [
        ("/length?text=two&tape=in", 422),
        ("/length?text=2&tape=ells", 400),
        ("/nowhere", 404),
        ("/garments/7", 401),
    ] {
        assert_eq!(server.get(path).await.0.as_u16(), status, "{path}");
    }
}

#[actix_web::test]
async fn nobody_reaches_what_is_not_theirs() {
    let (server, garment) = Running::signed_in().await;
    let (path, body) = server.try_on(&garment).await;
    let stranger = Running { client: client(), base: server.base.clone(), store: server.store.clone() };
    for path in ["/rail", "/session", &format!("/garments/{garment}")] {
        assert_eq!(stranger.get(path).await.0, StatusCode::UNAUTHORIZED, "{path}");
    }
    assert_eq!(stranger.put(&path, &body).await.0, StatusCode::UNAUTHORIZED);

    // Another account of the same store: ids alone open nothing.
    let other = server.store.account(Uuid::now_v7());
    assert!(other.documents().await.unwrap().is_empty());
    let garment: Uuid = garment.parse().unwrap();
    assert!(matches!(other.document(garment).await, Err(vemble_store::StoreError::NotFound)));
    let try_on: vemble_core::fitting::TryOn = serde_json::from_value(body["try_on"].clone()).unwrap();
    let put = other.put_try_on(garment, try_on.id.unwrap(), 1, &try_on).await;
    assert!(matches!(put, Err(vemble_store::StoreError::NotFound)));

    let cookie = server.client.post(format!("{}/session", server.base)).send().await.unwrap();
    let cookie = cookie.headers()["set-cookie"].to_str().unwrap().to_owned();
    assert!(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict"), "{cookie}");
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

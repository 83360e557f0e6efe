//! The server over real HTTP against a real PostgreSQL: `cargo xtask test` provides it.

mod tape;
mod try_ons;

use diesel_async::{AsyncConnection, AsyncPgConnection, SimpleAsyncConnection};
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};
use std::net::{SocketAddr, TcpListener};
use uuid::Uuid;
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
    let config = vemble_server::Config {
        listener,
        store: store.clone(),
        secret: vec![7; 64],
        web: None,
        household,
        tape,
    };
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
        let running = running().await;
        assert_eq!(running.post("/example/session", &json!({})).await.0, StatusCode::OK);
        let rail = running.get("/rail").await.1;
        let trousers = rail.as_array().expect("garments").iter().find(|g| g["kind"] == "trousers");
        let garment = trousers.expect("trousers")["id"].as_str().expect("an id").to_owned();
        (running, garment)
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

    /// Signs up with this name.
    async fn sign_up(&self, name: &str) {
        let body = json!({ "name": name, "email": format!("{name}@Example.org"), "password": PASSWORD });
        assert_eq!(self.post("/accounts", &body).await.0, StatusCode::CREATED);
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
        let body = json!({ "version": 0, "wearer_id": wearer, "garment": begun });
        let stored = self.put(&format!("/garments/{garment}"), &body).await;
        assert_eq!(stored, (StatusCode::OK, json!({ "version": 1 })));
        (wearer, garment)
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
    let body = json!({ "version": 0, "try_on": { "date": "2026-10-03", "alterations": [] } });
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
    let typed = serde_json::from_value(document.clone()).unwrap();
    let core = vemble_core::solve::solve(&typed, vemble_core::length::Tape::Cm).unwrap();
    let (_, with_cards) = server.post("/solve?cards=true", &document).await;
    assert!(with_cards == serde_json::to_value(&core).unwrap(), "the same core call serves the API");
    // A drag asks for no cards, and gets all the rest.
    let mut without = core;
    without.try_ons[0].cards.clear();
    assert!(solved == serde_json::to_value(without).unwrap());

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

/// A garment is judged once and kept while its pins are dragged: that must never show.
#[actix_web::test]
async fn a_garment_that_was_seen_before_is_solved_like_a_new_one() {
    use vemble_core::length::Tape;
    let (seen, new) = (running().await, running().await);
    let mut documents: Vec<Value> = vemble_server::example_documents()
        .into_iter()
        .map(|document| serde_json::to_value(document).unwrap())
        .collect();
    for document in &documents {
        assert_eq!(seen.solve(document.to_string()).await.0, StatusCode::OK);
    }
    for document in &mut documents {
        // One pin goes on, and after that a level of the garment itself.
        let changes = [
            ("/try_ons/0/alterations/0/readings/0/amount", json!("3 mm")),
            ("/garment/levels/0/width", json!({ "laid_flat": "58.5 cm" })),
        ];
        for (at, value) in changes {
            *document.pointer_mut(at).unwrap() = value;
            let answer = seen.solve(document.to_string()).await;
            assert_eq!(answer, new.solve(document.to_string()).await, "{at}");
            let typed = serde_json::from_value(document.clone()).unwrap();
            match vemble_core::solve::solve(&typed, Tape::Cm) {
                Ok(mut solved) => {
                    solved.try_ons.iter_mut().for_each(|t| t.cards.clear());
                    assert_eq!(answer.1, serde_json::to_value(solved).unwrap(), "{at}");
                }
                Err(faults) => {
                    let paths =
                        answer.1["errors"].as_array().unwrap().iter().map(|e| e["path"].as_str().unwrap());
                    assert!(paths.eq(faults.iter().map(|f| f.path.as_str())), "{}", answer.1);
                }
            }
        }
        // A garment with a fault is refused as often as it is sent, and says where.
        document["garment"]["seams"][0]["length"] = json!("-3 cm");
        for _ in 0..2 {
            let (status, problem) = seen.solve(document.to_string()).await;
            assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
            let errors = problem["errors"].as_array().unwrap();
            assert!(errors.iter().any(|e| e["path"] == "garment.seams[0].length"), "{problem}");
        }
    }
}

/// All derive from one queue: each must get what follows from its own pins, and a wrong one among them its own fault.
#[actix_web::test]
async fn fifty_at_once_each_get_their_own_answer() {
    let server = running().await;
    let document = serde_json::to_value(vemble_server::example_documents().remove(0)).unwrap();
    let dragged_to = |mm: usize| {
        let mut document = document.clone();
        let readings = document.pointer_mut("/try_ons/0/alterations/0/readings").unwrap();
        let amount = if mm % 10 == 9 { "4 1/".to_owned() } else { format!("{mm} mm") };
        readings[0]["amount"] = amount.into();
        document.to_string()
    };
    let mut alone = Vec::new();
    for mm in 1..=50 {
        alone.push(server.solve(dragged_to(mm)).await);
    }
    assert!(alone.iter().zip(&alone[1..]).all(|(a, b)| a != b), "each differs from the next");
    let at_once = futures_util::future::join_all((1..=50).map(|mm| server.solve(dragged_to(mm)))).await;
    assert_eq!(at_once, alone);
    // Who hangs up meanwhile costs nobody else anything.
    let given_up = (1..=50).map(|mm| {
        let asked = server.solve(dragged_to(mm));
        async move { actix_web::rt::time::timeout(std::time::Duration::from_millis(1), asked).await.ok() }
    });
    futures_util::future::join_all(given_up).await;
    assert_eq!(server.solve(dragged_to(7)).await, alone[6]);
}

#[actix_web::test]
async fn nobody_reaches_what_is_not_theirs() {
    let odile = running().await;
    odile.sign_up("odile").await;
    let (wearer, garment) = odile.wearer_with_skirt().await;
    let try_on = Uuid::now_v7();
    let pinned = json!({ "version": 0, "try_on": { "date": "2026-10-03", "alterations": [{ "seam": "side_seam", "readings": [
        { "id": Uuid::now_v7(), "side": "left", "station": "10 cm", "amount": "1 cm", "how": "fold" },
    ] }] } });
    let try_on_path = format!("/garments/{garment}/try-ons/{try_on}");
    assert_eq!(odile.put(&try_on_path, &pinned).await.0, StatusCode::OK);
    let photo = Uuid::now_v7();
    assert_eq!(odile.photo(&garment, photo, png()).await.0, StatusCode::CREATED);

    // Without an account, and with another one: every kind of thing, by its id, to read, change and delete.
    let stranger = odile.somebody_else();
    let bram = odile.somebody_else();
    bram.sign_up("bram").await;
    let (_, state) = odile.get(&format!("/garments/{garment}")).await;
    let facts = json!({ "version": 1, "wearer_id": wearer, "garment": state["document"]["garment"] });
    let person = json!({ "version": 1, "wearer": { "name": "Somebody else" } });
    let caption = json!({ "moment": "after", "caption": "mine now" });
    let paths = [
        format!("/garments/{garment}"),
        format!("/garments/{garment}/photos"),
        format!("/wearers/{wearer}"),
        format!("/wearers/{wearer}/measurements.csv"),
        format!("/photos/{photo}"),
        format!("/photos/{photo}/thumbnail"),
    ];
    for path in &paths {
        assert_eq!(stranger.get(path).await.0, StatusCode::UNAUTHORIZED, "{path}");
        let (status, found) = bram.get(path).await;
        assert!(status == StatusCode::NOT_FOUND || found == json!([]), "{path}: {status} {found}");
    }
    let changed = json!({ "version": 1, "try_on": pinned["try_on"] });
    for (path, body) in [
        (format!("/garments/{garment}"), &facts),
        (try_on_path.clone(), &changed),
        (format!("/wearers/{wearer}"), &person),
        (format!("/photos/{photo}"), &caption),
    ] {
        assert_eq!(stranger.put(&path, body).await.0, StatusCode::UNAUTHORIZED, "{path}");
        assert_eq!(bram.put(&path, body).await.0, StatusCode::NOT_FOUND, "{path}");
    }
    assert_eq!(bram.photo(&garment, Uuid::now_v7(), png()).await.0, StatusCode::NOT_FOUND);
    for path in [format!("/garments/{garment}"), format!("/wearers/{wearer}"), format!("/photos/{photo}")] {
        assert_eq!(stranger.delete(&path, &json!({})).await.0, StatusCode::UNAUTHORIZED, "{path}");
        assert_eq!(bram.delete(&path, &json!({})).await.0, StatusCode::NOT_FOUND, "{path}");
    }
    // A garment of one's own cannot be hung on somebody else's wearer.
    let mine = json!({ "version": 0, "wearer_id": wearer, "garment": state["document"]["garment"] });
    assert_eq!(bram.put(&format!("/garments/{}", Uuid::now_v7()), &mine).await.0, StatusCode::NOT_FOUND);
    assert_eq!(odile.get(&format!("/garments/{garment}")).await.1, state, "nothing of it moved");
}

/// The smallest of pictures.
fn png() -> Vec<u8> {
    let mut bytes = std::io::Cursor::new(Vec::new());
    image::RgbImage::new(8, 6).write_to(&mut bytes, image::ImageFormat::Png).unwrap();
    bytes.into_inner()
}

#[derive(diesel::QueryableByName)]
struct Count {
    #[diesel(sql_type = diesel::sql_types::BigInt)]
    rows: i64,
}

#[actix_web::test]
async fn the_database_itself_keeps_accounts_apart() {
    use diesel_async::RunQueryDsl;
    let server = running().await;
    server.sign_up("odile").await;
    let (_, garment) = server.wearer_with_skirt().await;
    let try_on = json!({ "version": 0, "try_on": { "date": "2026-10-03", "alterations": [{ "seam": "side_seam", "readings": [
        { "side": "left", "station": "10 cm", "amount": "1 cm", "how": "fold" },
    ] }] } });
    server.put(&format!("/garments/{garment}/try-ons/{}", Uuid::now_v7()), &try_on).await;
    server.photo(&garment, Uuid::now_v7(), png()).await;
    let bram = server.somebody_else();
    bram.sign_up("bram").await;
    let who = server.store.credentials("bram@example.org").await.unwrap().unwrap().id;

    let mut connection = AsyncPgConnection::establish(&server.database).await.unwrap();
    let count = async |connection: &mut AsyncPgConnection, table: &str| {
        let query = diesel::sql_query(format!("SELECT count(*) AS rows FROM {table}"));
        query.get_result::<Count>(connection).await.unwrap().rows
    };
    let tables = ["wearers", "garments", "try_ons", "readings", "photos"];
    for table in tables {
        assert_eq!(count(&mut connection, table).await, 1, "{table}, as its owner");
    }
    // As the role that serves requests, speaking for the other account, without naming any account in the query.
    connection.batch_execute("SET ROLE vemble_app").await.unwrap();
    for speaks_for in [String::new(), who.to_string()] {
        let speak = format!("SELECT set_config('vemble.account', '{speaks_for}', false)");
        connection.batch_execute(&speak).await.unwrap();
        for table in tables {
            assert_eq!(count(&mut connection, table).await, 0, "{table} read");
            let column = if table == "readings" { "how = how" } else { "id = id" };
            let changed =
                diesel::sql_query(format!("UPDATE {table} SET {column}")).execute(&mut connection).await;
            assert_eq!(changed.unwrap(), 0, "{table} changed");
            let removed = diesel::sql_query(format!("DELETE FROM {table}")).execute(&mut connection).await;
            assert_eq!(removed.unwrap(), 0, "{table} removed");
        }
        let accounts = i64::from(!speaks_for.is_empty());
        assert_eq!(count(&mut connection, "accounts").await, accounts, "and no account but one's own");
        let smuggled =
            "INSERT INTO wearers (account_id, id, facts) SELECT gen_random_uuid(), gen_random_uuid(), '{}'";
        assert!(connection.batch_execute(smuggled).await.is_err(), "nothing is put into another account");
    }
    let lifted = "ALTER TABLE wearers DISABLE ROW LEVEL SECURITY";
    assert!(connection.batch_execute(lifted).await.is_err(), "nor is the lock lifted");
}

#[actix_web::test]
async fn an_account_is_made_entered_left_and_removed() {
    let odile = running().await;
    let new = |name: &str, email: &str, password: &str| json!({ "name": name, "email": email, "password": password });
    for (body, path) in [
        (new("", "odile@example.org", PASSWORD), "name"),
        (new("Odile", "no address", PASSWORD), "email"),
        (new("Odile", "odile@example.org", "too short"), "password"),
    ] {
        let (status, problem) = odile.post("/accounts", &body).await;
        assert_eq!((status, &problem["errors"][0]["path"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!(path)));
    }
    odile.sign_up("odile").await;
    let (_, who) = odile.get("/session").await;
    assert_eq!(
        who,
        json!({ "name": "odile", "email": "odile@example.org", "example": false, "household": false })
    );
    let twice = odile.somebody_else().post("/accounts", &new("Other", " ODILE@example.org", PASSWORD)).await;
    assert_eq!((twice.0, &twice.1["type"]), (StatusCode::CONFLICT, &json!("email-taken")));

    // Elsewhere, with the right password and with wrong ones.
    let elsewhere = odile.somebody_else();
    let enter = |email: &str, password: &str| json!({ "email": email, "password": password });
    for body in [enter("odile@example.org", "not this one"), enter("nobody@example.org", PASSWORD)] {
        let (status, problem) = elsewhere.post("/session", &body).await;
        assert_eq!((status, &problem["type"]), (StatusCode::UNAUTHORIZED, &json!("wrong-password")));
    }
    assert_eq!(elsewhere.post("/session", &enter("Odile@Example.org", PASSWORD)).await.0, StatusCode::OK);
    let cookie = elsewhere.client.post(format!("{}/session", odile.base));
    let cookie = cookie.json(&enter("odile@example.org", PASSWORD)).send().await.unwrap();
    let cookie = cookie.headers()["set-cookie"].to_str().unwrap().to_owned();
    assert!(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict"), "{cookie}");

    // A changed password ends every other session.
    let next = "another seven garments";
    let wrong = odile.put("/account/password", &json!({ "old": "guessed", "new": next })).await;
    assert_eq!((wrong.0, &wrong.1["errors"][0]["path"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("old")));
    let changed = odile.put("/account/password", &json!({ "old": PASSWORD, "new": next })).await;
    assert_eq!(changed.0, StatusCode::NO_CONTENT);
    assert_eq!(odile.get("/rail").await.0, StatusCode::OK);
    assert_eq!(elsewhere.get("/rail").await.0, StatusCode::UNAUTHORIZED);

    // Leaving takes everything along.
    odile.wearer_with_skirt().await;
    assert_eq!(
        odile.delete("/account", &json!({ "password": PASSWORD })).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    assert_eq!(odile.delete("/account", &json!({ "password": next })).await.0, StatusCode::NO_CONTENT);
    assert_eq!(odile.get("/session").await.0, StatusCode::UNAUTHORIZED);
    assert!(odile.store.credentials("odile@example.org").await.unwrap().is_none());
    let (status, _) = elsewhere.post("/session", &enter("odile@example.org", next)).await;
    assert_eq!(status, StatusCode::UNAUTHORIZED);
    // The example has no password: nobody can change or remove it.
    let visitor = odile.somebody_else();
    assert_eq!(visitor.post("/example/session", &json!({})).await.0, StatusCode::OK);
    assert_eq!(
        visitor.delete("/account", &json!({ "password": "" })).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}

#[actix_web::test]
async fn passwords_cannot_be_guessed_at_will_nor_sent_from_another_site() {
    let server = running().await;
    server.sign_up("odile").await;
    let guess = json!({ "email": "odile@example.org", "password": "is it this?" });
    let mut last = (StatusCode::OK, Value::Null);
    for _ in 0..12 {
        last = server.somebody_else().post("/session", &guess).await;
    }
    assert_eq!((last.0, &last.1["type"]), (StatusCode::TOO_MANY_REQUESTS, &json!("too-often")));
    assert!(last.1["detail"].as_str().unwrap().starts_with("Try again in "));
    assert_eq!(server.get("/rail").await.0, StatusCode::OK, "whoever is in stays in");

    let path = format!("{}/session", server.base);
    let forged = server.client.delete(path).header("sec-fetch-site", "cross-site").send().await.unwrap();
    assert_eq!(forged.status(), StatusCode::FORBIDDEN);
    assert_eq!(server.get("/session").await.0, StatusCode::OK);
}

#[actix_web::test]
async fn a_household_needs_no_password_and_stays_at_home() {
    let home = serving(true).await;
    let (status, who) = home.get("/session").await;
    assert_eq!((status, &who["household"]), (StatusCode::OK, &json!(true)));
    let (_, garment) = home.wearer_with_skirt().await;
    let sister = home.somebody_else();
    assert_eq!(sister.get(&format!("/garments/{garment}")).await.0, StatusCode::OK, "one rail for all");
    let listener = TcpListener::bind("0.0.0.0:0").unwrap();
    let store = home.store.clone();
    let config = vemble_server::Config {
        listener,
        store,
        secret: vec![7; 64],
        web: None,
        household: true,
        tape: None,
    };
    assert!(vemble_server::serve(config).is_err(), "never beyond loopback");
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
        server.client.post(format!("{}/measurements/read-csv", server.base)).body(text).send()
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
    let (status, stale) = server.put(&path, &body).await;
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
    let mut facts = state["document"]["garment"].clone();
    let (_, over) = server.post("/look-over", &facts).await;
    let settled = over["settled"].as_i64().unwrap();
    facts["levels"][0] = json!({ "level": "waist", "station": "44 cm", "width": { "laid_flat": "33 cm" } });
    let (_, over) = server.post("/look-over", &facts).await;
    assert_eq!(over["settled"], settled + 1);
    let change = |version: i32, archived: bool, facts: &Value| json!({ "version": version, "wearer_id": wearer, "archived": archived, "garment": facts });
    assert_eq!(server.put(&path, &change(1, false, &facts)).await.0, StatusCode::OK);
    let (status, stale) = server.put(&path, &change(1, false, &state["document"]["garment"])).await;
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
    assert_eq!(server.photo(&garment, before, png()).await.0, StatusCode::CONFLICT, "once each");
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

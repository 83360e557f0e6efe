//! A garment's history: corrections, sewing, the record that only grows, and rows of every format that was released.

use super::*;
use futures_util::FutureExt;
use vemble_core::document::{Document, VERSION};
use vemble_core::length::Tape;
use vemble_core::solve::solve;
use vemble_exchange::document::read_document;
use vemble_exchange::text::cards_text;

/// The tables as they were released first, and what was added before garments had a history.
const MIGRATIONS: [(&str, &str); 3] = [
    ("20261123000000", include_str!("../../../vemble-store/migrations/2026-11-23-000000_first/up.sql")),
    (
        "20261124000000",
        include_str!("../../../vemble-store/migrations/2026-11-24-000000_people_and_photos/up.sql"),
    ),
    ("20261125000000", include_str!("../../../vemble-store/migrations/2026-11-25-000000_invitations/up.sql")),
];

/// What an account holds in rows of the first format: every garment of the example of then.
struct Released {
    account: Uuid,
    documents: Vec<Value>,
}

fn quoted(value: &Value) -> String {
    format!("'{}'", value.to_string().replace('\'', "''"))
}

/// A length of a document as a row has it.
fn row_of(measure: &Value) -> (i64, &'static str) {
    let measure: vemble_core::length::Measure = measure.as_str().unwrap().parse().unwrap();
    let unit = match measure.unit {
        vemble_core::length::Unit::Mm => "mm",
        vemble_core::length::Unit::Cm => "cm",
        vemble_core::length::Unit::In => "in",
    };
    (measure.length.nm(), unit)
}

/// Fills an empty database as the first release did.
async fn as_released(database: &str) -> Released {
    let mut connection = AsyncPgConnection::establish(database).await.unwrap();
    let table = "CREATE TABLE __diesel_schema_migrations (version varchar(50) PRIMARY KEY, run_on timestamp NOT NULL DEFAULT now())";
    connection.batch_execute(table).await.unwrap();
    for (version, sql) in MIGRATIONS {
        connection.batch_execute(sql).await.unwrap();
        let done = format!("INSERT INTO __diesel_schema_migrations (version) VALUES ('{version}')");
        connection.batch_execute(&done).await.unwrap();
    }
    let account = Uuid::now_v7();
    let mut sql = format!("INSERT INTO accounts (id, name) VALUES ('{account}', 'Early');");
    let files = std::fs::read_dir("../vemble-exchange/tests/released/v1").unwrap();
    let documents: Vec<Value> =
        files.map(|f| serde_json::from_slice(&std::fs::read(f.unwrap().path()).unwrap()).unwrap()).collect();
    for document in &documents {
        let (wearer, garment) = (Uuid::now_v7(), Uuid::now_v7());
        let mut facts = document["garment"].clone();
        let person = facts.as_object_mut().unwrap().remove("wearer").unwrap();
        sql += &format!(
            "INSERT INTO wearers (account_id, id, facts) VALUES ('{account}', '{wearer}', {});",
            quoted(&person)
        );
        sql += &format!(
            "INSERT INTO garments (account_id, id, wearer_id, facts) VALUES ('{account}', '{garment}', '{wearer}', {});",
            quoted(&facts)
        );
        for try_on in document["try_ons"].as_array().unwrap() {
            let (id, mut facts) = (Uuid::now_v7(), try_on.clone());
            facts.as_object_mut().unwrap().remove("id");
            let mut rows = String::new();
            let none = Vec::new();
            let seams = try_on["alterations"].as_array().unwrap_or(&none);
            for (number, seam) in seams.iter().enumerate() {
                facts["alterations"][number]["readings"] = json!([]);
                for (position, reading) in seam["readings"].as_array().unwrap().iter().enumerate() {
                    let [(station, of_station), (amount, of_amount)] =
                        ["station", "amount"].map(|field| row_of(&reading[field]));
                    let word = |field: &str| reading[field].as_str().unwrap().to_owned();
                    rows += &format!(
                        "INSERT INTO readings VALUES ('{account}', '{}', '{id}', {number}, {position}, '{}', {station}, '{of_station}', {amount}, '{of_amount}', '{}');",
                        Uuid::now_v7(),
                        word("side"),
                        word("how"),
                    );
                }
            }
            sql += &format!(
                "INSERT INTO try_ons (account_id, id, garment_id, facts) VALUES ('{account}', '{id}', '{garment}', {});{rows}",
                quoted(&facts)
            );
        }
    }
    connection.batch_execute(&sql).await.unwrap();
    Released { account, documents }
}

#[actix_web::test]
async fn rows_of_the_first_format_are_brought_up_and_give_the_same_cards() {
    let database = database().await;
    let released = as_released(&database).await;
    let store = Store::open(&database).await.unwrap();
    let stored = store.account(released.account).documents().await.unwrap();
    assert_eq!(stored.len(), released.documents.len());
    for (stored, old) in stored.iter().zip(&released.documents) {
        let file = read_document(old.to_string().as_bytes()).unwrap();
        let name = &file.states[0].garment.name;
        assert_eq!((stored.document.version, stored.document.faults()), (VERSION, vec![]), "{name}");
        let cards = |document: &Document| cards_text(&solve(document, Tape::Cm).unwrap(), None);
        assert_eq!(cards(&stored.document), cards(&file), "{name}");
        // A change writes the present format, and reads back to itself.
        let try_on = stored.document.try_ons.last().unwrap().clone();
        let id = try_on.id.unwrap();
        let keep = |_: Document, _: Option<vemble_store::StoredTryOn>| {
            std::future::ready(Ok::<_, vemble_store::StoreError>(Some(try_on.clone()))).boxed()
        };
        let again = store.account(released.account).change_try_on(stored.id, id, keep).await.unwrap();
        let read = store.account(released.account).try_on(stored.id, id).await.unwrap();
        assert_eq!((again.version, &again.try_on), (2, &read.try_on), "{name}");
        assert_eq!(
            cards(&store.account(released.account).document(stored.id).await.unwrap().document),
            cards(&file)
        );
    }
    // What a newer Vemble wrote is not guessed at.
    let mut connection = AsyncPgConnection::establish(&database).await.unwrap();
    connection.batch_execute("UPDATE try_ons SET format = 9").await.unwrap();
    let refused = store.account(released.account).documents().await.unwrap_err().to_string();
    assert!(refused.contains("format 9 needs a newer Vemble"), "{refused}");
}

/// The body that enters what was sewn.
fn sewn(from: &Value, to: Uuid, garment: &Value) -> Value {
    let what = json!({ "sewn": { "from": from, "to": to } });
    json!({ "entry": { "id": Uuid::now_v7(), "date": "2026-11-20", "what": what }, "garment": garment })
}

#[actix_web::test]
async fn sewing_makes_the_next_state_and_older_try_ons_stay_with_theirs() {
    let (server, garment) = Running::signed_in().await;
    let path = format!("/garments/{garment}");
    let (_, before) = server.get(&path).await;
    let first = &before["document"]["states"][0];
    let cards = async || {
        let (_, state) = server.get(&path).await;
        let mut document = state["document"].clone();
        document["try_ons"] = json!([document["try_ons"][0]]);
        server.post("/solve?cards=true", &document).await.1["try_ons"][0].clone()
    };
    let as_pinned = cards().await;

    // 5 cm are cut off the hem and hemmed anew: every station of the new state is 5 cm less, and the seam shorter.
    let mut shorter = first["garment"].clone();
    for level in shorter["levels"].as_array_mut().unwrap() {
        let cm: f64 = level["station"].as_str().unwrap().trim_end_matches(" cm").parse().unwrap();
        level["station"] = format!("{} cm", (cm - 5.0).max(0.0)).into();
    }
    let outseam =
        shorter["seams"].as_array_mut().unwrap().iter_mut().find(|s| s["seam"] == "outseam").unwrap();
    outseam["length"] = "99 cm".into();
    outseam["in_the_way"] = json!([]);
    let second = Uuid::now_v7();
    let entry = sewn(&first["id"], second, &shorter);
    let (status, after) = server.post(&format!("{path}/record"), &entry).await;
    assert_eq!(status, StatusCode::OK, "{after}");
    let ids = |state: &Value| {
        let states = state["document"]["states"].as_array().unwrap();
        states.iter().map(|s| s["id"].as_str().unwrap().to_owned()).collect::<Vec<_>>()
    };
    assert_eq!(ids(&after), [first["id"].as_str().unwrap().to_owned(), second.to_string()]);
    assert_eq!(after["version"], 2);
    assert_eq!(server.get(&format!("{path}/record")).await.1, json!([entry["entry"]]));
    assert_eq!(cards().await, as_pinned, "cutting a hem moves nothing older");

    // The answer was lost: sent again it is there once. Another from the old state was too late.
    let (status, again) = server.post(&format!("{path}/record"), &entry).await;
    assert_eq!((status, &again), (StatusCode::OK, &after));
    let late = sewn(&first["id"], Uuid::now_v7(), &shorter);
    let (status, stale) = server.post(&format!("{path}/record"), &late).await;
    assert_eq!((status, &stale["stored_garment"]["version"]), (StatusCode::CONFLICT, &json!(2)));
    let mut other = entry.clone();
    other["entry"]["date"] = json!("2026-11-21");
    assert_eq!(
        server.post(&format!("{path}/record"), &other).await.0,
        StatusCode::CONFLICT,
        "an id is one entry's"
    );
    let mut wrong = sewn(&json!(second), Uuid::now_v7(), &shorter);
    wrong["garment"]["levels"][0]["station"] = json!("-1 cm");
    let (status, problem) = server.post(&format!("{path}/record"), &wrong).await;
    assert_eq!(
        (status, &problem["errors"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("garment.levels[0].station"))
    );

    // A new try-on is measured on the new state, in its stations.
    let id = Uuid::now_v7();
    let pin = |station: &str| {
        let reading = json!({ "side": "left", "station": station, "amount": "1 cm", "how": "fold" });
        json!([{ "seam": { "seam": "outseam", "readings": [reading] } }])
    };
    let body = |state: &Value, station: &str| json!({ "version": 0, "try_on": { "state": state, "date": "2026-11-22", "changes": pin(station) } });
    let try_on = format!("{path}/try-ons/{id}");
    let (status, problem) = server.put(&try_on, &body(&json!(second), "101 cm")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(problem["errors"][0]["found"].as_str().unwrap().contains("99.0 cm long"), "{problem}");
    assert_eq!(
        server.put(&try_on, &body(&first["id"], "101 cm")).await.0,
        StatusCode::OK,
        "it was long enough then"
    );
    let nowhere = json!(Uuid::now_v7());
    let (status, problem) =
        server.put(&format!("{path}/try-ons/{}", Uuid::now_v7()), &body(&nowhere, "1 cm")).await;
    assert_eq!(
        (status, &problem["errors"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("try_on.state"))
    );
}

#[actix_web::test]
async fn a_correction_is_a_revision_of_the_same_state_and_its_try_ons_follow() {
    let (server, garment) = Running::signed_in().await;
    let path = format!("/garments/{garment}");
    let (_, before) = server.get(&path).await;
    let state = &before["document"]["states"][0];
    let change = |version: i64, state: &Value, facts: &Value| json!({ "version": version, "wearer_id": before["wearer_id"], "state": state, "garment": facts });
    let mut facts = state["garment"].clone();
    let hem = facts["levels"].as_array_mut().unwrap().iter_mut().find(|l| l["level"] == "hem").unwrap();
    hem["width"] = json!({ "girth": "50 cm" });
    assert_eq!(server.put(&path, &change(1, &state["id"], &facts)).await.0, StatusCode::OK);
    let (_, after) = server.get(&path).await;
    let corrected = &after["document"]["states"];
    assert_eq!(
        (corrected.as_array().unwrap().len(), &corrected[0]["id"], &corrected[0]["revision"]),
        (1, &state["id"], &json!(2))
    );
    let (_, solved) = server.post("/solve", &after["document"]).await;
    let hem =
        solved["try_ons"][0]["levels"].as_array().unwrap().iter().find(|l| l["level"] == "hem").unwrap();
    assert_eq!((&hem["before"]["text"], &hem["after"]["text"]), (&json!("50.0 cm"), &json!("43.3 cm")));
    // Put away, and nothing corrected: no new revision.
    let mut away = change(2, &state["id"], &facts);
    away["archived"] = json!(true);
    assert_eq!(server.put(&path, &away).await.0, StatusCode::OK);
    assert_eq!(server.get(&path).await.1["document"]["states"][0]["revision"], 2);
    // A state that is not there is not made by correcting it.
    assert_eq!(server.put(&path, &change(3, &json!(Uuid::now_v7()), &facts)).await.0, StatusCode::NOT_FOUND);
    assert_eq!(server.get(&path).await.1["version"], 3, "nor is half of that stored");
}

#[actix_web::test]
async fn the_record_can_be_read_and_added_to_and_nothing_else() {
    let (server, garment) = Running::signed_in().await;
    let path = format!("/garments/{garment}");
    let (_, before) = server.get(&path).await;
    let first = &before["document"]["states"][0];
    let entry = sewn(&first["id"], Uuid::now_v7(), &first["garment"]);
    assert_eq!(server.post(&format!("{path}/record"), &entry).await.0, StatusCode::OK);
    let stranger = server.somebody_else();
    assert_eq!(stranger.get(&format!("{path}/record")).await.0, StatusCode::UNAUTHORIZED);
    stranger.sign_up("mallow").await;
    assert_eq!(stranger.get(&format!("{path}/record")).await.0, StatusCode::NOT_FOUND);
    assert_eq!(stranger.post(&format!("{path}/record"), &entry).await.0, StatusCode::NOT_FOUND);
    let mut connection = AsyncPgConnection::establish(&server.database).await.unwrap();
    connection.batch_execute("SET ROLE vemble_app").await.unwrap();
    for refused in
        ["UPDATE record_entries SET facts = '{}'", "DELETE FROM record_entries", "DELETE FROM garment_states"]
    {
        let error = connection.batch_execute(refused).await.unwrap_err().to_string();
        assert!(error.contains("permission denied"), "{refused}: {error}");
    }
    // It goes with its garment, and with nothing less.
    assert_eq!(server.delete(&path, &json!({})).await.0, StatusCode::NO_CONTENT);
}

#[actix_web::test]
async fn a_try_on_that_is_sent_again_from_the_beginning_forgets_nothing() {
    let (server, garment) = Running::signed_in().await;
    let (_, state) = server.get(&format!("/garments/{garment}")).await;
    let mut try_on = state["document"]["try_ons"][0].clone();
    let finding = json!({ "rule": "hang", "change": "seam.outseam" });
    try_on["id"] = Value::Null;
    for reading in try_on["changes"][0]["seam"]["readings"].as_array_mut().unwrap() {
        reading["id"] = json!(Uuid::now_v7());
    }
    try_on["versions"] = json!([{ "name": "looser", "changes": [] }]);
    try_on["passed_over"] = json!([{ "finding": finding, "why": "It is only a trial." }]);
    try_on["chalked"] = json!([{ "change": "seam.outseam", "at": "5 cm" }]);
    try_on["changes"].as_array_mut().unwrap().push(json!({ "elastic": { "casing": "42 cm" } }));
    try_on["left_out"] = json!([
        { "change": "seam.outseam", "side": "left", "level": "hip", "why": "out_of_reach" },
        { "change": "seam.outseam", "side": "right", "level": "hip", "why": "out_of_reach" },
    ]);
    let path = format!("/garments/{garment}/try-ons/{}", Uuid::now_v7());
    let body = json!({ "version": 0, "try_on": try_on });
    let (_, made) = server.put(&path, &body).await;
    assert_eq!((&made["version"], &made["as_sent"]), (&json!(1), &json!(true)), "{made}");
    let (_, again) = server.put(&path, &body).await;
    assert_eq!(again, made, "sent twice is there once");
    // With one thing more, still as if nothing were there: everything is.
    let mut more = body.clone();
    more["try_on"]["shoes"] = json!("black concert shoes");
    let (_, both) = server.put(&path, &more).await;
    for list in ["versions", "passed_over", "chalked", "left_out", "changes"] {
        assert_eq!(both["try_on"][list], made["try_on"][list], "{list}");
    }
    // Back in what one did oneself, with what somebody else entered in between.
    let mut theirs = both["try_on"].clone();
    theirs["movements"] = json!([{ "movement": "sit", "went": "tight" }]);
    let asked = json!({ "from": both["try_on"], "to": [made["try_on"]], "onto": theirs });
    let (status, moved) = server.post("/rebase", &asked).await;
    assert_eq!(
        (status, moved[0].get("shoes"), &moved[0]["movements"]),
        (StatusCode::OK, None, &theirs["movements"])
    );
}

/// What is sent is measured before it is compared: a try-on larger than any costs nobody anything.
#[actix_web::test]
async fn a_try_on_larger_than_any_is_refused_before_it_is_brought_together() {
    let (server, garment) = Running::signed_in().await;
    let (path, mut read) = server.try_on(&garment).await;
    let many = |count: usize| {
        let reading =
            |n| json!({ "side": "left", "station": format!("{n} mm"), "amount": "1 cm", "how": "fold" });
        let readings: Vec<Value> = (0..count).map(reading).collect();
        json!([{ "seam": { "seam": "outseam", "readings": readings } }])
    };
    let small = read["try_on"].clone();
    let mut large = small.clone();
    large["changes"] = many(5_000);
    for body in [
        json!({ "from": large, "to": [small], "onto": small }),
        json!({ "from": small, "to": [small, large], "onto": small }),
        json!({ "from": small, "to": [], "onto": large }),
    ] {
        let (status, problem) = server.post("/rebase", &body).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(problem["errors"][0]["found"].as_str().unwrap().contains("over 200 readings"), "{problem}");
    }
    read["base"] = large;
    assert_eq!(server.put(&path, &read).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    read["base"] = small.clone();
    assert_eq!(server.put(&path, &read).await.0, StatusCode::OK);
    let turned = json!({ "from": small, "to": [small], "onto": small });
    assert_eq!(server.post("/rebase", &turned).await, (StatusCode::OK, json!([small])));
}

#[actix_web::test]
async fn another_version_of_the_interface_is_told_and_its_drafts_are_brought_up() {
    let (server, garment) = Running::signed_in().await;
    let (path, read) = server.try_on(&garment).await;
    // What an older interface sends is refused with its place, and nothing is stored.
    let old = json!({ "version": 1, "try_on": { "date": "2026-10-03", "alterations": [] } });
    let (status, problem) = server.put(&path, &old).await;
    assert_eq!(
        (status, &problem["errors"][0]["path"]),
        (StatusCode::BAD_REQUEST, &json!("try_on.alterations")),
        "{problem}"
    );
    assert_eq!(server.try_on(&garment).await.1, read);
    let draft: Value =
        serde_json::from_str(include_str!("../../../vemble-exchange/tests/released/v1/corduroys.json"))
            .unwrap();
    let (status, document) = server.post("/brought-up", &draft).await;
    assert_eq!((status, &document["version"]), (StatusCode::OK, &json!(2)));
    assert_eq!(document["try_ons"][0]["changes"], read["try_on"]["changes"]);
    let mut later = document.clone();
    later["version"] = json!(3);
    let (status, problem) = server.post("/brought-up", &later).await;
    assert_eq!((status, &problem["errors"][0]["path"]), (StatusCode::BAD_REQUEST, &json!("version")));
    assert_eq!(
        server.get("/words").await.1["why"][0],
        json!({ "value": "out_of_reach", "words": "out of reach" })
    );
}

#[actix_web::test]
async fn fifty_who_make_the_same_try_on_at_once_make_one() {
    let (server, garment) = Running::signed_in().await;
    let on = server.state_of(&garment).await;
    let path = format!("/garments/{garment}/try-ons/{}", Uuid::now_v7());
    let bodies: Vec<Value> = (0..50)
        .map(|n| {
            let station = format!("{n} cm");
            let reading = json!({ "id": Uuid::now_v7(), "side": "left", "station": station, "amount": "1 cm", "how": "fold" });
            let changes = json!([{ "seam": { "seam": "inseam", "readings": [reading] } }]);
            json!({ "version": 0, "try_on": { "state": on, "date": "2026-11-22", "changes": changes } })
        })
        .collect();
    let made = futures_util::future::join_all(bodies.iter().map(|body| server.put(&path, body))).await;
    assert!(made.iter().all(|(status, _)| *status == StatusCode::OK), "{made:?}");
    let (_, stored) = server.get(&path).await;
    assert_eq!(stored["try_on"]["changes"][0]["seam"]["readings"].as_array().unwrap().len(), 50);
    assert_eq!(stored["version"], 50);
}

//! Evenings, plans and the log: who may see them, what is refused, two devices at once, and the calendar that others read.

use super::*;
use std::collections::HashSet;

fn entry(state: &str, task: &str, did: &Value) -> Value {
    json!({ "id": Uuid::now_v7(), "state": state, "at": "2026-11-26T19:30:00Z", "task": task, "did": did })
}

async fn state_of(server: &Running, garment: &str) -> String {
    let document = server.get(&format!("/garments/{garment}")).await.1["document"].clone();
    let states = document["states"].as_array().unwrap();
    states.last().unwrap()["id"].as_str().unwrap().to_owned()
}

#[actix_web::test]
async fn what_cannot_be_undone_is_shut_over_http_too() {
    let (server, garment) = Running::signed_in().await;
    let (path, state) = (format!("/garments/{garment}/log"), state_of(&server, &garment).await);
    let log = async |task: &str, did: Value| {
        server.post(&path, &json!({ "entries": [entry(&state, task, &did)] })).await
    };
    let (status, problem) = log("cut.hem.leg.left", json!("done")).await;
    assert_eq!(
        (status, problem["errors"][0]["path"].as_str()),
        (StatusCode::UNPROCESSABLE_ENTITY, Some("entries[0].task"))
    );
    let fits = |side: &str| json!({ "fits": { "side": side } });
    assert_eq!(log("try_basted.hem.leg", fits("left")).await.0, StatusCode::NO_CONTENT);
    assert_eq!(
        log("cut.hem.leg.left", json!("done")).await.0,
        StatusCode::UNPROCESSABLE_ENTITY,
        "one side only"
    );
    assert_eq!(log("try_basted.hem.leg", fits("right")).await.0, StatusCode::NO_CONTENT);
    assert_eq!(log("cut.hem.leg.left", json!("done")).await.0, StatusCode::NO_CONTENT);
    assert_eq!(
        log("try_basted", json!("pass_anyway")).await.0,
        StatusCode::UNPROCESSABLE_ENTITY,
        "no word why"
    );
    assert_eq!(log("stitch.seam.inseam", json!("done")).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(log("stitch.seam.nowhere", json!("done")).await.0, StatusCode::BAD_REQUEST);
    let ahead = server.get(&format!("/ahead?garment={garment}")).await.1;
    let own = ahead["garments"].as_array().unwrap().iter().find(|g| g["id"] == garment.as_str()).unwrap();
    let stands = |task: &str| {
        own["tasks"].as_array().unwrap().iter().find(|t| t["key"] == task).unwrap()["stands"].clone()
    };
    assert_eq!((stands("cut.hem.leg.left"), stands("cut.hem.leg.right")), (json!("done"), json!("open")));
}

#[actix_web::test]
async fn two_devices_tick_at_once_and_nothing_is_lost_or_doubled() {
    let (server, garment) = Running::signed_in().await;
    let (path, state) = (format!("/garments/{garment}/log"), state_of(&server, &garment).await);
    let same = entry(&state, "chalk.seam.outseam", &json!("done"));
    let other = entry(&state, "baste.seam.outseam", &json!("done"));
    let sends = (0..12).map(|n| {
        let body = json!({ "entries": [if n % 2 == 0 { &same } else { &other }] });
        let (server, path) = (&server, &path);
        async move { server.post(path, &body).await.0 }
    });
    let answers = futures_util::future::join_all(sends).await;
    assert!(answers.iter().all(|status| *status == StatusCode::NO_CONTENT), "{answers:?}");
    let log = server.get(&format!("/garments/{garment}")).await.1["document"]["log"].clone();
    let ids: HashSet<&str> = log.as_array().unwrap().iter().map(|e| e["id"].as_str().unwrap()).collect();
    assert_eq!((log.as_array().unwrap().len(), ids.len()), (2, 2));
}

#[actix_web::test]
async fn evenings_are_one_households_and_wrong_ones_are_named() {
    let (server, garment) = Running::signed_in().await;
    let stored = server.get("/workroom").await.1;
    let (version, mut room) = (stored["version"].clone(), stored["workroom"].clone());
    assert_eq!(room["weekly"].as_array().unwrap().len(), 4);
    let put = async |version: &Value, room: &Value| {
        server.put("/workroom", &json!({ "version": version, "workroom": room })).await
    };
    for (field, wrong) in [
        ("time_zone", json!("Europe/Nowhere")),
        ("currency", json!("pounds")),
        ("weekly", json!([{ "id": Uuid::now_v7(), "day": 9, "start": "19:30:00", "minutes": 0 }])),
    ] {
        let mut other = room.clone();
        other[field] = wrong;
        let (status, problem) = put(&version, &other).await;
        let path = problem["errors"][0]["path"].as_str().unwrap_or_default().to_owned();
        assert_eq!((status, path.starts_with(field)), (StatusCode::UNPROCESSABLE_ENTITY, true), "{problem}");
    }
    // No evenings at all: everything says so.
    room["weekly"] = json!([]);
    let made = put(&version, &room).await;
    assert_eq!(made.0, StatusCode::OK);
    assert_eq!(put(&version, &room).await, made, "sent again it is stored once");
    let (status, stale) = put(&version, &json!({})).await;
    assert_eq!((status, &stale["stored_workroom"]["version"]), (StatusCode::CONFLICT, &made.1["version"]));
    let ahead = server.get("/ahead?ways_out=true").await.1;
    assert!(
        ahead["garments"]
            .as_array()
            .unwrap()
            .iter()
            .any(|g| g["says"].as_str().unwrap().contains("no evenings"))
    );
    // A what-if stores nothing.
    room["weekly"] =
        json!([{ "id": Uuid::now_v7(), "day": 1, "start": "19:30:00", "minutes": 120, "helper": "Bram" }]);
    let (status, other) = server.post("/ahead/what-if", &json!({ "workroom": room })).await;
    assert_eq!((status, other["evenings"].as_array().unwrap().is_empty()), (StatusCode::OK, false));
    assert!(server.get("/ahead").await.1["evenings"].as_array().unwrap().is_empty());
    assert_eq!(server.get("/ahead/now?minutes=0").await.0, StatusCode::BAD_REQUEST);
    let now = server.get("/ahead/now?minutes=45").await.1;
    let used: u64 = now["pieces"].as_array().unwrap().iter().map(|p| p["minutes"].as_u64().unwrap()).sum();
    assert!((1..=45).contains(&used), "{now}");
    // Somebody else has evenings of their own, and nothing of these.
    let stranger = server.somebody_else();
    for path in ["/workroom", "/ahead", "/ahead/now?minutes=30", "/calendar.ics"] {
        assert_eq!(stranger.get(path).await.0, StatusCode::UNAUTHORIZED, "{path}");
    }
    stranger.sign_up("Juno").await;
    assert_eq!(stranger.get("/workroom").await.1["version"], 0);
    assert_eq!(stranger.get("/ahead").await.1["garments"], json!([]));
    let state = state_of(&server, &garment).await;
    let logged = json!({ "entries": [entry(&state, "chalk.seam.outseam", &json!("done"))] });
    let foreign = |what: &str| format!("/garments/{garment}/{what}");
    assert_eq!(stranger.post(&foreign("log"), &logged).await.0, StatusCode::NOT_FOUND);
    assert_eq!(stranger.post(&foreign("history"), &json!({})).await.0, StatusCode::NOT_FOUND);
    assert_eq!(
        stranger.post(&foreign("corrected"), &json!({ "corrections": [] })).await.0,
        StatusCode::NOT_FOUND
    );
    assert_eq!(stranger.get(&foreign("before")).await.0, StatusCode::NOT_FOUND);
    let wishes = json!({ "version": 0, "wishes": {} });
    assert_eq!(stranger.put(&foreign("wishes"), &wishes).await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn a_calendar_is_read_by_its_address_until_it_is_closed() {
    let (server, _) = Running::signed_in().await;
    let stranger = server.somebody_else();
    let (status, opened) = server.post("/calendar", &json!({})).await;
    assert_eq!(status, StatusCode::CREATED);
    let path = opened["path"].as_str().unwrap().strip_prefix("/api/v1").unwrap().to_owned();
    let read = async |path: &str| {
        let answer = stranger.client.get(format!("{}{path}", server.base)).send().await.unwrap();
        (answer.status(), answer.text().await.unwrap())
    };
    let (status, text) = read(&path).await;
    assert_eq!(status, StatusCode::OK);
    assert!(text.starts_with("BEGIN:VCALENDAR\r\n") && text.trim_end().ends_with("END:VCALENDAR"));
    assert!(
        text.contains("BEGIN:VEVENT") && text.lines().all(|line| line.len() <= 75),
        "folded as RFC 5545 asks"
    );
    // Another address closes the one before; closing leaves none.
    let second = server.post("/calendar", &json!({})).await.1["path"].as_str().unwrap().to_owned();
    let second = second.strip_prefix("/api/v1").unwrap();
    assert_eq!(read(&path).await.0, StatusCode::NOT_FOUND);
    assert_eq!(read(second).await.0, StatusCode::OK);
    assert_eq!(server.delete("/calendar", &json!({})).await.0, StatusCode::NO_CONTENT);
    assert_eq!(read(second).await.0, StatusCode::NOT_FOUND);
    assert_eq!(read("/calendar/nothing.ics").await.0, StatusCode::NOT_FOUND);
    assert_eq!(read("/calendar/.ics").await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn sewn_entered_and_taken_back() {
    let (server, _) = Running::signed_in().await;
    let rail = server.get("/rail").await.1;
    let shirt = rail.as_array().unwrap().iter().find(|g| g["kind"] == "knit top").expect("a knit top");
    let path = format!("/garments/{}", shirt["id"].as_str().unwrap());
    let before = server.get(&path).await.1;
    let facts = |garment: &Value| {
        garment["document"]["states"].as_array().unwrap().last().unwrap()["garment"].clone()
    };
    let proposal = server.post(&format!("{path}/history"), &json!({})).await.1["proposal"].clone();
    let changes: Vec<Value> =
        proposal["changes"].as_array().unwrap().iter().map(|c| c["key"].clone()).collect();
    let [sewn, back] = [Uuid::now_v7(), Uuid::now_v7()];
    let to = Uuid::now_v7();
    let what = json!({ "sewn": { "from": proposal["from"], "to": to, "try_on": proposal["try_on"], "changes": changes } });
    let body = json!({ "entry": { "id": sewn, "date": "2026-11-26", "what": what }, "garment": proposal["garment"] });
    let (status, after) = server.post(&format!("{path}/record"), &body).await;
    assert_eq!(status, StatusCode::OK, "{after}");
    assert_ne!(facts(&after), facts(&before));
    assert_eq!(after["go_on"], "record");
    let rail = server.get("/rail").await.1;
    let hung = rail.as_array().unwrap().iter().find(|g| g["kind"] == "knit top").unwrap();
    assert_eq!(hung["next_step"], "Finished");
    // Without the garment it is refused; taken back it is as it was, whatever the client says it is.
    let no_garment = json!({ "entry": { "id": Uuid::now_v7(), "date": "2026-11-26", "what": what } });
    assert_eq!(server.post(&format!("{path}/record"), &no_garment).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    let taken = json!({ "taken_back": { "entry": sewn, "from": to, "to": Uuid::now_v7() } });
    let body =
        json!({ "entry": { "id": back, "date": "2026-11-27", "what": taken }, "garment": facts(&after) });
    let (status, again) = server.post(&format!("{path}/record"), &body).await;
    assert_eq!((status, facts(&again)), (StatusCode::OK, facts(&before)));
    assert_eq!(
        server.post(&format!("{path}/record"), &body).await.0,
        StatusCode::OK,
        "sent twice, entered once"
    );
    let record = server.get(&format!("{path}/record")).await.1;
    assert_eq!(record.as_array().unwrap().len(), 2);
}

#[actix_web::test]
async fn slips_are_remembered_for_whoever_made_them() {
    let odile = running().await;
    // Nobody has to be signed in to practise.
    let (status, round) = odile.get("/practice?number=7&slip=halving").await;
    assert_eq!(status, StatusCode::OK);
    let options = round["options"].as_array().unwrap().len();
    let given = |chosen: usize| json!({ "slip": "halving", "number": 7, "tape": "cm", "chosen": chosen });
    let right = odile.post("/practice", &given(0)).await.1["right"].as_u64().unwrap() as usize;
    odile.sign_up("odile").await;
    let bram = odile.somebody_else();
    bram.sign_up("bram").await;
    for chosen in 0..options {
        let (status, answer) = odile.post("/practice", &given(chosen)).await;
        assert_eq!((status, &answer["is_right"]), (StatusCode::OK, &json!(chosen == right)));
        assert!(!answer["explains"].as_str().unwrap().is_empty());
    }
    let practised = |room: &Value| room["workroom"]["practised"].clone();
    let own = practised(&odile.get("/workroom").await.1);
    assert_eq!(own, json!([{ "slip": "halving", "right": 1, "wrong": options - 1 }]));
    assert_eq!(practised(&bram.get("/workroom").await.1), Value::Null, "it is nobody else's");
    assert_eq!(odile.get("/practice?number=minus").await.0, StatusCode::BAD_REQUEST);
}

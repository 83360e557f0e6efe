//! A try-on that several devices fill in at once: merged, followed on a second screen, helped with by a guest.

use super::*;
use std::time::Duration;

/// What a stream of events has sent so far, and more as it comes.
pub struct Events {
    answer: reqwest::Response,
    text: String,
}

impl Running {
    pub async fn listen(&self, path: &str) -> Events {
        let answer = self.client.get(format!("{}{path}", self.base)).send().await.unwrap();
        assert_eq!(answer.headers()["content-type"], "text/event-stream");
        let mut events = Events { answer, text: String::new() };
        assert_eq!(events.next().await, json!({ "again": {} }), "whoever comes later looks first");
        events
    }
}

impl Events {
    /// The next event; signs of life are no events, nor is being told again to look.
    pub async fn next(&mut self) -> Value {
        self.until_end().await.expect("the stream goes on")
    }

    async fn until_end(&mut self) -> Option<Value> {
        loop {
            if let Some((event, rest)) =
                self.text.split_once("\n\n").map(|(e, r)| (e.to_owned(), r.to_owned()))
            {
                self.text = rest;
                if let Some(data) = event.strip_prefix("data: ") {
                    return Some(serde_json::from_str(data).unwrap());
                }
                continue;
            }
            let chunk = tokio::time::timeout(Duration::from_secs(20), self.answer.chunk()).await;
            let chunk = chunk.expect("an event within 20 s").unwrap()?;
            self.text.push_str(std::str::from_utf8(&chunk).unwrap());
        }
    }

    /// The next event that is not only "look again".
    pub async fn news(&mut self) -> Value {
        let told = async {
            loop {
                let event = self.next().await;
                if event.get("again").is_none() {
                    return event;
                }
            }
        };
        tokio::time::timeout(Duration::from_secs(90), told).await.expect("news within 90 s")
    }
}

fn reading(side: &str, station: &str, amount: &str) -> Value {
    json!({ "id": Uuid::now_v7(), "side": side, "station": station, "amount": amount, "how": "fold" })
}

/// The change that adds readings to what was read.
fn adding(read: &Value, readings: &[Value]) -> Value {
    let mut change = read.clone();
    change["base"] = read["try_on"].clone();
    let list = change["try_on"]["changes"][0]["seam"]["readings"].as_array_mut().unwrap();
    list.extend_from_slice(readings);
    change
}

fn amounts(state: &Value) -> Vec<(String, String)> {
    let readings = state["try_on"]["changes"][0]["seam"]["readings"].as_array().unwrap();
    let text = |value: &Value| value.as_str().unwrap().to_owned();
    readings.iter().map(|r| (text(&r["station"]), text(&r["amount"]))).collect()
}

#[actix_web::test]
async fn what_two_devices_enter_is_brought_together_and_what_is_sent_twice_is_there_once() {
    let (server, garment) = Running::signed_in().await;
    let (path, read) = server.try_on(&garment).await;
    let before = amounts(&read).len();
    let phone = adding(&read, &[reading("right", "10 cm", "1.1 cm")]);
    let laptop = adding(&read, &[reading("right", "30 cm", "1.3 cm")]);
    assert_eq!(server.put(&path, &phone).await.0, StatusCode::OK);
    let (status, both) = server.put(&path, &laptop).await;
    assert_eq!((status, amounts(&both).len()), (StatusCode::OK, before + 2), "{both}");
    // The answer was lost, and the phone sends the same again.
    let (status, again) = server.put(&path, &phone).await;
    assert_eq!((status, &again), (StatusCode::OK, &both), "not even a new version");

    // Both change the same pin: named, and nothing stored until somebody decides.
    let (_, read) = server.try_on(&garment).await;
    let with = |amount: &str| {
        let mut change = adding(&read, &[]);
        change["try_on"]["changes"][0]["seam"]["readings"][0]["amount"] = json!(amount);
        change
    };
    assert_eq!(server.put(&path, &with("3.1 cm")).await.0, StatusCode::OK);
    let mut mine = with("2.9 cm");
    let (status, problem) = server.put(&path, &mine).await;
    assert_eq!((status, &problem["type"]), (StatusCode::CONFLICT, &json!("stale")));
    assert_eq!(
        problem["apart"],
        json!([{ "what": "outseam, garment’s left at 0.0 cm", "mine": "2.9 cm", "theirs": "3.1 cm" }])
    );
    assert_eq!(amounts(&problem["stored"])[0].1, "3.1 cm");
    mine["prefer"] = json!("mine");
    let (_, decided) = server.put(&path, &mine).await;
    assert_eq!((amounts(&decided)[0].1.as_str(), amounts(&decided).len()), ("2.9 cm", before + 2));

    // A new try-on whose first answer was lost is sent again, with one pin more.
    let path = format!("/garments/{garment}/try-ons/{}", Uuid::now_v7());
    let first = reading("left", "0 cm", "1 cm");
    let on = server.state_of(&garment).await;
    let made = |readings: Vec<&Value>| {
        let changes = json!([{ "seam": { "seam": "inseam", "readings": readings } }]);
        json!({ "version": 0, "try_on": { "state": on, "date": "2026-10-12", "changes": changes } })
    };
    assert_eq!(server.put(&path, &made(vec![&first])).await.0, StatusCode::OK);
    let second = reading("left", "20 cm", "0.8 cm");
    let (status, state) = server.put(&path, &made(vec![&first, &second])).await;
    assert_eq!((status, amounts(&state).len()), (StatusCode::OK, 2), "{state}");
    assert_eq!(server.delete(&path, &json!({})).await.0, StatusCode::NO_CONTENT);
    assert_eq!(server.get(&path).await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn fifty_at_once_lose_nothing() {
    let (server, garment) = Running::signed_in().await;
    let (path, read) = server.try_on(&garment).await;
    let before = amounts(&read).len();
    let changes: Vec<Value> = (0..50)
        .map(|n| {
            adding(
                &read,
                &[reading(if n % 2 == 0 { "left" } else { "right" }, &format!("{}.3 cm", n + 1), "1 cm")],
            )
        })
        .collect();
    let sending = changes.iter().map(async |change| {
        // Whoever met too many others at once tries again, as the browser does.
        loop {
            let (status, answer) = server.put(&path, change).await;
            if status != StatusCode::SERVICE_UNAVAILABLE {
                assert_eq!(status, StatusCode::OK, "{answer}");
                break;
            }
        }
    });
    futures_util::future::join_all(sending).await;
    let after = amounts(&server.try_on(&garment).await.1);
    let mut distinct = after.clone();
    distinct.sort();
    distinct.dedup();
    assert_eq!((after.len(), distinct.len()), (before + 50, before + 50));
}

#[actix_web::test]
async fn a_second_screen_follows_across_instances() {
    let (here, garment) = Running::signed_in().await;
    // The session that began at one instance goes on at the other.
    let there = here.at(&serving_on(here.database.clone(), false, None).await);
    let stranger = there.somebody_else();
    stranger.sign_up("juno").await;
    let (mut events, mut others) = (there.listen("/events").await, stranger.listen("/events").await);
    let (path, read) = here.try_on(&garment).await;
    let try_on = path.rsplit('/').next().unwrap().to_owned();
    here.put(&path, &adding(&read, &[reading("left", "12 cm", "1 cm")])).await;
    let version = read["version"].as_i64().unwrap() + 1;
    assert_eq!(
        events.news().await,
        json!({ "try_on": { "garment": garment, "try_on": try_on, "version": version } })
    );
    let asked = json!({ "step": "pins.knee", "change": "seam.outseam", "side": "left", "typed": "1.4 cm" });
    assert_eq!(here.post(&format!("/try-ons/{try_on}/asked"), &asked).await.0, StatusCode::NO_CONTENT);
    assert_eq!(
        events.news().await,
        json!({ "asked": { "try_on": try_on, "step": "pins.knee", "change": "seam.outseam", "side": "left", "typed": "1.4 cm" } })
    );
    // Somebody else hears only of their own.
    let (_, skirt) = stranger.wearer_with_skirt().await;
    let on = stranger.state_of(&skirt).await;
    let own = json!({ "version": 0, "try_on": { "state": on, "date": "2026-10-12" } });
    let id = Uuid::now_v7();
    assert_eq!(stranger.put(&format!("/garments/{skirt}/try-ons/{id}"), &own).await.0, StatusCode::OK);
    for wanted in ["wearer", "garment"] {
        assert_eq!(others.news().await[wanted]["version"], json!(1));
    }
    assert_eq!(others.news().await["try_on"]["try_on"], json!(id));
    // What is removed is told too, by its id.
    let removed = |what: &str, id: &Value| json!({ what: { what: id, "version": null } });
    stranger.delete(&format!("/garments/{skirt}"), &json!({})).await;
    assert_eq!(others.news().await, removed("garment", &json!(skirt)));
    let long = json!({ "step": "x".repeat(61) });
    assert_eq!(
        here.post(&format!("/try-ons/{try_on}/asked"), &long).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}

#[actix_web::test]
async fn a_helper_adds_to_one_try_on_and_to_nothing_else_until_it_is_over() {
    let (server, garment) = Running::signed_in().await;
    let (path, read) = server.try_on(&garment).await;
    let invite = async |may_add| {
        let (status, invited) =
            server.post(&format!("{path}/invitations"), &json!({ "may_add": may_add })).await;
        assert_eq!(status, StatusCode::CREATED);
        (invited["id"].as_str().unwrap().to_owned(), invited["code"].as_str().unwrap().to_owned())
    };
    let (_, code) = invite(true).await;
    let (screen_id, screen_code) = invite(false).await;

    let helper = server.somebody_else();
    assert_eq!(helper.get("/guest").await.0, StatusCode::GONE, "nobody was invited yet");
    // As somebody types it who was told it.
    let typed = code.to_lowercase().replace('-', " ");
    let (status, state) = helper.post("/guest", &json!({ "code": typed })).await;
    assert_eq!((status, &state["may_add"]), (StatusCode::OK, &json!(true)));
    assert!(state["document"]["wearer"]["measurements"].as_array().unwrap().is_empty());
    assert_eq!(state["document"]["try_ons"], json!([read["try_on"]]), "this one and no other");

    let screen = server.somebody_else();
    assert_eq!(screen.post("/guest", &json!({ "code": screen_code })).await.0, StatusCode::OK);
    let mut follows = screen.listen("/guest/events").await;

    let mut change = adding(&read, &[reading("right", "15 cm", "1.2 cm")]);
    change["try_on"]["closed"] = json!(true);
    assert_eq!(helper.put("/guest/try-on", &change).await.0, StatusCode::OK);
    assert!(follows.news().await.get("try_on").is_some());
    let (_, seen) = screen.get("/guest").await;
    let shown = json!({ "try_on": seen["document"]["try_ons"][0] });
    assert!(amounts(&shown).contains(&("15 cm".into(), "1.2 cm".into())));
    assert_eq!(shown["try_on"].get("closed"), None, "a helper does not close it");
    assert_eq!(helper.post("/guest/asked", &json!({ "step": "pins.hip" })).await.0, StatusCode::NO_CONTENT);
    assert_eq!(follows.news().await["asked"]["step"], "pins.hip");

    // Looking on is all a second screen does; and neither of them is signed in.
    for (path, status) in
        [("/guest/try-on", StatusCode::FORBIDDEN), (path.as_str(), StatusCode::UNAUTHORIZED)]
    {
        assert_eq!(screen.put(path, &change).await.0, status, "{path}");
    }
    assert_eq!(screen.post("/guest/asked", &json!({ "step": "x" })).await.0, StatusCode::FORBIDDEN);
    for path in ["/rail", "/wearers", "/events", &format!("/garments/{garment}"), "/tape"] {
        assert_eq!(helper.get(path).await.0, StatusCode::UNAUTHORIZED, "{path}");
    }
    // A stranger neither invites to it nor ends what they were not given.
    let stranger = server.somebody_else();
    stranger.sign_up("mallow").await;
    let own = format!("{path}/invitations");
    assert_eq!(stranger.post(&own, &json!({ "may_add": true })).await.0, StatusCode::NOT_FOUND);
    assert_eq!(
        stranger.delete(&format!("/invitations/{screen_id}"), &json!({})).await.0,
        StatusCode::NOT_FOUND
    );

    // Taken back: the screen is out, the helper is not.
    assert_eq!(
        server.delete(&format!("/invitations/{screen_id}"), &json!({})).await.0,
        StatusCode::NO_CONTENT
    );
    assert_eq!(
        (screen.get("/guest").await.0, helper.get("/guest").await.0),
        (StatusCode::GONE, StatusCode::OK)
    );

    // Closed: it is over for everybody who was invited, and their streams end.
    let mut hears = helper.listen("/guest/events").await;
    let (_, now) = server.try_on(&garment).await;
    let mut over = adding(&now, &[]);
    over["try_on"]["closed"] = json!(true);
    assert_eq!(server.put(&path, &over).await.0, StatusCode::OK);
    while hears.until_end().await.is_some() {}
    assert_eq!(helper.put("/guest/try-on", &change).await.0, StatusCode::GONE);
    let (status, problem) = helper.get("/guest").await;
    assert_eq!((status, &problem["type"]), (StatusCode::GONE, &json!("over")));
    assert_eq!(server.post(&own, &json!({ "may_add": true })).await.0, StatusCode::GONE);
    assert_eq!(helper.post("/guest", &json!({ "code": code })).await.0, StatusCode::NOT_FOUND);
    // Guessing codes at random is counted.
    let mut answers = Vec::new();
    for n in 0..12 {
        answers.push(helper.post("/guest", &json!({ "code": format!("AAAA-222{}", n % 10) })).await.0);
    }
    assert_eq!(answers.last(), Some(&StatusCode::TOO_MANY_REQUESTS));
}

#[actix_web::test]
async fn what_follows_from_a_try_on_is_derived_for_anybody() {
    let server = running().await;
    let document: Value = serde_json::from_str(DEMO).unwrap();
    let (status, asking) = server.post("/asking?tape=in", &document).await;
    assert_eq!((status, &asking["steps"][0]["key"]), (StatusCode::OK, &json!("pins.waist")));
    let (status, table) = server.post("/comparison", &document).await;
    assert_eq!((status, table["columns"].as_array().unwrap().len()), (StatusCode::OK, 1));
    let side = |t: &Value| t["changes"][0]["seam"]["readings"][0]["side"].clone();
    let turn =
        json!({ "try_on": document["try_ons"][0], "worn": "right_side_out", "meant": "sides_of_wearer" });
    let (status, turned) = server.post("/turned", &turn).await;
    assert_eq!((status, side(&turned)), (StatusCode::OK, json!("right")));
    assert_eq!(side(&document["try_ons"][0]), json!("left"));
    let unasked = json!({ "try_on": document["try_ons"][0], "worn": "right_side_out" });
    assert_eq!(server.post("/turned", &unasked).await, (StatusCode::OK, Value::Null), "somebody must say it");
    let mut wrong = document.clone();
    wrong["try_ons"][0]["hem_marks"] = json!([{ "id": Uuid::now_v7(), "edge": "leg", "side": "left", "around": "side", "how": "turn_up", "amount": "-1 cm" }]);
    let (status, problem) = server.post("/asking", &wrong).await;
    assert_eq!(
        (status, &problem["errors"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("try_ons[0].hem_marks[0].amount"))
    );
}

/// A hem is kept and given back as it was sent, and what cannot be is named by its field, in the unit of the page.
#[actix_web::test]
async fn a_hem_is_kept_as_it_was_entered_or_refused_by_its_field() {
    let (server, garment) = Running::signed_in().await;
    let (path, stored) = server.try_on(&garment).await;
    let with = |hem: Value| {
        let mut try_on = stored["try_on"].clone();
        try_on["changes"] = json!([{ "hem": hem }]);
        json!({ "version": stored["version"], "try_on": try_on })
    };
    for (hem, field) in [
        (json!({ "hem": "body" }), "hem"),
        (json!({ "hem": "leg", "off": "110 cm" }), "off"),
        (json!({ "hem": "leg", "clearance": "300 cm" }), "clearance"),
        (json!({ "hem": "leg", "turns": ["1 cm", "0 cm"] }), "turns[1]"),
        (json!({ "hem": "leg", "turns": ["1 cm", "1 cm", "1 cm", "1 cm"] }), "turns"),
    ] {
        let (status, problem) = server.put(&format!("{path}?tape=in"), &with(hem)).await;
        let found = problem["errors"][0]["path"].as_str().unwrap_or_default().to_owned();
        let wanted = format!("try_on.changes[0].hem.{field}");
        assert_eq!((status, found), (StatusCode::UNPROCESSABLE_ENTITY, wanted), "{problem}");
    }
    let hem = json!({ "hem": "leg", "off": "2 1/4 in", "turn": "double", "turns": ["1 cm", "3/8 in"], "cutting": "never" });
    let (status, kept) = server.put(&path, &with(hem.clone())).await;
    assert_eq!((status, &kept["try_on"]["changes"][0]["hem"]), (StatusCode::OK, &hem));
}

#[actix_web::test]
async fn cards_are_fetched_as_files_by_their_owner_only() {
    let (server, garment) = Running::signed_in().await;
    let (try_on, _) = server.try_on(&garment).await;
    let fetch = async |who: &Running, query: &str| {
        let answer = who.client.get(format!("{}{try_on}/cards?{query}", who.base)).send().await.unwrap();
        let header = |name: &str| answer.headers().get(name).map(|v| v.to_str().unwrap().to_owned());
        let kind = [header("content-type"), header("content-disposition")].map(Option::unwrap_or_default);
        (answer.status(), kind, answer.bytes().await.unwrap())
    };
    let (status, [kind, name], pdf) = fetch(&server, "format=pdf&card=seam.outseam&paper=letter").await;
    assert_eq!((status, &kind[..]), (StatusCode::OK, "application/pdf"));
    assert_eq!(name, "attachment; filename=\"chalk-card-seam-outseam.pdf\"");
    assert!(pdf.starts_with(b"%PDF-"));
    // The figures of the screen, and of the tape that is asked for.
    let document: Value = serde_json::from_str(DEMO).unwrap();
    let (_, solved) = server.post("/solve?cards=true", &document).await;
    let (_, [kind, _], csv) = fetch(&server, "format=csv&tape=cm").await;
    let csv = String::from_utf8(csv.to_vec()).unwrap();
    let cards = solved["try_ons"][0]["cards"].as_array().unwrap();
    let blocks = cards.iter().flat_map(|card| card["blocks"].as_array().unwrap());
    let rows: usize = blocks.filter_map(|b| b["table"]["rows"].as_array()).map(Vec::len).sum();
    assert_eq!(
        (&kind[..], csv.lines().count()),
        ("text/csv; charset=utf-8", 1 + rows),
        "a line for each row"
    );
    // Its line at true size, for each of three readers.
    for (format, mime, begins) in [
        ("true_size_pdf", "application/pdf", &b"%PDF"[..]),
        ("true_size_svg", "image/svg+xml", b"<svg"),
        ("true_size_dxf", "image/vnd.dxf", b"  0"),
    ] {
        let (status, [kind, name], file) =
            fetch(&server, &format!("format={format}&card=seam.outseam&paper=a4")).await;
        assert_eq!((status, &kind[..]), (StatusCode::OK, mime));
        assert!(name.contains("true-size-seam-outseam."), "{name}");
        assert!(file.starts_with(begins), "{format}");
    }
    let (_, [kind, _], text) = fetch(&server, "format=text&tape=in&card=seam.outseam").await;
    assert_eq!(kind, "text/plain; charset=utf-8");
    assert!(String::from_utf8_lossy(&text).contains("Hem, left leg: opening 16 1/4 in (now 19 in)"));
    for (query, wanted) in [
        ("format=pdf&card=elastic.waistband", StatusCode::NOT_FOUND),
        ("format=pdf&card=elastic", StatusCode::BAD_REQUEST),
        ("format=dxf", StatusCode::BAD_REQUEST),
        ("format=pdf&paper=a0", StatusCode::BAD_REQUEST),
    ] {
        assert_eq!(fetch(&server, query).await.0, wanted, "{query}");
    }
    let stranger = server.somebody_else();
    assert_eq!(fetch(&stranger, "format=pdf").await.0, StatusCode::UNAUTHORIZED);
    stranger.sign_up("stranger").await;
    assert_eq!(fetch(&stranger, "format=pdf").await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn a_photo_that_is_cut_off_is_not_stored() {
    use tokio::io::{AsyncReadExt, AsyncWriteExt};
    let (server, garment, cookie) = Running::entered().await;
    let (path, _) = server.try_on(&garment).await;
    let try_on = path.rsplit('/').next().unwrap();
    let id = Uuid::now_v7();
    assert_eq!(server.photo(&garment, id, png()).await.0, StatusCode::CREATED);
    let whole =
        format!("{}/garments/{garment}/photos/{}?moment=detail&try_on={try_on}", server.base, Uuid::now_v7());
    let sent =
        server.client.put(&whole).header("content-type", "image/png").body(png()).send().await.unwrap();
    assert_eq!(sent.status(), StatusCode::CREATED);
    // A second one breaks off after half of its bytes.
    let (half, cut) = (png(), Uuid::now_v7());
    let url = reqwest::Url::parse(&server.base).unwrap();
    let mut socket = tokio::net::TcpStream::connect(("127.0.0.1", url.port().unwrap())).await.unwrap();
    let head = format!(
        "PUT /api/v1/garments/{garment}/photos/{cut}?moment=detail HTTP/1.1\r\nhost: localhost\r\ncookie: {cookie}\r\ncontent-type: image/png\r\ncontent-length: {}\r\n\r\n",
        half.len()
    );
    socket.write_all(head.as_bytes()).await.unwrap();
    socket.write_all(&half[..half.len() / 2]).await.unwrap();
    socket.shutdown().await.unwrap();
    let mut answer = Vec::new();
    drop(socket.read_to_end(&mut answer).await);
    let (_, photos) = server.get(&format!("/garments/{garment}/photos")).await;
    let photos = photos.as_array().unwrap();
    assert_eq!(photos.len(), 2);
    assert!(photos.iter().all(|p| p["id"] != json!(cut)));
    assert_eq!(photos[1]["try_on"], json!(try_on));
}

//! The whole interface, operation by operation, as it describes itself: who may call it, and what it says to nonsense.

use super::*;
use reqwest::Method;

/// What anybody may call who reaches the server; whatever is not named here wants somebody who is signed in.
const OPEN_TO_ALL: [&str; 35] = [
    "GET /doors",
    "GET /calendar/{code}.ics",
    "GET /health",
    "GET /words",
    "GET /terms",
    "GET /kinds",
    "GET /cloths",
    "GET /measurements",
    "GET /length",
    "POST /garments/begin",
    "POST /look-over",
    "POST /stand",
    "POST /signs",
    "GET /practice",
    "POST /practice",
    "POST /asking",
    "POST /comparison",
    "POST /turned",
    "POST /rebase",
    "POST /brought-up",
    "POST /methods",
    "POST /charts",
    "POST /solve",
    // Coming in and going out.
    "POST /accounts",
    "POST /session",
    "DELETE /session",
    "POST /example/session",
    "GET /session",
    "POST /guest",
    // Whoever joined by a code; nobody else gets further than being told that it is over.
    "GET /guest",
    "GET /guest/events",
    "PUT /guest/try-on",
    "POST /guest/asked",
    "GET /events",
    "GET /tape",
];
/// Of these a stranger is told that they are signed out, though they change nothing.
const ASKED_WHO: [&str; 3] = ["GET /session", "GET /events", "GET /tape"];
const OVER: [&str; 4] = ["GET /guest", "GET /guest/events", "PUT /guest/try-on", "POST /guest/asked"];

struct Operation {
    method: Method,
    /// Below `/api/v1`, with ids that nothing has.
    path: String,
    /// `PUT /garments/{garment}`
    name: String,
    body: Option<String>,
    takes_tape: bool,
    statuses: Vec<u16>,
}

async fn operations(server: &Running) -> Vec<Operation> {
    let root = server.base.trim_end_matches("/v1");
    let answer = server.client.get(format!("{root}/openapi.json")).send().await.unwrap();
    let description: Value = answer.json().await.unwrap();
    let of_path = |(path, methods): (&String, &Value)| {
        let path = path.strip_prefix("/api/v1").unwrap().to_owned();
        let of_method = |(method, said): (&String, &Value)| {
            let parts = path.split('/').map(|part| match part.starts_with('{') {
                true => Uuid::now_v7().to_string(),
                false => part.to_owned(),
            });
            let known = [
                ("moment", "before"),
                ("text", "4 cm"),
                ("format", "text"),
                ("read_as", "svg"),
                ("number", "7"),
            ];
            let parameters = said["parameters"].as_array().cloned().unwrap_or_default();
            let needed = |(name, _): &(&str, &str)| parameters.iter().any(|p| p["name"] == *name);
            let query: Vec<String> =
                known.into_iter().filter(needed).map(|(name, value)| format!("{name}={value}")).collect();
            let body = said.pointer("/requestBody/content").and_then(Value::as_object);
            Operation {
                method: method.to_uppercase().parse().unwrap(),
                path: format!("{}?{}", parts.collect::<Vec<_>>().join("/"), query.join("&")),
                name: format!("{} {path}", method.to_uppercase()),
                body: body.and_then(|content| content.keys().next().cloned()),
                takes_tape: parameters.iter().any(|p| p["name"] == "tape"),
                statuses: said["responses"].as_object().unwrap().keys().map(|s| s.parse().unwrap()).collect(),
            }
        };
        methods.as_object().unwrap().iter().map(of_method).collect::<Vec<_>>()
    };
    description["paths"].as_object().unwrap().iter().flat_map(of_path).collect()
}

impl Running {
    /// Sends it; what comes back is a problem that says what to do, or no error.
    async fn send(&self, operation: &Operation, content_type: &str, body: Vec<u8>) -> u16 {
        let request =
            self.client.request(operation.method.clone(), format!("{}{}", self.base, operation.path));
        let answer = request.header("content-type", content_type).body(body).send().await.unwrap();
        let (status, name) = (answer.status().as_u16(), &operation.name);
        assert!(status < 500, "{name}: {status}");
        if status >= 400 {
            let kind = answer.headers()["content-type"].to_str().unwrap().to_owned();
            let text = answer.text().await.unwrap();
            assert_eq!(kind, "application/problem+json", "{name}: {status} {text}");
            let problem: Value = serde_json::from_str(&text).unwrap();
            assert_eq!(problem["status"], json!(status), "{name}");
            for field in ["type", "title", "detail"] {
                assert!(!problem[field].as_str().unwrap_or_default().is_empty(), "{name}: {problem}");
            }
        }
        assert!(operation.statuses.contains(&status), "{name} does not say that it may answer {status}");
        status
    }
}

#[actix_web::test]
async fn whoever_is_not_signed_in_reaches_what_is_open_to_all_and_nothing_else() {
    let server = running().await;
    let all = operations(&server).await;
    assert_eq!(OPEN_TO_ALL.iter().filter(|open| all.iter().all(|o| o.name != **open)).count(), 0);
    for operation in &all {
        // Each time somebody new: one of these opens the example.
        let status = server.somebody_else().send(operation, "application/json", b"{}".to_vec()).await;
        let name = &operation.name[..];
        let is_open = OPEN_TO_ALL.contains(&name) && !ASKED_WHO.contains(&name);
        match status {
            401 => assert!(!is_open, "{name} is not open"),
            410 => assert!(OVER.contains(&name), "{name}: over"),
            _ => assert!(is_open && !OVER.contains(&name), "{name} is open: {status}"),
        }
    }
}

/// What another account answers to, though it names what is not its own: it says and does nothing of it.
const SAYS_NOTHING: [&str; 4] = [
    "GET /garments/{garment}/photos",
    "GET /try-ons/{try_on}/invitations",
    // Told to one's own second screens only.
    "POST /try-ons/{try_on}/asked",
    // Of a wearer as they are sent.
    "POST /wearers/{wearer}/view",
];

/// Every route that names something, with the ids of somebody who has it: nobody else reads, changes or removes it. A route that is new needs a
/// body here that would be taken from its owner.
#[actix_web::test]
async fn nobody_reaches_what_is_not_theirs() {
    let odile = running().await;
    odile.sign_up("odile").await;
    let (wearer, garment) = odile.wearer_with_skirt().await;
    let (try_on, photo) = (Uuid::now_v7().to_string(), Uuid::now_v7());
    let (_, state) = odile.get(&format!("/garments/{garment}")).await;
    let (facts, on) = (&state["document"]["states"][0]["garment"], &state["document"]["states"][0]["id"]);
    let pinned = json!({ "date": "2026-10-03", "state": on, "changes": [{ "seam": { "seam": "side_seam", "readings": [
        { "id": Uuid::now_v7(), "side": "left", "station": "10 cm", "amount": "1 cm", "how": "fold" },
    ] } }] });
    let made = json!({ "version": 0, "try_on": pinned });
    let at = format!("/garments/{garment}/try-ons/{try_on}");
    assert_eq!(odile.put(&at, &made).await.0, StatusCode::OK);
    assert_eq!(odile.photo(&garment, photo, png()).await.0, StatusCode::CREATED);
    let invited = odile.post(&format!("{at}/invitations"), &json!({ "may_add": true })).await.1;
    let session = odile.get("/sessions").await.1[0]["id"].clone();
    let ids = [
        ("{garment}", &garment[..]),
        ("{other}", &garment),
        ("{wearer}", &wearer),
        ("{try_on}", &try_on),
        ("{photo}", &photo.to_string()),
        ("{invitation}", invited["id"].as_str().unwrap()),
        ("{session}", session.as_str().unwrap()),
        ("{code}", "0000"),
    ];
    let somebody = json!({ "name": "Somebody else" });
    let spent = json!({ "id": Uuid::now_v7(), "date": "2026-11-20", "what": { "worn": { "times": 1 } } });
    let bodies = [
        (
            "PUT /garments/{garment}",
            json!({ "version": 1, "wearer_id": wearer, "state": on, "garment": facts }),
        ),
        ("PUT /garments/{garment}/try-ons/{try_on}", json!({ "version": 1, "try_on": pinned })),
        ("POST /garments/{garment}/try-ons/{try_on}/invitations", json!({ "may_add": true })),
        ("POST /garments/{garment}/record", json!({ "entry": spent })),
        ("PUT /garments/{garment}/wishes", json!({ "version": 0, "wishes": {} })),
        ("POST /garments/{garment}/sizes", json!({ "pattern": {} })),
        ("POST /garments/{garment}/pieces", json!({ "pattern": {} })),
        ("POST /garments/{garment}/log", json!({ "entries": [] })),
        ("POST /garments/{garment}/corrected", json!({ "corrections": [] })),
        ("POST /garments/{garment}/history", json!({})),
        ("POST /try-ons/{try_on}/asked", json!({ "step": "pins.waist" })),
        ("PUT /photos/{photo}", json!({ "moment": "after", "caption": "mine now" })),
        ("PUT /wearers/{wearer}", json!({ "version": 1, "wearer": somebody })),
        ("POST /wearers/{wearer}/view", somebody.clone()),
    ];
    let bram = odile.somebody_else();
    bram.sign_up("bram").await;
    let before = odile.archive("/account/archive").await;
    let all = operations(&odile).await;
    for operation in all.iter().filter(|operation| operation.name.contains('{')) {
        let name = &operation.name[..];
        let (method, path) = name.split_once(' ').unwrap();
        let path = ids.iter().fold(path.to_owned(), |path, (what, id)| path.replace(what, id));
        assert!(!path.contains('{'), "{name}: what does it name?");
        let query = operation.path.split_once('?').map_or("", |(_, query)| query);
        let body =
            bodies.iter().find(|(known, _)| *known == name).map(|(_, body)| body.to_string().into_bytes());
        let (kind, body) = match &operation.body {
            None => ("application/json", vec![]),
            Some(kind) if kind == "image/*" => ("image/png", png()),
            Some(_) => (
                "application/json",
                body.unwrap_or_else(|| panic!("{name}: a body that its owner could send")),
            ),
        };
        let request = bram.client.request(method.parse().unwrap(), format!("{}{path}?{query}", bram.base));
        let answer = request.header("content-type", kind).body(body).send().await.unwrap();
        let (status, text) = (answer.status().as_u16(), answer.text().await.unwrap());
        if SAYS_NOTHING.contains(&name) {
            assert!(
                status < 300 && !text.contains(&garment) && !text.contains("Juno"),
                "{name}: {status} {text}"
            );
        } else {
            assert_eq!(status, 404, "{name}: {text}");
        }
    }
    // A garment of one's own cannot be hung on somebody else's wearer.
    let mine = json!({ "version": 0, "wearer_id": wearer, "garment": facts, "state": on });
    assert_eq!(bram.put(&format!("/garments/{}", Uuid::now_v7()), &mine).await.0, StatusCode::NOT_FOUND);
    assert_eq!(odile.archive("/account/archive").await, before, "nothing of it moved");
}

#[actix_web::test]
async fn nonsense_is_refused_with_a_reason_wherever_it_is_sent() {
    let server = running().await;
    server.sign_up("odile").await;
    let deep = [vec![b'['; 100_000], vec![b']'; 100_000]].concat();
    let nonsense: [(&str, Vec<u8>); 9] = [
        ("nothing", vec![]),
        ("cut off", b"{\"version\": 1".to_vec()),
        ("a list", b"[]".to_vec()),
        ("null", b"null".to_vec()),
        ("a number", b"1e999".to_vec()),
        ("something else", b"{\"x\": {\"y\": []}}".to_vec()),
        ("no text", vec![0xff, 0xfe, 0x00, 0x22]),
        ("a well", deep),
        ("twice the same", b"{\"version\": 1, \"version\": 2}".to_vec()),
    ];
    // What takes the account away comes last.
    let mut all = operations(&server).await;
    all.sort_by_key(|o| o.name == "DELETE /session");
    for operation in &all {
        let Some(content_type) = &operation.body else {
            let status = server.send(operation, "application/json", vec![]).await;
            let is_there = !operation.name.contains('{')
                || operation.name.ends_with("photos")
                || operation.name.ends_with("invitations");
            assert!(is_there || status == 404, "{} found what is not there: {status}", operation.name);
            continue;
        };
        let is_json = content_type == "application/json";
        for (what, body) in &nonsense {
            let status = server.send(operation, content_type, body.clone()).await;
            assert!(status >= 400 || !is_json, "{} took {what}: {status}", operation.name);
        }
        // Too much is refused without being read.
        let status = server.send(operation, content_type, vec![b' '; 20_000_000]).await;
        // An archive may be larger: it is looked at.
        let refused = if content_type == "application/zip" { vec![422] } else { vec![404, 410, 413] };
        assert!(refused.contains(&status), "{} took 20 MB: {status}", operation.name);
        if is_json {
            let status = server.send(operation, "text/plain", b"{}".to_vec()).await;
            assert!(status == 415 || status == 410, "{}: another site's form: {status}", operation.name);
        }
    }
}

#[actix_web::test]
async fn a_query_that_is_none_is_refused_with_a_reason() {
    let server = running().await;
    server.sign_up("odile").await;
    for mut operation in operations(&server).await.into_iter().filter(|o| o.takes_tape) {
        operation.path = format!("{}?tape=ells", operation.path.split('?').next().unwrap());
        let status = server.send(&operation, "application/json", b"{}".to_vec()).await;
        assert!([400, 410].contains(&status), "{}: {status}", operation.name);
    }
}

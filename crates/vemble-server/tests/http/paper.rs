//! Pieces of a toile over HTTP: read from a file, kept, changed, written and read again.

use super::*;
use std::collections::BTreeSet;

async fn toile(server: &Running) -> String {
    let rail = server.get("/rail").await.1;
    let own =
        rail.as_array().unwrap().iter().find(|g| g["name"].as_str().unwrap().starts_with("Toile of a wrap"));
    format!("/garments/{}", own.unwrap()["id"].as_str().unwrap())
}

async fn read_file(
    server: &Running,
    path: &str,
    query: &str,
    file: impl Into<reqwest::Body>,
) -> (StatusCode, Value) {
    let request = server.client.post(format!("{}{path}/pieces/read?{query}", server.base));
    read(request.header("content-type", "image/svg+xml").body(file).send().await.unwrap()).await
}

#[actix_web::test]
async fn pieces_are_read_kept_changed_written_and_read_again() {
    let (server, _) = Running::signed_in().await;
    let path = toile(&server).await;
    for format in ["svg", "dxf"] {
        let written =
            server.client.get(format!("{}{path}/pieces?format={format}", server.base)).send().await.unwrap();
        let file = written.bytes().await.unwrap();
        let (status, found) = read_file(&server, &path, &format!("read_as={format}"), file).await;
        assert_eq!(status, StatusCode::OK, "{found}");
        let pieces = found["pieces"].as_array().unwrap();
        assert!(pieces.len() > 3 && pieces.iter().all(|piece| piece["piece"].is_object()), "{format}");
        let kept: Vec<Value> = pieces
            .iter()
            .map(|piece| {
                let edge = |e: &Value| {
                    json!({ "name": e["name"], "second": e["second"], "path_mm": e["path_mm"], "allowance": e["allowance"], "eased": e["eased"], "notches": e["notches"] })
                };
                let edges: Vec<Value> = piece["edges"].as_array().unwrap().iter().map(edge).collect();
                json!({ "piece": piece["piece"], "cut": piece["cut"], "edges": edges, "darts": piece["darts"], "grain_mm": piece["grain_mm"], "levels": piece["levels"] })
            })
            .collect();
        let first = kept[0]["piece"].clone();
        let change = json!({ "width": { "piece": first, "by": "1.5 cm" } });
        let wishes = json!({ "pattern": { "drawn": kept, "changes": [change] } });
        let version = server.get(&path).await.1["wishes_version"].clone();
        let (status, stored) =
            server.put(&format!("{path}/wishes"), &json!({ "version": version, "wishes": wishes })).await;
        assert_eq!(status, StatusCode::OK, "{stored}");
        let (status, shown) =
            server.post(&format!("{path}/pieces"), &json!({ "pattern": wishes["pattern"] })).await;
        assert_eq!(status, StatusCode::OK, "{shown}");
        let words: Vec<&str> =
            shown["chips"].as_array().unwrap().iter().map(|chip| chip["words"].as_str().unwrap()).collect();
        assert!(
            words.contains(&"Bodice, front, from a file") && words.last().unwrap().contains("1.5 cm wider"),
            "{words:?}"
        );
        // Whoever gets the garment as a file gets them too.
        let archive = server.get(&path).await.1;
        assert_eq!(
            archive["document"]["wishes"]["pattern"]["drawn"].as_array().map(Vec::len),
            Some(pieces.len()),
            "{}",
            archive["document"]["wishes"]
        );
    }
}

#[actix_web::test]
async fn a_file_that_is_no_pattern_is_refused_and_says_why() {
    let (server, _) = Running::signed_in().await;
    let path = toile(&server).await;
    let square = "<svg xmlns=\"http://www.w3.org/2000/svg\"><g id=\"front\"><path d=\"M0 0 H200 V300 H0 Z\"/></g></svg>";
    let said = |answer: &(StatusCode, Value)| {
        (answer.0.as_u16(), answer.1["errors"][0]["path"].as_str().unwrap_or_default().to_owned())
    };
    let without = read_file(&server, &path, "read_as=svg", square).await;
    assert_eq!(said(&without), (422, "unit".into()));
    let with = read_file(&server, &path, "read_as=svg&unit=mm&tape=in_sixteenths", square).await;
    assert_eq!(
        (with.0, with.1["pieces"][0]["edges"][0]["long"]["text"].as_str()),
        (StatusCode::OK, Some("7 7/8 in")),
        "{}",
        with.1
    );
    assert_eq!(said(&read_file(&server, &path, "read_as=dxf", square).await), (422, "file".into()));
    // 40 MB are not waited for.
    let large = read_file(&server, &path, "read_as=dxf", vec![b'0'; 40_000_000]).await;
    assert_eq!(large.0, StatusCode::PAYLOAD_TOO_LARGE);
    let wrong = json!({ "piece": { "part": "body", "face": "front", "share": "whole" }, "edges": [] });
    let refused = server.post(&format!("{path}/pieces"), &json!({ "pattern": { "drawn": [wrong] } })).await;
    assert_eq!(said(&refused), (422, "wishes.pattern.drawn[0].edges".into()));
}

/// What a form would be filled in with, field by field; nothing where there is nothing to choose.
fn filled_in(ask: &Value, may: &Value) -> Option<Value> {
    let edge = |of: &Value| of["edges"].as_array()?.iter().find(|e| e["name"] != "fold").cloned();
    let with = |list: &str| may["edges"].as_array()?.iter().find(|e| e[list] != json!([])).cloned();
    let mut fields = match ask["of_part"] == true {
        true => json!({ "part": may["key"]["part"] }),
        false => json!({ "piece": may["key"] }),
    };
    for field in ask["fields"].as_array()? {
        let value = match field["is"].as_str()? {
            "level" => may["levels"][0].clone(),
            "face" => may["key"]["face"].clone(),
            "opens_at" => json!("side"),
            "edge" => edge(may)?["name"].clone(),
            "faced" => may["faced"][0]["name"].clone(),
            "notched" => with("notches")?["name"].clone(),
            "notch" => json!(1),
            "at_corner" => with("beside")?["name"].clone(),
            "beside" => with("beside")?["beside"][0].clone(),
            "end" => json!(false),
            "dart" => may["darts"][0].clone(),
            "join" => may["joins"][0].clone(),
            "fold" => may["folds"][0].clone(),
            "fullness" => json!("gathers"),
            "place" => {
                let nth = usize::from(field["name"] == "hinge" || field["name"] == "to");
                json!({ "edge": may["edges"][nth * 2]["name"], "at": "3 cm" })
            }
            "figure" => json!(if field["name"] == "deep" { "16 cm" } else { "0.8 cm" }),
            "pins" => json!([{ "at": "2 cm", "by": "0.4 cm" }]),
            other => panic!("nobody knows how to answer {other}"),
        };
        fields[field["name"].as_str()?] = value;
    }
    Some(json!({ ask["does"].as_str()?: fields }))
}

/// Everything that a piece is offered, filled in as its form asks, is done or refused with a reason, kept as it was entered, and gone once it is taken
/// off the list; a word that is none is named.
#[actix_web::test]
async fn whatever_a_form_asks_is_done_kept_and_undone() {
    let (server, _) = Running::signed_in().await;
    let rail = server.get("/rail").await.1;
    let (mut done, mut offered) = (BTreeSet::new(), BTreeSet::new());
    for garment in rail.as_array().unwrap() {
        let path = format!("/garments/{}", garment["id"].as_str().unwrap());
        let look = async |changes: &[Value]| {
            let body = json!({ "pattern": { "changes": changes } });
            let (status, found) = server.post(&format!("{path}/pieces"), &body).await;
            assert_eq!(status, StatusCode::OK, "{changes:?}: {found}");
            found
        };
        let bare = look(&[]).await;
        let mut kept = Vec::new();
        for may in bare["may"].as_array().unwrap() {
            // Each kind until it was done once.
            let does = may["does"].as_array().unwrap().iter();
            for does in does.filter(|does| !done.contains(&does.to_string())).collect::<Vec<_>>() {
                let ask = bare["asks"].as_array().unwrap().iter().find(|ask| ask["does"] == *does).unwrap();
                let change = filled_in(ask, may).unwrap_or_else(|| panic!("{does} of {}", may["name"]));
                offered.insert(does.to_string());
                let found = look(std::slice::from_ref(&change)).await;
                let chip =
                    found["chips"].as_array().unwrap().iter().find(|chip| chip["entered"] == 0).unwrap();
                assert_ne!(chip["words"], "", "{change}");
                match chip["cannot"].as_str() {
                    Some(why) => assert_ne!(why, "", "{change}"),
                    None => {
                        // What is true already stays as it is.
                        let is_true = does.as_str().unwrap().starts_with("true_");
                        assert!(is_true || found["sets"] != bare["sets"], "{change}");
                        if done.insert(does.to_string()) {
                            kept.push(change);
                        }
                    }
                }
            }
        }
        let put = async |changes: &[Value]| {
            let version = server.get(&path).await.1["wishes_version"].clone();
            let wishes = json!({ "pattern": { "changes": changes } });
            server.put(&format!("{path}/wishes"), &json!({ "version": version, "wishes": wishes })).await
        };
        for changes in [&kept[..], &[]] {
            assert_eq!(put(changes).await.0, StatusCode::OK);
            let stored = server.get(&path).await.1["document"]["wishes"]["pattern"]["changes"].clone();
            assert_eq!(stored.as_array().cloned().unwrap_or_default(), changes);
        }
        assert_eq!(look(&[]).await, bare);
        for change in kept {
            let (does, mut fields) =
                change.as_object().unwrap().iter().next().map(|(d, f)| (d.clone(), f.clone())).unwrap();
            fields["wrong"] = json!("1 cm");
            let (status, refused) = put(&[json!({ &does: fields })]).await;
            assert_eq!(status, StatusCode::BAD_REQUEST, "{refused}");
            let path = refused["errors"][0]["path"].as_str().unwrap();
            assert_eq!(path, format!("wishes.pattern.changes[0].{does}.wrong"), "{refused}");
        }
    }
    assert_eq!(offered, done, "what is offered can be done somewhere");
    assert!(done.len() > 20, "{done:?}");
}

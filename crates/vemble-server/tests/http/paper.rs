//! Pieces of a toile over HTTP: read from a file, kept, changed, written and read again.

use super::*;

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
                    json!({ "name": e["name"], "second": e["second"], "path_mm": e["path_mm"], "allowance": e["allowance"], "notches": e["notches"] })
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

//! Solving over HTTP: without an account, within limits, and the same whoever else asks.

use super::{DEMO, running};
use reqwest::StatusCode;
use serde_json::{Value, json};

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
    // A page asks for no cards, and gets all the rest; a drag is offered no mends either.
    let mut without = core;
    without.try_ons[0].cards.clear();
    assert!(solved == serde_json::to_value(&without).unwrap());
    assert!(without.try_ons[0].checks.iter().any(|check| !check.mend.is_empty()));
    without.try_ons[0].checks.iter_mut().for_each(|check| check.mend.clear());
    let (_, dragged) = server.post("/solve?dragged=true", &document).await;
    assert!(dragged == serde_json::to_value(without).unwrap());

    let (status, problem) = server.solve(vec![b' '; 30_000_000]).await;
    assert_eq!((status, &problem["type"]), (StatusCode::PAYLOAD_TOO_LARGE, &json!("too-large")));
    let (status, problem) = server.solve("{\"version\": 9}").await;
    assert_eq!((status, &problem["type"]), (StatusCode::BAD_REQUEST, &json!("malformed")));
    let form = server.client.post(format!("{}/solve", server.base)).body(DEMO).send().await.unwrap();
    assert_eq!(form.status(), StatusCode::UNSUPPORTED_MEDIA_TYPE, "no form of another site can send this");

    let (status, read) = server.get("/length?text=2-1/4&tape=in").await;
    assert_eq!((status, &read["measure"]), (StatusCode::OK, &json!("2 1/4 in")));
    for (path, status) in [
        ("/length?text=2&tape=in-sixteenths", 200),
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
        .filter(|document| !document.try_ons.is_empty())
        .map(|document| serde_json::to_value(document).unwrap())
        .collect();
    for document in &documents {
        assert_eq!(seen.solve(document.to_string()).await.0, StatusCode::OK);
    }
    for document in &mut documents {
        // One pin goes on, and after that a level of the garment itself.
        let changes = [
            ("/try_ons/0/changes/0/seam/readings/0/amount", json!("3 mm")),
            ("/states/0/garment/levels/0/width", json!({ "laid_flat": "58.5 cm" })),
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
        document["states"][0]["garment"]["seams"][0]["length"] = json!("-3 cm");
        for _ in 0..2 {
            let (status, problem) = seen.solve(document.to_string()).await;
            assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
            let errors = problem["errors"].as_array().unwrap();
            assert!(errors.iter().any(|e| e["path"] == "states[0].garment.seams[0].length"), "{problem}");
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
        let readings = document.pointer_mut("/try_ons/0/changes/0/seam/readings").unwrap();
        let amount = if mm % 10 == 9 { "4 1/".to_owned() } else { format!("{mm} mm") };
        readings[0]["amount"] = amount.into();
        document.to_string()
    };
    let solved = async |mm: usize| {
        let (status, mut answer) = server.solve(dragged_to(mm)).await;
        // Each request has an id of its own.
        answer.as_object_mut().unwrap().remove("request");
        (status, answer)
    };
    let mut alone = Vec::new();
    for mm in 1..=50 {
        alone.push(solved(mm).await);
    }
    assert!(alone.iter().zip(&alone[1..]).all(|(a, b)| a != b), "each differs from the next");
    let at_once = futures_util::future::join_all((1..=50).map(&solved)).await;
    assert_eq!(at_once, alone);
    // Who hangs up meanwhile costs nobody else anything.
    let given_up = (1..=50).map(|mm| {
        let asked = server.solve(dragged_to(mm));
        async move { actix_web::rt::time::timeout(std::time::Duration::from_millis(1), asked).await.ok() }
    });
    futures_util::future::join_all(given_up).await;
    assert_eq!(solved(7).await, alone[6]);
}

#[actix_web::test]
async fn ways_are_found_for_what_is_typed_and_another_garment_is_compared_only_by_whose_it_is() {
    let server = running().await;
    let mut document: Value = serde_json::from_str(DEMO).unwrap();
    document["try_ons"][0]["wanted"] = json!([{ "level": "waist", "by": "-2 cm" }]);
    let (status, found) = server.post("/methods?tape=in", &document).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let typed = serde_json::from_value(document.clone()).unwrap();
    let core =
        vemble_core::method::methods(&typed, Default::default(), vemble_core::length::Tape::In).unwrap();
    assert!(found == serde_json::to_value(core).unwrap(), "the core says it");
    let (_, pinned) = server.post("/methods?from=pins", &document).await;
    assert!(pinned["wanted"].as_array().unwrap().len() > 1, "{pinned}");
    document["try_ons"][0]["wanted"] = json!([{ "level": "waist", "by": "2" }]);
    assert_eq!(server.post("/methods", &document).await.0, StatusCode::BAD_REQUEST);
    document["try_ons"][0]["wanted"] =
        json!([{ "level": "waist", "by": "2 cm" }, { "level": "waist", "by": "1 cm" }]);
    let (status, problem) = server.post("/methods", &document).await;
    assert_eq!(
        (status, &problem["errors"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("try_ons[0].wanted[1].level"))
    );

    server.sign_up("odile").await;
    let (_, own) = server.wearer_with_skirt().await;
    let (_, other) = server.wearer_with_skirt().await;
    let (status, like) = server.get(&format!("/garments/{own}/like/{other}")).await;
    // Nobody measured either: nothing is compared, and it is said.
    assert_eq!((status, &like["wanted"]), (StatusCode::OK, &json!([])));
    assert!(like["cannot"][0].as_str().unwrap().starts_with("Not compared"), "{like}");
    let bram = server.somebody_else();
    bram.sign_up("bram").await;
    let (_, his) = bram.wearer_with_skirt().await;
    for path in [format!("/garments/{his}/like/{own}"), format!("/garments/{own}/like/{his}")] {
        assert_eq!(bram.get(&path).await.0, StatusCode::NOT_FOUND);
    }
}

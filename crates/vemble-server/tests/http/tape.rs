//! A digital tape measure: paired by its code, heard by its account, and not believed when it talks nonsense.

use super::*;
use std::time::Duration;
use vemble_tape::{Command, StandIn};

/// The tape as the account sees it, once it is connected or is not.
async fn connected(server: &Running, wanted: bool) -> Value {
    for _ in 0..100 {
        let (_, state) = server.get("/tape").await;
        if state["connected"] == json!(wanted) {
            return state;
        }
        tokio::time::sleep(Duration::from_millis(100)).await;
    }
    panic!("the tape stays {}", if wanted { "away" } else { "there" });
}

#[actix_web::test]
async fn its_readings_go_to_whoever_paired_it() {
    let tape = StandIn::start(0, "VT-7", "314159").unwrap();
    let server = serving_on(database().await, false, Some(tape.address)).await;
    server.sign_up("odile").await;
    let other = server.somebody_else();
    other.sign_up("bram").await;
    assert_eq!(connected(&server, true).await["paired"], json!(false));
    assert_eq!(server.post("/tape", &json!({ "code": "000000" })).await.0, StatusCode::NOT_FOUND);
    let (status, state) = server.post("/tape", &json!({ "code": "314159" })).await;
    assert_eq!((status, &state["paired"]), (StatusCode::OK, &json!(true)));

    let (mut events, mut others) = (server.listen("/events").await, other.listen("/events").await);
    let tell = |command: &str| tape.told.send(command.parse().unwrap()).unwrap();
    tell("read 12.4 cm");
    assert_eq!(events.news().await, json!({ "tape": { "reading": "12.4 cm", "battery": 87 } }));
    // Nonsense is skipped; the reading after it is exact, in the unit of the tape.
    tell("garbage");
    tell("read 4 3/8 in");
    assert_eq!(events.news().await["tape"]["reading"], "4 3/8 in");
    tell("low");
    assert_eq!(events.news().await, json!({ "tape": { "reading": null, "battery": 9 } }));
    assert_eq!(server.get("/tape").await.1["battery"], json!(9));

    // It drops out and is called again.
    tell("drop");
    tell("read 7 cm");
    assert_eq!(events.news().await["tape"]["reading"], "7 cm");

    // Taken over by somebody else: it speaks to them, and to them only.
    assert_eq!(other.post("/tape", &json!({ "code": "314159" })).await.0, StatusCode::OK);
    assert_eq!(server.get("/tape").await.1["paired"], json!(false));
    tell("read 8 cm");
    assert_eq!(others.news().await["tape"]["reading"], "8 cm", "nothing of before");
    assert_eq!(other.delete("/tape", &json!({})).await.0, StatusCode::NO_CONTENT);
    tell("read 9 cm");
    assert_eq!(other.get("/tape").await.1["paired"], json!(false));
    tape.told.send(Command::Quit).unwrap();
    connected(&server, false).await;
}

#[test]
fn lines_that_are_none_are_garbage() {
    use vemble_tape::Line;
    for line in [
        "",
        "{}",
        "{\"reading\": 12,4 cm",
        "{\"reading\":{\"value\":\"x\",\"unit\":\"cm\",\"battery\":80}}",
        "{\"reading\":{\"value\":\"-3\",\"unit\":\"cm\",\"battery\":80}}",
        "{\"reading\":{\"value\":\"3\",\"unit\":\"ells\",\"battery\":80}}",
        "{\"reading\":{\"value\":\"3\",\"unit\":\"cm\",\"battery\":800}}",
        "{\"hello\":{\"serial\":\"VT-1\",\"code\":\"123456\",\"protocol\":2}}",
    ] {
        assert!(Line::read(line).is_err(), "{line}");
    }
    assert!(Line::read(&format!("{{\"low_battery\":{{\"percent\":{}5}}}}", " ".repeat(2000))).is_err());
    let read = Line::read("{\"reading\":{\"value\":\"2 1/4\",\"unit\":\"in\",\"battery\":80}}").unwrap();
    assert_eq!(read.measure().unwrap().to_string(), "2 1/4 in");
}

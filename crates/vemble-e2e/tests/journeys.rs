//! Journeys of a sewist through the interface, in headless Chromium.

use fantoccini::key::Key;
use serde_json::json;
use vemble_e2e::Journey;

const AMOUNT_AT_HEM: &str = "[aria-label='Pin 1: amount read']";
const HEM: &str = "[data-level='hem'] strong";
const STORED: &str = "[role='status'][data-stored='true']";

async fn open_the_corduroys(journey: &Journey) {
    journey.click_words("Open the example").await;
    journey.click(".hanging a").await;
    journey.until_text(HEM, "41.2 cm").await;
}

/// Field and figure of every row of the card: what a person copies onto the cloth.
async fn card_rows(journey: &Journey) -> Vec<(String, String)> {
    let stations = journey.texts(".card-station").await;
    stations.into_iter().zip(journey.texts(".card-figure").await).collect()
}

#[actix_web::test]
async fn from_a_changed_pin_to_the_printed_card() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;

    // 48.0 − 2 × 4.1 = 39.8.
    journey.type_over(AMOUNT_AT_HEM, "4.1\u{e007}").await;
    journey.until_text(HEM, "39.8 cm").await;
    journey.find(STORED).await;

    // The same in inches: 39.8 cm is 15.67 in, 4.1 cm is 1.61 in.
    journey.click_words("inches").await;
    journey.until_text(HEM, "15 5/8 in").await;
    journey.until_text(AMOUNT_AT_HEM, "1 5/8 in").await;
    journey.click_words("cm").await;
    journey.until_text(HEM, "39.8 cm").await;

    // Undo and redo, by key, outside any field.
    let body = journey.find("body").await;
    body.send_keys("\u{e009}z\u{e000}").await.unwrap();
    journey.until_text(HEM, "41.2 cm").await;
    body.send_keys("\u{e009}\u{e008}z\u{e000}").await.unwrap();
    journey.until_text(HEM, "39.8 cm").await;
    journey.find(STORED).await;

    journey.click_words("Chalk card").await;
    journey.until_text(".card-figure", "4.1").await;
    let shown = card_rows(&journey).await;
    assert_eq!(shown.first().unwrap(), &("0.0".into(), "4.1".into()));
    assert_eq!(shown.last().unwrap(), &("66.0".into(), "0.0".into()));
    journey.click("[aria-label='Chalked at 5.0 cm']").await;
    journey.until_text(".card-done", "1 of").await;

    journey.browser.refresh().await.unwrap();
    journey.until_text(".card-done", "1 of").await;
    assert_eq!(card_rows(&journey).await, shown, "reload keeps all");

    // What is printed holds the same marks, and nothing that is not for paper.
    let script = "return [...document.styleSheets].flatMap((s) => [...s.cssRules]).some((r) => /^@page.*size: a5/i.test(r.cssText))";
    assert_eq!(journey.browser.execute(script, vec![]).await.unwrap(), json!(true), "A5 paper");
    let emulate = json!({ "cmd": "Emulation.setEmulatedMedia", "params": { "media": "print" } });
    journey.chrome(emulate).await;
    assert_eq!(card_rows(&journey).await, shown);
    let hidden = "return ['.bar', '.card-tools', '.card-done'].every((c) => getComputedStyle(document.querySelector(c)).display === 'none')";
    assert_eq!(journey.browser.execute(hidden, vec![]).await.unwrap(), json!(true));
    journey.end().await;
}

#[actix_web::test]
async fn wrong_input_is_named_at_its_field_and_loses_nothing() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;

    // Unreadable: said at the field, kept there even over a reload; everything else stays.
    journey.type_over(AMOUNT_AT_HEM, "4 1/\u{e007}").await;
    journey
        .until_text(
            ".field-trouble",
            "“4 1/” has an unfinished fraction. Expected both numbers of the fraction",
        )
        .await;
    journey.until_text(HEM, "41.2 cm").await;
    journey.browser.refresh().await.unwrap();
    journey.until_text(AMOUNT_AT_HEM, "4 1/").await;
    journey.until_text(".field-trouble", "unfinished fraction").await;
    journey.type_over(AMOUNT_AT_HEM, "3.4 cm\u{e007}").await;
    journey.find(STORED).await;

    // Readable but impossible: named at its field, not stored, not lost.
    for (station, amount, said) in [
        ("120", "1", "120 cm, but the seam is 104.0 cm long"),
        ("15", "1", "15 cm, where reading 2 already is on the left side"),
        ("20", "-3", "-3 cm. Expected nought or more"),
        ("20", "26", "26 cm: that takes out more than"),
    ] {
        journey
            .type_over("[aria-label='Next pin: station from the hem']", &format!("{station}\u{e007}"))
            .await;
        journey.until_text("[aria-label='Next pin: station from the hem']", station).await;
        journey.type_over("[aria-label='Next pin: amount read']", &format!("{amount}\u{e007}")).await;
        journey.until_text(".field-trouble", said).await;
        journey.until_text(HEM, "41.2 cm").await;
        journey.until_text("[role='status']", "Kept here").await;
        journey.browser.refresh().await.unwrap();
        journey.until_text(".field-trouble", said).await;
        journey.click("[aria-label='Take out pin 6']").await;
        journey.find(STORED).await;
    }
    assert_eq!(journey.texts(".pins .next-pin").await.len(), 1);
    assert_eq!(journey.texts("[data-pin]").await.len(), 5);
    journey.end().await;
}

#[actix_web::test]
async fn a_pin_is_dragged_and_nudged_and_the_line_follows() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    let pin = "[data-pin='0']";
    let amount = AMOUNT_AT_HEM;

    // One tape mark more, three times; on the wearer's right (pinned inside out) the arrow up still means more.
    let handle = journey.find(pin).await;
    journey.browser.execute("document.querySelector(arguments[0]).focus()", vec![pin.into()]).await.unwrap();
    for _ in 0..3 {
        handle.send_keys(&Key::Up.to_string()).await.unwrap();
    }
    journey.until_text(amount, "3.7 cm").await;
    journey.until_text(HEM, "40.6 cm").await;

    // Dragged out into the leg by 40 px, and the line is painted anew while the hand still moves.
    let before = journey
        .browser
        .execute("return document.querySelector('.strip-new').getAttribute('d')", vec![])
        .await
        .unwrap();
    let script = include_str!("drag.js");
    let moved = journey.browser.execute_async(script, vec![pin.into(), json!(40)]).await.unwrap();
    assert_ne!(moved["path"], before, "painted before the pin was let go");
    journey.find(STORED).await;
    let dragged = &journey.texts(amount).await[0];
    assert!(dragged.as_str() > "4.0 cm", "{dragged}");

    journey.browser.refresh().await.unwrap();
    journey.until_text(amount, dragged).await;
    journey.end().await;
}

#[actix_web::test]
async fn somebody_else_was_faster_and_both_states_are_kept() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    // Another window of the same account changes the pin at the hem.
    let script = include_str!("elsewhere.js");
    let done = journey.browser.execute_async(script, vec![]).await.unwrap();
    assert_eq!(done, json!(200));

    journey.type_over(AMOUNT_AT_HEM, "3.9\u{e007}").await;
    journey.until_text(".conflict", "5 cm at 0 cm").await;
    journey.until_text(".conflict", "3.9 cm at 0 cm").await;
    journey.click_words("Go on with the one here").await;
    journey.find(STORED).await;
    journey.browser.refresh().await.unwrap();
    journey.until_text(AMOUNT_AT_HEM, "3.9 cm").await;
    journey.end().await;
}

#[actix_web::test]
async fn pins_are_typed_in_their_order_without_a_mouse() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    // The inseam has no pins yet: it is picked on the stand, by key.
    let inseam = journey.find("[aria-label='inseam, garment\\'s left']").await;
    inseam.send_keys(&Key::Enter.to_string()).await.unwrap();
    journey.until_text(".empty", "No pins on the inseam yet").await;

    // Station, Enter, amount, Enter, and the next one, without leaving the keys.
    journey.find("[aria-label='Next pin: station from the hem']").await.click().await.unwrap();
    for (station, amount, pin) in [("0", "1.2", 1), ("30 mm", "3/8 in", 2), ("22,5", "0.8cm", 3)] {
        for keys in [station, amount] {
            let field = journey.browser.active_element().await.unwrap();
            field.send_keys(&format!("{keys}\u{e007}")).await.unwrap();
            // The length is read before the focus goes on.
            let next =
                if keys == station { "Next pin: amount read" } else { "Next pin: station from the hem" };
            journey.until_focus(next).await;
        }
        journey.find(&format!("[aria-label='Pin {pin}: amount read']")).await;
    }
    journey.until_text("[aria-label='Pin 2: amount read']", "1.0 cm").await;
    journey.until_text("[aria-label='Pin 3: station from the hem']", "22.5 cm").await;
    // 48.0 − 6.8 at the outseam − 2.4 at the inseam.
    journey.until_text(HEM, "38.8 cm").await;
    journey.find(STORED).await;

    // What was written is kept as it was written.
    let script =
        "return fetch(`/api/v1${location.pathname.split('/').slice(0, 3).join('/')}`).then((r) => r.json())";
    let state = journey.browser.execute(script, vec![]).await.unwrap();
    let readings = &state["document"]["try_ons"][0]["alterations"][1]["readings"];
    let written =
        |n: usize| [&readings[n]["station"], &readings[n]["amount"]].map(|v| v.as_str().unwrap().to_owned());
    assert_eq!(written(1), ["30 mm", "3/8 in"]);
    assert_eq!(written(2), ["22.5 cm", "0.8 cm"]);
    journey.end().await;
}

#[actix_web::test]
async fn nothing_typed_is_lost_while_the_server_is_away() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    let away = |away: bool| json!({ "cmd": "Network.emulateNetworkConditions", "params": { "offline": away, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1 } });
    journey.chrome(json!({ "cmd": "Network.enable", "params": {} })).await;

    // A pin is taken out while nothing answers: kept, and said so.
    journey.chrome(away(true)).await;
    journey.click("[aria-label='Take out pin 5']").await;
    journey.until_text("[role='status']", "Kept here, not stored yet").await;
    journey.chrome(away(false)).await;
    journey.find(STORED).await;
    journey.browser.refresh().await.unwrap();
    journey.until_text(HEM, "41.2 cm").await;
    assert_eq!(journey.texts("[data-pin]").await.len(), 4);
    journey.end().await;
}

#[actix_web::test]
async fn on_a_phone_everything_is_within_reach() {
    let journey = Journey::begin(500, 844).await;
    let phone = json!({ "cmd": "Emulation.setDeviceMetricsOverride", "params": { "width": 390, "height": 844, "deviceScaleFactor": 1, "mobile": true } });
    journey.chrome(phone).await;
    open_the_corduroys(&journey).await;
    let too_wide = "return document.documentElement.scrollWidth - innerWidth";
    assert_eq!(
        journey.browser.execute(too_wide, vec![]).await.unwrap(),
        json!(0),
        "nothing sticks out of the lines"
    );
    journey.type_over(AMOUNT_AT_HEM, "4\u{e007}").await;
    journey.until_text(HEM, "40.0 cm").await;
    for stage in ["Look over", "Try on"] {
        journey.click_words(stage).await;
        journey.find(".look-over").await;
        assert_eq!(journey.browser.execute(too_wide, vec![]).await.unwrap(), json!(0), "{stage}");
    }
    journey.click_words("Lines").await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card-figure", "4.0").await;
    assert_eq!(journey.browser.execute(too_wide, vec![]).await.unwrap(), json!(0), "nor out of the card");

    // Put back: the example is as it was at first.
    journey.click(".brand").await;
    journey.click_words("Put the example back").await;
    journey.click_words("Put it back").await;
    journey.until_text("body", "as it was at first").await;
    journey.click(".hanging a").await;
    journey.until_text(HEM, "41.2 cm").await;
    journey.end().await;
}

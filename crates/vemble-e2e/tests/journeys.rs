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

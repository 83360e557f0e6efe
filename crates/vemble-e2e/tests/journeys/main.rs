//! Journeys of a sewist through the interface, in headless Chromium.

mod book;
mod evenings;
mod fitting;
mod kept;
mod lines;
mod paper;
mod styles;

use fantoccini::key::Key;
use serde_json::json;
use vemble_e2e::Journey;

const AMOUNT_AT_HEM: &str = "[aria-label='Pin 1: amount read']";
const HEM: &str = "[data-level='hem'] strong";
/// Round the new edge of the corduroys' left leg, once their outseam is taken in and their hem turned up.
const HEM_NOW: &str = "41.5 cm";
const STORED: &str = "[role='status'][data-stored='true']";

async fn open_the_corduroys(journey: &Journey) {
    journey.click_words("Open the example").await;
    open_garment(journey, "Charity-shop corduroys").await;
    journey.until_text(HEM, HEM_NOW).await;
}

/// Takes a garment off the rail by its name; what presses most hangs first, whatever that is.
async fn open_garment(journey: &Journey, name: &str) {
    journey.click(&format!(".rail_hung > a[aria-label^='{name}']")).await;
}

/// Field and figure of every row of the card: what a person copies onto the cloth.
async fn card_rows(journey: &Journey) -> Vec<(String, String)> {
    let stations = journey.texts(".card_station").await;
    stations.into_iter().zip(journey.texts(".card_chalked").await).collect()
}

#[actix_web::test]
async fn from_a_changed_pin_to_the_printed_card() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;

    // 48.3 round the leg 3.6 above its old edge; there the line, from 4.1 at that edge, takes 2 × 3.9.
    journey.type_over(AMOUNT_AT_HEM, "4.1\u{e007}").await;
    journey.until_text(HEM, "40.5 cm").await;
    journey.find(STORED).await;

    // The same in inches, as it is read off that tape: 2 × 9 1/2 laid flat, less 2 edges × 1 5/8.
    journey.click_words("inches").await;
    journey.until_text(HEM, "16 in").await;
    journey.until_text(AMOUNT_AT_HEM, "1 5/8 in").await;
    journey.click_words("cm").await;
    journey.until_text(HEM, "40.5 cm").await;

    // Undo and redo, by key, outside any field.
    let body = journey.find("body").await;
    body.send_keys("\u{e009}z\u{e000}").await.unwrap();
    journey.until_text(HEM, HEM_NOW).await;
    body.send_keys("\u{e009}\u{e008}z\u{e000}").await.unwrap();
    journey.until_text(HEM, "40.5 cm").await;
    journey.find(STORED).await;

    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalked", "4.1").await;
    let shown = card_rows(&journey).await;
    assert_eq!(shown.first().unwrap(), &("0.0".into(), "4.1".into()));
    assert_eq!(shown.last().unwrap(), &("66.0".into(), "0.0".into()));
    journey.click("[aria-label='Chalked at 5.0 cm']").await;
    journey.until_text(".card_done", "1 of").await;

    journey.browser.refresh().await.unwrap();
    journey.until_text(".card_done", "1 of").await;
    assert_eq!(card_rows(&journey).await, shown, "reload keeps all");

    // What is printed holds the same marks, and nothing that is not for paper.
    let script = "return [...document.styleSheets].flatMap((s) => [...s.cssRules]).some((r) => /^@page.*size: a5/i.test(r.cssText))";
    assert_eq!(journey.browser.execute(script, vec![]).await.unwrap(), json!(true), "A5 paper");
    let emulate = json!({ "cmd": "Emulation.setEmulatedMedia", "params": { "media": "print" } });
    journey.chrome(emulate).await;
    assert_eq!(card_rows(&journey).await, shown);
    let hidden = "return ['.shell_bar', '.card_tools', '.card_done'].every((c) => getComputedStyle(document.querySelector(c)).display === 'none')";
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
    journey.until_text(HEM, HEM_NOW).await;
    journey.browser.refresh().await.unwrap();
    journey.until_text(AMOUNT_AT_HEM, "4 1/").await;
    journey.until_text(".field-trouble", "unfinished fraction").await;
    journey.type_over(AMOUNT_AT_HEM, "3.4 cm\u{e007}").await;
    journey.find(STORED).await;

    // Readable but impossible: named at its field, not stored, not lost.
    for (station, amount, said) in [
        ("120", "1", "120 cm, but it is 104.0 cm long, measured from the hem"),
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
        journey.until_text(HEM, HEM_NOW).await;
        journey.until_text("[role='status']", "Kept here").await;
        journey.browser.refresh().await.unwrap();
        journey.until_text(".field-trouble", said).await;
        journey.click("[aria-label='Take out pin 6']").await;
        journey.find(STORED).await;
    }
    assert_eq!(journey.texts(".changes_pins .changes_next-pin").await.len(), 1);
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
    journey.until_text(HEM, "40.9 cm").await;

    // Dragged out into the leg by 40 px, and the line is painted anew while the hand still moves.
    let before = journey
        .browser
        .execute("return document.querySelector('[data-line=new]').getAttribute('d')", vec![])
        .await
        .unwrap();
    let script = include_str!("drag.js");
    let moved =
        journey.browser.execute_async(script, vec![pin.into(), json!(40), json!(false)]).await.unwrap();
    assert_ne!(moved["path"], before, "painted before the pin was let go");
    journey.find(STORED).await;
    let dragged = &journey.texts(amount).await[0];
    assert!(dragged.as_str() > "4.0 cm", "{dragged}");

    journey.browser.refresh().await.unwrap();
    journey.until_text(amount, dragged).await;

    // While the hand holds it, nothing that arrives takes the line away; Escape gives it back.
    let line = async || {
        let path = "return document.querySelector('[data-line=new]').getAttribute('d')";
        journey.browser.execute(path, vec![]).await.unwrap()
    };
    let as_kept = line().await;
    let held = journey.browser.execute_async(script, vec![pin.into(), json!(20), json!(true)]).await.unwrap();
    assert_ne!(held["path"], as_kept);
    let path = journey.browser.current_url().await.unwrap().path().to_owned();
    let doing = async || {
        let change = include_str!("elsewhere.js");
        journey.browser.execute_async(change, vec![json!("5 cm")]).await.unwrap()
    };
    assert_eq!(journey.elsewhere(&path, doing).await, json!(200));
    tokio::time::sleep(std::time::Duration::from_secs(1)).await;
    assert_eq!(line().await, held["path"], "held");
    let escape = "document.querySelector(arguments[0]).dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))";
    journey.browser.execute(escape, vec![pin.into()]).await.unwrap();
    journey.until_text(amount, "5.0 cm").await;
    // The deepest pin may be passed by a millimetre.
    let begins = |path: &serde_json::Value| {
        path.as_str().unwrap()[3..].split(['C', ' ', ',']).next().unwrap().parse::<f64>().unwrap()
    };
    assert!((begins(&line().await) - 50.0).abs() <= 1.0);
    // So does picking another seam, whatever became of the hand.
    journey.browser.execute_async(script, vec![pin.into(), json!(20), json!(true)]).await.unwrap();
    journey.choose("Change something else", "inseam").await;
    journey.until_text(".sheet_empty", "No pins on the inseam yet").await;
    journey.click("[data-change='seam.outseam']").await;
    journey.until_text(amount, "5.0 cm").await;
    assert!((begins(&line().await) - 50.0).abs() <= 1.0);

    // Who only touches the end of a line decides nothing.
    journey.choose("Upper end of the line", "as the pins suggest").await;
    journey.until_text(".changes_line-settings", "assumed: meets the old stitching at").await;
    journey.find(STORED).await;
    let assumed = line().await;
    journey.click("[role=slider]").await;
    tokio::time::sleep(std::time::Duration::from_secs(1)).await;
    assert!(journey.texts(".changes_line-settings").await[0].contains("assumed: meets the old stitching at"));
    assert_eq!(line().await, assumed);
    journey.end().await;
}

#[actix_web::test]
async fn two_devices_at_once_see_each_other_and_nothing_is_lost() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    let path = journey.browser.current_url().await.unwrap().path().to_owned();
    let change = async |amount: &str| {
        let script = include_str!("elsewhere.js");
        let amount = json!(amount);
        let doing = async || journey.browser.execute_async(script, vec![amount]).await.unwrap();
        assert_eq!(journey.elsewhere(&path, doing).await, json!(200));
    };
    // What another device changes appears here by itself.
    change("5 cm").await;
    journey.until_text(AMOUNT_AT_HEM, "5.0 cm").await;

    // Without a network this one moves it on by a mark, and the other device does something else.
    journey.without_network(true).await;
    journey.browser.execute("document.querySelector(\"[data-pin='0']\").focus()", vec![]).await.unwrap();
    journey.find("[data-pin='0']").await.send_keys(&Key::Up.to_string()).await.unwrap();
    journey.until_text("[role='status']", "Kept here").await;
    change("4.4 cm").await;
    journey.without_network(false).await;
    journey
        .until_text(".document_conflict", "outseam, garment’s left at 0.0 cm: 5.1 cm here, 4.4 cm there")
        .await;
    journey.click_words("Keep what is here").await;
    journey.find(STORED).await;
    journey.browser.refresh().await.unwrap();
    journey.until_text(AMOUNT_AT_HEM, "5.1 cm").await;
    journey.end().await;
}

#[actix_web::test]
async fn pins_are_typed_in_their_order_without_a_mouse() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    // The inseam has no pins yet: it is picked on the stand, by key.
    let inseam = journey.find("[aria-label='inseam, garment\\'s left']").await;
    inseam.send_keys(&Key::Enter.to_string()).await.unwrap();
    journey.until_text(".sheet_empty", "No pins on the inseam yet").await;

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
    // 48.3 − 6.8 at the outseam − what the inseam takes 3.6 above its pin.
    journey.until_text(HEM, "39.7 cm").await;
    journey.find(STORED).await;

    // What was written is kept as it was written.
    let script =
        "return fetch(`/api/v1${location.pathname.split('/').slice(0, 3).join('/')}`).then((r) => r.json())";
    let state = journey.browser.execute(script, vec![]).await.unwrap();
    let readings = &state["document"]["try_ons"][0]["changes"][1]["seam"]["readings"];
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
    journey.until_text(HEM, HEM_NOW).await;
    assert_eq!(journey.texts("[data-pin]").await.len(), 4);
    journey.end().await;
}

#[actix_web::test]
async fn on_a_phone_everything_is_within_reach() {
    let journey = Journey::begin(500, 844).await;
    journey.under_a_thumb().await;
    open_the_corduroys(&journey).await;
    journey.nothing_sticks_out("lines").await;
    journey.type_over(AMOUNT_AT_HEM, "4\u{e007}").await;
    journey.until_text(HEM, "40.5 cm").await;
    // A thumb opens sums too.
    journey.tap(".changes_pins .changes_explained").await;
    journey
        .until_text(
            ".ant-popover",
            "4.0 from the old seam to the pin, folded: 2 edges × 4.0 = 8.0 cm altogether",
        )
        .await;
    for (stage, part) in [("Look over", ".lookover_question"), ("Try on", ".sheet_panels")] {
        journey.click_words(stage).await;
        journey.find(part).await;
        journey.nothing_sticks_out(stage).await;
    }
    journey.click_words("Lines").await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalked", "4.0").await;
    journey.nothing_sticks_out("card").await;

    // Put back: the example is as it was at first.
    journey.click_words("Rail").await;
    journey.click_words("Put the example back").await;
    journey.click_words("Put it back").await;
    journey.until_text("body", "as it was at first").await;
    open_garment(&journey, "Charity-shop corduroys").await;
    journey.until_text(HEM, HEM_NOW).await;
    journey.end().await;
}

#[actix_web::test]
async fn a_garment_is_entered_from_scratch_on_a_phone() {
    let journey = Journey::begin(500, 844).await;
    journey.on_a_phone().await;
    journey.sign_up("odile").await;

    journey.click_words("Hang up the first garment").await;
    journey.click(".newgarment_kind:has(input[value='skirt'])").await;
    journey.type_over("#name", "Lock-keeper's skirt").await;
    journey.type_over("[aria-label='Name of the new wearer']", "Juno").await;
    journey.nothing_sticks_out("new garment").await;
    journey.click_words("Hang it up").await;
    journey.until_text("h1", "Lock-keeper's skirt").await;
    journey.until_text(".lookover_head", "settled").await;
    journey.nothing_sticks_out("look-over").await;
    let outline = "return document.querySelector('.drawing_stand .drawing_cloth').getAttribute('d')";
    journey.find(".drawing_stand .drawing_cloth").await;
    let assumed = journey.browser.execute(outline, vec![]).await.unwrap();

    // A girth typed as a flat width is asked about, and the answer makes it right; the drawing follows.
    journey.type_over("[aria-label='hip: width']", "90 cm\u{e007}").await;
    journey.until_text(".lookover_doubt", "Is that the whole girth?").await;
    journey.click_words("Yes: 90.0 cm all round").await;
    journey
        .find("[aria-label='hip: how it was measured'] .ant-segmented-item-selected [title='all round']")
        .await;
    journey.click("[aria-label='hip: how it was measured'] [title='laid flat']").await;
    journey.type_over("[aria-label='hip: width']", "39 cm\u{e007}").await;
    journey.until_text("[data-question='level.hip'][data-settled='true']", "78.0 cm round").await;
    journey.find(STORED).await;
    let measured = journey.browser.execute(outline, vec![]).await.unwrap();
    assert_ne!(assumed, measured);
    // What cannot be is named at its field, and nothing is lost.
    journey.type_over("[aria-label='waist: up from the hem']", "-3 cm\u{e007}").await;
    journey
        .until_text("[data-question='level.waist'] .field-trouble", "-3 cm. Expected nought or more")
        .await;
    journey.until_text("[role='status']", "Kept here").await;
    journey.type_over("[aria-label='waist: up from the hem']", "46 cm\u{e007}").await;
    journey.find(STORED).await;

    // A part it has not, and one more than usual.
    journey.click("[aria-label='Take the back waist dart off this garment']").await;
    journey.choose("Add a part", "front panel seam").await;
    journey.find("[data-question='seam.panel_front']").await;
    journey.find(STORED).await;
    journey.browser.refresh().await.unwrap();
    journey.find("[data-question='seam.panel_front']").await;
    assert!(journey.texts("[data-question='dart.back_waist']").await.is_empty());
    assert!(journey.texts("[aria-label^='front panel seam']").await.len() > 1, "it is on the stand too");

    // The wearer's own page says what is missing, and once it is measured the ease can be judged.
    journey.click(".garment_head a").await;
    journey.until_text("tr.people_missing:has([aria-label='hip girth'])", "would unlock").await;
    journey.nothing_sticks_out("person").await;
    journey.type_over("[aria-label='hip girth']", "72\u{e007}").await;
    // Not what was stored before it was typed.
    journey.find("tr:not(.people_missing):has([aria-label='hip girth'])").await;
    journey.find(STORED).await;
    journey.click_words("Lock-keeper's skirt").await;
    journey.click_words("Look over").await;
    journey.click(".drawing_stand-tools .ant-checkbox-wrapper").await;
    journey.until_text(".drawing_stand-ease", "hip: 6.0 cm ease, usual").await;
    journey.click_words("Rail").await;
    journey.until_text(".rail_tag", "Juno").await;
    journey.end().await;
}

#[actix_web::test]
async fn a_session_that_ends_in_the_middle_of_entry_loses_nothing() {
    let journey = Journey::begin(1280, 900).await;
    journey.sign_up("bram").await;
    journey.click_words("People").await;
    journey.type_over("[aria-label='Name of somebody new']", "Bram\u{e007}").await;
    journey.click_words("all").await;
    journey.type_over("[aria-label='waist girth']", "85.5\u{e007}").await;
    journey.until_focus("waist to hip").await;
    journey.find(STORED).await;

    journey.chrome(json!({ "cmd": "Network.clearBrowserCookies", "params": {} })).await;
    journey.type_over("[aria-label='hip girth']", "101\u{e007}").await;
    journey.until_text("[role='status']", "sign in again to store it").await;
    journey.click_words("Sign in again").await;
    journey.type_over(".ant-modal #email", "bram@example.org").await;
    journey.type_over(".ant-modal #password", "seven garments on one rail\u{e007}").await;
    journey.find(STORED).await;
    journey.browser.refresh().await.unwrap();
    journey.click_words("all").await;
    journey.until_text("[aria-label='hip girth']", "101.0 cm").await;
    journey.until_text("[aria-label='waist girth']", "85.5 cm").await;
    journey.end().await;
}

#[actix_web::test]
async fn measurements_are_pasted_as_a_column_and_taken_in_from_a_file() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    // The example opens on its rail: who goes elsewhere before that is brought back to it.
    journey.find(".rail_hung").await;
    journey.click_words("People").await;
    // The rail, which is there until the page has come, has a button with her name too.
    journey.find(".people_person-card").await;
    journey.click_words("Juno Fenwick").await;
    journey.click_words("all").await;
    let paste = include_str!("column.js");
    let column = async |label: &str, text: &str| {
        let done = journey.browser.execute_async(paste, vec![label.into(), text.into()]).await.unwrap();
        assert_eq!(done, json!(true));
    };
    // One line that cannot be read, and nothing is pasted.
    journey.find("[aria-label='knee girth']").await;
    column("knee girth", "31\nthick\n20").await;
    journey
        .until_text(".ant-message", "Line 2, calf girth: “thick” is not a length. Nothing was pasted.")
        .await;
    journey.until_text("[aria-label='knee girth']", "").await;
    column("knee girth", "31\n29,5\n19 1/2 cm").await;
    journey.until_text("[aria-label='calf girth']", "29.5 cm").await;
    journey.until_text("[aria-label='ankle girth']", "19.5 cm").await;
    journey.find(STORED).await;

    let folder = std::env::temp_dir().join(format!("vemble-csv-{}", uuid::Uuid::now_v7()));
    std::fs::create_dir_all(&folder).unwrap();
    let file = folder.join("juno.csv");
    std::fs::write(
        &file,
        "measurement,date,value_cm\narm_length,2026-08-29,49\nwrist_girth,2026-08-29,thin\n",
    )
    .unwrap();
    journey.give_file("[aria-label='Take in measurements from CSV']", &file).await;
    journey.until_text(".ant-message", "juno.csv, line 3: “thin” is not a length").await;
    std::fs::write(&file, "measurement,date,value_cm\narm_length,2026-08-29,49\nwrist_girth,2026-08-29,13\n")
        .unwrap();
    journey.give_file("[aria-label='Take in measurements from CSV']", &file).await;
    journey.until_text("[aria-label='wrist girth']", "13.0 cm").await;
    journey.until_text("[aria-label='arm length']", "49.0 cm").await;
    journey.find(STORED).await;

    // Inches at once, and back; the history stays.
    journey.click_words("inches").await;
    journey.until_text("[aria-label='wrist girth']", "5 1/8 in").await;
    assert_eq!(journey.texts("[aria-label='height: taken 3 times']").await.len(), 1);
    std::fs::remove_dir_all(&folder).unwrap();
    journey.end().await;
}

#[actix_web::test]
async fn the_rail_is_searched_and_a_garment_copied_put_away_and_photographed() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    journey.find(".rail_hung").await;
    assert_eq!(journey.texts(".rail_hung").await.len(), 8);
    journey.type_over("[aria-label='Search the rail']", "fenwick crepe").await;
    journey.until_text(".rail_rail", "Inherited tea dress").await;
    assert_eq!(journey.texts(".rail_hung").await.len(), 1);

    let menu = "[aria-label='More for Inherited tea dress']";
    journey.click(menu).await;
    journey.click(".ant-dropdown-menu-item[data-menu-id$='copy']").await;
    journey.until_text("h1", "Inherited tea dress, copy").await;

    let photo = std::env::temp_dir().join(format!("vemble-{}.png", uuid::Uuid::now_v7()));
    std::fs::write(&photo, include_bytes!("../../../../docs/screenshots/rail.png")).unwrap();
    journey.give_file("[aria-label='Choose photos']", &photo).await;
    journey.find("img[alt='The garment, before']").await;
    std::fs::write(&photo, "words, not a picture").unwrap();
    journey.give_file("[aria-label='Choose photos']", &photo).await;
    journey.until_text(".ant-message", "a file that is no JPEG, PNG or WebP").await;
    std::fs::remove_file(&photo).unwrap();

    journey.click_words("Rail").await;
    journey.click(menu).await;
    journey.click(".ant-dropdown-menu-item[data-menu-id$='away']").await;
    journey.until_text(".rail_filter", "put away (1)").await;
    assert_eq!(journey.texts(".rail_hung").await.len(), 8, "eight and a copy, less one");
    journey.end().await;
}

#[actix_web::test]
async fn an_account_changes_its_password_and_leaves_for_good() {
    let journey = Journey::begin(1280, 900).await;
    // What is wrong is said at its field, before there is an account.
    journey.click_words("I am new here").await;
    journey.type_over("#name", "Odile").await;
    journey.type_over("#email", "nowhere").await;
    journey.type_over("#password", "short\u{e007}").await;
    journey.until_text(".start_sign-in", "Expected an address like").await;
    journey.until_text(".start_sign-in", "Expected ten letters or more").await;
    journey.browser.refresh().await.unwrap();
    journey.sign_up("odile").await;

    journey.browser.goto(&format!("{}/account", journey.base)).await.unwrap();
    journey.until_text(".account_devices", "on Linux").await;
    journey.until_text(".account_devices", "here").await;
    // On another device: the first is listed there, and signed out from there.
    journey.browser.delete_cookie("vemble_session").await.unwrap();
    journey.browser.goto(&journey.base).await.unwrap();
    journey.type_over("#email", "odile@example.org").await;
    journey.type_over("#password", "seven garments on one rail\u{e007}").await;
    journey.find(".rail_what-now").await;
    journey.browser.goto(&format!("{}/account", journey.base)).await.unwrap();
    journey.find(".account_devices li + li").await;
    let both = journey.texts(".account_devices").await.remove(0);
    journey.click_words("Sign out there").await;
    journey.until_other(".account_devices", &both).await;
    assert_eq!(journey.texts(".account_devices li").await.len(), 1);
    journey.type_over("#old", "not this one").await;
    journey.type_over("#new", "another seven garments\u{e007}").await;
    journey.until_text(".account_account-page", "Another password. Expected the present one").await;
    journey.type_over("#old", "seven garments on one rail\u{e007}").await;
    journey.until_text(".ant-message", "Changed.").await;

    journey.click("[aria-label='Account: odile']").await;
    journey.click(".ant-dropdown-menu-item[data-menu-id$='out']").await;
    journey.until_text("h1", "From pins to a chalk line").await;
    // A page that needs an account leads to the way in, and from there back to itself.
    journey.browser.goto(&format!("{}/people", journey.base)).await.unwrap();
    journey.until_text(".shell_trouble", "Signed out").await;
    journey.click_words("Sign in").await;
    journey.type_over("#email", "odile@example.org").await;
    journey.type_over("#password", "seven garments on one rail\u{e007}").await;
    journey.until_text(".start_sign-in", "No account has this address with this password").await;
    journey.type_over("#password", "another seven garments\u{e007}").await;
    journey.until_text(".people_people-page", "Nobody yet").await;

    journey.browser.goto(&format!("{}/account", journey.base)).await.unwrap();
    journey.type_over("#password", "another seven garments").await;
    journey.click_words("Delete everything").await;
    journey.until_text("h1", "From pins to a chalk line").await;
    journey.end().await;
}

#[actix_web::test]
async fn everything_is_saved_as_a_file_and_brought_in_elsewhere() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    journey.find(".rail_hung").await;
    journey.browser.goto(&format!("{}/account", journey.base)).await.unwrap();
    journey.until_text(".account_account-page", "an example of your own").await;
    let href = journey.find("a[href='/api/v1/account/archive']").await;
    // What is saved is what the link leads to; the test takes it from there, in the same session.
    let script = include_str!("saved.js");
    let zip =
        journey.browser.execute_async(script, vec![json!(href.attr("href").await.unwrap())]).await.unwrap();
    let bytes: Vec<u8> = serde_json::from_value(zip).unwrap();
    let file = std::env::temp_dir().join(format!("vemble-{}.zip", uuid::Uuid::now_v7()));
    std::fs::write(&file, bytes).unwrap();

    journey.click("[aria-label='Account: Example']").await;
    journey.click(".ant-dropdown-menu-item[data-menu-id$='out']").await;
    journey.sign_up("odile").await;
    journey.browser.goto(&format!("{}/account", journey.base)).await.unwrap();
    let chooser = journey.find("[aria-label='A file to bring in']").await;
    chooser.send_keys(file.to_str().unwrap()).await.unwrap();
    journey.until_text(".ant-message", "Brought in: 8 garments").await;
    // A second time nothing is doubled, and it is said what is there.
    chooser.send_keys(file.to_str().unwrap()).await.unwrap();
    journey.until_text(".account_account-page", "In this account already").await;
    journey.click_words("Rail").await;
    journey.find(".rail_hung > a[aria-label^='Jersey top']").await;
    std::fs::remove_file(&file).unwrap();
    journey.end().await;
}

#[actix_web::test]
async fn a_part_is_picked_on_the_stand_renamed_and_put_back() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    journey.click_words("Inherited tea dress").await;
    journey.click_words("Look over").await;
    journey.until_text(".lookover_done", "looked over").await;

    // From the keys alone: the seam on the stand opens its question.
    let seam = journey.find("[aria-label=\"front panel seam, garment's left\"]").await;
    seam.send_keys(&Key::Enter.to_string()).await.unwrap();
    journey.find(".lookover_picked-question[data-question='seam.princess_front']").await;
    journey.click("[aria-label='Rename the front panel seam']").await;
    journey.type_over(".ant-modal input", "leaf seam").await;
    journey.click_words("Call it that").await;
    journey.find("[aria-label=\"leaf seam, garment's left\"]").await;
    journey.find(STORED).await;

    // Two allowances, one taken back with undo.
    journey.type_over("[aria-label='leaf seam: allowance, each edge']", "3/4 in\u{e007}").await;
    journey.until_text("[aria-label='leaf seam: allowance, each edge']", "1.9 cm").await;
    journey.click("[aria-label='Undo']").await;
    journey.until_text("[aria-label='leaf seam: allowance, each edge']", "1.8 cm").await;
    journey.click("[aria-label='Redo']").await;
    journey.until_text("[aria-label='leaf seam: allowance, each edge']", "1.9 cm").await;
    journey.choose("hem, lower edge: how it is turned", "rolled hem").await;
    journey.find(STORED).await;

    // The lines of that seam carry its name, and the checks know its zip.
    journey.click_words("Lines").await;
    journey
        .find("[aria-label=\"leaf seam, garment's left\"]")
        .await
        .send_keys(&Key::Enter.to_string())
        .await
        .unwrap();
    journey.type_over("[aria-label='Next pin: station from the hem']", "60.5\u{e007}").await;
    journey.type_over("[aria-label='Next pin: amount read']", "0.8\u{e007}").await;
    journey.until_text(".lines_strip h2", "leaf seam").await;
    // 79.0 at the waist; through the pin itself each of two seams takes 0.8 off two edges: 3.2. The back panel seams, let out
    // at the last try-on, give 2.0.
    journey.click_words("every pin").await;
    journey.until_text("[data-level='waist'] strong", "77.8 cm").await;
    journey.find(STORED).await;
    journey.browser.refresh().await.unwrap();
    journey.until_text("[data-level='waist'] strong", "77.8 cm").await;
    journey.end().await;
}

#[actix_web::test]
async fn cloth_is_chosen_by_name_and_a_caution_follows() {
    let journey = Journey::begin(1280, 900).await;
    journey.sign_up("bram").await;
    journey.click_words("New garment").await;
    journey.click(".newgarment_kind:has(input[value='coverall'])").await;
    journey.type_over("[aria-label='Name of the new wearer']", "Брам").await;
    journey.type_over("#cloth", "satin").await;
    journey.click_words("Hang it up").await;
    journey.until_text(".lookover_lookover", "Old stitch holes will show").await;
    journey.until_text(".garment_head", "Брам · satin").await;
    journey.click("[data-question='whole.protective'] .ant-segmented-item:first-child").await;
    journey.until_text(".lookover_lookover", "Do not alter this").await;
    journey.choose("Where it came from", "second-hand").await;
    journey.until_text(".lookover_lookover", "Wash it first").await;
    journey.choose("Washed already?", "three times or more").await;
    journey.find("[data-question='whole.washed'][data-settled='true']").await;
    journey.find(STORED).await;
    assert!(
        !journey.texts(".lookover_lookover .ant-alert").await.iter().any(|t| t.contains("Wash it first"))
    );
    journey.browser.refresh().await.unwrap();
    journey.until_text(".lookover_lookover", "Do not alter this").await;
    journey.end().await;
}

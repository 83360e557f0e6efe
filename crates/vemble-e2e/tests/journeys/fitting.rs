//! A try-on recorded as it happens: one thumb, a friend, a tape, and no network in the middle.

use super::STORED;
use serde_json::{Value, json};
use vemble_e2e::Journey;

const TITLE: &str = ".fitting_fitting h1";
const NEXT: &str = ".fitting_foot-key.fitting_next";

/// Types on the pad with the thumb: digits, a point, fractions by themselves.
async fn pad(journey: &Journey, keys: &[&str]) {
    for key in keys {
        journey.tap(&format!(".fitting_pad-key[aria-label='{key}']")).await;
    }
}

async fn pin(journey: &Journey, keys: &[&str], reads: &str) {
    pad(journey, keys).await;
    journey.until_text(".fitting_number", reads).await;
    journey.tap(NEXT).await;
    journey.until_text(".fitting_number", "nothing pinned here").await;
}

/// Goes on until the place with this name is asked about.
async fn on_to(journey: &Journey, title: &str) {
    for _ in 0..30 {
        let now = journey.texts(TITLE).await;
        if now == [title] {
            return;
        }
        journey.tap(NEXT).await;
        tokio::time::sleep(std::time::Duration::from_millis(120)).await;
    }
    panic!("{title} is never asked about");
}

/// What the server has of the newest try-on: seam, garment's side, station and amount of each pin.
async fn stored_pins(journey: &Journey, garment: &str) -> Vec<[String; 4]> {
    let script = "const [id, done] = arguments; fetch(`/api/v1/garments/${id}`).then((r) => r.json()).then((s) => done(s.document.try_ons.at(-1)));";
    let try_on = journey.browser.execute_async(script, vec![json!(garment)]).await.unwrap();
    let text = |value: &Value| value.as_str().unwrap().to_owned();
    let changes = try_on["changes"].as_array().unwrap().iter();
    changes
        .filter_map(|change| change.get("seam"))
        .flat_map(|a| {
            let readings = a["readings"].as_array().unwrap().iter();
            readings.map(|r| [text(&a["seam"]), text(&r["side"]), text(&r["station"]), text(&r["amount"])])
        })
        .collect()
}

/// Opens the tea dress of the example on a phone, and a new try-on of it; gives the garment's id.
async fn new_try_on_of_the_dress(journey: &Journey) -> String {
    journey.click_words("Open the example").await;
    let script = "const done = arguments[0]; fetch('/api/v1/rail').then((r) => r.json()).then((all) => done(all.find((g) => g.name.includes('tea dress')).id));";
    journey.find(".rail_hung > a").await;
    let id = journey.browser.execute_async(script, vec![]).await.unwrap().as_str().unwrap().to_owned();
    journey.under_a_thumb().await;
    journey.browser.goto(&format!("{}/garments/{id}/try-on", journey.base)).await.unwrap();
    journey.click_words("New try-on").await;
    journey.find(STORED).await;
    journey.click_words("Fitting mode").await;
    journey.until_text(TITLE, "Before the first pin").await;
    id
}

#[actix_web::test]
async fn a_whole_try_on_with_one_thumb_and_no_network_in_the_middle() {
    let journey = Journey::begin(500, 900).await;
    let garment = new_try_on_of_the_dress(&journey).await;
    let pair = "const done = arguments[0]; const body = JSON.stringify({ code: '418207' }); const headers = { 'Content-Type': 'application/json' }; fetch('/api/v1/tape', { method: 'POST', headers, body }).then((r) => done(r.status));";
    let mut paired = json!(0);
    for _ in 0..50 {
        // The tape is called while the page opens.
        paired = journey.browser.execute_async(pair, vec![]).await.unwrap();
        if paired == json!(200) {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(200)).await;
    }
    assert_eq!(paired, json!(200));
    journey.nothing_sticks_out("conditions").await;

    // Inside out, by a helper: the wearer's left is the garment's right.
    journey.tap(".ant-segmented-item:has([title='inside out'])").await;
    journey.click(".ant-select:has(#by)").await;
    journey.click(".ant-select-item-option[title='a helper']").await;
    on_to(&journey, "Bust").await;
    journey.until_text(".fitting_side.fitting_chosen strong", "wearer’s left").await;
    journey.until_text(".fitting_side.fitting_chosen small", "garment’s right").await;
    pin(&journey, &["1", "point", "2"], "1.2 cm").await;
    journey.until_text(".fitting_side.fitting_chosen strong", "wearer’s right").await;
    pin(&journey, &["1"], "1 cm").await;

    // In the middle the network goes; everything is kept, and the questions go on.
    journey.find(STORED).await;
    journey.without_network(true).await;
    on_to(&journey, "Waist").await;
    pin(&journey, &["2", "point", "1"], "2.1 cm").await;
    journey.until_text(".fitting_kept", "kept here, sent when there is a network").await;
    pin(&journey, &["1", "point", "6"], "1.6 cm").await;
    assert_eq!(stored_elsewhere(&journey, &garment).await.len(), 2, "nothing got through");
    // It comes back, and all of it arrives once.
    journey.without_network(false).await;
    journey.find(STORED).await;
    assert_eq!(stored_pins(&journey, &garment).await.len(), 4);

    // The digital tape types by itself; what it says exactly is stored.
    on_to(&journey, "Hip").await;
    journey.tape.told.send("read 3/8 in".parse().unwrap()).unwrap();
    journey.until_text(".fitting_number", "3/8 in").await;
    journey.until_text(".fitting_figures", "2.0 cm").await;
    journey.tap(NEXT).await;
    // 45 where 4.5 was meant: asked, not believed.
    journey.until_text(".fitting_number", "nothing pinned here").await;
    pad(&journey, &["4", "5"]).await;
    journey.tap(NEXT).await;
    journey.until_text(".ant-modal", "45.0 cm here takes out 90.0 cm altogether").await;
    journey.click_words("4.5 cm was meant").await;
    journey.find(STORED).await;
    // Undone and done again, as often as one likes.
    journey.tap("[aria-label='Undo']").await;
    journey.find(STORED).await;
    assert_eq!(stored_pins(&journey, &garment).await.len(), 5);
    journey.tap("[aria-label='Redo']").await;
    journey.find(STORED).await;

    // A hem is read again standing up; both are kept. Then moving about, where no number is asked for.
    on_to(&journey, "Hem").await;
    pad(&journey, &["3"]).await;
    journey.tap(NEXT).await;
    journey.until_text(".fitting_reminder", "Stand up straight").await;
    pad(&journey, &["2", "point", "5"]).await;
    journey.tap(NEXT).await;
    journey.until_text(".fitting_sides.fitting_four", "3 cm, upright 2.5 cm").await;
    on_to(&journey, "Moving").await;
    journey.tape.told.send("read 7 cm".parse().unwrap()).unwrap();
    journey.until_text(".ant-message", "The tape says 7 cm, but no number is asked for here").await;
    journey.tap("[aria-label='sit down'] .fitting_side:nth-child(2)").await;
    journey.nothing_sticks_out("moving").await;
    journey.tap(NEXT).await;
    journey.until_text(TITLE, "What was seen").await;
    journey.tap(NEXT).await;

    // On the garment's page everything stands once, on the garment's side, in both words.
    journey.until_text(".tryon_left-out", "sit down: tight").await;
    let side_seam =
        |side: &str, station: &str, amount: &str| ["side_seam", side, station, amount].map(String::from);
    assert_eq!(
        stored_pins(&journey, &garment).await,
        [
            side_seam("right", "78 cm", "1.2 cm"),
            side_seam("left", "78 cm", "1 cm"),
            side_seam("right", "60.5 cm", "2.1 cm"),
            side_seam("left", "60.5 cm", "1.6 cm"),
            side_seam("right", "39.5 cm", "3/8 in"),
            side_seam("left", "39.5 cm", "4.5 cm"),
        ]
    );
    journey.until_text(".sheet_facts", "right (wearer’s left)").await;
    journey.nothing_sticks_out("the try-on").await;
    journey.end().await;
}

/// What another device would see: this window has no network.
async fn stored_elsewhere(journey: &Journey, garment: &str) -> Vec<[String; 4]> {
    journey.elsewhere("/rail", async || stored_pins(journey, garment).await).await
}

#[actix_web::test]
async fn a_friend_helps_by_a_code_and_the_large_view_follows() {
    let journey = Journey::begin(500, 900).await;
    let garment = new_try_on_of_the_dress(&journey).await;
    journey.tap("[aria-label='Close the fitting mode']").await;
    let code = async |whom: &str| {
        journey.click_words("Invite a helper or screen").await;
        // A dialog that is still opening may not take the click.
        let chosen = format!(".ant-segmented-item-selected [title='{whom}']");
        while journey.texts(&chosen).await.is_empty() {
            journey.click_words(whom).await;
            tokio::time::sleep(std::time::Duration::from_millis(300)).await;
        }
        journey.click_words("Make a code").await;
        journey.until_text(".tryon_invited-code", "-").await;
        let code = journey.texts(".tryon_invited-code").await.remove(0);
        journey.click(".ant-modal-close").await;
        code
    };
    let screen = code("a second screen, to look on").await;
    // Another browser has no session; in this one the owner’s is laid aside before the friend comes.
    let session = journey.browser.get_named_cookie("vemble_session").await.unwrap();
    let helper = code("a helper, who enters").await;
    let try_on = journey.browser.current_url().await.unwrap().query().unwrap().to_owned();
    journey.browser.delete_cookie("vemble_session").await.unwrap();

    journey.browser.goto(&format!("{}/join", journey.base)).await.unwrap();
    journey.type_over("[aria-label='Code']", "WRNG-2345\u{e007}").await;
    journey.until_text(".fitting_join", "No try-on under this code").await;
    journey.type_over("[aria-label='Code']", &format!("{}\u{e007}", helper.to_lowercase())).await;
    journey.until_text(TITLE, "Before the first pin").await;
    on_to(&journey, "Waist").await;
    pad(&journey, &["1", "point", "4"]).await;
    journey.tap(NEXT).await;
    journey.find(STORED).await;
    journey.tap("[aria-label='Close the fitting mode']").await;
    journey.until_text(".fitting_join", "Everything you entered is stored").await;

    // The screen looks on, large; it is told what is asked only while somebody is asked.
    journey.browser.goto(&format!("{}/join/{screen}", journey.base)).await.unwrap();
    journey.until_text(".fitting_large-figures", "1.4 cm read · 1.4 cm per edge · 2.8 cm altogether").await;
    assert_eq!(
        journey.browser.current_url().await.unwrap().path(),
        "/join",
        "no code is left in the address"
    );

    // The owner sees it on the garment's page, and closes the try-on: it is over for whoever was invited.
    journey.browser.add_cookie(session).await.unwrap();
    journey.browser.goto(&format!("{}/garments/{garment}/try-on?{try_on}", journey.base)).await.unwrap();
    journey.until_text(".sheet_facts", "1.4 cm").await;
    journey.click_words("Close it").await;
    journey.click(".ant-popconfirm-buttons .ant-btn-primary").await;
    journey.find(STORED).await;
    journey.browser.goto(&format!("{}/join", journey.base)).await.unwrap();
    journey.until_text(".fitting_join", "Type the eight signs").await;
    journey.end().await;
}

//! Lines beyond one pinned seam: shared amounts, darts, elastic, one pass under the arm, what is only tried out, and what is
//! passed over.

use crate::{HEM, HEM_NOW, STORED, open_garment, open_the_corduroys};
use serde_json::json;
use vemble_e2e::{Journey, TRIES};

const TITLE: &str = ".lines_strip h2";

/// Waits until the check of this title says so; checks follow the line a moment later.
async fn until_check(journey: &Journey, title: &str, says: &str) {
    let script = "return [...document.querySelectorAll('.lines_check')].filter((c) => c.textContent.includes(arguments[0])).map((c) => c.textContent).join(' ')";
    let mut said = String::new();
    for _ in 0..TRIES {
        let found = journey.browser.execute(script, vec![title.into()]).await.unwrap();
        found.as_str().unwrap_or_default().clone_into(&mut said);
        if said.contains(says) {
            return;
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    panic!("“{title}” should say “{says}” but says “{said}”");
}

/// What mends a check is done with a click, as something that is tried out: before and now beside each other, and only then kept.
#[actix_web::test]
async fn a_remedy_is_tried_out_and_kept_and_what_passes_is_one_line() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    until_check(&journey, "Grain of the leg", "Split it with the inseam").await;
    let folded = "details.lines_folded > summary";
    journey.until_text(folded, "12 pass").await;

    journey.click("[aria-label^='Do it: Grain of the leg']").await;
    journey.until_text(".lines_what-if", "before: 3.4 cm per edge from one seam of the leg").await;
    journey.until_text(".lines_what-if", "now: 1.7 cm per edge from one seam of the leg").await;
    journey.until_text("[aria-label='What changes']", "inseam").await;
    journey.click_words("Back to what is kept").await;
    until_check(&journey, "Grain of the leg", "Split it with the inseam").await;

    // The same again, and kept; then what stays inside is trimmed, beside it.
    journey.click("[aria-label^='Do it: Grain of the leg']").await;
    journey.until_text(".lines_what-if", "now: 1.7 cm").await;
    journey.click_words("Keep it").await;
    until_check(&journey, "Grain of the leg at the outseam", "hangs straight").await;
    journey.find(STORED).await;
    journey.browser.refresh().await.unwrap();
    until_check(&journey, "Grain of the leg at the inseam", "hangs straight").await;
    journey.until_text(HEM, HEM_NOW).await;

    // What is passed over is one line as well, and can be taken back there.
    journey.click("[aria-label^='Pass over: Opened first']").await;
    journey.type_over("[aria-label^='Why Opened first']", "the hem stays as it is\u{e007}").await;
    journey.until_text("[aria-label='Checks']", "1 passed over").await;
    journey.end().await;
}

/// Stores a document that was released as a garment of whoever is signed in, and opens its lines.
async fn open_lines_of(journey: &Journey, document: &serde_json::Value) {
    let script = "const [sent, done] = arguments; const id = () => crypto.randomUUID(); \
        const ask = async (how, path, body) => { const r = await fetch('/api/v1/' + path, { method: how, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }); \
            const said = await r.json(); if (!r.ok) throw new Error(JSON.stringify(said)); return said; }; \
        (async () => { const whole = sent.version === 1 ? await ask('POST', 'brought-up', sent) : sent; const { wearer, states, try_ons } = whole; const [w, g, t] = [id(), id(), id()]; const state = states.at(-1); \
            await ask('PUT', 'wearers/' + w, { version: 0, wearer }); \
            await ask('PUT', 'garments/' + g, { version: 0, wearer_id: w, archived: false, state: state.id, garment: state.garment }); \
            await ask('PUT', `garments/${g}/try-ons/${t}`, { version: 0, try_on: { ...try_ons.at(-1), id: t, state: state.id } }); return g; })().then(done, (e) => done('failed: ' + e));";
    let garment = journey.browser.execute_async(script, vec![document.clone()]).await.unwrap();
    let garment = garment.as_str().unwrap_or_default().to_owned();
    assert!(!garment.starts_with("failed"), "{garment}");
    journey.browser.goto(&format!("{}/garments/{garment}/lines", journey.base)).await.unwrap();
}

/// A case that was worked out by hand, or a garment of the example, with some of it set otherwise.
fn document(path: &str, set: &[(&str, serde_json::Value)]) -> serde_json::Value {
    let root = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");
    let text = std::fs::read_to_string(format!("{root}/{path}")).unwrap();
    let mut document: serde_json::Value = serde_json::from_str(&text).unwrap();
    for (pointer, value) in set {
        let (above, key) = pointer.rsplit_once('/').unwrap();
        document.pointer_mut(above).unwrap_or_else(|| panic!("{path} has no {above}"))[key] = value.clone();
    }
    document
}

/// Each kind of remedy is followed once, with a click: what it mends passes then, or is there no more.
#[actix_web::test]
async fn every_kind_of_remedy_is_followed_with_a_click() {
    let case = |name: &str| format!("crates/vemble-exchange/tests/cases/{name}.json");
    let thighs = json!([{ "what": "thigh_girth", "date": "2026-03-01", "left": "58 cm", "right": "60 cm" }]);
    let two_sides = json!([
        { "side": "left", "station": "10 cm", "amount": "1 cm", "how": "fold" },
        { "side": "left", "station": "50 cm", "amount": "1 cm", "how": "fold" },
        { "side": "right", "station": "10 cm", "amount": "2 cm", "how": "fold" },
        { "side": "right", "station": "50 cm", "amount": "2 cm", "how": "fold" }
    ]);
    let deep = json!([{ "dart": { "dart": "back_waist", "readings": [{ "side": "left", "station": "9 cm", "amount": "1.4 cm", "how": "fold" }] } }]);
    let low = json!([{ "dart": { "dart": "back_fish_eye", "point": "80 cm", "base": "34 cm", "readings": [{ "side": "left", "station": "18 cm", "amount": "1 cm", "how": "fold" }] } }]);
    let changes = "/try_ons/0/changes";
    let kinds = [
        ("What stays inside", document(&case("A1_cb_waist"), &[])),
        ("Letting out", document(&case("C7_letout_unequal"), &[])),
        ("Cut line", document(&case("C8_trim_wider_than_allowance"), &[])),
        ("Cut line", document(&case("C8b_trim_1mm"), &[])),
        ("Cut line", document(&case("C9_trim_letout"), &[])),
        ("Grain", document(&case("O1_calf"), &[])),
        ("Run-out", document(&case("Q1_pass_over_lower"), &[])),
        (
            "Left and right",
            document(
                "demo/corduroys.json",
                &[("/wearer/measurements", thighs), ("/try_ons/0/changes/0/seam/readings", two_sides)],
            ),
        ),
        ("Depth", document("demo/corduroys.json", &[(changes, deep)])),
        ("Where the", document("demo/tea-dress.json", &[("/try_ons/1/changes", low)])),
    ];
    let journey = Journey::begin(1280, 900).await;
    journey.sign_up("mending").await;
    for (title, document) in kinds {
        open_lines_of(&journey, &document).await;
        journey.click(&format!("[aria-label^='Do it: {title}']")).await;
        journey.until_text(".lines_what-if dt", title).await;
        let before = journey.texts(".lines_what-if dd").await.swap_remove(0);
        assert!(before.ends_with("caution") || before.ends_with("stop"), "{title}: {before}");
        journey.until_text(".lines_what-if dd + dd", "passes").await;
        journey.click_words("Keep it").await;
        journey.find(STORED).await;
    }
    // The longest choice of an end, on a telephone.
    journey.on_a_phone().await;
    open_lines_of(&journey, &document(&case("A1_cb_waist"), &[])).await;
    journey
        .until_text("[aria-label='Pins']", "assumed: goes straight through from 34.0 cm to the waist")
        .await;
    journey.nothing_sticks_out("the ends of a seat seam").await;
    journey.end().await;
}

#[actix_web::test]
async fn a_deep_taper_is_split_tried_out_and_kept_as_a_version() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    until_check(&journey, "Grain of the leg", "Split it with the inseam").await;

    // Half of it on the inseam: both seams have a line, the leg measures the same, and the grain no longer tips.
    journey.choose("Give a share to another seam", "inseam").await;
    journey.find("[data-change='seam.inseam']").await;
    journey.until_text(".lines_together", "inseam: 2 edges × 1.7").await;
    journey.until_text(HEM, HEM_NOW).await;
    until_check(&journey, "Grain of the leg", "hangs straight").await;
    journey.find(STORED).await;

    // What is tried out touches nothing that is stored.
    journey.click_words("What if").await;
    journey.type_over("[aria-label='Pin 1: amount read']", "2\u{e007}").await;
    // As much as without a share: the marks of both seams make the whole.
    journey.until_text(HEM, "43.3 cm").await;
    journey.type_over("[aria-label='Name of this version']", "a little looser\u{e007}").await;
    journey.until_text("[aria-label='Versions']", "a little looser").await;
    let before = "const done = arguments[0]; fetch('/api/v1/rail').then((r) => r.json()).then(async (rail) => { const id = rail.find((g) => g.kind === 'trousers').id; const g = await (await fetch('/api/v1/garments/' + id)).json(); const t = g.document.try_ons[0]; done([t.changes[0].seam.readings[0].amount, (t.versions ?? []).length]); });";
    let stored = async || journey.browser.execute_async(before, vec![]).await.unwrap();
    assert_eq!(stored().await, json!(["3.4 cm", 0]));
    journey.click_words("Keep it").await;
    journey.find(STORED).await;
    for _ in 0..TRIES {
        if stored().await == json!(["2 cm", 1]) {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    assert_eq!(stored().await, json!(["2 cm", 1]));
    // Kept as one change: one step back undoes all of it.
    journey.find("body").await.send_keys("\u{e009}z\u{e000}").await.unwrap();
    journey.until_text(HEM, HEM_NOW).await;
    journey.end().await;
}

#[actix_web::test]
async fn new_darts_are_placed_counted_and_chalked() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Concert shirt").await;
    journey.click("[data-change='dart.back_fish_eye']").await;
    journey.until_text(TITLE, "new back fish-eye dart").await;
    journey.until_text(".changes_dart-place", "assumed: from 39.5 down to 9.5 cm above the hem").await;
    journey.until_text(".lines_together", "2 new back fish-eye darts × 2 sides of the fold × 1.0").await;

    journey.type_over("[aria-label='Height of the point above the hem']", "38\u{e007}").await;
    journey.type_over("[aria-label='Height of the other end above the hem']", "10\u{e007}").await;
    journey.until_text(".changes_dart-place", "from 38.0 down to 10.0 cm above the hem").await;
    // A pin off the dart is refused at its field, and what was typed stays.
    journey.type_over("[aria-label='Pin 1: station from the upper point']", "40\u{e007}").await;
    journey
        .until_text(".changes_pins .field-trouble", "it is 28.0 cm long, measured from the upper point")
        .await;
    journey.type_over("[aria-label='Pin 1: station from the upper point']", "14\u{e007}").await;
    journey.type_over("[aria-label='Pin 2: station from the upper point']", "14\u{e007}").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalk-card h1", "New back fish-eye dart, a pair, both the same").await;
    let stations = journey.texts(".card_station").await;
    assert_eq!([stations.first().unwrap().as_str(), stations.last().unwrap()], ["0.0", "28.0"]);
    let depths = journey.texts(".card_chalked").await;
    let at = |station: &str| depths[stations.iter().position(|s| s == station).unwrap()].as_str();
    assert_eq!([at("0.0"), at("14.0"), at("28.0")], ["0.0", "1.0", "0.0"]);
    journey.nothing_sticks_out("the card of a dart").await;
    journey.end().await;
}

#[actix_web::test]
async fn a_centre_back_waist_goes_through_the_band_to_a_card_in_every_format() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    journey.choose("Change something else", "seat seam").await;
    journey.until_text(TITLE, "seat seam").await;
    for (station, amount) in [("36", "1.5"), ("26", "1.1"), ("16", "0.4")] {
        journey
            .type_over("[aria-label='Next pin: station from the crotch']", &format!("{station}\u{e007}"))
            .await;
        journey.type_over("[aria-label='Next pin: amount read']", &format!("{amount}\u{e007}")).await;
    }
    // The band is as deep as it is; below it the line runs out down the seat.
    journey
        .until_text("[aria-label='Pins']", "assumed: goes straight through from 34.0 cm to the waist")
        .await;
    until_check(&journey, "Waistband and seat seam", "2 edges × 1.5 = 3.0 cm shorter").await;
    until_check(&journey, "Gap between the back welt pockets", "8.0 − 2.0 = 6.0 cm between them").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalk-card h1", "Seat seam").await;
    journey.until_text(".card_chalk-card ol", "Sew the band’s own seam in one pass").await;
    let sums = "return [...document.querySelectorAll('.card_explained')].map((e) => e.ariaLabel)";
    let sums = journey.browser.execute(sums, vec![]).await.unwrap().to_string();
    assert!(
        sums.contains("1.5 cm: pinned 3.0 altogether; the line here: 2 edges × 1.5 = 3.0 cm altogether"),
        "{sums}"
    );

    // Each file is what its button says, of this card, on the paper and tape that were chosen.
    journey.click_words("Letter").await;
    journey.click_words("inches").await;
    journey.until_text(".card_chalk-card th:nth-child(2)", "from crotch, in").await;
    let fetch = "const done = arguments[1]; const link = [...document.querySelectorAll('.card_tools a[download]')].find((a) => a.textContent === arguments[0]); \
                 fetch(link.href).then(async (r) => done([r.headers.get('content-disposition'), (await r.text()).slice(0, 60)]));";
    for (words, name, begins) in [
        ("PDF", "chalk-card-seam-seat-seam.pdf", "%PDF-"),
        ("Text", "chalk-card-seam-seat-seam.txt", "Seat seam\nCharity-shop corduroys"),
        ("CSV", "chalk-card-seam-seat-seam.csv", "try_on,change,name,note,"),
    ] {
        let file = journey.browser.execute_async(fetch, vec![words.into()]).await.unwrap();
        assert!(file[0].as_str().unwrap().contains(name), "{file}");
        assert!(file[1].as_str().unwrap().starts_with(begins), "{file}");
    }
    journey.nothing_sticks_out("the card of a centre-back waist").await;
    journey.end().await;
}

#[actix_web::test]
async fn one_pass_under_the_arm_and_elastic_in_a_band() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Concert shirt").await;
    journey.choose("Upper end of the line", "runs off at the underarm").await;
    until_check(&journey, "Sleeve and armhole", "The sleeve no longer fits its armhole").await;
    journey.choose("Upper end of the line", "carries on into the sleeve seam").await;
    journey.find("[data-change='seam.sleeve_seam']").await;
    until_check(&journey, "Sleeve and armhole", "they still fit each other").await;
    journey.click("[data-change='seam.sleeve_seam']").await;
    journey.until_text(TITLE, "carries on from the side seam").await;
    journey.find(STORED).await;

    journey.click_words("Rail").await;
    open_garment(&journey, "Charity-shop corduroys").await;
    journey.until_text(HEM, HEM_NOW).await;
    journey.choose("Change something else", "elastic in the waistband").await;
    journey.type_over("[aria-label='Length of the casing']", "30\u{e007}").await;
    // 30.0 − (90.0 − 85.5) = 25.5; ÷ 1.15 = 22.17, and 2 of anchors.
    journey.until_text(".changes_elastic-result strong", "24.2 cm").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalk-card", "Cut the elastic 24.2 cm long").await;
    journey.end().await;
}

#[actix_web::test]
async fn a_stop_is_passed_over_with_a_word_that_is_kept() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Herringbone overcoat").await;
    let stop = "Left and right of the side seam";
    until_check(&journey, stop, "nobody has decided").await;
    journey.click(&format!("[aria-label='Pass over: {stop}']")).await;
    journey
        .type_over(&format!("[aria-label='Why {stop} is passed over']"), "padded right shoulder\u{e007}")
        .await;
    journey
        .until_text(".lines_check.lines_stop.lines_passed-over", "Passed over: “padded right shoulder”")
        .await;
    journey.find(STORED).await;
    journey.browser.refresh().await.unwrap();
    journey.until_text(".lines_check.lines_stop.lines_passed-over", "padded right shoulder").await;
    // What is passed over is one line, until it is opened.
    journey.click("details.lines_folded > summary").await;
    journey.click_words("take that back").await;
    journey.find(&format!("[aria-label='Pass over: {stop}']")).await;
    journey.end().await;
}

#[actix_web::test]
async fn a_hem_goes_from_its_marks_to_a_card() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Herringbone overcoat").await;
    journey.click("[data-change='hem.body']").await;
    journey.until_text(TITLE, "hem").await;
    let result = ".hem_result strong";
    journey.until_text(result, "take off 5.0 cm").await;
    journey.until_text(".hem_hem", "5.0 turned up + 5.0 off − 4.0 for the new hem = 6.0 cm cut off").await;
    journey.until_text(".hem_hem", "Fold at 10.0, cut 6.0 cm").await;
    // 140 round at the hem, less where the coat is narrower.
    journey.until_text(HEM, "138.0 cm").await;

    // A mark that does not agree with the others: whether the edge is to slope is asked, and answered.
    journey.type_over("[aria-label='Read upright at back']", "2\u{e007}").await;
    until_check(&journey, "Level of the hem", "from 2.0 to 5.0 cm: 3.0 cm apart").await;
    journey.until_text(result, "take off 2.0 cm to 5.0 cm").await;
    journey.choose("How it follows its marks", "follow the marks").await;
    until_check(&journey, "Level of the hem", "Somebody said how it is to be").await;
    journey.choose("How it follows its marks", "level: the same all round").await;
    journey.until_text(result, "take off 4.3 cm").await;

    // A mark on the unrolled edge is nudged by one of the tape, and dragged: the fold is painted while the hand still moves.
    let mark = "[data-mark='back']";
    let handle = journey.find(mark).await;
    journey.browser.execute("document.querySelector(arguments[0]).focus()", vec![mark.into()]).await.unwrap();
    handle.send_keys(&fantoccini::key::Key::Up.to_string()).await.unwrap();
    journey.until_text(".hem_marks", "take off 2.1 cm").await;
    journey.choose("How it follows its marks", "follow the marks").await;
    journey.until_text(result, "take off 2.1 cm to 5.0 cm").await;
    let drag = include_str!("drag.js");
    let line = "return document.querySelector('[data-line=new]').getAttribute('d')";
    let before = journey.browser.execute(line, vec![]).await.unwrap();
    let script = vec![mark.into(), json!(-30), json!(false)];
    let moved = journey.browser.execute_async(drag, script).await.unwrap();
    assert_ne!(moved["path"], before, "painted before the mark was let go");
    journey.find(STORED).await;
    journey.type_over("[aria-label='Read upright at back']", "2\u{e007}").await;
    journey.choose("How it follows its marks", "level: the same all round").await;
    journey.until_text(result, "take off 4.3 cm").await;

    // What is typed counts before the marks, and what cannot be is said at its field.
    journey.type_over("[aria-label='What is taken off']", "300\u{e007}").await;
    journey.until_text(".hem_hem .field-trouble", "300 cm, but the garment is").await;
    journey.type_over("[aria-label='What is taken off']", "6\u{e007}").await;
    journey.until_text(result, "take off 6.0 cm").await;
    journey.choose("How it is turned", "double turn").await;
    until_check(&journey, "Bulk of the hem", "Turn it once").await;
    journey.click("[aria-label^='Do it: Bulk of the hem']").await;
    journey.until_text(".lines_what-if dd + dd", "nothing is left to check").await;
    journey.click_words("Keep it").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalk-card h1", "Hem").await;
    journey.until_text(".card_chalk-card table", "all round").await;
    assert_eq!(journey.texts(".card_chalked").await, ["11.0", "7.0"]);
    journey.click("[aria-label='Chalked at all round']").await;
    journey.until_text(".card_done", "1 of 1").await;
    journey.nothing_sticks_out("the card of a hem").await;
    journey.end().await;
}

/// Buttons are spaced anew over what the hem leaves of their edge, one on the bust line; and a long edge is pleated to a short one.
#[actix_web::test]
async fn fastenings_are_spaced_anew_and_an_edge_is_pleated() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Concert shirt").await;
    journey.click("[data-change='spacing.centre_front']").await;
    let result = ".spacing_result strong";
    journey.until_text(result, "7 on each edge, 7.7 to 7.8 cm apart").await;
    let sum = "edge 68.0 − 4.0 off at the hem − 6.5 to the first − 11.0 below the last = 46.5 cm to space";
    journey.until_text(".spacing_spacing", sum).await;
    journey.type_over("[aria-label='How many on each edge']", "40\u{e007}").await;
    until_check(&journey, "Spacing of the buttons", "they cannot be worked: 24 fit").await;
    journey.type_over("[aria-label='How many on each edge']", "7\u{e007}").await;
    journey.until_text(result, "7 on each edge").await;
    until_check(&journey, "Buttons, centre front at the bust", "the nearest 3.0 cm from it").await;
    journey.click("[aria-label^='Do it: Buttons, centre front at the bust']").await;
    journey.until_text(".lines_what-if dd + dd", "one of them on it").await;
    journey.click_words("Keep it").await;
    journey.find(STORED).await;
    journey.until_text(".spacing_places", "25.0 cm").await;
    journey.type_over("[aria-label='edge, top to lower end']", "0\u{e007}").await;
    journey.until_text(".spacing_spacing .field-trouble", "more than nought").await;
    journey.type_over("[aria-label='edge, top to lower end']", "68\u{e007}").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalk-card h1", "Buttons, centre front").await;
    journey.until_text(".card_chalk-card table", "on the line").await;
    journey.nothing_sticks_out("the card of buttons").await;

    journey.click_words("Rail").await;
    open_garment(&journey, "Toile of a wrap-front pinafore").await;
    journey.click("[data-change='gathers.waist']").await;
    journey.until_text(".gathers_gathers", "108.0 − 80.4 = 27.6 cm to take up").await;
    journey.choose("How it is taken together", "pleats, all one way").await;
    journey.until_text(".gathers_result strong", "6 pleats").await;
    journey.type_over("[aria-label='How many pleats']", "8\u{e007}").await;
    journey.until_text(".gathers_result strong", "8 pleats").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalk-card h1", "Pleats, all one way at the waist").await;
    journey.nothing_sticks_out("the card of pleats").await;
    journey.end().await;
}

#[actix_web::test]
async fn what_is_wanted_is_carried_by_the_best_way_and_tried_in_lines() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Concert shirt").await;
    journey.click_words("Lines").await;
    journey.click_words("Which way?").await;
    journey.type_over("[aria-label^='Change of the waist']", "-8\t").await;
    journey.until_text("[aria-label='Which way'] article", "8.0 cm smaller").await;
    journey.type_over("[aria-label^='Change of the waist']", "-6\t").await;
    journey.until_text("[aria-label='Which way'] article", "6.0 cm smaller").await;
    let first = journey.texts("[aria-label='Which way'] article h3").await.remove(0);
    assert_eq!(first, "1 New back fish-eye darts");
    journey.find(STORED).await;
    journey.click_words("Try it in Lines").await;
    journey.until_text(".lines_what-if", "Nothing of this is stored until you keep it").await;
    journey.until_text("[data-level='waist'] strong", "118.0 cm").await;
    journey.click_words("Keep it").await;
    journey.click_words("Which way?").await;
    // What was wanted is still there; another tape says it in its own marks.
    journey.click_words("inches").await;
    journey.until_text("[aria-label^='Change of the waist']", "−2 3/8 in").await;
    journey.choose("Like one that fits", "Jersey top (Odile Fenwick)").await;
    journey.until_text("[aria-label='Which way']", "says little about the other").await;
    journey.end().await;
}

#[actix_web::test]
async fn a_dress_that_has_too_little_inside_is_let_out_with_a_panel() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Inherited tea dress").await;
    journey.click_words("Lines").await;
    journey.click_words("Which way?").await;
    // So much its own seams have; a panel is considered beside them.
    journey.until_text("[aria-label='Which way'] article", "each as much as is inside it").await;
    journey
        .until_text("[aria-label='Which way']", "It needs cloth like this, where the first does with its own")
        .await;
    journey.type_over("[aria-label^='Change of the waist']", "14\t").await;
    journey.until_text("[aria-label='Which way'] article", "14.0 cm wider").await;
    journey.find(STORED).await;
    journey.click_words("Try it in Lines").await;
    journey.until_text(".lines_what-if", "Nothing of this is stored until you keep it").await;
    journey.until_text("[data-level='waist'] strong", "93.0 cm").await;
    journey.click_words("Keep it").await;
    journey.until_text("[aria-label='Checks']", "Cloth for the panel").await;
    // A word of the trade says what it means.
    journey.find("[aria-label='Checks'] abbr[title]").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text("main", "Draw the panel’s middle line along the grain").await;
    journey.end().await;
}

#[actix_web::test]
async fn an_armhole_is_raised_and_its_cap_shaped_to_it() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Concert shirt").await;
    journey.click_words("Lines").await;
    journey.choose("Change something else", "shoulders, armholes and sleeves").await;
    journey.type_over("[aria-label='seam below the hinge of the arm']", "5\t").await;
    journey.type_over("[aria-label^='raise it']", "1\t").await;
    journey.until_text(".armhole_lift", "before the body is dragged").await;
    journey.until_text(".armhole_now-and-then", "4.0 cm").await;
    // A cap that is too full for it is shaped by what is offered.
    journey.until_text("[aria-label='Checks']", "Shape the cap").await;
    journey.type_over("[aria-label^='shape the cap']", "1\t").await;
    journey.until_text(".armhole_now-and-then", "= 1.0 cm of ease").await;
    journey.find(STORED).await;
    // What cannot be is named at its field and loses nothing.
    journey.type_over("[aria-label^='raise it']", "40\t").await;
    journey.until_text(".armhole_armhole", "more than half the depth of the armhole").await;
    journey.type_over("[aria-label^='raise it']", "1 cm\t").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text("main", "Draw a line across the sleeve").await;
    journey.end().await;
}

#[actix_web::test]
async fn a_size_is_chosen_by_its_sums_and_pieces_are_changed_and_printed() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of summer trousers").await;
    // It goes on where something is to be done: nothing is cut yet.
    journey.until_text("[aria-label='Which size']", "regular 14, with allowances of 1.0 cm").await;
    journey
        .until_text(
            "[aria-label='Which size']",
            "2 outseams × 2 edges × 0.5 cm = 2.0 cm; 1 seat seam × 2 edges",
        )
        .await;
    journey.until_text("[aria-label='Which size']", "the front rise has the zip and is left alone").await;
    journey.click("[aria-label='regular 16'] button").await;
    journey.until_text("[aria-label='Which size']", "Cut regular 16").await;
    journey.find(STORED).await;
    // Its assumed figures are those of another size still, until it is given those of this one.
    journey.until_text("[aria-label='Which size']", "have other figures still: ").await;
    journey.click_words("Give it those of regular 16").await;
    journey.find("[aria-label='Which size']:not(:has([role='status']))").await;
    journey.find(STORED).await;
    // What cannot be read stays, with the reason; a bare figure is not guessed at.
    journey.click_words("Another chart: a fuller range").await;
    journey.type_over("[aria-label='The chart']", "tall,16,18\nhip finished,110,115").await;
    journey.click_words("Read it").await;
    journey.until_text("[role='alert']", "line 2: “110” without a unit").await;
    journey.click_words("Leave it").await;
    // Its pieces match as they are; one that is made longer alone does not, and is mended by a tap.
    journey.click_words("Pieces").await;
    journey.until_text("[aria-label='Pieces']", "Everything that is sewn together matches").await;
    journey.choose("What is done", "an edge longer or shorter at one end").await;
    journey.choose("Which edge", "inseam").await;
    journey.type_over("[aria-label^='By so much']", "1\t").await;
    journey.click_words("Do it").await;
    journey.until_text("[aria-label='What does not match']", "The inseam does not match").await;
    journey.until_text("[aria-label='What does not match']", "1.0 cm too long on the leg, front").await;
    journey.click_words("Trim 1.0 cm at the lower end of the leg, front").await;
    journey.until_text("[aria-label='Pieces']", "Everything that is sewn together matches").await;
    journey.click("[aria-label^='Take away: Leg, front: inseam 1.0 cm shorter']").await;
    journey.until_text("[aria-label='What does not match']", "The inseam does not match").await;
    // A slash from the hem, to nothing at the waist.
    journey.choose("What is done", "slashed and spread, to nothing at a hinge").await;
    journey.choose("Opens at: which edge", "hem").await;
    journey.type_over("[aria-label^='Opens at: how far']", "12\t").await;
    journey.choose("Holds at: which edge", "waist edge").await;
    journey.type_over("[aria-label^='Holds at: how far']", "8\t").await;
    journey.type_over("[aria-label^='By so much']", "2\t").await;
    journey.click_words("Do it").await;
    let spread =
        "Leg, front: 2.0 cm spread at the hem, 12.0 cm from the middle, to nothing at the waist edge";
    journey.until_text("[aria-label='What is done to them']", spread).await;
    journey.click_words("At true size").await;
    journey.until_text("body", "Only what changed, PDF on A4").await;
    journey.find(STORED).await;
    journey.end().await;
}

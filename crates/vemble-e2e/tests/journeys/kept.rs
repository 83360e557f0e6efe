//! What is kept exactly, wherever and on whichever tape it was entered: ticks, ends, sides, and the way back.

use crate::{HEM, HEM_NOW, STORED, open_the_corduroys};
use serde_json::{Value, json};
use vemble_e2e::{Journey, TRIES};

/// The newest try-on of the garment that is shown, as the server has it.
async fn stored(journey: &Journey) -> Value {
    let script = "const done = arguments[0]; fetch(`/api/v1${location.pathname.split('/').slice(0, 3).join('/')}`).then((r) => r.json()).then((s) => done(s.document.try_ons.at(-1)));";
    journey.browser.execute_async(script, vec![]).await.unwrap()
}

/// Waits until the server has it so.
async fn until_stored(journey: &Journey, pointer: &str, wanted: Option<Value>) {
    let mut there = None;
    for _ in 0..TRIES {
        there = stored(journey).await.pointer(pointer).cloned();
        if there == wanted {
            return;
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    panic!("{pointer} should be {wanted:?} but is {there:?}");
}

#[actix_web::test]
async fn what_is_chalked_is_ticked_on_every_device_and_in_either_unit() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    journey.click_words("Chalk card").await;
    journey.click("[aria-label='Chalked at 15.0 cm']").await;
    journey.until_text(".card_done", "1 of").await;
    journey.find(STORED).await;
    until_stored(&journey, "/chalked/0/change", Some(json!("seam.outseam"))).await;
    // In inches the same place is ticked; so it is on the phone that stands beside the table.
    journey.click_words("inches").await;
    journey.find("tr.card_ticked [aria-label='Chalked at 5 7/8 in']").await;
    let path = journey.browser.current_url().await.unwrap().path().to_owned();
    let untick = "const done = arguments[0]; const url = `/api/v1${location.pathname.split('/').slice(0, 3).join('/')}`; \
                  fetch(url).then((r) => r.json()).then(async (s) => { const t = s.document.try_ons.at(-1); t.chalked = []; \
                  const answer = await fetch(`${url}/try-ons/${t.id}`, { method: 'PUT', headers: { 'Content-Type': 'application/json' }, \
                  body: JSON.stringify({ version: s.try_on_versions.at(-1), try_on: t }) }); done(answer.status); });";
    let doing = async || journey.browser.execute_async(untick, vec![]).await.unwrap();
    assert_eq!(journey.elsewhere(&path, doing).await, json!(200));
    journey.until_text(".card_done", "0 of").await;
    journey.end().await;
}

#[actix_web::test]
async fn an_end_that_is_chosen_lies_exactly_at_its_pin() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    // A pin between two marks of the tape that is shown.
    journey.choose("Upper end of the line", "as the pins suggest").await;
    journey.click_words("inches").await;
    journey.type_over("[aria-label='Pin 5: station from the hem']", "99.3 cm\u{e007}").await;
    journey.find(STORED).await;
    journey.choose("Upper end of the line", "straight through from").await;
    journey.find(STORED).await;
    assert!(
        journey.texts(".field-trouble").await.is_empty(),
        "the end is where the pin is, not at a mark beside it"
    );
    let end = stored(&journey).await["changes"][0]["seam"]["upper"].clone();
    assert_eq!(end["end"], "straight_through", "{end}");
    // The allowance is as it was found, not as the screen shows it.
    journey.choose("What happens to the allowance", "after the try-on, trim to").await;
    journey.find(STORED).await;
    let trim = stored(&journey).await["changes"][0]["seam"]["trim_to"].as_str().unwrap().to_owned();
    let measure: vemble_core::length::Measure = trim.parse().unwrap();
    assert_eq!(measure.length, vemble_core::length::Length::from_mm(15), "{trim}");
    journey.end().await;
}

#[actix_web::test]
async fn out_of_reach_on_both_sides_is_taken_back_step_by_step() {
    let journey = Journey::begin(390, 844).await;
    journey.under_a_thumb().await;
    open_the_corduroys(&journey).await;
    journey.click_words("Try on").await;
    journey.click_words("New try-on").await;
    journey.find(STORED).await;
    journey.click_words("Fitting mode").await;
    journey.until_text(".fitting_fitting h1", "Before the first pin").await;
    journey.tap(".fitting_foot-key.fitting_next").await;
    journey.until_text(".fitting_fitting h1", "Waist").await;
    for step in ["wearer’s left", "wearer’s right"] {
        journey.until_text(".fitting_side.fitting_chosen strong", step).await;
        journey.tap(".fitting_foot-key.fitting_small").await;
    }
    until_stored(&journey, "/left_out/1/why", Some(json!("out_of_reach"))).await;
    // One step back takes back one, the next the other; and on again.
    journey.tap("[aria-label='Undo']").await;
    until_stored(&journey, "/left_out/1", None).await;
    until_stored(&journey, "/left_out/0/why", Some(json!("out_of_reach"))).await;
    journey.tap("[aria-label='Undo']").await;
    until_stored(&journey, "/left_out", None).await;
    journey.tap("[aria-label='Redo']").await;
    journey.tap("[aria-label='Redo']").await;
    until_stored(&journey, "/left_out/1/why", Some(json!("out_of_reach"))).await;
    journey.end().await;
}

#[actix_web::test]
async fn left_and_right_of_a_measurement_are_what_was_measured() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    journey.until_text(HEM, HEM_NOW).await;
    journey.click_words("Bram Castellane").await;
    journey.click_words("inches").await;
    journey.click_words("all").await;
    // Shown to an eighth of an inch; what is stored is the centimetres that were measured.
    let before = "const done = arguments[0]; fetch(`/api/v1/wearers/${location.pathname.split('/')[2]}`).then((r) => r.json()).then((w) => done(w.state.wearer.measurements));";
    let measured = async || journey.browser.execute_async(before, vec![]).await.unwrap();
    let figure = |all: &Value, field: &str| {
        let thigh = all.as_array().unwrap().iter().rfind(|t| t["what"] == "thigh_girth");
        thigh
            .and_then(|t| t[field].as_str())
            .map(|text| text.parse::<vemble_core::length::Measure>().unwrap().length)
    };
    let value = figure(&measured().await, "value").expect("Bram's thigh was measured");
    let script = "[...document.querySelectorAll('tr')].find((tr) => tr.querySelector('[aria-label=\"thigh girth\"]')).querySelector('.ant-btn-link').click()";
    journey.find("[aria-label='thigh girth']").await;
    journey.browser.execute(script, vec![]).await.unwrap();
    journey.find("[aria-label='thigh girth, left']").await;
    journey.find(STORED).await;
    let all = measured().await;
    assert_eq!([figure(&all, "left"), figure(&all, "right")], [Some(value), Some(value)], "{all}");
    journey.end().await;
}

#[actix_web::test]
async fn on_a_dress_form_every_screen_speaks_of_the_form() {
    let journey = Journey::begin(1280, 900).await;
    open_the_corduroys(&journey).await;
    journey.click("[aria-label='Stages'] a[href*='try-on']").await;
    journey.until_text(".sheet_facts", "left (wearer’s right)").await;
    journey.click(".ant-select:has(#by)").await;
    journey.click(".ant-select-item-option[title='on a dress form']").await;
    journey.find(STORED).await;
    journey.until_text(".sheet_facts", "left (form’s right)").await;
    // Turned by the way: what has sides is asked about, and stays with the garment.
    journey.click(".ant-segmented-item:has([title='right side out'])").await;
    journey.click_words("The garment’s left: the pins stay where they are").await;
    journey.until_text(".sheet_facts", "left (form’s left)").await;
    journey.find(STORED).await;
    until_stored(&journey, "/worn", Some(json!("right_side_out"))).await;
    journey.click("[aria-label='Undo']").await;
    journey.until_text(".sheet_facts", "left (form’s right)").await;
    journey.find(STORED).await;
    // On the strip and on the card it is the form, too.
    journey.click("[aria-label='Stages'] a[href*='lines']").await;
    journey.until_text(".SeamStrip_side-name", "form’s left").await;
    journey.click_words("Chalk card").await;
    journey.until_text(".card_chalk-card", "the garment’s left was on the form’s right").await;
    assert!(!journey.texts(".card_chalk-card").await.concat().contains("wearer’s"));
    journey.end().await;
}

//! From the plan to the record: gates, evenings, and a garment that is finished.

use super::*;

/// Opens a garment of the example at a stage of its tape.
async fn open_at(journey: &Journey, name: &str, stage: &str) {
    journey.click_words("Rail").await;
    open_garment(journey, name).await;
    journey.find(".StageTrack_stage").await;
    journey.click_words(stage).await;
}

/// Whatever task is at hand, done; a gate fits on all its sides.
async fn do_what_is_at_hand(journey: &Journey) -> String {
    journey.find(".plan_current h2").await;
    let title = journey.texts(".plan_current h2").await.remove(0);
    match &journey.texts(".plan_verdict").await[..] {
        [] => journey.click_words("Done").await,
        [gate, ..] if gate.contains("left fits") => {
            journey.click_words("Garment’s left fits").await;
            journey.until_text(".plan_verdict", "✓ left fits").await;
            journey.click_words("Garment’s right fits").await;
        }
        _ => journey.click_words("It fits").await,
    }
    journey.until_other(".plan_current h2", &title).await;
    title
}

#[actix_web::test]
async fn a_shirt_is_sewn_through_its_gates_and_recorded() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_at(&journey, "Concert shirt", "Plan").await;
    journey.until_text(".plan_chain", "Try it on, basted").await;

    journey.click_words("Sew").await;
    journey.until_text(".plan_current h2", "Open what lies over the side seam").await;
    // Space is done.
    journey.find("body").await.send_keys(" ").await.unwrap();
    journey.until_other(".plan_current h2", "Open what lies over the side seam").await;
    let mut done = Vec::new();
    while !done.iter().any(|title: &String| title == "Try it on, basted") {
        done.push(do_what_is_at_hand(&journey).await);
        assert!(done.len() < 30, "{done:?}");
    }
    for _ in 0..30 {
        if journey.texts(".plan_current h2").await[0] == "Everything is done" {
            break;
        }
        done.push(do_what_is_at_hand(&journey).await);
    }
    let at = |title: &str| {
        done.iter().position(|known| known == title).unwrap_or_else(|| panic!("{title}: {done:?}"))
    };
    assert!(at("Try it on: hem") < at("Cut the hem") && at("Stitch the side seam") < at("Cut the hem"));

    journey.click_words("Record").await;
    journey.until_text(".plan_sewn", "now, derived").await;
    journey.click_words("Enter it as sewn").await;
    journey.until_text(".plan_entries", "Sewn:").await;
    journey.until_text(".plan_states", "as it was found").await;
    journey.click_words("Rail").await;
    journey.until_text(".rail_hung > a[aria-label^='Concert shirt']", "Finished").await;
    journey.end().await;
}

#[actix_web::test]
async fn what_does_not_fit_goes_back_to_its_line() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_at(&journey, "Jersey top", "Sew").await;
    journey.find(".plan_current h2").await;
    while journey.texts(".plan_verdict").await.is_empty() {
        do_what_is_at_hand(&journey).await;
    }
    journey.click_words("Add a correction").await;
    journey.type_over("[aria-label='Station']", "20\t").await;
    journey.type_over("[aria-label='More off each edge']", "0.4\t").await;
    journey.click_words("Does not fit yet").await;
    // What was chalked and basted is to be chalked and basted anew.
    journey.until_text(".plan_current h2", "Chalk the side seam").await;
    journey.click_words("Lines").await;
    journey.find("[aria-label^='Pin '][aria-label$=': amount read']").await;
    journey.end().await;
}

#[actix_web::test]
async fn evenings_are_entered_and_answer_what_to_do_now() {
    let journey = Journey::begin(390, 844).await;
    journey.click_words("Open the example").await;
    journey.click_words("Evenings").await;
    journey.until_text(".evenings_late-box", "come too late").await;
    journey.nothing_sticks_out(".evenings_page").await;
    journey.click_words("What to do?").await;
    journey.until_text(".evenings_now", "min free").await;
    journey.click_words("Sew then").await;
    journey.find(STORED).await;
    journey.until_text("[aria-label='When you sew']", "90 min").await;
    journey.end().await;
}

//! The book: what the cloth says, looked up by place and by word, and followed from a try-on to a seam.

use super::{STORED, open_garment};
use vemble_e2e::Journey;

#[actix_web::test]
async fn what_the_cloth_says_is_found_by_word_and_leads_to_a_seam() {
    let journey = Journey::begin(1280, 900).await;
    // The book is open to whoever comes by.
    journey.click_words("Book").await;
    journey.until_text(".book_open h2", "level folds across the upper back").await;
    journey.click_words("Rail").await;
    journey.click_words("Sign in").await;
    journey.click_words("Open the example").await;
    journey.click_words("Book").await;
    journey.until_text(".book_open h2", "level folds across the upper back").await;
    journey.type_over("[aria-label='Look for a word']", "pocket").await;
    journey.until_text(".book_found", "a pocket stands open").await;
    assert!(!journey.texts(".book_sign").await.iter().any(|sign| sign.contains("whiskers")));
    journey.type_over("[aria-label='Look for a word']", "xyzzy").await;
    journey.until_text(".book_found", "Nothing here is called “xyzzy”").await;
    journey.click_words("crotch and legs").await;
    journey.click_words("smiling folds under the seat").await;
    journey.until_text(".book_open", "The seat is flatter than the garment’s.").await;

    // The words of the trade, and what keeps hands safe.
    journey.click_words("Words").await;
    journey.type_over("[aria-label='Look for a word of the trade']", "muslin").await;
    journey.until_text(".book_terms", "a trial garment in cheap cloth").await;
    assert_eq!(journey.texts(".book_terms dt").await, ["toile"]);
    journey.until_text(".book_aside", "cut away from the hand").await;

    // Seen in a try-on it leads to a seam: as a what-if, until somebody keeps it.
    journey.click_words("Rail").await;
    open_garment(&journey, "Charity-shop corduroys").await;
    journey.click_words("Try on").await;
    journey.click_words("What does the cloth say?").await;
    journey.click_words("smiling folds under the seat").await;
    journey.until_text(".tryon_may-come-from", "The seat is flatter than the garment’s.").await;
    journey.find(STORED).await;
    journey.click_words("Take the inseam in by 0.6 cm per edge at the thigh, and see").await;
    journey.until_text(".lines_what-if", "Nothing of this is stored until you keep it").await;
    journey.end().await;
}

#[actix_web::test]
async fn a_hollow_back_is_taken_out_across_as_a_wedge() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of a wrap-front pinafore").await;
    journey.click_words("Try on").await;
    journey.click_words("What does the cloth say?").await;
    journey.click_words("a pool of cloth above the waist behind").await;
    journey.click_words("Take 1.2 cm out behind, above the waist, and see").await;
    journey.until_text(".trunk_result", "0.0 in front, 0.0 at the sides, 1.2 cm behind").await;
    journey.type_over("[aria-label='Taken out at the centre back']", "2\t").await;
    journey.until_text(".trunk_result", "2.0 cm behind").await;
    journey.until_text("[aria-label='Checks']", "its hem goes up with it").await;
    // What cannot be is named at its field and loses nothing.
    journey.type_over("[aria-label='Taken out at the sides']", "80\t").await;
    journey.until_text(".trunk_trunk", "less than").await;
    journey.type_over("[aria-label='Taken out at the sides']", "1 cm\t").await;
    journey.until_text(".trunk_result", "1.0 in front, 1.0 at the sides, 2.0 cm behind").await;
    journey.click_words("Keep it").await;
    journey.find(STORED).await;
    journey.click_words("Chalk card").await;
    journey.until_text("main", "Measure from the old waist seam at each place").await;
    journey.end().await;
}

#[actix_web::test]
async fn a_practice_round_explains_itself() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    journey.click_words("Book").await;
    journey.click_words("Practice").await;
    for round in 1..=3 {
        journey.find(".book_question").await;
        journey.click(".book_options li:first-child button:enabled").await;
        journey.until_text(".book_practice", &format!("of {round} right")).await;
        // What is right is marked, whatever was chosen, and the sum beside it is of that figure.
        assert_eq!(journey.texts(".book_option-right").await.len(), 1);
        assert!(!journey.texts(".book_explained").await.remove(0).is_empty());
        journey.click_words("Next").await;
    }
    journey.end().await;
}

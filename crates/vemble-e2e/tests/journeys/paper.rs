//! Pieces that were drawn elsewhere, brought to the table.

use super::*;

const SKIRT: &str = "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 500 800\"><g id=\"skirt-front\">\
    <path d=\"M40 40 V660 H330 L300 40 Z\"/><path id=\"grain\" d=\"M120 600 V100\"/></g></svg>";

/// What a file leaves open is asked; then its piece lies on the table, is changed, taken away and put back.
#[actix_web::test]
async fn a_piece_is_read_from_a_file_named_and_laid_on_the_table() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of a wrap-front pinafore").await;
    journey.click_words("Paper").await;
    let folder = std::env::temp_dir().join(format!("vemble-svg-{}", uuid::Uuid::now_v7()));
    std::fs::create_dir_all(&folder).unwrap();
    let file = folder.join("skirt.svg");
    let field = "[aria-label='Read pieces from a file']";
    let read = "[aria-label='Pieces from a file']";
    std::fs::write(&file, SKIRT.replace("V660 H330", "V660 M40 660 H330")).unwrap();
    journey.give_file(field, &file).await;
    journey.until_text(read, "It does not say how large it is").await;
    journey.click_words("1 mm").await;
    journey
        .until_text(read, "which is no one line. Expected a line drawn in one stroke. Nothing was taken in.")
        .await;
    // Drawn twice, it is taken once.
    let group = SKIRT.split_once('>').unwrap().1.strip_suffix("</svg>").unwrap();
    std::fs::write(&file, SKIRT.replace("</svg>", &format!("{group}</svg>"))).unwrap();
    journey.give_file(field, &file).await;
    journey.click_words("1 mm").await;
    journey.until_text(read, "29.0 cm × 62.0 cm").await;
    for (n, name) in ["fold", "hem", "side seam", "waist edge"].into_iter().enumerate() {
        let edge = format!("[aria-label='What edge {} of skirt-front is']", n + 1);
        journey.type_over(&edge, &format!("{name}\u{e007}")).await;
    }
    journey.until_text(read, "or leave it out").await;
    journey.click(".paper_read li:nth-of-type(2) .ant-checkbox-input").await;
    journey.until_text(read, "Measure one edge of it: is it so long?").await;
    journey.click_words("No, it is from before").await;
    journey.click_words("Put them on the table").await;
    journey.until_text("[aria-label='What is done to them']", "Skirt, front, from a file").await;
    journey.find(STORED).await;
    journey.click(".paper_piece:nth-of-type(4)").await;
    journey.until_text("[aria-label='Pieces'] caption", "Skirt, front").await;
    // Undone, it is as it is unrolled; done again, and taken away.
    let undo = "[aria-label='Undo']";
    let has = "[aria-label='Take away: Skirt, front, from a file']";
    journey.click(undo).await;
    journey.find(&format!("body:not(:has({has}))")).await;
    journey.click("[aria-label='Redo']").await;
    journey.click(has).await;
    journey.find(&format!("body:not(:has({has}))")).await;
    std::fs::remove_dir_all(&folder).unwrap();
    journey.end().await;
}

/// A piece is cut in two and joined again; a facing and a lining are made from it. Only what can be done to a piece is offered.
#[actix_web::test]
async fn pieces_are_cut_in_two_joined_and_made_from_others() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of a wrap-front pinafore").await;
    journey.click_words("Paper").await;
    let (which, does, chips) = ("Which piece", "What is done", "[aria-label='What is done to them']");
    let table = "[aria-label='Pieces']";
    journey.choose(which, "Skirt, back").await;
    journey.choose(does, "a facing made from it").await;
    journey.choose("Along which edge", "along the waist edge").await;
    journey.type_over("[aria-label='So wide']", "5 cm\u{e007}").await;
    journey.click_words("Do it").await;
    journey.until_text(chips, "Waist facing, skirt, back: made from the skirt, back, 5.0 cm wide").await;
    journey.choose(does, "a lining made from it").await;
    journey.click_words("Do it").await;
    journey.until_text(table, "Lining, skirt, back").await;
    journey.until_text("body", "Of lining: about").await;
    journey.choose(does, "cut in two, with a seam between").await;
    journey.choose("From: which edge", "waist edge").await;
    journey.type_over("[aria-label='From: how far from the middle']", "8 cm\u{e007}").await;
    journey.choose("To: which edge", "hem").await;
    journey.type_over("[aria-label='To: how far from the middle']", "20 cm\u{e007}").await;
    journey.click_words("Do it").await;
    journey.until_text(table, "Skirt, side back").await;
    // Where the pocket goes is marked with a drill, and cut with its piece.
    journey.choose(which, "Skirt, front").await;
    journey.choose(does, "a drill mark, measured in from an edge").await;
    journey.choose("From: which edge", "side seam").await;
    journey.type_over("[aria-label='From: how far from its upper end']", "12 cm\u{e007}").await;
    journey.type_over("[aria-label='So far in, square to that edge']", "4 cm\u{e007}").await;
    journey.click_words("Do it").await;
    journey.until_text(chips, "drill mark 4.0 cm in from the side seam, 12.0 cm from its upper end").await;
    // One of them is joined to the other, and that is undone.
    journey.choose(which, "Skirt, centre back").await;
    journey.choose(does, "joined to the piece beside it").await;
    journey.click_words("Do it").await;
    journey
        .until_text(
            chips,
            "Skirt, centre back: joined to the piece beside it, without the back princess seam",
        )
        .await;
    journey.find(STORED).await;
    let names = journey.texts(".paper_piece strong").await.join(" ");
    assert!(!names.contains("side back") && names.contains("Skirt, back"), "{names}");
    journey.click("[aria-label='Undo']").await;
    journey.until_text(table, "Skirt, side back").await;
    // A skirt has no neckline.
    journey.find("[aria-label='What is done']").await.click().await.unwrap();
    let offered = journey.texts(".ant-select-item-option").await.join(" ");
    assert!(offered.contains("another allowance") && !offered.contains("another neckline"), "{offered}");
    journey.end().await;
}

/// A shoulder is sloped in front and behind; what was entered is changed where it stands, and undone. An edge is moved by figures along it, and a
/// dart is gathered: all of it is told, and seen on the stand.
#[actix_web::test]
async fn what_is_done_to_a_piece_is_changed_afterwards() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of a wrap-front pinafore").await;
    journey.click_words("Paper").await;
    let (which, does, chips) = ("Which piece", "What is done", "[aria-label='What is done to them']");
    let lower = "[aria-label='Lower at the tip; less than nought is squarer']";
    for piece in ["Bodice, front", "Bodice, back"] {
        journey.choose(which, piece).await;
        journey.choose(does, "another shoulder").await;
        journey.type_over(lower, "1 cm\u{e007}").await;
        journey.click_words("Do it").await;
        journey.until_text(chips, &format!("{piece}: shoulder 1.0 cm lower at the tip")).await;
    }
    journey.find("[aria-label='On the stand']").await;
    // What cannot be read is not done, and stays.
    let done = "Bodice, front: shoulder 1.0 cm lower at the tip, and the armhole with it, on the piece";
    journey.click(&format!("[aria-label='Change: {done}']")).await;
    journey.type_over(lower, "a bit\u{e007}").await;
    journey.find("[aria-label='Change a piece'] button[disabled]").await;
    journey.type_over(lower, "0.6 cm\u{e007}").await;
    journey.click_words("Do it so").await;
    journey.until_text(chips, "Bodice, front: shoulder 0.6 cm lower at the tip").await;
    journey.find(STORED).await;
    journey.click("[aria-label='Undo']").await;
    journey.until_text(chips, done).await;
    // An edge by figures along it: each line that is begun makes room for another.
    journey.choose(which, "Skirt, front").await;
    journey.choose(does, "an edge moved in or out, by figures along it").await;
    journey.choose("Which edge", "side seam").await;
    for (n, (at, by)) in [("10 cm", "0 cm"), ("25 cm", "0.8 cm"), ("40 cm", "0 cm")].into_iter().enumerate() {
        let field = |what: &str| format!("[aria-label='Figure {}: {what}']", n + 1);
        journey.type_over(&field("how far from its upper end"), &format!("{at}\u{e007}")).await;
        let by = format!("{by}\u{e007}");
        journey.type_over(&field("so far in; less than nought is outwards"), &by).await;
    }
    journey.click_words("Do it").await;
    journey.until_text(chips, "0.8 cm in 25.0 cm from its upper end").await;
    journey.until_text("[aria-label='What goes round on paper']", "hip, all round").await;
    journey.choose(which, "Bodice, back").await;
    journey.choose(does, "a dart gathered or eased in, and not stitched").await;
    journey.click_words("Do it").await;
    journey.until_text(chips, "gathered, and not stitched").await;
    journey.click(".paper_piece:nth-of-type(2)").await;
    journey.until_text("[aria-label='Pieces'] table", "not stitched").await;
    journey.end().await;
}

/// A toile is marked in two stages; what is settled now is on its pieces, and what is left for the real cloth waits where that is looked over, and
/// its pieces go with it.
#[actix_web::test]
async fn a_toile_is_marked_and_what_waits_follows_to_the_real_cloth() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of a wrap-front pinafore").await;
    journey.click_words("Paper").await;
    journey.click_words("Toile").await;
    let toile = "[aria-label='The toile']";
    journey.until_text(toile, "3 marks: 2 are on paper, 1 waits for the real cloth.").await;
    journey.until_text(toile, "Bodice, front: bust dart 1.1 cm further down or out, along its edge").await;
    journey.type_over("[aria-label='Shoulder tip, First, what it hangs by']", "1.2\t").await;
    journey.until_text(toile, "4 marks: 1 is not settled yet").await;
    journey.click("[aria-label='When Shoulder tip is settled'] .ant-segmented-item:nth-of-type(1)").await;
    journey.until_text(toile, "Bodice, back: shoulder seam 1.2 cm longer at its outer end").await;
    journey.click(&format!("{toile} > details:last-of-type summary")).await;
    journey.until_text(toile, "Cut with 2.5 cm per edge at the side seams, at the shoulder seams").await;
    // The next toile is marked beside it.
    journey.click_words("toile 2").await;
    journey.type_over("[aria-label='Shoulder tip, First, what it hangs by']", "-0.2\t").await;
    journey.until_text(toile, "1.2 cm on toile 1").await;
    journey.find(STORED).await;
    // A third one, cut from these pieces, has them; what was marked before can be read there, and not changed.
    journey.click_words("Begin toile 3, cut from these pieces").await;
    journey.find(".lookover_lookover").await;
    journey.click_words("Paper").await;
    journey.until_text("[aria-label='What is done to them']", "Skirt, back, as its toile was left").await;
    journey.click_words("Toile").await;
    journey.until_text(toile, "−0.2 cm on toile 2").await;
    journey.click_words("toile 2").await;
    journey.until_text(toile, "Sewn and changed since: this stays as it was marked.").await;
    journey.until_text(toile, "Shoulder tip: −0.2 cm").await;
    journey.find("body:not(:has([aria-label='Shoulder tip, First, what it hangs by']))").await;
    journey.click_words("Begin the garment in its real cloth").await;
    let left = "[aria-label='Left by its toile']";
    journey.until_text(left, "Neckline gape: 0.8 cm").await;
    journey.find(".lookover_lookover").await;
    journey.click_words("It is done").await;
    journey.until_text(left, "All of it is done.").await;
    journey.click_words("Put it back").await;
    journey.until_text(left, "Neckline gape: 0.8 cm").await;
    // Its pieces are those of its toile, with more at the seams that are fitted; what was made by somebody else has no paper.
    journey.click_words("Paper").await;
    journey.until_text("[aria-label='What is done to them']", "Skirt, back, as its toile was left").await;
    journey.click(".paper_piece:nth-of-type(2)").await;
    journey.until_text("[aria-label='Pieces'] table", "2.5 cm").await;
    journey.click_words("Rail").await;
    open_garment(&journey, "School skirt").await;
    journey.find("body:not(:has([href$='/paper']))").await;
    journey.end().await;
}

/// Ease that was asked for is kept of its wearer, wanted again without being typed, and forgotten where the wearer is kept.
#[actix_web::test]
async fn ease_that_is_liked_is_kept_of_the_wearer() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of summer trousers").await;
    let hip = "[aria-label='Ease wanted at the hip, altogether']";
    let size = "[aria-label='Which size']";
    journey.type_over(hip, "5.5\t").await;
    journey.until_text(size, "101.5 + 5.5 = 107.0 cm").await;
    journey.click_words("keep as what is liked").await;
    journey.find(&format!("{size}:not(:has(.paper_sum button))")).await;
    // The field emptied, it is wanted as it is liked.
    journey.type_over(hip, "\u{e017}\t").await;
    journey.until_text(size, "as Odile Fenwick likes it").await;
    journey.until_text(size, "101.5 + 5.5 = 107.0 cm").await;
    journey.click_words("Odile Fenwick").await;
    journey.click("[aria-label^='Forget: Hip, held by a waistband, woven: 5.5 cm ease']").await;
    journey.find("body:not(:has([aria-label^='Forget: ']))").await;
    journey.end().await;
}

/// A chart is typed with how long its garments are; where the hem lands follows, and what paper held to the body said is done on the pieces.
#[actix_web::test]
async fn what_paper_held_to_the_body_says_is_done_on_the_pieces() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of summer trousers").await;
    journey.click_words("Edit").await;
    let (chart, size) = ("[aria-label='The chart']", "[aria-label='Which size']");
    let rows = "regular; 14\nwaist finished; 78 cm\nhip finished; 108 cm\nthigh finished; 66 cm\nfinished length; 97 cm";
    journey.type_over(chart, &format!("{rows}; 98 cm")).await;
    journey.click_words("Read it").await;
    journey.until_text(".paper_editor", "line 5: 2 figures for 1 sizes").await;
    journey.type_over(chart, rows).await;
    journey.click_words("Read it").await;
    journey.until_text(size, "body 101.5 − finished 97.0 − lengthened 1.0 = 3.5 cm").await;
    journey.click_words("Cut this one").await;
    journey.click_words("Do it on the pieces").await;
    journey.until_text(size, "✓ done on the pieces").await;
    journey.click_words("Pieces").await;
    let done = "Leg, front and back 1.0 cm longer below the hip";
    journey.until_text("[aria-label='What is done to them']", done).await;
    journey.click(&format!("[aria-label='Take away: {done}']")).await;
    journey.find(&format!("body:not(:has([aria-label='Take away: {done}']))")).await;
    journey.click_words("Which size").await;
    journey.until_text(size, "Do it on the pieces").await;
    journey.end().await;
}

/// What does not match is mended by a tap: eased in, a notch moved; and by hand a notch and a corner are chosen among those that a piece has.
#[actix_web::test]
async fn what_does_not_match_is_eased_in_or_moved() {
    let journey = Journey::begin(1280, 900).await;
    journey.click_words("Open the example").await;
    open_garment(&journey, "Toile of a wrap-front pinafore").await;
    journey.click_words("Paper").await;
    let (untrue, done) = ("[aria-label='What does not match']", "[aria-label='What is done to them']");
    journey
        .until_text(untrue, "notch 1 of the bodice, front and notch 1 of the bodice, back lie 1.0 cm apart")
        .await;
    journey.click_words("Move it 1.0 cm towards the upper end on the bodice, front").await;
    journey
        .until_text(done, "Bodice, front: notch 1 of the side seam 1.0 cm further towards its upper end")
        .await;
    // What is eased in takes the notch with it.
    journey.find(STORED).await;
    journey.click("[aria-label='Undo']").await;
    journey.click_words("Ease in 1.0 cm on the bodice, back").await;
    journey.until_text(done, "Bodice, back: 1.0 cm of the side seam eased in").await;
    // What was taken in at the shoulder comes to a point there; that is drawn smooth by a tap.
    let come_to_a_point =
        |lines: &[String]| lines.iter().filter(|line| line.contains("comes to a point")).count();
    assert_eq!(come_to_a_point(&journey.texts(&format!("{untrue} li")).await), 1);
    journey.click_words("Draw it smooth across the seam").await;
    journey.until_text(done, "armhole seam drawn smooth across the shoulder seam").await;
    assert_eq!(come_to_a_point(&journey.texts(&format!("{untrue} li")).await), 0);
    journey.choose("Which piece", "Skirt, front").await;
    journey.choose("What is done", "a notch moved along its edge").await;
    journey.type_over("[aria-label^='By so much, towards its upper end']", "-0.4\t").await;
    journey.click_words("Do it").await;
    journey
        .until_text(done, "Skirt, front: notch 1 of the side seam 0.4 cm further towards its lower end")
        .await;
    journey.choose("What is done", "a corner trued: smooth across its seam, or square to the middle").await;
    journey.choose("Which edge", "hem").await;
    journey.click_words("Do it").await;
    journey.until_text(done, "Skirt, front: hem drawn smooth across the side seam").await;
    journey.end().await;
}

//! The calendar, by lines of every length.

use super::demo;
use vemble_core::ahead::{OfGarment, Wanted, ahead};
use vemble_core::length::Tape;
use vemble_core::work::Workroom;
use vemble_exchange::calendar::calendar;

#[test]
fn no_line_is_longer_than_a_line_may_be_and_unfolded_it_says_the_same() {
    let (document, room) = (demo(), Workroom::default());
    let of = OfGarment { id: uuid::Uuid::nil(), wearer: uuid::Uuid::nil(), document: &document };
    let now = "2026-10-01T09:00:00Z".parse().unwrap();
    let mut lying = ahead(&[of], &room, now, Tape::Cm, Wanted::default());
    lying.garments[0].due_day = Some("2026-10-30".into());
    lying.garments[0].due = Some("Friday".into());
    for length in 1..320 {
        let name: String = "Odile’s Sunday dress ".chars().cycle().take(length).collect();
        lying.garments[0].name = name.trim().into();
        let text = calendar(&lying, "2026-10-01T09:00:00Z");
        assert!(text.lines().all(|line| line.len() <= 75), "{text}");
        let said = format!("SUMMARY:{} has to be ready\r\n", name.trim());
        assert!(text.replace("\r\n ", "").contains(&said), "{text}");
    }
}

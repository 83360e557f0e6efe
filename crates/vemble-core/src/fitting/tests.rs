//! Halving and doubling, and sides.

use super::*;
use crate::length::{Length, Measure};
use proptest::prelude::*;

fn reading(how: How, mm: i64) -> Reading {
    let length = |mm| Measure { length: Length::from_mm(mm), unit: crate::length::Unit::Cm };
    Reading { id: None, side: GarmentSide::Left, station: length(200), amount: length(mm), how }
}

#[test]
fn each_way_of_measuring_halves_and_doubles_as_it_should() {
    for (how, front, back, whole) in [
        (How::Fold, 20, 20, 40),
        (How::Whole, 10, 10, 20),
        (How::FrontPanel, 20, 0, 20),
        (How::BackPanel, 0, 20, 20),
        (How::Gap, -10, -10, -20),
    ] {
        let edges = reading(how, 20).edges(FrontShare::default());
        let mm = (edges.front.0, edges.back.0, edges.whole().0);
        assert_eq!(mm, (Length::from_mm(front), Length::from_mm(back), Length::from_mm(whole)), "{how:?}");
    }
}

#[test]
fn inside_out_swaps_the_sides_both_ways() {
    assert_eq!(Worn::InsideOut.on_wearer(GarmentSide::Left), WearerSide::Right);
    for worn in [Worn::RightSideOut, Worn::InsideOut] {
        for side in GarmentSide::BOTH {
            assert_eq!(worn.of_garment(worn.on_wearer(side)), side);
        }
    }
}

proptest! {
    #[test]
    fn the_edges_always_make_the_whole(mm in 0_i64..200, percent in 0_u8..=100) {
        let share = FrontShare::try_from(percent).unwrap();
        let edges = reading(How::Fold, mm).edges(share);
        prop_assert_eq!(edges.whole().0, Length::from_mm(2 * mm));
        prop_assert_eq!(edges.front.0, edges.whole().0.fraction(i64::from(percent), 100));
    }
}

//! The pieces of a garment with everything that is chalked in its newest try-on, then what is done to them on paper: of both sides, or of each.

use super::carry::carried;
use super::change::{CannotBe, apply_where};
use super::drawn::with_drawn;
use super::joins::{Join, joins};
use super::marks::{Carried, carry_marks};
use super::piece::Piece;
use super::unroll::unroll;
use crate::change::gathers::gathered_in;
use crate::change::{ChangeKey, Drawn, DrawnChange};
use crate::document::Document;
use crate::fault::{Fault, Wrong};
use crate::fitting::GarmentSide;
use crate::garment::Garment;
use crate::judge::{Subject, girths};
use crate::length::Tape;
use crate::solve::draw_below;
use crate::told::{LevelResult, tell_levels};
use crate::try_on::TryOn;
use crate::work::{EdgeName, Marked};

/// The pieces of both sides, or of one.
pub(super) struct Set {
    pub pieces: Vec<Piece>,
    /// As they are before anything is done.
    pub old: Vec<Piece>,
    /// As they are chalked, before anything is done on paper.
    pub chalked: Vec<Piece>,
    pub joins: Vec<Join>,
    /// Of which side; nothing where both are alike.
    pub side: Option<GarmentSide>,
    /// Which of them are the same on the other side.
    pub same: Vec<bool>,
}

impl Set {
    /// What a piece was before anything was done. Nothing of one that was made from another.
    pub fn old_of(&self, piece: usize) -> Option<&Piece> {
        let was = self.pieces[piece].was?;
        self.old.iter().find(|old| old.key == was)
    }

    /// A piece is the same on both sides and cut once: of the right side it is there already.
    pub fn is_cut_already(&self, piece: usize) -> bool {
        self.side == Some(GarmentSide::Right) && self.pieces[piece].cut == 1 && self.same[piece]
    }

    /// How a piece is cut.
    pub fn cut_words(&self, piece: usize) -> &'static str {
        let is_on_fold = self.pieces[piece].edge(EdgeName::Fold).is_some();
        if self.is_cut_already(piece) {
            return "cut already, for the left side";
        }
        match (self.side, self.pieces[piece].cut, self.same[piece]) {
            (None, 1, _) | (Some(GarmentSide::Left), 1, true) if is_on_fold => "cut 1 on the fold",
            (None, 1, _) | (Some(GarmentSide::Left), 1, _) if !is_on_fold => "cut 1",
            (None, _, _) => "cut 2, one mirrored",
            (Some(_), 1, _) if is_on_fold => "cut in one with its other half, which is not the same",
            (Some(GarmentSide::Left), _, _) => "cut 1",
            (Some(GarmentSide::Right), _, _) => "cut 1, mirrored",
        }
    }
}

/// Everything that is worked out before it is told.
pub(super) struct Laid {
    /// What they are of.
    pub garment: Garment,
    pub sets: Vec<Set>,
    /// What goes round it as it is chalked.
    pub levels: Vec<LevelResult>,
    /// What was chalked and is carried to paper, by what it is called.
    pub chalked: Vec<String>,
    /// What was chalked and is not drawn on these pieces.
    pub left: Vec<String>,
    /// Of every change that was entered, why it cannot be.
    pub cannot: Vec<Option<CannotBe>>,
    /// Of every mark of a toile, what it becomes.
    pub marks: Vec<Carried>,
}

/// Lays out the pieces of a document.
///
/// # Errors
/// Every fault of the document, and of what is pinned in its newest try-on.
pub(super) fn lay(document: &Document, tape: Tape) -> Result<Laid, Vec<Fault>> {
    let faults = document.faults();
    if !faults.is_empty() {
        return Err(faults);
    }
    let no_state = || vec![Fault { path: "states".into(), wrong: Wrong::NoState }];
    let newest = document.newest().ok_or_else(no_state)?;
    let fresh = TryOn::on(newest.id, jiff::civil::Date::default());
    let is_finished = document.is_finished();
    let try_on = document.try_ons.last().filter(|_| !is_finished).unwrap_or(&fresh);
    let state = document.state(try_on.state).unwrap_or(newest);
    let garment = &*state.garment.with_levels_in_order(&document.wearer);
    let at = document.try_ons.len().saturating_sub(1);
    let below = |(field, wrong)| Fault { path: format!("try_ons[{at}].{field}"), wrong };
    let drawn = draw_below(garment, &document.wearer, try_on, document.wishes.schools)
        .map_err(|wrong| wrong.into_iter().map(below).collect::<Vec<_>>())?;
    let (wearer, schools) = (&document.wearer, document.wishes.schools);
    let subject = Subject { garment, wearer, changes: &drawn, put_on: try_on.put_on(), schools, tape };
    let gathered = gathered_in(&subject);
    let on_file = &document.wishes.pattern.drawn;
    let old = with_drawn(garment, unroll(garment, wearer, None), on_file);
    let entered = &document.wishes.pattern.changes;
    let mut cannot: Vec<Option<CannotBe>> = vec![None; entered.len()];
    let (mut sets, mut left): (Vec<Set>, Vec<ChangeKey>) = (Vec::new(), Vec::new());
    let mut marks = Vec::new();
    for side in GarmentSide::BOTH {
        let (mut pieces, out) =
            carried((garment, wearer), (on_file, try_on.id), (&drawn, &gathered), side, tape);
        // What cannot be carried on either side is not hidden by the other.
        left.extend(out.into_iter().filter(|key| !left.contains(key)).collect::<Vec<_>>());
        // Chalked alike, both sides are alike.
        if sets.first().is_some_and(|set| set.chalked == pieces) {
            break;
        }
        let chalked = pieces.clone();
        let has = |piece: &Piece, marked: &Marked| {
            on_file.iter().any(|d| d.piece == piece.key && d.has_marks.contains(marked))
        };
        let carried = carry_marks(&document.wishes.pattern, &mut pieces, has, tape);
        // What cannot be on either side is not hidden by the other.
        let before = marks.into_iter().map(|mark: Carried| mark.cannot).chain(std::iter::repeat(None));
        marks =
            carried.into_iter().zip(before).map(|(m, no)| Carried { cannot: no.or(m.cannot), ..m }).collect();
        for (change, cannot) in entered.iter().zip(&mut cannot) {
            // What is in a file already is not done again.
            let has = |piece: &Piece| on_file.iter().any(|d| d.piece == piece.key && d.has.contains(change));
            *cannot = cannot.or(apply_where(&mut pieces, change, &has).err());
        }
        let joins = joins(garment, &pieces);
        let same = vec![true; pieces.len()];
        sets.push(Set { pieces, old: old.clone(), chalked, joins, side: Some(side), same });
    }
    match &mut sets[..] {
        [one, other] if one.pieces != other.pieces => {
            one.same = one.pieces.iter().map(|piece| other.pieces.contains(piece)).collect();
            other.same = other.pieces.iter().map(|piece| one.pieces.contains(piece)).collect();
        }
        [one, ..] => {
            one.side = None;
            sets.truncate(1);
        }
        [] => {}
    }
    let named = |is_left: bool| -> Vec<String> {
        let altered = drawn.iter().filter(|change| change.is_altered());
        let of = altered.map(DrawnChange::key).filter(|key| left.contains(key) == is_left);
        of.map(|key| key.name(garment)).collect()
    };
    let levels = tell_levels(garment, &girths(&subject), tape);
    let (chalked, left) = (named(false), named(true));
    Ok(Laid { garment: garment.clone(), sets, levels, chalked, left, cannot, marks })
}

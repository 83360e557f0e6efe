//! From marks, or from what was typed, to what is taken off around each edge: the sides agree, then the edge is level or follows its marks.

use super::input::{FromBody, HemChange, HemLandmark, HemShape, Lengths, ShortenedAt};
use super::ring::{Place, Ring};
use crate::body::{BodyMeasurement, Proportions, Wearer};
use crate::change::{AGREE_WITHIN, Drawn, Term, Wrongs};
use crate::fault::Wrong;
use crate::fitting::{Around, GarmentSide, HemHow, HemMark, SidePolicy};
use crate::garment::{Garment, HemEdge, HemFacts, Seam};
use crate::length::{Length, Measure, Tape, Taught};
use crate::place::Level;
use std::borrow::Cow;

/// Marks so near each other are one level: 1 cm, 3/8 in (teaching value: what a floor, a knee and a hand make of a level edge).
pub(super) const LEVEL_WITHIN: Taught = Taught::new(10, 24);

/// The same, before any tape has a say: the longer of the two. What is drawn level is judged so on every tape.
pub(super) const LEVEL_EXACTLY: Length = Length::from_mm(10);

/// How high above the floor a low shoe ends, in cm (teaching value).
const SHOE_TOP: f64 = 7.0;

/// No hem is turned more often.
pub(super) const MOST_TURNS: usize = 3;

/// Where what is taken off comes from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum OffFrom {
    /// Nothing was marked or typed yet.
    Nothing,
    /// Marks around it.
    Marks,
    /// As somebody typed it.
    Typed,
    /// A finished length from the body.
    Body,
    /// Finished lengths in front, at the sides and behind.
    Lengths,
}

/// A length that is taken off higher up: the edge stays as it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct TakenAbove {
    /// Where.
    pub at: ShortenedAt,
    /// How much, negative where it is let down.
    pub off: Length,
}

/// A hem with what is taken off around it.
#[derive(Clone, Debug)]
pub struct AlteredHem<'a> {
    /// What was entered; nothing was, where there are marks alone.
    pub change: Cow<'a, HemChange>,
    /// As it was found, if somebody looked.
    pub facts: Option<&'a HemFacts>,
    /// Its marks, as read.
    pub marks: Vec<&'a HemMark>,
    pub(crate) from: OffFrom,
    /// One edge round the garment, or those of both legs or sleeves, left first; none where it stays.
    pub rings: Vec<Ring>,
    /// What is taken off higher up instead.
    pub above: Option<TakenAbove>,
    /// The largest difference between left and right, where both were marked.
    pub apart: Option<Length>,
    /// They are further apart than marks wobble, and nobody has decided.
    pub undecided: bool,
    /// Only this side was marked; the other is its copy.
    pub copied_from: Option<GarmentSide>,
    /// A mark was read from the floor, and nobody said how far above it the edge is to be.
    pub lacks_clearance: bool,
}

impl AlteredHem<'_> {
    /// Which hem.
    pub fn key(&self) -> HemEdge {
        self.change.hem
    }

    /// Both legs or sleeves are a pair.
    pub fn is_pair(&self) -> bool {
        !matches!(self.key(), HemEdge::Body)
    }

    /// The level of the garment that it is the edge of.
    pub fn level(&self) -> Level {
        match self.key() {
            HemEdge::Body | HemEdge::Leg => Level::Hem,
            HemEdge::Sleeve => Level::SleeveHem,
        }
    }

    /// What one of its marks takes off; nothing where that is not known yet.
    pub(super) fn off_of(&self, mark: &HemMark) -> Option<Length> {
        off(mark, self.change.clearance.map(|c| c.length))
    }

    /// The edge on one side of the garment.
    pub fn ring(&self, side: GarmentSide) -> Option<&Ring> {
        self.rings.iter().find(|ring| ring.side.is_none_or(|s| s == side))
    }
}

impl Drawn for AlteredHem<'_> {
    fn is_altered(&self) -> bool {
        !self.rings.is_empty() || self.above.is_some()
    }

    /// It takes from lengths; the girth of its new edge is read off the garment where that will lie.
    fn takes(&self, _: &Garment, _: Level, _: Length, _: &[GarmentSide], _: Tape) -> Vec<Term> {
        Vec::new()
    }

    fn sides_agree(&self) -> bool {
        match &self.rings[..] {
            [left, right] => left.places == right.places && left.level == right.level,
            _ => true,
        }
    }
}

/// What a mark takes off: the upright reading counts. Nothing where it was read from the floor and no clearance is known.
fn off(mark: &HemMark, clearance: Option<Length>) -> Option<Length> {
    let read = mark.again.unwrap_or(mark.amount).length;
    match mark.how {
        HemHow::TurnUp => Some(read),
        HemHow::LetDown => Some(-read),
        HemHow::FromFloor => clearance.map(|wanted| wanted - read),
    }
}

/// What a finished length from the body takes off: how high the wanted edge is above the floor, less how high the present one is. On one's
/// own feet or in shoes, both are raised alike but for the floor.
fn off_from_body(garment: &Garment, wearer: &Wearer, wanted: FromBody) -> Option<Length> {
    let up = present_height(garment, wearer)?;
    let from = landmark_height(wearer, wanted.landmark, wanted.heel);
    Some(Length::from_cm(from + wanted.above.length.cm() - up))
}

/// How high above the floor under the naked foot the present edge hangs, in cm.
pub(super) fn present_height(garment: &Garment, wearer: &Wearer) -> Option<f64> {
    Some(hangs_from(garment, wearer) - garment.level(hanging_level(garment))?.station.length.cm())
}

/// How high above the floor under the naked foot a place of the body is, in cm; in heels the floor lies as much lower.
pub(super) fn landmark_height(wearer: &Wearer, landmark: HemLandmark, heel: Option<Measure>) -> f64 {
    let body = Proportions::of(wearer);
    let up = |level| body.up_at(level).unwrap_or_default();
    match landmark {
        // From the shoulder down the arm, and a hand of 0.108 of the height (Drillis and Contini 1966).
        HemLandmark::Fingertips => {
            let hand = 0.108 * body.height();
            body.up(crate::body::Landmark::ShoulderTip) - body.cm(BodyMeasurement::ArmLength) - hand
        }
        HemLandmark::ShoeTop => SHOE_TOP - heel.map_or(0.0, |heel| heel.length.cm()),
        HemLandmark::Knee => up(Level::Knee),
        HemLandmark::Calf => up(Level::Calf),
        HemLandmark::Ankle => up(Level::Ankle),
        HemLandmark::Floor => -heel.map_or(0.0, |heel| heel.length.cm()),
    }
}

/// Every hem that was entered, and every one that has marks.
///
/// # Errors
/// Each with the number of its change and the field that is wrong.
pub(crate) fn draw<'a>(
    on: crate::change::On<'a>,
    changes: &[(usize, &'a HemChange)],
) -> Result<Vec<AlteredHem<'a>>, Wrongs> {
    let (mut drawn, mut faults) = (Vec::new(), Vec::new());
    for &(number, change) in changes {
        match wrong(on, change) {
            Some((field, wrong)) => faults.push((number, field, wrong)),
            None => drawn.push(draw_one(on, Cow::Borrowed(change))),
        }
    }
    for edge in HemEdge::ALL {
        use crate::change::Input;
        let is_marked = on.hem_marks.iter().any(|mark| mark.edge == *edge);
        // What was marked on a hem that the garment does not have, or has no more, changes nothing.
        if is_marked
            && HemChange::fits(on.garment, *edge)
            && changes.iter().all(|(_, change)| change.hem != *edge)
        {
            drawn.push(draw_one(on, Cow::Owned(HemChange::of(*edge))));
        }
    }
    if faults.is_empty() { Ok(drawn) } else { Err(faults) }
}

fn wrong(on: crate::change::On<'_>, change: &HemChange) -> Option<(String, Wrong)> {
    use crate::change::Input;
    if !HemChange::fits(on.garment, change.hem) {
        return Some(("hem".into(), Wrong::NoSuchHem { hem: change.hem }));
    }
    if change.turns.len() > MOST_TURNS {
        return Some(("turns".into(), Wrong::TooMany { what: "turns of a hem", most: MOST_TURNS }));
    }
    if let Some(n) = change.turns.iter().position(|turn| turn.length <= Length::ZERO) {
        return Some((format!("turns[{n}]"), Wrong::NotPositive { found: change.turns[n] }));
    }
    let length = length_of(on.garment, change.hem)?;
    let too_much = |found: Measure| found.length >= length;
    if let Some(found) = change.off.filter(|off| too_much(*off)) {
        return Some(("off".into(), Wrong::LongerThan { found, length }));
    }
    let allowance: Length = change.turns.iter().map(|turn| turn.length).sum();
    if allowance >= length {
        let found = change.turns[change.turns.len() - 1];
        return Some((format!("turns[{}]", change.turns.len() - 1), Wrong::LongerThan { found, length }));
    }
    if change.hem == HemEdge::Sleeve {
        let field = change.from_body.map(|_| "from_body").or(change.lengths.map(|_| "lengths"));
        let field = field.or(change.slit.map(|_| "slit"));
        if let Some(field) = field {
            return Some((field.into(), Wrong::NotOfASleeve));
        }
    }
    if !change.shortened_at.is_there(on.garment, change.hem) {
        let what = change.shortened_at.name();
        return Some(("shortened_at".into(), Wrong::NoSeamThere { what }));
    }
    for (field, wanted) in
        change.lengths.iter().flat_map(|l| [("front", l.front), ("side", l.side), ("back", l.back)])
    {
        if wanted.length <= Length::ZERO {
            return Some((format!("lengths.{field}"), Wrong::NotPositive { found: wanted }));
        }
    }
    if let Some(found) = change.longer_by.filter(|longer| longer.length.is_negative() || too_much(*longer)) {
        return Some(("longer_by".into(), Wrong::LongerThan { found, length }));
    }
    if let Some(wrong) = change.slit.and_then(|slit| wrong_slit(on.garment, &slit)) {
        return Some(wrong);
    }
    // What is read higher than the garment hangs from is a slip of the tape.
    let hangs_at = hangs_from(on.garment, on.wearer);
    let clearance = change.clearance.filter(|clearance| clearance.length.cm() >= hangs_at);
    clearance
        .map(|found| ("clearance".into(), Wrong::AboveTheBody { found, height: Length::from_cm(hangs_at) }))
}

/// A slit ends below the waist, and is no wider than it is high.
fn wrong_slit(garment: &Garment, slit: &super::Slit) -> Option<(String, Wrong)> {
    if slit.height.length <= Length::ZERO {
        return Some(("slit.height".into(), Wrong::NotPositive { found: slit.height }));
    }
    if let Some(found) = slit.width.filter(|width| width.length.is_negative()) {
        return Some(("slit.width".into(), Wrong::Negative { found }));
    }
    if let Some(found) = slit.width.filter(|width| width.length > slit.height.length) {
        return Some(("slit.width".into(), Wrong::LongerThan { found, length: slit.height.length }));
    }
    let waist = garment.level(Level::Waist).map(|l| l.station.length)?;
    let too_high = slit.height.length >= waist;
    too_high.then(|| ("slit.height".into(), Wrong::LongerThan { found: slit.height, length: waist }))
}

/// The level of a garment that it hangs from.
fn hanging_level(garment: &Garment) -> Level {
    if garment.hangs_from_shoulders() { Level::Shoulder } else { Level::Waist }
}

/// How high above the floor a garment hangs from its wearer, in cm.
pub(super) fn hangs_from(garment: &Garment, wearer: &Wearer) -> f64 {
    let body = Proportions::of(wearer);
    body.up_at(hanging_level(garment)).unwrap_or_else(|| body.height())
}

/// How long the garment is above a hem, to the highest level that is known of it.
pub(super) fn length_of(garment: &Garment, hem: HemEdge) -> Option<Length> {
    let of_sleeve = hem == HemEdge::Sleeve;
    let levels = garment.levels.iter().filter(|l| l.level.is_of_sleeve() == of_sleeve);
    levels.map(|l| l.station.length).max().filter(|length| *length > Length::ZERO)
}

fn draw_one<'a>(on: crate::change::On<'a>, change: Cow<'a, HemChange>) -> AlteredHem<'a> {
    let edge = change.hem;
    let facts = on.garment.hems.iter().find(|h| h.edge == edge);
    let marks: Vec<&HemMark> = on.hem_marks.iter().filter(|mark| mark.edge == edge).collect();
    let clearance = change.clearance.map(|c| c.length);
    let lacks_clearance = marks.iter().any(|mark| off(mark, clearance).is_none());
    let typed = change.off.map(|off| off.length);
    let of_body = change.from_body.and_then(|wanted| off_from_body(on.garment, on.wearer, wanted));
    let longer = change.longer_by.map_or(Length::ZERO, |m| m.length);
    let everywhere = typed.map(|off| (off, OffFrom::Typed)).or(of_body.map(|off| (off, OffFrom::Body)));
    let everywhere = everywhere.map(|(off, from)| (off - longer, from));
    let mut hem = AlteredHem {
        change,
        facts,
        marks,
        from: OffFrom::Nothing,
        rings: Vec::new(),
        above: None,
        apart: None,
        undecided: false,
        copied_from: None,
        lacks_clearance: lacks_clearance && everywhere.is_none(),
    };
    if let Some((off, from)) = everywhere {
        hem.from = from;
        hem.rings = hem.edges().map(|side| Ring::level(side, Vec::new(), off)).collect();
        return hem.taken_above();
    }
    if let Some(lengths) = hem.change.lengths.filter(|_| hem.change.shape == Some(HemShape::Shaped)) {
        hem.from = OffFrom::Lengths;
        hem.rings = hem
            .edges()
            .map(|side| Ring::following(side, shaped(on.garment, lengths, longer, side)))
            .collect();
        return hem.taken_above();
    }
    let sides = hem.sides(clearance);
    if sides.iter().all(Vec::is_empty) {
        return hem;
    }
    hem.from = OffFrom::Marks;
    let places: Vec<(Option<GarmentSide>, Vec<Place>)> = match hem.is_pair() {
        true => {
            let of = |side: GarmentSide| {
                let all = sides[side as usize].iter();
                (Some(side), all.map(|(around, off)| Place::of(*around, None, *off)).collect())
            };
            GarmentSide::BOTH.map(of).into()
        }
        // One edge goes round both sides; its front and back lie in the middle, once.
        false => {
            let middle = |around: &Around| matches!(around, Around::Front | Around::Back | Around::Inside);
            let of = |side: GarmentSide| {
                let all = sides[side as usize].iter();
                let all = all.filter(move |(around, _)| side == GarmentSide::Left || !middle(around));
                all.map(move |(around, off)| Place::of(*around, (!middle(around)).then_some(side), *off))
            };
            vec![(None, GarmentSide::BOTH.into_iter().flat_map(of).collect())]
        }
    };
    let less = |mut places: Vec<Place>| {
        places.iter_mut().for_each(|place| place.off = place.off - longer);
        places
    };
    hem.rings = places.into_iter().map(|(side, places)| ring(hem.change.shape, side, less(places))).collect();
    hem.taken_above()
}

/// What a shaped edge takes off around: flat as far as a panel seam goes, and blended from there to the sides.
fn shaped(garment: &Garment, lengths: Lengths, longer: Length, of: Option<GarmentSide>) -> Vec<Place> {
    let hangs = garment.level(hanging_level(garment)).map_or(Length::ZERO, |l| l.station.length);
    let hem = garment.level(Level::Hem).map_or(Length::ZERO, |l| l.station.length);
    let off = |wanted: Measure| hangs - hem - wanted.length - longer;
    let [front, side, back] = [lengths.front, lengths.side, lengths.back].map(off);
    let mut places = vec![Place::of(Around::Front, None, front), Place::of(Around::Back, None, back)];
    if of.is_some() {
        places.extend([Around::Side, Around::Inside].map(|around| Place::of(around, None, side)));
        return places;
    }
    for one in GarmentSide::BOTH.map(Some) {
        places.push(Place::of(Around::Side, one, side));
        if garment.seam(Seam::PrincessFront).or(garment.seam(Seam::PanelFront)).is_some() {
            places.push(Place::of(Around::SideFront, one, front));
        }
        if garment.seam(Seam::PrincessBack).or(garment.seam(Seam::PanelBack)).is_some() {
            places.push(Place::of(Around::SideBack, one, back));
        }
    }
    places
}

/// One edge: level where its marks agree or somebody said so, else through its marks.
fn ring(shape: Option<HemShape>, side: Option<GarmentSide>, places: Vec<Place>) -> Ring {
    let is_level = spread(&places) <= LEVEL_EXACTLY;
    match shape {
        Some(HemShape::FollowMarks | HemShape::Shaped) => Ring::following(side, places),
        Some(HemShape::Level) => Ring::level(side, places.clone(), mean(&places)),
        None if is_level => Ring::level(side, places.clone(), mean(&places)),
        None => Ring::following(side, places),
    }
}

/// How far places lie apart.
pub(super) fn spread(places: &[Place]) -> Length {
    let offs = || places.iter().map(|place| place.off);
    offs().max().unwrap_or_default() - offs().min().unwrap_or_default()
}

fn mean(places: &[Place]) -> Length {
    places.iter().map(|place| place.off).sum::<Length>().fraction(1, places.len() as i64)
}

impl AlteredHem<'_> {
    /// Where it is taken off higher up, its edge stays as it is: what all of it would lose is taken there.
    fn taken_above(mut self) -> Self {
        let at = self.change.shortened_at;
        if at != ShortenedAt::Edge && !self.rings.is_empty() {
            let sides = self.rings.iter().map(|ring| (ring.at(0.25) + ring.at(0.75)).fraction(1, 2));
            let off = sides.sum::<Length>().fraction(1, self.rings.len() as i64);
            self.above = Some(TakenAbove { at, off });
            self.rings.clear();
        }
        self
    }

    /// The edges that it has, each with the side it is on.
    fn edges(&self) -> impl Iterator<Item = Option<GarmentSide>> + use<> {
        let pair = self.is_pair();
        let sides = if pair { [Some(GarmentSide::Left), Some(GarmentSide::Right)] } else { [None, None] };
        sides.into_iter().take(if pair { 2 } else { 1 })
    }

    /// What is taken off at every place of the left and of the right, after they were made to agree.
    fn sides(&mut self, clearance: Option<Length>) -> [Vec<(Around, Length)>; 2] {
        // What lies between the legs is no place of an edge round both.
        let pair = self.is_pair();
        let counted = |mark: &HemMark| {
            let is_place = pair || mark.around != Around::Inside;
            Some((mark.around, off(mark, clearance).filter(|_| is_place)?))
        };
        let known = |side: GarmentSide| {
            let here = self.marks.iter().filter(|mark| mark.side.is_none_or(|s| s == side));
            here.filter_map(|mark| counted(mark)).collect::<Vec<_>>()
        };
        let [left, right] = GarmentSide::BOTH.map(known);
        let own = |side: GarmentSide| {
            self.marks.iter().any(|mark| mark.side == Some(side) && counted(mark).is_some())
        };
        let [has_left, has_right] = GarmentSide::BOTH.map(own);
        match (has_left, has_right) {
            (true, false) => {
                self.copied_from = Some(GarmentSide::Left);
                return [left.clone(), left];
            }
            (false, true) => {
                self.copied_from = Some(GarmentSide::Right);
                return [right.clone(), right];
            }
            (false, false) => return [left.clone(), left],
            (true, true) => {}
        }
        let at = |side: &[(Around, Length)], around: Around| {
            side.iter().find(|place| place.0 == around).map(|place| place.1)
        };
        let beside = |around: Around| Some((at(&left, around)?, at(&right, around)?));
        let both: Vec<(Around, Length, Length)> =
            Around::ALL.iter().filter_map(|a| beside(*a).map(|(l, r)| (*a, l, r))).collect();
        self.apart = both.iter().map(|(_, l, r)| (*l - *r).abs()).max();
        let differ = self.apart.is_none_or(|apart| apart > AGREE_WITHIN);
        self.undecided = differ && self.change.sides.is_none();
        let agreed = |of: fn(Length, Length) -> Length| {
            let all = Around::ALL.iter().filter_map(|around| {
                let (l, r) = (at(&left, *around), at(&right, *around));
                Some((*around, l.zip(r).map(|(l, r)| of(l, r)).or(l).or(r)?))
            });
            all.collect::<Vec<_>>()
        };
        let twice = |side: Vec<(Around, Length)>| [side.clone(), side];
        match self.change.sides {
            Some(SidePolicy::KeepEach) => [left, right],
            Some(SidePolicy::Left) => twice(left),
            Some(SidePolicy::Right) => twice(right),
            Some(SidePolicy::Larger) => twice(agreed(|l, r| if l.abs() >= r.abs() { l } else { r })),
            Some(SidePolicy::Smaller) => twice(agreed(|l, r| if l.abs() < r.abs() { l } else { r })),
            None if self.undecided => [left, right],
            Some(SidePolicy::Mean) | None => twice(agreed(|l, r| (l + r).fraction(1, 2))),
        }
    }
}

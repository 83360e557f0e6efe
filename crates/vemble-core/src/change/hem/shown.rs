//! A hem in figures, words and drawings.

use super::card::{fold_and_cut, measured_from, place_words};
use super::input::{HemLandmark, ShortenedAt};
use super::judge::HemSums;
use super::marked::{MOST_TURNS, OffFrom};
use super::told::{balance, off_words, turns_words};
use super::{AlteredHem, Regime};
use crate::figure::{Across, HemFigure, Picture, hem_figure, hem_picture, turn_up_picture};
use crate::fitting::{Around, GarmentSide, HemHow};
use crate::garment::{Garment, HemEdge, HemTurn, Opening, Seam};
use crate::judge::Subject;
use crate::length::{Figure, Length, Measure, Tape, Taught};
use crate::shown::{Show, Shown};
use crate::told::Teller;
use serde::Serialize;
use utoipa::ToSchema;

/// A new slit goes so high: 18 cm, 7 in (teaching value: a step of usual length).
const USUAL_SLIT: Taught = Taught::new(180, 448);

/// A hem, as it is shown.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedHem {
    /// Where what is taken off comes from, in words.
    pub from: String,
    /// Its edges: one, or both legs or sleeves.
    pub edges: Vec<SolvedEdge>,
    /// Places where it can be marked, with the marks that are there.
    pub marks: Vec<SolvedMark>,
    /// What is taken off higher up instead, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub above: Option<String>,
    /// How its lining is hemmed, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lining: Option<String>,
    /// What was typed to be taken off, negative where it is let down.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub typed: Option<Figure>,
    /// How far above the floor the new edge is to be.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub clearance: Option<Figure>,
    /// How far above a place of the body it is to be.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub above_landmark: Option<Figure>,
    /// Finished lengths in front, at the sides and behind, as they were typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lengths: Option<[Figure; 3]>,
    /// How much longer it is left.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub longer_by: Option<Figure>,
    /// How high the new slit goes, and how wide it opens.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub slit_height: Option<Figure>,
    /// How wide the new slit opens.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub slit_width: Option<Figure>,
    /// A new slit goes so high unless somebody says otherwise.
    pub slit_usual: Measure,
    /// How far above the outer's its lining ends, as it was typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lining_above: Option<Figure>,
    /// How much slack its lining has, as it was typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lining_slack: Option<Figure>,
    /// Its own turns, inner first, as they were typed; or how far above an edge that stays its tuck lies.
    pub own_turns: Vec<Figure>,
    /// What of these is asked.
    pub turns_asked: &'static str,
    /// How many there can be.
    pub turns_most: usize,
    /// Where it can be taken off.
    pub places: Vec<ShortenedAt>,
    /// How high the heels are.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub heel: Option<Figure>,
    /// How it is turned.
    pub turn: HemTurn,
    /// How it is best turned.
    pub recommended: HemTurn,
    /// Why.
    pub because: &'static str,
    /// A length can be measured from the body.
    pub has_landmarks: bool,
    /// Its turns and what they come to.
    pub turns: String,
    /// Where it hangs on the wearer, now and after; nothing of a sleeve.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub figure: Option<HemFigure>,
    /// The new hem cut through.
    pub picture: Picture,
    /// The hem as it is, cut through; nothing where nobody looked.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub picture_now: Option<Picture>,
}

/// A place where a hem can be marked.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedMark {
    /// Where around.
    pub around: Around,
    /// On which side of the garment; nothing in the middle.
    pub side: Option<GarmentSide>,
    /// Where, in words.
    pub name: String,
    /// What was read.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub amount: Option<Figure>,
    /// What was read again, standing upright.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub again: Option<Figure>,
    /// What that takes off, in words, however it was measured; nothing where that is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub off: Option<String>,
    /// How its reading grows with what is taken off: 1, or −1 where more is read for less.
    pub per_off: i8,
}

/// One closed edge, as it is shown.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedEdge {
    /// Which: "left", "both the same"; nothing of a single one.
    pub name: String,
    /// What is taken off, in words.
    pub off: String,
    /// How the cloth comes out, as a sum.
    pub sum: String,
    /// Where it is folded and cut, and from where that is measured.
    pub measured: String,
    /// The facing that finishes it, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub facing: Option<String>,
    /// How far round it is at the new edge; nothing where that is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub girth: Option<Figure>,
    /// Places around it.
    pub places: Vec<SolvedPlace>,
    /// It, unrolled.
    pub unrolled: Unrolled,
}

/// A place around an edge.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedPlace {
    /// Where.
    pub name: String,
    /// What is taken off there; negative where it is let down.
    pub off: Figure,
    /// How far around, in parts of the whole.
    pub part: f64,
}

/// An edge laid out flat, the front in the middle: millimetres of cloth from its left end, upwards from the present fold.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Unrolled {
    /// How wide it is.
    pub width_mm: f64,
    /// Lowest and highest that is drawn.
    pub from_mm: f64,
    pub to_mm: f64,
    /// The new fold.
    pub fold: String,
    /// Where it is cut; nothing where nothing is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cut: Option<String>,
    /// The allowance of a tapered leg or sleeve, which mirrors what is above the fold; nothing where it hangs straight.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub splay: Option<String>,
    /// The stitching that holds it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stitching: Option<String>,
    /// The raw edge of what is turned up now, hanging down.
    pub raw_mm: f64,
    /// Seams, facings and vents that it crosses, each with its name and how far from the left end.
    pub seams: Vec<Crossing>,
    /// Marks on it, as they were read.
    pub marks: Vec<MarkOnEdge>,
}

/// A mark on an unrolled edge.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MarkOnEdge {
    /// Which of the places where it can be marked.
    pub mark: usize,
    /// How far from the left end.
    pub at_mm: f64,
    /// How far above the present fold.
    pub up_mm: f64,
}

/// A seam or a middle that an unrolled edge crosses.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Crossing {
    /// What.
    pub name: String,
    /// How far from the left end.
    pub at_mm: f64,
}

impl Shown for SolvedHem {
    fn has_card(&self) -> bool {
        !self.edges.is_empty() || self.above.is_some()
    }
}

impl Show for AlteredHem<'_> {
    type Shown = SolvedHem;

    fn show(&self, subject: &Subject<'_>, tape: Tape) -> SolvedHem {
        let to = Teller::of(subject.garment, tape);
        let all = self.sums(subject);
        let first = all.first();
        let turn = first.map_or_else(|| self.facts.map_or(HemTurn::Double, |f| f.turn), |sums| sums.turn);
        let tuck = first.and_then(|sums| sums.kept).map_or(Length::ZERO, |kept| kept.tuck);
        let off =
            self.above.map_or_else(|| first.map_or(Length::ZERO, |sums| sums.off[1]), |above| above.off);
        let from = match (self.from, self.copied_from) {
            (OffFrom::Nothing, _) => "nothing is marked yet".into(),
            (OffFrom::Typed, _) => "as it was typed".into(),
            (OffFrom::Lengths, _) => "by its lengths in front, at the sides and behind".into(),
            (OffFrom::Body, _) => "from the body, as it is drawn here".into(),
            (OffFrom::Marks, Some(side)) => {
                format!("{} marked, {} copied from it", side.name(), side.other().name())
            }
            (OffFrom::Marks, None) if self.undecided => {
                "left and right disagree; each kept until you decide".into()
            }
            (OffFrom::Marks, None) => "by the marks".into(),
        };
        let places = ShortenedAt::ALL.iter().filter(|at| at.is_there(subject.garment, self.key()));
        SolvedHem {
            from,
            edges: all
                .iter()
                .zip(&self.rings)
                .map(|(sums, ring)| self.edge(subject, sums, ring, &to))
                .collect(),
            marks: self.markable().map(|(around, side)| self.mark(around, side, &to)).collect(),
            above: self.above.map(|above| {
                format!("{} {}; the edge stays", off_words(tape.round(above.off), &to), above.at.name())
            }),
            lining: self.lining(subject, off).map(|lining| lining.words(&to)),
            typed: self.change.off.map(|m| tape.figure(m.length)),
            clearance: self.change.clearance.map(|m| tape.figure(m.length)),
            above_landmark: self.change.from_body.map(|f| tape.figure(f.above.length)),
            lengths: self.change.lengths.map(|l| [l.front, l.side, l.back].map(|m| tape.figure(m.length))),
            longer_by: self.change.longer_by.map(|m| tape.figure(m.length)),
            slit_height: self.change.slit.map(|slit| tape.figure(slit.height.length)),
            slit_width: self.change.slit.and_then(|slit| slit.width).map(|m| tape.figure(m.length)),
            slit_usual: Measure { length: tape.round(USUAL_SLIT.on(tape)), unit: tape.unit() },
            lining_above: self.change.lining.and_then(|l| l.above).map(|m| tape.figure(m.length)),
            lining_slack: self.change.lining.and_then(|l| l.slack).map(|m| tape.figure(m.length)),
            own_turns: self.change.turns.iter().map(|m| tape.figure(m.length)).collect(),
            turns_asked: if turn == HemTurn::Kept { "tuck above the edge" } else { "own turns, inner first" },
            turns_most: if turn == HemTurn::Kept { 1 } else { MOST_TURNS },
            places: places.copied().collect(),
            heel: self.change.from_body.and_then(|f| f.heel).map(|m| tape.figure(m.length)),
            turn,
            recommended: first.map_or(turn, |sums| sums.recommended.0),
            because: first.map_or("", |sums| sums.recommended.1.name()),
            has_landmarks: self.key() != HemEdge::Sleeve,
            turns: first.map_or_else(String::new, |sums| turns_words(sums, &to)),
            figure: self.figure(subject, &to),
            picture: hem_picture(turn, first.map_or(&[], |sums| &sums.turns[..]), tuck),
            picture_now: self.facts.map(|f| turn_up_picture(f.turn, f.turn_up.length)),
        }
    }
}

/// `fold 10.0, cut 6.0 cm. Figures in cm, up from the raw edge …`.
fn measured(sums: &HemSums, to: &Teller<'_>) -> String {
    let from = measured_from(sums, to.tape);
    if !sums.is_level() || (sums.kept.is_none() && sums.short().is_some()) {
        return from;
    }
    let [fold, cut] = fold_and_cut(sums, sums.off[0], to.tape);
    if sums.kept.is_none() && !sums.is_cut {
        return format!("Fold at {}. {from}", to.show(fold));
    }
    let second = if sums.kept.is_some() { "stitch to" } else { "cut" };
    format!("Fold at {}, {second} {}. {from}", to.bare(fold), to.show(cut))
}

impl AlteredHem<'_> {
    /// Every place where it can be marked.
    fn markable(&self) -> impl Iterator<Item = (Around, Option<GarmentSide>)> + use<> {
        use Around::{Back, Front, Inside, Side, SideBack, SideFront};
        let [l, r] = GarmentSide::BOTH.map(Some);
        let of_pair = |side| [(Front, side), (Side, side), (Back, side), (Inside, side)];
        let places = match self.is_pair() {
            true => [of_pair(l), of_pair(r)].concat(),
            false => vec![
                (Front, None),
                (SideFront, l),
                (Side, l),
                (SideBack, l),
                (Back, None),
                (SideBack, r),
                (Side, r),
                (SideFront, r),
            ],
        };
        places.into_iter()
    }

    fn mark(&self, around: Around, side: Option<GarmentSide>, to: &Teller<'_>) -> SolvedMark {
        let tape = to.tape;
        let there = self.marks.iter().find(|mark| mark.around == around && mark.side == side);
        SolvedMark {
            around,
            side,
            name: place_words(&super::Place::of(around, side, Length::ZERO)),
            amount: there.map(|mark| tape.figure(mark.amount.length)),
            again: there.and_then(|mark| mark.again).map(|again| tape.figure(again.length)),
            off: there.and_then(|mark| self.off_of(mark)).map(|off| off_words(to.tape.round(off), to)),
            per_off: if there.is_some_and(|mark| mark.how != HemHow::TurnUp) { -1 } else { 1 },
        }
    }

    fn edge(&self, subject: &Subject<'_>, sums: &HemSums, ring: &super::Ring, to: &Teller<'_>) -> SolvedEdge {
        let side = ring.side.unwrap_or(GarmentSide::Left);
        let girth = crate::judge::girth_at(subject, self.level(), ring.at_the_sides(to.tape), side);
        let name = match (self.is_pair(), sums.side) {
            (false, _) => String::new(),
            (true, None) => "both the same".into(),
            (true, Some(side)) => side.name().into(),
        };
        let off = match sums.is_level() {
            true => off_words(sums.off[0], to),
            false => format!("{} to {}", off_words(sums.off[0], to), to.show(sums.off[1])),
        };
        let sum = match sums.kept {
            Some(kept) if sums.is_level() => format!(
                "fold at {}, stitch {} to {} above the edge that stays: a tuck {} deep",
                to.show(kept.crease),
                to.bare(kept.stitch[0]),
                to.show(kept.stitch[1]),
                to.show(kept.tuck)
            ),
            Some(kept) => format!("a tuck up to {} deep behind the edge that stays", to.show(kept.tuck)),
            None => balance(sums, to),
        };
        let places = ring.places.iter().map(|place| SolvedPlace {
            name: place_words(place),
            off: to.tape.figure(ring.chalked(place.part, to.tape)),
            part: place.part,
        });
        let width = girth
            .or_else(|| subject.garment.level(self.level()).map(|l| l.width.girth()))
            .unwrap_or(Length::from_mm(600));
        SolvedEdge {
            name,
            off,
            sum,
            measured: measured(sums, to),
            facing: self.facing(subject, sums, ring).map(|facing| facing.words(to)),
            girth: girth.map(|girth| to.tape.figure(girth)),
            places: places.collect(),
            unrolled: self.unrolled(subject.garment, sums, ring, width, to.tape),
        }
    }

    fn unrolled(
        &self,
        garment: &Garment,
        sums: &HemSums,
        ring: &super::Ring,
        width: Length,
        tape: Tape,
    ) -> Unrolled {
        let width_mm = width.cm() * 10.0;
        // The front lies in the middle: it begins at the back.
        let place = |part: f64| ((part + 0.5).rem_euclid(1.0)) * width_mm;
        let line = |up: &dyn Fn(Length) -> Length| {
            let steps = if sums.is_level() { 1 } else { 48 };
            let at = |n: i32| {
                let part = f64::from(n) / f64::from(steps);
                let y = up(ring.at(part + 0.5)).cm() * 10.0;
                format!("{}{:.1},{:.1}", if n == 0 { "M" } else { "L" }, part * width_mm, y)
            };
            (0..=steps).map(at).collect::<String>()
        };
        let outer = sums.turns.last().copied().unwrap_or_default();
        let [least, most] = sums.off;
        let cuts = sums.is_cut && !matches!(sums.regimes[0], Regime::Short { .. });
        let stitching = match sums.kept {
            Some(kept) => Some(line(&|off| kept.stitch[0] + off)),
            None => (outer > Length::ZERO).then(|| line(&|off| off + outer)),
        };
        let fold = match sums.kept {
            Some(kept) => line(&|off| kept.stitch[0] + off.fraction(1, 2)),
            None => line(&|off| off),
        };
        let mut seams: Vec<Crossing> = self
            .crossed(garment)
            .into_iter()
            .map(|(name, part)| Crossing { name: name.into(), at_mm: place(part) })
            .collect();
        let there = |(mark, (around, side)): (usize, (Around, Option<GarmentSide>))| {
            let is_here = ring.side.is_none() || sums.side.is_none() || side == ring.side;
            let read =
                self.marks.iter().find(|m| m.around == around && m.side == side).filter(|_| is_here)?;
            let part = super::Place::of(around, side.filter(|_| !self.is_pair()), Length::ZERO).part;
            Some(MarkOnEdge { mark, at_mm: place(part), up_mm: self.off_of(read)?.cm() * 10.0 })
        };
        let marks = self.markable().enumerate().filter_map(there).collect();
        seams.sort_by(|a, b| a.at_mm.total_cmp(&b.at_mm));
        let raw = -tape.round(sums.turn_up).cm() * 10.0;
        let lowest = (least - sums.allowance).min(Length::ZERO).cm() * 10.0;
        Unrolled {
            width_mm,
            from_mm: raw.min(lowest) - 10.0,
            to_mm: sums.kept.map_or(most + outer, |kept| kept.stitch[1]).cm().max(2.0) * 10.0 + 15.0,
            fold,
            splay: self.splay(sums, width_mm),
            cut: cuts.then(|| line(&|off| off - sums.allowance)),
            stitching,
            raw_mm: raw,
            seams,
            marks,
        }
    }

    /// The new allowance of what narrows towards its edge, below the fold: as wide at its own edge as what it is turned up against.
    fn splay(&self, sums: &HemSums, width: f64) -> Option<String> {
        let fullness = sums.fullness.filter(|_| self.is_pair() && sums.is_level())?;
        let wider = -fullness.excess().cm() * 10.0 / 2.0;
        let [fold, edge] = [sums.off[0], sums.off[0] - sums.allowance].map(|up| up.cm() * 10.0);
        let out = wider / 2.0;
        (wider > 0.0).then(|| {
            format!(
                "M0,{fold:.1} L{:.1},{edge:.1} L{:.1},{edge:.1} L{width:.1},{fold:.1} Z",
                -out,
                width + out
            )
        })
    }

    /// The wearer in front, with the floor, the places a length is measured from, and the edge now and after.
    fn figure(&self, subject: &Subject<'_>, to: &Teller<'_>) -> Option<HemFigure> {
        let (garment, wearer) = (subject.garment, subject.wearer);
        let now = super::marked::present_height(garment, wearer).filter(|_| self.key() != HemEdge::Sleeve)?;
        let heel = self.change.from_body.and_then(|wanted| wanted.heel);
        let floor = -heel.map_or(0.0, |heel| heel.length.cm());
        let above_floor = |up: f64| to.show(Length::from_cm(up - floor));
        let edge = |is: Across, up: f64| (is, format!("{}, {}", is.name(), above_floor(up)), up);
        let place = |landmark: &HemLandmark| {
            let up = super::marked::landmark_height(wearer, *landmark, heel);
            (Across::Place, landmark.name().to_owned(), up)
        };
        let places = HemLandmark::ALL.iter().filter(|landmark| **landmark != HemLandmark::Floor);
        let mut lines: Vec<_> = places.map(place).collect();
        lines.push(edge(Across::Now, now));
        if let Some(ring) = self.rings.first() {
            let off = ring.chalked(if self.is_pair() { 0.25 } else { 0.0 }, to.tape);
            lines.push(edge(Across::New, now + off.cm()));
        }
        Some(hem_figure(wearer, -floor, lines))
    }

    /// What the edge crosses, in parts of the way round, from the front over the left; panel seams have no room for a name.
    fn crossed(&self, garment: &Garment) -> Vec<(&'static str, f64)> {
        if self.is_pair() {
            return vec![("back", 0.5), ("outside", 0.25), ("front", 0.0), ("inside", 0.75)];
        }
        let opens = |at: Opening| garment.closures.iter().any(|c| c.at == at);
        let front = if opens(Opening::CentreFront) { "front edges" } else { "front" };
        let vent = self.facts.is_some_and(|facts| facts.vent.is_some());
        let mut all = vec![
            (if vent { "back, vent" } else { "back" }, 0.5),
            ("left side", 0.25),
            (front, 0.0),
            ("right side", 0.75),
        ];
        let has = |seams: [Seam; 2]| seams.into_iter().any(|seam| garment.seam(seam).is_some());
        if has([Seam::PrincessFront, Seam::PanelFront]) {
            all.extend([("", 0.125), ("", 0.875)]);
        }
        if has([Seam::PrincessBack, Seam::PanelBack]) {
            all.extend([("", 0.375), ("", 0.625)]);
        }
        all
    }
}

//! What is done to an armhole and its sleeve, exactly; and at the marks of a tape.

use super::flat::{Flat, cap_height};
use super::input::{ArmholeAt, ArmholeChange, ArmholeField};
use super::lift::{GIVES, USUAL_DROP, lifts_to, stands_at};
use crate::change::{ChangeKey, Drawn, Input, On, Term, Wrongs};
use crate::fault::Wrong;
use crate::fitting::{Edges, GarmentSide};
use crate::garment::{EaseClass, Garment, Kind, Seam, Width};
use crate::length::{Length, Measure, PerEdge, Tape, Taught};
use crate::place::{Level, Structure};
use kurbo::{Point, Vec2};

/// How much longer a cap is than its armhole, by what it is: least and most (teaching values of the handbook).
#[derive(Clone, Copy, Debug)]
pub struct CapEase {
    /// Less pulls across the top.
    pub least: Taught,
    /// More cannot be eased in without tucks.
    pub most: Taught,
}

impl CapEase {
    /// Of a garment's kind and cloth.
    pub fn of(garment: &Garment) -> Self {
        let (least, most) = match (garment.cloth.structure, garment.kind.template().ease) {
            (Structure::Knit, _) => (Taught::new(-5, -12), Taught::new(5, 12)),
            (_, EaseClass::Jacket | EaseClass::Coat) => (Taught::new(25, 64), Taught::new(50, 128)),
            _ if matches!(garment.kind, Kind::Shirt | Kind::Coverall) => {
                (Taught::new(0, 0), Taught::new(15, 40))
            }
            (_, EaseClass::Dress | EaseClass::Boned | EaseClass::Waistband) => {
                (Taught::new(10, 24), Taught::new(30, 80))
            }
        };
        Self { least, most }
    }

    /// Halfway between both, at a mark: what a cap has that nobody measured.
    pub fn usual(self, tape: Tape) -> Length {
        tape.round((self.least.on(tape) + self.most.on(tape)).fraction(1, 2))
    }
}

/// An armhole and its sleeve, as they are and as they will be. Without a tape.
#[derive(Clone, Debug)]
pub struct AlteredArmhole<'a> {
    /// What was entered.
    pub change: &'a ArmholeChange,
    /// As it is.
    pub(super) old: Flat,
    /// As it will be.
    pub(super) new: Flat,
    /// A sleeve is set into it.
    pub(super) has_sleeve: bool,
    /// How wide the sleeve was found at the upper arm.
    pub(super) wide: Option<Width>,
    /// How much longer than its armhole the cap of such a garment is.
    pub(super) cap_ease: CapEase,
}

/// What it comes to on a tape, all at marks: now and then.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ArmholeSums {
    /// Front edge of the armhole, and back edge.
    pub edges: [[Length; 2]; 2],
    /// The edge of the cap.
    pub cap: [Length; 2],
    /// Nobody measured the cap.
    pub cap_is_assumed: bool,
    /// Round the upper arm.
    pub wide: [Length; 2],
    /// How high the cap is; nothing where its edge is no longer than the sleeve is wide.
    pub high: [Option<Length>; 2],
    /// How far the seam lies below the hinge of the arm.
    pub drop: [Length; 2],
    /// How far the arm goes up, in whole degrees; nothing where there is no cap.
    pub lift: [Option<i64>; 2],
}

impl ArmholeSums {
    /// The whole armhole, now and then.
    pub fn armhole(&self) -> [Length; 2] {
        self.edges.map(|[front, back]| front + back)
    }

    /// What the cap is longer than the armhole, now and then.
    pub fn ease(&self) -> [Length; 2] {
        let [before, after] = self.armhole();
        [self.cap[0] - before, self.cap[1] - after]
    }
}

impl AlteredArmhole<'_> {
    /// Which.
    pub const fn key(&self) -> ArmholeAt {
        self.change.at
    }

    /// As it will be, laid flat.
    pub(crate) const fn laid_flat(&self) -> Flat {
        self.new
    }

    /// Everything it comes to, from what is rounded to the tape's marks.
    pub fn sums(&self, tape: Tape) -> ArmholeSums {
        let on = |cm: f64| tape.round(Length::from_cm(cm));
        let edges = [&self.old, &self.new].map(|flat| flat.lengths().map(on));
        let whole = |n: usize| edges[n][0] + edges[n][1];
        let measured = self.change.cap.map(|m| tape.round(m.length));
        let before = measured.unwrap_or_else(|| whole(0) + self.cap_ease.usual(tape));
        let after = self.change.cap_ease.map_or(before, |ease| whole(1) + tape.round(ease.length));
        let cap = [before, after];
        // As its seam is chalked: half of what it gets wider is off each edge, at a mark.
        let now = self.wide.map_or(Length::ZERO, |width| width.on(tape));
        let wide = [now, now - half_off(self.change.widen, tape) * 2];
        let exactly = [0, 1].map(|n| cap_height(wide[n].cm(), cap[n].cm()).filter(|_| self.has_sleeve));
        let hinge = self.change.hinge.map_or_else(|| USUAL_DROP.on(tape), |m| tape.round(m.length));
        let drop = [hinge, hinge - self.raise(tape)];
        let lift = |n: usize| {
            let angle = stands_at(wide[n].cm(), exactly[n]?);
            Some(lifts_to(angle, drop[n].cm(), GIVES.on(tape).cm()).round() as i64)
        };
        ArmholeSums {
            edges,
            cap,
            cap_is_assumed: self.change.cap.is_none(),
            wide,
            high: exactly.map(|high| high.map(on)),
            drop,
            lift: [lift(0), lift(1)],
        }
    }

    /// How far it comes up under the arm, at a mark.
    pub(super) fn raise(&self, tape: Tape) -> Length {
        at_a_mark(self.change.raise, tape)
    }

    /// How much narrower the shoulder becomes, at a mark.
    pub fn shortens(&self, tape: Tape) -> Length {
        at_a_mark(self.change.shorten, tape)
    }

    /// How far the tip of the shoulder comes down: by the slope, and by the pads that are taken out.
    pub(super) fn down(&self, tape: Tape) -> Length {
        at_a_mark(self.change.slope, tape) + at_a_mark(self.change.pads_out, tape)
    }

    /// What comes off the front edge of the shoulder seam and off its back edge, at its neck and at its tip.
    pub(crate) fn off_shoulder(&self, tape: Tape) -> [[Length; 2]; 2] {
        let (down, forward) = (self.down(tape), at_a_mark(self.change.forward, tape));
        [[at_a_mark(self.change.gape, tape), Length::ZERO], [down + forward, down - forward]]
    }

    /// How far the edge of the armhole, and the top of the cap, go out into the cloth beyond them, at marks.
    pub(super) fn needs_at_the_armhole(&self, sums: &ArmholeSums, tape: Tape) -> [Length; 2] {
        let out = |m: Option<Measure>| -at_a_mark(m, tape);
        let change = self.change;
        let edges = [self.raise(tape), out(change.front_in), out(change.back_in), out(change.shorten)];
        // With a slope the whole armhole goes down, with square shoulders up.
        let of_armhole = edges.into_iter().fold(self.raise(tape) - self.down(tape), Length::max);
        let of_cap = sums.high[1].zip(sums.high[0]).map_or(Length::ZERO, |(after, before)| after - before);
        [of_armhole, of_cap].map(|out| out.max(Length::ZERO))
    }

    /// How far each edge of the shoulder seam goes out at its tip, at marks: square shoulders, pads, a seam that moves.
    pub(super) fn lets_out_shoulder(&self, tape: Tape) -> [Length; 2] {
        self.off_shoulder(tape)[1].map(|off| (-off).max(Length::ZERO))
    }

    /// What the seams are afterwards: how much longer each is where it was altered, the one at the `side` too, and how much less is inside its front and its back edge.
    pub fn seams_after(&self, side: Seam, tape: Tape) -> Vec<(Seam, Length, [Length; 2])> {
        let sums = self.sums(tape);
        let [before, after] = sums.armhole();
        let [out, cap] = self.needs_at_the_armhole(&sums, tape);
        let of_sleeve = [self.lets_out_sleeve(tape); 2];
        // What the cap comes down by the sleeve's own seam gets longer.
        let lower = sums.high[0].zip(sums.high[1]).map_or(Length::ZERO, |(before, after)| before - after);
        let none = [Length::ZERO; 2];
        vec![
            (Seam::ArmholeSeam, after - before, [out, cap]),
            (Seam::ShoulderSeam, -self.shortens(tape), self.lets_out_shoulder(tape)),
            // With a slope the whole armhole goes down.
            (side, self.raise(tape) - self.down(tape), none),
            (Seam::SleeveSeam, lower, of_sleeve),
        ]
    }

    /// The shoulder seam is chalked anew.
    pub(super) fn moves_shoulder(&self, tape: Tape) -> bool {
        self.off_shoulder(tape) != [[Length::ZERO; 2]; 2]
    }

    /// The seam of the sleeve is chalked anew.
    pub(super) fn moves_sleeve(&self, tape: Tape) -> bool {
        [self.change.widen, self.change.widen_elbow].into_iter().any(|m| half_off(m, tape) != Length::ZERO)
    }

    /// Off each edge of the sleeve's seam so far above its lower edge, at a mark; negative makes it wider. Straight from the upper arm to the
    /// elbow, and from there to the lower edge, where it runs out; a sleeve that ends above the elbow runs out at its edge.
    pub(crate) fn off_sleeve(&self, garment: &Garment, above_edge: Length, tape: Tape) -> Length {
        let station = |level| garment.level(level).map(|l| l.station.length);
        let (Some(arm), elbow) = (station(Level::UpperArm), station(Level::Elbow)) else {
            return Length::ZERO;
        };
        let [top, bend] = [self.change.widen, self.change.widen_elbow].map(|m| half_off(m, tape));
        let mut known = vec![(Length::ZERO, Length::ZERO)];
        known.extend(elbow.filter(|at| *at > Length::ZERO && *at < arm).map(|at| (at, bend)));
        known.push((arm, top));
        let after = known.iter().position(|(at, _)| *at >= above_edge);
        match after {
            None => top,
            Some(0) => known[0].1,
            Some(n) => {
                let [(from, below), (to, above)] = [known[n - 1], known[n]];
                let share = (above_edge - from).cm() / (to - from).cm();
                tape.round(Length::from_cm(below.cm() + (above - below).cm() * share))
            }
        }
    }

    /// The most that either edge of the sleeve's seam is let out, at a mark.
    pub(super) fn lets_out_sleeve(&self, tape: Tape) -> Length {
        let off = [self.change.widen, self.change.widen_elbow].map(|m| half_off(m, tape));
        -off.into_iter().min().unwrap_or_default().min(Length::ZERO)
    }
}

/// A length that was entered, at a mark; nought where it was not.
pub(super) fn at_a_mark(length: Option<Measure>, tape: Tape) -> Length {
    length.map_or(Length::ZERO, |m| tape.round(m.length))
}

/// What comes off each edge where all of it gets so much wider: half of it, at a mark.
fn half_off(wider: Option<Measure>, tape: Tape) -> Length {
    wider.map_or(Length::ZERO, |m| -tape.round(m.length.fraction(1, 2)))
}

impl Drawn for AlteredArmhole<'_> {
    fn is_altered(&self) -> bool {
        let ArmholeChange { shorten, slope, forward, pads_out, gape, .. } = self.change;
        let ArmholeChange { raise, front_in, back_in, widen, widen_elbow, cap_ease, pitch, .. } = self.change;
        let of_shoulder = [shorten, slope, forward, pads_out, gape];
        let of_armhole = [raise, front_in, back_in, widen, widen_elbow, pitch];
        let moves = of_shoulder.into_iter().chain(of_armhole).filter_map(Option::as_ref);
        cap_ease.is_some() || moves.into_iter().any(|m| m.length != Length::ZERO)
    }

    /// Off the seam of the sleeve, and off the front of the neckline where it gapes.
    fn takes(
        &self,
        garment: &Garment,
        level: Level,
        up: Length,
        sides: &[GarmentSide],
        tape: Tape,
    ) -> Vec<Term> {
        let at = garment.level(level).filter(|_| level.is_of_sleeve()).map(|l| l.station.length + up);
        let off = PerEdge(at.map_or(Length::ZERO, |at| self.off_sleeve(garment, at, tape)));
        let gape = if level == Level::Neck { at_a_mark(self.change.gape, tape) } else { Length::ZERO };
        let edges = match level == Level::Neck {
            true => Edges { front: PerEdge(gape), back: PerEdge::default() },
            false => Edges { front: off, back: off },
        };
        let own = |side: GarmentSide| match self.key().sides().contains(&side) {
            true => edges,
            false => Edges::default(),
        };
        match edges == Edges::default() {
            true => Vec::new(),
            false => Term::of_sides(ChangeKey::Armhole(self.key()), sides, own),
        }
    }

    fn sides_agree(&self) -> bool {
        self.key() == ArmholeAt::Both
    }
}

/// Every armhole that was entered.
///
/// # Errors
/// Each with the number of its change and the field that is wrong.
pub(crate) fn draw<'a>(
    on: On<'a>,
    changes: &[(usize, &'a ArmholeChange)],
) -> Result<Vec<AlteredArmhole<'a>>, Wrongs> {
    let (mut drawn, mut faults) = (Vec::new(), Vec::new());
    let is_of = |at: ArmholeAt| changes.iter().any(|(_, change)| change.at == at);
    let both_and_one = is_of(ArmholeAt::Both) && (is_of(ArmholeAt::OnLeft) || is_of(ArmholeAt::OnRight));
    for &(number, change) in changes {
        let fits = ArmholeChange::fits(on.garment, change.at);
        let (Some(old), true) = (Flat::of(on.garment), fits) else {
            faults.push((number, "at".into(), Wrong::NoSeamThere { what: "the armhole" }));
            continue;
        };
        if both_and_one && change.at != ArmholeAt::Both {
            faults.push((number, "at".into(), Wrong::Twice { what: "armhole" }));
        }
        faults.extend(wrong(change, &old).into_iter().map(|(field, wrong)| (number, field.into(), wrong)));
        let cm = |m: Option<Measure>| m.map_or(0.0, |m| m.length.cm());
        // With the slope of the shoulder the whole armhole goes down: it keeps its size, and its place under the arm.
        let down = Vec2::new(0.0, -(cm(change.slope) + cm(change.pads_out)));
        let new = Flat {
            tip: old.tip + down - Vec2::new(cm(change.shorten), 0.0),
            forward: cm(change.forward),
            front: old.front + down - Vec2::new(cm(change.front_in), 0.0),
            back: old.back + down - Vec2::new(cm(change.back_in), 0.0),
            underarm: Point::new(old.underarm.x, cm(change.raise)) + down,
        };
        let sleeve = on.garment.level(Level::UpperArm);
        if sleeve.is_none() {
            let asked = ArmholeField::ALL
                .iter()
                .filter(|field| field.is_of_sleeve() && change.get(**field).is_some());
            let none = Wrong::NoSeamThere { what: "the sleeve" };
            faults.extend(asked.map(|field| (number, field.word().into(), none.clone())));
        }
        if sleeve.is_some() && change.widen_elbow.is_some() && on.garment.level(Level::Elbow).is_none() {
            faults.push((number, "widen_elbow".into(), Wrong::NoLevel { level: Level::Elbow }));
        }
        let now = sleeve.map_or(Length::ZERO, |l| l.width.girth());
        let is_nothing = |wider: &Measure| sleeve.is_some() && now + wider.length <= Length::ZERO;
        if let Some(found) = change.widen.filter(is_nothing) {
            faults.push((number, "widen".into(), Wrong::TooDeep { found, girth: now }));
        }
        let cap_ease = CapEase::of(on.garment);
        drawn.push(AlteredArmhole {
            change,
            old,
            new,
            has_sleeve: sleeve.is_some(),
            wide: sleeve.map(|l| l.width),
            cap_ease,
        });
    }
    if faults.is_empty() { Ok(drawn) } else { Err(faults) }
}

/// What cannot be of what was entered, field by field.
fn wrong(change: &ArmholeChange, old: &Flat) -> Vec<(&'static str, Wrong)> {
    let mut faults = Vec::new();
    if let Some(found) = change.cap.filter(|m| m.length <= Length::ZERO) {
        faults.push(("cap", Wrong::NotPositive { found }));
    }
    for (field, length) in [("hinge", change.hinge), ("gape", change.gape)] {
        if let Some(found) = length.filter(|m| m.length.is_negative()) {
            faults.push((field, Wrong::Negative { found }));
        }
    }
    // Half of its depth up, down or to the side is another armhole.
    let most = Length::from_cm(old.tip.y / 2.0);
    let moves = [
        ("raise", change.raise),
        ("shorten", change.shorten),
        ("slope", change.slope),
        ("forward", change.forward),
        ("pads_out", change.pads_out),
        ("gape", change.gape),
        ("front_in", change.front_in),
        ("back_in", change.back_in),
        ("cap_ease", change.cap_ease),
        ("pitch", change.pitch),
    ];
    for (field, found) in moves {
        if let Some(found) = found.filter(|m| m.length.abs() > most) {
            faults.push((field, Wrong::MovesTooFar { found, most }));
        }
    }
    faults
}

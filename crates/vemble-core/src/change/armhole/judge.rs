//! Armhole and sleeve: whether the cap goes into the armhole, whether there is cloth for it, and what it does to the arm.

use super::input::{ArmholeAt, ArmholeChange};
use super::sum::{AlteredArmhole, ArmholeSums, at_a_mark};
use crate::body::BodyMeasurement;
use crate::change::seam::AlteredSeam;
use crate::change::{Change, ChangeKey, Drawn};
use crate::fitting::GarmentSide;
use crate::garment::{Collar, EaseClass, Seam};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Partner, Rule, Subject};
use crate::length::{Length, Measure, Station, Taught};
use crate::place::Structure;

/// A seam nearer to the hinge of the arm chafes: 1 cm, 3/8 in (teaching value: a finger's breadth).
const CHAFES: Taught = Taught::new(10, 24);

/// The figures that findings about an armhole rest on.
#[derive(Clone, Debug)]
pub(crate) enum Found {
    /// How the cap goes into the armhole.
    Cap { sums: ArmholeSums, wanted: [Length; 2], is_knit: bool },
    /// The cap's edge is no longer than the sleeve is wide.
    NoCap { cap: Length, wide: Length },
    /// Cloth that is needed on an edge, and what is there.
    Cloth { edge: Needs, needs: Length, has: Length, keep: Length },
    /// How far the arm goes up.
    Lift { sums: ArmholeSums },
    /// The shoulder seam against the wearer’s shoulder.
    Shoulder { seam: [Length; 2], body: Length, within: [Length; 2] },
    /// What is sewn to the neck loses as much.
    Neck { collar: Collar, gape: Length, sides: i64 },
    /// Seams that are altered and end at the armhole: what they take off it is not counted here.
    Beside { seams: Vec<Seam> },
    /// How near the seam comes to the hinge of the arm.
    Hinge { drop: [Length; 2], raise: Length, chafes: Length },
}

/// An edge that needs cloth outside its old stitching.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Needs {
    /// The armhole, where it comes up or goes out.
    Armhole,
    /// The seam of the sleeve, on each edge, and how wide a gusset would have to be.
    Sleeve { gusset: Length },
    /// The top of the cap.
    Cap,
    /// The shoulder seam, where its tip goes up.
    Shoulder,
}

/// A shoulder seam of a set-in sleeve may be so much shorter or longer than the wearer's shoulder; of a jacket so much longer (teaching
/// values of the handbook).
const SHORTER: Taught = Taught::new(5, 12);
const LONGER: Taught = Taught::new(10, 24);
const LONGER_JACKET: Taught = Taught::new(15, 40);

impl Judge for AlteredArmhole<'_> {
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
        if !self.is_altered() {
            return Vec::new();
        }
        let sums = self.sums(subject.tape);
        let mut all: Vec<Finding> = self.has_sleeve.then(|| self.cap(subject, &sums)).into_iter().collect();
        all.extend(self.lift(&sums));
        all.extend(self.hinge(subject, &sums));
        all.extend(self.cloth(subject, &sums));
        all.extend(self.on_the_shoulder(subject));
        all.extend(self.at_the_neck(subject));
        all.extend(self.beside(subject));
        all
    }
}

impl AlteredArmhole<'_> {
    /// How long the shoulder seam is now, at a mark. Nothing where nobody measured one.
    pub(super) fn shoulder(&self, subject: &Subject<'_>) -> Option<Length> {
        let seam = subject.garment.seam(Seam::ShoulderSeam)?;
        Some(subject.tape.round(seam.length.length))
    }

    /// The shoulder seam against the wearer's own shoulder, where it is shortened.
    fn on_the_shoulder(&self, subject: &Subject<'_>) -> Option<Finding> {
        let tape = subject.tape;
        let (seam, body) = (self.shoulder(subject)?, subject.body(BodyMeasurement::ShoulderLength)?);
        let shorten = at_a_mark(self.change.shorten, tape);
        let then = seam - shorten;
        let is_jacket = matches!(subject.garment.kind.template().ease, EaseClass::Jacket | EaseClass::Coat);
        let longer = if is_jacket { LONGER_JACKET } else { LONGER };
        let within = [-SHORTER.on(tape), longer.on(tape)];
        let outcome = match then - body {
            by if by < within[0] || by > within[1] => Outcome::Caution,
            _ => Outcome::Passes,
        };
        let found = Found::Shoulder { seam: [seam, then], body, within };
        let key = self.about(Rule::Placement, Some(Partner::OtherEdge));
        let finding = Finding::new(key, outcome, found).mended(|| {
            let wanted = seam - body - (then - body).clamp(within[0], within[1]);
            let shorten = Some(Measure { length: wanted, unit: tape.unit() });
            [Change::Armhole(ArmholeChange { shorten, ..self.change.clone() })]
        });
        (shorten != Length::ZERO).then_some(finding)
    }

    /// Seams that change the armhole by themselves: shoulder and armhole seams, and a side or sleeve seam that is altered up to its top.
    fn beside(&self, subject: &Subject<'_>) -> Option<Finding> {
        let ends_here = |seam: &&AlteredSeam<'_>| match seam.key() {
            Seam::ShoulderSeam | Seam::ArmholeSeam => true,
            Seam::SideSeam | Seam::Outseam | Seam::SleeveSeam | Seam::SleeveBackSeam => {
                let top = Station(seam.facts.length.length);
                let at_top = GarmentSide::BOTH.map(|side| seam.line(side).chalked(top, subject.tape));
                at_top.into_iter().flatten().any(|edges| edges.deepest() != Length::ZERO)
            }
            Seam::Inseam | Seam::SeatSeam | Seam::FrontRise | Seam::CentreFront => false,
            Seam::CentreBack | Seam::PrincessFront | Seam::PrincessBack | Seam::PanelFront => false,
            Seam::PanelBack | Seam::YokeSeam | Seam::WaistSeam | Seam::NeckSeam => false,
        };
        let seams: Vec<Seam> =
            subject.seams().filter(|s| s.is_altered()).filter(ends_here).map(AlteredSeam::key).collect();
        let key = self.about(Rule::Partners, Some(Partner::Seam));
        (!seams.is_empty()).then(|| Finding::new(key, Outcome::Caution, Found::Beside { seams }))
    }

    /// What stands or lies at the neck loses what is pinched out.
    fn at_the_neck(&self, subject: &Subject<'_>) -> Option<Finding> {
        let gape = at_a_mark(self.change.gape, subject.tape);
        let (collar, sides) = (subject.garment.collar(), self.key().sides().len() as i64);
        let outcome = if collar == Collar::None { Outcome::Passes } else { Outcome::Caution };
        let key = self.about(Rule::Partners, Some(Partner::EndsIn));
        let found = Found::Neck { collar, gape, sides };
        (gape != Length::ZERO).then(|| Finding::new(key, outcome, found))
    }

    const fn about(&self, rule: Rule, partner: Option<Partner>) -> FindingKey {
        FindingKey { partner, ..FindingKey::about(rule, ChangeKey::Armhole(self.key())) }
    }

    /// The cap against the armhole.
    fn cap(&self, subject: &Subject<'_>, sums: &ArmholeSums) -> Finding {
        let tape = subject.tape;
        let key = self.about(Rule::Partners, Some(Partner::Sleeve));
        if sums.high[1].is_none() {
            let found = Found::NoCap { cap: sums.cap[1], wide: sums.wide[1] };
            return Finding::new(key, Outcome::Stop, found);
        }
        let is_knit = subject.garment.cloth.structure == Structure::Knit;
        let wanted = [self.cap_ease.least.on(tape), self.cap_ease.most.on(tape)];
        let ease = sums.ease()[1];
        let outcome = match ease {
            ease if ease.is_negative() && !is_knit => Outcome::Stop,
            ease if ease < wanted[0] || ease > wanted[1] => Outcome::Caution,
            _ => Outcome::Passes,
        };
        let found = Found::Cap { sums: *sums, wanted, is_knit };
        Finding::new(key, outcome, found).mended(|| {
            let ease = ease.clamp(wanted[0], wanted[1]);
            let cap_ease = Some(Measure { length: ease, unit: tape.unit() });
            [Change::Armhole(ArmholeChange { cap_ease, ..self.change.clone() })]
        })
    }

    /// How far the arm goes up, then and now.
    fn lift(&self, sums: &ArmholeSums) -> Option<Finding> {
        let [before, after] = [sums.lift[0]?, sums.lift[1]?];
        let outcome = if after < before { Outcome::Caution } else { Outcome::Passes };
        Some(Finding::new(self.about(Rule::Movement, None), outcome, Found::Lift { sums: *sums }))
    }

    /// The seam against the hinge of the arm, where it moves.
    fn hinge(&self, subject: &Subject<'_>, sums: &ArmholeSums) -> Option<Finding> {
        let (raise, chafes) = (self.raise(subject.tape), CHAFES.on(subject.tape));
        let outcome = match sums.drop[1] {
            drop if drop.is_negative() => Outcome::Stop,
            drop if drop < chafes && raise > Length::ZERO => Outcome::Caution,
            _ => Outcome::Passes,
        };
        let found = Found::Hinge { drop: sums.drop, raise, chafes };
        (raise != Length::ZERO).then(|| Finding::new(self.about(Rule::Placement, None), outcome, found))
    }

    /// Cloth outside the old stitching, wherever an edge goes out. A toile is cut to it, or pieced.
    fn cloth(&self, subject: &Subject<'_>, sums: &ArmholeSums) -> Vec<Finding> {
        let (garment, tape) = (subject.garment, subject.tape);
        if garment.toile {
            return Vec::new();
        }
        let keep = garment.cloth.keep().on(tape);
        let allowance = |seam: Seam, edge: usize| {
            let facts = garment.seam(seam)?;
            Some(facts.allowance_at(Length::ZERO, self.key() == ArmholeAt::OnRight, tape)[edge])
        };
        let [of_armhole, of_cap] = self.needs_at_the_armhole(sums, tape);
        let of_shoulder = self.lets_out_shoulder(tape).into_iter().max().unwrap_or_default();
        let of_sleeve = self.lets_out_sleeve(tape);
        let gusset = |has: Length| Needs::Sleeve { gusset: of_sleeve * 2 + has * 2 };
        let shoulder = allowance(Seam::ShoulderSeam, 0)
            .map(|has| (Needs::Shoulder, Some(Partner::OtherEdge), of_shoulder, has));
        let armhole = allowance(Seam::ArmholeSeam, 0).map(|has| (Needs::Armhole, None, of_armhole, has));
        let sleeve =
            allowance(Seam::SleeveSeam, 0).map(|has| (gusset(has), Some(Partner::Sleeve), of_sleeve, has));
        let cap = allowance(Seam::ArmholeSeam, 1).map(|has| (Needs::Cap, Some(Partner::Cap), of_cap, has));
        let finding = |(edge, partner, needs, has): (Needs, Option<Partner>, Length, Length)| {
            let is_short = needs > has - keep;
            let outcome = if is_short { Outcome::Stop } else { Outcome::Passes };
            let found = Found::Cloth { edge, needs, has, keep };
            (needs > Length::ZERO).then(|| Finding::new(self.about(Rule::Capacity, partner), outcome, found))
        };
        [shoulder, armhole, sleeve, cap].into_iter().flatten().filter_map(finding).collect()
    }
}

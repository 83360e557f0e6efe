//! A length of the trunk: whether there is a seam for it and cloth, whether what is sewn together still fits, what it shortens and what hangs
//! higher for it.

use super::input::TrunkAt;
use super::sum::{AlteredTrunk, TrunkSums};
use crate::body::BodyMeasurement;
use crate::change::{ChangeKey, Drawn};
use crate::fitting::GarmentSide;
use crate::garment::{Closure, ClosureFacts, HemEdge, Opening, Seam};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Partner, Rule, Subject, girth_at, girths};
use crate::length::{Length, Taught};
use crate::place::Level;

/// Edges that are sewn together may differ by so much unseen, and by so many percent eased in (teaching values of the handbook).
const UNSEEN: Taught = Taught::new(3, 8);
const EASED_PERCENT: i64 = 1;
/// A hem that hangs unevenly by more is seen (teaching value: as marks around a hem agree).
const UNEVEN: Taught = Taught::new(10, 24);

/// The figures that findings about a length of the trunk rest on.
#[derive(Clone, Debug)]
pub(crate) enum Found {
    /// No seam runs across: what is folded away shows, what is put in needs one.
    NoSeam { is_longer: bool },
    /// Cloth that is put in, and what the allowance has.
    Cloth { needs: Length, has: Option<Length>, keep: Length },
    /// The edge as it will be, against what it is sewn to.
    Edge { edge: Length, to: Length, eased: Length },
    /// What opens there gets shorter.
    Opens { closure: Closure, by: Length },
    /// Darts that end at the edge get shorter.
    Darts { front: Length, back: Length },
    /// What hangs below it hangs higher, or lower.
    Hangs { sums: TrunkSums, hem_is_reckoned: bool },
    /// Back neck to waist, the garment's and the wearer's.
    Back { garment: [Length; 2], body: Length },
}

impl Judge for AlteredTrunk<'_> {
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
        if !self.is_altered() {
            return Vec::new();
        }
        let sums = self.sums(subject.tape);
        let mut all = Vec::new();
        all.extend(self.seam(subject, sums));
        all.extend(self.cloth(subject, sums));
        all.extend(self.edge(subject, sums));
        all.extend(self.opens(subject, sums));
        all.extend(self.darts(subject));
        all.extend(self.hangs(subject, sums));
        all.extend(self.back(subject, sums));
        all
    }
}

impl AlteredTrunk<'_> {
    const fn about(&self, rule: Rule, partner: Option<Partner>) -> FindingKey {
        FindingKey { partner, ..FindingKey::about(rule, ChangeKey::Trunk(self.key())) }
    }

    fn longest(sums: TrunkSums) -> Length {
        sums.all().into_iter().map(|by| -by).max().unwrap_or_default().max(Length::ZERO)
    }

    fn seam(&self, subject: &Subject<'_>, sums: TrunkSums) -> Option<Finding> {
        let is_longer = Self::longest(sums) > Length::ZERO;
        let outcome = if subject.garment.toile { Outcome::Passes } else { Outcome::Caution };
        let found = Found::NoSeam { is_longer };
        let key = self.about(Rule::Placement, None);
        (!self.has_seam(subject.garment)).then(|| Finding::new(key, outcome, found))
    }

    /// What is put in comes out of the allowance. A toile is pieced.
    fn cloth(&self, subject: &Subject<'_>, sums: TrunkSums) -> Option<Finding> {
        let (garment, tape, needs) = (subject.garment, subject.tape, Self::longest(sums));
        let keep = garment.cloth.keep().on(tape);
        let seam = garment.seam(Seam::WaistSeam).filter(|_| self.key() == TrunkAt::AboveWaist);
        let has = seam.map(|facts| tape.round(facts.allowance.length));
        let is_short = has.is_none_or(|has| needs > has - keep);
        let outcome = if is_short { Outcome::Stop } else { Outcome::Passes };
        let found = Found::Cloth { needs, has, keep };
        let key = self.about(Rule::Capacity, None);
        (needs > Length::ZERO && !garment.toile).then(|| Finding::new(key, outcome, found))
    }

    /// The edge lies elsewhere on the cloth, where another girth goes round; what it is sewn to stays.
    fn edge(&self, subject: &Subject<'_>, sums: TrunkSums) -> Option<Finding> {
        let tape = subject.tape;
        let by = sums.on_the_whole(tape);
        let up = match self.key() {
            TrunkAt::AboveWaist => by,
            TrunkAt::Rise => -by,
        };
        // With whatever else is changed at the waist, here and there.
        let waist = girths(subject).into_iter().find(|girth| girth.level.level == Level::Waist)?;
        let (to, edge) = (waist.after, girth_at(subject, Level::Waist, up, GarmentSide::Left)?);
        let eased = UNSEEN.on(tape).max(tape.round(to.fraction(EASED_PERCENT, 100)));
        let outcome = if (edge - to).abs() > eased { Outcome::Caution } else { Outcome::Passes };
        let found = Found::Edge { edge, to, eased };
        let key = self.about(Rule::Partners, Some(Partner::OtherEdge));
        (by > Length::ZERO && self.has_seam(subject.garment)).then(|| Finding::new(key, outcome, found))
    }

    /// A closure that runs through it.
    fn opens(&self, subject: &Subject<'_>, sums: TrunkSums) -> Option<Finding> {
        let by = |at: Opening| match at {
            Opening::CentreFront => sums.front,
            Opening::CentreBack => sums.back,
            Opening::LeftSide => sums.side,
            Opening::Waist | Opening::Cuff => Length::ZERO,
        };
        let runs = |closure: Closure| match closure {
            Closure::Zip | Closure::InvisibleZip | Closure::Buttons | Closure::Hooks | Closure::Lacing => {
                true
            }
            Closure::Elastic | Closure::Wrap | Closure::Ties => false,
        };
        let goes_through = |facts: &&ClosureFacts| runs(facts.closure) && by(facts.at) != Length::ZERO;
        let through = subject.garment.closures.iter().find(goes_through)?;
        let found = Found::Opens { closure: through.closure, by: by(through.at) };
        Some(Finding::new(self.about(Rule::InTheWay, Some(Partner::AtTheEdge)), Outcome::Caution, found))
    }

    /// Darts that end at the waist, in front and behind, and get shorter.
    fn darts(&self, subject: &Subject<'_>) -> Option<Finding> {
        let tape = subject.tape;
        let at = |is_front: bool| {
            let ends = |dart: crate::garment::Dart| dart.is_at_the_waist() && dart.is_in_front() == is_front;
            let halfway = self.sums(tape).quarter.fraction(1, 2);
            let there = subject.garment.darts.iter().any(|facts| ends(facts.dart));
            if there { self.sums(tape).at(is_front, halfway, tape) } else { Length::ZERO }
        };
        let [front, back] = [true, false].map(at);
        let key = self.about(Rule::Partners, Some(Partner::Seam));
        let is_any = front != Length::ZERO || back != Length::ZERO;
        is_any.then(|| Finding::new(key, Outcome::Passes, Found::Darts { front, back }))
    }

    /// What hangs below goes up with it: unevenly, where it is a wedge and no leg hangs by itself. A lower rise is worn at the same waist.
    fn hangs(&self, subject: &Subject<'_>, sums: TrunkSums) -> Option<Finding> {
        let all = sums.all();
        let apart = all.into_iter().max()? - all.into_iter().min()?;
        let is_uneven = apart > UNEVEN.on(subject.tape) && !subject.garment.has_legs();
        // A hem in the same try-on was marked or reckoned on the length as it is.
        let hem_is_reckoned = subject.hems().any(|hem| hem.key() != HemEdge::Sleeve && hem.is_altered());
        let outcome = if is_uneven || hem_is_reckoned { Outcome::Caution } else { Outcome::Passes };
        let key = self.about(Rule::Level, None);
        let found = Found::Hangs { sums, hem_is_reckoned };
        Some(Finding::new(key, outcome, found))
    }

    /// Down the back from the neck to the waist, against the wearer's.
    fn back(&self, subject: &Subject<'_>, sums: TrunkSums) -> Option<Finding> {
        let (garment, tape) = (subject.garment, subject.tape);
        let body = subject.body(BodyMeasurement::BackNeckToWaist)?;
        let station = |level| garment.level(level).map(|l| l.station.length);
        let long = tape.round(station(Level::Neck)? - station(Level::Waist)?);
        let found = Found::Back { garment: [long, long - sums.back], body };
        let is_back = self.key() == TrunkAt::AboveWaist && sums.back != Length::ZERO;
        is_back.then(|| Finding::new(self.about(Rule::Level, Some(Partner::Beneath)), Outcome::Passes, found))
    }
}

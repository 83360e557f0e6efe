//! Fastenings as they come to stand on a tape: all of it at marks, so that what is added up is what is measured.

use super::input::{Spaced, SpacingChange, fastened_by};
use super::places::{even, gaps, onward, straddling};
use crate::change::{Drawn, On, Term, Wrongs};
use crate::fault::Wrong;
use crate::fitting::GarmentSide;
use crate::garment::{Closure, Garment, Opening};
use crate::length::{Length, Measure, Tape, Taught};
use crate::place::Level;

/// Along one edge nobody sews on more than so many.
const MOST: u8 = 60;

/// How fastenings of one sort are usually spaced. Teaching values: the first holds the top closed, the last leaves room to walk; closer than
/// `closest` they cannot be worked, further than `widest` the edge gapes between them.
struct Usual {
    first: Taught,
    last: Taught,
    closest: Taught,
    widest: Taught,
    apart: Taught,
}

const fn usual(closure: Closure) -> Usual {
    const fn t(mm: i64, sixty_fourths: i64) -> Taught {
        Taught::new(mm, sixty_fourths)
    }
    match closure {
        Closure::Lacing => Usual {
            first: t(10, 24),
            last: t(10, 24),
            closest: t(10, 24),
            widest: t(50, 128),
            apart: t(25, 64),
        },
        Closure::Hooks => {
            Usual { first: t(5, 16), last: t(5, 16), closest: t(8, 24), widest: t(40, 104), apart: t(20, 48) }
        }
        Closure::Buttons
        | Closure::Zip
        | Closure::InvisibleZip
        | Closure::Elastic
        | Closure::Wrap
        | Closure::Ties => Usual {
            first: t(15, 40),
            last: t(80, 208),
            closest: t(20, 48),
            widest: t(120, 304),
            apart: t(80, 208),
        },
    }
}

/// Fastenings as they were entered: where they come to stand depends on the hem, so it is worked out once that is known.
#[derive(Clone, Copy, Debug)]
pub struct SpacedFastenings<'a> {
    /// What was entered.
    pub change: &'a SpacingChange,
    /// What they are.
    pub closure: Closure,
}

/// Why nothing can be spaced.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Unspaced {
    /// No room is left between the first and the last.
    NoRoom,
    /// Nobody knows where the line of the body lies.
    NoLine,
    /// The line of the body lies above the first or below the last.
    LineOutside(Length),
    /// They would stand closer than they can be worked; so many fit.
    TooClose { apart: Length, closest: Length, most: u8 },
}

/// What spacing comes to on a tape.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct SpacingSums {
    /// How long the edge is now.
    pub edge: Length,
    /// What the hem takes off it; negative where it is let down.
    pub off: Length,
    /// The first, below the top.
    pub first: Length,
    /// The last, at least so far above the new lower end.
    pub last: Length,
    /// The line of the body, below the top, where they are spaced about one.
    pub line: Option<Length>,
    /// Where they stand now, as far as is known: evenly.
    pub before: Vec<Length>,
    /// Where they come to stand, below the top; or why nothing can be spaced.
    pub(crate) places: Result<Vec<Length>, Unspaced>,
    /// Further apart the edge gapes.
    pub widest: Length,
}

impl SpacingSums {
    /// How long the edge will be.
    pub fn new_edge(&self) -> Length {
        self.edge - self.off
    }

    /// From the first to the last.
    pub fn run(&self) -> Length {
        self.new_edge() - self.first - self.last
    }

    /// Where they come to stand; nowhere where that cannot be.
    pub fn placed(&self) -> &[Length] {
        self.places.as_deref().unwrap_or_default()
    }

    /// Least and greatest distance from one to the next; nothing of a single one.
    pub fn apart(&self) -> Option<[Length; 2]> {
        let gaps = || self.placed().windows(2).map(|pair| pair[1] - pair[0]);
        Some([gaps().min()?, gaps().max()?])
    }
}

impl SpacedFastenings<'_> {
    /// Which opening.
    pub const fn key(&self) -> Opening {
        self.change.at
    }

    /// Its edge ends in the hem: that of buttons down the front of what has one hem does.
    pub fn ends_in_the_hem(&self, garment: &Garment) -> bool {
        let has_hem = !garment.has_legs() && garment.level(Level::Hem).is_some();
        let usual = self.key() == Opening::CentreFront
            && self.closure == Closure::Buttons
            && garment.hangs_from_shoulders();
        has_hem && self.change.to_hem.unwrap_or(usual)
    }

    /// How many there are along one edge: eyelets are counted on both.
    fn there(&self, garment: &Garment) -> u8 {
        let facts = garment.closures.iter().find(|c| c.at == self.key() && c.closure == self.closure);
        let count = facts.map_or(0, |facts| facts.count);
        if self.closure == Closure::Lacing { count / 2 } else { count }
    }

    /// What it comes to where the hem takes `off` and the line of the body is `line`; nothing while nobody said how long the edge is.
    pub(super) fn on(
        &self,
        garment: &Garment,
        off: Length,
        line: Option<Length>,
        tape: Tape,
    ) -> Option<SpacingSums> {
        let change = self.change;
        let usual = usual(self.closure);
        let as_usual = |said: Option<Measure>, usual: Taught| {
            tape.round(said.map_or_else(|| usual.on(tape), |m| m.length))
        };
        let edge = tape.round(change.edge?.length);
        let (first, last) = (as_usual(change.first, usual.first), as_usual(change.last, usual.last));
        let there = self.there(garment);
        let before = match there {
            2.. if edge - last > first => even(first, edge - last, i64::from(there) - 1),
            _ => Vec::new(),
        };
        let mut sums = SpacingSums {
            edge,
            off,
            first,
            last,
            line,
            before: before.iter().map(|place| tape.round(*place)).collect(),
            places: Err(Unspaced::NoRoom),
            widest: tape.round(usual.widest.on(tape)),
        };
        sums.places = self.places(&sums, there, &usual, tape);
        Some(sums)
    }

    fn places(
        &self,
        sums: &SpacingSums,
        there: u8,
        usual: &Usual,
        tape: Tape,
    ) -> Result<Vec<Length>, Unspaced> {
        let (change, run, first) = (self.change, sums.run(), sums.first);
        let (closest, lowest) = (tape.round(usual.closest.on(tape)), sums.new_edge() - sums.last);
        if change.how == Spaced::Kept {
            // One that stays has to clear the new edge as it has to clear the next.
            let stays = |place: &Length| *place + closest <= sums.new_edge();
            let kept: Vec<Length> = sums.before.iter().copied().filter(stays).collect();
            return if kept.is_empty() { Err(Unspaced::NoRoom) } else { Ok(kept) };
        }
        if run.is_negative() {
            return Err(Unspaced::NoRoom);
        }
        // By their number, else by how far apart they are wanted, else as many as there are.
        let n = match (change.count, change.apart) {
            (None, Some(apart)) => gaps(run, apart.length),
            (None, None) if there == 0 => gaps(run, usual.apart.on(tape)),
            (count, _) => i64::from(count.unwrap_or(there)) - 1,
        };
        let pitch = match n {
            0 => run,
            n => run.fraction(1, n),
        };
        let too_close = |apart: Length| {
            let most = (run.nm() / closest.nm()).clamp(0, i64::from(MOST) - 1) as u8 + 1;
            Err(Unspaced::TooClose { apart: tape.round(apart), closest, most })
        };
        if n > 0 && (pitch < closest || n >= i64::from(MOST)) {
            return too_close(pitch);
        }
        let line = || match sums.line.ok_or(Unspaced::NoLine)? {
            line if line <= first || line > lowest => Err(Unspaced::LineOutside(line)),
            line => Ok(line),
        };
        let exact = match change.how {
            Spaced::Evenly if n == 0 => vec![first],
            Spaced::Evenly | Spaced::Kept => even(first, lowest, n),
            Spaced::OnTheLine => {
                let line = line()?;
                let above = gaps(line - first, pitch.max(closest));
                match (line - first).fraction(1, above) {
                    apart if apart < closest => return too_close(apart),
                    _ => onward(first, line, lowest, above),
                }
            }
            Spaced::Straddling => {
                let pitch = change.apart.map_or(pitch, |m| m.length);
                straddling(first, lowest, line()?, pitch.max(closest))
            }
        };
        match exact.is_empty() {
            true => Err(Unspaced::NoRoom),
            false => Ok(exact.into_iter().map(|place| tape.round(place)).collect()),
        }
    }
}

impl Drawn for SpacedFastenings<'_> {
    fn is_altered(&self) -> bool {
        self.change.edge.is_some()
    }

    /// Nothing is taken off.
    fn takes(&self, _: &Garment, _: Level, _: Length, _: &[GarmentSide], _: Tape) -> Vec<Term> {
        Vec::new()
    }
}

/// All fastenings that were entered.
///
/// # Errors
/// Each with the number of its change and the field that is wrong.
pub(crate) fn draw<'a>(
    on: On<'a>,
    changes: &[(usize, &'a SpacingChange)],
) -> Result<Vec<SpacedFastenings<'a>>, Wrongs> {
    let (mut drawn, mut faults) = (Vec::new(), Vec::new());
    for &(number, change) in changes {
        let mut fault = |field: &str, wrong| faults.push((number, field.to_owned(), wrong));
        let Some(closure) = fastened_by(on.garment, change.at) else {
            fault("at", Wrong::NothingToSpace { at: change.at });
            continue;
        };
        for (field, length) in [("edge", change.edge), ("apart", change.apart), ("line", change.line)] {
            if let Some(found) = length.filter(|m| m.length <= Length::ZERO) {
                fault(field, Wrong::NotPositive { found });
            }
        }
        for (field, length) in [("first", change.first), ("last", change.last)] {
            if let Some(found) = length.filter(|m| m.length.is_negative()) {
                fault(field, Wrong::Negative { found });
            }
        }
        if change.count.is_some_and(|count| count == 0 || count > MOST) {
            fault("count", Wrong::NotACount { most: usize::from(MOST) });
        }
        drawn.push(SpacedFastenings { change, closure });
    }
    if faults.is_empty() { Ok(drawn) } else { Err(faults) }
}

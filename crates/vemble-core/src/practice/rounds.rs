//! How each exercise is made: a garment, what was read on it, what the core makes of that, and the answers that the slip would give.

use crate::body::Wearer;
use crate::change::dart::DartChange;
use crate::change::hem::{Cutting, HemChange};
use crate::change::seam::SeamChange;
use crate::change::{Change, DrawnChange, Input};
use crate::document::{Document, State};
use crate::fitting::{GarmentSide, How, Reading, WearerSide, Worn};
use crate::garment::{Beginning, Dart, Garment, HemEdge, HemTurn, Kind, Seam, begin, cloth_named};
use crate::judge::Subject;
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use crate::solve::{Solved, drawn_on, solve};
use crate::try_on::TryOn;
use crate::work::{Schools, Slip};
use uuid::Uuid;

/// An exercise with its answer.
pub(super) struct Made {
    pub question: String,
    pub options: Vec<String>,
    pub right: usize,
    pub explains: String,
}

/// Numbers that look like chance and are the same every time (Steele, Lea and Flood 2014).
pub(super) struct Numbers(u64);

impl Numbers {
    pub const fn of(number: u32) -> Self {
        Self(number as u64)
    }

    const fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        z ^ (z >> 31)
    }

    /// Below a bound; nought where there is no room.
    pub const fn below(&mut self, bound: u32) -> u32 {
        if bound == 0 { 0 } else { (self.next() % bound as u64) as u32 }
    }

    fn of_these<T: Copy>(&mut self, these: &[T]) -> T {
        these[self.below(these.len() as u32) as usize]
    }

    /// A length between two, in mm, at a mark of the tape.
    fn length(&mut self, from: u32, to: u32, tape: Tape) -> Length {
        tape.round(Length::from_mm(i64::from(from + self.below(to - from + 1))))
    }
}

pub(super) fn made(slip: Slip, number: u32, tape: Tape) -> Made {
    let mut numbers = Numbers::of(number);
    match slip {
        Slip::Halving => halving(&mut numbers, tape),
        Slip::Gap => gap(&mut numbers, tape),
        Slip::Darts => darts(&mut numbers, tape),
        Slip::InsideOut => inside_out(&mut numbers),
        Slip::Taper => taper(&mut numbers, tape),
        Slip::HemCut => hem_cut(&mut numbers, tape),
    }
}

/// A body by proportion.
pub(super) fn nobody() -> Wearer {
    Wearer { name: "somebody".into(), ..Wearer::default() }
}

/// A garment of a kind and a cloth, as it usually is on a body by proportion.
pub(super) fn garment(kind: Kind, cloth: &str) -> Option<Garment> {
    let cloth = cloth_named(cloth)?;
    Some(begin(Beginning { name: "practice".into(), kind, toile: false, wearer: nobody(), cloth }))
}

fn document(garment: &Garment, changes: Vec<Change>) -> Document {
    let day = jiff::civil::date(2026, 1, 1);
    let try_on = TryOn { changes, ..TryOn::on(Uuid::nil(), day) };
    Document::of(nobody(), State::first(Uuid::nil(), garment.clone()), vec![try_on])
}

pub(super) fn solved(garment: &Garment, changes: Vec<Change>, tape: Tape) -> Option<Solved> {
    solve(&document(garment, changes), tape).ok()
}

pub(super) const fn measured(length: Length, tape: Tape) -> Measure {
    tape.figure(length).measure()
}

/// Both sides pinned alike.
pub(super) fn pins(station: Length, amount: Length, how: How, tape: Tape) -> Vec<Reading> {
    let pin = |side: GarmentSide| Reading {
        id: None,
        side,
        station: measured(station, tape),
        amount: measured(amount, tape),
        how,
    };
    GarmentSide::BOTH.map(pin).into()
}

/// Puts the right figure among those that slips would give, four in all, in an order of its own.
fn asked(
    question: String,
    right: Length,
    slips: &[Length],
    explains: String,
    numbers: &mut Numbers,
    tape: Tape,
) -> Made {
    let mut lengths = vec![right];
    let more = (1..8).map(|n| right + tape.mark() * (5 * n));
    for other in slips.iter().copied().chain(more) {
        if lengths.len() < 4 && other > Length::ZERO && !lengths.contains(&tape.round(other)) {
            lengths.push(tape.round(other));
        }
    }
    let mut options = Vec::new();
    while !lengths.is_empty() {
        options.push(lengths.remove(numbers.below(lengths.len() as u32) as usize));
    }
    let at = options.iter().position(|option| *option == right).unwrap_or_default();
    Made {
        question,
        options: options.into_iter().map(|length| tape.show(length)).collect(),
        right: at,
        explains,
    }
}

/// Nothing can be asked: says so. No number leads here; a test holds that.
fn nothing() -> Made {
    Made { question: String::new(), options: Vec::new(), right: 0, explains: String::new() }
}

/// A pin at the sides, and what it comes to all round.
fn halving(numbers: &mut Numbers, tape: Tape) -> Made {
    let (kind, seam, cloth) = numbers.of_these(&[
        (Kind::Skirt, Seam::SideSeam, "wool flannel"),
        (Kind::Dress, Seam::SideSeam, "cotton lawn"),
        (Kind::Shirt, Seam::SideSeam, "cotton lawn"),
    ]);
    let how = numbers.of_these(&[How::Fold, How::Whole]);
    let read = numbers.length(8, 24, tape);
    // A pinch is shared between two edges: an even number of marks.
    let read = if how == How::Whole { tape.round(read.fraction(1, 2)) * 2 } else { read };
    let found = garment(kind, cloth).or_else(|| garment(kind, kind.template().cloth)).and_then(|garment| {
        let station = garment.station_on(seam, Level::Waist)?;
        let readings = pins(station, read, how, tape);
        let change =
            SeamChange { readings, fairing: crate::fitting::Fairing::EveryPin, ..SeamChange::of(seam) };
        let solved = solved(&garment, vec![change.into()], tape)?;
        solved.try_ons[0].levels.iter().find(|level| level.level == Level::Waist).cloned()
    });
    let Some(level) = found else { return nothing() };
    let way = match how {
        How::Fold => "from the old seam to the pin, on folded cloth",
        How::Whole | How::FrontPanel | How::BackPanel | How::Gap => "as all that is pinched out",
    };
    let question = format!(
        "Both side seams of a {} are pinned at the waist. Each pin reads {} {way}. By how much does the waist get smaller altogether?",
        kind.template().name,
        tape.show(read)
    );
    let right = tape.round(level.off.measure().length);
    let slips = [read, read * 2, read * 4, read.fraction(1, 2), read * 8];
    asked(question, right, &slips, format!("Two side seams have four edges. {}.", level.sum), numbers, tape)
}

/// An opened seam, and what each edge gives.
fn gap(numbers: &mut Numbers, tape: Tape) -> Made {
    let read = tape.round(numbers.length(8, 30, tape).fraction(1, 2)) * 2;
    let seam = Seam::SideSeam;
    let found = garment(Kind::Skirt, Kind::Skirt.template().cloth).and_then(|garment| {
        let station = garment.station_on(seam, Level::Hip)?;
        let change = SeamChange { readings: pins(station, read, How::Gap, tape), ..SeamChange::of(seam) };
        let solved = solved(&garment, vec![change.into()], tape)?;
        let crate::shown::Shows::Seam(line) = &solved.try_ons[0].changes[0].shows else { return None };
        let pin = line.pins.first()?.clone();
        let level = solved.try_ons[0].levels.iter().find(|level| level.level == Level::Hip)?;
        Some((-tape.round(pin.front.measure().length), level.sum.clone()))
    });
    let Some((right, sum)) = found else { return nothing() };
    let question = format!(
        "A skirt is too tight. Both side seams are opened at the hip; on the body each gapes by {}. By how much is each edge let out?",
        tape.show(read)
    );
    let slips = [read, read * 2, read.fraction(1, 4), read * 4];
    asked(question, right, &slips, format!("Half of the gap is each edge’s. {sum}."), numbers, tape)
}

/// A pair of new darts, and what they take.
fn darts(numbers: &mut Numbers, tape: Tape) -> Made {
    let read = numbers.length(5, 15, tape);
    let found = garment(Kind::Dress, Kind::Dress.template().cloth).and_then(|garment| {
        let waist = garment.level(Level::Waist)?.station.length;
        let at = |mm: i64| tape.round(waist + Length::from_mm(mm));
        let point = at(140);
        let change = DartChange {
            readings: pins(point - at(0), read, How::Fold, tape),
            point: Some(measured(point, tape)),
            base: Some(measured(at(-130), tape)),
            from_side_seam: Some(measured(tape.round(Length::from_mm(90)), tape)),
            ..DartChange::of(Dart::BackFishEye)
        };
        let solved = solved(&garment, vec![change.into()], tape)?;
        solved.try_ons[0].levels.iter().find(|level| level.level == Level::Waist).cloned()
    });
    let Some(level) = found else { return nothing() };
    let question = format!(
        "A dress gets a pair of new darts behind, each folded {} deep at the waist. By how much does the waist get smaller altogether?",
        tape.show(read)
    );
    let right = tape.round(level.off.measure().length);
    let slips = [read, read * 2, read * 8, read * 3];
    asked(
        question,
        right,
        &slips,
        format!("A fold takes twice its depth, and there are two. {}.", level.sum),
        numbers,
        tape,
    )
}

/// Which side of the garment it is.
fn inside_out(numbers: &mut Numbers) -> Made {
    let worn = numbers.of_these(Worn::ALL);
    let seen = numbers.of_these(WearerSide::ALL);
    let side = worn.of_garment(seen);
    let question = format!(
        "A garment is pinned {}. A pin sits on the wearer’s {}. Which side of the garment is that?",
        worn.name(),
        seen.name()
    );
    let options: Vec<String> =
        GarmentSide::ALL.iter().map(|side| format!("the garment’s {}", side.name())).collect();
    let why = match worn {
        Worn::RightSideOut => "It hangs as it is worn",
        Worn::InsideOut => "It is turned: what is left on the wearer is right on the garment",
    };
    let right = GarmentSide::ALL.iter().position(|s| *s == side).unwrap_or_default();
    Made { question, options, right, explains: format!("{why}. So it is the garment’s {}.", side.name()) }
}

/// How far away a taper has to end.
fn taper(numbers: &mut Numbers, tape: Tape) -> Made {
    let cloth = numbers.of_these(&["cotton lawn", "denim", "jersey", "wool flannel", "rayon challis"]);
    let read = numbers.length(6, 18, tape);
    let found =
        garment(Kind::Trousers, cloth).or_else(|| garment(Kind::Trousers, Kind::Trousers.template().cloth));
    let Some(garment) = found else { return nothing() };
    let safe = garment.cloth.safe_run_out();
    let from = tape.round(Length::from_mm(200));
    let run = read * safe;
    let question = format!(
        "The last pin of a leg stands {} above the hem and takes {} off each edge; the cloth is {}. From there the line runs out into the old stitching. How far above the hem may it meet that at the earliest, so that nothing pokes?",
        tape.show(from),
        tape.show(read),
        garment.cloth.name
    );
    let explains = format!(
        "In such cloth a taper is {safe} times as long as it is deep: {safe} × {} = {}; {} + {} = {}.",
        tape.bare(read),
        tape.show(run),
        tape.bare(from),
        tape.bare(run),
        tape.show(from + run)
    );
    let slips = [run, from + read * (safe / 2), from + read * 2, from + run * 2];
    asked(question, from + run, &slips, explains, numbers, tape)
}

/// What is cut off a hem.
fn hem_cut(numbers: &mut Numbers, tape: Tape) -> Made {
    let turn_up = numbers.length(30, 50, tape);
    let off = numbers.length(10, 70, tape);
    let turn = numbers.of_these(&[HemTurn::Double, HemTurn::SingleFinished]);
    let found = garment(Kind::Skirt, Kind::Skirt.template().cloth).and_then(|mut garment| {
        let facts = garment.hems.iter_mut().find(|hem| hem.edge == HemEdge::Body)?;
        facts.turn_up = measured(turn_up, tape);
        let change = HemChange {
            off: Some(measured(off, tape)),
            turn: Some(turn),
            cutting: Cutting::AfterTryOn,
            ..HemChange::of(HemEdge::Body)
        };
        let document = document(&garment, vec![change.into()]);
        let solved = solve(&document, tape).ok()?;
        let crate::shown::Shows::Hem(shown) = &solved.try_ons[0].changes[0].shows else { return None };
        let sum = shown.edges.first()?.sum.clone();
        let state = document.newest()?;
        let drawn = drawn_on(&state.garment, &document.wearer, &document.try_ons[0], Schools::default())?;
        let subject =
            Subject { changes: &drawn, ..Subject::as_it_is(&state.garment, &document.wearer, tape) };
        let hem = drawn.iter().find_map(|change| match change {
            DrawnChange::Hem(hem) => Some(hem),
            DrawnChange::Seam(_)
            | DrawnChange::Dart(_)
            | DrawnChange::Elastic(_)
            | DrawnChange::Armhole(_) => None,
            DrawnChange::Spacing(_) | DrawnChange::Gathers(_) | DrawnChange::Trunk(_) => None,
        })?;
        let sums = hem.sums(&subject);
        let first = sums.first()?;
        let cut = first.turn_up + first.off[0] - first.allowance;
        Some((cut, first.allowance, sum))
    });
    let Some((cut, allowance, sum)) = found else { return nothing() };
    let question = format!(
        "A skirt has {} of cloth turned up inside. It is to be {} shorter, and its new hem takes {}. How much is cut off from its raw edge, once the old hem is unpicked and pressed out?",
        tape.show(turn_up),
        tape.show(off),
        tape.show(allowance)
    );
    let slips = [off, off - allowance, off + turn_up, turn_up + off + allowance, off + allowance];
    if cut <= Length::ZERO {
        // The cloth is short: nothing is cut, whatever was read.
        let mut asked =
            asked(question, tape.mark(), &slips, format!("{}.", crate::told::capital(&sum)), numbers, tape);
        asked.options[asked.right] = "nothing: the cloth is too short for it".into();
        return asked;
    }
    asked(question, cut, &slips, format!("{}.", crate::told::capital(&sum)), numbers, tape)
}

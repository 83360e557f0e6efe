//! What can be wrong with a document that has the right shape, and where. What is told of it stands in `told/fault`.

use crate::body::BodyMeasurement;
use crate::fitting::GarmentSide;
use crate::garment::{HemEdge, Opening, Seam};
use crate::length::{Length, Measure};
use crate::place::Level;
use uuid::Uuid;

/// Something wrong at one place of a document.
#[derive(Clone, Debug, PartialEq)]
pub struct Fault {
    /// The place, as a JSON path: `try_ons[0].changes[0].seam.readings[2].station`.
    pub path: String,
    /// What is wrong there.
    pub wrong: Wrong,
}

/// What is wrong, and with what; [`Wrong::found`] and [`Wrong::expected`] tell it.
#[derive(Clone, Debug, PartialEq)]
#[expect(missing_docs, reason = "what each means is told in one place, `told/fault`")]
pub enum Wrong {
    Negative {
        found: Measure,
    },
    NotPositive {
        found: Measure,
    },
    NotLookedOver {
        seam: Seam,
    },
    Twice {
        what: &'static str,
    },
    /// By its key: `seam.outseam`.
    ChangeTwice {
        which: String,
    },
    /// Beyond the far end of a seam or dart, whose stations are measured from its datum.
    OffEnd {
        found: Measure,
        length: Length,
        datum: &'static str,
    },
    /// Beyond the near end.
    OffDatum {
        found: Measure,
        datum: &'static str,
    },
    /// Without a side where there is one of it.
    SameStation {
        found: Measure,
        side: Option<GarmentSide>,
        first: usize,
    },
    TooDeep {
        found: Measure,
        girth: Length,
    },
    EndAmongPins {
        found: Measure,
        pin: Length,
    },
    EndsCross {
        found: Measure,
    },
    NoPinInStretch {
        found: Measure,
    },
    StretchDisagrees {
        found: Measure,
        tolerance: Length,
    },
    LevelsOutOfOrder {
        level: Level,
        above: Level,
    },
    TooMany {
        what: &'static str,
        most: usize,
    },
    Blank,
    TooLong {
        most: usize,
    },
    NoFigure {
        what: BodyMeasurement,
    },
    NotInOnePass {
        seam: Seam,
        into: Seam,
        meets: Option<Seam>,
    },
    PinsOfItsOwn {
        seam: Seam,
    },
    NotAShare {
        percent: u32,
    },
    OffOtherSeam {
        station: Measure,
        seam: Seam,
    },
    DartLiesAcross {
        what: &'static str,
    },
    /// A level that nobody measured.
    NoLevel {
        /// Which.
        level: Level,
    },
    /// Its point beyond its other end.
    DartTurned {
        what: &'static str,
    },
    FoldHasNoPanels,
    NoPlaceForDart {
        what: &'static str,
    },
    AtThePoint {
        found: Measure,
    },
    AtTheLowerPoint {
        found: Measure,
    },
    ShallowerThanNought {
        found: Measure,
        depth: Length,
    },
    NoSuchHem {
        hem: HemEdge,
    },
    NotOfASleeve,
    NoSeamThere {
        what: &'static str,
    },
    AboveTheBody {
        found: Measure,
        height: Length,
    },
    LongerThan {
        found: Measure,
        length: Length,
    },
    MovesTooFar {
        found: Measure,
        most: Length,
    },
    NothingToSpace {
        at: Opening,
    },
    NothingToGather {
        what: &'static str,
    },
    NotACount {
        most: usize,
    },
    NotAHold {
        percent: u8,
    },
    NotOfABody {
        what: BodyMeasurement,
        found: Measure,
        least: Length,
        most: Length,
        height: Option<Length>,
    },
    NoState,
    NotMinutes {
        found: u32,
        most: u32,
    },
    NotADay {
        found: i8,
    },
    NotASum,
    /// A row of a chart that has not one figure for every size.
    NotOneEach {
        found: usize,
        sizes: usize,
    },
    /// A figure of a chart below that of the size before it.
    Falls {
        found: Measure,
        before: Measure,
    },
    /// Of a drawn piece.
    NotALine,
    TooFarOff,
    OffEdge,
    WiderThan {
        found: Measure,
        length: Length,
    },
    NotClosed {
        apart_mm: Option<f64>,
    },
    CrossesItself,
    NoTimeZone {
        found: String,
    },
    NoCurrency,
    /// Tasks that wait for each other.
    Circle {
        tasks: Vec<String>,
    },
    GateIsShut {
        gate: String,
    },
    NoWordWhy,
    NoSuchTask {
        task: String,
    },
    NoGate {
        task: String,
    },
    NotSewn,
    NotTheNewest,
    CutAway,
    OffTheLine {
        found: Measure,
    },
    NoSuchState {
        id: Uuid,
    },
    StateTwice {
        id: Uuid,
    },
}

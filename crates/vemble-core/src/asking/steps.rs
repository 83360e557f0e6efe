//! The steps of a try-on: each place of the body with the seams and darts that cross it, hems, moving about.

use super::{HemPlace, MarkThere, MovementAsked, PinPlace, PinSide, PinThere, Step};
use crate::body::{Posture, Wearer};
use crate::change::ChangeKey;
use crate::figure::spots;
use crate::fitting::{Around, FrontShare, GarmentSide, HemMark, Movement, Reading, WearerSide, Worn};
use crate::garment::{Dart, DartFacts, Garment, HemEdge, Seam};
use crate::judge::{EaseWord, Girth};
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use crate::shown::{edges_words, ways_to_measure};
use crate::try_on::TryOn;

/// Two stations no further apart than this are one place, on whichever tape they were read (half of what pins wobble).
const SAME_PLACE: Length = Length::from_mm(3);

/// From the point of a new dart to where its fold depth is read: a hand's length (teaching value: waist darts run 9 to 16 cm).
const NEW_DART: Length = Length::from_mm(150);

/// Seams by how often they carry a change, the usual first (teaching value: sides before the middle, the middle before
/// panels).
const USUAL_FIRST: [Seam; 12] = [
    Seam::SideSeam,
    Seam::Outseam,
    Seam::SleeveSeam,
    Seam::SeatSeam,
    Seam::CentreBack,
    Seam::Inseam,
    Seam::PrincessBack,
    Seam::PrincessFront,
    Seam::PanelBack,
    Seam::PanelFront,
    Seam::FrontRise,
    Seam::CentreFront,
];

pub(super) struct Asked<'a> {
    pub garment: &'a Garment,
    pub wearer: &'a Wearer,
    pub try_on: &'a TryOn,
    pub before: Option<&'a TryOn>,
    pub girths: &'a [Girth],
    pub tape: Tape,
}

impl Asked<'_> {
    /// The step that asks for the pins at a level. Nothing where no change crosses it.
    pub fn pins_at(&self, title: &str, level: Level) -> Option<Step> {
        let mut pins: Vec<PinPlace> = if level == Level::Shoulder {
            self.at_end_of(Seam::ShoulderSeam, level).into_iter().collect()
        } else {
            let known = USUAL_FIRST.into_iter().filter(|s| self.garment.seam(*s).is_some());
            known
                .filter_map(|seam| self.on_seam(seam, level, self.garment.station_on(seam, level)?))
                .collect()
        };
        pins.extend(self.darts_at(level));
        if pins.is_empty() {
            return None;
        }
        let (judged, mut hints) = self.judge(level);
        let settled = pins.iter().flat_map(|p| &p.sides).any(|s| s.pin.is_some() || s.left_out.is_some());
        let about_wearer = hint_of(self.wearer, level);
        let last = self.last_time(level, &pins);
        let suggested = judged || about_wearer.is_some() || last.is_some();
        hints.extend(about_wearer);
        hints.extend(last);
        Some(Step {
            key: format!("pins.{}", level.word()),
            title: title.into(),
            question: format!("What is pinned at the {}?", level.name()),
            hints,
            suggested,
            settled,
            pins,
            hem: Vec::new(),
            movements: Vec::new(),
        })
    }

    /// Darts at a level: those there are, those that are pinned, and a new pair where one is commonly set.
    fn darts_at(&self, level: Level) -> Vec<PinPlace> {
        // Where it is deepest: halfway between two points, else at the end away from its point.
        let deepest =
            |d: &DartFacts| d.length.length.fraction(1, if d.dart.has_two_points() { 2 } else { 1 });
        let there = self.garment.darts.iter().map(|d| (d.dart, deepest(d)));
        let mut darts: Vec<(Dart, Length)> = there.collect();
        let usual = if self.garment.goes_above_waist() { Dart::BackFishEye } else { Dart::BackWaist };
        let of_dart = |key| if let ChangeKey::Dart(dart) = key { Some(dart) } else { None };
        let pinned = self.try_on.changes.iter().filter_map(|change| of_dart(change.key()));
        for dart in pinned.chain([usual]) {
            if darts.iter().all(|known| known.0 != dart) {
                let first = self.readings(ChangeKey::Dart(dart)).first().map(|r| r.station.length);
                darts.push((dart, first.unwrap_or(NEW_DART)));
            }
        }
        let here = darts.into_iter().filter(|(dart, _)| level_of(*dart) == level);
        here.map(|(dart, length)| self.place(ChangeKey::Dart(dart), level, length, length)).collect()
    }

    /// What is pinned of a change.
    fn readings(&self, change: ChangeKey) -> &[Reading] {
        self.try_on.change(change).map_or(&[], |change| change.readings())
    }

    /// A place on a seam or dart, no further up than `most`.
    fn place(&self, change: ChangeKey, level: Level, station: Length, most: Length) -> PinPlace {
        // To the mark of the tape: somebody has to find it again.
        let station = Measure { length: self.tape.round(station).min(most), unit: self.tape.unit() };
        let left_out = |side| {
            let here = (change, side, level);
            let place = self.try_on.left_out.iter().find(|l| (l.change, l.side, l.level) == here);
            place.map(|l| l.why)
        };
        let pin = |side| self.there(change, side, station);
        PinPlace {
            change,
            name: change.name(self.garment),
            hows: ways_to_measure(change),
            may_be_left_out: change.may_be_left_out(),
            level,
            station,
            at: self.tape.figure(station.length),
            at_words: format!("{} from {}", self.tape.show(station.length), change.from_words()),
            sides: self.sides(change.is_single(), pin, left_out),
        }
    }

    /// The step that asks about the armholes. Nothing where the garment has none.
    pub fn armholes(&self) -> Option<Step> {
        let seam = Seam::ArmholeSeam;
        let pins = vec![self.on_seam(seam, Level::Bust, Length::ZERO)?];
        Some(Step {
            key: "pins.armhole".into(),
            title: "Armholes".into(),
            question: "Is the armhole pinned under the arm?".into(),
            hints: vec!["Arms down first, then lifted: it should not cut in, nor drag the body up.".into()],
            suggested: false,
            settled: pins[0].sides.iter().any(|s| s.pin.is_some() || s.left_out.is_some()),
            pins,
            hem: Vec::new(),
            movements: Vec::new(),
        })
    }

    fn at_end_of(&self, seam: Seam, level: Level) -> Option<PinPlace> {
        self.on_seam(seam, level, self.garment.seam(seam)?.end())
    }

    fn on_seam(&self, seam: Seam, level: Level, station: Length) -> Option<PinPlace> {
        let length = self.garment.seam(seam)?.end();
        let is_on_it = !station.is_negative() && station <= length;
        is_on_it.then(|| self.place(ChangeKey::Seam(seam), level, station, length))
    }

    /// One or both sides, the wearer's left first: the helper looks at the wearer.
    fn sides(
        &self,
        is_single: bool,
        pin: impl Fn(GarmentSide) -> Option<PinThere>,
        left_out: impl Fn(GarmentSide) -> Option<crate::try_on::Why>,
    ) -> Vec<PinSide> {
        let sides = [WearerSide::Left, WearerSide::Right].map(|s| (s, self.try_on.worn.of_garment(s)));
        let wanted = sides.into_iter().filter(|(_, side)| !is_single || *side == GarmentSide::Left);
        wanted
            .map(|(wearer_side, side)| PinSide {
                side,
                wearer_side,
                words: if is_single {
                    "in the middle".into()
                } else {
                    self.try_on.put_on().in_both_words(side)
                },
                seen_words: self.try_on.pinned_by.seen_words(wearer_side),
                stored_words: format!("garment’s {}", side.name()),
                pin: pin(side),
                left_out: left_out(side),
                spot: None,
            })
            .collect()
    }

    fn there(&self, change: ChangeKey, side: GarmentSide, station: Measure) -> Option<PinThere> {
        let is_here = |r: &&Reading| (r.station.length - station.length).abs() <= SAME_PLACE;
        let reading = self.readings(change).iter().find(|r| r.side == side && is_here(r))?;
        let edges = reading.edges(FrontShare::default());
        Some(PinThere {
            id: reading.id,
            read: self.tape.figure(reading.amount.length),
            edges: edges_words(edges, change.edges(), self.tape),
            whole: self.tape.figure(edges.whole().0),
        })
    }

    /// How its ease is now: a reason to look here where it is not as usual.
    fn judge(&self, level: Level) -> (bool, Vec<String>) {
        let nothing = (false, Vec::new());
        let Some(girth) = self.girths.iter().find(|g| g.level.level == level) else { return nothing };
        let (Some(ease), Some(wanted), Some([now, _])) = (girth.ease_before(), girth.wanted, girth.words())
        else {
            return nothing;
        };
        let word = match now {
            EaseWord::TooTight => "too tight to move in",
            EaseWord::Usual => return nothing,
            EaseWord::Close | EaseWord::Roomy | EaseWord::Loose => now.name(),
        };
        let tape = self.tape;
        let usual = format!("usual is {} to {}", tape.bare(wanted.usual_from), tape.show(wanted.usual_to));
        let kind = if girth.level.assumed { ", by a width nobody measured" } else { "" };
        (
            matches!(now, EaseWord::TooTight | EaseWord::Loose),
            vec![format!("{} of ease altogether now{kind}: {word}; {usual}.", tape.show(ease))],
        )
    }

    /// What was pinned here at the try-on before.
    fn last_time(&self, level: Level, pins: &[PinPlace]) -> Option<String> {
        let before = self.before?;
        let at = |place: &PinPlace| {
            let change = before.change(place.change)?;
            let near = Length::from_mm(20);
            let here = |r: &&Reading| (r.station.length - place.station.length).abs() <= near;
            let most = change.readings().iter().filter(here).max_by_key(|r| r.amount.length)?;
            Some(format!("{}, {}", self.tape.show(most.amount.length), place.name))
        };
        let said: Vec<String> = pins.iter().filter_map(at).collect();
        (!said.is_empty()).then(|| format!("Last time at the {}: {}.", level.name(), said.join("; ")))
    }

    pub fn hem(&self, edge: HemEdge) -> Step {
        use Around::{Back, Front, Inside, Side};
        let [l, r] = [WearerSide::Left, WearerSide::Right].map(|s| Some(self.try_on.worn.of_garment(s)));
        let places: &[(Around, Option<GarmentSide>)] = match edge {
            HemEdge::Body => &[(Front, None), (Side, l), (Back, None), (Side, r)],
            HemEdge::Leg => &[(Side, l), (Inside, l), (Side, r), (Inside, r)],
            HemEdge::Sleeve => &[(Side, l), (Side, r)],
        };
        let hem: Vec<HemPlace> = places
            .iter()
            .map(|&(around, side)| {
                let here = |m: &&HemMark| (m.edge, m.side, m.around) == (edge, side, around);
                let mark = self.try_on.hem_marks.iter().find(here);
                let place = match edge {
                    HemEdge::Sleeve => "",
                    HemEdge::Body | HemEdge::Leg => around.name(),
                };
                let words = match side {
                    Some(side) => [place, &self.try_on.put_on().in_both_words(side)]
                        .iter()
                        .filter(|w| !w.is_empty())
                        .copied()
                        .collect::<Vec<_>>()
                        .join(", "),
                    None => place.to_owned(),
                };
                HemPlace {
                    edge,
                    side,
                    around,
                    words,
                    is_read_upright: edge != HemEdge::Sleeve,
                    mark: mark.map(|m| self.mark(m)),
                }
            })
            .collect();
        let mut hints = Vec::new();
        if edge != HemEdge::Sleeve {
            hints.push("Mark it, stand up straight, and read it again: bending makes the front drop.".into());
        }
        if self.try_on.shoes.is_empty() && edge != HemEdge::Sleeve {
            hints.push("In the shoes it is worn with.".into());
        }
        Step {
            key: format!("hem.{}", edge.word()),
            title: match edge {
                HemEdge::Body => "Hem",
                HemEdge::Leg => "Leg hems",
                HemEdge::Sleeve => "Sleeve hems",
            }
            .into(),
            question: "How far is the new edge from the present one?".into(),
            hints,
            suggested: false,
            settled: hem.iter().any(|h| h.mark.is_some()),
            pins: Vec::new(),
            hem,
            movements: Vec::new(),
        }
    }

    fn mark(&self, mark: &HemMark) -> MarkThere {
        let figure = |m: Measure| self.tape.figure(m.length);
        let apart = mark.again.map(|again| (again.length - mark.amount.length).abs());
        MarkThere {
            id: mark.id,
            first: figure(mark.amount),
            again: mark.again.map(figure),
            apart: apart.filter(|a| *a > Length::ZERO).map(|a| self.tape.figure(a)),
        }
    }

    pub fn moving(&self) -> Step {
        let has_sleeves = self.garment.sleeve_length.is_some();
        let from_shoulders = self.garment.hangs_from_shoulders();
        let asked = Movement::ALL.iter().filter(|m| match m {
            Movement::Sit | Movement::Stride => self.garment.level(Level::Hip).is_some(),
            Movement::ReachForward | Movement::ArmsUp => from_shoulders,
            Movement::BendElbow => has_sleeves,
        });
        let movements: Vec<MovementAsked> = asked
            .map(|&movement| MovementAsked {
                movement,
                words: movement.name().into(),
                look: match movement {
                    Movement::Sit => "Hip, thigh and waist; unpin the seat and thigh first.",
                    Movement::ReachForward => "Across the back.",
                    Movement::ArmsUp => "Whether the body rides up.",
                    Movement::Stride => "Thigh and hem.",
                    Movement::BendElbow => "Upper arm and the length of the sleeve.",
                }
                .into(),
                went: self.try_on.movements.iter().find(|t| t.movement == movement).map(|t| t.went),
            })
            .collect();
        Step {
            key: "moving".into(),
            title: "Moving".into(),
            question: "How does it move?".into(),
            hints: vec!["Take out pins at seat and thigh before anybody sits.".into()],
            suggested: false,
            settled: movements.iter().any(|m| m.went.is_some()),
            pins: Vec::new(),
            hem: Vec::new(),
            movements,
        }
    }

    pub fn place_on_stand(&self, steps: &mut [Step]) {
        let places: Vec<_> = steps
            .iter()
            .flat_map(|step| &step.pins)
            .filter_map(|p| if let ChangeKey::Seam(seam) = p.change { Some((seam, p)) } else { None })
            // Where it is seen on the wearer, whichever way out the garment is.
            .flat_map(|(seam, p)| {
                let seen = |s: &PinSide| Worn::RightSideOut.of_garment(s.wearer_side);
                p.sides.iter().map(move |s| (seam, seen(s), p.station.length))
            })
            .collect();
        let mut found = spots(self.garment, self.wearer, &places).into_iter();
        for place in
            steps.iter_mut().flat_map(|s| &mut s.pins).filter(|p| matches!(p.change, ChangeKey::Seam(_)))
        {
            for side in &mut place.sides {
                side.spot = found.next().flatten();
            }
        }
    }
}

const fn level_of(dart: Dart) -> Level {
    match dart {
        Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => Level::Waist,
        Dart::FrontFishEye | Dart::BackFishEye => Level::Waist,
        Dart::Bust => Level::Bust,
        Dart::Shoulder => Level::Shoulder,
    }
}

/// What the wearer's standing notes say of a level.
fn hint_of(wearer: &Wearer, level: Level) -> Option<String> {
    use Posture as P;
    let speaks = |posture: &&Posture| match posture {
        P::LeftShoulderLower | P::RightShoulderLower | P::ForwardShoulder => level == Level::Shoulder,
        P::SwayBack | P::ShortWaist => level == Level::Waist,
        P::FullAbdomen => matches!(level, Level::Waist | Level::Hip),
        P::LeftLegLonger | P::RightLegLonger => level == Level::Hem,
    };
    let posture = wearer.posture.iter().find(speaks)?;
    let advice = if !posture.shows_on().is_empty() { ": pin each side for itself" } else { "" };
    Some(format!("{}: {}{advice}.", wearer.name, posture.name()))
}

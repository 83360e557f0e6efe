//! The stand: the garment on its wearer, from the front, from behind and from the side.

use super::detail::{Half, Look, seam_line};
use super::drape::Drape;
use super::drawing::{Drawing, Line, on_side};
use super::pose::Pose;
use super::spot::{part_of, share_of};
use super::{hundredths, polygon, svg};
use crate::alteration::AlteredDart;
use crate::body::{BodyMeasurement, Proportions};
use crate::check::{EaseWord, LevelResult, Subject, levels};
use crate::fitting::GarmentSide;
use crate::garment::{Garment, GarmentLevel, Level, Neckline, Run, Seam};
use crate::length::{Station, Tape};
use crate::line::AlteredSeam;
use kurbo::Point;
use serde::Serialize;
use utoipa::ToSchema;

/// The drawing of a garment on its wearer.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Stand {
    /// Width of each view in mm; x runs from minus half of it.
    pub width_mm: f64,
    /// Height of each view in mm, from the crown to the floor.
    pub height_mm: f64,
    /// Where the garment lies on the drawing, in mm from the top, with some room around it.
    pub garment_mm: [f64; 2],
    /// The cloth's colour.
    pub colour: String,
    /// Nobody measured the wearer: the figure is one by proportion.
    pub figure_is_assumed: bool,
    /// Front, back and side; none where too little of the garment is known to draw it.
    pub views: Vec<View>,
}

/// The side one looks at.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ViewSide {
    /// From the front: the garment's left is on the right of the drawing.
    Front,
    /// From the back.
    Back,
    /// From the wearer's left.
    Side,
}

/// One view.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct View {
    /// From where.
    pub view: ViewSide,
    /// The wearer's body, shape by shape.
    pub body: Vec<String>,
    /// The cloth's surfaces, back to front: sleeves, then trunk or legs.
    pub cloth: Vec<String>,
    /// Seams, darts, hems, closures, pockets.
    pub parts: Vec<Part>,
    /// Levels, from the top down.
    pub levels: Vec<StandLevel>,
    /// Where it is tight or loose, as it is.
    pub shades: Vec<Shade>,
}

/// A part that can be seen, and perhaps picked.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Part {
    /// What it is, in words: "outseam, garment's left".
    pub name: String,
    /// What it belongs to in the look-over: `seam.outseam`, `dart.bust`, `hem.leg`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub key: Option<String>,
    /// The seam it is, if it is one that pins are set along.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub seam: Option<Seam>,
    /// The garment's side, where it has one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<GarmentSide>,
    /// How it is drawn.
    pub look: Look,
    /// Where it lies.
    pub path: String,
}

/// A level across the drawing.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StandLevel {
    /// Which level.
    pub level: Level,
    /// Its height on the drawing, in mm from the top.
    pub y_mm: f64,
    /// Where the garment's edges are at this level, in mm.
    pub edges_mm: [f64; 2],
}

/// A band of the garment round a level, shaded by its ease: as much of a box as trunk or legs cover.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Shade {
    /// Round which level.
    pub level: Level,
    /// How its ease is, in a word.
    pub word: EaseWord,
    /// The box: left, top, width and height in mm.
    pub box_mm: [f64; 4],
}

/// What a try-on's lines move on the stand; all else stays as the stand shows it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StandChanges {
    /// Front and back, without the back where it is the front's mirror image; a seam at the side is seen edge-on from there,
    /// and nothing moves.
    pub views: Vec<ViewChanges>,
}

/// What moves in one view.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ViewChanges {
    /// From where.
    pub view: ViewSide,
    /// The trunk or the legs, the uppermost surface of cloth, as it will be.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub trunk: Option<String>,
    /// The stretches of seams that move.
    pub seams: Vec<MovedSeam>,
    /// Darts as they will be sewn.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub darts: Vec<String>,
    /// Where it will be tight or loose.
    pub shades: Vec<Shade>,
}

/// The stretch of a seam that moves, where it will be.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MovedSeam {
    /// Which seam.
    pub seam: Seam,
    /// The garment's side.
    pub side: GarmentSide,
    /// Where it will lie.
    pub path: String,
}

/// Draws `garment` as it is on its wearer.
pub fn stand(garment: &Garment) -> Stand {
    let garment = &*garment.with_levels_in_order();
    let levels = levels(&Subject::as_it_is(garment, Tape::default()));
    let body = Proportions::of(&garment.wearer);
    let height = body.height();
    let pose = Pose::of(body);
    let drape = Drape::new(garment, &pose);
    let colour = String::from(garment.cloth.colour.clone());
    let views = match &drape {
        Some(drape) => {
            let drawing = Drawing::new(drape, &[]);
            [ViewSide::Front, ViewSide::Back, ViewSide::Side].map(|v| drawing.view(v, &levels)).into()
        }
        None => Vec::new(),
    };
    let arms = 0.235 * height;
    let reach = drape.as_ref().map_or(arms, |d| {
        let sleeve = d.tip(GarmentSide::Left).and_then(|tip| d.sleeve(tip));
        let cuff = sleeve.map_or(arms, |limb| limb.at(limb.length(), 1.0).x);
        d.outer.range(d.base, d.top).1.max(cuff)
    });
    // A hand's breadth above the garment and below it.
    let extent = drape.as_ref().map_or([0.0, height], |d| {
        let top = d.shoulder.map_or(d.top, |s| s.neck.y + 5.0);
        [height - top - 9.0, height - d.base + 9.0]
    });
    let known = BodyMeasurement::ALL.iter().any(|what| garment.wearer.get(*what).is_some());
    Stand {
        width_mm: hundredths(20.0 * reach.max(arms) + 20.0),
        height_mm: hundredths(height * 10.0),
        garment_mm: extent.map(|h| hundredths(h.clamp(0.0, height) * 10.0)),
        colour,
        figure_is_assumed: !known,
        views,
    }
}

/// Draws what the lines of `seams` move on the stand of `garment` and the darts as they will be, shaded by `levels` as they will be.
pub fn stand_changes(
    garment: &Garment,
    seams: &[AlteredSeam<'_>],
    darts: &[AlteredDart<'_>],
    levels: &[LevelResult],
) -> StandChanges {
    let pose = Pose::of(Proportions::of(&garment.wearer));
    let Some(drape) = Drape::new(garment, &pose) else { return StandChanges { views: Vec::new() } };
    let drawing = Drawing::new(&drape, seams);
    let mirrored = darts.is_empty() && drawing.is_alike_from_behind(seams);
    let sides: &[_] = if mirrored { &[ViewSide::Front] } else { &[ViewSide::Front, ViewSide::Back] };
    let changed = |view: &ViewSide| drawing.changed(*view, seams, darts, levels);
    StandChanges { views: sides.iter().map(changed).collect() }
}

fn part(line: Line<'_>) -> Part {
    Part {
        name: match (line.seam, line.side) {
            (Some(_), Some(side)) => format!("{}, garment's {}", line.name, side.name()),
            _ => line.name,
        },
        key: line.key,
        seam: line.seam.map(|facts| facts.seam).filter(|seam| seam.run() != Run::Across),
        side: line.side,
        look: line.look,
        path: svg(&line.path),
    }
}

impl Drawing<'_> {
    fn view(&self, view: ViewSide, levels: &[LevelResult]) -> View {
        View {
            view,
            body: super::body::body(self.drape.pose, view, &self.canvas(view)).iter().map(svg).collect(),
            cloth: self.surfaces(view).iter().map(svg).collect(),
            parts: self.lines(view).into_iter().map(part).collect(),
            levels: self.levels(view),
            shades: if view == ViewSide::Side { Vec::new() } else { self.shades(view, levels) },
        }
    }

    pub(super) fn changed(
        &self,
        view: ViewSide,
        seams: &[AlteredSeam<'_>],
        darts: &[AlteredDart<'_>],
        levels: &[LevelResult],
    ) -> ViewChanges {
        ViewChanges {
            view,
            trunk: self.after.as_ref().map(|_| svg(&self.trunk(view))),
            seams: self.moved(view, seams),
            darts: darts.iter().flat_map(|d| self.dart(view, d)).collect(),
            shades: self.shades(view, levels),
        }
    }

    /// From behind it is the mirror image of the front: no neckline, and only seams that are seen from both sides.
    fn is_alike_from_behind(&self, seams: &[AlteredSeam<'_>]) -> bool {
        let at_the_side = |seam: &AlteredSeam<'_>| {
            matches!(seam.facts.seam, Seam::Outseam | Seam::SideSeam | Seam::Inseam | Seam::WaistSeam)
        };
        let garment = self.drape.garment;
        !garment.hangs_from_shoulders()
            && garment.neckline() == Neckline::None
            && seams.iter().all(at_the_side)
    }

    /// The stretches of `seams` that move, where they will be.
    fn moved(&self, view: ViewSide, seams: &[AlteredSeam<'_>]) -> Vec<MovedSeam> {
        let stretch = |seam: &AlteredSeam<'_>, side: GarmentSide| {
            let (from, to) = seam.line(side).span()?;
            let half = self.half(side);
            let path = if seam.facts.seam.run() == Run::Down {
                let up = |station: Station| self.drape.up_on(seam.facts.seam, station.0.cm());
                let outer = half.outer.cut(up(from), up(to));
                let inner = half.inner.map(|i| i.cut(up(from), up(to)));
                let stretch = Half { side, outer: &outer, inner: inner.as_ref() };
                seam_line(self.drape, seam.facts, view, stretch)?
            } else {
                let path = seam_line(self.drape, seam.facts, view, half)?;
                part_of(&path, share_of(seam.facts, from.0), share_of(seam.facts, to.0))
            };
            Some(svg(&self.canvas(view).place(&on_side(side, path))))
        };
        let mut moved = Vec::new();
        for seam in seams {
            let sides = &GarmentSide::BOTH[..if seam.facts.seam.is_single() { 1 } else { 2 }];
            moved.extend(sides.iter().filter_map(|&side| {
                Some(MovedSeam { seam: seam.facts.seam, side, path: stretch(seam, side)? })
            }));
        }
        moved
    }

    /// Both of a pair of darts, as deep as they will be; nothing of what runs across, or lies on the other face.
    fn dart(&self, view: ViewSide, dart: &AlteredDart<'_>) -> Vec<String> {
        let (Some(point), Some(base)) = (dart.point, dart.base) else { return Vec::new() };
        if dart.dart().is_in_front() != (view == ViewSide::Front) {
            return Vec::new();
        }
        let drape = self.drape;
        let height = |share: f64| drape.base + point.cm() + (base - point).cm() * share;
        let outer = |side| self.half(side).outer.at(height(0.5));
        let draw = |side: GarmentSide| {
            // Where nobody said, and none is there to be measured, it is drawn halfway to the side.
            let x = match (dart.pins.from_side_seam, dart.facts) {
                (Some(from), _) => outer(side) - from.length.cm(),
                (None, Some(facts)) => facts.from_centre.length.cm(),
                (None, None) => outer(side) * 0.5,
            };
            let fold = |way: f64| {
                let at = move |n: i32| {
                    let share = f64::from(n) / 12.0;
                    let station = Station(dart.length.fraction(i64::from(n), 12));
                    Point::new(x + way * dart.depth(side, station).cm() / 2.0, height(share))
                };
                (0..=12).map(at)
            };
            let points: Vec<Point> = fold(-1.0).chain(fold(1.0).rev()).collect();
            svg(&self.canvas(view).place(&on_side(side, polygon(&points))))
        };
        GarmentSide::BOTH.map(draw).into()
    }

    fn levels(&self, view: ViewSide) -> Vec<StandLevel> {
        let drape = self.drape;
        let mut levels = drape.garment.body_levels_up();
        levels.reverse();
        let level = |l: &GarmentLevel| {
            let h = drape.base + l.station.length.cm();
            let edges = match (view, l.level) {
                (_, Level::Neck | Level::Shoulder) => {
                    let x = drape
                        .shoulder
                        .map_or(0.0, |s| if l.level == Level::Neck { s.neck.x } else { s.tip.x });
                    [-x, x]
                }
                // The front lies on the left of the drawing.
                (ViewSide::Side, _) => [-drape.front.at(h), -drape.back.at(h)],
                _ => [-drape.outer.at(h), drape.outer.at(h)],
            };
            StandLevel {
                level: l.level,
                y_mm: hundredths((self.top - h) * 10.0),
                edges_mm: edges.map(|x| hundredths(x * 10.0)),
            }
        };
        levels
            .iter()
            .filter(|l| view != ViewSide::Side || !matches!(l.level, Level::Neck | Level::Shoulder))
            .map(level)
            .collect()
    }

    /// The garment in bands, each halfway to the next level, where its ease is judged.
    fn shades(&self, view: ViewSide, results: &[LevelResult]) -> Vec<Shade> {
        let (drape, canvas) = (self.drape, self.canvas(view));
        let levels: Vec<_> = drape
            .garment
            .body_levels_up()
            .into_iter()
            .filter(|l| !matches!(l.level, Level::Neck | Level::Shoulder))
            .map(|l| (l.level, drape.base + l.station.length.cm()))
            .collect();
        let width = self.half(GarmentSide::Left).outer.range(drape.base, drape.top).1;
        let width = width.max(self.half(GarmentSide::Right).outer.range(drape.base, drape.top).1);
        let mut shades = Vec::new();
        for (n, &(level, h)) in levels.iter().enumerate() {
            let low = n.checked_sub(1).map_or(h, |below| f64::midpoint(levels[below].1, h));
            let high = levels.get(n + 1).map_or(drape.top, |above| f64::midpoint(above.1, h));
            let word = |side: GarmentSide| {
                let of_level = results.iter().filter(|r| r.level == level);
                let mut of_side = of_level.filter(|r| r.of.sides().contains(&side) || r.of.is_of_both());
                Some(of_side.next()?.comfort.as_ref()?.after)
            };
            let mut shade = |word: Option<EaseWord>, left: f64, width: f64| {
                let of = [left, self.top - high, width, high - low].map(|cm| hundredths(cm * 10.0));
                shades.extend(word.map(|word| Shade { level, word, box_mm: of }));
            };
            match GarmentSide::BOTH.map(word) {
                [left, right] if left == right => shade(left, -width, 2.0 * width),
                halves => {
                    let [one, other] = if canvas.flipped { halves } else { [halves[1], halves[0]] };
                    shade(one, -width, width);
                    shade(other, 0.0, width);
                }
            }
        }
        shades
    }
}

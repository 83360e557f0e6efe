//! The stand: the garment on its wearer, from the front, from behind and from the side.

use super::drape::Drape;
use super::drawing::{Drawing, PartLine};
use super::pose::Pose;
use super::view::{Look, ViewSide};
use super::{hundredths, svg};
use crate::body::{BodyMeasurement, Proportions, Wearer};
use crate::change::{ChangeKey, DrawnChange, kinds};
use crate::fitting::GarmentSide;
use crate::garment::{Garment, GarmentLevel, Neckline};
use crate::judge::{EaseWord, Girth, Subject, girths};
use crate::length::Tape;
use crate::place::Level;
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
    /// The change that it could have, if pins are set along it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub change: Option<ChangeKey>,
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
    /// What the changes move, where it will be.
    pub moved: Vec<Moved>,
    /// Where it will be tight or loose.
    pub shades: Vec<Shade>,
}

/// What one change moves, where it will be.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Moved {
    /// Which change.
    pub change: ChangeKey,
    /// The garment's side.
    pub side: GarmentSide,
    /// How it is drawn.
    pub look: MovedLook,
    /// Where it will lie.
    pub path: String,
}

/// How something that moves is drawn.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MovedLook {
    /// New stitching: a solid line.
    Line,
    /// A fold that is sewn away: a closed shape.
    Fold,
}

/// What a kind of change owes: how it is seen on the stand.
pub(crate) trait OnStand {
    /// What it moves in one view.
    fn moved(&self, drawing: &Drawing<'_>, view: ViewSide) -> Vec<Moved>;

    /// It is seen from behind just as from the front, mirrored.
    fn is_alike_from_behind(&self) -> bool;
}

macro_rules! on_stand {
    ($($(#[$doc:meta])* $Kind:ident in $folder:ident: $Input:ident, $Key:ident, $Drawn:ident;)+) => {
        impl OnStand for DrawnChange<'_> {
            fn moved(&self, drawing: &Drawing<'_>, view: ViewSide) -> Vec<Moved> {
                match self { $(Self::$Kind(drawn) => drawn.moved(drawing, view),)+ }
            }

            fn is_alike_from_behind(&self) -> bool {
                match self { $(Self::$Kind(drawn) => drawn.is_alike_from_behind(),)+ }
            }
        }
    };
}
kinds!(on_stand);

/// Draws `garment` as it is on its wearer, tight and loose as it is judged on a tape.
pub fn stand(garment: &Garment, wearer: &Wearer, tape: Tape) -> Stand {
    let garment = &*garment.with_levels_in_order(wearer);
    let girths = girths(&Subject::as_it_is(garment, wearer, tape));
    let body = Proportions::of(wearer);
    let height = body.height();
    let pose = Pose::of(body);
    let drape = Drape::new(garment, &pose);
    let colour = String::from(garment.cloth.colour.clone());
    let views = match &drape {
        Some(drape) => {
            let drawing = Drawing::new(drape, &[]);
            [ViewSide::Front, ViewSide::Back, ViewSide::Side].map(|v| drawing.view(v, &girths)).into()
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
    let known = BodyMeasurement::ALL.iter().any(|what| wearer.get(*what).is_some());
    Stand {
        width_mm: hundredths(20.0 * reach.max(arms) + 20.0),
        height_mm: hundredths(height * 10.0),
        garment_mm: extent.map(|h| hundredths(h.clamp(0.0, height) * 10.0)),
        colour,
        figure_is_assumed: !known,
        views,
    }
}

/// Draws what `changes` move on the stand of `garment`, shaded by its girths as they will be.
pub(crate) fn stand_changes(
    garment: &Garment,
    wearer: &Wearer,
    changes: &[DrawnChange<'_>],
    girths: &[Girth],
) -> StandChanges {
    let pose = Pose::of(Proportions::of(wearer));
    let Some(drape) = Drape::new(garment, &pose) else { return StandChanges { views: Vec::new() } };
    let drawing = Drawing::new(&drape, changes);
    // From behind it is the mirror image of the front: no neckline, and only what is seen from both sides.
    let mirrored = !garment.hangs_from_shoulders()
        && garment.neckline() == Neckline::None
        && changes.iter().all(OnStand::is_alike_from_behind);
    let sides: &[_] = if mirrored { &[ViewSide::Front] } else { &[ViewSide::Front, ViewSide::Back] };
    StandChanges { views: sides.iter().map(|view| view_changes(&drawing, *view, changes, girths)).collect() }
}

/// What `changes` move in one view.
pub(super) fn view_changes(
    drawing: &Drawing<'_>,
    view: ViewSide,
    changes: &[DrawnChange<'_>],
    girths: &[Girth],
) -> ViewChanges {
    ViewChanges {
        view,
        trunk: drawing.after.as_ref().map(|_| svg(&drawing.trunk(view))),
        moved: changes.iter().flat_map(|change| change.moved(drawing, view)).collect(),
        shades: drawing.shades(view, girths),
    }
}

fn part(line: PartLine<'_>) -> Part {
    Part {
        name: match (line.seam, line.side) {
            (Some(_), Some(side)) => format!("{}, garment's {}", line.name, side.name()),
            _ => line.name,
        },
        key: line.key,
        change: line.change,
        side: line.side,
        look: line.look,
        path: svg(&line.path),
    }
}

impl Drawing<'_> {
    fn view(&self, view: ViewSide, girths: &[Girth]) -> View {
        View {
            view,
            body: super::body::body(self.drape.pose, view, &self.canvas(view)).iter().map(svg).collect(),
            cloth: self.surfaces(view).iter().map(svg).collect(),
            parts: self.lines(view).into_iter().map(part).collect(),
            levels: self.levels(view),
            shades: if view == ViewSide::Side { Vec::new() } else { self.shades(view, girths) },
        }
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
                (ViewSide::Front | ViewSide::Back, _) => [-drape.outer.at(h), drape.outer.at(h)],
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
    fn shades(&self, view: ViewSide, girths: &[Girth]) -> Vec<Shade> {
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
                let of_level = girths.iter().filter(|g| g.level.level == level);
                let mut of_side = of_level.filter(|g| g.of.sides().contains(&side) || g.of.is_of_both());
                Some(of_side.next()?.words()?[1])
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

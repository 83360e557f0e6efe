//! The stand: the garment on its wearer, from the front, from behind and from the side.

use super::detail::{Half, Look, details, seam_line};
use super::drape::Drape;
use super::pose::Pose;
use super::spot::{part_of, share_of};
use super::{Canvas, append, follow, hundredths, line, mirrored, side_limb, svg};
use crate::alteration::AlteredDart;
use crate::body::{BodyMeasurement, Proportions};
use crate::check::{EaseWord, LevelResult, Subject, levels};
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Level, Neckline, Run, Seam, SeamFacts, word};
use crate::length::{Station, Tape};
use crate::line::{AlteredSeam, Curve};
use kurbo::{BezPath, Point};
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
    /// Front and back; a seam at the side is seen edge-on from there, and nothing moves.
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

/// A garment by itself, for the rail.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Hanging {
    /// Left, top, width and height in mm.
    pub view: [f64; 4],
    /// The cloth's colour.
    pub colour: String,
    /// Surfaces, back to front.
    pub cloth: Vec<String>,
    /// Pieces on top: collar, pockets.
    pub pieces: Vec<String>,
    /// Seams and topstitching.
    pub seams: String,
    /// Edges and buttons.
    pub edges: String,
    /// It hangs from the shoulders, not from the waist.
    pub from_shoulders: bool,
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
    let views = [ViewSide::Front, ViewSide::Back].map(|view| ViewChanges {
        view,
        trunk: drawing.after.as_ref().map(|_| svg(&drawing.trunk(view))),
        seams: drawing.moved(view, seams),
        darts: darts.iter().flat_map(|d| drawing.dart(view, d)).collect(),
        shades: drawing.shades(view, levels),
    });
    StandChanges { views: views.into() }
}

/// Draws the front of `garment` by itself, as it is or as it will be; nothing where too little of it is known.
pub fn hanging(garment: &Garment, seams: &[AlteredSeam<'_>]) -> Option<Hanging> {
    let pose = Pose::of(Proportions::of(&garment.wearer));
    let drape = Drape::new(garment, &pose)?;
    let drawing = Drawing::new(&drape, seams);
    let shapes = drawing.surfaces(ViewSide::Front);
    let bounds = shapes.iter().map(BezPath::control_box).reduce(|a, b| a.union(b))?;
    let (mut pieces, mut seam_lines, mut edges) = (Vec::new(), BezPath::new(), BezPath::new());
    for line in drawing.lines(ViewSide::Front) {
        match line.look {
            Look::Piece => pieces.push(line.path),
            Look::Seam | Look::Topstitching => seam_lines.extend(line.path),
            Look::Edge | Look::Button => edges.extend(line.path),
        }
    }
    // To whole millimetres: a rail shows hundreds, and a thumb's width each.
    let coarse = |path: &BezPath| svg(&super::mapped(path, |p| Point::new(p.x.round(), p.y.round())));
    Some(Hanging {
        view: [bounds.x0, bounds.y0, bounds.width(), bounds.height()].map(f64::round),
        colour: String::from(garment.cloth.colour.clone()),
        cloth: shapes.iter().map(coarse).collect(),
        pieces: pieces.iter().map(coarse).collect(),
        seams: coarse(&seam_lines),
        edges: coarse(&edges),
        from_shoulders: garment.hangs_from_shoulders(),
    })
}

/// A draped garment, ready to be seen from any side: as it is, or as it will be where lines change it.
struct Drawing<'a> {
    drape: &'a Drape<'a>,
    /// Outer and inner edge of either half, where they change.
    after: Option<[(Curve, Option<Curve>); 2]>,
    top: f64,
}

/// A line of the garment, placed on the drawing.
struct Line<'a> {
    /// The seam it is, if it is one.
    seam: Option<&'a SeamFacts>,
    side: Option<GarmentSide>,
    name: String,
    key: Option<String>,
    look: Look,
    path: BezPath,
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

/// What was drawn as if on the left, on its own side.
fn on_side(side: GarmentSide, path: BezPath) -> BezPath {
    match side {
        GarmentSide::Left => path,
        GarmentSide::Right => mirrored(&path),
    }
}

impl<'a> Drawing<'a> {
    fn new(drape: &'a Drape<'a>, seams: &[AlteredSeam<'_>]) -> Self {
        let changed = seams.iter().any(|s| s.span().is_some());
        let after = changed.then(|| GarmentSide::BOTH.map(|side| drape.altered(seams, side)));
        Self { drape, after, top: drape.pose.body.height() }
    }

    const fn canvas(&self, view: ViewSide) -> Canvas {
        Canvas { top: self.top, flipped: !matches!(view, ViewSide::Front) }
    }

    fn half(&self, side: GarmentSide) -> Half<'_> {
        let (outer, inner) = match &self.after {
            Some(after) => (&after[side as usize].0, after[side as usize].1.as_ref()),
            None => (&self.drape.outer, self.drape.inner.as_ref()),
        };
        Half { side, outer, inner }
    }

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

    /// Cloth from one side, on the drawing: sleeves first, the trunk over them.
    fn surfaces(&self, view: ViewSide) -> Vec<BezPath> {
        let canvas = self.canvas(view);
        let drape = self.drape;
        if view == ViewSide::Side {
            let mut shapes = vec![canvas.place(&self.trunk_from_the_side())];
            if let Some(sleeve) = &drape.sleeve {
                let widest = sleeve.girths[0];
                let mut girths = vec![(0.0, widest.1 * 1.02)];
                girths.extend(sleeve.girths.iter().map(|&(t, girth)| (t / sleeve.length, girth)));
                if girths.last().is_some_and(|g| g.0 < 0.98) {
                    girths.push((1.0, sleeve.girths[sleeve.girths.len() - 1].1));
                }
                let path = side_limb(drape.pose, sleeve.length, &girths);
                shapes.push(canvas.place(&path));
            }
            return shapes;
        }
        let mut shapes = Vec::new();
        for side in GarmentSide::BOTH {
            if let Some(limb) = drape.tip(side).and_then(|tip| drape.sleeve(tip)) {
                let mut path = limb.outline();
                path.close_path();
                shapes.push(canvas.place(&on_side(side, path)));
            }
        }
        shapes.push(self.trunk(view));
        shapes
    }

    /// From the middle of the top over the shoulder, down the outer edge, along the hem, and back on the other side.
    fn trunk(&self, view: ViewSide) -> BezPath {
        let (drape, front) = (self.drape, view == ViewSide::Front);
        let half = |side: GarmentSide| {
            let Half { outer, inner, .. } = self.half(side);
            let mut path = match drape.shoulder {
                Some(shoulder) => {
                    let mut path = shoulder.neckline(drape.garment, front);
                    if let Some(tip) = drape.tip(side) {
                        append(&mut path, &drape.armhole(tip));
                    }
                    path
                }
                None if drape.garment.neckline() == Neckline::Strapless => {
                    let (x, h) = (outer.at(drape.top), drape.top);
                    let mut path = BezPath::new();
                    if front {
                        path.move_to((0.0, h - 1.5));
                        path.curve_to((x * 0.2, h + 3.4), (x * 0.75, h + 3.4), (x, h));
                    } else {
                        path.move_to((0.0, h - 2.0));
                        path.line_to((x, h));
                    }
                    path
                }
                None => line((0.0, drape.top - 0.05 * outer.at(drape.top)), (outer.at(drape.top), drape.top)),
            };
            follow(&mut path, outer, false);
            let low = drape.base;
            match inner {
                Some(inner) => {
                    path.line_to((inner.at(low), low));
                    follow(&mut path, inner, true);
                }
                None => {
                    let x = outer.at(low);
                    path.curve_to(
                        (x * 0.7, low - 0.04 * x),
                        (x * 0.35, low - 0.06 * x),
                        (0.0, low - 0.06 * x),
                    );
                }
            }
            path
        };
        let mut outline = half(GarmentSide::Left);
        append(&mut outline, &mirrored(&half(GarmentSide::Right)).reverse_subpaths());
        outline.close_path();
        self.canvas(view).place(&outline)
    }

    fn trunk_from_the_side(&self) -> BezPath {
        let drape = self.drape;
        let mut path = BezPath::new();
        follow(&mut path, &drape.back, true);
        if let (Some(shoulder), Some((_, top)), Some((_, pit))) =
            (drape.shoulder, drape.back.span(), drape.front.span())
        {
            let (nape, front) = (drape.back.at(top), drape.front.at(pit));
            let crest = f64::midpoint(nape, front);
            path.curve_to(
                (nape + 0.5, top + 0.8),
                (crest - 1.0, shoulder.neck.y + 0.8),
                (crest, shoulder.neck.y),
            );
            path.curve_to((crest + 1.0, shoulder.neck.y - 0.5), (front, pit + 2.0), (front, pit));
        }
        follow(&mut path, &drape.front, false);
        path.close_path();
        path
    }

    /// Every line of the garment on the drawing.
    fn lines(&self, view: ViewSide) -> Vec<Line<'_>> {
        let canvas = self.canvas(view);
        let mut lines = Vec::new();
        let sides = |once: bool| match once || view == ViewSide::Side {
            true => &GarmentSide::BOTH[..1],
            false => &GarmentSide::BOTH[..],
        };
        for facts in &self.drape.garment.seams {
            let seam = facts.seam;
            // What runs round the middle is drawn in two halves, and has no side.
            let has_side = !seam.is_single();
            for &side in sides(seam.is_single() && seam.run() != Run::Across) {
                let Some(path) = seam_line(self.drape, facts, view, self.half(side)) else { continue };
                lines.push(Line {
                    seam: Some(facts),
                    side: has_side.then_some(side),
                    name: facts.name().into(),
                    key: Some(format!("seam.{}", word(&seam))),
                    look: Look::Seam,
                    path: canvas.place(&on_side(side, path)),
                });
            }
        }
        for &side in sides(false) {
            for detail in details(self.drape, view, self.half(side)) {
                if detail.paired || side == GarmentSide::Left {
                    lines.push(Line {
                        seam: None,
                        side: detail.paired.then_some(side),
                        name: detail.name,
                        key: detail.key,
                        look: detail.look,
                        path: canvas.place(&on_side(side, detail.path)),
                    });
                }
            }
        }
        // Pieces lie on top of seams, and what is on pieces on top of them.
        lines.sort_by_key(|line| match line.look {
            Look::Seam => 0,
            Look::Piece => 1,
            Look::Topstitching | Look::Edge => 2,
            Look::Button => 3,
        });
        lines
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
            svg(&self.canvas(view).place(&on_side(side, super::polygon(&points))))
        };
        GarmentSide::BOTH.map(draw).into()
    }

    fn levels(&self, view: ViewSide) -> Vec<StandLevel> {
        let drape = self.drape;
        let mut levels = drape.garment.body_levels_up();
        levels.reverse();
        let level = |l: &crate::garment::GarmentLevel| {
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
            for side in GarmentSide::BOTH {
                let of_side = results.iter().filter(|r| r.level == level);
                let mut of_side = of_side.filter(|r| r.of.sides().contains(&side) || r.of.is_of_both());
                let Some(comfort) = of_side.next().and_then(|r| r.comfort.as_ref()) else { continue };
                let left = if (side == GarmentSide::Left) == canvas.flipped { -width } else { 0.0 };
                let of = [left, self.top - high, width, high - low];
                shades.push(Shade { level, word: comfort.after, box_mm: of.map(|cm| hundredths(cm * 10.0)) });
            }
        }
        shades
    }
}

//! The stand: the garment on its wearer, from the front, from behind and from the side.

use super::detail::{Half, Look, details, seam_line};
use super::drape::Drape;
use super::pose::Pose;
use super::{Canvas, append, follow, hundredths, line, mirrored, side_limb, svg};
use crate::body::{BodyMeasurement, Proportions};
use crate::check::{EaseWord, LevelResult};
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Level, Neckline, Round, Run, Seam, SeamFacts, word};
use crate::length::Station;
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
    /// The cloth, back to front: trunk or legs, sleeves.
    pub cloth: Vec<Shape>,
    /// Seams, darts, hems, closures, pockets.
    pub parts: Vec<Part>,
    /// Levels, from the top down.
    pub levels: Vec<StandLevel>,
    /// Where it is tight or loose, after the changes.
    pub shades: Vec<Shade>,
}

/// A surface of cloth.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Shape {
    /// Its outline as it is.
    pub path: String,
    /// Its outline after the changes, where it changes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub after: Option<String>,
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
    /// As it is.
    pub path: String,
    /// After the changes, only the stretch that moves.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub after: Option<String>,
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

/// A band of the garment round a level, shaded by its ease.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Shade {
    /// Round which level.
    pub level: Level,
    /// How its ease is, in a word.
    pub word: EaseWord,
    /// The band.
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

/// Draws `garment` with the lines of `seams` on its wearer, shaded by `levels`.
pub fn stand(garment: &Garment, seams: &[AlteredSeam<'_>], levels: &[LevelResult]) -> Stand {
    let body = Proportions::of(&garment.wearer);
    let height = body.height();
    let pose = Pose::of(body);
    let drape = Drape::new(garment, &pose);
    let colour = String::from(garment.cloth.colour.clone());
    let views = match &drape {
        Some(drape) => {
            let drawing = Drawing::new(drape, seams);
            [ViewSide::Front, ViewSide::Back, ViewSide::Side].map(|v| drawing.view(v, seams, levels)).into()
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

/// Draws the front of `garment` by itself, as it is or as it will be; nothing where too little of it is known.
pub fn hanging(garment: &Garment, seams: &[AlteredSeam<'_>]) -> Option<Hanging> {
    let pose = Pose::of(Proportions::of(&garment.wearer));
    let drape = Drape::new(garment, &pose)?;
    let drawing = Drawing::new(&drape, seams);
    let shapes = drawing.shapes(ViewSide::Front);
    let cloth: Vec<BezPath> = shapes.into_iter().map(|s| s.after.unwrap_or(s.path)).collect();
    let bounds = cloth.iter().map(BezPath::control_box).reduce(|a, b| a.union(b))?;
    let (mut pieces, mut seam_lines, mut edges) = (Vec::new(), BezPath::new(), BezPath::new());
    for line in drawing.lines(ViewSide::Front, true) {
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
        cloth: cloth.iter().map(coarse).collect(),
        pieces: pieces.iter().map(coarse).collect(),
        seams: coarse(&seam_lines),
        edges: coarse(&edges),
        from_shoulders: garment.hangs_from_shoulders(),
    })
}

/// A draped garment with its outlines before and after, ready to be seen from any side.
struct Drawing<'a> {
    drape: &'a Drape<'a>,
    after: Option<[(Curve, Option<Curve>); 2]>,
    top: f64,
}

/// A line of the garment, placed on the drawing.
struct Line<'a> {
    /// The seam it is, if it is one.
    seam: Option<&'a SeamFacts>,
    /// The half it was drawn for.
    half: GarmentSide,
    side: Option<GarmentSide>,
    name: String,
    key: Option<String>,
    look: Look,
    path: BezPath,
}

/// What was drawn as if on the left, on its own side.
fn on_side(side: GarmentSide, path: BezPath) -> BezPath {
    match side {
        GarmentSide::Left => path,
        GarmentSide::Right => mirrored(&path),
    }
}

/// A surface as a path, before and after.
struct Surface {
    path: BezPath,
    after: Option<BezPath>,
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

    fn now(&self, side: GarmentSide) -> Half<'_> {
        Half { side, outer: &self.drape.outer, inner: self.drape.inner.as_ref() }
    }

    fn afterwards(&self, side: GarmentSide) -> Half<'_> {
        match &self.after {
            Some(after) => {
                let (outer, inner) = &after[side as usize];
                Half { side, outer, inner: inner.as_ref() }
            }
            None => self.now(side),
        }
    }

    fn view(&self, view: ViewSide, seams: &[AlteredSeam<'_>], levels: &[LevelResult]) -> View {
        let canvas = self.canvas(view);
        let shapes = self.shapes(view).into_iter();
        View {
            view,
            body: super::body::body(self.drape.pose, view, &canvas).iter().map(svg).collect(),
            cloth: shapes.map(|s| Shape { path: svg(&s.path), after: s.after.as_ref().map(svg) }).collect(),
            parts: self.parts(view, seams),
            levels: self.levels(view),
            shades: if view == ViewSide::Side { Vec::new() } else { self.shades(&canvas, levels) },
        }
    }

    /// Cloth from one side, on the drawing: sleeves first, the trunk over them.
    fn shapes(&self, view: ViewSide) -> Vec<Surface> {
        let canvas = self.canvas(view);
        let drape = self.drape;
        if view == ViewSide::Side {
            let mut shapes = vec![Surface { path: canvas.place(&self.trunk_from_the_side()), after: None }];
            if let Some(sleeve) = &drape.sleeve {
                let widest = sleeve.girths[0];
                let mut girths = vec![(0.0, widest.1 * 1.02)];
                girths.extend(sleeve.girths.iter().map(|&(t, girth)| (t / sleeve.length, girth)));
                if girths.last().is_some_and(|g| g.0 < 0.98) {
                    girths.push((1.0, sleeve.girths[sleeve.girths.len() - 1].1));
                }
                let path = side_limb(drape.pose, sleeve.length, &girths);
                shapes.push(Surface { path: canvas.place(&path), after: None });
            }
            return shapes;
        }
        let mut shapes = Vec::new();
        for side in GarmentSide::BOTH {
            if let Some(limb) = drape.tip(side).and_then(|tip| drape.sleeve(tip)) {
                let mut path = limb.outline();
                path.close_path();
                let path = if side == GarmentSide::Left { path } else { mirrored(&path) };
                shapes.push(Surface { path: canvas.place(&path), after: None });
            }
        }
        let front = view == ViewSide::Front;
        let trunk = |halves: [Half<'_>; 2]| canvas.place(&self.trunk(halves, front));
        let after = self.after.as_ref().map(|_| trunk(GarmentSide::BOTH.map(|side| self.afterwards(side))));
        shapes.push(Surface { path: trunk(GarmentSide::BOTH.map(|side| self.now(side))), after });
        shapes
    }

    /// From the middle of the top over the shoulder, down the outer edge, along the hem, and back on the other side.
    fn trunk(&self, halves: [Half<'_>; 2], front: bool) -> BezPath {
        let drape = self.drape;
        let half = |side: GarmentSide| {
            let Half { outer, inner, .. } = halves[side as usize];
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
        outline
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

    /// Every line of the garment on the drawing; seams as they are, or as they will be.
    fn lines(&self, view: ViewSide, seams_after: bool) -> Vec<Line<'_>> {
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
                let half = if seams_after { self.afterwards(side) } else { self.now(side) };
                let Some(path) = seam_line(self.drape, facts, view, half) else { continue };
                lines.push(Line {
                    seam: Some(facts),
                    half: side,
                    side: has_side.then_some(side),
                    name: facts.name().into(),
                    key: Some(format!("seam.{}", word(&seam))),
                    look: Look::Seam,
                    path: canvas.place(&on_side(side, path)),
                });
            }
        }
        for &side in sides(false) {
            for detail in details(self.drape, view, self.afterwards(side)) {
                if detail.paired || side == GarmentSide::Left {
                    lines.push(Line {
                        seam: None,
                        half: side,
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

    fn parts(&self, view: ViewSide, seams: &[AlteredSeam<'_>]) -> Vec<Part> {
        let part = |line: Line<'_>| {
            let after = line.seam.and_then(|facts| self.altered_stretch(facts, line.half, view, seams));
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
                after,
            }
        };
        self.lines(view, false).into_iter().map(part).collect()
    }

    /// The stretch of a seam that moves, where it will be; a seam is seen edge-on from the side.
    fn altered_stretch(
        &self,
        facts: &SeamFacts,
        side: GarmentSide,
        view: ViewSide,
        seams: &[AlteredSeam<'_>],
    ) -> Option<String> {
        let altered = seams.iter().find(|s| s.facts.seam == facts.seam && view != ViewSide::Side)?;
        let (from, to) = altered.line(side).span()?;
        let up = |station: Station| self.drape.up_on(facts.seam, station.0.cm());
        let Half { outer, inner, .. } = self.afterwards(side);
        let (outer, inner) = (outer.cut(up(from), up(to)), inner.map(|i| i.cut(up(from), up(to))));
        let path = seam_line(self.drape, facts, view, Half { side, outer: &outer, inner: inner.as_ref() })?;
        Some(svg(&self.canvas(view).place(&on_side(side, path))))
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
    fn shades(&self, canvas: &Canvas, results: &[LevelResult]) -> Vec<Shade> {
        let drape = self.drape;
        let levels: Vec<_> = drape
            .garment
            .body_levels_up()
            .into_iter()
            .filter(|l| !matches!(l.level, Level::Neck | Level::Shoulder))
            .map(|l| (l.level, drape.base + l.station.length.cm()))
            .collect();
        let mut shades = Vec::new();
        for (n, &(level, h)) in levels.iter().enumerate() {
            let low = n.checked_sub(1).map_or(h, |below| f64::midpoint(levels[below].1, h));
            let high = levels.get(n + 1).map_or(drape.top, |above| f64::midpoint(above.1, h));
            for side in GarmentSide::BOTH {
                let of_side = results.iter().filter(|r| r.level == level);
                let mut of_side = of_side.filter(|r| r.of.sides().contains(&side) || r.of.is_of_both());
                let Some(comfort) = of_side.next().and_then(|r| r.comfort.as_ref()) else { continue };
                let Half { outer, inner, .. } = self.afterwards(side);
                let mut path = BezPath::new();
                follow(&mut path, &outer.cut(low, high), true);
                let middle =
                    inner.filter(|_| drape.garment.round(level) == Round::Leg).map(|i| i.cut(low, high));
                match middle.as_ref().and_then(Curve::span) {
                    Some((_, top)) => {
                        path.line_to((middle.as_ref().map_or(0.0, |m| m.at(top)), high));
                        follow(&mut path, &middle.unwrap_or_default(), false);
                    }
                    None => {
                        path.line_to((0.0, high));
                        path.line_to((0.0, low));
                    }
                }
                path.close_path();
                let path = if side == GarmentSide::Left { path } else { mirrored(&path) };
                shades.push(Shade { level, word: comfort.after, path: svg(&canvas.place(&path)) });
            }
        }
        shades
    }
}

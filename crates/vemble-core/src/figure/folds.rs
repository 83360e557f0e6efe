//! What the cloth says, drawn: folds, strains and edges that stand away, laid over a garment on its wearer at the place where they are seen.
//!
//! Where they lie follows from the garment's own lines and the wearer's own figure; how many folds there are, and how far apart, are
//! drawing values.

use super::drape::Drape;
use super::drawing::Drawing;
use super::pose::Pose;
use super::view::{Look, ViewSide};
use super::{Ink, Picture, Stroke, body, hundredths, line, mirrored, svg};
use crate::body::{Landmark, Proportions, Wearer};
use crate::fitting::{Face, GarmentSide, Sign, SignPlace};
use crate::garment::{Dart, Garment};
use crate::place::Level;
use kurbo::{BezPath, Point, Rect, Shape, Vec2};

/// A picture shows so much around what it is about, and is at least so wide: cm.
const AROUND: f64 = 9.0;
const WIDEST: f64 = 38.0;

/// A garment on its wearer where a sign is seen, with what the cloth does. Nothing where too little of the garment is known to draw it.
pub fn sign_picture(sign: Sign, garment: &Garment, wearer: &Wearer) -> Option<Picture> {
    let garment = &*garment.with_levels_in_order(wearer);
    let pose = Pose::of(Proportions::of(wearer));
    let drape = Drape::new(garment, &pose)?;
    let drawing = Drawing::new(&drape, &[]);
    let view = match sign.seen().2 {
        Face::Front => ViewSide::Front,
        Face::Back => ViewSide::Back,
        Face::Side => ViewSide::Side,
    };
    let canvas = drawing.canvas(view);
    let marks = Marks { drape: &drape, view };
    let folds: Vec<BezPath> = marks.of(sign).iter().map(|path| canvas.place(path)).collect();
    let about = folds.iter().map(Shape::bounding_box).reduce(|a, b| a.union(b))?;
    let mut strokes = Vec::new();
    let stroke = |ink: Ink, path: &BezPath| Stroke { ink, path: svg(path) };
    strokes.extend(body::body(&pose, view, &canvas).iter().map(|path| stroke(Ink::Body, path)));
    strokes.extend(drawing.surfaces(view).iter().map(|path| stroke(Ink::Cloth, path)));
    strokes.extend(drawing.lines(view).iter().map(|part| {
        let ink = match part.look {
            Look::Seam | Look::Topstitching => Ink::Stitching,
            Look::Edge | Look::Button | Look::Piece => Ink::Edge,
        };
        stroke(ink, &part.path)
    }));
    strokes.extend(folds.iter().map(|path| stroke(Ink::Fold, path)));
    Some(Picture { view: framed(about), strokes })
}

/// Where on the small body of a wearer a place lies, in mm of that picture.
pub fn place_spot(place: SignPlace, wearer: &Wearer) -> [f64; 2] {
    let body = Proportions::of(wearer);
    let arm = 0.135 * body.height();
    let (x, up) = match place {
        SignPlace::NeckAndShoulders => (0.0, body.up(Landmark::FrontNeck) - 1.0),
        SignPlace::Bust => (0.0, body.up(Landmark::Bust)),
        SignPlace::Sleeve => (arm, body.up(Landmark::UnderBust)),
        SignPlace::Waist => (0.0, body.up(Landmark::Waist)),
        SignPlace::Openings => (-arm, body.up(Landmark::Waist)),
        SignPlace::Seat => (0.0, body.up(Landmark::Hip)),
        SignPlace::Legs => (0.0, f64::midpoint(body.up(Landmark::Crotch), body.up(Landmark::Knee))),
        SignPlace::Edges => (0.0, body.up(Landmark::Calf)),
    };
    [x * 10.0, (body.height() - up) * 10.0].map(hundredths)
}

/// A square about the middle of something, in mm.
fn framed(about: Rect) -> [f64; 4] {
    let wide = (about.width().max(about.height()) + 20.0 * AROUND).max(10.0 * WIDEST);
    let middle = about.center();
    [middle.x - wide / 2.0, middle.y - wide / 2.0, wide, wide].map(hundredths)
}

/// Places on a garment that is worn, in cm; from the front or from behind on its left half.
struct Marks<'a> {
    drape: &'a Drape<'a>,
    view: ViewSide,
}

impl Marks<'_> {
    fn up(&self, level: Level) -> f64 {
        self.drape.up_at(level).or_else(|| self.drape.pose.body.up_at(level)).unwrap_or(self.drape.top)
    }

    fn tip(&self) -> Point {
        let outer = Point::new(self.drape.outer.at(self.drape.top), self.drape.top + 14.0);
        self.drape.tip(GarmentSide::Left).unwrap_or(outer)
    }

    fn neck(&self) -> Point {
        self.drape.shoulder.map_or_else(|| Point::new(6.0, self.tip().y + 3.0), |s| s.neck)
    }

    /// Height of the edge at the neck in the middle of what is seen.
    fn neckline(&self) -> f64 {
        let behind = self.view == ViewSide::Back;
        self.drape.shoulder.map_or(self.neck().y, |s| if behind { s.back } else { s.front })
    }

    fn half(&self, up: f64) -> f64 {
        self.drape.outer.at(up.clamp(self.drape.base, self.drape.top))
    }

    fn underarm(&self) -> Point {
        Point::new(self.half(self.drape.top), self.drape.top)
    }

    /// The bust point: half of the bust's quarter from the middle (drawing value).
    fn bust(&self) -> Point {
        let up = self.drape.pose.body.up(Landmark::Bust);
        Point::new(self.half(up) * 0.52, up)
    }

    /// Where the armhole lies halfway down, as it is drawn.
    fn armhole(&self) -> (Point, Point, Point) {
        let (tip, under) = (self.tip(), self.underarm());
        (tip, Point::new(tip.x - 1.7, f64::midpoint(tip.y, under.y)), under)
    }

    /// Across one sleeve: −1 its inner edge, 1 its outer. 0 at its widest place under the arm, 1 at its lower edge, negative up the cap.
    fn on_sleeve(&self, down: f64, across: f64) -> Point {
        let limb = self.drape.tip(GarmentSide::Left).and_then(|tip| self.drape.sleeve(tip));
        limb.map_or(self.tip(), |limb| {
            let run = if down < 0.0 { limb.widest() } else { limb.length() - limb.widest() };
            limb.at(limb.widest() + down * run, across)
        })
    }

    /// The middle of a leg, and half its width.
    fn leg(&self, up: f64) -> (f64, f64) {
        let (outer, inner) = (self.half(up), self.drape.inner.as_ref().map_or(0.0, |inner| inner.at(up)));
        (f64::midpoint(outer, inner), (outer - inner) / 2.0)
    }

    fn crotch(&self) -> f64 {
        self.drape
            .inner
            .as_ref()
            .and_then(crate::change::Curve::span)
            .map_or_else(|| self.up(Level::Thigh), |(_, to)| to)
    }

    /// How far a seam at the side lies before the middle, from the side.
    fn side_line(&self, up: f64) -> f64 {
        self.drape.pose.middle(up)
    }

    fn zip(&self) -> (f64, f64) {
        let from = if self.drape.shoulder.is_some() { self.neckline() } else { self.drape.top };
        (from, self.up(Level::Hip).max(from - 40.0))
    }

    fn of(&self, sign: Sign) -> Vec<BezPath> {
        let (tip, neck, bust) = (self.tip(), self.neck(), self.bust());
        let (waist, hip, low) = (self.up(Level::Waist), self.up(Level::Hip), self.drape.base);
        match sign {
            Sign::FoldsAcrossUpperBack => {
                let up = f64::midpoint(tip.y, self.drape.top);
                across(Point::new(0.0, up), tip.x * 0.82, 3, 2.6, -0.7)
            }
            Sign::FoldsFromNeckToTip => {
                let (from, to) = (neck + Vec2::new(0.6, -1.8), tip + Vec2::new(-1.6, -4.6));
                both(row(from, to, 3, Vec2::new(-0.7, -2.4), 0.9))
            }
            Sign::FoldsBelowBackNeck => {
                across(Point::new(0.0, self.neckline() - 2.4), neck.x * 1.1, 3, 1.8, 1.3)
            }
            Sign::NecklineGapes => {
                let from = Point::new(0.6, self.neckline());
                both(vec![bow(from, neck, 3.4), bow(from, neck, 2.2)])
            }
            Sign::ShoulderSeamBehind => self.shoulder_behind(),
            Sign::StrainFromBust => both(rays(bust, &[8.0, 100.0, 165.0, 200.0, 255.0, 320.0], 1.6, 7.5)),
            Sign::ArmholeGapesInFront | Sign::ArmholeGapesBehind => {
                let (top, middle, under) = self.armhole();
                let from = Point::new(f64::midpoint(top.x, middle.x), middle.y + 4.5);
                let to = Point::new(middle.x + 0.4, under.y + 2.0);
                both(vec![
                    bow(from, to, -2.2),
                    bow(from, to, 1.0),
                    line(middle - Vec2::new(1.0, 0.6), middle - Vec2::new(6.5, 2.6)),
                ])
            }
            Sign::DartAboveBustPoint => both(self.bust_dart(3.0, false)),
            Sign::DartBelowBustPoint => both(self.bust_dart(-3.6, false)),
            Sign::DartPokes => both(self.bust_dart(0.0, true)),
            Sign::BodyRisesWithArms => {
                let under = self.underarm();
                let mut all = row(
                    under + Vec2::new(-0.6, -1.5),
                    Point::new(under.x * 0.55, waist + 3.0),
                    3,
                    Vec2::new(-2.2, 0.0),
                    -1.4,
                );
                all.push(line(under + Vec2::new(0.3, -0.6), self.on_sleeve(0.12, -0.4)));
                both(all)
            }
            Sign::CapWrinkles => {
                let slants = [(-0.8, -0.2), (-0.5, 0.05), (0.85, 0.35), (0.6, 0.15)];
                both(
                    slants
                        .map(|(from, to)| line(self.on_sleeve(-0.5, from), self.on_sleeve(0.02, to)))
                        .into(),
                )
            }
            Sign::SleeveFoldsInFront | Sign::SleeveFoldsBehind => {
                let folds =
                    [0.1, 0.22, 0.34].map(|t| line(self.on_sleeve(t, -0.8), self.on_sleeve(t - 0.28, 0.6)));
                both(folds.into())
            }
            Sign::UpperArmPulls => {
                let pulls = [0.02, 0.1, 0.18];
                both(pulls.map(|t| bow(self.on_sleeve(t, -0.9), self.on_sleeve(t, 0.9), 0.7)).into())
            }
            Sign::SleeveTwists => {
                let points = [(-0.1, -0.7), (0.3, 0.0), (0.65, 0.45), (0.95, -0.3)];
                let twist = |by: f64| smooth(&points.map(|(t, across)| self.on_sleeve(t, across + by)));
                both(vec![twist(0.0), twist(0.4)])
            }
            Sign::PoolAboveWaist => {
                across(Point::new(0.0, waist + 2.2), self.half(waist) * 0.62, 4, 2.0, 1.5)
            }
            Sign::WaistSeamRidesUp => self.level_line(self.drape.pose.body.up(Landmark::Waist) + 3.5, 1.0),
            Sign::WaistSeamSinks => self.level_line(self.drape.pose.body.up(Landmark::Waist) - 3.5, -1.0),
            Sign::SideSeamForward => self.side_seam(5.0),
            Sign::SideSeamBack => self.side_seam(-5.0),
            Sign::WaistGapesBehind => {
                let (top, x) = (self.drape.top, self.half(self.drape.top) * 0.5);
                let (from, to) = (Point::new(-x, top), Point::new(x, top));
                vec![bow(from, to, -2.8), bow(from, to, -1.7), line((0.0, top - 1.0), (0.0, top - 8.0))]
            }
            Sign::WaistSlides => self.level_line(self.drape.top - 3.5, -1.0),
            Sign::WaistDigsIn => {
                let x = self.half(waist);
                let mut all = across(Point::new(0.0, waist), x, 2, 1.0, -0.4);
                let rolls = [waist + 2.8, waist - 3.8]
                    .map(|up| bow(Point::new(x * 0.55, up), Point::new(x * 1.0, up), 1.2));
                all.extend(both(rolls.into()));
                all
            }
            Sign::HipPulls => across(Point::new(0.0, hip), self.half(hip) * 0.92, 3, 2.4, -0.8),
            Sign::HipFolds => {
                let x = self.half(hip);
                both(
                    [0.5, 0.66, 0.82]
                        .map(|share| {
                            bow(Point::new(x * share, hip + 7.0), Point::new(x * share, hip - 9.0), 0.6)
                        })
                        .into(),
                )
            }
            Sign::CrotchWhiskers => {
                let from = Point::new(0.8, self.crotch() + 1.0);
                both(fan(from, &[20.0, 42.0, 64.0], 2.0, 11.0))
            }
            Sign::SmilesUnderSeat => {
                let up = self.crotch() - 1.0;
                let (middle, half) = self.leg(up - 2.0);
                let smile = |n: f64| {
                    bow(
                        Point::new(middle - half * 0.75, up - 2.4 * n),
                        Point::new(middle + half * 0.75, up - 2.4 * n),
                        -1.7,
                    )
                };
                both([0.0, 1.0, 2.0].map(smile).into())
            }
            Sign::LegTwists => {
                let up = |share: f64| low + (self.crotch() - low) * share;
                let at = |share: f64, across: f64| {
                    let (middle, half) = self.leg(up(share));
                    Point::new(middle + across * half, up(share))
                };
                let twist = |by: f64| {
                    smooth(&[at(0.85, by + 0.6), at(0.6, by + 0.35), at(0.3, by - 0.25), at(0.04, by - 0.6)])
                };
                both(vec![twist(0.0), twist(0.35)])
            }
            Sign::CreaseSwings => {
                let top = self.leg(hip.min(self.crotch() + 8.0));
                let below = self.leg(low + 2.0);
                both(vec![
                    line((top.0, self.crotch() + 8.0), (below.0 + below.1 * 0.7, low + 1.0)),
                    arrow(Point::new(below.0, low + 6.0), Vec2::new(below.1 * 0.6, 0.0)),
                ])
            }
            Sign::ThighPulls => {
                let up = self.crotch() - 4.0;
                let (middle, half) = self.leg(up);
                both(
                    (0..3)
                        .map(|n| up - 2.4 * f64::from(n))
                        .map(|up| {
                            bow(Point::new(middle - half * 0.9, up), Point::new(middle + half * 0.9, up), 0.7)
                        })
                        .collect(),
                )
            }
            Sign::PocketGapes => {
                let (from, to) = (
                    Point::new(self.half(hip + 11.0) * 0.72, hip + 11.0),
                    Point::new(self.half(hip - 2.0) * 0.97, hip - 2.0),
                );
                both(vec![bow(from, to, 1.2), bow(from, to, -2.2)])
            }
            Sign::ButtonsPull => {
                let mut all = Vec::new();
                for up in [bust.y + 3.5, bust.y - 4.0] {
                    let (from, to) = (Point::new(0.0, up + 2.6), Point::new(0.0, up - 2.6));
                    all.extend([bow(from, to, 1.5), bow(from, to, -1.5)]);
                    all.extend(both(vec![line((1.2, up + 3.6), (bust.x * 0.75, up + 1.4))]));
                }
                all
            }
            Sign::ZipBuckles => {
                let (from, to) = self.zip();
                let steps = 7;
                let at = |n: i32| from + (to - from) * f64::from(n) / f64::from(steps);
                let points: Vec<Point> =
                    (0..=steps).map(|n| Point::new(if n % 2 == 0 { -0.8 } else { 0.8 }, at(n))).collect();
                let mut all = vec![smooth(&points)];
                all.extend(both((1..steps).map(|n| line((1.6, at(n)), (4.2, at(n) + 0.8))).collect()));
                all
            }
            Sign::HemRisesInFront => self.hem_from_the_side(true),
            Sign::HemRisesBehind => self.hem_from_the_side(false),
            Sign::HemDipsAtSeam => {
                let x = self.half(low + 1.0);
                both(vec![smooth(&[
                    Point::new(x * 0.35, low),
                    Point::new(x * 0.7, low - 1.0),
                    Point::new(x * 0.97, low - 5.0),
                ])])
            }
            Sign::HemFlaresOnOneSide => {
                let x = self.half(low + 1.0);
                let flutes = [0.55, 0.75, 0.95].map(|share| {
                    bow(
                        Point::new(x * share * 0.86, low + 16.0),
                        Point::new(x * (share + 0.09), low - 0.6),
                        -0.9,
                    )
                });
                let mut all: Vec<BezPath> = flutes.into();
                all.push(line((x * 0.98, low + 9.0), (x * 1.16, low - 0.8)));
                all
            }
            Sign::LiningPulls => {
                let x = self.half(low + 1.0);
                let up = low + 4.0;
                let mut all = vec![smooth(&[-0.9, -0.6, -0.3, 0.0, 0.3, 0.6, 0.9].map(|s: f64| {
                    Point::new(x * s, up + if (s * 10.0).abs() as i32 % 6 == 0 { -0.7 } else { 0.7 })
                }))];
                all.extend(both(
                    [0.3, 0.7].map(|s| arrow(Point::new(x * s, low + 0.6), Vec2::new(0.0, 5.0))).into(),
                ));
                all
            }
            Sign::LiningShows => {
                let x = self.half(low + 1.0);
                let edge = |down: f64| {
                    smooth(&[
                        Point::new(-x * 0.94, low - down * 0.4),
                        Point::new(0.0, low - down),
                        Point::new(x * 0.94, low - down * 0.4),
                    ])
                };
                vec![edge(2.4), edge(3.4)]
            }
        }
    }

    /// A bust dart of this garment whose end lies so far above the bust point; with a bubble at its end.
    fn bust_dart(&self, above: f64, pokes: bool) -> Vec<BezPath> {
        let bust = self.bust();
        let length = self
            .drape
            .garment
            .darts
            .iter()
            .find(|facts| facts.dart == Dart::Bust)
            .map_or(9.0, |facts| facts.length.length.cm());
        let end = Point::new(bust.x + 2.5, bust.y + above);
        let from = Point::new((end.x + length).min(self.half(bust.y) - 0.4), end.y - 2.2);
        let mut all = vec![line(from + Vec2::new(0.0, 0.9), end), line(from - Vec2::new(0.0, 0.9), end)];
        all.extend(crossed(bust));
        if pokes {
            all.extend([1.1, 2.0].map(|r| kurbo::Circle::new(end - Vec2::new(0.6, 0.0), r).to_path(0.05)));
        }
        all
    }

    /// A seam round the middle where it lies, with the way that it went.
    fn level_line(&self, up: f64, way: f64) -> Vec<BezPath> {
        let x = self.half(up.min(self.drape.top));
        let mut all = vec![line((-x, up), (x, up))];
        all.extend(both(vec![arrow(Point::new(x * 0.5, up + 1.2 * way), Vec2::new(0.0, 3.4 * way))]));
        all
    }

    /// The side seam from the side, swinging so far forward at the hem.
    fn side_seam(&self, forward: f64) -> Vec<BezPath> {
        let (top, low) = (self.drape.top, self.drape.base.max(self.up(Level::Hip) - 34.0));
        let down = |share: f64| top + (low - top) * share;
        let at = |share: f64| Point::new(self.side_line(down(share)) + forward * share * share, down(share));
        vec![
            smooth(&[at(0.0), at(0.35), at(0.7), at(1.0)]),
            arrow(at(0.88) - Vec2::new(forward * 0.15, 0.0), Vec2::new(forward * 0.7, 0.0)),
        ]
    }

    /// A shoulder seam that lies behind the shoulder, from behind.
    fn shoulder_behind(&self) -> Vec<BezPath> {
        let (tip, neck) = (self.tip() - Vec2::new(0.4, 4.2), self.neck() - Vec2::new(0.0, 1.4));
        let middle = neck.midpoint(tip);
        both(vec![bow(neck, tip, 0.6), arrow(middle + Vec2::new(0.0, 3.4), Vec2::new(-0.4, -5.4))])
    }

    /// The edge from the side, rising in front or behind.
    fn hem_from_the_side(&self, in_front: bool) -> Vec<BezPath> {
        let low = self.drape.base;
        let (back, front) = (self.drape.back.at(low), self.drape.front.at(low));
        let rise = 5.0;
        let (behind, before) = if in_front { (0.0, rise) } else { (rise, 0.0) };
        let end = if in_front { front } else { back };
        vec![
            smooth(&[
                Point::new(back, low + behind),
                Point::new(f64::midpoint(back, front), low + rise * 0.3),
                Point::new(front, low + before),
            ]),
            arrow(Point::new(end, low + 0.4), Vec2::new(0.0, rise + 3.0)),
        ]
    }
}

/// The same on both halves.
fn both(paths: Vec<BezPath>) -> Vec<BezPath> {
    let other: Vec<BezPath> = paths.iter().map(mirrored).collect();
    paths.into_iter().chain(other).collect()
}

/// A line from here to there that bows so far to its left.
fn bow(from: Point, to: Point, by: f64) -> BezPath {
    let way = to - from;
    let aside = if way.hypot() > 0.0 { way.turn_90().normalize() * by } else { Vec2::ZERO };
    let mut path = BezPath::new();
    path.move_to(from);
    path.curve_to(from + way / 3.0 + aside * 1.33, to - way / 3.0 + aside * 1.33, to);
    path
}

/// So many lines across the middle, one below the other, each bowing so far down.
fn across(middle: Point, half: f64, count: u32, apart: f64, sag: f64) -> Vec<BezPath> {
    let first = f64::from(count - 1) / 2.0;
    let at = |n: u32| {
        let up = middle.y + (first - f64::from(n)) * apart;
        // Every other one is a little shorter: cloth folds into itself.
        let half = if n.is_multiple_of(2) { half } else { half * 0.86 };
        bow(Point::new(middle.x - half, up), Point::new(middle.x + half, up), -sag)
    };
    (0..count).map(at).collect()
}

/// So many lines side by side, from here to there and onwards.
fn row(from: Point, to: Point, count: u32, step: Vec2, by: f64) -> Vec<BezPath> {
    (0..count).map(|n| step * f64::from(n)).map(|step| bow(from + step, to + step, by)).collect()
}

/// Lines away from a place, at angles in degrees.
fn rays(from: Point, angles: &[f64], near: f64, far: f64) -> Vec<BezPath> {
    let ray = |angle: &f64| {
        let way = Vec2::from_angle(angle.to_radians());
        line(from + way * near, from + way * far)
    };
    angles.iter().map(ray).collect()
}

/// Rays that are shorter the steeper they are.
fn fan(from: Point, angles: &[f64], near: f64, far: f64) -> Vec<BezPath> {
    angles.iter().flat_map(|angle| rays(from, &[*angle], near, far * (1.2 - angle / 120.0))).collect()
}

fn smooth(points: &[Point]) -> BezPath {
    let mut path = BezPath::new();
    path.move_to(points[0]);
    super::smooth_through(&mut path, points);
    path
}

/// A small cross.
fn crossed(at: Point) -> [BezPath; 2] {
    [Vec2::new(0.8, 0.8), Vec2::new(0.8, -0.8)].map(|by| line(at - by, at + by))
}

/// Where something goes.
fn arrow(from: Point, way: Vec2) -> BezPath {
    let to = from + way;
    let back = way.normalize() * -1.9;
    let mut path = line(from, to);
    for turn in [0.5, -0.5_f64] {
        let wing =
            Vec2::new(back.x * turn.cos() - back.y * turn.sin(), back.x * turn.sin() + back.y * turn.cos());
        path.move_to(to);
        path.line_to(to + wing);
    }
    path
}

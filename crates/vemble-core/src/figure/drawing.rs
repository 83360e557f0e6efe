//! A draped garment from any side: its surfaces of cloth and every line on them.

use super::detail::{details, seam_line};
use super::drape::Drape;
use super::view::{Half, Look, ViewSide};
use super::{Canvas, append, follow, line, mirrored, side_limb};
use crate::change::seam::AlteredSeam;
use crate::change::{ChangeKey, Curve, Drawn, DrawnChange};
use crate::fitting::GarmentSide;
use crate::garment::{Neckline, SeamFacts};
use crate::judge::seams;
use kurbo::BezPath;

/// A draped garment, ready to be seen from any side: as it is, or as it will be where lines change it.
pub(crate) struct Drawing<'a> {
    pub(crate) drape: &'a Drape<'a>,
    /// Outer and inner edge of either half, where they change.
    pub(super) after: Option<[(Curve, Option<Curve>); 2]>,
    pub(super) top: f64,
}

/// A line of the garment, placed on the drawing.
pub(super) struct PartLine<'a> {
    /// The seam it is, if it is one.
    pub(super) seam: Option<&'a SeamFacts>,
    /// The change it could have, if pins are set along it.
    pub(super) change: Option<ChangeKey>,
    pub(super) side: Option<GarmentSide>,
    pub(super) name: String,
    pub(super) key: Option<String>,
    pub(super) look: Look,
    pub(super) path: BezPath,
}

/// What was drawn as if on the left, on its own side.
pub(crate) fn on_side(side: GarmentSide, path: BezPath) -> BezPath {
    match side {
        GarmentSide::Left => path,
        GarmentSide::Right => mirrored(&path),
    }
}

impl<'a> Drawing<'a> {
    pub(super) fn new(drape: &'a Drape<'a>, changes: &[DrawnChange<'_>]) -> Self {
        let seams: Vec<&AlteredSeam<'_>> = seams(changes).collect();
        let changed = seams.iter().any(|s| s.is_altered());
        let after = changed.then(|| {
            let left = drape.altered(&seams, GarmentSide::Left);
            let agree = seams.iter().all(|s| s.sides_agree());
            let right = if agree { left.clone() } else { drape.altered(&seams, GarmentSide::Right) };
            [left, right]
        });
        Self { drape, after, top: drape.pose.body.height() }
    }

    pub(crate) const fn canvas(&self, view: ViewSide) -> Canvas {
        Canvas { top: self.top, flipped: !matches!(view, ViewSide::Front) }
    }

    pub(crate) fn half(&self, side: GarmentSide) -> Half<'_> {
        let (outer, inner) = match &self.after {
            Some(after) => (&after[side as usize].0, after[side as usize].1.as_ref()),
            None => (&self.drape.outer, self.drape.inner.as_ref()),
        };
        Half { side, outer, inner }
    }

    /// Cloth from one side, on the drawing: sleeves first, the trunk over them.
    pub(super) fn surfaces(&self, view: ViewSide) -> Vec<BezPath> {
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
    pub(super) fn trunk(&self, view: ViewSide) -> BezPath {
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
        let alike = self.after.as_ref().is_none_or(|[left, right]| left == right)
            && drape.tip(GarmentSide::Left) == drape.tip(GarmentSide::Right);
        let other = if alike { mirrored(&outline) } else { mirrored(&half(GarmentSide::Right)) };
        append(&mut outline, &other.reverse_subpaths());
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
    pub(super) fn lines(&self, view: ViewSide) -> Vec<PartLine<'_>> {
        let canvas = self.canvas(view);
        let mut lines = Vec::new();
        let sides = |once: bool| match once || view == ViewSide::Side {
            true => &GarmentSide::BOTH[..1],
            false => &GarmentSide::BOTH[..],
        };
        for facts in &self.drape.garment.seams {
            let seam = facts.seam;
            // What runs round the middle is drawn in two halves.
            let has_side = seam.has_sides();
            for &side in sides(!has_side) {
                let Some(path) = seam_line(self.drape, facts, view, self.half(side)) else { continue };
                lines.push(PartLine {
                    seam: Some(facts),
                    change: Some(ChangeKey::Seam(seam)),
                    side: has_side.then_some(side),
                    name: facts.name().into(),
                    key: Some(format!("seam.{}", seam.word())),
                    look: Look::Seam,
                    path: canvas.place(&on_side(side, path)),
                });
            }
        }
        for &side in sides(false) {
            for detail in details(self.drape, view, self.half(side)) {
                if detail.paired || side == GarmentSide::Left {
                    lines.push(PartLine {
                        seam: None,
                        change: detail.change,
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
}

//! What is chalked, at true size: lines on paper that can be cut out and laid on the cloth. In mm, y down, as they lie beside each other.

use crate::change::ChangeKey;
use crate::figure::{Ink, Picture};
use crate::length::Measure;
use crate::shown::{Shows, SolvedChange, SolvedLine};
use kurbo::{Affine, BezPath, Line, ParamCurve, Point, Rect, Shape};

/// What a line of it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PaperInk {
    /// As it was sewn.
    Old,
    /// Where it will be sewn.
    New,
    /// Where it is cut.
    Cut,
    /// A mark to lay it by.
    Mark,
}

/// One strip or piece of paper.
#[derive(Clone, Debug, PartialEq)]
pub struct PaperSheet {
    /// What it is, and of which side: it is written on it.
    pub title: String,
    /// Its lines.
    pub lines: Vec<(PaperInk, BezPath)>,
    /// What is written beside its marks, and where.
    pub words: Vec<(Point, String)>,
    /// A piece line by line, by names that are read again: nothing of a strip.
    pub piece: Option<NamedPiece>,
}

/// A piece with its lines by name, for programs that read it.
#[derive(Clone, Debug, PartialEq)]
pub struct NamedPiece {
    /// What it is called.
    pub name: String,
    /// How many are cut.
    pub cut: u8,
    /// Its lines.
    pub lines: Vec<NamedLine>,
}

/// A line with its name.
#[derive(Clone, Debug, PartialEq)]
pub struct NamedLine {
    /// What it is called.
    pub name: String,
    /// The line.
    pub path: BezPath,
    /// What is cut outside of it, of an edge.
    pub allowance: Option<Measure>,
}

impl PaperSheet {
    /// The box of everything that is drawn on it.
    pub fn bounds(&self) -> Rect {
        self.lines.iter().map(|(_, path)| path.bounding_box()).reduce(|a, b| a.union(b)).unwrap_or_default()
    }
}

/// A mark lies across the old line every so many mm, and is so long to either side.
const MARK_EVERY: f64 = 50.0;
const MARK: f64 = 4.0;

/// The sheets of one change; none of a kind that has no line of its own shape.
pub fn sheets(change: &SolvedChange) -> Vec<PaperSheet> {
    match &change.shows {
        Shows::Seam(line) | Shows::Dart(line) => of_line(&change.name, line),
        Shows::Armhole(shown) => {
            let facings = shown.facings.iter().map(|facing| PaperSheet {
                title: format!("{}, {}", change.name, facing.name),
                lines: vec![(PaperInk::New, facing.stitching.clone()), (PaperInk::Cut, facing.cut.clone())],
                words: Vec::new(),
                piece: None,
            });
            std::iter::once(of_picture(&change.name, &shown.picture, 1.0)).chain(facings).collect()
        }
        Shows::Trunk(shown) => vec![of_picture(&change.name, &shown.picture, shown.stretched)],
        Shows::Elastic(_) | Shows::Hem(_) | Shows::Spacing(_) | Shows::Gathers(_) => Vec::new(),
    }
}

/// A change that sheets can be made of.
pub const fn has_sheets(key: ChangeKey) -> bool {
    match key {
        ChangeKey::Seam(_) | ChangeKey::Dart(_) | ChangeKey::Armhole(_) | ChangeKey::Trunk(_) => true,
        ChangeKey::Elastic(_) | ChangeKey::Hem(_) | ChangeKey::Spacing(_) | ChangeKey::Gathers(_) => false,
    }
}

/// Along the old stitching laid straight, one strip a side, or one for both where they agree.
fn of_line(name: &str, line: &SolvedLine) -> Vec<PaperSheet> {
    let strip = &line.strip;
    let one = |(n, lines): (usize, &crate::figure::StripLines)| {
        let side = strip.sides.get(n).filter(|_| strip.lines.len() > 1);
        let title = match side {
            Some(side) => format!("{name}, {}", side.words),
            None if line.has_sides => format!("{name}, both sides alike"),
            None => name.to_owned(),
        };
        let title = if lines.panel_mm.is_some() { format!("panel for the {title}") } else { title };
        let path = |text: &Option<String>| text.as_deref().and_then(|text| BezPath::from_svg(text).ok());
        let old = path(&lines.old_line)
            .unwrap_or_else(|| Line::new((0.0, 0.0), (strip.length_mm, 0.0)).to_path(0.01));
        let mut all = vec![(PaperInk::Old, old)];
        match (lines.panel_mm, path(&lines.line)) {
            (Some([allowance, below]), Some(front)) => {
                let back = Affine::FLIP_Y * path(&lines.back_line).unwrap_or_else(|| front.clone());
                let cut = cut_around(&front, &back, allowance, below);
                all.extend([front, back].map(|edge| (PaperInk::New, edge)));
                all.push((PaperInk::Cut, cut));
            }
            (_, front) => {
                let both = front.into_iter().chain(path(&lines.back_line));
                all.extend(both.map(|edge| (PaperInk::New, edge)));
            }
        }
        all.extend(path(&lines.cut).map(|path| (PaperInk::Cut, path)));
        let (mut words, mut at) = (Vec::new(), 0.0);
        while at <= strip.length_mm {
            all.push((PaperInk::Mark, Line::new((at, -MARK), (at, MARK)).to_path(0.01)));
            at += MARK_EVERY;
        }
        words.push((Point::new(0.0, -MARK - 2.0), line.datum.to_string()));
        words.push((Point::new(strip.length_mm, -MARK - 2.0), line.top.to_string()));
        // What its ends are called stands there already.
        let within = |level: &&crate::figure::StripLevel| {
            level.at_mm > MARK_EVERY && level.at_mm < strip.length_mm - MARK_EVERY
        };
        words.extend(
            strip
                .levels
                .iter()
                .filter(within)
                .map(|level| (Point::new(level.at_mm, MARK + 5.0), level.name.clone())),
        );
        PaperSheet { title, lines: all, words, piece: None }
    };
    strip.lines.iter().enumerate().map(one).collect()
}

/// What is cut around a panel: so much outside both its edges, one over and one under its middle line, and beyond its upper end; below it
/// another amount.
fn cut_around(over: &BezPath, under: &BezPath, allowance: f64, below: f64) -> BezPath {
    let ends = over.bounding_box();
    let outside = |edge: &BezPath, by: f64| Affine::translate((0.0, by)) * edge.clone();
    let (over, under) = (outside(over, -allowance), outside(under, allowance));
    let at = |edge: &BezPath, x: f64| {
        let mut on = edge.segments().flat_map(|s| [s.start(), s.end()]);
        on.find(|p| (p.x - x).abs() < 1e-6).unwrap_or(Point::new(x, 0.0))
    };
    let mut cut = over.clone();
    for (x, beyond) in [(ends.x1, allowance), (ends.x0, -below)] {
        let [a, b] = [at(&over, x), at(&under, x)];
        let corners = [a, Point::new(a.x + beyond, a.y), Point::new(b.x + beyond, b.y), b];
        cut.move_to(corners[0]);
        corners[1..].iter().for_each(|corner| cut.line_to(*corner));
    }
    cut.extend(under.iter());
    cut
}

/// What is drawn old on new, in mm; heights of some are stretched on screens.
fn of_picture(name: &str, picture: &Picture, stretched: f64) -> PaperSheet {
    let flat = Affine::scale_non_uniform(1.0, 1.0 / stretched);
    let line = |stroke: &crate::figure::Stroke| {
        let ink = match stroke.ink {
            Ink::Before => PaperInk::Old,
            Ink::After => PaperInk::New,
            Ink::Body | Ink::Cloth | Ink::Edge | Ink::Stitching | Ink::Tape | Ink::Fold => return None,
        };
        Some((ink, flat * BezPath::from_svg(&stroke.path).ok()?))
    };
    PaperSheet {
        title: name.to_owned(),
        lines: picture.strokes.iter().filter_map(line).collect(),
        words: Vec::new(),
        piece: None,
    }
}

//! The sewing plan: which edges are sewn together, from which end, and by how much one may be longer.

use super::piece::{Edge, Piece};
use crate::change::armhole::CapEase;
use crate::garment::{Garment, Seam};
use crate::length::{Length, Tape, Taught};
use crate::work::{EdgeName, PieceFace, PieceKey, PieceLayer, PiecePart, PieceShare};

/// An edge of a piece, by the places of both.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct At {
    /// Among the pieces.
    pub piece: usize,
    /// Among the edges of that piece.
    pub edge: usize,
}

/// No longer than each other.
const NONE: [Taught; 2] = [Taught::new(0, 0); 2];

/// Edges that are sewn together: one side, and the other.
#[derive(Clone, Debug)]
pub struct Join {
    /// What they are sewn into.
    pub name: EdgeName,
    /// Edges of each, one after the other, and how often each counts: a band goes round once where half pieces are cut twice.
    pub sides: [(Vec<At>, u8); 2],
    /// How much longer the second is than the first, at least and at most.
    pub ease: [Taught; 2],
    /// The second lies on the first and is turned inside along it, as a facing.
    pub is_faced: bool,
}

impl Join {
    /// One may be longer than the other.
    pub fn is_eased(&self) -> bool {
        self.ease.iter().any(|ease| ease.on(Tape::Cm) != Length::ZERO)
    }

    /// How long both are once their darts are closed, in mm.
    pub fn lengths(&self, pieces: &[Piece]) -> [f64; 2] {
        [0, 1].map(|n| {
            let (edges, times) = &self.sides[n];
            let sewn = |at: &At| pieces[at.piece].sewn(&pieces[at.piece].edges[at.edge]);
            f64::from(*times) * edges.iter().map(sewn).sum::<f64>()
        })
    }

    /// How much the second is longer than it may be; less than nought where it is shorter.
    pub fn off(&self, pieces: &[Piece]) -> f64 {
        let [first, second] = self.lengths(pieces);
        let longer = second - first;
        let [least, most] = self.ease.map(|ease| ease.on(Tape::Cm).cm() * 10.0);
        if longer > most {
            longer - most
        } else if longer < least {
            longer - least
        } else {
            0.0
        }
    }

    /// Two edges and no more: they can be walked one along the other.
    pub fn pair(&self) -> Option<[At; 2]> {
        match &self.sides {
            [(a, _), (b, _)] if a.len() == 1 && b.len() == 1 => Some([a[0], b[0]]),
            _ => None,
        }
    }
}

/// Every join of the pieces of a garment. What is sewn to its own mirror image is none: it is as long as itself.
pub fn joins(garment: &Garment, pieces: &[Piece]) -> Vec<Join> {
    let mut layers: Vec<PieceLayer> = pieces.iter().map(|piece| piece.key.layer).collect();
    layers.sort_unstable();
    layers.dedup();
    let mut all: Vec<Join> =
        layers.into_iter().flat_map(|layer| joins_of_layer(garment, pieces, layer)).collect();
    all.extend(joins_of_layers(pieces));
    all
}

/// Every edge.
fn all_edges(pieces: &[Piece]) -> impl Iterator<Item = At> {
    let of = |(p, piece): (usize, &Piece)| (0..piece.edges.len()).map(move |e| At { piece: p, edge: e });
    pieces.iter().enumerate().flat_map(of)
}

/// What lies inside, to what it lies in: facings to the edges that they face, linings to facings.
fn joins_of_layers(pieces: &[Piece]) -> Vec<Join> {
    let edge = |at: &At| &pieces[at.piece].edges[at.edge];
    let key = |at: &At| pieces[at.piece].key;
    let of = |one: PieceKey, name: EdgeName| -> Vec<At> {
        all_edges(pieces).filter(|at| key(at) == one && edge(at).name == name).collect()
    };
    let mut joins = Vec::new();
    let mut push = |name, one: Vec<At>, other: Vec<At>, is_faced| {
        if !one.is_empty() && !other.is_empty() {
            joins.push(Join { name, sides: [(one, 1), (other, 1)], ease: NONE, is_faced });
        }
    };
    let beside = |at: At| {
        let edges = &pieces[at.piece].edges;
        [edges.len() - 1, 1].map(|n| edges[(at.edge + n) % edges.len()].name)
    };
    // Where what it was made from was cut in two afterwards, or joined, all that goes there.
    let outer = |made: PieceKey, name: EdgeName| -> Vec<At> {
        let whole = of(made.of(PieceLayer::Outer), name);
        let is_beside = |at: &At| PieceKey { share: made.share, ..key(at) } == made.of(PieceLayer::Outer);
        match whole.is_empty() {
            true => all_edges(pieces).filter(|at| is_beside(at) && edge(at).name == name).collect(),
            false => whole,
        }
    };
    for key in pieces.iter().map(|piece| piece.key) {
        let PieceLayer::Facing(name) = key.layer else { continue };
        push(name, outer(key, name), of(key, name), true);
        let own = of(key, EdgeName::Inner);
        // Of several that a lining has, the one that runs between the same edges the other way.
        let mut others = of(key.of(PieceLayer::Lining), EdgeName::Inner);
        if let [own] = own[..] {
            let [from, to] = beside(own);
            // Beside a hem the lining ends above its facing.
            others.retain(|at| beside(*at) == [to, from] && !beside(*at).contains(&EdgeName::Hem));
        }
        push(EdgeName::Inner, own, others, false);
    }
    joins
}

/// Of a sleeve's seams the edge nearer the front: on the upper sleeve, where there is one under the arm.
pub(super) fn is_in_front(piece: &Piece, edge: &Edge) -> bool {
    !edge.second && piece.key.share != PieceShare::Lower
}

/// Every join of the pieces of one layer.
fn joins_of_layer(garment: &Garment, pieces: &[Piece], layer: PieceLayer) -> Vec<Join> {
    // Bags of pockets lie in the seams of others.
    if layer == PieceLayer::Pocket {
        return Vec::new();
    }
    let all = || all_edges(pieces).filter(|at| pieces[at.piece].key.layer == layer);
    let key = |at: &At| -> PieceKey { pieces[at.piece].key };
    let named = |name: EdgeName, of: &dyn Fn(PieceKey) -> bool| -> Vec<At> {
        all().filter(|at| pieces[at.piece].edges[at.edge].name == name && of(key(at))).collect()
    };
    let mut joins = Vec::new();
    for seam in Seam::ALL.iter().copied() {
        let name = EdgeName::Seam(seam);
        let edges = named(name, &|_| true);
        let (first, second): (Vec<At>, Vec<At>) = match seam {
            Seam::ArmholeSeam => edges.iter().partition(|at| key(at).part != PiecePart::Sleeve),
            Seam::SleeveSeam | Seam::SleeveBackSeam => {
                edges.iter().partition(|at| is_in_front(&pieces[at.piece], &pieces[at.piece].edges[at.edge]))
            }
            Seam::PrincessFront | Seam::PrincessBack | Seam::PanelFront | Seam::PanelBack => {
                // Of a bodice and a skirt each its own.
                for part in [PiecePart::Body, PiecePart::Bodice, PiecePart::Skirt, PiecePart::Leg] {
                    let own: Vec<At> = edges.iter().copied().filter(|at| key(at).part == part).collect();
                    if let [a, b] = own[..] {
                        joins.push(Join {
                            name,
                            sides: [(vec![a], 1), (vec![b], 1)],
                            ease: NONE,
                            is_faced: false,
                        });
                    }
                }
                continue;
            }
            Seam::SideSeam | Seam::Outseam | Seam::Inseam => {
                for part in [PiecePart::Body, PiecePart::Bodice, PiecePart::Skirt, PiecePart::Leg] {
                    let own = |face: PieceFace| -> Vec<At> {
                        edges
                            .iter()
                            .copied()
                            .filter(|at| (key(at).part, key(at).face) == (part, face))
                            .collect()
                    };
                    let (front, back) = (own(PieceFace::Front), own(PieceFace::Back));
                    if !front.is_empty() && !back.is_empty() {
                        joins.push(Join {
                            name,
                            sides: [(front, 1), (back, 1)],
                            ease: NONE,
                            is_faced: false,
                        });
                    }
                }
                continue;
            }
            Seam::YokeSeam => {
                // Of every part its own, in front and behind.
                for upper in edges.iter().filter(|at| key(at).share == PieceShare::Upper) {
                    let below = PieceKey { share: PieceShare::Lower, ..key(upper) };
                    if let Some(lower) = edges.iter().find(|at| key(at) == below) {
                        let sides = [(vec![*upper], 1), (vec![*lower], 1)];
                        joins.push(Join { name, sides, ease: NONE, is_faced: false });
                    }
                }
                continue;
            }
            Seam::ShoulderSeam | Seam::NeckSeam | Seam::WaistSeam => {
                edges.iter().partition(|at| key(at).face == PieceFace::Front)
            }
            Seam::SeatSeam | Seam::FrontRise | Seam::CentreFront | Seam::CentreBack => continue,
        };
        if first.is_empty() || second.is_empty() {
            continue;
        }
        // What somebody says of a cap goes before what is usual.
        let is_said = second.iter().any(|at| pieces[at.piece].edges[at.edge].eased.is_some());
        let ease = if seam == Seam::ArmholeSeam && !is_said {
            let ease = CapEase::of(garment);
            [ease.least, ease.most]
        } else {
            NONE
        };
        joins.push(Join { name, sides: [(first, 1), (second, 1)], ease, is_faced: false });
    }
    if matches!(layer, PieceLayer::Facing(_)) {
        return joins;
    }
    let waist = |of: &dyn Fn(PieceKey) -> bool| named(EdgeName::Waist, of);
    let (bodice, below) = (
        waist(&|k| k.part == PiecePart::Bodice),
        waist(&|k| matches!(k.part, PiecePart::Skirt | PiecePart::Leg)),
    );
    let band = waist(&|k| k.part == PiecePart::Waistband);
    for (first, times, second) in [(&bodice, 1, &below), (&below, 2, &band)] {
        if !first.is_empty() && !second.is_empty() {
            let sides = [(first.clone(), times), (second.clone(), 1)];
            joins.push(Join { name: EdgeName::Waist, sides, ease: NONE, is_faced: false });
        }
    }
    joins
}

//! The sewing plan: which edges are sewn together, from which end, and by how much one may be longer.

use super::piece::Piece;
use crate::change::armhole::CapEase;
use crate::garment::{Garment, Seam};
use crate::length::{Length, Tape, Taught};
use crate::work::{EdgeName, PieceFace, PieceKey, PiecePart};

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
    let all = || {
        pieces
            .iter()
            .enumerate()
            .flat_map(|(p, piece)| (0..piece.edges.len()).map(move |e| At { piece: p, edge: e }))
    };
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
                edges.iter().partition(|at| !pieces[at.piece].edges[at.edge].second)
            }
            Seam::PrincessFront | Seam::PrincessBack | Seam::PanelFront | Seam::PanelBack => {
                // Of a bodice and a skirt each its own.
                for part in [PiecePart::Body, PiecePart::Bodice, PiecePart::Skirt] {
                    let own: Vec<At> = edges.iter().copied().filter(|at| key(at).part == part).collect();
                    if let [a, b] = own[..] {
                        joins.push(Join { name, sides: [(vec![a], 1), (vec![b], 1)], ease: NONE });
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
                        joins.push(Join { name, sides: [(front, 1), (back, 1)], ease: NONE });
                    }
                }
                continue;
            }
            Seam::ShoulderSeam | Seam::YokeSeam | Seam::NeckSeam | Seam::WaistSeam => {
                edges.iter().partition(|at| key(at).face == PieceFace::Front)
            }
            Seam::SeatSeam | Seam::FrontRise | Seam::CentreFront | Seam::CentreBack => continue,
        };
        if first.is_empty() || second.is_empty() {
            continue;
        }
        let ease = if seam == Seam::ArmholeSeam {
            let ease = CapEase::of(garment);
            [ease.least, ease.most]
        } else {
            NONE
        };
        joins.push(Join { name, sides: [(first, 1), (second, 1)], ease });
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
            joins.push(Join { name: EdgeName::Waist, sides, ease: NONE });
        }
    }
    joins
}

//! Paper: the pieces of a garment laid flat, what is changed on them, and whether what is sewn together still matches.

mod carry;
mod change;
mod cloth;
mod cut;
mod cut_line;
mod joins;
mod lay;
mod piece;
mod sheets;
mod told;
mod truing;
mod turn;
mod unroll;
mod untrue;

pub use change::{CannotBe, apply};
pub use joins::{At, Join, joins};
pub use piece::{Edge, Notch, Piece, PieceDart};

pub use cut_line::cut_line;
pub use sheets::{WhichPieces, piece_sheets};
pub use told::{
    EdgeShown, EdgeShownName, JoinShown, PieceChip, PieceMay, PieceSet, PieceShown, Pieces, Walked, pieces,
};
pub use truing::{DIFFER, Untrue, true_up};
pub use untrue::{PieceMend, UntrueLine};

#[cfg(test)]
mod tests;

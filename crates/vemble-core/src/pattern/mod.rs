//! Paper: the pieces of a garment laid flat, what is changed on them, and whether what is sewn together still matches.

mod as_cut;
mod asks;
mod carry;
mod change;
mod cloth;
mod corner;
mod cut;
mod cut_line;
mod drawn;
mod joined;
mod joins;
mod lay;
mod made;
mod marks;
mod may;
mod mouth;
mod notches;
mod on_stand;
mod outline;
mod panels;
mod part;
mod piece;
mod read;
mod sheets;
mod toile;
mod told;
mod truing;
mod turn;
mod unroll;
mod untrue;
mod upper;
mod words;

pub use change::{CannotBe, apply};
pub use joins::{At, Join, joins};
pub use piece::{Edge, Notch, Piece, PieceDart};

pub use asks::{ChangeAsks, FieldAsked, FieldEmpty, FieldIs};
pub use cloth::ClothLies;
pub use cut_line::cut_line;
pub use may::{EdgeShownName, PieceMay};
pub use on_stand::StandOnPaper;
pub use read::{
    EdgeNamed, PieceNamed, RawLine, RawPiece, ReadEdge, ReadPiece, ReadPieces, Unread, read_pieces,
};
pub use sheets::{WhichPieces, piece_sheets};
pub use toile::{CutFromToile, MarkOffered, MarkShown, StageOfMarks, ToileShown};
pub use told::{
    ClothWay, DartShown, EdgeShown, JoinShown, OfCloth, PieceChip, PieceSet, PieceShown, Pieces, Walked,
    pieces,
};
pub use truing::{DIFFER, Untrue, true_up};
pub use untrue::{PieceMend, UntrueLine};

#[cfg(test)]
mod tests;

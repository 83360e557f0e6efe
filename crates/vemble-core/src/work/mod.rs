//! Work: what is entered about it. Which steps there are, what was done when, what is wished for, and the evenings there are. What is to be
//! done follows from these in `plan`.

mod drawn;
mod key;
mod log;
mod marks;
mod pattern;
mod piece_change;
mod pieces;
mod practised;
mod room;
mod wishes;

pub use drawn::{DrawnDart, DrawnEdge, DrawnLevel, DrawnNotch, DrawnPiece, Eased};
pub(crate) use drawn::{FAR, curves_of, kept, meet, path_crosses, point, straight, xy};
pub use key::{Step, TaskKey, TaskOf};
pub use log::{Correction, Did, Logged, Used};
pub use marks::{MarkSettled, Marked, TOILES, ToileMark, ToileStage};
pub use pattern::{Chart, ChartRow, ChartSays, Chosen, Held, LevelEase, Pattern, SizeAt, wrong_chart};
pub use piece_change::{EdgePin, EdgePlace, Fullness, OpensAt, PieceChange, PieceDoes};
pub use pieces::{EdgeName, PieceFace, PieceKey, PieceLayer, PiecePart, PieceShare};
pub use practised::{Practised, Slip};
pub use room::{
    Event, LeftOut, Lesson, LessonOn, Money, Single, Stocked, SupplyKind, Unit, Weekly, Workroom,
    wrong_workroom,
};
pub use wishes::{
    AllowanceIs, Arrow, DartEnd, NotBefore, OwnTask, Schools, SewnBy, SleeveSet, Wishes, Worth, Worthy,
    wrong_wishes,
};

//! Open formats in and out: bytes in, core types out, and the other way round.

pub mod archive;
pub mod calendar;
pub mod chart;
pub mod document;
pub mod drawn;
pub mod marks_csv;
pub mod measurements_csv;
pub mod pdf;
pub mod photo;
pub mod pieces;
pub mod strips;
pub mod text;

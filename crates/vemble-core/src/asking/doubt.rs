//! Pins that can be, but look like a slip of the hand.

use crate::change::ChangeKey;
use crate::fitting::FrontShare;
use crate::garment::Garment;
use crate::length::{Length, Measure, Tape};
use crate::try_on::TryOn;
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// A question about one reading. What was entered stays until somebody says otherwise.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PinDoubt {
    /// Which reading.
    pub id: Uuid,
    /// The question.
    pub question: String,
    /// What was perhaps meant.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub instead: Option<Measure>,
}

/// More than this share of what goes round one side, at one seam, is a slip sooner than a pin (teaching value: a third of a
/// side is four sizes).
const A_THIRD: f64 = 0.34;

/// Every reading that takes out or lets in more than anybody would pin at one seam.
pub fn pin_doubts(garment: &Garment, try_on: &TryOn, tape: Tape) -> Vec<PinDoubt> {
    let mut doubts = Vec::new();
    for change in &try_on.changes {
        // Only a seam is judged by what goes round beside it.
        let ChangeKey::Seam(seam) = change.key() else { continue };
        for reading in change.readings() {
            let (Some(id), Some(girth)) =
                (reading.id, garment.girth_of_one_side(seam, reading.station.length))
            else {
                continue;
            };
            let whole = reading.edges(FrontShare::default()).whole().0;
            let most = Length::from_cm(girth.cm() * A_THIRD);
            if whole.abs() <= most {
                continue;
            }
            let tenth = Measure { length: reading.amount.length.fraction(1, 10), unit: reading.amount.unit };
            let is_on_tape = tape.round(tenth.length) == tenth.length && tenth.length > Length::ZERO;
            let fits = whole.fraction(1, 10).abs() <= most;
            let does = if whole.is_negative() { "lets in" } else { "takes out" };
            doubts.push(PinDoubt {
                id,
                question: format!(
                    "{} here {does} {} altogether, of {} on this side. Is that so?",
                    tape.show(reading.amount.length),
                    tape.show(whole.abs()),
                    tape.show(girth),
                ),
                instead: (is_on_tape && fits).then_some(tenth),
            });
        }
    }
    doubts
}

//! Whole marks: several carriers take one amount so that all together it is what is wanted, as near as marks can be.

/// A part of an amount: what it should take in marks, and how many edges take the same.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Part {
    /// What each of its edges should take, in marks; negative is let out.
    pub each: f64,
    /// How many edges take it.
    pub edges: i64,
}

/// More parts than this are rounded each by itself: so many never share one level of a garment.
const MOST: usize = 12;

/// So near a whole mark it is one: what binary fractions leave over.
const NEARLY: f64 = 1e-9;

/// What each part takes in whole marks: each the mark below or above what it should, so that the sum is as near as can be to `whole` marks;
/// among those the nearest to what each should, then the earlier parts the more.
///
/// Tries all: two to the number of parts.
pub(super) fn in_marks(parts: &[Part], whole: i64) -> Vec<i64> {
    let below: Vec<i64> = parts.iter().map(|part| (part.each + NEARLY).floor() as i64).collect();
    if parts.len() > MOST {
        return parts.iter().map(|part| part.each.round() as i64).collect();
    }
    let mut best: Option<(i64, f64, Vec<i64>)> = None;
    for choice in 0..1_u32 << parts.len() {
        let marks: Vec<i64> = (0..parts.len()).map(|n| below[n] + i64::from(choice >> n & 1)).collect();
        let sum: i64 = marks.iter().zip(parts).map(|(marks, part)| marks * part.edges).sum();
        let beside = |(marks, part): (&i64, &Part)| {
            let by = *marks as f64 - part.each;
            part.edges as f64 * by * by
        };
        let beside: f64 = marks.iter().zip(parts).map(beside).sum();
        let missed = (sum - whole).abs();
        let is_better = best.as_ref().is_none_or(|(least, nearest, _)| {
            missed < *least || (missed == *least && beside < nearest - NEARLY)
        });
        if is_better {
            best = Some((missed, beside, marks));
        }
    }
    best.map(|(_, _, marks)| marks).unwrap_or_default()
}

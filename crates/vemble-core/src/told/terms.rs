//! The words of the trade, each in one line: for the book, and for whoever meets one for the first time.

use crate::choice::choice;
use crate::plan::Caution;
use serde::Serialize;
use utoipa::ToSchema;

choice! {
    /// A word that a first-timer may not know. Its word in documents is the word itself.
    Term {
        Allowance => "cloth beyond the stitching, on one edge of a seam",
        Altogether => "all edges added up: a pin that takes 1 off each edge of two side seams takes 4 altogether",
        Armhole => "the edge that a sleeve is set into, or that is faced where there is none",
        Baste => "sew with long stitches that come out again",
        Bias => "aslant to the threads: cloth stretches there, and drops as it hangs",
        Binding => "a strip folded over a raw edge",
        BustPoint => "the fullest point of the bust: darts aim at it and end before it",
        Cap => "the top of a sleeve, from underarm over the shoulder to underarm",
        CapEase => "what the edge of a cap is longer than its armhole",
        CentreFront => "the line down the middle in front; behind it is the centre back",
        Clipped => "cut into up to the stitching, so that a curve lies flat: it lets out no further than the cut",
        Dart => "a fold that runs out to a point and gives cloth its shape",
        Datum => "what stations are measured from: the hem, the waist, the underarm",
        Ease => "what a garment measures beyond the body, at one level",
        EaseIn => "sew a longer edge to a shorter one without a tuck",
        Edge => "one of the two layers that a seam joins",
        Facing => "a piece that finishes an edge and is turned inside",
        FishEyeDart => "a dart with a point at both ends, widest at the waist",
        FoldDepth => "half of what a dart takes: from its fold to its stitching",
        Gate => "a try-on that has to be passed before cloth is cut",
        Girth => "what goes all round, at one level",
        Grain => "the direction of the lengthwise threads; a piece hangs straight along it",
        Gusset => "a small piece set in where cloth is missing",
        Hem => "a lower edge turned up and sewn",
        Interfacing => "a stiffening between outer and facing",
        Level => "a height on the body where girths are compared: bust, waist, hip",
        Notch => "a mark on an edge that meets one on its partner",
        Outseam => "the seam down the outside of a leg; the inseam runs down its inside",
        PerEdge => "what is chalked: sideways from the old stitching, on one layer",
        Pitch => "how a sleeve is turned in its armhole",
        Press => "set the iron down, lift it, set it down again; seams as sewn first",
        PrincessSeam => "a seam from shoulder or armhole over the bust or the shoulder blade down",
        Rise => "from the waist down to the crotch, sitting",
        RunOut => "the stretch in which a new line goes back into the old one",
        Serged => "overcast by a machine that trims as it sews",
        ShoulderTip => "the end of the shoulder bone, where the arm begins",
        Station => "how far along a seam, from its datum",
        SwayBack => "a hollow back: cloth pools above its waist",
        Toile => "a trial garment in cheap cloth, also called a muslin",
        Topstitching => "a row of stitches on the right side, for looks and hold",
        True => "make edges that are sewn together match again",
        Underarm => "where side seam, armhole and sleeve seam meet",
        Vent => "an opening up from a hem whose edges lie over each other; a slit’s edges meet",
        Wedge => "so much at one end, nothing at the other",
    }
}

impl Term {
    /// The word, as it is said.
    pub fn said(self) -> String {
        self.word().replace('_', " ").replace("fish eye", "fish-eye")
    }
}

/// What is read up and never changes.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct ReadUp {
    /// The words of the trade, in the order of the alphabet.
    pub terms: Vec<TermLine>,
    /// What keeps hands, eyes and children safe.
    pub cautions: Vec<&'static str>,
}

/// A word of the trade.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct TermLine {
    /// The word.
    pub word: String,
    /// What it means, in one line.
    pub means: &'static str,
}

/// Everything that is read up.
pub fn read_up() -> ReadUp {
    let mut terms: Vec<TermLine> =
        Term::ALL.iter().map(|term| TermLine { word: term.said(), means: term.name() }).collect();
    terms.sort_by(|a, b| a.word.cmp(&b.word));
    ReadUp { terms, cautions: Caution::ALL.iter().map(|caution| caution.name()).collect() }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::anything::is_well_said;

    #[test]
    fn every_term_is_one_line_and_none_is_explained_by_itself() {
        let all = read_up();
        is_well_said(&all);
        for TermLine { word, means } in &all.terms {
            assert!(means.chars().count() <= 110, "{word}: {means}");
            assert!(!means.ends_with('.') && !means.starts_with(&word[..]), "{word}: {means}");
        }
        assert!(all.terms.is_sorted_by(|a, b| a.word < b.word));
    }
}

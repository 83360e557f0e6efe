//! Words set in lines: shaped, broken to a width, with true fractions and figures of equal width.

use krilla::geom::Point;
use krilla::surface::Surface;
use krilla::text::{Font, GlyphId, KrillaGlyph};
use parley::fontique::Blob;
use parley::{
    Alignment, AlignmentOptions, FontContext, FontFamily, FontFeatures, FontWeight, Layout, LayoutContext,
    LineHeight, StyleProperty,
};
use std::collections::HashMap;
use std::ops::Range;
use std::sync::{Arc, LazyLock};

/// The face of the interface. What it lacks (a name in another script) comes from the fonts of the machine.
static FONTS: LazyLock<FontContext> = LazyLock::new(|| {
    let mut fonts = FontContext::new();
    for face in [
        &include_bytes!("../../fonts/Literata-Regular.ttf")[..],
        include_bytes!("../../fonts/Literata-Bold.ttf"),
    ] {
        fonts.collection.register_fonts(Blob::new(Arc::new(face)), None);
    }
    fonts
});

/// How words are set.
#[derive(Clone, Copy)]
pub struct Style {
    /// In points.
    pub size: f32,
    pub bold: bool,
    /// Towards the right edge of its width.
    pub right: bool,
}

impl Style {
    pub fn plain(size: f32) -> Self {
        Self { size, bold: false, right: false }
    }

    pub fn bold(self) -> Self {
        Self { bold: true, ..self }
    }

    pub fn right(self) -> Self {
        Self { right: true, ..self }
    }
}

/// Words that have been set.
pub struct Words {
    text: String,
    layout: Box<Layout<()>>,
}

impl Words {
    pub fn height(&self) -> f32 {
        self.layout.height()
    }

    /// How far its first line stands below its top.
    pub fn baseline(&self) -> f32 {
        self.layout.first_baseline().unwrap_or_default()
    }

    /// The narrowest and the widest it can be set without breaking a word.
    pub fn widths(&self) -> (f32, f32) {
        let widths = self.layout.calculate_content_widths();
        (widths.min, widths.max)
    }
}

/// Sets words, and puts them on paper.
pub struct Typesetter {
    fonts: FontContext,
    layouts: LayoutContext<()>,
    /// The faces in use, by the identity of their data.
    faces: HashMap<(u64, u32), Option<Font>>,
}

impl Typesetter {
    pub fn new() -> Self {
        Self { fonts: FONTS.clone(), layouts: LayoutContext::new(), faces: HashMap::new() }
    }

    /// Sets words, broken to a width where one is given.
    pub fn set(&mut self, text: &str, style: Style, width: Option<f32>) -> Words {
        let mut builder = self.layouts.ranged_builder(&mut self.fonts, text, 1.0, false);
        builder.push_default(StyleProperty::FontFamily(FontFamily::named("Literata")));
        builder.push_default(StyleProperty::FontSize(style.size));
        builder.push_default(StyleProperty::LineHeight(LineHeight::FontSizeRelative(1.3)));
        builder.push_default(StyleProperty::FontFeatures(FontFeatures::from("\"tnum\"")));
        if style.bold {
            builder.push_default(StyleProperty::FontWeight(FontWeight::BOLD));
        }
        for fraction in fractions(text) {
            builder.push(StyleProperty::FontFeatures(FontFeatures::from("\"frac\"")), fraction);
        }
        let mut layout = builder.build(text);
        layout.break_all_lines(width);
        let alignment = if style.right { Alignment::Right } else { Alignment::Left };
        layout.align(alignment, AlignmentOptions::default());
        Words { text: text.into(), layout: Box::new(layout) }
    }

    /// Puts words on a page, their top left corner there. A face that cannot be read leaves its words out.
    pub fn put(&mut self, surface: &mut Surface<'_>, words: &Words, (left, top): (f32, f32)) {
        for line in words.layout.lines() {
            let metrics = line.metrics();
            let (mut x, y) = (left + metrics.offset, top + metrics.baseline);
            for run in line.runs() {
                let size = run.font_size();
                let from = x;
                let mut glyphs: Vec<KrillaGlyph> = Vec::new();
                for cluster in run.visual_clusters() {
                    if cluster.is_ligature_continuation() {
                        if let Some(glyph) = glyphs.last_mut() {
                            glyph.text_range.end = cluster.text_range().end;
                        }
                        continue;
                    }
                    for glyph in cluster.glyphs() {
                        let (id, advance) = (GlyphId::new(glyph.id), glyph.advance / size);
                        let (dx, dy) = (glyph.x / size, glyph.y / size);
                        glyphs.push(KrillaGlyph::new(id, advance, dx, dy, 0.0, cluster.text_range(), None));
                        x += glyph.advance;
                    }
                }
                let face = run.font().clone();
                let (data, id) = face.data.into_raw_parts();
                let font = self.faces.entry((id, face.index));
                let font = font.or_insert_with(|| Font::new(data.into(), face.index));
                if let Some(font) = font {
                    surface.draw_glyphs(
                        Point::from_xy(from, y),
                        &glyphs,
                        font.clone(),
                        &words.text,
                        size,
                        false,
                    );
                }
            }
        }
    }
}

/// Where fractions stand: digits, a stroke, digits.
fn fractions(text: &str) -> Vec<Range<usize>> {
    let digits = |part: &str, from_end: bool| match from_end {
        true => part.len() - part.trim_end_matches(|c: char| c.is_ascii_digit()).len(),
        false => part.len() - part.trim_start_matches(|c: char| c.is_ascii_digit()).len(),
    };
    let around = |(at, _)| (at - digits(&text[..at], true), at, at + 1 + digits(&text[at + 1..], false));
    let found = text.match_indices('/').map(around);
    found.filter(|(from, at, to)| from < at && at + 1 < *to).map(|(from, _, to)| from..to).collect()
}

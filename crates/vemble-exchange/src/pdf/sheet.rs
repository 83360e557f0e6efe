//! The paper: pages, what stands on them, and how it gets there. Everything is in points from the top left corner.

use super::typeset::{Style, Typesetter, Words};
use super::{CardsError, Paper};
use krilla::Document;
use krilla::color::luma;
use krilla::geom::{Path, PathBuilder};
use krilla::metadata::Metadata;
use krilla::page::PageSettings;
use krilla::paint::{Fill, FillRule, Stroke, StrokeDash};
use krilla::surface::Surface;
use kurbo::{BezPath, Circle, PathEl, Shape};

/// What printers leave free, with room for a thumb.
pub const MARGIN: f32 = 30.0;

/// How a line is drawn: old stitching in short dashes, new stitching solid, a cut line in long dashes.
#[derive(Clone, Copy)]
pub enum Pen {
    Old,
    New,
    Cut,
    /// Between the rows of a table.
    Rule,
    /// Around a small sign.
    Outline,
}

enum Item {
    Words(Words, (f32, f32)),
    Path(BezPath, Pen),
    Dot(kurbo::Point),
    /// What follows is seen inside of it only, until the clip ends.
    Clip(BezPath),
    Unclip,
}

/// Pages that are being filled, from the top down.
pub struct Sheets {
    pub paper: Paper,
    pub typesetter: Typesetter,
    /// The pages of each card, with its title.
    cards: Vec<(String, Vec<Vec<Item>>)>,
    /// How large the type is against what is usual on this paper.
    scale: f32,
    /// How far down the page it is filled.
    pub y: f32,
}

impl Sheets {
    pub fn new(paper: Paper) -> Self {
        Self { paper, typesetter: Typesetter::new(), cards: Vec::new(), scale: 1.0, y: MARGIN }
    }

    /// Begins a card on a page of its own.
    pub fn begin(&mut self, title: &str, scale: f32) {
        self.scale = scale;
        self.cards.push((title.into(), vec![Vec::new()]));
        self.y = MARGIN;
    }

    /// Takes the newest card away again.
    pub fn discard(&mut self) {
        self.cards.pop();
    }

    /// How many pages the card has by now.
    pub fn pages(&self) -> usize {
        self.cards.last().map_or(0, |(_, pages)| pages.len())
    }

    /// Running text, in points.
    pub fn size(&self) -> f32 {
        self.paper.type_size() * self.scale
    }

    /// The width between the margins.
    pub fn width(&self) -> f32 {
        self.paper.size().0 - 2.0 * MARGIN
    }

    /// Begins a page where a height does not fit any more; says whether it did.
    pub fn make_room(&mut self, height: f32) -> bool {
        // The foot of the page belongs to its number.
        let full = self.y + height > self.paper.size().1 - MARGIN - self.paper.type_size();
        let begins = full && self.y > MARGIN;
        if begins {
            if let Some((_, pages)) = self.cards.last_mut() {
                pages.push(Vec::new());
            }
            self.y = MARGIN;
        }
        begins
    }

    /// Words at a distance from the left margin, their top at `y`.
    pub fn put(&mut self, words: Words, x: f32, y: f32) {
        self.add(Item::Words(words, (MARGIN + x, y)));
    }

    /// A line, in points of the page.
    pub fn draw(&mut self, path: BezPath, line: Pen) {
        self.add(Item::Path(path, line));
    }

    /// A chalk mark, in points of the page.
    pub fn dot(&mut self, at: kurbo::Point) {
        self.add(Item::Dot(at));
    }

    /// Words with their top left corner somewhere on the page.
    pub fn put_at(&mut self, words: Words, at: (f32, f32)) {
        self.add(Item::Words(words, at));
    }

    /// What is drawn from here on is seen inside of a shape only.
    pub fn clip(&mut self, shape: BezPath) {
        self.add(Item::Clip(shape));
    }

    /// Everything is seen again.
    pub fn unclip(&mut self) {
        self.add(Item::Unclip);
    }

    /// A line of text or more from margin to margin, and below it a gap.
    pub fn paragraph(&mut self, text: &str, style: Style, indent: f32, gap: f32) {
        let words = self.typesetter.set(text, style, Some(self.width() - indent));
        let height = words.height();
        self.make_room(height);
        self.put(words, indent, self.y);
        self.y += height + gap;
    }

    fn add(&mut self, item: Item) {
        if let Some(page) = self.cards.last_mut().and_then(|(_, pages)| pages.last_mut()) {
            page.push(item);
        }
    }

    /// The file, called after its card, or chalk cards.
    pub fn finish(self) -> Result<Vec<u8>, CardsError> {
        let title = match &self.cards[..] {
            [(title, _)] => title.clone(),
            _ => "Chalk cards".into(),
        };
        self.finish_as(&title)
    }

    /// The file with a title.
    pub fn finish_as(mut self, title: &str) -> Result<Vec<u8>, CardsError> {
        if self.cards.is_empty() {
            return Err(CardsError::NoCard);
        }
        let mut document = Document::new();
        document
            .set_metadata(Metadata::new().title(title.into()).language("en".into()).creator("Vemble".into()));
        let (width, height) = self.paper.size();
        let number = Style::plain(self.paper.type_size() * 0.85).right();
        for (title, pages) in &self.cards {
            for (index, items) in pages.iter().enumerate() {
                let Some(settings) = PageSettings::from_wh(width, height) else { continue };
                let mut page = document.start_page_with(settings);
                let mut surface = page.surface();
                for item in items {
                    put(&mut surface, &mut self.typesetter, item);
                }
                if pages.len() > 1 {
                    let text = format!("{title} · page {} of {}", index + 1, pages.len());
                    let words = self.typesetter.set(&text, number, Some(width - 2.0 * MARGIN));
                    let at = (MARGIN, height - MARGIN - words.height() + number.size);
                    put(&mut surface, &mut self.typesetter, &Item::Words(words, at));
                }
            }
        }
        document.finish().map_err(|e| CardsError::Write(format!("{e:?}")))
    }
}

fn put(surface: &mut Surface<'_>, typesetter: &mut Typesetter, item: &Item) {
    let black = || Fill { paint: luma::Color::black().into(), ..Fill::default() };
    match item {
        Item::Words(words, at) => {
            surface.set_stroke(None);
            surface.set_fill(Some(black()));
            typesetter.put(surface, words, *at);
        }
        Item::Path(path, line) => {
            surface.set_fill(None);
            surface.set_stroke(Some(stroke(*line)));
            if let Some(path) = outline(path) {
                surface.draw_path(&path);
            }
        }
        Item::Clip(shape) => {
            if let Some(path) = outline(shape) {
                surface.push_clip_path(&path, &FillRule::NonZero);
            }
        }
        Item::Unclip => surface.pop(),
        Item::Dot(at) => {
            surface.set_stroke(None);
            surface.set_fill(Some(black()));
            if let Some(path) = outline(&Circle::new(*at, 2.2).to_path(0.05)) {
                surface.draw_path(&path);
            }
        }
    }
}

fn stroke(line: Pen) -> Stroke {
    let (width, dash, paint) = match line {
        Pen::Old => (1.1, Some(vec![4.0, 3.0]), luma::Color::black()),
        Pen::New => (1.9, None, luma::Color::black()),
        Pen::Cut => (0.9, Some(vec![12.0, 4.0]), luma::Color::black()),
        Pen::Rule => (0.5, None, luma::Color::new(170)),
        Pen::Outline => (0.9, None, luma::Color::black()),
    };
    let dash = dash.map(|array| StrokeDash { array, offset: 0.0 });
    Stroke { paint: paint.into(), width, dash, ..Stroke::default() }
}

fn outline(path: &BezPath) -> Option<Path> {
    let mut builder = PathBuilder::new();
    let xy = |p: kurbo::Point| (p.x as f32, p.y as f32);
    for element in path.elements() {
        match *element {
            PathEl::MoveTo(p) => builder.move_to(p.x as f32, p.y as f32),
            PathEl::LineTo(p) => builder.line_to(p.x as f32, p.y as f32),
            PathEl::QuadTo(a, p) => {
                let [(ax, ay), (x, y)] = [a, p].map(xy);
                builder.quad_to(ax, ay, x, y);
            }
            PathEl::CurveTo(a, b, p) => {
                let [(ax, ay), (bx, by), (x, y)] = [a, b, p].map(xy);
                builder.cubic_to(ax, ay, bx, by, x, y);
            }
            PathEl::ClosePath => builder.close(),
        }
    }
    builder.finish()
}

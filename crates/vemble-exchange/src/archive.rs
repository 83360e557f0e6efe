//! An account, or one garment, as a ZIP: `vemble.json` says what is in it, each garment is a document like any other, and photos lie beside
//! them. What is read is believed in nothing: every name, size, id and picture is checked.

use crate::document::{Complaint, read, read_document};
use crate::photo::{CleanPhoto, PhotoError, keep_photo};
use serde::{Deserialize, Serialize};
use std::collections::HashSet;
use std::io::{Read, Seek, Write};
use uuid::Uuid;
use vemble_core::body::Wearer;
use vemble_core::document::Document;
use vemble_core::work::Workroom;
use zip::write::{SimpleFileOptions, StreamWriter};
use zip::{CompressionMethod, ZipArchive, ZipWriter};

/// The version of the format.
const VERSION: u32 = 1;
/// What says what is in an archive.
const CONTENTS: &str = "vemble.json";
/// The largest archive: some thousand photos. Also what everything in one may unpack to.
pub const LARGEST_ARCHIVE: u64 = 3_000_000_000;
/// The largest list of contents, and the largest document: far beyond any.
const LARGEST_TEXT: u64 = 16_000_000;
/// All documents of one archive: they are in memory together.
const LARGEST_TEXTS: u64 = 100_000_000;
/// The largest photo: one that was written anew may be larger than what was sent.
const LARGEST_PHOTO: u64 = 200_000_000;
/// Most files in one.
const MOST_FILES: usize = 10_000;

/// What is in an archive.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Contents {
    /// The version of the format.
    pub version: u32,
    /// What all garments share, where a whole account was taken out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub workroom: Option<Workroom>,
    /// Who wears the garments.
    pub wearers: Vec<WearerIn>,
    /// The garments; each is a document of its own.
    pub garments: Vec<GarmentIn>,
    /// Their photos.
    pub photos: Vec<PhotoIn>,
}

impl Contents {
    /// Those of an archive of this version.
    pub const fn of(
        workroom: Option<Workroom>,
        wearers: Vec<WearerIn>,
        garments: Vec<GarmentIn>,
        photos: Vec<PhotoIn>,
    ) -> Self {
        Self { version: VERSION, workroom, wearers, garments, photos }
    }
}

/// A wearer in an archive.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct WearerIn {
    /// Their id.
    pub id: Uuid,
    /// Who they are.
    pub wearer: Wearer,
}

/// A garment in an archive: its document is `garments/{id}.json`.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct GarmentIn {
    /// Its id.
    pub id: Uuid,
    /// Who wears it.
    pub wearer: Uuid,
    /// It is put away.
    pub archived: bool,
}

impl GarmentIn {
    fn file(&self) -> String {
        format!("garments/{}.json", self.id)
    }
}

/// When a photo was taken.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum TakenWhen {
    /// As it was.
    Before,
    /// As it is now.
    After,
    /// A seam, a stain, a label.
    Detail,
}

/// A photo in an archive: `photos/{id}.jpg` or `.png`.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PhotoIn {
    /// Its id.
    pub id: Uuid,
    /// Its garment.
    pub garment: Uuid,
    /// When it was taken.
    pub moment: TakenWhen,
    /// The photo of before that it stands beside.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pair: Option<Uuid>,
    /// The try-on it was taken at.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub try_on: Option<Uuid>,
    /// What is to be seen.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub caption: String,
    /// It is a PNG; a JPEG otherwise.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub png: bool,
}

impl PhotoIn {
    fn file(&self) -> String {
        format!("photos/{}.{}", self.id, if self.png { "png" } else { "jpg" })
    }
}

/// Writes an archive as it goes, without going back in what it is written to.
pub struct ArchiveWriter<W: Write>(ZipWriter<StreamWriter<W>>);

impl<W: Write> ArchiveWriter<W> {
    /// Begins with the contents.
    ///
    /// # Errors
    /// When it cannot be written.
    pub fn begin(to: W, contents: &Contents) -> std::io::Result<Self> {
        let mut archive = Self(ZipWriter::new_stream(to));
        archive.text(CONTENTS, &serde_json::to_vec_pretty(contents)?)?;
        Ok(archive)
    }

    /// Adds the document of a garment.
    ///
    /// # Errors
    /// When it cannot be written.
    pub fn garment(&mut self, garment: &GarmentIn, document: &Document) -> std::io::Result<()> {
        self.text(&garment.file(), &serde_json::to_vec_pretty(document)?)
    }

    fn text(&mut self, name: &str, bytes: &[u8]) -> std::io::Result<()> {
        self.0.start_file(name, SimpleFileOptions::default())?;
        self.0.write_all(bytes)
    }

    /// Adds a picture, as it is: it is packed already.
    ///
    /// # Errors
    /// When it cannot be written.
    pub fn photo(&mut self, photo: &PhotoIn, picture: &[u8]) -> std::io::Result<()> {
        let stored = SimpleFileOptions::default().compression_method(CompressionMethod::Stored);
        self.0.start_file(photo.file(), stored)?;
        self.0.write_all(picture)
    }

    /// Ends it.
    ///
    /// # Errors
    /// When it cannot be written.
    pub fn end(self) -> std::io::Result<()> {
        self.0.finish()?.into_inner().flush()
    }
}

/// An archive that was read and holds together; its pictures are read one by one.
pub struct Archive<R> {
    zip: ZipArchive<R>,
    /// What is in it.
    pub contents: Contents,
    /// The document of each garment, in their order.
    pub documents: Vec<Document>,
}

fn wrong(path: impl Into<String>, found: impl Into<String>, expected: &str) -> Complaint {
    Complaint { path: path.into(), found: found.into(), expected: expected.into() }
}

fn unzip<R: Read + Seek>(zip: &mut ZipArchive<R>, name: &str, most: u64) -> Result<Vec<u8>, Complaint> {
    let whole = "the archive as it was written; take it out again where it came from";
    let file = zip.by_name(name).map_err(|_| wrong(name, "a file that is missing or damaged", whole))?;
    let mut bytes = Vec::new();
    // What it says of its own size is not believed.
    let read = file.take(most + 1).read_to_end(&mut bytes);
    let read = read.map_err(|_| wrong(name, "a file that is damaged", whole))?;
    if read as u64 > most {
        return Err(wrong(name, "more than any unpacks to", whole));
    }
    Ok(bytes)
}

impl<R: Read + Seek> Archive<R> {
    /// Reads what is in an archive and every document, but no picture yet.
    ///
    /// # Errors
    /// What is wrong with it first, by the file it is in.
    pub fn read(from: R) -> Result<Self, Complaint> {
        let whole = "a ZIP that Vemble wrote, the whole of it";
        let mut zip = ZipArchive::new(from).map_err(|_| wrong("archive", "no ZIP, or half of one", whole))?;
        if zip.len() > MOST_FILES {
            return Err(wrong("archive", format!("{} files", zip.len()), "at most 10 000"));
        }
        let sizes = (0..zip.len()).map(|n| zip.by_index_raw(n).map(|file| file.size()));
        let unpacked = sizes.sum::<Result<u64, _>>().map_err(|e| wrong("archive", e.to_string(), whole))?;
        if unpacked > LARGEST_ARCHIVE {
            return Err(wrong("archive", format!("{unpacked} bytes unpacked"), "at most 3 GB"));
        }
        let json = unzip(&mut zip, CONTENTS, LARGEST_TEXT)?;
        let version: Versioned = read(&json).map_err(|c| wrong(CONTENTS, c.found, whole))?;
        if version.version != VERSION {
            let found = format!("version {}", version.version);
            return Err(wrong(
                CONTENTS,
                found,
                "version 1; an archive of a later Vemble needs a later Vemble",
            ));
        }
        let contents: Contents =
            read(&json).map_err(|c| Complaint { path: format!("{CONTENTS}: {}", c.path), ..c })?;
        holds_together(&contents)?;
        let mut meant: HashSet<String> = contents.garments.iter().map(GarmentIn::file).collect();
        meant.extend(contents.photos.iter().map(PhotoIn::file));
        meant.insert(CONTENTS.into());
        for name in zip.file_names() {
            let name = name.map_err(|e| wrong("archive", e.to_string(), whole))?;
            if !meant.contains(&*name) {
                return Err(wrong(name, "a file that is not in the list of contents", whole));
            }
        }
        let (mut documents, mut left) = (Vec::new(), LARGEST_TEXTS);
        for garment in &contents.garments {
            let name = garment.file();
            let below = |c: Complaint| Complaint { path: format!("{name}: {}", c.path), ..c };
            let json = unzip(&mut zip, &name, LARGEST_TEXT.min(left))?;
            left -= json.len() as u64;
            let document = read_document(&json).map_err(below)?;
            if let Some(fault) = document.faults().first() {
                return Err(below(Complaint::of(fault, vemble_core::length::Tape::default())));
            }
            documents.push(document);
        }
        Ok(Self { zip, contents, documents })
    }

    /// Reads and checks a photo.
    ///
    /// # Errors
    /// What is wrong with it.
    pub fn photo(&mut self, photo: &PhotoIn) -> Result<CleanPhoto, Complaint> {
        let name = photo.file();
        let clean = keep_photo(&unzip(&mut self.zip, &name, LARGEST_PHOTO)?);
        let clean = clean.map_err(|e: PhotoError| wrong(&*name, e.to_string(), e.expected()))?;
        if (clean.media_type == "image/png") != photo.png {
            return Err(wrong(name, clean.media_type, "what its name says"));
        }
        Ok(clean)
    }
}

#[derive(Deserialize)]
struct Versioned {
    version: u32,
}

/// Every id once, and nothing that speaks of what is not there.
fn holds_together(contents: &Contents) -> Result<(), Complaint> {
    let twice = |what: &str, ids: Vec<Uuid>| {
        let mut seen = HashSet::new();
        match ids.into_iter().find(|id| !seen.insert(*id)) {
            Some(id) => Err(wrong(format!("{CONTENTS}: {what}"), format!("{id} twice"), "each id once")),
            None => Ok(seen),
        }
    };
    let wearers = twice("wearers", contents.wearers.iter().map(|w| w.id).collect())?;
    let garments = twice("garments", contents.garments.iter().map(|g| g.id).collect())?;
    let photos = twice("photos", contents.photos.iter().map(|p| p.id).collect())?;
    let missing = |what: &str, id: Uuid| {
        wrong(format!("{CONTENTS}: {what}"), format!("{id}, which is not there"), "an id of this archive")
    };
    if let Some(garment) = contents.garments.iter().find(|g| !wearers.contains(&g.wearer)) {
        return Err(missing("garments", garment.wearer));
    }
    for photo in &contents.photos {
        if !garments.contains(&photo.garment) {
            return Err(missing("photos", photo.garment));
        }
        if let Some(pair) = photo.pair.filter(|pair| !photos.contains(pair)) {
            return Err(missing("photos", pair));
        }
        if photo.caption.chars().count() > 500 {
            return Err(wrong(
                format!("{CONTENTS}: photos"),
                "a caption over 500 letters",
                "at most 500 letters",
            ));
        }
    }
    Ok(())
}

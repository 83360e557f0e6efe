//! Photos on their way in: checked, turned upright, cleaned of everything but the picture, with a thumbnail.
//!
//! A photo is written anew from its pixels, so where and with what it was taken does not come along.

use image::codecs::jpeg::JpegEncoder;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits};
use std::io::Cursor;

/// The largest file that is taken: 15 MB.
pub const LARGEST_FILE: usize = 15_000_000;
/// The most pixels of a side: twice what a telephone takes.
const LONGEST_SIDE: u32 = 12_000;
/// The most pixels altogether: 64 million, what a telephone takes at most.
const MOST_PIXELS: u64 = 64_000_000;
/// The most bytes that its pixels take: 64 million of three. Deeper ones are taken too where there are fewer of them.
const MOST_BYTES: u64 = 192_000_000;
/// The most that reading may take beside them: rows, tables, what a chunk unpacks to.
const BESIDE: u64 = 64_000_000;
/// Pixels of a thumbnail's longer side.
const THUMBNAIL: u32 = 480;
/// JPEG quality, of 100: nothing of cloth and stitches is lost to the eye.
const QUALITY: u8 = 88;

/// Why a photo is not taken.
#[derive(Debug, thiserror::Error)]
pub enum PhotoError {
    /// More than [`LARGEST_FILE`].
    #[error("a file over 15 MB")]
    TooLarge,
    /// Not one of the formats, whatever it is called.
    #[error("a file that is no JPEG, PNG or WebP")]
    NotAPhoto,
    /// More pixels than anybody needs.
    #[error("a picture of {0} × {1} pixels")]
    TooManyPixels(u32, u32),
    /// Pixels so deep that memory does not hold them.
    #[error("a picture that takes {0} MB unpacked")]
    TooDeep(u64),
    /// It begins like a photo and breaks off or makes no sense.
    #[error("a picture that breaks off or is damaged")]
    Damaged,
}

impl PhotoError {
    /// What would be taken.
    pub const fn expected(&self) -> &'static str {
        match self {
            Self::TooLarge => "at most 15 MB",
            Self::NotAPhoto => "a JPEG, PNG or WebP picture",
            Self::TooManyPixels(..) => "at most 12 000 pixels a side and 64 million altogether",
            Self::TooDeep(_) => "at most 192 MB unpacked: save it with 8 bits a colour",
            Self::Damaged => "the whole file: try sending it again",
        }
    }
}

/// A photo as it is kept.
pub struct CleanPhoto {
    /// Width and height in pixels, upright.
    pub size: (u32, u32),
    /// `image/jpeg` or `image/png`.
    pub media_type: &'static str,
    /// The picture.
    pub image: Vec<u8>,
    /// The same, small, as JPEG.
    pub thumbnail: Vec<u8>,
}

/// Checks and cleans a photo.
///
/// # Errors
/// As [`PhotoError`] says; a picture's size is looked at before it is decoded.
pub fn clean_photo(file: &[u8]) -> Result<CleanPhoto, PhotoError> {
    if file.len() > LARGEST_FILE { Err(PhotoError::TooLarge) } else { clean(file) }
}

/// What was written anew may have become larger than what was sent.
fn clean(file: &[u8]) -> Result<CleanPhoto, PhotoError> {
    let mut reader =
        ImageReader::new(Cursor::new(file)).with_guessed_format().map_err(|_| PhotoError::NotAPhoto)?;
    let format = reader.format().ok_or(PhotoError::NotAPhoto)?;
    if !matches!(format, ImageFormat::Jpeg | ImageFormat::Png | ImageFormat::WebP) {
        return Err(PhotoError::NotAPhoto);
    }
    if format == ImageFormat::Jpeg && !is_whole_jpeg(file) {
        return Err(PhotoError::Damaged);
    }
    let mut limits = Limits::default();
    limits.max_alloc = Some(MOST_BYTES + BESIDE);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(|_| PhotoError::Damaged)?;
    let (width, height) = decoder.dimensions();
    let pixels = u64::from(width) * u64::from(height);
    if width.max(height) > LONGEST_SIDE || pixels > MOST_PIXELS {
        return Err(PhotoError::TooManyPixels(width, height));
    }
    if decoder.total_bytes() > MOST_BYTES {
        return Err(PhotoError::TooDeep(decoder.total_bytes() / 1_000_000));
    }
    let orientation = decoder.orientation().unwrap_or(image::metadata::Orientation::NoTransforms);
    let mut picture = DynamicImage::from_decoder(decoder).map_err(|_| PhotoError::Damaged)?;
    picture.apply_orientation(orientation);
    let thumbnail = thumbnail_of(&picture)?;
    // What is kept has 8 bits a colour, and is made so before it is written: nothing needs both at once.
    let picture = if picture.color().has_alpha() {
        DynamicImage::ImageRgba8(picture.into_rgba8())
    } else {
        DynamicImage::ImageRgb8(picture.into_rgb8())
    };
    let (media_type, image) = if format == ImageFormat::Png {
        let mut png = Cursor::new(Vec::new());
        picture.write_to(&mut png, ImageFormat::Png).map_err(|_| PhotoError::Damaged)?;
        ("image/png", png.into_inner())
    } else {
        ("image/jpeg", jpeg(&picture)?)
    };
    Ok(CleanPhoto { size: (picture.width(), picture.height()), media_type, image, thumbnail })
}

/// Takes a photo that was cleaned before, in an archive: its bytes stay as they are where nothing but the picture is in them.
///
/// # Errors
/// As [`clean_photo`].
pub fn keep_photo(file: &[u8]) -> Result<CleanPhoto, PhotoError> {
    let clean = clean(file)?;
    let is_clean = match clean.media_type {
        "image/png" => has_only_pixels_png(file),
        _ => jpeg_segments(file).is_some_and(|kinds| kinds.iter().all(|kind| !is_about(*kind))),
    };
    Ok(if is_clean { CleanPhoto { image: file.to_vec(), ..clean } } else { clean })
}

fn thumbnail_of(picture: &DynamicImage) -> Result<Vec<u8>, PhotoError> {
    jpeg(&picture.thumbnail(THUMBNAIL, THUMBNAIL))
}

/// Markers of JPEG (ITU-T T.81, table B.1).
const START_OF_SCAN: u8 = 0xDA;
const END: u8 = 0xD9;

/// Application data but JFIF's own, and comments: where and with what it was taken, profiles, previews.
const fn is_about(kind: u8) -> bool {
    matches!(kind, 0xE1..=0xEF | 0xFE)
}

/// The kinds of a JPEG's segments up to its end; nothing where it breaks off before. What follows the end, as some telephones append, is
/// not looked at.
fn jpeg_segments(file: &[u8]) -> Option<Vec<u8>> {
    let mut kinds = Vec::new();
    let mut at = 2;
    loop {
        // Before a marker there may be any number of 0xFF.
        while *file.get(at)? != 0xFF {
            at += 1;
        }
        while *file.get(at)? == 0xFF {
            at += 1;
        }
        let kind = *file.get(at)?;
        at += 1;
        match kind {
            END => return Some(kinds),
            // Stuffing and restarts stand among what was coded.
            0x00 | 0x01 | 0xD0..=0xD8 => {}
            _ => {
                let length = u16::from_be_bytes([*file.get(at)?, *file.get(at + 1)?]);
                at += usize::from(length);
                kinds.push(kind);
            }
        }
    }
}

fn is_whole_jpeg(file: &[u8]) -> bool {
    jpeg_segments(file).is_some_and(|kinds| kinds.contains(&START_OF_SCAN))
}

/// Whether a PNG has its picture in it and nothing else (W3C PNG, 11.2).
fn has_only_pixels_png(file: &[u8]) -> bool {
    let mut at = 8;
    while let Some(head) = file.get(at..at + 8) {
        let length = u32::from_be_bytes([head[0], head[1], head[2], head[3]]);
        if &head[4..] == b"IEND" {
            return at + 12 == file.len();
        }
        if !matches!(&head[4..], b"IHDR" | b"PLTE" | b"IDAT" | b"tRNS") {
            return false;
        }
        at = at.saturating_add(12).saturating_add(length as usize);
    }
    false
}

fn jpeg(picture: &DynamicImage) -> Result<Vec<u8>, PhotoError> {
    let mut bytes = Vec::new();
    picture
        .to_rgb8()
        .write_with_encoder(JpegEncoder::new_with_quality(&mut bytes, QUALITY))
        .map_err(|_| PhotoError::Damaged)?;
    Ok(bytes)
}

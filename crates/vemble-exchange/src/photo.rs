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
/// The most pixels altogether: 64 million, 200 MB while it is decoded.
const MOST_PIXELS: u64 = 64_000_000;
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
    /// More pixels than anybody needs, or than memory holds.
    #[error("a picture of {0} × {1} pixels")]
    TooManyPixels(u32, u32),
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
    if file.len() > LARGEST_FILE {
        return Err(PhotoError::TooLarge);
    }
    let mut reader =
        ImageReader::new(Cursor::new(file)).with_guessed_format().map_err(|_| PhotoError::NotAPhoto)?;
    let format = reader.format().ok_or(PhotoError::NotAPhoto)?;
    if !matches!(format, ImageFormat::Jpeg | ImageFormat::Png | ImageFormat::WebP) {
        return Err(PhotoError::NotAPhoto);
    }
    let mut limits = Limits::default();
    limits.max_alloc = Some(600_000_000);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(|_| PhotoError::Damaged)?;
    let (width, height) = decoder.dimensions();
    let pixels = u64::from(width) * u64::from(height);
    if width.max(height) > LONGEST_SIDE || pixels > MOST_PIXELS {
        return Err(PhotoError::TooManyPixels(width, height));
    }
    let orientation = decoder.orientation().unwrap_or(image::metadata::Orientation::NoTransforms);
    let mut picture = DynamicImage::from_decoder(decoder).map_err(|_| PhotoError::Damaged)?;
    picture.apply_orientation(orientation);
    let thumbnail = jpeg(&picture.thumbnail(THUMBNAIL, THUMBNAIL))?;
    let (media_type, image) = if format == ImageFormat::Png {
        let mut png = Cursor::new(Vec::new());
        picture.write_to(&mut png, ImageFormat::Png).map_err(|_| PhotoError::Damaged)?;
        ("image/png", png.into_inner())
    } else {
        ("image/jpeg", jpeg(&picture)?)
    };
    Ok(CleanPhoto { size: (picture.width(), picture.height()), media_type, image, thumbnail })
}

fn jpeg(picture: &DynamicImage) -> Result<Vec<u8>, PhotoError> {
    let mut bytes = Vec::new();
    picture
        .to_rgb8()
        .write_with_encoder(JpegEncoder::new_with_quality(&mut bytes, QUALITY))
        .map_err(|_| PhotoError::Damaged)?;
    Ok(bytes)
}

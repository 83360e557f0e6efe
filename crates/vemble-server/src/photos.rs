//! Photos of garments: taken in clean, given out, paired before and after.

use crate::error::ApiError;
use crate::request::{Body, read_body};
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::http::header::{CACHE_CONTROL, HeaderValue};
use actix_web::{HttpRequest, HttpResponse, delete, get, put, web};
use quick_cache::sync::Cache;
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;
use vemble_exchange::document::Complaint;
use vemble_exchange::photo::{CleanPhoto, LARGEST_FILE, PhotoError, clean_photo};
use vemble_store::{Moment, NewPhoto, Photo, Store};

/// Two photos are decoded at once, no more: each may take 400 MB while it is.
static DECODING: Semaphore = Semaphore::const_new(2);

/// One photo of an account at a time is taken in, from its first byte on: so nobody fills the memory with many.
pub struct Turns(Cache<Uuid, Arc<Semaphore>>);

impl Default for Turns {
    fn default() -> Self {
        Self(Cache::new(10_000))
    }
}

impl Turns {
    /// Waits until nothing else of the account is taken in.
    ///
    /// # Errors
    /// [`ApiError::Busy`] when the server is stopping.
    pub async fn take(&self, account: Uuid) -> Result<OwnedSemaphorePermit, ApiError> {
        let turn = self.0.get_or_insert_with(&account, || Ok::<_, ApiError>(Arc::new(Semaphore::new(1))))?;
        turn.acquire_owned().await.map_err(|_| ApiError::Busy)
    }
}

/// Whatever decodes a photo: beside the workers, and with few others at once.
///
/// # Errors
/// [`ApiError::Broken`] when it panicked.
pub async fn cleaned_by<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    let _turn = DECODING.acquire().await.map_err(|_| ApiError::Busy)?;
    tokio::task::spawn_blocking(work).await.map_err(|_| ApiError::Broken)
}

/// Checks and cleans a photo.
///
/// # Errors
/// [`ApiError::Invalid`] at `path` where it is none that is taken.
async fn cleaned(
    path: &'static str,
    work: impl FnOnce() -> Result<CleanPhoto, PhotoError> + Send + 'static,
) -> Result<CleanPhoto, ApiError> {
    let clean = cleaned_by(work).await?;
    clean.map_err(|e| {
        let complaint = Complaint { path: path.into(), found: e.to_string(), expected: e.expected().into() };
        ApiError::Invalid(vec![complaint])
    })
}

/// When a photo was taken.
#[derive(Clone, Copy, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PhotoMoment {
    /// As it was.
    Before,
    /// As it is now.
    After,
    /// A seam, a stain, a label.
    Detail,
}

impl PhotoMoment {
    const fn stored(self) -> Moment {
        match self {
            Self::Before => Moment::Before,
            Self::After => Moment::After,
            Self::Detail => Moment::Detail,
        }
    }

    const fn of(moment: Moment) -> Self {
        match moment {
            Moment::Before => Self::Before,
            Moment::After => Self::After,
            Moment::Detail => Self::Detail,
        }
    }
}

/// A photo without its picture.
#[derive(Serialize, ToSchema)]
pub struct PhotoState {
    /// Its id.
    id: Uuid,
    /// When it was taken.
    moment: PhotoMoment,
    /// The photo of before that it stands beside.
    pair: Option<Uuid>,
    /// The try-on it was taken at.
    try_on: Option<Uuid>,
    /// What is to be seen.
    caption: String,
    /// Width in pixels.
    width: i32,
    /// Height in pixels.
    height: i32,
}

impl PhotoState {
    fn of(photo: Photo) -> Self {
        let Photo { id, moment, pair, try_on, caption, width, height, .. } = photo;
        Self { id, moment: PhotoMoment::of(moment), pair, try_on, caption, width, height }
    }
}

/// What a photo says of itself.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PhotoChange {
    /// When it was taken.
    moment: PhotoMoment,
    /// The photo of before that it stands beside.
    #[serde(default)]
    pair: Option<Uuid>,
    /// What is to be seen.
    #[serde(default)]
    caption: String,
}

/// When the photo that is sent was taken.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Taken {
    /// Before, after, or of a detail.
    moment: PhotoMoment,
    /// The try-on it was taken at.
    try_on: Option<Uuid>,
}

/// The photos of a garment.
#[utoipa::path(responses((status = 200, body = Vec<PhotoState>), (status = 401, body = Problem)))]
#[get("/garments/{garment}/photos")]
pub(crate) async fn photos(
    SignedIn(account): SignedIn,
    garment: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let photos = store.account(account.id).photos(*garment).await?;
    Ok(HttpResponse::Ok().json(photos.into_iter().map(PhotoState::of).collect::<Vec<_>>()))
}

/// Takes in a photo: JPEG, PNG or WebP, up to 15 MB. Position data is stripped and orientation applied.
#[utoipa::path(
    params(Taken),
    request_body(content = Vec<u8>, content_type = "image/*"),
    responses((status = 201), (status = 401, body = Problem), (status = 404, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem), (status = 507, body = Problem))
)]
#[put("/garments/{garment}/photos/{photo}")]
pub(crate) async fn put_photo(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    path: web::Path<(Uuid, Uuid)>,
    taken: web::Query<Taken>,
    payload: web::Payload,
    store: web::Data<Store>,
    turns: web::Data<Turns>,
) -> Result<HttpResponse, ApiError> {
    let (garment, id) = path.into_inner();
    let content_type = request.headers().get("content-type").and_then(|v| v.to_str().ok()).unwrap_or("");
    if !content_type.starts_with("image/") {
        return Err(ApiError::NotAnImage);
    }
    let _turn = turns.take(account.id).await?;
    let file = payload.to_bytes_limited(LARGEST_FILE).await;
    let file = file.map_err(|_| ApiError::TooLarge)?.map_err(ApiError::from)?;
    let clean = cleaned("photo", move || clean_photo(&file)).await?;
    let new = NewPhoto {
        id,
        moment: taken.moment.stored(),
        try_on: taken.try_on,
        size: clean.size,
        media_type: clean.media_type,
        image: clean.image,
        thumbnail: clean.thumbnail,
    };
    store.account(account.id).add_photo(garment, new).await?;
    Ok(HttpResponse::Created().finish())
}

async fn picture(store: &Store, account: Uuid, id: Uuid, small: bool) -> Result<HttpResponse, ApiError> {
    let (media_type, picture) = store.account(account).picture(id, small).await?;
    // A picture never changes under its id, but only its account may keep it.
    let kept = HeaderValue::from_static("private, max-age=31536000, immutable");
    Ok(HttpResponse::Ok().content_type(media_type).insert_header((CACHE_CONTROL, kept)).body(picture))
}

/// The picture of a photo.
#[utoipa::path(responses((status = 200, content_type = "image/jpeg", body = Vec<u8>), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/photos/{photo}")]
pub(crate) async fn one_photo(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    picture(&store, account.id, *id, false).await
}

/// The picture of a photo, small.
#[utoipa::path(responses((status = 200, content_type = "image/jpeg", body = Vec<u8>), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/photos/{photo}/thumbnail")]
pub(crate) async fn thumbnail(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    picture(&store, account.id, *id, true).await
}

/// Changes what a photo says of itself.
#[utoipa::path(
    request_body = PhotoChange,
    responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem), (status = 422, body = Problem))
)]
#[put("/photos/{photo}")]
pub(crate) async fn change_photo(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    body: Body,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let PhotoChange { moment, pair, caption } = read_body(&request, body)?;
    if caption.chars().count() > 500 {
        let complaint = Complaint {
            path: "caption".into(),
            found: "over 500 letters".into(),
            expected: "at most 500 letters".into(),
        };
        return Err(ApiError::Invalid(vec![complaint]));
    }
    store.account(account.id).change_photo(*id, moment.stored(), pair, &caption).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Removes a photo.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[delete("/photos/{photo}")]
pub(crate) async fn delete_photo(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    store.account(account.id).delete_photo(*id).await?;
    Ok(HttpResponse::NoContent().finish())
}

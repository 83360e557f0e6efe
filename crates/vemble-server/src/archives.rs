//! An account, or one garment of it, as a file to keep: given out as it is written, and taken in whole or not at all.

use crate::error::ApiError;
use crate::photos::{Turns, cleaned_by};
use crate::queue::Queue;
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::http::header::{ContentDisposition, DispositionParam, DispositionType};
use actix_web::web::Bytes;
use actix_web::{HttpRequest, HttpResponse, get, post, web};
use futures_util::future::BoxFuture;
use futures_util::{FutureExt, StreamExt, stream};
use serde::Serialize;
use std::fs::File;
use std::io::{self, BufReader, Seek, Write};
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::{Semaphore, mpsc};
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_exchange::archive::{
    Archive, ArchiveWriter, Contents, GarmentIn, LARGEST_ARCHIVE, PhotoIn, TakenWhen, WearerIn,
};
use vemble_exchange::document::Complaint;
use vemble_store::{
    AccountStore, Brought, BroughtPhoto, Moment, NewPhoto, Store, StoredDocument, StoredWearer, Whole,
};

/// Two archives are taken in at once: each may fill the disk with 3 GB while it is.
static TAKEN_IN: Semaphore = Semaphore::const_new(2);
/// Pieces that wait for whoever reads, and photos that wait to be written: so much is in memory and no more.
const WAITING: usize = 4;

const fn when(moment: Moment) -> TakenWhen {
    match moment {
        Moment::Before => TakenWhen::Before,
        Moment::After => TakenWhen::After,
        Moment::Detail => TakenWhen::Detail,
    }
}

const fn moment(when: TakenWhen) -> Moment {
    match when {
        TakenWhen::Before => Moment::Before,
        TakenWhen::After => Moment::After,
        TakenWhen::Detail => Moment::Detail,
    }
}

fn contents(whole: &Whole) -> Contents {
    let wearers = whole.wearers.iter().map(|w| WearerIn { id: w.id, wearer: w.wearer.clone() });
    let garments =
        whole.garments.iter().map(|g| GarmentIn { id: g.id, wearer: g.wearer_id, archived: g.archived });
    let photos = whole.photos.iter().map(|(garment, photo)| PhotoIn {
        id: photo.id,
        garment: *garment,
        moment: when(photo.moment),
        pair: photo.pair,
        try_on: photo.try_on,
        caption: photo.caption.clone(),
        png: photo.media_type == "image/png",
    });
    Contents::of(whole.workroom.clone(), wearers.collect(), garments.collect(), photos.collect())
}

/// Writes an account, or one garment of it, to `to`: one photo after the other, so that no more than a few are in memory.
///
/// # Errors
/// What the store reports, or that it cannot be written.
pub async fn take_out(
    store: AccountStore<'_>,
    garment: Option<Uuid>,
    to: impl Write + Send + 'static,
) -> io::Result<()> {
    let whole = store.whole(garment).await.map_err(io::Error::other)?;
    let contents = contents(&whole);
    let (send, mut receive) = mpsc::channel::<(PhotoIn, Vec<u8>)>(WAITING);
    let photos = contents.photos.clone();
    let writing = tokio::task::spawn_blocking(move || -> io::Result<()> {
        let mut archive = ArchiveWriter::begin(to, &contents)?;
        for (garment, stored) in contents.garments.iter().zip(&whole.garments) {
            archive.garment(garment, &stored.document)?;
        }
        let mut written = 0;
        while let Some((photo, picture)) = receive.blocking_recv() {
            archive.photo(&photo, &picture)?;
            written += 1;
        }
        // Whoever sends broke off: so does this, without an end.
        if written < contents.photos.len() {
            return Err(io::ErrorKind::UnexpectedEof.into());
        }
        archive.end()
    });
    for photo in photos {
        let (_, picture) = store.picture(photo.id, false).await.map_err(io::Error::other)?;
        // Nobody writes any more: why is said below.
        if send.send((photo, picture)).await.is_err() {
            break;
        }
    }
    drop(send);
    writing.await.map_err(io::Error::other)?
}

/// Sends what is written, piece by piece, to whoever reads.
struct Pieces(mpsc::Sender<Result<Bytes, io::Error>>);

impl Write for Pieces {
    fn write(&mut self, piece: &[u8]) -> io::Result<usize> {
        let sent = self.0.blocking_send(Ok(Bytes::copy_from_slice(piece)));
        sent.map(|()| piece.len()).map_err(|_| io::ErrorKind::BrokenPipe.into())
    }

    fn flush(&mut self) -> io::Result<()> {
        Ok(())
    }
}

async fn given_out(
    store: &Store,
    account: Uuid,
    garment: Option<Uuid>,
    name: &str,
) -> Result<HttpResponse, ApiError> {
    if let Some(garment) = garment {
        store.account(account).document(garment).await?;
    }
    let (send, receive) = mpsc::channel(WAITING);
    let store = store.clone();
    actix_web::rt::spawn(async move {
        let pieces = io::BufWriter::with_capacity(64 * 1024, Pieces(send.clone()));
        if let Err(error) = take_out(store.account(account), garment, pieces).await {
            tracing::warn!(error = &error as &dyn std::error::Error, "an archive broke off");
            // The connection breaks off too: half an archive does not look like a whole one.
            let _ = send.send(Err(io::ErrorKind::UnexpectedEof.into())).await;
        }
    });
    let attached = ContentDisposition {
        disposition: DispositionType::Attachment,
        parameters: vec![DispositionParam::Filename(name.into())],
    };
    let pieces =
        stream::unfold(receive, async |mut receive| receive.recv().await.map(|piece| (piece, receive)));
    Ok(HttpResponse::Ok()
        .content_type("application/zip")
        .insert_header(attached)
        .streaming(pieces.boxed_local()))
}

/// Everything in the account as a ZIP: documents as JSON, and photos.
#[utoipa::path(responses((status = 200, content_type = "application/zip", body = Vec<u8>), (status = 401, body = Problem)))]
#[get("/account/archive")]
pub(crate) async fn account_archive(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    given_out(&store, account.id, None, "vemble-account.zip").await
}

/// One garment as a ZIP: its document, its wearer and its photos.
#[utoipa::path(responses((status = 200, content_type = "application/zip", body = Vec<u8>), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/garments/{garment}/archive")]
pub(crate) async fn garment_archive(
    SignedIn(account): SignedIn,
    garment: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    given_out(&store, account.id, Some(*garment), "vemble-garment.zip").await
}

/// How much was brought in.
#[derive(Debug, Serialize, ToSchema)]
pub struct BroughtIn {
    /// Garments.
    garments: usize,
    /// Wearers that were not there yet.
    wearers: usize,
    /// Photos.
    photos: usize,
}

/// Brings in an archive, whole or not at all.
///
/// # Errors
/// What is wrong with the archive, in words with its place, or with storing it.
pub async fn bring_in(store: AccountStore<'_>, file: File) -> Result<Brought, String> {
    let queue = Queue::start().map_err(|error| error.to_string())?;
    brought_in(store, Uuid::nil(), &queue, file).await.map_err(|error| error.in_words())
}

async fn brought_in(
    store: AccountStore<'_>,
    whose: Uuid,
    queue: &Queue,
    file: File,
) -> Result<Brought, ApiError> {
    let archive = queue.run(whose, move || Archive::read(BufReader::new(file))).await?;
    let mut archive = archive.map_err(|complaint| ApiError::Invalid(vec![complaint]))?;
    let documents = std::mem::take(&mut archive.documents);
    let garments =
        archive.contents.garments.iter().zip(documents).map(|(garment, document)| StoredDocument {
            id: garment.id,
            version: 1,
            wearer_id: garment.wearer,
            archived: garment.archived,
            try_on_versions: Vec::new(),
            wishes_version: 0,
            document,
        });
    let wearers = archive.contents.wearers.iter();
    let wearers =
        wearers.map(|w| StoredWearer { id: w.id, version: 1, wearer: w.wearer.clone(), garments: 0 });
    let whole = Whole {
        workroom: archive.contents.workroom.clone(),
        wearers: wearers.collect(),
        garments: garments.collect(),
        photos: Vec::new(),
    };
    let wrong = checked(&archive.contents);
    if !wrong.is_empty() {
        return Err(ApiError::Invalid(wrong));
    }
    let mut photos = archive.contents.photos.clone().into_iter();
    let archive = Arc::new(Mutex::new(archive));
    let next = move || -> BoxFuture<'static, Result<Option<BroughtPhoto>, ApiError>> {
        let (photo, archive) = (photos.next(), archive.clone());
        async move {
            let Some(photo) = photo else { return Ok(None) };
            let own = photo.clone();
            let clean = cleaned_by(move || {
                let mut archive = archive.lock().unwrap_or_else(PoisonError::into_inner);
                archive.photo(&own)
            });
            let clean = clean.await?.map_err(|complaint| ApiError::Invalid(vec![complaint]))?;
            Ok(Some(BroughtPhoto {
                garment: photo.garment,
                pair: photo.pair,
                caption: photo.caption,
                photo: NewPhoto {
                    id: photo.id,
                    moment: moment(photo.moment),
                    try_on: photo.try_on,
                    size: clean.size,
                    media_type: clean.media_type,
                    image: clean.image,
                    thumbnail: clean.thumbnail,
                },
            }))
        }
        .boxed()
    };
    store.bring_in(&whole, next).await
}

/// What is wrong with wearers and the workroom, which no document has.
fn checked(contents: &Contents) -> Vec<Complaint> {
    use vemble_core::document::wrong_wearer;
    use vemble_core::work::wrong_workroom;
    let mut faults = contents.workroom.as_ref().map(wrong_workroom).unwrap_or_default();
    faults.extend(contents.wearers.iter().flat_map(|w| wrong_wearer(&w.wearer)));
    let below = |c: Complaint| Complaint { path: format!("vemble.json: {}", c.path), ..c };
    Complaint::all(&faults, vemble_core::length::Tape::default()).into_iter().map(below).collect()
}

/// Brings in an archive that was taken out here or elsewhere, whole or not at all, under the ids it had. Wearers that are there stay as they
/// are; a garment that is there is not brought in a second time.
#[utoipa::path(
    request_body(content = Vec<u8>, content_type = "application/zip"),
    responses(
        (status = 200, body = BroughtIn),
        (status = 401, body = Problem),
        (status = 409, body = Problem),
        (status = 422, body = Problem),
        (status = 507, body = Problem),
    )
)]
#[post("/archives")]
pub(crate) async fn read_archive(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    mut payload: web::Payload,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
    turns: web::Data<Turns>,
) -> Result<HttpResponse, ApiError> {
    let kind = request.headers().get("content-type").and_then(|v| v.to_str().ok()).unwrap_or_default();
    if !kind.starts_with("application/zip") {
        return Err(ApiError::NotAnArchive);
    }
    let _turn = turns.take(account.id).await?;
    let _place = TAKEN_IN.try_acquire().map_err(|_| ApiError::Busy)?;
    let full = |_: io::Error| ApiError::NoDisk;
    let mut file = tempfile::tempfile().map_err(full)?;
    let mut size = 0;
    while let Some(piece) = payload.next().await {
        let piece = piece.map_err(|_| ApiError::BrokenOff)?;
        size += piece.len() as u64;
        if size > LARGEST_ARCHIVE {
            return Err(ApiError::LargeArchive);
        }
        file = web::block(move || file.write_all(&piece).map(|()| file))
            .await
            .map_err(|_| ApiError::Busy)?
            .map_err(full)?;
    }
    file.rewind().map_err(full)?;
    let Brought { garments, wearers, photos } =
        brought_in(store.account(account.id), account.id, &queue, file).await?;
    Ok(HttpResponse::Ok().json(BroughtIn { garments, wearers, photos }))
}

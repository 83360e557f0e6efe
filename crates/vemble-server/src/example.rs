//! The example account: made-up data, the same open JSON that users export.

use crate::doors::{Doors, Source};
use crate::error::ApiError;
use crate::guesses::{Guesses, Who};
use crate::session::{self, Offers, SignedIn, begin};
use crate::wire::Problem;
use actix_web::{HttpRequest, HttpResponse, post, web};
use jiff::civil::time;
use jiff::tz::TimeZone;
use jiff::{Timestamp, ToSpan};
use uuid::Uuid;
use vemble_core::document::Document;
use vemble_core::work::{Event, Workroom};
use vemble_exchange::document::read_document;
use vemble_store::{Store, StoreError};

const DOCUMENTS: [&str; 8] = [
    include_str!("../../../demo/corduroys.json"),
    include_str!("../../../demo/overcoat.json"),
    include_str!("../../../demo/concert-shirt.json"),
    include_str!("../../../demo/tea-dress.json"),
    include_str!("../../../demo/school-skirt.json"),
    include_str!("../../../demo/pinafore-toile.json"),
    include_str!("../../../demo/jersey-top.json"),
    include_str!("../../../demo/summer-trousers.json"),
];

const WORKROOM: &str = include_str!("../workroom.json");

/// The documents of the example account.
///
/// # Panics
/// If a document of `demo/` is not one; a test reads them all.
pub fn documents() -> Vec<Document> {
    let read = |json: &&str| read_document(json.as_bytes()).unwrap_or_else(|e| panic!("demo: {e:?}"));
    DOCUMENTS.iter().map(read).collect()
}

/// The event that the example’s garments are wanted for, as its documents name it.
const CONCERT: Uuid = Uuid::from_u128(0x01a1_f000_0000_7000_8000_0000_c0c0_0001);

/// The workroom of the example: a concert three weeks from now on, four evenings a week, help on one of them, a drawer and a lesson.
pub fn workroom(now: Timestamp) -> Workroom {
    let room: Workroom = serde_json::from_str(WORKROOM).unwrap_or_else(|e| panic!("demo: {e}"));
    let today = now.to_zoned(TimeZone::UTC).date();
    let date = today.checked_add(3.weeks()).unwrap_or(today);
    let concert =
        Event { id: CONCERT, name: "The barge concert".into(), date, time: Some(time(19, 0, 0, 0)) };
    Workroom { events: vec![concert], ..room }
}

/// Opens an example of one's own: it is forgotten after a day.
#[utoipa::path(responses((status = 200, body = session::Who), (status = 404, body = Problem), (status = 429, body = Problem)))]
#[post("/example/session")]
pub(crate) async fn open(
    request: HttpRequest,
    source: Source,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
    doors: web::Data<Doors>,
    offers: web::Data<Offers>,
) -> Result<HttpResponse, ApiError> {
    if !offers.example {
        return Err(StoreError::NotFound.into());
    }
    guesses.one_more(Who::At(source))?;
    let workroom = workroom(Timestamp::now());
    let account = store.new_example(&documents(), &workroom).await?;
    begin(&request, &store, &doors, account).await
}

/// Puts the example account back to how it was at first. Only the example account can be reset.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[post("/example/reset")]
pub(crate) async fn reset(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    if !account.is_example {
        return Err(StoreError::NotFound.into());
    }
    store.account(account.id).replace_all(&documents(), &workroom(Timestamp::now())).await?;
    Ok(HttpResponse::NoContent().finish())
}

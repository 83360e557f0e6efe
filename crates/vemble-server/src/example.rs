//! The example account: made-up data, the same open JSON that users export.

use crate::error::ApiError;
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::{HttpResponse, post, web};
use vemble_core::document::Document;
use vemble_exchange::document::read_document;
use vemble_store::Store;

const DOCUMENTS: [&str; 7] = [
    include_str!("../../../demo/corduroys.json"),
    include_str!("../../../demo/overcoat.json"),
    include_str!("../../../demo/concert-shirt.json"),
    include_str!("../../../demo/tea-dress.json"),
    include_str!("../../../demo/school-skirt.json"),
    include_str!("../../../demo/pinafore-toile.json"),
    include_str!("../../../demo/jersey-top.json"),
];

/// The documents of the example account.
///
/// # Panics
/// If a document of `demo/` is not one; a test reads them all.
pub fn documents() -> Vec<Document> {
    let read = |json: &&str| read_document(json.as_bytes()).unwrap_or_else(|e| panic!("demo: {e:?}"));
    DOCUMENTS.iter().map(read).collect()
}

/// Puts the example account back to how it was at first. Only the example account can be reset.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[post("/example/reset")]
pub(crate) async fn reset(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    if !account.is_example {
        return Err(vemble_store::StoreError::NotFound.into());
    }
    store.account(account.id).replace_all(&documents()).await?;
    Ok(HttpResponse::NoContent().finish())
}

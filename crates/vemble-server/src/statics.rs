//! The built front end, from a folder or out of the program itself. Files under `assets/` have hashed names and never change; everything
//! else is asked for anew.

use crate::error::ApiError;
use actix_files::{Files, NamedFile};
use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse, fn_service};
use actix_web::http::header::{CACHE_CONTROL, HeaderValue};
use actix_web::middleware::{Next, from_fn};
use actix_web::web::{self, ServiceConfig};
use std::path::PathBuf;
use vemble_store::StoreError;

/// Where the front end is.
#[derive(Clone, Debug, Default)]
pub enum Web {
    /// Nowhere: only the API is served.
    #[default]
    None,
    /// In a folder.
    Folder(PathBuf),
    /// In the program.
    #[cfg(feature = "embedded")]
    Embedded,
}

/// For whoever asks for what has a hash in its name; a name that is not there may be there tomorrow.
async fn kept(
    request: ServiceRequest,
    next: Next<impl MessageBody>,
) -> Result<ServiceResponse<impl MessageBody>, actix_web::Error> {
    let is_asset = request.path().starts_with("/assets/");
    let mut response = next.call(request).await?;
    let how = match is_asset && (response.status().is_success() || response.status() == 304) {
        true => "public, max-age=31536000, immutable",
        false => "no-cache",
    };
    response.headers_mut().insert(CACHE_CONTROL, HeaderValue::from_static(how));
    Ok(response)
}

async fn not_there(_: ServiceRequest) -> Result<ServiceResponse, actix_web::Error> {
    Err(ApiError::from(StoreError::NotFound).into())
}

pub(crate) fn configure(services: &mut ServiceConfig, from: &Web) {
    // What the API does not have is no page of the interface.
    services.service(web::scope("/api").default_service(web::to(crate::answer::nowhere)));
    match from {
        Web::None => {}
        Web::Folder(root) => {
            let assets = Files::new("/", root.join("assets")).try_compressed().prefer_utf8(true);
            let assets = assets.default_handler(fn_service(not_there));
            // A path of the interface is not a file: it gets the page, which knows what to show.
            let page = root.join("index.html");
            let page = fn_service(move |request: ServiceRequest| {
                let page = page.clone();
                async move {
                    let (request, _) = request.into_parts();
                    let response = NamedFile::open(page)?.into_response(&request);
                    Ok(ServiceResponse::new(request, response))
                }
            });
            let files = Files::new("/", root).index_file("index.html").try_compressed().prefer_utf8(true);
            services
                .service(web::scope("/assets").wrap(from_fn(kept)).service(assets))
                .service(web::scope("").wrap(from_fn(kept)).service(files.default_handler(page)));
        }
        #[cfg(feature = "embedded")]
        Web::Embedded => {
            services.service(web::scope("").wrap(from_fn(kept)).default_service(web::to(embedded::answer)));
        }
    }
}

#[cfg(feature = "embedded")]
mod embedded {
    use crate::error::ApiError;
    use actix_web::http::header::{ACCEPT_ENCODING, CONTENT_ENCODING, ETAG, IF_NONE_MATCH};
    use actix_web::{HttpRequest, HttpResponse};
    use rust_embed::RustEmbed;
    use vemble_store::StoreError;

    #[derive(RustEmbed)]
    #[folder = "../../web/dist"]
    struct Built;

    /// A file of the front end, compressed where the build compressed it and the browser takes it.
    pub async fn answer(request: HttpRequest) -> Result<HttpResponse, ApiError> {
        let path = request.path().trim_start_matches('/');
        let is_page = !path.starts_with("assets/") && Built::get(path).is_none();
        let path = if is_page { "index.html" } else { path };
        let takes = request.headers().get(ACCEPT_ENCODING).and_then(|v| v.to_str().ok()).unwrap_or_default();
        let ways = [("br", "br"), ("gzip", "gz")].into_iter().filter(|(name, _)| takes.contains(name));
        let compressed =
            |(name, ending)| Built::get(&format!("{path}.{ending}")).map(|file| (file, Some(name)));
        let found = ways.filter_map(compressed).next().or_else(|| Built::get(path).map(|file| (file, None)));
        let (file, encoding) = found.ok_or(StoreError::NotFound)?;
        let hash: String =
            file.metadata.sha256_hash()[..8].iter().map(|byte| format!("{byte:02x}")).collect();
        let tag = format!("\"{hash}\"");
        let is_known =
            request.headers().get(IF_NONE_MATCH).is_some_and(|known| known.as_bytes() == tag.as_bytes());
        let mut response = if is_known { HttpResponse::NotModified() } else { HttpResponse::Ok() };
        response.insert_header((ETAG, tag)).insert_header(("Vary", "Accept-Encoding"));
        if is_known {
            return Ok(response.finish());
        }
        if let Some(encoding) = encoding {
            response.insert_header((CONTENT_ENCODING, encoding));
        }
        let kind = mime_guess::from_path(path).first_or_octet_stream();
        let is_text = matches!(kind.type_(), mime_guess::mime::TEXT) || path.ends_with(".js");
        let kind = if is_text { format!("{kind}; charset=utf-8") } else { kind.to_string() };
        Ok(response.content_type(kind).body(file.data.into_owned()))
    }
}

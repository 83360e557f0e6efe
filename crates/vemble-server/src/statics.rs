//! The built front end. Files under `assets/` have hashed names and never change; everything else is asked for anew.

use actix_files::{Files, NamedFile};
use actix_web::dev::{ServiceRequest, ServiceResponse, fn_service};
use actix_web::http::header::CACHE_CONTROL;
use actix_web::middleware::DefaultHeaders;
use actix_web::web::{self, ServiceConfig};
use std::path::PathBuf;

pub(crate) fn configure(services: &mut ServiceConfig, root: Option<&PathBuf>) {
    let Some(root) = root else { return };
    let cached = |how: &'static str| DefaultHeaders::new().add((CACHE_CONTROL, how));
    let assets = Files::new("/", root.join("assets")).try_compressed().prefer_utf8(true);
    services
        .service(web::scope("/assets").wrap(cached("public, max-age=31536000, immutable")).service(assets));
    // A path of the interface is not a file: it gets the page, which knows what to show.
    let page = root.join("index.html");
    let fallback = fn_service(move |request: ServiceRequest| {
        let page = page.clone();
        async move {
            let (request, _) = request.into_parts();
            let response = NamedFile::open(page)?.into_response(&request);
            Ok(ServiceResponse::new(request, response))
        }
    });
    let files = Files::new("/", root).index_file("index.html").try_compressed().prefer_utf8(true);
    services.service(web::scope("").wrap(cached("no-cache")).service(files.default_handler(fallback)));
}

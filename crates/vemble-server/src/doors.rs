//! Which names this server answers to, which pages may write to it, and where a request comes from.
//!
//! A page elsewhere can make a browser ask a machine at home: by pointing its own name at it (DNS rebinding), or by a form. Names are checked
//! against the first, what only a page of this site can send against the second.

use crate::error::ApiError;
use actix_web::http::Uri;
use actix_web::http::header::{CONTENT_TYPE, HOST, HeaderMap, ORIGIN};
use std::net::{IpAddr, Ipv6Addr, SocketAddr};

/// A header that no form of another site can send: browsers ask first whether they may, and are not answered.
const CLIENT: &str = "vemble-client";
/// What forms can send without being asked (Fetch, “CORS-safelisted request-header”).
const OF_FORMS: [&str; 3] = ["application/x-www-form-urlencoded", "multipart/form-data", "text/plain"];

/// Where Vemble is found from outside, and who passes requests on.
#[derive(Clone, Debug)]
pub struct Doors {
    listening: IpAddr,
    hosts: Vec<String>,
    public: Option<Uri>,
    proxies: Vec<IpAddr>,
}

impl Doors {
    /// `public_url` is where people find it, `hosts` are further names it answers to; what `proxies` say of where a request came from is
    /// believed.
    ///
    /// # Errors
    /// A public URL that is none, in words.
    pub fn new(
        listening: SocketAddr,
        public_url: Option<&str>,
        hosts: &[String],
        proxies: &[IpAddr],
    ) -> Result<Self, String> {
        let public = match public_url {
            None => None,
            Some(url) => {
                let uri: Uri = url.parse().map_err(|e| format!("the public URL “{url}” is none: {e}"))?;
                let is_whole = matches!(uri.scheme_str(), Some("http" | "https")) && uri.host().is_some();
                if !is_whole || !matches!(uri.path(), "" | "/") {
                    return Err(format!(
                        "the public URL “{url}” is none: write https://name, without a path"
                    ));
                }
                Some(uri)
            }
        };
        let hosts = hosts.iter().map(|host| host.trim().to_lowercase()).collect();
        Ok(Self { listening: listening.ip(), hosts, public, proxies: proxies.to_vec() })
    }

    /// People come over TLS: cookies never go another way, and browsers keep to it.
    pub fn is_https(&self) -> bool {
        self.public.as_ref().is_some_and(|url| url.scheme_str() == Some("https"))
    }

    /// Whether this server goes by that name. An address of numbers belongs to no page elsewhere; of those, the one it listens on is meant.
    fn answers_to(&self, host: &str) -> bool {
        // Nobody signs in to a host by its name.
        if host.contains('@') {
            return false;
        }
        let Ok(authority) = host.parse::<actix_web::http::uri::Authority>() else { return false };
        let name = authority.host().trim_start_matches('[').trim_end_matches(']').to_lowercase();
        if let Ok(ip) = name.parse::<IpAddr>() {
            return ip.is_loopback() || self.listening.is_unspecified() || ip == self.listening;
        }
        let public = self.public.as_ref().and_then(Uri::host);
        name == "localhost" || public == Some(name.as_str()) || self.hosts.contains(&name)
    }

    /// # Errors
    /// [`ApiError::WrongHost`] where the request names another server, or none.
    pub fn check_host(&self, headers: &HeaderMap, uri: &Uri) -> Result<(), ApiError> {
        let named = headers.get(HOST).map(|host| host.to_str().unwrap_or_default());
        let named = uri.authority().map(actix_web::http::uri::Authority::as_str).or(named);
        if named.is_some_and(|host| self.answers_to(host)) { Ok(()) } else { Err(ApiError::WrongHost) }
    }

    /// Whether what would change something comes from a page of this site, or from a program that is no browser.
    ///
    /// # Errors
    /// [`ApiError::Elsewhere`] where a browser says that another site sent it, [`ApiError::NotJson`] where another site could have.
    pub fn check_page(&self, headers: &HeaderMap) -> Result<(), ApiError> {
        let text = |name: &str| headers.get(name).map(|value| value.to_str().unwrap_or_default());
        // Over plain HTTP, but for loopback, browsers do not say this (Fetch Metadata, W3C).
        if matches!(text("sec-fetch-site"), Some("cross-site" | "same-site")) {
            return Err(ApiError::Elsewhere);
        }
        if let Some(origin) = text(ORIGIN.as_str()) {
            let origin: Uri = origin.parse().map_err(|_| ApiError::Elsewhere)?;
            let host = text(HOST.as_str()).and_then(|host| host.parse().ok());
            let public = self.public.as_ref().and_then(Uri::authority);
            let own = origin.authority().filter(|_| origin.scheme_str().is_some());
            if own.is_none() || own != host.as_ref() && own != public {
                return Err(ApiError::Elsewhere);
            }
        }
        let kind = text(CONTENT_TYPE.as_str()).unwrap_or_default();
        let kind = kind.split(';').next().unwrap_or_default().trim().to_lowercase();
        let may_be_a_form = kind.is_empty() || OF_FORMS.contains(&kind.as_str());
        if may_be_a_form && !headers.contains_key(CLIENT) { Err(ApiError::NotJson) } else { Ok(()) }
    }

    /// Where a request comes from: its peer, or what a proxy that is trusted says of its own peer. The last entry that no proxy wrote of
    /// itself counts, since the first can be made up.
    pub fn source(&self, peer: Option<SocketAddr>, headers: &HeaderMap) -> Source {
        let peer = peer.map_or(IpAddr::V6(Ipv6Addr::UNSPECIFIED), |peer| peer.ip());
        if !self.proxies.contains(&peer) {
            return Source::of(peer);
        }
        let passed_on = headers.get_all("x-forwarded-for").filter_map(|value| value.to_str().ok());
        let passed_on: Vec<&str> = passed_on.flat_map(|value| value.split(',')).map(str::trim).collect();
        let said = passed_on.iter().rev().map(|entry| entry.parse::<IpAddr>());
        let first = said.take_while(Result::is_ok).flatten().find(|ip| !self.proxies.contains(ip));
        Source::of(first.unwrap_or(peer))
    }
}

/// Who counts as one: an address, or in IPv6 the 64 bits that one household gets (RFC 6177).
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Source(u64);

impl Source {
    fn of(ip: IpAddr) -> Self {
        match ip.to_canonical() {
            IpAddr::V4(ip) => Self(u32::from(ip).into()),
            IpAddr::V6(ip) => Self((u128::from(ip) >> 64) as u64),
        }
    }
}

impl actix_web::FromRequest for Source {
    type Error = ApiError;
    type Future = std::future::Ready<Result<Self, ApiError>>;

    fn from_request(request: &actix_web::HttpRequest, _: &mut actix_web::dev::Payload) -> Self::Future {
        let doors = request.app_data::<actix_web::web::Data<Doors>>();
        let source = doors.map(|doors| doors.source(request.peer_addr(), request.headers()));
        std::future::ready(source.ok_or(ApiError::WrongHost))
    }
}

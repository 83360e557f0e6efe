//! How often somebody may try a password: ten times at once, then once every six seconds, for each address signed in to
//! and for each place it is tried from. Counted by each instance for itself, in memory.

use crate::error::ApiError;
use actix_web::HttpRequest;
use governor::clock::{Clock, DefaultClock};
use governor::{DefaultKeyedRateLimiter, Quota, RateLimiter};
use std::num::NonZeroU32;

/// Tries at once (teaching value of many sign-in pages: nobody mistypes more often in good faith).
const AT_ONCE: NonZeroU32 = NonZeroU32::new(10).unwrap();

/// Counts tries.
pub struct Guesses(DefaultKeyedRateLimiter<String>);

impl Default for Guesses {
    fn default() -> Self {
        Self(RateLimiter::keyed(Quota::per_minute(AT_ONCE)))
    }
}

impl Guesses {
    /// Counts one more try from where the request comes from.
    ///
    /// # Errors
    /// [`ApiError::TooOften`] with how long to wait.
    pub fn at(&self, request: &HttpRequest) -> Result<(), ApiError> {
        let from = request.peer_addr().map_or_else(String::new, |a| a.ip().to_string());
        self.one_more(&format!("from {from}"))
    }

    /// Counts one more try on an account, or on the address of one.
    ///
    /// # Errors
    /// [`ApiError::TooOften`] with how long to wait.
    pub fn on(&self, account: &str) -> Result<(), ApiError> {
        self.one_more(&format!("on {account}"))
    }

    fn one_more(&self, key: &String) -> Result<(), ApiError> {
        // What was asked long ago is forgotten, so that nobody fills the memory.
        if self.0.len() > 10_000 {
            self.0.retain_recent();
        }
        let wait =
            |until: governor::NotUntil<_>| until.wait_time_from(DefaultClock::default().now()).as_secs();
        self.0.check_key(key).map_err(|until| ApiError::TooOften(wait(until) + 1))
    }
}

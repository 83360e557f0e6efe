//! How often somebody may try a password or a code: ten times at once, then once every six seconds, from each place it is tried from, or on
//! one's own account. Nobody is kept out by what others try. Counted by each instance for itself, in memory.

use crate::doors::Source;
use crate::error::ApiError;
use governor::clock::{Clock, DefaultClock};
use governor::{DefaultDirectRateLimiter, Quota, RateLimiter};
use quick_cache::sync::Cache;
use std::num::NonZeroU32;
use std::sync::Arc;
use uuid::Uuid;

/// Tries at once (teaching value of many sign-in pages: nobody mistypes more often in good faith).
const AT_ONCE: NonZeroU32 = NonZeroU32::new(10).unwrap();
/// Who is remembered: whoever tried longest ago is forgotten first, so that nobody fills the memory.
const REMEMBERED: usize = 10_000;

/// Who tries.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Who {
    /// Somebody who is not known yet, by where they are.
    At(Source),
    /// Somebody who is signed in, on their own account.
    In(Uuid),
}

/// Counts tries.
pub struct Guesses(Cache<Who, Arc<DefaultDirectRateLimiter>>);

impl Default for Guesses {
    fn default() -> Self {
        Self(Cache::new(REMEMBERED))
    }
}

impl Guesses {
    /// Counts one more try.
    ///
    /// # Errors
    /// [`ApiError::TooOften`] with how long to wait.
    pub fn one_more(&self, who: Who) -> Result<(), ApiError> {
        let new = || Ok::<_, ApiError>(Arc::new(RateLimiter::direct(Quota::per_minute(AT_ONCE))));
        let limiter = self.0.get_or_insert_with(&who, new)?;
        let wait =
            |until: governor::NotUntil<_>| until.wait_time_from(DefaultClock::default().now()).as_secs();
        limiter.check().map_err(|until| ApiError::TooOften(wait(until) + 1))
    }
}

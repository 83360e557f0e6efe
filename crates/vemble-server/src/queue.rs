//! One queue for what is asked over and over while a pin is dragged, worked off by as many threads as there are cores.
//!
//! A connection belongs to one worker for as long as it lives. If workers derived by themselves, whoever came to the worker
//! with more connections, or on the busier core, would wait longer than the others, each time. From one queue whoever is
//! free takes what waited longest, and then lets workers read and write before it takes more.

use crate::error::ApiError;
use rayon::{ThreadPool, ThreadPoolBuildError, ThreadPoolBuilder};
use tokio::sync::oneshot;

/// The queue and its threads.
pub struct Queue(ThreadPool);

impl Queue {
    /// # Errors
    /// When no thread can be started.
    pub fn start() -> Result<Self, ThreadPoolBuildError> {
        // Who waits for work that panicked is told so, as is the log; the others go on.
        let pool = ThreadPoolBuilder::new().thread_name(|n| format!("derive-{n}")).panic_handler(|_| {});
        pool.build().map(Self)
    }

    /// Does `work` when its turn has come.
    ///
    /// # Errors
    /// [`ApiError::Broken`] when it panicked.
    pub async fn run<T: Send + 'static>(
        &self,
        work: impl FnOnce() -> T + Send + 'static,
    ) -> Result<T, ApiError> {
        let (done, result) = oneshot::channel();
        self.0.spawn_fifo(move || {
            // Who hung up meanwhile wants no answer.
            if !done.is_closed() {
                let _ = done.send(work());
            }
            std::thread::yield_now();
        });
        result.await.map_err(|_| ApiError::Broken)
    }
}

//! One queue for whatever is derived, worked off by as many threads as there are cores, in turns: whoever asks for much waits for what
//! others asked for little.
//!
//! A connection belongs to one worker for as long as it lives. If workers derived by themselves, whoever came to the worker
//! with more connections, or on the busier core, would wait longer than the others, each time. From one queue whoever is
//! free takes what waited longest of whose turn it is, and then lets workers read and write before it takes more.

use crate::doors::Source;
use crate::error::ApiError;
use rayon::{ThreadPool, ThreadPoolBuildError, ThreadPoolBuilder};
use std::collections::{HashMap, VecDeque};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;
use tokio::sync::oneshot;
use uuid::Uuid;

/// Most that one may have waiting: a drag asks some thirty times a second, and several may be behind one
/// address.
const MOST_OF_ONE: usize = 100;
/// Most that may wait altogether, each with its body of up to a megabyte. Beyond, whoever has most waiting makes room for whoever has less.
const MOST: usize = 300;
/// How long something may wait for its turn and be worked on.
const PATIENCE: Duration = Duration::from_secs(20);

/// For whom something is derived.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Whose {
    /// An account.
    Account(Uuid),
    /// Whoever is there.
    From(Source),
}

impl From<Uuid> for Whose {
    fn from(account: Uuid) -> Self {
        Self::Account(account)
    }
}

impl From<Source> for Whose {
    fn from(source: Source) -> Self {
        Self::From(source)
    }
}

/// Something to do, and whether it was given up for somebody else.
struct Job {
    work: Box<dyn FnOnce() + Send>,
    given_up: Arc<AtomicBool>,
}

/// What waits: for each their own in its order, and whose turn comes when.
#[derive(Default)]
struct Waiting {
    of: HashMap<Whose, VecDeque<Job>>,
    turns: VecDeque<Whose>,
    count: usize,
}

impl Waiting {
    fn add(&mut self, whose: Whose, job: Job) -> Result<(), ApiError> {
        let waiting = self.of.get(&whose).map_or(0, VecDeque::len);
        if waiting >= MOST_OF_ONE || self.count >= MOST && !self.make_room(waiting) {
            return Err(ApiError::Busy);
        }
        let own = self.of.entry(whose).or_default();
        if own.is_empty() {
            self.turns.push_back(whose);
        }
        own.push_back(job);
        self.count += 1;
        Ok(())
    }

    /// Gives up the newest of whoever has most waiting, if that is more than one beyond `than`.
    fn make_room(&mut self, than: usize) -> bool {
        let most = self.of.values_mut().max_by_key(|own| own.len()).filter(|own| own.len() > than + 1);
        let given_up = most.and_then(VecDeque::pop_back);
        if let Some(job) = &given_up {
            job.given_up.store(true, Ordering::Relaxed);
            self.count -= 1;
        }
        given_up.is_some()
    }

    fn take(&mut self) -> Option<Job> {
        let whose = self.turns.pop_front()?;
        let own = self.of.get_mut(&whose)?;
        let job = own.pop_front();
        self.count -= usize::from(job.is_some());
        if own.is_empty() {
            self.of.remove(&whose);
        } else {
            self.turns.push_back(whose);
        }
        job
    }
}

/// The queue and its threads.
pub struct Queue {
    threads: ThreadPool,
    waiting: Arc<Mutex<Waiting>>,
}

impl Queue {
    /// # Errors
    /// When no thread can be started.
    pub fn start() -> Result<Self, ThreadPoolBuildError> {
        // Who waits for work that panicked is told so, as is the log; the others go on.
        let threads = ThreadPoolBuilder::new().thread_name(|n| format!("derive-{n}")).panic_handler(|_| {});
        Ok(Self { threads: threads.build()?, waiting: Arc::default() })
    }

    /// Does `work` when its turn has come.
    ///
    /// # Errors
    /// [`ApiError::Busy`] when too much waits already or it takes too long, [`ApiError::Broken`] when it panicked.
    pub async fn run<T: Send + 'static>(
        &self,
        whose: impl Into<Whose>,
        work: impl FnOnce() -> T + Send + 'static,
    ) -> Result<T, ApiError> {
        let (done, result) = oneshot::channel();
        let given_up = Arc::new(AtomicBool::new(false));
        let work = Box::new(move || {
            // Who hung up meanwhile wants no answer.
            if !done.is_closed() {
                let _ = done.send(work());
            }
        });
        lock(&self.waiting).add(whose.into(), Job { work, given_up: given_up.clone() })?;
        let waiting = self.waiting.clone();
        self.threads.spawn_fifo(move || {
            let job = lock(&waiting).take();
            if let Some(job) = job {
                (job.work)();
            }
            std::thread::yield_now();
        });
        let result = tokio::time::timeout(PATIENCE, result).await.map_err(|_| ApiError::Busy)?;
        result.map_err(|_| if given_up.load(Ordering::Relaxed) { ApiError::Busy } else { ApiError::Broken })
    }

    /// How much waits.
    pub fn waits(&self) -> usize {
        lock(&self.waiting).count
    }
}

fn lock(waiting: &Mutex<Waiting>) -> std::sync::MutexGuard<'_, Waiting> {
    waiting.lock().unwrap_or_else(PoisonError::into_inner)
}

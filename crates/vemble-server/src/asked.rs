//! The request that is worked on: its id, which its answer and the log have, and whether it may change something.

use std::future::Future;
use uuid::Uuid;

/// What is known of a request while it is worked on.
#[derive(Clone, Copy)]
pub struct Asked {
    /// Made here.
    pub id: Uuid,
    /// It may change something.
    pub changes: bool,
}

tokio::task_local! {
    static ASKED: Asked;
}

/// The id of the request that is worked on.
pub fn id() -> Option<Uuid> {
    ASKED.try_with(|asked| asked.id).ok()
}

/// The request that is worked on may have changed something.
pub fn changes() -> bool {
    ASKED.try_with(|asked| asked.changes).unwrap_or(false)
}

/// Does `work` as part of a request.
pub async fn within<T>(asked: Asked, work: impl Future<Output = T>) -> T {
    ASKED.scope(asked, work).await
}

//! What breaks while it is worked out breaks alone.

/// What `work` gives; nothing where it panicked, which is in the log: the rest goes on.
pub fn unbroken<T>(work: impl FnOnce() -> T) -> Option<T> {
    // Nothing that work changed is used again when it broke.
    std::panic::catch_unwind(std::panic::AssertUnwindSafe(work)).ok()
}

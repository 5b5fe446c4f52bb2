//! A store that counts its calls, and that is out of order when a test wants it to be.

use std::io;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

use swap_knot::keep::{Memory, Store, StoreLock};

/// A store that counts its calls and can be out of order.
#[derive(Clone, Debug, Default)]
pub struct Watched {
    pub inner: Memory,
    calls: Arc<AtomicUsize>,
    pub is_down: Arc<AtomicBool>,
}

impl Watched {
    fn call(&self) -> io::Result<&Memory> {
        self.calls.fetch_add(1, Ordering::Relaxed);
        match self.is_down.load(Ordering::Relaxed) {
            true => Err(io::Error::other("the disk is full")),
            false => Ok(&self.inner),
        }
    }

    pub fn calls(&self) -> usize {
        self.calls.load(Ordering::Relaxed)
    }
}

impl Store for Watched {
    fn list(&self) -> io::Result<Vec<String>> {
        self.call()?.list()
    }
    fn read(&self, file: &str, limit: usize) -> io::Result<Vec<u8>> {
        self.call()?.read(file, limit)
    }
    fn replace(&self, file: &str, bytes: &[u8]) -> io::Result<()> {
        self.call()?.replace(file, bytes)
    }
    fn rename(&self, from: &str, to: &str) -> io::Result<()> {
        self.call()?.rename(from, to)
    }
    fn remove(&self, file: &str) -> io::Result<()> {
        self.call()?.remove(file)
    }
    fn lock(&self) -> io::Result<StoreLock> {
        self.call()?.lock()
    }
}

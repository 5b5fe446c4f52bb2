//! Many files, counted on all cores.

use std::collections::BTreeSet;
use std::error::Error;
use std::fs;
use std::io::{self, BufRead as _, IsTerminal as _};
use std::path::{Path, PathBuf};
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::mpsc::{Receiver, SyncSender, sync_channel};
use std::sync::{Mutex, PoisonError};
use std::thread;

use super::counts::Tally;
use crate::files;

/// How many of the files that cannot be read are named.
const NAMED: usize = 20;
/// How many paths wait to be read at most.
const WAITING: usize = 1024;
/// After how many profiles somebody who watches is told of it.
const STEP: u64 = 1000;

/// What could not be read.
#[derive(Debug, Default)]
pub(super) struct Broken {
    pub(super) count: u64,
    /// The first by their names, however the work was shared.
    named: BTreeSet<String>,
}

impl Broken {
    fn add(&mut self, why: String) {
        self.count += 1;
        self.name(why);
    }

    fn name(&mut self, why: String) {
        self.named.insert(why);
        if self.named.len() > NAMED {
            self.named.pop_last();
        }
    }

    fn merge(&mut self, more: Broken) {
        self.count += more.count;
        more.named.into_iter().for_each(|why| self.name(why));
    }

    pub(super) fn print(&self) {
        for why in &self.named {
            anstream::eprintln!("not counted: {why}");
        }
        let more = self.count - self.named.len() as u64;
        if more > 0 {
            anstream::eprintln!("not counted: {more} more");
        }
    }
}

/// Counts files and all that is in folders; each core reads one at a time.
pub(super) fn count(paths: &[PathBuf], none: Tally) -> Result<(Tally, Broken), Box<dyn Error>> {
    let cores = thread::available_parallelism().map_or(1, usize::from);
    let (out, waiting) = sync_channel(WAITING);
    let (waiting, done) = (Mutex::new(waiting), AtomicU64::new(0));
    let (mut all, mut broken) = (none.clone(), Broken::default());
    let given = thread::scope(|scope| {
        let workers: Vec<_> = (0..cores)
            .map(|_| scope.spawn(|| read_all(&waiting, none.clone(), &done)))
            .collect();
        let given = paths
            .iter()
            .try_for_each(|path| give(path, &out, &mut broken));
        // Nothing more comes.
        drop(out);
        for worker in workers {
            match worker.join() {
                Ok((tally, unread)) => {
                    all.merge(&tally);
                    broken.merge(unread);
                }
                Err(panic) => std::panic::resume_unwind(panic),
            }
        }
        given
    });
    if is_watched() {
        anstream::eprint!("\r{:40}\r", "");
    }
    given.map_err(|e| format!("cannot read the list of files from standard input: {e}"))?;
    Ok((all, broken))
}

/// Reads what is given until nothing more comes.
fn read_all(
    waiting: &Mutex<Receiver<PathBuf>>,
    mut tally: Tally,
    done: &AtomicU64,
) -> (Tally, Broken) {
    let mut broken = Broken::default();
    let next = || {
        let waiting = waiting.lock().unwrap_or_else(PoisonError::into_inner);
        waiting.recv().ok()
    };
    while let Some(path) = next() {
        match files::profile(Some(&path)) {
            Ok(profile) => tally.add(profile),
            Err(why) => broken.add(why.to_string()),
        }
        tell(done);
    }
    (tally, broken)
}

/// Tells somebody who watches how far it is.
fn tell(done: &AtomicU64) {
    let done = done.fetch_add(1, Ordering::Relaxed) + 1;
    if done.is_multiple_of(STEP) && is_watched() {
        anstream::eprint!("\r{done} profiles read\r");
    }
}

fn is_watched() -> bool {
    io::stderr().is_terminal()
}

/// Gives a file to those who read, or all that is in a folder, or what standard input names.
fn give(path: &Path, out: &SyncSender<PathBuf>, broken: &mut Broken) -> io::Result<()> {
    // It is refused only where a reader panicked, which is told by joining it.
    let send = |path: PathBuf| drop(out.send(path));
    if path == Path::new("-") {
        for line in io::stdin().lock().lines() {
            let line = line?;
            if !line.is_empty() {
                visit(Path::new(&line), &send, broken);
            }
        }
    } else {
        visit(path, &send, broken);
    }
    Ok(())
}

fn visit(path: &Path, send: &impl Fn(PathBuf), broken: &mut Broken) {
    if !path.is_dir() {
        return send(path.to_owned());
    }
    let all = match fs::read_dir(path) {
        Ok(all) => all,
        Err(e) => return broken.add(format!("{}: {e}", path.display())),
    };
    for entry in all {
        match entry.map(|e| e.path()) {
            Ok(inner) if inner.is_dir() || inner.extension().is_some_and(|e| e == "toml") => {
                visit(&inner, send, broken);
            }
            // What else lies in a locker is no profile.
            Ok(_) => {}
            Err(e) => broken.add(format!("{}: {e}", path.display())),
        }
    }
}

//! Real files, with every call of the system made to fail in turn.

use std::path::Path;
use std::process::Command;

use swap_knot::Locker;

use super::ops::{Files, Op, marks, show, treasures};

/// What is done to real files while a call of the system fails.
const ON_FILES: [Op; 7] = [
    Op::Save("ada", 7),
    Op::SaveOver("ada", 7),
    Op::Copy("ada", "cem"),
    Op::Rename("ada", "cem"),
    Op::Delete("ada"),
    Op::Undelete("bo"),
    Op::Import(8),
];
const FAULTY: &str = "SWAP_KNOT_FAULTY_DISK";

/// Not a test of its own: the process whose calls are made to fail.
#[test]
fn faulty_disk_child() {
    let Ok(told) = std::env::var(FAULTY) else {
        return;
    };
    let (op, folder) = told.split_once(' ').unwrap();
    let op = ON_FILES[op.parse::<usize>().unwrap()];
    let done = Locker::open(folder).map_err(|e| e.to_string());
    match done.and_then(|locker| op.carry_out(&locker)) {
        Ok(answer) => println!("done: {}", answer.replace('\n', "\u{1}")),
        Err(why) => println!("refused: {why}"),
    }
}

/// The files of a locker's folder, what is only there while something is written left out.
fn in_folder(folder: &Path) -> Files {
    let entries = std::fs::read_dir(folder).unwrap().map(Result::unwrap);
    let read = |e: std::fs::DirEntry| {
        let name = e.file_name().into_string().unwrap();
        let kept = name != "lock" && !name.ends_with(".new");
        kept.then(|| (name, std::fs::read(e.path()).unwrap()))
    };
    entries.filter_map(read).collect()
}

#[test]
fn whatever_call_of_the_system_fails_nothing_is_lost() {
    let works = Command::new("strace")
        .args(["-o", "/dev/null", "true"])
        .status();
    if !works.is_ok_and(|s| s.success()) {
        patience::skip(
            "calls of the system are made to fail with strace; ./scripts/test installs it",
        );
        return;
    }
    let mut failed = 0;
    for (n, op) in ON_FILES.into_iter().enumerate() {
        for call in [
            "openat",
            "write",
            "fsync",
            "rename",
            "flock",
            "unlink",
            "read",
            "getdents64",
        ] {
            for when in 1..20 {
                // By default every third of them, another one for each operation.
                if (n + when) % 3 != 0 && crate::common::worlds(3) < 3 {
                    continue;
                }
                let temporary = tempfile::tempdir().unwrap();
                let folder = temporary.path();
                let locker = Locker::open(folder).unwrap();
                for past in [
                    Op::Save("ada", 0),
                    Op::Save("ada", 1),
                    Op::Save("bo", 2),
                    Op::Delete("bo"),
                ] {
                    past.carry_out(&locker).unwrap();
                }
                let before = in_folder(folder);
                let log = folder.join("../").join(format!("{n}-{call}.log"));
                let log = tempfile::NamedTempFile::new_in(log.parent().unwrap()).unwrap();
                let mut strace = Command::new("strace");
                strace.args(["-f", "-o"]).arg(log.path());
                // Only calls on these files are counted.
                for file in [
                    "",
                    "lock",
                    "active",
                    "ada.toml",
                    "ada.toml.new",
                    "ada.last-good",
                    "ada.last-good.new",
                    "cem.toml",
                    "cem.toml.new",
                    "cem.last-good",
                    "bo.toml",
                    "bo.deleted-1",
                ] {
                    strace.arg("-P").arg(folder.join(file));
                }
                let fault = format!("inject={call}:error=EIO:when={when}");
                strace
                    .args(["-e", &fault])
                    .arg(std::env::current_exe().unwrap());
                strace.args([
                    "--exact",
                    "locker::files::faulty_disk_child",
                    "--nocapture",
                    "--test-threads",
                    "1",
                ]);
                strace.env(FAULTY, format!("{n} {}", folder.display()));
                let out = strace.output().unwrap();
                let said = String::from_utf8_lossy(&out.stdout).into_owned();
                let after = in_folder(folder);
                let all = format!(
                    "{op:?} with {call} failing at {when}: {said}\n{}\n{}",
                    show(&before),
                    show(&after)
                );
                let lost: Vec<_> = treasures(&before, false)
                    .difference(&marks(&after))
                    .cloned()
                    .collect();
                assert!(lost.is_empty(), "lost {lost:?} by {all}");
                if let Some(answer) = said.lines().find_map(|l| Some(l.split_once("done: ")?.1)) {
                    let answer = answer.replace('\u{1}', "\n");
                    if let Err(why) = op.is_done(&answer, &before, &locker) {
                        panic!("not {why}: {all}");
                    }
                } else {
                    assert!(said.contains("refused: "), "{all}");
                }
                let injected = std::fs::read_to_string(log.path())
                    .unwrap()
                    .contains("(INJECTED)");
                failed += usize::from(injected);
                if !injected {
                    break; // It makes no more calls of that kind.
                }
            }
        }
    }
    assert!(failed > 50, "only {failed} calls were made to fail");
}

//! Which room of the core may rely on which: arrows point down, from what stands high to the ground.

use std::fmt::Write as _;
use std::path::{Path, PathBuf};

/// The rooms from the ground up; those of one line do not know each other.
const ROOMS: &[&[&str]] = &[
    &["text"],
    &["input"],
    &["sheet"],
    &["layout"],
    &["mapping", "book", "words"],
    &["profile"],
    &["law"],
    &["rig"],
    &["seat"],
    &["prompt"],
    &["conflict"],
    &["survey", "draft", "locker"],
    &["screen"],
    &["controls"],
    &["kit"],
];

/// What points up and may: a file, and the room that it names.
const ALLOWED: &[(&str, &str)] = &[
    // The chapter of what comes in is put together there.
    ("input/mod.rs", "book"),
    ("input/mod.rs", "layout"),
    ("input/mod.rs", "mapping"),
];

fn rank(room: &str) -> Option<usize> {
    ROOMS.iter().position(|line| line.contains(&room))
}

/// The code of a line, without what is said about it.
fn code(line: &str) -> &str {
    line.split("//").next().unwrap_or_default()
}

/// Every room that a line of code names, in a `use` or elsewhere.
fn named(line: &str) -> impl Iterator<Item = &str> {
    let behind = code(line).split("crate::").skip(1);
    behind.map(|rest| {
        let end = rest.find(|c: char| !c.is_alphanumeric() && c != '_');
        &rest[..end.unwrap_or(rest.len())]
    })
}

/// The type that a line begins to implement something of its own for, if it does.
fn inherent(line: &str) -> Option<&str> {
    let rest = line.strip_prefix("impl")?;
    let rest = match rest.strip_prefix('<') {
        Some(generic) => generic.split_once("> ")?.1,
        None => rest.strip_prefix(' ')?,
    };
    let end = rest.find(|c: char| !c.is_alphanumeric() && c != '_')?;
    (!rest.contains(" for ")).then_some(&rest[..end])
}

/// The type that a line declares, if it does.
fn declared(line: &str) -> Option<&str> {
    let words: Vec<&str> = code(line).split_whitespace().collect();
    let at = words.iter().position(|w| ["struct", "enum"].contains(w))?;
    let name = words.get(at + 1)?;
    let end = name.find(|c: char| !c.is_alphanumeric() && c != '_');
    Some(&name[..end.unwrap_or(name.len())])
}

fn collect(folder: &Path, into: &mut Vec<PathBuf>) {
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        match path.is_dir() {
            true => collect(&path, into),
            false if path.extension().is_some_and(|e| e == "rs") => into.push(path),
            false => {}
        }
    }
}

/// Every source of a folder with its path from there, but for the crate's own front.
fn sources(folder: &Path) -> Vec<(String, String)> {
    let mut paths = Vec::new();
    collect(folder, &mut paths);
    let all = paths.into_iter().map(|path| {
        let name = path.strip_prefix(folder).unwrap().display().to_string();
        (name, std::fs::read_to_string(path).unwrap())
    });
    let mut all: Vec<_> = all.filter(|(name, _)| name != "lib.rs").collect();
    all.sort();
    all
}

/// Each arrow that points up, with file and line.
fn wrong(sources: &[(String, String)]) -> String {
    let room_of = |file: &str| file.split('/').next().unwrap_or_default().to_owned();
    let mut owns: Vec<(String, &str)> = Vec::new();
    for (file, text) in sources {
        let own = text.lines().filter_map(declared);
        owns.extend(own.map(|name| (room_of(file), name)));
    }
    let mut wrong = String::new();
    for (file, text) in sources {
        let own = room_of(file);
        let Some(height) = rank(&own) else {
            writeln!(
                wrong,
                "{file}: the room `{own}` has no place among the others"
            )
            .unwrap();
            continue;
        };
        for (n, line) in text.lines().enumerate() {
            let at = format!("{file}:{}", n + 1);
            if code(line).contains("crate::{") {
                writeln!(
                    wrong,
                    "{at}: one `use` a room, so that this test can read it"
                )
                .unwrap();
            }
            for room in named(line).filter(|room| *room != own) {
                let is_below = rank(room).is_some_and(|r| r < height);
                if !is_below && !ALLOWED.contains(&(file.as_str(), room)) {
                    writeln!(wrong, "{at}: `{own}` may not rely on `{room}`").unwrap();
                }
            }
            let declares = |of: &str, own: bool| {
                let mut all = owns.iter().filter(|(_, name)| *name == of);
                all.any(|(room, _)| (*room == room_of(file)) == own)
            };
            if let Some(of) = inherent(line)
                && declares(of, false)
                && !declares(of, true)
            {
                writeln!(wrong, "{at}: `{of}` is of another room").unwrap();
            }
        }
    }
    wrong
}

#[test]
fn arrows_point_down() {
    let sources = sources(&Path::new(env!("CARGO_MANIFEST_DIR")).join("src"));
    let wrong = wrong(&sources);
    assert!(wrong.is_empty(), "{wrong}");
}

#[test]
fn an_arrow_that_points_up_is_told_with_its_line() {
    let planted = |file: &str, text: &str| wrong(&[(file.to_owned(), text.to_owned())]);
    let told = planted(
        "layout/file.rs",
        "use crate::input::Place;\nuse crate::rig::Rig;\n",
    );
    assert_eq!(told, "layout/file.rs:2: `layout` may not rely on `rig`\n");
    let (sheet, book) = (
        "pub struct Sheet(",
        "struct Held;\nimpl Held {}\nimpl Sheet {\n",
    );
    let told = wrong(
        &[("sheet/mod.rs", sheet), ("book/mod.rs", book)]
            .map(|(f, t)| (f.to_owned(), t.to_owned())),
    );
    assert_eq!(told, "book/mod.rs:3: `Sheet` is of another room\n");
    let told = planted("book/mod.rs", "fn f(x: &crate::Seat) {} // crate::seat\n");
    assert_eq!(told, "book/mod.rs:1: `book` may not rely on `Seat`\n");
    let told = planted("attic/mod.rs", "");
    assert_eq!(
        told,
        "attic/mod.rs: the room `attic` has no place among the others\n"
    );
    assert_eq!(
        planted(
            "seat/mod.rs",
            "impl<'a> From<Seat> for Rig {}\nuse crate::rig::Rig;"
        ),
        ""
    );
}

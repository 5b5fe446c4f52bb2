//! A sheet that is saved while it is played: real files, heard of by the system.

#![allow(clippy::unwrap_used)]

use std::path::PathBuf;

use swap_knot::{Bind, Cell, Controls, DeviceId, Event, EventKind, Layout, Place, Sheet, Time};
use swap_knot_workbench::{Bench, findings, player};

const DEMO: &str = include_str!("../../../demo/slack-water.toml");

struct Desk {
    _folder: tempfile::TempDir,
    file: PathBuf,
    bench: Bench,
    controls: Controls,
    now: u64,
}

impl Desk {
    fn new(text: &str) -> Desk {
        let folder = tempfile::tempdir().unwrap();
        let file = folder.path().join("controls.toml");
        std::fs::write(&file, text).unwrap();
        let mut bench = Bench::open(&file, || {}).unwrap();
        let controls = player(&bench.sheet().unwrap(), None, &Layout::us());
        Desk {
            _folder: folder,
            file,
            bench,
            controls,
            now: 0,
        }
    }

    /// Saves the file as editors do: another one in its place.
    fn save(&mut self, text: &str) {
        let new = self.file.with_extension("new");
        std::fs::write(&new, text).unwrap();
        std::fs::rename(new, &self.file).unwrap();
    }

    /// Waits until something is so.
    #[track_caller]
    fn until(&mut self, what: impl Fn(&Desk) -> bool) {
        patience::wait_for("the file that was saved", || {
            self.bench.follow(&mut self.controls);
            match what(self) {
                true => Ok(()),
                false => Err(std::fs::read_to_string(&self.file).unwrap()),
            }
        });
    }

    fn key(&mut self, place: Place, down: bool) {
        self.now += 20;
        let (at, device, text) = (Time::from_millis(self.now), DeviceId(0), None);
        let what = EventKind::Key { place, down, text };
        self.controls.feed(&Event { at, device, what });
        self.controls.tick(at);
    }

    fn is_down(&self, action: &str) -> bool {
        let sheet = self.controls.seat().rig().sheet();
        self.controls.seat().is_down(sheet.find(action).unwrap())
    }

    fn sheet(&self) -> Sheet {
        self.controls.seat().rig().sheet().clone()
    }

    fn cell(&self, row: &str) -> Cell {
        let row = self.sheet().find_row(row).unwrap();
        row.cell("keyboard-1".parse().unwrap())
    }
}

#[test]
fn a_saved_sheet_is_played_and_a_mistake_is_shown_with_its_line() {
    let mut desk = Desk::new(DEMO);
    desk.key(Place::KeyW, true);
    assert!(desk.is_down("walk"));
    desk.save(&DEMO.replace(
        "bind = [\"KeyF\", \"pad:up\"]",
        "bind = [\"KeyL\", \"pad:up\"]",
    ));
    desk.until(|desk| desk.bench.taken_up() == 1);
    assert!(desk.is_down("walk"), "what is held plays on");
    desk.key(Place::KeyL, true);
    assert!(desk.is_down("lantern"));
    // A mistake: said, and what was there plays on.
    desk.save(&DEMO.replace(
        "bind = [\"KeyF\", \"pad:up\"]",
        "bind = [\"KeyFF\", \"pad:up\"]",
    ));
    desk.until(|desk| desk.bench.mistakes().is_some());
    let mistakes = desk.bench.mistakes().unwrap().to_owned();
    let line = DEMO
        .lines()
        .position(|l| l.contains("\"KeyF\", \"pad:up\""))
        .unwrap()
        + 1;
    assert!(
        mistakes.contains(&format!("controls.toml:{line}:")),
        "{mistakes}"
    );
    desk.key(Place::KeyL, false);
    desk.key(Place::KeyW, false);
    assert!(!desk.is_down("walk") && desk.is_down("lantern"));
    // The file is gone for a moment, and comes back as it was.
    std::fs::remove_file(&desk.file).unwrap();
    desk.until(|desk| desk.bench.mistakes().is_some_and(|m| !m.contains("KeyFF")));
    desk.save(DEMO);
    desk.until(|desk| desk.bench.mistakes().is_none());
    assert_eq!(desk.bench.taken_up(), 2);
    assert_eq!(
        desk.controls.prompt("{do:lantern}").unwrap().to_string(),
        "Press F"
    );
}

#[test]
fn a_sheet_with_mistakes_is_opened_and_mended() {
    let mut desk = Desk::new("game = 3\n");
    assert!(desk.bench.mistakes().unwrap().contains("controls.toml:1"));
    desk.save(DEMO);
    desk.until(|desk| desk.bench.mistakes().is_none());
    assert_eq!(desk.sheet().game(), "slack-water");
    assert!(Bench::open(&desk.file.with_extension("none"), || {}).is_err());
}

#[test]
fn what_was_tuned_is_written_and_the_profile_lets_go_of_it() {
    let mut desk = Desk::new(DEMO);
    let mut draft = desk.controls.draft();
    let bound = draft.bind(desk.cell("horn"), "KeyT".parse().unwrap());
    assert!(matches!(bound.unwrap(), Bind::Done));
    desk.controls.apply(&mut draft);
    let adopted = desk.bench.adopted(&desk.controls).unwrap();
    assert!(adopted.difference("x").contains("+bind = [\"KeyT\""));
    desk.bench.write(&adopted, &mut desk.controls).unwrap();
    let written = std::fs::read_to_string(&desk.file).unwrap();
    assert_eq!(
        written,
        DEMO.replace("[\"KeyH\", \"mouse:right\"", "[\"KeyT\", \"mouse:right\"")
    );
    assert!(desk.controls.profile().changes(&desk.sheet()).is_empty());
    assert_eq!(
        desk.controls.prompt("{do:horn}").unwrap().to_string(),
        "Press T"
    );
    // Whoever else saves meanwhile loses nothing.
    desk.save(&format!("{written}\n# more\n"));
    let mut draft = desk.controls.draft();
    let _ = draft.bind(desk.cell("horn"), "KeyY".parse().unwrap());
    desk.controls.apply(&mut draft);
    let adopted = desk.bench.adopted(&desk.controls).unwrap();
    let why = desk.bench.write(&adopted, &mut desk.controls).unwrap_err();
    assert!(why.contains("was changed meanwhile"), "{why}");
}

#[test]
fn what_the_check_finds_is_found_here_too() {
    let desk = Desk::new(DEMO);
    let layouts = [Layout::us()];
    assert!(
        findings(&desk.controls, &layouts)
            .iter()
            .all(|f| !f.is_problem)
    );
    let desk = Desk::new(&DEMO.replace("\"KeyF\", \"pad:up\"", "\"KeyE\", \"pad:up\""));
    let found = findings(&desk.controls, &layouts);
    assert!(
        found[0].is_problem && found[0].text.contains("lantern"),
        "{found:?}"
    );
}

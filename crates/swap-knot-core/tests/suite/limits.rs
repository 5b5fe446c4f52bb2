//! Growth: twice as much to read or edit takes about twice the work, counted in allocation and not
//! by a clock; and what could grow without bound has one.

use std::fmt::Write as _;

use crate::common::{cell, chord, demo};
use allocation_counter::measure;
use swap_knot::check::Survey;
use swap_knot::input::Platform;
use swap_knot::remap::{CarriedOver, conflicts};
use swap_knot::sheet::Parameter;
use swap_knot::{Bind, Controls, Draft, Layout, Profile, Rig, Sheet};

/// How many bytes something allocates in all.
fn work(what: impl FnOnce()) -> u64 {
    measure(what).bytes_total
}

/// Twice the size takes at most so much more than twice the work.
fn grows_linearly(what: &str, size: usize, work: impl Fn(usize) -> u64) {
    // What grows with the square shows itself at an eighth of the size, if less plainly.
    let size = 3 * crate::common::worlds(size as u32) as usize;
    let (one, two) = (work(size), work(2 * size));
    let ratio = two as f64 / one as f64;
    assert!(
        ratio < 2.6,
        "{what}: {ratio:.2} times the work for twice the size"
    );
}

fn sheet_with(actions: usize, line: impl Fn(usize) -> String) -> String {
    let mut text = "game = \"big\"\n".to_owned();
    for n in 0..actions {
        writeln!(text, "[actions.action-{n}]\n{}", line(n)).unwrap();
    }
    text
}

#[test]
fn misspelt_names_are_read_in_linear_time() {
    let read = |text: &str| work(|| drop(Sheet::from_toml(text)));
    grows_linearly("unknown situations", 2000, |n| {
        read(&sheet_with(n, |n| format!("situation = \"dck-{n}\"")))
    });
    grows_linearly("unknown keys", 2000, |n| {
        read(&sheet_with(n, |n| format!("bnd-{n} = \"KeyA\"")))
    });
    grows_linearly("unknown groups", 1000, |n| {
        read(&sheet_with(n, |n| format!("group = \"grp-{n}\"")))
    });
    grows_linearly("actions that share with none", 2000, |n| {
        read(&sheet_with(n, |n| format!("share = \"aktion-{n}\"")))
    });
    grows_linearly("rows of a preset", 1000, |n| {
        let mut text = sheet_with(n, |_| String::new());
        for n in 0..n {
            writeln!(text, "[presets.p.bind.aktion-{n}]\nkeyboard-1 = \"KeyA\"").unwrap();
        }
        read(&text)
    });
    let long = format!(
        "game = \"x\"\n[actions.horn]\nbind = \"{}\"",
        "K".repeat(500_000)
    );
    assert!(work(|| drop(Sheet::from_toml(&long))) < 20_000_000);
}

/// Profiles as somebody would make them who means harm, of about that many bytes.
fn hostile(bytes: usize) -> Vec<(&'static str, String)> {
    let many = |line: &dyn Fn(usize) -> String| {
        let mut text = "format = 1\n".to_owned();
        let mut n = 0;
        while text.len() < bytes {
            text += &line(n);
            n += 1;
        }
        text
    };
    vec![
        (
            "rows",
            many(&|n| format!("[bind.r{n}]\nkeyboard-1 = \"KeyA\"\n")),
        ),
        (
            "misspelt chords",
            many(&|n| format!("[bind.s{n}]\nkeyboard-1 = \"Contrl+Shoft+KayK\"\n")),
        ),
        (
            "rows of one action",
            many(&|n| format!("[bind.\"unmoor.r{n}\"]\nkeyboard-1 = \"KeyA\"\n")),
        ),
        ("keys", many(&|n| format!("k{n} = 1\n"))),
        ("dotted keys", many(&|n| format!("a.b.c.d.e.f{n} = 1\n"))),
        (
            "deep tables",
            many(&|n| format!("[a{n}.b.c.d.e.f.g.h.i.j.k.l.m.n.o.p]\nq = 1\n")),
        ),
        (
            "feel",
            many(&|n| format!("[action-feel.r{n}.gamepad]\ncurve = 2\n")),
        ),
        ("lists", many(&|n| format!("l{n} = [[[[[[[[1]]]]]]]]\n"))),
        (
            "inline tables",
            many(&|n| format!("t{n} = {{ a = {{ b = {{ c = 1 }} }} }}\n")),
        ),
    ]
}

#[test]
fn hostile_profiles_are_read_judged_and_written_in_linear_time() {
    let sheet = demo();
    let on = Layout::us();
    for n in 0..hostile(10).len() {
        let what = hostile(10)[n].0;
        grows_linearly(what, 100_000, |bytes| {
            let text = &hostile(bytes)[n].1;
            work(|| {
                let profile = Profile::from_toml(text).unwrap();
                let carried = CarriedOver::new(&sheet, &profile, &on);
                let rig = Rig::new(&sheet, &carried.profile, &on);
                assert!(!rig.not_in_force().is_empty());
                let (merged, _) = profile.merged(
                    &Profile::default(),
                    &carried.profile,
                    swap_knot::keep::Newer::Ours,
                );
                drop(merged.to_toml());
            })
        });
    }
}

/// Who reads what comes of a hostile file reads a page of it, with how much more there is.
#[test]
fn what_is_told_of_a_hostile_profile_is_bounded() {
    let sheet = demo();
    for (what, text) in hostile(300_000) {
        let profile = Profile::from_toml(&text).unwrap();
        let carried = CarriedOver::new(&sheet, &profile, &Layout::us());
        let logged = carried.describe(&sheet).join("\n");
        assert!(logged.len() < 30_000, "{what}: {} bytes", logged.len());
        let mut guest = Controls::new(&sheet, profile, &Layout::us());
        let reports = guest.take_reports();
        let told = guest.telling().lines(&reports);
        assert!(told.len() <= 12, "{what}: {} lines", told.len());
        let last = told.last().map(String::as_str).unwrap_or_default();
        assert!(
            told.len() < 12 || last.starts_with("and "),
            "{what}: {last}"
        );
    }
    let presets = |count: usize| {
        let all: String = (0..count).map(|n| format!("[presets.p-{n}]\n")).collect();
        Sheet::from_toml(&format!(
            "game = \"x\"\n[actions.horn]\nbind = \"KeyH\"\n{all}"
        ))
    };
    assert!(presets(Sheet::MAX_PRESETS).is_ok());
    let error = presets(15_000).unwrap_err().to_string();
    assert!(
        error.contains("at most 256 presets") && error.len() < 300,
        "{error}"
    );
}

#[test]
fn an_edit_costs_by_the_sheet_and_not_by_what_the_profile_keeps_aside() {
    let sheet = demo();
    let edit = |unknown: usize| {
        let mut text = "format = 1\n".to_owned();
        for n in 0..unknown {
            writeln!(text, "[bind.unknown-{n}]\nkeyboard-1 = \"KeyA\"").unwrap();
        }
        let mut draft = Draft::new(&sheet, Profile::from_toml(&text).unwrap(), &Layout::us());
        let horn = cell(&sheet, "horn keyboard-1");
        let spent = work(|| {
            assert!(matches!(draft.bind(horn, chord("KeyN")), Ok(Bind::Done)));
            assert!(draft.undo() && draft.redo());
            assert_eq!(draft.changes().len(), 1);
        });
        assert_eq!(draft.profile().row_names().count(), unknown + 1);
        spent
    };
    let (few, many) = (edit(10), edit(20_000));
    assert!(
        many <= few + few / 10,
        "{few} bytes with ten rows, {many} with twenty thousand"
    );
}

#[test]
fn undo_has_a_bound() {
    let sheet = demo();
    let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
    for n in 0..2500 {
        draft
            .set_parameter("lantern", Parameter::Toggle, n % 2 == 1)
            .map(drop)
            .unwrap();
    }
    let mut undone = 0;
    while draft.undo() {
        undone += 1;
    }
    assert_eq!(undone, 1000);
}

#[test]
fn a_thousand_actions_on_one_key_are_told_within_bounds() {
    let told = |actions: usize| {
        let sheet =
            Sheet::from_toml(&sheet_with(actions, |_| "bind = \"KeyA\"".to_owned())).unwrap();
        let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
        let mut all = 0;
        let spent = work(|| {
            all = conflicts(&sheet, rig.bindings(), &[Layout::us()], Platform::Other).len();
        });
        assert!(all <= 5000, "{all}");
        spent
    };
    let (one, three) = (told(1000), told(3000));
    assert!(
        three < 4 * one,
        "{one} bytes for a thousand, {three} for three thousand"
    );
    assert!(three < 50_000_000, "{three} bytes");
}

/// Places to go instead are looked for once a finding, by what is taken and not by every binding.
#[test]
fn a_survey_of_many_actions_on_a_few_letters_grows_with_what_it_tells() {
    let of = |actions: usize| {
        let letter = |n: usize, by: usize| char::from(b'a' + (n * by % 26) as u8);
        let text = sheet_with(actions, |n| {
            let (one, other) = (letter(n, 1), letter(n, 7).to_ascii_uppercase());
            format!(
                "situation = \"s-{}\"\nbind = [\"letter:{one}\", \"Key{other}\"]",
                n % 10
            )
        });
        let situations: String = (0..10).map(|n| format!("[situations.s-{n}]\n")).collect();
        let sheet = Sheet::from_toml(&text.replacen('\n', &format!("\n{situations}"), 1)).unwrap();
        let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
        let layouts: Vec<Layout> = Layout::widely_used().collect();
        let mut told = 0;
        let spent = work(|| {
            let survey = Survey::new(&sheet, rig.bindings(), &layouts, Platform::Other);
            told = survey.findings().len() + survey.conflicts().len();
        });
        (spent, told as u64)
    };
    let (few, many) = (of(50), of(200));
    let each = [few, many].map(|(spent, told)| spent / told);
    assert!(
        each[1] < each[0] * 2,
        "{few:?} and {many:?}: {each:?} bytes for each finding"
    );
}

#[test]
fn every_setting_of_a_hostile_profile_is_still_there() {
    for (what, text) in hostile(20_000) {
        let profile = Profile::from_toml(&text).unwrap();
        let again = Profile::from_toml(&profile.to_toml()).unwrap();
        assert_eq!(again, profile, "{what}");
        assert!(profile.settings().count() >= 100, "{what}");
    }
}

/// A screen draws its page sixty times a second: what does not change between two pictures is not worked out
/// again, whatever the size of the game.
#[test]
fn a_picture_looks_for_no_conflict_that_was_found_before() {
    let mut text = "game = \"big\"\n".to_owned();
    for n in 0..120 {
        // Every key has five actions, so that there is much to find.
        let key = (b'A' + (n % 24) as u8) as char;
        writeln!(text, "[actions.action-{n}]\nbind = \"Key{key}\"").unwrap();
    }
    let sheet = Sheet::from_toml(&text).unwrap();
    let draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
    let found = work(|| assert!(!draft.conflicts().is_empty()));
    let again = work(|| assert!(!draft.conflicts().is_empty()));
    assert!(found > 100_000 && again == 0, "{found}, then {again}");
    // Any edit has them looked for anew.
    let mut draft = draft;
    let before = draft.conflicts().len();
    draft.unbind(cell(&sheet, "action-0 keyboard-1")).unwrap();
    assert!(draft.conflicts().len() < before);
    draft.apply();
    assert!(draft.changes().is_empty());
    draft.set_layout(&Layout::shipped("de").unwrap());
    assert!(draft.changes().is_empty() && !draft.conflicts().is_empty());
}

#[test]
fn what_could_grow_without_bound_in_a_seat_has_one() {
    let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\nbind = \"KeyH\"").unwrap();
    let mut seat = swap_knot::Seat::new(Rig::new(&sheet, &Profile::default(), &Layout::us()));
    seat.keep_outcomes(usize::MAX);
    // However many numbers of devices there are: one on which nothing is held makes room.
    let press = |seat: &mut swap_knot::Seat, device: u16| {
        for (down, after) in [(true, 0), (false, 1)] {
            let at = swap_knot::Time::from_millis(u64::from(device) * 2 + after);
            let device = swap_knot::DeviceId(device);
            let what = crate::common::what::key(swap_knot::Place::KeyH, down);
            seat.feed(&swap_knot::Event { at, device, what });
            seat.tick(at);
        }
    };
    (0..5_000).for_each(|device| press(&mut seat, device));
    assert!(seat.held().devices().count() < 100);
    assert_eq!(seat.outcomes().count(), 5_000);
}

/// More names of touch inputs than there are numbers for: what has none is told, and nothing else is worked.
#[test]
fn more_touch_names_than_fit_are_told() {
    let mut text = "game = \"x\"\n".to_owned();
    for action in 0..1_000 {
        let name = |n: u32| format!("\"touch:n{}\"", action * 36 + n);
        let all: Vec<String> = (0..36).map(name).collect();
        let _ = writeln!(text, "[actions.a{action}]\nbind = [{}]", all.join(", "));
    }
    let Ok(sheet) = Sheet::from_toml(&text) else {
        return;
    };
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    assert!(
        rig.notes()
            .iter()
            .any(|note| matches!(note, swap_knot::play::RigNote::TooMany { .. }))
    );
}

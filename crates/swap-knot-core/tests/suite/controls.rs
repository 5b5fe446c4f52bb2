//! One player's controls in one piece: learned, edited, spoken, kept, and never waiting for a file.

use std::collections::BTreeMap;
use std::sync::atomic::Ordering;

use crate::common::disk::Watched;
use crate::common::{cell, chord, demo, sheet, what};
use proptest::prelude::*;
use swap_knot::input::Simulated;
use swap_knot::keep::{Errand, ErrandOutcome, LockerErrorKind, Saving, SavingDone, Store};
use swap_knot::play::Report;
use swap_knot::{
    Bind, Chord, Controls, DeviceId, Event, EventKind, Layout, Locker, Place, Profile, Sheet, Slug,
    Time, Words,
};

fn ada() -> Slug {
    "ada".parse().unwrap()
}

fn open(sheet: &Sheet, store: &(impl Store + Clone + 'static)) -> Controls {
    Controls::open(
        sheet,
        Locker::in_store(store.clone()),
        &ada(),
        &Layout::us(),
    )
}

fn bind(controls: &mut Controls, sheet: &Sheet, at: &str, to: &str) {
    let mut draft = controls.draft();
    let bound = draft.bind(cell(sheet, at), chord(to)).unwrap();
    assert!(
        matches!(bound, swap_knot::Bind::Done),
        "{at} = {to}: {bound:?}"
    );
    controls.apply(&mut draft);
}

/// A press that says what the key types.
fn types(keyboard: &mut Simulated, place: Place, text: char) -> Event {
    let mut event = keyboard.key(place);
    event.what = EventKind::Key {
        place,
        down: true,
        text: Some(text),
    };
    event
}

#[test]
fn a_player_is_learned_spoken_to_and_remembered() {
    let (sheet, store) = (demo(), Watched::default());
    let mut controls = open(&sheet, &store);
    assert!(controls.take_reports().is_empty() && !controls.wants_saving());
    let opening = store.calls();

    // A player in France presses the key that types z there; prompts follow without a word.
    let walk = "{walk.up}";
    assert_eq!(controls.prompt(walk).unwrap().to_string(), "W");
    let mut keyboard = Simulated::new(DeviceId(0));
    // A menu that is asked first judges on the layout of that very press.
    controls.offer(&types(&mut keyboard, Place::KeyW, 'z'), |_, layout| {
        assert_eq!(layout.name(), "fr");
        false
    });
    controls.tick(keyboard.now());
    assert!(controls.seat().is_down(sheet.find_row("walk.up").unwrap()));
    assert_eq!(controls.resolver().layout().name(), "fr");
    assert_eq!(controls.prompt(walk).unwrap().to_string(), "Z");
    controls.feed(&keyboard.key_up(Place::KeyW));

    controls.set_words(&Words::shipped("fr").unwrap());
    let phrase = controls.prompt("{do:horn}").unwrap().to_string();
    bind(&mut controls, &sheet, "horn keyboard-1", "KeyN");
    assert_ne!(controls.prompt("{do:horn}").unwrap().to_string(), phrase);
    assert!(controls.prompt("{do:no-such-action}").is_err());
    for frame in 0..200 {
        let _ = controls.prompt(&format!("{{horn}}, {frame}")).unwrap();
        controls.tick(keyboard.now());
    }
    let here = Layout::shipped("fr").unwrap();
    assert!(controls.resolver().layout() == &here && controls.wants_saving());
    // A frame costs nothing that the machine would notice, and touched no file until here.
    let mut frame = |controls: &mut Controls| {
        controls.feed(&types(&mut keyboard, Place::KeyW, 'z'));
        controls.feed(&keyboard.key_up(Place::KeyW));
        controls.tick(keyboard.now());
        let _ = controls.prompt("{do:horn}").unwrap();
        assert!(controls.wants_saving());
    };
    (0..100).for_each(|_| frame(&mut controls));
    let spent = allocation_counter::measure(|| (0..100).for_each(|_| frame(&mut controls)));
    assert_eq!(spent.count_total, 0);
    assert_eq!(store.calls(), opening);
    assert!(controls.wants_saving() && controls.save() && controls.take_reports().is_empty());

    // Chosen is chosen: typing does not change it, here and in the next run.
    controls.choose_layout(Some(&Layout::shipped("de").unwrap()));
    assert!(controls.save());
    let mut again = open(&sheet, &store);
    again.feed(&types(&mut keyboard, Place::KeyQ, 'a'));
    again.follow_layout(&Layout::us());
    assert_eq!(again.resolver().layout().name(), "de");
    assert_eq!(again.prompt("{horn}").unwrap().to_string(), "N");
    again.choose_layout(None);
    again.feed(&types(&mut keyboard, Place::KeyQ, 'a'));
    assert_eq!(again.resolver().layout().name(), "fr");
    assert!(again.save());
    assert_eq!(open(&sheet, &store).profile().layout(), None);
}

#[test]
fn what_cannot_be_saved_is_told_once_and_tried_again() {
    let (sheet, store) = (demo(), Watched::default());
    let mut controls = open(&sheet, &store);
    bind(&mut controls, &sheet, "horn keyboard-1", "KeyN");
    store.is_down.store(true, Ordering::Relaxed);
    let mut told = 0;
    for second in 0..60 {
        controls.tick(swap_knot::Time::from_millis(second * 1000));
        if let Some(saving) = controls.saving() {
            controls.saved(saving.run());
        }
        told += controls.take_reports().len();
    }
    assert_eq!(told, 1);
    assert!(store.calls() < 30, "{} calls", store.calls());
    // Who asks for it is answered each time.
    assert!(!controls.save());
    let [Report::CannotSave(why)] = &controls.take_reports()[..] else {
        panic!("it failed");
    };
    assert!(matches!(why.kind(), LockerErrorKind::Disk(_)));
    controls.set_words(&Words::shipped("de").unwrap());
    // A store of the game's own says why, and is not asked for room.
    assert_eq!(controls.tell(why), "Das ging nicht: the disk is full");
    // What the library or the system says in English is told in words.
    let folder = tempfile::tempdir().unwrap();
    std::fs::create_dir(folder.path().join("lock")).unwrap();
    let locker = Locker::open(folder.path()).unwrap();
    let why = locker
        .save(&ada(), &Profile::new("Ada"), &sheet)
        .unwrap_err();
    assert!(
        controls.tell(&why).starts_with("Das Profil"),
        "{}",
        controls.tell(&why)
    );
    store.is_down.store(false, Ordering::Relaxed);
    assert!(controls.save());
    assert_eq!(open(&sheet, &store).profile(), controls.profile());
}

/// A menu of the game's own hears what came of what it sent, as the screen would.
#[test]
fn what_comes_of_an_errand_is_told_without_a_screen() {
    let (sheet, store) = (demo(), Watched::default());
    let mut controls = open(&sheet, &store);
    bind(&mut controls, &sheet, "horn keyboard-1", "KeyN");
    assert!(controls.send(Errand::Export(ada())) && controls.save());
    let [Report::Errand(done)] = &controls.take_reports()[..] else {
        panic!("it was sent")
    };
    let Ok(ErrandOutcome::Text(text)) = &done.outcome else {
        panic!("{done:?}")
    };
    assert!(text.contains("KeyN") && controls.tell(&**done).is_empty());
    assert_eq!(done.roster.as_ref().unwrap().there.len(), 1);

    let nobody = "bea".parse().unwrap();
    assert!(controls.send(Errand::Delete(nobody)) && controls.save());
    let reports = controls.take_reports();
    let told = controls.telling().lines(&reports);
    assert_eq!(told, ["This profile is no longer there."]);
    // Where the screen is open it tells, and nobody a second time.
    controls.open_screen(Time::ZERO);
    controls.save();
    controls.take_reports();
    controls.send(Errand::Delete("bea".parse().unwrap()));
    controls.save();
    assert!(controls.take_reports().is_empty());
    let message = controls.screen_mut().unwrap().view().message.clone();
    assert_eq!(message.as_deref(), Some("This profile is no longer there."));
}

#[test]
fn another_games_profile_and_a_damaged_line_are_told_by_name() {
    let sheet = demo();
    let text =
        "format = 1\ngame = \"dry-land\"\n[bind.horn]\nkeyboard-1 = \"KyE\"\n[fog]\nlamp = 3";
    let mut guest = Controls::new(&sheet, Profile::from_toml(text).unwrap(), &Layout::us());
    let reports = guest.take_reports();
    let told = guest.telling().lines(&reports);
    assert_eq!(
        told,
        [
            "This profile comes from another game (dry-land). What fits this game is used.",
            "Horn (Keyboard and mouse): \"KyE\" has no effect. This version of the game does not know this setting.",
            "A setting from another version: 3 has no effect. This version of the game does not know this setting.",
        ]
    );
    // It is told once, and not whenever the sheet is read again.
    guest.follow_sheet(&sheet);
    let reports = guest.take_reports();
    let again = guest.telling().lines(&reports).join("\n");
    assert!(!again.contains("dry-land"), "{again}");
    let mut guest = Controls::new(&sheet, Profile::new("Ada"), &Layout::us());
    assert!(guest.take_reports().is_empty(), "one that names no game");
}

#[test]
fn what_was_wrong_at_the_start_is_told_and_nothing_is_lost() {
    let (sheet, store) = (demo(), Watched::default());
    store.inner.replace("ada.toml", b"[bind").unwrap();
    let mut controls = open(&sheet, &store);
    assert!(matches!(
        controls.take_reports()[..],
        [Report::Load(swap_knot::keep::LoadNote::CannotRead { .. })]
    ));
    // Nothing was changed: nothing is written over the damaged file.
    assert!(controls.save());
    assert_eq!(store.inner.read("ada.toml", 100).unwrap(), b"[bind");
    bind(&mut controls, &sheet, "horn keyboard-1", "KeyN");
    assert!(controls.save());
    assert!(matches!(controls.take_reports()[..], [Report::Saved(_)]));
    assert_eq!(store.inner.read("ada.damaged-1", 100).unwrap(), b"[bind");

    // A profile for what this version does not have in this way.
    let odd = Profile::from_toml("format = 1\n[bind.no-such-action]\nkeyboard-1 = \"KeyN\"");
    let mut guest = Controls::new(&sheet, odd.unwrap(), &Layout::us());
    assert!(matches!(guest.take_reports()[..], [Report::CarriedOver(_)]));
    assert!(guest.saving().is_none() && guest.save() && guest.kept_in().is_none());
}

#[test]
fn another_layout_and_another_copy_of_the_game_tell_what_they_bring_about() {
    // By letter and by place: one key in France, two in America.
    let sheet = sheet(
        "game = \"test\"\n[actions.bell]\nbind = \"letter:a\"\n[actions.horn]\nbind = \"KeyX\"\n\
         [actions.flag]\nbind = \"KeyF\"\n",
    );
    let store = Watched::default();
    let mut controls = open(&sheet, &store);
    bind(&mut controls, &sheet, "horn keyboard-1", "KeyQ");
    assert!(controls.save() && controls.take_reports().is_empty());
    controls.follow_layout(&Layout::shipped("fr").unwrap());
    let reports = controls.take_reports();
    assert!(matches!(reports[..], [Report::Conflict(_)]), "{reports:?}");
    let text = controls.tell(&reports[0]);
    assert!(text.contains("Bell") && text.contains("Horn"), "{text}");
    controls.follow_layout(&Layout::us());
    assert!(controls.take_reports().is_empty());

    // Another copy binds the flag to a key that this one gives to the bell, while a draft is open.
    let mut other = open(&sheet, &store);
    let mut draft = controls.draft();
    let _ = draft
        .bind(cell(&sheet, "bell keyboard-1"), chord("KeyG"))
        .unwrap();
    bind(&mut other, &sheet, "flag keyboard-1", "KeyG");
    assert!(other.save());
    controls.apply(&mut draft);
    assert!(controls.save());
    let reports = controls.take_reports();
    assert!(
        matches!(reports[..], [Report::Saved(_), Report::Conflict(_)]),
        "{reports:?}"
    );
    for report in &reports {
        assert_eq!(controls.tell(report).lines().count(), 1, "{report:?}");
    }
    // What came of another player's save is not taken for one's own.
    bind(&mut other, &sheet, "horn keyboard-1", "KeyK");
    let (mine, theirs) = (controls.profile().clone(), other.saving().unwrap().run());
    controls.saved(theirs);
    assert!(*controls.profile() == mine && other.wants_saving());
    bind(&mut other, &sheet, "horn keyboard-1", "KeyQ");
    assert!(other.save());
    // The draft knows nothing of the flag, and applying it again does not take it back.
    let _ = draft
        .bind(cell(&sheet, "bell keyboard-1"), chord("KeyB"))
        .unwrap();
    controls.apply(&mut draft);
    assert!(controls.take_reports().is_empty());
    assert_eq!(controls.prompt("{flag} {bell}").unwrap().to_string(), "G B");
}

/// What a hand can do to one of two copies of a game that keep one player in one place.
#[derive(Clone, Copy, Debug)]
enum Step {
    Bind(usize, usize),
    Begin,
    Run,
    HandOver,
    Drop,
    Break(bool),
}

fn steps() -> impl Strategy<Value = Vec<(usize, Step)>> {
    let step = prop_oneof![
        4 => (0..3_usize, 0..4_usize).prop_map(|(row, key)| Step::Bind(row, key)),
        3 => Just(Step::Begin),
        3 => Just(Step::Run),
        3 => Just(Step::HandOver),
        1 => Just(Step::Drop),
        1 => any::<bool>().prop_map(Step::Break),
    ];
    prop::collection::vec((0..2_usize, step), 1..60)
}

/// Two copies, each of which edits actions of its own; the keys that an action can have are its own
/// too, so that the last word of each is all there is to know.
fn play_two(steps: Vec<(usize, Step)>) {
    const KEYS: &str = "ABCDEFGHIJKLMNOPQRSTUVWX";
    let key = |action: usize, n: usize| -> Chord {
        chord(&format!("Key{}", &KEYS[action * 4 + n..=action * 4 + n]))
    };
    let mut text = "game = \"test\"\n".to_owned();
    for action in 0..6 {
        text += &format!("[actions.a{action}]\nbind = \"{}\"\n", key(action, 0));
    }
    let (sheet, store) = (sheet(&text), Watched::default());
    let mut copies = [open(&sheet, &store), open(&sheet, &store)];
    let mut under_way: [Option<Saving>; 2] = [None, None];
    let mut run: [Option<SavingDone>; 2] = [None, None];
    let mut last_word = BTreeMap::new();
    for (who, step) in steps {
        match step {
            Step::Bind(row, n) => {
                let action = who * 3 + row;
                let at = format!("a{action} keyboard-1");
                let mut draft = copies[who].draft();
                let _ = draft.bind(cell(&sheet, &at), key(action, n)).unwrap();
                if n % 2 == 1 {
                    // As a menu does it that knows nothing of who plays.
                    draft.apply();
                }
                copies[who].apply(&mut draft);
                last_word.insert(at, key(action, n));
            }
            Step::Begin => {
                let is_busy = under_way[who].is_some() || run[who].is_some();
                let saving = copies[who].saving();
                // Two saves of one player never overtake each other.
                assert!(!is_busy || saving.is_none());
                under_way[who] = under_way[who].take().or(saving);
            }
            Step::Run => {
                if let Some(saving) = under_way[who].take() {
                    run[who] = Some(saving.run());
                }
            }
            Step::HandOver => {
                if let Some(done) = run[who].take() {
                    copies[who].saved(done);
                }
            }
            Step::Drop => under_way[who] = None,
            Step::Break(is_down) => store.is_down.store(is_down, Ordering::Relaxed),
        }
        // The player's own last word is what is played, whatever is saved meanwhile.
        for (at, chord) in last_word.iter().filter(|(at, _)| owner(at) == who) {
            let bound = copies[who].seat().rig().binding_in(cell(&sheet, at));
            assert_eq!(bound.map(|b| &b.chord), Some(chord));
        }
    }
    store.is_down.store(false, Ordering::Relaxed);
    for who in [0, 1] {
        if let Some(done) = run[who].take().or(under_way[who].take().map(Saving::run)) {
            copies[who].saved(done);
        }
    }
    // Both save until each has heard of the other.
    for who in [0, 1, 0] {
        let title = copies[who].profile().title().to_owned();
        assert_eq!(title, "ada");
        assert!(copies[who].save());
    }
    let kept = open(&sheet, &store);
    for (at, chord) in &last_word {
        let bound = kept.seat().rig().binding_in(cell(&sheet, at));
        assert_eq!(bound.map(|b| &b.chord), Some(chord), "{at}");
    }
}

/// Which copy edits a cell.
fn owner(at: &str) -> usize {
    usize::from(&at[1..2] >= "3")
}

proptest! {
    #![proptest_config(ProptestConfig { cases: crate::common::worlds(400), ..ProptestConfig::default() })]
    #[test]
    fn no_last_word_is_lost_between_two_copies(steps in steps()) {
        play_two(steps);
    }
}

#[test]
fn prompts_go_by_the_ids_of_the_games_own_texts_and_follow_the_language() {
    let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\nbind = \"KeyH\"").unwrap();
    let mut controls = Controls::new(&sheet, Profile::new("Ada"), &Layout::us());
    let text = "blow = {\"{do:horn}\"} now\nmany = { $n ->\n   *[other] x\n }\n";
    let words = Words::english().with_texts(text, "en.ftl").unwrap();
    controls.set_words(&words);
    assert_eq!(
        controls.prompt_of("blow").unwrap().to_string(),
        "Press H now"
    );
    let german = Words::nearest("de");
    let german = german
        .with_texts("blow = Jetzt {\"{do:horn}\"}", "de.ftl")
        .unwrap();
    controls.set_words(&german);
    assert_eq!(
        controls.prompt_of("blow").unwrap().to_string(),
        "Jetzt drücke H"
    );
    controls.set_words(&words);
    let told = controls.prompt_of("many").unwrap_err().to_string();
    assert!(told.contains("there is no text `many` (en)"), "{told}");
    assert!(controls.prompt_of("blwo").is_err());
    controls.set_words(&words.bracketed());
    let told = controls.prompt_of("blow").unwrap().to_string();
    assert!(told.starts_with('⟦') && told.ends_with(" now⟧"), "{told}");
}

/// The developer's file is read again while the game runs: what is held, chosen and edited goes on.
#[test]
fn another_version_of_the_sheet_is_followed_in_play() {
    let text = include_str!("../../../../demo/slack-water.toml");
    let sheet = demo();
    let profile = Profile::from_toml(
        "format = 1\nsheet = 3\n[bind.horn]\nkeyboard-1 = \"KeyG\"\n[bind.lantern]\nkeyboard-1 = \"KeyO\"",
    );
    let mut controls = Controls::new(&sheet, profile.unwrap(), &Layout::us());
    let mut now = 0;
    let mut key = |controls: &mut Controls, place, down| {
        now += 10;
        let (at, device) = (Time::from_millis(now), DeviceId(0));
        let what = what::key(place, down);
        controls.feed(&Event { at, device, what });
        controls.tick(at);
    };
    controls.take_reports();
    key(&mut controls, Place::KeyW, true);
    let walk = |c: &Controls| {
        c.seat()
            .is_down(c.seat().rig().sheet().find("walk").unwrap())
    };
    assert!(walk(&controls));
    assert_eq!(controls.prompt("{cast-off}").unwrap().to_string(), "Space");
    // Moved, renamed, and with a default that the player has given to something else.
    let other = text
        .replace(
            "bind = [\"KeyE\", \"mouse:left\"",
            "bind = [\"KeyO\", \"mouse:left\"",
        )
        .replace("[actions.lantern]", "[actions.lamp]")
        .replace("lantern = {", "lamp = {")
        .replace("whistle = \"horn\"", "lantern = \"lamp\"")
        .replace("version = 3", "version = 4");
    let other = Sheet::from_toml(&other).unwrap();
    controls.follow_sheet(&other);
    assert!(walk(&controls), "what is held plays on");
    key(&mut controls, Place::KeyW, true);
    assert_eq!(controls.seat().happened().len(), 0);
    assert_eq!(controls.prompt("{do:lamp}").unwrap().to_string(), "Press O");
    let coil = controls.prompt("{coil-rope}").unwrap().to_string();
    assert_eq!(coil, "left mouse button", "its new key gave way");
    let reports = controls.take_reports();
    let told = controls.telling().lines(&reports).join("\n");
    assert!(told.contains("Coil the rope"), "{told}");
    // With the screen open, and something edited that is not applied.
    let at = Time::from_millis(500);
    controls.open_screen(at);
    let screen = controls.screen_mut().unwrap();
    let bound = screen
        .draft_mut()
        .bind(cell(&other, "horn keyboard-1"), chord("KeyT"));
    assert!(matches!(bound.unwrap(), Bind::Done));
    controls.follow_sheet(&sheet);
    let screen = controls.screen_mut().unwrap();
    assert_eq!(screen.draft().sheet().version(), 3);
    assert!(screen.draft().is_changed());
    let edited = screen.draft().chord_in(cell(&sheet, "horn keyboard-1"));
    assert_eq!(edited, Some(&chord("KeyT")));
    assert!(screen.view().items().count() > 10);
    assert!(controls.take_reports().len() < 4);
    // The same sheet read again says nothing.
    let mut plain = Controls::new(&sheet, Profile::default(), &Layout::us());
    plain.follow_sheet(&Sheet::from_toml(text).unwrap());
    assert!(plain.take_reports().is_empty());
}

/// Who edits a default while the game runs, and does not see it change, is told why at once.
#[test]
fn a_default_that_the_profile_hides_is_told_when_it_is_edited() {
    let text = include_str!("../../../../demo/slack-water.toml");
    let edited = |from: &str, to: &str| {
        let new = text.replacen(from, to, 1);
        assert_ne!(new, text, "{from}");
        Sheet::from_toml(&new).unwrap()
    };
    let sheet = demo();
    let profile = "format = 1\nsheet = 3\n[bind.horn]\nkeyboard-1 = \"KeyG\"\n[feel.mouse]\nsensitivity = 2\n";
    let mut controls = Controls::new(&sheet, Profile::from_toml(profile).unwrap(), &Layout::us());
    controls.take_reports();
    let told = |controls: &mut Controls| {
        let reports = controls.take_reports();
        controls.telling().lines(&reports)
    };
    // What the profile says nothing of shows by itself.
    controls.follow_sheet(&edited("bind = [\"KeyE\"", "bind = [\"KeyV\""));
    assert!(told(&mut controls).is_empty() && controls.hidden_defaults().is_empty());
    controls.follow_sheet(&edited("bind = [\"KeyH\"", "bind = [\"KeyV\""));
    let said =
        "Horn (Keyboard and mouse) is V in the game’s file now. Your profile has G, which is used.";
    assert_eq!(told(&mut controls), [said]);
    let log =
        "horn keyboard-1 is KeyV in the sheet now, and KeyG in the profile, which is played with";
    assert_eq!(controls.hidden_defaults()[0].to_string(), log);
    // Another edit, of what the profile sets as well.
    controls.follow_sheet(&edited(
        "[actions.horn]",
        "[feel.mouse]\nsensitivity = 1.5\n\n[actions.horn]",
    ));
    let now = told(&mut controls);
    assert_eq!(now.len(), 2, "{now:?}");
    // Without the profile the default plays, nothing of it is lost, and it comes back.
    let before = controls.profile().clone();
    assert_eq!(controls.prompt("{horn}").unwrap().to_string(), "G");
    controls.play_by_defaults(true);
    assert_eq!(controls.prompt("{horn}").unwrap().to_string(), "H");
    assert_eq!(controls.profile(), &before);
    controls.play_by_defaults(false);
    assert_eq!(controls.prompt("{horn}").unwrap().to_string(), "G");
    // What is applied is meant to be played.
    controls.play_by_defaults(true);
    let sheet = controls.seat().rig().sheet().clone();
    bind(&mut controls, &sheet, "horn keyboard-1", "KeyN");
    assert!(!controls.plays_by_defaults() && controls.hidden_defaults().is_empty());
    assert_eq!(controls.prompt("{horn}").unwrap().to_string(), "N");
}

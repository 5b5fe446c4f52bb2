//! `swap-knot demo`: the whole story on Slack Water, stage by stage.

use std::error::Error;
use std::io::Write;

use swap_knot::input::Held;
use swap_knot::remap::{Heard, Listener, Question, Reset};
use swap_knot::sheet::{Column, ColumnKind};
use swap_knot::{
    Bind, Cell, Chord, DeviceId, DeviceKind, Draft, Event, EventKind, Layout, Locker, MouseButton,
    Place, Profile, Prompt, Rig, Seat, Settle, Sheet, Slug, Time, Trace, Words,
};

use crate::table::{BAD, GOOD, HEAD, QUIET, columns, styled};
use crate::{CLEAN, Done, timeline};

const SHEET: &str = include_str!("../demo/slack-water.toml");
const TRACE: &str = include_str!("../demo/cast-off.trace");
const PROMPT: &str = "{do:cast-off} to leave, {walk} to walk";

type Step = Result<(), Box<dyn Error>>;

pub(crate) fn run() -> Done {
    let mut out = anstream::stdout().lock();
    let out = &mut out;
    let sheet = Sheet::from_toml_named(SHEET, "demo/slack-water.toml")?;
    let us = Layout::us();
    writeln!(
        out,
        "{}",
        styled(
            HEAD,
            "Slack Water, a salvage barge on an estuary: its controls"
        )
    )?;

    stage(out, 1, "The defaults, as declared in demo/slack-water.toml")?;
    defaults(out, &sheet, &us)?;

    stage(
        out,
        2,
        "Played: demo/traces/cast-off.trace, 60 ticks a second",
    )?;
    let mut seat = Seat::new(Rig::new(&sheet, &Profile::new("Ada"), &us));
    let (sheet, played) = timeline::play(&mut seat, &TRACE.parse::<Trace>()?, false)?;
    for line in played.iter().map(|e| e.line(&sheet)) {
        writeln!(out, "  {line}")?;
    }

    stage(
        out,
        3,
        "Remapped: Ada clicks Cast off and presses F, which is taken",
    )?;
    let before = seat.rig().clone();
    let mut draft = Draft::new(&sheet, Profile::new("Ada"), &us);
    remap(out, &mut draft)?;

    stage(out, 4, "Saved, and read back in the next run")?;
    let profile = keep(out, &sheet, &draft.profile())?;

    stage(out, 5, &format!("Prompted: \"{PROMPT}\""))?;
    prompts(out, &before, &profile)?;

    stage(out, 6, "Reset: one action, then everything")?;
    reset(out, &sheet, profile)?;
    Ok(CLEAN)
}

fn stage(out: &mut impl Write, number: u8, title: &str) -> Step {
    writeln!(out, "\n{}", styled(HEAD, &format!("{number}. {title}")))?;
    Ok(())
}

fn defaults(out: &mut impl Write, sheet: &Sheet, layout: &Layout) -> Step {
    let draft = Draft::new(sheet, Profile::default(), layout);
    let shown = draft.columns();
    let mut heading = vec![String::new()];
    heading.extend(shown.iter().map(Column::to_string));
    let mut rows = vec![heading];
    let mut group = None;
    for row in draft.rows(&shown) {
        if row.cells.iter().all(|c| c.chord.is_none()) {
            continue;
        }
        if group.replace(row.group) != Some(row.group) {
            rows.push(vec![sheet.group_title(row.group).to_owned()]);
        }
        let mut line = vec![format!("  {}", row.title)];
        let name = |c: &Chord| Words::english().chord_name(c, layout);
        line.extend(
            row.cells
                .iter()
                .map(|c| c.chord.as_ref().map_or_else(String::new, name)),
        );
        rows.push(line);
    }
    write!(out, "{}", columns(2, &rows))?;
    Ok(())
}

/// The first binding of cast-off on the keyboard.
fn cast_off(sheet: &Sheet) -> Result<Cell, Box<dyn Error>> {
    let row = sheet
        .find_row("cast-off")
        .ok_or("the demo sheet declares cast-off")?;
    Ok(row.cell(Column::new(ColumnKind::Keyboard, 1)))
}

fn remap(out: &mut impl Write, draft: &mut Draft) -> Step {
    let cell = cast_off(draft.sheet())?;
    let heard = listen(draft, cell)?;
    writeln!(out, "  heard: {heard}")?;
    let Bind::Asks(question) = draft.bind(cell, heard)? else {
        return Err("F is taken in the demo sheet".into());
    };
    ask(out, draft, &question)?;
    writeln!(out, "  Ada chooses: {}", styled(GOOD, "swap"))?;
    match draft.answer(question, Settle::Swap)? {
        Bind::Done => {}
        Bind::Asks(next) => return Err(next.describe(draft.sheet()).into()),
    }
    draft.apply();
    Ok(())
}

/// What a listener makes of the click on the cell and the key after it.
fn listen(draft: &Draft, cell: Cell) -> Result<Chord, Box<dyn Error>> {
    let event = |ms, what| Event {
        at: Time::from_millis(ms),
        device: DeviceId(0),
        what,
    };
    let key = |down| EventKind::Key {
        place: Place::KeyF,
        down,
        text: None,
    };
    let up = EventKind::MouseButton {
        button: MouseButton::Left,
        down: false,
    };
    let click = EventKind::MouseButton {
        button: MouseButton::Left,
        down: true,
    };
    let mut held = Held::new();
    held.feed(&event(0, click));
    let options = draft.listens_for(cell);
    let mut listener = Listener::new(options, &held);
    for event in [event(80, up), event(900, key(true)), event(980, key(false))] {
        if let Heard::Chord(chord) = listener.hear(&event) {
            return Ok(chord);
        }
    }
    Err("the listener heard nothing".into())
}

fn ask(out: &mut impl Write, draft: &Draft, question: &Question) -> Step {
    let sheet = draft.sheet();
    let layout = draft.layout();
    writeln!(
        out,
        "  {} {}",
        styled(BAD, "conflict:"),
        question.describe(sheet)
    )?;
    let name = |chord: &Option<Chord>| match chord {
        Some(chord) => Words::english().chord_name(chord, layout),
        None => "nothing".to_owned(),
    };
    for way in question.ways() {
        let text = match &way.refused {
            Some(why) => styled(QUIET, &format!("not offered: {why}")),
            None if way.effects.is_empty() => "nothing changes".to_owned(),
            None => {
                let change = |e: &swap_knot::remap::Effect| {
                    let title = sheet.row_title(e.cell.row);
                    format!("{title}: {} → {}", name(&e.before), name(&e.after))
                };
                let mut parts: Vec<String> = way.effects.iter().map(change).collect();
                parts.extend(
                    way.conflicts
                        .iter()
                        .map(|c| format!("conflict: {}", c.describe(sheet))),
                );
                parts.join("; ")
            }
        };
        writeln!(out, "    {:<9} {text}", way.settle.word())?;
    }
    Ok(())
}

fn keep(out: &mut impl Write, sheet: &Sheet, profile: &Profile) -> Result<Profile, Box<dyn Error>> {
    let folder = tempfile::tempdir()?;
    let name = Slug::from_title(profile.title());
    Locker::open(folder.path())?.save(&name, profile, sheet)?;
    let text = std::fs::read_to_string(folder.path().join(format!("{name}.toml")))?;
    for line in text.lines() {
        writeln!(out, "  {}", styled(QUIET, &format!("| {line}")))?;
    }
    let loaded = Locker::open(folder.path())?.load(&name);
    let same = loaded.profile.changes(sheet) == profile.changes(sheet);
    let word = match same && loaded.notes.is_empty() {
        true => styled(GOOD, "the same changes"),
        false => styled(BAD, "something else"),
    };
    writeln!(out, "  read back from {name}.toml: {word}")?;
    Ok(loaded.profile)
}

fn prompts(out: &mut impl Write, before: &Rig, profile: &Profile) -> Step {
    let sheet = before.sheet();
    let mut prompt = Prompt::new(PROMPT, sheet)?;
    let mut rows = vec![
        ["layout", "device", "before", "after"]
            .map(str::to_owned)
            .to_vec(),
    ];
    for layout in ["us", "fr"].into_iter().filter_map(Layout::shipped) {
        for device in [DeviceKind::Keyboard, DeviceKind::Gamepad] {
            let mut shown = |profile: &Profile| {
                let rig = Rig::new(sheet, profile, &layout);
                prompt.render(&rig, device).to_string()
            };
            let (before, after) = (shown(&Profile::default()), shown(profile));
            let after = match after == before {
                true => "the same".to_owned(),
                false => after,
            };
            let (layout, device) = (layout.name().to_owned(), device.to_string());
            rows.push(vec![layout, device, before, after]);
        }
    }
    write!(out, "{}", columns(2, &rows))?;
    Ok(())
}

fn reset(out: &mut impl Write, sheet: &Sheet, profile: Profile) -> Step {
    let us = Layout::us();
    let mut draft = Draft::new(sheet, profile, &us);
    let cell = cast_off(sheet)?;
    draft.reset(Reset::Action(cell.row.action))?;
    let name = |chord: Option<&Chord>| {
        chord.map_or_else(String::new, |c| Words::english().chord_name(c, &us))
    };
    writeln!(
        out,
        "  Cast off reset: it is on {} again",
        name(draft.chord_in(cell))
    )?;
    for conflict in draft.conflicts().iter().filter(|c| c.class.is_conflict()) {
        writeln!(
            out,
            "  {} {}",
            styled(BAD, "conflict:"),
            conflict.describe(sheet)
        )?;
    }
    draft.reset(Reset::All)?;
    let left = draft.profile().changes(sheet).len();
    writeln!(
        out,
        "  everything reset: {left} changes left, {} conflicts",
        draft.conflicts().len()
    )?;
    Ok(())
}

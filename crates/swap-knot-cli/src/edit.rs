//! `swap-knot bind`, `unbind` and `reset`: a player's profile changed from the command line.

use std::io::Write as _;

use clap::ValueEnum;
use serde_json::json;
use swap_knot::input::InputError;
use swap_knot::keep::{Setting, SettingValue};
use swap_knot::remap::{Effect, Question, Reset};
use swap_knot::sheet::{Column, ColumnKind};
use swap_knot::{Bind, Cell, Chord, Draft, Settle};

use crate::profile_args::{ProfileArgs, change_json, row};
use crate::table::{BAD, GOOD, QUIET, styled};
use crate::{CLEAN, Done, FOUND};

/// How to settle a conflict.
#[derive(Clone, Copy, Debug, ValueEnum)]
pub(crate) enum How {
    /// The other action gets what this one had.
    Swap,
    /// The other action loses it.
    Take,
    /// Both keep it, where the game lets them.
    Share,
}

impl From<How> for Settle {
    fn from(how: How) -> Self {
        match how {
            How::Swap => Settle::Swap,
            How::Take => Settle::Take,
            How::Share => Settle::Share,
        }
    }
}

/// The options of `bind`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot bind demo/slack-water.toml cast-off KeyF --profile ada.toml --settle swap\n\nOnto a taken input without --settle it changes nothing, prints every way out with what it would\ndo, and exits 1."
)]
pub(crate) struct BindArgs {
    #[command(flatten)]
    of: ProfileArgs,
    /// The action, or one arm of it, as in `walk.up`.
    action: String,
    /// The input or chord, as in `KeyF`, `Ctrl+KeyK` or `pad:south`.
    #[arg(value_parser = chord)]
    input: Chord,
    /// The column; the first for the input's device, if left out.
    #[arg(long, value_name = "COLUMN")]
    column: Option<Column>,
    /// How to settle conflicts, if there are any.
    #[arg(long, value_enum)]
    settle: Option<How>,
}

fn chord(text: &str) -> Result<Chord, InputError> {
    text.parse()
}

pub(crate) fn bind(args: &BindArgs) -> Done {
    let mut draft = args.of.draft()?;
    let row = row(draft.sheet(), &args.action)?;
    let first = Column::new(ColumnKind::of(args.input.device_kind()), 1);
    let cell = row.cell(args.column.unwrap_or(first));
    let asks = draft.bind(cell, args.input.clone())?;
    match settled(&mut draft, asks, args.settle, args.of.json)? {
        Some(code) => Ok(code),
        None => told(&args.of, &mut draft),
    }
}

/// Answers every question in the same way; without one the first is printed, and its exit code
/// answered.
pub(crate) fn settled(
    draft: &mut Draft,
    mut next: Bind,
    how: Option<How>,
    as_json: bool,
) -> Result<Option<u8>, Box<dyn std::error::Error>> {
    while let Bind::Asks(question) = next {
        match how {
            Some(how) => next = draft.answer(question, how.into())?,
            None => return ask(draft, &question, as_json).map(Some),
        }
    }
    Ok(None)
}

/// Saves a draft and prints what it changed.
pub(crate) fn told(of: &ProfileArgs, draft: &mut Draft) -> Done {
    let changes = draft.changes();
    let lines = draft.summary();
    let settings: Vec<_> = draft
        .changed_settings()
        .into_iter()
        .map(setting_json)
        .collect();
    of.save(draft)?;
    let mut out = anstream::stdout().lock();
    if of.json {
        let sheet = draft.sheet();
        let list: Vec<_> = (changes.iter())
            .map(|c| change_json(sheet, c.cell, c.before.as_ref(), c.after.as_ref()))
            .collect();
        writeln!(
            out,
            "{:#}",
            json!({ "changes": list, "settings": settings })
        )?;
        return Ok(CLEAN);
    }
    for line in &lines {
        writeln!(out, "{line}")?;
    }
    let word = if lines.is_empty() {
        "nothing changed"
    } else {
        "saved"
    };
    writeln!(out, "{} {}", styled(GOOD, word), of.profile.display())?;
    Ok(CLEAN)
}

/// A setting beside the bindings that an edit changes, as data: what it was set to and is set to, none where
/// that is left to the game.
fn setting_json(
    (setting, before, after): (Setting, Option<SettingValue>, Option<SettingValue>),
) -> serde_json::Value {
    let text = |value: Option<SettingValue>| value.map(|v| v.to_string());
    json!({
        "setting": setting.path().join("."),
        "before": text(before),
        "after": text(after),
    })
}

/// Prints a conflict and every way out of it.
fn ask(draft: &Draft, question: &Question, as_json: bool) -> Done {
    let sheet = draft.sheet();
    let mut out = anstream::stdout().lock();
    if as_json {
        let effect = |e: &Effect| change_json(sheet, e.cell, e.before.as_ref(), e.after.as_ref());
        let ways: Vec<_> = (question.ways().iter())
            .map(|w| {
                json!({
                    "settle": w.settle.word(),
                    "offered": w.refused.is_none(),
                    "why-not": w.refused.as_ref().map(ToString::to_string),
                    "effects": w.effects.iter().map(effect).collect::<Vec<_>>(),
                    "conflicts": w.conflicts.iter().map(|c| c.describe(sheet)).collect::<Vec<_>>(),
                })
            })
            .collect();
        writeln!(
            out,
            "{:#}",
            json!({ "conflict": question.describe(sheet), "ways": ways })
        )?;
        return Ok(FOUND);
    }
    writeln!(
        out,
        "{} {}",
        styled(BAD, "conflict:"),
        question.describe(sheet)
    )?;
    for way in question
        .ways()
        .iter()
        .filter(|w| w.settle != Settle::BackOut)
    {
        let option = format!("--settle {}", way.settle.word());
        let text = match &way.refused {
            Some(why) => styled(QUIET, &format!("not offered: {why}")),
            None => {
                let effects = way.effects.iter().map(|e| draft.tell(e));
                let further = way
                    .conflicts
                    .iter()
                    .map(|c| format!("conflict: {}", c.describe(sheet)));
                effects.chain(further).collect::<Vec<_>>().join("; ")
            }
        };
        writeln!(out, "  {option:<15} {text}")?;
    }
    writeln!(out, "nothing changed; say how with --settle")?;
    Ok(FOUND)
}

/// The options of `unbind`.
#[derive(Debug, clap::Args)]
pub(crate) struct UnbindArgs {
    #[command(flatten)]
    of: ProfileArgs,
    /// The action, or one arm of it, as in `walk.up`.
    action: String,
    /// The column, as in `keyboard-2`; all of them, if left out.
    #[arg(long, value_name = "COLUMN")]
    column: Option<Column>,
}

pub(crate) fn unbind(args: &UnbindArgs) -> Done {
    let mut draft = args.of.draft()?;
    let row = row(draft.sheet(), &args.action)?;
    let bound = draft
        .bindings()
        .iter()
        .map(|b| b.cell)
        .filter(|c| c.row == row);
    let cells: Vec<Cell> = match args.column {
        Some(column) => vec![row.cell(column)],
        None => bound.collect(),
    };
    for cell in cells {
        draft.unbind(cell)?;
    }
    told(&args.of, &mut draft)
}

/// The options of `reset`.
#[derive(Debug, clap::Args)]
pub(crate) struct ResetArgs {
    #[command(flatten)]
    of: ProfileArgs,
    /// The action, or one arm of it; everything, if left out.
    action: Option<String>,
    /// Only this column of the action.
    #[arg(long, value_name = "COLUMN", requires = "action")]
    column: Option<Column>,
    /// Only the bindings on these devices: keyboard, gamepad, touch or other.
    #[arg(long, value_name = "DEVICES", conflicts_with = "action", value_parser = devices)]
    devices: Option<ColumnKind>,
}

fn devices(word: &str) -> Result<ColumnKind, String> {
    let found = ColumnKind::from_word(word);
    found.ok_or_else(|| {
        format!("there are no devices `{word}`; there are keyboard, gamepad, touch, other")
    })
}

pub(crate) fn reset(args: &ResetArgs) -> Done {
    let mut draft = args.of.draft()?;
    let what = match (&args.action, args.devices) {
        (Some(action), _) => {
            let row = row(draft.sheet(), action)?;
            match args.column {
                Some(column) => Reset::Cell(row.cell(column)),
                None => Reset::Action(row.action),
            }
        }
        (None, Some(kind)) => Reset::Devices(kind),
        (None, None) => Reset::All,
    };
    draft.reset(what)?;
    let open = draft.conflicts().to_vec();
    let code = told(&args.of, &mut draft)?;
    let open: Vec<_> = open.iter().filter(|c| c.class.is_conflict()).collect();
    for conflict in &open {
        anstream::eprintln!(
            "{} {}",
            styled(BAD, "conflict:"),
            conflict.describe(draft.sheet())
        );
    }
    Ok(if open.is_empty() { code } else { FOUND })
}

//! `swap-knot changes` and `why`: what a profile changes, and where bindings, feel and times come from.

use std::io::Write as _;

use serde_json::json;
use swap_knot::play::Origin;
use swap_knot::remap::SettingRow;
use swap_knot::{Chord, Row};

use crate::profile_args::{ProfileArgs, change_json, row};
use crate::table::{QUIET, columns, count, styled};
use crate::{CLEAN, Done};

/// The options of `changes`.
#[derive(Debug, clap::Args)]
pub(crate) struct ChangesArgs {
    #[command(flatten)]
    of: ProfileArgs,
}

pub(crate) fn changes(args: &ChangesArgs) -> Done {
    let draft = args.of.draft()?;
    let (sheet, profile) = (draft.sheet(), draft.profile());
    let changed = profile.changes(sheet);
    let mut out = anstream::stdout().lock();
    if args.of.json {
        let list: Vec<_> = (changed.iter())
            .map(|(cell, after)| {
                let mut change = change_json(sheet, *cell, profile.under(sheet, *cell), *after);
                let why = draft.not_in_force_in(*cell).map(|n| n.why.to_string());
                change["not-in-force"] = json!(why);
                change
            })
            .collect();
        let settings: Vec<_> = draft.own_settings().iter().map(setting_json).collect();
        let all = json!({
            "title": profile.title(), "preset": profile.preset(), "layout": profile.layout(),
            "changes": list, "settings": settings,
        });
        writeln!(out, "{all:#}")?;
        return Ok(CLEAN);
    }
    let name = |chord: Option<&Chord>| match chord {
        Some(chord) => draft.chord_name(chord),
        None => "nothing".to_owned(),
    };
    let mut rows = vec![
        ["action", "column", "now", "instead of"]
            .map(str::to_owned)
            .to_vec(),
    ];
    for (cell, after) in &changed {
        let title = draft.row_title(cell.row);
        let column = cell.column.to_string();
        let stands = match draft.not_in_force_in(*cell) {
            Some(_) => " (not in force)",
            None => "",
        };
        rows.push(vec![
            title,
            column,
            name(*after) + stands,
            name(profile.under(sheet, *cell)),
        ]);
    }
    if rows.len() > 1 {
        write!(out, "{}", columns(0, &rows))?;
    }
    let settings = draft.own_settings();
    if !settings.is_empty() {
        let mut rows = vec![["setting", "now", "instead of"].map(str::to_owned).to_vec()];
        for setting in &settings {
            let now = setting.now.clone() + stands(setting);
            rows.push(vec![setting.title.clone(), now, setting.games.clone()]);
        }
        let gap = if changed.is_empty() { "" } else { "\n" };
        write!(out, "{gap}{}", columns(0, &rows))?;
    }
    let words = format!(
        "{} and {} changed",
        count(changed.len(), "binding"),
        count(settings.len(), "other setting")
    );
    writeln!(out, "{}", styled(QUIET, &words))?;
    Ok(CLEAN)
}

/// What stands behind a value that is set and does not count.
fn stands(setting: &SettingRow) -> &'static str {
    match setting.not_in_force {
        Some(_) => " (not in force)",
        None => "",
    }
}

fn setting_json(setting: &SettingRow) -> serde_json::Value {
    json!({
        "setting": setting.setting.path().join("."), "title": setting.title,
        "now": setting.now, "default": setting.games, "from": word(setting.origin),
        "not-in-force": setting.not_in_force,
    })
}

/// The word for who has the last word.
fn word(origin: Origin) -> &'static str {
    match origin {
        Origin::Default => "default",
        Origin::Preset => "preset",
        Origin::Profile => "profile",
    }
}

/// The options of `why`.
#[derive(Debug, clap::Args)]
pub(crate) struct WhyArgs {
    #[command(flatten)]
    of: ProfileArgs,
    /// The action, or one arm of it, as in `walk.up`.
    action: String,
}

/// One binding, and all that has a say in it.
struct Say {
    row: Row,
    column: String,
    now: Option<Chord>,
    origin: Origin,
    default: Option<Chord>,
}

pub(crate) fn why(args: &WhyArgs) -> Done {
    let draft = args.of.draft()?;
    let sheet = draft.sheet();
    let wanted = match sheet.find(&args.action) {
        Some(action) => Row::of(action),
        None => row(sheet, &args.action)?,
    };
    let shown = draft.columns();
    let mut all = Vec::new();
    for row in draft.rows(&shown) {
        let meant = row.row == wanted || (wanted.arm.is_none() && row.row.action == wanted.action);
        for cell in row.cells.iter().filter(|_| meant) {
            let default = sheet.default_of(cell.cell).map(|b| b.chord.clone());
            if cell.chord.is_some() || default.is_some() || cell.origin != Origin::Default {
                all.push(Say {
                    row: cell.cell.row,
                    column: cell.cell.column.to_string(),
                    now: cell.chord.clone(),
                    origin: cell.origin,
                    default,
                });
            }
        }
    }
    let settings = draft.settings_of(wanted.action);
    let mut out = anstream::stdout().lock();
    if args.of.json {
        let list: Vec<_> = (all.iter())
            .map(|s| {
                json!({
                    "row": sheet.row_name(s.row), "column": s.column, "from": word(s.origin),
                    "now": s.now.as_ref().map(Chord::to_string),
                    "default": s.default.as_ref().map(Chord::to_string),
                })
            })
            .collect();
        let settings: Vec<_> = settings.iter().map(setting_json).collect();
        writeln!(
            out,
            "{:#}",
            json!({ "bindings": list, "settings": settings })
        )?;
        return Ok(CLEAN);
    }
    let name = |chord: &Option<Chord>| match chord {
        Some(chord) => draft.chord_name(chord),
        None => "nothing".to_owned(),
    };
    let heading = [
        "action",
        "column",
        "now",
        "comes from",
        "the game's default",
    ];
    let mut rows = vec![heading.map(str::to_owned).to_vec()];
    for say in &all {
        let from = match (say.origin, draft.profile().preset()) {
            (Origin::Preset, Some(preset)) => format!("preset {preset}"),
            (origin, _) => word(origin).to_owned(),
        };
        let title = draft.row_title(say.row);
        rows.push(vec![
            title,
            say.column.clone(),
            name(&say.now),
            from,
            name(&say.default),
        ]);
    }
    write!(out, "{}", columns(0, &rows))?;
    if settings.is_empty() {
        return Ok(CLEAN);
    }
    let heading = ["setting", "now", "comes from", "the game's default"];
    let mut rows = vec![heading.map(str::to_owned).to_vec()];
    for setting in &settings {
        let now = setting.now.clone() + stands(setting);
        let from = word(setting.origin).to_owned();
        rows.push(vec![
            setting.title.clone(),
            now,
            from,
            setting.games.clone(),
        ]);
    }
    write!(out, "\n{}", columns(0, &rows))?;
    for setting in &settings {
        if let Some(why) = &setting.not_in_force {
            writeln!(out, "{}: {why}", setting.title)?;
        }
    }
    Ok(CLEAN)
}

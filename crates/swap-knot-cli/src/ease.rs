//! `swap-knot ease`: what a player has eased, changed from the command line.

use std::io::Write as _;

use serde_json::json;
use swap_knot::Draft;
use swap_knot::sheet::{ActsOn, Parameter, ParameterValue, Parameters, Scope};

use crate::edit::{How, settled, told};
use crate::profile_args::{ProfileArgs, row};
use crate::table::{HEAD, styled};
use crate::{CLEAN, Done};

/// The options of `ease`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot ease demo/slack-water.toml --profile ada.toml\n  swap-knot ease demo/slack-water.toml --profile ada.toml latch=on hold-after=1.2\n  swap-knot ease demo/slack-water.toml --profile ada.toml --action coil-rope press=on\n\nWhat can be eased: toggle, latch and press are on or off; ignore-within, hold-after, tap-within,\ndouble-tap-within and together-within are seconds; `=game` leaves one to the game again. A binding\nthat is worked otherwise by it may meet another one: without --settle nothing is changed then,\nevery way out is printed, and the command exits with 1."
)]
pub(crate) struct Args {
    #[command(flatten)]
    of: ProfileArgs,
    /// Only this action; all of them, if left out.
    #[arg(long, value_name = "NAME")]
    action: Option<String>,
    /// What to set, as in `latch=on` or `hold-after=1.2`; without any, what is set is printed.
    #[arg(value_name = "WHAT=VALUE", value_parser = setting)]
    settings: Vec<(Parameter, Option<ParameterValue>)>,
    /// How to settle conflicts, if there are any.
    #[arg(long, value_enum)]
    settle: Option<How>,
}

fn setting(text: &str) -> Result<(Parameter, Option<ParameterValue>), String> {
    let (word, value) = text.split_once('=').unwrap_or((text, ""));
    let mut all = Parameter::of(ActsOn::Actions);
    let parameter = all.clone().find(|p| p.word() == word).ok_or_else(|| {
        let known: Vec<&str> = all.by_ref().map(Parameter::word).collect();
        format!("`{word}` cannot be eased; there are {}", known.join(", "))
    })?;
    let value = match (value, parameter.range()) {
        ("game", _) => None,
        ("on", None) => Some(ParameterValue::Flag(true)),
        ("off", None) => Some(ParameterValue::Flag(false)),
        (_, None) => return Err(format!("say `{word}=on`, `{word}=off` or `{word}=game`")),
        (number, Some(range)) => {
            let seconds = number.parse().ok().filter(|s: &f32| range.contains(s));
            let (least, most) = (range.start(), range.end());
            let wanted =
                || format!("say `{word}=` and {least} to {most} seconds, or `{word}=game`");
            Some(ParameterValue::Seconds(seconds.ok_or_else(wanted)?))
        }
    };
    Ok((parameter, value))
}

pub(crate) fn run(args: &Args) -> Done {
    let mut draft = args.of.draft()?;
    if let Some(action) = &args.action {
        // A name that is none is met with the nearest one.
        row(draft.sheet(), action)?;
    }
    if args.settings.is_empty() {
        return list(&draft, args.of.json);
    }
    let scope = Scope::actions(args.action.as_deref());
    let mut eased = draft.profile().parameters(&scope);
    for (parameter, value) in &args.settings {
        eased.set(*parameter, *value);
    }
    let asks = draft.set_parameters(&scope, &eased)?;
    match settled(&mut draft, asks, args.settle, args.of.json)? {
        Some(code) => Ok(code),
        None => told(&args.of, &mut draft),
    }
}

/// Prints what is eased, for all actions and for each.
fn list(draft: &Draft, as_json: bool) -> Done {
    let (profile, sheet) = (draft.profile(), draft.sheet());
    let names = sheet.actions().map(|(_, a)| Some(a.name.as_str()));
    let all = std::iter::once(None).chain(names);
    let set: Vec<(Option<&str>, Parameters)> = all
        .map(|action| (action, profile.parameters(&Scope::actions(action))))
        .filter(|(_, eased)| !eased.is_empty())
        .collect();
    let values = |eased: &Parameters| -> Vec<(&str, String)> {
        let told = |value| match value {
            ParameterValue::Flag(true) => "on".to_owned(),
            ParameterValue::Flag(false) => "off".to_owned(),
            ParameterValue::Seconds(seconds) => seconds.to_string(),
            other => other.to_string(),
        };
        let all = eased.iter();
        all.map(|(parameter, value)| (parameter.word(), told(value)))
            .collect()
    };
    let mut out = anstream::stdout().lock();
    if as_json {
        let of = |(action, easing): &(Option<&str>, Parameters)| {
            let set: serde_json::Map<_, _> = (values(easing).into_iter())
                .map(|(word, value)| (word.to_owned(), json!(value)))
                .collect();
            json!({ "action": action, "eased": set })
        };
        let list: Vec<_> = set.iter().map(of).collect();
        writeln!(out, "{:#}", json!({ "eased": list }))?;
        return Ok(CLEAN);
    }
    if set.is_empty() {
        writeln!(
            out,
            "nothing is eased; say what, as in `latch=on` or `hold-after=1.2`"
        )?;
    }
    for (action, easing) in &set {
        let title = styled(HEAD, action.unwrap_or("all actions"));
        let told: Vec<String> = (values(easing).iter())
            .map(|(word, value)| format!("{word}={value}"))
            .collect();
        writeln!(out, "{title}  {}", told.join(" "))?;
    }
    Ok(CLEAN)
}

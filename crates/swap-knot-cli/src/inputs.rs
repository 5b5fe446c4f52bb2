//! `swap-knot inputs`: every input there is, searched by name, legend or habit.

use std::io::Write as _;

use serde_json::json;
use swap_knot::input::{HidButton, InputShape, Letter};
use swap_knot::{DeviceKind, Input, Layout, MouseButton, Profile};

use crate::table::{columns, count, print_json};
use crate::words::WordsArgs;
use crate::{CLEAN, Done, FOUND, files};

/// The options of `inputs`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot inputs\n  swap-knot inputs esc\n  swap-knot inputs \"left trigger\"\n  swap-knot inputs ü --layout de\n  swap-knot inputs --device gamepad --json\n\nExit codes: 0 found, 1 nothing is called so."
)]
pub(crate) struct Args {
    /// What to look for: part of a name, what is printed on a key, or a name from habit.
    word: Option<String>,
    /// Only inputs of these devices.
    #[arg(long, value_name = "KIND", value_parser = files::device_kind)]
    device: Option<DeviceKind>,
    /// The layout that the names of keys are printed for.
    #[arg(long, value_name = "NAME", default_value = "us", value_parser = files::layout)]
    layout: Layout,
    #[command(flatten)]
    words: WordsArgs,
    /// Print JSON instead of text.
    #[arg(long)]
    json: bool,
}

/// An input and what a player reads of it.
struct Found {
    input: Input,
    reads: String,
}

pub(crate) fn run(args: &Args) -> Done {
    let found = find(args, &args.words.words(&Profile::default())?);
    if args.json {
        let list = found.iter().map(|f| {
            json!({
                "name": f.input.to_string(),
                "device": f.input.device_kind().word(),
                "gives": gives(f.input),
                "reads": f.reads,
            })
        });
        print_json(&list.collect())?;
    } else {
        to_text(&found, args)?;
    }
    Ok(if found.is_empty() { FOUND } else { CLEAN })
}

/// What fits the word; what is called so from habit comes first.
fn find(args: &Args, words: &swap_knot::Words) -> Vec<Found> {
    let numbered = (6..=MouseButton::LAST).filter_map(MouseButton::from_number);
    let hid = HidButton::all().map(|b| Input::Hid(swap_knot::input::HidInput::Button(b)));
    let all = (Input::all_named())
        .chain(numbered.map(Input::MouseButton))
        .chain(hid);
    let word = args.word.as_deref().map(str::trim).unwrap_or_default();
    let habit = Input::from_habit(word);
    let mut chars = word.chars();
    let sign = chars.next().filter(|_| chars.next().is_none());
    let letter = sign.and_then(Letter::new).map(Input::Letter);
    let rest = all.filter(|i| !habit.contains(i)).map(Some);
    let letter = letter.filter(|i| !habit.contains(i));
    let every = (habit.iter().copied().map(Some))
        .chain(rest)
        .chain([letter]);
    let named = every.flatten().map(|input| Found {
        input,
        reads: words.input_name(input, &args.layout),
    });
    let device = |f: &Found| args.device.is_none_or(|kind| f.input.device_kind() == kind);
    let fits = |f: &Found| {
        habit.contains(&f.input) || letter == Some(f.input) || is_called(f, word, sign.is_some())
    };
    named.filter(|f| device(f) && fits(f)).collect()
}

/// Whether the word is part of its name or of what players read; a single sign is all that is read.
fn is_called(found: &Found, word: &str, is_sign: bool) -> bool {
    let lower = |text: &str| text.to_lowercase().replace([' ', '-', '_'], "");
    let (word, reads) = (lower(word), lower(&found.reads));
    match is_sign {
        true => reads == word,
        false => reads.contains(&word) || lower(&found.input.to_string()).contains(&word),
    }
}

/// What it delivers when it is worked.
fn gives(input: Input) -> &'static str {
    match input.shape() {
        InputShape::Button => "down or up",
        InputShape::Pulse => "a notch at a time",
        InputShape::Pull => "0 to 1",
        InputShape::Line => "-1 to 1",
        InputShape::Plane => "two axes",
        InputShape::Space => "three axes",
        InputShape::Touch => "what the game makes of it",
    }
}

fn to_text(found: &[Found], args: &Args) -> std::io::Result<()> {
    let mut out = anstream::stdout().lock();
    if found.is_empty() {
        let word = args.word.as_deref().unwrap_or_default();
        let where_ = args
            .device
            .map_or(String::new(), |kind| format!(" on {} inputs", kind.word()));
        return writeln!(
            out,
            "nothing is called `{word}`{where_}; without a word, `swap-knot inputs` lists everything"
        );
    }
    let mut lines = vec![
        ["NAME", "DEVICE", "GIVES", "PLAYERS READ"]
            .map(str::to_owned)
            .to_vec(),
    ];
    lines.extend(found.iter().map(|f| {
        let device = f.input.device_kind().word().to_owned();
        vec![
            f.input.to_string(),
            device,
            gives(f.input).to_owned(),
            f.reads.clone(),
        ]
    }));
    write!(out, "{}", columns(0, &lines))?;
    if args.word.is_none() {
        let more =
            "besides, `letter:x` for any letter x, and `touch:name` for zones of the game's own";
        writeln!(out, "\n{}; {more}", count(found.len(), "input"))?;
    }
    Ok(())
}

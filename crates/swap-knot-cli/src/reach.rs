//! `swap-knot reach`: what one hand can play, and a preset for the other hand.

use std::io::Write as _;
use std::path::PathBuf;

use swap_knot::check::{Reach, mirror};
use swap_knot::input::Platform;
use swap_knot::layout::Hand;
use swap_knot::{Layout, Rig, Sheet};

use crate::table::{GOOD, HEAD, columns, count, print_json, styled};
use crate::{CLEAN, Done, files};

/// The options of `reach`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot reach controls.toml\n  swap-knot reach controls.toml --mirror left-handed >> controls.toml"
)]
pub(crate) struct Args {
    /// The sheet that declares the actions.
    sheet: PathBuf,
    /// The layout, and with it the board.
    #[arg(long, value_name = "NAME", default_value = "us", value_parser = files::layout)]
    layout: Layout,
    /// Look at what a player changed.
    #[arg(long, value_name = "FILE")]
    profile: Option<PathBuf>,
    /// Print a preset of that name with the board mirrored, for the other hand, to be edited.
    #[arg(long, value_name = "PRESET")]
    mirror: Option<String>,
    /// Print JSON instead of text.
    #[arg(long, conflicts_with = "mirror")]
    json: bool,
}

/// The ways to play that are looked at.
const WAYS: [(Hand, bool); 4] = [
    (Hand::Left, true),
    (Hand::Right, true),
    (Hand::Left, false),
    (Hand::Right, false),
];

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let layout = Some(&args.layout);
    let (profile, _) = files::played(&sheet, args.profile.as_deref(), layout)?;
    let rig = Rig::new(&sheet, &profile, &args.layout);
    let platform = Platform::current();
    if let Some(name) = &args.mirror {
        let slug = name
            .bytes()
            .all(|b| b.is_ascii_lowercase() || b.is_ascii_digit() || b == b'-');
        if name.is_empty() || !slug {
            return Err(format!("`{name}` cannot name a preset; use a-z, 0-9 and `-`").into());
        }
        let mirrored = mirror(&sheet, rig.bindings(), name, &args.layout, platform);
        let mut out = anstream::stdout().lock();
        writeln!(out, "# Drafted by mirroring the board; look it through.")?;
        if !mirrored.unmoved.is_empty() {
            let rows = mirrored.unmoved.iter().map(|c| sheet.row_name(c.row));
            let rows = rows.collect::<Vec<_>>().join(", ");
            writeln!(out, "# no key on the other side, so they stay: {rows}")?;
        }
        for conflict in &mirrored.conflicts {
            writeln!(out, "# to settle: {}", conflict.describe_pair(&sheet))?;
        }
        write!(out, "{}", mirrored.to_toml(&sheet))?;
        return Ok(CLEAN);
    }
    let reach = Reach::new(&sheet, rig.bindings(), &args.layout, platform);
    if args.json {
        to_json(&reach, &sheet)?;
    } else {
        to_text(&reach, &sheet, &args.layout)?;
    }
    Ok(CLEAN)
}

fn names(sheet: &Sheet, actions: &[swap_knot::sheet::ActionId]) -> Vec<String> {
    let names = actions.iter().map(|a| sheet.row_name((*a).into()));
    names.collect()
}

fn to_text(
    reach: &Reach,
    sheet: &Sheet,
    layout: &Layout,
) -> Result<(), Box<dyn std::error::Error>> {
    let mut out = anstream::stdout().lock();
    let all = reach.playable().len();
    let head = format!(
        "{} on keyboard and mouse, {} board",
        count(all, "action"),
        layout.board().word()
    );
    writeln!(out, "{}", styled(HEAD, &head))?;
    let mut rows = vec![
        ["one hand", "plays", "out of reach"]
            .map(str::to_owned)
            .to_vec(),
    ];
    for (hand, mouse) in WAYS {
        let out = reach.out_of_reach(hand, mouse);
        let with = if mouse { " and the mouse" } else { " alone" };
        let plays = match out.len() {
            0 => "all".to_owned(),
            n => format!("{} of {all}", all - n),
        };
        rows.push(vec![
            format!("{}{with}", hand.word()),
            plays,
            names(sheet, &out).join(", "),
        ]);
    }
    write!(out, "{}", columns(2, &rows))?;
    if reach.stretches().is_empty() {
        writeln!(out, "{}: no hand has to stretch", styled(GOOD, "stretches"))?;
        return Ok(());
    }
    writeln!(
        out,
        "\n{}",
        styled(HEAD, "held together by one hand, far apart")
    )?;
    let mut rows = vec![
        ["hand", "keys", "key widths", "for"]
            .map(str::to_owned)
            .to_vec(),
    ];
    for stretch in reach.stretches() {
        let [a, b] = stretch.cells.map(|c| sheet.row_name(c.row));
        let [x, y] = stretch.places;
        rows.push(vec![
            stretch.hand.word().to_owned(),
            format!("{x} {y}"),
            format!("{:.1}", stretch.distance),
            if a == b { a } else { format!("{a}, {b}") },
        ]);
    }
    write!(out, "{}", columns(2, &rows))?;
    Ok(())
}

fn to_json(reach: &Reach, sheet: &Sheet) -> Result<(), Box<dyn std::error::Error>> {
    let ways = WAYS.map(|(hand, mouse)| {
        serde_json::json!({
            "hand": hand.word(),
            "mouse": mouse,
            "out-of-reach": names(sheet, &reach.out_of_reach(hand, mouse)),
        })
    });
    let stretches: Vec<_> = reach
        .stretches()
        .iter()
        .map(|s| {
            serde_json::json!({
                "hand": s.hand.word(),
                "rows": s.cells.map(|c| sheet.row_name(c.row)),
                "places": s.places.map(|p| p.to_string()),
                "key-widths": s.distance,
            })
        })
        .collect();
    print_json(&serde_json::json!({ "one-hand": ways, "stretches": stretches }))
}

//! Sheets, profiles and layouts from the command line.

use std::error::Error;
use std::fs;
use std::path::Path;

use swap_knot::input::Mappings;
use swap_knot::remap::CarriedOver;
use swap_knot::{DeviceKind, Layout, Place, Profile, Sheet};

/// The text of a file, if it is small enough to be what is wanted.
pub(crate) fn read(path: &Path, most: usize) -> Result<String, Box<dyn Error>> {
    let wrong = |why: String| format!("{}: {why}", path.display());
    let length = fs::metadata(path).map_err(|e| wrong(e.to_string()))?.len();
    if length > most as u64 {
        return Err(wrong(format!(
            "{length} bytes are more than the {most} it can have"
        ))
        .into());
    }
    let bytes = fs::read(path).map_err(|e| wrong(e.to_string()))?;
    String::from_utf8(bytes).map_err(|e| {
        let before = &e.as_bytes()[..e.utf8_error().valid_up_to()];
        let line = before.iter().filter(|b| **b == b'\n').count() + 1;
        wrong(format!("line {line} is not UTF-8 text")).into()
    })
}

/// A sheet from a file.
pub(crate) fn sheet(path: &Path) -> Result<Sheet, Box<dyn Error>> {
    let text = read(path, Sheet::MAX_BYTES)?;
    Ok(Sheet::from_toml_named(&text, &path.display().to_string())?)
}

/// A profile from a file, or one without changes.
pub(crate) fn profile(path: Option<&Path>) -> Result<Profile, Box<dyn Error>> {
    let Some(path) = path else {
        return Ok(Profile::default());
    };
    let text = read(path, Profile::MAX_BYTES)?;
    Profile::from_toml(&text).map_err(|e| format!("{}: {e}", path.display()).into())
}

/// A player's profile as this sheet plays it, or one without changes, and the layout to play it on: that of
/// the option, else the player's own, else us. What came of carrying it over is told.
pub(crate) fn played(
    sheet: &Sheet,
    path: Option<&Path>,
    layout: Option<&Layout>,
) -> Result<(Profile, Layout), Box<dyn Error>> {
    let profile = profile(path)?;
    let layout = layout_of(layout, &profile);
    Ok((carry_over(sheet, &profile, &layout), layout))
}

/// A profile as this sheet plays it; what came of that is told.
pub(crate) fn carry_over(sheet: &Sheet, profile: &Profile, layout: &Layout) -> Profile {
    let carried = CarriedOver::new(sheet, profile, layout);
    tell(&carried, sheet);
    carried.profile
}

/// Tells what came of carrying a profile over.
pub(crate) fn tell(carried: &CarriedOver, sheet: &Sheet) {
    for line in carried.describe(sheet) {
        anstream::eprintln!("note: {line}");
    }
}

/// What was taught of controllers, from a file.
pub(crate) fn mappings(path: &Path) -> Result<Mappings, Box<dyn Error>> {
    let text = read(path, Mappings::MAX_BYTES)?;
    Ok(Mappings::from_toml(&text, &path.display().to_string())?)
}

/// A shipped layout by name, for an option.
pub(crate) fn layout(name: &str) -> Result<Layout, String> {
    Layout::shipped(name).ok_or_else(|| {
        let near = nearest(name);
        format!("there is no layout `{name}`{near}; `swap-knot layouts` lists them")
    })
}

/// Layouts that may be meant, as a suggestion: by the letters of their first row (`azerty`), by a part of their
/// title, or else by how their names begin.
fn nearest(name: &str) -> String {
    let name = name.to_lowercase();
    let start: String = name.chars().take(2).collect();
    let spelled = |l: &Layout| !name.is_empty() && first_row(l) == name;
    let titled = |l: &Layout| name.len() > 2 && l.title().to_lowercase().contains(&name);
    let begins = |l: &Layout| !start.is_empty() && l.name().starts_with(&start);
    let ways: [&dyn Fn(&Layout) -> bool; 3] = [&spelled, &titled, &begins];
    let found = ways.iter().find_map(|way| {
        let mut like: Vec<Layout> = Layout::all_shipped().filter(|l| way(l)).collect();
        // The plainest of many: `us` before `us-intl`.
        like.sort_by_key(|l| l.name().len());
        (!like.is_empty()).then_some(like)
    });
    let names = found.unwrap_or_default();
    let names: Vec<String> = names
        .iter()
        .take(5)
        .map(|l| format!("`{}`", l.name()))
        .collect();
    match &names[..] {
        [] => String::new(),
        [only] => format!("; there is {only}"),
        names => format!("; there are {}", names.join(", ")),
    }
}

/// What is typed by the first six keys of the row above the middle one.
fn first_row(layout: &Layout) -> String {
    use Place::{KeyE, KeyQ, KeyR, KeyT, KeyW, KeyY};
    let keys = [KeyQ, KeyW, KeyE, KeyR, KeyT, KeyY];
    let legends = keys.iter().filter_map(|key| layout.legend(*key));
    legends.collect::<String>().to_lowercase()
}

/// The layout of an option, else that of the profile, else us.
pub(crate) fn layout_of(option: Option<&Layout>, profile: &Profile) -> Layout {
    let chosen = profile.layout().and_then(Layout::shipped);
    option.cloned().or(chosen).unwrap_or_else(Layout::us)
}

/// A device kind, for an option.
pub(crate) fn device_kind(word: &str) -> Result<DeviceKind, String> {
    DeviceKind::from_word(word).ok_or_else(|| {
        let words = DeviceKind::ALL.map(DeviceKind::word);
        format!(
            "there is no device kind `{word}`; there are {}",
            words.join(", ")
        )
    })
}

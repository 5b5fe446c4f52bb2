//! What a sheet declares, as Rust types.

use std::fmt::Write as _;

use super::Sheet;

impl Sheet {
    /// The source of Rust types for what the sheet declares: an enum `Action` and, where there are
    /// any, `Situation`, `Preset` and `Group`, with the titles as their docs.
    ///
    /// `swap_knot::controls!` and `swap-knot types` write it. Actions and situations are
    /// [`Actions`](crate::Actions) and [`Situations`](crate::Situations); presets and groups tell
    /// their name in the sheet.
    ///
    /// ```
    /// let sheet = swap_knot::Sheet::from_toml("game = \"slack-water\"\n[actions.cast-off]")?;
    /// assert!(sheet.to_rust().contains("#[knot(\"cast-off\")]\n    CastOff,"));
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn to_rust(&self) -> String {
        let mut out = String::new();
        let game = line(self.title());
        let actions = self.actions().map(|(_, a)| (&a.name, &a.title));
        typed(
            &mut out,
            (
                "Action",
                "Actions",
                &format!("What the player does in {game}."),
            ),
            &actions.collect::<Vec<_>>(),
        );
        let situations = self.situations().map(|(_, s)| (&s.name, &s.title));
        typed(
            &mut out,
            (
                "Situation",
                "Situations",
                &format!("What is going on in {game}."),
            ),
            &situations.collect::<Vec<_>>(),
        );
        let presets = self.presets().iter().map(|p| (&p.name, &p.title));
        named(
            &mut out,
            (
                "Preset",
                &format!("A set of bindings that ships with {game}."),
            ),
            &presets.collect::<Vec<_>>(),
        );
        let groups = self.groups().iter().map(|g| (&g.name, &g.title));
        named(
            &mut out,
            ("Group", &format!("A heading in the menu of {game}.")),
            &groups.collect::<Vec<_>>(),
        );
        out
    }
}

/// Names in the sheet with their titles.
type Entries<'a> = [(&'a String, &'a String)];

/// An enum whose variants the library takes for what they stand for.
fn typed(out: &mut String, (name, derive, doc): (&str, &str, &str), entries: &Entries<'_>) {
    if entries.is_empty() && name != "Action" {
        return;
    }
    // Writing to a String cannot fail.
    let _ = writeln!(
        out,
        "{}/// {doc}\n#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, swap_knot::{derive})]\npub enum {name} {{",
        gap(out)
    );
    for ((entry, title), variant) in entries.iter().zip(variants(entries)) {
        let title = line(title);
        let _ = writeln!(
            out,
            "    /// {title}.\n    #[knot(\"{entry}\")]\n    {variant},"
        );
    }
    out.push_str("}\n");
}

/// An enum whose variants tell their name in the sheet.
fn named(out: &mut String, (name, doc): (&str, &str), entries: &Entries<'_>) {
    if entries.is_empty() {
        return;
    }
    let _ = writeln!(
        out,
        "{}/// {doc}\n#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]\n#[allow(dead_code)]\npub enum {name} {{",
        gap(out)
    );
    let variants = variants(entries);
    for ((_, title), variant) in entries.iter().zip(&variants) {
        let _ = writeln!(out, "    /// {}.\n    {variant},", line(title));
    }
    let all: Vec<String> = variants.iter().map(|v| format!("{name}::{v}")).collect();
    let all = all.join(", ");
    let _ = writeln!(
        out,
        "}}\n\n#[allow(dead_code)]\nimpl {name} {{\n    /// All of them, in the order of the sheet.\n    #[rustfmt::skip]\n    pub const ALL: &'static [{name}] = &[{all}];\n\n    /// The name in the sheet.\n    pub const fn name(self) -> &'static str {{\n        match self {{"
    );
    for ((entry, _), variant) in entries.iter().zip(&variants) {
        let _ = writeln!(out, "            {name}::{variant} => \"{entry}\",");
    }
    out.push_str("        }\n    }\n}\n");
}

/// What stands between two types.
fn gap(out: &str) -> &'static str {
    if out.is_empty() { "" } else { "\n" }
}

/// A title on one line.
fn line(title: &str) -> String {
    title.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// `cast-off` becomes `CastOff`. Names that come to the same are told apart by a letter.
fn variants(entries: &Entries<'_>) -> Vec<String> {
    // The one name in this case that Rust keeps for itself.
    let mut taken = vec!["Self".to_owned()];
    for (name, _) in entries {
        let mut out = String::new();
        for word in name.split('-') {
            let mut chars = word.chars();
            out.extend(chars.next().map(|c| c.to_ascii_uppercase()));
            out.push_str(chars.as_str());
        }
        while taken.contains(&out) {
            out.push('B');
        }
        taken.push(out);
    }
    taken.split_off(1)
}

//! The macro `controls!`, documented where games use it: in the crate `swap-knot`.

use std::path::Path;

use proc_macro::{Literal, TokenStream, TokenTree};
use swap_knot_core::Sheet;
use toml::de::{DeTable, DeValue};

/// Reads sheets when the game is compiled; see the crate `swap-knot`.
#[proc_macro]
pub fn controls(input: TokenStream) -> TokenStream {
    let source = match files(input) {
        Ok(files) => source(&files),
        Err(why) => error(&why),
    };
    source.parse().unwrap_or_else(|e| {
        let why = format!("the types of the sheet are no Rust: {e}");
        error(&why).parse().unwrap_or_default()
    })
}

/// The paths and texts of the sheets that the macro names.
fn files(input: TokenStream) -> Result<Vec<(String, String)>, String> {
    const USAGE: &str = "write the path of the sheet from the folder of Cargo.toml, as in controls!(\"controls.toml\")";
    let folder = std::env::var("CARGO_MANIFEST_DIR").map_err(|_| "controls! is used with Cargo")?;
    let mut files = Vec::new();
    let mut wants_comma = false;
    for token in input {
        match token {
            TokenTree::Punct(p) if p.as_char() == ',' && wants_comma => wants_comma = false,
            TokenTree::Literal(literal) if !wants_comma => {
                let path = path(&literal).ok_or(USAGE)?;
                let whole = Path::new(&folder).join(&path);
                let text = std::fs::read_to_string(&whole)
                    .map_err(|e| format!("cannot read {}: {e}", whole.display()))?;
                files.push((path, text));
                wants_comma = true;
            }
            _ => return Err(USAGE.to_owned()),
        }
    }
    if files.is_empty() {
        return Err(USAGE.to_owned());
    }
    Ok(files)
}

/// The text between the quotes; paths want no escapes.
fn path(literal: &Literal) -> Option<String> {
    let text = literal.to_string();
    let inner = text.strip_prefix('"')?.strip_suffix('"')?;
    (!inner.contains('\\')).then(|| inner.to_owned())
}

/// What the macro comes to.
fn source(files: &[(String, String)]) -> String {
    let named: Vec<(&str, &str)> = (files.iter())
        .map(|(path, text)| (path.as_str(), text.as_str()))
        .collect();
    match Sheet::join(&named) {
        Ok(sheet) => sheet.to_rust() + &functions(&named, sheet.title()),
        Err(mistakes) => {
            // The names alone, so that the rest of the game tells of no mistakes that are none.
            let types = names(&named).map(|sheet| sheet.to_rust() + &functions(&[], sheet.title()));
            format!(
                "{}{}",
                error(&mistakes.to_string()),
                types.unwrap_or_default()
            )
        }
    }
}

fn error(why: &str) -> String {
    format!("::core::compile_error!({why:?});\n")
}

/// The functions beside the types. The texts are taken in by the compiler, so that Cargo builds
/// again when they change.
fn functions(files: &[(&str, &str)], title: &str) -> String {
    let texts: Vec<String> = (files.iter())
        .map(|(path, _)| {
            let whole =
                format!("::core::concat!(::core::env!(\"CARGO_MANIFEST_DIR\"), \"/\", {path:?})");
            format!("({path:?}, ::core::include_str!({whole}))")
        })
        .collect();
    let texts = texts.join(", ");
    format!(
        r#"
/// The sheet of {title}, as it was when the game was compiled, tied to [`Action`].
pub fn sheet() -> ::swap_knot::Sheet {{
    static SHEET: ::std::sync::LazyLock<::swap_knot::Sheet> =
        ::std::sync::LazyLock::new(|| ::swap_knot::compiled_in::<Action>(FILES));
    ::core::clone::Clone::clone(&*SHEET)
}}

/// The same with what mods add; see [`Sheet::with_mods`](::swap_knot::Sheet::with_mods).
#[allow(dead_code)]
pub fn sheet_with_mods(mods: &[(&str, &str)]) -> ::core::result::Result<::swap_knot::Sheet, ::swap_knot::sheet::SheetError> {{
    sheet().with_mods(mods)
}}

const FILES: &[(&str, &str)] = &[{texts}];
"#
    )
}

/// A sheet that declares the same names and nothing else, of files with mistakes in them.
fn names(files: &[(&str, &str)]) -> Option<Sheet> {
    let mut bare = "game = \"game\"\n".to_owned();
    for (_, text) in files {
        let (table, _) = DeTable::parse_recoverable(text);
        for kind in ["situations", "groups", "presets", "actions"] {
            let value = table.get_ref().get(kind).map(|value| value.get_ref());
            if let Some(DeValue::Table(entries)) = value {
                if kind == "groups" {
                    bare += "[groups]\n";
                }
                for name in entries.keys() {
                    bare += &match kind {
                        "groups" => format!("{0:?} = {0:?}\n", name.get_ref()),
                        _ => format!("[{kind}.{:?}]\n", name.get_ref()),
                    };
                }
            }
        }
    }
    Sheet::from_toml(&bare).ok()
}

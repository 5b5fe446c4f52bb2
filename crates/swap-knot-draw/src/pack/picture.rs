//! Whether a file is a picture that may be shown.

use std::path::Path;

use super::Pack;

/// What kind of picture a file is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Kind {
    Svg,
    Png,
}

impl Kind {
    /// The kind that a file's ending says.
    pub(super) fn of(path: &Path) -> Option<Kind> {
        let ending = path.extension()?.to_str()?.to_ascii_lowercase();
        match ending.as_str() {
            "svg" => Some(Kind::Svg),
            "png" => Some(Kind::Png),
            _ => None,
        }
    }
}

/// # Errors
/// Why the file cannot be used.
pub(super) fn judge(path: &Path, bytes: &[u8]) -> Result<(), String> {
    match Kind::of(path) {
        Some(Kind::Svg) => svg(bytes),
        Some(Kind::Png) => png(bytes),
        None => Err("is neither .svg nor .png".to_owned()),
    }
}

/// An SVG may refer to itself only: no files, no addresses, no scripts.
fn svg(bytes: &[u8]) -> Result<(), String> {
    let text = std::str::from_utf8(bytes).map_err(|_| "is not UTF-8 text".to_owned())?;
    let options = roxmltree::ParsingOptions {
        // Entities are how small files grow large.
        allow_dtd: false,
        nodes_limit: 20_000,
        ..roxmltree::ParsingOptions::default()
    };
    let document = roxmltree::Document::parse_with_options(text, options)
        .map_err(|e| format!("is damaged: {e}"))?;
    if document.root_element().tag_name().name() != "svg" {
        return Err("is no SVG: its first element is not `svg`".to_owned());
    }
    for node in document.descendants().filter(roxmltree::Node::is_element) {
        let name = node.tag_name().name();
        if matches!(name, "script" | "foreignObject" | "image" | "feImage") {
            return Err(format!("has `{name}` in it; use shapes and text only"));
        }
        for attribute in node.attributes() {
            let value = attribute.value();
            let outside = |reference: &str| {
                let reference = reference.trim().trim_matches(['"', '\'']);
                !reference.starts_with('#')
            };
            let link = attribute.name() == "href" && outside(value);
            let mut urls = value.split("url(").skip(1);
            if link || urls.any(outside) {
                return Err(format!("refers to `{value}` outside of itself; draw it in"));
            }
        }
        let style = name == "style" && node.text().is_some_and(|t| t.contains("@import"));
        if style {
            return Err("imports a style from outside of itself; write it in".to_owned());
        }
    }
    Ok(())
}

/// A PNG is looked at by its header first, so that a huge one is never unpacked.
fn png(bytes: &[u8]) -> Result<(), String> {
    let mut reader = png_reader(bytes)?;
    let (w, h) = reader.info().size();
    let most = Pack::MAX_SIDE;
    if w > most || h > most {
        return Err(format!(
            "{w} x {h} pixels are too many; at most {most} a side are shown"
        ));
    }
    let size = reader.output_buffer_size();
    let size = size.ok_or_else(|| "is too large to unpack".to_owned())?;
    let mut pixels = vec![0; size];
    let frame = reader.next_frame(&mut pixels);
    frame.map(|_| ()).map_err(|e| format!("is damaged: {e}"))
}

fn png_reader(bytes: &[u8]) -> Result<png::Reader<std::io::Cursor<&[u8]>>, String> {
    let mut decoder = png::Decoder::new(std::io::Cursor::new(bytes));
    decoder.set_transformations(png::Transformations::EXPAND | png::Transformations::STRIP_16);
    decoder.read_info().map_err(|e| format!("is damaged: {e}"))
}

//! The card as a page of HTML.

use std::fmt::Write as _;

use swap_knot::Chord;
use swap_knot::remap::MenuRow;

use super::{Card, chords, is_changed};
use crate::glyph::Glyphs;
use crate::pen::escaped;

pub(super) fn page(card: &Card<'_>) -> String {
    let (draft, theme) = (card.draft, &card.theme);
    let title = escaped(&draft.words().game_title(draft.sheet()));
    let mut out = format!(
        "<!DOCTYPE html>\n<html lang=\"{}\">\n<head>\n<meta charset=\"utf-8\">\n<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">\n<title>{title}</title>\n<style>\n\
         body {{ margin: 2rem auto; max-width: 62rem; padding: 0 1rem; font: 16px/1.4 sans-serif; background: {}; color: {} }}\n\
         table {{ border-collapse: collapse; width: 100%; margin-bottom: 1.5rem }}\n\
         th, td {{ text-align: left; padding: .25rem .6rem; border-bottom: 1px solid {}; vertical-align: middle }}\n\
         thead th {{ font-weight: normal; color: {} }}\n\
         tbody th {{ font-weight: normal; width: 16rem }}\n\
         svg {{ height: 1.7rem; width: auto; vertical-align: middle; margin: .1rem .4rem .1rem 0 }}\n\
         .changed {{ font-weight: bold }}\n\
         small {{ color: {}; font-weight: normal; margin-right: .6rem }}\n\
         tbody th small {{ display: block; line-height: 1.2 }}\n\
         @media print {{ body {{ margin: 0; max-width: none }} section {{ break-inside: avoid }} }}\n\
         </style>\n</head>\n<body>\n<h1>{title}</h1>\n",
        escaped(draft.words().language()),
        theme.paper,
        theme.ink,
        theme.edge,
        theme.quiet,
        theme.quiet,
    );
    let mut rows = &card.rows[..];
    while let Some(first) = rows.first() {
        let length = rows.iter().take_while(|r| r.group == first.group).count();
        let (group, rest) = rows.split_at(length);
        section(card, group, &mut out);
        rows = rest;
    }
    if card.rows.iter().any(|r| r.cells.iter().any(is_changed)) {
        let sign = escaped(&draft.words().say("drawn-changed", &[]));
        let _ = writeln!(out, "<p>● {sign}</p>");
    }
    out.push_str("</body>\n</html>\n");
    out
}

/// A group with its rows. Writing to a String cannot fail.
fn section(card: &Card<'_>, rows: &[MenuRow], out: &mut String) {
    let draft = card.draft;
    let group = rows.first().map(|r| draft.group_title(r.group));
    let title = group.unwrap_or_default();
    let _ = writeln!(out, "<section>\n<h2>{}</h2>\n<table>", escaped(&title));
    out.push_str("<thead><tr><th></th>");
    for kind in &card.kinds {
        let name = escaped(&draft.words().column_name(*kind));
        let _ = write!(out, "<th scope=\"col\">{name}</th>");
    }
    out.push_str("</tr></thead>\n<tbody>\n");
    for row in rows {
        let (class, mark) = match row.cells.iter().any(is_changed) {
            true => (" class=\"changed\"", "● "),
            false => ("", ""),
        };
        let title = escaped(&row.title);
        let about = row.about.iter().filter(|_| row.row.arm.is_none());
        let about: String = about
            .map(|about| format!("<small>{}</small>", escaped(about)))
            .collect();
        let _ = write!(
            out,
            "<tr><th scope=\"row\"{class}>{mark}{title}{about}</th>"
        );
        for kind in &card.kinds {
            out.push_str("<td>");
            for (chord, how) in chords(row, *kind) {
                picture(card, chord, out);
                if let Some(how) = how {
                    let _ = write!(out, "<small>{}</small> ", escaped(how));
                }
            }
            out.push_str("</td>");
        }
        out.push_str("</tr>\n");
    }
    out.push_str("</tbody>\n</table>\n</section>\n");
}

/// A glyph with its name for those who do not see it.
fn picture(card: &Card<'_>, chord: &Chord, out: &mut String) {
    let draft = card.draft;
    let glyph = Glyphs::new(&card.theme).chord(chord, draft.layout(), draft.words());
    let name = escaped(&draft.telling().spoken(chord));
    let svg = glyph.to_svg_at(27.0);
    out.push_str(&svg.replacen(
        "<svg ",
        &format!("<svg role=\"img\" aria-label=\"{name}\" "),
        1,
    ));
}

//! What stays as it was written, to the letter.

use similar::{DiffOp, TextDiff};

/// The text with only those lines of it changed that a document written anew has otherwise: `read` is the
/// document as it was read, `changed` the same after its change, both as the library writes them. It writes
/// some things otherwise than they stood, such as the ends of lines or quotes in a heading.
pub(crate) fn only_changes(text: &str, read: &str, changed: &str) -> String {
    let (mark, body) = match text.strip_prefix(BYTE_ORDER_MARK) {
        Some(body) => (BYTE_ORDER_MARK, body),
        None => ("", text),
    };
    let own: Vec<&str> = body.split_inclusive('\n').collect();
    let (read, changed): (Vec<&str>, Vec<&str>) = (
        read.split_inclusive('\n').collect(),
        changed.split_inclusive('\n').collect(),
    );
    if own.len() != read.len() {
        // No line can be told to be another one as it stood.
        return changed.concat();
    }
    let crlf = own.iter().filter(|line| line.ends_with("\r\n")).count() * 2 > own.len();
    let ended = |line: &str| match line.strip_suffix('\n') {
        Some(bare) if crlf => format!("{}\r\n", bare.trim_end_matches('\r')),
        _ => line.to_owned(),
    };
    let mut out = mark.to_owned();
    for op in TextDiff::from_slices(&read, &changed).ops() {
        if !out.is_empty() && out != mark && !out.ends_with('\n') {
            // The last line had no end, and is not the last one any more.
            out.push_str(if crlf { "\r\n" } else { "\n" });
        }
        match *op {
            DiffOp::Equal { old_index, len, .. } => {
                out.extend(own[old_index..old_index + len].iter().copied());
            }
            _ => out.extend(changed[op.new_range()].iter().map(|line| ended(line))),
        }
    }
    out
}

const BYTE_ORDER_MARK: &str = "\u{feff}";

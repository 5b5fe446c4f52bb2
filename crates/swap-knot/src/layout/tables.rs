//! The shipped layouts: a text that is searched for one layout and decoded only then.

use std::sync::Arc;

use super::{Board, Data, Layout, PLACES, Typed};

const TABLES: &str = include_str!("tables.txt");

pub(super) fn names() -> impl Iterator<Item = &'static str> {
    headers().map(|(name, _)| name)
}

pub(super) fn find(name: &str) -> Option<Layout> {
    let (_, rest) = headers().find(|(n, _)| *n == name)?;
    let mut lines = rest.lines();
    let mut head = lines.next()?.splitn(3, ' ');
    let (name, board, title) = (head.next()?, head.next()?, head.next()?);
    let mut typed = [[None; PLACES]; 4];
    for level in &mut typed {
        for (cell, word) in level.iter_mut().zip(lines.next()?.split(' ')) {
            *cell = decode(word);
        }
    }
    Some(Layout(Arc::new(Data {
        name: name.to_owned(),
        title: title.to_owned(),
        board: board_of(board),
        typed,
    })))
}

/// The name of each layout, and the text from that name on.
fn headers() -> impl Iterator<Item = (&'static str, &'static str)> {
    TABLES
        .match_indices("\n= ")
        .map(|(at, mark)| &TABLES[at + mark.len()..])
        .filter_map(|rest| Some((rest.split_once(' ')?.0, rest)))
}

fn board_of(word: &str) -> Board {
    match word {
        "ANSI" => Board::Ansi,
        "JIS" => Board::Jis,
        "ABNT2" => Board::Abnt2,
        "KS" => Board::Ks,
        _ => Board::Iso,
    }
}

fn decode(word: &str) -> Option<Typed> {
    let mut chars = word.chars();
    let (first, rest) = (chars.next()?, chars.as_str());
    let (character, dead) = match (first, rest) {
        (character, "") => (character, false),
        ('*', mark) => (mark.chars().next()?, true),
        ('u', hex) => (
            u32::from_str_radix(hex, 16).ok().and_then(char::from_u32)?,
            false,
        ),
        _ => return None,
    };
    Some(Typed { character, dead })
}

//! The shipped layouts: a text that is searched for one layout and decoded only then.

use super::{Board, Data, Layout, PLACES, Table, Typed};

const TABLES: &str = include_str!("tables.txt");

pub(super) fn names() -> impl Iterator<Item = &'static str> {
    blocks().filter_map(|block| Some(block.split_once(' ')?.0))
}

pub(super) fn all() -> impl Iterator<Item = Layout> {
    blocks().filter_map(decode)
}

pub(super) fn find(name: &str) -> Option<Layout> {
    let named = |block: &&str| block.split_once(' ').is_some_and(|(n, _)| n == name);
    decode(blocks().find(named)?)
}

/// The text of each layout, from its name on.
fn blocks() -> impl Iterator<Item = &'static str> {
    TABLES.split("\n== ").skip(1)
}

fn decode(block: &str) -> Option<Layout> {
    let mut lines = block.lines();
    let mut head = lines.next()?.splitn(5, ' ');
    let (name, board, beside) = (head.next()?, head.next()?, head.next()?);
    let (widely_used, title) = (head.next()? == "wide", head.next()?);
    let mut boards = board.split('/').map(Board::named);
    let board = boards.next()??;
    let mut typed: Table = [[None; PLACES]; 4];
    // A level that types nothing has an empty line, or none at the end.
    for (level, line) in typed.iter_mut().zip(lines) {
        for (cell, word) in level.iter_mut().zip(line.split(' ')) {
            *cell = typed_of(word);
        }
    }
    Some(Layout::of(Data {
        beside: Some(beside.to_owned()),
        widely_used,
        other_boards: boards.collect::<Option<_>>()?,
        ..Data::new(name, title, board, typed)
    }))
}

fn typed_of(word: &str) -> Option<Typed> {
    let mut chars = word.chars();
    let (first, rest) = (chars.next()?, chars.as_str());
    let (character, dead) = match (first, rest) {
        (character, "") => (character, false),
        ('*', mark) => (mark.chars().next()?, true),
        ('u', hex) => {
            let code = u32::from_str_radix(hex, 16).ok();
            (code.and_then(char::from_u32)?, false)
        }
        _ => return None,
    };
    Some(Typed { character, dead })
}

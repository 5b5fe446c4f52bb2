//! Where the player is in the menu.

use swap_knot::{Cell, Column, Direction, MenuRow};

/// The buttons above the rows, from left to right.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Tool {
    Apply,
    Discard,
    Undo,
    Redo,
    ResetAll,
    Search,
    Find,
    ShowAll,
}

impl Tool {
    pub(crate) const ALL: [Tool; 8] = [
        Tool::Apply,
        Tool::Discard,
        Tool::Undo,
        Tool::Redo,
        Tool::ResetAll,
        Tool::Search,
        Tool::Find,
        Tool::ShowAll,
    ];

    /// Its name among [`RemapMenu::places`](crate::RemapMenu::places).
    pub(crate) const fn id(self) -> &'static str {
        match self {
            Tool::Apply => "apply",
            Tool::Discard => "discard",
            Tool::Undo => "undo",
            Tool::Redo => "redo",
            Tool::ResetAll => "reset-all",
            Tool::Search => "search",
            Tool::Find => "find",
            Tool::ShowAll => "show-all",
        }
    }
}

/// Where the player is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Focus {
    Tool(Tool),
    Cell(Cell),
    /// An answer to the question that is open.
    Answer(usize),
}

impl Focus {
    /// The next place in a direction, among the rows that are shown.
    pub(crate) fn go(self, way: Direction, rows: &[&MenuRow], columns: &[Column]) -> Focus {
        match self {
            Focus::Tool(tool) => from_tool(tool, way, rows),
            Focus::Cell(cell) => from_cell(cell, way, rows, columns),
            Focus::Answer(n) => Focus::Answer(match way {
                Direction::Up => n.saturating_sub(1),
                Direction::Down => n + 1,
                Direction::Left | Direction::Right => n,
            }),
        }
    }
}

fn from_tool(tool: Tool, way: Direction, rows: &[&MenuRow]) -> Focus {
    let at = Tool::ALL.iter().position(|t| *t == tool).unwrap_or(0);
    let step = |to: usize| Focus::Tool(Tool::ALL[to.min(Tool::ALL.len() - 1)]);
    match way {
        Direction::Left => step(at.saturating_sub(1)),
        Direction::Right => step(at + 1),
        Direction::Up => Focus::Tool(tool),
        Direction::Down => first_cell(rows).unwrap_or(Focus::Tool(tool)),
    }
}

/// The first cell of the first row.
pub(crate) fn first_cell(rows: &[&MenuRow]) -> Option<Focus> {
    let cell = rows.first()?.cells.first()?;
    Some(Focus::Cell(cell.cell))
}

fn from_cell(cell: Cell, way: Direction, rows: &[&MenuRow], columns: &[Column]) -> Focus {
    let row = rows.iter().position(|r| r.row == cell.row);
    let column = columns.iter().position(|c| *c == cell.column);
    let (Some(row), Some(column)) = (row, column) else {
        // What was here is not shown any more.
        return first_cell(rows).unwrap_or(Focus::Tool(Tool::Apply));
    };
    let (row, column) = match way {
        Direction::Up if row == 0 => return Focus::Tool(Tool::Apply),
        Direction::Up => (row - 1, column),
        Direction::Down => ((row + 1).min(rows.len() - 1), column),
        Direction::Left => (row, column.saturating_sub(1)),
        Direction::Right => (row, (column + 1).min(columns.len() - 1)),
    };
    Focus::Cell(rows[row].row.cell(columns[column]))
}

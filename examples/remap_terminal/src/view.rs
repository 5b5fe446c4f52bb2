//! The rows as a table, and below it what the menu waits for.

use ratatui::Frame;
use ratatui::layout::{Constraint, Layout};
use ratatui::style::{Modifier, Style, Stylize as _};
use ratatui::text::Line;
use ratatui::widgets::{Block, Cell, Paragraph, Row, Table, TableState, Wrap};
use swap_knot::{Input, MenuRow, Place, Words};

use crate::{App, Busy};

pub(crate) fn draw(app: &App, frame: &mut Frame<'_>) {
    let [top, bottom] =
        Layout::vertical([Constraint::Min(6), Constraint::Length(9)]).areas(frame.area());
    let words = app.draft.words();
    let mut head = vec![Cell::from("")];
    let columns = app.menu.columns().iter();
    head.extend(columns.map(|column| Cell::from(words.column_title(*column))));
    // A heading for each group stands between the rows; the selection counts it in.
    let (mut lines, mut selected, mut group) = (Vec::new(), 0, None);
    for (n, row) in app.menu.rows().iter().enumerate() {
        if group.replace(row.group) != Some(row.group) {
            let title = app.draft.group_title(row.group);
            lines.push(Row::new([Cell::from(title.bold())]));
        }
        if n == app.at.0 {
            selected = lines.len();
        }
        lines.push(line(app, row));
    }
    let mut widths = vec![Constraint::Length(24)];
    widths.extend(app.menu.columns().iter().map(|_| Constraint::Fill(1)));
    let table = Table::new(lines, widths)
        .header(Row::new(head).style(Style::new().dim()))
        .cell_highlight_style(Style::new().add_modifier(Modifier::REVERSED))
        .block(Block::bordered().title(words.game_title(app.draft.sheet())));
    let mut state = TableState::new().with_selected_cell((selected, app.at.1 + 1));
    frame.render_stateful_widget(table, top, &mut state);
    let below = Paragraph::new(below(app))
        .wrap(Wrap { trim: false })
        .block(Block::bordered());
    frame.render_widget(below, bottom);
}

fn line<'a>(app: &App, row: &'a MenuRow) -> Row<'a> {
    let must = if row.essential { " *" } else { "" };
    let mut cells = vec![Cell::from(format!("  {}{must}", row.title))];
    for cell in &row.cells {
        let listening = matches!(app.busy, Busy::Listening) && app.cell() == cell.cell;
        // Signs besides colours: not every terminal has those, nor every eye.
        let sign = match (cell.conflict, cell.changed) {
            (true, _) => "! ",
            (_, true) => "• ",
            _ => "",
        };
        let name = match listening {
            true => app.draft.words().say("menu-press", &[]),
            false => cell.name.clone().unwrap_or_else(|| "—".to_owned()),
        };
        let style = match (cell.conflict, cell.changed) {
            (true, _) => Style::new().red(),
            (_, true) => Style::new().yellow(),
            _ => Style::new(),
        };
        cells.push(Cell::from(format!("{sign}{name}")).style(style));
    }
    Row::new(cells)
}

fn below(app: &App) -> Vec<Line<'static>> {
    let words = app.draft.words();
    let mut lines: Vec<Line<'static>> = Vec::new();
    match &app.busy {
        Busy::Nothing => {
            let name = |place| words.short_name(Input::Key(place), app.draft.layout());
            let (choose, unbind) = (name(Place::Enter), name(Place::Delete));
            let reset = name(Place::KeyR);
            let keys = [("choose", &*choose), ("unbind", &unbind), ("reset", &reset)];
            let keys = words.say("menu-keys", &keys);
            let rest = [
                (Place::KeyU, "menu-undo"),
                (Place::KeyA, "menu-apply"),
                (Place::KeyQ, "menu-done"),
            ];
            let rest = rest.map(|(key, id)| labelled(words, &name(key), id));
            lines.push(Line::from(format!("{keys} · {}", rest.join(" · "))));
        }
        Busy::Listening => {
            let title = app.draft.row_title(app.cell().row);
            lines.push(Line::from(words.say("menu-listen", &[("title", &title)])).bold());
        }
        Busy::Asking(question) => {
            lines.push(Line::from(app.draft.tell(&**question)).bold());
            for (n, way) in question.ways().iter().enumerate() {
                let word = words.say(&format!("menu-{}", way.settle.word()), &[]);
                let effects = app.draft.tell(way).replace('\n', "; ");
                lines.push(Line::from(format!("{} {word}  {effects}", n + 1)));
            }
        }
        Busy::Leaving => {
            lines.push(Line::from(words.say("menu-leave", &[])).bold());
            let name = |place| words.short_name(Input::Key(place), app.draft.layout());
            let ways = [
                (Place::KeyA, "menu-leave-apply"),
                (Place::KeyD, "menu-leave-discard"),
                (Place::Escape, "menu-stay"),
            ];
            let ways = ways.map(|(key, id)| labelled(words, &name(key), id));
            lines.push(Line::from(ways.join(" · ")));
        }
    }
    if !app.message.is_empty() {
        lines.push(Line::from(app.message.clone()).yellow());
    }
    if !matches!(app.busy, Busy::Asking(_)) {
        lines.extend(app.draft.summary().into_iter().map(Line::from));
    }
    lines
}

/// A key and what it does.
fn labelled(words: &Words, key: &str, id: &str) -> String {
    format!("{key}: {}", words.say(id, &[]))
}

//! The controls screen as lines of text.

use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::style::{Style, Stylize as _};
use ratatui::text::{Line, Span};
use ratatui::widgets::{Block, Clear, Paragraph, Wrap};
use swap_knot::screen::{Dialog, Item, Live, Role, RowView, ScreenView};
use swap_knot::sheet::Arm;

/// How wide a title is, and a binding at most, in characters.
const TITLE: usize = 24;
const CELL: usize = 28;
/// A free cell.
const FREE: usize = 3;
/// How many lines are kept below the page, so that it stays where it is.
const BELOW: u16 = 7;

/// Draws the screen; keeps how far its list is scrolled.
#[derive(Default)]
pub(crate) struct Skin {
    top: u16,
}

impl Skin {
    pub(crate) fn draw(&mut self, view: &ScreenView, frame: &mut Frame<'_>) {
        let below = below(view);
        let height = (below.len() as u16 + 2).clamp(BELOW, 12);
        let areas = Layout::vertical([
            Constraint::Length(3),
            Constraint::Min(4),
            Constraint::Length(height),
        ]);
        let [head, page, foot] = areas.areas(frame.area());
        let bars = vec![bar(&view.pages), bar(&view.tools)];
        frame.render_widget(Paragraph::new(bars).wrap(Wrap { trim: true }), head);
        let (lines, focused) = page_lines(view, usize::from(page.width.saturating_sub(2)));
        let room = page.height.saturating_sub(2);
        if let Some(at) = focused {
            self.top = self
                .top
                .clamp((at + 3).saturating_sub(room), at.saturating_sub(2));
        }
        let list = Paragraph::new(lines).scroll((self.top, 0));
        frame.render_widget(
            list.block(Block::bordered().title(view.title.as_str())),
            page,
        );
        let below = Paragraph::new(below).wrap(Wrap { trim: false });
        frame.render_widget(below.block(Block::bordered()), foot);
        if let Some(shown) = &view.dialog {
            dialog(shown, view.message.as_deref(), frame, page);
        }
    }
}

/// Items in one line.
fn bar(items: &[Item]) -> Line<'static> {
    let mut line = Line::default();
    for item in items {
        line.push_span(span(item, None));
        line.push_span(" ");
    }
    line
}

/// An item: its sign, its text, and that the player is on it. Not every terminal has colours.
fn span(item: &Item, width: Option<usize>) -> Span<'static> {
    let sign = match (item.conflict, item.changed, &item.role) {
        (true, ..) => "! ",
        (_, true, _) => "• ",
        (.., Role::Tab { selected: true }) => "▸ ",
        (.., Role::Radio { selected: true } | Role::Switch { on: true }) => "(x) ",
        (.., Role::Radio { .. } | Role::Switch { .. }) => "( ) ",
        _ => "",
    };
    let manner = item.manner.as_deref().map(|manner| format!(" · {manner}"));
    let mut text = format!("{sign}{}{}", item.short, manner.unwrap_or_default());
    if let Role::Slider { at } = item.role {
        let at = (at * 20.0).round() as usize;
        text = format!(
            "{sign}{}●{} {}",
            "─".repeat(at),
            "─".repeat(20 - at),
            item.label
        );
    }
    if let Some(width) = width {
        if text.chars().count() > width {
            text = text
                .chars()
                .take(width.saturating_sub(1))
                .chain(['…'])
                .collect();
        }
        text = format!("{text:<width$}");
    }
    let is_quiet = !item.enabled || item.by_whole;
    let style = match (item.focused, item.conflict, item.changed, is_quiet) {
        (true, ..) => Style::new().reversed(),
        (_, true, ..) => Style::new().red(),
        (_, _, true, _) => Style::new().yellow(),
        (.., true) => Style::new().dim(),
        _ => Style::new(),
    };
    Span::styled(text, style)
}

/// The page, and the line that the player is on.
fn page_lines(view: &ScreenView, room: usize) -> (Vec<Line<'static>>, Option<u16>) {
    let (mut lines, mut focused) = (Vec::new(), None);
    let widths = widths(view);
    let from = first_place(view, &widths, room);
    if !view.columns.is_empty() {
        let (mut head, mut place) = (format!("{:TITLE$} ", ""), 0);
        for column in &view.columns {
            let own = place..place + usize::from(column.span);
            place = own.end;
            if own.start < from {
                continue;
            }
            let width = widths[own].iter().map(|w| w + 1).sum::<usize>() - 1;
            let title: String = column.title.chars().take(width).collect();
            head.push_str(&format!("{title:<width$} "));
        }
        lines.push(Line::from(head).dim());
    }
    for section in &view.sections {
        if !section.title.is_empty() {
            lines.push(Line::from(section.title.clone()).bold());
        }
        lines.extend(section.text.iter().map(|t| Line::from(t.clone()).dim()));
        for row in &section.rows {
            if row.items.iter().any(|i| i.focused) {
                focused = Some(lines.len() as u16);
            }
            lines.push(row_line(row, &widths, from));
        }
    }
    for keys in view
        .board
        .iter()
        .flat_map(|b| b.keys.chunk_by(|a, b| a.rect[1] == b.rect[1]))
    {
        if keys.iter().any(|k| k.item.focused) {
            focused = Some(lines.len() as u16);
        }
        let mut line = Line::default();
        for key in keys {
            let mut key_span = span(&key.item, None);
            if key.down || !key.does.is_empty() {
                key_span = key_span.bold();
            }
            line.extend([Span::raw(" "), key_span]);
        }
        lines.push(line);
    }
    let told = view
        .board
        .iter()
        .flat_map(|b| &b.keys)
        .filter(|k| k.item.focused);
    lines.extend(told.flat_map(|k| &k.does).map(|d| Line::from(d.clone())));
    (lines, focused)
}

/// The first place that is shown: where not all devices fit beside each other, those before the one that
/// the player is on give way.
fn first_place(view: &ScreenView, widths: &[usize], room: usize) -> usize {
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    let on = rows.flat_map(|r| &r.items).find(|i| i.focused);
    let on = on.map_or(0, |item| usize::from(item.place));
    let mut from = 0;
    for column in &view.columns {
        let shown = widths.get(from..=on).unwrap_or_default();
        let next = from + usize::from(column.span);
        let fits = TITLE + 1 + shown.iter().map(|w| w + 1).sum::<usize>() <= room;
        if fits || next > on {
            break;
        }
        from = next;
    }
    from
}

/// How wide each place of a row is: as wide as what is bound in it.
fn widths(view: &ScreenView) -> Vec<usize> {
    let places: usize = view.columns.iter().map(|c| usize::from(c.span)).sum();
    let mut widths = vec![FREE; places];
    for item in view
        .sections
        .iter()
        .flat_map(|s| &s.rows)
        .flat_map(|r| &r.items)
    {
        let shown = span(item, None).content.chars().count().min(CELL);
        if let Some(width) = widths.get_mut(usize::from(item.place)) {
            *width = shown.max(*width);
        }
    }
    widths
}

fn row_line(row: &RowView, widths: &[usize], from: usize) -> Line<'static> {
    let sign = if row.lit { "● " } else { "" };
    let title = match (row.arm, row.essential) {
        (Some(arm), _) => format!(" {} {}", arrow(arm), row.short),
        (None, true) => format!("{sign}{} *", row.title),
        (None, false) => format!("{sign}{}", row.title),
    };
    let mut line = Line::from(format!("{title:<TITLE$} "));
    let mut place = from;
    for item in (row.items.iter()).filter(|i| usize::from(i.place) >= from) {
        // Under its column, where there are columns.
        while !widths.is_empty() && place < usize::from(item.place) {
            line.push_span(" ".repeat(widths[place] + 1));
            place += 1;
        }
        line.push_span(span(item, widths.get(place).copied()));
        line.push_span(" ");
        place += 1;
    }
    match row.live {
        Some(Live::Stick { at: [x, y], .. }) => line.push_span(format!(" {x:.2} {y:.2} ")),
        Some(Live::Pull { at, .. }) => line.push_span(format!(" {at:.2} ")),
        _ => {}
    }
    line.extend(
        row.mark
            .iter()
            .map(|mark| Span::raw(format!(" ● {mark} ")).bold()),
    );
    line.push_span(Span::raw(row.text.clone().unwrap_or_default()).dim());
    line
}

/// The sign of a direction.
const fn arrow(arm: Arm) -> &'static str {
    match arm {
        Arm::Left => "◀",
        Arm::Right => "▶",
        Arm::Down => "▼",
        Arm::Up => "▲",
        Arm::Back | Arm::Forward => "·",
    }
}

/// What was refused, what works the screen, conflicts and what is not applied yet.
fn below(view: &ScreenView) -> Vec<Line<'static>> {
    let mut lines: Vec<Line<'static>> = Vec::new();
    lines.extend(view.message.iter().map(|m| Line::from(m.clone()).yellow()));
    let details = &view.details;
    let about = [&details.device, &details.title, &details.name].into_iter();
    let about: Vec<&str> = (about.chain(&details.text).map(String::as_str))
        .filter(|text| !text.is_empty())
        .collect();
    lines.push(Line::from(about.join(" · ")));
    let hints: Vec<String> = view
        .hints
        .iter()
        .map(|h| format!("{}: {}", h.name, h.does))
        .collect();
    lines.push(Line::from(hints.join(" · ")).dim());
    for note in &view.notes {
        let line = Line::from(note.text.clone());
        lines.push(match (note.heading, note.conflict) {
            (true, _) => line.bold(),
            (_, true) => line.red(),
            _ => line,
        });
    }
    lines
}

/// What has to be answered first, over the page; its list follows the player.
fn dialog(shown: &Dialog, message: Option<&str>, frame: &mut Frame<'_>, page: Rect) {
    let mut lines = vec![Line::from(shown.title.clone()).bold()];
    lines.extend(message.map(|m| Line::from(m.to_owned()).yellow()));
    lines.extend(shown.text.iter().map(|t| Line::from(t.clone())));
    for text in shown.field.iter().map(|t| format!("{t}▏")) {
        let text = text.lines().map(|t| Line::from(t.to_owned()).underlined());
        lines.extend(text.map(|t| if shown.is_selected { t.reversed() } else { t }));
    }
    let mut focused = 0;
    for items in &shown.lines {
        if items.iter().any(|i| i.focused) {
            focused = lines.len();
        }
        lines.push(bar(items));
        let text = items.iter().flat_map(|i| &i.text);
        lines.extend(text.map(|t| Line::from(format!("   {t}")).dim()));
    }
    let height = (lines.len() as u16 + 2).min(page.height);
    let area = Rect { height, ..page };
    let room = usize::from(height.saturating_sub(3));
    let top = focused.saturating_sub(room) as u16;
    frame.render_widget(Clear, area);
    let block = Block::bordered().border_style(Style::new().yellow());
    frame.render_widget(Paragraph::new(lines).scroll((top, 0)).block(block), area);
}

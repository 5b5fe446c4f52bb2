//! What began and ended, on a line of time.

use std::collections::VecDeque;

use egui::{Align2, FontId, Rect, Sense, Stroke, Ui, pos2, vec2};
use swap_knot::play::{Cause, Edge};
use swap_knot::{Controls, Row, Seat, Time};

use crate::Look;

/// How much of the past is shown, in seconds.
const SECONDS: f32 = 6.0;
/// How many rows are shown, and how high each is.
const ROWS: usize = 8;
const HEIGHT: f32 = 18.0;
/// How much room titles take.
const TITLES: f32 = 150.0;
/// The most spans that are kept, however fast something is worked.
const KEPT: usize = 2_000;

/// Something that was on.
#[derive(Debug)]
struct Span {
    row: Row,
    from: Time,
    to: Option<(Time, Cause)>,
}

/// What was on lately.
#[derive(Debug, Default)]
pub(super) struct Edges {
    spans: VecDeque<Span>,
}

impl Edges {
    pub(super) fn take_in(&mut self, seat: &Seat, now: Time) {
        let sheet = seat.rig().sheet();
        // Another sheet has other rows.
        self.spans
            .retain(|span| sheet.action(span.row.action).is_some());
        for happened in seat.happened() {
            let (action, arm) = (happened.action, happened.arm);
            let row = Row { action, arm };
            match happened.edge {
                Edge::Began => self.spans.push_back(Span {
                    row,
                    from: happened.at,
                    to: None,
                }),
                Edge::Ended => {
                    let mut open = self.spans.iter_mut().rev();
                    if let Some(span) = open.find(|s| s.row == row && s.to.is_none()) {
                        span.to = Some((happened.at, happened.cause));
                    }
                }
            }
        }
        let ago = |at: Time| now.since(at).as_secs_f32();
        let is_old = |span: &Span| span.to.is_some_and(|(to, _)| ago(to) > SECONDS);
        self.spans.retain(|span| !is_old(span));
        let most = self.spans.len().saturating_sub(KEPT);
        self.spans.drain(..most);
    }

    pub(super) fn show(&self, ui: &mut Ui, controls: &Controls, now: Time) {
        let look = Look::DARK;
        let mut rows: Vec<Row> = Vec::new();
        // An action whose arms are there says no more than they do.
        for span in self.spans.iter().rev() {
            let row = span.row;
            let has_arms = |s: &Span| s.row.action == row.action && s.row.arm.is_some();
            let is_whole = row.arm.is_none() && self.spans.iter().any(has_arms);
            if !is_whole && !rows.contains(&row) {
                rows.push(row);
            }
        }
        rows.sort_unstable();
        rows.truncate(ROWS);
        let size = vec2(ui.available_width(), HEIGHT * ROWS as f32);
        let (response, painter) = ui.allocate_painter(size, Sense::hover());
        let all = response.rect;
        let line = Rect::from_min_max(pos2(all.left() + TITLES, all.top()), all.max);
        painter.rect_filled(line, 2.0, look.raised);
        let x = |at: Time| {
            let ago = now.since(at).as_secs_f32().min(SECONDS);
            line.right() - ago / SECONDS * line.width()
        };
        for second in 1..SECONDS as u8 {
            let at = line.right() - f32::from(second) / SECONDS * line.width();
            painter.vline(at, line.y_range(), Stroke::new(1.0, look.hover));
        }
        let font = FontId::proportional(12.0);
        let words = controls.words();
        let sheet = controls.seat().rig().sheet();
        for (n, row) in rows.iter().enumerate() {
            let top = all.top() + HEIGHT * n as f32;
            let middle = pos2(all.left(), top + HEIGHT / 2.0);
            let title = words.row_title(sheet, *row);
            let shown = painter.with_clip_rect(Rect::from_min_size(
                pos2(all.left(), top),
                vec2(TITLES - 6.0, HEIGHT),
            ));
            shown.text(middle, Align2::LEFT_CENTER, title, font.clone(), look.text);
            for span in self.spans.iter().filter(|s| s.row == *row) {
                let (to, cause) = span.to.unwrap_or((now, Cause::LetGo));
                // What was let go at once can be seen, too.
                let right = x(to).max(x(span.from) + 2.0);
                let bar = Rect::from_min_max(
                    pos2(x(span.from), top + 3.0),
                    pos2(right, top + HEIGHT - 3.0),
                );
                let color = match (span.to, cause) {
                    (None, _) => look.here,
                    (_, Cause::LetGo) => look.lit,
                    _ => look.conflict,
                };
                painter.rect_filled(bar, 2.0, color);
            }
        }
        if rows.is_empty() {
            let text = "nothing began or ended in the last seconds";
            let middle = line.center();
            painter.text(middle, Align2::CENTER_CENTER, text, font, look.quiet);
        }
    }
}

//! Going from one item to the next, and the view as it is now.

use super::{
    Busy, ControlsScreen, Details, Dialog, Hint, Item, Note, Page, ProfileCommand, Role, RowView,
    ScreenView, Spot, Tool,
};
use crate::draft::Draft;
use crate::input::Direction;
use crate::sheet::Cell;

impl ControlsScreen {
    /// What is to be seen and heard, as it is now.
    pub fn view(&mut self) -> &ScreenView {
        if self.stale {
            self.follow_family();
        }
        if self.rows.refresh(&self.draft) || self.stale {
            self.stale = false;
            self.moved = false;
            self.made += 1;
            self.view = self.make_view();
            self.keep_focus();
        } else if self.moved {
            self.moved = false;
            self.keep_focus();
        }
        &self.view
    }

    /// How often what is seen was made anew, rather than that the player went from one item to another: for
    /// skins that measure what they draw.
    pub const fn revision(&self) -> u64 {
        self.made
    }

    fn make_view(&self) -> ScreenView {
        let mut view = ScreenView {
            title: self.text("screen-title"),
            profile: self.draft.profile().shown_title().into_owned(),
            pages: self.pages().map(|page| self.tab(page)).collect(),
            dialog: self.dialog(),
            message: self.message.clone(),
            notes: self.notes(),
            ..ScreenView::default()
        };
        match self.page {
            Page::Bindings => self.view_bindings(&mut view),
            Page::Feel => self.view_feel(&mut view),
            Page::Profiles => self.view_profiles(&mut view),
            Page::Keyboard => self.view_keyboard(&mut view),
            Page::Pad => self.view_pad(&mut view),
            Page::Touch => self.view_touch(&mut view),
            Page::Try => self.view_trial(&mut view),
        }
        view
    }

    /// The player is on something that is there: where they were, or where they began.
    fn keep_focus(&mut self) {
        let lines = self.view.lines();
        let is_there = |spot| lines.iter().flatten().any(|i| i.spot == spot);
        if !is_there(self.focus) {
            let near = match self.focus {
                // The column beyond the last one went with a binding.
                Spot::Cell(cell) => nearest(&lines, cell),
                _ => None,
            };
            let first = || lines.first().and_then(|l| l.first()).map(|i| i.spot);
            if let Some(spot) = near.or_else(first) {
                self.focus = spot;
            }
        }
        let focus = self.focus;
        if is_setting(focus) {
            self.last = Some(focus);
        }
        let all = self.view.items_mut();
        all.for_each(|i| i.focused = i.spot == focus);
        // A question is about what the player was on.
        let about = match focus {
            Spot::Answer(_) | Spot::Letter(_) => self.before,
            other => other,
        };
        self.view.details = self.details(about);
        // What the player can do depends on where they are now.
        self.view.hints = self.hints();
    }

    /// What is to be known of what the player is on.
    fn details(&self, focus: Spot) -> Details {
        if let Spot::Cell(cell) = focus {
            return self.details_of(cell);
        }
        if let Spot::Profile(n, command) = focus
            && command != ProfileCommand::Undelete
        {
            return self.details_of_profile(n);
        }
        let sections = self.view.sections.iter();
        let mut rows = sections.flat_map(|s| &s.rows);
        let row = rows.find(|row| row.items.iter().any(|i| i.spot == focus));
        let item = self.view.items().find(|i| i.spot == focus);
        let label = || item.map(|i| i.label.clone()).unwrap_or_default();
        let mut text = item.map(|i| i.text.clone()).unwrap_or_default();
        text.extend(row.and_then(|row| row.text.clone()));
        let curve = self.curve(focus);
        text.extend(curve.as_ref().and_then(|curve| self.told_of(curve)));
        Details {
            title: row.map_or_else(label, |row| row.title.clone()),
            device: self.device_of(focus),
            text,
            curve,
            ..Details::default()
        }
    }

    /// Makes a number less or more, or goes to what is beside.
    pub(super) fn steer(&mut self, way: Direction) {
        if self.nudge(way) {
            self.stale = true;
        } else {
            self.go(way);
        }
    }

    /// To what is above, below, left or right.
    pub(super) fn go(&mut self, way: Direction) {
        self.view();
        let focus = self.focus;
        let lines = self.view.lines();
        let place = |line: &Vec<&Item>| line.iter().position(|i| i.spot == focus);
        let Some((row, at)) = lines
            .iter()
            .enumerate()
            .find_map(|(n, l)| Some((n, place(l)?)))
        else {
            return;
        };
        let line = &lines[row];
        // Answers may be drawn below or beside each other.
        let way = match (way, line.len(), &self.view.dialog) {
            (Direction::Left, 1, Some(_)) => Direction::Up,
            (Direction::Right, 1, Some(_)) => Direction::Down,
            _ => way,
        };
        let to = match way {
            Direction::Left => line.get(at.wrapping_sub(1)).copied(),
            Direction::Right => line.get(at + 1).copied(),
            Direction::Up => row.checked_sub(1).and_then(|r| beside(&lines[r], line, at)),
            Direction::Down => lines.get(row + 1).and_then(|l| beside(l, line, at)),
        };
        if let Some(item) = to {
            let spot = item.spot;
            self.focus_on(spot);
        }
    }

    pub(super) fn focus_on(&mut self, spot: Spot) {
        self.focus = spot;
        self.pointing.forget_focus();
        self.moved = true;
    }

    /// Where a page begins: with what it is about, below its tabs and tools.
    pub(super) fn first_spot(&mut self) -> Spot {
        self.stale = true;
        let page = Spot::Page(self.page);
        let sections = &self.view().sections;
        let items = || sections.iter().flat_map(|s| &s.rows).flat_map(|r| &r.items);
        // The first thing that can be done, if any can.
        let first = items().find(|i| i.enabled).or(items().next());
        first.map_or(page, |i| i.spot)
    }

    fn tab(&self, page: Page) -> Item {
        let label = self.text(&format!("page-{}", page.word()));
        let selected = page == self.page;
        let (spot, role) = (Spot::Page(page), Role::Tab { selected });
        self.item(spot, label, role)
    }

    pub(super) fn item(&self, spot: Spot, label: String, role: Role) -> Item {
        Item::new(spot, spot.id(self.draft.sheet()), label, role)
    }

    /// A row in which one of several is chosen.
    pub(super) fn choice(&self, spot: Spot, title: &str, label: String) -> RowView {
        let title = self.text(title);
        let mut item = self.item(spot, label, Role::Choice);
        let values = [("title", &*title), ("setting", &item.label)];
        item.spoken = self.draft.words().say("setting-of", &values);
        RowView {
            title,
            items: vec![item],
            ..RowView::default()
        }
    }

    /// The buttons that every page has, after those of its own.
    pub(super) fn common_tools(&self, own: Vec<Item>) -> Vec<Item> {
        let mut tools = own;
        let can_reset = self.draft.can_reset();
        tools.push(self.tool(Tool::Reset, "reset-more", can_reset));
        tools.extend(self.tools_at_end());
        tools
    }

    /// What is done with all that was changed.
    pub(super) fn tools_at_end(&self) -> [Item; 4] {
        let draft = &self.draft;
        let tool = |tool, id, enabled| self.tool(tool, id, enabled);
        [
            tool(Tool::Undo, "menu-undo", draft.can_undo()),
            tool(Tool::Redo, "menu-redo", draft.can_redo()),
            tool(Tool::Apply, "menu-apply", draft.is_changed()),
            tool(Tool::Leave, "menu-done", true),
        ]
    }

    pub(super) fn tool(&self, tool: Tool, id: &str, enabled: bool) -> Item {
        let item = self.item(Spot::Tool(tool), self.text(id), Role::Button);
        item.enabled(enabled)
    }

    /// Conflicts, and what applying would change.
    fn notes(&self) -> Vec<Note> {
        let (draft, words) = (&self.draft, self.draft.words());
        let mut notes = Vec::new();
        let conflicts = draft.conflicts();
        for conflict in conflicts.iter().filter(|c| c.class.is_conflict()) {
            let text = words.say("menu-conflict", &[("text", &draft.tell(conflict))]);
            notes.push(Note {
                text,
                heading: false,
                conflict: true,
            });
        }
        let summary = draft.summary();
        if !summary.is_empty() {
            let text = self.text("menu-not-applied");
            notes.push(Note {
                text,
                heading: true,
                conflict: false,
            });
        }
        let line = |text| Note {
            text,
            heading: false,
            conflict: false,
        };
        notes.extend(summary.into_iter().map(line));
        notes
    }

    /// What works the screen with the device in hand, as long as that is to be said.
    fn hints(&self) -> Vec<Hint> {
        if matches!(
            self.busy,
            Busy::Listening(..) | Busy::Finding(_) | Busy::Proving(_)
        ) {
            return Vec::new();
        }
        if matches!(self.busy, Busy::Trying(_)) {
            return self.trial_hints();
        }
        let is_shown = |id: &str| match id {
            "hint-choose" | "hint-back" => true,
            "hint-clear" => matches!(self.focus, Spot::Cell(_)),
            "hint-reset" => is_setting(self.focus),
            "hint-adjust" => {
                let numbers = self.focus.number_is_on().is_some();
                numbers || matches!(self.focus, Spot::About | Spot::Where)
            }
            _ => matches!(self.busy, Busy::Nothing),
        };
        let all = super::command::hints(self.hand(), self.draft.words().confirm()).into_iter();
        all.filter(|(_, id)| is_shown(id))
            .map(|(input, id)| Hint {
                input,
                name: short(&self.draft, input),
                does: self.text(id),
            })
            .collect()
    }

    pub(super) fn dialog(&self) -> Option<Dialog> {
        match &self.busy {
            Busy::Nothing | Busy::Trying(_) => None,
            Busy::Listening(cell, listener) => Some(self.view_listening(Some(*cell), listener)),
            Busy::Finding(listener) => Some(self.view_listening(None, listener)),
            Busy::Asking(question) => Some(self.view_question(question)),
            Busy::Picking(what) => Some(self.view_picking(what)),
            Busy::Typing(typing) => Some(self.view_typing(typing)),
            Busy::Proving(proving) => Some(self.view_proving(proving)),
            Busy::Teaching(learner) => Some(self.view_teaching(learner)),
            Busy::Vouching(vouching) => Some(self.view_vouching(vouching)),
        }
    }
}

/// Whether it is a binding or a number, which has something to go back to.
const fn is_setting(spot: Spot) -> bool {
    matches!(spot, Spot::Cell(_)) || spot.number_is_on().is_some()
}

pub(super) fn short(draft: &Draft, input: crate::input::Input) -> String {
    draft.words().short_name(input, draft.layout())
}

/// The item of another line that lies over or under one: that of the same place from the left in
/// columns, otherwise the last one.
fn beside<'a>(to: &[&'a Item], from: &[&Item], at: usize) -> Option<&'a Item> {
    if let Spot::Cell(cell) = from[at].spot {
        let same = |i: &&&Item| matches!(i.spot, Spot::Cell(c) if c.column == cell.column);
        let before = |i: &&&Item| matches!(i.spot, Spot::Cell(c) if c.column <= cell.column);
        let found = to.iter().find(same).or(to.iter().rev().find(before));
        if let Some(item) = found.or(to.first()) {
            return Some(item);
        }
    }
    to.get(at.min(to.len().saturating_sub(1))).copied()
}

/// The cell of the same row and devices that is nearest to one that is not shown any more.
fn nearest(lines: &[Vec<&Item>], cell: Cell) -> Option<Spot> {
    let cells = lines.iter().flatten().filter_map(|i| match i.spot {
        Spot::Cell(other) if other.row == cell.row => Some(other),
        _ => None,
    });
    let away = |c: &Cell| {
        let other_kind = c.column.kind() != cell.column.kind();
        (other_kind, c.column.number().abs_diff(cell.column.number()))
    };
    cells.min_by_key(away).map(Spot::Cell)
}

//! The page of the keyboard: its layout, and what each of its keys does.

use std::collections::BTreeMap;

use super::answer::Picking;
use super::{BoardView, ControlsScreen, Item, KeyView, Page, Role, ScreenView, Section, Spot};
use crate::draft::Draft;
use crate::input::{Chord, Control, Input, Place};
use crate::layout::Layout;
use crate::sheet::{Row, SituationId};

impl ControlsScreen {
    pub(super) fn view_keyboard(&self, view: &mut ScreenView) {
        let label = self.layout_title(self.draft.profile().layout());
        let id = match self.rehearsed {
            Some(_) => "rehearse-stop",
            None => "rehearse",
        };
        let rehearse = self.item(Spot::Rehearse, self.text(id), Role::Button);
        view.tools = self.common_tools(vec![rehearse]);
        let rehearsed = self.rehearsed.as_ref().map(|layout| {
            let words = self.draft.words();
            let name = words.untranslated(layout.own_name());
            words.say("rehearse-on", &[("layout", &name)])
        });
        view.sections.push(Section {
            title: rehearsed.unwrap_or_default(),
            rows: vec![self.choice(Spot::Layout, "setting-layout", label)],
            ..Section::default()
        });
        view.board = Some(match &self.rehearsed {
            Some(layout) => self.view_board(&self.rehearsal(layout)),
            None => self.view_board(&self.draft),
        });
    }

    /// What a player on another layout would have: everything as it is, judged there.
    fn rehearsal(&self, layout: &Layout) -> Draft {
        let own = &self.draft;
        let mut draft = Draft::new(own.sheet(), own.profile(), own.resolver().on(layout));
        draft.set_words(own.words());
        draft
    }

    /// Asks which layout is to be rehearsed, or goes back to the player's own.
    pub(super) fn work_rehearsal(&mut self) {
        match self.rehearsed.take() {
            Some(_) => self.stale = true,
            None => self.ask(Picking::Rehearse),
        }
    }

    pub(super) fn view_rehearsals(&self) -> Vec<Item> {
        let button = |(n, layout): (usize, Layout)| {
            let label = self.draft.words().untranslated(layout.own_name());
            self.button(n, label)
        };
        let mut all: Vec<Item> = Self::shipped()
            .into_iter()
            .enumerate()
            .map(button)
            .collect();
        all.push(self.button(all.len(), self.text("menu-cancel-button")));
        all
    }

    pub(super) fn pick_rehearsal(&mut self, n: usize) {
        self.rehearsed = Self::shipped().into_iter().nth(n);
        self.stale = true;
    }

    /// What a layout is called; one that is not chosen with that it was found.
    fn layout_title(&self, chosen: Option<&str>) -> String {
        let words = self.draft.words();
        match chosen.and_then(Layout::shipped) {
            Some(layout) => words.untranslated(layout.own_name()),
            None => {
                let here = words.untranslated(self.draft.layout().own_name());
                words.say("value-found", &[("name", &here)])
            }
        }
    }

    fn view_board(&self, draft: &Draft) -> BoardView {
        let caps = draft.layout().board().keys();
        let (on, here) = (self.titles_on_keys(draft), self.rows_on_keys(draft));
        let keys: Vec<KeyView> = caps
            .iter()
            .map(|cap| {
                let does = on.get(&cap.place).cloned().unwrap_or_default();
                let rows = here.get(&cap.place).map_or(&[][..], Vec::as_slice);
                let titles = |title: &dyn Fn(Row) -> String| {
                    let titles = rows.iter().map(|row| title(*row));
                    self.draft.telling().list(titles).unwrap_or_default()
                };
                KeyView {
                    title: titles(&|row| self.draft.row_title(row)),
                    short: titles(&|row| self.short_title(row)),
                    item: self.view_key(draft, cap.place, &does),
                    rect: [cap.x, cap.y, cap.width, cap.height],
                    down: self.book.is_down(Control::key(cap.place)),
                    does,
                }
            })
            .collect();
        let far =
            |edge: fn(&[f32; 4]) -> f32| keys.iter().map(|k| edge(&k.rect)).fold(0.0, f32::max);
        let (width, height) = (far(|r| r[0] + r[2]), far(|r| r[1] + r[3]));
        let mut board = BoardView {
            width,
            height,
            keys,
        };
        // Row by row, as they are walked.
        board.keys.sort_by(|a, b| {
            let at = |k: &KeyView| (k.rect[1], k.rect[0]);
            let (a, b) = (at(a), at(b));
            a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1))
        });
        board
    }

    /// What each key works by itself where the player is in the game.
    fn rows_on_keys(&self, draft: &Draft) -> BTreeMap<Place, Vec<Row>> {
        let (sheet, here) = (draft.sheet(), self.tried_in());
        let mut on: BTreeMap<Place, Vec<Row>> = BTreeMap::new();
        for bound in draft.bindings() {
            let own = &sheet.declared(bound.cell.row.action).situations;
            let is_here = own.is_empty() || here.is_some_and(|here| own.contains(&here));
            if !is_here || !bound.chord.is_plain() {
                continue;
            }
            for place in draft.resolver().places_of(bound.chord.input()) {
                let rows = on.entry(place).or_default();
                if !rows.contains(&bound.cell.row) {
                    rows.push(bound.cell.row);
                }
            }
        }
        on
    }

    /// The title of a row for little room: of a direction its arrow and the action.
    fn short_title(&self, row: Row) -> String {
        let title = self.draft.row_title(Row::of(row.action));
        match row.arm {
            Some(arm) => format!("{} {title}", self.draft.words().arm_sign(arm)),
            None => title,
        }
    }

    /// What each key has a part in.
    fn titles_on_keys(&self, draft: &Draft) -> BTreeMap<Place, Vec<String>> {
        let on = draft.resolver();
        self.titles_on(draft, |chord| {
            chord.inputs().flat_map(|i| on.places_of(i)).collect()
        })
    }

    /// What has a part in chords: what is live always, then by situation, in their order, a line each.
    pub(super) fn titles_on<K: Ord>(
        &self,
        draft: &Draft,
        parts: impl Fn(&Chord) -> Vec<K>,
    ) -> BTreeMap<K, Vec<String>> {
        let (sheet, words) = (draft.sheet(), draft.words());
        let mut on: BTreeMap<K, BTreeMap<Option<SituationId>, Vec<String>>> = BTreeMap::new();
        for bound in draft.bindings() {
            let title = self.draft.row_title(bound.cell.row);
            let own = &sheet.declared(bound.cell.row.action).situations;
            for part in parts(&bound.chord) {
                let by_situation = on.entry(part).or_default();
                let always = own.is_empty().then_some(None);
                for situation in own.iter().copied().map(Some).chain(always) {
                    let titles = by_situation.entry(situation).or_default();
                    if !titles.contains(&title) {
                        titles.push(title.clone());
                    }
                }
            }
        }
        let line = |(situation, titles): (Option<SituationId>, Vec<String>)| {
            let titles = self.listed(titles);
            let Some(situation) = situation else {
                return titles;
            };
            let place = words.situation_title(sheet, situation);
            words.say("setting-of", &[("title", &place), ("setting", &titles)])
        };
        let lines = |all: BTreeMap<_, _>| all.into_iter().map(line).collect();
        let all = on.into_iter();
        all.map(|(part, by)| (part, lines(by))).collect()
    }

    /// Several things, as the language joins them.
    pub(super) fn listed(&self, all: impl IntoIterator<Item = String>) -> String {
        let joined = self.draft.telling().list(all);
        joined.unwrap_or_else(|| self.text("key-free"))
    }

    fn view_key(&self, draft: &Draft, place: Place, does: &[String]) -> Item {
        let input = Input::Key(place);
        let words = draft.words();
        let name_on = |layout: &Layout| words.board_name(input, layout);
        let label = name_on(draft.layout());
        let own = name_on(self.draft.layout());
        let is_other = self.rehearsed.is_some() && own != label;
        let elsewhere = is_other.then(|| {
            let values = [("there", &*label), ("here", &own)];
            words.say("rehearse-key", &values)
        });
        let mut item = self.item(Spot::Key(place), label, Role::Button);
        let name = draft.telling().spoken(&input.into());
        let told = self.listed(does.iter().cloned());
        item.spoken = words.say("setting-of", &[("title", &name), ("setting", &told)]);
        item.text = elsewhere.into_iter().chain(does.iter().cloned()).collect();
        item
    }

    /// Shows what is on a key, among the bindings.
    pub(super) fn show_key(&mut self, place: Place) {
        self.filter.on = Some(Input::Key(place).into());
        self.turn_to(Page::Bindings);
    }

    /// Every layout to choose from: as it is found, and those that ship, by title.
    pub(super) fn layouts() -> Vec<Option<Layout>> {
        let shipped = Self::shipped().into_iter().map(Some);
        [None].into_iter().chain(shipped).collect()
    }

    fn shipped() -> Vec<Layout> {
        let mut all: Vec<Layout> = Layout::all_shipped().collect();
        all.sort_by(|a, b| a.title().cmp(b.title()));
        all
    }

    pub(super) fn view_layouts(&self) -> Vec<Item> {
        let profile = self.draft.profile();
        let chosen = profile.layout();
        let radio = |(n, layout): (usize, Option<Layout>)| {
            let name = layout.as_ref().map(Layout::name);
            let label = match name {
                Some(_) => self.layout_title(name),
                None => self.text("layout-found"),
            };
            let selected = chosen == name;
            self.item(Spot::Answer(n as u16), label, Role::Radio { selected })
        };
        Self::layouts().into_iter().enumerate().map(radio).collect()
    }

    pub(super) fn pick_layout(&mut self, n: usize) {
        if let Some(layout) = Self::layouts().get(n) {
            self.draft.choose_layout(layout.as_ref().map(Layout::name));
            self.rows.forget();
            self.stale = true;
        }
    }

    pub(super) fn ask_for_layout(&mut self) {
        self.ask(Picking::Layouts);
    }
}

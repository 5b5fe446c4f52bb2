//! One of several: what is asked, what each answer would do, and what comes of it.

use super::dialog::FIRST_ZONE;
use super::{Busy, ControlsScreen, Dialog, Item, Page, Role, ScreenWish, Spot};
use crate::draft::{Bind, Draft, PlayersOwn, Refusal, Reset, Settle};
use crate::input::{Chord, DeviceId, Input};
use crate::layout::Hand;
use crate::locker::Slug;
use crate::mapping::Controller;
use crate::sheet::{ActionId, Cell, ColumnKind};
use crate::survey::{mirror, one_handed};

/// How many lines of consequences an answer has at most.
const MOST_LINES: usize = 6;

/// What is asked.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Picking {
    /// What is rarely wanted.
    More,
    /// What becomes of unsaved changes.
    Leaving,
    /// How much goes back to the game's own.
    Resets(Vec<Level>),
    /// Which preset.
    Presets,
    /// What becomes of the player's own bindings under a preset.
    PlayersOwn(Option<String>),
    /// What the page of feel is about.
    About,
    /// Which keyboard layout.
    Layouts,
    /// Which layout is rehearsed.
    Rehearse,
    /// Whose marks the pads have.
    Families,
    /// Where actions are tried.
    Where,
    /// Whether a profile is deleted.
    Delete(Slug, String),
    /// Who plays with a device.
    Whose(DeviceId),
    /// Whether a controller is a pad, and is taught.
    Teach(Controller),
}

/// What goes back to the game's own.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Level {
    /// A number or switch.
    Setting(Spot),
    Of(Reset),
}

impl ControlsScreen {
    pub(super) fn view_picking(&self, what: &Picking) -> Dialog {
        let words = self.draft.words();
        let mut dialog = Dialog::default();
        let answers: Vec<Item> = match what {
            Picking::Leaving => {
                dialog.title = self.text("menu-leave");
                dialog.text = self.draft.summary();
                let ids = ["menu-leave-apply", "menu-leave-discard", "menu-stay"];
                self.buttons(&ids)
            }
            Picking::More => {
                dialog.title = self.text("menu-more");
                let mut all = self.view_more();
                all.push(self.button(0, self.text("menu-cancel-button")));
                all
            }
            Picking::Resets(levels) => {
                dialog.title = self.text("reset-title");
                let all = levels.iter().enumerate();
                let mut all: Vec<Item> = all.map(|(n, l)| self.view_level(n, l)).collect();
                all.push(self.button(levels.len(), self.text("menu-cancel-button")));
                all
            }
            Picking::Presets => {
                dialog.title = self.text("preset-title");
                self.view_presets()
            }
            Picking::PlayersOwn(name) => {
                dialog.title = self.text("mine-title");
                let preset = |mine| {
                    let name = name.as_deref();
                    self.would(|draft| draft.choose_preset(name, mine))
                };
                let answers = [
                    ("mine-keep", PlayersOwn::Keep),
                    ("mine-replace", PlayersOwn::Replace),
                ];
                let answers = answers.into_iter().enumerate();
                let mut all: Vec<Item> = answers
                    .map(|(n, (id, mine))| {
                        let (enabled, lines) = preset(mine);
                        self.button(n, self.text(id)).text(lines).enabled(enabled)
                    })
                    .collect();
                all.push(self.button(2, self.text("menu-back-out")));
                all
            }
            Picking::About => {
                dialog.title = self.text("about-title");
                let all = self.abouts();
                let radio = |(n, about): (usize, Option<ActionId>)| {
                    let (label, selected) = (self.about_title(about), about == self.about);
                    self.item(Spot::Answer(n as u16), label, Role::Radio { selected })
                };
                all.into_iter().enumerate().map(radio).collect()
            }
            Picking::Families => {
                dialog.title = self.text("setting-family");
                self.view_families()
            }
            Picking::Layouts => {
                dialog.title = self.text("layout-title");
                self.view_layouts()
            }
            Picking::Rehearse => {
                dialog.title = self.text("rehearse-title");
                self.view_rehearsals()
            }
            Picking::Where => {
                dialog.title = self.text("try-where");
                self.view_places()
            }
            Picking::Whose(device) => self.view_whose(*device, &mut dialog),
            Picking::Teach(controller) => self.view_offer(*controller, &mut dialog),
            Picking::Delete(_, title) => {
                dialog.title = words.say("delete-title", &[("title", title)]);
                dialog.text = vec![self.text("delete-text")];
                self.buttons(&["deed-delete", "menu-cancel-button"])
            }
        };
        dialog.lines = answers.into_iter().map(|a| vec![a]).collect();
        dialog
    }

    fn buttons(&self, ids: &[&str]) -> Vec<Item> {
        let all = ids.iter().enumerate();
        all.map(|(n, id)| self.button(n, self.text(id))).collect()
    }

    fn view_level(&self, n: usize, level: &Level) -> Item {
        let (draft, words) = (&self.draft, self.draft.words());
        let titled = |id: &str, title: String| words.say(id, &[("title", &title)]);
        let (label, (enabled, lines)) = match level {
            Level::Setting(spot) => {
                let title = match self.setting(*spot) {
                    // Its row is named by its zone.
                    Some(zone) if spot.number_is_on() == Some(Page::Touch) => draft.tell(&zone),
                    _ => self.setting_title(*spot),
                };
                let would = self.would(|draft| self.reset_setting_of(draft, *spot).map(drop));
                (titled("reset-only", title), would)
            }
            Level::Of(reset) => {
                let label = match *reset {
                    Reset::Cell(cell) => {
                        let column = words.column_title(cell.column);
                        let row = draft.row_title(cell.row);
                        let values = [("title", &*row), ("column", &*column)];
                        titled("reset-only", words.say("setting-cell", &values))
                    }
                    Reset::Action(id) => titled("reset-action", draft.row_title(id.into())),
                    Reset::Group(id) => titled("reset-action", draft.group_title(id)),
                    Reset::Devices(kind) => titled("reset-action", draft.tell(&kind)),
                    Reset::All => self.text("reset-all"),
                };
                (label, self.would(|draft| draft.reset(*reset)))
            }
        };
        self.button(n, label).text(lines).enabled(enabled)
    }

    /// What an edit would change, and whether it can be made.
    fn would(&self, edit: impl FnOnce(&mut Draft) -> Result<(), Refusal>) -> (bool, Vec<String>) {
        let mut probe = self.draft.clone();
        probe.apply();
        if let Err(refusal) = edit(&mut probe) {
            return (false, vec![self.draft.tell(&refusal)]);
        }
        let mut lines = probe.summary();
        let known = self.draft.conflicts();
        let new = probe.conflicts().iter();
        let new = new.filter(|c| c.class.is_conflict() && !known.contains(c));
        lines.extend(new.map(|c| {
            let text = self.draft.tell(c);
            self.draft.words().say("menu-conflict", &[("text", &text)])
        }));
        if lines.is_empty() {
            return (false, vec![self.text("menu-no-change")]);
        }
        (true, self.draft.telling().at_most(MOST_LINES, lines))
    }

    fn view_presets(&self) -> Vec<Item> {
        let (draft, words) = (&self.draft, self.draft.words());
        let profile = draft.profile();
        let radio = |n: usize, label: String, name: Option<&str>| {
            let selected = profile.preset() == name;
            let item = self.item(Spot::Answer(n as u16), label, Role::Radio { selected });
            match selected {
                true => item,
                false => {
                    let (enabled, lines) =
                        self.would(|draft| draft.choose_preset(name, PlayersOwn::Keep));
                    // One that changes nothing can be chosen all the same.
                    let same = lines == [self.text("menu-no-change")];
                    item.text(lines).enabled(enabled || same)
                }
            }
        };
        let mut all = vec![radio(0, self.text("preset-game"), None)];
        for (n, preset) in draft.sheet().presets().iter().enumerate() {
            all.push(radio(n + 1, words.preset_title(preset), Some(&preset.name)));
        }
        for made in Made::ALL {
            let (cells, left_out) = made.cells(draft);
            let (enabled, mut lines) = self.would(|draft| draft.rebind(&cells));
            let left_out = left_out.into_iter().map(|cell| cell.row);
            let titles = draft.telling().rows(left_out);
            if let Some(titles) = titles.filter(|_| enabled) {
                lines.push(words.say("one-hand-left-out", &[("titles", &titles)]));
            }
            let item = self.button(all.len(), self.text(made.id()));
            all.push(item.text(lines).enabled(enabled));
        }
        all.push(self.button(all.len(), self.text("menu-cancel-button")));
        all
    }

    /// Asks how much is to go back to the game's own: from what is focused to everything.
    pub(super) fn ask_what_to_reset(&mut self) {
        let mut levels = Vec::new();
        let of_action = |levels: &mut Vec<Level>, id: ActionId| {
            levels.push(Level::Of(Reset::Action(id)));
            let group = self.draft.sheet().declared(id).group;
            levels.push(Level::Of(Reset::Group(group)));
        };
        match self.last {
            Some(Spot::Cell(cell)) if self.page == Page::Bindings => {
                levels.push(Level::Of(Reset::Cell(cell)));
                of_action(&mut levels, cell.row.action);
            }
            Some(spot) if spot.number_is_on() == Some(self.page) => {
                levels.push(Level::Setting(spot))
            }
            _ => {}
        }
        if let (Page::Feel, Some(about)) = (self.page, self.about) {
            of_action(&mut levels, about);
        }
        let mut kinds: Vec<ColumnKind> = self.draft.columns().iter().map(|c| c.kind()).collect();
        kinds.dedup();
        levels.extend(kinds.into_iter().map(|k| Level::Of(Reset::Devices(k))));
        levels.push(Level::Of(Reset::All));
        self.ask(Picking::Resets(levels));
    }

    /// An answer of the dialog was chosen.
    pub(super) fn answer(&mut self, n: usize) {
        match &self.busy {
            Busy::Listening(cell, _) => {
                let cell = *cell;
                let zones = self.zones_to_choose(cell.column.kind());
                self.calm();
                let zone = n.checked_sub(FIRST_ZONE).and_then(|n| zones.get(n));
                if let Some(name) = zone {
                    let bound = self.draft.bind(cell, Input::Touch(*name).into());
                    self.after(bound);
                }
                match n {
                    1 => self.unbind(cell),
                    2 => self.reset(Reset::Cell(cell)),
                    _ => {}
                }
            }
            Busy::Asking(_) => self.settle(Settle::ALL[n.min(3)]),
            Busy::Picking(what) => {
                let what = what.clone();
                self.picked(what, n);
            }
            Busy::Typing(_) => self.typed(n),
            Busy::Proving(_) => self.put_back(),
            Busy::Teaching(_) => self.answer_teaching(n),
            Busy::Vouching(_) => self.forgo_mapping(),
            Busy::Finding(_) | Busy::Nothing | Busy::Trying(_) => self.calm(),
        }
    }

    fn picked(&mut self, what: Picking, n: usize) {
        self.calm();
        match what {
            // Its tools are tools; the one answer is the way out.
            Picking::More => {}
            Picking::Leaving => match n {
                0 => self.apply(true),
                1 => {
                    self.draft.discard();
                    self.wishes.push(ScreenWish::Leave);
                }
                _ => {}
            },
            Picking::Resets(levels) => {
                let done = match levels.get(n) {
                    Some(Level::Of(reset)) => self.draft.reset(*reset),
                    Some(Level::Setting(spot)) => {
                        self.reset_setting(*spot);
                        return;
                    }
                    None => return,
                };
                self.after(done.map(|()| Bind::Done));
            }
            Picking::Presets => {
                let presets = self.draft.sheet().presets();
                let count = presets.len();
                if n <= count {
                    let name = n.checked_sub(1).map(|at| presets[at].name.clone());
                    match self.draft.has_own_over_preset(name.as_deref()) {
                        true => self.ask(Picking::PlayersOwn(name)),
                        false => self.choose_preset(name.as_deref(), PlayersOwn::Keep),
                    }
                } else if let Some(made) = Made::ALL.get(n - count - 1) {
                    let (cells, _) = made.cells(&self.draft);
                    let done = self.draft.rebind(&cells);
                    self.after(done.map(|()| Bind::Done));
                }
            }
            Picking::PlayersOwn(name) => match n {
                0 => self.choose_preset(name.as_deref(), PlayersOwn::Keep),
                1 => self.choose_preset(name.as_deref(), PlayersOwn::Replace),
                _ => {}
            },
            Picking::About => {
                if let Some(about) = self.abouts().get(n) {
                    self.about = *about;
                }
            }
            Picking::Layouts => self.pick_layout(n),
            Picking::Rehearse => self.pick_rehearsal(n),
            Picking::Families => self.pick_family(n),
            Picking::Where => self.pick_place(n),
            Picking::Delete(name, _) if n == 0 => self.delete_profile(name),
            Picking::Delete(..) => {}
            Picking::Teach(controller) => self.answer_offer(controller, n),
            Picking::Whose(device) => self.pick_whose(device, n),
        }
    }

    fn choose_preset(&mut self, name: Option<&str>, mine: PlayersOwn) {
        let done = self.draft.choose_preset(name, mine);
        self.after(done.map(|()| Bind::Done));
    }
}

/// Bindings that are made from those there are, for a game that has no preset for such hands.
#[derive(Clone, Copy)]
enum Made {
    /// Everything on the keyboard for the other hand.
    Mirrored,
    /// Everything on the keyboard within reach of one hand.
    For(Hand),
}

impl Made {
    const ALL: [Made; 3] = [
        Made::Mirrored,
        Made::For(Hand::Left),
        Made::For(Hand::Right),
    ];

    const fn id(self) -> &'static str {
        match self {
            Made::Mirrored => "preset-mirrored",
            Made::For(Hand::Left) => "preset-left-hand",
            Made::For(Hand::Right) => "preset-right-hand",
        }
    }

    /// What they are, and the cells that stay as they are since nothing fits.
    fn cells(self, draft: &Draft) -> (Vec<(Cell, Option<Chord>)>, Vec<Cell>) {
        let (sheet, bindings) = (draft.sheet(), draft.bindings());
        let (layout, platform) = (draft.layout(), draft.resolver().platform());
        match self {
            Made::Mirrored => {
                let made = mirror(sheet, bindings, "mirrored", layout, platform);
                let mut cells = made.preset.cells;
                // A preset may change what a player may not.
                cells.retain(|(cell, _)| !sheet.declared(cell.row.action).fixed);
                (cells, made.unmoved)
            }
            Made::For(hand) => {
                let made = one_handed(sheet, bindings, hand, layout, platform);
                (made.cells, made.unmoved)
            }
        }
    }
}

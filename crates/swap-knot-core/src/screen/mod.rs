//! The controls screen without its picture: a state machine that every skin draws.

mod answer;
mod bindings;
mod command;
mod curve;
mod dialog;
mod edit;
mod feel;
mod keyboard;
mod pad;
mod pointing;
mod profiles;
mod proof;
mod sharing;
mod spot;
mod teach;
mod touch;
mod trial;
mod typing;
mod view;
mod walk;

use std::time::Duration;

pub use command::ScreenCommand;
pub use pointing::{PointerEvent, Target};
pub use sharing::{SharedDevice, Sharing};
pub use spot::{Page, ProfileCommand, Spot, Tool};
pub use teach::ControllerCommand;
pub use touch::Grip;
pub use view::{
    BoardView, ColumnView, Curve, Details, Dialog, Hint, Item, KeyView, Live, Note, PadPartView,
    PadView, Role, RowView, ScreenView, Section, TouchView, ZoneView,
};

use self::answer::Picking;
use self::bindings::{Filter, Rows};
use self::command::{Steering, control_of};
use self::pointing::Pointing;
use self::profiles::Profiles;
use self::proof::{Proving, WayOut};
use self::teach::{Controllers, Vouching};
use self::typing::Typing;
use crate::book::Held;
use crate::draft::{Draft, Heard, Listener, ListenerOptions, Question, Settle};
use crate::input::{
    DeviceId, DeviceKind, Direction, Event, EventKind, Input, Time, TouchZones, UsbId,
};
use crate::layout::Layout;
use crate::locker::Errand;
use crate::mapping::{MappingLearner, Taught};
use crate::seat::Seat;
use crate::sheet::{ActionId, ActsOn, Cell, Parameter, Row, SituationId};
use crate::words::Tell;

/// Where a player changes all their controls: pages, search, listening, questions, undo, and what is
/// to be confirmed before it is kept.
///
/// It is a state machine: device events, pointing and time go in, and a [`ScreenView`] comes out,
/// which a skin draws and a screen reader reads. No skin needs a rule, a text or a state of its own.
/// [`Controls`](crate::Controls) holds one while it is open, and carries out its
/// [wishes](ScreenWish).
///
/// ```
/// use swap_knot::screen::{ControlsScreen, ScreenCommand, Spot};
/// use swap_knot::input::Direction;
/// use swap_knot::{Draft, Layout, Profile, Rig, Seat, Sheet};
///
/// let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\ntitle = \"Horn\"\nbind = \"KeyH\"")?;
/// let profile = Profile::new("Ada");
/// let seat = Seat::new(Rig::new(&sheet, &profile, Layout::us()));
/// let mut screen = ControlsScreen::new(Draft::new(&sheet, profile, Layout::us()), &seat);
///
/// assert_eq!(screen.view().sections[0].rows[0].title, "Horn");
/// screen.press(Spot::Cell(sheet.defaults()[0].cell)); // it was clicked
/// let dialog = screen.view().dialog.clone().expect("it listens");
/// assert_eq!(dialog.title, "Press the new key or button for “Horn”");
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Debug)]
pub struct ControlsScreen {
    draft: Draft,
    rows: Rows,
    filter: Filter,
    page: Page,
    focus: Spot,
    /// Where the focus was before there was a dialog.
    before: Spot,
    /// The binding or number that the player was on last.
    last: Option<Spot>,
    busy: Busy,
    /// What the pad in hand says it is.
    found_family: Option<String>,
    /// Everything that is down, whoever it is for.
    book: Held,
    steering: Steering,
    now: Time,
    /// What the page of feel is about; none for all actions.
    about: Option<ActionId>,
    /// The number that is being dragged, or held less or more: all of that is one step for undo.
    stroke: Option<(Spot, u64)>,
    /// Buttons of the mouse, and what came since: a skin says first whether that button points at
    /// something.
    waiting: Vec<Waiting>,
    pointing: Pointing,
    message: Option<String>,
    wishes: Vec<ScreenWish>,
    /// Plays with the draft: for what is tried.
    trial: Seat,
    trial_of: u64,
    /// Where it is tried, once the player chose that or the game was somewhere.
    tries: Option<SituationId>,
    profiles: Profiles,
    controllers: Controllers,
    zones: TouchZones,
    sharing: Sharing,
    /// The layout that is rehearsed on the player's keyboard.
    rehearsed: Option<Layout>,
    /// What is to go into the clipboard.
    copied: Option<String>,
    view: ScreenView,
    /// Whether it has to be made anew, or only says of another item that the player is on it.
    stale: bool,
    moved: bool,
    /// How often it was made anew.
    made: u64,
}

/// What a [`ControlsScreen`] wants of whoever holds it.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum ScreenWish {
    /// To have the draft applied, played and kept.
    Apply,
    /// To be closed.
    Leave,
    /// To have something done with the player's profiles, and to be told what came of it by
    /// [`ControlsScreen::errand_done`].
    Send(Errand),
    /// To have a device play for these players, by number; for nobody where there is none.
    Give(DeviceId, Vec<usize>),
    /// To be given a learner of the mapping of this controller, by [`ControlsScreen::teach`].
    Teach(DeviceId),
    /// To have what was taught of a kind of controller played with, or forgotten; it is kept by
    /// another wish once the player has kept it.
    Map(Option<UsbId>, Option<Taught>),
}

/// An event that waits until it is known what the mouse points at.
#[derive(Clone, Copy, Debug)]
struct Waiting {
    event: Event,
    /// How often time has been told since.
    ticks: u8,
}

/// What the screen is doing besides showing a page.
#[derive(Debug)]
enum Busy {
    Nothing,
    /// Waiting for the input for a cell.
    Listening(Cell, Box<Listener>),
    /// Waiting for an input, to show what is on it.
    Finding(Box<Listener>),
    /// Waiting for the answer to a conflict.
    Asking(Box<Question>),
    /// Waiting for one of several answers.
    Picking(Picking),
    /// Text is being typed.
    Typing(Typing),
    /// "Keep these controls?"
    Proving(Box<Proving>),
    /// Everything is played in the sandbox.
    Trying(WayOut),
    /// The mapping of a controller is taught.
    Teaching(Box<MappingLearner>),
    /// It is to show that it is right.
    Vouching(Box<Vouching>),
}

impl ControlsScreen {
    /// The screen of a draft, opened over what a seat plays: what is held there works nothing here
    /// until it has been let go.
    pub fn new(draft: Draft, seat: &Seat) -> ControlsScreen {
        let mut trial = seat.clone();
        trial.set_rig(draft.rig());
        let rows = Rows::new(&draft, seat.device_kind());
        let mut screen = ControlsScreen {
            trial_of: draft.revision(),
            tries: seat.situations().last().copied(),
            profiles: Profiles::default(),
            controllers: Controllers::default(),
            zones: TouchZones::new(),
            sharing: Sharing::default(),
            rehearsed: None,
            copied: None,
            trial,
            focus: Spot::Page(Page::Bindings),
            before: Spot::Page(Page::Bindings),
            last: None,
            page: Page::Bindings,
            busy: Busy::Nothing,
            found_family: draft.words().family().map(str::to_owned),
            book: seat.held().clone(),
            steering: Steering::default(),
            now: Time::ZERO,
            about: None,
            stroke: None,
            waiting: Vec::new(),
            pointing: Pointing::default(),
            message: None,
            wishes: Vec::new(),
            view: ScreenView::default(),
            stale: true,
            moved: false,
            made: 0,
            filter: Filter::default(),
            rows,
            draft,
        };
        screen.book.spend(DeviceId::ALL);
        let first = screen.first_spot();
        screen.focus_on(first);
        screen
    }

    /// What is edited.
    pub const fn draft(&self) -> &Draft {
        &self.draft
    }

    /// The same to apply it, where [`ScreenWish::Apply`] wants that.
    pub const fn draft_mut(&mut self) -> &mut Draft {
        self.stale = true;
        &mut self.draft
    }

    /// The page that is shown.
    pub const fn page(&self) -> Page {
        self.page
    }

    /// Judges on another layout from here on, where the player has chosen none.
    pub fn set_layout(&mut self, layout: &Layout) {
        let before = self.draft.revision();
        self.draft.set_layout(layout);
        self.stale |= before != self.draft.revision();
    }

    /// What it wants since this was asked last, in order.
    pub fn take_wishes(&mut self) -> Vec<ScreenWish> {
        std::mem::take(&mut self.wishes)
    }

    /// Takes in what happened on a device. All of it is the screen's: give it to
    /// [`Seat::overhear`] besides, so that the game does not play it.
    pub fn event(&mut self, event: &Event) {
        self.now = self.now.max(event.at);
        let points = is_click(event) && (self.takes_all() || self.pointing.is_in_use());
        match points || !self.waiting.is_empty() {
            true => {
                self.waiting.push(Waiting {
                    event: *event,
                    ticks: 0,
                });
                // It is later by it, which a countdown shows.
                self.stale = true;
            }
            false => {
                let before = self.heard();
                self.take(event, false);
                self.stale |= before.is_none() || before != self.heard();
            }
        }
    }

    /// All that is seen of what is heard, where that is no more than which device is in hand; nothing where
    /// what is held is shown itself.
    fn heard(&self) -> Option<(DeviceKind, Page, Option<String>)> {
        let is_still = matches!(self.page, Page::Bindings | Page::Profiles) && self.is_idle();
        is_still.then(|| (self.hand(), self.page, self.message.clone()))
    }

    /// Hears an event, plays it on trial, or works the screen with it; a button that points works nothing
    /// besides.
    fn take(&mut self, event: &Event, points: bool) {
        let control = control_of(event);
        let was_down = control.is_some_and(|c| self.book.is_down(c));
        self.book.feed(event);
        let is_down = control.is_some_and(|c| self.book.is_down(c));
        let is_fresh = !was_down && is_down;
        if self.hear_of_controller(event, is_fresh) {
            return;
        }
        if self.takes_all() && !points {
            return self.hear_or_play(event, is_fresh, is_down);
        }
        self.trial.overhear(event);
        self.trial.advance(event.at);
        let (words, on) = (self.draft.words(), self.draft.resolver());
        let steering = &mut self.steering;
        let mut command = steering.command(event, is_fresh, &self.book, words, on);
        if self.is_measured(event) || self.is_tried(event, command) {
            self.steering.stop();
            command = None;
        }
        if !self.type_key(event)
            && let Some(command) = command
        {
            self.command(command);
        }
    }

    /// Whether everything is heard or played, rather than that it works the screen: on-screen buttons
    /// and sticks are to be there then, over it.
    pub const fn is_hearing(&self) -> bool {
        self.takes_all()
    }

    /// Whether nothing else has to be answered first.
    const fn is_idle(&self) -> bool {
        matches!(self.busy, Busy::Nothing)
    }

    /// The kind of device in hand.
    fn hand(&self) -> DeviceKind {
        self.trial.device_kind()
    }

    /// Whether everything is heard or played, rather than that it works the screen.
    const fn takes_all(&self) -> bool {
        matches!(
            self.busy,
            Busy::Listening(..) | Busy::Finding(_) | Busy::Proving(_) | Busy::Trying(_)
        )
    }

    /// Hears an event or plays it on trial.
    fn hear_or_play(&mut self, event: &Event, is_fresh: bool, is_down: bool) {
        let is_played = match &self.busy {
            Busy::Proving(proving) => proving.is_played(event),
            Busy::Trying(_) => true,
            _ => false,
        };
        match is_played {
            true => self.trial.feed(event),
            false => self.trial.overhear(event),
        }
        self.trial.advance(event.at);
        let out = match &mut self.busy {
            Busy::Listening(_, listener) | Busy::Finding(listener) => {
                let heard = listener.hear(event);
                return self.hear(heard);
            }
            Busy::Proving(proving) => &mut proving.out,
            Busy::Trying(out) => out,
            _ => return,
        };
        if out.is_taken(event, is_fresh, is_down) {
            self.back();
        }
    }

    /// Whether a stick would change a value: whoever tries how it feels moves it about, and means nothing by
    /// that.
    fn is_tried(&self, event: &Event, command: Option<ScreenCommand>) -> bool {
        let is_stick = matches!(event.what, EventKind::PadStick { .. });
        let sideways = [Direction::Left, Direction::Right].map(|way| Some(ScreenCommand::Go(way)));
        let is_value = self.focus.number_is_on() == Some(Page::Feel)
            || self.page == Page::Feel && self.focus == Spot::About;
        is_stick && is_value && sideways.contains(&command)
    }

    /// Whether a stick or trigger is moved to see what it does to the number or the part of the pad that
    /// the player is on, rather than to go anywhere.
    fn is_measured(&self, event: &Event) -> bool {
        let shows = match self.focus {
            Spot::Setting(ActsOn::Inputs(DeviceKind::Gamepad), parameter, _) => {
                matches!(parameter, Parameter::DeadZone | Parameter::Threshold)
            }
            Spot::Part(Input::PadStick(_)) => true,
            Spot::Part(Input::PadButton(button)) => button.is_trigger(),
            _ => false,
        };
        let is_analog = match event.what {
            EventKind::PadStick { .. } => true,
            EventKind::PadButton { button, .. } => button.is_trigger(),
            _ => false,
        };
        shows && is_analog
    }

    /// Lets time go by: what is held repeats, what waits ends.
    pub fn tick(&mut self, now: Time) {
        let before = self.now;
        self.now = self.now.max(now);
        // Where nobody points, as without a picture, a mouse button is an input as any other.
        let waits = self.waiting.iter_mut();
        waits.for_each(|w| w.ticks = w.ticks.saturating_add(1));
        let nobody_points = self.waiting.first().is_some_and(|w| w.ticks > 2);
        if nobody_points && !self.pointing.is_waiting() {
            self.take_waiting(self.waiting.len(), false);
        }
        if let Busy::Listening(_, listener) | Busy::Finding(listener) = &mut self.busy {
            let left = listener.time_left(before).map(Self::whole);
            let heard = listener.tick(self.now);
            // What is left is told by the second.
            let is_same = left == listener.time_left(self.now).map(Self::whole);
            self.stale |= !is_same || heard != Heard::Nothing;
            self.hear(heard);
        }
        if let Some(command) = self.steering.tick(self.now, &self.book)
            && matches!(
                self.busy,
                Busy::Nothing
                    | Busy::Picking(_)
                    | Busy::Typing(_)
                    | Busy::Teaching(_)
                    | Busy::Vouching(_)
            )
        {
            self.command(command);
        }
        self.trial.tick(self.now);
        self.prove();
        self.wait_for_controller();
        self.stale |= matches!(self.busy, Busy::Trying(_));
        if self.trial_of != self.draft.revision() {
            self.trial_of = self.draft.revision();
            self.trial.set_rig(self.draft.rig());
        }
    }

    /// Whether time changes what is shown: draw again soon.
    pub fn is_moving(&self) -> bool {
        let waits = matches!(self.busy, Busy::Teaching(_) | Busy::Vouching(_));
        waits
            || self.takes_all()
            || self.steering.is_going()
            || self.pointing.is_waiting()
            || !self.book.inputs().is_empty()
    }

    /// Goes to what is shown, as a screen reader does.
    pub fn focus(&mut self, spot: Spot) {
        self.stroke = None;
        self.focus_on(spot);
    }

    /// Something was activated, as by a screen reader, or by a click that a skin found itself. What is not shown any more, or
    /// waits behind a dialog, is not worked.
    pub fn press(&mut self, spot: Spot) {
        let view = self.view();
        let in_reach = match &view.dialog {
            Some(dialog) => dialog.lines.iter().flatten().any(|i| i.spot == spot),
            None => view.items().any(|i| i.spot == spot),
        };
        if in_reach {
            self.focus(spot);
            self.choose();
        }
    }

    /// A number was dragged to a place between 0 and 1; answers whether it can be.
    fn drag(&mut self, spot: Spot, to: f32) -> bool {
        let can_be = self.is_idle() && self.view().items().any(|i| i.spot == spot);
        if can_be {
            self.focus_on(spot);
            self.slide(spot, to);
        }
        can_be
    }

    /// Works the screen, for games that have commands of their own.
    pub fn command(&mut self, command: ScreenCommand) {
        use ScreenCommand as C;
        self.stale |= !matches!(command, C::Go(_) | C::GoFar(_));
        if !matches!(command, C::Go(Direction::Left | Direction::Right)) {
            self.stroke = None;
        }
        match (&self.busy, command) {
            (_, C::Back) => self.back(),
            // Everything else that these take is heard or played.
            _ if self.takes_all() => {}
            (_, C::Go(way)) => self.steer(way),
            (_, C::GoFar(way)) => {
                for _ in 0..10 {
                    self.go(way);
                }
            }
            (_, C::Choose) => self.choose(),
            (Busy::Typing(_), C::Clear | C::Reset) => self.delete_letter(),
            (Busy::Nothing, C::Clear) => self.clear(),
            (Busy::Nothing, C::Reset) => self.reset_focused(),
            (Busy::Nothing, C::Undo) => self.work_tool(Tool::Undo),
            (Busy::Nothing, C::Redo) => self.work_tool(Tool::Redo),
            (Busy::Nothing, C::Apply) => self.work_tool(Tool::Apply),
            (Busy::Nothing, C::Search) => {
                self.turn_to(Page::Bindings);
                self.work_tool(Tool::Search);
            }
            (Busy::Nothing, C::NextPage) => self.turn(1),
            (Busy::Nothing, C::PreviousPage) => self.turn(-1),
            _ => {}
        }
    }

    /// Wants to leave: at once where nothing is changed, otherwise it asks. For when the window is
    /// closed.
    pub fn ask_to_leave(&mut self) {
        self.stale = true;
        self.give_up_mapping();
        match self.draft.is_changed() {
            true => self.ask(Picking::Leaving),
            false => self.wishes.push(ScreenWish::Leave),
        }
    }

    /// Goes to a row of the bindings, for instance to one that a prompt showed as unbound.
    pub fn go_to(&mut self, row: Row) {
        if matches!(self.busy, Busy::Nothing) {
            self.filter = Filter::default();
            self.turn_to(Page::Bindings);
            self.stale = true;
            let of_row = |i: &&Item| matches!(i.spot, Spot::Cell(cell) if cell.row == row);
            let found = self.view().items().find(of_row).map(|i| i.spot);
            if let Some(spot) = found {
                self.focus_on(spot);
            }
        }
        self.stale = true;
    }

    fn turn(&mut self, by: isize) {
        let pages: Vec<Page> = self.pages().collect();
        let at = pages.iter().position(|p| *p == self.page).unwrap_or(0);
        let to = (at as isize + by).rem_euclid(pages.len() as isize);
        self.turn_to(pages[to as usize]);
    }

    fn turn_to(&mut self, page: Page) {
        if self.page != page {
            self.page = page;
            self.rehearsed = None;
            self.message = None;
            self.stale = true;
            if page == Page::Profiles {
                self.ask_for_profiles();
            }
            let first = self.first_spot();
            self.focus_on(first);
        }
    }

    /// Does what the focused item is for.
    fn choose(&mut self) {
        let Some(item) = self.view().focused() else {
            return;
        };
        if !item.enabled {
            // What does nothing says why.
            self.message = item.text.first().cloned();
            self.stale = true;
            return;
        }
        self.message = None;
        let spot = self.focus;
        if matches!(self.busy, Busy::Trying(_)) && spot != Spot::Trying {
            self.stop_trying();
        }
        match spot {
            Spot::Page(page) => self.turn_to(page),
            Spot::Tool(tool) => self.work_tool(tool),
            Spot::Cell(cell) => self.listen(cell),
            Spot::About => self.ask(Picking::About),
            Spot::Setting(on, parameter, part) => self.flip((on, parameter, part)),
            Spot::Answer(n) => self.answer(usize::from(n)),
            Spot::Letter(n) => self.type_letter(usize::from(n)),
            Spot::NewProfile => self.new_profile(),
            Spot::Import => self.import(),
            Spot::Profile(n, deed) => self.work_profile(usize::from(n), deed),
            Spot::Layout => self.ask_for_layout(),
            Spot::Rehearse => self.work_rehearsal(),
            Spot::Key(place) => self.show_key(place),
            Spot::Family => self.ask_for_family(),
            Spot::Part(input) => self.show_part(input),
            Spot::Controller(kind, deed) => self.work_controller(kind, deed),
            Spot::Controllers => self.ask_for_controllers(),
            Spot::Device(device) => self.ask_whose(device),
            Spot::Where => self.ask_where(),
            Spot::Trying => self.work_trial(),
        }
        self.stale = true;
    }

    /// Out of what it is doing, or of the screen.
    fn back(&mut self) {
        match &self.busy {
            Busy::Nothing if self.rehearsed.is_some() => self.work_rehearsal(),
            Busy::Nothing => self.ask_to_leave(),
            Busy::Proving(_) => self.put_back(),
            Busy::Asking(_) => self.settle(Settle::BackOut),
            Busy::Typing(_) => self.leave_typing(),
            Busy::Trying(_) => self.stop_trying(),
            Busy::Teaching(_) => self.back_in_teaching(),
            Busy::Vouching(_) => self.forgo_mapping(),
            _ => self.calm(),
        }
    }

    /// Does nothing any more, and goes back to where the player was.
    fn calm(&mut self) {
        self.give_up_mapping();
        if !matches!(self.busy, Busy::Nothing) {
            self.busy = Busy::Nothing;
            self.focus_on(self.before);
        }
        self.stale = true;
    }

    /// Goes into a dialog, on its first answer that can be given.
    fn begin(&mut self, busy: Busy) {
        self.give_up_mapping();
        if matches!(self.busy, Busy::Nothing) {
            self.before = self.focus;
        }
        self.busy = busy;
        self.stroke = None;
        self.stale = true;
        self.focus_on(Spot::Answer(0));
        let dialog = self.view().dialog.as_ref();
        let items = dialog.into_iter().flat_map(|d| d.lines.iter().flatten());
        let chosen = |i: &&Item| matches!(i.role, Role::Radio { selected: true });
        let first = items
            .clone()
            .find(chosen)
            .or(items.clone().find(|i| i.enabled));
        if let Some(spot) = first.map(|i| i.spot) {
            self.focus_on(spot);
        }
        self.stale = true;
    }

    fn ask(&mut self, what: Picking) {
        self.begin(Busy::Picking(what));
    }

    fn work_tool(&mut self, tool: Tool) {
        self.message = None;
        if matches!(self.busy, Busy::Picking(Picking::More)) {
            self.calm();
        }
        match tool {
            Tool::More => self.ask(Picking::More),
            Tool::Apply if self.draft.is_changed() => self.apply(false),
            Tool::Undo => drop(self.draft.undo()),
            Tool::Redo => drop(self.draft.redo()),
            Tool::Reset => self.ask_what_to_reset(),
            Tool::Presets => self.ask(Picking::Presets),
            Tool::Search => self.begin(Busy::Typing(Typing::search(&self.filter))),
            Tool::Find => {
                let options = ListenerOptions::default().with_keys(self.draft.resolver());
                let listener = self.listener(options);
                self.begin(Busy::Finding(listener));
            }
            Tool::OpenFirst => self.filter.open_first = !self.filter.open_first,
            Tool::ShowAll => {
                self.filter = Filter::default();
                let first = self.first_spot();
                self.focus_on(first);
            }
            Tool::Leave => self.ask_to_leave(),
            Tool::Apply => {}
        }
    }

    fn say(&mut self, what: &impl Tell) {
        self.message = Some(self.draft.tell(what));
        self.stale = true;
    }

    fn text(&self, id: &str) -> String {
        self.draft.words().say(id, &[])
    }

    /// The whole seconds until something ends.
    fn whole(left: Duration) -> Duration {
        Duration::from_secs(left.as_secs() + u64::from(left.subsec_nanos() > 0))
    }
}

const fn is_click(event: &Event) -> bool {
    matches!(event.what, EventKind::MouseButton { .. })
}

//! The controls screen while it is open over a game.

use super::Controls;
use crate::input::{DeviceId, Event, EventKind, Time};
use crate::screen::{ControlsScreen, ScreenWish};

impl Controls {
    /// Opens the controls screen, at the time of now: what is held ends, as on a lost focus, and
    /// every event is the screen's from here on, until it is left. Draw its
    /// [`view`](ControlsScreen::view) in every frame, and go on feeding and ticking.
    ///
    /// ```
    /// use swap_knot::screen::ScreenCommand;
    /// use swap_knot::{Controls, Layout, Profile, Sheet, Time};
    ///
    /// let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\nbind = \"KeyH\"")?;
    /// let mut controls = Controls::new(&sheet, Profile::new("Ada"), Layout::us());
    /// controls.open_screen(Time::ZERO);
    /// let screen = controls.screen_mut().expect("it is open");
    /// assert_eq!(screen.view().pages[0].label, "Keys & buttons");
    /// screen.command(ScreenCommand::Back); // or the player's Escape, by `feed`
    ///
    /// controls.tick(Time::from_millis(16));
    /// assert!(controls.screen().is_none());
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn open_screen(&mut self, now: Time) {
        if self.screen.is_some() {
            return;
        }
        // What was fed before is played before.
        self.seat.advance(now);
        let draft = self.draft();
        let mut screen = ControlsScreen::new(draft, &self.seat);
        screen.set_playing(self.kept_in().map(|(_, name)| name.clone()));
        self.screen = Some(Box::new(screen));
        self.follow_marks();
        self.show_controllers();
        self.seat.feed(&Event {
            at: now,
            device: DeviceId::ALL,
            what: EventKind::FocusLost,
        });
    }

    /// The controls screen, while it is open.
    pub fn screen(&self) -> Option<&ControlsScreen> {
        self.screen.as_deref()
    }

    /// The same to draw it, to point at it and to work it. What it wants is carried out at the next
    /// event or tick.
    pub fn screen_mut(&mut self) -> Option<&mut ControlsScreen> {
        self.screen.as_deref_mut()
    }

    /// Closes the controls screen as it is; what was not applied is dropped, and what was to be
    /// confirmed is not kept. To ask the player first, see [`ControlsScreen::ask_to_leave`].
    pub fn close_screen(&mut self) {
        if let Some(screen) = &mut self.screen {
            screen.give_up_mapping();
        }
        self.carry_out();
        self.screen = None;
    }

    /// Does what the screen wants.
    pub(super) fn carry_out(&mut self) {
        let Some(mut screen) = self.screen.take() else {
            return;
        };
        let mut stays = true;
        for wish in screen.take_wishes() {
            match wish {
                ScreenWish::Apply => self.apply(screen.draft_mut()),
                ScreenWish::Leave => stays = false,
                ScreenWish::Send(errand) => drop(self.send(errand)),
                ScreenWish::Give(device, players) => self.handovers.push((device, players)),
                ScreenWish::Teach(device) => {
                    let off = self.break_off(device);
                    screen.overhear(&off);
                    screen.teach(self.learner(device));
                }
                ScreenWish::Map(kind, taught) => {
                    for off in self.map(kind, taught) {
                        screen.overhear(&off);
                    }
                    self.controllers.show_on(&mut screen);
                }
            }
        }
        self.screen = stays.then_some(screen);
    }
}

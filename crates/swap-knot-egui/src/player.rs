//! One player in a window: everything that a frame has to do for them, in its order.

use egui::{Context, FontDefinitions, Key, Rect, Ui, ViewportCommand};
use swap_knot::input::{MouseFinger, TouchName, TouchZones};
use swap_knot::prompt::{PromptError, Rendered};
use swap_knot::{
    Controls, DeviceId, DeviceKind, Event, EventKind, Layout, PadButton, Place, Row, Time,
};

use crate::{
    Fonts, GlyphTextures, Look, Overlay, Pack, ScreenSkin, fingers, prompt, touch_controls, wants,
};

/// A player in a game whose window is egui's: in every frame who sees an event first, the controls
/// screen on its key, on-screen controls, letters for the player's language and keyboard, and a window
/// that is not closed over unsaved changes. The parts are public, for a game that has its own way with
/// one of them.
///
/// ```no_run
/// use swap_knot::{Controls, Event, Time};
/// use swap_knot_egui::PlayerUi;
///
/// # fn frame(ui: &mut egui::Ui, player: &mut PlayerUi, events: &[Event], now: Time) {
/// let plays = player.frame(ui, events.iter().copied(), now);
/// player.controls.save(); // or `saving`, on a thread of its own
/// if plays {
///     // Play and draw the game here; while the screen is open, that is drawn.
///     player.prompt(ui, "{do:horn} to be heard", 28.0);
/// }
/// # }
/// ```
#[non_exhaustive]
pub struct PlayerUi {
    /// All that is the player's.
    pub controls: Controls,
    /// What draws the controls screen.
    pub skin: ScreenSkin,
    /// The pictures in prompts.
    pub glyphs: GlyphTextures,
    /// A window for developers, where the game has one.
    pub overlay: Option<Overlay>,
    /// On-screen controls, where the game has some.
    touch: Option<OnScreen>,
    /// The game's own fonts, which go before those that the machine has for what they lack.
    pub fonts: FontDefinitions,
    /// For which keyboard and language letters were looked for.
    fonts_for: Option<(Layout, String)>,
    warning: Option<String>,
    notices: String,
    /// Whether Escape and the pad's middle button open the controls screen.
    opens_itself: bool,
    now: Time,
}

impl PlayerUi {
    /// A player with pictures of the project's own, without on-screen controls.
    pub fn new(controls: Controls) -> PlayerUi {
        PlayerUi {
            controls,
            skin: ScreenSkin::new(),
            glyphs: GlyphTextures::new(),
            overlay: None,
            touch: None,
            fonts: FontDefinitions::default(),
            fonts_for: None,
            warning: None,
            notices: String::new(),
            opens_itself: true,
            now: Time::ZERO,
        }
    }

    /// Leaves it to the game to open the controls screen, from a menu of its own by
    /// [`Controls::open_screen`]: Escape and a pad's middle button are inputs like any other then.
    pub fn with_own_menu(mut self) -> PlayerUi {
        self.opens_itself = false;
        self
    }

    /// Takes pictures from a pack of the game's first.
    pub fn with_pack(mut self, pack: Pack) -> PlayerUi {
        self.skin = ScreenSkin::new().with_pack(pack.clone());
        self.glyphs = GlyphTextures::new().with_pack(pack);
        self
    }

    /// Has a window for developers that a key shows, see [`Overlay`].
    pub fn with_overlay(mut self, key: Key) -> PlayerUi {
        self.overlay = Some(Overlay::new(key));
        self
    }

    /// Has on-screen buttons and sticks for fingers: `lay_out` adds them for a window so many points wide
    /// and high, whenever that changes. They are shown once a finger has touched the screen.
    pub fn with_touch(mut self, lay_out: impl Fn(&mut TouchZones, [f32; 2]) + 'static) -> PlayerUi {
        self.touch = Some(OnScreen {
            lay_out: Box::new(lay_out),
            zones: TouchZones::default(),
            mouse: MouseFinger::default(),
            laid: None,
            always: false,
        });
        self
    }

    /// Shows the on-screen controls also where nobody has touched the screen, and makes the mouse a
    /// finger or not, for trying them at a desk.
    pub fn show_touch(&mut self, always: bool, mouse_is_finger: bool) {
        if let Some(touch) = &mut self.touch {
            touch.always = always;
            let lifted = touch.mouse.switch(mouse_is_finger, &mut touch.zones);
            if let Some(what) = lifted {
                self.controls.feed(&touch_event(self.now, what));
            }
        }
    }

    /// Where the on-screen controls are that are there for fingers.
    pub fn touch_places(&self) -> impl Iterator<Item = (TouchName, Rect)> {
        let zones = self.touch.iter().flat_map(|touch| touch.zones.zones());
        zones.filter(|zone| !zone.hidden).map(|zone| {
            let rect = Rect::from_min_size(zone.min.into(), zone.size.into());
            (zone.name, rect)
        })
    }

    /// Takes in what came since the last frame, lets time go by, and shows the controls screen where it is
    /// open; answers whether the game is played and drawn now. Escape and a pad's middle button open the
    /// screen, unless a widget has them or the game has [its own menu](PlayerUi::with_own_menu).
    ///
    /// Files are not touched: save after it, where and when the game likes.
    pub fn frame(
        &mut self,
        ui: &mut Ui,
        events: impl IntoIterator<Item = Event>,
        now: Time,
    ) -> bool {
        let ctx = ui.ctx().clone();
        self.now = now;
        for event in events {
            self.take_in(&ctx, &event);
        }
        if let Some(touch) = &mut self.touch {
            touch.take_in(&ctx, &mut self.controls, now);
        }
        self.controls.tick(now);
        self.find_fonts(&ctx);
        if let Some(overlay) = &mut self.overlay {
            overlay.show(&ctx, &mut self.controls, now);
        }
        if let Some(touch) = &self.touch {
            touch.draw(&ctx, &self.controls);
        }
        if !self.controls.seat().inputs_down().is_empty() {
            // What is held goes on, whether or not anything comes.
            ctx.request_repaint();
        }
        let Some(screen) = self.controls.screen_mut() else {
            return true;
        };
        if ctx.input(|i| i.viewport().close_requested()) && screen.draft().is_changed() {
            ctx.send_viewport_cmd(ViewportCommand::CancelClose);
            screen.ask_to_leave();
        }
        self.skin.show(ui, screen);
        false
    }

    /// Which letters that the player has to read no font has, with what to install: once, for the log.
    pub fn take_warning(&mut self) -> Option<String> {
        self.warning.take()
    }

    /// Shows a prompt as a line so many points high; see [`Controls::prompt`]. A click on an action that
    /// is bound to nothing opens the controls screen on it.
    ///
    /// # Errors
    /// When the text has a mistake or names an action that the sheet does not have.
    pub fn prompt(&mut self, ui: &mut Ui, text: &str, height: f32) -> Result<(), PromptError> {
        let shown = self.controls.prompt(text)?.clone();
        self.show_prompt(ui, &shown, height);
        Ok(())
    }

    /// Shows what there was to tell last, in the player's language: what was loaded, set aside, gave way,
    /// could not be saved. It takes [`Controls::take_reports`].
    pub fn notices(&mut self, ui: &mut Ui) {
        let reports = self.controls.take_reports();
        if !reports.is_empty() {
            self.notices = self.controls.telling().lines(&reports).join("\n");
        }
        if !self.notices.is_empty() {
            ui.label(&self.notices);
        }
    }

    /// Shows a prompt of the game's own texts by its id; see [`Controls::prompt_of`].
    ///
    /// # Errors
    /// When there is no such text, or it has a mistake.
    pub fn prompt_of(&mut self, ui: &mut Ui, id: &str, height: f32) -> Result<(), PromptError> {
        let shown = self.controls.prompt_of(id)?.clone();
        self.show_prompt(ui, &shown, height);
        Ok(())
    }

    fn show_prompt(&mut self, ui: &mut Ui, shown: &Rendered, height: f32) {
        let layout = self.controls.resolver().layout().clone();
        let words = self.controls.words().clone();
        if let Some(row) = prompt(ui, shown, &mut self.glyphs, &layout, &words, height) {
            self.open_on(row);
        }
    }

    /// Opens the controls screen on a row.
    fn open_on(&mut self, row: Row) {
        self.controls.open_screen(self.now);
        if let Some(screen) = self.controls.screen_mut() {
            screen.go_to(row);
        }
    }

    /// The screen while it is open, otherwise a widget under the pointer or with the focus, otherwise the
    /// game.
    fn take_in(&mut self, ctx: &Context, event: &Event) {
        let screen = self.controls.screen();
        let open = screen.is_some();
        // On the screen it points, unless that waits for an input.
        let points = screen.is_some_and(|screen| !screen.is_hearing());
        if !points && self.touch.as_ref().is_some_and(|t| t.mouse.takes(event)) {
            return;
        }
        let may_open = !open && self.opens_itself;
        let mut opens = false;
        self.controls.offer(event, |event, _| {
            let wanted = !open && wants(ctx, event);
            // The press that opens the screen works nothing in the game.
            let opens_now = may_open && !wanted && opens_screen(event);
            opens |= opens_now;
            wanted || opens_now
        });
        if opens {
            self.controls.open_screen(event.at);
        }
    }

    /// Letters that the player reads: those of their language and on their keys.
    fn find_fonts(&mut self, ctx: &Context) {
        let layout = self.controls.resolver().layout();
        let language = self.controls.words().language();
        if matches!(&self.fonts_for, Some((l, t)) if l == layout && t == language) {
            return;
        }
        let fonts = Fonts::new(self.fonts.clone()).for_player(self.controls.words(), layout);
        self.warning = fonts.warning();
        fonts.install(ctx);
        self.fonts_for = Some((layout.clone(), language.to_owned()));
    }
}

/// Escape and the pad's middle button open the controls.
fn opens_screen(event: &Event) -> bool {
    match event.what {
        EventKind::Key { place, down, .. } => place == Place::Escape && down,
        EventKind::PadButton { button, value } => button == PadButton::Center && value > 0.5,
        _ => false,
    }
}

/// The touch screen, beside the keyboard and mouse of a window.
const TOUCH: DeviceId = DeviceId(2);

fn touch_event(at: Time, what: EventKind) -> Event {
    let device = TOUCH;
    Event { at, device, what }
}

type LayOut = Box<dyn Fn(&mut TouchZones, [f32; 2])>;

/// On-screen controls, and what of them is touched.
struct OnScreen {
    lay_out: LayOut,
    zones: TouchZones,
    mouse: MouseFinger,
    /// The size that they are laid out for.
    laid: Option<[f32; 2]>,
    always: bool,
}

impl OnScreen {
    /// Feeds what the fingers do, where the on-screen controls are there for them.
    fn take_in(&mut self, ctx: &Context, controls: &mut Controls, now: Time) {
        let size: [f32; 2] = ctx.content_rect().size().into();
        let mut told = Vec::new();
        if self.laid.replace(size) != Some(size) {
            told.extend(self.zones.clear());
            (self.lay_out)(&mut self.zones, size);
        }
        if controls.screen().is_none_or(|screen| screen.is_hearing()) {
            fingers(ctx, &mut self.zones, &mut self.mouse, |what| {
                told.push(what);
            });
        } else {
            told.extend(self.zones.lift());
        }
        for what in told {
            controls.feed(&touch_event(now, what));
        }
        controls.arrange(&mut self.zones);
    }

    /// Draws them over everything, for who plays with fingers.
    fn draw(&self, ctx: &Context, controls: &Controls) {
        let is_in_use = controls.seat().device_kind() == DeviceKind::Touch;
        let is_open = controls.screen().is_some_and(|screen| !screen.is_hearing());
        if (self.always || is_in_use) && !is_open {
            touch_controls(ctx, &controls.touch_view(&self.zones), &Look::DARK);
        }
    }
}

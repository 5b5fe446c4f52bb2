//! The controls screen drawn by a game itself, into a plain buffer of pixels: a page of code.
//!
//! `cargo run -p own_picture -- [PROFILES] [--report]`: what has the focus is printed for tests. What is drawn is a list of lines, each of them items
//! side by side; the screen is told where each of them lies, and what the pointer does.

mod pixels;

use std::error::Error;
use std::num::NonZeroU32;
use std::rc::Rc;
use std::time::{Duration, Instant};

use swap_knot::screen::{BoardView, Dialog, Item, PointerEvent, Role, ScreenView, Target};
use swap_knot::{Controls, Layout, Locker, Sheet, Slug, Time};
use swap_knot_winit::Adapter;
use winit::application::ApplicationHandler;
use winit::event::{ElementState, WindowEvent};
use winit::event_loop::{ActiveEventLoop, ControlFlow, EventLoop};
use winit::window::{Window, WindowId};

use pixels::{LINE, LOOK, Pixels, Rect};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");
const TITLE: i32 = 300;

type Surface = softbuffer::Surface<Rc<Window>, Rc<Window>>;

struct App {
    controls: Controls,
    adapter: Adapter,
    started: Instant,
    window: Option<(Rc<Window>, Surface)>,
    pointer: [f32; 2],
    /// How far the list is scrolled.
    top: i32,
    report: Report,
}

/// What is shown, in words.
#[derive(Default)]
struct Report {
    is_on: bool,
    last: Vec<String>,
}

impl Report {
    fn say(&self, line: &str) {
        if self.is_on {
            println!("{line}");
        }
    }

    /// Says what was not so before.
    fn state(&mut self, now: Vec<String>) {
        let new = now.iter().filter(|line| !self.last.contains(line));
        new.for_each(|line| self.say(line));
        self.last = now;
    }
}

fn main() -> Result<(), Box<dyn Error>> {
    let sheet = Sheet::from_toml(SHEET)?;
    let (options, folders): (Vec<String>, Vec<String>) =
        std::env::args().skip(1).partition(|a| a.starts_with("--"));
    let locker = match folders.first() {
        Some(folder) => Locker::open(folder)?,
        None => Locker::of_user(&sheet)?,
    };
    let layout = swap_knot_winit::system_layout().unwrap_or_else(Layout::us);
    let mut controls = Controls::open_last(&sheet, locker, &Slug::from_title("skipper"), &layout);
    controls.open_screen(Time::ZERO);
    let mut app = App {
        controls,
        adapter: Adapter::new(),
        started: Instant::now(),
        window: None,
        pointer: [0.0; 2],
        top: 0,
        report: Report {
            is_on: options.iter().any(|o| o == "--report"),
            ..Report::default()
        },
    };
    Ok(EventLoop::new()?.run_app(&mut app)?)
}

impl ApplicationHandler for App {
    fn resumed(&mut self, events: &ActiveEventLoop) {
        let size = winit::dpi::LogicalSize::new(1280, 800);
        let wanted = Window::default_attributes()
            .with_title("Slack Water")
            .with_inner_size(size);
        let Ok(window) = events.create_window(wanted).map(Rc::new) else {
            return events.exit();
        };
        let context = softbuffer::Context::new(window.clone());
        let surface = context.and_then(|context| Surface::new(&context, window.clone()));
        self.window = surface.ok().map(|surface| (window, surface));
    }

    fn window_event(&mut self, events: &ActiveEventLoop, _: WindowId, event: WindowEvent) {
        let now = Time::from(self.started.elapsed());
        let controls = &mut self.controls;
        self.adapter
            .window_event(&event, now, |event| controls.feed(&event));
        match event {
            WindowEvent::CursorMoved { position, .. } => {
                self.pointer = [position.x as f32, position.y as f32];
                self.point(PointerEvent::Moved(self.pointer));
            }
            WindowEvent::MouseInput { state, button, .. } => {
                if let Some(button) = swap_knot_winit::mouse_button(button) {
                    self.point(match state {
                        ElementState::Pressed => PointerEvent::Down(button, self.pointer),
                        ElementState::Released => PointerEvent::Up(button, self.pointer),
                    });
                }
            }
            WindowEvent::CursorLeft { .. } => self.point(PointerEvent::Gone),
            WindowEvent::Focused(has) => {
                let said = if has { "yes" } else { "no" };
                // What is so is said again for whoever waits for the focus.
                self.report.last.clear();
                self.report.say(&format!("has the focus: {said}"));
                if !has {
                    self.point(PointerEvent::Lost);
                }
            }
            WindowEvent::CloseRequested => return events.exit(),
            WindowEvent::RedrawRequested => self.draw(),
            _ => {}
        }
        if self.controls.screen().is_none() {
            events.exit();
        }
    }

    fn about_to_wait(&mut self, events: &ActiveEventLoop) {
        self.controls.tick(Time::from(self.started.elapsed()));
        self.controls.save();
        if let Some((window, _)) = &self.window {
            window.request_redraw();
        }
        events.set_control_flow(ControlFlow::wait_duration(Duration::from_millis(16)));
    }
}

impl App {
    /// The screen itself knows what a click is; it hears where things are after every picture.
    fn point(&mut self, event: PointerEvent) {
        if let Some(screen) = self.controls.screen_mut() {
            screen.point(event);
        }
    }

    fn draw(&mut self) {
        let (Some((window, surface)), Some(screen)) =
            (&mut self.window, self.controls.screen_mut())
        else {
            return;
        };
        let size = window.inner_size();
        let mut places = Places::default();
        if let (Some(width), Some(height)) =
            (NonZeroU32::new(size.width), NonZeroU32::new(size.height))
            && surface.resize(width, height).is_ok()
            && let Ok(mut buffer) = surface.buffer_mut()
        {
            let mut to = Pixels::new(&mut buffer, size.width as i32, size.height as i32);
            page(&mut to, screen.view(), &mut self.top, &mut places);
            let _ = buffer.present();
        }
        let focus = screen.view().focused();
        let focus = focus.map(|i| format!("{}: {}", i.id, i.label));
        self.report
            .state(places.told.into_iter().chain(focus).collect());
        screen.set_targets(places.targets);
    }
}

/// Where everything is drawn.
#[derive(Default)]
struct Places {
    targets: Vec<Target>,
    /// The same in words.
    told: Vec<String>,
}

impl Places {
    fn item(&mut self, item: &Item, rect: Rect) {
        let [left, top, width, height] = rect.edges();
        let track = [left, left + width];
        self.targets.push(Target::item(item, rect.edges(), track));
        let (x, y) = (left + width / 2.0, top + height / 2.0);
        self.told.push(format!("place {}: {x:.0} {y:.0}", item.id));
    }
}

/// The whole picture.
fn page(to: &mut Pixels<'_>, view: &ScreenView, top: &mut i32, places: &mut Places) {
    to.clear();
    let foot = to.height - 3 * LINE;
    let list = 2 * LINE + 8;
    let mut y = list - *top;
    let mut focus = None;
    for section in &view.sections {
        y = to.text(10, y, &section.title, LOOK.here);
        for row in &section.rows {
            // A direction stands below its action.
            let (x, title) = match row.arm {
                Some(_) => (44, &row.short),
                None => (20, &row.title),
            };
            let (sign, color) = if row.lit {
                ("● ", LOOK.lit)
            } else {
                ("", LOOK.text)
            };
            to.text(x, y, &format!("{sign}{title}"), color);
            let shown = list..foot - LINE;
            let said = [row.mark.as_deref(), row.text.as_deref()]
                .into_iter()
                .flatten();
            let said: Vec<&str> = said.collect();
            line(to, [TITLE, y], row.items.iter(), places, shown.contains(&y));
            focus = focus.or(row.items.iter().any(|i| i.focused).then_some(y));
            y += LINE;
            y = to.text(44, y, &said.join(" · "), LOOK.quiet);
        }
    }
    if let Some(board) = &view.board {
        let at = [20, y, to.width - 40, foot - LINE - y];
        keys(to, board, at, places);
    }
    // The list follows the player, one picture later.
    if let Some(at) = focus {
        *top += (at - (foot - 3 * LINE)).max(0) + (at - list - LINE).min(0).max(-*top);
    }
    let over = |y, height| Rect {
        x: 0,
        y,
        width: to.width,
        height,
    };
    let (above, below) = (over(0, list - 4), over(foot, 3 * LINE));
    to.fill(above, LOOK.ground);
    to.fill(below, LOOK.raised);
    line(to, [10, 4], view.pages.iter(), places, true);
    line(to, [10, 4 + LINE], view.tools.iter(), places, true);
    // What is to be known of what the player is on, what was refused, and what works the screen.
    let details = &view.details;
    let about = [&details.device, &details.title, &details.name].into_iter();
    let about: Vec<&str> = (about.chain(&details.text).map(String::as_str))
        .filter(|text| !text.is_empty())
        .collect();
    let whole = Rect {
        x: 10,
        width: to.width - 20,
        ..below
    };
    to.text_within(whole, &about.join(" · "), LOOK.text);
    let message = view.message.as_deref().unwrap_or_default();
    to.text(10, foot + LINE, message, LOOK.conflict);
    let hints: Vec<String> = view
        .hints
        .iter()
        .map(|h| format!("{}: {}", h.name, h.does))
        .collect();
    to.text(10, foot + 2 * LINE, &hints.join("   "), LOOK.quiet);
    if let Some(shown) = &view.dialog {
        dialog(to, shown, foot, places);
    }
}

/// What has to be answered, over all the rest.
fn dialog(to: &mut Pixels<'_>, shown: &Dialog, foot: i32, places: &mut Places) {
    let over = Rect {
        x: 60,
        y: 60,
        width: to.width - 120,
        height: foot - 60,
    };
    to.fill(over, LOOK.raised);
    places.targets.push(Target::cover(over.edges()));
    let mut y = to.text(80, 70, &shown.title, LOOK.text);
    for text in &shown.text {
        y = to.text(80, y, text, LOOK.quiet);
    }
    // Of a profile as text, the end.
    let field: Vec<&str> = shown.field.iter().flat_map(|t| t.lines()).collect();
    for text in &field[field.len().saturating_sub(12)..] {
        y = to.text(80, y, text, LOOK.text);
    }
    // What the player is on is in view.
    let mut lines = shown.lines.iter();
    let at = lines.position(|l| l.iter().any(|i| i.focused)).unwrap_or(0);
    for items in shown.lines.iter().skip(at.saturating_sub(8)) {
        line(to, [80, y], items.iter(), places, y < foot - LINE);
        y += LINE;
        for text in items.iter().flat_map(|i| &i.text) {
            y = to.text(110, y, text, LOOK.quiet);
        }
    }
}

/// The player's keyboard, with the gaps that it has: on each key its legend, and a bar where it does something.
fn keys(
    to: &mut Pixels<'_>,
    board: &BoardView,
    [x, y, width, height]: [i32; 4],
    places: &mut Places,
) {
    let unit = (width as f32 / board.width).min(height as f32 / board.height);
    for key in &board.keys {
        let [left, top, wide, high] = key.rect.map(|n| (n * unit) as i32);
        let rect = Rect {
            x: x + left,
            y: y + top,
            width: wide - 3,
            height: high - 3,
        };
        let (fill, text) = match (key.item.focused, key.down) {
            (true, _) => (LOOK.here, LOOK.ground),
            (_, true) => (LOOK.lit, LOOK.ground),
            _ => (LOOK.cell, LOOK.text),
        };
        to.fill(rect, fill);
        to.text_within(rect.inner(3), &key.item.label, text);
        if !key.does.is_empty() {
            let bar = Rect {
                y: rect.y + rect.height - 5,
                height: 3,
                ..rect.inner(6)
            };
            to.fill(
                bar,
                if key.item.focused {
                    LOOK.ground
                } else {
                    LOOK.here
                },
            );
        }
        places.item(&key.item, rect);
    }
}

/// Items side by side.
fn line<'a>(
    to: &mut Pixels<'_>,
    [mut x, y]: [i32; 2],
    items: impl Iterator<Item = &'a Item>,
    places: &mut Places,
    shown: bool,
) {
    for item in items.filter(|_| shown) {
        let (sign, color) = match (&item.role, item.conflict, item.changed) {
            (_, true, _) => ("! ", LOOK.conflict),
            (_, _, true) => ("• ", LOOK.changed),
            (Role::Radio { selected: true } | Role::Tab { selected: true }, ..) => {
                ("● ", LOOK.text)
            }
            _ if !item.enabled || item.by_whole => ("", LOOK.quiet),
            _ => ("", LOOK.text),
        };
        let manner = item.manner.iter().map(|m| format!(" · {m}"));
        let label = format!("{sign}{}{}", item.label, manner.collect::<String>());
        let rect = Rect {
            x,
            y,
            width: to.measure(&label) + 16,
            height: LINE - 4,
        };
        let is_flat = !item.enabled || item.by_whole;
        to.fill(rect, if item.focused { LOOK.here } else { LOOK.cell });
        to.fill(rect.inner(2), if is_flat { LOOK.ground } else { LOOK.cell });
        to.text(x + 8, y, &label, color);
        places.item(item, rect);
        x += rect.width + 6;
    }
}

//! The controls screen drawn by a game itself, into a plain buffer of pixels: a page of code.
//!
//! `cargo run -p own_picture -- [PROFILES] [--report]`: what has the focus is printed for tests. What is drawn is a list of lines, each of them items
//! side by side; the screen is told where each of them lies, and what the pointer does.

mod pixels;

use std::error::Error;
use std::num::NonZeroU32;
use std::rc::Rc;
use std::time::{Duration, Instant};

use swap_knot::screen::{Item, PointerEvent, Role, ScreenView, Target};
use swap_knot::{Controls, Layout, Locker, Sheet, Slug, Time};
use swap_knot_winit::Adapter;
use winit::application::ApplicationHandler;
use winit::event::{ElementState, WindowEvent};
use winit::event_loop::{ActiveEventLoop, ControlFlow, EventLoop};
use winit::window::{Window, WindowId};

use pixels::{LINE, Pixels, Rect};

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
    last: String,
}

impl Report {
    fn state(&mut self, now: String) {
        if self.is_on && self.last != now {
            println!("{now}");
            self.last = now;
        }
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
                self.report.state(format!("has the focus: {said}"));
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
        let mut places = Vec::new();
        if let (Some(width), Some(height)) =
            (NonZeroU32::new(size.width), NonZeroU32::new(size.height))
            && surface.resize(width, height).is_ok()
            && let Ok(mut buffer) = surface.buffer_mut()
        {
            let mut to = Pixels::new(&mut buffer, size.width as i32, size.height as i32);
            page(&mut to, screen.view(), &mut self.top, &mut places);
            let _ = buffer.present();
        }
        screen.set_targets(places);
        let focus = screen
            .view()
            .focused()
            .map(|i| format!("{}: {}", i.id, i.label));
        self.report.state(focus.unwrap_or_default());
    }
}

/// The whole picture.
fn page(to: &mut Pixels<'_>, view: &ScreenView, top: &mut i32, places: &mut Vec<Target>) {
    to.clear();
    let foot = to.height - 2 * LINE;
    let list = 2 * LINE + 8;
    let mut y = list - *top;
    let mut focus = None;
    for section in &view.sections {
        y = to.text(10, y, &section.title, true);
        for row in &section.rows {
            let lit = if row.lit { "● " } else { "" };
            let (x, title) = match row.arm {
                Some(_) => (36, &row.short),
                None => (20, &row.title),
            };
            to.text(x, y, &format!("{lit}{title}"), row.lit);
            let shown = list..foot - LINE;
            line(to, [TITLE, y], row.items.iter(), places, shown.contains(&y));
            focus = focus.or(row.items.iter().any(|i| i.focused).then_some(y));
            y += LINE;
        }
    }
    let keys = view
        .board
        .iter()
        .flat_map(|b| b.keys.chunk_by(|a, b| a.rect[1] == b.rect[1]));
    for keys in keys {
        line(to, [20, y], keys.iter().map(|k| &k.item), places, true);
        y += LINE;
    }
    // The list follows the player, one picture later.
    if let Some(at) = focus {
        *top += (at - (foot - 3 * LINE)).max(0) + (at - list - LINE).min(0).max(-*top);
    }
    to.fill(
        Rect {
            x: 0,
            y: 0,
            width: to.width,
            height: list - 4,
        },
        pixels::GROUND,
    );
    to.fill(
        Rect {
            x: 0,
            y: foot,
            width: to.width,
            height: 2 * LINE,
        },
        pixels::GROUND,
    );
    line(to, [10, 4], view.pages.iter(), places, true);
    line(to, [10, 4 + LINE], view.tools.iter(), places, true);
    let hints: Vec<String> = view
        .hints
        .iter()
        .map(|h| format!("{}: {}", h.name, h.does))
        .collect();
    to.text(10, foot, view.message.as_deref().unwrap_or_default(), true);
    to.text(10, foot + LINE, &hints.join("   "), false);
    if let Some(dialog) = &view.dialog {
        let over = Rect {
            x: 60,
            y: 60,
            width: to.width - 120,
            height: foot - 60,
        };
        to.fill(over, pixels::RAISED);
        places.push(Target::cover(over.edges()));
        let mut y = to.text(80, 70, &dialog.title, true);
        for text in &dialog.text {
            y = to.text(80, y, text, false);
        }
        // Of a profile as text, the end.
        let field: Vec<&str> = dialog.field.iter().flat_map(|t| t.lines()).collect();
        for text in &field[field.len().saturating_sub(12)..] {
            y = to.text(80, y, text, false);
        }
        // What the player is on is in view.
        let at = dialog
            .lines
            .iter()
            .position(|l| l.iter().any(|i| i.focused))
            .unwrap_or(0);
        for items in dialog.lines.iter().skip(at.saturating_sub(8)) {
            line(to, [80, y], items.iter(), places, y < foot - LINE);
            y += LINE;
            for text in items.iter().flat_map(|i| &i.text) {
                y = to.text(110, y, text, false);
            }
        }
    }
}

/// Items side by side.
fn line<'a>(
    to: &mut Pixels<'_>,
    [mut x, y]: [i32; 2],
    items: impl Iterator<Item = &'a Item>,
    places: &mut Vec<Target>,
    shown: bool,
) {
    for item in items.filter(|_| shown) {
        let sign = match (&item.role, item.conflict, item.changed) {
            (_, true, _) => "! ",
            (_, _, true) => "• ",
            (Role::Radio { selected: true } | Role::Tab { selected: true }, ..) => "● ",
            _ => "",
        };
        let manner = item.manner.iter().map(|m| format!(" · {m}"));
        let label = format!("{sign}{}{}", item.label, manner.collect::<String>());
        let rect = Rect {
            x,
            y,
            width: to.measure(&label) + 16,
            height: LINE - 4,
        };
        to.fill(
            rect,
            if item.focused {
                pixels::FOCUS
            } else {
                pixels::ITEM
            },
        );
        to.fill(
            rect.inner(2),
            if item.enabled {
                pixels::ITEM
            } else {
                pixels::GROUND
            },
        );
        to.text(x + 8, y, &label, item.focused);
        let [left, _, width, _] = rect.edges();
        places.push(Target::item(item, rect.edges(), [left, left + width]));
        x += rect.width + 6;
    }
}

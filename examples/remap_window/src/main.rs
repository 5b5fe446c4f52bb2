//! A whole remapping menu in one window, with a stage on which the actions move something.
//!
//! `cargo run --release -p remap_window`; `--profiles DIR` keeps profiles there instead of in the
//! user's configuration folder, `--language TAG` tells names in that language, `--simulate` plays
//! the devices of a trace that comes in on standard input, `--report` prints a line for everything
//! that happens.

mod app;
mod report;
mod simulate;
mod stage;
mod texts;

use std::cell::RefCell;
use std::error::Error;
use std::process::ExitCode;
use std::rc::Rc;
use std::time::Instant;

use eframe::UserEvent;
use swap_knot::{Event, Time};
use swap_knot_winit::Adapter;
use winit::application::ApplicationHandler;
use winit::event::{DeviceEvent, DeviceId, StartCause, WindowEvent};
use winit::event_loop::{ActiveEventLoop, EventLoop};
use winit::window::WindowId;

/// The events that came in since the last frame.
type Incoming = Rc<RefCell<Vec<Event>>>;

fn main() -> ExitCode {
    match start() {
        Ok(()) => ExitCode::SUCCESS,
        Err(why) => {
            eprintln!("error: {why}");
            ExitCode::FAILURE
        }
    }
}

fn start() -> Result<(), Box<dyn Error>> {
    let (mut folder, mut report, mut simulate) = (None, false, false);
    let mut language = "en".to_owned();
    let mut args = std::env::args().skip(1);
    while let Some(arg) = args.next() {
        match arg.as_str() {
            "--report" => report = true,
            "--simulate" => simulate = true,
            "--profiles" => folder = Some(args.next().ok_or("--profiles wants a folder")?.into()),
            "--language" => {
                language = args.next().ok_or("--language wants a tag")?;
            }
            other => {
                let known = "--profiles DIR, --language TAG, --simulate and --report";
                return Err(format!("there is no option {other}; there are {known}").into());
            }
        }
    }
    let started = Instant::now();
    let incoming = Incoming::default();
    let how = app::Options {
        folder,
        report,
        texts: texts::Texts::nearest(&language)?,
    };
    let (sender, simulated) = std::sync::mpsc::channel();
    let app = app::App::new(how, incoming.clone(), simulated, started)?;

    let options = eframe::NativeOptions {
        viewport: eframe::egui::ViewportBuilder::default()
            .with_title("Slack Water: controls")
            .with_position([0.0, 0.0])
            .with_inner_size([1280.0, 800.0]),
        ..Default::default()
    };
    let event_loop = EventLoop::<UserEvent>::with_user_event().build()?;
    let mut window = Window {
        inner: eframe::create_native(
            "slack-water",
            options,
            Box::new(move |cc| {
                if simulate {
                    simulate::start(sender, cc.egui_ctx.clone());
                }
                Ok(Box::new(app))
            }),
            &event_loop,
        ),
        adapter: Adapter::new(),
        incoming,
        started,
    };
    event_loop.run_app(&mut window)?;
    Ok(())
}

/// The window as eframe runs it, with an ear on every event for the adapter.
struct Window<'a> {
    inner: eframe::EframeWinitApplication<'a>,
    adapter: Adapter,
    incoming: Incoming,
    started: Instant,
}

impl ApplicationHandler<UserEvent> for Window<'_> {
    fn window_event(&mut self, events: &ActiveEventLoop, window: WindowId, event: WindowEvent) {
        let now = Time::from(self.started.elapsed());
        let mut incoming = self.incoming.borrow_mut();
        self.adapter.window_event(&event, now, |e| incoming.push(e));
        drop(incoming);
        self.inner.window_event(events, window, event);
    }

    fn device_event(&mut self, events: &ActiveEventLoop, device: DeviceId, event: DeviceEvent) {
        let now = Time::from(self.started.elapsed());
        let mut incoming = self.incoming.borrow_mut();
        self.adapter
            .device_event(device, &event, now, |e| incoming.push(e));
        drop(incoming);
        self.inner.device_event(events, device, event);
    }

    fn resumed(&mut self, events: &ActiveEventLoop) {
        self.inner.resumed(events);
    }

    fn suspended(&mut self, events: &ActiveEventLoop) {
        self.inner.suspended(events);
    }

    fn new_events(&mut self, events: &ActiveEventLoop, cause: StartCause) {
        self.inner.new_events(events, cause);
    }

    fn user_event(&mut self, events: &ActiveEventLoop, event: UserEvent) {
        self.inner.user_event(events, event);
    }

    fn about_to_wait(&mut self, events: &ActiveEventLoop) {
        self.inner.about_to_wait(events);
    }

    fn exiting(&mut self, events: &ActiveEventLoop) {
        self.inner.exiting(events);
    }

    fn memory_warning(&mut self, events: &ActiveEventLoop) {
        self.inner.memory_warning(events);
    }
}

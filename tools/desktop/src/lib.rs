//! For tests of windows: an X server of the test's own, its keys and mouse, and a window on it that says
//! in lines what it shows. Nothing goes by the clock: what is waited for is what the window says.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

use std::io::{BufRead, BufReader, Write as _};
use std::process::{Child, Command, Stdio};
use std::sync::mpsc::{Receiver, channel};

use patience::wait_for;
use x11rb::connection::Connection;
use x11rb::protocol::xproto::{
    ClientMessageEvent, ConnectionExt as _, CreateWindowAux, EventMask, InputFocus, WindowClass,
};
use x11rb::protocol::xtest::ConnectionExt as _;
use x11rb::rust_connection::RustConnection;

/// Whether window tests run: `SWAP_KNOT_WINDOW_TESTS=0` leaves them out, `1` insists on them.
pub fn skip_without_display() -> bool {
    let wanted = std::env::var("SWAP_KNOT_WINDOW_TESTS").unwrap_or_default();
    let has = |tool: &str| Command::new(tool).arg("-help").output().is_ok();
    let ready = has("Xvfb") && has("setxkbmap");
    assert!(
        ready || wanted != "1",
        "Xvfb and setxkbmap are needed; ./scripts/test installs them"
    );
    if wanted == "0" || !ready {
        patience::skip("window tests want Xvfb and setxkbmap; ./scripts/test installs them");
    }
    wanted == "0" || !ready
}

const KEY_PRESS: u8 = 2;
const KEY_RELEASE: u8 = 3;
const BUTTON_PRESS: u8 = 4;
const BUTTON_RELEASE: u8 = 5;
const MOTION: u8 = 6;

/// An X server of the test's own.
#[derive(Debug)]
pub struct Desktop {
    server: Child,
    display: String,
}

impl Desktop {
    /// Starts one, with the layout of the United States.
    pub fn start() -> Desktop {
        let mut server = Command::new("Xvfb")
            .args([
                "-displayfd",
                "1",
                "-screen",
                "0",
                "1280x800x24",
                "-nolisten",
                "tcp",
                // It would start anew whenever its last client leaves.
                "-noreset",
            ])
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .unwrap();
        let mut number = String::new();
        BufReader::new(server.stdout.take().unwrap())
            .read_line(&mut number)
            .unwrap();
        let desktop = Desktop {
            server,
            display: format!(":{}", number.trim()),
        };
        desktop.set_layout("us");
        desktop
    }

    /// Switches the layout of the keyboard.
    pub fn set_layout(&self, layout: &str) {
        let done = Command::new("setxkbmap")
            .args(["-display", &self.display, layout])
            .status();
        assert!(done.unwrap().success());
    }

    /// Runs a program on this display.
    pub fn run(&self, mut program: Command) -> Window {
        let mut program = program
            .env("DISPLAY", &self.display)
            .env_remove("WAYLAND_DISPLAY")
            .env("LIBGL_ALWAYS_SOFTWARE", "1")
            .stdin(Stdio::piped())
            .stdout(Stdio::piped())
            .spawn()
            .unwrap();
        let (tell, lines) = channel();
        let out = BufReader::new(program.stdout.take().unwrap());
        std::thread::spawn(move || {
            for line in out.lines().map_while(Result::ok) {
                if tell.send(line).is_err() {
                    break;
                }
            }
        });
        let (x, screen) = x11rb::connect(Some(&self.display)).unwrap();
        let root = x.setup().roots[screen].root;
        Window {
            program,
            lines,
            log: Vec::new(),
            seen: 0,
            simulated: 0,
            x,
            root,
            shown: 0,
        }
    }
}

impl Drop for Desktop {
    fn drop(&mut self) {
        let _ = self.server.kill();
        let _ = self.server.wait();
    }
}

/// A program with a window, which says in lines what it shows.
pub struct Window {
    program: Child,
    lines: Receiver<String>,
    log: Vec<String>,
    /// How much of it has been waited for.
    seen: usize,
    /// How many lines have been simulated.
    simulated: usize,
    x: RustConnection,
    root: u32,
    /// The window, once it is shown.
    shown: u32,
}

impl Window {
    /// Gives the window the focus, as a window manager would, once it is shown. A window that says what it
    /// shows says that it has it, see [`wait_for_focus`](Window::wait_for_focus).
    pub fn take_focus(&mut self) {
        const VIEWABLE: u8 = 2;
        let shown = wait_for("a window that is shown", || {
            let children = self.x.query_tree(self.root).unwrap().reply().unwrap();
            for child in children.children {
                // It may be gone by now.
                let attributes = self.x.get_window_attributes(child).unwrap().reply();
                if attributes.is_ok_and(|a| u8::from(a.map_state) == VIEWABLE) {
                    return Ok(child);
                }
            }
            Err("none".to_owned())
        });
        self.shown = shown;
        self.focus_on(shown);
    }

    /// Waits until the window says that it has the focus, or has lost it.
    #[track_caller]
    pub fn wait_for_focus(&mut self, has: bool) {
        self.wait_until("has the focus", if has { "yes" } else { "no" });
    }

    fn focus_on(&self, window: u32) {
        let done = self
            .x
            .set_input_focus(InputFocus::PARENT, window, x11rb::CURRENT_TIME);
        done.unwrap().check().unwrap();
    }

    /// Opens the controls screen with its key.
    pub fn open_screen(&mut self) {
        const ESCAPE: u8 = 9;
        self.press(ESCAPE);
        self.wait_until("screen", "open");
    }

    /// Waits until something is as it should be, also where it was said before.
    #[track_caller]
    pub fn wait_until(&mut self, what: &str, is: &str) {
        let start = format!("{what}: ");
        wait_for(format_args!("{start}{is}"), || match self.last(&start) {
            last if last == is => Ok(()),
            last => {
                let last = last.to_owned();
                Err(format!("{start}{last}\n{}", self.log.join("\n")))
            }
        });
    }

    fn send(&self, kind: u8, detail: u8, at: (i16, i16)) {
        let (x, y) = at;
        self.x
            .xtest_fake_input(kind, detail, x11rb::CURRENT_TIME, self.root, x, y, 0)
            .unwrap()
            .check()
            .unwrap();
    }

    /// Presses and lets go of a key.
    pub fn press(&self, key: u8) {
        self.send(KEY_PRESS, key, (0, 0));
        self.send(KEY_RELEASE, key, (0, 0));
    }

    /// Presses a key until the window says something; a new layout takes the server a moment.
    #[track_caller]
    pub fn press_until(&mut self, key: u8, wanted: &str) {
        wait_for(wanted, || {
            self.press(key);
            self.settle();
            match self.said(wanted) {
                true => Ok(()),
                false => Err(self.log.join("\n")),
            }
        });
        self.wait_for(wanted);
    }

    /// Clicks what the window says stands somewhere.
    pub fn click(&mut self, what: &str) {
        let at = self.middle_of(what);
        self.click_at(at);
    }

    /// Where something stands, once it has come to rest.
    fn middle_of(&mut self, what: &str) -> (i16, i16) {
        self.wait_for_place(what);
        // Things move until the first frames have settled.
        for _ in 0..3 {
            self.settle();
        }
        let there = self.last(&format!("place {what}: "));
        let (x, y) = there.split_once(' ').unwrap();
        (x.parse().unwrap(), y.parse().unwrap())
    }

    /// Drags what the window says stands somewhere, by so many pixels, and lets go of it when the window
    /// has said something.
    pub fn drag(&mut self, what: &str, by: (i16, i16), wanted: Option<&str>) {
        let from = self.middle_of(what);
        self.send(MOTION, 0, from);
        self.send(BUTTON_PRESS, 1, from);
        for n in 1..=5 {
            let at = (from.0 + by.0 * n / 5, from.1 + by.1 * n / 5);
            self.send(MOTION, 0, at);
        }
        if let Some(wanted) = wanted {
            self.wait_for(wanted);
        }
        self.send(BUTTON_RELEASE, 1, (from.0 + by.0, from.1 + by.1));
    }

    /// Clicks somewhere, in pixels.
    pub fn click_at(&self, at: (i16, i16)) {
        self.send(MOTION, 0, at);
        self.send(BUTTON_PRESS, 1, at);
        self.send(BUTTON_RELEASE, 1, at);
    }

    /// Waits for a line after the one that was waited for last.
    #[track_caller]
    pub fn wait_for(&mut self, wanted: &str) {
        self.wait(wanted, |log, seen| {
            let new = log[seen..].iter().position(|l| l == wanted)?;
            Some(seen + new + 1)
        });
    }

    /// Waits for a line that begins so, after the one that was waited for last.
    #[track_caller]
    pub fn wait_for_start(&mut self, start: &str) {
        self.wait(start, |log, seen| {
            let new = log[seen..].iter().position(|l| l.starts_with(start))?;
            Some(seen + new + 1)
        });
    }

    /// Waits until something stands somewhere.
    #[track_caller]
    pub fn wait_for_place(&mut self, what: &str) {
        let start = format!("place {what}: ");
        self.wait(&start, |log, seen| {
            log.iter().any(|l| l.starts_with(&start)).then_some(seen)
        });
    }

    /// Waits until the prompts say something.
    #[track_caller]
    pub fn wait_for_prompt(&mut self, part: &str) {
        self.wait(part, |log, seen| {
            let last = log.iter().rev().find(|l| l.starts_with("prompt: "))?;
            last.contains(part).then_some(seen)
        });
    }

    /// Waits until `find` answers up to where the log has been seen.
    #[track_caller]
    fn wait(&mut self, wanted: &str, find: impl Fn(&[String], usize) -> Option<usize>) {
        self.seen = wait_for(wanted, || {
            self.drain();
            find(&self.log, self.seen).ok_or_else(|| self.log.join("\n"))
        });
    }

    /// Asks the program to close its window, as the cross in its corner does.
    pub fn ask_to_close(&mut self) {
        let atom = |name: &str| {
            self.x
                .intern_atom(false, name.as_bytes())
                .unwrap()
                .reply()
                .unwrap()
                .atom
        };
        let (protocols, delete) = (atom("WM_PROTOCOLS"), atom("WM_DELETE_WINDOW"));
        let data = [delete, x11rb::CURRENT_TIME, 0, 0, 0];
        let message = ClientMessageEvent::new(32, self.shown, protocols, data);
        self.x
            .send_event(false, self.shown, EventMask::NO_EVENT, message)
            .unwrap();
        self.x.flush().unwrap();
    }

    /// Opens another window in a corner and gives it the focus.
    pub fn lose_focus(&mut self) {
        let other = self.x.generate_id().unwrap();
        let made = self.x.create_window(
            x11rb::COPY_DEPTH_FROM_PARENT,
            other,
            self.root,
            1270,
            790,
            10,
            10,
            0,
            WindowClass::INPUT_OUTPUT,
            x11rb::COPY_FROM_PARENT,
            &CreateWindowAux::new(),
        );
        made.unwrap().check().unwrap();
        self.x.map_window(other).unwrap().check().unwrap();
        self.focus_on(other);
        self.wait_for_focus(false);
    }

    /// Presses and lets go of a mouse button, by the number that X gives it, where the pointer is.
    pub fn button(&self, button: u8) {
        self.send(BUTTON_PRESS, button, (0, 0));
        self.send(BUTTON_RELEASE, button, (0, 0));
    }

    /// Presses a key and keeps it down.
    pub fn hold(&self, key: u8) {
        self.send(KEY_PRESS, key, (0, 0));
    }

    /// Lets go of a key.
    pub fn let_go(&self, key: u8) {
        self.send(KEY_RELEASE, key, (0, 0));
    }

    /// How often the window has said a line, once what is on its way has come.
    pub fn times_said(&mut self, line: &str) -> usize {
        self.settle();
        self.count(line)
    }

    /// Waits until a window has said a line so often in all.
    #[track_caller]
    pub fn wait_for_times(&mut self, line: &str, times: usize) {
        wait_for(format_args!("{line}, {times} times"), || {
            match self.count(line) >= times {
                true => Ok(()),
                false => Err(self.log.join("\n")),
            }
        });
    }

    /// How often a window has said a line so far.
    pub fn count(&mut self, line: &str) -> usize {
        self.drain();
        self.log.iter().filter(|l| *l == line).count()
    }

    /// Whether the window has said that line.
    pub fn said(&mut self, line: &str) -> bool {
        self.drain();
        self.log.iter().any(|l| l == line)
    }

    /// Plays a line of a trace as an event of a device that is not there, and waits until the window
    /// shows what has become of it: a player's hand waits for the picture, too.
    pub fn simulate(&mut self, line: &str) {
        self.simulate_all(&[line]);
    }

    /// The same of several at once: between two that are waited for, a busy machine might take as long
    /// as what is held takes to repeat.
    pub fn simulate_all(&mut self, lines: &[&str]) {
        let input = self.program.stdin.as_mut().unwrap();
        for line in lines {
            writeln!(input, "{line}").unwrap();
        }
        self.simulated += lines.len();
        let shown = format!("simulated: {}", self.simulated);
        self.wait(&shown, |log, seen| {
            log.iter().rev().any(|l| *l == shown).then_some(seen)
        });
    }

    /// Waits until the window shows what has become of all that was pressed and moved.
    pub fn settle(&mut self) {
        // The server answers once it has passed on what came before.
        self.x.get_input_focus().unwrap().reply().unwrap();
        self.simulate("");
    }

    /// Presses keys one after the other.
    pub fn press_all(&mut self, keys: &[u8]) {
        for key in keys {
            self.press(*key);
        }
    }

    /// What the window said last behind those words.
    pub fn last(&mut self, start: &str) -> &str {
        self.drain();
        let mut said = self.log.iter().rev().filter_map(|l| l.strip_prefix(start));
        said.next().unwrap_or_default()
    }

    fn drain(&mut self) {
        self.log.extend(self.lines.try_iter());
    }

    /// Kills it.
    pub fn close(self) {}
}

impl Drop for Window {
    fn drop(&mut self) {
        let _ = self.program.kill();
        let _ = self.program.wait();
    }
}

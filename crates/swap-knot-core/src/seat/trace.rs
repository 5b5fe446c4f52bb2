//! Recorded device events as text, one a line, that can be played again; and what the game did in
//! between, so that it is played exactly as it was.
//!
//! ```text
//! format 1
//! # seconds  device  input  what it did
//! 0.000000 situation deck
//! 0.250000 0 KeyW down w
//! 0.900000 0 KeyW up
//! 1.200000 1 mouse:move 12 -3
//! 1.500000 2 pad:stick-left 0.5 -0.25
//! 2.000000 - focus-lost
//! ```
//!
//! From format 2 on it may also hold the ticks, and other rigs with the profile behind them:
//!
//! ```text
//! format 2
//! 0.000000 rig us other
//! | format = 1
//! | bind.horn.keyboard-1 = "KeyG"
//! 0.010000 advance
//! 0.016667 tick
//! ```
//!
//! From format 3 on it may also tell of devices that are plugged in, by their USB numbers, and of
//! pads that are turned in the hands:
//!
//! ```text
//! format 3
//! 0.000000 2 plugged 1209:5a01
//! 0.004000 2 pad:gyro 0.25 -0.1 0
//! ```
//!
//! From format 4 on it may also tell what a menu had, so that the game did not play it:
//!
//! ```text
//! format 4
//! 0.250000 overheard 2 pad:south 1
//! ```

use std::fmt;
use std::str::FromStr;

use crate::layout::Resolver;
use crate::mapping::Mapper;
use crate::profile::Profile;
use crate::text::is_name;

use crate::input::{
    DeviceId, Event, EventKind, HidInput, Input, InputError, Platform, Time, UsbId,
};

/// Recorded device events that can be played again.
///
/// Its text has one event a line; `#` begins a comment. What is read from the text of a trace is
/// the same trace, to the last bit.
///
/// ```
/// use swap_knot::Trace;
///
/// let trace: Trace = "0.25 0 KeyW down\n0.9 0 KeyW up\n".parse()?;
/// assert_eq!(trace.entries().len(), 2);
/// assert_eq!(trace.to_string().parse::<Trace>()?, trace);
/// # Ok::<(), swap_knot::play::TraceError>(())
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Trace {
    entries: Vec<TraceEntry>,
    /// Whether it tells when the game let time go by.
    exact: bool,
}

/// One line of a trace.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum TraceEntry {
    /// Something happened on a device.
    Event(Event),
    /// Something happened on a device that a menu had, see [`Seat::overhear`](crate::Seat::overhear).
    Overheard(Event),
    /// The game made exactly these situations live, lowest first, by name.
    Situations {
        /// When.
        at: Time,
        /// Which.
        names: Vec<String>,
    },
    /// The game closed a frame: [`Seat::tick`](crate::Seat::tick).
    Tick {
        /// When.
        at: Time,
    },
    /// The game let time go by: [`Seat::advance`](crate::Seat::advance).
    Advance {
        /// Until when.
        at: Time,
    },
    /// The player played on with another profile, layout or platform.
    Rig {
        /// When.
        at: Time,
        /// The layout, by name.
        layout: String,
        /// The platform.
        platform: Platform,
        /// The profile, as the text of its file.
        profile: String,
    },
}

/// Whether the first two formats have no words for it.
const fn is_new(event: &Event) -> bool {
    matches!(
        event.what,
        EventKind::Plugged { .. } | EventKind::PadGyro { .. }
    )
}

impl TraceEntry {
    /// When it happened.
    pub fn at(&self) -> Time {
        match self {
            TraceEntry::Event(event) | TraceEntry::Overheard(event) => event.at,
            TraceEntry::Situations { at, .. }
            | TraceEntry::Tick { at }
            | TraceEntry::Advance { at }
            | TraceEntry::Rig { at, .. } => *at,
        }
    }

    /// The first format that has such a line.
    fn format(&self) -> u32 {
        match self {
            TraceEntry::Overheard(_) => 4,
            TraceEntry::Event(event) if is_new(event) => 3,
            TraceEntry::Event(_) | TraceEntry::Situations { .. } => 1,
            TraceEntry::Tick { .. } | TraceEntry::Advance { .. } | TraceEntry::Rig { .. } => 2,
        }
    }
}

/// A text that is no trace: what is wrong, and in which line.
#[derive(Clone, PartialEq, Eq)]
pub struct TraceError {
    line: usize,
    message: String,
}

impl TraceError {
    /// The line, from 1.
    pub fn line(&self) -> usize {
        self.line
    }
}

impl fmt::Display for TraceError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "line {}: {}", self.line, self.message)
    }
}

crate::text::debug_as_text!(TraceError);

impl std::error::Error for TraceError {}

impl Trace {
    /// The newest version of the format that is read; written is the oldest that has what the trace
    /// holds. A trace without one is of version 1.
    pub const FORMAT: u32 = 4;
    /// The largest trace that is read, in bytes (256 MiB).
    pub const MAX_BYTES: usize = 256 << 20;

    /// A trace without events.
    pub fn new() -> Trace {
        Trace::default()
    }

    /// Records an event, with its numbers in range as a seat takes them ([`EventKind::in_range`]).
    /// One from before the last entry is recorded at the time of that, unless the trace has its ticks
    /// with it: then everything is told in the order and with the times in which the seat took it.
    pub fn record(&mut self, event: &Event) {
        let event = self.taken(event);
        self.entries.push(TraceEntry::Event(event));
    }

    /// Records an event that a menu had, see [`Seat::overhear`](crate::Seat::overhear).
    pub fn record_overheard(&mut self, event: &Event) {
        let event = self.taken(event);
        self.entries.push(TraceEntry::Overheard(event));
    }

    /// An event as a seat takes it.
    fn taken(&self, event: &Event) -> Event {
        let what = event.what.in_range();
        let at = self.in_order(event.at);
        Event { at, what, ..*event }
    }

    /// Records that these situations are live from here on, lowest first. What cannot be the name of
    /// a situation in any sheet is left out.
    pub fn record_situations(&mut self, at: Time, names: impl IntoIterator<Item = String>) {
        let names = names.into_iter().filter(|name| is_name(name)).collect();
        let at = self.no_earlier(at);
        self.entries.push(TraceEntry::Situations { at, names });
    }

    /// Records that the game closed a frame, so that the trace replays at its own pace.
    pub fn record_tick(&mut self, at: Time) {
        self.exact = true;
        self.entries.push(TraceEntry::Tick { at });
    }

    /// Records that the game let time go by up to a moment.
    pub fn record_advance(&mut self, at: Time) {
        self.exact = true;
        self.entries.push(TraceEntry::Advance { at });
    }

    /// Records what the player plays with from here on: at the beginning of a trace, and when it
    /// changes. The layout is recorded by name, so that one that is not shipped cannot be replayed.
    pub fn record_rig(&mut self, at: Time, profile: &Profile, on: &Resolver) {
        let at = self.in_order(at);
        self.entries.push(TraceEntry::Rig {
            at,
            layout: on.layout().name().to_owned(),
            platform: on.platform(),
            profile: profile.to_toml(),
        });
    }

    /// Whether it tells when the game let time go by, so that it replays exactly as it was.
    pub fn is_exact(&self) -> bool {
        self.exact
    }

    /// A moment as it may stand behind the last line.
    fn in_order(&self, at: Time) -> Time {
        match self.is_exact() {
            true => at,
            false => self.no_earlier(at),
        }
    }

    fn no_earlier(&self, at: Time) -> Time {
        self.entries.last().map_or(at, |last| at.max(last.at()))
    }

    /// The same as a game hears it that goes by what was taught of controllers.
    #[must_use]
    pub fn mapped(&self, mapper: &mut Mapper) -> Trace {
        let mut entries = Vec::with_capacity(self.entries.len());
        for entry in &self.entries {
            match entry {
                TraceEntry::Event(event) => {
                    mapper.event(event, |event| entries.push(TraceEntry::Event(*event)));
                }
                TraceEntry::Overheard(event) => {
                    mapper.event(event, |event| entries.push(TraceEntry::Overheard(*event)));
                }
                other => entries.push(other.clone()),
            }
        }
        Trace {
            entries,
            ..self.clone()
        }
    }

    /// Every line, in order.
    pub fn entries(&self) -> &[TraceEntry] {
        &self.entries
    }
}

impl FromStr for Trace {
    type Err = TraceError;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        if text.len() > Trace::MAX_BYTES {
            let message = format!("a trace has at most {} MiB", Trace::MAX_BYTES >> 20);
            return Err(TraceError { line: 1, message });
        }
        let mut entries: Vec<TraceEntry> = Vec::new();
        let mut back = None;
        for (i, line) in text.lines().enumerate() {
            if let Some(of_profile) = line.strip_prefix('|') {
                let Some(TraceEntry::Rig { profile, .. }) = entries.last_mut() else {
                    let message = "a line of a profile belongs behind `rig`".to_owned();
                    return Err(TraceError {
                        line: i + 1,
                        message,
                    });
                };
                profile.push_str(of_profile.strip_prefix(' ').unwrap_or(of_profile));
                profile.push('\n');
                continue;
            }
            let words = line.split('#').next().unwrap_or_default();
            let mut words = words.split_whitespace();
            let Some(first) = words.next() else { continue };
            let wrong = |message| TraceError {
                line: i + 1,
                message,
            };
            if first == "format" && entries.is_empty() {
                check_format(words.next()).map_err(wrong)?;
                continue;
            }
            let entry = read_entry(first, &mut words).map_err(wrong)?;
            if let Some(extra) = words.next() {
                return Err(wrong(format!(
                    "`{extra}` is too much at the end of the line"
                )));
            }
            if back.is_none() && entries.last().is_some_and(|last| last.at() > entry.at()) {
                back = Some(wrong(
                    "it lies before the line above it; times only go up where no ticks are told"
                        .to_owned(),
                ));
            }
            entries.push(entry);
        }
        let paced =
            |e: &TraceEntry| matches!(e, TraceEntry::Tick { .. } | TraceEntry::Advance { .. });
        let exact = entries.iter().any(paced);
        match back.filter(|_| !exact) {
            Some(why) => Err(why),
            None => Ok(Trace { entries, exact }),
        }
    }
}

fn check_format(number: Option<&str>) -> Result<(), String> {
    match number.and_then(|n| n.parse::<u32>().ok()) {
        Some(1..=Trace::FORMAT) => Ok(()),
        Some(newer) if newer > Trace::FORMAT => Err(format!(
            "recorded in format {newer}, and this version reads {}; update it",
            Trace::FORMAT
        )),
        _ => Err(format!(
            "`format` wants a number, as in `format {}`",
            Trace::FORMAT
        )),
    }
}

fn read_entry<'a>(
    time: &str,
    words: &mut impl Iterator<Item = &'a str>,
) -> Result<TraceEntry, String> {
    let at = read_time(time).ok_or_else(|| {
        format!("`{time}` is no time; write seconds with up to six decimals, as in `1.250000`")
    })?;
    let device = words
        .next()
        .ok_or("the device is missing behind the time")?;
    if device == "situation" {
        let names: Vec<String> = words.map(str::to_owned).collect();
        if let Some(name) = names.iter().find(|name| !is_name(name)) {
            return Err(format!("`{name}` cannot be the name of a situation"));
        }
        return Ok(TraceEntry::Situations { at, names });
    }
    match device {
        "tick" => return Ok(TraceEntry::Tick { at }),
        "advance" => return Ok(TraceEntry::Advance { at }),
        "rig" => return read_rig(at, words),
        "overheard" => {
            let device = words
                .next()
                .ok_or("the device is missing behind `overheard`")?;
            return Ok(TraceEntry::Overheard(read_event(at, device, words)?));
        }
        _ => {}
    }
    Ok(TraceEntry::Event(read_event(at, device, words)?))
}

fn read_event<'a>(
    at: Time,
    device: &str,
    words: &mut impl Iterator<Item = &'a str>,
) -> Result<Event, String> {
    let device = match device {
        "-" => DeviceId::ALL,
        number => DeviceId(number.parse().map_err(|_| {
            format!("`{number}` is no device; write its number, `-` for all, or `situation`, `tick`, `advance`, `rig` or `overheard`")
        })?),
    };
    let what = words
        .next()
        .ok_or("the input is missing behind the device")?;
    let what = match what {
        "focus-lost" => EventKind::FocusLost,
        "unplugged" => EventKind::Unplugged,
        "plugged" => {
            let usb = words.next().map(str::parse::<UsbId>).transpose();
            let usb = usb.map_err(|e| e.to_string())?;
            EventKind::Plugged { usb }
        }
        "scroll" => {
            let mut axis = || {
                let number = words.next().and_then(|w| w.parse().ok());
                let number = number.filter(|n: &f32| n.is_finite());
                number.ok_or("`scroll` wants two numbers behind it")
            };
            let (x, y) = (axis()?, axis()?);
            let what = EventKind::Scroll { x, y };
            what.in_range()
        }
        input => {
            let input: Input = input.parse().map_err(|e: InputError| e.to_string())?;
            let what = read_kind(input, words)?;
            what.in_range()
        }
    };
    Ok(Event { at, device, what })
}

/// The layout and the platform of a rig; its profile stands in the lines behind it.
fn read_rig<'a>(at: Time, words: &mut impl Iterator<Item = &'a str>) -> Result<TraceEntry, String> {
    let layout = words
        .next()
        .ok_or("`rig` wants a layout behind it, as in `rig us other`")?;
    let word = words.next().unwrap_or_default();
    let platform = Platform::from_word(word);
    let platform = platform.ok_or("`rig` wants a platform behind the layout: `mac` or `other`")?;
    Ok(TraceEntry::Rig {
        at,
        layout: plain_name(layout).ok_or_else(|| format!("`{layout}` is no name of a layout"))?,
        platform,
        profile: String::new(),
    })
}

/// A name with its lost characters back, which are written as in `my\\u{20}board`.
fn plain_name(written: &str) -> Option<String> {
    let mut parts = written.split("\\u{");
    let mut name = parts.next()?.to_owned();
    for part in parts {
        let (code, rest) = part.split_once('}')?;
        name.push(
            u32::from_str_radix(code, 16)
                .ok()
                .and_then(char::from_u32)?,
        );
        name.push_str(rest);
    }
    Some(name)
}

fn read_kind<'a>(
    input: Input,
    words: &mut impl Iterator<Item = &'a str>,
) -> Result<EventKind, String> {
    let mut number = || -> Result<f32, String> {
        let word = words
            .next()
            .ok_or_else(|| format!("a number is missing behind `{input}`"))?;
        let number: Option<f32> = word.parse().ok().filter(|n: &f32| n.is_finite());
        number.ok_or_else(|| format!("`{word}` is no number"))
    };
    Ok(match input {
        Input::MouseMove => EventKind::MouseMove {
            x: number()?,
            y: number()?,
        },
        Input::PadGyro => EventKind::PadGyro {
            yaw: number()?,
            pitch: number()?,
            roll: number()?,
        },
        Input::Wheel(direction) => EventKind::Wheel { direction },
        Input::PadButton(button) => EventKind::PadButton {
            button,
            value: number()?,
        },
        Input::PadStick(stick) => EventKind::PadStick {
            stick,
            x: number()?,
            y: number()?,
        },
        Input::Hid(HidInput::Axis(axis)) => EventKind::HidAxis {
            axis,
            value: number()?,
        },
        Input::Key(place) => match words.next() {
            Some(word @ ("down" | "up")) => {
                let text = words.next();
                let text =
                    text.map(|t| one_char(t).ok_or_else(|| format!("`{t}` is not one character")));
                EventKind::Key {
                    place,
                    down: word == "down",
                    text: text.transpose()?,
                }
            }
            Some("held") => EventKind::KeyHeld { place },
            Some("types") => {
                let plain = words.next().and_then(one_char);
                let plain = plain.ok_or_else(|| format!("`{input} types` wants one character"))?;
                EventKind::KeyTypes { place, plain }
            }
            Some(other) => {
                return Err(format!("`{input}` goes `down` or `up`, not `{other}`"));
            }
            None => return Err(format!("`{input}` wants `down`, `up` or `held` behind it")),
        },
        Input::MouseButton(button) => EventKind::MouseButton {
            button,
            down: read_down(input, words)?,
        },
        Input::Hid(HidInput::Button(button)) => EventKind::HidButton {
            button,
            down: read_down(input, words)?,
        },
        Input::Hid(HidInput::Hat(direction)) => EventKind::HidHat {
            direction,
            down: read_down(input, words)?,
        },
        Input::Touch(name) => match words.next() {
            Some(word @ ("down" | "up")) => EventKind::Touch {
                name,
                down: word == "down",
            },
            Some(x) => {
                let axis = |w: Option<&str>| {
                    w.and_then(|w| w.parse().ok())
                        .filter(|n: &f32| n.is_finite())
                };
                match (axis(Some(x)), axis(words.next())) {
                    (Some(x), Some(y)) => EventKind::TouchStick { name, x, y },
                    _ => return Err(format!("`{input}` wants `down`, `up` or two numbers")),
                }
            }
            None => return Err(format!("`{input}` wants `down`, `up` or two numbers")),
        },
        Input::Modifier(_) | Input::Letter(_) | Input::PadStickHalf(..) | Input::Hid(_) => {
            return Err(format!(
                "`{input}` is no input of a device; write the key or the whole axis"
            ));
        }
    })
}

fn read_down<'a>(input: Input, words: &mut impl Iterator<Item = &'a str>) -> Result<bool, String> {
    match words.next() {
        Some("down") => Ok(true),
        Some("up") => Ok(false),
        Some(other) => Err(format!("`{input}` goes `down` or `up`, not `{other}`")),
        None => Err(format!("`{input}` wants `down` or `up` behind it")),
    }
}

/// A single character, or one written as `U+0020` because it would be lost among the spaces.
fn one_char(text: &str) -> Option<char> {
    let mut chars = text.chars();
    match (chars.next(), chars.next()) {
        (Some(c), None) => Some(c),
        _ => u32::from_str_radix(text.strip_prefix("U+")?, 16)
            .ok()
            .and_then(char::from_u32),
    }
}

fn read_time(text: &str) -> Option<Time> {
    let (seconds, decimals) = text.split_once('.').unwrap_or((text, ""));
    let digits = |t: &str| t.bytes().all(|b| b.is_ascii_digit());
    if seconds.is_empty() || !digits(seconds) || !digits(decimals) || decimals.len() > 6 {
        return None;
    }
    let whole: u64 = seconds.parse().ok()?;
    let part: u64 = format!("{decimals:0<6}").parse().ok()?;
    Some(Time::from_micros(
        whole.checked_mul(1_000_000)?.checked_add(part)?,
    ))
}

impl fmt::Display for Trace {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let format = self
            .entries
            .iter()
            .map(TraceEntry::format)
            .max()
            .unwrap_or(1);
        writeln!(f, "format {format}")?;
        self.entries
            .iter()
            .try_for_each(|entry| writeln!(f, "{entry}"))
    }
}

impl fmt::Display for TraceEntry {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let micros = self.at().as_micros();
        write!(f, "{}.{:06} ", micros / 1_000_000, micros % 1_000_000)?;
        match self {
            TraceEntry::Situations { names, .. } => {
                write!(f, "situation {}", names.join(" "))
            }
            TraceEntry::Event(event) => write_event(event, f),
            TraceEntry::Overheard(event) => {
                f.write_str("overheard ")?;
                write_event(event, f)
            }
            TraceEntry::Tick { .. } => f.write_str("tick"),
            TraceEntry::Advance { .. } => f.write_str("advance"),
            TraceEntry::Rig {
                layout,
                platform,
                profile,
                ..
            } => {
                f.write_str("rig ")?;
                layout
                    .chars()
                    .try_for_each(|c| match is_lost(c) || c == '\\' {
                        true => write!(f, "\\u{{{:x}}}", u32::from(c)),
                        false => write!(f, "{c}"),
                    })?;
                write!(f, " {}", platform.word())?;
                profile.lines().try_for_each(|line| write!(f, "\n| {line}"))
            }
        }
    }
}

/// Whether a character would be lost among spaces, or begin a comment.
fn is_lost(c: char) -> bool {
    c.is_whitespace() || c.is_control() || c == '#'
}

fn write_char(c: char, f: &mut fmt::Formatter<'_>) -> fmt::Result {
    match is_lost(c) {
        true => write!(f, " U+{:04X}", u32::from(c)),
        false => write!(f, " {c}"),
    }
}

fn write_event(event: &Event, f: &mut fmt::Formatter<'_>) -> fmt::Result {
    match event.device {
        DeviceId::ALL => f.write_str("- ")?,
        DeviceId(number) => write!(f, "{number} ")?,
    }
    let word = |down| if down { "down" } else { "up" };
    match event.what {
        EventKind::Key { place, down, text } => {
            write!(f, "{place} {}", word(down))?;
            text.map_or(Ok(()), |c| write_char(c, f))
        }
        EventKind::KeyTypes { place, plain } => {
            write!(f, "{place} types")?;
            write_char(plain, f)
        }
        EventKind::Scroll { x, y } => write!(f, "scroll {x} {y}"),
        EventKind::KeyHeld { place } => write!(f, "{place} held"),
        EventKind::MouseButton { button, down } => {
            write!(f, "{} {}", Input::MouseButton(button), word(down))
        }
        EventKind::MouseMove { x, y } => write!(f, "mouse:move {x} {y}"),
        EventKind::PadGyro { yaw, pitch, roll } => {
            write!(f, "pad:gyro {yaw} {pitch} {roll}")
        }
        EventKind::Wheel { direction } => write!(f, "{}", Input::Wheel(direction)),
        EventKind::PadButton { button, value } => {
            write!(f, "{} {value}", Input::PadButton(button))
        }
        EventKind::PadStick { stick, x, y } => write!(f, "{} {x} {y}", Input::PadStick(stick)),
        EventKind::HidButton { button, down } => {
            write!(f, "{} {}", Input::Hid(HidInput::Button(button)), word(down))
        }
        EventKind::HidHat { direction, down } => {
            write!(f, "{} {}", Input::Hid(HidInput::Hat(direction)), word(down))
        }
        EventKind::HidAxis { axis, value } => {
            write!(f, "{} {value}", Input::Hid(HidInput::Axis(axis)))
        }
        EventKind::Touch { name, down } => write!(f, "touch:{name} {}", word(down)),
        EventKind::TouchStick { name, x, y } => write!(f, "touch:{name} {x} {y}"),
        EventKind::Plugged { usb: None } => f.write_str("plugged"),
        EventKind::Plugged { usb: Some(usb) } => write!(f, "plugged {usb}"),
        EventKind::Unplugged => f.write_str("unplugged"),
        EventKind::FocusLost => f.write_str("focus-lost"),
    }
}

//! The physical form of a keyboard: which places have a key, where it is and how large.

use std::sync::OnceLock;

use crate::input::Place;
use crate::text::spelled;

spelled! {
    /// The physical form of a keyboard.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
    #[non_exhaustive]
    pub enum Board {
        /// ANSI, one wide left Shift.
        Ansi = "ANSI",
        /// ISO, with a key right of a short left Shift (`IntlBackslash`).
        Iso = "ISO",
        /// JIS, the Japanese form.
        Jis = "JIS",
        /// ABNT2, the Brazilian form.
        Abnt2 = "ABNT2",
        /// KS, the Korean form.
        Ks = "KS",
    }
}

/// A key of a board: where it is and how large, in key widths of 19.05 mm, from the top left.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Keycap {
    /// The place.
    pub place: Place,
    /// Its left edge.
    pub x: f32,
    /// Its upper edge.
    pub y: f32,
    /// How wide it is.
    pub width: f32,
    /// How high it is.
    pub height: f32,
}

impl Keycap {
    /// Its middle.
    pub fn center(&self) -> [f32; 2] {
        [self.x + self.width / 2.0, self.y + self.height / 2.0]
    }
}

spelled! {
    /// A hand on the keyboard.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    pub enum Hand {
        /// The left one.
        Left = "left",
        /// The right one.
        Right = "right",
    }
}

/// Keys whose middle is left of this are in reach of the left hand (`KeyB` and `Digit6` just so).
const LEFT_REACH: f32 = 6.8;
/// Keys whose middle is right of this are in reach of the right hand.
const RIGHT_REACH: f32 = 6.4;

impl Board {
    /// What is printed on a key of the board whatever the layout is.
    ///
    /// The Japanese form (JIS X 6002) has ¥ and \\ on keys of their own, which both type a backslash,
    /// and the keys of its input methods; so has the Korean one (KS X 5002).
    pub(super) const fn printed(self, place: Place) -> Option<&'static str> {
        match (self, place) {
            (Board::Jis, Place::Backquote) => Some("半角/全角"),
            (Board::Jis, Place::IntlYen) => Some("¥"),
            (Board::Jis, Place::IntlRo) => Some("\\"),
            (Board::Jis, Place::Convert) => Some("変換"),
            (Board::Jis, Place::NonConvert) => Some("無変換"),
            (Board::Jis, Place::KanaMode) => Some("カタカナ ひらがな"),
            (Board::Ks, Place::Lang1) => Some("한/영"),
            (Board::Ks, Place::Lang2) => Some("한자"),
            _ => None,
        }
    }

    /// The board of that name, in any case.
    pub fn named(name: &str) -> Option<Board> {
        let mut all = Self::ALL.into_iter();
        all.find(|b| b.word().eq_ignore_ascii_case(name))
    }

    /// Whether the board has a key at that place; places that are beside the main block, or on no
    /// usual board, count as there.
    pub const fn has(self, place: Place) -> bool {
        match place {
            Place::IntlBackslash => matches!(self, Board::Iso | Board::Abnt2),
            Place::IntlRo => matches!(self, Board::Jis | Board::Abnt2),
            Place::IntlYen | Place::Convert | Place::NonConvert | Place::KanaMode => {
                matches!(self, Board::Jis)
            }
            Place::Lang1 | Place::Lang2 => matches!(self, Board::Ks),
            _ => true,
        }
    }

    /// Every key of a full-size board, row by row.
    pub fn keys(self) -> &'static [Keycap] {
        static KEYS: [OnceLock<Vec<Keycap>>; 5] = [const { OnceLock::new() }; 5];
        KEYS[self as usize].get_or_init(|| lay_out(self))
    }

    /// The key at a place.
    pub fn key(self, place: Place) -> Option<&'static Keycap> {
        self.keys().iter().find(|k| k.place == place)
    }

    /// How far the middles of two keys are apart, in key widths.
    pub fn distance(self, a: Place, b: Place) -> Option<f32> {
        let [ax, ay] = self.key(a)?.center();
        let [bx, by] = self.key(b)?.center();
        Some((ax - bx).hypot(ay - by))
    }

    /// Whether a hand that stays on its half of the board reaches a key.
    pub fn reaches(self, hand: Hand, place: Place) -> bool {
        let Some(key) = self.key(place) else {
            return false;
        };
        let middle = key.center()[0];
        match hand {
            _ if place == Place::Space => true,
            Hand::Left => middle < LEFT_REACH,
            Hand::Right => middle > RIGHT_REACH,
        }
    }
}

/// Rows as they are laid out, left to right.
struct Rows(Vec<Keycap>);

impl Rows {
    /// Keys of width 1 from `x` on.
    fn run(&mut self, x: f32, y: f32, places: &[Place]) {
        self.sized(x, y, &places.iter().map(|&p| (p, 1.0)).collect::<Vec<_>>());
    }

    fn sized(&mut self, mut x: f32, y: f32, keys: &[(Place, f32)]) {
        for &(place, width) in keys {
            self.0.push(Keycap {
                place,
                x,
                y,
                width,
                height: 1.0,
            });
            x += width;
        }
    }

    fn tall(&mut self, x: f32, y: f32, place: Place, width: f32) {
        self.0.push(Keycap {
            place,
            x,
            y,
            width,
            height: 2.0,
        });
    }
}

/// The keys of a board, after ISO/IEC 9995-1 (rows and stagger), ANSI INCITS 154, JIS X 6002,
/// ABNT NBR 10346 and KS X 5002.
fn lay_out(board: Board) -> Vec<Keycap> {
    use Place::*;
    let mut rows = Rows(Vec::with_capacity(112));
    rows.run(0.0, 0.0, &[Escape]);
    rows.run(2.0, 0.0, &[F1, F2, F3, F4]);
    rows.run(6.5, 0.0, &[F5, F6, F7, F8]);
    rows.run(11.0, 0.0, &[F9, F10, F11, F12]);
    rows.run(15.5, 0.0, &[PrintScreen, ScrollLock, Pause]);

    let digits = [
        Backquote, Digit1, Digit2, Digit3, Digit4, Digit5, Digit6, Digit7, Digit8, Digit9, Digit0,
        Minus, Equal,
    ];
    rows.run(0.0, 1.5, &digits);
    match board {
        Board::Jis => rows.run(13.0, 1.5, &[IntlYen, Backspace]),
        _ => rows.sized(13.0, 1.5, &[(Backspace, 2.0)]),
    }

    rows.sized(0.0, 2.5, &[(Tab, 1.5)]);
    let upper = [
        KeyQ,
        KeyW,
        KeyE,
        KeyR,
        KeyT,
        KeyY,
        KeyU,
        KeyI,
        KeyO,
        KeyP,
        BracketLeft,
        BracketRight,
    ];
    rows.run(1.5, 2.5, &upper);
    rows.sized(0.0, 3.5, &[(CapsLock, 1.75)]);
    let home = [
        KeyA, KeyS, KeyD, KeyF, KeyG, KeyH, KeyJ, KeyK, KeyL, Semicolon, Quote,
    ];
    rows.run(1.75, 3.5, &home);
    match board {
        Board::Ansi | Board::Ks => {
            rows.sized(13.5, 2.5, &[(Backslash, 1.5)]);
            rows.sized(12.75, 3.5, &[(Enter, 2.25)]);
        }
        Board::Iso | Board::Jis | Board::Abnt2 => {
            rows.run(12.75, 3.5, &[Backslash]);
            rows.tall(13.75, 2.5, Enter, 1.25);
        }
    }
    match board {
        Board::Iso | Board::Abnt2 => {
            rows.sized(0.0, 4.5, &[(ShiftLeft, 1.25), (IntlBackslash, 1.0)]);
        }
        _ => rows.sized(0.0, 4.5, &[(ShiftLeft, 2.25)]),
    }
    let lower = [
        KeyZ, KeyX, KeyC, KeyV, KeyB, KeyN, KeyM, Comma, Period, Slash,
    ];
    rows.run(2.25, 4.5, &lower);
    match board {
        Board::Jis | Board::Abnt2 => {
            rows.sized(12.25, 4.5, &[(IntlRo, 1.0), (ShiftRight, 1.75)]);
        }
        _ => rows.sized(12.25, 4.5, &[(ShiftRight, 2.75)]),
    }
    bottom(&mut rows, board);
    beside(&mut rows, board);
    rows.0
}

/// The row of the space bar.
fn bottom(rows: &mut Rows, board: Board) {
    use Place::*;
    let keys: &[(Place, f32)] = match board {
        Board::Jis => &[
            (ControlLeft, 1.25),
            (MetaLeft, 1.25),
            (AltLeft, 1.25),
            (NonConvert, 1.25),
            (Space, 3.5),
            (Convert, 1.25),
            (KanaMode, 1.25),
            (AltRight, 1.25),
            (ContextMenu, 1.25),
            (ControlRight, 1.5),
        ],
        Board::Ks => &[
            (ControlLeft, 1.25),
            (MetaLeft, 1.25),
            (AltLeft, 1.25),
            (Lang2, 1.25),
            (Space, 4.5),
            (Lang1, 1.25),
            (AltRight, 1.25),
            (ContextMenu, 1.25),
            (ControlRight, 1.75),
        ],
        Board::Ansi | Board::Iso | Board::Abnt2 => &[
            (ControlLeft, 1.25),
            (MetaLeft, 1.25),
            (AltLeft, 1.25),
            (Space, 6.25),
            (AltRight, 1.25),
            (MetaRight, 1.25),
            (ContextMenu, 1.25),
            (ControlRight, 1.25),
        ],
    };
    rows.sized(0.0, 5.5, keys);
}

/// The blocks right of the writing keys: editing, arrows, numpad.
fn beside(rows: &mut Rows, board: Board) {
    use Place::*;
    rows.run(15.5, 1.5, &[Insert, Home, PageUp]);
    rows.run(15.5, 2.5, &[Delete, End, PageDown]);
    rows.run(16.5, 4.5, &[ArrowUp]);
    rows.run(15.5, 5.5, &[ArrowLeft, ArrowDown, ArrowRight]);
    rows.run(
        19.0,
        1.5,
        &[NumLock, NumpadDivide, NumpadMultiply, NumpadSubtract],
    );
    rows.run(19.0, 2.5, &[Numpad7, Numpad8, Numpad9]);
    rows.run(19.0, 3.5, &[Numpad4, Numpad5, Numpad6]);
    if board == Board::Abnt2 {
        rows.run(22.0, 2.5, &[NumpadAdd]);
        rows.run(22.0, 3.5, &[NumpadComma]);
    } else {
        rows.tall(22.0, 2.5, NumpadAdd, 1.0);
    }
    rows.run(19.0, 4.5, &[Numpad1, Numpad2, Numpad3]);
    rows.tall(22.0, 4.5, NumpadEnter, 1.0);
    rows.sized(19.0, 5.5, &[(Numpad0, 2.0), (NumpadDecimal, 1.0)]);
}

//! Colours: told apart without seeing red from green, and never the only sign.

/// The colours of a group of actions.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Tint {
    /// What a key of the group is filled with.
    pub fill: &'static str,
    /// Its edge and badge.
    pub edge: &'static str,
}

const fn tint(fill: &'static str, edge: &'static str) -> Tint {
    Tint { fill, edge }
}

/// The colours of a picture, as `#rrggbb`.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Theme {
    /// Behind everything.
    pub paper: &'static str,
    /// Text and lines.
    pub ink: &'static str,
    /// Text that matters less.
    pub quiet: &'static str,
    /// The top of a keycap, the body of a mouse or pad.
    pub cap: &'static str,
    /// Their edge.
    pub edge: &'static str,
    /// The part that is meant.
    pub accent: &'static str,
    /// Text on that part.
    pub on_accent: &'static str,
    /// What is wrong.
    pub alarm: &'static str,
    /// Text on badges.
    pub on_badge: &'static str,
    /// Groups of actions, in turn: different in lightness and hue, and numbered besides.
    pub groups: [Tint; 8],
}

impl Theme {
    /// Dark ink on light paper, also for print.
    pub const LIGHT: Theme = Theme {
        paper: "#ffffff",
        ink: "#1a2026",
        quiet: "#5c6670",
        cap: "#f3f5f7",
        edge: "#7d8894",
        accent: "#1c5a96",
        on_accent: "#ffffff",
        alarm: "#a11a35",
        on_badge: "#ffffff",
        groups: [
            tint("#dce9f7", "#2a5d96"),
            tint("#fbeccb", "#7d5a00"),
            tint("#e6dcf3", "#6a3f98"),
            tint("#d5eee9", "#11695c"),
            tint("#f8dde3", "#9a2f4d"),
            tint("#e8e9ce", "#5d6314"),
            tint("#d9e0e6", "#44525f"),
            tint("#f6dfce", "#8f4413"),
        ],
    };

    /// Light ink on dark paper, for most games.
    pub const DARK: Theme = Theme {
        paper: "#13171c",
        ink: "#eef1f4",
        quiet: "#9aa5b0",
        cap: "#29313a",
        edge: "#697684",
        accent: "#f2b84b",
        on_accent: "#1a1405",
        alarm: "#ff8d9e",
        on_badge: "#11151a",
        groups: [
            tint("#1f3853", "#86b8ec"),
            tint("#4a3a10", "#f0c566"),
            tint("#3b2a52", "#c3a2ea"),
            tint("#153f39", "#77d2c1"),
            tint("#52222f", "#f39db3"),
            tint("#3b3e14", "#cdd275"),
            tint("#313b45", "#b4c2cf"),
            tint("#4b2a14", "#f1ac7f"),
        ],
    };

    /// The theme of that word: `light` or `dark`.
    pub fn from_word(word: &str) -> Option<Theme> {
        match word {
            "light" => Some(Theme::LIGHT),
            "dark" => Some(Theme::DARK),
            _ => None,
        }
    }

    /// The colours of the n-th group.
    pub fn group(&self, n: usize) -> Tint {
        self.groups[n % self.groups.len()]
    }
}

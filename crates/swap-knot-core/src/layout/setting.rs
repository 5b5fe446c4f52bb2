//! What an operating system says about the player's layout.

use super::Layout;

/// The names of layouts and variants that a system is set to, in its order.
///
/// It reads nothing itself: hand it the text of the settings. The first layout is the one in use
/// when a session starts.
///
/// ```
/// use swap_knot::layout::LayoutSetting;
///
/// let console = "XKBMODEL=\"pc105\"\nXKBLAYOUT=\"fr,us\"\nXKBVARIANT=\"bepo,\"\n";
/// let setting = LayoutSetting::from_settings_file(console).expect("it names layouts");
/// assert_eq!(setting.layout().unwrap().name(), "fr-bepo");
///
/// let property = b"evdev\0pc105\0de\0\0\0";
/// let setting = LayoutSetting::from_x11_property(property).expect("it names a layout");
/// assert_eq!(setting.layout().unwrap().name(), "de");
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LayoutSetting {
    names: Vec<(String, String)>,
}

impl LayoutSetting {
    /// From the text of `/etc/default/keyboard` (`XKBLAYOUT`, `XKBVARIANT`) or `/etc/vconsole.conf`
    /// (also `KEYMAP`); nothing when it names no layout.
    pub fn from_settings_file(text: &str) -> Option<LayoutSetting> {
        let value = |key: &str| {
            let lines = text.lines().map(str::trim);
            let mut values =
                lines.filter_map(|l| l.strip_prefix(key)?.trim_start().strip_prefix('='));
            values
                .next_back()
                .map(|v| v.trim().trim_matches(['"', '\'']))
        };
        match value("XKBLAYOUT") {
            Some(layouts) => Self::from_lists(layouts, value("XKBVARIANT").unwrap_or("")),
            // Console keymaps are called `fr`, `fr-latin1`, `de-nodeadkeys`.
            None => {
                let keymap = value("KEYMAP")?;
                let (layout, variant) = keymap.split_once('-').unwrap_or((keymap, ""));
                Self::from_lists(
                    layout,
                    if variant.starts_with("latin") {
                        ""
                    } else {
                        variant
                    },
                )
            }
        }
    }

    /// From the property `_XKB_RULES_NAMES` of an X11 root window: five texts, each ended by a zero
    /// byte (rules, model, layouts, variants, options).
    pub fn from_x11_property(bytes: &[u8]) -> Option<LayoutSetting> {
        let mut texts = bytes.split(|b| *b == 0).skip(2).map(std::str::from_utf8);
        let layouts = texts.next()?.ok()?;
        let variants = texts.next().and_then(Result::ok).unwrap_or("");
        Self::from_lists(layouts, variants)
    }

    fn from_lists(layouts: &str, variants: &str) -> Option<LayoutSetting> {
        let mut variants = variants.split(',');
        let names: Vec<(String, String)> = (layouts.split(','))
            .map(|layout| (layout.trim(), variants.next().unwrap_or("").trim()))
            .filter(|(layout, _)| !layout.is_empty())
            .map(|(layout, variant)| (layout.to_owned(), variant.to_owned()))
            .collect();
        (!names.is_empty()).then_some(LayoutSetting { names })
    }

    /// The names of layouts and variants (empty for none), in the order of the system.
    pub fn names(&self) -> impl Iterator<Item = (&str, &str)> {
        self.names.iter().map(|(l, v)| (l.as_str(), v.as_str()))
    }

    /// The first of them that is shipped.
    pub fn layout(&self) -> Option<Layout> {
        self.names()
            .find_map(|(layout, variant)| Layout::from_xkb_names(layout, variant))
    }
}

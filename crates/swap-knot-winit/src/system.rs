//! The layout that the operating system is set to.

use std::fs;

use swap_knot::Layout;
use swap_knot::layout::LayoutSetting;

/// Where Linux systems keep their keyboard settings, the graphical ones first.
const FILES: [&str; 2] = ["/etc/default/keyboard", "/etc/vconsole.conf"];

/// The player's layout as far as the system tells, to start with; a
/// [`LayoutLearner`](swap_knot::layout::LayoutLearner) follows what they really type from there.
///
/// # Platform-specific
/// - X11: the display's keyboard rules, with the feature `x11`.
/// - Linux besides: `/etc/default/keyboard`, then `/etc/vconsole.conf`.
/// - Elsewhere: nothing; the first few key presses teach it.
pub fn system_layout() -> Option<Layout> {
    let setting = from_display().or_else(from_files)?;
    setting.layout()
}

fn from_files() -> Option<LayoutSetting> {
    let mut texts = FILES.iter().filter_map(|f| fs::read_to_string(f).ok());
    texts.find_map(|text| LayoutSetting::from_settings_file(&text))
}

#[cfg(not(feature = "x11"))]
fn from_display() -> Option<LayoutSetting> {
    None
}

/// The property that `setxkbmap` and the desktops keep on the root window.
#[cfg(feature = "x11")]
fn from_display() -> Option<LayoutSetting> {
    use x11rb::connection::Connection as _;
    use x11rb::protocol::xproto::{AtomEnum, ConnectionExt as _};

    let (connection, screen) = x11rb::connect(None).ok()?;
    let root = connection.setup().roots.get(screen)?.root;
    let name = connection.intern_atom(true, b"_XKB_RULES_NAMES").ok()?;
    let atom = name.reply().ok()?.atom;
    let property = connection.get_property(false, root, atom, AtomEnum::STRING, 0, 1024);
    LayoutSetting::from_x11_property(&property.ok()?.reply().ok()?.value)
}

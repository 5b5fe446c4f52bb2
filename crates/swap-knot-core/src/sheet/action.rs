//! What a sheet declares of one action.

use std::sync::LazyLock;

use super::{ActionId, Arm, GroupId, Manner, Settings, Shape, SituationId, Stamp};
use crate::text::spelled;

spelled! {
    /// What happens when two opposite arms are held together.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
    pub enum Opposite {
        /// They cancel out.
        #[default]
        Neither = "neither",
        /// The one pressed last wins.
        Latest = "latest",
        /// The one pressed first wins.
        First = "first",
    }
}

/// What a sheet declares of one action.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct Action {
    /// Its name in files and code.
    pub name: String,
    /// What the player reads.
    pub title: String,
    /// A line about what it is for, for the player.
    pub about: Option<String>,
    /// What value it carries.
    pub shape: Shape,
    /// The situations in which it is live; none means always.
    pub situations: Vec<SituationId>,
    /// The menu heading it stands under.
    pub group: GroupId,
    /// How its inputs must be worked, unless a default says otherwise.
    pub manner: Manner,
    /// Whether it must always keep a binding.
    pub essential: bool,
    /// Whether the player may not change it.
    pub fixed: bool,
    /// Whether it is switched off: gone from live input, menu, prompts and conflicts together.
    pub off: bool,
    /// Whether it goes on in situations that are covered by another one.
    pub while_paused: bool,
    /// Whether its keys reach it while the player types text.
    pub while_typing: bool,
    /// Whether an input that is held already works it again when its situation comes back; see
    /// [`Action::resumes`] for what it is where the sheet does not say.
    pub resume: Option<bool>,
    /// What opposite arms held together do.
    pub opposite: Opposite,
    /// Whether what it says is a rate, such as a speed of turning, rather than a position to hold:
    /// sensitivity then goes beyond full, and [`Seat::turn`](crate::Seat::turn) is exact between two
    /// events.
    pub rate: bool,
    /// Whether the player may have it eased, see [`Easing`](crate::sheet::Easing): not where skill is the
    /// game, such as in a rhythm.
    pub ease: bool,
    /// What the sheet sets for it, over what it sets for all: its times, its feel on each device kind.
    pub settings: Settings,
    /// Other actions that it is content to share inputs with.
    pub share: Vec<ActionId>,
    pub(super) arms: Vec<Arm>,
    /// The same in the order in which the sheet declares them.
    pub(super) menu_arms: Vec<Arm>,
    pub(super) arm_titles: [Option<String>; 6],
    /// Which of them the sheet gives, a bit an arm; the others are put together.
    pub(super) own_arm_titles: u8,
}

impl Action {
    /// What stands for an action of another sheet: off, so that nothing comes of it.
    pub(super) fn unknown() -> &'static Action {
        static UNKNOWN: LazyLock<Action> = LazyLock::new(|| Action {
            name: "?".to_owned(),
            title: "?".to_owned(),
            about: None,
            shape: Shape::Press,
            situations: Vec::new(),
            group: GroupId::new(u16::MAX, Stamp::default()),
            manner: Manner::Press,
            essential: false,
            fixed: true,
            off: true,
            while_paused: false,
            while_typing: false,
            resume: None,
            opposite: Opposite::Neither,
            rate: false,
            ease: false,
            settings: Settings::default(),
            share: Vec::new(),
            arms: Vec::new(),
            menu_arms: Vec::new(),
            arm_titles: [const { None }; 6],
            own_arm_titles: 0,
        });
        &UNKNOWN
    }

    /// Whether an input that is held already works it again when its situation comes back: what
    /// has a value does, a press does not, unless the sheet says otherwise.
    pub fn resumes(&self) -> bool {
        self.resume.unwrap_or(self.shape != Shape::Press)
    }

    /// Its arms, in the order of the axes; none for a press or pull.
    pub fn arms(&self) -> &[Arm] {
        &self.arms
    }

    /// What the player reads for an arm.
    pub fn arm_title(&self, arm: Arm) -> &str {
        self.arm_titles[arm as usize]
            .as_deref()
            .unwrap_or(&self.title)
    }

    /// The title of an arm, where the sheet gives it one of its own.
    pub(crate) fn own_arm_title(&self, arm: Arm) -> Option<&str> {
        let own = self.own_arm_titles & (1 << arm as u8) != 0;
        own.then(|| self.arm_title(arm))
    }
}

//! What is going on in the game, which decides what is live together.

use super::SituationId;

/// What a situation does to those it is laid over.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Cover {
    /// Nothing: both are live.
    None,
    /// It takes the inputs that it uses; the others still reach those below.
    Used,
    /// Those below are silent, but for actions that go on while paused.
    All,
}

impl Cover {
    /// Every way to cover.
    pub const ALL: [Cover; 3] = [Cover::None, Cover::Used, Cover::All];

    /// The word for it in a sheet.
    pub const fn word(self) -> &'static str {
        match self {
            Cover::None => "none",
            Cover::Used => "used",
            Cover::All => "all",
        }
    }
}

/// What is going on in the game: decides which actions are live together.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Situation {
    /// Its name in files and code.
    pub name: String,
    /// What the player reads.
    pub title: String,
    /// Those that can be live beside it.
    pub with: Vec<SituationId>,
    /// Those that it can be laid over.
    pub over: Vec<SituationId>,
    /// What it does to those below.
    pub cover: Cover,
    /// Whether the player types text in it, so that keys that write do not reach those below.
    pub typing: bool,
}

/// Which pairs of situations can have actions live on one input, as a square table.
///
/// Rule of the design: two actions meet only if some allowed stack has both live and neither
/// covered.
pub(super) fn meeting_table(situations: &[Situation]) -> Vec<bool> {
    let n = situations.len();
    let mut meets = vec![false; n * n];
    let mut set = |a: usize, b: usize| {
        meets[a * n + b] = true;
        meets[b * n + a] = true;
    };
    for (a, situation) in situations.iter().enumerate() {
        set(a, a);
        for b in &situation.with {
            set(a, b.index());
        }
        if situation.cover == Cover::None {
            for b in &situation.over {
                set(a, b.index());
            }
        }
    }
    meets
}

/// A situation that is laid over itself by way of others, if there is one.
pub(super) fn covering_cycle(situations: &[Situation]) -> Option<Vec<SituationId>> {
    // Depth first; `state` is 0 unseen, 1 on the path, 2 done.
    fn visit(
        at: usize,
        situations: &[Situation],
        state: &mut [u8],
        path: &mut Vec<SituationId>,
    ) -> bool {
        path.push(SituationId::new(at as u16));
        state[at] = 1;
        for below in &situations[at].over {
            let b = below.index();
            if state[b] == 1 {
                path.push(*below);
                return true;
            }
            if state[b] == 0 && visit(b, situations, state, path) {
                return true;
            }
        }
        state[at] = 2;
        path.pop();
        false
    }
    let mut state = vec![0; situations.len()];
    let mut path = Vec::new();
    for at in 0..situations.len() {
        if state[at] == 0 && visit(at, situations, &mut state, &mut path) {
            let last = path[path.len() - 1];
            let start = path.iter().position(|s| *s == last).unwrap_or(0);
            return Some(path.split_off(start));
        }
    }
    None
}

//! "Keep these controls?": what is asked before a change is kept that could leave a player unable to
//! go on.

use std::collections::BTreeSet;
use std::time::Duration;

use super::command::control_of;
use super::{Busy, ControlsScreen, Dialog, ScreenWish};
use crate::draft::{Cancelling, Draft, cancels};
use crate::input::{DeviceKind, Event, InputShape, Time};
use crate::law::Bound;
use crate::profile::Setting;
use crate::prompt::Prompt;
use crate::seat::Edge;
use crate::sheet::{ActsOn, ColumnKind, Parameter, Row};

/// How long the new controls are waited for.
const TIME: Duration = Duration::from_secs(15);

/// The new controls on trial.
#[derive(Clone, Debug)]
pub(super) struct Proving {
    /// What has to be worked, one after the other.
    rows: Vec<Row>,
    done: usize,
    until: Time,
    /// Whether the screen is left when they are kept.
    leaves: bool,
    /// The devices through which they are to be worked.
    through: ColumnKind,
    pub(super) out: WayOut,
}

/// A tap of what cancels, while everything else is played.
#[derive(Clone, Debug, Default)]
pub(super) struct WayOut {
    cancelling: Option<Cancelling>,
}

impl Proving {
    /// Whether an event is played with the new controls: what comes of the devices in hand.
    pub(super) fn is_played(&self, event: &Event) -> bool {
        let kind = event.what.device_kind();
        kind.is_none_or(|k| ColumnKind::of(k) == self.through)
    }
}

impl WayOut {
    /// Whether it was taken by this event, which presses or lets go a control.
    pub(super) fn is_taken(&mut self, event: &Event, is_fresh: bool, is_down: bool) -> bool {
        let Some(control) = control_of(event) else {
            return false;
        };
        if is_fresh && let Some(input) = control.input().filter(|i| cancels().contains(i)) {
            self.cancelling = Some(Cancelling::new(control, input, event.at));
        }
        let is_up = self.cancelling.is_some_and(|c| c.is(control)) && !is_down;
        let tapped = self.cancelling.take_if(|_| is_up);
        tapped.is_some_and(|c| event.at < c.meant_at())
    }
}

impl ControlsScreen {
    /// Has the changes applied: at once, or once the new controls have shown that they work.
    pub(super) fn apply(&mut self, leaves: bool) {
        let through = ColumnKind::of(self.hand());
        let rows = to_be_proven(&self.draft, self.hand());
        if rows.is_empty() {
            self.keep(leaves);
            return;
        }
        self.trial.set_rig(self.draft.rig());
        self.trial_of = self.draft.revision();
        self.begin(Busy::Proving(Box::new(Proving {
            rows,
            done: 0,
            until: self.now.plus(TIME),
            leaves,
            through,
            out: WayOut::default(),
        })));
        self.try_next();
    }

    fn keep(&mut self, leaves: bool) {
        self.wishes.push(ScreenWish::Apply);
        if leaves {
            self.wishes.push(ScreenWish::Leave);
        }
    }

    /// Plays where the next row is live, and with nothing else.
    fn try_next(&mut self) {
        let Busy::Proving(proving) = &self.busy else {
            return;
        };
        let Some(row) = proving.rows.get(proving.done) else {
            return;
        };
        let sheet = self.draft.sheet();
        let own = sheet.declared(row.action).situations.first().copied();
        match own.or(sheet.first_situation()) {
            Some(situation) => self.trial.set_situations(&[situation]),
            None => self.trial.set_situations::<crate::sheet::SituationId>(&[]),
        }
    }

    /// Looks whether what was asked for has been worked, or the time is up.
    pub(super) fn prove(&mut self) {
        let Busy::Proving(proving) = &mut self.busy else {
            return;
        };
        self.stale = true;
        let Some(row) = proving.rows.get(proving.done).copied() else {
            return;
        };
        let worked = self.trial.happened().iter().any(|h| {
            let is_it = h.action == row.action && (row.arm.is_none() || h.arm == row.arm);
            is_it && h.edge == Edge::Began
        });
        if worked {
            proving.done += 1;
            let (all, leaves) = (proving.done == proving.rows.len(), proving.leaves);
            if all {
                self.calm();
                self.keep(leaves);
            } else {
                self.try_next();
            }
        } else if self.now >= proving.until {
            self.put_back();
        }
    }

    /// The old controls are played on; what was changed is still there, and not applied.
    pub(super) fn put_back(&mut self) {
        self.calm();
        self.message = Some(self.text("keep-not"));
    }

    pub(super) fn view_proving(&self, proving: &Proving) -> Dialog {
        let words = self.draft.words();
        let row = proving.rows.get(proving.done).copied();
        let phrase = row.map(|row| {
            let name = self.draft.sheet().row_name(row);
            let device = self.hand();
            let text = format!("{{do:{name}:{device}}}");
            let prompt = Prompt::new(&text, self.draft.sheet());
            let prompt = prompt.map(|p| p.with_words(words));
            let shown = prompt.map(|mut p| p.render(self.trial.rig(), device).to_string());
            (shown.unwrap_or_default(), self.draft.row_title(row))
        });
        let (phrase, title) = phrase.unwrap_or_default();
        let left = Self::whole(proving.until.since(self.now));
        let seconds = left.as_secs().to_string();
        let values = [("do", &*phrase), ("title", &title)];
        Dialog {
            title: self.text("keep-title"),
            text: vec![
                words.say("keep-work", &values),
                words.say("keep-seconds", &[("seconds", &seconds)]),
            ],
            lines: vec![vec![self.button(0, self.text("keep-old"))]],
            time_left: Some(left),
            ..Dialog::default()
        }
    }
}

/// The rows that have to be worked before the changes of a draft are kept, through the devices in
/// hand: every essential one that lost all it was worked by there; where a dead zone, latching or a
/// filter of repeats has changed, one that shows that it can still be worked.
fn to_be_proven(draft: &Draft, hand: DeviceKind) -> Vec<Row> {
    let (sheet, kind) = (draft.sheet(), ColumnKind::of(hand));
    let (before, after) = (draft.applied_bindings(), draft.bindings());
    let on = |row: Row, bound: &[Bound]| -> BTreeSet<_> {
        let own = bound
            .iter()
            .filter(|b| b.cell.row == row && b.cell.column.kind() == kind);
        own.map(|b| b.chord.clone()).collect()
    };
    let essential = sheet.actions().filter(|(_, a)| a.essential && !a.off);
    let rows: Vec<Row> = essential.flat_map(|(id, _)| sheet.rows_of(id)).collect();
    let lost = |row: &&Row| {
        let (old, new) = (on(**row, before), on(**row, after));
        !old.is_empty() && !new.is_empty() && old.is_disjoint(&new)
    };
    let mut wanted: Vec<Row> = rows.iter().filter(lost).copied().collect();
    if !wanted.is_empty() {
        return wanted;
    }
    let profile = draft.profile();
    let applied = draft.applied_profile();
    let settings = profile.settings().chain(applied.settings()).map(|(s, _)| s);
    let mut risky = settings.filter(|s| {
        let is_risk = |parameter| {
            use Parameter::{DeadZone, IgnoreWithin, Latch};
            matches!(parameter, DeadZone | Latch | IgnoreWithin)
        };
        let is_risk = matches!(s, Setting::Parameter { parameter, .. } if is_risk(*parameter));
        is_risk && draft.changes_setting(s)
    });
    let Some(setting) = risky.next() else {
        return wanted;
    };
    // Of a dead zone on what is in hand it is shown with a stick; otherwise with whatever there is.
    let by_stick = matches!(
        setting,
        Setting::Parameter { scope, .. } if scope.on == ActsOn::Inputs(hand)
    );
    let about = setting.action().and_then(|name| sheet.find(name));
    let all = after.iter().filter(|b| b.cell.column.kind() == kind);
    let weight = |b: &&Bound| {
        let shape = b.chord.input().shape();
        let is_analog = matches!(
            shape,
            InputShape::Pull | InputShape::Line | InputShape::Plane
        );
        let is_essential = rows.contains(&b.cell.row);
        let is_about = about == Some(b.cell.row.action);
        // What is turned begins nothing that could be seen.
        let is_turned = shape == InputShape::Space;
        (
            is_turned,
            by_stick && !is_analog,
            !is_about,
            !is_essential,
            b.cell,
        )
    };
    wanted.extend(all.min_by_key(weight).map(|b| b.cell.row));
    wanted
}

//! The actions of a sheet, with their arms and defaults.

use std::ops::Range;

use toml::Spanned;
use toml::de::DeValue;

use super::bindings::{self, Cells};
use super::{Names, check_name, settings, titled};
use crate::input::Input;
use crate::sheet::{
    Action, ActionId, ActsOn, Arm, Binding, Group, GroupId, Manner, Opposite, Parameter, Row,
    Settings, Shape, Sheet, Situation,
};
use crate::text::{Fields, Report};

/// Learns the names of all actions, so that one can speak of another further down.
pub(super) fn declare(top: &mut Fields<'_, '_>, names: &mut Names, report: &mut Report<'_>) {
    let Some(value) = top.value("actions") else {
        return;
    };
    let Some(table) = Fields::of(value, "`actions`", report) else {
        return;
    };
    for (i, (name, span, _)) in table.entries().enumerate() {
        check_name("an action", name, span.start, report);
        if i >= Sheet::MAX_ACTIONS {
            report.add(
                span.start,
                format!("a sheet has at most {} actions", Sheet::MAX_ACTIONS),
            );
            return;
        }
        names
            .actions
            .insert(name.to_owned(), ActionId::new(i as u16, names.stamp));
        names.action_order.push(name.to_owned());
    }
}

pub(super) fn read(
    top: &mut Fields<'_, '_>,
    names: &mut Names,
    situations: &[Situation],
    of_all: &Settings,
    report: &mut Report<'_>,
) -> (Vec<Action>, Vec<Binding>) {
    let (mut actions, mut defaults) = (Vec::new(), Vec::new());
    let Some(table) = top.value("actions").and_then(|v| v.get_ref().as_table()) else {
        return (actions, defaults);
    };
    let table = Fields::new(table, 0);
    for (i, (name, span, value)) in table.entries().take(Sheet::MAX_ACTIONS).enumerate() {
        let mut reader = Reader {
            id: ActionId::new(i as u16, names.stamp),
            name,
            span,
            names,
            situations,
            of_all,
            defaults: &mut defaults,
        };
        if let Some(action) = reader.action(value, report) {
            actions.push(action);
        }
    }
    (actions, defaults)
}

/// Reads one action.
struct Reader<'a> {
    id: ActionId,
    name: &'a str,
    span: Range<usize>,
    names: &'a mut Names,
    situations: &'a [Situation],
    of_all: &'a Settings,
    defaults: &'a mut Vec<Binding>,
}

impl Reader<'_> {
    fn action(&mut self, value: &Spanned<DeValue<'_>>, report: &mut Report<'_>) -> Option<Action> {
        let what = format!("action `{}`", self.name);
        let mut fields = Fields::of(value, &what, report)?;
        let title = fields.string("title", report);
        let title = title.map_or_else(|| titled(self.name), str::to_owned);
        let shape = fields.word("shape", &Shape::ALL, Shape::word, report);
        // Of a misspelt shape nothing more is told than that.
        let has_shape = fields.has("shape");
        let known = if has_shape { shape } else { Some(Shape::Press) };
        let shape = known.unwrap_or(Shape::Space);
        let manner = fields.word("manner", &Manner::ALL, Manner::word, report);
        let not_press = known.is_some_and(|shape| shape != Shape::Press);
        if let Some(manner) = manner.filter(|_| not_press) {
            let message =
                format!("{what} is a {shape}; only a press has a manner such as {manner}");
            report.add(self.span.start, message);
        }
        let manner = manner.unwrap_or_default();
        let situations = fields.texts("situation", report);
        let mut live_in = Vec::new();
        for (situation, at) in situations {
            live_in.extend(self.names.situation(situation, at, report));
        }
        let group = self.group(&mut fields, &live_in, report);
        let fixed = fields.boolean("fixed", report);
        let reserved = match fixed {
            true => Vec::new(),
            false => self.names.reserved.clone(),
        };
        let mut cells = Cells::new(Row::of(self.id), known, manner, &reserved);
        if let Some(bind) = fields.value("bind") {
            bindings::list(bind, &what, &mut cells, report);
        }
        self.defaults.append(&mut cells.bindings);
        let (arms, arm_titles, own_arm_titles) =
            self.arms(&mut fields, &title, known, &reserved, report);
        let named = fields.entries().filter_map(|(key, ..)| Arm::from_word(key));
        let mut menu_arms: Vec<Arm> = named.filter(|arm| arms.contains(arm)).collect();
        menu_arms.extend(
            arms.iter()
                .filter(|arm| !menu_arms.contains(arm))
                .copied()
                .collect::<Vec<_>>(),
        );
        let settings = self.settings(&mut fields, shape, report);
        let action = Action {
            name: self.name.to_owned(),
            title,
            about: fields.string("about", report).map(str::to_owned),
            shape,
            situations: live_in,
            group,
            manner,
            essential: fields.boolean("essential", report),
            fixed,
            off: fields.boolean("off", report),
            while_paused: fields.boolean("while-paused", report),
            while_typing: fields.boolean("while-typing", report),
            resume: fields.optional_boolean("resume", report),
            opposite: (fields.word("opposite", &Opposite::ALL, Opposite::word, report))
                .unwrap_or_default(),
            rate: fields.boolean("rate", report),
            ease: fields.optional_boolean("ease", report).unwrap_or(true),
            settings,
            share: self.share(&mut fields, report),
            arms,
            menu_arms,
            arm_titles,
            own_arm_titles,
        };
        if action.rate && known == Some(Shape::Press) {
            report.add(
                self.span.start,
                format!("{what} is a press; only what has a value can be a rate"),
            );
        }
        fields.finish(&what, report);
        Some(action)
    }

    fn settings(
        &self,
        fields: &mut Fields<'_, '_>,
        shape: Shape,
        report: &mut Report<'_>,
    ) -> Settings {
        let mut of_all = self.of_all.clone();
        if shape == Shape::Press {
            // For all at once it is about what has a value: a jump that toggles helps nobody.
            let mut actions = of_all.of(ActsOn::Actions).clone();
            actions.set(Parameter::Toggle, None);
            of_all.set(ActsOn::Actions, actions);
        }
        of_all.overlaid_by(&settings::of_sheet(fields, report))
    }

    /// The heading: the one that is named, or that of the first situation.
    fn group(
        &mut self,
        fields: &mut Fields<'_, '_>,
        live_in: &[crate::sheet::SituationId],
        report: &mut Report<'_>,
    ) -> GroupId {
        let groups = &mut self.names.groups;
        if let Some(value) = fields.value("group")
            && let Some(name) = fields.string("group", report)
        {
            match groups.iter().position(|g| g.name == name) {
                Some(i) => return GroupId::new(i as u16, self.names.stamp),
                None => {
                    let known = || groups.iter().map(|g| g.name.as_str());
                    report.add_no_such(report.inside(value), "group", name, known);
                }
            }
        }
        let situation = live_in.first().and_then(|s| self.situations.get(s.index()));
        let (name, title) = situation.map_or(("general", "General"), |s| (&s.name, &s.title));
        let found = groups.iter().position(|g| g.name == name);
        let index = found.unwrap_or_else(|| {
            groups.push(Group {
                name: name.to_owned(),
                title: title.to_owned(),
            });
            groups.len() - 1
        });
        GroupId::new(index as u16, self.names.stamp)
    }

    fn arms(
        &mut self,
        fields: &mut Fields<'_, '_>,
        title: &str,
        known: Option<Shape>,
        reserved: &[Input],
        report: &mut Report<'_>,
    ) -> (Vec<Arm>, [Option<String>; 6], u8) {
        let shape = known.unwrap_or(Shape::Space);
        let (mut titles, mut own_titles) = ([const { None }; 6], 0);
        let mut declared = Vec::new();
        for arm in Arm::ALL {
            let Some(value) = fields.value(arm.word()) else {
                continue;
            };
            let what = format!("arm `{}.{arm}`", self.name);
            let allowed = match shape {
                Shape::Press | Shape::Pull => false,
                Shape::Line | Shape::Space => true,
                Shape::Plane => arm.axis() < 2,
            };
            if !allowed {
                let message = match shape {
                    Shape::Plane => format!(
                        "a plane has no arm `{arm}`; for three axes say `shape = \"space\"`"
                    ),
                    _ => format!(
                        "a {shape} has no arm `{arm}`; for directions say `shape = \"line\"` or `\"plane\"`"
                    ),
                };
                report.add(value.span().start, message);
                continue;
            }
            declared.push((arm, value.span().start));
            titles[arm as usize] = Some(format!("{title}: {arm}"));
            let Some(mut table) = Fields::of(value, &what, report) else {
                continue;
            };
            if let Some(title) = table.string("title", report) {
                titles[arm as usize] = Some(title.to_owned());
                own_titles |= 1 << arm as u8;
            }
            let mut cells = Cells::new(Row::arm(self.id, arm), known, Manner::Press, reserved);
            if let Some(bind) = table.value("bind") {
                bindings::list(bind, &what, &mut cells, report);
            }
            self.defaults.append(&mut cells.bindings);
            table.finish(&what, report);
        }
        let arms = match shape {
            Shape::Press | Shape::Pull => Vec::new(),
            Shape::Plane => Arm::ALL[..4].to_vec(),
            Shape::Space => Arm::ALL.to_vec(),
            Shape::Line => {
                let axis = declared.first().map_or(0, |(arm, _)| arm.axis());
                for (arm, at) in &declared {
                    if arm.axis() != axis {
                        let message = format!(
                            "a line has one pair of arms, and `{}` has another already; for two axes say `shape = \"plane\"`",
                            declared[0].0
                        );
                        report.add(*at, message);
                    }
                }
                Arm::ALL[axis * 2..axis * 2 + 2].to_vec()
            }
        };
        for &arm in &arms {
            titles[arm as usize].get_or_insert_with(|| format!("{title}: {arm}"));
        }
        (arms, titles, own_titles)
    }

    fn share(&self, fields: &mut Fields<'_, '_>, report: &mut Report<'_>) -> Vec<ActionId> {
        let mut out = Vec::new();
        for (name, at) in fields.texts("share", report) {
            out.extend(self.names.action(name, at, report));
        }
        out
    }
}

//! The situations of a sheet.

use super::{Names, check_name, titled};
use crate::sheet::{Cover, Situation, SituationId, situation};
use crate::text::{Fields, Report};

/// The most situations a sheet can have.
const MAX_SITUATIONS: usize = 256;

pub(super) fn read(
    top: &mut Fields<'_, '_>,
    names: &mut Names,
    report: &mut Report<'_>,
) -> Vec<Situation> {
    let mut out = Vec::new();
    let Some(value) = top.value("situations") else {
        return out;
    };
    let Some(table) = Fields::of(value, "`situations`", report) else {
        return out;
    };
    // Names first, so that a situation can speak of one further down.
    for (i, (name, span, _)) in table.entries().enumerate() {
        check_name("a situation", name, span.start, report);
        if i >= MAX_SITUATIONS {
            report.add(
                span.start,
                format!("a sheet has at most {MAX_SITUATIONS} situations"),
            );
            return out;
        }
        let id = SituationId::new(i as u16, names.stamp);
        names.situations.insert(name.to_owned(), id);
        names.situation_order.push(name.to_owned());
    }
    let mut places = Vec::new();
    for (name, span, value) in table.entries() {
        let what = format!("situation `{name}`");
        places.push(span.start);
        let Some(mut fields) = Fields::of(value, &what, report) else {
            continue;
        };
        let title = fields.string("title", report);
        let with = situations("with", &mut fields, names, report);
        let over = situations("over", &mut fields, names, report);
        let cover = fields.word("cover", &Cover::ALL, Cover::word, report);
        if cover.is_some() && over.is_empty() {
            let message = format!(
                "{what} covers nothing; say what it is laid over, as in `over = [\"deck\"]`"
            );
            report.add(span.start, message);
        }
        out.push(Situation {
            name: name.to_owned(),
            title: title.map_or_else(|| titled(name), str::to_owned),
            with,
            over,
            cover: cover.unwrap_or(Cover::All),
            typing: fields.boolean("typing", report),
        });
        fields.finish(&what, report);
    }
    if out.len() == places.len()
        && let Some(cycle) = situation::covering_cycle(&out)
    {
        let path: Vec<&str> = cycle.iter().map(|&s| out[s].name.as_str()).collect();
        let message = format!(
            "situations are laid over each other in a circle: {}; take one `over` out",
            path.join(" over ")
        );
        report.add(places[cycle[0]], message);
    }
    out
}

fn situations(
    key: &'static str,
    fields: &mut Fields<'_, '_>,
    names: &Names,
    report: &mut Report<'_>,
) -> Vec<SituationId> {
    let texts = fields.texts(key, report);
    let ids = texts
        .into_iter()
        .filter_map(|(name, at)| names.situation(name, at, report));
    ids.collect()
}

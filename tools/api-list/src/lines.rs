//! A line for each thing of a crate that can be named from outside.

use std::collections::{BTreeSet, HashMap};

use syn::{Attribute, Fields, ImplItem, Item, ItemImpl, TraitItem, Type};

use crate::tree::{Named, Tree, is_public, is_test, leaves, name_of, text};

/// The impls of each type.
type Impls<'t> = HashMap<Named, Vec<&'t ItemImpl>>;

pub(crate) fn of(tree: &Tree) -> Vec<String> {
    let mut impls: Impls<'_> = HashMap::new();
    for (module, items) in tree.modules.iter().map(|m| &m.items).enumerate() {
        for item in items {
            let Item::Impl(item) = item else { continue };
            let Type::Path(of) = &*item.self_ty else {
                continue;
            };
            let path: Vec<String> = (of.path.segments.iter())
                .map(|s| s.ident.to_string())
                .collect();
            if let Some(named) = tree.find(module, &path) {
                impls.entry(named).or_default().push(item);
            }
        }
    }
    let mut list = List {
        tree,
        impls,
        lines: Vec::new(),
    };
    list.module(0, "");
    list.lines
}

struct List<'t> {
    tree: &'t Tree,
    impls: Impls<'t>,
    lines: Vec<String>,
}

impl List<'_> {
    /// Everything public in a module, under its path.
    fn module(&mut self, module: usize, path: &str) {
        let tree = self.tree;
        let mut inner: BTreeSet<(String, usize)> = BTreeSet::new();
        let mut found: BTreeSet<(String, Vec<String>)> = BTreeSet::new();
        for item in &tree.modules[module].items {
            match item {
                Item::Mod(item) if is_public(&item.vis) && !is_hidden(&item.attrs) => {
                    let name = item.ident.to_string();
                    if let Some(child) = tree.child(module, &name) {
                        let features = features(&item.attrs);
                        found.insert((String::new(), vec![format!("mod {path}{name}{features}")]));
                        inner.insert((format!("{path}{name}::"), child));
                    }
                }
                Item::Use(item) if is_public(&item.vis) && !is_hidden(&item.attrs) => {
                    for (from, name) in leaves(&item.tree) {
                        let through = from.first().and_then(|first| tree.child(module, first));
                        let stands_there = through.is_some_and(|child| {
                            self.is_public_child(module, child) && from.len() > 1
                        });
                        let lines = match (&name, tree.find(module, &from)) {
                            (Some(name), Some(named)) if !stands_there => {
                                self.named(&named, &format!("{path}{name}"))
                            }
                            _ => vec![format!(
                                "use {path}{} = {}{}",
                                name.as_deref().unwrap_or("*"),
                                from.join("::"),
                                features(&item.attrs)
                            )],
                        };
                        found.insert((name.unwrap_or_default(), lines));
                    }
                }
                _ => {
                    let name = name_of(item).map(ToString::to_string);
                    let Some(name) = name.filter(|_| is_public_item(item)) else {
                        continue;
                    };
                    let named = Named { module, name };
                    let lines = self.named(&named, &format!("{path}{}", named.name));
                    found.insert((named.name, lines));
                }
            }
        }
        for (_, lines) in found {
            self.lines.extend(lines);
        }
        for (path, child) in inner {
            self.module(child, &path);
        }
    }

    fn is_public_child(&self, module: usize, child: usize) -> bool {
        self.tree.modules[module].items.iter().any(|item| {
            matches!(item, Item::Mod(item) if is_public(&item.vis)
                && self.tree.child(module, &item.ident.to_string()) == Some(child))
        })
    }

    /// The lines of an item that is known under a path, with all that its impls have.
    fn named(&self, named: &Named, path: &str) -> Vec<String> {
        let items = &self.tree.modules[named.module].items;
        let is_it = |item: &&Item| name_of(item).is_some_and(|n| *n == named.name.as_str());
        let mut traits: BTreeSet<String> = BTreeSet::new();
        let mut lines = match items.iter().find(is_it) {
            Some(item) => declared(item, path, &mut traits),
            None => vec![format!("made by a macro: {path}")],
        };
        // In whatever order the files have them: what is moved is no change.
        let mut members: BTreeSet<String> = BTreeSet::new();
        for item in self.impls.get(named).into_iter().flatten() {
            match &item.trait_ {
                Some((name, _)) if !is_test(&item.attrs) => {
                    // A trait goes by its name, however the file that implements it calls it.
                    traits.extend(name.segments.last().map(spaced));
                }
                Some(_) => {}
                None => members.extend(item.items.iter().filter_map(|item| member(item, path))),
            }
        }
        lines.extend(members);
        if !traits.is_empty() {
            let traits: Vec<String> = traits.into_iter().collect();
            lines.push(format!("impl {} for {path}", traits.join(", ")));
        }
        lines
    }
}

/// The lines that an item itself comes to, and the traits that it derives.
fn declared(item: &Item, path: &str, traits: &mut BTreeSet<String>) -> Vec<String> {
    let (kind, attributes) = match item {
        Item::Struct(item) => ("struct", &item.attrs),
        Item::Enum(item) => ("enum", &item.attrs),
        Item::Trait(item) => ("trait", &item.attrs),
        Item::Fn(item) => ("fn", &item.attrs),
        Item::Const(item) => ("const", &item.attrs),
        Item::Static(item) => ("static", &item.attrs),
        Item::Type(item) => ("type", &item.attrs),
        _ => return Vec::new(),
    };
    for derived in attributes.iter().filter(|a| a.path().is_ident("derive")) {
        let _ = derived.parse_nested_meta(|meta| {
            traits.extend(meta.path.segments.last().map(|s| s.ident.to_string()));
            Ok(())
        });
    }
    let more = match attributes
        .iter()
        .any(|a| a.path().is_ident("non_exhaustive"))
    {
        true => " (more may come)",
        false => "",
    };
    let end = format!("{more}{}", features(attributes));
    let mut lines = Vec::new();
    match item {
        Item::Struct(item) => {
            lines.push(format!("{kind} {path}{}{end}", spaced(&item.generics)));
            lines.extend(fields(&item.fields, path, true));
        }
        Item::Enum(item) => {
            lines.push(format!("{kind} {path}{}{end}", spaced(&item.generics)));
            for variant in &item.variants {
                let path = format!("{path}::{}", variant.ident);
                lines.push(format!("variant {path}"));
                lines.extend(fields(&variant.fields, &path, false));
            }
        }
        Item::Trait(item) => {
            let bounds = spaced(&item.supertraits);
            let bounds = match bounds.is_empty() {
                true => bounds,
                false => format!(": {bounds}"),
            };
            lines.push(format!("{kind} {path}{bounds}{end}"));
            for item in &item.items {
                match item {
                    TraitItem::Fn(item) if !is_hidden(&item.attrs) => {
                        let provided = match item.default {
                            Some(_) => " (provided)",
                            None => "",
                        };
                        lines.push(format!("{path}: {}{provided}", signature(&item.sig)));
                    }
                    TraitItem::Const(item) => {
                        lines.push(format!(
                            "{path}: const {}: {}",
                            item.ident,
                            spaced(&item.ty)
                        ));
                    }
                    TraitItem::Type(item) => lines.push(format!("{path}: type {}", item.ident)),
                    _ => {}
                }
            }
        }
        Item::Fn(item) => lines.push(format!("{path}: {}{end}", signature(&item.sig))),
        Item::Const(item) => lines.push(format!("{kind} {path}: {}{end}", spaced(&item.ty))),
        Item::Static(item) => lines.push(format!("{kind} {path}: {}{end}", spaced(&item.ty))),
        Item::Type(item) => lines.push(format!("{kind} {path} = {}{end}", spaced(&item.ty))),
        _ => {}
    }
    lines
}

fn fields(fields: &Fields, path: &str, of_struct: bool) -> Vec<String> {
    let public = fields.iter().enumerate().filter(|(_, field)| {
        // Those of a variant are as public as it is.
        !of_struct || is_public(&field.vis)
    });
    let line = |(n, field): (usize, &syn::Field)| {
        let name = field
            .ident
            .as_ref()
            .map_or(n.to_string(), ToString::to_string);
        format!("field {path}.{name}: {}", spaced(&field.ty))
    };
    public.map(line).collect()
}

/// A method or constant of a type.
fn member(item: &ImplItem, path: &str) -> Option<String> {
    match item {
        ImplItem::Fn(item) if is_public(&item.vis) && !is_hidden(&item.attrs) => {
            let end = features(&item.attrs);
            Some(format!("{path}: {}{end}", signature(&item.sig)))
        }
        ImplItem::Const(item) if is_public(&item.vis) => {
            let ty = spaced(&item.ty);
            Some(format!("{path}: const {}: {ty}", item.ident))
        }
        _ => None,
    }
}

fn is_public_item(item: &Item) -> bool {
    let (visibility, attributes) = match item {
        Item::Const(item) => (&item.vis, &item.attrs),
        Item::Enum(item) => (&item.vis, &item.attrs),
        Item::Fn(item) => (&item.vis, &item.attrs),
        Item::Static(item) => (&item.vis, &item.attrs),
        Item::Struct(item) => (&item.vis, &item.attrs),
        Item::Trait(item) => (&item.vis, &item.attrs),
        Item::Type(item) => (&item.vis, &item.attrs),
        _ => return false,
    };
    // A macro that is written in Rust is called from outside though its function is not.
    let is_macro =
        |a: &Attribute| a.path().is_ident("proc_macro") || a.path().is_ident("proc_macro_derive");
    (is_public(visibility) || attributes.iter().any(is_macro)) && !is_hidden(attributes)
}

/// Whether the docs leave it out.
fn is_hidden(attributes: &[Attribute]) -> bool {
    let hidden = |a: &Attribute| a.path().is_ident("doc") && text(&a.meta).contains("hidden");
    is_test(attributes) || attributes.iter().any(hidden)
}

/// The features that it wants.
fn features(attributes: &[Attribute]) -> String {
    let cfg = attributes.iter().filter(|a| a.path().is_ident("cfg"));
    let all: Vec<String> = cfg.map(|a| text(&a.meta)).collect();
    match all.is_empty() {
        true => String::new(),
        false => format!(" [{}]", all.join(" ")),
    }
}

/// A signature on one line. Whether a function changes what it was handed over is its own affair.
fn signature(signature: &syn::Signature) -> String {
    let mut signature = signature.clone();
    for input in &mut signature.inputs {
        match input {
            syn::FnArg::Receiver(own) => own.mutability = None,
            syn::FnArg::Typed(input) => {
                if let syn::Pat::Ident(name) = &mut *input.pat {
                    name.mutability = None;
                }
            }
        }
    }
    spaced(&signature)
}

/// Tokens on one line, spaced as in code.
fn spaced(tokens: &impl quote::ToTokens) -> String {
    let text = tokens.to_token_stream().to_string();
    let mut out = String::with_capacity(text.len());
    let mut rest = text.as_str();
    // Tokens are spaced alike whatever they are: those that code writes together are put together.
    const TIGHT_BEFORE: [&str; 9] = [" ,", " ;", " :", " >", " <", " (", " )", " ]", " ::"];
    const TIGHT_AFTER: [&str; 6] = ["( ", "[ ", "& ", "< ", ":: ", "' "];
    while let Some(c) = rest.chars().next() {
        if TIGHT_BEFORE.iter().any(|t| rest.starts_with(t)) {
            rest = &rest[1..];
            continue;
        }
        out.push(c);
        rest = &rest[c.len_utf8()..];
        if rest.starts_with(' ') && TIGHT_AFTER.iter().any(|t| out.ends_with(t.trim_end())) {
            rest = rest.trim_start();
        }
    }
    out.replace(",)", ")").replace("->(", "-> (")
}

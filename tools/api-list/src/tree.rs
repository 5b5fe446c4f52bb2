//! The modules of a crate, and what a name in one of them stands for.

use std::collections::HashMap;
use std::path::{Path, PathBuf};
use std::{fs, io};

use syn::{Item, UseTree, Visibility};

/// The modules of a crate; the first one is its root.
#[derive(Debug)]
pub(crate) struct Tree {
    pub(crate) modules: Vec<Module>,
}

#[derive(Debug)]
pub(crate) struct Module {
    pub(crate) parent: usize,
    pub(crate) items: Vec<Item>,
    children: HashMap<String, usize>,
    /// Names that it has from elsewhere, and the paths of those.
    uses: HashMap<String, Vec<String>>,
    globs: Vec<Vec<String>>,
}

/// An item, or a name that no file defines: a macro does.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub(crate) struct Named {
    pub(crate) module: usize,
    pub(crate) name: String,
}

impl Tree {
    pub(crate) fn read(root: &Path) -> io::Result<Tree> {
        let mut tree = Tree {
            modules: Vec::new(),
        };
        let file = parse(root)?;
        let folder = root.parent().unwrap_or(root).to_owned();
        tree.add(0, file.items, &folder)?;
        Ok(tree)
    }

    /// Takes in a module, and those in it from its folder; answers its number.
    fn add(&mut self, parent: usize, items: Vec<Item>, folder: &Path) -> io::Result<usize> {
        let me = self.modules.len();
        self.modules.push(Module {
            parent,
            items: Vec::new(),
            children: HashMap::new(),
            uses: HashMap::new(),
            globs: Vec::new(),
        });
        let items: Vec<Item> = items
            .into_iter()
            .flat_map(crate::spelled::written_out)
            .collect();
        for item in &items {
            match item {
                Item::Mod(child) if !is_test(&child.attrs) => {
                    let name = child.ident.to_string();
                    let inner = folder.join(&name);
                    let items = match &child.content {
                        Some((_, items)) => items.clone(),
                        None => parse(&file_of(folder, &name))?.items,
                    };
                    let child = self.add(me, items, &inner)?;
                    self.modules[me].children.insert(name, child);
                }
                Item::Use(item) => {
                    let module = &mut self.modules[me];
                    for (path, name) in leaves(&item.tree) {
                        match name {
                            Some(name) => drop(module.uses.insert(name, path)),
                            None => module.globs.push(path),
                        }
                    }
                }
                _ => {}
            }
        }
        self.modules[me].items = items;
        Ok(me)
    }

    /// The module that a name in a module stands for.
    pub(crate) fn child(&self, module: usize, name: &str) -> Option<usize> {
        self.modules[module].children.get(name).copied()
    }

    /// What a path in a module leads to in this crate, through all that is used under its name.
    pub(crate) fn find(&self, module: usize, path: &[String]) -> Option<Named> {
        self.follow(module, path, 0)
    }

    fn follow(&self, module: usize, path: &[String], depth: usize) -> Option<Named> {
        // Two modules that use all of each other would go round for ever.
        if depth > 16 {
            return None;
        }
        let (first, rest) = path.split_first()?;
        let into = match first.as_str() {
            "crate" => Some(0),
            "self" => Some(module),
            "super" => Some(self.modules[module].parent),
            name => self.child(module, name),
        };
        if let (Some(into), false) = (into, rest.is_empty()) {
            return self.follow(into, rest, depth + 1);
        }
        let here = &self.modules[module];
        let defines = |item: &Item| name_of(item).is_some_and(|n| *n == first.as_str());
        if rest.is_empty() && here.items.iter().any(defines) {
            let name = first.clone();
            return Some(Named { module, name });
        }
        if let Some(used) = here.uses.get(first) {
            // A name that stands for itself comes from another crate.
            let path: Vec<String> = used.iter().chain(rest).cloned().collect();
            return (path != [first.clone()])
                .then(|| self.follow(module, &path, depth + 1))
                .flatten();
        }
        for glob in &here.globs {
            let path: Vec<String> = glob.iter().chain(path).cloned().collect();
            if let Some(found) = self.follow(module, &path, depth + 1) {
                return Some(found);
            }
        }
        let by_macro = here.items.iter().any(|item| matches!(item, Item::Macro(_)));
        (rest.is_empty() && by_macro).then(|| Named {
            module,
            name: first.clone(),
        })
    }
}

fn parse(file: &Path) -> io::Result<syn::File> {
    let text = fs::read_to_string(file)?;
    let wrong = |e: syn::Error| {
        let why = format!("{}: {e}", file.display());
        io::Error::new(io::ErrorKind::InvalidData, why)
    };
    syn::parse_file(&text).map_err(wrong)
}

fn file_of(folder: &Path, name: &str) -> PathBuf {
    let alone = folder.join(format!("{name}.rs"));
    match alone.exists() {
        true => alone,
        false => folder.join(name).join("mod.rs"),
    }
}

/// The paths of a use, each with the name that it has here; none for all that is in a module.
pub(crate) fn leaves(tree: &UseTree) -> Vec<(Vec<String>, Option<String>)> {
    let under = |name: String, mut leaves: Vec<(Vec<String>, Option<String>)>| {
        for (path, _) in &mut leaves {
            path.insert(0, name.clone());
        }
        leaves
    };
    match tree {
        UseTree::Path(path) => {
            let inner = leaves(&path.tree);
            under(path.ident.to_string(), inner)
        }
        UseTree::Name(name) => {
            let name = name.ident.to_string();
            vec![(vec![name.clone()], Some(name))]
        }
        UseTree::Rename(rename) => {
            let name = rename.rename.to_string();
            vec![(vec![rename.ident.to_string()], Some(name))]
        }
        UseTree::Glob(_) => vec![(Vec::new(), None)],
        UseTree::Group(group) => group.items.iter().flat_map(leaves).collect(),
    }
}

/// The name that an item defines.
pub(crate) fn name_of(item: &Item) -> Option<&syn::Ident> {
    match item {
        Item::Const(item) => Some(&item.ident),
        Item::Enum(item) => Some(&item.ident),
        Item::Fn(item) => Some(&item.sig.ident),
        Item::Static(item) => Some(&item.ident),
        Item::Struct(item) => Some(&item.ident),
        Item::Trait(item) => Some(&item.ident),
        Item::Type(item) => Some(&item.ident),
        _ => None,
    }
}

pub(crate) fn is_public(visibility: &Visibility) -> bool {
    matches!(visibility, Visibility::Public(_))
}

/// Whether an item is for tests alone.
pub(crate) fn is_test(attributes: &[syn::Attribute]) -> bool {
    let is = |a: &syn::Attribute| a.path().is_ident("cfg") && text(&a.meta).contains("(test)");
    attributes.iter().any(is)
}

/// Tokens as they are written, without the spaces that tokens have between them.
pub(crate) fn text(tokens: &impl quote::ToTokens) -> String {
    tokens.to_token_stream().to_string().replace(' ', "")
}

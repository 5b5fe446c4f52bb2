//! What the core's macro `spelled!` makes: an enum whose variants have words. Macros are not written out
//! otherwise, and these are names that games use.

use syn::{Item, ItemEnum};

/// The items that an item stands for.
pub(crate) fn written_out(item: Item) -> Vec<Item> {
    let declared = match &item {
        Item::Macro(call) if call.mac.path.is_ident("spelled") => call.mac.parse_body::<ItemEnum>(),
        _ => return vec![item],
    };
    let Ok(mut declared) = declared else {
        return vec![item];
    };
    for variant in &mut declared.variants {
        variant.discriminant = None;
    }
    let (name, many) = (declared.ident.to_string(), declared.variants.len());
    let impls = [
        format!(
            "impl {name} {{
                pub const ALL: [{name}; {many}] = [];
                pub const fn word(self) -> &'static str {{}}
                pub fn from_word(word: &str) -> Option<{name}> {{}}
            }}"
        ),
        format!("impl std::fmt::Display for {name} {{}}"),
    ];
    let impls = impls.iter().filter_map(|text| syn::parse_str(text).ok());
    std::iter::once(Item::Enum(declared)).chain(impls).collect()
}

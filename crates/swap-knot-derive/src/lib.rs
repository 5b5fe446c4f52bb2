//! Typed actions and situations for Swap Knot: `#[derive(Actions)]` and `#[derive(Situations)]`.
//!
//! Use them through the `swap-knot` crate, which documents what they are for.

use proc_macro::TokenStream;
use proc_macro2::TokenStream as Tokens;
use quote::quote;
use syn::{Data, DeriveInput, Error, Fields, LitStr, Variant, parse_macro_input};

/// Makes an enum the typed actions of a sheet: each variant stands for the action of its name in
/// kebab case, or of the name in `#[knot("name")]`.
#[proc_macro_derive(Actions, attributes(knot))]
pub fn actions(input: TokenStream) -> TokenStream {
    let input = parse_macro_input!(input as DeriveInput);
    let extra = |name: &syn::Ident| {
        quote! {
            impl ::core::convert::From<#name> for ::swap_knot::sheet::RowRef {
                fn from(action: #name) -> Self {
                    ::swap_knot::sheet::ActionRef::from(action).into()
                }
            }
        }
    };
    let kind = Kind {
        trait_path: quote!(::swap_knot::Actions),
        id: quote!(::swap_knot::sheet::ActionRef),
    };
    expand(&input, &kind, extra)
        .unwrap_or_else(Error::into_compile_error)
        .into()
}

/// Makes an enum the typed situations of a sheet: each variant stands for the situation of its name
/// in kebab case, or of the name in `#[knot("name")]`.
#[proc_macro_derive(Situations, attributes(knot))]
pub fn situations(input: TokenStream) -> TokenStream {
    let input = parse_macro_input!(input as DeriveInput);
    let kind = Kind {
        trait_path: quote!(::swap_knot::Situations),
        id: quote!(::swap_knot::sheet::SituationRef),
    };
    expand(&input, &kind, |_| Tokens::new())
        .unwrap_or_else(Error::into_compile_error)
        .into()
}

struct Kind {
    trait_path: Tokens,
    id: Tokens,
}

fn expand(
    input: &DeriveInput,
    Kind { trait_path, id }: &Kind,
    extra: impl Fn(&syn::Ident) -> Tokens,
) -> Result<Tokens, Error> {
    let Data::Enum(data) = &input.data else {
        return Err(Error::new_spanned(
            &input.ident,
            "only an enum can list names",
        ));
    };
    if !input.generics.params.is_empty() {
        return Err(Error::new_spanned(
            &input.generics,
            "the enum cannot be generic",
        ));
    }
    let mut names = Vec::new();
    let mut variants = Vec::new();
    for variant in &data.variants {
        if !matches!(variant.fields, Fields::Unit) {
            return Err(Error::new_spanned(
                variant,
                "a variant that stands for a name has no fields",
            ));
        }
        if let Some((_, value)) = &variant.discriminant {
            return Err(Error::new_spanned(
                value,
                "variants are counted by themselves; take the number out",
            ));
        }
        names.push(name_of(variant)?);
        variants.push(&variant.ident);
    }
    let name = &input.ident;
    let extra = extra(name);
    Ok(quote! {
        impl #trait_path for #name {
            const NAMES: &'static [&'static str] = &[#(#names),*];
            const ALL: &'static [Self] = &[#(Self::#variants),*];
        }
        impl ::core::convert::From<#name> for #id {
            fn from(one: #name) -> Self {
                // A variant stands for its name; where that was last found is only a hint.
                #id::named(<#name as #trait_path>::NAMES[one as usize], one as u16)
            }
        }
        #extra
    })
}

/// The name that a variant stands for.
fn name_of(variant: &Variant) -> Result<String, Error> {
    for attribute in &variant.attrs {
        if attribute.path().is_ident("knot") {
            return Ok(attribute.parse_args::<LitStr>()?.value());
        }
    }
    Ok(kebab(&variant.ident.to_string()))
}

/// `CastOff` becomes `cast-off`, `Stow1` becomes `stow-1`.
fn kebab(ident: &str) -> String {
    let mut out = String::new();
    let mut before = '-';
    for c in ident.chars() {
        let starts_word = c.is_uppercase() || (c.is_ascii_digit() && !before.is_ascii_digit());
        if starts_word && before != '-' {
            out.push('-');
        }
        out.extend(c.to_lowercase());
        before = c;
    }
    out
}

//! By which numbers a device says who made it.

use std::fmt;
use std::str::FromStr;

/// The numbers by which a device on USB says who made it and what it is (`idVendor` and `idProduct`
/// of the [USB specification](https://www.usb.org/documents)).
///
/// ```
/// use swap_knot::input::UsbId;
///
/// let pad: UsbId = "1209:5a01".parse()?;
/// assert_eq!(pad, UsbId { vendor: 0x1209, product: 0x5a01 });
/// assert_eq!(pad.to_string(), "1209:5a01");
/// # Ok::<(), swap_knot::input::UsbIdError>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct UsbId {
    /// Who made it.
    pub vendor: u16,
    /// What it is.
    pub product: u16,
}

/// Some or all products of a vendor: `1209:5a01`, or `1209:*`.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct UsbFilter {
    /// Who made them.
    pub vendor: u16,
    /// Which one; none for all.
    pub product: Option<u16>,
}

/// A text that is no USB number.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("`{text}` is no USB number; write {how}")]
pub struct UsbIdError {
    text: String,
    how: &'static str,
}

impl UsbId {
    /// The numbers that a system gives, which writes zeros for what it does not know.
    pub fn known(vendor: u16, product: u16) -> Option<UsbId> {
        (vendor != 0).then_some(UsbId { vendor, product })
    }
}

impl UsbFilter {
    /// Of several that may be meant, those that fit a device best: one that names its product goes
    /// before one that takes every product of the vendor, and an earlier one before a later one.
    pub fn best<'f, T>(
        all: impl Iterator<Item = (&'f UsbFilter, T)> + Clone,
        id: UsbId,
    ) -> Option<T> {
        let fits = |product: Option<u16>| {
            let mut all = all.clone();
            let (vendor, product) = (id.vendor, product);
            all.find(move |(f, _)| f.vendor == vendor && f.product == product)
        };
        let found = fits(Some(id.product)).or_else(|| fits(None))?;
        Some(found.1)
    }
}

impl fmt::Display for UsbId {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{:04x}:{:04x}", self.vendor, self.product)
    }
}

impl fmt::Display for UsbFilter {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self.product {
            Some(product) => write!(f, "{:04x}:{product:04x}", self.vendor),
            None => write!(f, "{:04x}:*", self.vendor),
        }
    }
}

impl FromStr for UsbId {
    type Err = UsbIdError;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        let parts = text.split_once(':');
        let numbers = parts.and_then(|(v, p)| Some((four(v)?, four(p)?)));
        let (vendor, product) = numbers.ok_or_else(|| UsbIdError {
            text: text.to_owned(),
            how: "four hexadecimal digits, `:`, and four more",
        })?;
        Ok(UsbId { vendor, product })
    }
}

impl FromStr for UsbFilter {
    type Err = UsbIdError;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        let parts = text.split_once(':');
        let numbers = parts.and_then(|(vendor, product)| {
            let product = match product {
                "*" => None,
                digits => Some(four(digits)?),
            };
            Some((four(vendor)?, product))
        });
        let (vendor, product) = numbers.ok_or_else(|| UsbIdError {
            text: text.to_owned(),
            how: "four hexadecimal digits, `:`, and four more or `*`",
        })?;
        Ok(UsbFilter { vendor, product })
    }
}

fn four(digits: &str) -> Option<u16> {
    let all = digits.len() == 4 && digits.bytes().all(|b| b.is_ascii_hexdigit());
    all.then(|| u16::from_str_radix(digits, 16).ok()).flatten()
}

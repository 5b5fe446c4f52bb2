//! A number for a text that is the same on every machine and in every version.

/// FNV-1a (Fowler, Noll, Vo; 64 bits): short, and what it is for ever, so that it may stand in files.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Fnv(u64);

impl Fnv {
    pub(crate) const fn new() -> Fnv {
        Fnv(0xcbf2_9ce4_8422_2325)
    }

    pub(crate) fn add(&mut self, bytes: impl IntoIterator<Item = u8>) {
        for byte in bytes {
            self.0 = (self.0 ^ u64::from(byte)).wrapping_mul(0x0000_0100_0000_01b3);
        }
    }

    pub(crate) const fn number(self) -> u64 {
        self.0
    }
}

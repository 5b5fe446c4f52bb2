//! Nothing but its dependencies: see its manifest.

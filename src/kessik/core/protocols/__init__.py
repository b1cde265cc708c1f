"""How a run goes: methods, stop rules, and the run's state as a pure fold over its bench log."""

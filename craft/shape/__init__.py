"""From a shape to rounds: profiles, targets, drafting."""

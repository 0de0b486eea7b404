"""The live state: what plays since when and how strong. A fold: `act(state, action, t)` and `advance(state, t)` give new
states, and the same actions give the same state whenever frames were made. Never changed by undo."""

"""Umber Pebble: a bench companion for casting chocolate, isomalt and cooked sugar."""

ENGINE_VERSION = "7"
"""Raised whenever the same inputs would give other figures; frozen with every run."""

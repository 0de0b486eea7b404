"""Starts, kills and fuzz: what needs the machine for itself, so it runs last and one after another."""

"""Flask: thin blueprints over the show, the core's previews, and a live socket to the engine."""

"""Alembic's entry: migrates over the connection that `store.migrate` hands in."""

from alembic import context

from zarabanda.show.tables import Base

context.configure(connection=context.config.attributes["connection"], target_metadata=Base.metadata, render_as_batch=True)
with context.begin_transaction():
    context.run_migrations()

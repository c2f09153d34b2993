"""Alembic's entry: runs migrations on the connection that `open_database` hands over."""

from alembic import context

context.configure(connection=context.config.attributes["connection"], render_as_batch=True)
with context.begin_transaction():
    context.run_migrations()
